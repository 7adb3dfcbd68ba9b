package org.calmpalette.core.promise;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.calmpalette.core.page.Paths;
import org.calmpalette.core.setting.ColorKind;
import org.calmpalette.core.setting.GradientKind;
import org.calmpalette.core.setting.Kind;
import org.calmpalette.core.setting.LinkKind;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.ShadowKind;
import org.calmpalette.core.survey.Finding;
import org.calmpalette.core.theme.Theme;

/**
 * Promises that boxes decide: what the survey finds of the theme as it is made breaks them. What settings do that move boxes or bring
 * pictures is not measured, so where nothing is found they stay open, with what keeps them so.
 */
final class AsMade {
    private static final Map<Promise, Set<Finding.Kind>> KINDS = new EnumMap<>(Map.of(
            Promise.COVERED, Set.of(Finding.Kind.SEAM, Finding.Kind.TILE_SEAM),
            Promise.SHARP, Set.of(Finding.Kind.BLURRED_PICTURE),
            Promise.IN_SIGHT, Set.of(Finding.Kind.LOST_SUBJECT),
            Promise.UNDISTORTED, Set.of(Finding.Kind.STRETCHED_PICTURE),
            Promise.CLEAR, Set.of(Finding.Kind.COVERED_TARGET, Finding.Kind.COVERED_CONTENT),
            Promise.FITS, Set.of(Finding.Kind.WIDER_PAGE, Finding.Kind.PUSHED_TEXT)));

    private static final Set<Promise> OF_PICTURES =
            Set.of(Promise.COVERED, Promise.SHARP, Promise.IN_SIGHT, Promise.UNDISTORTED);

    private AsMade() {}

    /** @param measured pages whose boxes are known */
    static List<Answer> of(Theme theme, Promise promise, List<Finding> findings, Set<String> measured) {
        List<Answer> all = new ArrayList<>();
        for (Finding f : findings) {
            if (KINDS.get(promise).contains(f.kind())) {
                Answer.Subject subject = new Answer.Subject(
                        Paths.isPage(f.file()) ? f.file() : "",
                        -1,
                        f.subject(),
                        f.kind().heading() + ": " + f.subject(),
                        0);
                all.add(Answer.broken(promise, subject, Map.of(), f.message()).told(f));
            }
        }
        if (!all.isEmpty()) {
            return all;
        }
        Answer.Subject subject = Answer.Subject.theme(theme);
        List<String> moving = theme.palette().settings().stream()
                .filter(s -> !isFlat(s.kind()))
                .map(Setting::label)
                .toList();
        if (OF_PICTURES.contains(promise) && theme.pictures().isEmpty() && moving.isEmpty()) {
            return List.of(Answer.kept(promise, subject));
        }
        long open = theme.pages().stream()
                .filter(p -> !measured.contains(p.source().file()))
                .count();
        String why = open > 0
                ? "the boxes of " + (open == 1 ? "one page" : open + " pages") + " are not known yet"
                : moving.isEmpty()
                        ? "nothing is found as it is made; longer words and other fonts are not measured"
                        : "nothing is found as it is made; what " + some(moving) + " may do is not measured";
        return List.of(Answer.unproven(promise, subject, why));
    }

    /** Kinds that paint, and move no box. */
    private static boolean isFlat(Kind kind) {
        return kind instanceof ColorKind
                || kind instanceof GradientKind
                || kind instanceof ShadowKind
                || kind instanceof LinkKind;
    }

    private static String some(List<String> labels) {
        String first = labels.stream()
                .limit(2)
                .map(l -> "“" + l + "”")
                .collect(Collectors.joining(labels.size() == 2 ? " and " : ", "));
        return labels.size() > 2 ? first + " and " + (labels.size() - 2) + " more settings" : first;
    }
}

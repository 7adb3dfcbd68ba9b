package org.calmpalette.core.promise;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.function.Predicate;
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
 * Promises that boxes decide: what the survey finds of the theme as it is made breaks them, and so does what is found where boxes were
 * measured with another value of a setting. What two of them do together and what lies between two values is not measured, so where nothing
 * is found they stay open, with what keeps them so.
 */
final class AsMade {
    private static final Map<Promise, Set<Finding.Kind>> KINDS = new EnumMap<>(Map.of(
            Promise.COVERED, Set.of(Finding.Kind.SEAM, Finding.Kind.TILE_SEAM),
            Promise.SHARP, Set.of(Finding.Kind.BLURRED_PICTURE),
            Promise.IN_SIGHT, Set.of(Finding.Kind.LOST_SUBJECT),
            Promise.UNDISTORTED, Set.of(Finding.Kind.STRETCHED_PICTURE),
            Promise.CLEAR, Set.of(Finding.Kind.COVERED_TARGET, Finding.Kind.COVERED_CONTENT),
            Promise.FITS, Set.of(Finding.Kind.WIDER_PAGE, Finding.Kind.CUT_TEXT, Finding.Kind.PUSHED_TEXT)));

    private static final Set<Promise> OF_PICTURES =
            Set.of(Promise.COVERED, Promise.SHARP, Promise.IN_SIGHT, Promise.UNDISTORTED);

    private AsMade() {}

    /**
     * @param measured pages whose boxes are known
     * @param varied what is found with other values, of those with which every page was measured that lies otherwise then
     */
    static List<Answer> of(
            Theme theme,
            Promise promise,
            List<Finding> findings,
            Set<String> measured,
            Map<Variation, List<Finding>> varied) {
        List<Answer> all = new ArrayList<>();
        Set<List<Object>> known = new HashSet<>();
        for (Finding f : findings) {
            if (KINDS.get(promise).contains(f.kind())) {
                known.add(what(f));
                all.add(Answer.broken(
                                promise, subject(f, f.kind().heading() + ": " + f.subject(), ""), Map.of(), f.message())
                        .told(f));
            }
        }
        Set<List<Object>> told = new HashSet<>();
        varied.forEach((v, found) -> found.stream()
                .filter(f -> KINDS.get(promise).contains(f.kind()) && !known.contains(what(f)))
                .filter(f -> told.add(List.of(v.key(), what(f))))
                .forEach(f -> {
                    String words = theme.palette().known(v.key()).label() + ": "
                            + f.kind().heading().toLowerCase(Locale.ROOT);
                    all.add(Answer.broken(
                                    promise, subject(f, words, " " + v.key()), Map.of(v.key(), v.value()), f.message())
                            .told(f));
                }));
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
                        : varied.isEmpty()
                                ? "nothing is found as it is made; what " + some(moving) + " may do is not measured"
                                : "nothing is found as it is made, and " + others(theme, varied.keySet());
        return List.of(Answer.unproven(promise, subject, why));
    }

    /** Whether boxes do not hold together with values that were measured, where they do as the theme is made. */
    static Map<Variation, Boolean> breaks(List<Finding> findings, Map<Variation, List<Finding>> varied) {
        Set<List<Object>> known = findings.stream().map(AsMade::what).collect(Collectors.toSet());
        return breaks(
                varied, f -> KINDS.values().stream().anyMatch(k -> k.contains(f.kind())) && !known.contains(what(f)));
    }

    /** Whether the same is found with values that were measured. */
    static Map<Variation, Boolean> breaks(Finding same, Map<Variation, List<Finding>> varied) {
        return breaks(varied, f -> what(f).equals(what(same)));
    }

    private static Map<Variation, Boolean> breaks(Map<Variation, List<Finding>> varied, Predicate<Finding> which) {
        Map<Variation, Boolean> all = new LinkedHashMap<>();
        varied.forEach((v, found) -> all.put(v, found.stream().anyMatch(which)));
        return all;
    }

    /** What one thing is found about, with whatever values. */
    private static List<Object> what(Finding f) {
        return List.of(f.kind(), f.file(), f.subject());
    }

    private static Answer.Subject subject(Finding f, String words, String with) {
        return new Answer.Subject(Paths.isPage(f.file()) ? f.file() : "", -1, f.subject() + with, words, 0);
    }

    private static String others(Theme theme, Set<Variation> varied) {
        Set<String> keys = varied.stream().map(Variation::key).collect(Collectors.toSet());
        List<String> left = theme.palette().settings().stream()
                .filter(s -> !isFlat(s.kind()) && !keys.contains(s.key()))
                .map(Setting::label)
                .toList();
        return "nothing with " + (varied.size() == 1 ? "one other value" : varied.size() + " other values") + " of "
                + (keys.size() == 1 ? "one setting" : keys.size() + " settings")
                + ", one at a time; what lies between and two together are not measured"
                + (left.isEmpty() ? "" : ", nor what " + some(left) + " may do");
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

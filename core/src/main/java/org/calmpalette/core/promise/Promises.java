package org.calmpalette.core.promise;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Supplier;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.change.Change;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.render.Gallery;
import org.calmpalette.core.render.Measures;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.setting.Between;
import org.calmpalette.core.setting.Chosen;
import org.calmpalette.core.setting.ColorKind;
import org.calmpalette.core.setting.Palette;
import org.calmpalette.core.setting.PaletteJson;
import org.calmpalette.core.setting.Thresholds;
import org.calmpalette.core.survey.BackgroundFindings;
import org.calmpalette.core.survey.Finding;
import org.calmpalette.core.survey.Survey;
import org.calmpalette.core.theme.Theme;

/** All that a theme promises. */
public final class Promises {
    /** Told of each promise before it is looked at. */
    @FunctionalInterface
    public interface Progress {
        void at(int done, int total, String what);
    }

    /**
     * Where one reads on.
     *
     * @param file path in the theme
     * @param line from 1
     */
    public record Where(String file, int line) {}

    private Promises() {}

    /**
     * Does not promise something any more, with the reason, or promises it again.
     *
     * @param reason null for the latter
     */
    public static Change waive(Theme theme, Answer a, String reason) {
        String what = a.promise().label() + " of “" + a.words() + "”";
        return Change.of(
                        reason == null
                                ? what + " is promised again"
                                : what + " is not promised" + (reason.isBlank() ? "" : ": " + reason.strip()))
                .withPalette(theme, theme.palette().withWaived(a.id(), reason == null ? null : reason.strip()));
    }

    /** Promises something of two colours, besides what is promised of the same two already. */
    public static Change between(Theme theme, Between wanted) {
        for (String key : List.of(wanted.one(), wanted.other())) {
            if (!(theme.palette().known(key).kind() instanceof ColorKind)) {
                throw new BadInputException("“" + key + "” is no colour.", "Choose two colour settings.");
            }
        }
        List<String> what = new ArrayList<>();
        if (wanted.contrast() != null) {
            what.add("a contrast of " + wanted.contrast().toPlainString());
        }
        if (wanted.distance() != null) {
            what.add("a distance of " + wanted.distance().toPlainString() + " for every colour vision");
        }
        Between all = known(theme, wanted).map(b -> b.and(wanted)).orElse(wanted);
        return Change.of("Promised of " + named(theme, wanted) + ": " + String.join(" and ", what))
                .withPalette(theme, theme.palette().withBetween(all));
    }

    /** Does not promise it of two colours any more. @param promise apart, for their contrast, or distinct, for their distance */
    public static Change notBetween(Theme theme, String one, String other, Promise promise) {
        Between asked = new Between(one, other, BigDecimal.ONE, null);
        Between now = known(theme, asked)
                .orElseThrow(
                        () -> new BadInputException("Nothing is promised of these two.", "Load the promises again."));
        boolean contrast = promise == Promise.APART;
        BigDecimal left = contrast ? now.distance() : now.contrast();
        return Change.of("The " + (contrast ? "contrast" : "distance") + " of " + named(theme, now)
                        + " is not promised any more")
                .withPalette(
                        theme,
                        left == null
                                ? theme.palette().withoutBetween(now)
                                : theme.palette()
                                        .withBetween(new Between(
                                                now.one(),
                                                now.other(),
                                                contrast ? null : left,
                                                contrast ? left : null)));
    }

    private static Optional<Between> known(Theme theme, Between wanted) {
        return theme.palette().between().stream().filter(b -> b.isLike(wanted)).findFirst();
    }

    private static String named(Theme theme, Between b) {
        return "“" + theme.palette().known(b.one()).label() + "” and “"
                + theme.palette().known(b.other()).label() + "”";
    }

    /** How much is promised. @throws BadInputException if it is what it was */
    public static Change thresholds(Theme theme, Thresholds wanted) {
        Thresholds now = theme.palette().thresholds();
        List<String> what = new ArrayList<>();
        if (wanted.level() != now.level()) {
            what.add("texts keep the contrast of level " + wanted.level());
        }
        if (wanted.kept() != now.kept()) {
            what.add(
                    wanted.kept()
                            ? "owners choose only what keeps texts readable"
                            : "owners may choose what is hard to read, and are told");
        }
        if (wanted.whatever() != now.whatever()) {
            what.add("owners are shown the colours that are safe "
                    + (wanted.whatever() ? "whatever else they choose" : "as all else is"));
        }
        if (wanted.pictures() != now.pictures()) {
            what.add(String.format(Locale.ROOT, "the pictures of a page weigh at most %,d kB", wanted.pictures()));
        }
        if (!wanted.seam().equals(now.seam())) {
            what.add("pictures end less than " + wanted.seam().toPlainString() + " from what goes on there");
        }
        if (!wanted.larger().equals(now.larger())) {
            what.add("pictures are drawn at most " + wanted.larger().toPlainString() + " times as large as they are");
        }
        if (what.isEmpty()) {
            throw new BadInputException("That is promised already.", "Choose something else.");
        }
        return Change.of("Promised from now on: " + String.join(", and ", what))
                .withPalette(theme, theme.palette().withThresholds(wanted));
    }

    /** The tag of a part, or the setting in {@code palette.json}. */
    public static Where where(Theme theme, Answer a) {
        if (a.finding() != null) {
            return new Where(a.finding().file(), Math.max(1, a.finding().line()));
        }
        Page page = theme.pages().stream()
                .filter(p -> p.source().file().equals(a.page()))
                .findFirst()
                .orElse(null);
        if (page == null) {
            return new Where(
                    Palette.FILE,
                    theme.files().has(Palette.FILE)
                            ? Math.max(
                                    1,
                                    PaletteJson.line(
                                            theme.files().read(Palette.FILE),
                                            a.isAboutTwo() ? a.selector().replaceFirst(" .*", "") : a.selector()))
                            : 1);
        }
        int start = a.element() < 0
                ? 0
                : Math.max(0, page.elements().get(a.element()).sourceRange().startPos());
        return new Where(a.page(), page.source().line(start));
    }

    /** The colours of a text and of what lies behind it, both as they are seen: opaque. */
    public record Colors(Color text, Color ground) {}

    /** What is seen where an answer about contrast has its case, or as made where it has none; empty where the colours are not known. */
    public static Optional<Colors> colors(Theme theme, Answer a) {
        Map<String, Chosen> chosen = theme.palette().chosen(a.values());
        return a.isAboutTwo() ? Apart.colors(theme, a, chosen) : Looking.colors(theme, a, chosen);
    }

    /** What is proved and what is not: the broken first, then what is not decided, each in the order of the promises. */
    public static List<Answer> of(Theme theme) {
        return of(theme, Proved.NOTHING, Map.of(), Map.of(), Survey.of(theme).findings(), (done, total, what) -> {})
                .answers();
    }

    /**
     * @param proved for the next state of the theme
     * @param varied what is found with other values, of those with which boxes were measured
     */
    public record Checked(List<Answer> answers, Proved proved, Map<Variation, List<Finding>> varied) {
        /**
         * Further values with which boxes are worth measuring: between one that holds and one that does not.
         *
         * @param wanted all that is being measured
         */
        public List<Variation> closer(Theme theme, List<Variation> wanted, List<Finding> findings) {
            return Narrowing.closer(theme, wanted, AsMade.breaks(findings, varied));
        }
    }

    /**
     * @param before what is known of an earlier state of the theme, or of any: the answers are the same, sooner
     * @param measures the boxes of pages as they are made, by path; may be empty
     * @param varied the boxes of all pages with another value of a setting
     * @param findings of the survey, with those that boxes tell
     */
    public static Checked of(
            Theme theme,
            Proved before,
            Map<String, Measures> measures,
            Map<Variation, Supplier<Map<String, Measures>>> varied,
            List<Finding> findings,
            Progress progress) {
        Map<Variation, List<Finding>> found = new LinkedHashMap<>();
        Gallery gallery = new Gallery(theme);
        varied.forEach((v, boxes) -> {
            progress.at(
                    0,
                    Promise.values().length,
                    "“" + theme.palette().known(v.key()).label() + "” with another value");
            found.put(v, BackgroundFindings.ofBoxes(new Rendered(theme, v.chosen(theme)), gallery, boxes.get()));
        });
        List<Answer> all = new ArrayList<>();
        Promise[] promises = Promise.values();
        Set<String> painting = new HashSet<>();
        List<Object> marks = new ArrayList<>();
        Proved now = new Proved();
        for (Promise p : promises) {
            progress.at(p.ordinal(), promises.length, p.label());
            all.addAll(
                    switch (p) {
                        case READABLE -> {
                            Readable.Result result = Readable.of(theme, measures, before, now);
                            marks.add(result.marks());
                            painting.addAll(result.painting());
                            yield result.answers();
                        }
                        case APART, DISTINCT -> Apart.of(theme, p);
                        case WHOLE -> Whole.of(theme);
                        case COVERED, SHARP, IN_SIGHT, UNDISTORTED, CLEAR, FITS ->
                            AsMade.of(theme, p, findings, measures.keySet(), found);
                        case LIGHT -> Light.of(theme);
                        case STILL -> Still.of(theme);
                        case EFFECTIVE -> Working.of(theme, painting, s -> List.of(marks, s), before, now);
                        case SOUND -> Sound.of(theme);
                    });
        }
        Map<String, String> waived = theme.palette().waived();
        all.replaceAll(
                a -> a.state() != Answer.State.KEPT && waived.containsKey(a.id()) ? a.waived(waived.get(a.id())) : a);
        all.sort(Comparator.comparing(Answer::isWaived)
                .thenComparing(Answer::state)
                .thenComparing(Answer::promise));
        return new Checked(List.copyOf(all), now, Collections.unmodifiableMap(found));
    }
}

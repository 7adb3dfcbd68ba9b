package org.calmpalette.app.pictures;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.UnaryOperator;
import org.calmpalette.app.themes.OpenTheme;
import org.calmpalette.core.background.Seam;
import org.calmpalette.core.background.Sight;
import org.calmpalette.core.background.StripGradient;
import org.calmpalette.core.background.Sweep;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.part.BackgroundChange;
import org.calmpalette.core.render.Backgrounds;
import org.calmpalette.core.render.Measures;
import org.calmpalette.core.render.PaintedPicture;
import org.calmpalette.core.render.Scenes;
import org.calmpalette.core.setting.ColorKey;
import org.calmpalette.core.setting.MediaFacts;
import org.calmpalette.core.setting.Subject;
import org.calmpalette.core.survey.LostSubject;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.value.BackgroundLayer;
import org.calmpalette.core.value.ComponentValue;
import org.calmpalette.core.value.Lengths;
import org.calmpalette.core.value.Position;

/**
 * One picture of a theme: what it is, what it is the background of, and what every window width shows of it.
 *
 * @param uses one for each declaration that paints it
 * @param use the one that is looked at; null if it is no background
 * @param swept null as long as nobody measured the page
 */
record PictureLook(
        String path, Optional<MediaFacts> facts, Optional<Subject> subject, List<Use> uses, Use use, Swept swept) {
    /** Windows whose part of the picture is drawn over it: those of the page strip. */
    private static final List<Integer> CROPPED = List.of(390, 820, 1440);

    /** Widths in which the seam is looked for. */
    private static final List<Integer> WIDTHS = List.of(390, 768, 1024, 1440, 1920, 2560);

    /**
     * A declaration that paints the picture.
     *
     * @param pages paths of the pages on which it does
     */
    record Use(String key, String selector, String file, int line, List<String> pages, PaintedPicture painted) {}

    /** A fact in the list. @param color that stands before the words, or empty */
    record Fact(String name, String words, String color) {}

    /**
     * The part of a picture that one window shows, in hundredths of the picture. Where more than one tile is seen, all of it is.
     *
     * @param window its width in CSS px
     */
    public record Crop(int window, double left, double top, double width, double height) {
        static Optional<Crop> of(int window, Sight sight) {
            double[] x = part(
                    sight.shown().x(),
                    sight.shown().width(),
                    sight.tile().x(),
                    sight.tile().width());
            double[] y = part(
                    sight.shown().y(),
                    sight.shown().height(),
                    sight.tile().y(),
                    sight.tile().height());
            return x[1] <= 0 || y[1] <= 0 ? Optional.empty() : Optional.of(new Crop(window, x[0], y[0], x[1], y[1]));
        }

        private static double[] part(double shown, double size, double tile, double tileSize) {
            double from = Math.max(0, (shown - tile) / tileSize);
            double to = Math.min(1, (shown + size - tile) / tileSize);
            return size > tileSize * 1.001 ? new double[] {0, 100} : new double[] {from * 100, (to - from) * 100};
        }

        /** Left, top, width and height, for scripts. */
        public String box() {
            return String.format(Locale.ROOT, "%.2f %.2f %.2f %.2f", left, top, width, height);
        }
    }

    /** A way out. @param values of the properties that change */
    record Mend(String label, Map<String, String> values) {}

    /**
     * What was worked out from measured boxes.
     *
     * @param message what is the matter; empty if nothing is
     * @param runs stretches of widths in words, for those who do not see the drawing
     * @param lengths the same over the length of pages; null where that decides nothing
     */
    record Swept(
            SweepDrawing drawing,
            LengthDrawing lengths,
            List<Fact> facts,
            String message,
            boolean bad,
            List<Mend> mends,
            List<String> runs,
            Wanted now,
            Sweep sweep) {
        /** What the usual windows show of the picture, the narrowest window first; none for one that shows nothing of it. */
        public List<Crop> crops() {
            return CROPPED.stream()
                    .filter(w -> sweep.sights().containsKey(w))
                    .flatMap(w -> Crop.of(w, sweep.sights().get(w)).stream())
                    .toList();
        }

        /** Width and height of the most that is seen of the picture at those window widths, in CSS pixels. */
        double[] largest(int from, Integer to) {
            double[] most = new double[2];
            sweep.sights().tailMap(from).forEach((window, sight) -> {
                if (to == null || window <= to) {
                    most[0] = Math.max(most[0], sight.shown().width());
                    most[1] = Math.max(most[1], sight.shown().height());
                }
            });
            return most;
        }
    }

    /** Where and how large a picture is drawn, as the fields have it. */
    record Wanted(String anchor, String size, String repeat) {
        static final List<String> SIZES = List.of("auto", "cover", "contain", "100% auto", "auto 100%");
        static final List<String> REPEATS = List.of("no-repeat", "repeat", "repeat-x", "repeat-y", "space", "round");

        /** The layer as it would be; empty if a value is none, or follows the font or the window. */
        Optional<BackgroundLayer> on(BackgroundLayer layer) {
            return Position.read(ComponentValue.read(anchor))
                    .flatMap(p -> BackgroundLayer.read(new BackgroundLayer.Longhands(
                            "none",
                            Lengths.text(p.x()),
                            Lengths.text(p.y()),
                            size,
                            repeat,
                            word(layer.origin()),
                            word(layer.clip()),
                            word(layer.attachment()))))
                    .map(l -> l.get(0))
                    .map(l -> new BackgroundLayer(
                            layer.image(),
                            l.position(),
                            l.size(),
                            l.repeatX(),
                            l.repeatY(),
                            l.origin(),
                            l.clip(),
                            l.attachment()));
        }
    }

    private static String word(Enum<?> e) {
        return e.name().toLowerCase(Locale.ROOT).replace('_', '-');
    }

    static PictureLook of(
            OpenTheme open, String path, String useKey, String wantedPage, Map<String, Measures> measures) {
        Theme theme = open.theme();
        Map<String, List<PaintedPicture>> byDeclaration = new LinkedHashMap<>();
        for (Page page : theme.pages()) {
            open.read().painted(page).orElse(List.of()).stream()
                    .filter(p -> p.path().equals(path))
                    .forEach(p -> byDeclaration
                            .computeIfAbsent(p.declaration(), k -> new ArrayList<>())
                            .add(p));
        }
        List<Use> uses = byDeclaration.entrySet().stream()
                .map(e -> {
                    PaintedPicture first = e.getValue().stream()
                            .filter(p -> p.page().equals(wantedPage))
                            .findFirst()
                            .orElse(e.getValue().get(0));
                    var by = first.because();
                    return new Use(
                            e.getKey(),
                            by == null ? "" : by.selector(),
                            by == null ? "" : by.file(),
                            by == null ? 0 : by.line(),
                            e.getValue().stream()
                                    .map(PaintedPicture::page)
                                    .distinct()
                                    .toList(),
                            first);
                })
                .toList();
        Use use = uses.stream()
                .filter(u -> u.key().equals(useKey))
                .findFirst()
                .orElse(uses.isEmpty() ? null : uses.get(0));
        Optional<Subject> subject = theme.palette().subject(path);
        Swept swept = use == null || !measures.containsKey(use.painted().page())
                ? null
                : open.read()
                        .derived(
                                List.of("swept", use.painted().page(), use.key(), path, Set.copyOf(measures.keySet())),
                                () -> swept(open, use, subject, measures));
        return new PictureLook(path, theme.media().facts(path), subject, uses, use, swept);
    }

    static Backgrounds backgrounds(OpenTheme open, Use use, Measures measures) {
        Page page = open.read().rendered().page(use.painted().page()).orElseThrow();
        return new Backgrounds(
                new Scenes(open.read().rendered(), page, measures), open.read().gallery());
    }

    private static LengthDrawing lengths(Backgrounds backgrounds, Use use, Map<String, Measures> measures, int window) {
        TreeMap<String, Integer> pages = new TreeMap<>();
        use.pages().stream()
                .filter(measures::containsKey)
                .forEach(p -> pages.put(p, (int) Math.round(measures.get(p).pageHeight(window))));
        return backgrounds
                .lengths(use.painted(), window)
                .map(l -> LengthDrawing.of(l, pages, window, ColorKey.of(backgrounds.beyond(use.painted(), window))))
                .orElse(null);
    }

    private static Swept swept(OpenTheme open, Use use, Optional<Subject> subject, Map<String, Measures> all) {
        Backgrounds backgrounds = backgrounds(open, use, all.get(use.painted().page()));
        PaintedPicture painted = use.painted();
        Optional<Sight.Part> part = Backgrounds.part(subject);
        Sweep sweep = backgrounds.sweep(painted, part, UnaryOperator.identity());
        int widest = sweep.sights().isEmpty() ? Sweep.TO : sweep.sights().lastKey();
        Optional<BackgroundLayer> layer = backgrounds.layer(painted, Math.min(1440, widest));
        List<Fact> facts = new ArrayList<>();
        List<Mend> mends = new ArrayList<>();
        Wanted now = layer.map(PictureLook::wanted).orElse(new Wanted("left top", "auto", "no-repeat"));
        layer.ifPresent(l -> {
            facts.add(new Fact("Size", sizeWords(l, sweep), ""));
            facts.add(new Fact(
                    "Anchored",
                    now.anchor() + ", "
                            + switch (now.repeat()) {
                                case "no-repeat" -> "does not repeat";
                                case "repeat" -> "repeats both ways";
                                case "repeat-x" -> "repeats across";
                                case "repeat-y" -> "repeats down";
                                default -> now.repeat() + "s its tiles";
                            }
                            + (l.attachment() == BackgroundLayer.Attachment.FIXED
                                    ? ", stays in the window"
                                    : ", scrolls with the page"),
                    ""));
        });
        Optional<Seam> seam = backgrounds.worstSeam(painted, sweep, WIDTHS).map(Backgrounds.SeamAt::seam);
        String beyond = ColorKey.of(backgrounds.beyond(painted, Math.min(1440, widest)));
        facts.add(new Fact(
                "Colour behind it",
                seam.isEmpty()
                        ? beyond + ", never beside an edge of the picture"
                        : String.format(
                                Locale.ROOT,
                                "%s, %.0f away from its %s edge%s",
                                beyond,
                                seam.get().mean(),
                                word(seam.get().side()),
                                seam.get().mean() < 2 ? ": nobody sees where it ends" : ": a visible seam"),
                beyond));
        double scale = sweep.largestScale();
        facts.add(new Fact(
                "Drawn larger than it is",
                scale <= 1.001
                        ? "never on ordinary screens; up to 2 times on dense ones"
                        : String.format(Locale.ROOT, "up to %.2f times", scale),
                ""));
        Optional<LostSubject> lost = subject.flatMap(s -> LostSubject.of(backgrounds, painted, s, sweep));
        String message = "";
        if (lost.isPresent()) {
            message = lost.get().words() + "."
                    + lost.get()
                            .better()
                            .map(a -> String.format(
                                    Locale.ROOT,
                                    " Anchored to %s it is covered or outside at %,d widths instead of %,d, and whole at %,d.",
                                    a.value(),
                                    a.lost(),
                                    lost.get().lost(),
                                    a.whole()))
                            .orElse("");
            lost.get()
                    .better()
                    .ifPresent(a ->
                            mends.add(new Mend("Anchor to " + a.value(), Map.of("background-position", a.value()))));
        } else if (subject.isPresent()) {
            long whole = sweep.count(Sight.State.WHOLE);
            message = whole == sweep.sights().size()
                    ? "All of " + subject.get().words() + " is seen at every window width."
                    : String.format(
                            Locale.ROOT,
                            "Nothing lies over %s at any width; all of it is seen at %,d of %,d.",
                            subject.get().words(),
                            whole,
                            sweep.sights().size());
        }
        // A strip that is drawn in its own size may as well be a gradient, which weighs next to nothing and waits for
        // nobody.
        open.read()
                .gallery()
                .pixels(painted.path())
                .filter(p -> now.size().equals("auto") && !BackgroundChange.isHeld(open.theme(), painted))
                .flatMap(StripGradient::of)
                .ifPresent(g -> {
                    long weight = open.theme()
                            .media()
                            .facts(painted.path())
                            .map(MediaFacts::bytes)
                            .orElse(0L);
                    facts.add(new Fact(
                            "As a gradient",
                            g.css()
                                    + String.format(
                                            Locale.ROOT,
                                            ", %d characters in place of %,d bytes and a request",
                                            g.css().length(),
                                            weight),
                            ""));
                    mends.add(new Mend("Write it as a gradient", Map.of("gradient", g.css())));
                });
        if (seam.isPresent() && seam.get().mean() >= 2) {
            mends.add(new Mend(
                    "Match the colour to the edge",
                    Map.of("background-color", ColorKey.of(seam.get().edge()))));
        }
        return new Swept(
                SweepDrawing.of(sweep),
                lengths(backgrounds, use, all, Math.min(1440, widest)),
                facts,
                message,
                lost.isPresent(),
                mends,
                runs(sweep, subject),
                now,
                sweep);
    }

    /** A second drawing, of the picture as it would be. */
    static Swept tried(OpenTheme open, Use use, Optional<Subject> subject, Measures measures, Wanted wanted) {
        return open.read()
                .derived(
                        List.of(
                                "tried",
                                use.painted().page(),
                                use.key(),
                                use.painted().path(),
                                wanted),
                        () -> triedNow(open, use, subject, measures, wanted));
    }

    private static Swept triedNow(
            OpenTheme open, Use use, Optional<Subject> subject, Measures measures, Wanted wanted) {
        Sweep sweep = backgrounds(open, use, measures).sweep(use.painted(), Backgrounds.part(subject), l -> wanted.on(l)
                .orElse(l));
        return new Swept(
                SweepDrawing.of(sweep), null, List.of(), "", false, List.of(), runs(sweep, subject), wanted, sweep);
    }

    static Wanted wanted(BackgroundLayer l) {
        String x = place(l.position().x(), "left", "right");
        String y = place(l.position().y(), "top", "bottom");
        String repeat = l.repeatX() == l.repeatY()
                ? word(l.repeatX())
                : l.repeatX() == BackgroundLayer.Repeat.REPEAT && l.repeatY() == BackgroundLayer.Repeat.NO_REPEAT
                        ? "repeat-x"
                        : l.repeatY() == BackgroundLayer.Repeat.REPEAT
                                        && l.repeatX() == BackgroundLayer.Repeat.NO_REPEAT
                                ? "repeat-y"
                                : word(l.repeatX()) + " " + word(l.repeatY());
        return new Wanted(x + " " + y, size(l.size()), repeat);
    }

    private static String place(Lengths.Sum sum, String start, String end) {
        return sum.px() != 0
                ? Lengths.text(sum)
                : sum.percent() == 0
                        ? start
                        : sum.percent() == 50 ? "center" : sum.percent() == 100 ? end : Lengths.text(sum);
    }

    private static String size(BackgroundLayer.Size size) {
        return size instanceof BackgroundLayer.Size.Cover
                ? "cover"
                : size instanceof BackgroundLayer.Size.Contain ? "contain" : given((BackgroundLayer.Size.Given) size);
    }

    private static String given(BackgroundLayer.Size.Given g) {
        String width = g.width().map(Lengths::text).orElse("auto");
        String height = g.height().map(Lengths::text).orElse("auto");
        return width.equals("auto") && height.equals("auto") ? "auto" : width + " " + height;
    }

    private static String sizeWords(BackgroundLayer l, Sweep sweep) {
        Sight some = sweep.sights().isEmpty()
                ? null
                : sweep.sights().get(Math.min(1440, sweep.sights().lastKey()));
        String px = some == null
                ? ""
                : String.format(
                        Locale.ROOT,
                        ", %.0f by %.0f px in a window of 1440",
                        some.tile().width(),
                        some.tile().height());
        return switch (size(l.size())) {
            case "auto" ->
                some == null
                        ? "as it is"
                        : String.format(
                                Locale.ROOT,
                                "as it is, %.0f by %.0f px",
                                some.tile().width(),
                                some.tile().height());
            case "cover" -> "covers its box" + px;
            case "contain" -> "whole in its box" + px;
            default -> size(l.size()) + px;
        };
    }

    private static List<String> runs(Sweep sweep, Optional<Subject> subject) {
        List<String> all = new ArrayList<>();
        if (sweep.sights().isEmpty()) {
            return List.of("The picture shows at no width that was measured.");
        }
        for (Sweep.Run<Sight.State> r : sweep.subject()) {
            all.add(r.from() + (r.to() == r.from() ? "" : " to " + r.to()) + " px: "
                    + subject.orElseThrow().words()
                    + switch (r.what()) {
                        case WHOLE -> " is seen whole";
                        case CUT -> " is cut at an edge";
                        case UNDER -> " is covered, all or in part";
                        case OFF -> " is outside";
                    });
        }
        for (Sweep.Run<Boolean> r : sweep.runs(s -> s.placement().painted() < 0.999)) {
            all.add(r.from() + (r.to() == r.from() ? "" : " to " + r.to()) + " px: "
                    + (r.what() ? "the picture does not reach everywhere" : "the picture fills its box"));
        }
        return all;
    }
}

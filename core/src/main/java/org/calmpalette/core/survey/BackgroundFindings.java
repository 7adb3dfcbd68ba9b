package org.calmpalette.core.survey;

import java.time.Duration;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.Predicate;
import java.util.function.Supplier;
import java.util.function.UnaryOperator;
import org.calmpalette.core.background.NaturalSize;
import org.calmpalette.core.background.Placement;
import org.calmpalette.core.background.Seam;
import org.calmpalette.core.background.Sight;
import org.calmpalette.core.background.Sweep;
import org.calmpalette.core.background.TileSeam;
import org.calmpalette.core.cascade.ElementStyle;
import org.calmpalette.core.cascade.Explanation;
import org.calmpalette.core.cascade.LetterPaint;
import org.calmpalette.core.cascade.PageStyles;
import org.calmpalette.core.change.Change;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.color.Contrast;
import org.calmpalette.core.css.selector.Inactive;
import org.calmpalette.core.css.selector.States;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.part.BackgroundChange;
import org.calmpalette.core.picture.Pixels;
import org.calmpalette.core.render.Backdrop;
import org.calmpalette.core.render.Backgrounds;
import org.calmpalette.core.render.Gallery;
import org.calmpalette.core.render.Ground;
import org.calmpalette.core.render.Measures;
import org.calmpalette.core.render.PaintedPicture;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.render.Scenes;
import org.calmpalette.core.setting.AnotherValue;
import org.calmpalette.core.setting.Chosen;
import org.calmpalette.core.setting.ColorKey;
import org.calmpalette.core.setting.ColorKind;
import org.calmpalette.core.setting.Given;
import org.calmpalette.core.setting.Palette;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.Subject;
import org.calmpalette.core.setting.Thresholds;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.value.Viewport;
import org.jsoup.nodes.Element;

/**
 * What is wrong with pictures and gradients behind a page: told from boxes that a browser measured, so only of pages that were
 * measured.
 */
public final class BackgroundFindings {
    /** A ground that varies, within the height of a line, by more than this share of what parts it from the letters: our own measure. */
    private static final double BUSY = 0.2;
    /** A picture this much wider or narrower than it is looks wrong: common practice. */
    private static final double STRETCHED = 0.04;
    /** Widths at which texts are looked at, besides those where media queries turn. */
    private static final List<Integer> WIDTHS =
            List.of(320, 390, 480, 600, 768, 900, 1024, 1200, 1366, 1440, 1600, 1920, 2240, 2560);

    private static final int MOST_TEXTS = 150;
    /** So many other values of a setting are tried. */
    private static final int MOST_OTHERS = 6;
    /** Processor time for one page: millions of pixels are looked at, in the background. */
    private static final Duration PAGE = Duration.ofSeconds(6);

    private static final long PAGES = Duration.ofSeconds(40).toNanos();

    private final Rendered rendered;
    private final Thresholds thresholds;
    private final Gallery gallery;
    private final List<Finding> findings = new ArrayList<>();
    private final Set<String> told = new LinkedHashSet<>();
    private final Map<String, OnPicture> texts = new LinkedHashMap<>();

    /** Texts of one colour that one declaration lays on one ground. */
    private static final class OnPicture {
        final Scenes scenes;
        final int element;
        final Explanation why;
        final String words;
        final double needed;
        final Element holder;
        Ground.Reading worst;
        int worstWidth;
        final Set<Integer> failing = new TreeSet<>();
        final Set<Integer> looked = new TreeSet<>();
        Ground.Reading without;
        Ground.Reading busiest;
        int busiestWidth;

        OnPicture(Scenes scenes, int element, Explanation why, String words, double needed, Element holder) {
            this.scenes = scenes;
            this.element = element;
            this.why = why;
            this.words = words;
            this.needed = needed;
            this.holder = holder;
        }

        /** Of two texts the one that is harder to read stands for both. */
        OnPicture worse(OnPicture other) {
            return other.worst.low() < worst.low() ? other : this;
        }
    }

    private BackgroundFindings(Rendered rendered, Gallery gallery) {
        this.rendered = rendered;
        this.thresholds = rendered.theme().palette().thresholds();
        this.gallery = gallery;
    }

    /** @param measures by path of the page; pages without are left out */
    public static List<Finding> of(Rendered rendered, Gallery gallery, Map<String, Measures> measures) {
        BackgroundFindings found = new BackgroundFindings(rendered, gallery);
        Share share = new Share(PAGE, PAGES);
        for (Page page : rendered.theme().pages()) {
            Measures own = measures.get(page.source().file());
            if (own != null) {
                share.page(
                        page.source().file(), "pictures behind it", () -> found.page(new Scenes(rendered, page, own)));
            }
        }
        // A mend is tried at many widths, but there are few of them.
        share.page(measures.keySet().stream().findFirst().orElse(""), "mends for texts on pictures", () -> found.texts
                .values()
                .forEach(found::report));
        found.findings.addAll(share.beyond());
        return List.copyOf(found.findings);
    }

    /** What boxes and pictures alone tell: what lies behind texts is left out. @param measures as in {@link #of} */
    public static List<Finding> ofBoxes(Rendered rendered, Gallery gallery, Map<String, Measures> measures) {
        BackgroundFindings found = new BackgroundFindings(rendered, gallery);
        for (Page page : rendered.theme().pages()) {
            Measures own = measures.get(page.source().file());
            if (own != null) {
                Scenes scenes = new Scenes(rendered, page, own);
                found.pictures(scenes);
                found.findings.addAll(BoxFindings.of(scenes));
            }
        }
        return List.copyOf(found.findings);
    }

    private void page(Scenes scenes) {
        // What takes least comes first: the time for one page may be over before all of its texts are looked at.
        findings.addAll(BoxFindings.of(scenes));
        pictures(scenes);
        texts(scenes);
    }

    private void pictures(Scenes scenes) {
        Backgrounds backgrounds = new Backgrounds(scenes, gallery);
        for (PaintedPicture picture : PaintedPicture.of(rendered, scenes.page())) {
            if (told.add(picture.declaration() + picture.path())
                    && gallery.size(picture.path()).isPresent()) {
                picture(backgrounds, picture);
            }
        }
    }

    private void picture(Backgrounds backgrounds, PaintedPicture picture) {
        Theme theme = rendered.theme();
        Optional<Subject> subject = theme.palette().subject(picture.path());
        Sweep sweep = backgrounds.sweep(picture, Backgrounds.part(subject), UnaryOperator.identity());
        if (sweep.sights().isEmpty()) {
            return;
        }
        subject.ifPresent(s -> subject(backgrounds, picture, s, sweep));
        seam(backgrounds, picture, sweep);
        tiles(picture, sweep);
        NaturalSize size = gallery.size(picture.path()).orElseThrow();
        Sight widest = sweep.sights().values().stream()
                .filter(s -> s.shown().width() > 0)
                .max(java.util.Comparator.comparingDouble(
                        s -> Math.max(s.placement().scaleX(), s.placement().scaleY())))
                .orElse(null);
        boolean pixels =
                size.width().isPresent() && gallery.pixels(picture.path()).isPresent();
        if (widest == null || !pixels) {
            return;
        }
        double scale = Math.max(widest.placement().scaleX(), widest.placement().scaleY());
        int at = sweep.sights().entrySet().stream()
                .filter(e -> e.getValue() == widest)
                .findFirst()
                .orElseThrow()
                .getKey();
        // Usually a quarter: drawn larger than that, a picture is soft on an ordinary screen (common practice).
        if (scale > thresholds.larger().doubleValue()) {
            add(
                    Finding.Kind.BLURRED_PICTURE,
                    picture,
                    String.format(
                            Locale.ROOT,
                            "%s is drawn %.2f times as large as it is in a window of %d px, and %s.",
                            picture.path(),
                            scale,
                            at,
                            scale > 1
                                    ? "looks soft"
                                    : "at most " + thresholds.larger().toPlainString() + " times are promised"),
                    String.format(Locale.ROOT, "Put one in its place that is %d px wide.", (int)
                            Math.ceil(size.width().getAsDouble()
                                    * scale
                                    / Math.min(1, thresholds.larger().doubleValue()))),
                    null);
        }
        double ratio = widest.placement().scaleX() / widest.placement().scaleY();
        if (Math.abs(ratio - 1) > STRETCHED) {
            add(
                    Finding.Kind.STRETCHED_PICTURE,
                    picture,
                    String.format(
                            Locale.ROOT,
                            "%s is drawn %.0f%% %s than it is in a window of %d px.",
                            picture.path(),
                            Math.abs(ratio - 1) * 100,
                            ratio > 1 ? "wider" : "narrower",
                            at),
                    "Give one side and leave the other at auto, or use cover.",
                    () -> BackgroundChange.of(
                            rendered,
                            picture,
                            Map.of("background-size", "cover"),
                            "Drew " + picture.path() + " in its own shape"));
        }
    }

    private void add(Finding.Kind kind, PaintedPicture picture, String message, String mend, Supplier<Change> fix) {
        Explanation.Cause by = picture.because();
        boolean placed =
                by != null && by.isInTheme() && rendered.theme().files().has(by.file());
        Finding finding = new Finding(
                        kind, placed ? by.file() : picture.page(), placed ? by.line() : 1, 0, message, mend)
                .about(picture.path() + " " + (by == null ? "" : by.selector()));
        findings.add(fix == null ? finding : finding.fixedBy(fix));
    }

    private void subject(Backgrounds backgrounds, PaintedPicture picture, Subject subject, Sweep sweep) {
        LostSubject.of(backgrounds, picture, subject, sweep).ifPresent(lost -> {
            String message = String.format(
                    Locale.ROOT,
                    "%s (%s, anchored as it is): not seen well at %,d of %,d window widths.",
                    lost.words(),
                    picture.path(),
                    lost.lost(),
                    sweep.sights().size());
            String mend = lost.better()
                    .map(a -> String.format(
                            Locale.ROOT, "Anchor it to %s: then it is not seen well at %,d.", a.value(), a.lost()))
                    .orElse("No anchor shows it at more widths; choose another size, or another picture.");
            add(
                    Finding.Kind.LOST_SUBJECT,
                    picture,
                    message,
                    mend,
                    lost.better().isEmpty()
                            ? null
                            : () -> BackgroundChange.of(
                                    rendered,
                                    picture,
                                    Map.of(
                                            "background-position",
                                            lost.better().get().value()),
                                    "Anchored " + picture.path() + " to "
                                            + lost.better().get().value()));
        });
    }

    private void seam(Backgrounds backgrounds, PaintedPicture picture, Sweep sweep) {
        Backgrounds.SeamAt found = backgrounds.worstSeam(picture, sweep, WIDTHS).orElse(null);
        if (found != null && found.seam().mean() >= thresholds.seam().doubleValue()) {
            Seam worst = found.seam();
            int at = found.width();
            Color edge = worst.edge();
            add(
                    Finding.Kind.SEAM,
                    picture,
                    String.format(
                            Locale.ROOT,
                            "%s ends at its %s edge in a window of %d px, and %s goes on there, %.0f away from the edge's colours: a visible seam.",
                            picture.path(),
                            worst.side().name().toLowerCase(Locale.ROOT),
                            at,
                            ColorKey.of(backgrounds.beyond(picture, at)),
                            worst.mean()),
                    "Let " + ColorKey.of(edge) + " go on there, the colour of the edge.",
                    () -> BackgroundChange.of(
                            rendered,
                            picture,
                            Map.of("background-color", ColorKey.of(edge)),
                            "The colour of the edge goes on where " + picture.path() + " ends"));
        } else {
            seamOfAnotherChoice(backgrounds, picture, sweep);
        }
    }

    /** A picture may end well in the colour that is there today, and in no other that an owner may choose. */
    private void seamOfAnotherChoice(Backgrounds backgrounds, PaintedPicture picture, Sweep sweep) {
        Scenes scenes = backgrounds.scenes();
        Palette palette = rendered.theme().palette();
        Explanation color = Explanation.of(
                rendered.styles(scenes.page(), Viewport.of(1440, 800), States.NONE)
                        .of(scenes.page().elements().get(picture.element())),
                "background-color");
        Setting setting = color.through().stream()
                .flatMap(p ->
                        palette.settings().stream().filter(s -> s.property().equals(p)))
                .filter(s -> s.kind() instanceof ColorKind)
                .findFirst()
                .orElse(null);
        if (setting == null || !(setting.given() instanceof Given.Fixed now)) {
            return;
        }
        for (Value other : AnotherValue.all(setting.kind(), now.value()).stream()
                .limit(MOST_OTHERS)
                .toList()) {
            Rendered chosen = new Rendered(rendered.theme(), Map.of(setting.key(), Chosen.of(other)));
            Page page = chosen.page(picture.page()).orElse(null);
            if (page == null
                    || page.elements().size() != scenes.page().elements().size()) {
                return;
            }
            Backgrounds then = new Backgrounds(new Scenes(chosen, page, scenes.measures()), gallery);
            Backgrounds.SeamAt found = then.worstSeam(picture, sweep, WIDTHS)
                    .filter(f -> f.seam().mean() >= thresholds.seam().doubleValue())
                    .orElse(null);
            if (found != null) {
                add(
                        Finding.Kind.SEAM,
                        picture,
                        String.format(
                                Locale.ROOT,
                                "%s ends at its %s edge in a window of %d px. With %s for the setting “%s” a seam shows there, %.0f away from the edge's colours: the picture hides a part of what the setting paints.",
                                picture.path(),
                                found.seam().side().name().toLowerCase(Locale.ROOT),
                                found.width(),
                                setting.kind().words(other),
                                setting.label(),
                                found.seam().mean()),
                        "Put a picture in its place that lets the colour through, or make picture and colour one setting.",
                        null);
                return;
            }
        }
    }

    /** Edges of tiles that stand beside each other at some width and do not meet. */
    private void tiles(PaintedPicture picture, Sweep sweep) {
        Optional<Pixels> pixels = gallery.pixels(picture.path());
        for (boolean across : new boolean[] {true, false}) {
            Optional<Map.Entry<Integer, Sight>> meeting = sweep.sights().entrySet().stream()
                    .filter(e -> e.getValue().tilesMeet(across))
                    .reduce((first, last) -> last);
            double jump = meeting.isEmpty()
                    ? 0
                    : pixels.map(p -> TileSeam.of(p, across)).orElse(0.0);
            if (jump >= thresholds.seam().doubleValue()) {
                Placement at = meeting.get().getValue().placement();
                add(
                        Finding.Kind.TILE_SEAM,
                        picture,
                        String.format(
                                Locale.ROOT,
                                "The %s edge of %s does not go on at its %s one: %.0f away, more than its colours change anywhere within. A line shows every %.0f px in a window of %d px.",
                                across ? "right" : "lower",
                                picture.path(),
                                across ? "left" : "upper",
                                jump,
                                across ? at.stepX() : at.stepY(),
                                meeting.get().getKey()),
                        "Put one in its place whose edges meet, or let it repeat in the other direction only.",
                        null);
                return;
            }
        }
    }

    /** Texts on pictures, on gradients, and on what was taken out of the flow: all that plain colours do not tell. */
    private void texts(Scenes scenes) {
        Page page = scenes.page();
        PageStyles wide = rendered.styles(page, Viewport.of(1440, 800), States.NONE);
        Backdrop.Reader backdrops = new Backdrop.Reader(wide, rendered.theme().files()::has);
        Ground ground = new Ground(scenes, gallery, true);
        Ground bare = new Ground(scenes, gallery, false);
        Map<Integer, OnPicture> here = new LinkedHashMap<>();
        List<Element> elements = page.elements();
        for (int i : scenes.measures().lines().keySet().stream()
                .sorted()
                .limit(MOST_TEXTS)
                .toList()) {
            if (i >= elements.size()) {
                continue;
            }
            Element e = elements.get(i);
            ElementStyle style = wide.of(e);
            Backdrop backdrop = backdrops.of(e);
            boolean shadowed = LetterPaint.isShadowed(style) || LetterPaint.isFilled(style);
            if (backdrop.unknown() == null
                    || shadowed
                    || Inactive.holds(e)
                    || backdrop.isInvisible()
                    || style.colorOf("color").orElse(Color.TRANSPARENT).alpha() == 0) {
                continue;
            }
            double needed = Contrast.needed(style.fontSizePx(), style.fontWeight());
            // What reads on no colour of the gradient behind it is told without boxes already, and so is what changes
            // below it.
            if (backdrop.unknown() == Backdrop.Unknown.CHANGES
                    || backdrop.range(style.colorOf("color").orElseThrow())
                            .filter(r -> r.most() < needed)
                            .isPresent()) {
                continue;
            }
            String words = e.ownText().strip();
            here.put(
                    i,
                    new OnPicture(
                            scenes,
                            i,
                            Explanation.of(style, "color"),
                            words.length() > 40 ? words.substring(0, 40) + "…" : words,
                            needed,
                            backdrop.holder()));
        }
        Set<Integer> widths = new TreeSet<>(WIDTHS);
        widths.addAll(scenes.stretches());
        widths.removeIf(w -> !scenes.measures().isSureAt(w));
        for (int width : widths) {
            for (OnPicture text : here.values()) {
                ground.under(text.element, width).reading().ifPresent(r -> {
                    text.looked.add(width);
                    if (r.low() < text.needed) {
                        text.failing.add(width);
                    }
                    if (text.worst == null || r.low() < text.worst.low()) {
                        text.worst = r;
                        text.worstWidth = width;
                    }
                    if (text.busiest == null || r.busy() > text.busiest.busy()) {
                        text.busiest = r;
                        text.busiestWidth = width;
                    }
                });
                bare.under(text.element, width)
                        .reading()
                        .filter(r -> text.without == null || r.low() < text.without.low())
                        .ifPresent(r -> text.without = r);
            }
        }
        for (OnPicture text : here.values()) {
            if (text.worst != null
                    && (!text.failing.isEmpty()
                            || text.busiest.busy() >= BUSY
                            || text.without != null && text.without.low() < text.needed)) {
                Explanation.Cause by = text.why.winner();
                String key = (by == null ? text.words : by.file() + by.start()) + "|" + ColorKey.of(text.worst.text())
                        + "|" + text.needed;
                texts.merge(key, text, OnPicture::worse);
            }
        }
    }

    private void report(OnPicture text) {
        Page page = text.scenes.page();
        Explanation.Cause by = text.why.winner();
        boolean placed =
                by != null && by.isInTheme() && rendered.theme().files().has(by.file());
        String file = placed ? by.file() : page.source().file();
        int line = placed
                ? by.line()
                : Math.max(
                        1,
                        page.source()
                                .line(Math.max(
                                        0,
                                        page.elements()
                                                .get(text.element)
                                                .sourceRange()
                                                .startPos())));
        String subject = (by == null ? text.words : by.selector()) + " " + ColorKey.of(text.worst.text());
        if (!text.failing.isEmpty()) {
            Ground.Reading r = text.worst;
            String message = String.format(
                    Locale.ROOT,
                    "“%s” is hard to read on what is behind it: a twentieth of it has less than %.2f to 1 in a window of %d px (%.2f at worst, %s on %s), and %s is needed. So at %s.",
                    text.words,
                    floor(r.low()),
                    text.worstWidth,
                    floor(r.worst()),
                    ColorKey.of(r.text()),
                    ColorKey.of(r.ground()),
                    text.needed == 3 ? "3" : "4.5",
                    text.failing.size() == text.looked.size()
                            ? "all widths that were looked at"
                            : text.failing.size() + " of " + text.looked.size() + " widths that were looked at");
            shaded(text, Finding.Kind.TEXT_ON_PICTURE, file, line, message, subject, r2 -> r2.low() >= text.needed);
        } else if (text.busiest != null && text.busiest.busy() >= BUSY) {
            String message = String.format(
                    Locale.ROOT,
                    "What is behind “%s” varies, from letter to letter, by %.0f%% of what parts it from the letters, in a window of %d px. At %.2f to 1 it has contrast enough, but it is restless.",
                    text.words,
                    text.busiest.busy() * 100,
                    text.busiestWidth,
                    floor(text.worst.low()));
            shaded(
                    text,
                    Finding.Kind.BUSY_GROUND,
                    file,
                    line,
                    message,
                    subject,
                    r -> r.low() >= text.needed && r.busy() < BUSY);
        }
        if (text.without != null && text.without.low() < text.needed && text.failing.size() < text.looked.size()) {
            Ground.Reading r = text.without;
            findings.add(new Finding(
                            Finding.Kind.TEXT_WITHOUT_PICTURE,
                            file,
                            line,
                            0,
                            String.format(
                                    Locale.ROOT,
                                    "As long as the picture behind it has not come, or if it never comes, “%s” stands on %s: %.2f to 1, and %s is needed.",
                                    text.words,
                                    ColorKey.of(r.ground()),
                                    floor(r.low()),
                                    text.needed == 3 ? "3" : "4.5"),
                            "Give the part with the picture a background colour that the text reads on.")
                    .about(subject));
            until(text)
                    .ifPresent(
                            mend -> findings.set(findings.size() - 1, mend.apply(findings.get(findings.size() - 1))));
        }
    }

    /** A finding that another colour of the text mends, or the least shade behind it. */
    private void shaded(
            OnPicture text,
            Finding.Kind kind,
            String file,
            int line,
            String message,
            String subject,
            Predicate<Ground.Reading> good) {
        Optional<TextMend> mend = TextMend.least(rendered, text.scenes, gallery, text.element, good, text.looked);
        Finding finding = new Finding(
                        kind,
                        file,
                        line,
                        0,
                        message,
                        mend.map(TextMend::words).orElse("Put a plain colour behind it; no shade lets it be read."))
                .about(subject);
        findings.add(mend.isPresent() ? finding.fixedBy(() -> mend.get().change(rendered)) : finding);
    }

    /** A colour of the picture itself that the text reads on, to stand in for it: its edge's or its middle one. */
    private Optional<UnaryOperator<Finding>> until(OnPicture text) {
        Backgrounds backgrounds = new Backgrounds(text.scenes, gallery);
        PaintedPicture picture = PaintedPicture.of(rendered, text.scenes.page()).stream()
                .filter(p -> text.scenes.page().elements().get(p.element()) == text.holder
                        && gallery.pixels(p.path()).isPresent())
                .findFirst()
                .orElse(null);
        if (picture == null) {
            return Optional.empty();
        }
        List<Color> candidates = new ArrayList<>();
        for (int width : List.of(1440, 390)) {
            backgrounds
                    .seam(picture, UnaryOperator.identity(), Color.WHITE, width)
                    .ifPresent(s -> candidates.add(s.edge()));
        }
        candidates.add(gallery.pixels(picture.path()).orElseThrow().middle());
        return candidates.stream()
                .map(c -> Color.parse(c.hex()).orElseThrow())
                .filter(c -> Contrast.ratio(text.without.text(), c) >= text.needed)
                .findFirst()
                .map(c -> f -> new Finding(
                        f.kind(),
                        f.file(),
                        f.line(),
                        f.column(),
                        f.message(),
                        "Let " + ColorKey.of(c) + " stand in for it, a colour of the picture itself.",
                        f.subject(),
                        () -> BackgroundChange.of(
                                rendered,
                                picture,
                                Map.of("background-color", ColorKey.of(c)),
                                ColorKey.of(c) + " stands in for " + picture.path()),
                        f.painted()));
    }

    private static double floor(double ratio) {
        return Math.floor(ratio * 100) / 100;
    }
}

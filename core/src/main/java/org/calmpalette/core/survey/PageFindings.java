package org.calmpalette.core.survey;

import java.util.ArrayList;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.ToDoubleFunction;
import java.util.regex.Pattern;
import org.calmpalette.core.cascade.ElementStyle;
import org.calmpalette.core.cascade.Explanation;
import org.calmpalette.core.cascade.LetterPaint;
import org.calmpalette.core.cascade.Origin;
import org.calmpalette.core.cascade.PageStyles;
import org.calmpalette.core.cascade.Painting;
import org.calmpalette.core.change.Change;
import org.calmpalette.core.change.Located;
import org.calmpalette.core.change.OwnSheet;
import org.calmpalette.core.change.SheetRole;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.color.ColorSpace;
import org.calmpalette.core.color.Contrast;
import org.calmpalette.core.css.Edit;
import org.calmpalette.core.css.selector.Inactive;
import org.calmpalette.core.css.selector.SelectorList;
import org.calmpalette.core.css.selector.States;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.page.Paths;
import org.calmpalette.core.part.Banner;
import org.calmpalette.core.part.PartChange;
import org.calmpalette.core.part.PartSelector;
import org.calmpalette.core.part.ScriptClass;
import org.calmpalette.core.render.Backdrop;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.setting.ColorKey;
import org.calmpalette.core.usage.PageSelector;
import org.calmpalette.core.usage.Painted;
import org.calmpalette.core.value.Viewport;
import org.jsoup.nodes.Element;
import org.jsoup.nodes.TextNode;

/** What is wrong on the pages themselves: text that cannot be read, is lost to screen readers, or lies under the header. */
final class PageFindings {
    private static final Viewport WIDE = Viewport.of(1440, 900);
    private static final Viewport NARROW = Viewport.of(390, 800);
    private static final Set<String> NEEDED_TEXT =
            Set.of("label", "legend", "caption", "h1", "h2", "h3", "h4", "h5", "h6");
    private static final String OUT_OF_SIGHT =
            "position: absolute; width: 1px; height: 1px; overflow: hidden; clip-path: inset(50%); white-space: nowrap";

    /** Hides the text and keeps the box with its picture, at any width: common practice. */
    private static final String CUT_OFF = "text-indent: 100%; white-space: nowrap; overflow: hidden";

    private static final Pattern FAR_OUT = Pattern.compile(
            "-(?:[5-9]\\d{2,}|\\d{4,})(?:\\.\\d+)?px|-\\d{2,}(?:\\.\\d+)?r?em|-\\d{3,}(?:\\.\\d+)?(?:%|vw)");

    private final Rendered rendered;
    private final Map<String, SheetRole> roles;
    private final List<Finding> findings = new ArrayList<>();
    private final Map<String, Unread> unread = new LinkedHashMap<>();
    private final Set<String> told = new LinkedHashSet<>();
    private final Map<Page, List<ScriptClass>> scripted = new IdentityHashMap<>();

    /** Texts that one declaration paints too faintly on one ground. */
    private static final class Unread {
        final Page page;
        final int index;
        final Color text;
        final Backdrop backdrop;
        final Backdrop.Seen seen;
        final double needed;
        final String words;
        final Explanation why;
        final Explanation groundWhy;
        /** The class that a script puts on, or null for the page as it stands. */
        final ScriptClass with;

        final Set<String> pages = new LinkedHashSet<>();
        int parts;

        Unread(
                Page page,
                int index,
                Color text,
                Backdrop backdrop,
                double needed,
                String words,
                Explanation why,
                Explanation groundWhy,
                ScriptClass with) {
            this.with = with;
            this.page = page;
            this.index = index;
            this.text = text;
            this.backdrop = backdrop;
            this.seen = backdrop.unknown() == null ? backdrop.under(text) : null;
            this.needed = needed;
            this.words = words;
            this.why = why;
            this.groundWhy = groundWhy;
        }
    }

    private PageFindings(Rendered rendered, Map<String, SheetRole> roles) {
        this.rendered = rendered;
        this.roles = roles;
    }

    static List<Finding> of(Rendered rendered, Map<String, SheetRole> roles, Share share) {
        PageFindings found = new PageFindings(rendered, roles);
        for (Page page : rendered.theme().pages()) {
            share.page(page.source().file(), "its texts", () -> {
                PageStyles styles = rendered.styles(page, WIDE, States.NONE);
                List<ScriptClass> scripted = ScriptClass.of(rendered.theme(), page);
                found.scripted.put(page, scripted);
                found.texts(page, styles, null);
                scripted.forEach(s -> found.texts(s.page(), rendered.styles(s.page(), WIDE, States.NONE), s));
                found.hidden(page, styles);
                found.pushed(page, styles);
                found.covered(page, styles);
                CoverFindings.of(page, styles).stream()
                        .filter(f -> found.told.add(f.key()))
                        .forEach(found.findings::add);
                found.findings.addAll(MarkupFindings.of(page, styles));
            });
        }
        share.question(
                rendered.theme().pages().isEmpty()
                        ? ""
                        : rendered.theme().pages().get(0).source().file(),
                "texts that are hard to read",
                () -> found.unread.values().stream()
                        .limit(Survey.MOST_OF_A_KIND)
                        .forEach(found::report));
        int more = found.unread.size() - Survey.MOST_OF_A_KIND;
        if (more > 0) {
            Unread first = found.unread.values().iterator().next();
            found.findings.add(new Finding(
                            Finding.Kind.LIMIT,
                            first.page.source().file(),
                            1,
                            0,
                            String.format(
                                    Locale.ROOT,
                                    "%,d more colours of text that are hard to read are not listed.",
                                    more),
                            "Mend those that are listed; the next ones come then.")
                    .about("texts"));
        }
        return found.findings;
    }

    /** @param with a class that a script puts on: then only what lies in the elements that get it is looked at; else null */
    private void texts(Page page, PageStyles styles, ScriptClass with) {
        List<Element> all = page.elements();
        Backdrop.Reader backdrops = new Backdrop.Reader(styles, rendered.theme().files()::has);
        for (int i = 1; i < all.size(); i++) {
            Element e = all.get(i);
            String words = e.textNodes().stream()
                    .map(TextNode::text)
                    .filter(t -> !t.isBlank())
                    .findFirst()
                    .orElse("")
                    .strip();
            if (words.isEmpty()
                    || with != null && !with.reaches(i)
                    || e.normalName().equals("option")
                    || Inactive.holds(e)
                    || styles.isHidden(e)
                    || !isInBody(e)) {
                continue;
            }
            ElementStyle style = styles.of(e);
            Backdrop backdrop = backdrops.of(e);
            Optional<Color> text = style.colorOf("color");
            // What is faded to nothing waits to be shown by a state or a script.
            boolean gradient = backdrop.unknown() == Backdrop.Unknown.GRADIENT;
            boolean changes = backdrop.unknown() == Backdrop.Unknown.CHANGES;
            if (backdrop.unknown() != null && !gradient && !changes
                    || backdrop.isInvisible()
                    || text.isEmpty()
                    || text.get().alpha() == 0
                    || LetterPaint.isFilled(style)
                    || LetterPaint.isShadowed(style)) {
                continue;
            }
            // In a specimen a class stands without what it is made to stand on: only its own ground can be judged.
            boolean alone = e.parent() != null && e.parent().hasAttr("data-specimen") && backdrop.holder() != e;
            if (alone) {
                continue;
            }
            Optional<Backdrop.Range> range = backdrop.range(text.get());
            if ((gradient || changes) && range.isEmpty()) {
                continue;
            }
            // Where on a gradient the text stands is not known here, so it is only told what reads on no colour of it.
            // On a page that changes it stands on each of its colours: a window may be as high as the page.
            double ratio = changes
                    ? range.get().least()
                    : gradient ? range.get().most() : backdrop.under(text.get()).ratio();
            String ground = gradient || changes
                    ? (gradient ? "gradient " : "change ") + range.get().worst().hex()
                    : backdrop.under(text.get()).ground().hex();
            double needed = Contrast.needed(style.fontSizePx(), style.fontWeight());
            if (ratio < needed) {
                Explanation why = Explanation.of(style, "color");
                String by = why.winner() == null
                        ? ""
                        : why.winner().file()
                                + why.winner().line()
                                + why.winner().selector();
                String key = by + "|" + text.get().hex() + "|" + ground;
                // What cannot be read as it stands is told with what the class makes of it.
                if (with != null && unread.containsKey(key)) {
                    continue;
                }
                Unread u = unread.computeIfAbsent(
                        with == null ? key : key + "|" + with.name(),
                        k -> new Unread(
                                page,
                                all.indexOf(e),
                                text.get(),
                                backdrop,
                                needed,
                                words,
                                why,
                                changes
                                        ? ground(styles, backdrop, text.get())
                                        : Explanation.of(styles.of(backdrop.holder()), "background-color"),
                                with));
                u.parts++;
                u.pages.add(page.source().file());
            }
        }
    }

    /** Why the page has the colour that the text is hardest to read on. */
    private static Explanation ground(PageStyles styles, Backdrop backdrop, Color text) {
        return backdrop.hardest(text)
                .map(box -> Explanation.of(
                        box.pseudoElement() == null
                                ? styles.of(box.element())
                                : styles.of(box.element(), box.pseudoElement()),
                        "background-color"))
                .orElseGet(() -> Explanation.of(styles.of(backdrop.holder()), "background-color"));
    }

    private static boolean isInBody(Element e) {
        return e.parents().stream().anyMatch(p -> p.normalName().equals("body"))
                || e.normalName().equals("body");
    }

    private void report(Unread u) {
        Explanation.Cause w = u.why.winner();
        boolean gradient = u.backdrop.unknown() == Backdrop.Unknown.GRADIENT;
        boolean changes = u.backdrop.unknown() == Backdrop.Unknown.CHANGES;
        ToDoubleFunction<Color> reading = gradient || changes
                ? c -> u.backdrop.range(c).map(Backdrop.Range::least).orElse(0.0)
                : c -> u.backdrop.under(c).ratio();
        Backdrop.Range range = u.backdrop.range(u.text).orElse(null);
        double ratio = gradient ? range.most() : changes ? range.least() : u.seen.ratio();
        Color ground = gradient || changes ? range.worst() : u.seen.ground();
        boolean faded = !gradient && !changes && u.backdrop.layers().stream().anyMatch(l -> l.opacity() < 1);
        Color better = readable(u.text, reading, u.needed);
        boolean reaches = reading.applyAsDouble(better) >= u.needed;
        String settings = setting(u.why)
                        .map(k -> " The colour is the setting “" + label(k) + "”.")
                        .orElse("")
                + setting(u.groundWhy)
                        .map(k -> " The ground is the setting “" + label(k) + "”.")
                        .orElse("");
        boolean placed = w != null && w.isInTheme();
        String file = placed && rendered.theme().files().has(w.file())
                ? w.file()
                : u.page.source().file();
        int line = placed && file.equals(w.file())
                ? w.line()
                : Math.max(
                        1,
                        u.page.source()
                                .line(Math.max(
                                        0,
                                        u.page.elements()
                                                .get(u.index)
                                                .sourceRange()
                                                .startPos())));
        String words = u.words.length() > 40 ? u.words.substring(0, 40) + "…" : u.words;
        String found = gradient
                ? String.format(
                        Locale.ROOT,
                        "%s comes to %.2f to 1 at best on the gradient behind it",
                        ColorKey.of(u.text),
                        Math.floor(ratio * 100) / 100)
                : String.format(
                        Locale.ROOT,
                        changes
                                ? "%s is on a page that turns %s at times, which is %.2f to 1"
                                : "%s on %s is %.2f to 1",
                        ColorKey.of(faded ? u.seen.text() : u.text),
                        ColorKey.of(ground),
                        Math.floor(ratio * 100) / 100);
        Finding finding = new Finding(
                        Finding.Kind.UNREADABLE_TEXT,
                        file,
                        line,
                        0,
                        String.format(
                                Locale.ROOT,
                                "“%s” is hard to read%s: %s, and %s is needed. %d %s on %d %s.%s",
                                words,
                                u.with == null ? "" : " once a script sets the class “" + u.with.name() + "”",
                                found,
                                u.needed == 3 ? "3" : "4.5",
                                u.parts,
                                u.parts == 1 ? "part" : "parts",
                                u.pages.size(),
                                u.pages.size() == 1 ? "page" : "pages",
                                (faded
                                                ? " Opacity makes it paler than it is written, " + ColorKey.of(u.text)
                                                        + "."
                                                : "")
                                        + settings
                                        + withScript(u)),
                        reaches
                                ? "Write it in " + ColorKey.of(better) + ", the nearest that reads."
                                : gradient
                                        ? "Lay a plain colour behind it; no colour of text reads everywhere on this gradient."
                                        : changes
                                                ? "Lay a plain colour behind it, or let the page take on colours nearer to each other."
                                                : "Raise the opacity; no colour of text reads at this one.")
                .about((w == null ? words : w.selector()) + " " + ColorKey.of(u.text) + " on " + ColorKey.of(ground))
                .painting(painted(u.page, u.index));
        findings.add(
                setting(u.why).isPresent()
                                || !reaches
                                || u.with != null
                                || !withScript(u).isEmpty()
                        ? finding
                        : finding.fixedBy(() -> {
                            PartChange change =
                                    new PartChange(rendered, u.page, u.index, null, "color", WIDE, Set.of(), null);
                            boolean own = w != null
                                    && w.isInTheme()
                                    && w.origin() == Origin.AUTHOR
                                    && u.why.inheritedFrom() == null
                                    && u.why.through().isEmpty();
                            return change.fix(own ? "rule" : "only", new PartChange.What.Value(ColorKey.of(better)));
                        }));
    }

    /** What a class that a script puts on makes of it: then nobody knows which of the two one sees. */
    private String withScript(Unread u) {
        if (u.with != null) {
            return " Which of the two one sees depends on that script.";
        }
        for (ScriptClass s : scripted.getOrDefault(u.page, List.of())) {
            Element e = s.page().elements().get(u.index);
            PageStyles styles = s.reaches(u.index) ? rendered.styles(s.page(), WIDE, States.NONE) : null;
            Optional<Color> text =
                    styles == null ? Optional.empty() : styles.of(e).colorOf("color");
            if (text.isEmpty()) {
                continue;
            }
            Backdrop there = new Backdrop.Reader(styles, rendered.theme().files()::has).of(e);
            if (there.unknown() == null && u.seen != null) {
                Backdrop.Seen seen = there.under(text.get());
                if (Math.abs(seen.ratio() - u.seen.ratio()) > 0.05) {
                    return String.format(
                            Locale.ROOT,
                            " It depends on a script: with the class “%s” it is %s on %s, %.2f to 1.",
                            s.name(),
                            ColorKey.of(seen.text()),
                            ColorKey.of(seen.ground()),
                            Math.floor(seen.ratio() * 100) / 100);
                }
            }
        }
        return "";
    }

    private static List<Painted> painted(Page page, int index) {
        return SelectorList.parse(PartSelector.unique(page, page.elements().get(index)))
                .map(l -> PageSelector.of(l, "color"))
                .orElse(List.of());
    }

    private Optional<String> setting(Explanation e) {
        var settings = rendered.theme().palette().properties();
        return e.through().stream()
                .filter(settings::containsKey)
                .map(n -> settings.get(n).key())
                .findFirst();
    }

    private String label(String key) {
        return rendered.theme().palette().setting(key).map(s -> s.label()).orElse(key);
    }

    /** The colour of the same hue with the least change of lightness that reaches the ratio; else black or white. */
    static Color readable(Color text, ToDoubleFunction<Color> reading, double needed) {
        Color from = text.withAlpha(1).to(ColorSpace.OKLCH);
        Color best = null;
        double least = Double.MAX_VALUE;
        for (int step = 0; step <= 200; step++) {
            double lightness = step / 200.0;
            Color tried = new Color(ColorSpace.OKLCH, lightness, from.c1(), from.c2(), 1).toGamut();
            // Rounded to bytes as it will be written, with a little to spare.
            Color written = Color.parse(tried.hex()).orElseThrow();
            double change = Math.abs(lightness - from.c0());
            if (change < least && reading.applyAsDouble(written) >= needed + 0.05) {
                best = written;
                least = change;
            }
        }
        return best != null
                ? best
                : reading.applyAsDouble(Color.BLACK) >= reading.applyAsDouble(Color.WHITE) ? Color.BLACK : Color.WHITE;
    }

    /** Text that everybody needs, taken from the page with {@code display: none} or {@code visibility: hidden}. */
    private void hidden(Page page, PageStyles styles) {
        PageStyles narrow = rendered.styles(page, NARROW, States.NONE);
        List<Element> all = page.elements();
        for (int i = 1; i < all.size(); i++) {
            Element e = all.get(i);
            boolean meant = NEEDED_TEXT.contains(e.normalName())
                    || e.classNames().stream()
                            .anyMatch(c -> c.matches("(?i).*(sr-only|screen-?reader|visually-?hidden).*"));
            if (!meant
                    || !e.hasText()
                    || e.hasAttr("hidden")
                    || e.hasAttr("aria-hidden")
                    || e.parent() != null && styles.isHidden(e.parent())) {
                continue;
            }
            for (String property : List.of("display", "visibility")) {
                String gone = property.equals("display") ? "none" : "hidden";
                Explanation why = Explanation.of(styles.of(e), property);
                Explanation.Cause w = why.winner();
                if (!styles.of(e).computed(property).equals(gone)
                        || !narrow.of(e).computed(property).equals(gone)
                        || w == null
                        || !w.isInTheme()
                        || why.inheritedFrom() != null
                        || !told.add(w.file() + w.start())) {
                    continue;
                }
                Finding finding = new Finding(
                                Finding.Kind.HIDDEN_TEXT,
                                w.file(),
                                w.line(),
                                0,
                                w.selector() + " { " + property + ": " + gone + " } hides “" + shortened(e.text())
                                        + "” (" + e.normalName() + ") from screen readers too.",
                                "Hide it from sight only.")
                        .about(w.selector() + " " + property)
                        .painting(painted(page, i));
                findings.add(
                        roles.containsKey(w.file()) && roles.get(w.file()).lasts()
                                ? finding.fixedBy(() -> {
                                    Located at = Located.find(rendered.theme(), w.file(), w.start());
                                    return Change.edit(
                                            "Hid " + w.selector() + " from sight only",
                                            w.file(),
                                            new Edit(
                                                    at.nameStart(),
                                                    at.declarationEnd(),
                                                    OUT_OF_SIGHT.replace(
                                                            "; ",
                                                            ";"
                                                                    + (at.isOnOwnLine()
                                                                            ? at.part()
                                                                                            .file()
                                                                                            .newline()
                                                                                    + at.indent()
                                                                            : " "))));
                                })
                                : finding);
            }
        }
    }

    /** Text pushed out of the window by an indent: it stretches what is outlined on focus, and right-to-left pages scroll to it. */
    private void pushed(Page page, PageStyles styles) {
        List<Element> all = page.elements();
        for (int i = 1; i < all.size(); i++) {
            Element e = all.get(i);
            String indent =
                    e.hasText() ? Painting.declared(styles.of(e), "text-indent").orElse("") : "";
            if (!FAR_OUT.matcher(indent).matches() || styles.isHidden(e)) {
                continue;
            }
            Explanation.Cause w = Explanation.of(styles.of(e), "text-indent").winner();
            if (w == null || !w.isInTheme() || !told.add(w.file() + w.start())) {
                continue;
            }
            Finding finding = new Finding(
                            Finding.Kind.PUSHED_TEXT,
                            w.file(),
                            w.line(),
                            0,
                            w.selector() + " { text-indent: " + indent + " } pushes “" + shortened(e.text()) + "” ("
                                    + e.normalName() + ") out of the window instead of hiding it.",
                            "Cut it off at the edge of its own box.")
                    .about(w.selector() + " text-indent")
                    .painting(painted(page, i));
            boolean own = roles.containsKey(w.file()) && roles.get(w.file()).lasts() && w.origin() == Origin.AUTHOR;
            Banner banner = new Banner(rendered, roles);
            Optional<String> picture =
                    own && Banner.holder(page, e).isPresent() ? banner.behind(page, e) : Optional.empty();
            if (picture.isPresent()) {
                findings.add(new Finding(
                        finding.kind(),
                        finding.file(),
                        finding.line(),
                        0,
                        finding.message(),
                        "Put " + picture.get()
                                + " itself in its place: its height follows the picture, and screen readers say the words.",
                        finding.subject(),
                        () -> banner.of(page, e, picture.get(), null, null, true),
                        finding.painted()));
                continue;
            }
            findings.add(
                    own
                            ? finding.fixedBy(() -> {
                                Located at = Located.find(rendered.theme(), w.file(), w.start());
                                return Change.edit(
                                        "Cut the text of " + w.selector() + " off at the edge of its box",
                                        w.file(),
                                        new Edit(
                                                at.nameStart(),
                                                at.declarationEnd(),
                                                CUT_OFF.replace(
                                                        "; ",
                                                        ";"
                                                                + (at.isOnOwnLine()
                                                                        ? at.part()
                                                                                        .file()
                                                                                        .newline()
                                                                                + at.indent()
                                                                        : " "))));
                            })
                            : finding);
        }
    }

    private static String shortened(String text) {
        return text.length() > 40 ? text.substring(0, 40) + "…" : text;
    }

    /** A header that stays in view hides what is linked to, and what comes first, unless room is left for it. */
    private void covered(Page page, PageStyles styles) {
        Element header = page.elements().stream()
                .skip(1)
                .filter(e -> isInBody(e) && isStaying(styles.of(e)))
                .findFirst()
                .orElse(null);
        if (header == null || styles.isHidden(header)) {
            return;
        }
        ElementStyle style = styles.of(header);
        String height = height(style);
        Explanation.Cause w = Explanation.of(style, "position").winner();
        if (w == null || !w.isInTheme()) {
            return;
        }
        Element root = page.document().selectFirst("html");
        List<String> targets = targets(page);
        boolean room = Painting.declared(styles.of(root), "scroll-padding-top").isPresent()
                || Painting.declared(styles.of(root), "scroll-padding").isPresent();
        targets.removeIf(id -> {
            Element target = page.document().getElementById(id);
            return target == null
                    || Painting.declared(styles.of(target), "scroll-margin-top").isPresent();
        });
        if (!room && !targets.isEmpty() && told.add("target")) {
            Finding finding = new Finding(
                            Finding.Kind.COVERED_TARGET,
                            w.file(),
                            w.line(),
                            0,
                            w.selector() + " stays at the top and covers what is linked to: #"
                                    + String.join(", #", targets) + " in "
                                    + page.source().file() + ".",
                            "Leave room above targets, as high as the header.")
                    .about(w.selector())
                    .painting(painted(page, page.elements().indexOf(header)));
            findings.add(
                    height.isEmpty()
                            ? finding
                            : finding.fixedBy(() -> new OwnSheet(rendered, roles)
                                    .append(
                                            "Left " + height + " of room above what is linked to",
                                            "html {\n  scroll-padding-top: " + height + ";\n}",
                                            rendered.theme().pages())));
        }
        content(page, styles, header, height, w);
    }

    private static boolean isStaying(ElementStyle style) {
        return (style.computed("position").equals("fixed")
                        || style.computed("position").equals("sticky"))
                && Painting.declared(style, "top")
                        .filter(v -> v.equals("0") || v.equals("0px"))
                        .isPresent()
                && Painting.declared(style, "bottom")
                        .filter(v -> !v.equals("auto"))
                        .isEmpty();
    }

    private static String height(ElementStyle style) {
        return Painting.declared(style, "height")
                .or(() -> Painting.declared(style, "min-height"))
                .filter(v -> v.matches("[1-9][\\d.]*(px|rem|em)"))
                .orElse("");
    }

    /** Ids on a page that any page of the theme links to. */
    private List<String> targets(Page page) {
        Set<String> ids = new LinkedHashSet<>();
        for (Page from : rendered.theme().pages()) {
            for (Element a : from.document().select("a[href*=#]")) {
                String href = a.attr("href");
                String id = href.substring(href.indexOf('#') + 1);
                boolean here = href.startsWith("#")
                        ? from == page
                        : Paths.resolve(from.source().file(), href)
                                .filter(page.source().file()::equals)
                                .isPresent();
                if (here && !id.isEmpty() && page.document().getElementById(id) != null) {
                    ids.add(id);
                }
            }
        }
        return new ArrayList<>(ids);
    }

    /** The first text after a fixed header, if less room is above it than the header takes. */
    private void content(Page page, PageStyles styles, Element header, String height, Explanation.Cause w) {
        double high = height.endsWith("px") ? Double.parseDouble(height.replace("px", "")) : 0;
        Element body = page.document().body();
        if (high == 0 || !styles.of(header).computed("position").equals("fixed") || header.parent() != body) {
            return;
        }
        ElementStyle around = styles.of(body);
        // What depends on layout cannot be added up.
        if (around.px("padding-top").isEmpty() || around.px("margin-top").isEmpty()) {
            return;
        }
        double room =
                around.px("padding-top").getAsDouble() + around.px("margin-top").getAsDouble();
        Element e = header.nextElementSibling();
        while (e != null && room < high) {
            ElementStyle style = styles.of(e);
            boolean placed = !style.computed("display").equals("block")
                    && !style.computed("display").equals("list-item");
            if (placed
                    || !style.computed("position").equals("static")
                    || !style.computed("background-image").equals("none")) {
                return;
            }
            if (style.px("padding-top").isEmpty() || style.px("margin-top").isEmpty()) {
                return;
            }
            room += style.px("padding-top").getAsDouble()
                    + Math.max(0, style.px("margin-top").getAsDouble());
            if (!e.ownText().isBlank()) {
                if (room < high && told.add("content")) {
                    Finding finding = new Finding(
                                    Finding.Kind.COVERED_CONTENT,
                                    w.file(),
                                    w.line(),
                                    0,
                                    w.selector() + " is fixed and " + height + " high, but “" + shortened(e.text())
                                            + "” in " + page.source().file() + " starts " + Math.round(room)
                                            + "px from the top.",
                                    "Give the page " + height + " of room at its top.")
                            .about(w.selector())
                            .painting(painted(page, page.elements().indexOf(e)));
                    findings.add(finding.fixedBy(() -> new OwnSheet(rendered, roles)
                            .append(
                                    "Left " + height + " of room for the fixed header",
                                    "body {\n  padding-top: " + height + ";\n}",
                                    rendered.theme().pages())));
                }
                return;
            }
            e = e.firstElementChild();
        }
    }
}

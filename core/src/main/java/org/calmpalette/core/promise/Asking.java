package org.calmpalette.core.promise;

import java.util.ArrayList;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.BooleanSupplier;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.calmpalette.core.Budget;
import org.calmpalette.core.cascade.ColorExpression;
import org.calmpalette.core.cascade.ElementStyle;
import org.calmpalette.core.cascade.LetterPaint;
import org.calmpalette.core.cascade.PageStyles;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.color.Contrast;
import org.calmpalette.core.css.selector.Inactive;
import org.calmpalette.core.css.selector.States;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.paint.Paint.Veil;
import org.calmpalette.core.part.ScriptClass;
import org.calmpalette.core.render.Backdrop;
import org.calmpalette.core.render.Gallery;
import org.calmpalette.core.render.Measures;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.setting.Band;
import org.calmpalette.core.setting.ColorKind;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.Thresholds;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.value.Viewport;
import org.jsoup.nodes.Element;

/** Walks over pages and asks of all that has to be seen there, at every width and in every state, whether it keeps its contrast. */
class Asking {
    private static final int HEIGHT = 900;
    private final Theme theme;
    private final Map<String, Measures> measures;
    private final Map<String, Optional<Laid>> laid = new HashMap<>();
    private final Rendered rendered;
    private final Map<String, Setting> properties;
    private final ColorExpression.Choices choices;
    private Map<List<Object>, Asked> asked = new LinkedHashMap<>();
    private final boolean containers;
    /** Whether some stylesheet may write something before or after an element. */
    private final boolean generates;
    /** Whether some stylesheet may draw an outline around what the keyboard has come to. */
    private final boolean outlines;
    /** Whether visitors who prefer a dark scheme may see other colours. */
    private final boolean dark;

    private final Gallery gallery;
    private final Proof proof;
    private final Map<String, Veil> pictures = new HashMap<>();
    /** States that some stylesheet looks at. */
    private final Set<String> states;

    private static final Pattern DARK =
            Pattern.compile("prefers-color-scheme|color-scheme\\s*:[^;}]*dark", Pattern.CASE_INSENSITIVE);

    /** A declaration that may write something: most that say content draw a box with nothing in it. */
    private static final Pattern GENERATES =
            Pattern.compile("(?<![\\w-])content\\s*:(?!\\s*(\"\"|''|none|normal)\\s*[;}!])", Pattern.CASE_INSENSITIVE);

    private final Following following;

    Asking(Theme theme, Map<String, Measures> measures) {
        this.theme = theme;
        this.measures = measures;
        this.rendered = new Rendered(theme, Map.of());
        this.gallery = new Gallery(theme);
        this.proof = new Proof(theme);
        this.states = PartStates.of(theme);
        Set<String> colors = new LinkedHashSet<>();
        Set<String> numbers = new LinkedHashSet<>();
        Set<String> others = new LinkedHashSet<>();
        properties = theme.palette().properties();
        properties.forEach((property, setting) -> {
            boolean color = setting.kind() instanceof ColorKind && property.equals(setting.property());
            boolean triple = setting.triple() && property.equals(setting.tripleProperty());
            (color ? colors : triple ? numbers : others).add(property);
        });
        dark = theme.sheets().stream()
                .anyMatch(s -> DARK.matcher(s.file().text()).find());
        // What holds by the size of a box is known by layout alone.
        containers = theme.sheets().stream().anyMatch(s -> s.file().text().contains("@container"));
        generates = theme.sheets().stream()
                .anyMatch(s -> GENERATES.matcher(s.file().text()).find());
        outlines = states.contains("focus")
                && theme.sheets().stream().anyMatch(s -> s.file().text().contains("outline"));
        choices = new ColorExpression.Choices(colors, numbers, others, Set.of(Theme.SETTINGS_CSS, Theme.PALETTE_CSS));
        following = new Following(theme, choices);
    }

    /** What is asked of all pages alike, and is told by the stylesheets of all of them. */
    List<Object> given() {
        return List.of(states, dark, containers, following.isByPlace(), Readable.widths(theme));
    }

    /** All that pages ask, the same question of several once. */
    Map<List<Object>, Asked> of(List<Page> pages) {
        asked = new LinkedHashMap<>();
        pages.forEach(this::page);
        return asked;
    }

    private void page(Page page) {
        List<Integer> widths = Readable.widths(theme);
        for (int i = 0; i < widths.size(); i++) {
            int last = i + 1 < widths.size() ? widths.get(i + 1) - 1 : Readable.TO;
            texts(page, widths.get(i), last, false);
            if (dark) {
                texts(page, widths.get(i), last, true);
            }
        }
    }

    /** @param last width at which the same rules hold */
    private void texts(Page page, int width, int last, boolean inTheDark) {
        Seen rest = new Seen(page, width, last, States.NONE, "", inTheDark);
        Map<String, PageStyles> inState = new LinkedHashMap<>();
        for (String state : states) {
            Set<String> pseudoClasses = PartStates.ALL.get(state);
            inState.put(state, rendered.styles(page, window(width, inTheDark), (e, s) -> pseudoClasses.contains(s)));
        }
        List<Element> all = page.elements();
        for (int i = 1; i < all.size(); i++) {
            Element e = all.get(i);
            Set<Perceivable> wanted = wanted(e, rest.styles);
            if (wanted.isEmpty()) {
                Budget.step();
                continue;
            }
            Budget.longStep();
            for (Perceivable what : wanted) {
                rest.ask(i, e, what);
            }
            for (Map.Entry<String, PageStyles> s : inState.entrySet()) {
                Element holder = PartStates.holder(e, s.getKey());
                if (holder != null && isDecidedOtherwise(e, s.getValue(), e, rest.styles)) {
                    Seen then = new Seen(page, width, last, PartStates.on(holder, s.getKey()), s.getKey(), inTheDark);
                    then.laidAsAtRest = () -> PartStates.isLaidAs(e, then.styles, e, rest.styles);
                    for (Perceivable what : wanted) {
                        then.ask(i, e, what);
                    }
                }
            }
        }
        for (ScriptClass script : scripted(page)) {
            PageStyles then = rendered.styles(script.page(), window(width, inTheDark), States.NONE);
            List<Element> changed = script.page().elements();
            for (int i = 1; i < all.size(); i++) {
                Element e = all.get(i);
                if (script.reaches(changed.get(i)) && isDecidedOtherwise(changed.get(i), then, e, rest.styles)) {
                    Set<Perceivable> wanted = wanted(e, rest.styles);
                    if (wanted.isEmpty()) {
                        continue;
                    }
                    Seen seen = new Seen(script.page(), width, last, States.NONE, "." + script.name(), inTheDark);
                    Element made = changed.get(i);
                    seen.laidAsAtRest = () -> PartStates.isLaidAs(made, then, e, rest.styles);
                    for (Perceivable what : wanted) {
                        seen.ask(i, made, what);
                    }
                }
            }
        }
    }

    private final Map<String, List<ScriptClass>> scripted = new HashMap<>();

    /** What the scripts of a page may make of it, one class at a time. */
    private List<ScriptClass> scripted(Page page) {
        return scripted.computeIfAbsent(page.source().file(), p -> ScriptClass.of(theme, page));
    }

    static Viewport window(int width, boolean inTheDark) {
        Viewport light = Viewport.of(width, HEIGHT);
        return inTheDark ? light.inTheDark() : light;
    }

    /** As {@link PartStates#isDecidedOtherwise}, and whether a drawing is painted otherwise. */
    private static boolean isDecidedOtherwise(Element then, PageStyles one, Element e, PageStyles other) {
        if (PartStates.isDecidedOtherwise(then, one, e, other)) {
            return true;
        }
        List<Element> shapes = e.normalName().equals("svg") ? e.select("*") : List.of();
        List<Element> those = shapes.isEmpty() ? List.of() : then.select("*");
        for (int i = 0; i < shapes.size(); i++) {
            if (!one.of(those.get(i)).isDecidedAs(other.of(shapes.get(i)))) {
                return true;
            }
        }
        return false;
    }

    /** What of an element is asked about, at rest or in some state. */
    private Set<Perceivable> wanted(Element e, PageStyles styles) {
        if (UNSEEN.contains(e.normalName()) || !isInBody(e)) {
            return Set.of();
        }
        Set<Perceivable> all = EnumSet.noneOf(Perceivable.class);
        if (e.textNodes().stream().anyMatch(t -> !t.isBlank()) && e.closest("svg") == null || FieldText.isIn(e)) {
            all.add(Perceivable.TEXT);
        }
        if (generates && styles.of(e, "before").isAuthored("content")) {
            all.add(Perceivable.BEFORE);
        }
        if (generates && styles.of(e, "after").isAuthored("content")) {
            all.add(Perceivable.AFTER);
        }
        if (e.normalName().equals("svg") && Inks.isIcon(styles, e)) {
            all.add(Perceivable.ICON);
        }
        if (FieldText.isBox(e)) {
            all.add(Perceivable.EDGE);
        }
        if (outlines && PartStates.isFocusable(e)) {
            all.add(Perceivable.OUTLINE);
        }
        return all.isEmpty() || Inactive.holds(e) ? Set.of() : all;
    }

    /** What lies behind it; the box that it stands in itself is none of that. */
    static Backdrop behind(Backdrop.Reader backdrops, Element e, Perceivable what) {
        return what.isGenerated()
                ? backdrops.of(e).without(e, what.pseudoElement())
                : backdrops.of(what.isAround() ? e.parent() : e);
    }

    private static final Set<String> UNSEEN = Set.of("script", "style", "option", "template", "noscript");

    private static boolean isInBody(Element e) {
        return e.normalName().equals("body")
                || e.parents().stream().anyMatch(p -> p.normalName().equals("body"));
    }

    /** A page in one window and state. */
    final class Seen {
        private final Page page;
        private final int width;
        private final int last;
        private final States states;
        private final String state;
        private final Band band;
        private final PageStyles styles;
        private final Backdrop.Reader backdrops;
        private final Grounds grounds;
        private final boolean inTheDark;
        /** Asked for few texts: it compares all that is around one. */
        private BooleanSupplier laidAsAtRest = () -> true;

        /** As it is at the last width at which the same rules hold; null until somebody asks. */
        private PageStyles stylesAtLast;

        Seen(Page page, int width, int last, States states, String state, boolean inTheDark) {
            this.inTheDark = inTheDark;
            this.page = page;
            this.width = width;
            this.last = last;
            this.states = states;
            this.state = state;
            band = theme.palette().bands().at(width);
            styles = rendered.styles(page, window(width, inTheDark), states);
            backdrops = new Backdrop.Reader(styles, theme.files()::has);
            grounds = new Grounds(styles, choices, gallery, pictures, Asking.this::isOpaque);
        }

        void ask(int index, Element e, Perceivable what) {
            if (what == Perceivable.TEXT) {
                text(index, e);
            } else if (what != Perceivable.OUTLINE || state.equals("focus")) {
                other(index, e, what);
            }
        }

        /** What is no text of an element: its generated content, a drawing, its edge or outline. */
        private void other(int index, Element e, Perceivable what) {
            Inks inks = Inks.of(styles, e, what);
            boolean follows = what.isGenerated()
                    && ColorExpression.follows(styles.of(e, what.pseudoElement()), "content", choices);
            if (inks.isEmpty() && !follows) {
                return;
            }
            String why = "";
            if (styles.isHidden(e)) {
                if (!following.mayBeShown(styles, e)) {
                    return;
                }
                why = "it is not shown as made, and a choice may show it";
            } else if (following.mayMatchOtherwise(e)) {
                why = "other rules may hold where a choice changes parts or their order";
            } else if (follows) {
                why = "what a stylesheet writes there follows a choice";
            } else if (what.isAround() && ColorExpression.follows(styles.of(e), "opacity", choices)) {
                why = "how see-through it is follows a choice";
            } else if (inks.box() != null) {
                why = unlike(inks.box());
            }
            List<ColorExpression> any = new ArrayList<>();
            inks.any().stream()
                    .map(i -> told(i, what, inks.any().size() > 1))
                    .distinct()
                    .forEach(any::add);
            if (!inks.open().isEmpty()) {
                any.add(new ColorExpression.Unread(inks.open()));
            }
            // What is no colour, such as a gradient of a drawing, is told where no other colour is enough.
            any.sort(java.util.Comparator.comparing(x -> x instanceof ColorExpression.Unread));
            if (any.size() == 1 && any.get(0) instanceof ColorExpression.Unread u && why.isEmpty()) {
                why = u.why();
            }
            if (!why.isEmpty()) {
                Asking.this.ask(new Asked(
                        page, index, width, band, inks.needed(), null, null, why, state, inTheDark, what, List.of()));
                return;
            }
            Backdrop around = behind(backdrops, e, what);
            boolean clear = around.isInvisible() && !following.around(styles, e, "opacity");
            Grounds.Found found = containers && followsAContainer(e)
                    ? Grounds.Found.not("rules hold by the size of a box")
                    : following.around(styles, e, "color-scheme")
                            ? Grounds.Found.not("the scheme follows a choice")
                            : grounds.under(clear ? around.shown() : around, null, false);
            double needed = inks.needed();
            Ply inner = new Ply.Letters();
            if (inks.box() != null) {
                ColorExpression box = ColorExpression.of(inks.box(), "background-color", choices);
                if (!(box instanceof ColorExpression.Fixed f) || f.color().alpha() > 0) {
                    inner = Ply.Group.of(List.of(inner, new Ply.Plain(box)), 1);
                }
                if (isLettered(inks)) {
                    needed = following.around(styles, e, "font-size")
                                    || ColorExpression.follows(inks.box(), "font-size", choices)
                            ? theme.palette().thresholds().level().usual()
                            : theme.palette().thresholds().level().insteadOf(needed);
                }
            }
            double opacity = inks.opacity();
            if (opacity < 1) {
                inner = Ply.Group.of(List.of(inner), opacity);
            }
            found = found.holding(inner);
            Asking.this.ask(new Asked(
                    page,
                    index,
                    width,
                    band,
                    needed,
                    any.get(0),
                    found.under(),
                    found.why(),
                    state,
                    inTheDark,
                    what,
                    List.copyOf(any.subList(1, any.size()))));
        }

        /** The colour of an ink; not told where something besides it decides, by a choice, whether that is what one sees. */
        private ColorExpression told(Inks.Ink ink, Perceivable what, boolean amongOthers) {
            List<String> drawn =
                    switch (what) {
                        case EDGE ->
                            ink.longhand().startsWith("border-")
                                    ? List.of(
                                            ink.longhand().replace("-color", "-width"),
                                            ink.longhand().replace("-color", "-style"))
                                    : List.of("background-image");
                        case OUTLINE -> List.of("outline-width", "outline-style", "outline-offset");
                        case BEFORE, AFTER -> List.of("display", "visibility", "position");
                        default -> List.of("opacity", "display", "visibility", "fill-opacity", "stroke-opacity");
                    };
            boolean follows = drawn.stream()
                    .anyMatch(l -> ColorExpression.follows(ink.style(), l, choices)
                            || what == Perceivable.ICON
                                    && following.around(styles, ink.style().element(), l));
            if (follows) {
                return new ColorExpression.Unread("how it is drawn follows a choice");
            }
            ColorExpression color = ink.expression(choices);
            // A border lies on the ground of its own box, and a shape on other shapes.
            boolean on = what == Perceivable.EDGE && ink.longhand().startsWith("border-")
                    || what == Perceivable.ICON && amongOthers;
            return on && !(color instanceof ColorExpression.Unread) && !isOpaque(color)
                    ? new ColorExpression.Unread("what it is drawn in may let through what is behind it")
                    : color;
        }

        /** Whether words stand in a generated box, and not signs alone. */
        private static boolean isLettered(Inks inks) {
            return Inks.written(inks.box(), inks.box().element()).codePoints().anyMatch(Character::isLetterOrDigit);
        }

        /** Why generated content is not told by its colour and that of its box alone; empty where it is. */
        private String unlike(ElementStyle box) {
            Optional<List<Color>> shadows = LetterPaint.shadows(box);
            boolean out = !box.is("position", "static") && !box.is("position", "relative");
            boolean covers = isOpaque(ColorExpression.of(box, "background-color", choices));
            return LetterPaint.isFilled(box)
                            || shadows.isEmpty()
                            || !shadows.get().isEmpty()
                    ? "a shadow or a fill of the letters takes part"
                    : !box.is("background-image", "none") || ColorExpression.follows(box, "background-image", choices)
                            ? "a picture lies behind what a stylesheet writes there"
                            : ColorExpression.follows(box, "opacity", choices)
                                    ? "how see-through it is follows a choice"
                                    : out && !covers ? "where a stylesheet puts what it writes, layout tells" : "";
        }

        private void text(int index, Element e) {
            if (styles.isHidden(e)) {
                if (following.mayBeShown(styles, e)) {
                    open(index, "it is not shown as made, and a choice may show it");
                }
                return;
            }
            if (following.mayMatchOtherwise(e)) {
                open(index, "other rules may hold where a choice changes parts or their order");
                return;
            }
            // What is wholly clear is asked about as it is once something shows it.
            boolean clear = backdrops.of(e).isInvisible() && !following.around(styles, e, "opacity");
            Backdrop backdrop = clear ? backdrops.of(e).shown() : backdrops.of(e);
            ElementStyle style = styles.of(e);
            ColorExpression letters = ColorExpression.of(style, "color", choices);
            if (letters instanceof ColorExpression.Fixed f && f.color().alpha() == 0) {
                // Letters that nobody is to see: a picture stands for them.
                return;
            }
            Optional<List<Color>> shadows = LetterPaint.shadows(style);
            boolean painted = LetterPaint.isFilled(style)
                    || shadows.isEmpty()
                    || following.around(styles, e, "-webkit-text-fill-color")
                    || following.around(styles, e, "text-shadow");
            if (painted) {
                open(index, "a shadow or a fill of the letters takes part");
                return;
            }
            Grounds.Found found = containers && followsAContainer(e)
                    ? Grounds.Found.not("rules hold by the size of a box")
                    : following.around(styles, e, "color-scheme")
                            ? Grounds.Found.not("the scheme follows a choice")
                            : grounds.under(backdrop, null, false).shadowed(shadows.get());
            Optional<Laid.Place> place = found.byPlace() ? place(index) : Optional.empty();
            if (place.isPresent()) {
                found = grounds.under(backdrop, place.get(), false).shadowed(shadows.get());
            }
            Asked a = Asking.this.ask(new Asked(
                    page,
                    index,
                    width,
                    band,
                    needed(e),
                    letters,
                    found.under(),
                    found.why(),
                    state,
                    inTheDark,
                    Perceivable.TEXT,
                    List.of()));
            if (found.under() != null && !found.under().unsure().isEmpty() && mayBeLaid(page)) {
                a.stands().add(new Asked.Stand(this, index, backdrop, letters));
            }
            if (state.isEmpty() && !FieldText.placeholder(e).isEmpty()) {
                placeholder(index, e, backdrop, place);
            }
        }

        /** What stands in a field before anything is written there: in a colour of its own, on the field's ground. */
        private void placeholder(int index, Element e, Backdrop backdrop, Optional<Laid.Place> place) {
            ElementStyle style = styles.of(e, "placeholder");
            ColorExpression letters = ColorExpression.of(style, "color", choices);
            Optional<List<Color>> shadows = LetterPaint.shadows(style);
            String why = unlike(e, style, shadows);
            Grounds.Found found = !why.isEmpty()
                    ? Grounds.Found.not(why)
                    : containers && followsAContainer(e)
                            ? Grounds.Found.not("rules hold by the size of a box")
                            : following.around(styles, e, "color-scheme")
                                    ? Grounds.Found.not("the scheme follows a choice")
                                    : grounds.under(backdrop, place.orElse(null), false)
                                            .shadowed(shadows.orElseThrow());
            double alpha = style.opacity();
            if (alpha < 1 && why.isEmpty()) {
                if (letters instanceof ColorExpression.Fixed f) {
                    letters = new ColorExpression.Fixed(
                            f.color().withAlpha(f.color().alpha() * alpha));
                } else {
                    found = Grounds.Found.not("its placeholder is see-through, in a colour that may be chosen");
                }
            }
            Thresholds.Level level = theme.palette().thresholds().level();
            double needed = following.around(styles, e, "font-size")
                            || ColorExpression.follows(style, "font-size", choices)
                    ? level.usual()
                    : Math.min(needed(e), level.insteadOf(Contrast.needed(style.fontSizePx(), style.fontWeight())));
            Asking.this.ask(new Asked(
                    page,
                    index,
                    width,
                    band,
                    needed,
                    letters,
                    found.under(),
                    found.why(),
                    FieldText.PLACEHOLDER,
                    inTheDark,
                    Perceivable.TEXT,
                    List.of()));
        }

        /** Why the letters of a placeholder are not told by their colour alone; empty where they are. */
        private String unlike(Element e, ElementStyle style, Optional<List<Color>> shadows) {
            boolean painted = LetterPaint.isFilled(style)
                    || shadows.isEmpty()
                    || ColorExpression.follows(style, "text-shadow", choices)
                    || ColorExpression.follows(style, "-webkit-text-fill-color", choices);
            boolean grounded =
                    style.colorOf("background-color").map(Color::alpha).orElse(1.0) > 0
                            || !style.computed("background-image").equals("none")
                            || ColorExpression.follows(style, "background-color", choices)
                            || ColorExpression.follows(style, "background-image", choices);
            // The name by which Chromium knew it first still counts there, and nowhere else.
            boolean named = !styles.of(e, "-webkit-input-placeholder")
                    .computed("color")
                    .equals(styles.of(e).computed("color"));
            return painted
                    ? "a shadow or a fill of its placeholder takes part"
                    : grounded
                            ? "its placeholder has a ground of its own"
                            : ColorExpression.follows(style, "opacity", choices)
                                    ? "how see-through its placeholder is follows a choice"
                                    : named ? "browsers take its placeholder's colour from different rules" : "";
        }

        private boolean followsAContainer(Element e) {
            for (Element a = e; a != null && a.parent() != null; a = a.parent()) {
                if (styles.mayFollowAContainer(a)) {
                    return true;
                }
            }
            return false;
        }

        /** Where a text stands; known at rest, and in a state that moves no box. */
        private Optional<Laid.Place> place(int index) {
            return laidAsAtRest.getAsBoolean()
                    ? laid(page, inTheDark).flatMap(l -> l.place(index, width, last))
                    : Optional.empty();
        }

        /** What lies behind a text looked at closely, as far as it is known where it stands. */
        Grounds.Found closely(int index, Backdrop backdrop) {
            List<Color> shadows =
                    LetterPaint.shadows(styles.of(page.elements().get(index))).orElseThrow();
            return place(index)
                    .map(p -> grounds.under(backdrop, p, true).shadowed(shadows))
                    .orElse(Grounds.Found.not("it is not known where it stands"));
        }

        private void open(int index, String why) {
            double usual = theme.palette().thresholds().level().usual();
            Asking.this.ask(new Asked(
                    page, index, width, band, usual, null, null, why, state, inTheDark, Perceivable.TEXT, List.of()));
        }

        private double needed(Element e) {
            double needed = Asking.this.needed(styles, e);
            if (needed < theme.palette().thresholds().level().usual() && last > width) {
                // A size may follow the window's width.
                stylesAtLast =
                        stylesAtLast == null ? rendered.styles(page, window(last, inTheDark), states) : stylesAtLast;
                needed = Math.max(needed, Asking.this.needed(stylesAtLast, e));
            }
            return needed;
        }
    }

    private boolean isOpaque(ColorExpression e) {
        return !(e instanceof ColorExpression.Unread)
                && e.properties().stream().allMatch(p -> properties.get(p).kind() instanceof ColorKind)
                && theme.palette().bands().list().stream().allMatch(band -> proof.isOpaque(e, band));
    }

    /** As of a usual text where a choice may make a large one small. */
    private double needed(PageStyles styles, Element e) {
        Thresholds.Level level = theme.palette().thresholds().level();
        return following.around(styles, e, "font-size") || following.around(styles, e, "font-weight")
                ? level.usual()
                : level.insteadOf(
                        Contrast.needed(styles.of(e).fontSizePx(), styles.of(e).fontWeight()));
    }

    /** Takes up a question; the same one of several parts once. */
    Asked ask(Asked one) {
        // Words are words, whoever writes them.
        List<Object> key = new ArrayList<>(List.of(
                String.valueOf(one.letters()),
                String.valueOf(one.under()),
                one.needed(),
                one.why(),
                one.what().isGenerated() ? Perceivable.TEXT : one.what(),
                one.others().toString()));
        if (!one.why().isEmpty()) {
            key.add(one.page().source().file() + " " + one.element() + " " + one.dark());
        } else {
            // The same question in two bands, unless the settings are made otherwise in one of them.
            Stream.concat(
                            Stream.of(Stream.of(one.letters()), one.others().stream(), one.under().colors().stream())
                                    .flatMap(s -> s)
                                    .flatMap(e -> e.properties().stream()),
                            one.under().backgrounds().stream())
                    .distinct()
                    .flatMap(p -> withFollowed(properties.get(p)).stream())
                    .forEach(s -> {
                        key.add(s.givenIn(one.band()));
                        key.add(s.bands().containsKey(one.band().key()));
                    });
        }
        Asked a = asked.computeIfAbsent(key, k -> one);
        a.bands().putIfAbsent(one.band(), one.width());
        a.parts().incrementAndGet();
        a.pages().add(one.page().source().file());
        return a;
    }

    /** A setting and all that it follows. */
    private Set<Setting> withFollowed(Setting s) {
        Set<Setting> all = new LinkedHashSet<>();
        List<Setting> open = new ArrayList<>(List.of(s));
        while (!open.isEmpty()) {
            Setting next = open.remove(open.size() - 1);
            if (all.add(next)) {
                next.following().forEach(f -> Stream.concat(Stream.of(f.key()), f.how().alsoReads().stream())
                        .forEach(k -> theme.palette().setting(k).ifPresent(open::add)));
            }
        }
        return all;
    }

    private boolean mayBeLaid(Page page) {
        return measures.containsKey(page.source().file());
    }

    Optional<Laid> laid(Page page, boolean inTheDark) {
        return laid.computeIfAbsent(
                page.source().file() + (inTheDark ? " in the dark" : ""),
                // As it is measured: without what scripts put on it.
                p -> Laid.of(
                        rendered, gallery, rendered.page(page.source().file()).orElse(page), measures, inTheDark));
    }
}

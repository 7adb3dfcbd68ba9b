package org.calmpalette.core.part;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Predicate;
import org.calmpalette.core.cascade.ElementStyle;
import org.calmpalette.core.cascade.Explanation;
import org.calmpalette.core.cascade.Origin;
import org.calmpalette.core.cascade.PageStyles;
import org.calmpalette.core.cascade.Painting;
import org.calmpalette.core.change.Located;
import org.calmpalette.core.change.SheetRole;
import org.calmpalette.core.change.SourceVariable;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.css.Reference;
import org.calmpalette.core.css.selector.SelectorList;
import org.calmpalette.core.css.selector.States;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.setting.ColorKey;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.usage.PageSelector;
import org.calmpalette.core.usage.Painted;
import org.calmpalette.core.usage.Readers;
import org.calmpalette.core.value.Viewport;
import org.jsoup.nodes.Element;

/**
 * Why a part of a page looks so.
 *
 * @param name what one calls it: its tag with its id or classes
 * @param words the beginning of its text
 * @param around the elements around it, the outermost first
 * @param next where one can go from it: out, in, before, after; 0 where there is nothing
 */
public record PartLook(
        String page, int index, String name, String words, List<Step> around, Next next, List<Aspect> aspects) {
    private static final int MOST_NAMED = 8;
    private static final Set<String> STATES = Set.of("hover", "focus", "active", "current");
    private static final Set<String> SHAPES =
            Set.of("svg", "path", "circle", "rect", "line", "polyline", "polygon", "ellipse", "use", "g", "text");

    /** Indices of the elements next to the part; 0 for none. */
    public record Next(int out, int in, int before, int after) {}

    /** An element around the part. */
    public record Step(int index, String name) {}

    /**
     * One thing that is painted.
     *
     * @param id names it in the part, such as {@code text} or {@code before-background}
     * @param property the longhand that stands for it
     * @param color its colour as a key, or null
     * @param sentence what paints it, in plain words
     * @param explanation null where nothing declares it
     */
    public record Aspect(
            String id,
            String label,
            String pseudo,
            String property,
            String value,
            String color,
            String sentence,
            Explanation explanation,
            Excerpt excerpt,
            List<Reach> reaches) {
        public boolean isColor() {
            return color != null;
        }
    }

    /**
     * How far a change would go.
     *
     * @param id {@code only}, {@code rule}, or the name of a custom property
     * @param setting the setting that the custom property is, if it is one
     * @param count how many elements of all pages it may paint
     */
    public record Reach(
            String id, String label, String place, PartIndex.Count count, List<Painted> painted, String setting) {}

    /** What to look at: a state that is switched on for the part and what is around it. */
    public static States states(Set<String> wanted, Element part) {
        if (wanted.isEmpty()) {
            return States.NONE;
        }
        return (e, s) -> {
            boolean on = wanted.contains(s) || s.startsWith("focus") && wanted.contains("focus");
            return on
                    && (e == part
                            || Set.of("hover", "active", "focus-within").contains(s)
                                    && part.parents().contains(e));
        };
    }

    /** @param states names among hover, focus, active, current */
    public static PartLook of(
            Rendered rendered,
            Readers readers,
            PartIndex parts,
            Page original,
            int index,
            Viewport window,
            Set<String> states) {
        Set<String> wanted = new java.util.HashSet<>(states);
        wanted.retainAll(STATES);
        Page page = wanted.contains("current") ? original.withCurrent(index) : original;
        Element element = page.elements().get(index);
        PageStyles styles = rendered.styles(page, window, states(wanted, element));
        List<Step> around = new ArrayList<>();
        List<Element> all = page.elements();
        for (Element e = element.parent(); e != null && e != page.document(); e = e.parent()) {
            around.add(0, new Step(all.indexOf(e), PartSelector.name(e)));
        }
        Reader reader = new Reader(rendered, readers, parts, page, element, styles);
        List<Aspect> aspects = new ArrayList<>();
        reader.element(aspects);
        for (String pseudo : List.of("before", "after")) {
            if (Painting.declared(styles.of(element, pseudo), "content")
                    .filter(c -> !c.equals("none") && !c.equals("normal"))
                    .isPresent()) {
                reader.pseudo(pseudo, aspects);
            }
        }
        String words = element.text();
        return new PartLook(
                page.source().file(),
                index,
                PartSelector.name(element),
                words.length() > 50 ? words.substring(0, 50) + "…" : words,
                around,
                next(element, all),
                aspects);
    }

    private static Next next(Element e, List<Element> all) {
        return new Next(
                Math.max(0, all.indexOf(e.parent())),
                Math.max(0, all.indexOf(e.firstElementChild())),
                Math.max(0, all.indexOf(e.previousElementSibling())),
                Math.max(0, all.indexOf(e.nextElementSibling())));
    }

    public Optional<Aspect> aspect(String id) {
        return aspects.stream().filter(a -> a.id().equals(id)).findFirst();
    }

    /** Reads the aspects of one element. */
    private static final class Reader {
        private final Rendered rendered;
        private final Readers readers;
        private final PartIndex index;
        private final Page page;
        private final Element element;
        private final PageStyles styles;
        private final Map<String, SheetRole> roles;
        private final Map<String, Map<Element, PageStyles.Decider>> deciders = new HashMap<>();

        Reader(Rendered rendered, Readers readers, PartIndex index, Page page, Element element, PageStyles styles) {
            this.rendered = rendered;
            this.readers = readers;
            this.index = index;
            this.page = page;
            this.element = element;
            this.styles = styles;
            this.roles = SheetRole.of(rendered.theme());
        }

        void element(List<Aspect> out) {
            ElementStyle style = styles.of(element);
            if (SHAPES.contains(element.normalName())) {
                out.add(aspect("fill", "Icon fill", null, "fill", style));
                if (!style.is("stroke", "none")) {
                    out.add(aspect("stroke", "Icon line", null, "stroke", style));
                }
            }
            paint("", null, style, out);
        }

        void pseudo(String pseudo, List<Aspect> out) {
            paint(pseudo + "-", pseudo, styles.of(element, pseudo), out);
        }

        private void paint(String prefix, String pseudo, ElementStyle style, List<Aspect> out) {
            String after = pseudo == null ? "" : " of ::" + pseudo;
            out.add(aspect(prefix + "text", "Text" + after, pseudo, "color", style));
            out.add(aspect(prefix + "background", "Background" + after, pseudo, "background-color", style));
            if (!style.is("background-image", "none")) {
                out.add(aspect(prefix + "picture", "Picture behind" + after, pseudo, "background-image", style));
            }
            borders(prefix, after, pseudo, style, out);
            for (String shadow : List.of("box-shadow", "text-shadow")) {
                if (Painting.declared(style, shadow)
                        .filter(v -> !v.equals("none"))
                        .isPresent()) {
                    out.add(aspect(
                            prefix + shadow,
                            (shadow.startsWith("box") ? "Shadow" : "Text shadow") + after,
                            pseudo,
                            shadow,
                            style));
                }
            }
            if (style.opacity() != 1) {
                out.add(aspect(prefix + "opacity", "Opacity" + after, pseudo, "opacity", style));
            }
            for (String box : List.of("padding", "margin")) {
                sides(prefix, after, pseudo, style, box, out);
            }
            if (pseudo == null && element.hasText()) {
                out.add(aspect("font-size", "Text size", null, "font-size", style));
                out.add(aspect("font-weight", "Text weight", null, "font-weight", style));
                if (Painting.declared(style, "letter-spacing").isPresent()) {
                    out.add(aspect("letter-spacing", "Letter spacing", null, "letter-spacing", style));
                }
                out.add(aspect("text-align", "Alignment", null, "text-align", style));
            }
        }

        private void borders(String prefix, String after, String pseudo, ElementStyle style, List<Aspect> out) {
            List<String> drawn = new ArrayList<>();
            for (String side : List.of("top", "right", "bottom", "left")) {
                boolean none = Painting.declared(style, "border-" + side + "-style")
                        .filter(v -> !v.equals("none") && !v.equals("hidden"))
                        .isEmpty();
                if (!none) {
                    drawn.add(side);
                }
            }
            List<Aspect> found = drawn.stream()
                    .map(side -> aspect(
                            prefix + "border-" + side,
                            "Border " + side + after,
                            pseudo,
                            "border-" + side + "-color",
                            style))
                    .toList();
            boolean same = found.size() == 4
                    && found.stream()
                                    .map(a -> a.value()
                                            + (a.explanation().winner() == null
                                                    ? 0
                                                    : a.explanation().winner().start()))
                                    .distinct()
                                    .count()
                            == 1;
            if (same) {
                Aspect first = found.get(0);
                out.add(new Aspect(
                        prefix + "border",
                        "Border" + after,
                        pseudo,
                        first.property(),
                        first.value(),
                        first.color(),
                        first.sentence(),
                        first.explanation(),
                        first.excerpt(),
                        first.reaches()));
            } else {
                out.addAll(found);
            }
        }

        private void sides(
                String prefix, String after, String pseudo, ElementStyle style, String box, List<Aspect> out) {
            List<Aspect> found = new ArrayList<>();
            for (String side : List.of("top", "right", "bottom", "left")) {
                if (Painting.declared(style, box + "-" + side).isPresent()) {
                    String label = box.substring(0, 1).toUpperCase(java.util.Locale.ROOT) + box.substring(1) + " "
                            + side + after;
                    Aspect a = aspect(prefix + box + "-" + side, label, pseudo, box + "-" + side, style);
                    if (!a.value().equals("0px")) {
                        found.add(a);
                    }
                }
            }
            out.addAll(found);
        }

        private Aspect aspect(String id, String label, String pseudo, String property, ElementStyle style) {
            Explanation e = Explanation.of(style, property);
            String value = e.value().isEmpty() ? "not set" : e.value();
            String color = null;
            if (Painting.isComputed(property)
                    && (property.endsWith("color") || property.equals("fill") || property.equals("stroke"))) {
                color = Color.parse(e.value()).map(ColorKey::of).orElse(null);
                value = color == null
                                || Color.parse(value)
                                        .filter(c -> c.alpha() == 0)
                                        .isPresent()
                        ? value
                        : color;
            }
            boolean nothing = property.equals("background-color")
                    && Color.parse(e.value()).filter(c -> c.alpha() == 0).isPresent();
            Excerpt excerpt = null;
            if (e.winner() != null && e.winner().isInTheme()) {
                excerpt = excerpt(e.winner());
            }
            return new Aspect(
                    id,
                    label,
                    pseudo,
                    property,
                    nothing ? "none" : value,
                    nothing ? null : color,
                    sentence(e, nothing),
                    e,
                    excerpt,
                    reaches(e, pseudo));
        }

        private Excerpt excerpt(Explanation.Cause winner) {
            if (winner.file().equals(Theme.SETTINGS_CSS)) {
                return null;
            }
            Located at = Located.find(rendered.theme(), winner.file(), winner.start());
            return Excerpt.at(at.part().file(), at.nameStart(), at.declarationEnd(), 3);
        }

        private String sentence(Explanation e, boolean nothing) {
            StringBuilder out = new StringBuilder();
            if (nothing && (e.winner() == null || e.winner().origin() == Origin.USER_AGENT)) {
                Element behind = element.parent();
                while (behind != null && behind != page.document() && paintsNothing(behind)) {
                    behind = behind.parent();
                }
                return behind == null || behind == page.document()
                        ? "Nothing paints it; the browser's white shows."
                        : "Nothing paints it; " + PartSelector.name(behind) + " shows through.";
            }
            if (e.winner() == null) {
                return "No declaration sets it; it is as browsers start out.";
            }
            Explanation.Cause w = e.winner();
            out.append(
                    switch (w.origin()) {
                        case USER_AGENT -> "The browser's own style for " + w.selector() + " sets it";
                        case PRESENTATION -> "An attribute in the page sets it";
                        case STYLE_ATTRIBUTE ->
                            "The style attribute in " + w.file() + ", line " + w.line() + ", sets it";
                        case AUTHOR -> w.selector() + " in " + w.file() + ", line " + w.line() + ", sets it";
                    });
            if (!e.through().isEmpty()) {
                int more = e.through().size() - MOST_NAMED;
                out.append(", through ")
                        .append(String.join(
                                " and ",
                                e.through()
                                        .subList(
                                                0,
                                                Math.min(MOST_NAMED, e.through().size()))))
                        .append(more > 0 ? " and " + more + " more" : "");
            }
            if (e.inheritedFrom() != null) {
                out.append("; inherited from ").append(PartSelector.name(e.inheritedFrom()));
            }
            if (w.important()) {
                out.append("; it is !important");
            }
            if (!w.conditions().isEmpty()) {
                out.append("; only under ").append(String.join(" ", w.conditions()));
            }
            return out.append('.').toString();
        }

        private boolean paintsNothing(Element e) {
            ElementStyle style = styles.of(e);
            return style.colorOf("background-color").filter(c -> c.alpha() == 0).isPresent()
                    && style.is("background-image", "none");
        }

        private List<Reach> reaches(Explanation e, String pseudo) {
            List<Reach> all = new ArrayList<>();
            String unique =
                    PartSelector.alone(rendered.theme().pages(), page, element) + (pseudo == null ? "" : "::" + pseudo);
            Reach only = counted(
                    "only",
                    "This part alone",
                    unique,
                    SelectorList.parse(unique)
                            .map(l -> PageSelector.of(l, e.property()))
                            .orElse(List.of()),
                    "");
            if (only.count().pages() > 1) {
                only = new Reach(
                        only.id(),
                        "This part and its like on other pages",
                        only.place(),
                        only.count(),
                        only.painted(),
                        only.setting());
            }
            Explanation.Cause w = e.winner();
            boolean ruled = w != null
                    && w.isInTheme()
                    && w.origin() == Origin.AUTHOR
                    && !w.file().equals(Theme.SETTINGS_CSS);
            Reach rule = null;
            if (ruled) {
                Located at = Located.find(rendered.theme(), w.file(), w.start());
                List<Painted> painted = Readers.selector(at.part().sheet(), at.around())
                        .map(s -> PageSelector.of(s, e.property()))
                        .orElse(List.of());
                rule = counted(
                        "rule",
                        "All that " + shortened(w.selector()) + " paints",
                        w.file() + ", line " + w.line(),
                        painted,
                        "",
                        e.property(),
                        pseudo,
                        d -> d.file().equals(w.file()) && d.start() == w.start());
            }
            // Where the rule finds nothing but this part, "alone" says the same thing twice.
            if (rule == null
                    || e.inheritedFrom() != null
                    || rule.count().parts() != only.count().parts()) {
                all.add(only);
            }
            if (rule != null) {
                all.add(rule);
            }
            if (ruled) {
                sources(e, w, rule.painted(), all);
            }
            for (String name : e.through()) {
                Optional<Setting> setting = Optional.ofNullable(
                        rendered.theme().palette().properties().get(name));
                Element holder = e.inheritedFrom() == null ? element : e.inheritedFrom();
                Explanation variable = Explanation.of(styles.of(holder), name);
                Explanation.Cause declared = variable.winner();
                String place = declared == null ? "" : declared.file() + ", line " + declared.line();
                if (setting.isPresent()) {
                    all.add(counted(
                            name,
                            "The setting “" + setting.get().label() + "”",
                            "",
                            readers.paintedBy(name),
                            setting.get().key(),
                            e.property(),
                            pseudo,
                            reads(name)));
                } else if (declared != null && declared.isInTheme()) {
                    all.add(counted(
                            name,
                            "All that " + name + " paints",
                            place,
                            readers.paintedBy(name),
                            "",
                            e.property(),
                            pseudo,
                            reads(name)));
                }
            }
            return all;
        }

        /** Variables of the source that a build makes the stylesheet from, if they hold the same colour. */
        private void sources(Explanation e, Explanation.Cause w, List<Painted> painted, List<Reach> all) {
            SheetRole role = roles.get(w.file());
            String color = Color.parse(e.value()).map(ColorKey::of).orElse("");
            for (SourceVariable v :
                    role == null ? List.<SourceVariable>of() : SourceVariable.of(rendered.theme(), role.source())) {
                if (v.holds(color)) {
                    all.add(counted(
                            v.file() + "@" + v.start(),
                            "The variable " + v.name() + ", from the next build on",
                            v.file() + ", line " + v.line(),
                            painted,
                            ""));
                }
            }
        }

        private static String shortened(String selector) {
            return selector.length() > 60 ? selector.substring(0, 60) + "…" : selector;
        }

        private Predicate<PageStyles.Decider> reads(String name) {
            Set<String> names = readers.leadingTo(name);
            return d -> Reference.names(d.value()).stream().anyMatch(names::contains);
        }

        /** With the elements that inherit what is painted: of a text colour most do. */
        private Reach counted(
                String id,
                String label,
                String place,
                List<Painted> painted,
                String setting,
                String property,
                String pseudo,
                Predicate<PageStyles.Decider> decides) {
            if (pseudo != null || !Painting.isInherited(property)) {
                return counted(id, label, place, painted, setting);
            }
            List<Element> inheriting = new ArrayList<>();
            for (Page p : rendered.theme().pages()) {
                deciders.computeIfAbsent(property + "|" + p.source().file(), k -> rendered.styles(
                                        p, styles.window(), States.NONE)
                                .deciders(property))
                        .forEach((element, d) -> {
                            if (decides.test(d)) {
                                inheriting.add(element);
                            }
                        });
            }
            return new Reach(
                    id,
                    label,
                    place,
                    index.count(
                            painted.stream().map(Painted::selector).distinct().toList(), inheriting),
                    painted,
                    setting);
        }

        private Reach counted(String id, String label, String place, List<Painted> painted, String setting) {
            PartIndex.Count count = index.count(
                    painted.stream().map(Painted::selector).distinct().toList());
            return new Reach(id, label, place, count, painted, setting);
        }
    }
}

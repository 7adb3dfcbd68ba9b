package org.calmpalette.core.promise;

import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import org.calmpalette.core.cascade.ColorExpression;
import org.calmpalette.core.cascade.ElementStyle;
import org.calmpalette.core.cascade.PageStyles;
import org.calmpalette.core.cascade.Painting;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.color.Contrast;
import org.calmpalette.core.value.ComponentValue;
import org.jsoup.nodes.Element;

/**
 * The colours in which something of an element is painted, of which one that keeps its contrast is enough.
 *
 * @param any where they are declared; none if nothing of that kind is to be seen
 * @param box the generated box that they stand in, with a ground of its own; null for none
 * @param opacity of what holds them and nothing else, 0 to 1
 * @param open what else may take part in it and is not told by these colours; empty for nothing
 * @param needed contrast ratio, before a maker asks for more of texts: 4.5 or 3
 */
record Inks(List<Ink> any, ElementStyle box, double opacity, String open, double needed) {
    /** Of the interface and of drawings: WCAG 2.2, 1.4.11, at every level. */
    static final double NON_TEXT = 3;

    private static final Inks NONE = new Inks(List.of(), null, 1, "", NON_TEXT);

    /** A longhand that holds a colour. */
    record Ink(ElementStyle style, String longhand) {
        ColorExpression expression(ColorExpression.Choices choices) {
            return ColorExpression.of(style, longhand, choices);
        }

        Optional<Color> color() {
            return style.colorOf(longhand);
        }
    }

    Inks {
        any = List.copyOf(any);
    }

    boolean isEmpty() {
        return any.isEmpty() && open.isEmpty();
    }

    /** @param e shown */
    static Inks of(PageStyles styles, Element e, Perceivable what) {
        return switch (what) {
            case TEXT -> letters(styles.of(e), null);
            case BEFORE, AFTER -> generated(styles, e, what.pseudoElement());
            case ICON -> new Drawing(styles).of(e);
            case EDGE -> edge(styles.of(e));
            case OUTLINE -> outline(styles.of(e));
        };
    }

    static Inks letters(ElementStyle style, ElementStyle box) {
        return new Inks(
                List.of(new Ink(style, "color")),
                box,
                // Of an element its own opacity is in what is behind it.
                style.pseudoElement() == null ? 1 : style.opacity(),
                "",
                Contrast.needed(style.fontSizePx(), style.fontWeight()));
    }

    // Generated content

    /** What can be pressed or followed, of which one has to know what it does. */
    private static final String CONTROL =
            "a[href], button, summary, [role=button], [role=link], [role=tab], [role=menuitem], [role=switch], [role=checkbox]";

    private static Inks generated(PageStyles styles, Element e, String name) {
        ElementStyle style = styles.of(e, name);
        String text = written(style, e);
        if (text.isBlank()
                || style.is("display", "none")
                || style.is("visibility", "hidden")
                || style.opacity() == 0
                || style.fontSizePx() == 0) {
            return NONE;
        }
        if (text.codePoints().anyMatch(Character::isLetterOrDigit)) {
            return letters(style, style);
        }
        // Signs alone are ornament, unless nothing else says what can be pressed there; letters of icon fonts are such
        // signs.
        Element control = e.closest(CONTROL);
        return control == null || isWorded(styles, control)
                ? NONE
                : new Inks(List.of(new Ink(style, "color")), style, style.opacity(), "", NON_TEXT);
    }

    /** The text of generated content (CSS Generated Content 3, section 2); of counters a digit stands for all. */
    static String written(ElementStyle style, Element e) {
        String content = Painting.declared(style, "content").orElse("");
        StringBuilder text = new StringBuilder();
        for (ComponentValue part : ComponentValue.read(content)) {
            String own = part.text();
            if (part.kind() == ComponentValue.Kind.SLASH) {
                // What follows is for screen readers.
                break;
            }
            switch (part.kind()) {
                case STRING -> text.append(part.name());
                case FUNCTION -> {
                    String inside = own.substring(own.indexOf('(') + 1, own.length() - 1)
                            .strip();
                    switch (part.name().toLowerCase(Locale.ROOT)) {
                        case "attr" -> text.append(e.attr(inside.split("[\\s,]")[0]));
                        case "counter", "counters" -> text.append("1");
                        default -> {
                            // A picture.
                        }
                    }
                }
                default -> {
                    // Quotes are signs that nobody needs to see.
                }
            }
        }
        return text.toString();
    }

    /** Whether words, or a picture with a description, say what a control is for, so that one sees them. */
    static boolean isWorded(PageStyles styles, Element control) {
        return control.select("*").stream()
                .filter(e -> !e.normalName().equals("svg") && e.closest("svg") == null)
                .filter(e -> e.textNodes().stream().anyMatch(t -> !t.isBlank())
                        || e.normalName().equals("img") && !e.attr("alt").isBlank())
                .anyMatch(e -> !styles.isHidden(e) && !isForScreenReaders(styles, e, control));
    }

    /** Whether it is taken out of sight in one of the ways in which that is done (common practice). */
    private static boolean isForScreenReaders(PageStyles styles, Element e, Element within) {
        for (Element a = e; a != null; a = a.parent()) {
            ElementStyle style = styles.of(a);
            boolean out = style.is("position", "absolute") || style.is("position", "fixed");
            boolean clipped = isDeclared(style, "clip", "auto") || isDeclared(style, "clip-path", "none");
            boolean tiny =
                    style.px("width").orElse(9) <= 1 || style.px("height").orElse(9) <= 1;
            if (out && (clipped || tiny)
                    || style.fontSizePx() == 0
                    || style.px("text-indent").orElse(0) < -99) {
                return true;
            }
            if (a == within) {
                break;
            }
        }
        return false;
    }

    private static boolean isDeclared(ElementStyle style, String longhand, String without) {
        return Painting.declared(style, longhand)
                .filter(v -> !v.equalsIgnoreCase(without))
                .isPresent();
    }

    // Drawings

    /** What a drawing, or what it stands in, says that it is for; may be empty. */
    static String name(Element svg) {
        String own = Drawing.name(svg);
        Element control = svg.closest(CONTROL);
        return !own.isEmpty() || control == null
                ? own
                : control.hasAttr("aria-label") ? control.attr("aria-label").strip() : control.text();
    }

    /** Whether a drawing stands for words, and is no logo: of those nothing is asked (WCAG 2.2, 1.4.3, “Logotypes”). */
    static boolean isIcon(PageStyles styles, Element svg) {
        if (!svg.normalName().equals("svg") || svg.parents().is("svg")) {
            return false;
        }
        Element control = svg.closest(CONTROL);
        if (control == null) {
            return svg.attr("role").equals("img") && !Drawing.name(svg).isEmpty() && !isLogo(svg, svg);
        }
        return !isLogo(svg, control) && !isWorded(styles, control);
    }

    private static boolean isLogo(Element svg, Element control) {
        for (Element a = svg; a != null; a = a.parent()) {
            String said = (a.className() + " " + a.id() + " " + a.attr("aria-label") + " " + Drawing.name(a))
                    .toLowerCase(Locale.ROOT);
            if (said.contains("logo") || said.contains("brand")) {
                return true;
            }
            if (a == control) {
                return a.attr("rel").equals("home");
            }
        }
        return false;
    }

    /** The paint of an inline drawing (SVG 2, section 13). */
    static final class Drawing {
        private static final Set<String> SHAPES =
                Set.of("path", "rect", "circle", "ellipse", "line", "polyline", "polygon", "text", "tspan");
        /** What is in these is not painted where it stands (SVG 2, section 5). */
        private static final String UNPAINTED =
                "defs, symbol, clippath, mask, marker, pattern, lineargradient, radialgradient, title, desc, metadata, style, script";

        private final PageStyles styles;
        private final Set<Ink> inks = new LinkedHashSet<>();
        private String open = "";

        Drawing(PageStyles styles) {
            this.styles = styles;
        }

        /** What a drawing says that it is; empty if it does not. */
        static String name(Element svg) {
            Element title = svg.selectFirst("> title");
            return svg.hasAttr("aria-label") ? svg.attr("aria-label").strip() : title == null ? "" : title.text();
        }

        /** Its shapes, those that are painted where they stand. */
        static List<Element> shapes(Element svg) {
            return svg.select("*").stream()
                    .filter(s ->
                            SHAPES.contains(s.normalName()) || s.normalName().matches("use|image|foreignobject"))
                    .filter(s -> s.closest(UNPAINTED) == null)
                    .toList();
        }

        Inks of(Element svg) {
            for (Element s : shapes(svg)) {
                if (styles.isHidden(s)) {
                    continue;
                }
                if (isFaint(s, svg)) {
                    open = "parts of the drawing let through what is behind them";
                } else if (s.normalName().equals("use")) {
                    use(s);
                } else if (SHAPES.contains(s.normalName())) {
                    ElementStyle style = styles.of(s);
                    if (!s.normalName().equals("line")) {
                        ink(style, "fill");
                    }
                    ink(style, "stroke");
                } else {
                    open = "there is a picture in the drawing";
                }
            }
            return new Inks(List.copyOf(inks), null, 1, open, NON_TEXT);
        }

        /** Of the paint's own opacities, which are handed down, those from anywhere count. */
        private boolean isFaint(Element shape, Element svg) {
            boolean inside = true;
            for (Element a = shape; a != null && a.parent() != null; a = a.parent()) {
                inside &= a != svg;
                ElementStyle style = styles.of(a);
                if (inside && style.opacity() < 1
                        || a.hasAttr("fill-opacity")
                        || a.hasAttr("stroke-opacity")
                        || isDeclared(style, "fill-opacity", "1")
                        || isDeclared(style, "stroke-opacity", "1")) {
                    return true;
                }
            }
            return false;
        }

        private void ink(ElementStyle style, String longhand) {
            if (!style.is(longhand, "none")) {
                inks.add(new Ink(style, longhand));
            }
        }

        /** What stands elsewhere in the page is painted as if it stood here (SVG 2, section 5.6), as long as it says nothing more of its own. */
        private void use(Element use) {
            String address = use.hasAttr("href") ? use.attr("href") : use.attr("xlink:href");
            Element drawn = address.startsWith("#") && use.ownerDocument() != null
                    ? use.ownerDocument().getElementById(address.substring(1))
                    : null;
            if (drawn == null) {
                open = "the drawing stands in another file";
                return;
            }
            for (Element s : drawn.select("*")) {
                if (!s.className().isEmpty() || s.hasAttr("style") || s.hasAttr("opacity")) {
                    open = "the drawing has rules of its own where it stands";
                    return;
                }
            }
            for (Element s : drawn.select("*")) {
                if (SHAPES.contains(s.normalName())) {
                    used(use, s, drawn, "fill");
                    used(use, s, drawn, "stroke");
                }
            }
        }

        private void used(Element use, Element shape, Element drawn, String longhand) {
            Element a = shape;
            while (a != drawn && !a.hasAttr(longhand) && a.parent() != null) {
                a = a.parent();
            }
            String value = a.attr(longhand).strip().toLowerCase(Locale.ROOT);
            ElementStyle style = styles.of(use);
            if (value.isEmpty()) {
                ink(style, longhand);
            } else if (value.equals("currentcolor")) {
                inks.add(new Ink(style, "color"));
            } else if (!value.equals("none")) {
                open = "the drawing has colours of its own where it stands";
            }
        }
    }

    // Parts of the interface

    private static Inks untold(String why) {
        return new Inks(List.of(), null, 1, why, NON_TEXT);
    }

    private static final List<String> SIDES = List.of("bottom", "top", "left", "right");

    /** Of what is exactly as browsers draw it nothing is asked (WCAG 2.2, 1.4.11). */
    private static Inks edge(ElementStyle style) {
        Set<Ink> inks = new LinkedHashSet<>();
        Set<String> colors = new LinkedHashSet<>();
        boolean own = style.isAuthored("background-color");
        String open = "";
        for (String side : SIDES) {
            String color = "border-" + side + "-color";
            own |= style.isAuthored(color) || style.isAuthored("border-" + side + "-width");
            boolean drawn = !Set.of("", "none", "hidden").contains(style.computed("border-" + side + "-style"))
                    && style.px("border-" + side + "-width").orElse(3) > 0;
            if (drawn && style.colorOf(color).filter(c -> c.alpha() == 0).isEmpty()) {
                if (style.colorOf(color).filter(c -> !c.isOpaque()).isPresent()) {
                    open = "its border lets through what is behind it";
                } else if (colors.add(style.computed(color))) {
                    inks.add(new Ink(style, color));
                }
            }
        }
        // A picture may hide all of the colour below it.
        boolean pictured = !style.is("background-image", "none");
        if (!pictured
                && style.colorOf("background-color").filter(c -> c.alpha() == 0).isEmpty()) {
            inks.add(new Ink(style, "background-color"));
        }
        if (!own || inks.isEmpty() && !pictured) {
            return NONE;
        }
        if (isDeclared(style, "box-shadow", "none") || pictured) {
            open = "a shadow or a picture takes part in its edge";
        }
        return new Inks(List.copyOf(inks), null, style.opacity(), open, NON_TEXT);
    }

    private static Inks outline(ElementStyle style) {
        boolean drawn = !Set.of("", "none", "auto").contains(style.computed("outline-style"))
                && style.px("outline-width").orElse(3) > 0;
        if (!drawn || !style.isAuthored("outline-style")) {
            return NONE;
        }
        if (style.px("outline-offset").orElse(0) < 0) {
            return untold("its outline lies on the part itself");
        }
        String open = isDeclared(style, "box-shadow", "none") ? "a shadow takes part in its outline" : "";
        return new Inks(
                List.of(new Ink(style, style.isAuthored("outline-color") ? "outline-color" : "color")),
                null,
                style.opacity(),
                open,
                NON_TEXT);
    }
}

package org.calmpalette.core.render;

import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.calmpalette.core.background.BoxGeometry.Rectangle;
import org.calmpalette.core.cascade.ElementStyle;
import org.calmpalette.core.cascade.PageStyles;
import org.calmpalette.core.cascade.Painting;
import org.calmpalette.core.value.Lengths;
import org.jsoup.nodes.Element;

/**
 * Boxes of {@code ::before} and {@code ::after} that are taken out of the flow, as overlays of heroes are: whether they are painted
 * below or above a text (CSS 2.2, appendix E; CSS Positioned Layout 3, section 4), and where they are. One that stays in the flow
 * takes room of its own and lies behind no text.
 */
final class Generated {
    /** In CSS px: what is thinner than this is a line or a mark, behind which no text fits. */
    private static final double THIN = 10;

    private Generated() {}

    /**
     * A painted box that a text may have to do with.
     *
     * @param name {@code before} or {@code after}
     * @param level of its painting: its {@code z-index}, 0 for {@code auto}
     */
    record Box(String name, ElementStyle style, int level) {}

    /** The generated box of an element, if it is out of the flow and large enough to lie behind a text. */
    static Optional<Box> of(PageStyles styles, Element element, String name) {
        ElementStyle style = styles.of(element, name);
        boolean made = Painting.declared(style, "content")
                .filter(c -> !c.equals("none") && !c.equals("normal"))
                .isPresent();
        if (!made
                || !isOutOfFlow(style)
                || style.opacity() == 0
                || style.is("display", "none")
                || style.is("visibility", "hidden")
                || isThin(style, "width")
                || isThin(style, "height")) {
            return Optional.empty();
        }
        return Optional.of(new Box(name, style, zIndex(style).orElse(0)));
    }

    private static boolean isOutOfFlow(ElementStyle style) {
        return style.is("position", "absolute") || style.is("position", "fixed");
    }

    private static boolean isThin(ElementStyle style, String side) {
        return style.length(side).filter(s -> s.percent() == 0 && s.px() < THIN).isPresent();
    }

    static Optional<Integer> zIndex(ElementStyle style) {
        return Painting.declared(style, "z-index")
                .filter(z -> z.matches("[+-]?\\d{1,9}"))
                .map(Integer::valueOf);
    }

    /** The level that an element is painted at among its neighbours; empty for what is painted in the flow. */
    private static Optional<Integer> level(PageStyles styles, Element element) {
        ElementStyle style = styles.of(element);
        boolean item = element.parent() != null
                && !element.parent().normalName().equals("#root")
                && styles.of(element.parent()).computed("display").matches("(inline-)?(flex|grid)");
        boolean positioned = !style.is("position", "static");
        Optional<Integer> z = positioned || item ? zIndex(style) : Optional.empty();
        return z.isPresent() ? z : positioned || isGroup(style) ? Optional.of(0) : Optional.empty();
    }

    /** Whether what is in an element is painted together, whatever its levels: it makes a stacking context. */
    static boolean isStackingContext(PageStyles styles, Element element) {
        ElementStyle style = styles.of(element);
        return element.normalName().equals("html")
                || style.is("position", "fixed")
                || style.is("position", "sticky")
                || isGroup(style)
                || level(styles, element).isPresent() && zIndex(style).isPresent();
    }

    private static boolean isGroup(ElementStyle style) {
        return style.opacity() < 1
                || isDeclared(style, "transform", "none")
                || isDeclared(style, "filter", "none")
                || isDeclared(style, "backdrop-filter", "none")
                || isDeclared(style, "mix-blend-mode", "normal")
                || Painting.declared(style, "isolation")
                        .filter("isolate"::equals)
                        .isPresent();
    }

    /** Whether a value other than the one that changes nothing is declared. */
    static boolean isDeclared(ElementStyle style, String longhand, String without) {
        return Painting.declared(style, longhand)
                .map(v -> v.toLowerCase(Locale.ROOT))
                .filter(v -> !v.equals(without) && !v.equals("initial") && !v.equals("unset"))
                .isPresent();
    }

    /**
     * Whether a text is painted above a box of its ancestor whose level is not below 0.
     *
     * @param path from the element of the text to the child of that ancestor; empty if the text is the ancestor's own
     */
    static boolean isBelow(PageStyles styles, Box box, List<Element> path) {
        for (int i = path.size() - 1; i >= 0; i--) {
            Optional<Integer> level = level(styles, path.get(i));
            if (level.isPresent()) {
                // At the same level the later one in the document is above: ::before comes first, ::after last.
                return level.get() > box.level()
                        || level.get() == box.level() && box.name().equals("before");
            }
        }
        return false;
    }

    /** The box on the page, in CSS px; empty where only layout knows. */
    static Optional<Rectangle> place(Scenes scenes, Element element, ElementStyle style, int width) {
        if (isDeclared(style, "transform", "none")
                || isDeclared(style, "translate", "none")
                || isDeclared(style, "scale", "none")
                || isDeclared(style, "rotate", "none")
                || isDeclared(style, "max-width", "none")
                || isDeclared(style, "max-height", "none")) {
            return Optional.empty();
        }
        return holder(scenes, element, style, width).flatMap(holder -> {
            Optional<double[]> x = along(style, "left", "right", "width", holder.x(), holder.width(), holder.width());
            Optional<double[]> y = along(style, "top", "bottom", "height", holder.y(), holder.height(), holder.width());
            return x.isEmpty() || y.isEmpty()
                    ? Optional.empty()
                    : Optional.of(new Rectangle(x.get()[0], y.get()[0], x.get()[1], y.get()[1]));
        });
    }

    /** The containing block: the padding box of the nearest element that holds the box, or the window. */
    private static Optional<Rectangle> holder(Scenes scenes, Element element, ElementStyle style, int width) {
        Rectangle window = new Rectangle(0, 0, width, scenes.measures().windowHeight());
        PageStyles styles = scenes.styles(width);
        List<Element> elements = scenes.page().elements();
        for (Element at = element; at != null && !at.normalName().equals("#root"); at = at.parent()) {
            if (style.is("position", "fixed")
                    ? ContainingBlock.holdsFixed(styles, at)
                    : ContainingBlock.holds(styles, at)) {
                int index = elements.indexOf(at);
                return scenes.measures().box(index, width).flatMap(box -> scenes.measures()
                        .geometry(index, width)
                        .map(g -> new Rectangle(
                                box.x() + g.border().left(),
                                box.y() + g.border().top(),
                                g.width(),
                                g.height())));
            }
        }
        return Optional.of(window);
    }

    /** CSS Positioned Layout 3, section 4.1: from the two insets, or from one of them and the size. */
    private static Optional<double[]> along(
            ElementStyle style, String start, String end, String size, double from, double whole, double across) {
        Optional<Double> a = inset(style, start, whole);
        Optional<Double> b = inset(style, end, whole);
        double before = margin(style, start, across);
        double after = margin(style, end, across);
        boolean auto = Painting.declared(style, size)
                .filter(v -> !v.equals("auto") && !v.equals("initial"))
                .isEmpty();
        Optional<Double> given = auto ? Optional.empty() : inset(style, size, whole);
        if (given.isEmpty()) {
            // Between its two insets it fills what is there; else its content decides, which is layout's to say.
            return a.isPresent() && b.isPresent() && auto
                    ? Optional.of(new double[] {from + a.get() + before, whole - a.get() - b.get() - before - after})
                    : Optional.empty();
        }
        double extra = style.is("box-sizing", "border-box") ? 0 : edges(style, start, end, across);
        double own = given.get() + extra;
        return a.isPresent()
                ? Optional.of(new double[] {from + a.get() + before, own})
                : b.map(v -> new double[] {from + whole - v - after - own, own});
    }

    static Optional<Double> inset(ElementStyle style, String property, double whole) {
        return style.length(property).map(s -> s.px() + s.percent() / 100 * whole);
    }

    private static double margin(ElementStyle style, String side, double across) {
        return inset(style, "margin-" + side, across).orElse(0.0);
    }

    private static double edges(ElementStyle style, String start, String end, double across) {
        double all = 0;
        for (String side : List.of(start, end)) {
            all += inset(style, "padding-" + side, across).orElse(0.0);
            all += style.is("border-" + side + "-style", "none")
                    ? 0
                    : style.length("border-" + side + "-width")
                            .map(Lengths.Sum::px)
                            .orElse(0.0);
        }
        return all;
    }
}

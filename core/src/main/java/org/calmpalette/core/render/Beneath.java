package org.calmpalette.core.render;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Predicate;
import org.calmpalette.core.cascade.ElementStyle;
import org.calmpalette.core.cascade.PageStyles;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.color.Contrast;
import org.calmpalette.core.value.Image;
import org.jsoup.nodes.Element;

/**
 * Boxes as large as the window that stay in it below the page: {@code position: fixed} with a {@code z-index} below 0. What has no
 * background of its own stands on them, wherever it is (CSS 2.2, appendix E: they are painted right after the background of the
 * stacking context). A page whose colour follows the section in view is made of them.
 */
final class Beneath {
    private Beneath() {}

    /**
     * One such box.
     *
     * @param pseudoElement name without colons, or null for the element itself
     * @param color with its opacity, unless it comes and goes
     * @param changes whether an animation may show it at times, and let it be seen through
     * @param plain whether it is of one colour
     */
    record One(Element element, String pseudoElement, Color color, boolean changes, boolean plain, int level) {
        boolean isOf(Element of, String name) {
            return element == of && java.util.Objects.equals(pseudoElement, name);
        }
    }

    /** All of a page, the lowest first, by the stacking context that they are the lowest part of. */
    static Map<Element, List<One>> of(PageStyles styles, Predicate<String> there) {
        Map<Element, List<One>> all = new IdentityHashMap<>();
        for (PageStyles.Box box : styles.with("position", "fixed")) {
            Element e = box.element();
            ElementStyle style = box.pseudoElement() == null ? styles.of(e) : styles.of(e, box.pseudoElement());
            Optional<Integer> level = Generated.zIndex(style).filter(z -> z < 0);
            if (level.isEmpty()
                    || !FullWindow.isShown(styles, box, style)
                    || !FullWindow.holds(style, styles.window())) {
                continue;
            }
            // The shorthand is not taken apart here, and either of the two may move it.
            boolean changes = Generated.isDeclared(style, "animation", "none")
                    || Generated.isDeclared(style, "animation-name", "none");
            boolean pictures = style.backgroundLayers()
                    .map(layers -> layers.stream()
                            .anyMatch(l -> !(l.image() instanceof Image.None)
                                    && !(l.image() instanceof Image.Url u
                                            && !u.address().startsWith("data:")
                                            && !there.test(u.address()))))
                    .orElse(true);
            boolean plain = !pictures
                    && !Generated.isDeclared(style, "mix-blend-mode", "normal")
                    && !Generated.isDeclared(style, "filter", "none");
            Color own = style.colorOf("background-color").orElse(Color.TRANSPARENT);
            Color color = changes ? own : own.withAlpha(own.alpha() * style.opacity());
            if (color.alpha() > 0 || !plain && (changes || style.opacity() > 0)) {
                Element context = box.pseudoElement() == null ? e.parent() : e;
                while (!Generated.isStackingContext(styles, context)) {
                    context = context.parent();
                }
                all.computeIfAbsent(context, k -> new ArrayList<>())
                        .add(new One(e, box.pseudoElement(), color, changes, plain, level.get()));
            }
        }
        all.values().forEach(l -> l.sort(Comparator.comparingInt(One::level)));
        return all;
    }

    /** What lies there at all times, put together; fully transparent if nothing does. */
    static Color always(List<One> ones) {
        Color color = Color.TRANSPARENT;
        for (One one : ones) {
            color = one.changes() ? color : Contrast.over(one.color(), color);
        }
        return color;
    }
}

package org.calmpalette.core.render;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.calmpalette.core.cascade.ElementStyle;
import org.calmpalette.core.cascade.PageStyles;
import org.calmpalette.core.cascade.Painting;
import org.calmpalette.core.value.Viewport;
import org.jsoup.nodes.Element;

/** Boxes of {@code position: fixed} as large as the window: they stay in it while the page scrolls (CSS Positioned Layout 3, section 2.1). */
public final class FullWindow {
    /** What a box hides is gone for the eye from this opacity on. */
    private static final double OPAQUE = 0.95;

    private FullWindow() {}

    /**
     * A box that lies over the whole page.
     *
     * @param pseudoElement name without colons, or null for the element itself
     * @param hides whether its own background leaves nothing to be seen
     * @param catches whether it takes what is pressed
     */
    public record Over(Element element, String pseudoElement, boolean hides, boolean catches) {}

    /** Those that keep a page from being seen or used, as it stands: none that a script or a state has yet to show. */
    public static List<Over> over(PageStyles styles) {
        List<Over> all = new ArrayList<>();
        for (PageStyles.Box box : styles.with("position", "fixed")) {
            ElementStyle style = box.pseudoElement() == null
                    ? styles.of(box.element())
                    : styles.of(box.element(), box.pseudoElement());
            if (Generated.zIndex(style).filter(z -> z < 0).isPresent()
                    || !isShown(styles, box, style)
                    || !holds(style, styles.window())) {
                continue;
            }
            double alpha = style.opacity()
                    * style.colorOf("background-color").map(c -> c.alpha()).orElse(0.0);
            boolean catches = !style.is("pointer-events", "none");
            if (catches || alpha >= OPAQUE) {
                all.add(new Over(box.element(), box.pseudoElement(), alpha >= OPAQUE, catches));
            }
        }
        return all;
    }

    /** Whether a fixed box is made, shown, and of the window rather than of a box around it. */
    static boolean isShown(PageStyles styles, PageStyles.Box box, ElementStyle style) {
        if (box.pseudoElement() != null
                && Painting.declared(style, "content")
                        .filter(c -> !c.equals("none") && !c.equals("normal"))
                        .isEmpty()) {
            return false;
        }
        if (style.is("visibility", "hidden") || style.is("display", "none")) {
            return false;
        }
        for (Element at = box.element(); at != null && !at.normalName().equals("#root"); at = at.parent()) {
            boolean around = at != box.element() || box.pseudoElement() != null;
            if (styles.of(at).is("display", "none") || around && ContainingBlock.holdsFixed(styles, at)) {
                return false;
            }
        }
        return true;
    }

    /** Whether a fixed box is as large as the window, or larger, and lies over all of it. */
    static boolean holds(ElementStyle style, Viewport window) {
        return fills(style, "left", "right", "width", window.width())
                && fills(style, "top", "bottom", "height", window.height());
    }

    private static boolean fills(ElementStyle style, String start, String end, String size, double whole) {
        Optional<Double> from = Generated.inset(style, start, whole);
        Optional<Double> to = Generated.inset(style, end, whole);
        Optional<Double> given = Generated.inset(style, size, whole);
        boolean near = from.filter(v -> v <= 0.5).isPresent();
        return given.isPresent()
                ? (near || from.isEmpty() && to.filter(v -> v <= 0.5).isPresent())
                        && given.get() - Math.abs(from.orElse(to.orElse(0.0))) >= whole - 0.5
                : near && to.filter(v -> v <= 0.5).isPresent();
    }
}

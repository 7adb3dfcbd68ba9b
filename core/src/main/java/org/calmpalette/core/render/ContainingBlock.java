package org.calmpalette.core.render;

import java.util.List;
import java.util.Locale;
import org.calmpalette.core.cascade.ElementStyle;
import org.calmpalette.core.cascade.PageStyles;
import org.calmpalette.core.cascade.Painting;
import org.jsoup.nodes.Element;

/** Which boxes hold what is positioned inside of them (CSS Positioned Layout 3, section 2.1). */
final class ContainingBlock {
    /** Properties that make a box hold even what is fixed as soon as they are not {@code none}: CSS Transforms 2, Filter Effects 1 and 2. */
    private static final List<String> HOLDING =
            List.of("transform", "translate", "rotate", "scale", "perspective", "filter", "backdrop-filter");

    private ContainingBlock() {}

    /** Whether it holds what is {@code position: absolute} inside of it. */
    static boolean holds(PageStyles styles, Element e) {
        return !styles.of(e).is("position", "static") || holdsFixed(styles, e);
    }

    /** Whether it holds what is {@code position: fixed} inside of it, which else is of the window. */
    static boolean holdsFixed(PageStyles styles, Element e) {
        ElementStyle style = styles.of(e);
        boolean root = e.normalName().equals("html");
        return HOLDING.stream().anyMatch(p -> !(root && p.endsWith("filter")) && Generated.isDeclared(style, p, "none"))
                || says(style, "transform-style", "preserve-3d")
                || says(style, "contain", "layout|paint|strict|content")
                || says(style, "content-visibility", "auto|hidden")
                || says(style, "will-change", String.join("|", HOLDING) + "|contain");
    }

    private static boolean says(ElementStyle style, String property, String words) {
        return Painting.declared(style, property)
                .map(v -> v.toLowerCase(Locale.ROOT))
                .filter(v -> List.of(v.split("[\\s,]+")).stream().anyMatch(w -> w.matches(words)))
                .isPresent();
    }
}

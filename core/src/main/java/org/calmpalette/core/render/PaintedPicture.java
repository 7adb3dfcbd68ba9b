package org.calmpalette.core.render;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.calmpalette.core.Budget;
import org.calmpalette.core.cascade.ElementStyle;
import org.calmpalette.core.cascade.Explanation;
import org.calmpalette.core.cascade.PageStyles;
import org.calmpalette.core.css.selector.States;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.value.BackgroundLayer;
import org.calmpalette.core.value.Image;
import org.calmpalette.core.value.Viewport;
import org.jsoup.nodes.Element;

/**
 * A picture of the theme as the background of an element.
 *
 * @param page path of the page
 * @param element its index there
 * @param layer index among the layers of its background, the uppermost is 0
 * @param layers how many the background has, {@code none} counted
 * @param path of the picture in the theme
 * @param because what sets {@code background-image} there
 * @param through custom properties that it comes through
 */
public record PaintedPicture(
        String page, int element, int layer, int layers, String path, Explanation.Cause because, List<String> through) {
    /** Windows that are looked at for pictures; what shows only between them is not found. */
    private static final List<Viewport> WINDOWS = List.of(Viewport.of(1440, 800), Viewport.of(390, 800));
    /** Pictures of a page that are looked at. */
    private static final int MOST = 60;

    /** All pictures that a page shows as backgrounds, in order of its elements; each once, as in the widest window that shows it. */
    public static List<PaintedPicture> of(Rendered rendered, Page page) {
        Map<List<Object>, PaintedPicture> found = new LinkedHashMap<>();
        for (Viewport window : WINDOWS) {
            PageStyles styles = rendered.styles(page, window, States.NONE);
            List<Element> elements = page.elements();
            for (int i = 1; i < elements.size() && found.size() < MOST; i++) {
                Budget.step();
                ElementStyle style = styles.of(elements.get(i));
                if (style.computed("background-image").equals("none")) {
                    continue;
                }
                List<BackgroundLayer> layers = style.backgroundLayers().orElse(List.of());
                for (int k = 0; k < layers.size(); k++) {
                    Optional<String> path = picture(rendered, layers.get(k));
                    if (path.isPresent()) {
                        Explanation why = Explanation.of(style, "background-image");
                        found.putIfAbsent(
                                List.of(i, k, path.get()),
                                new PaintedPicture(
                                        page.source().file(),
                                        i,
                                        k,
                                        layers.size(),
                                        path.get(),
                                        why.winner(),
                                        why.through()));
                    }
                }
            }
        }
        return new ArrayList<>(found.values());
    }

    /** Path of the picture that a layer shows, if the theme has it. */
    static Optional<String> picture(Rendered rendered, BackgroundLayer layer) {
        return layer.image() instanceof Image.Url url
                        && rendered.theme().files().has(url.address())
                ? Optional.of(url.address())
                : Optional.empty();
    }

    /** Pictures that one declaration paints, on however many elements, are the same thing to whoever edits it. */
    public String declaration() {
        return because == null ? "" : because.file() + ":" + because.line() + ":" + because.column() + "#" + layer;
    }
}

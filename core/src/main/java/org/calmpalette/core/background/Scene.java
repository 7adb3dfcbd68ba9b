package org.calmpalette.core.background;

import java.util.List;
import org.calmpalette.core.background.BoxGeometry.Rectangle;

/**
 * A box with a background on a page, in one window. All in CSS px from the corner of the page.
 *
 * @param x of the padding box
 * @param y of the padding box
 * @param boxes of the element
 * @param pageWidth what of the page can be seen without scrolling sideways: the width of the window
 * @param pageHeight to its end
 * @param covers what lies over the background and lets nothing through, and the lines of texts on it
 */
public record Scene(
        double x, double y, BoxGeometry boxes, double pageWidth, double pageHeight, List<Rectangle> covers) {
    public Scene {
        covers = List.copyOf(covers);
    }
}

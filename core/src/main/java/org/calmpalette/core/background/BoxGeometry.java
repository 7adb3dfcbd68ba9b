package org.calmpalette.core.background;

import org.calmpalette.core.value.BackgroundLayer.Box;

/**
 * The boxes of an element, all in CSS px.
 *
 * @param width of the padding box, not negative
 * @param height of the padding box, not negative
 * @param border widths around it
 * @param padding widths inside it
 */
public record BoxGeometry(double width, double height, Sides border, Sides padding) {
    /** Widths at the four sides, in CSS px, not negative. */
    public record Sides(double top, double right, double bottom, double left) {
        public static final Sides NONE = new Sides(0, 0, 0, 0);
    }

    /** A rectangle; {@code x} and {@code y} from the left and top edge of the padding box. */
    public record Rectangle(double x, double y, double width, double height) {}

    /** A box without border and padding. */
    public static BoxGeometry of(double width, double height) {
        return new BoxGeometry(width, height, Sides.NONE, Sides.NONE);
    }

    /** One of the boxes; where the background shows in the letters only, that of the border. */
    public Rectangle of(Box box) {
        return switch (box) {
            case PADDING_BOX -> new Rectangle(0, 0, width, height);
            case CONTENT_BOX ->
                new Rectangle(
                        padding.left(),
                        padding.top(),
                        Math.max(0, width - padding.left() - padding.right()),
                        Math.max(0, height - padding.top() - padding.bottom()));
            case BORDER_BOX, TEXT ->
                new Rectangle(
                        -border.left(),
                        -border.top(),
                        width + border.left() + border.right(),
                        height + border.top() + border.bottom());
        };
    }
}

package org.calmpalette.core.value;

/**
 * What a page is shown in.
 *
 * @param width of the viewport in CSS px
 * @param height of the viewport in CSS px
 */
public record Viewport(double width, double height) {
    /** A desktop with a mouse, a light colour scheme and no wish for less motion: what media queries are asked about. */
    public static Viewport of(double width, double height) {
        return new Viewport(width, height);
    }
}

package org.calmpalette.core.value;

/**
 * What a page is shown in.
 *
 * @param width of the viewport in CSS px
 * @param height of the viewport in CSS px
 * @param lessMotion whether the visitor asks for less movement: {@code prefers-reduced-motion: reduce} (Media Queries 5, section 11.1)
 * @param dark whether the visitor prefers a dark colour scheme: {@code prefers-color-scheme: dark} (section 11.5)
 */
public record Viewport(double width, double height, boolean lessMotion, boolean dark) {
    public Viewport(double width, double height) {
        this(width, height, false, false);
    }

    /** A desktop with a mouse, a light colour scheme and no wish for less motion: what media queries are asked about. */
    public static Viewport of(double width, double height) {
        return new Viewport(width, height);
    }

    /** The same for a visitor who asks for less movement. */
    public Viewport withLessMotion() {
        return new Viewport(width, height, true, dark);
    }

    /** The same for a visitor who prefers a dark colour scheme. */
    public Viewport inTheDark() {
        return new Viewport(width, height, lessMotion, true);
    }
}

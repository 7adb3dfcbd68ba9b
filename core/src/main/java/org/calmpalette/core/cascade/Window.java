package org.calmpalette.core.cascade;

/**
 * What a page is shown in.
 *
 * @param width of the viewport in CSS px
 * @param height of the viewport in CSS px
 */
public record Window(double width, double height) {
  /** A desktop with a mouse, a light colour scheme and no wish for less motion: what media queries are asked about. */
  public static Window of(double width, double height) {
    return new Window(width, height);
  }
}

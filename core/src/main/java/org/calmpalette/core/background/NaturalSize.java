package org.calmpalette.core.background;

import java.util.OptionalDouble;

/**
 * What a picture says of its own size: CSS Images 3, section 4.1. A gradient says nothing.
 *
 * @param width in CSS px; empty if it has none
 * @param height in CSS px; empty if it has none
 * @param ratio width divided by height; empty if it has none
 */
public record NaturalSize(OptionalDouble width, OptionalDouble height, OptionalDouble ratio) {
  /** Of a gradient, and of an SVG without width, height and viewBox. */
  public static final NaturalSize NONE = new NaturalSize(OptionalDouble.empty(), OptionalDouble.empty(), OptionalDouble.empty());

  /** Of a picture of pixels. A side of 0 makes a picture that is not drawn. */
  public static NaturalSize of(double width, double height) {
    return new NaturalSize(OptionalDouble.of(width), OptionalDouble.of(height),
        width > 0 && height > 0 ? OptionalDouble.of(width / height) : OptionalDouble.empty());
  }

  /** Of a picture with a ratio only, such as an SVG with a viewBox. */
  public static NaturalSize ofRatio(double ratio) {
    return new NaturalSize(OptionalDouble.empty(), OptionalDouble.empty(), OptionalDouble.of(ratio));
  }
}

package org.calmpalette.core.paint;

import java.util.Arrays;
import java.util.Locale;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.color.Contrast;

/**
 * Opaque colours between two: red, green and blue each from one number to another, 0 to 1 in sRGB as it is encoded. What is composited
 * over all of them, or of all of them over something, is a range again that holds every single result: source-over is linear in the
 * source, in the backdrop and in alpha (Compositing 1, section 5.1), so that its extremes lie at the corners.
 *
 * @param low red, green and blue
 * @param high red, green and blue, none below {@code low}
 */
public record ColorRange(double[] low, double[] high) {
    /** Every colour that a screen shows. */
    public static final ColorRange ANY = new ColorRange(new double[] {0, 0, 0}, new double[] {1, 1, 1});

    public static final ColorRange WHITE = of(Color.WHITE);

    /** One colour as sRGB shows it; its alpha is not looked at. */
    public static ColorRange of(Color color) {
        Color c = color.toGamut();
        double[] channels = {c.c0(), c.c1(), c.c2()};
        return new ColorRange(channels, channels);
    }

    /** The least range that holds both. */
    public ColorRange and(ColorRange other) {
        double[] from = new double[3];
        double[] to = new double[3];
        for (int i = 0; i < 3; i++) {
            from[i] = Math.min(low[i], other.low[i]);
            to[i] = Math.max(high[i], other.high[i]);
        }
        return new ColorRange(from, to);
    }

    /** @param by on both sides of each channel, 0 to 1 */
    public ColorRange wider(double by) {
        double[] from = new double[3];
        double[] to = new double[3];
        for (int i = 0; i < 3; i++) {
            from[i] = Math.max(0, low[i] - by);
            to[i] = Math.min(1, high[i] + by);
        }
        return new ColorRange(from, to);
    }

    /** Relative luminance of the darkest of them (WCAG 2.2): it grows with each channel. */
    public double darkest() {
        return luminance(low);
    }

    /** Relative luminance of the lightest of them. */
    public double lightest() {
        return luminance(high);
    }

    private static double luminance(double[] channels) {
        return Contrast.relativeLuminance(Color.rgb(channels[0], channels[1], channels[2]));
    }

    /** A contrast ratio that is kept between any of these and any of the others: 1 where they meet. */
    public double leastRatio(ColorRange other) {
        double a = darkest();
        double b = other.darkest();
        return a > b
                ? Math.max(1, (a + 0.05) / (other.lightest() + 0.05))
                : Math.max(1, (b + 0.05) / (lightest() + 0.05));
    }

    /** A contrast ratio that none of these has with any of the others above. */
    public double greatestRatio(ColorRange other) {
        return Math.max((lightest() + 0.05) / (other.darkest() + 0.05), (other.lightest() + 0.05) / (darkest() + 0.05));
    }

    /** The one colour, if it is one. @throws IllegalStateException if they are several */
    public Color color() {
        if (!Arrays.equals(low, high)) {
            throw new IllegalStateException("not one colour: " + this);
        }
        return Color.rgb(low[0], low[1], low[2]);
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof ColorRange r && Arrays.equals(low, r.low) && Arrays.equals(high, r.high);
    }

    @Override
    public int hashCode() {
        return 31 * Arrays.hashCode(low) + Arrays.hashCode(high);
    }

    @Override
    public String toString() {
        return String.format(
                Locale.ROOT, "%.4f…%.4f %.4f…%.4f %.4f…%.4f", low[0], high[0], low[1], high[1], low[2], high[2]);
    }
}

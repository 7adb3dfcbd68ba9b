package org.calmpalette.core.color;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.Locale;
import java.util.Optional;

/**
 * One colour: a space, three components in the ranges of CSS Color Level 4, and an alpha from 0 to 1.
 *
 * <p>A component that is NaN is <em>missing</em>, the keyword {@code none}. Components may lie outside the gamut of
 * sRGB; {@link #toGamut()} brings them in.
 */
public record Color(ColorSpace space, double c0, double c1, double c2, double alpha) {
    public static final Color BLACK = rgb(0, 0, 0);
    public static final Color WHITE = rgb(1, 1, 1);
    public static final Color TRANSPARENT = new Color(ColorSpace.RGB, 0, 0, 0, 0);

    /** An opaque legacy sRGB colour, each component from 0 to 1. */
    public static Color rgb(double red, double green, double blue) {
        return new Color(ColorSpace.RGB, red, green, blue, 1);
    }

    /**
     * Reads any absolute CSS colour.
     *
     * @return empty when the text is not a colour, or depends on where it stands ({@code currentColor}, system colours)
     */
    public static Optional<Color> parse(String text) {
        return ColorSyntax.parse(text);
    }

    double[] components() {
        return new double[] {c0, c1, c2};
    }

    private double[] withoutMissing() {
        return new double[] {zero(c0), zero(c1), zero(c2)};
    }

    static double zero(double v) {
        return Double.isNaN(v) ? 0 : v;
    }

    /** The same colour in another space. Missing components count as 0 when the space changes. */
    public Color to(ColorSpace target) {
        if (target == space) {
            return this;
        }
        double[] c = isSrgb(space) && isSrgb(target) ? withoutMissing() : target.fromXyz(space.toXyz(withoutMissing()));
        return new Color(target, c[0], c[1], c[2], alpha);
    }

    private static boolean isSrgb(ColorSpace s) {
        return s == ColorSpace.RGB || s == ColorSpace.SRGB;
    }

    /** Distance in OKLab, alpha left aside: CSS Color 4, section 13.2. 0.02 can just be noticed; black and white are 1 apart. */
    public double distance(Color other) {
        Color x = to(ColorSpace.OKLAB);
        Color y = other.to(ColorSpace.OKLAB);
        double l = zero(x.c0) - zero(y.c0);
        double a = zero(x.c1) - zero(y.c1);
        double b = zero(x.c2) - zero(y.c2);
        return Math.sqrt(l * l + a * a + b * b);
    }

    /** The same colour with another alpha, 0 to 1. */
    public Color withAlpha(double newAlpha) {
        return new Color(space, c0, c1, c2, newAlpha);
    }

    public boolean isOpaque() {
        return zero(alpha) >= 1;
    }

    /** True if the colour can be shown in sRGB, with a tolerance of half a millionth. */
    public boolean isInGamut() {
        for (double v : to(ColorSpace.SRGB).withoutMissing()) {
            if (v < -0.0000005 || v > 1.0000005) {
                return false;
            }
        }
        return true;
    }

    /**
     * Legacy sRGB with each component clipped to 0..1. Browsers show colours outside sRGB this way on an sRGB screen
     * (common practice; CSS Color 4 section 13 asks for a chroma reduction that none of them does for painting).
     */
    public Color toGamut() {
        Color c = to(ColorSpace.RGB);
        return new Color(ColorSpace.RGB, clip(zero(c.c0)), clip(zero(c.c1)), clip(zero(c.c2)), clip(zero(alpha)));
    }

    private static double clip(double v) {
        return Math.max(0, Math.min(1, v));
    }

    /** Red, green and blue from 0 to 255, clipped to sRGB and rounded as browsers do. */
    public int[] bytes() {
        Color c = toGamut();
        return new int[] {toByte(c.c0), toByte(c.c1), toByte(c.c2)};
    }

    private static int toByte(double v) {
        // Browsers round half up; the addend takes back what the conversion lost in the last binary digits.
        return (int) Math.floor(v * 255 + 0.5 + 1e-9);
    }

    /** {@code #rrggbb}, or {@code #rrggbbaa} where the colour is translucent; clipped to sRGB. */
    public String hex() {
        int[] b = bytes();
        String rgb = String.format(Locale.ROOT, "#%02x%02x%02x", b[0], b[1], b[2]);
        return isOpaque() ? rgb : rgb + String.format(Locale.ROOT, "%02x", toByte(clip(zero(alpha))));
    }

    /**
     * The computed value as browsers write it.
     *
     * @see <a href="https://www.w3.org/TR/css-color-4/#serializing-color-values">CSS Color 4, section 15</a>
     */
    public String css() {
        if (space == ColorSpace.RGB || space == ColorSpace.HSL || space == ColorSpace.HWB) {
            int[] b = bytes();
            return isOpaque()
                    ? "rgb(" + b[0] + ", " + b[1] + ", " + b[2] + ")"
                    : "rgba(" + b[0] + ", " + b[1] + ", " + b[2] + ", " + alphaText() + ")";
        }
        String body = number(c0) + " " + number(c1) + " " + number(c2) + (alpha >= 1 ? "" : " / " + number(alpha));
        return switch (space) {
            case LAB, LCH, OKLAB, OKLCH -> space.cssName() + "(" + body + ")";
            default -> "color(" + space.cssName() + " " + body + ")";
        };
    }

    /** CSSOM: two decimals if they give the same byte back, else three. */
    private String alphaText() {
        int stored = toByte(clip(zero(alpha)));
        double two = Math.round(stored * 100 / 255.0) / 100.0;
        if (toByte(two) == stored) {
            return plain(two, 2);
        }
        return plain(Math.round(stored * 1000 / 255.0) / 1000.0, 3);
    }

    private static String number(double v) {
        if (Double.isNaN(v)) {
            return "none";
        }
        // Browsers keep single precision and write six significant digits.
        return v == 0
                ? "0"
                : new BigDecimal(Math.max(-Float.MAX_VALUE, Math.min(Float.MAX_VALUE, v)))
                        .round(new java.math.MathContext(6, RoundingMode.HALF_UP))
                        .stripTrailingZeros()
                        .toPlainString();
    }

    private static String plain(double v, int decimals) {
        return BigDecimal.valueOf(v)
                .setScale(decimals, RoundingMode.HALF_UP)
                .stripTrailingZeros()
                .toPlainString();
    }
}

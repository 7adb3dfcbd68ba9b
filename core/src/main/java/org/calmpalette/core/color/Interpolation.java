package org.calmpalette.core.color;

/** Mixing of two colours: CSS Color 4, section 12, with premultiplied alpha and carried missing components. */
public final class Interpolation {
    private Interpolation() {}

    /**
     * @param share how much of {@code b}, 0 to 1
     * @return the mixture in {@code space}
     */
    public static Color mix(Color a, Color b, double share, ColorSpace space, HueArc arc) {
        double[] ca = carried(a, space);
        double[] cb = carried(b, space);
        double alphaA = a.alpha();
        double alphaB = b.alpha();
        alphaA = Double.isNaN(alphaA) ? alphaB : alphaA;
        alphaB = Double.isNaN(alphaB) ? alphaA : alphaB;
        double alpha = alphaA * (1 - share) + alphaB * share;
        double[] c = new double[3];
        for (int i = 0; i < 3; i++) {
            double from = Double.isNaN(ca[i]) ? cb[i] : ca[i];
            double to = Double.isNaN(cb[i]) ? ca[i] : cb[i];
            if (i == space.hueIndex()) {
                double start = Hsl.modulo(from, 360);
                c[i] = Hsl.modulo(start + (arc.end(start, Hsl.modulo(to, 360)) - start) * share, 360);
            } else if (Double.isNaN(alpha) || alpha == 0) {
                c[i] = from * (1 - share) + to * share;
            } else {
                c[i] = (from * alphaA * (1 - share) + to * alphaB * share) / alpha;
            }
        }
        return new Color(space, c[0], c[1], c[2], alpha);
    }

    /** Components in the target space; a missing one stays missing where it has an analogous one there. */
    private static double[] carried(Color color, ColorSpace space) {
        Color converted = color.to(space);
        double[] c = converted.components();
        if (converted == color) {
            return c;
        }
        double[] original = color.components();
        for (int i = 0; i < 3; i++) {
            if (Double.isNaN(original[i])) {
                for (int j = 0; j < 3; j++) {
                    if (kind(color.space(), i) != 0 && kind(color.space(), i) == kind(space, j)) {
                        c[j] = Double.NaN;
                    }
                }
            }
        }
        return c;
    }

    /** Analogous components, CSS Color 4 section 12.2: red, green, blue, lightness, colourfulness, hue, a, b. */
    private static char kind(ColorSpace space, int index) {
        String kinds =
                switch (space) {
                    case LAB, OKLAB -> "Lab";
                    case LCH, OKLCH -> "LCH";
                    case HSL -> "HCL";
                    case HWB -> "H\0\0";
                    default -> "rgB";
                };
        return kinds.charAt(index);
    }
}

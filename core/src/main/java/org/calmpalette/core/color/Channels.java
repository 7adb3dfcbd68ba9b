package org.calmpalette.core.color;

import java.util.HashMap;
import java.util.Map;

/**
 * How the components of one colour function are written: what 100 % means, which numbers are scaled, and, in a colour
 * relative to another, which words stand for the other's components.
 *
 * @param percentTo what 100 % stands for, per component and for alpha
 * @param divisor what a plain number is divided by
 * @param words channel words of a relative colour with their values, as plain numbers would be written
 */
record Channels(ColorSpace space, double[] percentTo, double[] divisor, Map<String, Double> words) {

    static Channels of(ColorSpace space, boolean function, Color origin) {
        double[] percentTo =
                switch (space) {
                    case LAB -> new double[] {100, 125, 125, 1};
                    case LCH -> new double[] {100, 150, 0, 1};
                    case OKLAB -> new double[] {1, 0.4, 0.4, 1};
                    case OKLCH -> new double[] {1, 0.4, 0, 1};
                    case HSL, HWB -> new double[] {0, 100, 100, 1};
                    default -> new double[] {1, 1, 1, 1};
                };
        double[] divisor = space == ColorSpace.RGB ? new double[] {255, 255, 255, 1} : new double[] {1, 1, 1, 1};
        Map<String, Double> words = new HashMap<>();
        if (origin != null) {
            double[] c = origin.to(space).components();
            String names =
                    switch (space) {
                        case LAB, OKLAB -> "lab";
                        case LCH, OKLCH -> "lch";
                        case HSL -> "hsl";
                        case HWB -> "hwb";
                        case XYZ_D65, XYZ_D50 -> "xyz";
                        default -> "rgb";
                    };
            for (int i = 0; i < 3; i++) {
                words.put(names.substring(i, i + 1), Color.zero(c[i]) * divisor[i]);
            }
            words.put("alpha", Color.zero(origin.alpha()));
        }
        return new Channels(space, percentTo, divisor, words);
    }
}

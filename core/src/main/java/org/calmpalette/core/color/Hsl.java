package org.calmpalette.core.color;

/** HSL and HWB over sRGB: CSS Color 4, sections 7 and 8. Hue in degrees, the rest in percent. */
final class Hsl {
    private Hsl() {}

    static double[] toRgb(double[] hsl) {
        double hue = modulo(hsl[0], 360);
        double saturation = hsl[1] / 100;
        double lightness = hsl[2] / 100;
        double a = saturation * Math.min(lightness, 1 - lightness);
        return new double[] {channel(0, hue, lightness, a), channel(8, hue, lightness, a), channel(4, hue, lightness, a)
        };
    }

    private static double channel(int n, double hue, double lightness, double a) {
        double k = (n + hue / 30) % 12;
        // Kept in single precision, as browsers do: it decides whether 178.5 becomes 178 or 179.
        return (float) (lightness - a * Math.max(-1, Math.min(Math.min(k - 3, 9 - k), 1)));
    }

    static double[] fromRgb(double[] rgb) {
        double max = Math.max(rgb[0], Math.max(rgb[1], rgb[2]));
        double min = Math.min(rgb[0], Math.min(rgb[1], rgb[2]));
        double lightness = (min + max) / 2;
        double d = max - min;
        if (d < 1e-9) {
            return new double[] {Double.NaN, 0, lightness * 100};
        }
        double saturation =
                lightness == 0 || lightness == 1 ? 0 : (max - lightness) / Math.min(lightness, 1 - lightness);
        double hue = hue(rgb, max, d);
        if (saturation < 0) {
            // Outside the gamut the formula can give a negative saturation: the same colour lies half a turn away.
            hue += 180;
            saturation = Math.abs(saturation);
        }
        return new double[] {modulo(hue, 360), saturation * 100, lightness * 100};
    }

    static double[] hwbToRgb(double[] hwb) {
        double white = hwb[1] / 100;
        double black = hwb[2] / 100;
        if (white + black >= 1) {
            double gray = white / (white + black);
            return new double[] {gray, gray, gray};
        }
        double[] rgb = toRgb(new double[] {hwb[0], 100, 50});
        for (int i = 0; i < 3; i++) {
            rgb[i] = rgb[i] * (1 - white - black) + white;
        }
        return rgb;
    }

    static double[] hwbFromRgb(double[] rgb) {
        double max = Math.max(rgb[0], Math.max(rgb[1], rgb[2]));
        double min = Math.min(rgb[0], Math.min(rgb[1], rgb[2]));
        double d = max - min;
        double hue = d < 1e-9 ? Double.NaN : modulo(hue(rgb, max, d), 360);
        return new double[] {hue, min * 100, (1 - max) * 100};
    }

    private static double hue(double[] rgb, double max, double d) {
        if (max == rgb[0]) {
            return ((rgb[1] - rgb[2]) / d + (rgb[1] < rgb[2] ? 6 : 0)) * 60;
        }
        return max == rgb[1] ? ((rgb[2] - rgb[0]) / d + 2) * 60 : ((rgb[0] - rgb[1]) / d + 4) * 60;
    }

    static double modulo(double value, double by) {
        double rest = value % by;
        return rest < 0 ? rest + by : rest;
    }
}

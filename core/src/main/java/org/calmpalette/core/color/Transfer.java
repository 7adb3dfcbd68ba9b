package org.calmpalette.core.color;

/** Transfer functions of the RGB spaces, extended to negative values by symmetry as CSS Color 4 does. */
final class Transfer {
    private Transfer() {}

    static double srgbToLinear(double v) {
        double a = Math.abs(v);
        return a <= 0.04045 ? v / 12.92 : Math.copySign(Math.pow((a + 0.055) / 1.055, 2.4), v);
    }

    static double linearToSrgb(double v) {
        double a = Math.abs(v);
        return a > 0.0031308 ? Math.copySign(1.055 * Math.pow(a, 1 / 2.4) - 0.055, v) : 12.92 * v;
    }

    static double a98ToLinear(double v) {
        return Math.copySign(Math.pow(Math.abs(v), 563.0 / 256), v);
    }

    static double linearToA98(double v) {
        return Math.copySign(Math.pow(Math.abs(v), 256.0 / 563), v);
    }

    static double proPhotoToLinear(double v) {
        double a = Math.abs(v);
        return a <= 16.0 / 512 ? v / 16 : Math.copySign(Math.pow(a, 1.8), v);
    }

    static double linearToProPhoto(double v) {
        double a = Math.abs(v);
        return a >= 1.0 / 512 ? Math.copySign(Math.pow(a, 1 / 1.8), v) : 16 * v;
    }

    static double rec2020ToLinear(double v) {
        return Math.copySign(Math.pow(Math.abs(v), 2.4), v);
    }

    static double linearToRec2020(double v) {
        return Math.copySign(Math.pow(Math.abs(v), 1 / 2.4), v);
    }
}

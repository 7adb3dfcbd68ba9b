package org.calmpalette.core.color;

/** Lab to LCH and back: CSS Color 4, sections 9.4 and 9.5. */
final class Polar {
    private Polar() {}

    static double[] toRectangular(double[] lch) {
        double hue = Math.toRadians(lch[2]);
        return new double[] {lch[0], lch[1] * Math.cos(hue), lch[1] * Math.sin(hue)};
    }

    /**
     * @param epsilon chroma at or below which the hue means nothing; it is then reported as missing (NaN)
     */
    static double[] fromRectangular(double[] lab, double epsilon) {
        double chroma = Math.hypot(lab[1], lab[2]);
        double hue = Math.toDegrees(Math.atan2(lab[2], lab[1]));
        return new double[] {lab[0], chroma, chroma <= epsilon ? Double.NaN : hue < 0 ? hue + 360 : hue};
    }
}

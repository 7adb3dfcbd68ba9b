package org.calmpalette.core.color;

/** Which way round the hue circle a mixture goes: CSS Color 4, section 12.4. */
public enum HueArc {
    SHORTER,
    LONGER,
    INCREASING,
    DECREASING;

    /** The second hue, moved by whole turns so that plain interpolation from {@code from} takes this arc. */
    double end(double from, double to) {
        double d = to - from;
        return switch (this) {
            case SHORTER -> d > 180 ? to - 360 : d < -180 ? to + 360 : to;
            case LONGER -> d > 0 && d < 180 ? to - 360 : d > -180 && d <= 0 ? to + 360 : to;
            case INCREASING -> d < 0 ? to + 360 : to;
            case DECREASING -> d > 0 ? to - 360 : to;
        };
    }
}

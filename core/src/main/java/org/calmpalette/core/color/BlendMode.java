package org.calmpalette.core.color;

import java.util.Locale;
import java.util.Optional;

/**
 * How a colour mixes with what is behind it: Compositing and Blending Level 1, sections 9 and 10, with its names of the functions.
 * Components are sRGB, 0 to 1, not premultiplied.
 */
public enum BlendMode {
    NORMAL,
    MULTIPLY,
    SCREEN,
    OVERLAY,
    DARKEN,
    LIGHTEN,
    COLOR_DODGE,
    COLOR_BURN,
    HARD_LIGHT,
    SOFT_LIGHT,
    DIFFERENCE,
    EXCLUSION,
    HUE,
    SATURATION,
    COLOR,
    LUMINOSITY;

    /** @param name as CSS has it, such as {@code color-dodge} */
    public static Optional<BlendMode> of(String name) {
        for (BlendMode mode : values()) {
            if (mode.name().toLowerCase(Locale.ROOT).replace('_', '-').equals(name)) {
                return Optional.of(mode);
            }
        }
        return Optional.empty();
    }

    /**
     * Lays a source over a backdrop (section 5.8.4: blending, then source-over).
     *
     * @param backdrop red, green, blue and alpha, premultiplied; gets what is seen then
     * @param source likewise; stays
     */
    public void over(double[] backdrop, double[] source) {
        double as = source[3];
        double ab = backdrop[3];
        if (as <= 0) {
            return;
        }
        double[] cs = {source[0] / as, source[1] / as, source[2] / as};
        double[] mixed = cs;
        if (this != NORMAL && ab > 0) {
            mixed = mix(new double[] {backdrop[0] / ab, backdrop[1] / ab, backdrop[2] / ab}, cs);
        }
        for (int i = 0; i < 3; i++) {
            backdrop[i] = (1 - ab) * as * cs[i] + ab * as * mixed[i] + (1 - as) * backdrop[i];
        }
        backdrop[3] = as + ab * (1 - as);
    }

    private double[] mix(double[] cb, double[] cs) {
        return switch (this) {
            case HUE -> setLum(setSat(cs, sat(cb)), lum(cb));
            case SATURATION -> setLum(setSat(cb, sat(cs)), lum(cb));
            case COLOR -> setLum(cs, lum(cb));
            case LUMINOSITY -> setLum(cb, lum(cs));
            default -> new double[] {one(cb[0], cs[0]), one(cb[1], cs[1]), one(cb[2], cs[2])};
        };
    }

    /** Of one component. */
    private double one(double cb, double cs) {
        return switch (this) {
            case MULTIPLY -> cb * cs;
            case SCREEN -> cb + cs - cb * cs;
            case OVERLAY -> HARD_LIGHT.one(cs, cb);
            case DARKEN -> Math.min(cb, cs);
            case LIGHTEN -> Math.max(cb, cs);
            case COLOR_DODGE -> cb <= 0 ? 0 : cs >= 1 ? 1 : Math.min(1, cb / (1 - cs));
            case COLOR_BURN -> cb >= 1 ? 1 : cs <= 0 ? 0 : 1 - Math.min(1, (1 - cb) / cs);
            case HARD_LIGHT -> cs <= 0.5 ? cb * 2 * cs : SCREEN.one(cb, 2 * cs - 1);
            case SOFT_LIGHT -> {
                double d = cb <= 0.25 ? ((16 * cb - 12) * cb + 4) * cb : Math.sqrt(cb);
                yield cs <= 0.5 ? cb - (1 - 2 * cs) * cb * (1 - cb) : cb + (2 * cs - 1) * (d - cb);
            }
            case DIFFERENCE -> Math.abs(cb - cs);
            case EXCLUSION -> cb + cs - 2 * cb * cs;
            default -> cs;
        };
    }

    private static double lum(double[] c) {
        return 0.3 * c[0] + 0.59 * c[1] + 0.11 * c[2];
    }

    private static double sat(double[] c) {
        return Math.max(c[0], Math.max(c[1], c[2])) - Math.min(c[0], Math.min(c[1], c[2]));
    }

    private static double[] setLum(double[] c, double l) {
        double d = l - lum(c);
        double[] moved = {c[0] + d, c[1] + d, c[2] + d};
        double lowest = Math.min(moved[0], Math.min(moved[1], moved[2]));
        double highest = Math.max(moved[0], Math.max(moved[1], moved[2]));
        double own = lum(moved);
        for (int i = 0; i < 3; i++) {
            if (lowest < 0) {
                moved[i] = own + (moved[i] - own) * own / (own - lowest);
            }
            if (highest > 1) {
                moved[i] = own + (moved[i] - own) * (1 - own) / (highest - own);
            }
        }
        return moved;
    }

    private static double[] setSat(double[] c, double s) {
        double lowest = Math.min(c[0], Math.min(c[1], c[2]));
        double range = sat(c);
        double[] spread = new double[3];
        for (int i = 0; i < 3; i++) {
            spread[i] = range <= 0 ? 0 : (c[i] - lowest) * s / range;
        }
        return spread;
    }
}

package org.calmpalette.core.color;

import static org.calmpalette.core.color.Matrices.multiply;

/**
 * The colour spaces of CSS Color Level 4, each with its way to and from CIE XYZ with the D65 white point.
 *
 * <p>Components are in the ranges of the specification: RGB spaces 0 to 1, Lab lightness 0 to 100, OKLab lightness 0
 * to 1, hues in degrees, HSL and HWB percentages 0 to 100. Values outside are kept; nothing is clipped here.
 *
 * @see <a href="https://www.w3.org/TR/css-color-4/#color-conversion-code">CSS Color 4, section 17: sample code</a>
 */
public enum ColorSpace {
    /** sRGB as written by the legacy notations: hex, names, {@code rgb()}, {@code hsl()}, {@code hwb()}. */
    RGB("rgb") {
        @Override
        double[] toXyz(double[] c) {
            return SRGB.toXyz(c);
        }

        @Override
        double[] fromXyz(double[] xyz) {
            return SRGB.fromXyz(xyz);
        }
    },
    SRGB("srgb") {
        @Override
        double[] toXyz(double[] c) {
            return multiply(Matrices.SRGB_TO_XYZ, each(c, Transfer::srgbToLinear));
        }

        @Override
        double[] fromXyz(double[] xyz) {
            return each(multiply(Matrices.XYZ_TO_SRGB, xyz), Transfer::linearToSrgb);
        }
    },
    SRGB_LINEAR("srgb-linear") {
        @Override
        double[] toXyz(double[] c) {
            return multiply(Matrices.SRGB_TO_XYZ, c);
        }

        @Override
        double[] fromXyz(double[] xyz) {
            return multiply(Matrices.XYZ_TO_SRGB, xyz);
        }
    },
    DISPLAY_P3("display-p3") {
        @Override
        double[] toXyz(double[] c) {
            return multiply(Matrices.P3_TO_XYZ, each(c, Transfer::srgbToLinear));
        }

        @Override
        double[] fromXyz(double[] xyz) {
            return each(multiply(Matrices.XYZ_TO_P3, xyz), Transfer::linearToSrgb);
        }
    },
    DISPLAY_P3_LINEAR("display-p3-linear") {
        @Override
        double[] toXyz(double[] c) {
            return multiply(Matrices.P3_TO_XYZ, c);
        }

        @Override
        double[] fromXyz(double[] xyz) {
            return multiply(Matrices.XYZ_TO_P3, xyz);
        }
    },
    A98_RGB("a98-rgb") {
        @Override
        double[] toXyz(double[] c) {
            return multiply(Matrices.A98_TO_XYZ, each(c, Transfer::a98ToLinear));
        }

        @Override
        double[] fromXyz(double[] xyz) {
            return each(multiply(Matrices.XYZ_TO_A98, xyz), Transfer::linearToA98);
        }
    },
    PROPHOTO_RGB("prophoto-rgb") {
        @Override
        double[] toXyz(double[] c) {
            return multiply(
                    Matrices.D50_TO_D65, multiply(Matrices.PROPHOTO_TO_XYZ_D50, each(c, Transfer::proPhotoToLinear)));
        }

        @Override
        double[] fromXyz(double[] xyz) {
            return each(
                    multiply(Matrices.XYZ_D50_TO_PROPHOTO, multiply(Matrices.D65_TO_D50, xyz)),
                    Transfer::linearToProPhoto);
        }
    },
    REC2020("rec2020") {
        @Override
        double[] toXyz(double[] c) {
            return multiply(Matrices.REC2020_TO_XYZ, each(c, Transfer::rec2020ToLinear));
        }

        @Override
        double[] fromXyz(double[] xyz) {
            return each(multiply(Matrices.XYZ_TO_REC2020, xyz), Transfer::linearToRec2020);
        }
    },
    XYZ_D65("xyz-d65") {
        @Override
        double[] toXyz(double[] c) {
            return c.clone();
        }

        @Override
        double[] fromXyz(double[] xyz) {
            return xyz.clone();
        }
    },
    XYZ_D50("xyz-d50") {
        @Override
        double[] toXyz(double[] c) {
            return multiply(Matrices.D50_TO_D65, c);
        }

        @Override
        double[] fromXyz(double[] xyz) {
            return multiply(Matrices.D65_TO_D50, xyz);
        }
    },
    LAB("lab") {
        @Override
        double[] toXyz(double[] c) {
            return multiply(Matrices.D50_TO_D65, Lab.toXyzD50(c));
        }

        @Override
        double[] fromXyz(double[] xyz) {
            return Lab.fromXyzD50(multiply(Matrices.D65_TO_D50, xyz));
        }
    },
    LCH("lch") {
        @Override
        double[] toXyz(double[] c) {
            return LAB.toXyz(Polar.toRectangular(c));
        }

        @Override
        double[] fromXyz(double[] xyz) {
            return Polar.fromRectangular(LAB.fromXyz(xyz), 0.0015);
        }
    },
    OKLAB("oklab") {
        @Override
        double[] toXyz(double[] c) {
            double[] lms = each(multiply(Matrices.OKLAB_TO_LMS, c), v -> v * v * v);
            return multiply(Matrices.LMS_TO_XYZ, lms);
        }

        @Override
        double[] fromXyz(double[] xyz) {
            return multiply(Matrices.LMS_TO_OKLAB, each(multiply(Matrices.XYZ_TO_LMS, xyz), Math::cbrt));
        }
    },
    OKLCH("oklch") {
        @Override
        double[] toXyz(double[] c) {
            return OKLAB.toXyz(Polar.toRectangular(c));
        }

        @Override
        double[] fromXyz(double[] xyz) {
            return Polar.fromRectangular(OKLAB.fromXyz(xyz), 0.000004);
        }
    },
    HSL("hsl") {
        @Override
        double[] toXyz(double[] c) {
            return SRGB.toXyz(Hsl.toRgb(c));
        }

        @Override
        double[] fromXyz(double[] xyz) {
            return Hsl.fromRgb(SRGB.fromXyz(xyz));
        }
    },
    HWB("hwb") {
        @Override
        double[] toXyz(double[] c) {
            return SRGB.toXyz(Hsl.hwbToRgb(c));
        }

        @Override
        double[] fromXyz(double[] xyz) {
            return Hsl.hwbFromRgb(SRGB.fromXyz(xyz));
        }
    };

    private final String cssName;

    ColorSpace(String cssName) {
        this.cssName = cssName;
    }

    /** The name that CSS uses for the space, such as {@code display-p3}. */
    public String cssName() {
        return cssName;
    }

    /** True for the spaces that are given by a hue angle; {@link #hueIndex()} says which component it is. */
    public boolean isPolar() {
        return hueIndex() >= 0;
    }

    /** Index of the hue component, or -1 for a rectangular space. */
    public int hueIndex() {
        return switch (this) {
            case HSL, HWB -> 0;
            case LCH, OKLCH -> 2;
            default -> -1;
        };
    }

    /** True for the RGB spaces of {@code color()}, and for legacy sRGB. */
    public boolean isRgb() {
        return switch (this) {
            case RGB, SRGB, SRGB_LINEAR, DISPLAY_P3, DISPLAY_P3_LINEAR, A98_RGB, PROPHOTO_RGB, REC2020 -> true;
            default -> false;
        };
    }

    abstract double[] toXyz(double[] components);

    abstract double[] fromXyz(double[] xyz);

    private static double[] each(double[] c, java.util.function.DoubleUnaryOperator f) {
        return new double[] {f.applyAsDouble(c[0]), f.applyAsDouble(c[1]), f.applyAsDouble(c[2])};
    }
}

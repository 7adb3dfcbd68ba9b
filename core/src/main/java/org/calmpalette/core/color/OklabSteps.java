package org.calmpalette.core.color;

/**
 * The two linear steps from OKLab to linear sRGB, between which each component is cubed (CSS Color 4, section 10.8): for who follows whole
 * ranges of colours through them.
 */
public final class OklabSteps {
    private static final double[][] LMS_TO_LINEAR_SRGB = Matrices.product(Matrices.XYZ_TO_SRGB, Matrices.LMS_TO_XYZ);

    private OklabSteps() {}

    /** @param row 0 to 2: l, m or s, as shares of lightness, a and b; the cube roots of what LMS is */
    public static double[] lms(int row) {
        return Matrices.OKLAB_TO_LMS[row].clone();
    }

    /** @param row 0 to 2: red, green or blue of linear sRGB, as shares of l, m and s */
    public static double[] linearSrgb(int row) {
        return LMS_TO_LINEAR_SRGB[row].clone();
    }
}

package org.calmpalette.core.color;

/**
 * How people see colours: with all three kinds of cones, or wholly without one. G. M. Machado, M. M. Oliveira, L. A. F. Fernandes, A
 * Physiologically-based Model for Simulation of Color Vision Deficiency, 2009, severity 1.0, on linear sRGB; the numbers are from memory,
 * each row adds up to 1, so that greys stay what they are.
 */
public enum ColorVision {
    USUAL("usual colour vision", new double[][] {{1, 0, 0}, {0, 1, 0}, {0, 0, 1}}),
    PROTANOPIA("protanopia", new double[][] {
        {0.152286, 1.052583, -0.204868}, {0.114503, 0.786281, 0.099216}, {-0.003882, -0.048116, 1.051998}
    }),
    DEUTERANOPIA("deuteranopia", new double[][] {
        {0.367322, 0.860646, -0.227968}, {0.280085, 0.672501, 0.047413}, {-0.01182, 0.04294, 0.968881}
    }),
    TRITANOPIA("tritanopia", new double[][] {
        {1.255528, -0.076749, -0.178779}, {-0.078411, 0.930809, 0.147602}, {0.004733, 0.691367, 0.3039}
    });

    private static final double[][] LINEAR_SRGB_TO_LMS = Matrices.product(Matrices.XYZ_TO_LMS, Matrices.SRGB_TO_XYZ);
    private static final double[][] LMS_TO_LINEAR_SRGB = Matrices.product(Matrices.XYZ_TO_SRGB, Matrices.LMS_TO_XYZ);

    private final String label;
    private final double[][] rows;
    /** From what cones answer to a colour to what they answer to it as it is seen. */
    private double[][] cones;

    ColorVision(String label, double[][] rows) {
        this.label = label;
        this.rows = rows;
    }

    public String label() {
        return label;
    }

    /** The colour as it is seen, clipped to sRGB; alpha is left aside. */
    public Color seen(Color color) {
        double[] seen = product(rows, linear(color));
        for (int i = 0; i < 3; i++) {
            seen[i] = Math.max(0, Math.min(1, seen[i]));
        }
        return new Color(ColorSpace.SRGB_LINEAR, seen[0], seen[1], seen[2], 1);
    }

    /** Lightness, a and b in OKLab of a colour as it is seen, before it is clipped to what a screen shows; alpha is left aside. */
    public double[] oklab(Color color) {
        double[] lms = product(LINEAR_SRGB_TO_LMS, product(rows, linear(color)));
        for (int i = 0; i < 3; i++) {
            lms[i] = Math.cbrt(lms[i]);
        }
        return product(Matrices.LMS_TO_OKLAB, lms);
    }

    /** How far apart two colours are as they are seen, in OKLab (CSS Color 4, section 13.2): 0 to about 1. */
    public double distance(Color one, Color other) {
        double[] a = oklab(one);
        double[] b = oklab(other);
        return Math.sqrt((a[0] - b[0]) * (a[0] - b[0]) + (a[1] - b[1]) * (a[1] - b[1]) + (a[2] - b[2]) * (a[2] - b[2]));
    }

    /**
     * Between what lightness, a and b in OKLab lie as they are seen, of colours that are known by what cones answer to them.
     *
     * @param lms from and to of l, m and s (CSS Color 4, section 10.8, before the cube root)
     */
    public double[][] oklab(double[][] lms) {
        if (cones == null) {
            cones = Matrices.product(LINEAR_SRGB_TO_LMS, Matrices.product(rows, LMS_TO_LINEAR_SRGB));
        }
        double[][] seen = ranges(cones, lms);
        for (double[] range : seen) {
            range[0] = Math.cbrt(range[0]);
            range[1] = Math.cbrt(range[1]);
        }
        return ranges(Matrices.LMS_TO_OKLAB, seen);
    }

    private static double[] linear(Color color) {
        Color c = color.toGamut().to(ColorSpace.SRGB_LINEAR);
        return new double[] {c.c0(), c.c1(), c.c2()};
    }

    private static double[] product(double[][] matrix, double[] v) {
        double[] all = new double[3];
        for (int i = 0; i < 3; i++) {
            all[i] = matrix[i][0] * v[0] + matrix[i][1] * v[1] + matrix[i][2] * v[2];
        }
        return all;
    }

    private static double[][] ranges(double[][] matrix, double[][] ranges) {
        double[][] all = new double[3][2];
        for (int i = 0; i < 3; i++) {
            for (int k = 0; k < 3; k++) {
                double a = matrix[i][k] * ranges[k][0];
                double b = matrix[i][k] * ranges[k][1];
                all[i][0] += Math.min(a, b);
                all[i][1] += Math.max(a, b);
            }
        }
        return all;
    }
}

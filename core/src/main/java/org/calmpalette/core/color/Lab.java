package org.calmpalette.core.color;

/** CIE Lab with the D50 white point: CSS Color 4, section 9.1 and the sample code of section 17. */
final class Lab {
    private static final double EPSILON = 216.0 / 24389;
    private static final double KAPPA = 24389.0 / 27;
    private static final double[] D50 = {0.3457 / 0.3585, 1, (1.0 - 0.3457 - 0.3585) / 0.3585};

    private Lab() {}

    static double[] toXyzD50(double[] lab) {
        double fy = (lab[0] + 16) / 116;
        double fx = lab[1] / 500 + fy;
        double fz = fy - lab[2] / 200;
        double x = fx * fx * fx > EPSILON ? fx * fx * fx : (116 * fx - 16) / KAPPA;
        double y = lab[0] > KAPPA * EPSILON ? fy * fy * fy : lab[0] / KAPPA;
        double z = fz * fz * fz > EPSILON ? fz * fz * fz : (116 * fz - 16) / KAPPA;
        return new double[] {x * D50[0], y * D50[1], z * D50[2]};
    }

    static double[] fromXyzD50(double[] xyz) {
        double fx = f(xyz[0] / D50[0]);
        double fy = f(xyz[1] / D50[1]);
        double fz = f(xyz[2] / D50[2]);
        return new double[] {116 * fy - 16, 500 * (fx - fy), 200 * (fy - fz)};
    }

    private static double f(double v) {
        return v > EPSILON ? Math.cbrt(v) : (KAPPA * v + 16) / 116;
    }
}

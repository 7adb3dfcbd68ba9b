package org.calmpalette.core.color;

/**
 * Conversion matrices of CSS Color Level 4, section 17, as the exact fractions that the specification gives where it
 * gives them. OKLab's are those of the specification's 2024 recalculation with 64-bit precision.
 */
final class Matrices {
    static final double[][] SRGB_TO_XYZ = {
        {506752.0 / 1228815, 87881.0 / 245763, 12673.0 / 70218},
        {87098.0 / 409605, 175762.0 / 245763, 12673.0 / 175545},
        {7918.0 / 409605, 87881.0 / 737289, 1001167.0 / 1053270},
    };
    static final double[][] XYZ_TO_SRGB = {
        {12831.0 / 3959, -329.0 / 214, -1974.0 / 3959},
        {-851781.0 / 878810, 1648619.0 / 878810, 36519.0 / 878810},
        {705.0 / 12673, -2585.0 / 12673, 705.0 / 667},
    };
    static final double[][] P3_TO_XYZ = {
        {608311.0 / 1250200, 189793.0 / 714400, 198249.0 / 1000160},
        {35783.0 / 156275, 247089.0 / 357200, 198249.0 / 2500400},
        {0, 32229.0 / 714400, 5220557.0 / 5000800},
    };
    static final double[][] XYZ_TO_P3 = inverse(P3_TO_XYZ);
    static final double[][] A98_TO_XYZ = {
        {573536.0 / 994567, 263643.0 / 1420810, 187206.0 / 994567},
        {591459.0 / 1989134, 6239551.0 / 9945670, 374412.0 / 4972835},
        {53769.0 / 1989134, 351524.0 / 4972835, 4929758.0 / 4972835},
    };
    static final double[][] XYZ_TO_A98 = inverse(A98_TO_XYZ);
    static final double[][] PROPHOTO_TO_XYZ_D50 = {
        {0.79776664490064230, 0.13518129740053308, 0.03134773412839220},
        {0.28807482881940130, 0.71183523424187300, 0.00008993693872564},
        {0, 0, 0.82510460251046020},
    };
    static final double[][] XYZ_D50_TO_PROPHOTO = inverse(PROPHOTO_TO_XYZ_D50);
    static final double[][] REC2020_TO_XYZ = {
        {63426534.0 / 99577255, 20160776.0 / 139408157, 47086771.0 / 278816314},
        {26158966.0 / 99577255, 472592308.0 / 697040785, 8267143.0 / 139408157},
        {0, 19567812.0 / 697040785, 295819943.0 / 278816314},
    };
    static final double[][] XYZ_TO_REC2020 = inverse(REC2020_TO_XYZ);
    static final double[][] D65_TO_D50 = {
        {1.0479297925449969, 0.022946870601609652, -0.05019226628920524},
        {0.02962780877005599, 0.9904344267538799, -0.017073799063418826},
        {-0.009243040646204504, 0.015055191490298152, 0.7518742814281371},
    };
    static final double[][] D50_TO_D65 = {
        {0.955473421488075, -0.02309845494876471, 0.06325924320057072},
        {-0.0283697093338637, 1.0099953980813041, 0.021041441191917323},
        {0.012314014864481998, -0.020507649298898964, 1.330365926242124},
    };
    static final double[][] XYZ_TO_LMS = {
        {0.8190224379967030, 0.3619062600528904, -0.1288737815209879},
        {0.0329836539323885, 0.9292868615863434, 0.0361446663506424},
        {0.0481771893596242, 0.2642395317527308, 0.6335478284694309},
    };
    static final double[][] LMS_TO_XYZ = inverse(XYZ_TO_LMS);
    static final double[][] LMS_TO_OKLAB = {
        {0.2104542683093140, 0.7936177747023054, -0.0040720430116193},
        {1.9779985324311684, -2.4285922420485799, 0.4505937096174110},
        {0.0259040424655478, 0.7827717124575296, -0.8086757549230774},
    };
    static final double[][] OKLAB_TO_LMS = inverse(LMS_TO_OKLAB);

    private Matrices() {}

    static double[] multiply(double[][] m, double[] v) {
        return new double[] {
            m[0][0] * v[0] + m[0][1] * v[1] + m[0][2] * v[2],
            m[1][0] * v[0] + m[1][1] * v[1] + m[1][2] * v[2],
            m[2][0] * v[0] + m[2][1] * v[1] + m[2][2] * v[2],
        };
    }

    /** What two steps come to, the second one first. */
    static double[][] product(double[][] second, double[][] first) {
        double[][] both = new double[3][3];
        for (int row = 0; row < 3; row++) {
            for (int column = 0; column < 3; column++) {
                for (int i = 0; i < 3; i++) {
                    both[row][column] += second[row][i] * first[i][column];
                }
            }
        }
        return both;
    }

    private static double[][] inverse(double[][] m) {
        double[][] inverse = new double[3][3];
        double determinant = 0;
        for (int i = 0; i < 3; i++) {
            determinant += m[0][i] * minor(m, 0, i);
        }
        for (int row = 0; row < 3; row++) {
            for (int column = 0; column < 3; column++) {
                inverse[column][row] = minor(m, row, column) / determinant;
            }
        }
        return inverse;
    }

    /** The signed minor; with cyclic indices the sign comes out right by itself. */
    private static double minor(double[][] m, int row, int column) {
        int r1 = (row + 1) % 3;
        int r2 = (row + 2) % 3;
        int c1 = (column + 1) % 3;
        int c2 = (column + 2) % 3;
        return m[r1][c1] * m[r2][c2] - m[r1][c2] * m[r2][c1];
    }
}

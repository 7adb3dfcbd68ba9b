package org.calmpalette.core.promise;

import java.util.ArrayList;
import java.util.List;

/**
 * Relative luminances (WCAG 2.2) that a colour may have, as closed intervals: at least all that it does have.
 *
 * @param intervals from and to, 0 to 1, in any order
 */
record Luminances(List<double[]> intervals) {
    static Luminances of(double from, double to) {
        return new Luminances(List.<double[]>of(new double[] {from, to}));
    }

    /** Those that are left of these when a contrast ratio with one luminance is kept. @param slack added on both sides */
    Luminances keeping(double ratio, double other, double slack) {
        double below = (other + 0.05) / ratio - 0.05 + slack;
        double above = (other + 0.05) * ratio - 0.05 - slack;
        List<double[]> left = new ArrayList<>();
        for (double[] i : intervals) {
            if (i[0] <= below) {
                left.add(new double[] {i[0], Math.min(i[1], below)});
            }
            if (i[1] >= above) {
                left.add(new double[] {Math.max(i[0], above), i[1]});
            }
        }
        return new Luminances(left);
    }

    Luminances and(Luminances other) {
        List<double[]> all = new ArrayList<>(intervals);
        all.addAll(other.intervals);
        return new Luminances(all);
    }

    /**
     * A contrast ratio that one keeps with these who takes, of a dark and a light colour, the one with the higher ratio: it is least where
     * both have the same.
     */
    double better(double dark, double light) {
        double least = 21;
        double even = Math.sqrt((dark + 0.05) * (light + 0.05)) - 0.05;
        for (double[] i : intervals) {
            for (double y : new double[] {i[0], i[1], Math.max(i[0], Math.min(i[1], even))}) {
                least = Math.min(least, Math.max(at(y).ratio(at(dark)), at(y).ratio(at(light))));
            }
        }
        return least;
    }

    static Luminances at(double luminance) {
        return of(luminance, luminance);
    }

    /** A contrast ratio that two colours keep whatever they are of these: no more than the least that is met, 1 to 21. */
    double ratio(Luminances other) {
        double least = 21;
        for (double[] a : intervals) {
            for (double[] b : other.intervals) {
                double ratio =
                        a[0] > b[1] ? (a[0] + 0.05) / (b[1] + 0.05) : b[0] > a[1] ? (b[0] + 0.05) / (a[1] + 0.05) : 1;
                least = Math.min(least, ratio);
            }
        }
        return least;
    }
}

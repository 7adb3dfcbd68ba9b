package org.calmpalette.core.picture;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.color.ColorSpace;

/**
 * The colours that lead in a picture: its pixels gathered around a few middles in OKLab, so that colours that look alike are one.
 * The same picture gives the same colours.
 */
public final class LeadingColors {
    private static final int GRID = 72;
    private static final int ROUNDS = 12;
    /** Middles nearer to each other than this distance in OKLab are one colour. */
    private static final double NEAR = 0.06;
    /** What fewer pixels have is a blend at an edge, or a detail. */
    private static final double LEAST = 0.02;

    private LeadingColors() {}

    /** @param share of the pixels that show something, 0 to 1 */
    public record Leading(Color color, double share) {}

    /** The most frequent first; none of a picture that shows nothing. @param most how many at most, 1 to 12 */
    public static List<Leading> of(Pixels picture, int most) {
        List<double[]> points = points(picture);
        if (points.isEmpty()) {
            return List.of();
        }
        List<double[]> middles = first(points, most);
        int[] belongs = new int[points.size()];
        for (int round = 0; round < ROUNDS; round++) {
            double[][] sums = new double[middles.size()][4];
            for (int i = 0; i < points.size(); i++) {
                belongs[i] = nearest(middles, points.get(i));
                double[] sum = sums[belongs[i]];
                for (int c = 0; c < 3; c++) {
                    sum[c] += points.get(i)[c];
                }
                sum[3]++;
            }
            for (int m = 0; m < sums.length; m++) {
                if (sums[m][3] > 0) {
                    middles.set(
                            m,
                            new double[] {sums[m][0] / sums[m][3], sums[m][1] / sums[m][3], sums[m][2] / sums[m][3]});
                }
            }
        }
        int[] counts = new int[middles.size()];
        for (int b : belongs) {
            counts[b]++;
        }
        List<Leading> all = new ArrayList<>();
        for (int m = 0; m < counts.length; m++) {
            if (counts[m] >= LEAST * points.size()) {
                double[] c = middles.get(m);
                all.add(new Leading(
                        new Color(ColorSpace.OKLAB, c[0], c[1], c[2], 1).toGamut(),
                        counts[m] / (double) points.size()));
            }
        }
        return all.stream()
                .sorted(Comparator.comparingDouble(Leading::share).reversed())
                .toList();
    }

    private static List<double[]> points(Pixels picture) {
        List<double[]> points = new ArrayList<>();
        double scale = Math.min(1, GRID / (double) Math.max(picture.width(), picture.height()));
        double step = 1 / scale;
        double[] c = new double[4];
        for (double y = step / 2; y < picture.height(); y += step) {
            for (double x = step / 2; x < picture.width(); x += step) {
                picture.at(x, y, scale, c);
                if (c[3] >= 0.5) {
                    Color lab = Color.rgb(Math.min(1, c[0] / c[3]), Math.min(1, c[1] / c[3]), Math.min(1, c[2] / c[3]))
                            .to(ColorSpace.OKLAB);
                    points.add(new double[] {lab.c0(), lab.c1(), lab.c2()});
                }
            }
        }
        return points;
    }

    /** The middle of all, then each time the pixel that is farthest from those there are, as long as it is another colour. */
    private static List<double[]> first(List<double[]> points, int most) {
        List<double[]> middles = new ArrayList<>(List.of(points.get(points.size() / 2)));
        while (middles.size() < most) {
            double[] far = points.stream()
                    .max(Comparator.comparingDouble(p -> distance(middles.get(nearest(middles, p)), p)))
                    .orElseThrow();
            if (distance(middles.get(nearest(middles, far)), far) < NEAR) {
                break;
            }
            middles.add(far);
        }
        return middles;
    }

    private static int nearest(List<double[]> middles, double[] point) {
        int best = 0;
        for (int m = 1; m < middles.size(); m++) {
            if (distance(middles.get(m), point) < distance(middles.get(best), point)) {
                best = m;
            }
        }
        return best;
    }

    private static double distance(double[] a, double[] b) {
        return Math.sqrt((a[0] - b[0]) * (a[0] - b[0]) + (a[1] - b[1]) * (a[1] - b[1]) + (a[2] - b[2]) * (a[2] - b[2]));
    }
}

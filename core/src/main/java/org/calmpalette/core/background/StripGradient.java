package org.calmpalette.core.background;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.picture.Pixels;

/**
 * A picture whose rows, or columns, are of one colour each, written as a CSS gradient: the strip that is laid out side by side behind
 * a header or at the edge of a page. The gradient has no size of its own (CSS Images 3, section 5), so the length that the strip had
 * has to be given to it as {@code background-size}.
 *
 * @param css such as {@code linear-gradient(#203850, #1f3347)}
 * @param size such as {@code 100% 40px}
 * @param error how far a pixel is from the picture at most, in levels of 255, premultiplied
 */
public record StripGradient(String css, String size, double error) {
    /** More colours than these are no gradient that a person would write. */
    private static final int MOST_STOPS = 8;
    /** Strips longer than this are pictures. */
    private static final int LONGEST = 2_000;
    /** Levels of 255 in which rows may differ within themselves, and the gradient from the rows. */
    private static final double NEAR = 1.5;
    /** What rounding to whole levels at both ends and in between may come to. */
    private static final double ROUNDED = 1.05;

    /** Where a colour stands, in px from the start. */
    private record Stop(double at, double[] color) {}

    /** Empty if it is no strip, or has too many colours. */
    public static Optional<StripGradient> of(Pixels picture) {
        for (boolean down : new boolean[] {true, false}) {
            int length = down ? picture.height() : picture.width();
            int across = down ? picture.width() : picture.height();
            if (length < 2 || length > LONGEST || across > LONGEST) {
                continue;
            }
            double[][] rows = rows(picture, down, length, across);
            if (rows != null) {
                return written(rows, down);
            }
        }
        return Optional.empty();
    }

    /** The colour of each row, premultiplied; null if some row has several. */
    private static double[][] rows(Pixels picture, boolean down, int length, int across) {
        double[][] rows = new double[length][4];
        double[] other = new double[4];
        for (int i = 0; i < length; i++) {
            picture.at(down ? 0.5 : i + 0.5, down ? i + 0.5 : 0.5, 1, rows[i]);
            for (int k = 1; k < across; k++) {
                picture.at(down ? k + 0.5 : i + 0.5, down ? i + 0.5 : k + 0.5, 1, other);
                if (apart(rows[i], other) > NEAR) {
                    return null;
                }
            }
        }
        return rows;
    }

    private static Optional<StripGradient> written(double[][] rows, boolean down) {
        List<Integer> ends = new ArrayList<>(List.of(0));
        while (ends.get(ends.size() - 1) < rows.length - 1) {
            int from = ends.get(ends.size() - 1);
            int to = from + 1;
            while (to + 1 < rows.length && isStraight(rows, from, to + 1)) {
                to++;
            }
            ends.add(to);
            if (ends.size() > MOST_STOPS) {
                return Optional.empty();
            }
        }
        // In whole pixels if that comes to the same; exactly, a colour stands in the middle of its pixel.
        List<Stop> whole = new ArrayList<>();
        List<Stop> exact = new ArrayList<>();
        for (int i : ends) {
            whole.add(new Stop(i == 0 ? 0 : i == rows.length - 1 ? rows.length : i, rows[i]));
            exact.add(new Stop(i + 0.5, rows[i]));
        }
        double rough = error(rows, whole);
        List<Stop> stops = rough <= NEAR ? whole : exact;
        StringBuilder css = new StringBuilder("linear-gradient(").append(down ? "" : "to right, ");
        for (int i = 0; i < stops.size(); i++) {
            Stop s = stops.get(i);
            boolean atEnd = stops == whole && (i == 0 || i == stops.size() - 1);
            css.append(i == 0 ? "" : ", ")
                    .append(color(s.color()))
                    .append(atEnd ? "" : String.format(Locale.ROOT, s.at() % 1 == 0 ? " %.0fpx" : " %.1fpx", s.at()));
        }
        String side = rows.length + "px";
        return Optional.of(new StripGradient(
                css.append(")").toString(),
                down ? "100% " + side : side + " 100%",
                Math.min(rough, error(rows, exact))));
    }

    private static boolean isStraight(double[][] rows, int from, int to) {
        for (int i = from + 1; i < to; i++) {
            if (apart(rows[i], between(rows[from], rows[to], (i - from) / (double) (to - from))) > ROUNDED) {
                return false;
            }
        }
        return true;
    }

    /** The farthest that a row is from what a gradient paints in its middle (CSS Images 3, section 3.4.2). */
    private static double error(double[][] rows, List<Stop> stops) {
        double worst = 0;
        for (int i = 0; i < rows.length; i++) {
            double at = i + 0.5;
            int next = 0;
            while (next < stops.size() && stops.get(next).at() < at) {
                next++;
            }
            double[] painted;
            if (next == 0 || next == stops.size()) {
                painted = stops.get(Math.min(next, stops.size() - 1)).color();
            } else {
                Stop a = stops.get(next - 1);
                Stop b = stops.get(next);
                painted = between(a.color(), b.color(), (at - a.at()) / (b.at() - a.at()));
            }
            worst = Math.max(worst, apart(rows[i], painted));
        }
        return worst;
    }

    private static double[] between(double[] a, double[] b, double share) {
        double[] c = new double[4];
        for (int k = 0; k < 4; k++) {
            c[k] = a[k] + (b[k] - a[k]) * share;
        }
        return c;
    }

    private static double apart(double[] a, double[] b) {
        double worst = 0;
        for (int k = 0; k < 4; k++) {
            worst = Math.max(worst, Math.abs(a[k] - b[k]) * 255);
        }
        return worst;
    }

    private static String color(double[] premultiplied) {
        double a = premultiplied[3];
        return a < 1e-6
                ? "transparent"
                : Color.rgb(
                                Math.min(1, premultiplied[0] / a),
                                Math.min(1, premultiplied[1] / a),
                                Math.min(1, premultiplied[2] / a))
                        .withAlpha(a > 1 - 1e-6 ? 1 : a)
                        .hex();
    }
}

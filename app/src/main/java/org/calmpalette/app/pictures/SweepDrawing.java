package org.calmpalette.app.pictures;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.Function;
import org.calmpalette.core.background.BoxGeometry.Rectangle;
import org.calmpalette.core.background.Sight;
import org.calmpalette.core.background.Sweep;
import tools.jackson.databind.json.JsonMapper;

/**
 * What every window width shows, drawn: widths from left to right, each window standing upright with its left edge at the top,
 * all centres in one line.
 *
 * @param page outline of all windows
 * @param picture where the picture is painted, as path data
 * @param column what lies over it
 * @param subject where the subject is, in stretches of one state each
 * @param points for scripts: width, then left and right end of picture, column and subject, then state and the share that is seen; between
 *     two points everything lies in straight lines
 */
public record SweepDrawing(
        String page, String picture, String column, List<Stretch> subject, List<Tick> ticks, String points) {
    static final double LEFT = 46;
    static final double WIDTH = 500;
    static final double MIDDLE = 92;
    private static final double HALF = 86;
    private static final double BY = 2 * HALF / Sweep.TO;
    private static final List<Integer> TICKS = List.of(320, 768, 1200, 1600, 2000, 2560);

    /** @param state in lower case, such as {@code under} */
    public record Stretch(String state, String path) {}

    /** A width on the axis. */
    public record Tick(int width, double x) {}

    /** A stretch of a window, or null. */
    private record Span(double from, double to) {
        static Span of(Rectangle r, int window) {
            double from = Math.max(0, r.x());
            double to = Math.min(window, r.x() + r.width());
            return r.height() > 0 && to > from ? new Span(from, to) : null;
        }
    }

    static SweepDrawing of(Sweep sweep) {
        List<Stretch> subject = new ArrayList<>();
        for (Sweep.Run<Sight.State> run : sweep.subject()) {
            if (run.what() != Sight.State.OFF) {
                subject.add(new Stretch(
                        run.what().name().toLowerCase(Locale.ROOT),
                        path(new Sweep(sweep.sights().subMap(run.from(), run.to() + 1)), s -> s.subject())));
            }
        }
        String outline = number(x(Sweep.FROM)) + "," + number(y(Sweep.FROM, 0)) + " " + number(x(Sweep.TO)) + ","
                + number(y(Sweep.TO, 0)) + " " + number(x(Sweep.TO)) + "," + number(y(Sweep.TO, Sweep.TO)) + " "
                + number(x(Sweep.FROM)) + "," + number(y(Sweep.FROM, Sweep.FROM));
        return new SweepDrawing(
                outline,
                path(sweep, s -> Optional.of(s.shown())),
                path(sweep, Sight::column),
                List.copyOf(subject),
                TICKS.stream().map(t -> new Tick(t, x(t))).toList(),
                points(sweep));
    }

    static double x(double width) {
        return LEFT + (width - Sweep.FROM) / (Sweep.TO - Sweep.FROM) * WIDTH;
    }

    private static double y(int window, double at) {
        return MIDDLE + (at - window / 2.0) * BY;
    }

    private static String number(double v) {
        return String.format(Locale.ROOT, "%.1f", v);
    }

    /** Areas between the upper and lower ends; corners in straight lines are left out. */
    private static String path(Sweep sweep, Function<Sight, Optional<Rectangle>> what) {
        StringBuilder all = new StringBuilder();
        List<double[]> now = new ArrayList<>();
        int last = -1;
        for (var e : sweep.sights().entrySet()) {
            int width = e.getKey();
            Span span = what.apply(e.getValue()).map(r -> Span.of(r, width)).orElse(null);
            if (span == null || last >= 0 && width != last + 1) {
                close(all, now);
            }
            if (span != null) {
                now.add(new double[] {x(width), y(width, span.from()), y(width, span.to())});
            }
            last = width;
        }
        close(all, now);
        return all.toString();
    }

    /** Adds the area between numbers 1 and 2 of the points, and forgets them. */
    static void close(StringBuilder all, List<double[]> points) {
        if (!points.isEmpty()) {
            if (points.size() == 1) {
                points.add(new double[] {points.get(0)[0] + 0.3, points.get(0)[1], points.get(0)[2]});
            }
            List<double[]> kept = straight(points, new int[] {1, 2});
            all.append('M');
            kept.forEach(p ->
                    all.append(number(p[0])).append(' ').append(number(p[1])).append('L'));
            for (int i = kept.size() - 1; i >= 0; i--) {
                all.append(number(kept.get(i)[0]))
                        .append(' ')
                        .append(number(kept.get(i)[2]))
                        .append(i > 0 ? "L" : "Z");
            }
            points.clear();
        }
    }

    /** The points without which a line through the others would be elsewhere. @param at the numbers that count; number 0 is where they are */
    private static List<double[]> straight(List<double[]> points, int[] at) {
        List<double[]> kept = new ArrayList<>();
        int from = 0;
        kept.add(points.get(0));
        while (from < points.size() - 1) {
            // The slopes that pass all points so far within a tenth of a unit; each further one narrows them.
            double[] low = new double[at.length];
            double[] high = new double[at.length];
            java.util.Arrays.fill(low, Double.NEGATIVE_INFINITY);
            java.util.Arrays.fill(high, Double.POSITIVE_INFINITY);
            double[] start = points.get(from);
            int end = from + 1;
            for (int i = from + 1; i < points.size(); i++) {
                double dx = points.get(i)[0] - start[0];
                boolean fits = true;
                for (int k = 0; k < at.length; k++) {
                    double slope = (points.get(i)[at[k]] - start[at[k]]) / dx;
                    fits &= slope >= low[k] && slope <= high[k];
                    low[k] = Math.max(low[k], slope - 0.1 / dx);
                    high[k] = Math.min(high[k], slope + 0.1 / dx);
                }
                if (!fits) {
                    break;
                }
                end = i;
            }
            kept.add(points.get(end));
            from = end;
        }
        return kept;
    }

    private static String points(Sweep sweep) {
        List<double[]> all = new ArrayList<>();
        List<double[]> kept = new ArrayList<>();
        double lastKind = -1;
        for (var e : sweep.sights().entrySet()) {
            int w = e.getKey();
            Sight s = e.getValue();
            Span p = Span.of(s.shown(), w);
            Span c = s.column().map(r -> Span.of(r, w)).orElse(null);
            Span b = s.subject().map(r -> Span.of(r, w)).orElse(null);
            int state = s.state().map(Enum::ordinal).orElse(-1);
            double kind = state + 10 * (p == null ? 0 : 1) + 20 * (c == null ? 0 : 1) + 40 * (b == null ? 0 : 1);
            if (kind != lastKind && !all.isEmpty()) {
                kept.addAll(straight(all, new int[] {1, 2, 3, 4, 5, 6}));
                all.clear();
            }
            lastKind = kind;
            all.add(new double[] {
                w,
                p == null ? -1 : p.from(),
                p == null ? -1 : p.to(),
                c == null ? -1 : c.from(),
                c == null ? -1 : c.to(),
                b == null ? -1 : b.from(),
                b == null ? -1 : b.to(),
                state,
                Math.round(s.open() * 100)
            });
        }
        if (!all.isEmpty()) {
            kept.addAll(straight(all, new int[] {1, 2, 3, 4, 5, 6}));
        }
        return JsonMapper.shared()
                .writeValueAsString(kept.stream()
                        .map(v -> {
                            double[] rounded = v.clone();
                            for (int i = 0; i < rounded.length; i++) {
                                rounded[i] = Math.round(rounded[i] * 10) / 10.0;
                            }
                            return rounded;
                        })
                        .toList());
    }
}

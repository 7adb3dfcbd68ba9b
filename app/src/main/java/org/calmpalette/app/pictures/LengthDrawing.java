package org.calmpalette.app.pictures;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.SortedMap;
import org.calmpalette.core.background.PageLengths;

/**
 * What pages of every length show, drawn: lengths from left to right, each page hanging down from the top.
 *
 * @param page outline of all pages
 * @param picture where the picture is, as path data
 * @param ticks lengths on the axis
 * @param pages pages of the theme, with where they stand on the axis
 * @param message what becomes of the picture, in words
 */
public record LengthDrawing(
        String page, String picture, List<SweepDrawing.Tick> ticks, List<Mark> pages, String message) {
    static final double LEFT = SweepDrawing.LEFT;
    static final double WIDTH = SweepDrawing.WIDTH;
    static final double TOP = 8;
    static final double HEIGHT = 120;
    /** More pages than these say nothing new. */
    private static final int MOST_MARKS = 8;

    /** A page of the theme. @param end where it ends in the drawing */
    public record Mark(String page, int length, double x, double end) {}

    /** @param pages lengths of the theme's own pages in that window, by path */
    static LengthDrawing of(PageLengths lengths, SortedMap<String, Integer> pages, int window, String beyond) {
        StringBuilder picture = new StringBuilder();
        List<double[]> points = new ArrayList<>();
        lengths.stretches().forEach((length, s) -> {
            if (s.to() > s.from()) {
                points.add(new double[] {x(length), y(s.from()), y(s.to())});
            } else {
                SweepDrawing.close(picture, points);
            }
        });
        SweepDrawing.close(picture, points);
        String outline = String.format(
                Locale.ROOT,
                "%.1f,%.1f %.1f,%.1f %.1f,%.1f %.1f,%.1f",
                x(PageLengths.FROM),
                y(0),
                x(PageLengths.TO),
                y(0),
                x(PageLengths.TO),
                y(PageLengths.TO),
                x(PageLengths.FROM),
                y(PageLengths.FROM));
        List<Mark> marks = pages.entrySet().stream()
                .sorted(java.util.Map.Entry.comparingByValue())
                .limit(MOST_MARKS)
                .map(e -> {
                    int shown = Math.max(PageLengths.FROM, Math.min(PageLengths.TO, e.getValue()));
                    return new Mark(e.getKey(), e.getValue(), x(shown), y(shown));
                })
                .toList();
        return new LengthDrawing(
                outline,
                picture.toString(),
                List.of(1000, 2000, 3000, 4000, 5000).stream()
                        .map(t -> new SweepDrawing.Tick(t, x(t)))
                        .toList(),
                marks,
                message(lengths, pages, window, beyond));
    }

    private static double x(double length) {
        return LEFT + (length - PageLengths.FROM) / (PageLengths.TO - PageLengths.FROM) * WIDTH;
    }

    private static double y(double at) {
        return TOP + at / PageLengths.TO * HEIGHT;
    }

    private static String message(PageLengths lengths, SortedMap<String, Integer> pages, int window, String beyond) {
        var longest = pages.entrySet().stream().max(java.util.Map.Entry.comparingByValue());
        String in = String.format(Locale.ROOT, "In a window of %d px ", window);
        if (lengths.grows()) {
            String grows = String.format(
                    Locale.ROOT,
                    "%sit grows with the page: %.2f times its size on one of 1,000 px, %.2f times on one of 4,000, where %.0f%% of its width is in view.",
                    in,
                    lengths.at(1000).scale(),
                    lengths.at(4000).scale(),
                    100 * lengths.at(4000).across());
            return grows
                    + longest.map(e -> String.format(
                                    Locale.ROOT,
                                    " On %s, %,d px long, it is %.2f times.",
                                    e.getKey(),
                                    e.getValue(),
                                    lengths.at(e.getValue()).scale()))
                            .orElse("");
        }
        int filled = lengths.filledUpTo();
        if (filled >= PageLengths.TO) {
            double down = lengths.at(4000).from();
            return in + "it reaches the end of every page"
                    + (down < 0.5
                            ? "."
                            : String.format(Locale.ROOT, "; on one of 4,000 px it starts %,.0f px down.", down));
        }
        String ends = filled == 0
                ? in + "it never reaches the end of the page"
                : String.format(Locale.ROOT, "%sit ends %,d px down; longer pages go on in %s", in, filled, beyond);
        return ends
                + longest.filter(e -> filled > 0)
                        .map(e -> e.getValue() > filled
                                ? String.format(
                                        Locale.ROOT, ", %s for another %,d px.", e.getKey(), e.getValue() - filled)
                                : String.format(Locale.ROOT, ". The longest page has %,d px.", e.getValue()))
                        .orElse(".");
    }
}

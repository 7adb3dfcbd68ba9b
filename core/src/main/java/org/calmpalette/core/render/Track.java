package org.calmpalette.core.render;

import java.util.List;
import java.util.NavigableMap;
import java.util.Optional;
import java.util.TreeMap;

/**
 * Numbers of a layout over all window widths: known at some widths, and in a straight line between two of them that have as many
 * numbers. Where the thing is not there, there are none.
 */
public final class Track {
    /** @param values null where the thing is not on the page at this width */
    public record Point(int width, double[] values) {}

    private final NavigableMap<Integer, double[]> points = new TreeMap<>();

    public Track(List<Point> points) {
        points.forEach(p -> this.points.put(p.width(), p.values() == null ? new double[0] : p.values()));
    }

    /** The numbers at a width; empty where the thing is not there, or narrower than the narrowest width that was measured. */
    public Optional<double[]> at(double width) {
        var below = points.floorEntry((int) Math.floor(width));
        if (below == null) {
            return Optional.empty();
        }
        double[] from = below.getValue();
        var above = points.higherEntry(below.getKey());
        if (from.length == 0) {
            return Optional.empty();
        }
        if (above == null || width == below.getKey() || above.getValue().length != from.length) {
            return Optional.of(from.clone());
        }
        double share = (width - below.getKey()) / (above.getKey() - below.getKey());
        double[] between = new double[from.length];
        for (int i = 0; i < from.length; i++) {
            between[i] = from[i] + (above.getValue()[i] - from[i]) * share;
        }
        return Optional.of(between);
    }

    /** In order of width. */
    public List<Point> points() {
        return points.entrySet().stream()
                .map(e -> new Point(e.getKey(), e.getValue().length == 0 ? null : e.getValue()))
                .toList();
    }
}

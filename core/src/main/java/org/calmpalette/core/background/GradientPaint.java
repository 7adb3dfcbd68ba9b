package org.calmpalette.core.background;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.color.ColorSpace;
import org.calmpalette.core.color.Interpolation;
import org.calmpalette.core.paint.ColorRange;
import org.calmpalette.core.paint.Paint.Veil;
import org.calmpalette.core.value.Image;
import org.calmpalette.core.value.Image.Extent;
import org.calmpalette.core.value.Image.Line;
import org.calmpalette.core.value.Lengths;

/**
 * The colours of a gradient in a tile of a given size: CSS Images 3, sections 3.1 to 3.5, and 4, section 3 for conic ones and for
 * spaces of interpolation.
 */
public final class GradientPaint {
    /** Colours that are worked out ahead, between two stops; finer than a byte tells apart over one stretch. */
    private static final int STEPS = 512;

    /** A stretch between two stops. @param from where it starts, as a share of the gradient line (or turn) */
    private record Stretch(double from, double to, double[][] colors) {
        /** With its colours from one place to another, and one more on both sides. */
        Veil among(Veil known, double first, double last) {
            Veil all = known;
            if (last < from || first > to) {
                return all;
            }
            int at = (int) Math.floor((first - from) / (to - from) * STEPS) - 1;
            int end = (int) Math.ceil((last - from) / (to - from) * STEPS) + 1;
            for (int i = Math.max(0, at); i <= Math.min(STEPS, end); i++) {
                all = all.and(veil(colors[i]));
            }
            return all;
        }
    }

    private final Image.Gradient gradient;
    private final double width;
    private final double height;
    private final List<Stretch> stretches = new ArrayList<>();
    private double[] before;
    private double[] after;
    private double start;
    private double end;
    // Of a linear one: its direction, and half of its length. Of the others: the centre, and the radii of an ellipse.
    private double dx;
    private double dy;
    private double length;
    private double cx;
    private double cy;
    private double rx;
    private double ry;

    /**
     * @param width of the tile in CSS px, positive
     * @param height of the tile in CSS px, positive
     */
    public GradientPaint(Image.Gradient gradient, double width, double height) {
        this.gradient = gradient;
        this.width = width;
        this.height = height;
        shape();
        stops();
    }

    private GradientPaint(GradientPaint other, double width, double height) {
        this.gradient = other.gradient;
        this.width = width;
        this.height = height;
        shape();
        stretches.addAll(other.stretches);
        before = other.before;
        after = other.after;
        start = other.start;
        end = other.end;
    }

    /** One that {@link #sized} can make others of; empty for a gradient with a stop at a length, whose colours follow the size of its tile. */
    public static Optional<GradientPaint> ofAnySize(Image.Gradient gradient, double width, double height) {
        return gradient.stops().stream().anyMatch(s -> s.at() != null && s.at().px() != 0)
                ? Optional.empty()
                : Optional.of(new GradientPaint(gradient, width, height));
    }

    /** The same gradient in a tile of another size, whose stops are shares of its line. */
    public GradientPaint sized(double otherWidth, double otherHeight) {
        return otherWidth == width && otherHeight == height ? this : new GradientPaint(this, otherWidth, otherHeight);
    }

    /** Between what the colours lie that it has within a rectangle of the tile. */
    public Veil between(double left, double top, double right, double bottom) {
        double[] ends = ends(left, top, right, bottom);
        boolean whole = gradient.repeating() && (end <= start || ends[1] - ends[0] >= end - start);
        Veil all = whole ? veil(after) : veil(at(ends[0])).and(veil(at(ends[1])));
        double from = ends[0];
        double to = ends[1];
        if (gradient.repeating() && !whole) {
            double back = Math.floor((from - start) / (end - start)) * (end - start);
            from -= back;
            to -= back;
        }
        for (Stretch s : stretches) {
            all = s.among(all, whole ? s.from() : from, whole ? s.to() : to);
            if (gradient.repeating() && to > end) {
                all = s.among(all, start, to - (end - start));
            }
        }
        return all;
    }

    /** Least and greatest place on the gradient line within a rectangle. */
    private double[] ends(double left, double top, double right, double bottom) {
        if (gradient.line() instanceof Line.Conic) {
            return new double[] {0, 1};
        }
        double[] corners = {position(left, top), position(right, top), position(left, bottom), position(right, bottom)};
        double least = Arrays.stream(corners).min().getAsDouble();
        if (gradient.line() instanceof Line.Radial) {
            least = position(Math.max(left, Math.min(right, cx)), Math.max(top, Math.min(bottom, cy)));
        }
        return new double[] {least, Arrays.stream(corners).max().getAsDouble()};
    }

    private static Veil veil(double[] premultiplied) {
        double a = premultiplied[3];
        if (a == 0) {
            // What is wholly clear has no colour; those beside it have.
            return new Veil(NOTHING, 0, 0);
        }
        double[] c = new double[3];
        for (int i = 0; i < 3; i++) {
            c[i] = Math.min(1, premultiplied[i] / a);
        }
        return new Veil(new ColorRange(c, c), a, a);
    }

    /** Holds no colour: whatever is added to it is all that it holds. */
    private static final ColorRange NOTHING = new ColorRange(new double[] {1, 1, 1}, new double[] {0, 0, 0});

    private void shape() {
        if (gradient.line() instanceof Line.Angle a) {
            linear(Math.toRadians(a.degrees()));
        } else if (gradient.line() instanceof Line.Corner c) {
            // Section 3.1.1: to a corner, so that the line through the other two corners has the colour of the middle.
            linear(c.x() == 0 || c.y() == 0 ? Math.atan2(c.x(), -c.y()) : Math.atan2(c.x() * height, -c.y() * width));
        } else if (gradient.line() instanceof Line.Radial r) {
            cx = place(r.x(), width);
            cy = place(r.y(), height);
            radii(r);
            length = rx;
        } else if (gradient.line() instanceof Line.Conic c) {
            cx = place(c.x(), width);
            cy = place(c.y(), height);
            length = 360;
        }
    }

    private void linear(double angle) {
        dx = Math.sin(angle);
        dy = -Math.cos(angle);
        length = Math.abs(width * dx) + Math.abs(height * dy);
    }

    private static double place(Lengths.Sum sum, double of) {
        return sum.px() + sum.percent() / 100 * of;
    }

    /** Section 3.2.2 and 3.2.3. */
    private void radii(Line.Radial r) {
        if (!r.radii().isEmpty()) {
            rx = Math.max(0, place(r.radii().get(0), width));
            ry = r.circle() ? rx : Math.max(0, place(r.radii().get(1), height));
        } else {
            double left = Math.abs(cx);
            double right = Math.abs(width - cx);
            double top = Math.abs(cy);
            double bottom = Math.abs(height - cy);
            boolean closest = r.extent() == Extent.CLOSEST_SIDE || r.extent() == Extent.CLOSEST_CORNER;
            boolean corner =
                    r.extent() == null || r.extent() == Extent.CLOSEST_CORNER || r.extent() == Extent.FARTHEST_CORNER;
            double x = closest ? Math.min(left, right) : Math.max(left, right);
            double y = closest ? Math.min(top, bottom) : Math.max(top, bottom);
            if (r.circle()) {
                rx = corner ? Math.hypot(x, y) : closest ? Math.min(x, y) : Math.max(x, y);
                ry = rx;
            } else {
                // Through the corner, with the ratio that the ellipse to the sides would have.
                double by = corner ? Math.sqrt(2) : 1;
                rx = x * by;
                ry = y * by;
            }
        }
        // Section 3.2.3: what has no extent is drawn as if it had hardly any.
        if (rx <= 0 && ry <= 0) {
            rx = 1e-6;
            ry = 1e-6;
        } else if (rx <= 0) {
            rx = 1e-6;
            ry = 1e6;
        } else if (ry <= 0) {
            ry = 1e-6;
        }
    }

    /** Section 3.4.3: places that are left out or run backwards are put right; hints become curves. */
    private void stops() {
        List<Image.Stop> stops = gradient.stops();
        double[] at = new double[stops.size()];
        for (int i = 0; i < at.length; i++) {
            Lengths.Sum given = stops.get(i).at();
            at[i] = given != null
                    ? (length > 0 ? given.px() / length : 0) + given.percent() / 100
                    : i == 0 ? 0 : i == at.length - 1 ? 1 : Double.NaN;
        }
        double most = at[0];
        for (int i = 0; i < at.length; i++) {
            if (!Double.isNaN(at[i])) {
                most = Math.max(most, at[i]);
                at[i] = most;
            }
        }
        for (int i = 1; i < at.length; i++) {
            if (Double.isNaN(at[i])) {
                int next = i;
                while (Double.isNaN(at[next])) {
                    next++;
                }
                double step = (at[next] - at[i - 1]) / (next - i + 1);
                for (int k = i; k < next; k++) {
                    at[k] = at[k - 1] + step;
                }
            }
        }
        Color last = null;
        double lastAt = 0;
        double hint = Double.NaN;
        for (int i = 0; i < at.length; i++) {
            Color color = stops.get(i).color();
            if (color == null) {
                hint = at[i];
                continue;
            }
            if (last == null) {
                before = paint(color);
                start = at[i];
            } else if (at[i] > lastAt) {
                stretches.add(stretch(last, color, lastAt, at[i], hint));
            }
            last = color;
            lastAt = at[i];
            hint = Double.NaN;
        }
        after = paint(last);
        end = lastAt;
    }

    private Stretch stretch(Color a, Color b, double from, double to, double hint) {
        double[][] colors = new double[STEPS + 1][];
        double h = Double.isNaN(hint) ? 0.5 : (hint - from) / (to - from);
        for (int i = 0; i <= STEPS; i++) {
            double share = i / (double) STEPS;
            double curved = h == 0.5 ? share : h <= 0 ? 1 : h >= 1 ? 0 : Math.pow(share, Math.log(0.5) / Math.log(h));
            colors[i] = paint(Interpolation.mix(a, b, curved, gradient.space(), gradient.arc()));
        }
        return new Stretch(from, to, colors);
    }

    private static double[] paint(Color color) {
        Color c = color.toGamut().to(ColorSpace.SRGB);
        double alpha = Double.isNaN(c.alpha()) ? 0 : c.alpha();
        return new double[] {known(c.c0()) * alpha, known(c.c1()) * alpha, known(c.c2()) * alpha, alpha};
    }

    private static double known(double component) {
        return Double.isNaN(component) ? 0 : Math.max(0, Math.min(1, component));
    }

    /**
     * The colour at a point of the tile.
     *
     * @param x in CSS px from the left edge of the tile
     * @param y in CSS px from its top edge
     * @param into red, green and blue, premultiplied, and alpha, each 0 to 1, in sRGB
     */
    public void at(double x, double y, double[] into) {
        System.arraycopy(at(position(x, y)), 0, into, 0, 4);
    }

    private double position(double x, double y) {
        if (gradient.line() instanceof Line.Radial) {
            return Math.hypot((x - cx) / rx, (y - cy) / ry);
        }
        if (gradient.line() instanceof Line.Conic c) {
            double degrees = Math.toDegrees(Math.atan2(x - cx, cy - y)) - c.from();
            return (degrees % 360 + 360) % 360 / 360;
        }
        return length == 0 ? 0 : ((x - width / 2) * dx + (y - height / 2) * dy) / length + 0.5;
    }

    private double[] at(double t) {
        double p = t;
        if (gradient.repeating()) {
            double span = end - start;
            if (span <= 0) {
                // Section 3.5: nothing to repeat; the average would be drawn, and with no stretch that is the last
                // colour.
                return after;
            }
            p = start + ((t - start) % span + span) % span;
        }
        if (p < start) {
            return before;
        }
        for (Stretch s : stretches) {
            if (p < s.to()) {
                if (p < s.from()) {
                    return s.colors()[0];
                }
                return s.colors()[(int) Math.round((p - s.from()) / (s.to() - s.from()) * STEPS)];
            }
        }
        return after;
    }
}

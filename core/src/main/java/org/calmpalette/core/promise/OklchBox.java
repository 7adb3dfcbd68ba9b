package org.calmpalette.core.promise;

import java.util.Comparator;
import java.util.List;
import java.util.PriorityQueue;
import java.util.function.Function;
import java.util.function.ToDoubleFunction;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.color.ColorSpace;
import org.calmpalette.core.color.OklabSteps;
import org.calmpalette.core.paint.ColorRange;
import org.calmpalette.core.setting.ColorKind;

/**
 * Colours between bounds in OKLCH (CSS Color 4, section 9.4), and between what their relative luminance lies (WCAG 2.2): by intervals of
 * each step from OKLCH over OKLab and LMS to linear sRGB, which is clipped as browsers clip what sRGB cannot show.
 *
 * @param lightness from and to, 0 to 1
 * @param chroma from and to, from 0 on
 * @param hue from and to in degrees, to not before from
 */
record OklchBox(double[] lightness, double[] chroma, double[] hue) {
    /** More than conversions to and fro make of a colour, in luminance. */
    static final double SLACK = 2e-4;

    /** The same in a channel as it is encoded: half a step of eight bits, by which a choice is rounded, and a little. */
    private static final double CHANNEL_SLACK = 0.6 / 255;

    /** Of red, green and blue: WCAG 2.2, relative luminance. */
    private static final double[] LUMINANCE = {0.2126, 0.7152, 0.0722};

    private static final double[][] LMS = {OklabSteps.lms(0), OklabSteps.lms(1), OklabSteps.lms(2)};
    private static final double[][] LINEAR = {
        OklabSteps.linearSrgb(0), OklabSteps.linearSrgb(1), OklabSteps.linearSrgb(2)
    };
    private static final int MOST_BOXES = 12_000;
    private static final double CLOSE = 0.001;
    private static final double[] ALL_HUES = {0, 360};
    /** As {@link ColorKind.Bounds}: grey has no hue, and what rounding makes of a colour is let pass. */
    private static final double GREY = 0.004;

    /**
     * The luminances of all colours that bounds let pass.
     *
     * @param bounds with a chroma that ends somewhere; else every luminance can be reached by colours that no screen shows
     */
    static Luminances luminances(ColorKind.Bounds bounds) {
        if (bounds == null || bounds.chroma() == null) {
            return Luminances.of(0, 1);
        }
        double[] ends = extremes(boxes(bounds), OklchBox::luminance);
        return Luminances.of(Math.max(0, ends[0] - SLACK), Math.min(1, ends[1] + SLACK));
    }

    /** The colours that bounds let pass, as sRGB shows them: each channel from its least to its greatest. */
    static ColorRange channels(ColorKind.Bounds bounds) {
        if (bounds == null || bounds.chroma() == null) {
            return ColorRange.ANY;
        }
        double[] low = new double[3];
        double[] high = new double[3];
        for (int i = 0; i < 3; i++) {
            int channel = i;
            double[] ends = extremes(boxes(bounds), b -> b.linear()[channel]);
            low[i] = encoded(ends[0]);
            high[i] = encoded(ends[1]);
        }
        return new ColorRange(low, high).wider(CHANNEL_SLACK);
    }

    /**
     * The colours that bounds let pass, each mixed with one and the same: a share of each of its channels and so much of the other's.
     *
     * @param space in which it is mixed, sRGB or OKLab
     * @param share of what is chosen, 0 to 1
     * @param rest what the other colour adds to each channel
     */
    static ColorRange mixed(ColorKind.Bounds bounds, ColorSpace space, double share, double[] rest) {
        if (bounds == null || bounds.chroma() == null) {
            return ColorRange.ANY;
        }
        double[] low = new double[3];
        double[] high = new double[3];
        for (int i = 0; i < 3; i++) {
            int channel = i;
            double[] ends = space == ColorSpace.OKLAB
                    ? extremes(boxes(bounds), b -> b.linear(share, rest)[channel])
                    : extremes(boxes(bounds), b -> b.linear(1, NOTHING)[channel]);
            boolean straight = space != ColorSpace.OKLAB;
            low[i] = clipped(straight ? share * signed(ends[0]) + rest[i] : signed(ends[0]));
            high[i] = clipped(straight ? share * signed(ends[1]) + rest[i] : signed(ends[1]));
        }
        return new ColorRange(low, high).wider(CHANNEL_SLACK);
    }

    private static final double[] NOTHING = {0, 0, 0};

    /** Encoded for sRGB, on both sides of 0 alike (CSS Color 4, section 10.2). */
    private static double signed(double linear) {
        return new Color(ColorSpace.SRGB_LINEAR, linear, linear, linear, 1)
                .to(ColorSpace.SRGB)
                .c0();
    }

    private static double clipped(double channel) {
        return Math.max(0, Math.min(1, channel));
    }

    private static double encoded(double linear) {
        return new Color(ColorSpace.SRGB_LINEAR, linear, linear, linear, 1)
                .toGamut()
                .c0();
    }

    /** @param bounds null for every colour that sRGB shows; without a chroma it ends where sRGB does, before 0.4 */
    static List<OklchBox> boxes(ColorKind.Bounds given) {
        ColorKind.Bounds bounds = given == null ? new ColorKind.Bounds(null, null, null) : given;
        double[] lightness = bounds.lightness() == null
                ? new double[] {0, 1}
                : new double[] {from(bounds.lightness()) / 100 - 0.0006, to(bounds.lightness()) / 100 + 0.0006};
        double[] chroma = bounds.chroma() == null
                ? new double[] {0, 0.4}
                : new double[] {Math.max(0, from(bounds.chroma()) - 0.0006), to(bounds.chroma()) + 0.0006};
        double[] hue = ALL_HUES;
        if (bounds.hue() != null) {
            double start = from(bounds.hue());
            double size = ((to(bounds.hue()) - start) % 360 + 360) % 360;
            boolean whole = size == 0 && from(bounds.hue()) != to(bounds.hue());
            hue = whole ? ALL_HUES : new double[] {start - 0.6, start + size + 0.6};
        }
        OklchBox box = new OklchBox(lightness, chroma, hue);
        return hue == ALL_HUES || chroma[0] > GREY
                ? List.of(box)
                : List.of(
                        box,
                        new OklchBox(lightness, new double[] {chroma[0], Math.min(chroma[1], GREY * 1.1)}, ALL_HUES));
    }

    /** Between the least and the greatest of a value over boxes, near to both. */
    private static double[] extremes(List<OklchBox> all, Function<OklchBox, double[]> value) {
        double high = extreme(all, b -> value.apply(b)[1], b -> b.reached(value)[1]);
        double low = -extreme(all, b -> -value.apply(b)[0], b -> -b.reached(value)[0]);
        return new double[] {low, high};
    }

    private static double from(ColorKind.Span span) {
        return span.from().doubleValue();
    }

    private static double to(ColorKind.Span span) {
        return span.to().doubleValue();
    }

    /** An upper bound of a value over boxes, near the greatest: the box that promises most is halved first. */
    private static double extreme(
            List<OklchBox> boxes, ToDoubleFunction<OklchBox> bound, ToDoubleFunction<OklchBox> reached) {
        PriorityQueue<Bounded> open =
                new PriorityQueue<>(Comparator.comparingDouble(Bounded::bound).reversed());
        boxes.forEach(b -> open.add(new Bounded(b, bound.applyAsDouble(b))));
        double best = boxes.stream().mapToDouble(reached).max().orElseThrow();
        for (int i = 0; i < MOST_BOXES; i++) {
            Bounded first = open.poll();
            if (first.bound() <= best + CLOSE) {
                return first.bound();
            }
            for (OklchBox half : first.box().halves()) {
                best = Math.max(best, reached.applyAsDouble(half));
                open.add(new Bounded(half, bound.applyAsDouble(half)));
            }
        }
        return open.peek().bound();
    }

    /** A box with what it promises. */
    private record Bounded(OklchBox box, double bound) {}

    List<OklchBox> halves() {
        double l = lightness[1] - lightness[0];
        double c = chroma[1] - chroma[0];
        double h = Math.toRadians(hue[1] - hue[0]) * chroma[1];
        if (h >= l && h >= c) {
            double m = (hue[0] + hue[1]) / 2;
            return List.of(
                    new OklchBox(lightness, chroma, new double[] {hue[0], m}),
                    new OklchBox(lightness, chroma, new double[] {m, hue[1]}));
        }
        if (c >= l) {
            double m = (chroma[0] + chroma[1]) / 2;
            return List.of(
                    new OklchBox(lightness, new double[] {chroma[0], m}, hue),
                    new OklchBox(lightness, new double[] {m, chroma[1]}, hue));
        }
        double m = (lightness[0] + lightness[1]) / 2;
        return List.of(
                new OklchBox(new double[] {lightness[0], m}, chroma, hue),
                new OklchBox(new double[] {m, lightness[1]}, chroma, hue));
    }

    /** Between what a value lies at some colours of the box: extremes are mostly at the ends of lightness and chroma. */
    private double[] reached(Function<OklchBox, double[]> value) {
        double low = Double.POSITIVE_INFINITY;
        double high = Double.NEGATIVE_INFINITY;
        double[] h = {(hue[0] + hue[1]) / 2, (hue[0] + hue[1]) / 2};
        for (double l : lightness) {
            for (double c : chroma) {
                double at = value.apply(new OklchBox(new double[] {l, l}, new double[] {c, c}, h))[0];
                low = Math.min(low, at);
                high = Math.max(high, at);
            }
        }
        return new double[] {low, high};
    }

    /** Between what the luminance of every colour in the box lies. */
    double[] luminance() {
        double[][] rgb = linear();
        return mixed(LUMINANCE, rgb[0], rgb[1], rgb[2]);
    }

    /** Between what red, green and blue of every colour in the box lie, linear in light and clipped. */
    private double[][] linear() {
        double[][] rgb = linear(1, NOTHING);
        for (int row = 0; row < 3; row++) {
            rgb[row] = clipped(rgb[row]);
        }
        return rgb;
    }

    /** Between what lightness, a and b lie. */
    double[][] oklab() {
        return new double[][] {
            lightness.clone(), times(chroma, cosine(hue[0], hue[1])), times(chroma, cosine(hue[0] - 90, hue[1] - 90))
        };
    }

    /** As sRGB shows it. */
    Color middle() {
        return new Color(
                        ColorSpace.OKLCH,
                        (lightness[0] + lightness[1]) / 2,
                        (chroma[0] + chroma[1]) / 2,
                        (hue[0] + hue[1]) / 2,
                        1)
                .toGamut();
    }

    /** The longest side, as {@link #halves} takes it. */
    double size() {
        return Math.max(
                Math.max(lightness[1] - lightness[0], chroma[1] - chroma[0]),
                Math.toRadians(hue[1] - hue[0]) * chroma[1]);
    }

    /** The same before it is clipped, of a share of each channel of OKLab and so much more. */
    private double[][] linear(double share, double[] rest) {
        double[][] lms = lms(share, rest);
        double[][] rgb = new double[3][];
        for (int row = 0; row < 3; row++) {
            rgb[row] = mixed(LINEAR[row], lms[0], lms[1], lms[2]);
        }
        return rgb;
    }

    private double[][] lms(double share, double[] rest) {
        double[][] lab = oklab();
        for (int i = 0; i < 3; i++) {
            lab[i] = moved(lab[i], share, rest[i]);
        }
        double[][] lms = new double[3][];
        for (int row = 0; row < 3; row++) {
            lms[row] = cubed(mixed(LMS[row], lab[0], lab[1], lab[2]));
        }
        return lms;
    }

    /** Between what the answers of the cones lie (CSS Color 4, section 10.8, before the cube root). */
    double[][] lms() {
        return lms(1, NOTHING);
    }

    /** Whether sRGB shows none of it. */
    boolean isOutside() {
        for (double[] channel : linear(1, NOTHING)) {
            if (channel[1] < -1e-6 || channel[0] > 1 + 1e-6) {
                return true;
            }
        }
        return false;
    }

    private static double[] moved(double[] a, double share, double by) {
        return new double[] {a[0] * share + by, a[1] * share + by};
    }

    /** Of an interval of degrees. */
    static double[] cosine(double from, double to) {
        if (to - from >= 360) {
            return new double[] {-1, 1};
        }
        double a = Math.cos(Math.toRadians(from));
        double b = Math.cos(Math.toRadians(to));
        boolean top = Math.floor(to / 360) > Math.floor(from / 360) || from % 360 == 0;
        boolean bottom = Math.floor((to - 180) / 360) > Math.floor((from - 180) / 360) || (from - 180) % 360 == 0;
        return new double[] {bottom ? -1 : Math.min(a, b), top ? 1 : Math.max(a, b)};
    }

    /** @param positive an interval from 0 on */
    private static double[] times(double[] positive, double[] by) {
        return new double[] {
            by[0] * (by[0] < 0 ? positive[1] : positive[0]), by[1] * (by[1] < 0 ? positive[0] : positive[1])
        };
    }

    private static double[] mixed(double[] shares, double[] a, double[] b, double[] c) {
        return new double[] {
            least(shares[0], a) + least(shares[1], b) + least(shares[2], c),
            most(shares[0], a) + most(shares[1], b) + most(shares[2], c)
        };
    }

    private static double least(double x, double[] a) {
        return Math.min(x * a[0], x * a[1]);
    }

    private static double most(double x, double[] a) {
        return Math.max(x * a[0], x * a[1]);
    }

    private static double[] cubed(double[] a) {
        return new double[] {a[0] * a[0] * a[0], a[1] * a[1] * a[1]};
    }

    private static double[] clipped(double[] a) {
        return new double[] {Math.max(0, Math.min(1, a[0])), Math.max(0, Math.min(1, a[1]))};
    }
}

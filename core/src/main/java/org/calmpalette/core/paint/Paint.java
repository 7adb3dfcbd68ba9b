package org.calmpalette.core.paint;

import java.util.List;
import org.calmpalette.core.color.Color;

/** What is painted over a backdrop, for colours that are known or lie in a range. */
public sealed interface Paint {
    /**
     * What is seen where all of this has been painted.
     *
     * @param letters what lies where {@link Letters} stand; null for nothing
     */
    ColorRange over(ColorRange backdrop, Veil letters);

    /** The place of the letters, which are asked with and without. */
    record Letters() implements Paint {
        @Override
        public ColorRange over(ColorRange backdrop, Veil letters) {
            return letters == null ? backdrop : letters.over(backdrop, null);
        }
    }

    /**
     * An even colour, or anything whose pixels are known to lie in a range.
     *
     * @param thinnest least alpha, 0 to 1
     * @param densest greatest alpha
     */
    record Veil(ColorRange colors, double thinnest, double densest) implements Paint {
        public static final Veil ANYTHING = new Veil(ColorRange.ANY, 0, 1);

        public static Veil of(Color color) {
            double alpha = color.toGamut().alpha();
            return new Veil(ColorRange.of(color), alpha, alpha);
        }

        /** The least one that holds both. */
        public Veil and(Veil other) {
            return new Veil(
                    colors.and(other.colors), Math.min(thinnest, other.thinnest), Math.max(densest, other.densest));
        }

        public boolean isOpaque() {
            return thinnest >= 1;
        }

        @Override
        public ColorRange over(ColorRange backdrop, Veil letters) {
            return mixed(backdrop, colors, thinnest, densest);
        }
    }

    /**
     * Painted together, then laid over what is behind with an opacity (Compositing 1, section 3): a share of what it makes of the backdrop
     * and the rest of the backdrop itself, since source-over of a faded group comes to that.
     *
     * @param all the uppermost first
     * @param from least opacity, 0 to 1
     * @param to greatest opacity
     */
    record Group(List<Paint> all, double from, double to) implements Paint {
        public Group {
            all = List.copyOf(all);
        }

        @Override
        public ColorRange over(ColorRange backdrop, Veil letters) {
            ColorRange now = backdrop;
            for (int i = all.size() - 1; i >= 0; i--) {
                now = all.get(i).over(now, letters);
            }
            return from == 1 && to == 1 ? now : mixed(backdrop, now, from, to);
        }
    }

    /** One of several, and nobody knows which: what any of them makes. */
    record Either(List<Paint> ways) implements Paint {
        public Either {
            ways = List.copyOf(ways);
        }

        @Override
        public ColorRange over(ColorRange backdrop, Veil letters) {
            return ways.stream()
                    .map(w -> w.over(backdrop, letters))
                    .reduce(ColorRange::and)
                    .orElse(backdrop);
        }
    }

    /** Between what the ratio of the letters and their ground lies; both over the canvas. */
    record Seen(ColorRange letters, ColorRange ground) {
        /** A contrast ratio (WCAG 2.2) that is kept; the ratio itself where both are one colour. */
        public double leastRatio() {
            return letters.leastRatio(ground);
        }

        /** A contrast ratio that is never exceeded. */
        public double greatestRatio() {
            return letters.greatestRatio(ground);
        }
    }

    /** @param canvas opaque, below all */
    static Seen seen(Paint all, Veil letters, ColorRange canvas) {
        return new Seen(all.over(canvas, letters), all.over(canvas, null));
    }

    /** A share of one and the rest of the other: for each share the least of it comes of the least of both. */
    private static ColorRange mixed(ColorRange below, ColorRange over, double from, double to) {
        double[] low = new double[3];
        double[] high = new double[3];
        for (int i = 0; i < 3; i++) {
            low[i] = Double.POSITIVE_INFINITY;
            high[i] = Double.NEGATIVE_INFINITY;
            for (double share : from == to ? new double[] {from} : new double[] {from, to}) {
                low[i] = Math.min(low[i], over.low()[i] * share + below.low()[i] * (1 - share));
                high[i] = Math.max(high[i], over.high()[i] * share + below.high()[i] * (1 - share));
            }
        }
        return new ColorRange(low, high);
    }
}

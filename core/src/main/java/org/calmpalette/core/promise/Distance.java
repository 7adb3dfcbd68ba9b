package org.calmpalette.core.promise;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.PriorityQueue;
import java.util.function.Function;
import org.calmpalette.core.Budget;
import org.calmpalette.core.cascade.ColorExpression;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.color.ColorVision;
import org.calmpalette.core.color.Contrast;
import org.calmpalette.core.setting.Band;
import org.calmpalette.core.setting.ColorKey;
import org.calmpalette.core.setting.ColorKind;
import org.calmpalette.core.setting.Given;

/**
 * Decides whether two colours keep a distance in OKLab for every {@link ColorVision}, whatever is chosen of them. Lists are gone through; of
 * colours between bounds the boxes of both are halved, that pair first which may come nearest, until none comes too near or a pair of
 * colours is found that does. What lets through is seen on white.
 */
final class Distance extends Proof.Deciding {
    private static final List<ColorVision> VISIONS = List.of(ColorVision.values());
    private static final int MOST_PAIRS = 12_000;
    /** What the matrices, of six digits, make of a grey. */
    private static final double ALIKE = 1e-5;
    /** More than arithmetic makes of it. */
    private static final double SLACK = 1e-6;

    private final ColorExpression one;
    private final ColorExpression other;
    private final Map<Color, Patch> known = new HashMap<>();
    /** The nearest colours that were met while boxes were halved, with what they are of. */
    private Proof.Try nearest;

    Distance(Proof proof, ColorExpression one, ColorExpression other, double needed, Band band, Proof.Look look) {
        proof.super(one, Ply.Group.of(List.of(new Ply.Letters(), new Ply.Plain(other)), 1), needed, band, look);
        this.one = one;
        this.other = other;
    }

    /** The vision for which two colours are the nearest; the usual one where that makes no difference, as of greys. */
    static ColorVision worst(Color a, Color b) {
        double nearest = between(a, b) + ALIKE;
        return VISIONS.stream()
                .filter(v -> v.distance(onWhite(a), onWhite(b)) <= nearest)
                .findFirst()
                .orElseThrow();
    }

    static double between(Color a, Color b) {
        return VISIONS.stream()
                .mapToDouble(v -> v.distance(onWhite(a), onWhite(b)))
                .min()
                .orElseThrow();
    }

    private static Color onWhite(Color c) {
        return Contrast.over(c, Color.WHITE);
    }

    @Override
    double ratio(Map<String, Color> chosen) {
        return Pair.least(known(color(one, chosen)), known(color(other, chosen)));
    }

    /** Colours are met again and again, and each takes longer to see than to compare. */
    private Patch known(Color c) {
        return known.computeIfAbsent(c, x -> Patch.of(x, true));
    }

    @Override
    Proof.Outcome bounded() {
        Proof.Outcome o = super.bounded();
        return o.state() == Answer.State.UNPROVEN && nearest != null
                ? looked(new ArrayList<>(List.of(nearest))).orElse(o)
                : o;
    }

    @Override
    double least() {
        Domain a = domain(one);
        Domain b = domain(other);
        List<Patch> first = patches(a);
        List<Patch> second = patches(b);
        if (first == null || second == null) {
            return 0;
        }
        PriorityQueue<Pair> open = new PriorityQueue<>(Comparator.comparingDouble(Pair::least));
        first.forEach(x -> second.forEach(y -> open.add(new Pair(x, y))));
        for (int i = 0; i < MOST_PAIRS; i++) {
            Budget.step();
            Pair nearestPair = open.poll();
            if (nearestPair == null) {
                return 0;
            }
            if (nearestPair.least() >= needed() || nearestPair.isOne()) {
                return nearestPair.least();
            }
            note(a, b, nearestPair);
            open.addAll(nearestPair.halves());
        }
        return open.isEmpty() ? 0 : open.peek().least();
    }

    /** The middles of a pair are colours as they may be chosen: in eight bits. */
    private void note(Domain a, Domain b, Pair pair) {
        Color x = pair.one().middle();
        Color y = pair.other().middle();
        double far = between(x, y);
        if (far < needed() && (nearest == null || far < nearest.ratio())) {
            Map<String, Color> chosen = new LinkedHashMap<>();
            if (pair.one().isChosen()) {
                chosen.put(a.key(), x);
            }
            if (pair.other().isChosen()) {
                chosen.put(b.key(), y);
            }
            if (mayBe(chosen)) {
                nearest = new Proof.Try(chosen, far);
            }
        }
    }

    /** All that a setting may be; null where that follows another one. */
    private static List<Patch> patches(Domain d) {
        if (!(d.given() instanceof Given.Fixed made)) {
            return null;
        }
        List<Patch> all = new ArrayList<>();
        if (!d.settled()) {
            all.add(Patch.of(Domain.color(made), false));
        }
        if (d.isFinite()) {
            d.chosen().forEach(c -> all.add(Patch.of(c, true)));
        } else {
            // What lets through may come to any colour on white.
            ColorKind.Bounds bounds = d.kind().opaque() ? d.kind().bounds() : null;
            OklchBox.boxes(bounds).forEach(b -> all.add(Patch.of(b)));
        }
        return all;
    }

    /**
     * A colour, or a box of them.
     *
     * @param box null for one colour
     * @param seen between what lightness, a and b lie, for each vision
     */
    private record Patch(Color color, OklchBox box, boolean isChosen, double[][][] seen) {
        static Patch of(Color c, boolean chosen) {
            return new Patch(c, null, chosen, seen(v -> {
                double[] at = v.oklab(onWhite(c));
                return new double[][] {{at[0], at[0]}, {at[1], at[1]}, {at[2], at[2]}};
            }));
        }

        static Patch of(OklchBox box) {
            double[][] lms = box.lms();
            return new Patch(null, box, true, seen(v -> v == ColorVision.USUAL ? box.oklab() : v.oklab(lms)));
        }

        private static double[][][] seen(Function<ColorVision, double[][]> by) {
            return VISIONS.stream().map(by).toArray(double[][][]::new);
        }

        Color middle() {
            return box == null ? color : ColorKind.parse(ColorKey.of(box.middle()));
        }

        List<Patch> halves() {
            // What can be chosen is one of the colours that sRGB shows.
            return box.halves().stream()
                    .filter(b -> !b.isOutside())
                    .map(Patch::of)
                    .toList();
        }
    }

    private record Pair(Patch one, Patch other, double least) {
        Pair(Patch one, Patch other) {
            this(one, other, least(one, other));
        }

        private static double least(Patch a, Patch b) {
            double nearest = Double.POSITIVE_INFINITY;
            for (int v = 0; v < a.seen.length; v++) {
                double sum = 0;
                for (int i = 0; i < 3; i++) {
                    double gap =
                            Math.max(0, Math.max(a.seen[v][i][0] - b.seen[v][i][1], b.seen[v][i][0] - a.seen[v][i][1]));
                    sum += gap * gap;
                }
                nearest = Math.min(nearest, Math.sqrt(sum));
            }
            return Math.max(0, nearest - SLACK);
        }

        boolean isOne() {
            return one.box == null && other.box == null;
        }

        List<Pair> halves() {
            boolean first = one.box != null && (other.box == null || one.box.size() >= other.box.size());
            return first
                    ? one.halves().stream().map(h -> new Pair(h, other)).toList()
                    : other.halves().stream().map(h -> new Pair(one, h)).toList();
        }
    }
}

package org.calmpalette.core.paint;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.calmpalette.core.Generated;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.color.Contrast;
import org.calmpalette.core.paint.Paint.Either;
import org.calmpalette.core.paint.Paint.Group;
import org.calmpalette.core.paint.Paint.Letters;
import org.calmpalette.core.paint.Paint.Veil;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

class PaintTest {
    /** Compositing 1, section 5.1, by hand: half red over blue is half of both; a group at half an opacity of white over black is grey. */
    @Test
    void knownColorsComeToOneColor() {
        Paint half = Veil.of(Color.rgb(1, 0, 0).withAlpha(0.5));
        assertThat(half.over(ColorRange.of(Color.rgb(0, 0, 1)), null).color()).isEqualTo(Color.rgb(0.5, 0, 0.5));
        Paint group = new Group(List.of(new Letters(), Veil.of(Color.WHITE)), 0.5, 0.5);
        Paint.Seen seen = Paint.seen(group, Veil.of(Color.BLACK), ColorRange.of(Color.BLACK));
        assertThat(seen.ground().color()).isEqualTo(Color.rgb(0.5, 0.5, 0.5));
        assertThat(seen.letters().color()).isEqualTo(Color.BLACK);
        // (0.2140 + 0.05) / 0.05, with the luminance of half a channel by WCAG 2.2.
        assertThat(seen.leastRatio()).isCloseTo(5.281, within(0.001));
    }

    @Test
    void ratiosOfRangesThatMeetAreOne() {
        ColorRange dark = new ColorRange(new double[] {0, 0, 0}, new double[] {0.4, 0.4, 0.4});
        ColorRange light = new ColorRange(new double[] {0.3, 0.3, 0.3}, new double[] {1, 1, 1});
        assertThat(dark.leastRatio(light)).isEqualTo(1);
        assertThat(light.leastRatio(dark)).isEqualTo(1);
        double black = Contrast.ratio(Color.rgb(0.4, 0.4, 0.4), Color.WHITE);
        assertThat(dark.leastRatio(ColorRange.WHITE)).isCloseTo(black, within(1e-9));
        assertThat(ColorRange.WHITE.leastRatio(dark)).isCloseTo(black, within(1e-9));
    }

    /** A tree of paint over ranges, and one with a colour of each: what the second comes to lies in what the first does. */
    private record Pair(Paint ranges, Paint one) {}

    private static double between(Random random, double from, double to) {
        // The ends are where it goes wrong.
        return switch (random.nextInt(4)) {
            case 0 -> from;
            case 1 -> to;
            default -> from + random.nextDouble() * (to - from);
        };
    }

    private static Pair pair(Random random, int depth) {
        int what = random.nextInt(depth == 0 ? 1 : 4);
        if (what <= 1) {
            double[] low = new double[3];
            double[] high = new double[3];
            double[] point = new double[3];
            for (int i = 0; i < 3; i++) {
                low[i] = random.nextDouble();
                high[i] = random.nextBoolean() ? low[i] : low[i] + random.nextDouble() * (1 - low[i]);
                point[i] = between(random, low[i], high[i]);
            }
            double thin = random.nextDouble();
            double dense = random.nextBoolean() ? thin : thin + random.nextDouble() * (1 - thin);
            Color one = Color.rgb(point[0], point[1], point[2]).withAlpha(between(random, thin, dense));
            return new Pair(new Veil(new ColorRange(low, high), thin, dense), Veil.of(one));
        }
        List<Paint> ranges = new ArrayList<>();
        List<Paint> ones = new ArrayList<>();
        for (int i = 0; i < 1 + random.nextInt(3); i++) {
            Pair p = pair(random, depth - 1);
            ranges.add(p.ranges());
            ones.add(p.one());
        }
        if (what == 2) {
            return new Pair(new Either(ranges), ones.get(random.nextInt(ones.size())));
        }
        double from = random.nextDouble();
        double to = from + random.nextDouble() * (1 - from);
        double opacity = between(random, from, to);
        return new Pair(new Group(ranges, from, to), new Group(ones, opacity, opacity));
    }

    @Tag("generated")
    @Test
    void whatIsPaintedWithOneOfEachLiesInTheRange() {
        Random random = Generated.random(81);
        for (int n = 0; n < Generated.times(40_000); n++) {
            Pair p = pair(random, 3);
            ColorRange all = p.ranges().over(ColorRange.WHITE, null);
            ColorRange one = p.one().over(ColorRange.WHITE, null);
            for (int c = 0; c < 3; c++) {
                assertThat(one.low()[c]).isEqualTo(one.high()[c]);
                assertThat(one.low()[c]).isBetween(all.low()[c] - 1e-12, all.high()[c] + 1e-12);
            }
        }
    }
}

package org.calmpalette.core.setting;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.color.ColorSpace;

/**
 * By which steps a stylesheet preprocessor computed one colour from another, told from the two colours alone.
 *
 * <p>What is computed lies on a line (mixed with white or black in sRGB, moved in lightness in HSL) at a round share, to half of one of
 * 255 levels; a second step makes a plane of it, on which only round shares count. Of several ways that fit the one with the rounder
 * numbers and the fewer steps is taken. A grey is computed from no colour: on the way to white and black every colour passes greys.
 *
 * @param steps none where both are the same colour
 * @param fit distance in OKLab between what the steps give and what is written, 0 for the same
 */
public record Derivation(List<ColorStep> steps, double fit) {
    /** How the lightness was moved, as families agree on one way. */
    private enum Manner {
        MIXED,
        BY,
        TOWARDS,
        TO
    }

    /** OKLCH chroma under which a colour counts as grey. */
    private static final double GREY = 0.012;
    /** The same where nothing was rounded, so that less is hidden. */
    private static final double EXACT_GREY = 0.004;
    /** What rounding to whole levels of 255 may put a channel off. */
    private static final double LEVEL = 0.53 / 255;
    /** Where a stylesheet writes fractions, nothing was rounded. */
    private static final double EXACT = 0.01 / 255;
    /** Steps of a share in percent, the roundest first, and how odd each is. */
    private static final double[] ROUND = {10, 5, 2.5, 1, 0.5};

    private static final double[] ODD = {0, 0.5, 1.5, 2.5, 3.5};
    private static final double SECOND_STEP = 3;
    /** Two steps and odd numbers: that fits by chance. */
    private static final double MOST_ODD = 6;

    /** Near to white and black the colours of all hues come together: whole levels tell them apart only where the share is round. */
    private static final double PALE = 0.022;

    private static final double MOST_ODD_PALE = 1;
    /** A colour this near, in OKLab, is the same one, mistyped. */
    private static final double MISTYPED = 0.005;

    /** So many clear relatives make a family, whose pale ones are then believed. */
    private static final int KNOWN = 3;

    /** @param oddNumbers the same without what speaks for a manner */
    private record Candidate(List<ColorStep> steps, Manner manner, double odd, double oddNumbers) {}

    /** Looks for what was computed from one colour; a family agrees on its manner. */
    public static final class Finder {
        private final Color from;
        private final boolean grey;
        private final Map<Manner, Integer> votes = new EnumMap<>(Manner.class);

        public Finder(Color from) {
            this.from = from.to(ColorSpace.SRGB);
            this.grey = chroma(from) < GREY;
        }

        /** Hears a colour of the sheet, so that what is clear helps with what is not. */
        public void hear(Color written) {
            if (written.alpha() == 0) {
                return;
            }
            List<Candidate> all = candidates(written);
            if (!all.isEmpty()
                    && (all.size() == 1 || all.get(1).odd() - all.get(0).odd() >= 1)) {
                votes.merge(all.get(0).manner(), 1, Integer::sum);
            }
        }

        /** Empty for what has nothing to do with the colour. */
        public Optional<Derivation> of(Color written) {
            if (written.alpha() == 0) {
                // What shows nothing has no colour.
                return Optional.empty();
            }
            Color opaque = written.to(ColorSpace.SRGB).withAlpha(1);
            List<ColorStep> steps = new ArrayList<>();
            if (!isSame(from, opaque, LEVEL)) {
                Candidate best = candidates(written).stream()
                        .min(Comparator.comparingDouble(c -> c.odd() - agreed(c.manner())))
                        .orElse(null);
                if (best == null) {
                    return Optional.empty();
                }
                steps.addAll(best.steps());
            }
            if (written.alpha() < 1) {
                steps.add(new ColorStep.Opacity(percent(written.alpha() * 100, 4)));
            }
            Color made = new Given.Computed(steps).of(from);
            return Optional.of(new Derivation(List.copyOf(steps), made.distance(opaque)));
        }

        private double agreed(Manner manner) {
            int most = votes.values().stream().mapToInt(v -> v).max().orElse(0);
            return most > 0 && votes.getOrDefault(manner, 0) == most ? 0.9 : 0;
        }

        /** All ways that fit, the roundest first. */
        private List<Candidate> candidates(Color written) {
            Color target = written.to(ColorSpace.SRGB).withAlpha(1);
            if (from.distance(target) < MISTYPED
                    || grey
                    || chroma(target) < (isExact(target) ? EXACT_GREY : GREY)
                    || isSame(from, target, LEVEL)) {
                return List.of();
            }
            if (!isOfOneHue(from, target)) {
                return List.of();
            }
            List<Candidate> all = new ArrayList<>(oneStep(from, target, 0, List.of()));
            if (all.isEmpty()) {
                for (boolean white : new boolean[] {true, false}) {
                    for (int share = 10; share <= 90; share += 10) {
                        ColorStep first = new ColorStep.Mixed(white, BigDecimal.valueOf(share));
                        Color middle = first.of(from);
                        all.addAll(oneStep(middle, target, SECOND_STEP, List.of(first)));
                        // Preprocessors of the time rounded in between.
                        Color rounded = Color.parse(middle.hex()).orElse(middle).to(ColorSpace.SRGB);
                        if (!isExact(target)) {
                            all.addAll(oneStep(rounded, target, SECOND_STEP, List.of(first)));
                        }
                    }
                }
                all.removeIf(c -> c.odd() > MOST_ODD
                        || c.steps().get(1) instanceof ColorStep.Mixed second
                                && second.white()
                                        == ((ColorStep.Mixed) c.steps().get(0)).white()
                        || c.steps().get(1) instanceof ColorStep.Lightness l && l.way() != ColorStep.Way.BY);
            }
            boolean known = votes.values().stream().mapToInt(v -> v).sum() >= KNOWN;
            if (!known && !isExact(target) && chroma(target) < PALE) {
                all.removeIf(c -> c.oddNumbers() > MOST_ODD_PALE);
            }
            all.sort(Comparator.comparingDouble(Candidate::odd));
            return all;
        }

        private static List<Candidate> oneStep(Color from, Color target, double odd, List<ColorStep> before) {
            List<Candidate> found = new ArrayList<>();
            for (boolean white : new boolean[] {true, false}) {
                rounded(mixedShare(from, target, white), from, target, n -> new ColorStep.Mixed(white, n))
                        .ifPresent(r -> found.add(candidate(before, r, Manner.MIXED, odd)));
            }
            Color a = from.to(ColorSpace.HSL);
            Color b = target.to(ColorSpace.HSL);
            double by = b.c2() - a.c2();
            rounded(by, from, target, n -> new ColorStep.Lightness(ColorStep.Way.BY, n))
                    .ifPresent(r ->
                            found.add(candidate(before, r, Manner.BY, odd + 0.2 + Math.max(0, Math.abs(by) - 30) / 5)));
            double towards = by > 0 ? by / (100 - a.c2()) * 100 : by / a.c2() * 100;
            rounded(towards, from, target, n -> new ColorStep.Lightness(ColorStep.Way.TOWARDS, n))
                    .ifPresent(r -> found.add(candidate(before, r, Manner.TOWARDS, odd + 0.4)));
            // Lightnesses that are set are very light grounds, as a rule.
            rounded(b.c2(), from, target, n -> new ColorStep.Lightness(ColorStep.Way.TO, n))
                    .ifPresent(r -> found.add(candidate(before, r, Manner.TO, odd + (b.c2() >= 85 ? -1.5 : 1.5))));
            return found;
        }

        private static Candidate candidate(List<ColorStep> before, Rounded r, Manner manner, double odd) {
            List<ColorStep> steps = new ArrayList<>(before);
            steps.add(r.step());
            return new Candidate(List.copyOf(steps), manner, odd + r.odd(), Math.max(r.odd(), odd + r.odd()));
        }
    }

    private record Rounded(ColorStep step, double odd) {}

    /** The roundest number near to one that still gives the colour. */
    private static Optional<Rounded> rounded(
            double near, Color from, Color target, java.util.function.Function<BigDecimal, ColorStep> step) {
        if (Double.isNaN(near) || Math.abs(near) > 100) {
            return Optional.empty();
        }
        double off = isExact(target) ? EXACT : LEVEL;
        for (int i = 0; i < ROUND.length; i++) {
            BigDecimal n = percent(Math.round(near / ROUND[i]) * ROUND[i], 1);
            if (n.signum() != 0 && n.abs().compareTo(BigDecimal.valueOf(100)) <= 0) {
                ColorStep tried = step.apply(n);
                if (isSame(tried.of(from), target, off)) {
                    return Optional.of(new Rounded(tried, ODD[i]));
                }
            }
        }
        return Optional.empty();
    }

    /** Percent of white or black in a mixture, by least squares over the channels. */
    private static double mixedShare(Color from, Color target, boolean white) {
        double end = white ? 1 : 0;
        double over = 0;
        double under = 0;
        double[] a = {from.c0(), from.c1(), from.c2()};
        double[] b = {target.c0(), target.c1(), target.c2()};
        for (int i = 0; i < 3; i++) {
            over += (b[i] - a[i]) * (end - a[i]);
            under += (end - a[i]) * (end - a[i]);
        }
        double share = under == 0 ? Double.NaN : over / under * 100;
        return share < 0 ? Double.NaN : share;
    }

    private static boolean isSame(Color a, Color b, double off) {
        Color x = a.to(ColorSpace.SRGB);
        Color y = b.to(ColorSpace.SRGB);
        return Math.abs(x.c0() - y.c0()) <= off && Math.abs(x.c1() - y.c1()) <= off && Math.abs(x.c2() - y.c2()) <= off;
    }

    /** Every step keeps the hue in HSL, but for what rounding does to it: 60 degrees are the range of the channels. */
    private static boolean isOfOneHue(Color from, Color target) {
        double turn = Math.abs(
                from.to(ColorSpace.HSL).c0() - target.to(ColorSpace.HSL).c0());
        double off = 60 * 2.5 / 255 * (1 / range(from) + 1 / range(target));
        return Math.min(turn, 360 - turn) <= off;
    }

    private static double range(Color c) {
        return Math.max(c.c0(), Math.max(c.c1(), c.c2())) - Math.min(c.c0(), Math.min(c.c1(), c.c2()));
    }

    /** Whether its channels are no whole levels of 255. */
    private static boolean isExact(Color c) {
        Color rgb = c.to(ColorSpace.SRGB);
        return isBetween(rgb.c0()) || isBetween(rgb.c1()) || isBetween(rgb.c2());
    }

    private static boolean isBetween(double channel) {
        double level = channel * 255;
        return Math.abs(level - Math.round(level)) > 0.02;
    }

    private static double chroma(Color c) {
        double chroma = c.to(ColorSpace.OKLCH).c1();
        return Double.isNaN(chroma) ? 0 : chroma;
    }

    private static BigDecimal percent(double n, int digits) {
        return BigDecimal.valueOf(n).setScale(digits, RoundingMode.HALF_UP).stripTrailingZeros();
    }

    /** The same as something that a setting can do. */
    public Given.How how() {
        if (steps.isEmpty()) {
            return new Given.Same();
        }
        return steps.size() == 1 && steps.get(0) instanceof ColorStep.Opacity o
                ? new Given.Translucent(o.percent())
                : new Given.Computed(steps);
    }

    /** In a few words: {@code same}, {@code 80% white, opacity 50%}. */
    public String inWords() {
        return steps.isEmpty() ? "same" : new Given.Computed(steps).text();
    }
}

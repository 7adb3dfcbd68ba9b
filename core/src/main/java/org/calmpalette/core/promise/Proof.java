package org.calmpalette.core.promise;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.Function;
import org.calmpalette.core.Budget;
import org.calmpalette.core.cascade.ColorExpression;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.color.Contrast;
import org.calmpalette.core.setting.Band;
import org.calmpalette.core.setting.Chosen;
import org.calmpalette.core.setting.ColorKey;
import org.calmpalette.core.setting.ColorKind;
import org.calmpalette.core.setting.Effective;
import org.calmpalette.core.setting.Given;
import org.calmpalette.core.setting.Kind;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.theme.Theme;

/**
 * Decides whether letters keep a contrast ratio with what is behind them, for every allowed choice of the settings that both hold. Finite
 * lists are gone through; of colours between bounds the luminances that they can have are enclosed ({@link OklchBox}); contrasts that
 * settings demand of each other count as far as they are enforced, which is when a value is chosen and not when it is a default. What is
 * said to be broken has been looked at with the whole cascade.
 */
final class Proof {
    private static final int MOST_COMBINATIONS = 100_000;
    private static final int MOST_TRIES = 20_000;
    private static final int MOST_LOOKED_AT = 12;
    /** Of those that would break it, among which the worst is taken. */
    private static final int ENOUGH = 300;

    /** @param worst as in {@link Answer} */
    record Outcome(Answer.State state, double worst, Optional<Map<String, Value>> broken, String why) {
        static Outcome unproven(String why) {
            return new Outcome(Answer.State.UNPROVEN, 0, Optional.empty(), why);
        }

        static Outcome kept(double worst) {
            return new Outcome(Answer.State.KEPT, worst, Optional.empty(), "");
        }
    }

    /** What a setting may be in a band. @param finite all of it; null for colours between bounds */
    private record Domain(Setting setting, ColorKind kind, Color made, List<Color> finite) {}

    /** A way to break it that has to be looked at. */
    private record Try(Map<Domain, Color> colors, double ratio) {}

    private final Theme theme;

    Proof(Theme theme) {
        this.theme = theme;
    }

    /** Whether all that may be chosen of a setting, and all that it is without a choice, hides what is behind it. */
    static boolean isOpaque(Setting s, ColorKind kind) {
        List<Given> all = new ArrayList<>(s.bands().values());
        all.add(s.given());
        boolean chosen = kind.opaque()
                || !kind.swatches().isEmpty()
                        && kind.swatches().stream()
                                .allMatch(c -> ColorKind.parse(c).isOpaque());
        return chosen
                && all.stream()
                        .allMatch(g -> g instanceof Given.Fixed f
                                && f.value() instanceof Value.Text t
                                && ColorKind.parse(t.text()).isOpaque());
    }

    /** @param look the contrast that the whole cascade has with choices; empty if it cannot tell */
    Outcome decide(
            ColorExpression letters,
            List<ColorExpression> grounds,
            double needed,
            Band band,
            Function<Map<String, Chosen>, Optional<Double>> look) {
        Map<String, Domain> domains = new LinkedHashMap<>();
        List<ColorExpression> all = new ArrayList<>(grounds);
        all.add(0, letters);
        for (ColorExpression e : all) {
            if (e instanceof ColorExpression.Unread u) {
                return Outcome.unproven("a colour follows a choice: " + u.why());
            }
            if (e instanceof ColorExpression.Chosen c) {
                Setting s = theme.palette().properties().get(c.property());
                if (!domains.containsKey(c.property())) {
                    Optional<Domain> domain = domain(s, band);
                    if (domain.isEmpty()) {
                        return Outcome.unproven("“" + s.label() + "” follows another setting");
                    }
                    domains.put(c.property(), domain.get());
                }
            }
        }
        List<Domain> variables = List.copyOf(domains.values());
        Function<Map<Domain, Color>, Double> ratio = colors -> {
            List<Color> layers = new ArrayList<>();
            grounds.forEach(g -> layers.add(color(g, domains, colors)));
            // The canvas is white where nothing paints it: common practice of browsers in a light scheme.
            layers.add(Color.WHITE);
            return Contrast.ratioOver(color(letters, domains, colors), layers);
        };
        long combinations = 1;
        for (Domain d : variables) {
            // Each list is shorter than a million, and more than so many are not gone through.
            combinations = d.finite() == null
                    ? Long.MAX_VALUE / 1_000_000
                    : Math.min(Long.MAX_VALUE / 1_000_000, combinations)
                            * (combinations >= Long.MAX_VALUE / 1_000_000
                                    ? 1
                                    : d.finite().size());
        }
        return combinations <= MOST_COMBINATIONS
                ? finite(variables, needed, band, ratio, look)
                : bounded(letters, grounds, domains, needed, band, ratio, look);
    }

    private static Color color(ColorExpression e, Map<String, Domain> domains, Map<Domain, Color> colors) {
        return e instanceof ColorExpression.Chosen c
                ? colors.get(domains.get(c.property()))
                : ((ColorExpression.Fixed) e).color();
    }

    /** Empty where its default is worked out from another setting. */
    private Optional<Domain> domain(Setting s, Band band) {
        ColorKind kind = (ColorKind) s.kind();
        if (!(s.givenIn(band) instanceof Given.Fixed f)) {
            return Optional.empty();
        }
        Color made = ColorKind.parse(((Value.Text) f.value()).text());
        boolean fixed = s.shown() != null && s.shown().isNever() || s.bands().containsKey(band.key()) && !s.perBand();
        Set<Color> all = new LinkedHashSet<>(List.of(made));
        if (!fixed) {
            kind.swatches().forEach(c -> all.add(ColorKind.parse(c)));
        }
        return Optional.of(new Domain(s, kind, made, fixed || !kind.swatches().isEmpty() ? List.copyOf(all) : null));
    }

    private Outcome finite(
            List<Domain> variables,
            double needed,
            Band band,
            Function<Map<Domain, Color>, Double> ratio,
            Function<Map<String, Chosen>, Optional<Double>> look) {
        List<Try> broken = new ArrayList<>();
        double[] worst = {21};
        each(variables, d -> d.finite(), MOST_COMBINATIONS + 1, colors -> {
            if (mayBe(colors)) {
                double r = ratio.apply(colors);
                worst[0] = Math.min(worst[0], r);
                if (r < needed) {
                    broken.add(new Try(Map.copyOf(colors), r));
                }
            }
        });
        return broken.isEmpty()
                ? Outcome.kept(worst[0])
                : looked(broken, needed, band, look)
                        .orElseGet(() -> Outcome.unproven(String.format(
                                Locale.ROOT,
                                "%d combinations would break it, and none of those that were looked at is allowed by itself",
                                broken.size())));
    }

    /** Whether no limit of a value, among those that are chosen and not as made, speaks against a combination. */
    private static boolean mayBe(Map<Domain, Color> colors) {
        Kind.Around around = new Effective.MediaOnly(org.calmpalette.core.setting.Media.NONE) {
            @Override
            public Optional<Value> value(String key) {
                return colors.entrySet().stream()
                        .filter(e -> e.getKey().setting().key().equals(key))
                        .findFirst()
                        .map(e -> Value.of(ColorKey.of(e.getValue())));
            }
        };
        return colors.entrySet().stream()
                .allMatch(e -> e.getValue().equals(e.getKey().made())
                        || e.getKey()
                                .kind()
                                .refusal(Value.of(ColorKey.of(e.getValue())), around)
                                .isEmpty());
    }

    private interface Visitor {
        void at(Map<Domain, Color> colors);
    }

    private static void each(List<Domain> variables, Function<Domain, List<Color>> values, long most, Visitor visitor) {
        int[] at = new int[variables.size()];
        List<List<Color>> lists = variables.stream().map(values).toList();
        for (long n = 0; n < most; n++) {
            Budget.step();
            Map<Domain, Color> colors = new LinkedHashMap<>();
            for (int i = 0; i < at.length; i++) {
                colors.put(variables.get(i), lists.get(i).get(at[i]));
            }
            visitor.at(colors);
            int i = 0;
            while (i < at.length && ++at[i] == lists.get(i).size()) {
                at[i++] = 0;
            }
            if (i == at.length) {
                return;
            }
        }
    }

    /** The worst of what would break it that the theme allows and the cascade confirms. */
    private Optional<Outcome> looked(
            List<Try> broken, double needed, Band band, Function<Map<String, Chosen>, Optional<Double>> look) {
        broken.sort(Comparator.comparingDouble(Try::ratio));
        for (Try t : broken.subList(0, Math.min(MOST_LOOKED_AT, broken.size()))) {
            Map<String, Chosen> chosen = new LinkedHashMap<>();
            Map<String, Value> values = new TreeMap<>();
            t.colors().forEach((d, color) -> {
                Value v = Value.of(ColorKey.of(color));
                if (!color.equals(d.made())) {
                    values.put(d.setting().key(), v);
                    chosen.put(
                            d.setting().key(),
                            d.setting().bands().containsKey(band.key())
                                    ? new Chosen(null, Map.of(band.key(), v))
                                    : Chosen.of(v));
                }
            });
            Effective effective = Effective.of(theme.palette(), chosen, theme.media());
            Optional<Double> seen =
                    effective.leftOut().isEmpty() ? look.apply(chosen).filter(r -> r < needed) : Optional.empty();
            if (seen.isPresent()) {
                return Optional.of(new Outcome(Answer.State.BROKEN, seen.get(), Optional.of(values), ""));
            }
        }
        return Optional.empty();
    }

    private Outcome bounded(
            ColorExpression letters,
            List<ColorExpression> grounds,
            Map<String, Domain> domains,
            double needed,
            Band band,
            Function<Map<Domain, Color>, Double> ratio,
            Function<Map<String, Chosen>, Optional<Double>> look) {
        List<Domain> variables = List.copyOf(domains.values());
        ColorExpression ground = grounds.isEmpty() ? new ColorExpression.Fixed(Color.WHITE) : grounds.get(0);
        Domain front = letters instanceof ColorExpression.Chosen c ? domains.get(c.property()) : null;
        Domain back = ground instanceof ColorExpression.Chosen c ? domains.get(c.property()) : null;
        boolean plain = isPlain(letters, front) && isPlain(ground, back) && front != back;
        if (plain) {
            double least = least(letters, front, ground, back, needed);
            if (least >= needed) {
                return Outcome.kept(least);
            }
        }
        List<Try> broken = new ArrayList<>();
        each(variables, Proof::samples, MOST_TRIES, colors -> {
            double r = broken.size() < ENOUGH ? ratio.apply(colors) : needed;
            if (r < needed && mayBe(colors)) {
                broken.add(new Try(Map.copyOf(colors), r));
            }
        });
        return looked(broken, needed, band, look)
                .orElseGet(() -> Outcome.unproven(
                        plain
                                ? "colours between these bounds are not told apart closely enough"
                                : "a colour that may let through lies between bounds"));
    }

    private static boolean isPlain(ColorExpression e, Domain d) {
        return d == null ? ((ColorExpression.Fixed) e).color().isOpaque() : isOpaque(d.setting(), d.kind());
    }

    /** A ratio that is kept: chosen colours among each other, and each with the others as they are made. */
    private static double least(
            ColorExpression letters, Domain front, ColorExpression ground, Domain back, double needed) {
        // What a setting demands of the other is enforced when it is chosen, so that only what is made is left to look
        // at.
        boolean frontAsks = front != null && back != null && demands(front, back, needed);
        boolean backAsks = front != null && back != null && demands(back, front, needed);
        Luminances a = front == null
                ? at(((ColorExpression.Fixed) letters).color())
                : frontAsks ? at(front.made()) : chosen(front).and(luminance(front.made()));
        Luminances b = back == null
                ? at(((ColorExpression.Fixed) ground).color())
                : backAsks ? at(back.made()) : chosen(back).and(luminance(back.made()));
        double least = a.ratio(b);
        return frontAsks || backAsks ? Math.min(least, demanded(front, back, needed)) : least;
    }

    private static double luminance(Color c) {
        return Contrast.relativeLuminance(c);
    }

    private static Luminances at(Color c) {
        return Luminances.of(luminance(c), luminance(c));
    }

    private static boolean demands(Domain one, Domain other, double needed) {
        return one.kind().contrasts().stream()
                .anyMatch(n ->
                        n.with().equals(other.setting().key()) && n.atLeast().doubleValue() >= needed);
    }

    private static double demanded(Domain one, Domain other, double needed) {
        double least = 21;
        for (Domain d : List.of(one, other)) {
            Domain against = d == one ? other : one;
            for (ColorKind.Needed n : d.kind().contrasts()) {
                if (n.with().equals(against.setting().key()) && n.atLeast().doubleValue() >= needed) {
                    least = Math.min(least, n.atLeast().doubleValue());
                }
            }
        }
        return least;
    }

    /** Of what may be chosen. */
    private static Luminances chosen(Domain d) {
        if (d.finite() != null) {
            List<double[]> all = new ArrayList<>();
            d.finite().forEach(c -> all.add(new double[] {luminance(c), luminance(c)}));
            return new Luminances(all);
        }
        Luminances all = OklchBox.luminances(d.kind().bounds());
        for (ColorKind.Needed n : d.kind().contrasts()) {
            Optional<Color> fixed = Color.parse(n.with()).filter(Color::isOpaque);
            if (fixed.isPresent()) {
                all = all.keeping(n.atLeast().doubleValue(), luminance(fixed.get()), OklchBox.SLACK);
            }
        }
        return all;
    }

    /** Colours to try: as made, greys, the corners of what screens show, and those at the bounds. */
    private static List<Color> samples(Domain d) {
        if (d.finite() != null) {
            return d.finite();
        }
        Set<Color> all = new LinkedHashSet<>(List.of(d.made()));
        for (int i = 0; i <= 16; i++) {
            all.add(Color.rgb(i / 16.0, i / 16.0, i / 16.0));
        }
        for (int i = 0; i < 27; i++) {
            all.add(Color.rgb(i % 3 / 2.0, i / 3 % 3 / 2.0, i / 9 / 2.0));
        }
        if (!d.kind().opaque()) {
            all.add(Color.rgb(1, 1, 1).withAlpha(0));
            all.add(Color.rgb(0, 0, 0).withAlpha(0.5));
        }
        ColorKind.Bounds b = d.kind().bounds();
        if (b != null) {
            double[] l = ends(b.lightness(), 0, 100);
            double[] c = ends(b.chroma(), 0, 0.4);
            double[] h = ends(b.hue(), 0, 360);
            double turn = b.hue() == null ? 360 : ((h[1] - h[0]) % 360 + 360) % 360;
            for (double light : new double[] {l[0], (l[0] + l[1]) / 2, l[1]}) {
                for (double chroma : new double[] {c[0], (c[0] + c[1]) / 2, c[1]}) {
                    for (int i = 0; i <= 12; i++) {
                        Color.parse(String.format(
                                        Locale.ROOT,
                                        "oklch(%.4f %.4f %.3f)",
                                        light / 100,
                                        chroma,
                                        h[0] + turn * i / 12))
                                .ifPresent(x -> all.add(ColorKind.parse(ColorKey.of(x))));
                    }
                }
            }
        }
        return List.copyOf(all);
    }

    private static double[] ends(ColorKind.Span span, double from, double to) {
        return span == null ? new double[] {from, to} : new double[] {number(span.from()), number(span.to())};
    }

    private static double number(BigDecimal n) {
        return n.doubleValue();
    }
}

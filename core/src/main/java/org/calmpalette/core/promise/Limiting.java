package org.calmpalette.core.promise;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.function.Function;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.Budget;
import org.calmpalette.core.cascade.ColorExpression;
import org.calmpalette.core.change.Change;
import org.calmpalette.core.change.PaletteChange;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.color.ColorSpace;
import org.calmpalette.core.setting.ColorKey;
import org.calmpalette.core.setting.ColorKind;
import org.calmpalette.core.setting.ColorKind.Bounds;
import org.calmpalette.core.setting.ColorKind.Needed;
import org.calmpalette.core.setting.ColorKind.Span;
import org.calmpalette.core.setting.Given;
import org.calmpalette.core.setting.Palette;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.theme.Theme;

/** Limits of colour settings with which texts keep their contrast. Each was tried with all of the texts before it is offered. */
final class Limiting {
    /** More than any colour of sRGB has (CSS Color 4, 9.4: about 0.32). */
    private static final BigDecimal ALL_CHROMA = new BigDecimal("0.4");

    private static final int MOST_DEMANDS = 3;

    private final Theme theme;
    private final List<Asked> asked;
    private final Predicate<Theme> keeps;

    Limiting(Theme theme, List<Asked> asked) {
        this.theme = theme;
        this.asked = asked;
        this.keeps = limited -> {
            Proof p = new Proof(limited);
            return asked.stream().allMatch(a -> p.keeps(a.letters(), a.under(), a.needed(), a.band()));
        };
    }

    /** @param keeps whether what is promised is kept in the theme with other limits */
    Limiting(Theme theme, Predicate<Theme> keeps) {
        this.theme = theme;
        this.asked = List.of();
        this.keeps = keeps;
    }

    /** A change of settings; empty if a default, a scheme or another setting speaks against it. */
    static Optional<Mend> offer(Theme theme, String words, String takes, List<Setting> wanted) {
        try {
            Theme now = theme;
            for (Setting s : wanted) {
                now = PaletteChange.edit(now, s, now.palette().place(s.place()).orElseThrow())
                        .applied(now);
            }
            PaletteChange.check(theme, now.palette());
            return Optional.of(new Mend(words, takes, Change.of(words).withPalette(theme, now.palette())));
        } catch (BadInputException refused) {
            return Optional.empty();
        }
    }

    Optional<Readable.Retrial> with(Asked one, List<Setting> changed) {
        return with(changed).map(other -> new Readable.Retrial(other, one));
    }

    private Optional<Theme> with(List<Setting> changed) {
        Budget.longStep();
        Palette palette = theme.palette();
        for (Setting s : changed) {
            palette = palette.replacing(s, palette.place(s.place()).orElseThrow());
        }
        try {
            return Optional.of(Change.of("Tried").withPalette(theme, palette).applied(theme));
        } catch (BadInputException refused) {
            return Optional.empty();
        }
    }

    /** Whether all texts are kept if settings are so. */
    boolean isKeptWith(Setting... changed) {
        return isKeptWith(List.of(changed));
    }

    private boolean isKeptWith(List<Setting> changed) {
        return with(changed).filter(keeps).isPresent();
    }

    /** What the letters and what lies right under them follow, where an owner may choose it. */
    List<Setting> owners(Asked one) {
        return Stream.of(one.letters(), ground(one))
                .filter(Objects::nonNull)
                .flatMap(e -> e.properties().stream())
                .map(p -> theme.palette().properties().get(p))
                .filter(s -> s != null && s.kind() instanceof ColorKind)
                .distinct()
                .filter(s -> s.shown() == null || !s.shown().isNever())
                .toList();
    }

    private static ColorExpression ground(Asked one) {
        List<Ply> below = Ply.under(one.under());
        // The canvas is white where nothing paints it.
        return below == null
                ? null
                : below.isEmpty()
                        ? new ColorExpression.Fixed(Color.WHITE)
                        : below.get(0) instanceof Ply.Plain p ? p.color() : null;
    }

    private Optional<Setting> setting(ColorExpression e) {
        return e instanceof ColorExpression.Chosen c
                ? Optional.ofNullable(theme.palette().properties().get(c.property()))
                        .filter(s -> s.kind() instanceof ColorKind)
                : Optional.empty();
    }

    /** A contrast that one setting has to keep. @param with the key of another, or a colour */
    private record Demand(Setting of, String with, BigDecimal least) {}

    /**
     * Contrasts that are demanded take the fewest choices away: only those that cannot be read.
     *
     * @param of the settings of which they may be demanded: each alone is tried, then both sides of each text
     */
    Optional<Mend> demand(List<Setting> of) {
        List<List<Demand>> ways = new ArrayList<>();
        of.forEach(s -> ways.add(demands(List.of(s), false)));
        ways.add(demands(of, true));
        for (boolean opaque : new boolean[] {false, true}) {
            for (List<Demand> way : ways) {
                List<Setting> wanted = way.isEmpty() ? List.of() : settings(way, opaque);
                if (!wanted.isEmpty() && isKeptWith(wanted)) {
                    Optional<Mend> mend = offer(
                            theme,
                            said(way) + (opaque ? ", and no colours that let through" : ""),
                            "Owners cannot choose what has less" + (opaque ? ", or shows what is behind it." : "."),
                            wanted);
                    if (mend.isPresent()) {
                        return mend;
                    }
                }
            }
        }
        return Optional.empty();
    }

    /** @param both whether the other side of each text is asked for the same */
    private List<Demand> demands(List<Setting> of, boolean both) {
        Map<List<String>, Demand> all = new LinkedHashMap<>();
        for (Asked a : asked) {
            Optional<Setting> letters = setting(a.letters());
            Optional<Setting> ground = setting(ground(a));
            if (letters.isPresent() && letters.equals(ground)) {
                return List.of();
            }
            demand(all, of, both, letters, ground, ground(a), a);
            demand(all, of, both, ground, letters, a.letters(), a);
        }
        boolean many = all.values().stream()
                .collect(Collectors.groupingBy(d -> d.of().key(), Collectors.counting()))
                .values()
                .stream()
                .anyMatch(n -> n > MOST_DEMANDS);
        return many ? List.of() : List.copyOf(all.values());
    }

    private static void demand(
            Map<List<String>, Demand> all,
            List<Setting> of,
            boolean both,
            Optional<Setting> one,
            Optional<Setting> other,
            ColorExpression beside,
            Asked a) {
        String with = other.map(Setting::key)
                .orElse(
                        beside instanceof ColorExpression.Fixed f && f.color().isOpaque()
                                ? ColorKey.of(f.color())
                                : "");
        if (one.isPresent() && !with.isEmpty() && (of.contains(one.get()) || both && other.isPresent())) {
            BigDecimal least = BigDecimal.valueOf(a.needed()).stripTrailingZeros();
            all.merge(
                    List.of(one.get().key(), with),
                    new Demand(one.get(), with, least),
                    (x, y) -> x.least().compareTo(y.least()) >= 0 ? x : y);
        }
    }

    /** @param opaque whether both sides are to let nothing through; then empty if they do so already */
    private List<Setting> settings(List<Demand> demands, boolean opaque) {
        Map<String, Setting> all = new LinkedHashMap<>();
        boolean changes = false;
        for (Demand d : demands) {
            Setting s = all.getOrDefault(d.of().key(), d.of());
            all.put(s.key(), s.withKind(demanding((ColorKind) s.kind(), d.with(), d.least())));
        }
        if (!opaque) {
            return List.copyOf(all.values());
        }
        Stream.concat(
                        demands.stream().map(Demand::of),
                        demands.stream().flatMap(d -> theme.palette().setting(d.with()).stream()))
                .forEach(s -> all.putIfAbsent(s.key(), s));
        for (Setting s : List.copyOf(all.values())) {
            ColorKind kind = (ColorKind) s.kind();
            changes |= !kind.opaque();
            all.put(s.key(), s.withKind(kind.withOpaque(true)));
        }
        return changes ? List.copyOf(all.values()) : List.of();
    }

    private static ColorKind demanding(ColorKind kind, String with, BigDecimal least) {
        List<Needed> all = new ArrayList<>(kind.contrasts());
        all.removeIf(n -> n.with().equals(with) && n.atLeast().compareTo(least) <= 0);
        all.add(new Needed(with, least));
        return kind.withContrasts(all);
    }

    private String said(List<Demand> demands) {
        Demand first = demands.get(0);
        boolean mutual = demands.size() == 2
                && first.with().equals(demands.get(1).of().key())
                && demands.get(1).with().equals(first.of().key());
        if (mutual) {
            return "Ask of “" + first.of().label() + "” and “"
                    + demands.get(1).of().label() + "” a contrast of "
                    + first.least().toPlainString()
                    + " with each other";
        }
        Map<String, List<Demand>> by = new LinkedHashMap<>();
        demands.forEach(
                d -> by.computeIfAbsent(d.of().label(), k -> new ArrayList<>()).add(d));
        return "Ask "
                + by.entrySet().stream()
                        .map(e -> "of “" + e.getKey() + "” a contrast of "
                                + e.getValue().stream()
                                        .map(d -> d.least().toPlainString() + " with "
                                                + theme.palette()
                                                        .setting(d.with())
                                                        .map(s -> "“" + s.label() + "”")
                                                        .orElse(d.with()))
                                        .collect(Collectors.joining(", and ")))
                        .collect(Collectors.joining("; "));
    }

    /** The widest span of lightness that is kept: a text keeps its distance the better, the farther the ground is from it. */
    Optional<Mend> narrower(Setting s) {
        ColorKind kind = (ColorKind) s.kind();
        if (!kind.swatches().isEmpty() || !(s.given() instanceof Given.Fixed made)) {
            return Optional.empty();
        }
        Bounds now = kind.bounds() == null ? new Bounds(null, null, null) : kind.bounds();
        Span chroma = now.chroma() == null ? new Span(BigDecimal.ZERO, ALL_CHROMA) : now.chroma();
        double from = now.lightness() == null ? 0 : now.lightness().from().doubleValue();
        double to = now.lightness() == null ? 100 : now.lightness().to().doubleValue();
        double own = Domain.color(made).to(ColorSpace.OKLCH).c0() * 100;
        Function<Span, Setting> bounded = span ->
                s.withKind(new ColorKind(List.of(), new Bounds(span, chroma, now.hue()), kind.contrasts(), true));
        List<Span> ways = new ArrayList<>();
        for (boolean upper : new boolean[] {true, false}) {
            double good = own;
            double bad = upper ? to : from;
            if (!isKeptWith(bounded.apply(span(from, to, good, upper)))) {
                continue;
            }
            while (Math.abs(bad - good) > 0.5) {
                double middle = (good + bad) / 2;
                if (isKeptWith(bounded.apply(span(from, to, middle, upper)))) {
                    good = middle;
                } else {
                    bad = middle;
                }
            }
            ways.add(span(from, to, upper ? Math.floor(good) : Math.ceil(good), upper));
        }
        return ways.stream()
                .max(Comparator.comparingDouble(w -> w.to().subtract(w.from()).doubleValue()))
                .filter(w -> isKeptWith(bounded.apply(w)))
                .flatMap(w -> offer(
                        theme,
                        "Let “" + s.label() + "” have a lightness of "
                                + w.from().toPlainString() + " to " + w.to().toPlainString() + "%",
                        kind.opaque()
                                ? "It may be " + kind.inWords() + " today."
                                : "It may be " + kind.inWords() + " and let through today.",
                        List.of(bounded.apply(w))));
    }

    private static Span span(double from, double to, double end, boolean upper) {
        return new Span(tenth(upper ? from : end), tenth(upper ? end : to));
    }

    private static BigDecimal tenth(double n) {
        return new BigDecimal(String.format(Locale.ROOT, "%.1f", n)).stripTrailingZeros();
    }
}

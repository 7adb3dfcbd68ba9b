package org.calmpalette.core.setting;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Random;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.calmpalette.core.color.Color;

/** What an owner may come to choose, of settings of whatever kind: as the maker allows it, for all windows or for some. */
public final class RandomChoices {
    private RandomChoices() {}

    /** Without what the settings refuse: each counts. */
    public static Map<String, Chosen> of(Random random, Palette palette, Media media) {
        Map<String, Chosen> all = new LinkedHashMap<>();
        for (Setting s : palette.settings()) {
            if (random.nextInt(3) == 0) {
                continue;
            }
            Chosen chosen = Chosen.of(any(random, s.kind(), media));
            if (s.perBand() && random.nextBoolean()) {
                chosen = chosen.with(
                        palette.bands().list().get(random.nextInt(3)).key(), any(random, s.kind(), media));
            }
            all.put(s.key(), chosen);
        }
        return Effective.of(palette, all, media).choices();
    }

    private static Value any(Random random, Kind kind, Media media) {
        if (kind instanceof ColorKind c) {
            return color(random, c);
        }
        if (kind instanceof LengthKind l) {
            String unit = one(
                    random,
                    List.copyOf(l.units().isEmpty() ? List.of("px") : l.units().keySet()));
            Range range = l.units().getOrDefault(unit, Range.ANY);
            return Value.parts("value", number(random, range), "unit", unit);
        }
        if (kind instanceof NumberKind n) {
            return number(random, n.range());
        }
        if (kind instanceof ChoiceKind c) {
            return Value.of(one(random, c.options()).key());
        }
        if (kind instanceof YesNoKind) {
            return Value.of(random.nextBoolean());
        }
        if (kind instanceof SpacingKind s) {
            return parts(random, s.sides(), media);
        }
        if (kind instanceof BorderKind b) {
            return b.none() && random.nextInt(4) == 0 ? Value.of("none") : parts(random, b.parts(), media);
        }
        if (kind instanceof BackgroundKind b) {
            return parts(random, b.parts(), media);
        }
        if (kind instanceof PictureKind p) {
            List<String> files = media.paths().stream()
                    .filter(f -> PictureKind.FORMATS.contains(MediaFacts.format(f)))
                    .collect(Collectors.toList());
            if (p.none()) {
                files.add("none");
            }
            return Value.of(one(random, files));
        }
        if (kind instanceof TextKind t && t.form() == null) {
            int words = 1 + random.nextInt(6);
            String text = IntStream.range(0, words)
                    .mapToObj(n -> one(random, List.of("Mere", "by", "the", "long", "evening", "boats", "i", "WWWW")))
                    .collect(Collectors.joining(" "));
            return Value.of(text.substring(0, Math.min(text.length(), Math.max(1, t.most())))
                    .strip());
        }
        if (kind instanceof TextKind) {
            return Value.of(one(random, List.of("left top", "center bottom", "30% 0%", "cover", "contain", "auto")));
        }
        // Of the others what they begin with: a test that counts on one of them notices that it has one value.
        return kind.initial();
    }

    private static Value parts(Random random, CompositeKind kind, Media media) {
        Map<String, Value> parts = new LinkedHashMap<>(kind.fixed());
        kind.kinds().forEach((name, k) -> parts.computeIfAbsent(name, n -> any(random, k, media)));
        return new Value.Parts(parts);
    }

    /** A colour that may or may not be allowed, but for swatches. */
    public static Value color(Random random, ColorKind kind) {
        if (!kind.swatches().isEmpty()) {
            return Value.of(one(random, kind.swatches()));
        }
        String css = random.nextBoolean()
                ? String.format("rgb(%d %d %d)", random.nextInt(256), random.nextInt(256), random.nextInt(256))
                : String.format(
                        Locale.ROOT,
                        "oklch(%.3f %.3f %.1f)",
                        random.nextDouble(),
                        random.nextDouble() * 0.3,
                        random.nextDouble() * 360);
        return Value.of(ColorKey.of(Color.parse(css).orElseThrow()));
    }

    private static Value number(Random random, Range range) {
        BigDecimal least = range.least().max(BigDecimal.valueOf(-200));
        BigDecimal most = range.most().min(BigDecimal.valueOf(200));
        BigDecimal step = range.step() == null ? BigDecimal.ONE : range.step();
        int steps = most.subtract(least).divide(step, RoundingMode.DOWN).intValue();
        return Value.of(least.add(step.multiply(BigDecimal.valueOf(random.nextInt(Math.max(1, steps + 1))))));
    }

    private static <T> T one(Random random, List<T> all) {
        return all.get(random.nextInt(all.size()));
    }
}

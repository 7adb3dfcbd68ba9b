package org.calmpalette.core.survey;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.calmpalette.core.cascade.ElementStyle;
import org.calmpalette.core.cascade.PageStyles;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.color.Contrast;
import org.calmpalette.core.css.selector.States;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.render.Backdrop;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.setting.ColorKey;
import org.calmpalette.core.setting.ColorKind;
import org.calmpalette.core.setting.Kind;
import org.calmpalette.core.setting.Kinds;
import org.calmpalette.core.setting.LengthKind;
import org.calmpalette.core.setting.MediaFacts;
import org.calmpalette.core.setting.NumberKind;
import org.calmpalette.core.setting.PictureKind;
import org.calmpalette.core.setting.SpacingKind;
import org.calmpalette.core.setting.TextKind;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.usage.ColorRow;
import org.calmpalette.core.usage.Painted;
import org.calmpalette.core.value.Viewport;
import org.jsoup.nodes.Element;

/**
 * What an owner may safely choose for a value that is lifted, drawn from what stands around it: colours of the theme that
 * keep the contrast, lengths from half to double, texts up to twice as long. It is a proposal; the maker has the last word.
 */
public final class Proposal {
    private static final int MOST_SWATCHES = 5;
    private static final int MOST_PARTS = 40;
    /** WCAG 2.2, success criterion 1.4.3, for text that is not large. */
    private static final double READABLE = 4.5;

    private Proposal() {}

    /** Limits for a value of a kind; the value itself always meets them. */
    public static Kind of(Kind plain, Value value, Rendered rendered, List<ColorRow> colors, List<Painted> painted) {
        Kind proposed = plain;
        if (plain instanceof ColorKind) {
            proposed = color(((Value.Text) value).text(), rendered, colors, painted);
        } else if (plain instanceof LengthKind) {
            proposed = length(List.of((Value.Parts) value));
        } else if (plain instanceof SpacingKind) {
            List<Value.Parts> sides = SpacingKind.SIDES.stream()
                    .map(s -> (Value.Parts) ((Value.Parts) value).part(s).orElseThrow())
                    .toList();
            proposed = Kinds.read("spacing", length(sides).allowed());
        } else if (plain instanceof NumberKind n) {
            BigDecimal now = ((Value.Number) value).number();
            boolean share = n.percentage() && now.signum() >= 0 && now.intValue() <= 100;
            proposed = Kinds.read(n.name(), share ? Value.parts("least", 0, "most", 100) : bounds(now, now));
        } else if (plain instanceof TextKind t) {
            int length = ((Value.Text) value).text().length();
            proposed = Kinds.read(
                    t.name(),
                    Value.parts(
                            "rows",
                            t.rows() > 1 ? t.rows() : null,
                            "least",
                            length > 0 ? 1 : null,
                            "most",
                            Math.min(TextKind.LONGEST, Math.max(20, (length * 2 + 9) / 10 * 10))));
        } else if (plain instanceof PictureKind) {
            proposed = picture(((Value.Text) value).text(), rendered);
        }
        return proposed.refusal(value, Kind.Around.NOTHING).isEmpty() ? proposed : plain;
    }

    /** From half to double, on steps that the value itself lies on. */
    private static Value.Parts bounds(BigDecimal smallest, BigDecimal largest) {
        BigDecimal step = BigDecimal.ONE;
        for (BigDecimal n : List.of(smallest, largest)) {
            while (n.remainder(step).signum() != 0 && step.scale() < 4) {
                step = step.divide(BigDecimal.TEN);
            }
        }
        BigDecimal two = BigDecimal.valueOf(2);
        BigDecimal least = smallest.signum() < 0 ? smallest.multiply(two) : smallest.divide(two);
        BigDecimal most = largest.signum() < 0
                ? largest.divide(two)
                : largest.signum() == 0 ? BigDecimal.valueOf(40) : largest.multiply(two);
        return Value.parts(
                "least",
                least.divide(step, 0, RoundingMode.FLOOR).multiply(step),
                "most",
                most.divide(step, 0, RoundingMode.CEILING).multiply(step),
                "step",
                step);
    }

    private static LengthKind length(List<Value.Parts> lengths) {
        Map<String, List<BigDecimal>> byUnit = new LinkedHashMap<>();
        lengths.forEach(l ->
                byUnit.computeIfAbsent(l.text("unit"), u -> new ArrayList<>()).add(l.number("value")));
        List<Value> units = new ArrayList<>();
        byUnit.forEach((unit, numbers) -> {
            BigDecimal least = numbers.stream().min(BigDecimal::compareTo).orElseThrow();
            BigDecimal most = numbers.stream().max(BigDecimal::compareTo).orElseThrow();
            Map<String, Value> parts = new LinkedHashMap<>();
            parts.put("unit", Value.of(unit));
            parts.putAll(bounds(least, most).parts());
            units.add(new Value.Parts(parts));
        });
        return (LengthKind) Kinds.read("length", Value.parts("units", new Value.Many(units)));
    }

    private static Kind picture(String path, Rendered rendered) {
        MediaFacts facts = rendered.theme().media().facts(path).orElse(null);
        if (facts == null || facts.width() == 0) {
            return PictureKind.ANY;
        }
        BigDecimal shape = BigDecimal.valueOf(facts.shape());
        // As sharp as today up to the widest usual window, and nearly as wide for its height.
        return Kinds.read(
                "picture",
                Value.parts(
                        "leastWidth",
                        Math.min(facts.width(), 1600),
                        "shape",
                        Value.parts(
                                "from",
                                shape.multiply(new BigDecimal("0.75")).setScale(2, RoundingMode.DOWN),
                                "to",
                                shape.multiply(new BigDecimal("1.34")).setScale(2, RoundingMode.UP)),
                        "mostBytes",
                        (int) Math.min(Integer.MAX_VALUE / 2, Math.max(500_000, facts.bytes() * 2))));
    }

    private static Kind color(String value, Rendered rendered, List<ColorRow> colors, List<Painted> painted) {
        Color now = ColorKind.parse(value);
        Set<String> against = against(now, rendered, painted);
        List<Value> needed = new ArrayList<>();
        for (String other : against) {
            double ratio = Contrast.ratio(Contrast.over(now, Color.WHITE), ColorKind.parse(other));
            // What is less readable than it should be today may not get worse.
            double keep = Math.min(READABLE, Math.floor(ratio * 10) / 10);
            if (keep > 1.2) {
                needed.add(Value.parts("with", other, "atLeast", BigDecimal.valueOf(keep)));
            }
        }
        Value.Parts contrast = needed.isEmpty() ? Value.parts() : Value.parts("contrast", new Value.Many(needed));
        Kind open = Kinds.read("color", contrast);
        List<String> swatches = new ArrayList<>(List.of(value));
        for (ColorRow row : colors) {
            boolean fits = row.color().isOpaque() == now.isOpaque()
                    && !swatches.contains(ColorKey.of(row.color()))
                    && open.refusal(Value.of(ColorKey.of(row.color())), Kind.Around.NOTHING)
                            .isEmpty();
            if (fits && swatches.size() < MOST_SWATCHES) {
                swatches.add(ColorKey.of(row.color()));
            }
        }
        return Kinds.read(
                "color",
                (swatches.size() < 2 ? Value.parts() : Value.parts("swatches", Value.of(swatches)))
                        .with("contrast", new Value.Many(needed)));
    }

    /** The colours that stand on it, or that it stands on, in today's pages; up to two, the hardest to keep first. */
    private static Set<String> against(Color now, Rendered rendered, List<Painted> painted) {
        Set<String> found = new LinkedHashSet<>();
        int left = MOST_PARTS;
        for (Page page : rendered.theme().pages()) {
            PageStyles styles = rendered.styles(page, Viewport.of(1440, 900), States.NONE);
            Backdrop.Reader backdrops =
                    new Backdrop.Reader(styles, rendered.theme().files()::has);
            for (Painted p : painted) {
                boolean ground = p.property().startsWith("background");
                if (!ground && !p.property().equals("color") || !p.whenever().isEmpty() || left <= 0) {
                    continue;
                }
                for (Element e : select(page, p.selector())) {
                    if (left-- <= 0) {
                        break;
                    }
                    if (!e.ownText().isBlank()) {
                        (ground ? styles.of(e).colorOf("color") : ground(backdrops.of(e), styles.of(e)))
                                .filter(Color::isOpaque)
                                .ifPresent(c -> found.add(ColorKey.of(c)));
                    }
                }
            }
        }
        found.remove(ColorKey.of(now));
        List<String> hardest = new ArrayList<>(found);
        hardest.sort(java.util.Comparator.comparingDouble(
                c -> Contrast.ratio(Contrast.over(now, Color.WHITE), ColorKind.parse(c))));
        return new LinkedHashSet<>(hardest.subList(0, Math.min(2, hardest.size())));
    }

    private static Optional<Color> ground(Backdrop backdrop, ElementStyle style) {
        return backdrop.unknown() != null
                ? Optional.empty()
                : style.colorOf("color").map(text -> backdrop.under(text).ground());
    }

    private static List<Element> select(Page page, String selector) {
        try {
            return page.document().select(selector);
        } catch (org.jsoup.select.Selector.SelectorParseException unknown) {
            return List.of();
        }
    }
}

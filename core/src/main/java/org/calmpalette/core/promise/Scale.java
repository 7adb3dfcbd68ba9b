package org.calmpalette.core.promise;

import java.math.BigDecimal;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.calmpalette.core.setting.BorderKind;
import org.calmpalette.core.setting.Kind;
import org.calmpalette.core.setting.Kinds;
import org.calmpalette.core.setting.LengthKind;
import org.calmpalette.core.setting.NumberKind;
import org.calmpalette.core.setting.Range;
import org.calmpalette.core.setting.SpacingKind;
import org.calmpalette.core.setting.Value;

/**
 * The one number of a setting that moves boxes: a number or length itself, the length of all sides of a spacing, the width of a border.
 * What has no upper end is looked at as far as a setting is likely to be used, and farther than it holds together as a rule.
 */
record Scale(Kind kind, Value made) {
    private static final BigDecimal TEN = BigDecimal.TEN;
    private static final BigDecimal FAR = BigDecimal.valueOf(100);
    private static final BigDecimal FAR_PX = BigDecimal.valueOf(1_000);

    /** A number with its unit, empty for none. */
    record Point(BigDecimal number, String unit) {
        private static Optional<Point> of(Value v) {
            return v instanceof Value.Number n
                    ? Optional.of(new Point(n.number(), ""))
                    : v instanceof Value.Parts p && p.part("unit").isPresent()
                            ? Optional.of(new Point(p.number("value"), p.text("unit")))
                            : Optional.empty();
        }

        private Value value() {
            return unit.isEmpty() ? new Value.Number(number) : Value.parts("value", number, "unit", unit);
        }
    }

    /** Empty for kinds that have no such number, and for lengths of which only some may be chosen. */
    private Optional<LengthKind> length() {
        Kind inner = kind instanceof SpacingKind s
                ? s.side()
                : kind instanceof BorderKind b && !b.parts().fixed().containsKey("width")
                        ? b.parts().kinds().get("width")
                        : kind;
        return inner instanceof LengthKind l && l.steps().isEmpty() ? Optional.of(l) : Optional.empty();
    }

    /** Its number in a value; empty where that has none, or several. */
    Optional<Point> point(Value v) {
        if (kind instanceof SpacingKind s && v instanceof Value.Parts p) {
            Set<Value> sides = SpacingKind.SIDES.stream()
                    .filter(side -> !s.sides().fixed().containsKey(side))
                    .map(side -> p.part(side).orElse(Value.of("")))
                    .collect(Collectors.toSet());
            return sides.size() == 1 ? Point.of(sides.iterator().next()) : Optional.empty();
        }
        if (kind instanceof BorderKind) {
            return v instanceof Value.Parts p ? p.part("width").flatMap(Point::of) : Optional.empty();
        }
        return Point.of(v);
    }

    /** The value that it is made with, with another number. */
    Value with(Point p) {
        if (kind instanceof SpacingKind s) {
            Map<String, Value> sides = new LinkedHashMap<>();
            SpacingKind.SIDES.forEach(side -> sides.put(side, p.value()));
            sides.putAll(s.sides().fixed());
            return new Value.Parts(sides);
        }
        if (kind instanceof BorderKind b) {
            Map<String, Value> parts =
                    new LinkedHashMap<>(((Value.Parts) (made instanceof Value.Parts ? made : b.initial())).parts());
            parts.put("width", p.value());
            return new Value.Parts(parts);
        }
        return p.value();
    }

    /**
     * What its number may be, by unit, from one end to the other: from zero where there is no lower end, as far as it is made with no less;
     * where any unit is allowed, in the one that it is made with.
     */
    Map<String, Range> units() {
        Map<String, Range> all = new LinkedHashMap<>();
        if (kind instanceof NumberKind n) {
            all.put("", n.range());
        } else {
            length().ifPresent(l -> all.putAll(l.units()));
            point(made).filter(p -> isOfAnyUnit()).ifPresent(p -> all.put(p.unit(), NumberKind.ANY.range()));
        }
        Map<String, Range> ended = new LinkedHashMap<>();
        all.forEach((unit, r) -> {
            BigDecimal lower = r.lower() != null ? r.lower() : isBelowZero(unit) ? null : BigDecimal.ZERO;
            if (lower != null) {
                ended.put(
                        unit,
                        r.upper() != null
                                ? new Range(lower, r.upper(), r.step())
                                : new Range(lower, far(unit).max(lower), stepWithin(r, lower, unit)));
            }
        });
        return ended;
    }

    private boolean isOfAnyUnit() {
        return length().filter(l -> l.units().isEmpty()).isPresent();
    }

    private boolean isBelowZero(String unit) {
        return point(made)
                .filter(p -> p.unit().equals(unit) && p.number().signum() < 0)
                .isPresent();
    }

    private BigDecimal far(String unit) {
        BigDecimal usual = unit.equals("px") ? FAR_PX : FAR;
        return point(made)
                .filter(p -> p.unit().equals(unit))
                .map(p -> p.number().abs().multiply(TEN).max(usual))
                .orElse(usual);
    }

    /** A step is kept where the end that was put there lies on it. */
    private BigDecimal stepWithin(Range r, BigDecimal lower, String unit) {
        return r.step() == null || far(unit).subtract(lower).remainder(r.step()).signum() != 0 ? null : r.step();
    }

    /** The kind with other ranges of its number; units that were among {@link #units} and are not any more go. */
    Optional<Kind> limited(Map<String, Range> left) {
        if (kind instanceof NumberKind n) {
            return Optional.of(new NumberKind(n.percentage(), left.get("")));
        }
        Map<String, Range> before = units();
        Map<String, Range> all = new LinkedHashMap<>(
                isOfAnyUnit() ? left : length().orElseThrow().units());
        all.replaceAll((unit, range) -> before.containsKey(unit) ? left.get(unit) : range);
        all.values().removeIf(r -> r == null);
        if (all.isEmpty()) {
            return Optional.empty();
        }
        LengthKind length = new LengthKind(all, List.of());
        Map<String, Value> allowed = new LinkedHashMap<>(kind.allowed().parts());
        if (kind instanceof SpacingKind) {
            allowed.putAll(length.allowed().parts());
            return Optional.of(Kinds.read(kind.name(), new Value.Parts(allowed)));
        }
        if (kind instanceof BorderKind) {
            allowed.put("width", length.allowed());
            return Optional.of(Kinds.read(kind.name(), new Value.Parts(allowed)));
        }
        return Optional.of(length);
    }
}

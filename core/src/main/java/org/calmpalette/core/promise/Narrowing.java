package org.calmpalette.core.promise;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.NavigableMap;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import org.calmpalette.core.setting.ChoiceKind;
import org.calmpalette.core.setting.Effective;
import org.calmpalette.core.setting.Kind;
import org.calmpalette.core.setting.LengthKind;
import org.calmpalette.core.setting.NumberKind;
import org.calmpalette.core.setting.Range;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.theme.Theme;

/**
 * Limits of a setting with which boxes hold together, as far as they were measured with its values: what lies between a value that holds and
 * one that does not is measured closer and closer, and what does not hold is taken out of what may be chosen.
 */
final class Narrowing {
    /** Between two values that differ, in each round. */
    private static final int EACH_ROUND = 4;
    /** Of one setting, over all rounds. */
    private static final int MOST = 16;
    /** A range without steps is looked at as closely as its fiftieth part, made a power of ten. */
    private static final BigDecimal CLOSE = BigDecimal.valueOf(50);

    private final Setting setting;
    private final Value made;

    private Narrowing(Theme theme, Setting setting) {
        this.setting = setting;
        this.made = Effective.defaults(theme.palette(), theme.media())
                .value(setting, theme.palette().bands().widest());
    }

    /** A number with its unit, empty for none. */
    private record Scaled(BigDecimal number, String unit) {
        static Optional<Scaled> of(Value v) {
            return v instanceof Value.Number n
                    ? Optional.of(new Scaled(n.number(), ""))
                    : v instanceof Value.Parts p && p.part("unit").isPresent()
                            ? Optional.of(new Scaled(p.number("value"), p.text("unit")))
                            : Optional.empty();
        }

        Value value() {
            return unit.isEmpty() ? new Value.Number(number) : Value.parts("value", number, "unit", unit);
        }
    }

    /**
     * Further values that are worth measuring: between one that holds and the next one that does not.
     *
     * @param wanted all that is being measured: of a setting of which some is missing nothing more is asked yet
     * @param measured whether boxes do not hold together, by what was measured
     */
    static List<Variation> closer(Theme theme, List<Variation> wanted, Map<Variation, Boolean> measured) {
        List<Variation> all = new ArrayList<>();
        Set<String> keys =
                measured.keySet().stream().map(Variation::key).collect(Collectors.toCollection(LinkedHashSet::new));
        for (String key : keys) {
            Map<Variation, Boolean> its = new LinkedHashMap<>(measured);
            its.keySet().removeIf(v -> !v.key().equals(key));
            boolean whole = wanted.stream().filter(v -> v.key().equals(key)).allMatch(its::containsKey);
            if (whole && its.size() < MOST && its.containsValue(true)) {
                Narrowing n = new Narrowing(theme, theme.palette().known(key));
                n.units().forEach((unit, range) -> n.between(unit, range, its).stream()
                        .limit(MOST - its.size())
                        .map(v -> Variation.normal(n.setting.kind(), v))
                        .filter(Objects::nonNull)
                        .map(v -> new Variation(key, v))
                        .filter(v -> !measured.containsKey(v) && v.isAllowed(theme))
                        .forEach(all::add));
            }
        }
        return all;
    }

    /** The ranges of a number or length, by unit; empty for all else, and for what has no ends. */
    private Map<String, Range> units() {
        Map<String, Range> all = new LinkedHashMap<>();
        if (setting.kind() instanceof NumberKind n) {
            all.put("", n.range());
        } else if (setting.kind() instanceof LengthKind l && l.steps().isEmpty()) {
            all.putAll(l.units());
        }
        all.values().removeIf(r -> r.lower() == null || r.upper() == null);
        return all;
    }

    /** What was measured in a unit, the value that it is made with as one that holds, in order. */
    private TreeMap<BigDecimal, Boolean> points(String unit, Map<Variation, Boolean> measured) {
        TreeMap<BigDecimal, Boolean> points = new TreeMap<>();
        Scaled.of(made).filter(s -> s.unit().equals(unit)).ifPresent(s -> points.put(s.number(), false));
        measured.forEach((v, breaks) ->
                Scaled.of(v.value()).filter(s -> s.unit().equals(unit)).ifPresent(s -> points.put(s.number(), breaks)));
        return points;
    }

    private static BigDecimal closeness(Range range) {
        if (range.step() != null) {
            return range.step();
        }
        BigDecimal share = range.upper().subtract(range.lower()).divide(CLOSE, 4, RoundingMode.CEILING);
        return BigDecimal.ONE.scaleByPowerOfTen(share.precision() - share.scale() - 1);
    }

    private List<Value> between(String unit, Range range, Map<Variation, Boolean> measured) {
        List<Value> all = new ArrayList<>();
        BigDecimal close = closeness(range);
        Map.Entry<BigDecimal, Boolean> before = null;
        for (Map.Entry<BigDecimal, Boolean> point : points(unit, measured).entrySet()) {
            if (before != null && !before.getValue().equals(point.getValue())) {
                BigDecimal from = before.getKey();
                BigDecimal gap = point.getKey().subtract(from);
                for (int i = 1; i <= EACH_ROUND; i++) {
                    BigDecimal steps = gap.multiply(BigDecimal.valueOf(i))
                            .divide(BigDecimal.valueOf(EACH_ROUND + 1L), 6, RoundingMode.HALF_UP)
                            .divide(close, 0, RoundingMode.HALF_UP);
                    BigDecimal at = from.add(steps.multiply(close));
                    if (at.compareTo(from) > 0 && at.compareTo(point.getKey()) < 0) {
                        all.add(new Scaled(at.stripTrailingZeros(), unit).value());
                    }
                }
            }
            before = point;
        }
        return all.stream().distinct().toList();
    }

    /**
     * The limits of the setting of a case without the values with which the same is wrong; empty if nothing would be left, or nothing is told
     * of it.
     *
     * @param breaks whether the same is wrong with a value that was measured
     */
    static Optional<Mend> of(Theme theme, Variation broken, Map<Variation, Boolean> breaks) {
        Setting s = theme.palette().known(broken.key());
        Map<Variation, Boolean> its = new LinkedHashMap<>(breaks);
        its.keySet().removeIf(v -> !v.key().equals(broken.key()));
        its.put(broken, true);
        return new Narrowing(theme, s).without(its).flatMap(kind -> {
            long tried = its.size() - its.values().stream().filter(b -> b).count();
            return Limiting.offer(
                    theme,
                    "Let “" + s.label() + "” be " + kind.inWords(),
                    "It may be " + s.kind().inWords() + " today. "
                            + (tried == 0
                                    ? "It holds as it is made; nothing else that is left was measured."
                                    : "Measured: it holds as it is made and with "
                                            + (tried == 1 ? "one other value" : tried + " other values") + "."),
                    List.of(s.withKind(kind)));
        });
    }

    private Optional<Kind> without(Map<Variation, Boolean> breaks) {
        Predicate<Value> holds = v -> !breaks.getOrDefault(new Variation(setting.key(), v), false);
        if (setting.kind() instanceof ChoiceKind c) {
            List<ChoiceKind.Option> left = c.options().stream()
                    .filter(o -> holds.test(Value.of(o.key())))
                    .toList();
            return left.isEmpty() || left.size() == c.options().size()
                    ? Optional.empty()
                    : Optional.of(new ChoiceKind(left));
        }
        if (setting.kind() instanceof LengthKind l && !l.steps().isEmpty()) {
            List<LengthKind.Step> left =
                    l.steps().stream().filter(s -> holds.test(s.length())).toList();
            return left.isEmpty() || left.size() == l.steps().size()
                    ? Optional.empty()
                    : Optional.of(new LengthKind(l.units(), left));
        }
        Map<String, Range> units = units();
        Map<String, Range> left = new LinkedHashMap<>();
        units.forEach((unit, range) -> narrowed(
                        range,
                        points(unit, breaks),
                        Scaled.of(made).filter(m -> m.unit().equals(unit)).map(Scaled::number))
                .ifPresent(r -> left.put(unit, r)));
        if (left.isEmpty() || left.equals(units)) {
            return Optional.empty();
        }
        if (setting.kind() instanceof NumberKind n) {
            return Optional.of(new NumberKind(n.percentage(), left.get("")));
        }
        Map<String, Range> all = new LinkedHashMap<>(((LengthKind) setting.kind()).units());
        all.replaceAll((unit, range) -> units.containsKey(unit) ? left.get(unit) : range);
        all.values().removeIf(r -> r == null);
        return all.isEmpty() ? Optional.empty() : Optional.of(new LengthKind(all, List.of()));
    }

    /** From the value that it is made with as far as what was measured holds on both sides; empty where nothing is known to hold. */
    private static Optional<Range> narrowed(
            Range range, TreeMap<BigDecimal, Boolean> points, Optional<BigDecimal> made) {
        if (!points.containsValue(true)) {
            return Optional.of(range);
        }
        BigDecimal anchor = made.or(() -> points.entrySet().stream()
                        .filter(p -> !p.getValue())
                        .map(Map.Entry::getKey)
                        .findFirst())
                .orElse(null);
        if (anchor == null) {
            return Optional.empty();
        }
        BigDecimal lower = last(anchor, points.descendingMap()).orElse(range.lower());
        BigDecimal upper = last(anchor, points).orElse(range.upper());
        // One value alone is no choice.
        return lower.compareTo(upper) < 0 ? Optional.of(new Range(lower, upper, range.step())) : Optional.empty();
    }

    /** The last that holds, from a point on, before one that does not; empty where all hold. */
    private static Optional<BigDecimal> last(BigDecimal from, NavigableMap<BigDecimal, Boolean> points) {
        BigDecimal last = from;
        for (Map.Entry<BigDecimal, Boolean> p : points.tailMap(from, true).entrySet()) {
            if (p.getValue()) {
                return Optional.of(last);
            }
            last = p.getKey();
        }
        return Optional.empty();
    }
}

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
import java.util.function.Function;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import org.calmpalette.core.setting.BackgroundKind;
import org.calmpalette.core.setting.BorderKind;
import org.calmpalette.core.setting.ChoiceKind;
import org.calmpalette.core.setting.CompositeKind;
import org.calmpalette.core.setting.Effective;
import org.calmpalette.core.setting.Kind;
import org.calmpalette.core.setting.LengthKind;
import org.calmpalette.core.setting.MediaFacts;
import org.calmpalette.core.setting.PictureKind;
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

    private final Theme theme;
    private final Setting setting;
    private final Scale scale;

    private Narrowing(Theme theme, Setting setting) {
        this.theme = theme;
        this.setting = setting;
        this.scale = new Scale(
                setting.kind(),
                Effective.defaults(theme.palette(), theme.media())
                        .value(setting, theme.palette().bands().widest()));
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
                n.scale.units().forEach((unit, range) -> n.between(unit, range, its).stream()
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

    /** What was measured in a unit, the value that it is made with as one that holds, in order. */
    private TreeMap<BigDecimal, Boolean> points(String unit, Map<Variation, Boolean> measured) {
        TreeMap<BigDecimal, Boolean> points = new TreeMap<>();
        made(unit).ifPresent(n -> points.put(n, false));
        measured.forEach((v, breaks) -> scale.point(v.value())
                .filter(s -> s.unit().equals(unit))
                .ifPresent(s -> points.put(s.number(), breaks)));
        return points;
    }

    /** Its number as it is made, if that is the same in every window. */
    private Optional<BigDecimal> made(String unit) {
        return setting.bands().isEmpty()
                ? scale.point(scale.made()).filter(s -> s.unit().equals(unit)).map(Scale.Point::number)
                : Optional.empty();
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
                        all.add(scale.with(new Scale.Point(at.stripTrailingZeros(), unit)));
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
                    words(s, kind),
                    "It may be " + s.kind().inWords() + " today. "
                            + (tried == 0
                                    ? "It holds as it is made; nothing else that is left was measured."
                                    : "Measured: it holds as it is made and with "
                                            + (tried == 1 ? "one other value" : tried + " other values") + "."),
                    List.of(s.withKind(kind)));
        });
    }

    private static String words(Setting s, Kind now) {
        if (now instanceof BorderKind b) {
            return "Let the width of “" + s.label() + "” be "
                    + b.parts().kinds().get("width").inWords();
        }
        if (now instanceof BackgroundKind b && s.kind() instanceof BackgroundKind before) {
            List<String> pinned = b.parts().fixed().keySet().stream()
                    .filter(name -> !before.parts().fixed().containsKey(name))
                    .map(CompositeKind::said)
                    .sorted()
                    .toList();
            PictureKind picture = (PictureKind) b.parts().kinds().get("picture");
            String larger = picture.equals(before.parts().kinds().get("picture"))
                    ? ""
                    : "Let the picture of “" + s.label() + "” be " + picture.inWords();
            String left =
                    pinned.isEmpty() ? "" : "Leave " + String.join(" and ", pinned) + " of “" + s.label() + "” as made";
            return larger.isEmpty() || left.isEmpty()
                    ? larger + left
                    : larger + "; " + left.substring(0, 1).toLowerCase(java.util.Locale.ROOT) + left.substring(1);
        }
        return "Let “" + s.label() + "” be " + now.inWords();
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
        if (setting.kind() instanceof PictureKind p) {
            return larger(p, breaks, v -> Optional.of(v)).map(k -> k);
        }
        if (setting.kind() instanceof BackgroundKind b) {
            return background(b, breaks);
        }
        Map<String, Range> units = scale.units();
        Map<String, Range> left = new LinkedHashMap<>();
        units.forEach((unit, range) ->
                narrowed(range, points(unit, breaks), made(unit)).ifPresent(r -> left.put(unit, r)));
        return left.isEmpty() || left.equals(units) ? Optional.empty() : scale.limited(left);
    }

    /** Of parts that break it each is left as it is made, of pictures those that are too small are left out. */
    private Optional<Kind> background(BackgroundKind kind, Map<Variation, Boolean> breaks) {
        Value.Parts made = (Value.Parts) scale.made();
        Map<String, Kind> kinds = new LinkedHashMap<>(kind.parts().kinds());
        Map<String, Value> fixed = new LinkedHashMap<>(kind.parts().fixed());
        for (Map.Entry<Variation, Boolean> e : breaks.entrySet()) {
            if (e.getValue() && e.getKey().value() instanceof Value.Parts broken) {
                for (String name : kind.parts().kinds().keySet()) {
                    boolean same = made.part(name).equals(broken.part(name));
                    if (!same && !name.equals("picture")) {
                        fixed.put(name, made.part(name).orElseThrow());
                    }
                }
            }
        }
        Function<Value, Optional<Value>> picture = v -> v instanceof Value.Parts p
                        && kind.parts().kinds().keySet().stream()
                                .allMatch(n -> n.equals("picture") || p.part(n).equals(made.part(n)))
                ? p.part("picture")
                : Optional.empty();
        Optional<PictureKind> larger = larger((PictureKind) kinds.get("picture"), breaks, picture);
        larger.ifPresent(k -> kinds.put("picture", k));
        boolean changed = larger.isPresent() || !fixed.equals(kind.parts().fixed());
        return changed ? Optional.of(new BackgroundKind(new CompositeKind(kinds, fixed))) : Optional.empty();
    }

    /** Pictures at least as wide as the narrowest that holds, if all that do not are narrower. */
    private Optional<PictureKind> larger(
            PictureKind kind, Map<Variation, Boolean> breaks, Function<Value, Optional<Value>> picture) {
        TreeMap<Integer, Boolean> widths = new TreeMap<>();
        picture.apply(scale.made()).flatMap(this::wide).ifPresent(w -> widths.put(w, false));
        breaks.forEach((v, wrong) -> picture.apply(v.value())
                .flatMap(this::wide)
                .ifPresent(w -> widths.merge(w, wrong, Boolean::logicalOr)));
        Integer widestWrong = widths.descendingMap().entrySet().stream()
                .filter(Map.Entry::getValue)
                .map(Map.Entry::getKey)
                .findFirst()
                .orElse(null);
        Integer least = widestWrong == null ? null : widths.higherKey(widestWrong);
        return least == null || least <= kind.leastWidth()
                ? Optional.empty()
                : Optional.of(new PictureKind(
                        kind.none(),
                        least,
                        kind.leastHeight(),
                        kind.narrowest(),
                        kind.widest(),
                        kind.mostBytes(),
                        kind.formats()));
    }

    private Optional<Integer> wide(Value picture) {
        return picture instanceof Value.Text t
                ? theme.media().facts(t.text()).map(MediaFacts::width).filter(w -> w > 0)
                : Optional.empty();
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

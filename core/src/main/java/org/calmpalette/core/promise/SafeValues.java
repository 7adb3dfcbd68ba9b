package org.calmpalette.core.promise;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.calmpalette.core.setting.ChoiceKind;
import org.calmpalette.core.setting.Chosen;
import org.calmpalette.core.setting.Effective;
import org.calmpalette.core.setting.Kind;
import org.calmpalette.core.setting.LengthKind;
import org.calmpalette.core.setting.NumberKind;
import org.calmpalette.core.setting.Range;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.setting.YesNoKind;
import org.calmpalette.core.theme.Theme;

/**
 * Which values of a setting that is no colour make a text hard to read, as all else is now: a choice, yes or no, a number or a length between
 * two bounds. Each is looked at with the whole cascade, as {@link SafeArea.Texts#hardToRead} does, and so is what layout
 * decides not told here either. A text that every value leaves hard to read is no matter of this setting.
 *
 * <p>Of a number the ends, the middle and both quarters are looked at first: a text that has the same contrast with all five is taken to
 * follow something else. The others are looked at on {@value #LOOKS} values and halved to a step between two that differ.
 */
public final class SafeValues {
    private static final int LOOKS = 24;
    /** Of a range without steps, or with more of them: so fine is told where the safe part ends. */
    private static final int FINEST = 200;

    /** @param hard the texts that it makes hard to read and another value does not; empty if it is safe */
    public record Judged(Value value, List<SafeArea.Met> hard) {
        public boolean isSafe() {
            return hard.isEmpty();
        }
    }

    /** Both ends belong to it. */
    public record Span(Value from, Value to) {}

    /** The values of a kind one after the other. */
    private record Line(List<Value> values, boolean isRange) {}

    private final SafeArea.Texts texts;
    private final Theme theme;
    private final Setting setting;
    private final String band;
    private final Map<String, Chosen> now;
    private final Line line;
    /** The texts that may follow the setting. */
    private List<SafeArea.Loose> asked;
    /** The contrast of each of them, by the index of the value that was looked at. */
    private final TreeMap<Integer, List<Double>> seen = new TreeMap<>();

    private final List<Judged> judged;

    private SafeValues(SafeArea.Texts texts, Setting setting, String band, Map<String, Chosen> now, Line line) {
        this.texts = texts;
        this.theme = texts.theme();
        this.setting = setting;
        this.band = band;
        this.now = now;
        this.line = line;
        asked = texts.loose(Effective.of(theme.palette(), now, theme.media()));
        look();
        judged = judge();
    }

    private void look() {
        int last = line.values().size() - 1;
        if (!line.isRange()) {
            IntStream.rangeClosed(0, last).forEach(this::lookAt);
            return;
        }
        IntStream.rangeClosed(0, 4).forEach(i -> lookAt(last * i / 4));
        keepThoseThatDiffer();
        if (!asked.isEmpty()) {
            IntStream.rangeClosed(0, LOOKS).forEach(i -> lookAt(last * i / LOOKS));
            List.copyOf(seen.keySet()).forEach(from -> {
                if (from < last) {
                    halve(from, seen.higherKey(from));
                }
            });
        }
    }

    private void lookAt(int index) {
        seen.computeIfAbsent(index, i -> contrasts(line.values().get(i)));
    }

    private void keepThoseThatDiffer() {
        List<Integer> differing = IntStream.range(0, asked.size())
                .filter(t ->
                        seen.values().stream().map(c -> c.get(t)).distinct().count() > 1)
                .boxed()
                .toList();
        List<SafeArea.Loose> all = asked;
        asked = differing.stream().map(all::get).toList();
        seen.replaceAll(
                (index, contrasts) -> differing.stream().map(contrasts::get).toList());
    }

    private void halve(int from, int to) {
        int low = from;
        int high = to;
        while (high - low > 1 && !hard(low).equals(hard(high))) {
            int middle = (low + high) / 2;
            lookAt(middle);
            if (hard(middle).equals(hard(low))) {
                low = middle;
            } else {
                high = middle;
            }
        }
    }

    /** Which texts are hard to read with a value that was looked at. */
    private Set<Integer> hard(int index) {
        List<Double> contrasts = seen.get(index);
        return IntStream.range(0, asked.size())
                .filter(t -> contrasts.get(t) > 0
                        && contrasts.get(t) < asked.get(t).asked().needed())
                .boxed()
                .collect(Collectors.toSet());
    }

    private List<Double> contrasts(Value value) {
        Chosen was = now.getOrDefault(setting.key(), new Chosen(null, Map.of()));
        Map<String, Chosen> chosen = new TreeMap<>(now);
        chosen.put(setting.key(), was.with(band, value));
        Looking looking = new Looking(theme, chosen);
        return asked.stream().map(a -> a.seen(looking)).toList();
    }

    private List<Judged> judge() {
        Set<Integer> always = hard(seen.firstKey());
        seen.keySet().forEach(i -> always.retainAll(hard(i)));
        return seen.entrySet().stream()
                .map(e -> new Judged(
                        line.values().get(e.getKey()),
                        hard(e.getKey()).stream()
                                .filter(t -> !always.contains(t))
                                .sorted()
                                .map(t -> asked.get(t).met(e.getValue().get(t)))
                                .toList()))
                .toList();
    }

    /**
     * @param band in which the value would be chosen; empty for all that have no value of their own
     * @param now what is chosen
     * @return empty for a kind that is not judged here: colours have their area, others an endless choice
     */
    public static Optional<SafeValues> of(SafeArea.Texts texts, Setting setting, String band, Map<String, Chosen> now) {
        Line line = line(setting.kind());
        return line == null ? Optional.empty() : Optional.of(new SafeValues(texts, setting, band, now, line));
    }

    /** Whether values of a kind are judged here. */
    public static boolean judges(Kind kind) {
        return line(kind) != null;
    }

    /** Whether some value makes a text hard to read that another one keeps. */
    public boolean matters() {
        return judged.stream().anyMatch(j -> !j.isSafe());
    }

    /** Whether its values are numbers between two bounds; else they are a list. */
    public boolean isRange() {
        return line.isRange();
    }

    /** The values that were looked at: of a list all of them, of a range some, rising. */
    public List<Judged> judged() {
        return judged;
    }

    /** Of a range the parts that are safe, rising; empty for a list too. */
    public List<Span> safe() {
        List<Span> all = new ArrayList<>();
        if (!line.isRange()) {
            return all;
        }
        int start = -1;
        for (int i = 0; i < judged.size(); i++) {
            boolean safe = judged.get(i).isSafe();
            start = safe && start < 0 ? i : start;
            boolean ends = safe && (i + 1 == judged.size() || !judged.get(i + 1).isSafe());
            if (ends) {
                all.add(new Span(judged.get(start).value(), judged.get(i).value()));
                start = -1;
            }
        }
        return all;
    }

    /** Whether the value that the setting has now is safe. */
    public boolean isSafeNow() {
        return !now().isEmpty();
    }

    /** The safe values around the one that the setting has now: of a list all that are safe. */
    private List<Value> now() {
        Value made = Effective.of(theme.palette(), now, theme.media())
                .value(setting, theme.palette().bands().widest());
        if (!line.isRange()) {
            List<Value> kept =
                    judged.stream().filter(Judged::isSafe).map(Judged::value).toList();
            return kept.contains(made) ? kept : List.of();
        }
        BigDecimal at = number(made);
        return safe().stream()
                .filter(s -> at.compareTo(number(s.from())) >= 0 && at.compareTo(number(s.to())) <= 0)
                .findFirst()
                .map(s -> List.of(s.from(), s.to()))
                .orElse(List.of());
    }

    /** A number, or that of a length. */
    public static BigDecimal number(Value v) {
        return v instanceof Value.Number n ? n.number() : ((Value.Parts) v).number("value");
    }

    /**
     * The widest limits with which no value that may be chosen makes a text hard to read, as long as all else is as it is made; tried. Empty
     * where there is nothing to limit, where the default itself is not safe, and for yes or no.
     */
    public Optional<Mend> limit() {
        List<Value> kept = matters() ? now() : List.of();
        Kind fewer = kept.isEmpty() ? null : fewer(setting.kind(), kept);
        if (fewer == null) {
            return Optional.empty();
        }
        Kind kind = setting.kind();
        String left = line.isRange()
                ? kind.words(kept.get(0)) + " to " + kind.words(kept.get(1))
                : String.join(", ", kept.stream().map(kind::words).toList());
        return Limiting.offer(
                        theme,
                        "Let “" + setting.label() + "” be " + left,
                        kind.inWords() + " may be chosen today. It keeps all texts as long as all else is as made.",
                        List.of(setting.withKind(fewer)))
                .filter(m -> {
                    Theme limited = m.change().applied(theme);
                    return of(texts.on(limited), limited.palette().known(setting.key()), band, now)
                            .filter(SafeValues::matters)
                            .isEmpty();
                });
    }

    /** @return null for a kind of which nothing can be taken away */
    private static Kind fewer(Kind kind, List<Value> kept) {
        if (kind instanceof ChoiceKind c) {
            return new ChoiceKind(c.options().stream()
                    .filter(o -> kept.contains(Value.of(o.key())))
                    .toList());
        }
        if (kind instanceof NumberKind n) {
            return new NumberKind(n.percentage(), within(n.range(), kept));
        }
        if (kind instanceof LengthKind l && !l.steps().isEmpty()) {
            return new LengthKind(
                    l.units(),
                    l.steps().stream().filter(s -> kept.contains(s.length())).toList());
        }
        if (kind instanceof LengthKind l) {
            Map<String, Range> units = new TreeMap<>(l.units());
            units.replaceAll((unit, range) -> within(range, kept));
            return new LengthKind(units, List.of());
        }
        return null;
    }

    private static Range within(Range range, List<Value> ends) {
        return new Range(number(ends.get(0)), number(ends.get(1)), range.step());
    }

    private static Line line(Kind kind) {
        if (kind instanceof ChoiceKind c) {
            return list(c.options().stream().<Value>map(o -> Value.of(o.key())).toList());
        }
        if (kind instanceof YesNoKind) {
            return list(List.of(new Value.Flag(false), new Value.Flag(true)));
        }
        if (kind instanceof NumberKind n) {
            return line(n.range(), Value.Number::new);
        }
        if (kind instanceof LengthKind l && !l.steps().isEmpty()) {
            return list(l.steps().stream().<Value>map(LengthKind.Step::length).toList());
        }
        if (kind instanceof LengthKind l && l.units().size() == 1) {
            String unit = l.units().keySet().iterator().next();
            return line(l.units().get(unit), n -> Value.parts("value", n, "unit", unit));
        }
        return null;
    }

    private static Line list(List<Value> values) {
        return new Line(values, false);
    }

    /** @return null without two bounds */
    private static Line line(Range range, Function<BigDecimal, Value> value) {
        if (range.lower() == null || range.upper() == null) {
            return null;
        }
        BigDecimal size = range.upper().subtract(range.lower());
        BigDecimal coarse = size.divide(BigDecimal.valueOf(FINEST), 4, RoundingMode.UP);
        BigDecimal step = range.step() == null
                ? coarse
                : range.step()
                        .multiply(
                                coarse.divide(range.step(), 0, RoundingMode.UP).max(BigDecimal.ONE));
        List<BigDecimal> numbers = new ArrayList<>();
        for (BigDecimal n = range.lower(); step.signum() > 0 && n.compareTo(range.upper()) < 0; n = n.add(step)) {
            numbers.add(n);
        }
        numbers.add(range.upper());
        return new Line(numbers.stream().map(value).toList(), true);
    }
}

package org.calmpalette.core.setting;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.function.UnaryOperator;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.language.Language;

/**
 * A length: a number with a unit of CSS, {@code {"value": 72, "unit": "vh"}}.
 *
 * @param units that may be chosen, each with its bounds, in order; empty for every unit without bounds
 * @param steps named lengths to choose among; empty if there is no such list
 */
public record LengthKind(Map<String, Range> units, List<Step> steps) implements Kind {
    public static final LengthKind ANY = new LengthKind(Map.of(), List.of());
    /** CSS Values and Units Level 4, sections 6 and 5.5, without the physical units that only print knows. */
    public static final List<String> UNITS = List.of(
            "px", "rem", "em", "%", "vw", "vh", "svw", "svh", "lvw", "lvh", "dvw", "dvh", "vmin", "vmax", "ch", "ex",
            "lh", "rlh", "cap", "ic", "pt");

    private static final Pattern WRITTEN =
            Pattern.compile("\\s*([+-]?(?:\\d+\\.?\\d*|\\.\\d+))([a-z]+|%)?\\s*", Pattern.CASE_INSENSITIVE);

    public LengthKind {
        Map<String, Range> copy = new LinkedHashMap<>(units);
        units = java.util.Collections.unmodifiableMap(copy);
        steps = List.copyOf(steps);
    }

    /** A length with a name, such as “wide”. */
    public record Step(String label, Value.Parts length) {}

    static Kind read(JsonEntry e) {
        Map<String, Range> units = new LinkedHashMap<>();
        for (JsonEntry u : e.entries("units")) {
            String unit = u.text("unit");
            if (!UNITS.contains(unit)) {
                throw JsonEntry.bad(
                        u.at("unit"),
                        "“" + unit + "” is no unit of a length",
                        "Write one of " + String.join(", ", UNITS) + ".");
            }
            try {
                units.put(unit, Range.of(u));
            } catch (BadInputException bounds) {
                throw JsonEntry.bad(u.place(), bounds.getMessage(), bounds.mend());
            }
        }
        List<Step> steps = new ArrayList<>();
        for (JsonEntry s : e.entries("steps")) {
            steps.add(new Step(
                    s.text("label"),
                    ANY.normal(Value.parts("value", s.value("value").orElse(null), "unit", s.text("unit")))));
        }
        return new LengthKind(units, steps);
    }

    @Override
    public Value.Parts allowed() {
        List<Value> u = new ArrayList<>();
        units.forEach((unit, range) -> {
            Map<String, Value> parts = new LinkedHashMap<>();
            parts.put("unit", Value.of(unit));
            parts.putAll(range.parts().parts());
            u.add(new Value.Parts(parts));
        });
        List<Value> s = steps.stream()
                .<Value>map(x -> Value.parts(
                        "label",
                        x.label(),
                        "value",
                        x.length().number("value"),
                        "unit",
                        x.length().text("unit")))
                .toList();
        return Value.parts(
                "units", u.isEmpty() ? null : new Value.Many(u), "steps", s.isEmpty() ? null : new Value.Many(s));
    }

    @Override
    public String name() {
        return "length";
    }

    @Override
    public boolean isFiner() {
        return true;
    }

    @Override
    public String label() {
        return "length";
    }

    @Override
    public String inWords() {
        if (!steps.isEmpty()) {
            return String.join(", ", steps.stream().map(Step::label).toList());
        }
        if (units.isEmpty()) {
            return Language.say("length.any");
        }
        List<String> all = new ArrayList<>();
        units.forEach((unit, range) ->
                all.add(range.isAny() ? Language.say("length.any-in", unit) : range.inWords(gap(unit))));
        return String.join(", ", all);
    }

    private static String gap(String unit) {
        return unit.equals("%") ? "%" : " " + unit;
    }

    @Override
    public Value.Parts normal(Value given) {
        if (!(given instanceof Value.Parts p) || p.parts().size() != 2 || !UNITS.contains(p.text("unit"))) {
            throw wrong(given);
        }
        return Value.parts(
                "value",
                Range.normal(p.part("value").orElse(given), Language.say("is.length")),
                "unit",
                p.text("unit"));
    }

    private static final String EXAMPLE = "{\"value\":72,\"unit\":\"vh\"}";

    private static BadInputException wrong(Value given) {
        // Whoever wrote it as stylesheets do is told the same length in the shape that it needs.
        String shape = given instanceof Value.Text t
                ? ANY.readCss(t.text()).map(v -> v.json().toString()).orElse(EXAMPLE)
                : EXAMPLE;
        return Kind.wrong(given, Language.say("is.length"), Language.say("length.write", shape));
    }

    @Override
    public Optional<Refusal> refusal(Value value, Around around) {
        Value.Parts p = (Value.Parts) value;
        if (!steps.isEmpty()) {
            return steps.stream().anyMatch(s -> s.length().equals(p))
                    ? Optional.empty()
                    : Optional.of(new Refusal.NotAmong(
                            Refusal.Listed.STEPS,
                            written(p),
                            steps.stream().map(Step::label).toList()));
        }
        Range range = units.get(p.text("unit"));
        if (range == null) {
            return units.isEmpty()
                    ? Optional.empty()
                    : Optional.of(
                            new Refusal.NotAmong(Refusal.Listed.UNITS, p.text("unit"), List.copyOf(units.keySet())));
        }
        return range.refusal(p.number("value"), gap(p.text("unit")));
    }

    @Override
    public Value initial() {
        if (!steps.isEmpty()) {
            return steps.get(0).length();
        }
        Map.Entry<String, Range> first = units.isEmpty()
                ? Map.entry("px", Range.ANY)
                : units.entrySet().iterator().next();
        BigDecimal least = first.getValue().least();
        return Value.parts(
                "value",
                least.compareTo(Range.FARTHEST.negate()) == 0 ? BigDecimal.ZERO : least,
                "unit",
                first.getKey());
    }

    /** As CSS. */
    public static String written(Value value) {
        Value.Parts p = (Value.Parts) value;
        return Range.plain(p.number("value")) + p.text("unit");
    }

    @Override
    public Map<String, String> css(Value value, UnaryOperator<String> address) {
        return Map.of("", written(value));
    }

    @Override
    public Optional<Value> readCss(String css) {
        Matcher m = WRITTEN.matcher(css);
        if (!m.matches() || m.group(1).length() > 20) {
            return Optional.empty();
        }
        BigDecimal number = new BigDecimal(m.group(1));
        String unit = m.group(2) == null
                ? number.signum() == 0 ? "px" : ""
                : m.group(2).toLowerCase(java.util.Locale.ROOT);
        boolean fits = UNITS.contains(unit)
                && number.abs().compareTo(Range.FARTHEST) <= 0
                && number.remainder(Range.FINEST).signum() == 0;
        return fits ? Optional.of(Value.parts("value", number, "unit", unit)) : Optional.empty();
    }

    @Override
    public LengthKind withTexts(UnaryOperator<String> to) {
        return new LengthKind(
                units,
                steps.stream()
                        .map(s -> new Step(to.apply(s.label()), s.length()))
                        .toList());
    }

    @Override
    public String words(Value value) {
        return steps.stream()
                .filter(s -> s.length().equals(value))
                .map(Step::label)
                .findFirst()
                .orElseGet(() -> {
                    Value.Parts p = (Value.Parts) value;
                    return Language.spoken().number(p.number("value")) + p.text("unit");
                });
    }

    @Override
    public Value.Parts schema(Around around) {
        if (!steps.isEmpty()) {
            return Value.parts(
                    "enum",
                    new Value.Many(steps.stream().<Value>map(Step::length).toList()));
        }
        if (units.isEmpty()) {
            return schema(Value.parts("enum", Value.of(UNITS)), Range.ANY);
        }
        List<Value> each = new ArrayList<>();
        units.forEach((unit, range) -> each.add(schema(Value.parts("const", unit), range)));
        return each.size() == 1 ? (Value.Parts) each.get(0) : Value.parts("oneOf", new Value.Many(each));
    }

    private static Value.Parts schema(Value unit, Range range) {
        return CompositeKind.object(Value.parts("value", range.schema(), "unit", unit));
    }

    @Override
    public Value read(Function<String, String> fields) {
        String number = fields.apply(".value").strip();
        // A person may type the unit along; then it counts.
        Optional<Value> whole = number.matches(".*[a-zA-Z%]") ? readCss(number) : Optional.empty();
        if (!steps.isEmpty()) {
            return readCss(fields.apply(".step")).orElseThrow(() -> wrong(Value.of(fields.apply(".step"))));
        }
        return whole.orElseGet(() -> normal(
                Value.parts("value", Range.typed(number, Language.say("is.number")), "unit", fields.apply(".unit"))));
    }

    @Override
    public Map<String, String> fields(Value value) {
        Value.Parts p = (Value.Parts) value;
        return Map.of(".value", Range.plain(p.number("value")), ".unit", p.text("unit"), ".step", written(p));
    }
}

package org.calmpalette.core.setting;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.function.UnaryOperator;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.language.Language;

/**
 * Named parts, each of a simple kind: what backgrounds, borders, shadows, spacings and videos have in common.
 *
 * @param kinds of the parts, in order
 * @param fixed parts that may not be chosen, with the value they have
 */
public record CompositeKind(Map<String, Kind> kinds, Map<String, Value> fixed) {
    /** The end of a text, as browsers and Java read it alike; a dollar sign lets Java pass a last line break. */
    static final String END = "(?![\\s\\S])";

    /** No border, no shadow. */
    static final Value NONE = Value.of("none");

    public CompositeKind {
        kinds = java.util.Collections.unmodifiableMap(new LinkedHashMap<>(kinds));
        fixed = java.util.Collections.unmodifiableMap(new LinkedHashMap<>(fixed));
    }

    /** @param kinds names and kinds in turn */
    static CompositeKind of(JsonEntry allowed, Object... kinds) {
        Map<String, Kind> all = new LinkedHashMap<>();
        for (int i = 0; i < kinds.length; i += 2) {
            all.put((String) kinds[i], (Kind) kinds[i + 1]);
        }
        Map<String, Value> fixed = new LinkedHashMap<>();
        JsonEntry f = allowed.entry("fixed");
        for (String name : f.keys()) {
            Kind kind = all.get(name);
            if (kind == null) {
                throw JsonEntry.bad(
                        f.at(name), "there is no such part", "Name one of " + String.join(", ", all.keySet()) + ".");
            }
            try {
                fixed.put(name, kind.normal(f.value(name).orElseThrow()));
            } catch (BadInputException wrong) {
                throw JsonEntry.bad(f.at(name), wrong.getMessage(), wrong.mend());
            }
        }
        return new CompositeKind(all, fixed);
    }

    /** The schema of an object that has all of these parts and no others. */
    static Value.Parts object(Value.Parts properties) {
        return object(properties, List.copyOf(properties.parts().keySet()));
    }

    /** The same, where only some have to be there. */
    static Value.Parts object(Value.Parts properties, List<String> required) {
        return Value.parts(
                "type",
                "object",
                "properties",
                properties,
                "required",
                Value.of(required),
                "additionalProperties",
                false);
    }

    Value.Parts allowed() {
        return fixed.isEmpty() ? Value.parts() : Value.parts("fixed", new Value.Parts(fixed));
    }

    Value.Parts normal(Value given, String label, Value example) {
        if (!(given instanceof Value.Parts p)
                || !kinds.keySet().containsAll(p.parts().keySet())) {
            throw Kind.wrong(given, label, "Write it like " + example.json() + ".");
        }
        Map<String, Value> parts = new LinkedHashMap<>();
        kinds.forEach((name, kind) -> {
            Value part = p.part(name).orElseGet(() -> fixed.get(name));
            if (part == null) {
                throw Kind.wrong(
                        given, label, "Its part “" + name + "” is missing: write it like " + example.json() + ".");
            }
            try {
                parts.put(name, kind.normal(part));
            } catch (BadInputException wrong) {
                throw new BadInputException(Language.say("wrong.part", first(name), wrong.getMessage()), wrong.mend());
            }
        });
        return new Value.Parts(parts);
    }

    Optional<Refusal> refusal(Value value, Kind.Around around) {
        for (Map.Entry<String, Kind> e : kinds.entrySet()) {
            Value part = ((Value.Parts) value).part(e.getKey()).orElseThrow();
            Value stays = fixed.get(e.getKey());
            if (stays != null && !stays.equals(part)) {
                return Optional.of(
                        new Refusal.Stays(first(e.getKey()), e.getValue().words(stays)));
            }
            Optional<Refusal> why =
                    stays != null ? Optional.empty() : e.getValue().refusal(part, around);
            if (why.isPresent()) {
                return Optional.of(new Refusal.InPart(first(e.getKey()), why.get()));
            }
        }
        return Optional.empty();
    }

    CompositeKind recolored(UnaryOperator<String> to) {
        Map<String, Kind> others = new LinkedHashMap<>();
        kinds.forEach((name, kind) -> others.put(name, kind.recolored(to)));
        Map<String, Value> stay = new LinkedHashMap<>();
        fixed.forEach((name, value) -> stay.put(name, kinds.get(name).recolored(value, to)));
        return new CompositeKind(others, stay);
    }

    CompositeKind withTexts(UnaryOperator<String> to) {
        Map<String, Kind> others = new LinkedHashMap<>();
        kinds.forEach((name, kind) -> others.put(name, kind.withTexts(to)));
        return new CompositeKind(others, fixed);
    }

    Value recolored(Value value, UnaryOperator<String> to) {
        if (!(value instanceof Value.Parts p)) {
            return value;
        }
        Map<String, Value> others = new LinkedHashMap<>();
        p.parts().forEach((name, part) -> others.put(name, kinds.get(name).recolored(part, to)));
        return new Value.Parts(others);
    }

    /** The name of a part as people read it: screens write colour. */
    public static String said(String name) {
        String key = "part." + name;
        return Language.english().keys().contains(key) ? Language.say(key) : name;
    }

    /** As {@link #normal}, where there may also be none of it at all. */
    Value normalOrNone(Value given, String label, Value example) {
        return given.equals(NONE) ? NONE : normal(given, label, example);
    }

    /** @param none whether none may be chosen */
    Optional<Refusal> refusalOrNone(boolean none, Value value, Kind.Around around, String what) {
        if (value.equals(NONE)) {
            return none ? Optional.empty() : Optional.of(new Refusal.Missing(what));
        }
        return refusal(value, around);
    }

    Value.Parts schemaOrNone(boolean none, Kind.Around around) {
        return none
                ? Value.parts("anyOf", new Value.Many(List.of(Value.parts("const", NONE), schema(around))))
                : schema(around);
    }

    private static String first(String name) {
        String said = said(name);
        return said.substring(0, 1).toUpperCase(Language.spoken().locale()) + said.substring(1);
    }

    Value.Parts initial(Object... namesAndValues) {
        Value.Parts wanted = Value.parts(namesAndValues);
        Map<String, Value> parts = new LinkedHashMap<>();
        kinds.forEach((name, kind) -> parts.put(
                name,
                fixed.getOrDefault(
                        name,
                        wanted.part(name)
                                .filter(v ->
                                        kind.refusal(v, Kind.Around.NOTHING).isEmpty())
                                .orElseGet(kind::initial))));
        return new Value.Parts(parts);
    }

    Value.Parts schema(Kind.Around around) {
        Map<String, Value> properties = new LinkedHashMap<>();
        kinds.forEach((name, kind) -> properties.put(
                name, fixed.containsKey(name) ? Value.parts("const", fixed.get(name)) : kind.schema(around)));
        return object(new Value.Parts(properties), free());
    }

    Value.Parts read(Function<String, String> fields) {
        Map<String, Value> parts = new LinkedHashMap<>();
        kinds.forEach((name, kind) -> {
            try {
                parts.put(
                        name, fixed.containsKey(name) ? fixed.get(name) : kind.read(s -> fields.apply("." + name + s)));
            } catch (BadInputException wrong) {
                throw new BadInputException(Language.say("wrong.part", first(name), wrong.getMessage()), wrong.mend());
            }
        });
        return new Value.Parts(parts);
    }

    Map<String, String> fields(Value value) {
        Map<String, String> all = new LinkedHashMap<>();
        kinds.forEach((name, kind) -> ((Value.Parts) value).part(name).ifPresent(v -> kind.fields(v)
                .forEach((s, text) -> all.put("." + name + s, text))));
        return all;
    }

    /** The names of the parts that may be chosen. */
    public List<String> free() {
        return kinds.keySet().stream().filter(k -> !fixed.containsKey(k)).toList();
    }

    /** @param usual what a part is where a maker has said nothing of it: that is not told; may lack parts */
    String inWords(Map<String, Kind> usual) {
        List<String> free = new ArrayList<>();
        kinds.forEach((name, kind) -> {
            if (!fixed.containsKey(name)) {
                boolean told = !kind.allowed().parts().isEmpty() && !kind.equals(usual.get(name));
                free.add(told ? Language.say("allowed.part", said(name), kind.inWords()) : said(name));
            }
        });
        return free.isEmpty() ? Language.say("allowed.nothing") : String.join(", ", free);
    }
}

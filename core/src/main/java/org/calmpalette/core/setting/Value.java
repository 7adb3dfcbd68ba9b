package org.calmpalette.core.setting;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.JsonNodeFactory;

/**
 * What a setting holds, in the shapes of JSON: what is kept, sent and written into {@code palette.json} has the same
 * shape everywhere. What a shape means is said by the setting's {@link Kind}.
 */
public sealed interface Value {
    /** A text: also a colour, an address, the key of an option. */
    record Text(String text) implements Value {}

    /** A number without a fraction of zeros, so that 1.50 and 1.5 are equal. */
    record Number(BigDecimal number) implements Value {
        public Number {
            number = number.signum() == 0 ? BigDecimal.ZERO : number.stripTrailingZeros();
            number = number.scale() < 0 ? number.setScale(0) : number;
        }
    }

    /** With other texts in the stead of some, wherever they stand. */
    default Value withTexts(Map<String, String> others) {
        if (this instanceof Text t) {
            return new Text(others.getOrDefault(t.text(), t.text()));
        }
        if (this instanceof Many m) {
            return new Many(m.items().stream().map(v -> v.withTexts(others)).toList());
        }
        if (this instanceof Parts p) {
            Map<String, Value> each = new LinkedHashMap<>();
            p.parts().forEach((name, v) -> each.put(name, v.withTexts(others)));
            return new Parts(each);
        }
        return this;
    }

    record Flag(boolean on) implements Value {}

    record Many(List<Value> items) implements Value {
        public Many {
            items = List.copyOf(items);
        }
    }

    /** Named parts in the order in which they were written. */
    record Parts(Map<String, Value> parts) implements Value {
        public Parts {
            parts = Collections.unmodifiableMap(new LinkedHashMap<>(parts));
        }

        public Optional<Value> part(String name) {
            return Optional.ofNullable(parts.get(name));
        }

        public boolean has(String name) {
            return parts.containsKey(name);
        }

        /** The text of a part; empty if it has none. */
        public String text(String name) {
            return parts.get(name) instanceof Text t ? t.text() : "";
        }

        /** The number of a part; zero if it has none. */
        public BigDecimal number(String name) {
            return parts.get(name) instanceof Number n ? n.number() : BigDecimal.ZERO;
        }

        public boolean flag(String name) {
            return parts.get(name) instanceof Flag f && f.on();
        }

        public Parts with(String name, Value value) {
            Map<String, Value> more = new LinkedHashMap<>(parts);
            more.put(name, value);
            return new Parts(more);
        }
    }

    static Value of(String text) {
        return new Text(text);
    }

    static Value of(boolean on) {
        return new Flag(on);
    }

    static Value of(BigDecimal number) {
        return new Number(number);
    }

    static Value of(double number) {
        return new Number(BigDecimal.valueOf(number));
    }

    static Value of(List<String> texts) {
        return new Many(texts.stream().map(Value::of).toList());
    }

    /** Parts from names and values in turn; texts, numbers, booleans and null, which is left out, are taken as they are. */
    static Parts parts(Object... namesAndValues) {
        Map<String, Value> parts = new LinkedHashMap<>();
        for (int i = 0; i < namesAndValues.length; i += 2) {
            Object v = namesAndValues[i + 1];
            if (v != null) {
                parts.put(
                        (String) namesAndValues[i],
                        v instanceof Value value
                                ? value
                                : v instanceof Boolean b
                                        ? of(b)
                                        : v instanceof BigDecimal n
                                                ? of(n)
                                                : v instanceof Integer n ? of((double) n) : of(v.toString()));
            }
        }
        return new Parts(parts);
    }

    /** A text for each name. */
    static Parts texts(Map<String, String> texts) {
        Map<String, Value> parts = new LinkedHashMap<>();
        texts.forEach((name, text) -> parts.put(name, of(text)));
        return new Parts(parts);
    }

    /** The same as JSON. */
    default JsonNode json() {
        JsonNodeFactory make = JsonNodeFactory.instance;
        if (this instanceof Text t) {
            return make.stringNode(t.text());
        }
        if (this instanceof Number n) {
            return make.numberNode(n.number());
        }
        if (this instanceof Flag f) {
            return make.booleanNode(f.on());
        }
        if (this instanceof Many many) {
            var array = make.arrayNode();
            many.items().forEach(i -> array.add(i.json()));
            return array;
        }
        var object = make.objectNode();
        ((Parts) this).parts().forEach((name, value) -> object.set(name, value.json()));
        return object;
    }

    /** A value of JSON; null and what is missing become an empty text. Numbers beyond 1e15 are cut to it. */
    static Value of(JsonNode node) {
        if (node.isNumber()) {
            if (!node.isBigDecimal() && Double.isInfinite(node.asDouble())) {
                return of(1e15);
            }
            BigDecimal n = node.decimalValue();
            // An exponent such as 1e999999999 would fill the memory when it is written out.
            boolean huge = n.precision() - (long) n.scale() > 15;
            return huge
                    ? of(1e15 * n.signum())
                    : new Number(n.scale() > 20 ? n.setScale(20, java.math.RoundingMode.HALF_UP) : n);
        }
        if (node.isBoolean()) {
            return new Flag(node.asBoolean());
        }
        if (node.isArray()) {
            List<Value> items = new ArrayList<>();
            node.forEach(n -> items.add(of(n)));
            return new Many(items);
        }
        if (node.isObject()) {
            Map<String, Value> parts = new LinkedHashMap<>();
            node.properties().forEach(e -> parts.put(e.getKey(), of(e.getValue())));
            return new Parts(parts);
        }
        return new Text(node.asString(""));
    }
}

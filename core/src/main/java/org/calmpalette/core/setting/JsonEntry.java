package org.calmpalette.core.setting;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.calmpalette.core.BadInputException;

/** An object of a JSON file that is read part by part; it remembers where it stands and which of its keys nobody asked for. */
final class JsonEntry {
    private final Value.Parts parts;
    private final String at;
    private final Set<String> asked = new LinkedHashSet<>();
    private final List<JsonEntry> inside = new ArrayList<>();

    /** @param at the place in the file as {@code settings[2].allowed} */
    JsonEntry(Value value, String at) {
        if (!(value instanceof Value.Parts p)) {
            throw bad(at, "it is no object", "Write it between { and }.");
        }
        this.parts = p;
        this.at = at;
    }

    static JsonEntry none() {
        return new JsonEntry(Value.parts(), "");
    }

    String at(String key) {
        return at.isEmpty() ? key : at + "." + key;
    }

    String place() {
        return at;
    }

    Optional<Value> value(String key) {
        asked.add(key);
        return parts.part(key);
    }

    boolean has(String key) {
        return value(key).isPresent();
    }

    String text(String key) {
        return optionalText(key).orElseThrow(() -> bad(at(key), "it is missing", "Write \"" + key + "\": \"…\"."));
    }

    Optional<String> optionalText(String key) {
        return value(key).map(v -> {
            if (!(v instanceof Value.Text t)) {
                throw bad(at(key), "it is no text", "Write \"" + key + "\": \"…\".");
            }
            return t.text();
        });
    }

    Optional<BigDecimal> number(String key) {
        return value(key).map(v -> {
            if (!(v instanceof Value.Number n)) {
                throw bad(at(key), "it is no number", "Write \"" + key + "\": 12.");
            }
            return n.number();
        });
    }

    Optional<Integer> whole(String key) {
        return number(key).map(n -> {
            if (n.scale() > 0 || n.abs().compareTo(BigDecimal.valueOf(1_000_000_000)) > 0) {
                throw bad(at(key), "it is no whole number", "Write \"" + key + "\": 12.");
            }
            return n.intValueExact();
        });
    }

    boolean flag(String key) {
        return value(key)
                .map(v -> {
                    if (!(v instanceof Value.Flag f)) {
                        throw bad(at(key), "it is neither true nor false", "Write \"" + key + "\": true.");
                    }
                    return f.on();
                })
                .orElse(false);
    }

    List<Value> list(String key) {
        return value(key)
                .map(v -> {
                    if (!(v instanceof Value.Many m)) {
                        throw bad(at(key), "it is no list", "Put its parts between [ and ].");
                    }
                    return m.items();
                })
                .orElse(List.of());
    }

    List<String> texts(String key) {
        return list(key).stream()
                .map(v -> {
                    if (!(v instanceof Value.Text t)) {
                        throw bad(at(key), "the list holds something that is no text", "Write [\"…\", \"…\"].");
                    }
                    return t.text();
                })
                .toList();
    }

    List<JsonEntry> entries(String key) {
        List<JsonEntry> all = new ArrayList<>();
        List<Value> items = list(key);
        for (int i = 0; i < items.size(); i++) {
            all.add(new JsonEntry(items.get(i), at(key) + "[" + i + "]"));
        }
        inside.addAll(all);
        return all;
    }

    /** The object under a key; one without parts if there is none. */
    JsonEntry entry(String key) {
        JsonEntry e = new JsonEntry(value(key).orElse(Value.parts()), at(key));
        inside.add(e);
        return e;
    }

    Value.Parts parts() {
        asked.addAll(parts.parts().keySet());
        return parts;
    }

    Set<String> keys() {
        return parts.parts().keySet();
    }

    /** Keys that nobody asked for, here and inside, as places in the file. */
    List<String> unknown() {
        List<String> unknown = new ArrayList<>();
        parts.parts().keySet().stream()
                .filter(k -> !asked.contains(k))
                .map(this::at)
                .forEach(unknown::add);
        inside.forEach(e -> unknown.addAll(e.unknown()));
        return unknown;
    }

    static BadInputException bad(String at, String what, String mend) {
        return new PlacedException(at, what, mend);
    }

    /** Knows its place in the file, so that the line can be told. */
    static final class PlacedException extends BadInputException {
        private final String at;
        private final String what;

        PlacedException(String at, String what, String mend) {
            super(at + ": " + what, mend);
            this.at = at;
            this.what = what;
        }

        String at() {
            return at;
        }

        String what() {
            return what;
        }
    }
}

package org.calmpalette.app.settings;

import java.util.HashMap;
import java.util.Map;
import java.util.function.Function;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.setting.Kind;
import org.calmpalette.core.setting.Value;

/**
 * What a form answers, field by field: one that cannot be read keeps what it showed, and takes no other with it.
 *
 * @param value what is answered, the fields that cannot be read aside
 * @param fault why a field could not be read, or null
 */
public record Answer(Value value, BadInputException fault) {
    /** The name of all fields of a form begins so. */
    private static final String PREFIX = "v";

    /**
     * @param now what the fields show without this answer, by the name that follows the prefix
     * @throws BadInputException if nothing else was answered than what cannot be read
     */
    public static Answer read(Kind kind, Fields sent, Map<String, String> now) {
        try {
            return new Answer(kind.read(sent.of(PREFIX)), null);
        } catch (BadInputException fault) {
            Map<String, String> kept = new HashMap<>();
            for (Map.Entry<String, String> field : now.entrySet()) {
                if (sent.has(PREFIX + field.getKey())
                        && !sent.raw(PREFIX + field.getKey()).equals(field.getValue())) {
                    kept.put(field.getKey(), field.getValue());
                    if (!isRead(kind, sent, kept)) {
                        continue;
                    }
                    // Of what had to be put back until it could be read, only what cannot be read without stays so.
                    for (String name : Map.copyOf(kept).keySet()) {
                        String value = kept.remove(name);
                        if (!isRead(kind, sent, kept)) {
                            kept.put(name, value);
                        }
                    }
                    Value value = kind.read(with(sent, kept));
                    if (value.equals(kind.read(name -> now.getOrDefault(name, sent.raw(PREFIX + name))))) {
                        throw fault;
                    }
                    return new Answer(value, fault);
                }
            }
            throw fault;
        }
    }

    private static boolean isRead(Kind kind, Fields sent, Map<String, String> kept) {
        try {
            kind.read(with(sent, kept));
            return true;
        } catch (BadInputException wrong) {
            return false;
        }
    }

    private static Function<String, String> with(Fields sent, Map<String, String> kept) {
        return name -> kept.containsKey(name) ? kept.get(name) : sent.raw(PREFIX + name);
    }
}

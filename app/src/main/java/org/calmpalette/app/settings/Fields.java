package org.calmpalette.app.settings;

import java.math.BigDecimal;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import org.calmpalette.core.BadInputException;

/** The fields of a form that was sent. */
public record Fields(Map<String, String[]> sent) {
    /** The text of a field, without space around it; empty if it was not sent. */
    public String text(String name) {
        return raw(name).strip();
    }

    String raw(String name) {
        String[] values = sent.get(name);
        return values == null || values.length == 0 ? "" : values[0];
    }

    List<String> all(String name) {
        String[] values = sent.get(name);
        return values == null
                ? List.of()
                : Arrays.stream(values).filter(v -> !v.isBlank()).toList();
    }

    boolean has(String name) {
        return sent.containsKey(name);
    }

    /** A number, or null if the field is empty. @throws BadInputException if it holds something else */
    BigDecimal number(String name) {
        String text = text(name).replace(',', '.').replaceFirst("%$", "");
        if (text.isEmpty()) {
            return null;
        }
        if (text.length() > 20 || !text.matches("[+-]?(\\d+\\.?\\d*|\\.\\d+)")) {
            throw new BadInputException(
                    "“" + text(name) + "” is no number.", "Write one such as 12 or 1.5, or leave the field empty.");
        }
        return new BigDecimal(text);
    }

    /** What a kind reads its value from. */
    public Function<String, String> of(String prefix) {
        return suffix -> raw(prefix + suffix);
    }
}

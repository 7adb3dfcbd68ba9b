package org.calmpalette.core.setting;

import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.Map;
import org.calmpalette.core.BadInputException;

/** A named set of values, ready-made for an owner. */
public record Scheme(String key, String label, Map<String, Chosen> values) {
    public Scheme {
        if (label.isBlank() || label.length() > Place.LONGEST || key.isEmpty() || key.length() > Place.LONGEST) {
            throw new BadInputException(
                    "The scheme “" + (label.length() > 40 ? label.substring(0, 40) + "…" : label)
                            + "” has a name that is " + (label.isBlank() || key.isEmpty() ? "empty." : "too long."),
                    "Use 1 to " + Place.LONGEST + " characters, such as Autumn.");
        }
        values = Collections.unmodifiableMap(new LinkedHashMap<>(values));
    }
}

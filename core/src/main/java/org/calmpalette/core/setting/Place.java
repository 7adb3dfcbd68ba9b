package org.calmpalette.core.setting;

import org.calmpalette.core.BadInputException;

/** A named part of the page; settings are grouped by it. */
public record Place(String key, String label) {
    /** Characters of a label, and of a key. */
    public static final int LONGEST = 80;

    public Place {
        if (label.isBlank() || label.length() > LONGEST || key.isEmpty() || key.length() > LONGEST) {
            throw new BadInputException(
                    "The place “" + (label.length() > 40 ? label.substring(0, 40) + "…" : label)
                            + "” has a name that is " + (label.isBlank() || key.isEmpty() ? "empty." : "too long."),
                    "Use 1 to " + LONGEST + " characters, such as Header.");
        }
    }

    public static final Place EVERYWHERE = new Place("everywhere", "Everywhere");

    /** A key for a label that a person typed: lower case, hyphens for all that is not a letter or digit. */
    public static String keyOf(String label) {
        String key = label.toLowerCase(java.util.Locale.ROOT)
                .replaceAll("[^\\p{L}\\p{N}]+", "-")
                .replaceAll("^-|-$", "");
        return key.isEmpty() ? "place" : key;
    }
}

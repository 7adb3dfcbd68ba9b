package org.calmpalette.core.setting;

import java.util.Arrays;
import java.util.Locale;
import java.util.Optional;

/** Whose a stylesheet is, as the maker said it. */
public enum SheetOwner {
    /** The maker's own: edits go here. */
    MAKER,
    /** A framework's or parent theme's: its next version overwrites edits. */
    LIBRARY;

    /** As {@code palette.json} writes it. */
    public String word() {
        return name().toLowerCase(Locale.ROOT);
    }

    public static Optional<SheetOwner> of(String word) {
        return Arrays.stream(values()).filter(o -> o.word().equals(word)).findFirst();
    }
}

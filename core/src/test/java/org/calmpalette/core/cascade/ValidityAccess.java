package org.calmpalette.core.cascade;

import java.util.Locale;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.value.Viewport;

/** What the tests in the browser ask of classes that are not public. */
public final class ValidityAccess {
    private ValidityAccess() {}

    public static boolean media(String query, double width, double height) {
        return MediaQuery.matches(query, Viewport.of(width, height));
    }

    public static boolean supports(String condition) {
        return SupportsQuery.matches(condition);
    }

    /** A colour of the system as the computed style writes it; "none" for a word that is none. */
    public static String system(String word, boolean dark) {
        return SystemColors.get(word.toLowerCase(Locale.ROOT), dark)
                .map(Color::css)
                .orElse("none");
    }

    public static boolean valid(String property, String value) {
        return Expansion.supports(property, value);
    }
}

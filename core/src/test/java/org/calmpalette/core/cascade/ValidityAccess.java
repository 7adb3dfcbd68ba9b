package org.calmpalette.core.cascade;

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

    public static boolean valid(String property, String value) {
        return Expansion.supports(property, value);
    }
}

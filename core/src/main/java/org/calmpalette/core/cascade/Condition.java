package org.calmpalette.core.cascade;

import org.calmpalette.core.value.Viewport;

/** An at-rule around a rule that has to hold. */
record Condition(Kind kind, String text) {
    enum Kind {
        MEDIA,
        SUPPORTS,
        CONTAINER,
        STARTING_STYLE
    }

    boolean holds(Viewport window) {
        return switch (kind) {
            case MEDIA -> MediaQuery.matches(text, window);
            case SUPPORTS -> SupportsQuery.matches(text);
            // A container's size is layout's to decide; a rule under one counts as not applying, and is told so.
            case CONTAINER, STARTING_STYLE -> false;
        };
    }

    @Override
    public String toString() {
        return "@" + kind.name().toLowerCase(java.util.Locale.ROOT).replace('_', '-') + " " + text;
    }
}

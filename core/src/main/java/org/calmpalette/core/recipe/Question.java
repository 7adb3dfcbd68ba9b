package org.calmpalette.core.recipe;

import java.util.Set;

/**
 * What an owner could be asked of a part.
 *
 * @param id names it among those of the part
 * @param label as the owner reads it
 * @param element index of an element of the page whose look answers it today
 * @param property longhand, or {@code background} or {@code padding} where a rule is written for all of it
 * @param states pseudo-classes with which it holds, without the colon; none for the part at rest
 * @param names which elements it is about
 */
record Question(String id, String label, int element, String property, Set<String> states, Names names) {
    /** Which elements a question is about. */
    enum Names {
        /** The one that it holds. */
        ONE,
        /** All links of a header that look as most of them do. */
        LINKS,
        /** All neighbours that have their room from one declaration. */
        NEIGHBOURS
    }

    Question(String id, String label, int element, String property) {
        this(id, label, element, property, Set.of(), Names.ONE);
    }
}

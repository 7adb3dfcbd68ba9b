package org.calmpalette.core.promise;

import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.calmpalette.core.setting.Value;

/**
 * What a proof comes to, for all texts that stand in the same colours on the same grounds.
 *
 * @param page of the first of them, as a path
 * @param element its index among all elements of the page
 * @param selector how a person finds it
 * @param words its first words
 * @param width at which it is asked, CSS px; the others are asked with it
 * @param parts how many texts there are, over all pages and widths
 * @param pages on which they are
 * @param needed the contrast ratio of WCAG 2.2, 1.4.3: 4.5, or 3 for large text
 * @param worst kept: a ratio that is never fallen below; broken: the ratio of the case; unproven: 0
 * @param broken the choices that break it, by key; empty map where it is broken as made
 * @param why unproven: what keeps it from being decided
 */
public record Answer(
        String page,
        int element,
        String selector,
        String words,
        int width,
        int parts,
        Set<String> pages,
        double needed,
        State state,
        double worst,
        Optional<Map<String, Value>> broken,
        String why) {
    /** How far it is decided. */
    public enum State {
        /** For every allowed choice. */
        KEPT,
        /** There is an allowed choice that breaks it, and it was looked at. */
        BROKEN,
        /** Not decided; never said where it is known. */
        UNPROVEN
    }
}

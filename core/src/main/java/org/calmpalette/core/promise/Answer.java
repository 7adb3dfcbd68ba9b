package org.calmpalette.core.promise;

import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.calmpalette.core.setting.Value;

/**
 * What a promise comes to for one subject: a text with all others in the same colours on the same grounds, a part, a setting, or a page.
 *
 * @param page of the first part, as a path; empty where none is concerned
 * @param element its index among all elements of the page; -1 where no single part is meant
 * @param selector how a person finds it; the key where it is a setting
 * @param words its first words, or what it is called
 * @param width at which it is asked, CSS px; the others are asked with it
 * @param pseudoClass of the part, or of what can be in that state around it: empty at rest, else hover, focus, active or visited
 * @param parts how many parts are concerned, over all pages, widths and states
 * @param pages on which they are
 * @param needed readable: the contrast ratio of WCAG 2.2, 1.4.3, 4.5 or 3; light: kilobytes that a page may load; else 0
 * @param worst kept: what is never fallen below, or exceeded; broken: the number of the case; else 0
 * @param broken the choices that break it, by key; empty map where it is broken as made
 * @param why unproven: what keeps it from being decided; broken: what is wrong then, where the numbers do not say so
 */
public record Answer(
        Promise promise,
        String page,
        int element,
        String selector,
        String words,
        int width,
        String pseudoClass,
        int parts,
        Set<String> pages,
        double needed,
        State state,
        double worst,
        Optional<Map<String, Value>> broken,
        String why) {
    /** How far it is decided. */
    public enum State {
        /** There is an allowed choice that breaks it, and it was looked at. */
        BROKEN,
        /** Not decided; never said where it is known. */
        UNPROVEN,
        /** For every allowed choice. */
        KEPT
    }

    /** Names the subject of a promise as long as the page, its markup and the width stay. */
    public String id() {
        return promise.key()
                + (page.isEmpty() ? "" : " " + page)
                + " "
                + selector
                + (pseudoClass.isEmpty() ? "" : ":" + pseudoClass)
                + (width == 0 ? "" : " at " + width);
    }

    public boolean isBroken() {
        return state == State.BROKEN;
    }
}

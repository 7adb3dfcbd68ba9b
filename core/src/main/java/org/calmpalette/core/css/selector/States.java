package org.calmpalette.core.css.selector;

import org.jsoup.nodes.Element;

/** Which elements are in a state that only a person at the page brings about: hover, focus, active and their like. */
@FunctionalInterface
public interface States {
    /** No element is hovered, focused, pressed or visited. */
    States NONE = (element, pseudoClass) -> false;

    /** Every element could be in any state: what a selector may ever match. */
    States ANY = (element, pseudoClass) -> true;

    boolean has(Element element, String pseudoClass);
}

package org.calmpalette.core.css.selector;

import org.jsoup.nodes.Element;

/** Which elements are in a state that only a person at the page brings about: hover, focus, active and their like. */
@FunctionalInterface
public interface States {
    /** No element is hovered, focused, pressed or visited. */
    States NONE = (element, pseudoClass) -> false;

    /**
     * Every element could be in any state, and out of it: what a selector may ever match. A link may be visited and may be not, so
     * {@code :link}, {@code :visited}, {@code :hover} and {@code :not(:hover)} each find what they may find.
     */
    States ANY = new States() {
        @Override
        public boolean has(Element element, String pseudoClass) {
            return true;
        }

        @Override
        public boolean lacks(Element element, String pseudoClass) {
            return true;
        }

        @Override
        public States opposite() {
            return SURE;
        }
    };

    /** What a selector matches whatever the states are. */
    States SURE = new States() {
        @Override
        public boolean has(Element element, String pseudoClass) {
            return false;
        }

        @Override
        public boolean lacks(Element element, String pseudoClass) {
            return false;
        }

        @Override
        public States opposite() {
            return ANY;
        }
    };

    /** Whether an element is in a state, or could be. */
    boolean has(Element element, String pseudoClass);

    /** Whether an element is out of a state, or could be. */
    default boolean lacks(Element element, String pseudoClass) {
        return !has(element, pseudoClass);
    }

    /** With which the argument of {@code :not()} is asked: it may hold where its argument does not hold for sure, and the other way round. */
    default States opposite() {
        return this;
    }
}

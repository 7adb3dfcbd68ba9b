package org.calmpalette.core.css.selector;

import java.util.List;
import java.util.stream.Collectors;

/**
 * A compound selector.
 *
 * @param pseudoElement name of the pseudo-element that is meant, in lower case and without colons (with its arguments
 *     for {@code part()} and the like), or null for the element itself
 * @param pseudoStates pseudo-classes after the pseudo-element, such as {@code :hover}
 */
public record CompoundSelector(List<SimpleSelector> simples, String pseudoElement, List<SimpleSelector> pseudoStates) {
    Specificity specificity() {
        Specificity sum = pseudoElement == null ? Specificity.NONE : new Specificity(0, 0, 1);
        for (SimpleSelector s : simples) {
            sum = sum.plus(s.specificity());
        }
        for (SimpleSelector s : pseudoStates) {
            sum = sum.plus(s.specificity());
        }
        return sum;
    }

    /** The element that its pseudo-element belongs to (CSS Pseudo-Elements 4, section 2). */
    CompoundSelector originating() {
        return new CompoundSelector(simples, null, List.of());
    }

    @Override
    public String toString() {
        String own = simples.stream().map(Object::toString).collect(Collectors.joining());
        return own
                + (pseudoElement == null ? own.isEmpty() ? "*" : "" : "::" + pseudoElement)
                + pseudoStates.stream().map(Object::toString).collect(Collectors.joining());
    }
}

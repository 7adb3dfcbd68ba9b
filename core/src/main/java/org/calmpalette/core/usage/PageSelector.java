package org.calmpalette.core.usage;

import java.util.List;
import org.calmpalette.core.css.selector.ComplexSelector;
import org.calmpalette.core.css.selector.CompoundSelector;
import org.calmpalette.core.css.selector.SelectorList;
import org.calmpalette.core.css.selector.Stateless;

/** Turns the selector of a rule into one that finds the elements in a page whatever their state. */
public final class PageSelector {
    private PageSelector() {}

    /** One entry for each selector of the list; the states and pseudo-elements left out are told. */
    public static List<Painted> of(SelectorList list, String property) {
        return list.selectors().stream()
                .map(Stateless::of)
                .map(s -> new Painted(elements(s.selector()).toString(), property, s.states()))
                .toList();
    }

    private static ComplexSelector elements(ComplexSelector s) {
        return new ComplexSelector(
                s.compounds().stream()
                        .map(c -> new CompoundSelector(c.simples(), null, List.of()))
                        .toList(),
                s.combinators(),
                s.specificity());
    }
}

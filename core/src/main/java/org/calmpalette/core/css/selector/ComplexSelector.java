package org.calmpalette.core.css.selector;

import java.util.ArrayList;
import java.util.List;

/**
 * Compound selectors from left to right.
 *
 * @param combinators one between each two compounds; in a relative selector (inside {@code :has()}) one more, in front
 */
public record ComplexSelector(List<CompoundSelector> compounds, List<Combinator> combinators, Specificity specificity) {
    static ComplexSelector of(List<CompoundSelector> compounds, List<Combinator> combinators) {
        Specificity sum = Specificity.NONE;
        for (CompoundSelector c : compounds) {
            sum = sum.plus(c.specificity());
        }
        return new ComplexSelector(List.copyOf(compounds), List.copyOf(combinators), sum);
    }

    boolean isRelative() {
        return combinators.size() == compounds.size();
    }

    /** The compound on the right: what is meant. */
    public CompoundSelector subject() {
        return compounds.get(compounds.size() - 1);
    }

    /** What stands from one of its compounds on; of a selector that is not relative. */
    public ComplexSelector from(int compound) {
        return of(compounds.subList(compound, compounds.size()), combinators.subList(compound, combinators.size()));
    }

    /** Without the pseudo-element: what that belongs to. */
    public ComplexSelector originating() {
        List<CompoundSelector> all = new ArrayList<>(compounds);
        all.set(all.size() - 1, subject().originating());
        return of(all, combinators);
    }

    /** Name of the pseudo-element that is meant, or null. */
    public String pseudoElement() {
        return subject().pseudoElement();
    }

    @Override
    public String toString() {
        StringBuilder out = new StringBuilder();
        int lead = isRelative() ? 1 : 0;
        if (lead == 1 && combinators.get(0) != Combinator.DESCENDANT) {
            out.append(combinators.get(0).css().stripLeading());
        }
        for (int i = 0; i < compounds.size(); i++) {
            if (i > 0) {
                out.append(combinators.get(i - 1 + lead).css());
            }
            out.append(compounds.get(i));
        }
        return out.toString();
    }
}

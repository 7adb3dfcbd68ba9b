package org.calmpalette.core.cascade;

import java.util.Comparator;
import org.calmpalette.core.css.Node;
import org.calmpalette.core.css.selector.Specificity;

/**
 * A declaration that holds for an element.
 *
 * @param declaration null for a presentational attribute
 * @param value as it is written, without {@code !important}
 * @param layerRank strength of its layer, the larger the stronger for a normal declaration
 * @param proximity steps from the element to the root of its scope; the largest number where there is no scope
 * @param order of appearance, rules before declarations
 */
record CascadedDeclaration(
        FlatRule rule,
        Node.Declaration declaration,
        String property,
        String value,
        boolean important,
        Origin origin,
        int layerRank,
        int proximity,
        Specificity specificity,
        long order) {

    /** The weaker first: CSS Cascade 5, section 6.1, and 6, section 2.4, for proximity. */
    static final Comparator<CascadedDeclaration> STRENGTH = Comparator.comparingInt(CascadedDeclaration::originRank)
            .thenComparingInt(a -> a.origin == Origin.STYLE_ATTRIBUTE ? 1 : 0)
            .thenComparingInt(a -> a.important ? -a.layerRank : a.layerRank)
            .thenComparing(CascadedDeclaration::specificity)
            .thenComparing(
                    Comparator.comparingInt(CascadedDeclaration::proximity).reversed())
            .thenComparingLong(CascadedDeclaration::order);

    private int originRank() {
        return switch (origin) {
            case USER_AGENT -> important ? 4 : 0;
            case PRESENTATION -> 1;
            case AUTHOR, STYLE_ATTRIBUTE -> important ? 3 : 2;
        };
    }
}

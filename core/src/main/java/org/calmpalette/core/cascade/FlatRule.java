package org.calmpalette.core.cascade;

import java.util.List;
import org.calmpalette.core.css.Node;
import org.calmpalette.core.css.selector.SelectorList;

/**
 * A run of declarations with the selectors that they hold for, nesting resolved.
 *
 * @param selectors null for a style attribute and presentational attributes
 * @param layer dotted name of the cascade layer, empty for none
 * @param scope null for none
 * @param shownSelector as it is told to a person
 */
record FlatRule(
        SheetSource source,
        SelectorList selectors,
        String shownSelector,
        String layer,
        List<Condition> conditions,
        Scope scope,
        List<Node.Declaration> declarations) {}

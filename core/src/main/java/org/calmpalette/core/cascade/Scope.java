package org.calmpalette.core.cascade;

import org.calmpalette.core.css.selector.SelectorList;

/**
 * {@code @scope}: CSS Cascade 6, section 2.5.
 *
 * @param roots elements that may be the scope's root
 * @param limits elements below a root that lie outside with all they hold; null if there are none
 */
record Scope(SelectorList roots, SelectorList limits) {}

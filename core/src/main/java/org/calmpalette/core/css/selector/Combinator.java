package org.calmpalette.core.css.selector;

/** How two compound selectors hang together: Selectors 4, section 16. */
public enum Combinator {
    DESCENDANT(" "),
    CHILD(" > "),
    NEXT_SIBLING(" + "),
    SUBSEQUENT_SIBLING(" ~ ");

    private final String css;

    Combinator(String css) {
        this.css = css;
    }

    String css() {
        return css;
    }
}

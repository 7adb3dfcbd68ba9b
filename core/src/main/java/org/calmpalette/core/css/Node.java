package org.calmpalette.core.css;

import java.util.List;

/** A rule or a declaration of a stylesheet. Positions are indices into the sheet's tokens. */
public sealed interface Node permits Node.Rule, Node.Declaration {
    /** The first token. */
    int first();

    /** The token after the last one. */
    int end();

    /** A rule: with a block, or (for at-rules only) a statement. */
    sealed interface Rule extends Node permits StyleRule, AtRule {
        /** First token of the prelude: the selector, or what follows the at-rule's name. */
        int preludeFirst();

        int preludeEnd();

        /** What the block holds, in order; empty for a statement. */
        List<Node> children();
    }

    /** A rule with a selector as its prelude (in {@code @keyframes}, a position). */
    record StyleRule(int first, int end, int preludeFirst, int preludeEnd, List<Node> children) implements Rule {}

    /**
     * An at-rule.
     *
     * @param name without the @, in lower case
     * @param hasBlock false for a statement such as {@code @import}
     */
    record AtRule(
            String name, int first, int end, int preludeFirst, int preludeEnd, boolean hasBlock, List<Node> children)
            implements Rule {}

    /**
     * A declaration. Its value runs from {@code valueFirst} to before {@code valueEnd}, without blanks around it and
     * without {@code !important}.
     *
     * @param property in lower case, but a custom property as it is written
     * @param end the token after the value and {@code !important}; the semicolon is not part of it
     */
    record Declaration(String property, int first, int end, int valueFirst, int valueEnd, boolean important)
            implements Node {
        public boolean isCustom() {
            return property.startsWith("--");
        }
    }
}

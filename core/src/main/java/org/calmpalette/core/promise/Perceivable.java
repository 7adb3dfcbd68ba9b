package org.calmpalette.core.promise;

import java.util.Locale;

/**
 * What of an element has to be seen: letters (WCAG 2.2, 1.4.3), or what tells one that a part is there and what it is for (1.4.11,
 * Non-text Contrast).
 */
public enum Perceivable {
    /** The words that stand in an element or in a field. */
    TEXT("", ""),
    /** Words and signs that a stylesheet writes before an element's own. */
    BEFORE("::before", "what the stylesheet writes before it"),
    /** Words and signs that a stylesheet writes after an element's own. */
    AFTER("::after", "what the stylesheet writes after it"),
    /** A drawing that stands where words might. */
    ICON(" icon", "its icon"),
    /** The border of a field, or its ground where that is another one than what is around it. */
    EDGE(" edge", "its edge"),
    /** The outline of what the keyboard has come to. */
    OUTLINE(" outline", "its outline");

    private final String suffix;
    private final String label;

    Perceivable(String suffix, String label) {
        this.suffix = suffix;
        this.label = label;
    }

    /** As JSON names it. */
    public String key() {
        return name().toLowerCase(Locale.ROOT);
    }

    /** What follows the selector of the element; empty for its text. */
    String suffix() {
        return suffix;
    }

    /** For people, such as “its edge”; empty for its text. */
    public String label() {
        return label;
    }

    /** Whether it is words or signs that the element's generated content holds. */
    boolean isGenerated() {
        return this == BEFORE || this == AFTER;
    }

    /** Whether it lies around the element, on what is around that. */
    boolean isAround() {
        return this == EDGE || this == OUTLINE;
    }

    /** The pseudo-element it belongs to; null for the element itself. */
    String pseudoElement() {
        return isGenerated() ? key() : null;
    }
}

package org.calmpalette.core.part;

import org.calmpalette.core.cascade.Because;

/** The steps of the cascade in words for makers. */
public final class StepWords {
    private StepWords() {}

    /** Goes on after the declaration that wins: “…, which comes later”. */
    public static String ofTheWinner(Because because) {
        return switch (because.step()) {
            case IMPORTANCE -> "which is !important";
            case ORDER -> "which comes later";
            case SPECIFICITY -> "whose selector is more specific";
            case LAYER -> "whose cascade layer is stronger";
            case STYLE_ATTRIBUTE -> "in a style attribute";
            case ORIGIN -> "which is the theme's own";
            case SCOPE -> "whose scope is nearer";
            case INVALID -> "which browsers do not understand";
            case DECIDES, INHERITS, INVALID_COMPUTED, CONDITION -> because.toString();
        };
    }

    /** Goes on after the declaration that loses: “…: the winner comes later”. */
    public static String ofTheLoser(Because because) {
        return switch (because.step()) {
            case IMPORTANCE -> "the winner is !important";
            case ORDER -> "the winner comes later";
            case SPECIFICITY -> "the winner's selector is more specific";
            case LAYER -> "the winner's cascade layer is stronger";
            case STYLE_ATTRIBUTE -> "the winner stands in a style attribute";
            case ORIGIN -> "the theme's own styles win over it";
            case SCOPE -> "the winner's scope is nearer";
            case INVALID -> "browsers do not understand it";
            case DECIDES, INHERITS, INVALID_COMPUTED, CONDITION -> because.toString();
        };
    }
}

package org.calmpalette.core.cascade;

/**
 * Why a declaration does not decide, or what is particular about the one that does.
 *
 * @param step of the cascade
 * @param detail such as the condition that is not met; may be empty
 */
public record Because(Step step, String detail) {
    /** Nothing particular: it decides. */
    public static final Because DECIDES = new Because(Step.DECIDES, "");

    /** The steps at which one declaration loses against another: CSS Cascade 5, section 6.1, and what keeps one out of it. */
    public enum Step {
        DECIDES(""),
        ORIGIN("origin"),
        IMPORTANCE("importance"),
        STYLE_ATTRIBUTE("style attribute"),
        LAYER("layer"),
        SPECIFICITY("specificity"),
        /** CSS Cascade 6, section 2.4. */
        SCOPE("scope"),
        ORDER("order"),
        /** It hands the decision on to the parent. */
        INHERITS("inherits"),
        /** Browsers do not understand the value. */
        INVALID("invalid"),
        /** CSS Variables 1, section 3.1. */
        INVALID_COMPUTED("invalid at computed-value time"),
        CONDITION("condition not met");

        private final String word;

        Step(String word) {
            this.word = word;
        }
    }

    static Because of(Step step) {
        return new Because(step, "");
    }

    /** The step's name with the detail, as the command line gives it. */
    @Override
    public String toString() {
        return detail.isEmpty() ? step.word : step.word + ": " + detail;
    }
}

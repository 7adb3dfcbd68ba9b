package org.calmpalette.core.setting;

import java.math.BigDecimal;
import java.util.function.UnaryOperator;
import org.calmpalette.core.BadInputException;

/**
 * What a maker promises of two colour settings besides what pages show: that they keep a contrast ratio (WCAG 2.2) whatever is chosen.
 *
 * @param one key of a setting
 * @param other key of another one
 * @param contrast 1 to 21
 */
public record Between(String one, String other, BigDecimal contrast) {
    public Between {
        if (one.equals(other)) {
            throw new BadInputException("A colour has no contrast with itself.", "Choose two settings.");
        }
        if (contrast.doubleValue() < 1 || contrast.doubleValue() > 21) {
            throw new BadInputException(
                    "A contrast ratio lies between 1 and 21.", "Write 4.5 for text, 3 for what is large or no text.");
        }
    }

    Between renamed(UnaryOperator<String> name) {
        return new Between(name.apply(one), name.apply(other), contrast);
    }

    public boolean names(String key) {
        return one.equals(key) || other.equals(key);
    }

    /** Whether it is about the same two. */
    public boolean isLike(Between b) {
        return b.names(one) && b.names(other);
    }
}

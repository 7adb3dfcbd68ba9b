package org.calmpalette.core.setting;

import java.math.BigDecimal;
import java.util.function.UnaryOperator;
import org.calmpalette.core.BadInputException;

/**
 * What a maker promises of two colour settings besides what pages show, whatever is chosen: that they keep a contrast ratio (WCAG 2.2), or
 * a distance for every colour vision, or both.
 *
 * @param one key of a setting
 * @param other key of another one
 * @param contrast 1 to 21; null where none is promised
 * @param distance in OKLab (CSS Color 4, section 13.2), over 0 to 1, where 0.02 can just be noticed; null where none is promised
 */
public record Between(String one, String other, BigDecimal contrast, BigDecimal distance) {
    public Between {
        if (one.equals(other)) {
            throw new BadInputException("A colour has no contrast with itself.", "Choose two settings.");
        }
        if (contrast == null && distance == null) {
            throw new BadInputException(
                    "Neither a contrast nor a distance is promised.", "Write one of the two, or both.");
        }
        if (distance != null && (distance.doubleValue() <= 0 || distance.doubleValue() > 1)) {
            throw new BadInputException(
                    "A distance lies over 0 and up to 1, that of black and white.",
                    "Write 0.1 for colours that are clearly told apart.");
        }
        if (contrast != null && (contrast.doubleValue() < 1 || contrast.doubleValue() > 21)) {
            throw new BadInputException(
                    "A contrast ratio lies between 1 and 21.", "Write 4.5 for text, 3 for what is large or no text.");
        }
    }

    Between renamed(UnaryOperator<String> name) {
        return new Between(name.apply(one), name.apply(other), contrast, distance);
    }

    /** With what another one promises of the same two as well. */
    public Between and(Between more) {
        return new Between(
                one,
                other,
                more.contrast == null ? contrast : more.contrast,
                more.distance == null ? distance : more.distance);
    }

    public boolean names(String key) {
        return one.equals(key) || other.equals(key);
    }

    /** Whether it is about the same two. */
    public boolean isLike(Between b) {
        return b.names(one) && b.names(other);
    }
}

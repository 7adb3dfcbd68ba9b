package org.calmpalette.core.setting;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.language.Language;

/**
 * Bounds of a number.
 *
 * @param step numbers lie on whole multiples of it, counted from the least where there is one, else from zero, as HTML's number
 *     fields count them (HTML, section 4.10.5.3.8, “step base”); null for none
 */
public record Range(BigDecimal least, BigDecimal most, BigDecimal step) {
    /** No number of a setting is smaller or larger, and none has more than four places after the point. */
    static final BigDecimal FARTHEST = BigDecimal.valueOf(100_000);

    static final BigDecimal FINEST = new BigDecimal("0.0001");
    static final Range ANY = new Range(FARTHEST.negate(), FARTHEST, null);

    public Range {
        if (least.compareTo(most) > 0) {
            throw new BadInputException(
                    "The least, " + least.toPlainString() + ", is more than the most, " + most.toPlainString() + ".",
                    "Swap the two.");
        }
        if (least.compareTo(FARTHEST.negate()) < 0 || most.compareTo(FARTHEST) > 0) {
            throw new BadInputException("A number lies between -100000 and 100000.", "Write bounds between them.");
        }
        if (step != null
                && (step.compareTo(FINEST) < 0 || step.remainder(FINEST).signum() != 0)) {
            throw new BadInputException("A step is 0.0001 or a multiple of it.", "Write a step such as 0.5 or 1.");
        }
        BigDecimal first = isOpen(least) ? BigDecimal.ZERO : least;
        if (step != null
                && !isOpen(most)
                && most.subtract(first).remainder(step).signum() != 0) {
            BigDecimal last = most.subtract(most.subtract(first).remainder(step));
            throw new BadInputException(
                    "The most, " + plain(most) + ", does not lie on the steps of " + plain(step) + " from "
                            + plain(first) + ".",
                    "Write " + plain(last) + " or " + plain(last.add(step)) + ", or another step.");
        }
        if (step != null
                && first.remainder(step).signum() != 0
                && (isOpen(most) || most.subtract(first).divide(step).compareTo(MOST_STEPS) > 0)) {
            throw new BadInputException(
                    "Steps that are counted from " + plain(first) + " need an end, at most " + MOST_STEPS
                            + " steps away.",
                    "Write a most, or let the least be a multiple of " + plain(step) + ".");
        }
    }

    /** So many values a schema lists one by one: JSON Schema counts multiples from zero only (Validation, section 6.2.1). */
    private static final BigDecimal MOST_STEPS = BigDecimal.valueOf(1_000);

    private BigDecimal first() {
        return isOpen(least) ? BigDecimal.ZERO : least;
    }

    /** The least that was set; null for none. */
    public BigDecimal lower() {
        return isOpen(least) ? null : least;
    }

    /** The most that was set; null for none. */
    public BigDecimal upper() {
        return isOpen(most) ? null : most;
    }

    private static boolean isOpen(BigDecimal bound) {
        return bound.abs().compareTo(FARTHEST) == 0;
    }

    /** @param at for messages */
    static Range of(JsonEntry allowed) {
        return new Range(
                allowed.number("least").orElse(FARTHEST.negate()),
                allowed.number("most").orElse(FARTHEST),
                allowed.number("step").orElse(null));
    }

    /** The bounds that were set, under their names. */
    Value.Parts parts() {
        return Value.parts("least", isOpen(least) ? null : least, "most", isOpen(most) ? null : most, "step", step);
    }

    Optional<Refusal> refusal(BigDecimal n, String unit) {
        if (n.compareTo(least) < 0 || n.compareTo(most) > 0) {
            return Optional.of(new Refusal.OutOfRange(n, unit, this));
        }
        if (step != null && n.subtract(first()).remainder(step).signum() != 0) {
            return Optional.of(new Refusal.OffStep(n, unit, step, first()));
        }
        return Optional.empty();
    }

    public boolean isAny() {
        return isOpen(least) && isOpen(most) && step == null;
    }

    public String inWords(String unit) {
        String bounds = isOpen(least) && isOpen(most)
                ? Language.say("allowed.any", unit)
                : isOpen(most)
                        ? Language.say("allowed.from", least, unit)
                        : isOpen(least)
                                ? Language.say("allowed.up-to", most, unit)
                                : Language.say("allowed.between", least, most, unit);
        return step == null ? bounds : Language.say("allowed.steps", bounds, step);
    }

    Value.Parts schema() {
        if (step != null && first().remainder(step).signum() != 0) {
            List<Value> each = new ArrayList<>();
            for (BigDecimal n = least; n.compareTo(most) <= 0; n = n.add(step)) {
                each.add(Value.of(n));
            }
            return Value.parts("enum", new Value.Many(each));
        }
        return Value.parts(
                "type", "number", "minimum", least, "maximum", most, "multipleOf", step == null ? FINEST : step);
    }

    /** A number within what any setting may hold. @throws BadInputException if it is not */
    static BigDecimal normal(Value given, String label) {
        if (!(given instanceof Value.Number n)) {
            throw Kind.wrong(given, label, Language.say("number.write"));
        }
        if (n.number().abs().compareTo(FARTHEST) > 0
                || n.number().remainder(FINEST).signum() != 0) {
            throw Kind.wrong(given, label, Language.say("number.write.within"));
        }
        return n.number();
    }

    /** Reads what a person typed, with a point or a comma. */
    static Value typed(String text, String label) {
        String t = text.strip().replace(',', '.').replace('−', '-');
        if (t.length() > 24 || !t.matches("[+-]?(\\d+\\.?\\d*|\\.\\d+)")) {
            throw Kind.wrong(Value.of(text.strip()), label, Language.say("number.write"));
        }
        return Value.of(new BigDecimal(t));
    }

    public static String plain(BigDecimal n) {
        return n.toPlainString();
    }
}

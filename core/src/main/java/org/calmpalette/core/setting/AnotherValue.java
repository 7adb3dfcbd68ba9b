package org.calmpalette.core.setting;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.calmpalette.core.BadInputException;

/** A value that a setting allows and does not have: what is made a setting is tried with it, since today's value shows nothing. */
public final class AnotherValue {
    private static final List<String> FACTORS = List.of("1.25", "0.8", "1.5", "2", "0.5");
    private static final int[] PIXELS = {4, 8, 16, 24, 32, 48};
    private static final String[] NUMBERS = {"700", "300", "2", "0.8", "50"};
    private static final String[] COLORS = {"#2b8a3e", "#ffffff", "#111111", "#333333"};

    private AnotherValue() {}

    /** @return empty for a kind of which no other value is known, and for a setting that allows but one */
    public static Optional<Value> of(Kind kind, Value now) {
        return all(kind, now).stream().findFirst();
    }

    /** Several of them, such as all colours that may be chosen. */
    public static List<Value> all(Kind kind, Value now) {
        List<Value> tries = new ArrayList<>();
        if (kind instanceof ChoiceKind c) {
            c.options().forEach(o -> tries.add(Value.of(o.key())));
        } else if (kind instanceof YesNoKind) {
            tries.add(new Value.Flag(!now.equals(new Value.Flag(true))));
        } else if (now instanceof Value.Parts p && p.has("unit")) {
            for (String by : FACTORS) {
                tries.add(p.with(
                        "value",
                        new Value.Number(
                                p.number("value").multiply(new BigDecimal(by)).setScale(2, RoundingMode.HALF_UP))));
            }
            for (int px : PIXELS) {
                tries.add(Value.parts("value", px, "unit", "px"));
            }
        } else if (now instanceof Value.Number) {
            for (String n : NUMBERS) {
                tries.add(new Value.Number(new BigDecimal(n)));
            }
        } else if (kind instanceof ColorKind c) {
            c.swatches().forEach(s -> tries.add(Value.of(s)));
            for (String color : COLORS) {
                tries.add(Value.of(color));
            }
        }
        return tries.stream()
                .filter(v -> !v.equals(now) && isAllowed(kind, v))
                .distinct()
                .toList();
    }

    private static boolean isAllowed(Kind kind, Value v) {
        try {
            return kind.refusal(kind.normal(v), Kind.Around.NOTHING).isEmpty();
        } catch (BadInputException e) {
            return false;
        }
    }
}

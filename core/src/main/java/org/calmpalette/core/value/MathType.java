package org.calmpalette.core.value;

import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;

/**
 * What kind of value a calculation gives, without working it out: CSS Values and Units 4, section 10.9, and CSS Typed OM 1 for adding and
 * multiplying types. A percentage counts as the length that it is of.
 *
 * @param length power of length, 1 for a length, 0 for a number
 * @param angle power of angle
 * @param time power of time
 * @param percent whether a percentage takes part
 */
record MathType(int length, int angle, int time, boolean percent) {
    private static final MathType NUMBER = new MathType(0, 0, 0, false);
    private static final MathType ANGLE = new MathType(0, 1, 0, false);
    private static final Set<String> ANGLES = Set.of("deg", "grad", "rad", "turn");
    private static final int MOST_NESTED = 32;

    boolean isNumber() {
        return length == 0 && angle == 0 && time == 0;
    }

    boolean isLength() {
        return length == 1 && angle == 0 && time == 0;
    }

    /** Empty for a calculation that is not valid. */
    static Optional<MathType> of(ComponentValue function) {
        return Optional.ofNullable(function(function, 0));
    }

    private static MathType function(ComponentValue f, int depth) {
        if (depth > MOST_NESTED) {
            return null;
        }
        List<List<ComponentValue>> arguments = ComponentValue.commaSeparated(ComponentValue.read(f.inside()));
        String name = f.name().toLowerCase(Locale.ROOT);
        boolean strategy = name.equals("round")
                && arguments.get(0).size() == 1
                && List.of("nearest", "up", "down", "to-zero")
                        .contains(arguments.get(0).get(0).name());
        if (strategy) {
            arguments = arguments.subList(1, arguments.size());
        }
        MathType first = null;
        boolean alike = true;
        boolean percent = false;
        for (List<ComponentValue> argument : arguments) {
            if (name.equals("clamp") && argument.size() == 1 && argument.get(0).isIdent("none")) {
                continue;
            }
            MathType t = sum(argument, depth + 1);
            if (t == null) {
                return null;
            }
            percent |= t.percent;
            first = first == null ? t : first;
            alike &= t.isLike(first);
        }
        int n = arguments.size();
        if (first == null) {
            return null;
        }
        MathType same = alike ? new MathType(first.length, first.angle, first.time, percent) : null;
        boolean number = alike && first.isNumber();
        return switch (name) {
            case "calc", "-webkit-calc", "abs" -> n == 1 ? same : null;
            case "min", "max", "hypot" -> same;
            case "clamp" -> n == 3 ? same : null;
            case "round" -> n == 2 || n == 1 && number ? same : null;
            case "mod", "rem" -> n == 2 ? same : null;
            case "sign" -> n == 1 ? NUMBER : null;
            case "sin", "cos", "tan" -> n == 1 && (number || first.isLike(ANGLE)) ? NUMBER : null;
            case "asin", "acos", "atan" -> n == 1 && number ? ANGLE : null;
            case "atan2" -> n == 2 && alike ? ANGLE : null;
            case "pow" -> n == 2 && number ? NUMBER : null;
            case "sqrt", "exp" -> n == 1 && number ? NUMBER : null;
            case "log" -> n <= 2 && number ? NUMBER : null;
            default -> null;
        };
    }

    private boolean isLike(MathType other) {
        return length == other.length && angle == other.angle && time == other.time;
    }

    private static MathType sum(List<ComponentValue> parts, int depth) {
        int[] at = {0};
        MathType total = product(parts, at, depth);
        while (total != null && at[0] < parts.size()) {
            ComponentValue sign = parts.get(at[0]++);
            boolean sum = sign.kind() == ComponentValue.Kind.OTHER
                    && (sign.name().equals("+") || sign.name().equals("-"));
            MathType next = sum ? product(parts, at, depth) : null;
            total = next != null && next.isLike(total)
                    ? new MathType(total.length, total.angle, total.time, total.percent || next.percent)
                    : null;
        }
        return total;
    }

    private static MathType product(List<ComponentValue> parts, int[] at, int depth) {
        MathType value = value(parts, at, depth);
        while (value != null && at[0] < parts.size()) {
            ComponentValue sign = parts.get(at[0]);
            boolean times =
                    sign.kind() == ComponentValue.Kind.OTHER && sign.name().equals("*");
            if (!times && sign.kind() != ComponentValue.Kind.SLASH) {
                return value;
            }
            at[0]++;
            MathType next = value(parts, at, depth);
            if (next == null) {
                return null;
            }
            int by = times ? 1 : -1;
            value = new MathType(
                    value.length + by * next.length,
                    value.angle + by * next.angle,
                    value.time + by * next.time,
                    value.percent || next.percent);
        }
        return value;
    }

    private static MathType value(List<ComponentValue> parts, int[] at, int depth) {
        if (at[0] >= parts.size()) {
            return null;
        }
        ComponentValue p = parts.get(at[0]++);
        return switch (p.kind()) {
            case NUMBER -> NUMBER;
            case PERCENTAGE -> new MathType(1, 0, 0, true);
            case DIMENSION ->
                ANGLES.contains(p.name())
                        ? ANGLE
                        : p.name().equals("s") || p.name().equals("ms")
                                ? new MathType(0, 0, 1, false)
                                : Lengths.isUnit(p.name()) ? new MathType(1, 0, 0, false) : null;
            case BLOCK -> p.name().equals("(") ? sum(ComponentValue.read(p.inside()), depth + 1) : null;
            case FUNCTION -> Lengths.isMath(p) ? function(p, depth + 1) : null;
            case IDENT ->
                Set.of("pi", "e", "infinity", "-infinity", "nan")
                                .contains(p.name().toLowerCase(Locale.ROOT))
                        ? NUMBER
                        : null;
            default -> null;
        };
    }
}

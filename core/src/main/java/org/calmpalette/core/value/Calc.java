package org.calmpalette.core.value;

import java.util.ArrayList;
import java.util.List;
import java.util.OptionalDouble;
import org.calmpalette.core.value.Lengths.Sum;

/** Math functions: CSS Values and Units 4, section 10. */
final class Calc {
    /** Not a valid sum, or one that only layout can decide. It carries no trace. */
    static final class NotDecided extends RuntimeException {
        NotDecided() {
            super(null, null, false, false);
        }
    }

    private static final int MOST_NESTED = 32;
    private final Lengths.Base base;

    Calc(Lengths.Base base) {
        this.base = base;
    }

    private static void require(boolean condition) {
        if (!condition) {
            throw new NotDecided();
        }
    }

    Sum function(ComponentValue part, int depth) {
        require(depth < MOST_NESTED);
        List<List<ComponentValue>> arguments = ComponentValue.commaSeparated(ComponentValue.read(part.inside()));
        if (part.name().equals("calc") || part.name().equals("-webkit-calc")) {
            require(arguments.size() == 1);
            return sum(arguments.get(0), depth + 1);
        }
        String strategy = "nearest";
        if (part.name().equals("round")
                && arguments.get(0).size() == 1
                && List.of("nearest", "up", "down", "to-zero")
                        .contains(arguments.get(0).get(0).name())) {
            strategy = arguments.get(0).get(0).name();
            arguments = arguments.subList(1, arguments.size());
        }
        List<Sum> values = new ArrayList<>();
        for (List<ComponentValue> argument : arguments) {
            if (part.name().equals("clamp")
                    && argument.size() == 1
                    && argument.get(0).isIdent("none")) {
                values.add(null);
            } else {
                values.add(sum(argument, depth + 1));
            }
        }
        return apply(part.name(), strategy, values);
    }

    private static Sum apply(String name, String strategy, List<Sum> v) {
        switch (name) {
            case "min", "max" -> {
                Sum best = v.get(0);
                for (Sum s : v) {
                    alike(best, s);
                    best = (name.equals("min") ? amount(s) < amount(best) : amount(s) > amount(best)) ? s : best;
                }
                return best;
            }
            case "clamp" -> {
                require(v.size() == 3 && v.get(1) != null);
                Sum value = v.get(1);
                if (v.get(2) != null) {
                    alike(value, v.get(2));
                    value = amount(v.get(2)) < amount(value) ? v.get(2) : value;
                }
                if (v.get(0) != null) {
                    alike(value, v.get(0));
                    value = amount(v.get(0)) > amount(value) ? v.get(0) : value;
                }
                return value;
            }
            case "abs" -> {
                return amount(v.get(0)) < 0 ? scaled(v.get(0), -1) : v.get(0);
            }
            case "sign" -> {
                return plain(Math.signum(amount(v.get(0))));
            }
            case "round" -> {
                Sum by = v.size() > 1 ? v.get(1) : plain(1);
                alike(v.get(0), by);
                double a = amount(v.get(0));
                double b = Math.abs(amount(by));
                double rounded =
                        switch (strategy) {
                            case "up" -> Math.ceil(a / b) * b;
                            case "down" -> Math.floor(a / b) * b;
                            case "to-zero" -> (a < 0 ? Math.ceil(a / b) : Math.floor(a / b)) * b;
                            default -> Math.floor(a / b + 0.5) * b;
                        };
                return v.get(0).percent() != 0
                        ? new Sum(0, rounded, false)
                        : new Sum(rounded, 0, v.get(0).number());
            }
            case "mod", "rem" -> {
                require(v.size() == 2);
                alike(v.get(0), v.get(1));
                double a = amount(v.get(0));
                double b = amount(v.get(1));
                double rest = name.equals("rem") ? a % b : a - b * Math.floor(a / b);
                return v.get(0).percent() != 0
                        ? new Sum(0, rest, false)
                        : new Sum(rest, 0, v.get(0).number());
            }
            case "hypot" -> {
                double squares = 0;
                for (Sum s : v) {
                    alike(v.get(0), s);
                    squares += amount(s) * amount(s);
                }
                return new Sum(Math.sqrt(squares), 0, v.get(0).number());
            }
            default -> {
                v.forEach(s -> require(s != null && s.number()));
                double a = v.get(0).px();
                return plain(
                        switch (name) {
                            case "sqrt" -> Math.sqrt(a);
                            case "exp" -> Math.exp(a);
                            case "pow" -> Math.pow(a, v.get(1).px());
                            case "log" ->
                                v.size() > 1 ? Math.log(a) / Math.log(v.get(1).px()) : Math.log(a);
                            case "sin" -> Math.sin(a);
                            case "cos" -> Math.cos(a);
                            case "tan" -> Math.tan(a);
                            default -> throw new NotDecided();
                        });
            }
        }
    }

    private static Sum plain(double number) {
        return new Sum(number, 0, true);
    }

    private static double amount(Sum s) {
        return s.percent() != 0 ? s.percent() : s.px();
    }

    /** Two values can be compared without layout if both are numbers, lengths or percentages. */
    private static void alike(Sum a, Sum b) {
        require(a != null && b != null && a.number() == b.number());
        boolean lengths = a.percent() == 0 && b.percent() == 0;
        boolean percentages = a.px() == 0 && b.px() == 0;
        require(lengths || percentages);
    }

    private static Sum scaled(Sum s, double by) {
        // What is not there stays away, even times infinity.
        double px = s.px() == 0 && s.percent() != 0 ? 0 : s.px() * by;
        return new Sum(px, s.percent() == 0 ? 0 : s.percent() * by, s.number(), s.needsLayout());
    }

    private Sum sum(List<ComponentValue> parts, int depth) {
        require(!parts.isEmpty() && depth < MOST_NESTED);
        int[] at = {0};
        Sum total = product(parts, at, depth);
        while (at[0] < parts.size()) {
            ComponentValue sign = parts.get(at[0]);
            // A number with a sign right behind a value is no sum: white space has to stand around + and -.
            boolean plus =
                    sign.kind() == ComponentValue.Kind.OTHER && sign.name().equals("+");
            boolean minus =
                    sign.kind() == ComponentValue.Kind.OTHER && sign.name().equals("-");
            require(plus || minus);
            at[0]++;
            Sum next = product(parts, at, depth);
            require(total.number() == next.number());
            total = new Sum(
                    total.px() + (plus ? next.px() : -next.px()),
                    total.percent() + (plus ? next.percent() : -next.percent()),
                    total.number(),
                    total.needsLayout() || next.needsLayout());
        }
        return total;
    }

    private Sum product(List<ComponentValue> parts, int[] at, int depth) {
        Sum value = value(parts, at, depth);
        while (at[0] < parts.size()) {
            ComponentValue sign = parts.get(at[0]);
            if (sign.kind() == ComponentValue.Kind.OTHER && sign.name().equals("*")) {
                at[0]++;
                Sum next = value(parts, at, depth);
                require(value.number() || next.number());
                value = value.number() ? scaled(next, value.px()) : scaled(value, next.px());
            } else if (sign.kind() == ComponentValue.Kind.SLASH) {
                at[0]++;
                Sum next = value(parts, at, depth);
                if (next.number()) {
                    value = scaled(value, 1 / next.px());
                } else {
                    // Dividing one length by another gives a number: Values 4, section 10.9.
                    require(!value.number() && value.percent() == 0 && next.percent() == 0);
                    value = plain(value.px() / next.px());
                }
            } else {
                return value;
            }
        }
        return value;
    }

    private Sum value(List<ComponentValue> parts, int[] at, int depth) {
        require(at[0] < parts.size());
        ComponentValue p = parts.get(at[0]++);
        return switch (p.kind()) {
            case NUMBER -> plain(p.number());
            case PERCENTAGE -> new Sum(0, p.number(), false, true);
            case DIMENSION -> {
                OptionalDouble unit = Lengths.unit(p.name(), base);
                require(unit.isPresent());
                yield new Sum(p.number() * unit.getAsDouble(), 0, false);
            }
            case BLOCK -> {
                require(p.name().equals("("));
                yield sum(ComponentValue.read(p.inside()), depth + 1);
            }
            case FUNCTION -> {
                require(Lengths.isMath(p));
                yield function(p, depth + 1);
            }
            case IDENT ->
                plain(
                        switch (p.name()) {
                            case "pi" -> Math.PI;
                            case "e" -> Math.E;
                            case "infinity" -> Double.POSITIVE_INFINITY;
                            case "-infinity" -> Double.NEGATIVE_INFINITY;
                            default -> throw new NotDecided();
                        });
            default -> throw new NotDecided();
        };
    }
}

package org.calmpalette.core.cascade;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.css.Escapes;
import org.calmpalette.core.value.ComponentValue;
import org.calmpalette.core.value.ComponentValue.Kind;
import org.calmpalette.core.value.Lengths;

/** Images in values: addresses and gradients, written as the computed style writes them. CSS Images 4. */
final class Images {
    private static final Set<String> GRADIENTS = Set.of(
            "linear-gradient",
            "radial-gradient",
            "conic-gradient",
            "repeating-linear-gradient",
            "repeating-radial-gradient",
            "repeating-conic-gradient");
    private static final Set<String> OTHERS = Set.of(
            "image-set",
            "-webkit-image-set",
            "cross-fade",
            "-webkit-cross-fade",
            "-webkit-gradient",
            "-webkit-linear-gradient",
            "-webkit-radial-gradient",
            "-webkit-repeating-linear-gradient",
            "-webkit-repeating-radial-gradient",
            "paint",
            "src");

    /** What the values of one element refer to. */
    interface Context {
        Optional<Color> color(String text);

        Lengths.Base base();

        /** The whole address that a written one means. */
        String address(String written);
    }

    private Images() {}

    static boolean isValid(ComponentValue p) {
        if (OTHERS.contains(p.name())) {
            return true;
        }
        if (!GRADIENTS.contains(p.name())) {
            return false;
        }
        List<List<ComponentValue>> arguments = ComponentValue.commaSeparated(ComponentValue.read(p.inside()));
        int first = isStop(arguments.get(0)) ? 0 : 1;
        boolean linear = p.name().endsWith("linear-gradient");
        // The line of a linear gradient is a direction; a place is none.
        if (first == 1
                && (arguments.get(0).isEmpty()
                        || linear
                                && arguments.get(0).stream()
                                        .anyMatch(a -> Lengths.isLengthOrPercentage(a) && a.kind() != Kind.FUNCTION))) {
            return false;
        }
        int colors = 0;
        boolean hint = true;
        for (int i = first; i < arguments.size(); i++) {
            List<ComponentValue> stop = arguments.get(i);
            // A hint stands between two colours.
            if (stop.size() == 1 && isPosition(stop.get(0)) && !hint && i < arguments.size() - 1) {
                hint = true;
                continue;
            }
            if (!isStop(stop)) {
                return false;
            }
            hint = false;
            colors++;
        }
        return colors >= 1;
    }

    private static boolean isPosition(ComponentValue p) {
        return Lengths.isLengthOrPercentage(p)
                || p.kind() == Kind.DIMENSION && isAngleUnit(p.name())
                || Lengths.isMath(p);
    }

    static boolean isAngleUnit(String unit) {
        return Set.of("deg", "grad", "rad", "turn").contains(unit);
    }

    private static boolean isStop(List<ComponentValue> stop) {
        if (stop.isEmpty() || stop.size() > 3) {
            return false;
        }
        long colors = stop.stream().filter(Expansion::isColor).count();
        return colors == 1 && stop.stream().allMatch(p -> Expansion.isColor(p) || isPosition(p));
    }

    static String computed(ComponentValue p, Context context) {
        if (p.kind() == Kind.URL) {
            return "url(" + Escapes.string(context.address(p.name())) + ")";
        }
        if (p.kind() != Kind.FUNCTION) {
            return p.name();
        }
        List<String> arguments = new ArrayList<>();
        List<List<ComponentValue>> lists = ComponentValue.commaSeparated(ComponentValue.read(p.inside()));
        for (int i = 0; i < lists.size(); i++) {
            String argument = argument(lists.get(i), context, p.name());
            // The direction that holds anyway is not written.
            boolean needless = i == 0 && p.name().endsWith("linear-gradient") && argument.equals("to bottom");
            if (!needless) {
                arguments.add(argument);
            }
        }
        return p.name() + "(" + String.join(", ", arguments) + ")";
    }

    private static String argument(List<ComponentValue> parts, Context context, String function) {
        List<String> words = new ArrayList<>();
        for (ComponentValue p : parts) {
            if (p.kind() == Kind.URL) {
                words.add(computed(p, context));
            } else if (GRADIENTS.contains(p.name()) && p.kind() == Kind.FUNCTION) {
                words.add(computed(p, context));
            } else if (Expansion.isColor(p)) {
                words.add(context.color(p.text()).map(Color::css).orElse(p.text()));
            } else if (p.kind() == Kind.DIMENSION) {
                OptionalDouble unit = Lengths.unit(p.name(), context.base());
                words.add(unit.isPresent() ? Lengths.px(p.number() * unit.getAsDouble()) : angle(p));
            } else if (Lengths.isMath(p)) {
                words.add(Lengths.math(p, context.base()).map(Lengths::text).orElse(p.text()));
            } else if (p.kind() == Kind.NUMBER) {
                words.add(p.number() == 0 && function.endsWith("gradient") ? "0px" : Lengths.number(p.number()));
            } else if (p.kind() == Kind.PERCENTAGE) {
                words.add(Lengths.number(p.number()) + "%");
            } else {
                words.add(p.kind() == Kind.IDENT ? p.name() : p.text());
            }
        }
        // A stop with two positions is two stops.
        boolean twice =
                words.size() == 3 && isStop(parts) && Expansion.isColor(parts.get(0)) && GRADIENTS.contains(function);
        return twice
                ? words.get(0) + " " + words.get(1) + ", " + words.get(0) + " " + words.get(2)
                : String.join(" ", words);
    }

    private static String angle(ComponentValue p) {
        return switch (p.name()) {
            case "grad" -> Lengths.number(p.number() * 0.9) + "deg";
            case "rad" -> Lengths.number(Math.toDegrees(p.number())) + "deg";
            case "turn" -> Lengths.number(p.number() * 360) + "deg";
            default -> Lengths.number(p.number()) + p.name();
        };
    }
}

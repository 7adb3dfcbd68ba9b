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
        if (p.name().equals("image-set") || p.name().equals("-webkit-image-set")) {
            return ComponentValue.commaSeparated(ComponentValue.read(p.inside())).stream()
                    .allMatch(Images::isCandidate);
        }
        if (OTHERS.contains(p.name())) {
            return true;
        }
        if (!GRADIENTS.contains(p.name())) {
            return false;
        }
        List<List<ComponentValue>> arguments = ComponentValue.commaSeparated(ComponentValue.read(p.inside()));
        boolean conic = p.name().endsWith("conic-gradient");
        int first = isStop(arguments.get(0), conic) ? 0 : 1;
        if (first == 1 && !isLine(p.name(), arguments.get(0))) {
            return false;
        }
        int colors = 0;
        boolean hint = true;
        for (int i = first; i < arguments.size(); i++) {
            List<ComponentValue> stop = arguments.get(i);
            // A hint stands between two colours.
            if (stop.size() == 1 && isPosition(stop.get(0), conic) && !hint && i < arguments.size() - 1) {
                hint = true;
                continue;
            }
            if (!isStop(stop, conic)) {
                return false;
            }
            hint = false;
            colors++;
        }
        return colors >= 1;
    }

    /** One of image-set(): an image or its address as a text, its resolution and its type (CSS Images 4, section 2.2). */
    private static boolean isCandidate(List<ComponentValue> parts) {
        if (parts.isEmpty()
                || parts.size() > 3
                || parts.get(0).kind() != Kind.STRING && !Expansion.isImage(parts.get(0))
                || parts.get(0).isIdent("none")) {
            return false;
        }
        List<ComponentValue> more = parts.subList(1, parts.size());
        long resolutions = more.stream()
                .filter(m -> m.kind() == Kind.DIMENSION && RESOLUTIONS.contains(m.name()) && m.number() >= 0
                        || Lengths.isMath(m))
                .count();
        long types = more.stream()
                .filter(m -> m.kind() == Kind.FUNCTION && m.name().equals("type"))
                .count();
        return resolutions <= 1 && types <= 1 && resolutions + types == more.size();
    }

    private static final Set<String> RESOLUTIONS = Set.of("x", "dppx", "dpi", "dpcm");
    private static final Set<String> RECTANGULAR = Set.of(
            "srgb",
            "srgb-linear",
            "display-p3",
            "display-p3-linear",
            "a98-rgb",
            "prophoto-rgb",
            "rec2020",
            "lab",
            "oklab",
            "xyz",
            "xyz-d50",
            "xyz-d65");
    private static final Set<String> POLAR = Set.of("hsl", "hwb", "lch", "oklch");
    private static final Set<String> WAYS = Set.of("shorter", "longer", "increasing", "decreasing");
    private static final Set<String> EXTENTS =
            Set.of("closest-corner", "closest-side", "farthest-corner", "farthest-side");

    /** What stands before the colours: where a gradient runs, and in which space it is mixed, in either order (CSS Images 4, section 3). */
    private static boolean isLine(String function, List<ComponentValue> parts) {
        List<ComponentValue> rest = new ArrayList<>(parts);
        int in = indexOf(rest, "in");
        if (in >= 0) {
            int end = in + 1;
            boolean polar = end < rest.size() && POLAR.contains(rest.get(end).name());
            if (!polar
                    && (end >= rest.size()
                            || !RECTANGULAR.contains(rest.get(end).name()))) {
                return false;
            }
            end++;
            if (polar && end < rest.size() && WAYS.contains(rest.get(end).name())) {
                if (end + 1 >= rest.size() || !rest.get(end + 1).isIdent("hue")) {
                    return false;
                }
                end += 2;
            }
            if (in > 0 && end < rest.size()) {
                return false;
            }
            rest.subList(in, end).clear();
        }
        if (rest.isEmpty()) {
            return in >= 0;
        }
        if (function.endsWith("linear-gradient")) {
            return rest.size() == 1
                    ? isAngle(rest.get(0))
                    : rest.get(0).isIdent("to") && isCorner(rest.subList(1, rest.size()));
        }
        int at = indexOf(rest, "at");
        if (at >= 0) {
            List<ComponentValue> place = rest.subList(at + 1, rest.size());
            // Three values are of backgrounds alone: CSS Values 4, section 8.3.
            if (place.size() == 3 || Expansion.position(place).isEmpty()) {
                return false;
            }
            rest = rest.subList(0, at);
        }
        if (function.endsWith("conic-gradient")) {
            return rest.isEmpty() || rest.size() == 2 && rest.get(0).isIdent("from") && isAngle(rest.get(1));
        }
        return rest.isEmpty() || isShape(rest);
    }

    private static boolean isCorner(List<ComponentValue> words) {
        long across = words.stream()
                .filter(w -> w.isIdent("left") || w.isIdent("right"))
                .count();
        long down = words.stream()
                .filter(w -> w.isIdent("top") || w.isIdent("bottom"))
                .count();
        return across <= 1 && down <= 1 && across + down == words.size() && !words.isEmpty();
    }

    /** Shape and size of a radial gradient: CSS Images 3, section 3.2. */
    private static boolean isShape(List<ComponentValue> parts) {
        List<ComponentValue> sizes = new ArrayList<>(parts);
        boolean first = parts.get(0).isIdent("circle") || parts.get(0).isIdent("ellipse");
        ComponentValue shape = first ? parts.get(0) : parts.get(parts.size() - 1);
        boolean circle = shape.isIdent("circle");
        boolean ellipse = shape.isIdent("ellipse");
        if (circle || ellipse) {
            sizes.remove(first ? 0 : sizes.size() - 1);
        }
        if (sizes.isEmpty()
                || sizes.size() == 1 && EXTENTS.contains(sizes.get(0).name())) {
            return true;
        }
        boolean all = sizes.stream()
                .allMatch(s -> Lengths.isLengthOrPercentage(s) && (s.kind() == Kind.FUNCTION || s.number() >= 0));
        return all && (sizes.size() == 2 ? !circle : sizes.size() == 1 && !ellipse && Lengths.isLength(sizes.get(0)));
    }

    private static int indexOf(List<ComponentValue> parts, String word) {
        for (int i = 0; i < parts.size(); i++) {
            if (parts.get(i).isIdent(word)) {
                return i;
            }
        }
        return -1;
    }

    private static boolean isAngle(ComponentValue p) {
        return p.kind() == Kind.DIMENSION && isAngleUnit(p.name())
                || p.kind() == Kind.NUMBER && p.number() == 0
                || Lengths.isMath(p) && !Lengths.isLengthOrPercentage(p) && !Lengths.isNumber(p);
    }

    private static boolean isPosition(ComponentValue p, boolean conic) {
        return conic
                ? isAngle(p)
                        || p.kind() == Kind.PERCENTAGE
                        || Lengths.isMath(p) && Lengths.isLengthOrPercentage(p) && !holdsLength(p)
                : Lengths.isLengthOrPercentage(p);
    }

    /** Around a turn there is no length to add to a share of it (CSS Images 4, section 3.3.1). */
    private static boolean holdsLength(ComponentValue function) {
        return ComponentValue.read(function.inside()).stream()
                .anyMatch(p -> p.kind() == Kind.DIMENSION || isGroup(p) && holdsLength(p));
    }

    private static boolean isGroup(ComponentValue p) {
        return p.kind() == Kind.FUNCTION || p.text().startsWith("(");
    }

    static boolean isAngleUnit(String unit) {
        return Set.of("deg", "grad", "rad", "turn").contains(unit);
    }

    private static boolean isStop(List<ComponentValue> stop, boolean conic) {
        if (stop.isEmpty() || stop.size() > 3) {
            return false;
        }
        // A colour, and up to two positions before or after it.
        boolean first = Expansion.isColor(stop.get(0));
        return (first || Expansion.isColor(stop.get(stop.size() - 1)))
                && (first ? stop.subList(1, stop.size()) : stop.subList(0, stop.size() - 1))
                        .stream().allMatch(p -> isPosition(p, conic));
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
            boolean direction = i == 0 && p.name().endsWith("linear-gradient") && !isStop(lists.get(0), false);
            String argument = argument(lists.get(i), context, p.name(), direction);
            // The direction that holds anyway is not written.
            boolean needless = i == 0 && p.name().endsWith("linear-gradient") && argument.equals("to bottom");
            if (!needless) {
                arguments.add(argument);
            }
        }
        return p.name() + "(" + String.join(", ", arguments) + ")";
    }

    private static String argument(List<ComponentValue> parts, Context context, String function, boolean direction) {
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
                // A zero without a unit is an angle where a direction may stand, as browsers still have it.
                String zero = direction ? "0deg" : "0px";
                words.add(p.number() == 0 && function.endsWith("gradient") ? zero : Lengths.number(p.number()));
            } else if (p.kind() == Kind.PERCENTAGE) {
                words.add(Lengths.number(p.number()) + "%");
            } else {
                words.add(p.kind() == Kind.IDENT ? p.name() : p.text());
            }
        }
        // A stop with two positions is two stops.
        boolean twice = words.size() == 3
                && isStop(parts, function.endsWith("conic-gradient"))
                && Expansion.isColor(parts.get(0))
                && GRADIENTS.contains(function);
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

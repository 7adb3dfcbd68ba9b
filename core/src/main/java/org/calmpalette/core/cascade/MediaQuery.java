package org.calmpalette.core.cascade;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalDouble;
import org.calmpalette.core.value.ComponentValue;
import org.calmpalette.core.value.ComponentValue.Kind;
import org.calmpalette.core.value.Lengths;
import org.calmpalette.core.value.Viewport;

/**
 * Media queries: Media Queries 4 and 5, asked of a screen with a mouse, a light colour scheme and no wishes. An unknown
 * feature makes the answer unknown, and what is unknown at the end does not match.
 */
public final class MediaQuery {
    private final Viewport window;
    private final Lengths.Base base;

    private MediaQuery(Viewport window) {
        this.window = window;
        // Relative units in media queries refer to the initial font size, not to what a page sets.
        this.base = new Lengths.Base(16, 16, window);
    }

    /** Whether one of a list of queries holds. What is no query holds nowhere; an empty list holds always. */
    public static boolean matches(String list, Viewport window) {
        if (list.isBlank()) {
            return true;
        }
        MediaQuery query = new MediaQuery(window);
        return ComponentValue.commaSeparated(ComponentValue.read(list)).stream()
                .anyMatch(q -> Boolean.TRUE.equals(query.query(q)));
    }

    private Boolean query(List<ComponentValue> parts) {
        if (parts.isEmpty()) {
            return false;
        }
        List<ComponentValue> rest = new ArrayList<>(parts);
        boolean negated = false;
        Boolean type = null;
        if (rest.get(0).kind() == Kind.IDENT
                && !(rest.get(0).isIdent("not") && rest.size() > 1 && isBlock(rest.get(1)))) {
            if (rest.get(0).isIdent("not") || rest.get(0).isIdent("only")) {
                negated = rest.remove(0).isIdent("not");
            }
            if (rest.isEmpty() || rest.get(0).kind() != Kind.IDENT) {
                return false;
            }
            String name = rest.remove(0).name();
            type = name.equals("all") || name.equals("screen");
            if (!rest.isEmpty()) {
                if (!rest.remove(0).isIdent("and") || rest.isEmpty()) {
                    return false;
                }
            }
        }
        Boolean condition = rest.isEmpty() ? type == null ? null : Boolean.TRUE : condition(rest);
        Boolean answer = type == null ? condition : Boolean.FALSE.equals(type) ? Boolean.FALSE : condition;
        return negated ? not(answer) : answer;
    }

    private static boolean isBlock(ComponentValue p) {
        return p.kind() == Kind.BLOCK || p.kind() == Kind.FUNCTION;
    }

    private static Boolean not(Boolean b) {
        return b == null ? null : !b;
    }

    private Boolean condition(List<ComponentValue> parts) {
        if (parts.isEmpty()) {
            return null;
        }
        if (parts.get(0).isIdent("not")) {
            return not(condition(parts.subList(1, parts.size())));
        }
        Boolean answer = inParens(parts.get(0));
        String joint = null;
        for (int i = 1; i + 1 < parts.size(); i += 2) {
            String word = parts.get(i).name();
            if (joint != null && !joint.equals(word) || !word.equals("and") && !word.equals("or")) {
                return null;
            }
            joint = word;
            Boolean next = parts.get(i + 1).isIdent("not")
                    ? not(i + 2 < parts.size() ? inParens(parts.get(i + 2)) : null)
                    : inParens(parts.get(i + 1));
            answer = word.equals("and") ? and(answer, next) : or(answer, next);
        }
        return parts.size() % 2 == 0 ? null : answer;
    }

    private static Boolean and(Boolean a, Boolean b) {
        return Boolean.FALSE.equals(a) || Boolean.FALSE.equals(b)
                ? Boolean.FALSE
                : a == null || b == null ? null : Boolean.TRUE;
    }

    private static Boolean or(Boolean a, Boolean b) {
        return Boolean.TRUE.equals(a) || Boolean.TRUE.equals(b)
                ? Boolean.TRUE
                : a == null || b == null ? null : Boolean.FALSE;
    }

    private Boolean inParens(ComponentValue p) {
        if (p.kind() != Kind.BLOCK || !p.name().equals("(")) {
            return null;
        }
        List<ComponentValue> inside = ComponentValue.read(p.inside());
        if (inside.isEmpty()) {
            return null;
        }
        if (isBlock(inside.get(0)) || inside.get(0).isIdent("not")) {
            return condition(inside);
        }
        return feature(p.inside().strip(), inside);
    }

    private Boolean feature(String text, List<ComponentValue> parts) {
        int colon = text.indexOf(':');
        if (colon > 0) {
            String name = text.substring(0, colon).strip().toLowerCase(Locale.ROOT);
            String value = text.substring(colon + 1).strip();
            if (name.startsWith("-webkit-min-") || name.startsWith("-webkit-max-")) {
                return compare(name, "", value);
            }
            if (name.startsWith("min-")) {
                return compare(name.substring(4), ">=", value);
            }
            if (name.startsWith("max-")) {
                return compare(name.substring(4), "<=", value);
            }
            return range(name).isPresent() ? compare(name, "=", value) : discrete(name, value.toLowerCase(Locale.ROOT));
        }
        if (parts.size() == 1) {
            String name = parts.get(0).name();
            OptionalDouble range = range(name);
            return range.isPresent() ? Boolean.valueOf(range.getAsDouble() != 0) : discrete(name, "");
        }
        return ranged(text);
    }

    /** {@code (width >= 600px)} and {@code (400px < width <= 900px)}. */
    private Boolean ranged(String text) {
        String[] pieces = text.split("(?<=[<>=])(?=[^<>=])|(?<=[^<>=])(?=[<>=])");
        List<String> words = new ArrayList<>();
        for (String p : pieces) {
            words.add(p.strip());
        }
        if (words.size() == 3) {
            return range(words.get(0).toLowerCase(Locale.ROOT)).isPresent()
                    ? compare(words.get(0).toLowerCase(Locale.ROOT), words.get(1), words.get(2))
                    : compare(words.get(2).toLowerCase(Locale.ROOT), turned(words.get(1)), words.get(0));
        }
        if (words.size() == 5
                && words.get(1).charAt(0) == words.get(3).charAt(0)
                && words.get(1).charAt(0) != '=') {
            return and(
                    compare(words.get(2).toLowerCase(Locale.ROOT), turned(words.get(1)), words.get(0)),
                    compare(words.get(2).toLowerCase(Locale.ROOT), words.get(3), words.get(4)));
        }
        return null;
    }

    private static String turned(String sign) {
        return sign.replace('<', '#').replace('>', '<').replace('#', '>');
    }

    private OptionalDouble range(String name) {
        return switch (name) {
            case "width", "device-width" -> OptionalDouble.of(window.width());
            case "height", "device-height" -> OptionalDouble.of(window.height());
            case "aspect-ratio", "device-aspect-ratio" -> OptionalDouble.of(window.width() / window.height());
            case "resolution" -> OptionalDouble.of(1);
            case "-webkit-device-pixel-ratio" -> OptionalDouble.of(1);
            case "color" -> OptionalDouble.of(8);
            case "color-index", "monochrome" -> OptionalDouble.of(0);
            default -> OptionalDouble.empty();
        };
    }

    private Boolean compare(String name, String sign, String value) {
        // -webkit-min-device-pixel-ratio puts the bound behind the prefix.
        if (name.startsWith("-webkit-min-") || name.startsWith("-webkit-max-")) {
            return compare("-webkit-" + name.substring(12), name.startsWith("-webkit-min") ? ">=" : "<=", value);
        }
        OptionalDouble have = range(name);
        Optional<Double> want = amount(name, value);
        if (have.isEmpty() || want.isEmpty()) {
            return null;
        }
        double h = have.getAsDouble();
        double w = want.get();
        return switch (sign) {
            case ">=" -> h >= w;
            case "<=" -> h <= w;
            case ">" -> h > w;
            case "<" -> h < w;
            case "=" -> Math.abs(h - w) < 1e-9;
            default -> null;
        };
    }

    private Optional<Double> amount(String name, String value) {
        List<ComponentValue> parts = ComponentValue.read(value);
        if (parts.size() == 3 && parts.get(1).kind() == Kind.SLASH) {
            return Optional.of(parts.get(0).number() / parts.get(2).number());
        }
        if (parts.size() != 1) {
            return Optional.empty();
        }
        ComponentValue p = parts.get(0);
        if (p.kind() == Kind.NUMBER) {
            // A resolution has a unit, and so has a length but for 0.
            boolean unitless = !name.equals("resolution")
                    && (p.number() == 0 || !name.endsWith("width") && !name.endsWith("height"));
            if (!unitless) {
                return Optional.empty();
            }
            return Optional.of(p.number());
        }
        if (p.kind() == Kind.DIMENSION && List.of("dppx", "x", "dpi", "dpcm").contains(p.name())) {
            return Optional.of(
                    p.number() / (p.name().equals("dpi") ? 96 : p.name().equals("dpcm") ? 96 / 2.54 : 1));
        }
        return Lengths.isMath(p)
                ? Lengths.math(p, base).map(Lengths.Sum::px)
                : Lengths.sum(p, base).map(Lengths.Sum::px);
    }

    private Boolean discrete(String name, String value) {
        String have =
                switch (name) {
                    case "orientation" -> window.height() >= window.width() ? "portrait" : "landscape";
                    case "hover", "any-hover" -> "hover";
                    case "pointer", "any-pointer" -> "fine";
                    case "prefers-color-scheme" -> window.dark() ? "dark" : "light";
                    case "prefers-reduced-motion" -> window.lessMotion() ? "reduce" : "no-preference";
                    case "prefers-reduced-transparency", "prefers-contrast", "prefers-reduced-data" -> "no-preference";
                    case "forced-colors" -> "none";
                    case "display-mode" -> "browser";
                    case "scripting" -> "enabled";
                    case "update" -> "fast";
                    case "overflow-block", "overflow-inline" -> "scroll";
                    case "color-gamut" -> "srgb";
                    case "dynamic-range" -> "standard";
                    case "grid" -> "0";
                    case "-webkit-transform-3d" -> "1";
                    default -> null;
                };
        if (have == null) {
            return null;
        }
        if (value.isEmpty()) {
            return !List.of("none", "no-preference", "0").contains(have);
        }
        return have.equals(value);
    }
}

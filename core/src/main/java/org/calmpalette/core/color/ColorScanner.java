package org.calmpalette.core.color;

import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Pattern;

/** Reads the words, numbers and sums inside a colour. */
final class ColorScanner {
    /** Thrown when the text is no colour. It carries no trace: most texts that are asked about are none. */
    static final class NoColor extends RuntimeException {
        NoColor() {
            super(null, null, false, false);
        }
    }

    private static final int MOST_NESTED = 32;
    private static final Map<String, Double> ANGLES =
            Map.of("deg", 1.0, "grad", 0.9, "rad", 180 / Math.PI, "turn", 360.0);

    private final String text;
    private int at;
    private int depth;
    private boolean percent;

    ColorScanner(String text) {
        this.text = text;
    }

    void require(boolean condition) {
        if (!condition) {
            throw new NoColor();
        }
    }

    void enter() {
        require(++depth <= MOST_NESTED);
    }

    void leave() {
        depth--;
    }

    boolean atEnd() {
        return at >= text.length();
    }

    /** Passes over white space and comments. */
    void space() {
        while (at < text.length()) {
            char c = text.charAt(at);
            if (c == ' ' || c == '\t' || c == '\n' || c == '\r' || c == '\f') {
                at++;
            } else if (text.startsWith("/*", at)) {
                int end = text.indexOf("*/", at + 2);
                at = end < 0 ? text.length() : end + 2;
            } else {
                return;
            }
        }
    }

    boolean take(char c) {
        if (at < text.length() && text.charAt(at) == c) {
            at++;
            return true;
        }
        return false;
    }

    String name() {
        int start = at;
        while (at < text.length()
                && (Character.isLetterOrDigit(text.charAt(at)) || "-_".indexOf(text.charAt(at)) >= 0)) {
            at++;
        }
        return text.substring(start, at);
    }

    boolean takeWord(String word) {
        int start = at;
        if (name().equalsIgnoreCase(word) && (atEnd() || text.charAt(at) != '(')) {
            return true;
        }
        at = start;
        return false;
    }

    private static final Pattern MATH = Pattern.compile("(?i)(calc|min|max|clamp)\\(");

    /** What 100 % is where a percentage is asked for by itself. */
    private static final Channels SHARE = new Channels(ColorSpace.SRGB, new double[] {100}, new double[] {1}, Map.of());

    /** A percentage, 0 to 100 and beyond, if one stands here; one that is calculated is brought into that range. */
    Optional<Double> percentage() {
        int start = at;
        if (MATH.matcher(text).region(at, text.length()).lookingAt()) {
            double share = component(SHARE, 0);
            require(percent);
            return Optional.of(Math.max(0, Math.min(100, share)));
        }
        Double number = number();
        if (number != null && take('%')) {
            return Optional.of(number);
        }
        at = start;
        return Optional.empty();
    }

    boolean lastWasPercent() {
        return percent;
    }

    /** One component, scaled to the range of its space; NaN for {@code none}. */
    double component(Channels channels, int index) {
        percent = false;
        if (takeWord("none")) {
            return Double.NaN;
        }
        double v = value(channels, index);
        // What is no number at the top of a calculation is 0, and infinity the largest number: CSS Values 4, section
        // 10.9.1.
        boolean calculated = at > 0 && text.charAt(at - 1) == ')';
        v = Double.isNaN(v) && calculated ? 0 : Math.max(-Float.MAX_VALUE, Math.min(Float.MAX_VALUE, v));
        return channels.space().hueIndex() == index && Math.abs(v) == Float.MAX_VALUE
                ? 0
                : v / channels.divisor()[index];
    }

    private double value(Channels channels, int index) {
        space();
        int start = at;
        Double number = number();
        if (number != null) {
            if (take('%')) {
                percent = true;
                require(index != channels.space().hueIndex());
                return number / 100 * channels.percentTo()[index] * channels.divisor()[index];
            }
            String unit = name().toLowerCase(Locale.ROOT);
            if (unit.isEmpty()) {
                return number;
            }
            require(index == channels.space().hueIndex() && ANGLES.containsKey(unit));
            return number * ANGLES.get(unit);
        }
        at = start;
        if (take('(')) {
            return parenthesised(channels, index);
        }
        String word = name().toLowerCase(Locale.ROOT);
        if (take('(')) {
            return switch (word) {
                case "calc" -> parenthesised(channels, index);
                case "min" -> arguments(channels, index, Math::min);
                case "max" -> arguments(channels, index, Math::max);
                case "clamp" -> clamp(channels, index);
                default -> throw new NoColor();
            };
        }
        Double channel = channels.words().get(word);
        if (channel != null) {
            return channel;
        }
        return switch (word) {
            case "pi" -> Math.PI;
            case "e" -> Math.E;
            case "infinity" -> Double.MAX_VALUE;
            case "-infinity" -> -Double.MAX_VALUE;
            default -> throw new NoColor();
        };
    }

    private double parenthesised(Channels channels, int index) {
        enter();
        double v = sum(channels, index);
        close();
        return v;
    }

    private void close() {
        space();
        require(take(')'));
        leave();
    }

    private double arguments(Channels channels, int index, java.util.function.DoubleBinaryOperator f) {
        enter();
        double v = sum(channels, index);
        space();
        while (take(',')) {
            v = f.applyAsDouble(v, sum(channels, index));
            space();
        }
        close();
        return v;
    }

    private double clamp(Channels channels, int index) {
        enter();
        double[] v = new double[3];
        for (int i = 0; i < 3; i++) {
            v[i] = sum(channels, index);
            space();
            require(i == 2 || take(','));
        }
        close();
        return Math.max(v[0], Math.min(v[1], v[2]));
    }

    private double sum(Channels channels, int index) {
        double v = product(channels, index);
        while (true) {
            int before = at;
            space();
            // CSS asks for white space around + and -.
            if (at > before && take('+')) {
                v += product(channels, index);
            } else if (at > before && at + 1 < text.length() && text.charAt(at) == '-' && text.charAt(at + 1) == ' ') {
                at++;
                v -= product(channels, index);
            } else {
                at = before;
                return v;
            }
        }
    }

    private double product(Channels channels, int index) {
        double v = value(channels, index);
        while (true) {
            int before = at;
            space();
            if (take('*')) {
                v *= value(channels, index);
            } else if (take('/')) {
                v /= value(channels, index);
            } else {
                at = before;
                return v;
            }
        }
    }

    private Double number() {
        int start = at;
        if (at < text.length() && "+-".indexOf(text.charAt(at)) >= 0) {
            at++;
        }
        int digits = digits();
        if (at + 1 < text.length() && text.charAt(at) == '.' && isDigit(text.charAt(at + 1))) {
            at++;
            digits += digits();
        }
        if (digits == 0) {
            at = start;
            return null;
        }
        int beforeExponent = at;
        if (at < text.length() && "eE".indexOf(text.charAt(at)) >= 0) {
            at++;
            if (at < text.length() && "+-".indexOf(text.charAt(at)) >= 0) {
                at++;
            }
            if (digits() == 0) {
                at = beforeExponent;
            }
        }
        return Double.valueOf(text.substring(start, at));
    }

    private int digits() {
        int start = at;
        while (at < text.length() && isDigit(text.charAt(at))) {
            at++;
        }
        return at - start;
    }

    private static boolean isDigit(char c) {
        return c >= '0' && c <= '9';
    }
}

package org.calmpalette.core.value;

import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.function.DoubleSupplier;

/** Lengths, percentages and the sums that they stand in: CSS Values and Units 4. */
public final class Lengths {
    /**
     * What relative units refer to, in CSS px.
     *
     * @param em font size of the element (of its parent, for font-size itself)
     * @param rem font size of the root element
     * @param lh line height of the element (of its parent, for font-size and line-height themselves); NaN where a font's metrics decide it
     * @param rlh line height of the root element
     */
    public record Base(double em, double rem, Viewport window, DoubleSupplier lh, DoubleSupplier rlh) {
        private static final DoubleSupplier UNKNOWN = () -> Double.NaN;

        /** Where nobody knows the line height. */
        public Base(double em, double rem, Viewport window) {
            this(em, rem, window, UNKNOWN, UNKNOWN);
        }

        /** Nothing that a relative unit could refer to: what has one is not decided. For computed values, which have none. */
        public static final Base NONE = new Base(Double.NaN, Double.NaN, Viewport.of(Double.NaN, Double.NaN));
    }

    /**
     * A length as a share of something that layout decides, and pixels.
     *
     * @param percent 0 for a plain length
     * @param number true for a plain number, whose value is in {@code px}
     * @param needsLayout true if a percentage takes part, be it 0
     */
    public record Sum(double px, double percent, boolean number, boolean needsLayout) {
        public Sum(double px, double percent, boolean number) {
            this(px, percent, number, percent != 0);
        }
    }

    private static final Set<String> MATH = Set.of(
            "calc",
            "min",
            "max",
            "clamp",
            "abs",
            "sign",
            "round",
            "mod",
            "rem",
            "sin",
            "cos",
            "tan",
            "asin",
            "acos",
            "atan",
            "atan2",
            "pow",
            "sqrt",
            "hypot",
            "log",
            "exp",
            "-webkit-calc");

    private Lengths() {}

    public static boolean isMath(ComponentValue part) {
        return part.kind() == ComponentValue.Kind.FUNCTION && MATH.contains(part.name());
    }

    /** Px of one unit; empty if it is no unit of length. */
    public static OptionalDouble unit(String unit, Base base) {
        double vw = base.window().width() / 100;
        double vh = base.window().height() / 100;
        double px =
                switch (unit) {
                    case "px" -> 1;
                    case "em" -> base.em();
                    case "rem" -> base.rem();
                    case "vw", "svw", "lvw", "dvw", "vi", "svi", "lvi", "dvi", "cqw", "cqi" -> vw;
                    case "vh", "svh", "lvh", "dvh", "vb", "svb", "lvb", "dvb", "cqh", "cqb" -> vh;
                    case "vmin", "svmin", "lvmin", "dvmin", "cqmin" -> Math.min(vw, vh);
                    case "vmax", "svmax", "lvmax", "dvmax", "cqmax" -> Math.max(vw, vh);
                    case "in" -> 96;
                    case "cm" -> 96 / 2.54;
                    case "mm" -> 9.6 / 2.54;
                    case "q" -> 2.4 / 2.54;
                    case "pt" -> 96.0 / 72;
                    case "pc" -> 16;
                    // Font metrics are not known here; half an em is what the standard falls back to.
                    case "ex", "ch" -> base.em() / 2;
                    case "rex", "rch" -> base.rem() / 2;
                    case "cap", "ic" -> base.em();
                    case "rcap", "ric" -> base.rem();
                    case "lh" -> base.lh().getAsDouble();
                    case "rlh" -> base.rlh().getAsDouble();
                    default -> Double.NaN;
                };
        return Double.isNaN(px) ? OptionalDouble.empty() : OptionalDouble.of(px);
    }

    /** A length, percentage or sum of them; plain 0 counts as a length. Empty if the part is something else. */
    public static Optional<Sum> sum(ComponentValue part, Base base) {
        return switch (part.kind()) {
            case NUMBER -> part.number() == 0 ? Optional.of(new Sum(0, 0, false)) : Optional.empty();
            case PERCENTAGE -> Optional.of(new Sum(0, part.number(), false, true));
            case DIMENSION -> {
                OptionalDouble unit = unit(part.name(), base);
                yield unit.isEmpty()
                        ? Optional.empty()
                        : Optional.of(new Sum(part.number() * unit.getAsDouble(), 0, false));
            }
            case FUNCTION -> isMath(part) ? math(part, base).filter(s -> !s.number()) : Optional.empty();
            default -> Optional.empty();
        };
    }

    /** A plain number or a sum of numbers. */
    public static OptionalDouble number(ComponentValue part, Base base) {
        if (part.kind() == ComponentValue.Kind.NUMBER) {
            return OptionalDouble.of(part.number());
        }
        if (isMath(part)) {
            Optional<Sum> sum = math(part, base).filter(Sum::number);
            return sum.isPresent() ? OptionalDouble.of(sum.get().px()) : OptionalDouble.empty();
        }
        return OptionalDouble.empty();
    }

    /** A math function; percentages inside min() and its kin next to lengths need layout and give an empty answer. */
    public static Optional<Sum> math(ComponentValue part, Base base) {
        try {
            return Optional.of(censored(new Calc(base).function(part, 0)));
        } catch (Calc.NotDecided e) {
            return Optional.empty();
        }
    }

    /** What is no number at the top of a calculation is 0: CSS Values 4, section 10.9.1. */
    private static Sum censored(Sum s) {
        return Double.isNaN(s.px()) || Double.isNaN(s.percent()) ? new Sum(0, 0, s.number(), false) : s;
    }

    /** Whether it is a unit of length. */
    static boolean isUnit(String unit) {
        return unit(unit, ANY).isPresent();
    }

    /** Whether a part is a length, percentage or a calculation that gives one, without knowing what units refer to. */
    public static boolean isLengthOrPercentage(ComponentValue part) {
        return isMath(part)
                ? MathType.of(part).filter(MathType::isLength).isPresent()
                : sum(part, ANY).isPresent();
    }

    /** Whether a part is a length, and no percentage takes part in it. */
    public static boolean isLength(ComponentValue part) {
        return isMath(part)
                ? MathType.of(part).filter(t -> t.isLength() && !t.percent()).isPresent()
                : part.kind() != ComponentValue.Kind.PERCENTAGE && isLengthOrPercentage(part);
    }

    /** Whether a part is a number or a calculation that gives one. */
    public static boolean isNumber(ComponentValue part) {
        return part.kind() == ComponentValue.Kind.NUMBER
                || isMath(part) && MathType.of(part).filter(MathType::isNumber).isPresent();
    }

    private static final Base ANY = new Base(16, 16, new Viewport(1000, 800), () -> 20, () -> 20);

    /** The longest length that layout knows, in px: Chromium counts 64ths of a pixel in 32 bits. */
    private static final double LONGEST = 33_554_432;

    private static final java.math.MathContext SIX_DIGITS = new java.math.MathContext(6);

    /** As browsers write a length: six significant digits of single precision, without needless zeros. */
    public static String px(double px) {
        return number(clamped(px)) + "px";
    }

    public static double clamped(double px) {
        return Math.max(-LONGEST, Math.min(LONGEST, px));
    }

    /** What is beyond single precision, infinity too, is its largest number: CSS Values 4, section 10.12. */
    public static String number(double value) {
        float single = (float) Math.max(-Float.MAX_VALUE, Math.min(Float.MAX_VALUE, value));
        if (single == 0 || Float.isNaN(single)) {
            return "0";
        }
        java.math.BigDecimal rounded =
                new java.math.BigDecimal(single).round(SIX_DIGITS).stripTrailingZeros();
        int exponent = rounded.precision() - rounded.scale() - 1;
        if (exponent < 6) {
            return rounded.toPlainString();
        }
        String digits = rounded.unscaledValue().abs().toString();
        return (rounded.signum() < 0 ? "-" : "")
                + digits.charAt(0)
                + (digits.length() > 1 ? "." + digits.substring(1) : "")
                + String.format(java.util.Locale.ROOT, "e+%02d", exponent);
    }

    public static String text(Sum sum) {
        if (sum.number()) {
            return number(sum.px());
        }
        if (!sum.needsLayout()) {
            return px(sum.px());
        }
        if (sum.px() == 0) {
            return number(sum.percent()) + "%";
        }
        return "calc(" + number(sum.percent()) + "% " + (sum.px() < 0 ? "- " : "+ ") + px(Math.abs(sum.px())) + ")";
    }
}

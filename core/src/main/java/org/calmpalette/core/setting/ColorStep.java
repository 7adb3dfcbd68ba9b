package org.calmpalette.core.setting;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.color.ColorSpace;
import org.calmpalette.core.color.HueArc;
import org.calmpalette.core.color.Interpolation;

/**
 * One step by which stylesheet preprocessors compute a colour from another: mixed with white or black in sRGB, moved in lightness in
 * HSL (CSS Color 4, section 7), or let through.
 */
public sealed interface ColorStep {
    /** Most steps in a row: what real stylesheets do has two and an opacity. */
    int MOST = 4;

    /** The colour after the step. */
    Color of(Color color);

    /** As {@code palette.json} and people write it: {@code 80% white}. */
    String text();

    /** Mixed in sRGB, so much of white or black; percent, 0 to 100. */
    record Mixed(boolean white, BigDecimal share) implements ColorStep {
        @Override
        public Color of(Color color) {
            Color with = (white ? Color.WHITE : Color.BLACK).withAlpha(color.alpha());
            return Interpolation.mix(
                    color.to(ColorSpace.SRGB),
                    with.to(ColorSpace.SRGB),
                    share.doubleValue() / 100,
                    ColorSpace.SRGB,
                    HueArc.SHORTER);
        }

        @Override
        public String text() {
            return Range.plain(share) + "% " + (white ? "white" : "black");
        }
    }

    /** How a lightness is given. */
    enum Way {
        /** Points more or less, -100 to 100. */
        BY,
        /** So much of the way to white or, below 0, to black, in percent. */
        TOWARDS,
        /** Whatever it was, this one, in percent. */
        TO
    }

    /** Hue and saturation in HSL stay, the lightness moves. */
    record Lightness(Way way, BigDecimal amount) implements ColorStep {
        @Override
        public Color of(Color color) {
            Color hsl = color.to(ColorSpace.HSL);
            double l = hsl.c2();
            double a = amount.doubleValue();
            double moved =
                    switch (way) {
                        case BY -> l + a;
                        case TOWARDS -> a > 0 ? l + (100 - l) * a / 100 : l + l * a / 100;
                        case TO -> a;
                    };
            return new Color(ColorSpace.HSL, hsl.c0(), hsl.c1(), Math.max(0, Math.min(100, moved)), hsl.alpha())
                    .to(ColorSpace.SRGB);
        }

        @Override
        public String text() {
            String n = Range.plain(amount.abs());
            return switch (way) {
                case BY -> "lightness " + (amount.signum() < 0 ? "-" : "+") + n;
                case TOWARDS -> "lightness " + n + "% towards " + (amount.signum() < 0 ? "black" : "white");
                case TO -> "lightness " + n + "%";
            };
        }
    }

    /** Percent of its own opacity, 0 to 100. */
    record Opacity(BigDecimal percent) implements ColorStep {
        @Override
        public Color of(Color color) {
            return color.withAlpha(color.alpha() * percent.doubleValue() / 100);
        }

        @Override
        public String text() {
            return "opacity " + Range.plain(percent) + "%";
        }
    }

    Pattern MIXED = Pattern.compile("(\\d{1,3}(?:\\.\\d{1,4})?)% (white|black)");
    Pattern MOVED = Pattern.compile("lightness ([+-])(\\d{1,3}(?:\\.\\d{1,4})?)");
    Pattern TOWARDS = Pattern.compile("lightness (\\d{1,3}(?:\\.\\d{1,4})?)% towards (white|black)");
    Pattern SET = Pattern.compile("lightness (\\d{1,3}(?:\\.\\d{1,4})?)%");
    Pattern THROUGH = Pattern.compile("opacity (\\d{1,3}(?:\\.\\d{1,4})?)%");

    private static Optional<ColorStep> one(String text) {
        Matcher m = MIXED.matcher(text);
        if (m.matches()) {
            boolean white = m.group(2).equals("white");
            return percent(m.group(1)).map(n -> new Mixed(white, n));
        }
        m = MOVED.matcher(text);
        if (m.matches()) {
            boolean less = m.group(1).equals("-");
            return percent(m.group(2)).map(n -> new Lightness(Way.BY, less ? n.negate() : n));
        }
        m = TOWARDS.matcher(text);
        if (m.matches()) {
            boolean black = m.group(2).equals("black");
            return percent(m.group(1)).map(n -> new Lightness(Way.TOWARDS, black ? n.negate() : n));
        }
        m = SET.matcher(text);
        if (m.matches()) {
            return percent(m.group(1)).map(n -> new Lightness(Way.TO, n));
        }
        m = THROUGH.matcher(text);
        return m.matches() ? percent(m.group(1)).map(Opacity::new) : Optional.empty();
    }

    private static Optional<BigDecimal> percent(String n) {
        BigDecimal value = new BigDecimal(n);
        return value.compareTo(BigDecimal.valueOf(100)) <= 0 ? Optional.of(value) : Optional.empty();
    }

    /**
     * Reads steps as people write them, {@code 80% white, opacity 50%}.
     *
     * @throws BadInputException that names the step which cannot be read
     */
    static List<ColorStep> read(String text) {
        List<ColorStep> steps = new ArrayList<>();
        for (String part : text.strip().split("\\s*,\\s*")) {
            String plain = part.strip().toLowerCase(Locale.ROOT).replaceAll("\\s+", " ");
            steps.add(
                    one(plain)
                            .orElseThrow(
                                    () -> new BadInputException(
                                            "“" + part + "” is no step by which a colour is computed.",
                                            "Write for instance: 80% white, 15% black, lightness +10, lightness 96%, lightness 85% towards white, opacity 50%.")));
        }
        if (steps.size() > MOST) {
            throw new BadInputException("There are more than " + MOST + " steps.", "Leave some out.");
        }
        return List.copyOf(steps);
    }
}

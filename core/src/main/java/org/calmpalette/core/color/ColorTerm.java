package org.calmpalette.core.color;

import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/**
 * The basic colour terms of English and what may be called so: the eleven that Berlin and Kay found (Basic Color Terms, 1969). The
 * bounds in OKLCH are our own, and wide: they have to hold every colour that a fair person lets pass under the name.
 */
public enum ColorTerm {
    WHITE(0.9, 1, 0, 0.04, 0, 360),
    BLACK(0, 0.35, 0, 0.05, 0, 360),
    GRAY(0.15, 0.97, 0, 0.06, 0, 360),
    RED(0.2, 0.9, 0.06, 1, 355, 55),
    PINK(0.5, 0.98, 0.02, 1, 310, 40),
    ORANGE(0.5, 0.95, 0.05, 1, 30, 85),
    BROWN(0.15, 0.7, 0.02, 0.2, 15, 110),
    YELLOW(0.65, 1, 0.04, 1, 70, 125),
    GREEN(0.15, 0.98, 0.008, 1, 105, 190),
    BLUE(0.1, 0.98, 0.008, 1, 185, 300),
    PURPLE(0.1, 0.95, 0.03, 1, 270, 350);

    private final double darkest;
    private final double lightest;
    private final double leastChroma;
    private final double mostChroma;
    private final double fromHue;
    private final double toHue;

    ColorTerm(double darkest, double lightest, double leastChroma, double mostChroma, double fromHue, double toHue) {
        this.darkest = darkest;
        this.lightest = lightest;
        this.leastChroma = leastChroma;
        this.mostChroma = mostChroma;
        this.fromHue = fromHue;
        this.toHue = toHue;
    }

    /** The terms that a name has among its words; {@code grey}, {@code violet} and the like count for their term. */
    public static List<ColorTerm> in(String name) {
        return Arrays.stream(name.toLowerCase(Locale.ROOT).split("[^a-z]+"))
                .flatMap(word -> term(word).stream())
                .distinct()
                .toList();
    }

    private static Optional<ColorTerm> term(String word) {
        return switch (word) {
            case "white" -> Optional.of(WHITE);
            case "black" -> Optional.of(BLACK);
            case "gray", "grey" -> Optional.of(GRAY);
            case "red", "reddish" -> Optional.of(RED);
            case "pink" -> Optional.of(PINK);
            case "orange" -> Optional.of(ORANGE);
            case "brown" -> Optional.of(BROWN);
            case "yellow" -> Optional.of(YELLOW);
            case "green" -> Optional.of(GREEN);
            case "blue", "navy" -> Optional.of(BLUE);
            case "purple", "violet" -> Optional.of(PURPLE);
            default -> Optional.empty();
        };
    }

    /** Whether a colour may be called so. */
    public boolean holds(Color color) {
        Color lch = color.to(ColorSpace.OKLCH);
        double l = lch.c0();
        double c = lch.c1();
        double h = ((lch.c2() % 360) + 360) % 360;
        boolean hue =
                toHue - fromHue == 360 || (fromHue <= toHue ? h >= fromHue && h <= toHue : h >= fromHue || h <= toHue);
        return l >= darkest && l <= lightest + 1e-9 && c >= leastChroma && c <= mostChroma && hue;
    }

    public String word() {
        return name().toLowerCase(Locale.ROOT);
    }
}

package org.calmpalette.core.color;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;

/**
 * Reads the colour notations of CSS Color 4 and 5: hex, names, {@code rgb()}, {@code hsl()}, {@code hwb()},
 * {@code lab()}, {@code lch()}, {@code oklab()}, {@code oklch()}, {@code color()}, {@code color-mix()},
 * {@code light-dark()} and colours relative to another one.
 */
public final class ColorSyntax {
    private static final Map<String, ColorSpace> PREDEFINED = Map.ofEntries(
            Map.entry("srgb", ColorSpace.SRGB),
            Map.entry("srgb-linear", ColorSpace.SRGB_LINEAR),
            Map.entry("display-p3", ColorSpace.DISPLAY_P3),
            Map.entry("display-p3-linear", ColorSpace.DISPLAY_P3_LINEAR),
            Map.entry("a98-rgb", ColorSpace.A98_RGB),
            Map.entry("prophoto-rgb", ColorSpace.PROPHOTO_RGB),
            Map.entry("rec2020", ColorSpace.REC2020),
            Map.entry("xyz", ColorSpace.XYZ_D65),
            Map.entry("xyz-d65", ColorSpace.XYZ_D65),
            Map.entry("xyz-d50", ColorSpace.XYZ_D50));
    private static final Map<String, ColorSpace> INTERPOLATION = Map.of(
            "lab",
            ColorSpace.LAB,
            "lch",
            ColorSpace.LCH,
            "oklab",
            ColorSpace.OKLAB,
            "oklch",
            ColorSpace.OKLCH,
            "hsl",
            ColorSpace.HSL,
            "hwb",
            ColorSpace.HWB);

    private final ColorScanner in;
    private final Function<String, Optional<Color>> keywords;
    private final boolean dark;

    private ColorSyntax(String text, Function<String, Optional<Color>> keywords, boolean dark) {
        this.in = new ColorScanner(text);
        this.keywords = keywords;
        this.dark = dark;
    }

    static Optional<Color> parse(String text) {
        return parse(text, name -> Optional.empty(), false);
    }

    /**
     * Reads a colour that may depend on where it stands.
     *
     * @param keywords the meaning of {@code currentcolor} and of system colours, by name in lower case
     * @param dark whether the used colour scheme is dark, for {@code light-dark()}
     */
    public static Optional<Color> parse(String text, Function<String, Optional<Color>> keywords, boolean dark) {
        try {
            ColorSyntax syntax = new ColorSyntax(text, keywords, dark);
            Color color = syntax.color();
            syntax.in.space();
            syntax.in.require(syntax.in.atEnd());
            return Optional.of(color);
        } catch (ColorScanner.NoColor e) {
            return Optional.empty();
        }
    }

    private Color color() {
        in.space();
        if (in.take('#')) {
            return hex(in.name());
        }
        String name = in.name().toLowerCase(Locale.ROOT);
        in.require(!name.isEmpty());
        if (!in.take('(')) {
            return NamedColors.get(name).or(() -> keywords.apply(name)).orElseThrow(ColorScanner.NoColor::new);
        }
        in.enter();
        Color color =
                switch (name) {
                    case "rgb", "rgba" -> function(ColorSpace.RGB, true);
                    case "hsl", "hsla" -> function(ColorSpace.HSL, true);
                    case "hwb" -> function(ColorSpace.HWB, false);
                    case "lab" -> function(ColorSpace.LAB, false);
                    case "lch" -> function(ColorSpace.LCH, false);
                    case "oklab" -> function(ColorSpace.OKLAB, false);
                    case "oklch" -> function(ColorSpace.OKLCH, false);
                    case "color" -> function(null, false);
                    case "color-mix" -> mix();
                    case "light-dark" -> lightDark();
                    default -> throw new ColorScanner.NoColor();
                };
        in.space();
        in.require(in.take(')'));
        in.leave();
        return color;
    }

    private static Color hex(String digits) {
        if (!digits.matches("[0-9a-fA-F]{3,8}") || digits.length() == 5 || digits.length() == 7) {
            throw new ColorScanner.NoColor();
        }
        int width = digits.length() < 6 ? 1 : 2;
        double[] c = {0, 0, 0, 1};
        for (int i = 0; i * width < digits.length(); i++) {
            int v = Integer.parseInt(digits.substring(i * width, (i + 1) * width), 16);
            c[i] = (width == 1 ? v * 17 : v) / 255.0;
        }
        return new Color(ColorSpace.RGB, c[0], c[1], c[2], c[3]);
    }

    private Color lightDark() {
        Color light = color();
        in.space();
        in.require(in.take(','));
        Color darkColor = color();
        return dark ? darkColor : light;
    }

    /** The body of a colour function; {@code space} is null for {@code color()}, whose first word names it. */
    private Color function(ColorSpace named, boolean mayBeLegacy) {
        in.space();
        Color origin = null;
        if (in.takeWord("from")) {
            origin = color();
            in.space();
        }
        ColorSpace space = named;
        if (space == null) {
            space = PREDEFINED.get(in.name().toLowerCase(Locale.ROOT));
            in.require(space != null);
        }
        Channels channels = Channels.of(space, named != null, origin);
        double[] c = new double[3];
        boolean[] percent = new boolean[3];
        boolean legacy = false;
        for (int i = 0; i < 3; i++) {
            in.space();
            if (i > 0 && in.take(',')) {
                in.require(mayBeLegacy && origin == null && (i == 1 || legacy));
                legacy = true;
            } else {
                in.require(i != 2 || !legacy);
            }
            c[i] = in.component(channels, i);
            percent[i] = in.lastWasPercent();
            // Legacy notations know no missing components; that it is one shows at the first comma.
            in.require(!legacy || !Double.isNaN(c[i]) && !Double.isNaN(c[0]));
        }
        if (legacy) {
            // Legacy rgb() takes three numbers or three percentages, legacy hsl() a hue and two percentages.
            in.require(
                    space == ColorSpace.HSL
                            ? percent[1] && percent[2]
                            : percent[0] == percent[1] && percent[1] == percent[2]);
        }
        double alpha = origin == null ? 1 : origin.alpha();
        in.space();
        if (in.take(legacy ? ',' : '/')) {
            in.space();
            alpha = in.component(channels, 3);
            in.require(!(legacy && Double.isNaN(alpha)));
            alpha = Double.isNaN(alpha) ? alpha : Math.max(0, Math.min(1, alpha));
        }
        return finish(space, c, alpha, origin != null);
    }

    private static Color finish(ColorSpace space, double[] c, double alpha, boolean relative) {
        switch (space) {
            case RGB -> {
                if (relative) {
                    return new Color(ColorSpace.SRGB, c[0], c[1], c[2], alpha);
                }
                // Legacy notations keep no missing components and no colours outside the gamut.
                return new Color(
                                ColorSpace.RGB, Color.zero(c[0]), Color.zero(c[1]), Color.zero(c[2]), Color.zero(alpha))
                        .toGamut();
            }
            case HSL, HWB -> {
                // As Chromium has it: no more than full saturation.
                c[1] = relative ? c[1] : space == ColorSpace.HSL ? Math.max(0, Math.min(100, c[1])) : Math.max(0, c[1]);
                Color polar = new Color(space, c[0], c[1], c[2], alpha);
                return relative
                        ? polar.to(ColorSpace.SRGB)
                        : polar.to(ColorSpace.RGB).withAlpha(Color.zero(alpha)).toGamut();
            }
            case LAB, LCH -> c[0] = clampKeepingMissing(c[0], 100);
            case OKLAB, OKLCH -> c[0] = clampKeepingMissing(c[0], 1);
            default -> {}
        }
        if (space == ColorSpace.LCH || space == ColorSpace.OKLCH) {
            c[1] = Double.isNaN(c[1]) ? c[1] : Math.max(0, c[1]);
            c[2] = Double.isNaN(c[2]) ? c[2] : Hsl.modulo(c[2], 360);
        }
        return new Color(space, c[0], c[1], c[2], alpha);
    }

    private static double clampKeepingMissing(double v, double most) {
        return Double.isNaN(v) ? v : Math.max(0, Math.min(most, v));
    }

    private Color mix() {
        in.space();
        ColorSpace space = ColorSpace.OKLAB;
        HueArc arc = HueArc.SHORTER;
        if (in.takeWord("in")) {
            in.space();
            String name = in.name().toLowerCase(Locale.ROOT);
            space = PREDEFINED.getOrDefault(name, INTERPOLATION.get(name));
            in.require(space != null);
            in.space();
            for (HueArc a : HueArc.values()) {
                if (in.takeWord(a.name().toLowerCase(Locale.ROOT))) {
                    in.space();
                    in.require(space.isPolar() && in.takeWord("hue"));
                    arc = a;
                    break;
                }
            }
            in.space();
            in.require(in.take(','));
        }
        List<Color> colors = new ArrayList<>();
        List<Double> shares = new ArrayList<>();
        do {
            in.space();
            Optional<Double> share = in.percentage();
            colors.add(color());
            in.space();
            if (share.isEmpty()) {
                share = in.percentage();
            }
            in.space();
            in.require(share.isEmpty() || share.get() >= 0 && share.get() <= 100);
            shares.add(share.orElse(Double.NaN));
        } while (in.take(','));
        in.require(colors.size() == 2);
        double second = shares.get(1);
        double first = shares.get(0);
        first = Double.isNaN(first) ? Double.isNaN(second) ? 50 : 100 - second : first;
        second = Double.isNaN(second) ? 100 - first : second;
        double alphaScale = Math.min(1, (first + second) / 100);
        // Nothing of either is half of each, and seen through: CSS Color 5, section 2.1.
        double share = first + second > 0 ? second / (first + second) : 0.5;
        Color mixed = Interpolation.mix(colors.get(0), colors.get(1), share, space, arc);
        if (space == ColorSpace.HSL || space == ColorSpace.HWB) {
            mixed = mixed.to(ColorSpace.SRGB);
        }
        return mixed.withAlpha(mixed.alpha() * alphaScale);
    }
}

package org.calmpalette.core.color;

import java.util.List;
import org.calmpalette.core.language.Language;

/**
 * What people call a colour, for who has never seen it written: “dark green”, “pale yellow”, “greyish blue”.
 *
 * <p>The words are those of the ISCC–NBS method of designating colours (NBS Special Publication 440, <cite>Color: Universal Language and
 * Dictionary of Names</cite>, 1976). Its borders are blocks of Munsell notation; ours are lightness, chroma and hue of OKLCH (CSS Color 4,
 * section 9.4), set by us so that the named colours of CSS get their own family's word.
 */
public final class ColorName {
    /** Below this chroma nobody sees a hue. */
    private static final double GREY = 0.02;
    /** Below this one sees a grey that leans to a hue. */
    private static final double GREYISH = 0.045;

    /**
     * @param until hue in degrees up to which it is called so
     * @param name of the sentence that says it
     * @param dark lightness below which it is a dark one
     * @param light from which it is a light one
     */
    private record Hue(double until, String name, double dark, double light) {}

    /** Yellow is the lightest of all at its fullest and blue the darkest, so each hue has lightnesses of its own. */
    private static final List<Hue> HUES = List.of(
            new Hue(12, "pink", 0.5, 0.86),
            new Hue(43, "red", 0.45, 0.72),
            new Hue(74, "orange", 0.62, 0.85),
            new Hue(117, "yellow", 0.78, 0.985),
            new Hue(132, "yellowish-green", 0.6, 0.9),
            new Hue(175, "green", 0.45, 0.88),
            new Hue(215, "bluish-green", 0.48, 0.92),
            new Hue(277, "blue", 0.4, 0.75),
            new Hue(312, "violet", 0.4, 0.72),
            new Hue(340, "purple", 0.45, 0.75),
            new Hue(360, "pink", 0.5, 0.86));

    private ColorName() {}

    /** @return one to four words, in English without a capital; of a colour that lets something through the words say so */
    public static String of(Color color) {
        double alpha = Color.zero(color.alpha());
        if (alpha < 0.005) {
            return Language.say("hue.clear");
        }
        String opaque = opaque(color);
        return alpha < 0.995 ? Language.say("shade.see-through", opaque) : opaque;
    }

    private static String opaque(Color color) {
        Color polar = color.toGamut().to(ColorSpace.OKLCH);
        double lightness = Color.zero(polar.c0());
        double chroma = Color.zero(polar.c1());
        double turned = Color.zero(polar.c2()) % 360;
        double angle = turned < 0 ? turned + 360 : turned;
        if (chroma < GREY) {
            return grey(lightness);
        }
        Hue hue = HUES.stream().filter(h -> angle < h.until).findFirst().orElseThrow();
        if (chroma < GREYISH) {
            String greyish = Language.say("shade.greyish", Language.say("hue." + hue.name));
            return lightness > 0.93
                    ? Language.say("hue.off-white")
                    : lightness < 0.25
                            ? Language.say("hue.near-black")
                            : lightness < 0.45
                                    ? Language.say("shade.dark", greyish)
                                    : lightness > 0.8 ? Language.say("shade.pale", greyish) : greyish;
        }
        return named(hue, angle, lightness, chroma);
    }

    private static String grey(double lightness) {
        return Language.say(
                lightness > 0.985
                        ? "hue.white"
                        : lightness > 0.94
                                ? "hue.off-white"
                                : lightness > 0.75
                                        ? "hue.light-grey"
                                        : lightness > 0.5
                                                ? "hue.grey"
                                                : lightness > 0.24
                                                        ? "hue.dark-grey"
                                                        : lightness > 0.12 ? "hue.near-black" : "hue.black");
    }

    private static String named(Hue hue, double angle, double lightness, double chroma) {
        String name = Language.say("hue." + hue.name);
        // What is dark has names of its own in some hues, and red that is light is called pink.
        if (hue.name.equals("orange") && lightness < hue.dark) {
            String brown = Language.say(angle < 50 ? "hue.reddish-brown" : "hue.brown");
            return lightness < 0.4 ? Language.say("shade.dark", brown) : brown;
        }
        if (hue.name.equals("yellow") && lightness < 0.68) {
            String olive = Language.say("hue.olive");
            return lightness < 0.45 ? Language.say("shade.dark", olive) : olive;
        }
        if (hue.name.equals("red") && lightness > hue.light) {
            return Language.say(lightness > 0.86 ? "hue.pale-pink" : "hue.light-pink");
        }
        if (hue.name.equals("pink") && lightness < hue.dark) {
            return Language.say("hue.dark-purplish-red");
        }
        if (lightness < hue.dark) {
            return Language.say("shade.dark", name);
        }
        // Light and weak is pale, light and strong is light.
        boolean weak = chroma < 0.09 && lightness > 0.8;
        return weak
                ? Language.say("shade.pale", name)
                : lightness > hue.light ? Language.say("shade.light", name) : name;
    }
}

package org.calmpalette.core.color;

import java.util.Locale;
import org.calmpalette.core.BadInputException;

/**
 * How colours become others, all in the same way: those of a picture, or of a theme. Alpha stays as it is.
 *
 * @param color that is laid over them, or that the darkest becomes; not used for {@link Way#HUE}
 * @param light that the lightest becomes; only for {@link Way#TWO_TONE}
 * @param amount percent of strength, 0 to 100; for {@link Way#HUE} degrees, -360 to 360
 */
public record Tint(Way way, Color color, Color light, double amount) {
    /** Ways to change colours. */
    public enum Way {
        /** The colour laid over, so strong: Compositing and Blending 1, section 5.1, source-over. */
        OVER("lay a colour over it"),
        /** Each channel multiplied with that of the colour: the same, section 10.1.2. */
        MULTIPLY("darken it with a colour"),
        /** Hue and saturation of the colour, lightness of what is there: the same, section 10.2, color. */
        COLOR("give it a colour’s hue"),
        /** The hue turned in OKLCH; chroma beyond sRGB is taken back until it fits, hue and lightness stay (CSS Color 4, section 13.2,
         * without its clipping at the end). */
        HUE("turn its hue"),
        /** From one colour to another in OKLab, by how light it is there. */
        TWO_TONE("make it two-tone");

        private final String label;

        Way(String label) {
            this.label = label;
        }

        public String label() {
            return label;
        }

        /** As forms have it. */
        public String key() {
            return name().toLowerCase(Locale.ROOT).replace('_', '-');
        }

        /** @throws BadInputException if there is no such way */
        public static Way of(String key) {
            for (Way w : values()) {
                if (w.key().equals(key)) {
                    return w;
                }
            }
            throw new BadInputException("There is no way “" + key + "” to change colours.", "Choose one of the list.");
        }
    }

    /** @throws BadInputException if the amount is out of its bounds */
    public Tint {
        double least = way == Way.HUE ? -360 : 0;
        double most = way == Way.HUE ? 360 : 100;
        if (!(amount >= least && amount <= most)) {
            throw new BadInputException(
                    (way == Way.HUE ? "A turn of " + amount + " degrees" : "A strength of " + amount + "%")
                            + " is out of bounds.",
                    way == Way.HUE ? "Write -360 to 360 degrees." : "Write 0 to 100.");
        }
    }

    /** What becomes of a colour; its alpha stays. */
    public Color of(Color from) {
        Color rgb = from.to(ColorSpace.SRGB).toGamut();
        Color changed =
                switch (way) {
                    case OVER -> laid(BlendMode.NORMAL, rgb);
                    case MULTIPLY -> laid(BlendMode.MULTIPLY, rgb);
                    case COLOR -> laid(BlendMode.COLOR, rgb);
                    case HUE -> turned(rgb);
                    case TWO_TONE -> toned(rgb);
                };
        return changed.withAlpha(from.alpha());
    }

    private Color laid(BlendMode mode, Color backdrop) {
        Color over = color.to(ColorSpace.SRGB).toGamut();
        double a = amount / 100;
        double[] now = {backdrop.c0(), backdrop.c1(), backdrop.c2(), 1};
        mode.over(now, new double[] {over.c0() * a, over.c1() * a, over.c2() * a, a});
        return Color.rgb(now[0], now[1], now[2]);
    }

    private Color turned(Color rgb) {
        Color lch = rgb.to(ColorSpace.OKLCH);
        double hue = (lch.c2() + amount) % 360;
        Color whole = new Color(ColorSpace.OKLCH, lch.c0(), lch.c1(), hue < 0 ? hue + 360 : hue, 1);
        if (whole.isInGamut()) {
            return whole.to(ColorSpace.SRGB);
        }
        double shown = 0;
        double beyond = lch.c1();
        while (beyond - shown > 1e-4) {
            double middle = (shown + beyond) / 2;
            if (new Color(ColorSpace.OKLCH, lch.c0(), middle, whole.c2(), 1).isInGamut()) {
                shown = middle;
            } else {
                beyond = middle;
            }
        }
        return new Color(ColorSpace.OKLCH, lch.c0(), shown, whole.c2(), 1)
                .toGamut()
                .to(ColorSpace.SRGB);
    }

    private Color toned(Color rgb) {
        double lightness = Math.max(0, Math.min(1, rgb.to(ColorSpace.OKLAB).c0()));
        Color tone = Interpolation.mix(color, light, lightness, ColorSpace.OKLAB, HueArc.SHORTER)
                .to(ColorSpace.SRGB)
                .toGamut();
        double a = amount / 100;
        return Color.rgb(
                rgb.c0() + (tone.c0() - rgb.c0()) * a,
                rgb.c1() + (tone.c1() - rgb.c1()) * a,
                rgb.c2() + (tone.c2() - rgb.c2()) * a);
    }

    /** In words within a sentence. */
    public String inWords() {
        return switch (way) {
            case OVER -> percent() + " of " + color.hex() + " over it";
            case MULTIPLY -> "darkened with " + percent() + " of " + color.hex();
            case COLOR -> percent() + " of the hue of " + color.hex();
            case HUE -> "hue turned by " + Math.round(amount) + " degrees";
            case TWO_TONE -> percent() + " of two tones, " + color.hex() + " to " + light.hex();
        };
    }

    private String percent() {
        return Math.round(amount) + "%";
    }
}

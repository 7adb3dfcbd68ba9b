package org.calmpalette.core.color;

import java.util.List;

/** Contrast as WCAG 2.2 defines it, over one background or over translucent layers. */
public final class Contrast {
    /** Font size in CSS px from which a text is large: 18 pt. */
    private static final double LARGE = 24;
    /** Of a bold text: 14 pt. */
    private static final double LARGE_BOLD = 18.66;

    private Contrast() {}

    /**
     * The ratio that a text needs: WCAG 2.2, success criterion 1.4.3, level AA.
     *
     * @param fontSize in CSS px
     * @param weight 1 to 1000; 700 is bold
     * @return 4.5, or 3 for a large text
     */
    public static double needed(double fontSize, double weight) {
        return fontSize >= LARGE || fontSize >= LARGE_BOLD && weight >= 700 ? 3 : 4.5;
    }

    /**
     * Relative luminance, 0 for black to 1 for white. The alpha is not looked at.
     *
     * @see <a href="https://www.w3.org/TR/WCAG22/#dfn-relative-luminance">WCAG 2.2, relative luminance</a>
     */
    public static double relativeLuminance(Color color) {
        Color c = color.toGamut();
        return 0.2126 * Transfer.srgbToLinear(c.c0())
                + 0.7152 * Transfer.srgbToLinear(c.c1())
                + 0.0722 * Transfer.srgbToLinear(c.c2());
    }

    /**
     * Contrast ratio of two opaque colours, 1 to 21, unrounded.
     *
     * @see <a href="https://www.w3.org/TR/WCAG22/#dfn-contrast-ratio">WCAG 2.2, contrast ratio</a>
     */
    public static double ratio(Color a, Color b) {
        double la = relativeLuminance(a);
        double lb = relativeLuminance(b);
        return (Math.max(la, lb) + 0.05) / (Math.min(la, lb) + 0.05);
    }

    /**
     * Contrast of a text over layers.
     *
     * @param text the text's colour, may be translucent
     * @param layers from the top to the bottom, the last one opaque
     * @return the ratio, 1 to 21, unrounded
     * @throws IllegalArgumentException if there is no layer or the last one lets something through
     */
    public static double ratioOver(Color text, List<Color> layers) {
        Color background = flatten(layers);
        return ratio(over(text, background), background);
    }

    /** What is seen of layers from the top to the bottom, the last one opaque. */
    public static Color flatten(List<Color> layers) {
        if (layers.isEmpty()) {
            throw new IllegalArgumentException("No layer is given: name at least one opaque colour behind the text.");
        }
        Color seen = layers.get(layers.size() - 1);
        if (!seen.isOpaque()) {
            throw new IllegalArgumentException("The last layer, " + seen.hex()
                    + ", lets through what is behind it: add the opaque colour that lies under it.");
        }
        seen = seen.toGamut();
        for (int i = layers.size() - 2; i >= 0; i--) {
            seen = over(layers.get(i), seen);
        }
        return seen;
    }

    /**
     * Simple alpha compositing in sRGB, as browsers paint.
     *
     * @see <a href="https://www.w3.org/TR/compositing-1/#simplealphacompositing">Compositing Level 1, section 5.1</a>
     */
    public static Color over(Color source, Color backdrop) {
        Color s = source.toGamut();
        Color b = backdrop.toGamut();
        double alpha = s.alpha() + b.alpha() * (1 - s.alpha());
        if (alpha == 0) {
            return Color.TRANSPARENT;
        }
        return new Color(
                ColorSpace.RGB,
                mix(s.c0(), s.alpha(), b.c0(), b.alpha()) / alpha,
                mix(s.c1(), s.alpha(), b.c1(), b.alpha()) / alpha,
                mix(s.c2(), s.alpha(), b.c2(), b.alpha()) / alpha,
                alpha);
    }

    private static double mix(double source, double sourceAlpha, double backdrop, double backdropAlpha) {
        return source * sourceAlpha + backdrop * backdropAlpha * (1 - sourceAlpha);
    }
}

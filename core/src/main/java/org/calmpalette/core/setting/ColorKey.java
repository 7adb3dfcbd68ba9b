package org.calmpalette.core.setting;

import org.calmpalette.core.color.Color;

/**
 * What makes two spellings one colour: the same bytes in sRGB, or, outside of sRGB's gamut, the same computed value.
 */
public final class ColorKey {
    private ColorKey() {}

    /** {@code #rrggbb}, {@code #rrggbbaa}, or the computed value of a colour that sRGB cannot show. */
    public static String of(Color color) {
        return color.isInGamut() ? color.hex() : color.css();
    }
}

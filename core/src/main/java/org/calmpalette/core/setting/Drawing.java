package org.calmpalette.core.setting;

import java.util.List;
import java.util.Locale;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.color.ColorSpace;
import org.calmpalette.core.css.Escapes;

/**
 * An SVG that a stylesheet writes into an address, with a colour setting put in. Nothing inside of an address can read a custom
 * property, so the setting becomes the whole address as well.
 *
 * @param parts text of the address around each place of the colour, at least two
 */
public record Drawing(List<String> parts) {
    public static final String START = "data:image/svg+xml";
    /** Characters of one drawing. */
    public static final int LONGEST = 20_000;

    /** @throws BadInputException if it is no such address, or too long */
    public Drawing {
        parts = List.copyOf(parts);
        if (parts.size() < 2 || !parts.get(0).toLowerCase(Locale.ROOT).startsWith(START)) {
            throw new BadInputException(
                    "A drawing is no SVG in an address with a place for the colour.",
                    "Write its address in parts, cut where the colour goes: [\"data:image/svg+xml,%3csvg … fill='\", \"'/%3e\"].");
        }
        if (parts.stream().mapToInt(String::length).sum() > LONGEST) {
            throw new BadInputException(
                    "A drawing is longer than " + LONGEST + " characters.",
                    "Save it as a file of its own, and recolour the file instead.");
        }
    }

    /** The drawing as a {@code url()}, in a colour. */
    public String css(String color) {
        return "url(" + Escapes.string(String.join(written(ColorKind.parse(color)), parts)) + ")";
    }

    /** As SVG 2 and addresses (RFC 3986) both have it: hexadecimal, {@code #} escaped. */
    public static String written(Color color) {
        Color srgb = color.to(ColorSpace.SRGB);
        return (srgb.isInGamut() ? srgb : color.toGamut()).hex().replace("#", "%23");
    }
}

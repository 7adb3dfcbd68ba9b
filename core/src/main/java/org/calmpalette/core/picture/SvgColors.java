package org.calmpalette.core.picture;

import java.nio.charset.StandardCharsets;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.color.Tint;

/** Colours that an SVG writes in its attributes and styles; all other bytes stay. */
final class SvgColors {
    private static final Pattern COLOR =
            Pattern.compile("\\b((?:fill|stroke|stop-color|flood-color|lighting-color|color)\\s*[:=]\\s*[\"']?\\s*)"
                    + "(#[0-9a-fA-F]{3,8}\\b|(?:rgb|hsl|oklch|oklab|lab|lch)a?\\([^()]{1,100}\\)|[a-zA-Z]{3,30}\\b)");

    private SvgColors() {}

    /** @throws BadInputException if it is not UTF-8, or writes no colour at all */
    static byte[] changed(String path, byte[] bytes, Tint tint) {
        String text = new String(bytes, StandardCharsets.UTF_8);
        StringBuilder out = new StringBuilder();
        Matcher m = COLOR.matcher(text);
        int from = 0;
        boolean any = false;
        while (m.find()) {
            Optional<Color> color = Color.parse(m.group(2));
            if (color.isPresent() && color.get().alpha() > 0) {
                any = true;
                out.append(text, from, m.start(2)).append(tint.of(color.get()).hex());
                from = m.end(2);
            }
        }
        if (!any || text.indexOf('\uFFFD') >= 0) {
            throw new BadInputException(
                    path
                            + (any
                                    ? " is not written in UTF-8."
                                    : " writes no colour: what it shows is black, or comes from elsewhere."),
                    any ? "Save it in UTF-8." : "Give its shapes a fill, or leave it out.");
        }
        return out.append(text.substring(from)).toString().getBytes(StandardCharsets.UTF_8);
    }
}

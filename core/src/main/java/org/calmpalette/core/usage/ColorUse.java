package org.calmpalette.core.usage;

import java.util.List;
import org.calmpalette.core.color.Color;

/**
 * One colour written in a stylesheet.
 *
 * @param start offset of its first character in the file's text; with the file it identifies the use
 * @param end offset after its last character
 * @param selector of the rule around it, nesting resolved
 * @param conditions at-rules around it as written, from the outermost
 * @param written as it stands in the file
 * @param triple true for {@code red, green, blue} numbers in a custom property that stylesheets put into {@code rgb()}
 * @param fallback true where it stands behind the comma of a {@code var()}, shown only while that is not set
 * @param obstacle why it cannot become a setting, in plain words; empty if it can
 * @param paints where it shows
 * @param comment the comment above the rule, as its author calls it; may be empty
 */
public record ColorUse(
        String file,
        int start,
        int end,
        int line,
        int column,
        String selector,
        List<String> conditions,
        String property,
        String written,
        Color color,
        boolean triple,
        boolean fallback,
        String obstacle,
        List<Painted> paints,
        String comment) {

    public boolean isLiftable() {
        return obstacle.isEmpty();
    }

    /** Names this use among those of one snapshot. */
    public String id() {
        return start + "-" + end + "@" + file;
    }
}

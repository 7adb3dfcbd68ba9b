package org.calmpalette.core.theme;

import org.calmpalette.core.css.SourceText;
import org.calmpalette.core.css.Stylesheet;

/**
 * A stylesheet of a theme, as a file of its own or inside a page.
 *
 * @param file the text of the whole file
 * @param offset where the stylesheet starts in it: 0, or the start of a {@code <style>} element's text
 */
public record ThemeSheet(SourceText file, Stylesheet sheet, int offset) {
    public String path() {
        return file.file();
    }

    /** Line in the file of an offset in the stylesheet's text. */
    public int line(int offsetInSheet) {
        return file.line(offset + offsetInSheet);
    }

    public int column(int offsetInSheet) {
        return file.column(offset + offsetInSheet);
    }
}

package org.calmpalette.core.cascade;

import org.calmpalette.core.css.SourceText;
import org.calmpalette.core.css.Stylesheet;

/**
 * A stylesheet where it stands: a file of its own, or a stretch of a page.
 *
 * @param file the whole file
 * @param offset of the stylesheet's text in the file's text
 */
public record SheetSource(SourceText file, Stylesheet sheet, int offset, Origin origin) {
    /** Line in the file of a token of the sheet. */
    int line(int token) {
        return file.line(offset + sheet.tokens().start(token));
    }

    int column(int token) {
        return file.column(offset + sheet.tokens().start(token));
    }
}

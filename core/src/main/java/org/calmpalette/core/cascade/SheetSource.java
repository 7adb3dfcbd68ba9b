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
    /** Whether the file has the sheet's text there character by character, between quotes: else its offsets are not those of the file. */
    boolean isVerbatim() {
        String text = file.text();
        String own = sheet.source().text();
        int end = offset + own.length();
        return offset > 0
                && end < text.length()
                && text.charAt(offset - 1) == text.charAt(end)
                && (text.charAt(end) == '"' || text.charAt(end) == '\'')
                && text.startsWith(own, offset);
    }

    /** Line in the file of a token of the sheet. */
    int line(int token) {
        return file.line(offset + sheet.tokens().start(token));
    }

    int column(int token) {
        return file.column(offset + sheet.tokens().start(token));
    }
}

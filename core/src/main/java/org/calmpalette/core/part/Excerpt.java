package org.calmpalette.core.part;

import java.util.ArrayList;
import java.util.List;
import org.calmpalette.core.css.SourceText;

/** Lines of a file around a place. */
public record Excerpt(String file, List<Line> lines) {
    private static final int LONGEST = 160;

    /** @param marked whether this is the place itself */
    public record Line(int number, String text, boolean marked) {}

    /** @param first the line that is meant, from 1; {@code last} the last line that is meant */
    public static Excerpt around(SourceText text, int first, int last, int room) {
        List<Line> lines = new ArrayList<>();
        int count = text.line(text.text().length());
        for (int n = Math.max(1, first - room); n <= Math.min(count, last + room); n++) {
            String line = text.lineText(n);
            lines.add(new Line(
                    n, line.length() > LONGEST ? line.substring(0, LONGEST) + "…" : line, n >= first && n <= last));
        }
        return new Excerpt(text.file(), lines);
    }

    /** A long line is shown from a little before the place, since a sheet without line breaks has one line. */
    public static Excerpt at(SourceText text, int offset, int end, int room) {
        int line = text.line(offset);
        if (text.lineText(line).length() <= LONGEST) {
            return around(text, line, text.line(Math.max(offset, end)), room);
        }
        int start = Math.max(text.lineStart(line), offset - 60);
        int stop = Math.min(text.lineEnd(line), Math.max(end, offset) + 60);
        String shown = (start > text.lineStart(line) ? "…" : "")
                + text.text().substring(start, Math.min(stop, start + 2 * LONGEST)) + "…";
        return new Excerpt(text.file(), List.of(new Line(line, shown, true)));
    }
}

package org.calmpalette.core.change;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import org.calmpalette.core.css.Edit;
import org.calmpalette.core.css.SourceText;
import org.calmpalette.core.page.Paths;
import org.calmpalette.core.setting.Palette;
import org.calmpalette.core.theme.Theme;

/** The exact lines of one file that a change touches. */
public record Difference(String file, List<Hunk> hunks, String remark) {
    private static final int MOST_NEW_LINES = 40;

    /** @param line of the first line, from 1 */
    public record Hunk(int line, List<String> before, List<String> after) {}

    public static List<Difference> of(Theme theme, Change change) {
        List<Difference> all = new ArrayList<>();
        change.edits().keySet().forEach(file -> all.add(edited(Change.text(theme, file), change.fitted(theme, file))));
        change.written().forEach((file, bytes) -> all.add(written(theme, file, bytes)));
        change.removed()
                .forEach(file -> all.add(new Difference(
                        file, List.of(), "goes, " + kilobytes(theme.files().size(file)))));
        change.palette().ifPresent(p -> all.add(new Difference(Palette.FILE, List.of(), settings(theme, p))));
        return all;
    }

    private static Difference edited(SourceText text, List<Edit> edits) {
        List<Hunk> hunks = new ArrayList<>();
        int i = 0;
        while (i < edits.size()) {
            int first = text.line(edits.get(i).start());
            int last = text.line(edits.get(i).end());
            int j = i + 1;
            while (j < edits.size() && text.line(edits.get(j).start()) <= last) {
                last = Math.max(last, text.line(edits.get(j).end()));
                j++;
            }
            List<String> before = new ArrayList<>();
            for (int line = first; line <= last; line++) {
                before.add(text.lineText(line));
            }
            hunks.add(trimmed(first, before, after(text, first, last, edits.subList(i, j))));
            i = j;
        }
        return new Difference(text.file(), hunks, "");
    }

    private static List<String> after(SourceText text, int first, int last, List<Edit> edits) {
        String all = text.text();
        int at = text.lineStart(first);
        StringBuilder out = new StringBuilder();
        for (Edit e : edits) {
            out.append(all, at, e.start()).append(e.replacement());
            at = e.end();
        }
        int end = text.lineEnd(last);
        if (at < end) {
            out.append(all, at, end);
        }
        return out.toString().lines().toList();
    }

    /** Lines that stay the same at both ends are not part of a change. */
    private static Hunk trimmed(int line, List<String> before, List<String> after) {
        int start = 0;
        while (start < before.size()
                && start < after.size()
                && before.get(start).equals(after.get(start))) {
            start++;
        }
        int end = 0;
        while (end < before.size() - start
                && end < after.size() - start
                && before.get(before.size() - 1 - end).equals(after.get(after.size() - 1 - end))) {
            end++;
        }
        return new Hunk(
                line + start, before.subList(start, before.size() - end), after.subList(start, after.size() - end));
    }

    private static Difference written(Theme theme, String file, byte[] bytes) {
        boolean isNew = !theme.files().has(file);
        if (Paths.isStylesheet(file) || Paths.isPage(file)) {
            List<String> lines = new String(bytes, StandardCharsets.UTF_8)
                    .lines()
                    .limit(MOST_NEW_LINES)
                    .toList();
            return new Difference(file, List.of(new Hunk(1, List.of(), lines)), isNew ? "is new" : "is written anew");
        }
        return new Difference(
                file,
                List.of(),
                isNew
                        ? "is new, " + kilobytes(bytes.length)
                        : kilobytes(theme.files().size(file)) + " become " + kilobytes(bytes.length));
    }

    private static String settings(Theme theme, Palette now) {
        boolean added = now.settings().size() > theme.palette().settings().size();
        return theme.files().has(Palette.FILE)
                ? added ? "gets the setting" : "changes"
                : added ? "is made, with the setting" : "is made";
    }

    private static String kilobytes(long bytes) {
        return bytes < 10_000 ? bytes + " bytes" : Math.round(bytes / 1000.0) + " kB";
    }
}

package org.calmpalette.core.change;

import com.github.difflib.DiffUtils;
import com.github.difflib.algorithm.DiffAlgorithmListener;
import com.github.difflib.patch.AbstractDelta;
import java.util.ArrayList;
import java.util.List;
import org.calmpalette.core.Budget;
import org.calmpalette.core.css.Edit;
import org.calmpalette.core.setting.Palette;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.ThemeFiles;

/** The edits that lie between two states of a theme, where several changes were made one after another. */
public final class Between {
    private Between() {}

    /**
     * One change that does what several did.
     *
     * @param note of it
     * @param after made of the first one by changes of stylesheets, pages and the palette
     */
    public static Change of(Theme before, Theme after, String note) {
        Change change = Change.of(note);
        for (String path : after.files().paths()) {
            if (path.equals(Palette.FILE)) {
                continue;
            }
            if (!before.files().has(path)) {
                change = change.withFile(path, after.files().read(path));
            } else if (!ThemeFiles.isSame(before.files(), after.files(), path)) {
                for (Edit e : edits(
                        Change.text(before, path).text(),
                        Change.text(after, path).text())) {
                    change = change.with(path, e);
                }
            }
        }
        for (String path : before.files().paths()) {
            if (!after.files().has(path) && !path.equals(Palette.FILE)) {
                change = change.withoutFile(path);
            }
        }
        return change.withPalette(before, after.palette());
    }

    /** Lines that come and go up to which the fewest are looked for: the work grows with the square of them. */
    private static final int MOST_LINES = 4_000;

    /** More lines came and went than are looked for. */
    private static final class TooManyException extends RuntimeException {
        private static final long serialVersionUID = 1;

        TooManyException() {
            super(null, null, false, false);
        }
    }

    private static List<AbstractDelta<String>> deltas(List<String> old, List<String> now) {
        return DiffUtils.diff(old, now, new DiffAlgorithmListener() {
                    @Override
                    public void diffStart() {}

                    @Override
                    public void diffStep(int value, int max) {
                        Budget.step();
                        if (value > MOST_LINES) {
                            throw new TooManyException();
                        }
                    }

                    @Override
                    public void diffEnd() {}
                })
                .getDeltas();
    }

    /**
     * As few lines as it takes (Myers, An O(ND) difference algorithm, 1986), and of lines that changed only what is between their common
     * ends. Where very many lines came and went, all between what is alike at both ends count as one change.
     */
    static List<Edit> edits(String a, String b) {
        List<String> old = lines(a);
        List<String> now = lines(b);
        int start = 0;
        int least = Math.min(old.size(), now.size());
        while (start < least && old.get(start).equals(now.get(start))) {
            start++;
        }
        int end = 0;
        while (end < least - start && old.get(old.size() - 1 - end).equals(now.get(now.size() - 1 - end))) {
            end++;
        }
        List<String> gone = old.subList(start, old.size() - end);
        List<String> added = now.subList(start, now.size() - end);
        List<Edit> all = new ArrayList<>();
        int at = length(old.subList(0, start));
        List<AbstractDelta<String>> deltas;
        try {
            deltas = deltas(gone, added);
        } catch (TooManyException many) {
            replace(at, String.join("", gone), String.join("", added), all);
            return all;
        }
        int line = 0;
        for (AbstractDelta<String> delta : deltas) {
            at += length(gone.subList(line, delta.getSource().getPosition()));
            List<String> before = delta.getSource().getLines();
            List<String> after = delta.getTarget().getLines();
            line = delta.getSource().getPosition() + before.size();
            if (before.size() == after.size()) {
                for (int i = 0; i < before.size(); i++) {
                    at = replace(at, before.get(i), after.get(i), all);
                }
            } else {
                at = replace(at, String.join("", before), String.join("", after), all);
            }
        }
        return all;
    }

    private static int length(List<String> lines) {
        return lines.stream().mapToInt(String::length).sum();
    }

    /** @return where what was there ends */
    private static int replace(int at, String before, String after, List<Edit> all) {
        int most = Math.min(before.length(), after.length());
        int start = 0;
        while (start < most && before.charAt(start) == after.charAt(start)) {
            start++;
        }
        int end = 0;
        while (end < most - start
                && before.charAt(before.length() - 1 - end) == after.charAt(after.length() - 1 - end)) {
            end++;
        }
        if (start < before.length() - end || start < after.length() - end) {
            all.add(new Edit(at + start, at + before.length() - end, after.substring(start, after.length() - end)));
        }
        return at + before.length();
    }

    /** Each with its end. */
    private static List<String> lines(String text) {
        List<String> all = new ArrayList<>();
        int from = 0;
        for (int i = 0; i < text.length(); i++) {
            char c = text.charAt(i);
            if (c == '\n' || c == '\r' && (i + 1 == text.length() || text.charAt(i + 1) != '\n')) {
                all.add(text.substring(from, i + 1));
                from = i + 1;
            }
        }
        if (from < text.length()) {
            all.add(text.substring(from));
        }
        return all;
    }
}

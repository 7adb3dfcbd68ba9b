package org.calmpalette.core.change;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.apache.commons.text.diff.CommandVisitor;
import org.apache.commons.text.diff.StringsComparator;
import org.calmpalette.core.css.Edit;
import org.calmpalette.core.theme.Theme;

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
            if (path.equals("palette.json")) {
                continue;
            }
            byte[] now = after.files().read(path);
            if (!before.files().has(path)) {
                change = change.withFile(path, now);
            } else if (!java.util.Arrays.equals(before.files().read(path), now)) {
                for (Edit e : edits(
                        Change.text(before, path).text(),
                        Change.text(after, path).text())) {
                    change = change.with(path, e);
                }
            }
        }
        return change.withPalette(before, after.palette());
    }

    /**
     * As few lines as it takes (Myers, An O(ND) difference algorithm, 1986), and of lines that changed only what is between their
     * common ends.
     */
    static List<Edit> edits(String a, String b) {
        Map<String, Character> names = new HashMap<>();
        List<String> old = lines(a);
        List<String> now = lines(b);
        Script script = new Script(old, now);
        new StringsComparator(named(old, names), named(now, names)).getScript().visit(script);
        script.close();
        return script.all;
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

    /** One character for each line, the same for the same; beyond all characters there are, lines count as different. */
    private static String named(List<String> lines, Map<String, Character> names) {
        StringBuilder out = new StringBuilder();
        for (String line : lines) {
            out.append((char) names.computeIfAbsent(line, l -> (char) Math.min(Character.MAX_VALUE, names.size()))
                    .charValue());
        }
        return out.toString();
    }

    /** Puts neighbouring insertions and deletions together. */
    private static final class Script implements CommandVisitor<Character> {
        private final List<Edit> all = new ArrayList<>();
        private final List<String> old;
        private final List<String> now;
        private int oldLine;
        private int newLine;
        private int at;
        private final List<String> added = new ArrayList<>();
        private final List<String> gone = new ArrayList<>();

        Script(List<String> old, List<String> now) {
            this.old = old;
            this.now = now;
        }

        @Override
        public void visitInsertCommand(Character c) {
            added.add(now.get(newLine++));
        }

        @Override
        public void visitDeleteCommand(Character c) {
            gone.add(old.get(oldLine++));
        }

        @Override
        public void visitKeepCommand(Character c) {
            close();
            at += old.get(oldLine++).length();
            newLine++;
        }

        void close() {
            if (gone.size() == added.size()) {
                for (int i = 0; i < gone.size(); i++) {
                    replace(gone.get(i), added.get(i));
                }
            } else {
                replace(String.join("", gone), String.join("", added));
            }
            gone.clear();
            added.clear();
        }

        private void replace(String before, String after) {
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
            at += before.length();
        }
    }
}

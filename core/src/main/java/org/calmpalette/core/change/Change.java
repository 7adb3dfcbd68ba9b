package org.calmpalette.core.change;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.SortedMap;
import java.util.SortedSet;
import java.util.TreeMap;
import java.util.TreeSet;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.css.Edit;
import org.calmpalette.core.css.SourceText;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.setting.Palette;
import org.calmpalette.core.setting.PaletteJson;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.ThemeFiles;
import org.calmpalette.core.theme.ThemeSheet;

/**
 * A change of a theme that has not been made yet: the one type for everything that edits a theme. It can be previewed
 * ({@link #applied}), told as exact lines ({@link Difference}), tried ({@link Trial}) and made ({@link #files}); every palette
 * in it has been checked as a whole. Bytes are made only when they are asked for.
 *
 * @param note what it does, in words that fit the history
 * @param edits of stylesheets and pages, by path
 * @param written files that are written whole: new ones, and pictures
 * @param palette the settings as they become; empty where they stay
 * @param removed files that go; the snapshot before keeps them
 */
public record Change(
        String note,
        SortedMap<String, List<Edit>> edits,
        SortedMap<String, byte[]> written,
        Optional<Palette> palette,
        SortedSet<String> removed) {

    public static Change of(String note) {
        return new Change(note, new TreeMap<>(), new TreeMap<>(), Optional.empty(), new TreeSet<>());
    }

    public static Change edit(String note, String file, Edit... edits) {
        return of(note).with(file, edits);
    }

    /** With more edits of a file. */
    public Change with(String file, Edit... more) {
        return with(Map.of(file, List.of(more)));
    }

    /** With more edits by file. */
    public Change with(Map<String, List<Edit>> more) {
        SortedMap<String, List<Edit>> all = new TreeMap<>(edits);
        more.forEach((file, list) -> {
            List<Edit> joined = new ArrayList<>(all.getOrDefault(file, List.of()));
            joined.addAll(list);
            all.put(file, List.copyOf(joined));
        });
        return new Change(note, all, written, palette, removed);
    }

    /** With a file that is written whole. */
    public Change withFile(String path, byte[] bytes) {
        SortedMap<String, byte[]> all = new TreeMap<>(written);
        all.put(path, bytes);
        return new Change(note, edits, all, palette, removed);
    }

    /** Without a file. */
    public Change withoutFile(String path) {
        SortedSet<String> all = new TreeSet<>(removed);
        all.add(path);
        return new Change(note, edits, written, palette, all);
    }

    /**
     * With other settings.
     *
     * @param theme that is changed
     * @throws BadInputException if a default or a scheme of the palette holds what is not allowed, and did not before
     */
    public Change withPalette(Theme theme, Palette now) {
        PaletteChange.check(theme, now);
        return new Change(note, edits, written, Optional.of(now), removed);
    }

    public boolean isEmpty() {
        return edits.isEmpty() && written.isEmpty() && palette.isEmpty() && removed.isEmpty();
    }

    /**
     * Several changes as one. Where two would touch the same characters, write the same file or both change the settings, the
     * first one is taken and the other left for another time.
     */
    public static Change all(String note, List<Change> changes) {
        SortedMap<String, List<Edit>> edits = new TreeMap<>();
        SortedMap<String, byte[]> written = new TreeMap<>();
        Optional<Palette> palette = Optional.empty();
        SortedSet<String> removed = new TreeSet<>();
        for (Change one : changes) {
            boolean clash =
                    one.written().keySet().stream().anyMatch(f -> written.containsKey(f) || edits.containsKey(f))
                            || one.edits().keySet().stream().anyMatch(written::containsKey)
                            || one.palette().isPresent() && palette.isPresent()
                            || one.edits().entrySet().stream().anyMatch(e -> e.getValue().stream()
                                    .anyMatch(a -> edits.getOrDefault(e.getKey(), List.of()).stream()
                                            .anyMatch(b -> clash(a, b))));
            if (!clash) {
                one.edits().forEach((file, list) -> {
                    Set<Edit> merged = new LinkedHashSet<>(edits.getOrDefault(file, List.of()));
                    merged.addAll(list);
                    edits.put(file, List.copyOf(merged));
                });
                written.putAll(one.written());
                removed.addAll(one.removed());
                palette = one.palette().isPresent() ? one.palette() : palette;
            }
        }
        return new Change(note, edits, written, palette, removed);
    }

    private static boolean clash(Edit a, Edit b) {
        return !a.equals(b) && (a.start() < b.end() && b.start() < a.end() || a.start() == b.start());
    }

    /** The files that get other bytes. @throws BadInputException if it changes nothing, or a file is gone */
    public SortedMap<String, byte[]> files(Theme theme) {
        if (isEmpty()) {
            throw new BadInputException(
                    "This would change nothing.", "It may have been mended already; load the page again.");
        }
        SortedMap<String, byte[]> changed = new TreeMap<>(written);
        edits.keySet().forEach(file -> changed.put(file, text(theme, file).withEdits(fitted(theme, file))));
        palette.ifPresent(p -> changed.put(
                Palette.FILE,
                PaletteJson.write(
                        p, theme.files().has(Palette.FILE) ? theme.files().read(Palette.FILE) : null)));
        return changed;
    }

    /** The theme as it would be. */
    public Theme applied(Theme theme) {
        SortedMap<String, byte[]> changed = files(theme);
        Set<String> touched = new TreeSet<>(removed);
        touched.addAll(changed.keySet());
        return theme.with(ThemeFiles.overlaid(theme.files(), changed, removed), touched);
    }

    /** The text of a stylesheet, page or source of a build. @throws BadInputException if the file is not there any more */
    static SourceText text(Theme theme, String file) {
        for (Page page : theme.pages()) {
            if (page.source().file().equals(file)) {
                return page.source();
            }
        }
        for (ThemeSheet part : theme.sheets()) {
            if (part.path().equals(file)) {
                return part.file();
            }
        }
        if (theme.files().has(file)) {
            return SourceText.stylesheet(file, theme.files().read(file));
        }
        throw new BadInputException("There is no file " + file + " in the theme any more.", "Load the page again.");
    }

    /**
     * The edits of a file in the order of its text, as they are made: what goes into a style attribute is written so that its
     * quotes do not end there, with the other quote of CSS, or else as a character reference.
     */
    List<Edit> fitted(Theme theme, String file) {
        List<ThemeSheet> inside =
                theme.attributes().stream().filter(a -> a.path().equals(file)).toList();
        return edits.get(file).stream()
                .map(e -> inside.stream()
                        .filter(a -> e.start() >= a.offset()
                                && e.end()
                                        <= a.offset()
                                                + a.sheet().source().text().length())
                        .findFirst()
                        .map(a -> new Edit(e.start(), e.end(), quoted(e.replacement(), a)))
                        .orElse(e))
                .sorted(Comparator.comparingInt(Edit::start).thenComparingInt(Edit::end))
                .toList();
    }

    private static String quoted(String text, ThemeSheet attribute) {
        String mark = attribute.file().text().substring(attribute.offset() - 1, attribute.offset());
        String other = mark.equals("'") ? "\"" : "'";
        String safe = text.replaceAll("&(?=[a-zA-Z#])", "&amp;");
        return !safe.contains(mark)
                ? safe
                : safe.contains(other)
                        ? safe.replace(mark, mark.equals("'") ? "&#39;" : "&quot;")
                        : safe.replace(mark, other);
    }
}

package org.calmpalette.core.change;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.SortedMap;
import java.util.SortedSet;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.regex.Pattern;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.css.Edit;
import org.calmpalette.core.css.SourceText;
import org.calmpalette.core.css.Stylesheet;
import org.calmpalette.core.output.ThemeBuild;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.page.Paths;
import org.calmpalette.core.setting.Palette;
import org.calmpalette.core.setting.PaletteMerge;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.ThemeFiles;
import org.calmpalette.core.theme.ThemeSheet;
import org.calmpalette.core.usage.BoundUse;
import org.calmpalette.core.usage.ColorUsage;

/**
 * Two states of a theme that were made of one, put together (three-way merge): what one side changed is taken, what both changed alike is
 * taken once, and what both changed differently is a {@link Clash} that holds both. Which side is called ours makes no difference to the
 * bytes, nor to where the clashes are.
 *
 * <p>Changes meet where they touch the same declaration or selector list of a stylesheet, the same tag or stretch of text of a page, the
 * same line of any other text, the same key of an entry of {@code palette.json}.
 *
 * @param ours one of the two
 * @param files that differ from those of ours, by path
 * @param removed files of ours that go
 * @param clashes empty if all of it stands together
 */
public record Merge(Theme ours, SortedMap<String, byte[]> files, SortedSet<String> removed, List<Clash> clashes) {
    /** Characters that text files do not hold. */
    private static final Pattern BINARY = Pattern.compile("[\\x00-\\x08\\x0e-\\x1a\\ufffd]");

    public static Merge of(Theme base, Theme ours, Theme theirs) {
        return new Merging(base, ours, theirs).made();
    }

    /**
     * What makes of our side what both give.
     *
     * @throws BadInputException if they clash, or if nothing would change
     */
    public Change change(String note) {
        if (!clashes.isEmpty()) {
            throw new BadInputException(clashes.get(0).message() + ".", "Change that by hand.");
        }
        Change change = Change.of(note);
        for (Map.Entry<String, byte[]> file : files.entrySet()) {
            String path = file.getKey();
            Optional<SourceText> now = text(ours, path);
            boolean edited = now.isPresent() && (Paths.isPage(path) || Paths.isStylesheet(path));
            change = edited
                    ? change.with(Map.of(
                            path,
                            Between.edits(
                                    now.get().text(),
                                    sameKind(now.get(), file.getValue()).text())))
                    : change.withFile(path, file.getValue());
        }
        for (String path : removed) {
            change = change.withoutFile(path);
        }
        return change;
    }

    private static SourceText sameKind(SourceText like, byte[] bytes) {
        return Paths.isPage(like.file())
                ? SourceText.page(like.file(), bytes)
                : SourceText.stylesheet(like.file(), bytes, like.charset());
    }

    /** Empty where a file is not there or holds no text. */
    private static Optional<SourceText> text(Theme theme, String path) {
        try {
            SourceText text = Change.text(theme, path);
            return BINARY.matcher(text.text()).find() ? Optional.empty() : Optional.of(text);
        } catch (BadInputException none) {
            return Optional.empty();
        }
    }

    private static final class Merging {
        private final Theme base;
        private final Theme ours;
        private final Theme theirs;
        private final SortedMap<String, byte[]> files = new TreeMap<>();
        private final SortedSet<String> removed = new TreeSet<>();
        private final List<Clash> clashes = new ArrayList<>();

        Merging(Theme base, Theme ours, Theme theirs) {
            this.base = base;
            this.ours = ours;
            this.theirs = theirs;
        }

        Merge made() {
            Set<String> paths = new TreeSet<>(base.files().paths());
            paths.addAll(ours.files().paths());
            paths.addAll(theirs.files().paths());
            paths.forEach(this::file);
            if (clashes.isEmpty()) {
                together();
            }
            return new Merge(ours, files, removed, List.copyOf(clashes));
        }

        private static byte[] read(ThemeFiles files, String path) {
            return files.has(path) ? files.read(path) : null;
        }

        private void file(String path) {
            ThemeFiles then = base.files();
            if (ThemeFiles.isSame(ours.files(), theirs.files(), path)
                    || ThemeFiles.isSame(then, theirs.files(), path)) {
                return;
            }
            byte[] a = read(ours.files(), path);
            byte[] b = read(theirs.files(), path);
            if (ThemeFiles.isSame(then, ours.files(), path)) {
                if (b == null) {
                    removed.add(path);
                } else {
                    files.put(path, b);
                }
            } else if (a == null || b == null) {
                clashes.add(Clash.whole(path, a == null ? "it is gone" : "it was changed, and would go"));
            } else if (path.equals(Palette.FILE)) {
                palette(read(then, path), a, b);
            } else {
                texts(path, a, b);
            }
        }

        private void palette(byte[] then, byte[] a, byte[] b) {
            PaletteMerge.Merged both = PaletteMerge.of(then, a, b);
            both.clashes().forEach(c -> clashes.add(new Clash(Palette.FILE, 0, c.at(), "", c.ours(), c.theirs())));
            put(Palette.FILE, both.bytes(), a);
        }

        private void texts(String path, byte[] a, byte[] b) {
            Optional<SourceText> then = text(base, path);
            Optional<SourceText> one = text(ours, path);
            Optional<SourceText> other = text(theirs, path);
            if (then.isEmpty() || one.isEmpty() || other.isEmpty()) {
                clashes.add(Clash.whole(
                        path, then.isEmpty() && !base.files().has(path) ? "both sides made it" : "it was replaced"));
                return;
            }
            List<Edit> mine = Between.edits(then.get().text(), one.get().text());
            List<Edit> yours = Between.edits(then.get().text(), other.get().text());
            // Another encoding, or a byte that is no text, is nothing that edits of a text can carry.
            if (!Arrays.equals(then.get().withEdits(mine), a)
                    || !Arrays.equals(then.get().withEdits(yours), b)) {
                clashes.add(Clash.whole(path, "its encoding was changed"));
                return;
            }
            int before = clashes.size();
            List<Edit> all =
                    new Meeting(then.get(), new Units(base, path, then.get().text())).of(mine, yours);
            if (clashes.size() == before) {
                byte[] bytes = then.get().withEdits(all);
                if (Paths.isStylesheet(path) && faults(path, bytes) > Math.max(faults(path, a), faults(path, b))) {
                    clashes.add(Clash.whole(path, "it could not be read with both"));
                }
                put(path, bytes, a);
            }
        }

        private void put(String path, byte[] bytes, byte[] ours) {
            if (!Arrays.equals(bytes, ours)) {
                files.put(path, bytes);
            }
        }

        private static int faults(String path, byte[] bytes) {
            return Stylesheet.read(path, bytes).faults().size();
        }

        /** What is only seen of the whole: settings that are not allowed, and what would read settings that are gone. */
        private void together() {
            Set<String> touched = new TreeSet<>(files.keySet());
            touched.addAll(removed);
            if (touched.isEmpty()) {
                return;
            }
            try {
                Theme both = ours.with(ThemeFiles.overlaid(ours.files(), files, removed), touched);
                PaletteChange.check(ours, both.palette());
                List<Palette.Fault> known = new ArrayList<>(ours.palette().faults());
                known.addAll(theirs.palette().faults());
                Set<String> said = new LinkedHashSet<>();
                known.forEach(f -> said.add(f.at() + f.what()));
                both.palette().faults().stream()
                        .filter(f -> !said.contains(f.at() + f.what()))
                        .forEach(f ->
                                clashes.add(new Clash(Palette.FILE, f.line(), f.at() + ": " + f.what(), "", "", "")));
                List.of(ours, theirs).forEach(side -> lost(both, side));
            } catch (BadInputException e) {
                clashes.add(Clash.whole(Palette.FILE, e.getMessage()));
            }
        }

        /** What still reads a setting of one side that is gone with the other. */
        private void lost(Theme both, Theme side) {
            List<Setting> gone = side.palette().settings().stream()
                    .filter(s -> both.palette().setting(s.key()).isEmpty())
                    .toList();
            if (gone.isEmpty()) {
                return;
            }
            // As if they were there: only then is it known what is bound to them.
            Theme with = both.with(side.palette());
            ColorUsage.Result usage = ColorUsage.of(with);
            for (Setting s : gone) {
                for (BoundUse use : usage.boundTo(s.key())) {
                    clashes.add(reading(with, s, use.file(), use.start()));
                }
                PageBinding.released(with, s.key(), ThemeBuild.defaults(with))
                        .forEach((file, edits) ->
                                edits.stream().limit(1).forEach(e -> clashes.add(reading(with, s, file, e.start()))));
            }
        }

        private static Clash reading(Theme theme, Setting s, String file, int at) {
            return new Clash(
                    file,
                    text(theme, file).map(t -> t.line(at)).orElse(0),
                    "it reads the setting “" + s.label() + "”, which would be gone",
                    "",
                    "",
                    "");
        }

        /** Which edits of two sides meet. */
        private final class Meeting {
            /** @param start, end of what an edit touches, in whole units */
            private record Region(int start, int end, Edit edit, boolean mine) {
                boolean isPoint() {
                    return start == end;
                }
            }

            private final SourceText text;
            private final Units units;

            Meeting(SourceText text, Units units) {
                this.text = text;
                this.units = units;
            }

            List<Edit> of(List<Edit> mine, List<Edit> yours) {
                List<Region> regions = new ArrayList<>();
                mine.forEach(e -> regions.add(region(e, true)));
                yours.forEach(e -> regions.add(region(e, false)));
                regions.sort(Comparator.comparingInt(Region::start).thenComparingInt(Region::end));
                Set<Edit> all = new LinkedHashSet<>();
                List<Region> group = new ArrayList<>();
                int end = -1;
                for (Region r : regions) {
                    boolean meets = r.start() < end
                            || r.isPoint()
                                    && !group.isEmpty()
                                    && group.get(group.size() - 1).isPoint()
                                    && end == r.start();
                    if (!meets) {
                        close(group, all);
                        group.clear();
                    }
                    group.add(r);
                    end = meets ? Math.max(end, r.end()) : r.end();
                }
                close(group, all);
                List<Edit> sorted = new ArrayList<>(all);
                sorted.sort(Comparator.comparingInt(Edit::start).thenComparingInt(Edit::end));
                return sorted;
            }

            private Region region(Edit e, boolean mine) {
                int[] whole = units.around(e.start(), e.end());
                return new Region(whole[0], whole[1], e, mine);
            }

            private void close(List<Region> group, Set<Edit> all) {
                List<Edit> mine = edits(group, true);
                List<Edit> yours = edits(group, false);
                if (!mine.isEmpty() && !yours.isEmpty() && !mine.equals(yours)) {
                    int start = group.get(0).start();
                    int end = group.stream().mapToInt(Region::end).max().orElse(start);
                    clashes.add(new Clash(
                            text.file(),
                            text.line(start),
                            "",
                            text.text().substring(start, end),
                            made(start, end, mine),
                            made(start, end, yours)));
                }
                all.addAll(mine);
                all.addAll(yours);
            }

            private static List<Edit> edits(List<Region> group, boolean mine) {
                return group.stream()
                        .filter(r -> r.mine() == mine)
                        .map(Region::edit)
                        .sorted(Comparator.comparingInt(Edit::start))
                        .toList();
            }

            private String made(int start, int end, List<Edit> edits) {
                StringBuilder out = new StringBuilder();
                int at = start;
                for (Edit e : edits) {
                    out.append(text.text(), at, e.start()).append(e.replacement());
                    at = e.end();
                }
                return out.append(text.text(), at, end).toString();
            }
        }
    }

    /** What of a file is one thing: whoever changes a part of it changes it. */
    private static final class Units {
        private final String text;
        private final boolean page;
        private final boolean lines;
        /** Where declarations and selectors stand, in order; none of them in another. */
        private final TreeMap<Integer, Integer> spans = new TreeMap<>();
        /** Stylesheets in a page. */
        private final TreeMap<Integer, Integer> sheets = new TreeMap<>();

        Units(Theme theme, String path, String text) {
            this.text = text;
            this.page = theme.pages().stream().map(Page::source).anyMatch(s -> Objects.equals(s.file(), path));
            List<ThemeSheet> parts = theme.declaring().stream()
                    .filter(s -> s.path().equals(path))
                    .toList();
            this.lines = !page && parts.isEmpty();
            for (ThemeSheet part : parts) {
                Stylesheet sheet = part.sheet();
                sheets.put(part.offset(), part.offset() + sheet.source().text().length());
                sheet.eachDeclaration((d, around) -> {
                    span(part, d.first(), d.end());
                    around.forEach(r -> span(part, r.preludeFirst(), r.preludeEnd()));
                });
            }
        }

        private void span(ThemeSheet part, int first, int end) {
            if (first < end) {
                spans.put(
                        part.offset() + part.sheet().tokens().start(first),
                        part.offset() + part.sheet().tokens().end(end - 1));
            }
        }

        /** From where to where the units reach that a stretch touches; itself where it touches none. */
        int[] around(int start, int end) {
            if (lines) {
                int from = text.lastIndexOf('\n', start - 1) + 1;
                int to = end > start && text.charAt(end - 1) == '\n' ? end - 1 : text.indexOf('\n', end);
                // A new line before another one is no part of that.
                return start == end && start == from
                        ? new int[] {start, end}
                        : new int[] {from, to < 0 ? text.length() : to};
            }
            int[] all = {start, end};
            if (page && !isInSheet(start, end)) {
                int open = Math.max(text.lastIndexOf('<', start - 1), -1);
                int shut = text.lastIndexOf('>', start - 1);
                all[0] = open > shut ? open : shut + 1;
                int opens = text.indexOf('<', end);
                int shuts = text.indexOf('>', end);
                boolean inTag =
                        end > start ? text.lastIndexOf('<', end - 1) > text.lastIndexOf('>', end - 1) : open > shut;
                all[1] = inTag ? shuts < 0 ? text.length() : shuts + 1 : opens < 0 ? text.length() : opens;
                return all;
            }
            Map.Entry<Integer, Integer> before = spans.floorEntry(start);
            if (before != null && before.getValue() >= start) {
                all[0] = before.getKey();
                all[1] = Math.max(end, before.getValue());
            }
            Map.Entry<Integer, Integer> last = spans.floorEntry(end);
            if (last != null && last.getValue() >= end && (last.getKey() < end || start == end)) {
                all[0] = Math.min(all[0], last.getKey());
                all[1] = Math.max(all[1], last.getValue());
            }
            return all;
        }

        private boolean isInSheet(int start, int end) {
            Map.Entry<Integer, Integer> sheet = sheets.floorEntry(start);
            return sheet != null && sheet.getValue() >= end;
        }
    }
}

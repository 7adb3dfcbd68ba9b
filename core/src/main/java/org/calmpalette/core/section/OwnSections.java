package org.calmpalette.core.section;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SortedMap;
import java.util.TreeMap;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.change.Between;
import org.calmpalette.core.change.Change;
import org.calmpalette.core.css.Edit;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.setting.Effective;
import org.calmpalette.core.setting.Given;
import org.calmpalette.core.setting.Palette;
import org.calmpalette.core.setting.Place;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.ThemeFiles;
import org.jsoup.nodes.Element;

/**
 * Sections that a theme keeps for itself: written, made of a part of a page, copied or brought in from elsewhere. One that is changed is
 * changed wherever it stands, and what is set of it stays.
 */
public final class OwnSections {
    private OwnSections() {}

    /**
     * Brings every section that was made from one up to what that is now: its markup, rules and settings. Values that settings of the
     * same key and kind have stay, as far as they are still allowed.
     *
     * @return the theme as it is then
     */
    static Theme renewed(Theme theme, SectionKit made) {
        SectionKit kit = made.in(theme);
        Theme now = theme;
        for (String name : Sections.names(theme).stream().sorted().toList()) {
            for (Page page : now.pages()) {
                Element e = page.document().select("[" + Sections.NAME + "]").stream()
                        .filter(x -> x.attr(Sections.NAME).equals(name)
                                && x.attr(Sections.KIND).equals(kit.key()))
                        .findFirst()
                        .orElse(null);
                if (e != null && page.inside(e).isPresent()) {
                    now = renewed(now, kit, page, e, name);
                    break;
                }
            }
        }
        return now;
    }

    private static Theme renewed(Theme theme, SectionKit kit, Page page, Element e, String name) {
        Map<String, Setting> had = new LinkedHashMap<>();
        theme.palette().settings().stream().filter(s -> s.place().equals(name)).forEach(s -> had.put(s.key(), s));
        Map<String, String> moved = new TreeMap<>();
        Change files = Sections.withPictures(theme, kit, moved, Change.of(name));
        Theme there = files.isEmpty() ? theme : files.applied(theme);
        List<Setting> settings = new ArrayList<>();
        List<Setting> made = new ArrayList<>();
        for (Setting fresh :
                Sections.settings(kit, name, moved, Map.of(), theme.palette().bands())) {
            Setting before = had.get(fresh.key());
            made.add(before == null ? fresh : keeping(fresh, before, there));
        }
        // Where they stood they stand again.
        boolean put = false;
        for (Setting s : theme.palette().settings()) {
            if (!s.place().equals(name)) {
                settings.add(s);
            } else if (!put) {
                settings.addAll(made);
                put = true;
            }
        }
        if (!put) {
            settings.addAll(made);
        }
        Palette palette = theme.palette()
                .withPlace(new Place(name, theme.palette().placeLabel(name)))
                .withSettings(settings);
        Effective values = Effective.defaults(palette, there.media());
        Change change = files.with(
                page.source().file(),
                new Edit(
                        e.sourceRange().startPos(),
                        e.endSourceRange().endPos(),
                        Blocks.indented(
                                Sections.markup(kit, page, name, moved, values),
                                page,
                                e.sourceRange().startPos())));
        String sheet = Sections.text(theme);
        int open = sheet.indexOf(Sections.open(name));
        int close = sheet.indexOf(Sections.close(name));
        String block = Sections.block(theme, kit, name, palette, moved);
        change = open >= 0 && close > open
                ? change.with(
                        Sections.sheet(theme),
                        new Edit(open, close + Sections.close(name).length(), block.stripTrailing()))
                : Sections.sheet(theme, change, block);
        return change.withPalette(there, palette).applied(theme);
    }

    private static Setting keeping(Setting fresh, Setting before, Theme there) {
        if (!before.kind().name().equals(fresh.kind().name()) || !(before.given() instanceof Given.Fixed f)) {
            return fresh;
        }
        try {
            Setting kept = fresh.withGiven(new Given.Fixed(fresh.kind().normal(f.value())));
            boolean good = fresh.kind()
                    .refusal(((Given.Fixed) kept.given()).value(), new Effective.MediaOnly(there.media()))
                    .isEmpty();
            return good ? kept : fresh;
        } catch (BadInputException other) {
            return fresh;
        }
    }

    /**
     * Keeps a section in the theme, or keeps it as it is now, and brings those on pages up to it.
     *
     * @param json, html and css as they are written
     * @throws BadInputException with file and line, if it cannot be used
     */
    public static Change kept(Theme theme, String key, String json, String html, String css) {
        SectionKit before = kept(theme, key).orElse(null);
        SectionKit kit = typed(theme, key, json, html, css);
        Change change = Change.of(key);
        for (Map.Entry<String, byte[]> f : kit.files(json.strip() + "\n").entrySet()) {
            change = change.withFile(f.getKey(), f.getValue());
        }
        Theme now = renewed(change.applied(theme), kit);
        long places =
                Sections.names(now).stream().filter(n -> isOf(now, n, key)).count();
        return Between.of(
                theme,
                now,
                (before == null ? "Kept the section “" : "Changed the section “") + kit.label() + "”"
                        + (places == 0
                                ? ""
                                : " and the " + places + (places == 1 ? " place" : " places") + " where it stands"));
    }

    private static Optional<SectionKit> kept(Theme theme, String key) {
        return SectionKit.of(theme.files()).stream()
                .filter(k -> k.key().equals(key))
                .findFirst();
    }

    /**
     * A section as it is being written, with the pictures of the one that the theme keeps.
     *
     * @throws BadInputException with file and line, if it cannot be used
     */
    public static SectionKit typed(Theme theme, String key, String json, String html, String css) {
        return SectionKit.read(
                key,
                json,
                html,
                css,
                kept(theme, key).map(k -> new TreeMap<>(k.pictures())).orElseGet(TreeMap::new));
    }

    private static boolean isOf(Theme theme, String name, String kind) {
        return theme.pages().stream()
                .flatMap(p -> p.document().select("[" + Sections.NAME + "]").stream())
                .anyMatch(e -> e.attr(Sections.NAME).equals(name)
                        && e.attr(Sections.KIND).equals(kind));
    }

    /** The name of a folder for another section: of the words, with a number where there is one of that name. */
    private static String freeFolder(Theme theme, String words) {
        String base = Sections.keyOf(words);
        base = base.substring(0, Math.min(28, base.length())).replaceAll("-+$", "");
        String key = base;
        for (int i = 2; theme.files().has(SectionKit.FOLDER + key + "/" + SectionKit.JSON); i++) {
            key = base + "-" + i;
        }
        return key;
    }

    /**
     * Makes a section of a part of a page, and keeps it in the theme; the part stays as it is.
     *
     * @param at index of the part among the elements of the page
     * @throws BadInputException if the part cannot be one
     */
    public static Change from(Rendered rendered, Page page, int at, String label) {
        Theme theme = rendered.theme();
        String key = freeFolder(theme, label);
        SectionKit kit = SectionFrom.of(rendered, page, at, key, label);
        Change change = Change.of("Made the section “" + kit.label() + "” of a part of "
                + page.source().file());
        for (Map.Entry<String, byte[]> f : kit.files(kit.json(label)).entrySet()) {
            change = change.withFile(f.getKey(), f.getValue());
        }
        return change;
    }

    /** Copies a section into the theme under a name of its own, to be changed there. */
    public static Change taken(Theme theme, SectionKit kit, String label) {
        String key = freeFolder(theme, label);
        String json = kit.json(label);
        SectionKit own = SectionKit.read(key, json, kit.html(), kit.css(), kit.pictures());
        Change change = Change.of("Copied the section “" + kit.label() + "” as “" + own.label() + "”");
        for (Map.Entry<String, byte[]> f : own.files(json).entrySet()) {
            change = change.withFile(f.getKey(), f.getValue());
        }
        return change;
    }

    /**
     * Takes a section into the theme that was given away as files.
     *
     * @param files by their path in the folder of the section
     * @param wanted name of its folder; another one is chosen if the theme has another section of that name
     * @throws BadInputException with the file, if it cannot be used
     */
    public static Change brought(Theme theme, SortedMap<String, byte[]> files, String wanted) {
        if (!files.containsKey(SectionKit.JSON)) {
            throw new BadInputException(
                    "There is no " + SectionKit.JSON + " in it.",
                    "Pack the folder of one section: " + SectionKit.JSON + ", " + SectionKit.HTML + ", "
                            + SectionKit.CSS + " and its pictures.");
        }
        String key = freeFolder(theme, wanted);
        TreeMap<String, byte[]> placed = new TreeMap<>();
        String folder = SectionKit.FOLDER + key + "/";
        files.forEach((path, bytes) -> placed.put(folder + path, bytes));
        SectionKit kit = SectionKit.read(ThemeFiles.of(placed), folder);
        Change change = Change.of("Brought in the section “" + kit.label() + "”"
                + (key.equals(Sections.keyOf(wanted)) ? "" : " as " + key));
        for (Map.Entry<String, byte[]> f : placed.entrySet()) {
            change = change.withFile(f.getKey(), f.getValue());
        }
        return change;
    }
}

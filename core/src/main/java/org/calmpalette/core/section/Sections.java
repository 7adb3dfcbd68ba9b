package org.calmpalette.core.section;

import java.nio.charset.StandardCharsets;
import java.text.Normalizer;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.BiFunction;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.Budget;
import org.calmpalette.core.change.Change;
import org.calmpalette.core.change.OwnSheet;
import org.calmpalette.core.css.Edit;
import org.calmpalette.core.output.ThemeBuild;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.page.Paths;
import org.calmpalette.core.page.StartTag;
import org.calmpalette.core.setting.Bands;
import org.calmpalette.core.setting.Chosen;
import org.calmpalette.core.setting.Effective;
import org.calmpalette.core.setting.Given;
import org.calmpalette.core.setting.LinkKind;
import org.calmpalette.core.setting.Palette;
import org.calmpalette.core.setting.PictureKind;
import org.calmpalette.core.setting.Place;
import org.calmpalette.core.setting.Scheme;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.ThemeFiles;
import org.calmpalette.core.theme.ThemeSheet;
import org.jsoup.nodes.Element;

/**
 * Sections on pages. A section that is put on a page becomes plain markup in it, a block of its own in {@code sections.css} and
 * ordinary settings in a place of its own, so that everything that holds for settings holds for its. Nothing else of the page changes.
 */
public final class Sections {
    /** Where their rules are, unless a theme has a file of its own of that name: then in {@code sections-2.css}, and so on. */
    public static final String SHEET = "sections.css";
    /** Names the section on its page. */
    public static final String NAME = "data-section";
    /** Names what it was made from. */
    public static final String KIND = "data-section-kind";

    private static final int MOST = 60;

    private Sections() {}

    /** The page on which each section stands, by its name. */
    public static Map<String, String> pages(Theme theme) {
        Map<String, String> all = new LinkedHashMap<>();
        theme.pages().forEach(p -> p.document()
                .select("[" + NAME + "]")
                .forEach(e -> all.putIfAbsent(e.attr(NAME), p.source().file())));
        return all;
    }

    /** Names of all sections on all pages. */
    public static Set<String> names(Theme theme) {
        Set<String> all = new HashSet<>();
        theme.pages().forEach(p -> p.document().select("[" + NAME + "]").forEach(e -> all.add(e.attr(NAME))));
        return all;
    }

    /**
     * Puts a section on a page.
     *
     * @param label what owners call it: the place of its settings
     * @param before index of the block that it comes before; 0 for the end, {@link Blocks#AFTER_MAIN} for right after the {@code main}
     * @throws BadInputException if the page has no room for it, or names clash
     */
    public static Change put(Theme theme, SectionKit kit, Page page, String label, int before) {
        return put(theme, kit, page, label, (there, markup) -> Blocks.inserted(theme, there, before, markup), Map.of());
    }

    private static Change put(
            Theme theme,
            SectionKit given,
            Page page,
            String label,
            BiFunction<Page, String, Edit> at,
            Map<String, Given> givens) {
        SectionKit kit = given.in(theme);
        if (Blocks.of(theme, page).stream().filter(Blocks.Block::isSection).count() >= MOST) {
            throw new BadInputException("A page holds up to " + MOST + " sections.", "Put it on another page.");
        }
        Name name = name(theme, kit, label);
        Map<String, String> moved = new TreeMap<>();
        Change change = withPictures(
                theme,
                kit,
                moved,
                Change.of("Put the section “" + name.label() + "” on "
                        + page.source().file()));
        Theme there = change.isEmpty() ? theme : change.applied(theme);
        Place place = new Place(name.key(), name.label());
        List<Setting> settings = new ArrayList<>(theme.palette().settings());
        settings.addAll(settings(kit, name.key(), moved, givens, theme.palette().bands()));
        Palette palette = theme.palette().withPlace(place).withSettings(settings);
        Effective values = Effective.defaults(palette, there.media());
        change = change.with(page.source().file(), at.apply(page, markup(kit, page, name.key(), moved, values)));
        change = sheet(theme, change, block(theme, kit, name.key(), palette, moved));
        String sheet = sheet(theme);
        if (page.document().select("link[href]").stream()
                .noneMatch(l -> Paths.resolve(page.source().file(), l.attr("href"))
                        .filter(sheet::equals)
                        .isPresent())) {
            change = change.with(page.source().file(), OwnSheet.link(page, sheet));
        }
        Change put = change.withPalette(there, palette);
        if (put.applied(theme).pages().stream()
                .noneMatch(p -> p.source().file().equals(page.source().file()))) {
            throw new BadInputException(
                    page.source().file() + " would be larger than what of a page is looked at.",
                    "Put the section on another page, or take something away from this one.");
        }
        return put;
    }

    private record Name(String key, String label) {}

    /** A name that nothing has yet: the settings of the section begin with it. */
    private static Name name(Theme theme, SectionKit kit, String label) {
        String wanted = label.isBlank() ? kit.label() : label.strip();
        if (wanted.length() > Place.LONGEST) {
            throw new BadInputException("The name is too long.", "Write at most " + Place.LONGEST + " characters.");
        }
        String base = keyOf(wanted);
        base = base.substring(0, Math.min(30, base.length())).replaceAll("-+$", "");
        Set<String> taken = names(theme);
        for (int i = 1; ; i++) {
            String key = i == 1 ? base : base + "-" + i;
            String said = i == 1 ? wanted : wanted + " " + i;
            boolean free = !taken.contains(key)
                    && theme.palette().place(key).isEmpty()
                    && theme.palette().places().stream()
                            .noneMatch(p -> p.label().equalsIgnoreCase(said))
                    && theme.palette().settings().stream()
                            .noneMatch(s -> s.key().startsWith(key + "-"));
            if (free) {
                return new Name(key, said);
            }
        }
    }

    /** Adds the pictures of a section that the theme does not hold yet. @param moved is told where each lies then */
    static Change withPictures(Theme theme, SectionKit kit, Map<String, String> moved, Change change) {
        Change now = change;
        for (Map.Entry<String, byte[]> p : kit.pictures().entrySet()) {
            String to = free(theme, kit.pathOf(p.getKey()), p.getValue());
            moved.put(p.getKey(), to);
            now = theme.files().has(to) ? now : now.withFile(to, p.getValue());
        }
        return now;
    }

    private static String free(Theme theme, String wanted, byte[] bytes) {
        String path = wanted;
        for (int i = 2;
                theme.files().has(path)
                        && !java.util.Arrays.equals(theme.files().read(path), bytes);
                i++) {
            path = wanted.replaceFirst("(\\.[^.]*)$", "-" + i + "$1");
        }
        return path;
    }

    private static Identifiers identifiers(SectionKit kit, String name) {
        return Identifiers.of(kit.root(kit.page()), name);
    }

    /** The settings of the section as those of a theme. */
    static List<Setting> settings(
            SectionKit kit, String name, Map<String, String> moved, Map<String, Given> givens, Bands bandsHere) {
        Set<String> own = new HashSet<>();
        kit.settings().forEach(s -> own.add(s.key()));
        Map<String, String> anchors = identifiers(kit, name).anchors();
        return kit.settings().stream()
                .map(s -> named(s, own, name, s.kind() instanceof LinkKind ? anchors : moved, givens, bandsHere))
                .toList();
    }

    /** @param texts what its values are called in the theme, by what they are in the section */
    private static Setting named(
            Setting s,
            Set<String> own,
            String name,
            Map<String, String> texts,
            Map<String, Given> givens,
            Bands bandsHere) {
        Map<String, Given> bands = new LinkedHashMap<>();
        s.bands().forEach((band, g) -> {
            // Bands are the theme's: a default for one that it does not have goes.
            if (bandsHere.band(band).isPresent() && !bandsHere.widest().key().equals(band)) {
                bands.put(band, given(g, own, name, texts));
            }
        });
        Setting.Shown shown = s.shown() == null || s.shown().isNever()
                ? s.shown()
                : new Setting.Shown(name + "-" + s.shown().key(), s.shown().is());
        return new Setting(
                name + "-" + s.key(),
                s.label(),
                s.help(),
                name,
                s.kind().renamed(k -> own.contains(k) ? name + "-" + k : k),
                givens.getOrDefault(s.key(), given(s.given(), own, name, texts)),
                bands,
                s.perBand(),
                shown,
                false,
                List.of(),
                List.of());
    }

    private static Given given(Given g, Set<String> own, String name, Map<String, String> texts) {
        return g instanceof Given.Fixed f
                ? new Given.Fixed(f.value().withTexts(texts))
                : g.renamed(k -> own.contains(k) ? name + "-" + k : k);
    }

    /** The markup with the keys that its settings have here, filled with their values. */
    static String markup(SectionKit kit, Page page, String name, Map<String, String> moved, Effective values) {
        Page own = kit.page();
        Element root = kit.root(own);
        Identifiers identifiers = Identifiers.of(root, name);
        List<Edit> edits = new ArrayList<>();
        for (Element e : root.getAllElements()) {
            int start = e.sourceRange().startPos();
            int end = e.sourceRange().endPos();
            StartTag tag = new StartTag(own.source().text().substring(start, end));
            StartTag now = identifiers.in(tag, e);
            for (StartTag.Attribute a : tag.attributes()) {
                if (a.name().startsWith("data-setting-") && a.valueStart() >= 0) {
                    now = now.with(a.name(), name + "-" + tag.text().substring(a.valueStart(), a.valueEnd()));
                }
            }
            for (String attribute : List.of("src", "poster")) {
                String to = moved.get(e.attr(attribute));
                now = to == null
                        ? now
                        : now.with(
                                attribute,
                                Paths.address(Paths.relative(page.source().file(), to)));
            }
            if (e == root) {
                now = now.with(NAME, name).with(KIND, kit.key());
                now = page.document().getElementById(name) == null && !e.hasAttr("id") ? now.with("id", name) : now;
            }
            if (!now.text().equals(tag.text())) {
                edits.add(new Edit(start, end, now.text()));
            }
        }
        Page named = Page.read(page.source().file(), own.source().withEdits(edits));
        Page filled = Page.read(page.source().file(), ThemeBuild.filled(named, values));
        Element made = filled.document().body().child(0);
        return filled.source()
                .text()
                .substring(made.sourceRange().startPos(), made.endSourceRange().endPos());
    }

    static String block(Theme theme, SectionKit kit, String name, Palette palette, Map<String, String> moved) {
        Map<String, String> addresses = new TreeMap<>();
        moved.forEach((own, path) -> addresses.put(own, Paths.address(path)));
        Map<String, String> properties = new TreeMap<>();
        palette.properties().forEach((property, s) -> {
            if (s.place().equals(name) && s.key().startsWith(name + "-")) {
                properties.put("--" + property.substring(name.length() + 3), property);
            }
        });
        Set<String> overruled = kit.apart() ? Overruling.of(theme, kit.page()) : Set.of();
        return open(name) + "\n"
                + SectionSheet.scoped(kit, name, properties, addresses, identifiers(kit, name), overruled) + "\n"
                + close(name) + "\n";
    }

    /** Only ours has it: that a section begins is what makers write as well. */
    private static final String MARK = "/* end of section ";

    static String open(String name) {
        return "/* section " + name + " */";
    }

    static String close(String name) {
        return MARK + name + " */";
    }

    /** Where the section's own element stands among others: not known, since sections move. */
    private static final Pattern BY_PLACE = Pattern.compile(
            "(\\[" + NAME
                    + "=[^\\]]*\\](?:\\([^)]*\\)|[^\\s>+~(])*?)(:not\\(:(?:first|last|only|nth)-[\\w-]+\\)|:(?:first|last|only|nth)-[\\w-]+(?:\\([^)]*\\))?)");

    /** Whether a rule of a section holds or not by where the section stands on its page. */
    public static boolean isByPlace(String selector) {
        return BY_PLACE.matcher(selector).find();
    }

    /** A selector of a section as it is wherever the section stands. */
    public static String anywhere(String selector) {
        return BY_PLACE.matcher(selector).replaceAll("$1");
    }

    /** Whether a stylesheet holds the rules of sections. */
    public static boolean isSheet(ThemeSheet sheet) {
        return sheet.file().text().contains(MARK);
    }

    /** The stylesheet that holds the rules of sections, or will: never one that the maker wrote. */
    static String sheet(Theme theme) {
        String free = null;
        for (int i = 1; free == null || theme.files().has(numbered(i)); i++) {
            String path = numbered(i);
            if (!theme.files().has(path)) {
                free = free == null ? path : free;
            } else if (text(theme, path).contains(MARK)) {
                return path;
            } else if (text(theme, path).isBlank()) {
                free = free == null ? path : free;
            }
        }
        return free;
    }

    private static String numbered(int i) {
        return i == 1 ? SHEET : SHEET.replace(".css", "-" + i + ".css");
    }

    static Change sheet(Theme theme, Change change, String block) {
        String path = sheet(theme);
        if (!theme.files().has(path)) {
            return change.withFile(path, block.getBytes(StandardCharsets.UTF_8));
        }
        String now = text(theme, path);
        return change.with(
                path,
                new Edit(now.length(), now.length(), (now.isEmpty() || now.endsWith("\n") ? "" : "\n") + "\n" + block));
    }

    static String text(Theme theme) {
        String path = sheet(theme);
        return theme.files().has(path) ? text(theme, path) : "";
    }

    private static String text(Theme theme, String path) {
        return theme.sheets().stream()
                .filter(s -> s.path().equals(path))
                .findFirst()
                .map(s -> s.file().text())
                .orElseThrow(() -> new BadInputException(
                        path + " is not looked at: it is too large.", "Take sections away that are not needed."));
    }

    private static Element known(Page page, String name) {
        return page.document().select("[" + NAME + "]").stream()
                .filter(e -> e.attr(NAME).equals(name) && page.inside(e).isPresent())
                .findFirst()
                .orElseThrow(() -> new BadInputException(
                        "There is no section “" + name + "” on " + page.source().file() + " any more.",
                        "Load the page again."));
    }

    /**
     * Takes a section away with all that came with it: its rules, its settings, the link to its stylesheet where no other section needs
     * it, and pictures that nothing names then. What owners chose for it stays in their choices and does nothing.
     */
    public static Change removed(Theme theme, Page page, String name) {
        Element e = known(page, name);
        Change change = Change.edit(
                "Took the section “" + theme.palette().placeLabel(name) + "” away from "
                        + page.source().file(),
                page.source().file(),
                Blocks.cut(page, e));
        String sheet = text(theme);
        int open = sheet.indexOf(open(name));
        int close = sheet.indexOf(close(name));
        if (open >= 0 && close > open) {
            int after = close + close(name).length();
            while (after < sheet.length() && "\r\n".indexOf(sheet.charAt(after)) >= 0) {
                after++;
            }
            String left = sheet.substring(0, open) + sheet.substring(after);
            change = left.isBlank()
                    ? change.withoutFile(sheet(theme))
                    : change.with(sheet(theme), new Edit(open, after, ""));
            change = unlinked(theme, page, left.isBlank(), change);
        }
        Palette palette = theme.palette();
        List<Setting> left =
                palette.settings().stream().filter(s -> !s.place().equals(name)).toList();
        List<String> gone = palette.settings().stream()
                .filter(s -> s.place().equals(name))
                .map(Setting::key)
                .toList();
        left.stream()
                .filter(s -> s.following().stream().anyMatch(f -> gone.contains(f.key())))
                .findFirst()
                .ifPresent(s -> {
                    throw new BadInputException(
                            "“" + s.label() + "” follows a setting of this section.",
                            "Give it a value of its own first.");
                });
        List<Scheme> schemes = palette.schemes().stream()
                .map(x -> {
                    Map<String, Chosen> values = new LinkedHashMap<>(x.values());
                    values.keySet().removeAll(gone);
                    return new Scheme(x.key(), x.label(), values);
                })
                .toList();
        Palette now = gone.isEmpty()
                ? palette
                : palette.withSchemes(schemes).withSettings(left).withoutPlace(name);
        Change whole = gone.isEmpty() ? change : change.withPalette(theme, now);
        List<String> pictures = unnamed(theme, e.attr(KIND), whole.applied(theme));
        for (String picture : pictures) {
            change = change.withoutFile(picture);
            now = now.withoutSubject(picture);
        }
        return gone.isEmpty() ? change : change.withPalette(theme, now);
    }

    /** Without links to the stylesheet of the sections: on the page, if this was its last one; on every page, if the sheet goes. */
    private static Change unlinked(Theme theme, Page from, boolean everywhere, Change change) {
        Change now = change;
        for (Page page : theme.pages()) {
            boolean here = page.source().file().equals(from.source().file())
                    && page.document().select("[" + NAME + "]").size() == 1;
            if (!everywhere && !here) {
                continue;
            }
            String file = page.source().file();
            for (Element link : page.document().select("link[href]")) {
                boolean ours = link.sourceRange().isTracked()
                        && Paths.resolve(file, link.attr("href"))
                                .filter(sheet(theme)::equals)
                                .isPresent();
                if (ours) {
                    int start = link.sourceRange().startPos();
                    // It was put on a line of its own behind what stands before it.
                    int before = page.source().text().lastIndexOf('>', start - 1) + 1;
                    boolean blank =
                            page.source().text().substring(before, start).isBlank();
                    now = now.with(
                            file,
                            new Edit(blank ? before : start, link.sourceRange().endPos(), ""));
                }
            }
        }
        return now;
    }

    /** Files that hold names of others. */
    private static final Set<String> SPEAKING =
            Set.of("html", "htm", "xhtml", "css", "js", "mjs", "json", "svg", "md", "txt", "scss", "less", "xml");

    /** Pictures that came with a kind of section and that nothing in a theme names. */
    private static List<String> unnamed(Theme theme, String kind, Theme after) {
        List<String> came = new ArrayList<>();
        Stream.concat(Shelf.kits().stream(), kept(theme).stream())
                .filter(k -> k.key().equals(kind))
                .forEach(k -> k.pictures().forEach((own, bytes) -> {
                    String path = free(theme, k.pathOf(own), bytes);
                    if (theme.files().has(path) && !came.contains(path)) {
                        came.add(path);
                    }
                }));
        if (came.isEmpty()) {
            return came;
        }
        for (String path : after.files().paths()) {
            if (SPEAKING.contains(Paths.ending(path))
                    && !came.contains(path)
                    && after.files().size(path) <= LONGEST_SPOKEN) {
                Budget.read((int) after.files().size(path));
                String text = new String(after.files().read(path), StandardCharsets.UTF_8);
                came.removeIf(c -> text.contains(c.substring(c.lastIndexOf('/') + 1)));
            } else if (SPEAKING.contains(Paths.ending(path)) && !came.contains(path)) {
                // It was not looked at, so it may name any.
                return List.of();
            }
        }
        return came;
    }

    private static final long LONGEST_SPOKEN = 3_000_000;

    /** The sections that a theme keeps; none where one of them cannot be used. */
    private static List<SectionKit> kept(Theme theme) {
        try {
            return SectionKit.of(theme.files());
        } catch (BadInputException broken) {
            return List.of();
        }
    }

    /** The same section once more, right behind it, with the values that it has. */
    public static Change copied(Theme theme, SectionKit kit, Page page, String name) {
        Element e = known(page, name);
        Map<String, Given> givens = new TreeMap<>();
        for (Setting s : theme.palette().settings()) {
            if (s.place().equals(name) && s.key().startsWith(name + "-") && s.given() instanceof Given.Fixed) {
                givens.put(s.key().substring(name.length() + 1), s.given());
            }
        }
        return put(
                theme,
                kit,
                page,
                theme.palette().placeLabel(name),
                (there, markup) -> new Blocks.Spot(e, true)
                        .edit(
                                there,
                                Blocks.indented(markup, there, e.sourceRange().startPos())),
                givens);
    }

    /** Words as a name that folders, attributes and custom properties can have: letters without marks, digits and hyphens. */
    static String keyOf(String words) {
        String plain = Normalizer.normalize(words, Normalizer.Form.NFD)
                .replaceAll("\\p{M}", "")
                .toLowerCase(java.util.Locale.ROOT)
                .replace("ß", "ss")
                .replaceAll("[^a-z0-9]+", "-")
                .replaceAll("^-+|-+$", "");
        return plain.matches("[a-z].*") ? plain : ("section-" + plain).replaceAll("-+$", "");
    }

    /** A section by itself on a page that is one file: its pictures are in it, and nothing is loaded. */
    public static String specimen(SectionKit kit) {
        TreeMap<String, byte[]> files = new TreeMap<>();
        files.put(
                "index.html",
                ("<!doctype html><html lang=\"en\"><head><meta charset=\"utf-8\"><title>" + kit.key()
                                + "</title></head><body><main></main></body></html>")
                        .getBytes(StandardCharsets.UTF_8));
        Theme theme = Theme.read(ThemeFiles.of(files), kit.label());
        Theme put = put(theme, kit, theme.pages().get(0), "", 0).applied(theme);
        String page =
                new String(ThemeBuild.filled(put.pages().get(0), ThemeBuild.defaults(put)), StandardCharsets.UTF_8);
        String css = "html{scrollbar-width:none}body{margin:0;font:1rem/1.5 system-ui,sans-serif}"
                + ThemeBuild.settingsCss(put) + text(put);
        for (String path : put.media().paths()) {
            String ending = Paths.ending(path);
            String type = ending.equals("svg")
                    ? "image/svg+xml"
                    : PictureKind.FORMATS.contains(ending.replace("jpeg", "jpg"))
                            ? "image/" + ending.replace("jpg", "jpeg")
                            : "video/" + ending.replace("ogv", "ogg");
            String address = "data:" + type + ";base64,"
                    + java.util.Base64.getEncoder().encodeToString(put.files().read(path));
            css = css.replace("\"" + Paths.address(path) + "\"", "\"" + address + "\"");
            page = page.replace("\"" + Paths.address(path) + "\"", "\"" + address + "\"");
        }
        return page.replace(
                "<link rel=\"stylesheet\" href=\"sections.css\">", "<style>" + css.replace("</", "<\\/") + "</style>");
    }
}

package org.calmpalette.core.section;

import java.nio.charset.StandardCharsets;
import java.text.Normalizer;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.function.BiFunction;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.change.Between;
import org.calmpalette.core.change.Change;
import org.calmpalette.core.change.OwnSheet;
import org.calmpalette.core.css.Edit;
import org.calmpalette.core.output.ThemeBuild;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.page.Paths;
import org.calmpalette.core.page.StartTag;
import org.calmpalette.core.page.Tag;
import org.calmpalette.core.part.PartSelector;
import org.calmpalette.core.render.Rendered;
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

    /**
     * A block of a page among which sections stand, in the order of the page.
     *
     * @param at index among the elements of the page
     * @param name of the section, or empty for what is no section
     * @param kind of the section, or empty
     * @param words what one calls it
     * @param inside whether it stands in the page's {@code main}, and not beside it
     */
    public record Block(int at, String name, String kind, String words, boolean inside) {
        public boolean isSection() {
            return !name.isEmpty();
        }
    }

    /** What a page has around its blocks and is moved with none of them. */
    private static final Set<String> FRAME = Set.of("header", "footer", "nav");

    /** Where a section goes that follows the page's {@code main}: what stands there is as wide as the window in many themes. */
    public static final int AFTER_MAIN = -1;

    /**
     * The blocks of a page in their order: what stands directly in its {@code main}, and what stands beside that but for headers,
     * footers and navigation; where there is no {@code main}, what stands in its body.
     */
    public static List<Block> blocks(Theme theme, Page page) {
        List<Block> all = new ArrayList<>();
        Optional<Element> main = main(page);
        for (Element e :
                main.map(Element::parent).orElse(page.document().body()).children()) {
            if (main.filter(m -> m == e).isPresent()) {
                e.children().forEach(c -> block(theme, page, c, true).ifPresent(all::add));
            } else if (main.isEmpty() || e.hasAttr(NAME) || !FRAME.contains(e.normalName())) {
                block(theme, page, e, false).ifPresent(all::add);
            }
        }
        return List.copyOf(all);
    }

    private static Optional<Block> block(Theme theme, Page page, Element e, boolean inside) {
        if (!new Tag(page, e).isWritten()
                || List.of("script", "style", "link", "template", "noscript").contains(e.normalName())) {
            return Optional.empty();
        }
        String name = e.attr(NAME);
        String heading = Optional.ofNullable(e.selectFirst("h1, h2, h3"))
                .map(Element::text)
                .orElse("");
        return Optional.of(new Block(
                page.elements().indexOf(e),
                name,
                e.attr(KIND),
                name.isEmpty()
                        ? heading.isBlank() ? PartSelector.name(e) : heading
                        : theme.palette().placeLabel(name),
                inside));
    }

    /** Whether a page has a {@code main}, in which sections stand or beside which they do. */
    public static boolean hasMain(Page page) {
        return main(page).isPresent();
    }

    private static Optional<Element> main(Page page) {
        return Optional.ofNullable(page.document().selectFirst("main"))
                .filter(m -> page.inside(m).isPresent());
    }

    private static Element around(Page page) {
        return main(page).orElse(page.document().body());
    }

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
     * @param before index of the block that it comes before; 0 for the end, {@link #AFTER_MAIN} for right after the {@code main}
     * @throws BadInputException if the page has no room for it, or names clash
     */
    public static Change put(Theme theme, SectionKit kit, Page page, String label, int before) {
        return put(theme, kit, page, label, (there, markup) -> inserted(theme, there, before, markup), Map.of());
    }

    private static Change put(
            Theme theme,
            SectionKit kit,
            Page page,
            String label,
            BiFunction<Page, String, Edit> at,
            Map<String, Given> givens) {
        if (blocks(theme, page).stream().filter(Block::isSection).count() >= MOST) {
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
        for (Setting s : kit.settings()) {
            settings.add(
                    named(s, kit, name.key(), moved, givens, theme.palette().bands()));
        }
        Palette palette = theme.palette().withPlace(place).withSettings(settings);
        Effective values = Effective.defaults(palette, there.media());
        change = change.with(page.source().file(), at.apply(page, markup(kit, page, name.key(), moved, values)));
        change = sheet(theme, change, block(kit, name.key(), palette, moved));
        String sheet = sheet(theme);
        if (page.document().select("link[href]").stream()
                .noneMatch(l -> Paths.resolve(page.source().file(), l.attr("href"))
                        .filter(sheet::equals)
                        .isPresent())) {
            change = change.with(page.source().file(), OwnSheet.link(page, sheet));
        }
        return change.withPalette(there, palette);
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
    private static Change withPictures(Theme theme, SectionKit kit, Map<String, String> moved, Change change) {
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

    /** A setting of the section as one of the theme. */
    private static Setting named(
            Setting s,
            SectionKit kit,
            String name,
            Map<String, String> moved,
            Map<String, Given> givens,
            Bands bandsHere) {
        Set<String> own = new HashSet<>();
        kit.settings().forEach(o -> own.add(o.key()));
        Map<String, String> texts =
                s.kind() instanceof LinkKind ? identifiers(kit, name).anchors() : moved;
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
                s.kind(),
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
                : g instanceof Given.Follows f && own.contains(f.key())
                        ? new Given.Follows(name + "-" + f.key(), f.how())
                        : g;
    }

    /** The markup with the keys that its settings have here, filled with their values. */
    private static String markup(SectionKit kit, Page page, String name, Map<String, String> moved, Effective values) {
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

    /** A place in a page: right before an element, or right after it. */
    private record Spot(Element beside, boolean after) {
        Edit edit(Page page, String markup) {
            int start = beside.sourceRange().startPos();
            int at = after ? beside.endSourceRange().endPos() : start;
            String between = page.source().newline() + indent(page, start);
            return new Edit(at, at, after ? between + markup : markup + between);
        }
    }

    private static Edit inserted(Theme theme, Page page, int before, String markup) {
        Element around = around(page);
        String newline = page.source().newline();
        Optional<Spot> spot = before == AFTER_MAIN
                ? main(page).map(m -> new Spot(m, true))
                : blocks(theme, page).stream()
                        .filter(b -> b.at() == before)
                        .findFirst()
                        .map(b -> new Spot(page.elements().get(before), false));
        if (spot.isPresent()) {
            int at = spot.get().beside().sourceRange().startPos();
            return spot.get().edit(page, indented(markup, page, at));
        }
        List<Element> written = around.children().stream()
                .filter(e -> new Tag(page, e).isWritten() && page.inside(e).isPresent())
                .filter(e -> !(around.normalName().equals("body")
                        && List.of("footer", "script").contains(e.normalName())))
                .toList();
        if (!written.isEmpty()) {
            Element last = written.get(written.size() - 1);
            int at = last.endSourceRange().endPos();
            return new Edit(
                    at,
                    at,
                    newline
                            + indent(page, last.sourceRange().startPos())
                            + indented(markup, page, last.sourceRange().startPos()));
        }
        int at = page.inside(around)
                .map(Page.Span::start)
                .orElseThrow(() -> new BadInputException(
                        page.source().file() + " has no <main> and no <body> with an end tag.",
                        "Write one of them first."));
        return new Edit(at, at, newline + markup.replace("\n", newline) + newline);
    }

    private static String indent(Page page, int at) {
        String before = page.source()
                .text()
                .substring(page.source().lineStart(page.source().line(at)), at);
        return before.isBlank() ? before : "";
    }

    private static String indented(String markup, Page page, int at) {
        return markup.replace("\n", page.source().newline() + indent(page, at));
    }

    private static String block(SectionKit kit, String name, Palette palette, Map<String, String> moved) {
        Map<String, String> addresses = new TreeMap<>();
        moved.forEach((own, path) -> addresses.put(own, Paths.address(path)));
        Map<String, String> properties = new TreeMap<>();
        palette.properties().forEach((property, s) -> {
            if (s.place().equals(name) && s.key().startsWith(name + "-")) {
                properties.put("--" + property.substring(name.length() + 3), property);
            }
        });
        return open(name) + "\n" + SectionSheet.scoped(kit.css(), name, properties, addresses, identifiers(kit, name))
                + "\n" + close(name) + "\n";
    }

    /** Only ours has it: that a section begins is what makers write as well. */
    private static final String MARK = "/* end of section ";

    private static String open(String name) {
        return "/* section " + name + " */";
    }

    private static String close(String name) {
        return MARK + name + " */";
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

    private static Change sheet(Theme theme, Change change, String block) {
        String path = sheet(theme);
        if (!theme.files().has(path)) {
            return change.withFile(path, block.getBytes(StandardCharsets.UTF_8));
        }
        String now = text(theme, path);
        return change.with(
                path,
                new Edit(now.length(), now.length(), (now.isEmpty() || now.endsWith("\n") ? "" : "\n") + "\n" + block));
    }

    private static String text(Theme theme) {
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
     * Moves a block past the next or the previous one.
     *
     * @param at index of the block
     * @param by 1 downwards, -1 upwards
     */
    public static Change moved(Theme theme, Page page, int at, int by) {
        List<Block> blocks = blocks(theme, page);
        int i = indexOf(blocks, at);
        if (i < 0 || !canMove(blocks, blocks.get(i), by)) {
            throw new BadInputException("It cannot go further.", "Move another one.");
        }
        Block block = blocks.get(i);
        Block next = next(blocks, i, by);
        String note = "Moved “" + block.words() + "” " + (by < 0 ? "up" : "down");
        if (next != null && next.inside() == block.inside()) {
            List<Block> then = new ArrayList<>(blocks);
            then.add(i + by, then.remove(i));
            return ordered(page, blocks, then, note);
        }
        return block.inside()
                ? shifted(page, block, new Spot(main(page).orElseThrow(), by > 0), note + ", out of the main part")
                : shifted(page, block, new Spot(page.elements().get(next.at()), by < 0), note + ", into the main part");
    }

    /**
     * Moves a block to stand before another one. Sections go in and out of the page's {@code main}; what the maker wrote stays where its
     * rules find it.
     *
     * @param at index of the block among the elements of the page
     * @param before likewise
     */
    public static Change placed(Theme theme, Page page, int at, int before) {
        List<Block> blocks = blocks(theme, page);
        int from = indexOf(blocks, at);
        int to = indexOf(blocks, before);
        if (from < 0
                || to < 0
                || from == to
                || from + 1 == to && blocks.get(from).inside() == blocks.get(to).inside()) {
            throw new BadInputException("It stands there already.", "Move it somewhere else.");
        }
        Block block = blocks.get(from);
        Block other = blocks.get(to);
        String note = "Moved “" + block.words() + "” before “" + other.words() + "”";
        if (block.inside() != other.inside()) {
            if (!block.isSection()) {
                throw new BadInputException(
                        "Only sections go in and out of the main part: rules of the theme may find the others by where they stand.",
                        "Move it among what stands beside it.");
            }
        }
        if (!block.inside() || !other.inside()) {
            return shifted(page, block, new Spot(page.elements().get(other.at()), false), note);
        }
        List<Block> column = blocks.stream().filter(Block::inside).toList();
        List<Block> then = new ArrayList<>(column);
        then.remove(block);
        then.add(then.indexOf(other), block);
        return ordered(page, column, then, note);
    }

    /**
     * Whether a block can go one further: past its neighbour, or, if it is a section, in or out of the page's {@code main}.
     *
     * @param by 1 for down, -1 for up
     */
    public static boolean canMove(List<Block> blocks, Block block, int by) {
        Block next = next(blocks, blocks.indexOf(block), by);
        return next != null && next.inside() == block.inside() || block.isSection() && (next != null || block.inside());
    }

    private static Block next(List<Block> blocks, int i, int by) {
        return i + by < 0 || i + by >= blocks.size() ? null : blocks.get(i + by);
    }

    /** A block elsewhere, as it is written. */
    private static Change shifted(Page page, Block block, Spot to, String note) {
        Element e = page.elements().get(block.at());
        if (page.inside(e).isEmpty()) {
            throw new BadInputException(
                    page.source().file() + ": the section has no end tag.", "Close it in the file first.");
        }
        String written = page.source()
                .text()
                .substring(e.sourceRange().startPos(), e.endSourceRange().endPos());
        return Change.edit(
                note + " on " + page.source().file(), page.source().file(), cut(page, e), to.edit(page, written));
    }

    /** An element away, with its line if it has one to itself. */
    private static Edit cut(Page page, Element e) {
        int start = e.sourceRange().startPos();
        int end = e.endSourceRange().endPos();
        String text = page.source().text();
        int line = page.source().line(start);
        boolean alone = text.substring(page.source().lineStart(line), start).isBlank()
                && text.substring(end, page.source().lineEnd(page.source().line(end)))
                        .isBlank();
        int from = alone ? page.source().lineStart(line) : start;
        int to = alone
                ? Math.min(text.length(), page.source().lineStart(page.source().line(end) + 1))
                : end;
        return new Edit(from, Math.max(to, end), "");
    }

    private static int indexOf(List<Block> blocks, int at) {
        for (int i = 0; i < blocks.size(); i++) {
            if (blocks.get(i).at() == at) {
                return i;
            }
        }
        return -1;
    }

    /** The same blocks in another order, of which none changes its parent; what stands between them stays where it is. */
    private static Change ordered(Page page, List<Block> now, List<Block> then, String note) {
        String text = page.source().text();
        List<Edit> edits = new ArrayList<>();
        for (int i = 0; i < now.size(); i++) {
            if (now.get(i).at() != then.get(i).at()) {
                Element here = page.elements().get(now.get(i).at());
                Element comes = page.elements().get(then.get(i).at());
                if (page.inside(here).isEmpty() || page.inside(comes).isEmpty()) {
                    throw new BadInputException(
                            page.source().file() + ": one of the blocks has no end tag.",
                            "Close it in the file first.");
                }
                edits.add(new Edit(
                        here.sourceRange().startPos(),
                        here.endSourceRange().endPos(),
                        text.substring(
                                comes.sourceRange().startPos(),
                                comes.endSourceRange().endPos())));
            }
        }
        return Change.edit(note + " on " + page.source().file(), page.source().file(), edits.toArray(Edit[]::new));
    }

    /** Takes a section away with its rules and its settings. What owners chose for it stays in their choices and does nothing. */
    public static Change removed(Theme theme, Page page, String name) {
        Element e = known(page, name);
        Change change = Change.edit(
                "Took the section “" + theme.palette().placeLabel(name) + "” away from "
                        + page.source().file(),
                page.source().file(),
                cut(page, e));
        String sheet = text(theme);
        int open = sheet.indexOf(open(name));
        int close = sheet.indexOf(close(name));
        if (open >= 0 && close > open) {
            int after = close + close(name).length();
            while (after < sheet.length() && "\r\n".indexOf(sheet.charAt(after)) >= 0) {
                after++;
            }
            change = change.with(sheet(theme), new Edit(open, after, ""));
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
        return gone.isEmpty()
                ? change
                : change.withPalette(
                        theme, palette.withSchemes(schemes).withSettings(left).withoutPlace(name));
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
                (there, markup) -> new Spot(e, true)
                        .edit(there, indented(markup, there, e.sourceRange().startPos())),
                givens);
    }

    /**
     * Brings every section that was made from one up to what that is now: its markup, rules and settings. Values that settings of the
     * same key and kind have stay, as far as they are still allowed.
     *
     * @return the theme as it is then
     */
    static Theme renewed(Theme theme, SectionKit kit) {
        Theme now = theme;
        for (String name : names(theme).stream().sorted().toList()) {
            for (Page page : now.pages()) {
                Element e = page.document().select("[" + NAME + "]").stream()
                        .filter(x -> x.attr(NAME).equals(name) && x.attr(KIND).equals(kit.key()))
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
        Change files = withPictures(theme, kit, moved, Change.of(name));
        Theme there = files.isEmpty() ? theme : files.applied(theme);
        List<Setting> settings = new ArrayList<>();
        List<Setting> made = new ArrayList<>();
        for (Setting s : kit.settings()) {
            Setting fresh = named(s, kit, name, moved, Map.of(), theme.palette().bands());
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
                        indented(
                                markup(kit, page, name, moved, values),
                                page,
                                e.sourceRange().startPos())));
        String sheet = text(theme);
        int open = sheet.indexOf(open(name));
        int close = sheet.indexOf(close(name));
        String block = block(kit, name, palette, moved);
        change = open >= 0 && close > open
                ? change.with(sheet(theme), new Edit(open, close + close(name).length(), block.stripTrailing()))
                : sheet(theme, change, block);
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
        long places = names(now).stream().filter(n -> isOf(now, n, key)).count();
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
                .flatMap(p -> p.document().select("[" + NAME + "]").stream())
                .anyMatch(e -> e.attr(NAME).equals(name) && e.attr(KIND).equals(kind));
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

    /** The name of a folder for another section: of the words, with a number where there is one of that name. */
    private static String freeFolder(Theme theme, String words) {
        String base = keyOf(words);
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
        Change change = Change.of(
                "Brought in the section “" + kit.label() + "”" + (key.equals(keyOf(wanted)) ? "" : " as " + key));
        for (Map.Entry<String, byte[]> f : placed.entrySet()) {
            change = change.withFile(f.getKey(), f.getValue());
        }
        return change;
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

package org.calmpalette.core.section;

import java.util.ArrayList;
import java.util.Collections;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.Budget;
import org.calmpalette.core.change.Change;
import org.calmpalette.core.css.Edit;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.page.Tag;
import org.calmpalette.core.part.PartSelector;
import org.calmpalette.core.theme.Theme;
import org.jsoup.nodes.Element;
import org.jsoup.nodes.Node;
import org.jsoup.nodes.TextNode;

/**
 * The blocks of a page among which sections stand, and their order. What a maker wrote is moved as it is written, among what stands beside
 * it; sections go in and out of the page's {@code main} and of whatever else may hold them.
 */
public final class Blocks {
    private Blocks() {}

    /** What a block is to those around it. */
    public enum Sort {
        /** It moves among them. */
        PART,
        /** The page has it around its blocks, as a header or footer: sections pass it, it stays. */
        FRAME,
        /** A cell of a table: it stays, and nothing goes before it. */
        CELL
    }

    /**
     * A block of a page among which sections stand, in the order of the page.
     *
     * @param at index among the elements of the page
     * @param name of the section, or empty for what is no section
     * @param kind of the section, or empty
     * @param words what one calls it
     * @param inside whether it stands in the page's {@code main}, and not beside it
     * @param in index of what it stands in
     * @param depth 0 in and beside the page's {@code main}, and one more in each container that is open
     * @param holds whether sections may stand somewhere in it, so that it may be opened
     * @param table whether it holds cells alone, and sections in those
     * @param open whether its own parts follow
     */
    public record Block(
            int at,
            String name,
            String kind,
            String words,
            boolean inside,
            int in,
            int depth,
            Sort sort,
            boolean holds,
            boolean table,
            boolean open) {
        public boolean isSection() {
            return !name.isEmpty();
        }

        /** Whether a section may be a child of it. */
        public boolean canBeFilled() {
            return holds && !table;
        }
    }

    /** What a page has around its blocks and is moved with none of them. */
    private static final Set<String> FRAME = Set.of("header", "footer", "nav");

    private static final Set<String> CELLS = Set.of("td", "th");

    /** Elements whose content may be a section (HTML, flow content) and that are written to hold others. */
    private static final Set<String> CONTAINERS = Set.of(
            "div",
            "section",
            "article",
            "aside",
            "main",
            "header",
            "footer",
            "nav",
            "form",
            "fieldset",
            "center",
            "blockquote",
            "figure",
            "details",
            "td",
            "th");

    /** Where a section goes that follows the page's {@code main}: what stands there is as wide as the window in many themes. */
    public static final int AFTER_MAIN = -1;

    /** Where a section goes that is to be the last in a container. @param at index of the container */
    public static int endOf(int at) {
        return -2 - at;
    }

    /** As {@link #of(Theme, Page, int)}, with what holds sections open and nothing else. */
    public static List<Block> of(Theme theme, Page page) {
        return of(theme, page, 0);
    }

    /**
     * The blocks of a page in their order: what stands directly in its {@code main}, and what stands beside that; where there is no
     * {@code main}, what stands in its body. The parts of a container follow it where it holds sections or is asked for.
     *
     * @param asked index of a container to look into, or of what stands in it; 0 for none
     */
    public static List<Block> of(Theme theme, Page page, int asked) {
        // Asked for once: a page may have very many blocks, and each would be looked for among all elements.
        Map<Element, Integer> places = new IdentityHashMap<>();
        for (Element e : page.elements()) {
            places.put(e, places.size());
        }
        Set<Element> open = Collections.newSetFromMap(new IdentityHashMap<>());
        page.document().select("[" + Sections.NAME + "]").forEach(e -> open.addAll(e.parents()));
        if (asked > 0 && asked < page.elements().size()) {
            Element e = page.elements().get(asked);
            open.add(e);
            open.addAll(e.parents());
        }
        return new Listing(theme, page, places, open).all();
    }

    /** One walk over the blocks of a page. */
    private record Listing(Theme theme, Page page, Map<Element, Integer> places, Set<Element> open) {
        List<Block> all() {
            List<Block> all = new ArrayList<>();
            Optional<Element> main = main(page);
            Element top = main.map(Element::parent).orElse(page.document().body());
            for (Element e : top.children()) {
                if (main.filter(m -> m == e).isPresent()) {
                    e.children().forEach(c -> add(c, e, true, 0, Sort.PART, all));
                } else {
                    boolean frame = main.isPresent() && FRAME.contains(e.normalName());
                    add(e, top, false, 0, frame ? Sort.FRAME : Sort.PART, all);
                }
            }
            return List.copyOf(all);
        }

        private void add(Element e, Element in, boolean inside, int depth, Sort sort, List<Block> all) {
            Budget.step();
            if (!new Tag(page, e).isWritten()
                    || List.of("script", "style", "link", "template", "noscript")
                            .contains(e.normalName())) {
                return;
            }
            String name = e.attr(Sections.NAME);
            Element first = e.selectFirst("h1, h2, h3");
            // One of several alike is the name of its own part, not of what holds them all.
            boolean named = first != null && e.select(first.normalName()).size() == 1;
            String heading = named ? first.text() : "";
            boolean table = e.normalName().equals("table");
            boolean holds = name.isEmpty()
                    && depth < DEEPEST
                    && (table || CONTAINERS.contains(e.normalName()))
                    && page.inside(e).isPresent();
            boolean opened = holds && open.contains(e);
            all.add(new Block(
                    places.get(e),
                    name,
                    e.attr(Sections.KIND),
                    name.isEmpty()
                            ? heading.isBlank() ? PartSelector.name(e) : heading
                            : theme.palette().placeLabel(name),
                    inside,
                    places.get(in),
                    depth,
                    name.isEmpty() ? sort : Sort.PART,
                    holds,
                    table,
                    opened));
            if (opened && table) {
                e.select(String.join(", ", CELLS)).stream()
                        .filter(cell -> cell.closest("table") == e)
                        .forEach(cell -> add(cell, cell.parent(), inside, depth + 1, Sort.CELL, all));
            } else if (opened) {
                e.children().forEach(c -> add(c, e, inside, depth + 1, Sort.PART, all));
            }
        }
    }

    private static final int DEEPEST = 12;

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

    /**
     * A place in a page: right before an element, or right after it. What goes there begins with a line end of its own, which goes with it
     * ({@link #cut}), so that all that is around it stays to the letter.
     */
    record Spot(Element beside, boolean after) {
        Edit edit(Page page, String markup) {
            if (after && page.inside(beside).isEmpty()) {
                throw new BadInputException(
                        page.source().file() + ", line "
                                + page.source().line(beside.sourceRange().startPos()) + ": <" + beside.normalName()
                                + "> has no end tag.",
                        "Close it in the file first.");
            }
            int start = beside.sourceRange().startPos();
            int line = page.source().line(start);
            boolean first = page.source()
                    .text()
                    .substring(page.source().lineStart(line), start)
                    .isBlank();
            if (!after && first && line == 1) {
                return new Edit(start, start, markup + page.source().newline());
            }
            int at = after
                    ? beside.endSourceRange().endPos()
                    : first ? page.source().lineEnd(line - 1) : start;
            return new Edit(at, at, page.source().newline() + indent(page, start) + markup);
        }
    }

    static Edit inserted(Theme theme, Page page, int before, String markup) {
        String newline = page.source().newline();
        Optional<Spot> spot = before == AFTER_MAIN
                ? main(page).map(m -> new Spot(m, true))
                : of(theme, page, before).stream()
                        .filter(b -> b.at() == before && b.sort() != Sort.CELL)
                        .findFirst()
                        .map(b -> new Spot(page.elements().get(before), false));
        if (spot.isPresent()) {
            int at = spot.get().beside().sourceRange().startPos();
            return spot.get().edit(page, indented(markup, page, at));
        }
        Element around = container(theme, page, endOf(before)).orElseGet(() -> around(page));
        List<Element> written = around.children().stream()
                .filter(e -> new Tag(page, e).isWritten() && page.inside(e).isPresent())
                .filter(e -> !(around.normalName().equals("body")
                        && List.of("footer", "script").contains(e.normalName())))
                .toList();
        Element last = written.isEmpty() ? null : written.get(written.size() - 1);
        boolean words = false;
        for (Node n = last == null ? around.firstChild() : last.nextSibling(); n != null; n = n.nextSibling()) {
            words |= n instanceof TextNode t && !t.isBlank();
        }
        if (words && around != around(page)) {
            // What is written in a container without an element of its own comes before it.
            int end = page.inside(around).orElseThrow().end();
            return new Edit(end, end, newline + markup.replace("\n", newline));
        }
        if (last != null) {
            return new Spot(last, true)
                    .edit(page, indented(markup, page, last.sourceRange().startPos()));
        }
        int at = page.inside(around)
                .map(Page.Span::start)
                .orElseThrow(() -> new BadInputException(
                        page.source().file() + " has no <main> and no <body> with an end tag.",
                        "Write one of them first."));
        return new Edit(at, at, newline + markup.replace("\n", newline));
    }

    private static Optional<Element> container(Theme theme, Page page, int at) {
        return of(theme, page, at).stream()
                .filter(b -> b.at() == at && b.canBeFilled())
                .findFirst()
                .map(b -> page.elements().get(at));
    }

    private static String indent(Page page, int at) {
        String before = page.source()
                .text()
                .substring(page.source().lineStart(page.source().line(at)), at);
        return before.isBlank() ? before : "";
    }

    static String indented(String markup, Page page, int at) {
        return markup.replace("\n", page.source().newline() + indent(page, at));
    }

    /**
     * Moves a block past the next or the previous one.
     *
     * @param at index of the block
     * @param by 1 downwards, -1 upwards
     */
    public static Change moved(Theme theme, Page page, int at, int by) {
        List<Block> blocks = of(theme, page, at);
        int i = indexOf(blocks, at);
        if (i < 0 || !canMove(blocks, i, by)) {
            throw new BadInputException("It cannot go further.", "Move another one.");
        }
        Block block = blocks.get(i);
        Block next = next(blocks, i, by);
        String note = "Moved “" + block.words() + "” " + (by < 0 ? "up" : "down");
        if (next == null && block.depth() > 0) {
            Element in = page.elements().get(block.in());
            // Beside a cell only cells may stand.
            Element out = CELLS.contains(in.normalName()) ? in.closest("table") : in;
            return shifted(page, block, new Spot(out, by > 0), note + ", out of “" + PartSelector.name(in) + "”");
        }
        if (next == null || next.inside() != block.inside()) {
            return block.inside()
                    ? shifted(page, block, new Spot(main(page).orElseThrow(), by > 0), note + ", out of the main part")
                    : shifted(page, block, beside(page, next, by < 0), note + ", into the main part");
        }
        // Of two the section goes: it brings its own line, and leaves what the maker wrote where it is.
        if (block.isSection()) {
            return shifted(page, block, beside(page, next, by > 0), note);
        }
        if (next.isSection()) {
            return shifted(page, next, beside(page, block, by < 0), note);
        }
        List<Block> then = new ArrayList<>(blocks);
        then.set(i, next);
        then.set(blocks.indexOf(next), block);
        return ordered(page, blocks, then, note);
    }

    private static Spot beside(Page page, Block block, boolean after) {
        return new Spot(page.elements().get(block.at()), after);
    }

    /**
     * Moves a block to stand before another one. Sections go in and out of the page's {@code main}; what the maker wrote stays where its
     * rules find it.
     *
     * @param at index of the block among the elements of the page
     * @param before likewise
     */
    public static Change placed(Theme theme, Page page, int at, int before) {
        List<Block> blocks = of(theme, page, before);
        if (indexOf(blocks, at) < 0) {
            blocks = of(theme, page, at);
        }
        int from = indexOf(blocks, at);
        int to = indexOf(blocks, before);
        if (from < 0
                || to < 0
                || from == to
                || blocks.get(from).sort() != Sort.PART
                || blocks.get(to).sort() == Sort.CELL
                || blocks.get(from).in() == blocks.get(to).in() && next(blocks, from, 1) == blocks.get(to)) {
            throw new BadInputException("It stands there already.", "Move it somewhere else.");
        }
        Block block = blocks.get(from);
        Block other = blocks.get(to);
        String note = "Moved “" + block.words() + "” before “" + other.words() + "”";
        if (block.isSection()) {
            return shifted(page, block, beside(page, other, false), note);
        }
        if (block.in() != other.in()) {
            throw new BadInputException(
                    "Only sections go in and out of what they stand in, as the main part: rules of the theme may find the others by where they stand.",
                    "Move it among what stands beside it.");
        }
        // What stands beside main may have that between it and the other.
        if (!block.inside() && hasMain(page)) {
            return shifted(page, block, beside(page, other, false), note);
        }
        List<Block> column = blocks.stream().filter(b -> b.in() == block.in()).toList();
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
    public static boolean canMove(List<Block> blocks, int i, int by) {
        Block block = blocks.get(i);
        Block next = next(blocks, i, by);
        if (block.sort() != Sort.PART) {
            return false;
        }
        return block.isSection()
                ? next != null || block.inside() || block.depth() > 0
                : next != null && next.inside() == block.inside() && next.sort() == Sort.PART;
    }

    /** The neighbour: what stands in the same, or at the top of the page in and beside its {@code main}. */
    private static Block next(List<Block> blocks, int i, int by) {
        int depth = blocks.get(i).depth();
        for (int j = i + by; j >= 0 && j < blocks.size(); j += by) {
            if (blocks.get(j).depth() <= depth) {
                return blocks.get(j).depth() == depth
                                && (depth == 0
                                        || blocks.get(j).in() == blocks.get(i).in())
                        ? blocks.get(j)
                        : null;
            }
        }
        return null;
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

    /** An element away, with the line end before it if it is the first on its line. */
    static Edit cut(Page page, Element e) {
        int start = e.sourceRange().startPos();
        int end = e.endSourceRange().endPos();
        String text = page.source().text();
        int line = page.source().line(start);
        if (!text.substring(page.source().lineStart(line), start).isBlank()) {
            return new Edit(start, end, "");
        }
        if (line > 1) {
            return new Edit(page.source().lineEnd(line - 1), end, "");
        }
        int last = page.source().line(end);
        boolean alone = text.substring(end, page.source().lineEnd(last)).isBlank()
                && last < page.source().line(text.length());
        return new Edit(start, alone ? page.source().lineStart(last + 1) : end, "");
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
}

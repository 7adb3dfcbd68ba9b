package org.calmpalette.core.section;

import java.util.ArrayList;
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

/**
 * The blocks of a page among which sections stand, and their order. What a maker wrote is moved as it is written, among what stands beside
 * it; sections go in and out of the page's {@code main}.
 */
public final class Blocks {
    private Blocks() {}

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
    public static List<Block> of(Theme theme, Page page) {
        List<Block> all = new ArrayList<>();
        Optional<Element> main = main(page);
        // Asked for once: a page may have very many blocks, and each would be looked for among all elements.
        Map<Element, Integer> places = new IdentityHashMap<>();
        for (Element e : page.elements()) {
            places.put(e, places.size());
        }
        for (Element e :
                main.map(Element::parent).orElse(page.document().body()).children()) {
            if (main.filter(m -> m == e).isPresent()) {
                e.children()
                        .forEach(c -> block(theme, page, c, places.get(c), true).ifPresent(all::add));
            } else if (main.isEmpty() || e.hasAttr(Sections.NAME) || !FRAME.contains(e.normalName())) {
                block(theme, page, e, places.get(e), false).ifPresent(all::add);
            }
        }
        return List.copyOf(all);
    }

    private static Optional<Block> block(Theme theme, Page page, Element e, int at, boolean inside) {
        Budget.step();
        if (!new Tag(page, e).isWritten()
                || List.of("script", "style", "link", "template", "noscript").contains(e.normalName())) {
            return Optional.empty();
        }
        String name = e.attr(Sections.NAME);
        String heading = Optional.ofNullable(e.selectFirst("h1, h2, h3"))
                .map(Element::text)
                .orElse("");
        return Optional.of(new Block(
                at,
                name,
                e.attr(Sections.KIND),
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
        Element around = around(page);
        String newline = page.source().newline();
        Optional<Spot> spot = before == AFTER_MAIN
                ? main(page).map(m -> new Spot(m, true))
                : of(theme, page).stream()
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
        List<Block> blocks = of(theme, page);
        int i = indexOf(blocks, at);
        if (i < 0 || !canMove(blocks, i, by)) {
            throw new BadInputException("It cannot go further.", "Move another one.");
        }
        Block block = blocks.get(i);
        Block next = next(blocks, i, by);
        String note = "Moved “" + block.words() + "” " + (by < 0 ? "up" : "down");
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
        then.add(i + by, then.remove(i));
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
        List<Block> blocks = of(theme, page);
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
        if (block.isSection()) {
            return shifted(page, block, beside(page, other, false), note);
        }
        if (block.inside() != other.inside()) {
            throw new BadInputException(
                    "Only sections go in and out of the main part: rules of the theme may find the others by where they stand.",
                    "Move it among what stands beside it.");
        }
        // What stands beside main may have that between it and the other.
        if (!block.inside() && hasMain(page)) {
            return shifted(page, block, beside(page, other, false), note);
        }
        List<Block> column =
                blocks.stream().filter(b -> b.inside() == block.inside()).toList();
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

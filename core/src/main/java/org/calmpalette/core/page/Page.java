package org.calmpalette.core.page;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.calmpalette.core.css.SourceText;
import org.jsoup.nodes.Document;
import org.jsoup.nodes.Element;
import org.jsoup.nodes.Range;
import org.jsoup.parser.Parser;
import org.jsoup.parser.StreamParser;

/** An HTML page: its text, which keeps every byte, and its document, whose elements know where they stand in it. */
public record Page(SourceText source, Document document) {

    /** A page shorter than this cannot have too many elements to be read at once. */
    private static final int SHORT = 60_000;

    public static Page read(String file, byte[] bytes) {
        SourceText source = SourceText.page(file, bytes);
        return new Page(source, parser().parseInput(source.text(), ""));
    }

    /** @return empty if the page has more elements than that */
    public static Optional<Page> read(String file, byte[] bytes, int mostElements) {
        SourceText source = SourceText.page(file, bytes);
        if (source.text().length() < SHORT) {
            return Optional.of(new Page(source, parser().parseInput(source.text(), "")));
        }
        // Counted while it is read: a long page of many small elements would not fit into memory as a whole.
        try (StreamParser stream = new StreamParser(parser()).parse(source.text(), "")) {
            int elements = 0;
            for (var it = stream.iterator(); it.hasNext(); it.next()) {
                if (++elements > mostElements) {
                    return Optional.empty();
                }
            }
            return Optional.of(new Page(source, stream.document()));
        }
    }

    private static Parser parser() {
        return Parser.htmlParser().setTrackPosition(true);
    }

    /**
     * A stretch of the page's text.
     *
     * @param start offset of the first character
     * @param end offset after the last one
     */
    public record Span(int start, int end) {}

    /** Where the text of each {@code <style>} element stands, in order. */
    public List<Span> styles() {
        return document.getElementsByTag("style").stream()
                .map(this::styleSpan)
                .flatMap(Optional::stream)
                .toList();
    }

    /** Where the contents of an element stand; empty if it has no end tag of its own. */
    public Optional<Span> inside(Element e) {
        int start = e.sourceRange().endPos();
        int closed = e.endSourceRange().isTracked() ? e.endSourceRange().endPos() : -1;
        if (start < 0 || closed <= start) {
            return Optional.empty();
        }
        int end = e.endSourceRange().startPos();
        if (end < start) {
            // Of elements whose contents are text alone, jsoup lets the end tag start where the element does.
            end = source.text().lastIndexOf("</", closed - 1);
        }
        boolean tag = end >= start
                && source.text()
                        .regionMatches(
                                true, end, "</" + e.tagName(), 0, e.tagName().length() + 2);
        return tag ? Optional.of(new Span(start, end)) : Optional.empty();
    }

    /** Where the text of a {@code <style>} element stands. */
    public Optional<Span> styleSpan(Element e) {
        int start = e.sourceRange().endPos();
        // jsoup lets the end tag of a style element start where the element does, so the tag is looked for.
        int closed = e.endSourceRange().endPos();
        int tag = closed > start ? source.text().lastIndexOf("</", closed - 1) : -1;
        int end = tag >= start && source.text().regionMatches(true, tag, "</style", 0, 7) ? tag : closed;
        return start >= 0 && end >= start && end <= source.text().length()
                ? Optional.of(new Span(start, end))
                : Optional.empty();
    }

    /** Where the value of an attribute starts in the page's text; the element's own start if that is not known. */
    public int attributeOffset(Element e, String name) {
        int value = e.attributes().sourceRange(name).valueRange().startPos();
        return value >= 0 ? value : Math.max(0, e.sourceRange().startPos());
    }

    /**
     * Where the declarations of each {@code style} attribute stand, in order. Only of those in quotes whose text is what it says,
     * character by character: one with a character reference is not edited, since its offsets are not those of its declarations.
     */
    public List<Span> styleAttributes() {
        List<Span> found = new ArrayList<>();
        String text = source.text();
        for (Element e : document.select("[style]")) {
            Range range = e.attributes().sourceRange("style").valueRange();
            String value = e.attr("style");
            int start = range.startPos();
            boolean quoted = range.isTracked()
                    && start > 0
                    && (text.charAt(start - 1) == '"' || text.charAt(start - 1) == '\'')
                    && text.startsWith(value, start)
                    && start + value.length() < text.length()
                    && text.charAt(start + value.length()) == text.charAt(start - 1);
            if (quoted && !value.isBlank()) {
                found.add(new Span(start, start + value.length()));
            }
        }
        return found;
    }

    /** Addresses of the stylesheets that the page links to, as written, in order. */
    public List<String> stylesheetLinks() {
        return document.select("link[rel~=(?i)\\bstylesheet\\b][href]").stream()
                .map(e -> e.attr("href"))
                .toList();
    }

    /** The page as it would be if an element linked to the page that is shown, which {@code aria-current} says. */
    public Page withCurrent(int index) {
        Document copy = document.clone();
        copy.getAllElements().get(index).attr("aria-current", "page");
        return new Page(source, copy);
    }

    /** As it is with a class on some of its elements. */
    public Page withClass(String name, Set<Integer> indexes) {
        Document copy = document.clone();
        List<Element> all = copy.getAllElements();
        indexes.forEach(i -> all.get(i).addClass(name));
        return new Page(source, copy);
    }

    /** All elements in document order, the document itself first. An element's index in it names it in one page. */
    public List<Element> elements() {
        return document.getAllElements();
    }
}

package org.calmpalette.core.page;

import java.util.Optional;
import org.calmpalette.core.css.Edit;
import org.jsoup.nodes.Element;

/**
 * The start tag of an element as it is written, and the edits of its attributes: the one editor of tags. Nothing is changed
 * beyond the attribute itself.
 *
 * @param page that the element is written in
 */
public record Tag(Page page, Element element) {
    /** Whether the tag stands in the page's text; the parser makes some elements that nobody wrote. */
    public boolean isWritten() {
        int start = element.sourceRange().startPos();
        return element.sourceRange().isTracked()
                && start >= 0
                && page.source()
                        .text()
                        .regionMatches(
                                true,
                                start,
                                "<" + element.tagName(),
                                0,
                                element.tagName().length() + 1);
    }

    /** Puts an attribute right behind the element's name. @param value without characters that need escapes */
    public Edit with(String name, String value) {
        int at = element.sourceRange().startPos() + 1 + element.tagName().length();
        return new Edit(at, at, " " + name + "=\"" + value + "\"");
    }

    /** Takes an attribute out, with the white space before it. */
    public Edit without(String name) {
        StartTag tag = written();
        StartTag.Attribute a = tag.attribute(name).orElseThrow();
        int from = element.sourceRange().startPos();
        return new Edit(from + tag.before(a), from + a.end(), "");
    }

    /** Gives an attribute that is there another value, between the quotes that it has. */
    public Edit replaced(String name, String value) {
        StartTag.Attribute a = written().attribute(name).orElseThrow();
        int from = element.sourceRange().startPos();
        return a.valueStart() < 0
                ? new Edit(from + a.end(), from + a.end(), "=\"" + value + "\"")
                : new Edit(from + a.valueStart(), from + a.valueEnd(), value);
    }

    private StartTag written() {
        return new StartTag(page.source()
                .text()
                .substring(
                        element.sourceRange().startPos(), element.sourceRange().endPos()));
    }

    /** Puts a class behind those that are there. */
    public Edit withClass(String name) {
        Optional<StartTag.Attribute> there = written().attribute("class").filter(a -> a.valueStart() >= 0);
        if (there.isEmpty()) {
            return element.hasAttr("class") ? replaced("class", name) : with("class", name);
        }
        int end = element.sourceRange().startPos() + there.get().valueEnd();
        char before = page.source()
                .text()
                .charAt(element.sourceRange().startPos() + there.get().valueStart() - 1);
        // Without quotes a second class would be an attribute.
        return before == '"' || before == '\''
                ? new Edit(end, end, " " + name)
                : new Edit(
                        element.sourceRange().startPos() + there.get().valueStart(),
                        end,
                        "\"" + element.attr("class") + " " + name + "\"");
    }
}

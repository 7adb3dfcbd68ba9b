package org.calmpalette.core.page;

import java.util.List;
import java.util.Optional;
import org.calmpalette.core.css.SourceText;
import org.jsoup.nodes.Document;
import org.jsoup.nodes.Element;
import org.jsoup.parser.Parser;

/** An HTML page: its text, which keeps every byte, and its document, whose elements know where they stand in it. */
public record Page(SourceText source, Document document) {

  public static Page read(String file, byte[] bytes) {
    SourceText source = SourceText.page(file, bytes);
    Parser parser = Parser.htmlParser().setTrackPosition(true);
    return new Page(source, parser.parseInput(source.text(), ""));
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
    return document.getElementsByTag("style").stream().map(this::styleSpan).flatMap(Optional::stream).toList();
  }

  /** Where the text of a {@code <style>} element stands. */
  public Optional<Span> styleSpan(Element e) {
    int start = e.sourceRange().endPos();
    // jsoup lets the end tag of a style element start where the element does, so the tag is looked for.
    int closed = e.endSourceRange().endPos();
    int tag = closed > start ? source.text().lastIndexOf("</", closed - 1) : -1;
    int end = tag >= start && source.text().regionMatches(true, tag, "</style", 0, 7) ? tag : closed;
    return start >= 0 && end >= start && end <= source.text().length() ? Optional.of(new Span(start, end)) : Optional.empty();
  }

  /** Where the value of an attribute starts in the page's text; the element's own start if that is not known. */
  public int attributeOffset(Element e, String name) {
    int value = e.attributes().sourceRange(name).valueRange().startPos();
    return value >= 0 ? value : Math.max(0, e.sourceRange().startPos());
  }

  /** Addresses of the stylesheets that the page links to, as written, in order. */
  public List<String> stylesheetLinks() {
    return document.select("link[rel~=(?i)\\bstylesheet\\b][href]").stream().map(e -> e.attr("href")).toList();
  }

  /** The page as it would be if an element linked to the page that is shown, which {@code aria-current} says. */
  public Page withCurrent(int index) {
    Document copy = document.clone();
    copy.getAllElements().get(index).attr("aria-current", "page");
    return new Page(source, copy);
  }

  /** All elements in document order, the document itself first. An element's index in it names it in one page. */
  public List<Element> elements() {
    return document.getAllElements();
  }
}

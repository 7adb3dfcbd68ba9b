package org.calmpalette.core.page;

import java.util.ArrayList;
import java.util.List;
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
    List<Span> spans = new ArrayList<>();
    for (Element e : document.getElementsByTag("style")) {
      int start = e.sourceRange().endPos();
      // jsoup lets the end tag of a style element start where the element does, so the tag is looked for.
      int closed = e.endSourceRange().endPos();
      int tag = closed > start ? source.text().lastIndexOf("</", closed - 1) : -1;
      int end = tag >= start && source.text().regionMatches(true, tag, "</style", 0, 7) ? tag : closed;
      if (start >= 0 && end >= start && end <= source.text().length()) {
        spans.add(new Span(start, end));
      }
    }
    return spans;
  }

  /** Addresses of the stylesheets that the page links to, as written, in order. */
  public List<String> stylesheetLinks() {
    return document.select("link[rel~=(?i)\\bstylesheet\\b][href]").stream().map(e -> e.attr("href")).toList();
  }
}

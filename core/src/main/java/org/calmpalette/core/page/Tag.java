package org.calmpalette.core.page;

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
    return element.sourceRange().isTracked() && start >= 0
        && page.source().text().regionMatches(true, start, "<" + element.tagName(), 0, element.tagName().length() + 1);
  }

  /** Puts an attribute right behind the element's name. @param value without characters that need escapes */
  public Edit with(String name, String value) {
    int at = element.sourceRange().startPos() + 1 + element.tagName().length();
    return new Edit(at, at, " " + name + "=\"" + value + "\"");
  }

  /** Takes an attribute out, with the white space before it. */
  public Edit without(String name) {
    var range = element.attributes().sourceRange(name);
    String text = page.source().text();
    int start = range.nameRange().startPos();
    int end = behindValue(text, range.nameRange().endPos());
    while (start > 0 && Character.isWhitespace(text.charAt(start - 1))) {
      start--;
    }
    return new Edit(start, end, "");
  }

  /** HTML, sections 13.2.5.34 to 38: the parser does not tell where a value that is empty ends. */
  private static int behindValue(String text, int behindName) {
    int at = behindName;
    while (at < text.length() && Character.isWhitespace(text.charAt(at))) {
      at++;
    }
    if (at >= text.length() || text.charAt(at) != '=') {
      return behindName;
    }
    at++;
    while (at < text.length() && Character.isWhitespace(text.charAt(at))) {
      at++;
    }
    char quote = at < text.length() ? text.charAt(at) : ' ';
    if (quote == '"' || quote == '\'') {
      int closing = text.indexOf(quote, at + 1);
      return closing < 0 ? text.length() : closing + 1;
    }
    while (at < text.length() && !Character.isWhitespace(text.charAt(at)) && text.charAt(at) != '>') {
      at++;
    }
    return at;
  }

  /** Gives an attribute that is there another value. */
  public Edit replaced(String name, String value) {
    var range = element.attributes().sourceRange(name).valueRange();
    return new Edit(range.startPos(), range.endPos(), value);
  }

  /** Puts a class behind those that are there. */
  public Edit withClass(String name) {
    int end = element.hasAttr("class") ? element.attributes().sourceRange("class").valueRange().endPos() : -1;
    return end > 0 ? new Edit(end, end, " " + name) : with("class", name);
  }
}

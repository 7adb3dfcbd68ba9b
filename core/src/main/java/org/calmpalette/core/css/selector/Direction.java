package org.calmpalette.core.css.selector;

import java.util.Locale;
import org.jsoup.nodes.Element;

/** Directionality of an element: HTML Standard, section 3.2.6.4. */
final class Direction {
  private Direction() {}

  /** {@code ltr} or {@code rtl}. */
  static String of(Element element) {
    for (Element e = element; e != null; e = e.parent()) {
      String dir = e.attr("dir").toLowerCase(Locale.ROOT);
      if (dir.equals("ltr") || dir.equals("rtl")) {
        return dir;
      }
      if (dir.equals("auto") || e.normalName().equals("bdi") && dir.isEmpty()) {
        return fromText(e.text());
      }
    }
    return "ltr";
  }

  private static String fromText(String text) {
    return text.codePoints()
        .map(Character::getDirectionality)
        .filter(d -> d == Character.DIRECTIONALITY_LEFT_TO_RIGHT || d == Character.DIRECTIONALITY_RIGHT_TO_LEFT
            || d == Character.DIRECTIONALITY_RIGHT_TO_LEFT_ARABIC)
        .mapToObj(d -> d == Character.DIRECTIONALITY_LEFT_TO_RIGHT ? "ltr" : "rtl")
        .findFirst().orElse("ltr");
  }
}

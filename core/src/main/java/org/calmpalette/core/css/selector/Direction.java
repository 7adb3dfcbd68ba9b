package org.calmpalette.core.css.selector;

import java.util.Locale;
import java.util.Set;
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
            if (dir.equals("auto") && isTextField(e)) {
                return fromText(FormState.value(e));
            }
            if (e.normalName().equals("input") && FormState.type(e).equals("tel")) {
                return "ltr";
            }
            if (dir.equals("auto") || e.normalName().equals("bdi") && dir.isEmpty()) {
                return fromText(e.text());
            }
        }
        return "ltr";
    }

    private static boolean isTextField(Element e) {
        return e.normalName().equals("textarea")
                || e.normalName().equals("input")
                        && Set.of(
                                        "text",
                                        "search",
                                        "tel",
                                        "url",
                                        "email",
                                        "password",
                                        "hidden",
                                        "submit",
                                        "reset",
                                        "button")
                                .contains(FormState.type(e));
    }

    private static String fromText(String text) {
        return text.codePoints()
                .map(Character::getDirectionality)
                .filter(d -> d == Character.DIRECTIONALITY_LEFT_TO_RIGHT
                        || d == Character.DIRECTIONALITY_RIGHT_TO_LEFT
                        || d == Character.DIRECTIONALITY_RIGHT_TO_LEFT_ARABIC)
                .mapToObj(d -> d == Character.DIRECTIONALITY_LEFT_TO_RIGHT ? "ltr" : "rtl")
                .findFirst()
                .orElse("ltr");
    }
}

package org.calmpalette.core.promise;

import java.util.Locale;
import java.util.Set;
import java.util.stream.Stream;
import org.jsoup.nodes.Element;

/** What is written in form fields, which is no text of an element: in the field itself (HTML, section 4.10), in its colour on its ground. */
final class FieldText {
    /** Of {@code input}, those in which nothing is written in letters. */
    private static final Set<String> WITHOUT = Set.of("hidden", "checkbox", "radio", "range", "color", "file", "image");

    private FieldText() {}

    static boolean isIn(Element e) {
        return switch (e.normalName()) {
            case "textarea", "select" -> true;
            case "input" -> !WITHOUT.contains(e.attr("type").strip().toLowerCase(Locale.ROOT));
            default -> false;
        };
    }

    /** By what one knows a field; may be empty. */
    static String of(Element e) {
        return isIn(e)
                ? Stream.of(e.attr("value"), e.attr("placeholder"), e.attr("aria-label"), e.attr("name"))
                        .map(String::strip)
                        .filter(t -> !t.isEmpty())
                        .findFirst()
                        .orElse("")
                : "";
    }
}

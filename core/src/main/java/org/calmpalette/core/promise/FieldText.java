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

    /** Whether it is a box to write or choose in, of which nothing but its edge or its ground shows that it is there. */
    static boolean isBox(Element e) {
        return isIn(e)
                && !Set.of("submit", "reset", "button")
                        .contains(e.attr("type").strip().toLowerCase(Locale.ROOT));
    }

    /** The state of a field in which its placeholder shows (Selectors Level 4, section 13.1.2). */
    static final String PLACEHOLDER = "placeholder-shown";

    /** Of {@code input}, those that take a placeholder (HTML, section 4.10.5.3.10). */
    private static final Set<String> WITH_PLACEHOLDER =
            Set.of("", "text", "search", "url", "tel", "email", "password", "number");

    /** What a field shows while nothing is written in it; empty for none. */
    static String placeholder(Element e) {
        String type = e.attr("type").strip().toLowerCase(Locale.ROOT);
        // A type that nobody knows is a field for text (HTML, section 4.10.5).
        boolean takes = e.normalName().equals("textarea")
                || e.normalName().equals("input") && (WITH_PLACEHOLDER.contains(type) || !TYPES.contains(type));
        return takes ? e.attr("placeholder").strip() : "";
    }

    /** Those of {@code input} that HTML knows and that take none. */
    private static final Set<String> TYPES = Set.of(
            "hidden",
            "checkbox",
            "radio",
            "range",
            "color",
            "file",
            "image",
            "submit",
            "reset",
            "button",
            "date",
            "month",
            "week",
            "time",
            "datetime-local");

    /** What the label of a field says (HTML, section 4.10.4); empty for none. */
    private static String label(Element e) {
        Element label = e.closest("label");
        if (label == null && !e.id().isEmpty() && e.ownerDocument() != null) {
            label = e.ownerDocument().select("label[for]").stream()
                    .filter(l -> l.attr("for").equals(e.id()))
                    .findFirst()
                    .orElse(null);
        }
        return label == null ? "" : label.text();
    }

    /** By what one knows a field; may be empty. */
    static String of(Element e) {
        return isIn(e)
                ? Stream.of(e.attr("value"), e.attr("placeholder"), e.attr("aria-label"), label(e), e.attr("name"))
                        .map(String::strip)
                        .filter(t -> !t.isEmpty())
                        .findFirst()
                        .orElse("")
                : "";
    }
}

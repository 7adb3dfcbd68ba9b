package org.calmpalette.core.part;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.calmpalette.core.cascade.ElementStyle;
import org.calmpalette.core.cascade.PageStyles;
import org.calmpalette.core.css.selector.States;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.usage.Painted;
import org.calmpalette.core.value.Viewport;
import org.jsoup.nodes.Element;

/**
 * What parts of pages are called by whoever sees them: button, link, heading, the part about “Timetable”. By what the markup means and
 * what is painted, never by names of classes.
 */
public final class SeenName {
    /** Parts that are looked at: what finds more is seen for what most of the first are. */
    private static final int MOST = 40;
    /** Of the words of a heading. */
    private static final int LONGEST = 28;

    private static final Viewport WIDE = Viewport.of(1440, 900);

    private SeenName() {}

    /** What the parts are that some declarations paint, such as {@code links and buttons}; empty where they are of many kinds, or none is found. */
    public static Optional<String> of(List<Painted> painted, Rendered rendered) {
        Map<String, List<Element>> found = new LinkedHashMap<>();
        int all = 0;
        for (Page page : rendered.theme().pages()) {
            List<Element> here = Landmarks.found(painted, page);
            if (here.isEmpty() || all >= MOST) {
                continue;
            }
            PageStyles styles = rendered.styles(page, WIDE, States.NONE);
            for (Element e : here.subList(0, Math.min(here.size(), MOST - all))) {
                found.computeIfAbsent(noun(e, styles), k -> new ArrayList<>()).add(e);
                all++;
            }
        }
        if (found.isEmpty() || found.size() > 2) {
            return Optional.empty();
        }
        if (all == 1) {
            return Optional.of(one(
                    found.values().iterator().next().get(0),
                    found.keySet().iterator().next()));
        }
        List<String> nouns = found.entrySet().stream()
                .map(e -> e.getValue().size() == 1 || e.getKey().equals("page") ? e.getKey() : plural(e.getKey()))
                .toList();
        return Optional.of("the " + String.join(" and ", nouns));
    }

    /** A box is called by its heading. */
    private static String one(Element e, String noun) {
        Element heading = noun.equals("box") ? e.selectFirst("h1, h2, h3, h4, h5, h6") : null;
        String words = heading == null ? "" : heading.text().strip();
        return words.isEmpty()
                ? "the " + noun
                : "the part “"
                        + (words.length() > LONGEST
                                ? words.substring(0, LONGEST).strip() + "…"
                                : words) + "”";
    }

    private static String noun(Element e, PageStyles styles) {
        String role = e.attr("role");
        if (role.equals("button")) {
            return "button";
        }
        return switch (e.normalName()) {
            case "html", "body" -> "page";
            case "button", "summary" -> "button";
            case "input" -> e.attr("type").matches("(?i)submit|button|reset|image") ? "button" : "field";
            case "textarea", "select", "option" -> "field";
            case "a" -> looksLikeAButton(styles.of(e)) ? "button" : "link";
            case "h1" -> "main heading";
            case "h2", "h3", "h4", "h5", "h6", "hgroup" -> "heading";
            case "p" -> "paragraph";
            case "li", "dt", "dd" -> "list item";
            case "ul", "ol", "dl", "menu" -> "list";
            case "img", "picture", "figure" -> "picture";
            case "svg", "path", "circle", "rect", "line", "polyline", "polygon", "ellipse", "use", "g" -> "icon";
            case "video" -> "film";
            case "label", "legend" -> "label";
            case "table" -> "table";
            case "th" -> "table heading";
            case "td" -> "table cell";
            case "tr", "thead", "tbody", "tfoot" -> "table row";
            case "blockquote", "q" -> "quotation";
            case "figcaption", "caption" -> "caption";
            case "code", "pre", "kbd", "samp" -> "code";
            case "hr" -> "dividing line";
            case "nav" -> "navigation";
            case "header" -> "header";
            case "footer" -> "footer";
            case "aside" -> "side part";
            case "form", "fieldset" -> "form";
            case "strong", "em", "b", "i", "small", "span", "mark", "time", "abbr", "cite", "u", "s" -> "words";
            default -> "box";
        };
    }

    /** A link with a ground or border of its own and room around its words. */
    private static boolean looksLikeAButton(ElementStyle style) {
        boolean ground =
                style.colorOf("background-color").filter(c -> c.alpha() > 0).isPresent();
        boolean border = !style.is("border-top-style", "none") && !style.is("border-left-style", "none");
        boolean room = style.px("padding-left").orElse(0) > 0;
        return room && (ground || border);
    }

    private static String plural(String noun) {
        return switch (noun) {
            case "words", "code", "navigation" -> noun;
            case "box" -> "boxes";
            default -> noun + "s";
        };
    }
}

package org.calmpalette.core.cascade;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.calmpalette.core.page.ColorAttributes;
import org.jsoup.nodes.Element;

/** Presentational attributes of HTML (HTML Standard, section 15) and SVG (SVG 2, section 6.6) as declarations. */
final class Presentation {
    private static final List<String> SVG = List.of(
            "color",
            "display",
            "visibility",
            "opacity",
            "fill",
            "stroke",
            "font-size",
            "font-weight",
            "font-family",
            "direction");

    private Presentation() {}

    static Map<String, String> of(Element e) {
        Map<String, String> hints = new LinkedHashMap<>();
        if (e.tag().namespace().endsWith("svg")) {
            for (String name : SVG) {
                if (e.hasAttr(name)) {
                    String value = e.attr(name);
                    // In SVG attributes a plain number is a length in user units.
                    hints.put(
                            name,
                            name.equals("font-size") && value.strip().matches("[\\d.]+")
                                    ? value.strip() + "px"
                                    : value);
                }
            }
            return hints;
        }
        String name = e.normalName();
        switch (name) {
            case "body" -> {
                legacyColor(e, "text", "color", hints);
                margin(e, "marginwidth", List.of("margin-left", "margin-right"), hints);
                margin(e, "leftmargin", List.of("margin-left"), hints);
                margin(e, "rightmargin", List.of("margin-right"), hints);
                margin(e, "marginheight", List.of("margin-top", "margin-bottom"), hints);
                margin(e, "topmargin", List.of("margin-top"), hints);
                margin(e, "bottommargin", List.of("margin-bottom"), hints);
            }
            case "font" -> {
                legacyColor(e, "color", "color", hints);
                String[] sizes = {"", "x-small", "small", "medium", "large", "x-large", "xx-large", "xxx-large"};
                String size = e.attr("size").strip();
                if (size.matches("[+-]?\\d+")) {
                    int n = size.startsWith("+") || size.startsWith("-")
                            ? 3 + Integer.parseInt(size)
                            : Integer.parseInt(size);
                    hints.put("font-size", sizes[Math.max(1, Math.min(7, n))]);
                }
            }
            case "hr" -> legacyColor(e, "color", "color", hints);
            case "img", "object", "embed", "input", "iframe" -> {
                if (!name.equals("input") || e.attr("type").equalsIgnoreCase("image")) {
                    margin(e, "hspace", List.of("margin-left", "margin-right"), hints);
                    margin(e, "vspace", List.of("margin-top", "margin-bottom"), hints);
                }
            }
            case "table" -> {
                if (e.hasAttr("bordercolor")) {
                    for (String side : Properties.SIDES) {
                        legacyColor(e, "bordercolor", "border-" + side + "-color", hints);
                    }
                }
                if (e.attr("align").equalsIgnoreCase("center")) {
                    hints.put("margin-left", "auto");
                    hints.put("margin-right", "auto");
                }
            }
            case "td", "th" -> {
                Element table = e.closest("table");
                if (table != null) {
                    margin(
                            table,
                            "cellpadding",
                            List.of("padding-top", "padding-right", "padding-bottom", "padding-left"),
                            hints);
                }
            }
            default -> {}
        }
        if (List.of("body", "table", "thead", "tbody", "tfoot", "tr", "td", "th")
                .contains(name)) {
            legacyColor(e, "bgcolor", "background-color", hints);
            if (e.hasAttr("background")) {
                hints.put(
                        "background-image",
                        "url("
                                + org.calmpalette.core.css.Escapes.string(
                                        e.attr("background").strip()) + ")");
            }
        }
        String dir = e.attr("dir").toLowerCase(Locale.ROOT);
        if (dir.equals("rtl") || dir.equals("ltr")) {
            hints.put("direction", dir);
        }
        return hints;
    }

    private static void margin(Element e, String attribute, List<String> properties, Map<String, String> hints) {
        String value = e.attr(attribute).strip();
        if (value.matches("\\d+(\\.\\d+)?(px|%)?.*")) {
            String number = value.replaceFirst("^(\\d+(\\.\\d+)?).*", "$1");
            properties.forEach(p -> hints.put(p, number + (value.contains("%") ? "%" : "px")));
        }
    }

    private static void legacyColor(Element e, String attribute, String property, Map<String, String> hints) {
        ColorAttributes.legacy(e.attr(attribute)).ifPresent(c -> hints.put(property, c.hex()));
    }
}

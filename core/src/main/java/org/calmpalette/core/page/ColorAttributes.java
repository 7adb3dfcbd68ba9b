package org.calmpalette.core.page;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.calmpalette.core.Budget;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.color.NamedColors;
import org.jsoup.nodes.Attribute;
import org.jsoup.nodes.Element;

/** Attributes of a page's markup that are colours, and how they are read. No rule decides them and no setting can. */
public final class ColorAttributes {
    /** What is a colour in HTML, by the elements that have it (HTML, section 16.2 “Non-conforming features”). */
    private static final Map<String, Set<String>> HTML = Map.of(
            "bgcolor", Set.of("body", "table", "thead", "tbody", "tfoot", "tr", "td", "th", "marquee"),
            "text", Set.of("body"),
            "link", Set.of("body"),
            "vlink", Set.of("body"),
            "alink", Set.of("body"),
            "color", Set.of("font", "basefont", "hr"),
            "bordercolor", Set.of("table", "tr", "td", "th"));

    /** Presentation attributes of SVG that are colours (SVG 2, section 6.6). */
    private static final Set<String> SVG =
            Set.of("color", "fill", "stroke", "stop-color", "flood-color", "lighting-color");

    private ColorAttributes() {}

    /**
     * A colour in an attribute.
     *
     * @param attribute its name, in lower case
     * @param legacy whether it is an attribute of HTML that is no longer to be written
     */
    public record At(Element element, String attribute, Color color, boolean legacy) {}

    /** All of a page in the order of its elements, of those that stand in its text. */
    public static List<At> of(Page page) {
        List<At> all = new ArrayList<>();
        for (Element e : page.elements()) {
            Budget.step();
            if (e.sourceRange().isTracked()) {
                for (Attribute a : e.attributes()) {
                    String name = a.getKey().toLowerCase(Locale.ROOT);
                    boolean legacy = isLegacy(e, name);
                    Optional<Color> color = legacy
                            ? legacy(a.getValue())
                            : isColor(e, name) ? Color.parse(a.getValue().strip()) : Optional.empty();
                    color.ifPresent(c -> all.add(new At(e, name, c, legacy)));
                }
            }
        }
        return all;
    }

    private static boolean isLegacy(Element e, String name) {
        return HTML.getOrDefault(name, Set.of()).contains(e.normalName())
                && !e.tag().namespace().endsWith("svg");
    }

    /** Of SVG, and the colour that a page asks the browser's own frame to take (HTML, section 4.2.5.1 “theme-color”). */
    private static boolean isColor(Element e, String name) {
        return e.tag().namespace().endsWith("svg")
                ? SVG.contains(name)
                : name.equals("content")
                        && e.normalName().equals("meta")
                        && e.attr("name").equalsIgnoreCase("theme-color");
    }

    /**
     * Rules for parsing a legacy colour value (HTML, section 2.3.6): any text but an empty one is a colour.
     *
     * @return empty for an empty text and for {@code transparent}
     */
    public static Optional<Color> legacy(String text) {
        String value = text.strip();
        if (value.isEmpty() || value.equalsIgnoreCase("transparent")) {
            return Optional.empty();
        }
        if (NamedColors.get(value).isPresent() || value.matches("#[0-9a-fA-F]{3}")) {
            return Color.parse(value);
        }
        String digits = (value.startsWith("#") ? value.substring(1) : value).replaceAll("[^0-9a-fA-F]", "0");
        while (digits.isEmpty() || digits.length() % 3 != 0) {
            digits += "0";
        }
        int length = digits.length() / 3;
        String[] c = {digits.substring(0, length), digits.substring(length, 2 * length), digits.substring(2 * length)};
        if (length > 8) {
            for (int i = 0; i < 3; i++) {
                c[i] = c[i].substring(length - 8);
            }
        }
        while (c[0].length() > 2 && c[0].charAt(0) == '0' && c[1].charAt(0) == '0' && c[2].charAt(0) == '0') {
            for (int i = 0; i < 3; i++) {
                c[i] = c[i].substring(1);
            }
        }
        int[] rgb = new int[3];
        for (int i = 0; i < 3; i++) {
            rgb[i] = Integer.parseInt(c[i].length() > 2 ? c[i].substring(0, 2) : c[i], 16);
        }
        return Optional.of(Color.rgb(rgb[0] / 255.0, rgb[1] / 255.0, rgb[2] / 255.0));
    }
}

package org.calmpalette.core.cascade;

import java.util.Map;
import java.util.Optional;
import org.calmpalette.core.color.Color;

/** System colours of CSS Color 4, section 6.2, as Chromium on a desktop without forced colours paints them. */
final class SystemColors {
    private static final Map<String, String> LIGHT = Map.ofEntries(
            Map.entry("canvas", "#ffffff"),
            Map.entry("canvastext", "#000000"),
            Map.entry("linktext", "#0000ee"),
            Map.entry("visitedtext", "#551a8b"),
            Map.entry("activetext", "#ff0000"),
            Map.entry("buttonface", "#efefef"),
            Map.entry("buttontext", "#000000"),
            Map.entry("buttonborder", "#000000"),
            Map.entry("field", "#ffffff"),
            Map.entry("fieldtext", "#000000"),
            Map.entry("highlight", "rgb(0 65 198 / 0.8)"),
            Map.entry("highlighttext", "#ffffff"),
            Map.entry("selecteditem", "rgb(25 103 210)"),
            Map.entry("selecteditemtext", "#ffffff"),
            Map.entry("mark", "#ffff00"),
            Map.entry("marktext", "#000000"),
            Map.entry("graytext", "#808080"),
            Map.entry("accentcolor", "rgb(0 117 255)"),
            Map.entry("accentcolortext", "#ffffff"),
            Map.entry("-webkit-link", "#0000ee"),
            Map.entry("-webkit-activelink", "#ff0000"),
            Map.entry("-webkit-focus-ring-color", "rgb(16 16 16)"),
            Map.entry("-internal-light-dark-border", "#767676"));
    private static final Map<String, String> DARK = Map.ofEntries(
            Map.entry("canvas", "#121212"),
            Map.entry("canvastext", "#ffffff"),
            Map.entry("linktext", "#9e9eff"),
            Map.entry("visitedtext", "#d0adf0"),
            Map.entry("buttonface", "#6b6b6b"),
            Map.entry("buttontext", "#ffffff"),
            Map.entry("field", "#3b3b3b"),
            Map.entry("fieldtext", "#ffffff"),
            Map.entry("-webkit-link", "#9e9eff"),
            Map.entry("buttonborder", "#ffffff"),
            Map.entry("selecteditem", "rgb(153 200 255)"),
            Map.entry("selecteditemtext", "#3b3b3b"),
            Map.entry("-internal-light-dark-border", "#858585"));

    /** Deprecated ones, and what browsers take them for: CSS Color 4, appendix A. */
    private static final Map<String, String> DEPRECATED = Map.ofEntries(
            Map.entry("activeborder", "buttonborder"),
            Map.entry("activecaption", "canvas"),
            Map.entry("appworkspace", "canvas"),
            Map.entry("background", "canvas"),
            Map.entry("buttonhighlight", "buttonface"),
            Map.entry("buttonshadow", "buttonface"),
            Map.entry("captiontext", "canvastext"),
            Map.entry("inactiveborder", "buttonborder"),
            Map.entry("inactivecaption", "canvas"),
            Map.entry("inactivecaptiontext", "graytext"),
            Map.entry("infobackground", "canvas"),
            Map.entry("infotext", "canvastext"),
            Map.entry("menu", "canvas"),
            Map.entry("menutext", "canvastext"),
            Map.entry("scrollbar", "canvas"),
            Map.entry("threeddarkshadow", "buttonborder"),
            Map.entry("threedface", "buttonface"),
            Map.entry("threedhighlight", "buttonborder"),
            Map.entry("threedlightshadow", "buttonborder"),
            Map.entry("threedshadow", "buttonborder"),
            Map.entry("window", "canvas"),
            Map.entry("windowframe", "buttonborder"),
            Map.entry("windowtext", "canvastext"));

    private SystemColors() {}

    static Optional<Color> get(String word, boolean dark) {
        String name = DEPRECATED.getOrDefault(word, word);
        String value = dark ? DARK.getOrDefault(name, LIGHT.get(name)) : LIGHT.get(name);
        return value == null ? Optional.empty() : Color.parse(value);
    }

    /** Any colour for a word that names one, where only validity is asked. */
    static Optional<Color> any(String name) {
        return name.equals("currentcolor") ? Optional.of(Color.BLACK) : get(name, false);
    }
}

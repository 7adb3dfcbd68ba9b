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
            Map.entry("highlight", "rgb(0 120 215)"),
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
            Map.entry("-internal-light-dark-border", "#767676"),
            Map.entry("buttonshadow", "#000000"),
            Map.entry("threedface", "#efefef"),
            Map.entry("window", "#ffffff"),
            Map.entry("windowtext", "#000000"),
            Map.entry("text", "#000000"));
    private static final Map<String, String> DARK = Map.ofEntries(
            Map.entry("canvas", "#121212"),
            Map.entry("canvastext", "#ffffff"),
            Map.entry("linktext", "#9e9eff"),
            Map.entry("visitedtext", "#d0adf0"),
            Map.entry("activetext", "#ff9e9e"),
            Map.entry("buttonface", "#6b6b6b"),
            Map.entry("buttontext", "#ffffff"),
            Map.entry("field", "#3b3b3b"),
            Map.entry("fieldtext", "#ffffff"),
            Map.entry("-webkit-link", "#9e9eff"),
            Map.entry("buttonborder", "#ffffff"),
            Map.entry("-internal-light-dark-border", "#858585"));

    private SystemColors() {}

    static Optional<Color> get(String name, boolean dark) {
        String value = dark ? DARK.getOrDefault(name, LIGHT.get(name)) : LIGHT.get(name);
        return value == null ? Optional.empty() : Color.parse(value);
    }

    /** Any colour for a word that names one, where only validity is asked. */
    static Optional<Color> any(String name) {
        return name.equals("currentcolor") ? Optional.of(Color.BLACK) : get(name, false);
    }
}

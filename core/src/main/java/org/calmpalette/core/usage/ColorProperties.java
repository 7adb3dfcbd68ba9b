package org.calmpalette.core.usage;

import java.util.Set;

/** Which properties take colour names as colours, and what each paints in one word. */
public final class ColorProperties {
    private static final Set<String> TAKE_COLORS = Set.of(
            "color",
            "background",
            "background-color",
            "background-image",
            "border",
            "border-top",
            "border-right",
            "border-bottom",
            "border-left",
            "border-block",
            "border-block-start",
            "border-block-end",
            "border-inline",
            "border-inline-start",
            "border-inline-end",
            "border-color",
            "border-top-color",
            "border-right-color",
            "border-bottom-color",
            "border-left-color",
            "border-block-color",
            "border-block-start-color",
            "border-block-end-color",
            "border-inline-color",
            "border-inline-start-color",
            "border-inline-end-color",
            "border-image",
            "border-image-source",
            "outline",
            "outline-color",
            "box-shadow",
            "text-shadow",
            "fill",
            "stroke",
            "stop-color",
            "flood-color",
            "lighting-color",
            "caret-color",
            "accent-color",
            "text-decoration",
            "text-decoration-color",
            "text-emphasis",
            "text-emphasis-color",
            "column-rule",
            "column-rule-color",
            "scrollbar-color",
            "filter",
            "backdrop-filter",
            "mask",
            "mask-image",
            "list-style",
            "list-style-image",
            "-webkit-text-fill-color",
            "-webkit-text-stroke",
            "-webkit-text-stroke-color",
            "-webkit-tap-highlight-color",
            // The descriptor of @property.
            "initial-value");

    private ColorProperties() {}

    static boolean takesNames(String property) {
        return TAKE_COLORS.contains(property);
    }

    /** What the property paints: text, fill, line, shadow, icon. */
    public static String role(String property) {
        if (property.equals("color") || property.startsWith("-webkit-text") || property.equals("caret-color")) {
            return "text";
        }
        if (property.startsWith("background") || property.equals("accent-color")) {
            return "fill";
        }
        if (property.contains("shadow") || property.contains("filter")) {
            return "shadow";
        }
        if (property.equals("fill") || property.equals("stroke")) {
            return "icon";
        }
        return "line";
    }
}

package org.calmpalette.core.cascade;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;

/** What is known of CSS properties: their names, which are inherited, their initial values, which are shorthands. */
final class Properties {
    private static final Set<String> NAMES = read("properties.txt");
    private static final Set<String> INHERITED = read("inherited.txt");
    private static final Set<String> FOREIGN = read("foreign.txt");
    static final List<String> SIDES = List.of("top", "right", "bottom", "left");
    /** Names of WebKit's line that mean a property of the standards. */
    static final Map<String, String> ALIASES =
            Map.of("-webkit-background-clip", "background-clip", "-webkit-appearance", "appearance");

    private static final Map<String, String> INITIAL = new LinkedHashMap<>();
    private static final Map<String, List<String>> SHORTHANDS = new LinkedHashMap<>();
    static final List<String> BACKGROUND = List.of(
            "background-image",
            "background-position-x",
            "background-position-y",
            "background-size",
            "background-repeat",
            "background-attachment",
            "background-origin",
            "background-clip",
            "background-color");

    static {
        INITIAL.put("color", "canvastext");
        INITIAL.put("opacity", "1");
        INITIAL.put("visibility", "visible");
        INITIAL.put("display", "inline");
        INITIAL.put("position", "static");
        INITIAL.put("float", "none");
        INITIAL.put("direction", "ltr");
        INITIAL.put("color-scheme", "normal");
        INITIAL.put("fill", "black");
        INITIAL.put("stroke", "none");
        INITIAL.put("font-size", "medium");
        INITIAL.put("font-weight", "400");
        INITIAL.put("font-family", "serif");
        INITIAL.put("background-color", "transparent");
        INITIAL.put("background-image", "none");
        INITIAL.put("background-position-x", "0%");
        INITIAL.put("background-position-y", "0%");
        INITIAL.put("background-size", "auto");
        INITIAL.put("background-repeat", "repeat");
        INITIAL.put("background-attachment", "scroll");
        INITIAL.put("background-origin", "padding-box");
        INITIAL.put("background-clip", "border-box");
        SHORTHANDS.put("background", BACKGROUND);
        SHORTHANDS.put("background-position", List.of("background-position-x", "background-position-y"));
        for (String side : SIDES) {
            INITIAL.put("border-" + side + "-color", "currentcolor");
            INITIAL.put("padding-" + side, "0px");
            INITIAL.put("margin-" + side, "0px");
        }
        box("padding", "");
        box("margin", "");
        box("inset", "");
        box("border-color", "color");
        box("border-style", "style");
        box("border-width", "width");
        for (String side :
                List.of("top", "right", "bottom", "left", "block-start", "block-end", "inline-start", "inline-end")) {
            SHORTHANDS.put(
                    "border-" + side,
                    List.of("border-" + side + "-width", "border-" + side + "-style", "border-" + side + "-color"));
        }
        for (String axis : List.of("block", "inline")) {
            for (String box : List.of("padding", "margin", "inset")) {
                SHORTHANDS.put(box + "-" + axis, List.of(box + "-" + axis + "-start", box + "-" + axis + "-end"));
            }
            for (String part : List.of("width", "style", "color")) {
                SHORTHANDS.put(
                        "border-" + axis + "-" + part,
                        List.of("border-" + axis + "-start-" + part, "border-" + axis + "-end-" + part));
            }
            List<String> both = new ArrayList<>(SHORTHANDS.get("border-" + axis + "-start"));
            both.addAll(SHORTHANDS.get("border-" + axis + "-end"));
            SHORTHANDS.put("border-" + axis, both);
        }
        // CSS Basic User Interface 4, section 3.1. The outline's longhands have no values of their own that are
        // computed here.
        SHORTHANDS.put("outline", List.of("outline-width", "outline-style", "outline-color"));
        // CSS Animations 1, section 4.9.
        SHORTHANDS.put(
                "animation",
                List.of(
                        "animation-duration",
                        "animation-timing-function",
                        "animation-delay",
                        "animation-iteration-count",
                        "animation-direction",
                        "animation-fill-mode",
                        "animation-play-state",
                        "animation-name"));
        // CSS Box Alignment 3, section 8.1.
        SHORTHANDS.put("gap", List.of("row-gap", "column-gap"));
        List<String> border = new ArrayList<>();
        for (String part : List.of("width", "style", "color")) {
            for (String side : SIDES) {
                border.add("border-" + side + "-" + part);
            }
        }
        SHORTHANDS.put("border", border);
        SHORTHANDS.put("font", List.of("font-style", "font-weight", "font-size", "line-height", "font-family"));
    }

    private Properties() {}

    private static void box(String name, String part) {
        List<String> sides = new ArrayList<>();
        for (String side : SIDES) {
            sides.add(part.isEmpty() ? name.equals("inset") ? side : name + "-" + side : "border-" + side + "-" + part);
        }
        SHORTHANDS.put(name, sides);
    }

    private static Set<String> read(String list) {
        try (InputStream in = Properties.class.getResourceAsStream(list)) {
            Set<String> names = new HashSet<>(new String(in.readAllBytes(), StandardCharsets.UTF_8)
                    .lines()
                    .toList());
            names.removeIf(n -> n.startsWith("#") || n.isBlank());
            return names;
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** Whether browsers know a property. Of prefixed ones only those of WebKit's line count. */
    static boolean isKnown(String property) {
        return property.startsWith("--")
                || NAMES.contains(property) && !property.startsWith("-moz-") && !property.startsWith("-ms-");
    }

    /** Whether Chromium knows a property, which others may know: what a condition that asks for it comes to. */
    static boolean isKnownToChromium(String property) {
        return isKnown(property) && !FOREIGN.contains(property);
    }

    /** All names of properties, for looking up what a misspelt one may mean. */
    static Set<String> names() {
        return NAMES;
    }

    static boolean isInherited(String property) {
        return INHERITED.contains(property);
    }

    /** True for the longhands whose values are computed here. */
    static boolean isComputed(String longhand) {
        return INITIAL.containsKey(longhand);
    }

    /** The longhands whose values are computed here. */
    static Set<String> computed() {
        return INITIAL.keySet();
    }

    static String initial(String longhand) {
        return INITIAL.getOrDefault(longhand, "");
    }

    /** The longhands that a property sets: those of a shorthand, else itself. */
    static List<String> longhands(String property) {
        return SHORTHANDS.getOrDefault(property, List.of(property));
    }

    static boolean isShorthand(String property) {
        return SHORTHANDS.containsKey(property);
    }

    /** The physical longhand that a flow-relative one means in horizontal writing. */
    static String physical(String longhand, boolean rightToLeft) {
        if (!longhand.contains("-start") && !longhand.contains("-end")) {
            return longhand;
        }
        String physical = longhand.replace("block-start", "top")
                .replace("block-end", "bottom")
                .replace("inline-start", rightToLeft ? "right" : "left")
                .replace("inline-end", rightToLeft ? "left" : "right");
        return physical.startsWith("inset-") ? physical.substring(6) : physical;
    }
}

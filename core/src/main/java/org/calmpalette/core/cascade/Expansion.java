package org.calmpalette.core.cascade;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.color.ColorSyntax;
import org.calmpalette.core.css.Reference;
import org.calmpalette.core.value.ComponentValue;
import org.calmpalette.core.value.ComponentValue.Kind;
import org.calmpalette.core.value.Lengths;
import org.calmpalette.core.value.Viewport;

/**
 * Takes declarations apart into longhands, and tells whether their values are valid: CSS Backgrounds 3, Box 4,
 * Fonts 4, Display 4, and what Chromium makes of them. Values of properties that are not computed here pass unlooked at.
 */
final class Expansion {
    private static final Lengths.Base ANY = new Lengths.Base(16, 16, Viewport.of(1000, 1000));
    private static final Set<String> GENERIC_FAMILIES =
            Set.of("serif", "sans-serif", "monospace", "cursive", "fantasy", "system-ui");
    private static final Set<String> WIDE = Set.of("initial", "inherit", "unset", "revert", "revert-layer");
    private static final Set<String> DISPLAYS = Set.of(
            "none",
            "contents",
            "block",
            "inline",
            "inline-block",
            "flow-root",
            "flex",
            "inline-flex",
            "grid",
            "inline-grid",
            "table",
            "inline-table",
            "table-row",
            "table-row-group",
            "table-header-group",
            "table-footer-group",
            "table-column",
            "table-column-group",
            "table-cell",
            "table-caption",
            "list-item",
            "ruby",
            "ruby-text",
            "block ruby",
            "math",
            "-webkit-box",
            "-webkit-inline-box",
            "-webkit-flex",
            "-webkit-inline-flex");
    private static final Map<String, String> TWO_WORD_DISPLAYS = Map.ofEntries(
            Map.entry("block flow", "block"),
            Map.entry("flow", "block"),
            Map.entry("inline flow", "inline"),
            Map.entry("inline flow-root", "inline-block"),
            Map.entry("block flow-root", "flow-root"),
            Map.entry("block flex", "flex"),
            Map.entry("inline flex", "inline-flex"),
            Map.entry("block grid", "grid"),
            Map.entry("inline grid", "inline-grid"),
            Map.entry("block table", "table"),
            Map.entry("inline table", "inline-table"),
            Map.entry("inline ruby", "ruby"),
            Map.entry("block ruby", "block ruby"));
    private static final Set<String> FONT_SIZES = Set.of(
            "xx-small",
            "x-small",
            "small",
            "medium",
            "large",
            "x-large",
            "xx-large",
            "xxx-large",
            "smaller",
            "larger",
            "-webkit-xxx-large",
            "math");
    private static final Set<String> LINE_STYLES =
            Set.of("none", "hidden", "dotted", "dashed", "solid", "double", "groove", "ridge", "inset", "outset");
    /** CSS Basic User Interface 4, section 7.1, with those that only WebKit's line has. */
    private static final Set<String> APPEARANCES = Set.of(
            "none",
            "auto",
            "base-select",
            "button",
            "checkbox",
            "listbox",
            "menulist",
            "menulist-button",
            "meter",
            "progress-bar",
            "push-button",
            "radio",
            "searchfield",
            "searchfield-cancel-button",
            "slider-horizontal",
            "square-button",
            "textarea",
            "textfield");

    private static final Set<String> BOXES = Set.of("border-box", "padding-box", "content-box");

    private Expansion() {}

    static boolean isWide(String value) {
        return WIDE.contains(value.strip().toLowerCase(Locale.ROOT));
    }

    /**
     * The longhands of a declaration with their values.
     *
     * @return empty if browsers would not understand the value
     */
    static Optional<Map<String, String>> of(String property, String value) {
        Map<String, String> out = new LinkedHashMap<>();
        if (isWide(value)) {
            Properties.longhands(property).forEach(l -> out.put(l, value.strip().toLowerCase(Locale.ROOT)));
            return Optional.of(out);
        }
        if (property.equals("all")) {
            return Optional.empty();
        }
        List<ComponentValue> parts = ComponentValue.read(value);
        if (parts.isEmpty()
                || parts.stream()
                        .anyMatch(p -> p.kind() == Kind.OTHER && p.text().equals("!"))) {
            return Optional.empty();
        }
        return expand(property, parts, out) ? Optional.of(out) : Optional.empty();
    }

    private static boolean expand(String property, List<ComponentValue> parts, Map<String, String> out) {
        switch (property) {
            case "background" -> {
                return background(parts, out);
            }
            case "background-position" -> {
                return position(parts, out);
            }
            case "font" -> {
                return font(parts, out);
            }
            case "animation" -> {
                return animation(parts, out);
            }
            case "padding", "margin", "inset", "border-color", "border-style", "border-width" -> {
                return box(Properties.longhands(property), parts, out);
            }
            case "outline" -> {
                // The style that browsers have for it, and no border has, stands in the place of one (section 3.3).
                boolean own = parts.stream().filter(p -> p.isIdent("auto")).count() == 1;
                boolean read = border(
                        Properties.longhands(property),
                        own ? parts.stream().filter(p -> !p.isIdent("auto")).toList() : parts,
                        out);
                boolean twice =
                        own && !out.getOrDefault("outline-style", "none").equals("none");
                if (own) {
                    out.put("outline-style", "auto");
                }
                return read && !twice && !out.get("outline-style").equals("hidden");
            }
            case "border", "border-block", "border-inline" -> {
                return border(Properties.longhands(property), parts, out);
            }
            default -> {
                List<String> longhands = Properties.longhands(property);
                if (longhands.size() == 1) {
                    return longhand(property, parts, out);
                }
                if (longhands.size() == 2) {
                    if (parts.size() > 2) {
                        return false;
                    }
                    return longhand(longhands.get(0), List.of(parts.get(0)), out)
                            && longhand(longhands.get(1), List.of(parts.get(parts.size() - 1)), out);
                }
                return border(longhands, parts, out);
            }
        }
    }

    /** What each part of an animation is where nothing is said, in the order of the longhands. */
    static final List<String> NO_ANIMATION = List.of("0s", "ease", "0s", "1", "normal", "none", "running", "none");

    /** CSS Animations 1, section 4.9: a word that another longhand knows is no name, and of two times the first is the duration. */
    private static boolean animation(List<ComponentValue> parts, Map<String, String> out) {
        List<String> longhands = Properties.longhands("animation");
        List<List<String>> all = new ArrayList<>();
        for (List<ComponentValue> one : ComponentValue.commaSeparated(parts)) {
            String[] found = new String[longhands.size()];
            for (ComponentValue p : one) {
                int at = animationPart(p, found);
                if (at < 0) {
                    return false;
                }
                found[at] = p.text();
            }
            if (one.isEmpty()) {
                return false;
            }
            List<String> whole = new ArrayList<>();
            for (int i = 0; i < found.length; i++) {
                whole.add(found[i] == null ? NO_ANIMATION.get(i) : found[i]);
            }
            all.add(whole);
        }
        for (int i = 0; i < longhands.size(); i++) {
            int at = i;
            out.put(longhands.get(i), all.stream().map(w -> w.get(at)).collect(Collectors.joining(", ")));
        }
        return true;
    }

    /** Which longhand a part is for, of those that have none yet; -1 for none. */
    private static int animationPart(ComponentValue p, String[] found) {
        boolean time =
                p.kind() == Kind.DIMENSION && oneOf(p.name().toLowerCase(Locale.ROOT), "s", "ms") || Lengths.isMath(p);
        if (time) {
            return found[0] == null ? 0 : found[2] == null ? 2 : -1;
        }
        boolean easing = p.kind() == Kind.FUNCTION
                || oneOf(p, "linear", "ease", "ease-in", "ease-out", "ease-in-out", "step-start", "step-end");
        if (easing && found[1] == null) {
            return 1;
        }
        if (found[3] == null && (oneOf(p, "infinite") || p.kind() == Kind.NUMBER && p.number() >= 0)) {
            return 3;
        }
        if (found[4] == null && oneOf(p, "normal", "reverse", "alternate", "alternate-reverse")) {
            return 4;
        }
        if (found[5] == null && oneOf(p, "none", "forwards", "backwards", "both")) {
            return 5;
        }
        if (found[6] == null && oneOf(p, "running", "paused")) {
            return 6;
        }
        return found[7] == null && (p.kind() == Kind.IDENT || p.kind() == Kind.STRING) ? 7 : -1;
    }

    private static boolean oneOf(String word, String... words) {
        return List.of(words).contains(word);
    }

    private static boolean box(List<String> sides, List<ComponentValue> parts, Map<String, String> out) {
        int n = parts.size();
        if (n > 4) {
            return false;
        }
        int[] which = {0, n > 1 ? 1 : 0, n > 2 ? 2 : 0, n > 3 ? 3 : n > 1 ? 1 : 0};
        for (int i = 0; i < 4; i++) {
            if (!longhand(sides.get(i), List.of(parts.get(which[i])), out)) {
                return false;
            }
        }
        return true;
    }

    private static boolean longhand(String name, List<ComponentValue> parts, Map<String, String> out) {
        ComponentValue one = parts.get(0);
        boolean single = parts.size() == 1;
        String text = ComponentValue.join(parts);
        boolean valid;
        if (name.equals("color")
                || name.equals("outline-color")
                || name.startsWith("border-") && name.endsWith("-color")) {
            valid = single && isColor(one);
        } else if (name.startsWith("padding-")) {
            valid = single && isNotNegative(one) && Lengths.isLengthOrPercentage(one);
        } else if (name.startsWith("margin-") && !name.startsWith("margin-trim")) {
            valid = single && (one.isIdent("auto") || Lengths.isLengthOrPercentage(one));
        } else if (name.startsWith("border-") && name.endsWith("-style")) {
            valid = single && one.kind() == Kind.IDENT && LINE_STYLES.contains(one.name());
        } else if (name.equals("outline-style")) {
            valid = single
                    && one.kind() == Kind.IDENT
                    && (one.isIdent("auto") || LINE_STYLES.contains(one.name()) && !one.isIdent("hidden"));
        } else if (name.equals("outline-width") || name.startsWith("border-") && name.endsWith("-width")) {
            valid = single && isLineWidth(one);
        } else {
            switch (name) {
                case "background-color" -> valid = single && isColor(one);
                case "opacity" -> valid = single && isNumberOrPercentage(one);
                case "visibility" -> valid = single && oneOf(one, "visible", "hidden", "collapse");
                case "float" -> valid = single && oneOf(one, "left", "right", "none", "inline-start", "inline-end");
                case "direction" -> valid = single && oneOf(one, "ltr", "rtl");
                case "position" -> valid = single && oneOf(one, "static", "relative", "absolute", "fixed", "sticky");
                case "display" -> {
                    text = text.toLowerCase(Locale.ROOT);
                    // The two words may stand in either order.
                    String turned = text.replaceFirst("^(\\S+) (\\S+)$", "$2 $1");
                    text = TWO_WORD_DISPLAYS.getOrDefault(text, TWO_WORD_DISPLAYS.getOrDefault(turned, text));
                    if (parts.size() > 1 && parts.stream().anyMatch(p -> p.isIdent("list-item"))) {
                        // CSS Display 3, section 2.3: list-item beside an outer and an inner flow, in any order.
                        List<String> words = parts.stream()
                                .map(ComponentValue::name)
                                .filter(w -> !w.equals("block") && !w.equals("flow"))
                                .toList();
                        long outer = parts.stream()
                                .filter(p -> oneOf(p, "block", "inline"))
                                .count();
                        long inner = parts.stream()
                                .filter(p -> oneOf(p, "flow", "flow-root"))
                                .count();
                        valid = outer <= 1 && inner <= 1 && parts.size() == outer + inner + 1;
                        List<String> order = List.of("inline", "flow-root", "list-item");
                        text = String.join(
                                " ",
                                words.stream()
                                        .sorted(java.util.Comparator.comparingInt(order::indexOf))
                                        .toList());
                    } else {
                        valid = DISPLAYS.contains(text);
                    }
                }
                case "font-size" ->
                    valid = single
                            && (one.kind() == Kind.IDENT
                                    ? FONT_SIZES.contains(one.name())
                                    : isNotNegative(one) && Lengths.isLengthOrPercentage(one));
                case "font-weight" -> valid = single && isWeight(one);
                case "font-style" ->
                    valid = single && oneOf(one, "normal", "italic", "oblique")
                            || parts.size() == 2 && one.isIdent("oblique") && isAngle(parts.get(1));
                case "font-family" ->
                    valid = ComponentValue.commaSeparated(parts).stream().allMatch(Expansion::isFamily);
                case "line-height" ->
                    valid = single
                            && (one.isIdent("normal")
                                    || one.kind() == Kind.NUMBER && one.number() >= 0
                                    || isNotNegative(one) && Lengths.isLengthOrPercentage(one)
                                    || one.kind() != Kind.NUMBER && Lengths.isNumber(one));
                case "color-scheme" -> valid = isColorScheme(parts);
                case "row-gap", "column-gap" ->
                    valid = single
                            && (one.isIdent("normal") || isNotNegative(one) && Lengths.isLengthOrPercentage(one));
                case "top", "right", "bottom", "left" ->
                    valid = single && (one.isIdent("auto") || Lengths.isLengthOrPercentage(one));
                case "fill", "stroke" -> valid = isPaint(parts);
                case "background-image" -> valid = list(parts, layer -> layer.size() == 1 && isImage(layer.get(0)));
                case "background-size" -> valid = list(parts, Expansion::isSize);
                case "background-repeat" -> valid = list(parts, Expansion::isRepeat);
                case "background-attachment" ->
                    valid = list(parts, l -> l.size() == 1 && oneOf(l.get(0), "scroll", "fixed", "local"));
                case "background-origin" ->
                    valid = list(
                            parts, l -> l.size() == 1 && BOXES.contains(l.get(0).name()));
                case "appearance", "-webkit-appearance" -> valid = single && APPEARANCES.contains(one.name());
                case "background-clip", "-webkit-background-clip" ->
                    valid = list(
                            parts,
                            l -> l.size() == 1
                                            && (BOXES.contains(l.get(0).name())
                                                    || l.get(0).isIdent("text"))
                                    || isBorderAreaText(l));
                case "background-position-x" -> valid = list(parts, l -> isAxis(l, "left", "right"));
                case "background-position-y" -> valid = list(parts, l -> isAxis(l, "top", "bottom"));
                default -> valid = true;
            }
        }
        if (valid) {
            out.put(Properties.ALIASES.getOrDefault(name, name), text);
        }
        return valid;
    }

    private static boolean isBorderAreaText(List<ComponentValue> layer) {
        return layer.size() == 1 && layer.get(0).isIdent("border-area");
    }

    private static boolean oneOf(ComponentValue part, String... words) {
        return part.kind() == Kind.IDENT && List.of(words).contains(part.name());
    }

    private static boolean isAngle(ComponentValue p) {
        return p.kind() == Kind.DIMENSION && Images.isAngleUnit(p.name()) || Lengths.isMath(p);
    }

    /** CSS Color Adjustment 1, section 2.1: normal, or names of schemes with "only" at either end. */
    private static boolean isColorScheme(List<ComponentValue> parts) {
        if (parts.size() == 1 && parts.get(0).isIdent("normal")) {
            return true;
        }
        int last = parts.size() - 1;
        int only = parts.get(0).isIdent("only") ? 0 : parts.get(last).isIdent("only") ? last : -1;
        List<ComponentValue> names = new ArrayList<>(parts);
        if (only >= 0) {
            names.remove(only);
        }
        return !names.isEmpty()
                && names.stream()
                        .allMatch(p -> p.kind() == Kind.IDENT
                                && !oneOf(p, "normal", "only", "default")
                                && !WIDE.contains(p.name()));
    }

    private static boolean isNumberOrPercentage(ComponentValue p) {
        // A calculation is of the wrong type if a length takes part in it.
        return p.kind() == Kind.PERCENTAGE
                || Lengths.isNumber(p)
                || Lengths.isMath(p)
                        && Lengths.isLengthOrPercentage(p)
                        && Lengths.math(p, ANY)
                                .filter(s -> s.needsLayout() && s.px() == 0)
                                .isPresent();
    }

    private static boolean isNotNegative(ComponentValue p) {
        return p.kind() == Kind.FUNCTION || p.number() >= 0;
    }

    private static boolean isLineWidth(ComponentValue p) {
        return oneOf(p, "thin", "medium", "thick") || isNotNegative(p) && Lengths.isLength(p);
    }

    static boolean isColor(ComponentValue p) {
        return switch (p.kind()) {
            case IDENT, HASH, FUNCTION ->
                ColorSyntax.parse(p.text(), SystemColors::any, false).isPresent();
            default -> false;
        };
    }

    private static boolean isPaint(List<ComponentValue> parts) {
        ComponentValue one = parts.get(0);
        if (one.kind() == Kind.URL) {
            return parts.size() == 1 || parts.size() == 2 && (parts.get(1).isIdent("none") || isColor(parts.get(1)));
        }
        return parts.size() == 1 && (oneOf(one, "none", "context-fill", "context-stroke") || isColor(one));
    }

    static boolean isImage(ComponentValue p) {
        return p.isIdent("none") || p.kind() == Kind.URL || p.kind() == Kind.FUNCTION && Images.isValid(p);
    }

    private static boolean list(List<ComponentValue> parts, Predicate<List<ComponentValue>> each) {
        for (List<ComponentValue> layer : ComponentValue.commaSeparated(parts)) {
            if (layer.isEmpty() || !each.test(layer)) {
                return false;
            }
        }
        return true;
    }

    private static boolean isSize(List<ComponentValue> layer) {
        if (layer.size() == 1 && oneOf(layer.get(0), "cover", "contain")) {
            return true;
        }
        return layer.size() <= 2
                && layer.stream()
                        .allMatch(p -> p.isIdent("auto") || isNotNegative(p) && Lengths.isLengthOrPercentage(p));
    }

    private static boolean isRepeat(List<ComponentValue> layer) {
        if (layer.size() == 1 && oneOf(layer.get(0), "repeat-x", "repeat-y")) {
            return true;
        }
        return layer.size() <= 2 && layer.stream().allMatch(p -> oneOf(p, "repeat", "no-repeat", "space", "round"));
    }

    private static boolean isAxis(List<ComponentValue> layer, String start, String end) {
        ComponentValue one = layer.get(0);
        if (layer.size() == 1) {
            return oneOf(one, start, end, "center") || Lengths.isLengthOrPercentage(one);
        }
        return layer.size() == 2 && oneOf(one, start, end) && Lengths.isLengthOrPercentage(layer.get(1));
    }

    private static boolean border(List<String> longhands, List<ComponentValue> parts, Map<String, String> out) {
        String width = null;
        String style = null;
        String color = null;
        for (ComponentValue p : parts) {
            if (style == null && p.kind() == Kind.IDENT && LINE_STYLES.contains(p.name())) {
                style = p.name();
            } else if (width == null && isLineWidth(p)) {
                width = p.text();
            } else if (color == null && isColor(p)) {
                // In whatever case it is written it is what holds where nothing is said.
                color = p.isIdent("currentcolor") ? p.name() : p.text();
            } else {
                return false;
            }
        }
        for (String l : longhands) {
            out.put(
                    l,
                    l.endsWith("-width")
                            ? width == null ? "medium" : width
                            : l.endsWith("-style")
                                    ? style == null ? "none" : style
                                    : color == null ? "currentcolor" : color);
        }
        return true;
    }

    private static boolean font(List<ComponentValue> parts, Map<String, String> out) {
        if (parts.size() == 1
                && oneOf(parts.get(0), "caption", "icon", "menu", "message-box", "small-caption", "status-bar")) {
            out.put("font-style", "normal");
            out.put("font-weight", "400");
            out.put("font-size", "13.3333px");
            out.put("line-height", "normal");
            out.put("font-family", "system-ui");
            return true;
        }
        String weight = "400";
        String style = "normal";
        // Each of weight, style, variant and stretch once, and normal for those that are left out.
        Set<String> said = new HashSet<>();
        int i = 0;
        for (; i < parts.size() && i < 4; i++) {
            ComponentValue p = parts.get(i);
            if (!p.isIdent("normal") && isWeight(p)) {
                weight = p.text();
                if (!said.add("weight")) {
                    return false;
                }
            } else if (oneOf(p, "italic", "oblique")) {
                style = p.name();
                if (!said.add("style")) {
                    return false;
                }
            } else if (oneOf(p, "small-caps")) {
                if (!said.add("variant")) {
                    return false;
                }
            } else if (oneOf(
                    p,
                    "condensed",
                    "expanded",
                    "semi-condensed",
                    "semi-expanded",
                    "extra-condensed",
                    "extra-expanded",
                    "ultra-condensed",
                    "ultra-expanded")) {
                if (!said.add("stretch")) {
                    return false;
                }
            } else if (!p.isIdent("normal")) {
                break;
            }
        }
        if (i >= parts.size() || !longhand("font-size", List.of(parts.get(i)), out)) {
            return false;
        }
        i++;
        String lineHeight = "normal";
        if (i < parts.size() && parts.get(i).kind() == Kind.SLASH) {
            if (i + 1 >= parts.size()) {
                return false;
            }
            lineHeight = parts.get(i + 1).text();
            if (!longhand("line-height", List.of(parts.get(i + 1)), out)) {
                return false;
            }
            i += 2;
        }
        if (i >= parts.size()
                || !ComponentValue.commaSeparated(parts.subList(i, parts.size())).stream()
                        .allMatch(Expansion::isFamily)) {
            return false;
        }
        out.put("font-style", style);
        out.put("font-weight", weight);
        out.put("line-height", lineHeight);
        out.put("font-family", ComponentValue.join(parts.subList(i, parts.size())));
        return true;
    }

    /** CSS Fonts 4, section 2.2; what a function comes to is brought into its range later. */
    private static boolean isWeight(ComponentValue p) {
        return oneOf(p, "normal", "bold", "bolder", "lighter")
                || p.kind() == Kind.NUMBER && p.number() >= 1 && p.number() <= 1000
                || p.kind() != Kind.NUMBER && Lengths.isNumber(p);
    }

    /** A text, or one or more words that are no generic family. */
    private static boolean isFamily(List<ComponentValue> parts) {
        return parts.size() == 1 && parts.get(0).kind() == Kind.STRING
                || !parts.isEmpty()
                        && parts.stream().allMatch(p -> p.kind() == Kind.IDENT)
                        && (parts.size() == 1
                                || !GENERIC_FAMILIES.contains(parts.get(0).name()));
    }

    private static boolean position(List<ComponentValue> parts, Map<String, String> out) {
        List<String> xs = new ArrayList<>();
        List<String> ys = new ArrayList<>();
        for (List<ComponentValue> layer : ComponentValue.commaSeparated(parts)) {
            Optional<String[]> xy = position(layer);
            if (xy.isEmpty()) {
                return false;
            }
            xs.add(xy.get()[0]);
            ys.add(xy.get()[1]);
        }
        out.put("background-position-x", String.join(", ", xs));
        out.put("background-position-y", String.join(", ", ys));
        return true;
    }

    /** One position as x and y: CSS Backgrounds 3, section 3.6. */
    static Optional<String[]> position(List<ComponentValue> p) {
        int n = p.size();
        if (n == 0 || n > 4 || !p.stream().allMatch(Expansion::isPositionPart)) {
            return Optional.empty();
        }
        if (n == 1) {
            boolean vertical = oneOf(p.get(0), "top", "bottom");
            return Optional.of(
                    vertical
                            ? new String[] {"center", p.get(0).text()}
                            : new String[] {p.get(0).text(), "center"});
        }
        if (n == 2) {
            boolean swapped = oneOf(p.get(0), "top", "bottom") || oneOf(p.get(1), "left", "right");
            ComponentValue x = p.get(swapped ? 1 : 0);
            ComponentValue y = p.get(swapped ? 0 : 1);
            boolean bad = oneOf(x, "top", "bottom")
                    || oneOf(y, "left", "right")
                    || swapped && (x.kind() != Kind.IDENT || y.kind() != Kind.IDENT);
            return bad ? Optional.empty() : Optional.of(new String[] {x.text(), y.text()});
        }
        String x = null;
        String y = null;
        boolean centered = false;
        for (int i = 0; i < n; i++) {
            ComponentValue word = p.get(i);
            if (word.kind() != Kind.IDENT) {
                return Optional.empty();
            }
            boolean offset = i + 1 < n && p.get(i + 1).kind() != Kind.IDENT;
            String text = word.text() + (offset ? " " + p.get(i + 1).text() : "");
            i += offset ? 1 : 0;
            if (oneOf(word, "center")) {
                if (offset || centered) {
                    return Optional.empty();
                }
                centered = true;
            } else if (oneOf(word, "left", "right")) {
                if (x != null) {
                    return Optional.empty();
                }
                x = text;
            } else {
                if (y != null) {
                    return Optional.empty();
                }
                y = text;
            }
        }
        // With center it is one of the two, without both.
        if (x == null && y == null || centered == (x != null && y != null)) {
            return Optional.empty();
        }
        return Optional.of(new String[] {x == null ? "center" : x, y == null ? "center" : y});
    }

    private static boolean isPositionPart(ComponentValue p) {
        return oneOf(p, "left", "right", "top", "bottom", "center") || Lengths.isLengthOrPercentage(p);
    }

    private static boolean background(List<ComponentValue> parts, Map<String, String> out) {
        List<List<ComponentValue>> layers = ComponentValue.commaSeparated(parts);
        Map<String, List<String>> lists = new LinkedHashMap<>();
        String color = "transparent";
        for (int i = 0; i < layers.size(); i++) {
            Map<String, String> layer = new LinkedHashMap<>();
            if (layers.get(i).isEmpty() || !backgroundLayer(layers.get(i), i == layers.size() - 1, layer)) {
                return false;
            }
            color = layer.getOrDefault("background-color", color);
            for (String l : Properties.BACKGROUND) {
                if (!l.equals("background-color")) {
                    lists.computeIfAbsent(l, k -> new ArrayList<>()).add(layer.getOrDefault(l, Properties.initial(l)));
                }
            }
        }
        lists.forEach((l, values) -> out.put(l, String.join(", ", values)));
        out.put("background-color", color);
        return true;
    }

    private static boolean backgroundLayer(List<ComponentValue> parts, boolean last, Map<String, String> layer) {
        List<String> boxes = new ArrayList<>();
        for (int i = 0; i < parts.size(); i++) {
            ComponentValue p = parts.get(i);
            if (isPositionPart(p) && !layer.containsKey("background-position-x")) {
                int end = i;
                while (end < parts.size() && isPositionPart(parts.get(end))) {
                    end++;
                }
                Optional<String[]> xy = position(parts.subList(i, end));
                if (xy.isEmpty()) {
                    return false;
                }
                layer.put("background-position-x", xy.get()[0]);
                layer.put("background-position-y", xy.get()[1]);
                i = end - 1;
                if (end < parts.size() && parts.get(end).kind() == Kind.SLASH) {
                    int to = end + 1;
                    while (to < parts.size() && to < end + 3 && isSize(List.of(parts.get(to)))) {
                        to++;
                    }
                    List<ComponentValue> size = parts.subList(end + 1, to);
                    if (size.isEmpty() || !isSize(size)) {
                        return false;
                    }
                    layer.put("background-size", ComponentValue.join(size));
                    i = to - 1;
                }
            } else if (isImage(p) && !layer.containsKey("background-image")) {
                layer.put("background-image", p.text());
            } else if (isRepeat(List.of(p)) && !layer.containsKey("background-repeat")) {
                boolean two = i + 1 < parts.size() && isRepeat(List.of(p, parts.get(i + 1)));
                layer.put(
                        "background-repeat",
                        two ? p.text() + " " + parts.get(i + 1).text() : p.text());
                i += two ? 1 : 0;
            } else if (oneOf(p, "scroll", "fixed", "local") && !layer.containsKey("background-attachment")) {
                layer.put("background-attachment", p.name());
            } else if (p.kind() == Kind.IDENT
                    && (BOXES.contains(p.name()) || p.name().equals("text"))
                    && boxes.size() < 2) {
                boxes.add(p.name());
            } else if (last && isColor(p) && !layer.containsKey("background-color")) {
                layer.put("background-color", p.text());
            } else {
                return false;
            }
        }
        if (!boxes.isEmpty()) {
            // The first box is the origin and the last the clip; "text" can only be a clip.
            boolean text = boxes.contains("text");
            String box =
                    boxes.stream().filter(b -> !b.equals("text")).findFirst().orElse("padding-box");
            layer.put("background-origin", box);
            layer.put("background-clip", text ? "text" : boxes.get(boxes.size() - 1));
        }
        return true;
    }

    /** Whether a value could be given to a property: what {@code @supports} asks. */
    static boolean supports(String property, String value) {
        return Properties.isKnownToChromium(property)
                && (property.startsWith("--") && !value.contains("!")
                        || Reference.isIn(value)
                        || of(property, value).isPresent());
    }

    static Optional<Color> color(String text, Color current, boolean dark) {
        return ColorSyntax.parse(
                text, name -> name.equals("currentcolor") ? Optional.of(current) : SystemColors.get(name, dark), dark);
    }
}

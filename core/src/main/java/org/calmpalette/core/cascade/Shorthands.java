package org.calmpalette.core.cascade;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.calmpalette.core.value.ComponentValue;

/** Shorthand properties taken apart and put together: CSS Backgrounds 3, Box 4, Fonts 4; CSSOM 1, section 6.7.2. */
public final class Shorthands {
    private Shorthands() {}

    /**
     * The longhands of a declaration with their values, in the order of the standard.
     *
     * @return empty if browsers would not understand the value
     */
    public static Optional<Map<String, String>> apart(String property, String value) {
        return Expansion.of(property, value);
    }

    /**
     * The shortest value of a shorthand that gives these longhands.
     *
     * @param longhands at least all longhands of the shorthand
     * @return empty if one value cannot say them all, such as borders of two widths in {@code border}
     */
    public static Optional<String> together(String shorthand, Map<String, String> longhands) {
        List<String> names = Properties.longhands(shorthand);
        if (names.size() < 2 || !longhands.keySet().containsAll(names)) {
            return Optional.empty();
        }
        List<String> values = names.stream().map(longhands::get).toList();
        if (values.stream().anyMatch(Expansion::isWide)) {
            return values.stream().distinct().count() == 1 ? Optional.of(values.get(0)) : Optional.empty();
        }
        return switch (shorthand) {
            case "background" -> background(longhands);
            case "background-position" -> position(values.get(0), values.get(1));
            case "font" -> Optional.of(font(longhands));
            case "animation" -> animation(values);
            case "padding", "margin", "inset", "border-color", "border-style", "border-width" ->
                Optional.of(box(values));
            default ->
                names.size() == 2
                        ? Optional.of(
                                values.get(0).equals(values.get(1))
                                        ? values.get(0)
                                        : values.get(0) + " " + values.get(1))
                        : border(names, longhands);
        };
    }

    /** What is as it is without being said is left out; of two times the first is the duration. */
    private static Optional<String> animation(List<String> values) {
        List<List<List<ComponentValue>>> lists = values.stream()
                .map(v -> ComponentValue.commaSeparated(ComponentValue.read(v)))
                .toList();
        int layers = lists.get(0).size();
        if (lists.stream().anyMatch(l -> l.size() != layers)) {
            return Optional.empty();
        }
        List<String> out = new ArrayList<>();
        for (int layer = 0; layer < layers; layer++) {
            List<String> said = new ArrayList<>();
            boolean delayed = false;
            for (int i = lists.size() - 1; i >= 0; i--) {
                String value = ComponentValue.join(lists.get(i).get(layer));
                boolean needed = !value.equals(Expansion.NO_ANIMATION.get(i)) || i == 0 && delayed;
                delayed |= i == 2 && needed;
                if (needed) {
                    said.add(0, value);
                }
            }
            out.add(said.isEmpty() ? "none" : String.join(" ", said));
        }
        return Optional.of(String.join(", ", out));
    }

    private static String box(List<String> v) {
        int n = !v.get(3).equals(v.get(1))
                ? 4
                : !v.get(2).equals(v.get(0)) ? 3 : !v.get(1).equals(v.get(0)) ? 2 : 1;
        return String.join(" ", v.subList(0, n));
    }

    private static Optional<String> border(List<String> names, Map<String, String> longhands) {
        List<String> out = new ArrayList<>();
        for (String part : List.of("width", "style", "color")) {
            List<String> same = names.stream()
                    .filter(n -> n.endsWith("-" + part))
                    .map(longhands::get)
                    .distinct()
                    .toList();
            if (same.size() != 1) {
                return Optional.empty();
            }
            String usual = part.equals("width") ? "medium" : part.equals("style") ? "none" : "currentcolor";
            if (!same.get(0).equalsIgnoreCase(usual)) {
                out.add(same.get(0));
            }
        }
        return Optional.of(out.isEmpty() ? "none" : String.join(" ", out));
    }

    private static String font(Map<String, String> l) {
        StringBuilder out = new StringBuilder();
        if (!l.get("font-style").equals("normal")) {
            out.append(l.get("font-style")).append(' ');
        }
        if (!l.get("font-weight").equals("400") && !l.get("font-weight").equals("normal")) {
            out.append(l.get("font-weight")).append(' ');
        }
        out.append(l.get("font-size"));
        if (!l.get("line-height").equals("normal")) {
            out.append('/').append(l.get("line-height"));
        }
        return out.append(' ').append(l.get("font-family")).toString();
    }

    private static Optional<String> position(String x, String y) {
        List<List<ComponentValue>> xs = ComponentValue.commaSeparated(ComponentValue.read(x));
        List<List<ComponentValue>> ys = ComponentValue.commaSeparated(ComponentValue.read(y));
        if (xs.size() != ys.size()) {
            return Optional.empty();
        }
        List<String> out = new ArrayList<>();
        for (int i = 0; i < xs.size(); i++) {
            out.add(position(xs.get(i), ys.get(i)));
        }
        return Optional.of(String.join(", ", out));
    }

    private static String position(List<ComponentValue> x, List<ComponentValue> y) {
        // With an offset on one axis the other needs its edge named too.
        boolean edges = x.size() == 2 || y.size() == 2;
        return edges ? edge(x, "left") + " " + edge(y, "top") : ComponentValue.join(x) + " " + ComponentValue.join(y);
    }

    private static String edge(List<ComponentValue> axis, String start) {
        return axis.size() == 2 || axis.get(0).kind() == ComponentValue.Kind.IDENT
                ? ComponentValue.join(axis)
                : start + " " + ComponentValue.join(axis);
    }

    private static Optional<String> background(Map<String, String> l) {
        List<List<List<ComponentValue>>> lists = new ArrayList<>();
        for (String name : Properties.BACKGROUND.subList(0, 8)) {
            lists.add(ComponentValue.commaSeparated(ComponentValue.read(l.get(name))));
        }
        int layers = lists.get(0).size();
        List<String> out = new ArrayList<>();
        for (int i = 0; i < layers; i++) {
            List<List<ComponentValue>> layer = new ArrayList<>();
            for (List<List<ComponentValue>> list : lists) {
                layer.add(list.get(i % list.size()));
            }
            out.add(layer(layer, i == layers - 1 ? l.get("background-color") : "transparent"));
        }
        return Optional.of(String.join(", ", out));
    }

    /** @param v image, x, y, size, repeat, attachment, origin, clip of one layer */
    private static String layer(List<List<ComponentValue>> v, String color) {
        List<String> out = new ArrayList<>();
        if (!v.get(0).get(0).isIdent("none")) {
            out.add(ComponentValue.join(v.get(0)));
        }
        String position = position(v.get(1), v.get(2));
        String size = ComponentValue.join(v.get(3));
        if (!position.equals("0% 0%") || !size.equals("auto")) {
            out.add(size.equals("auto") ? position : position + " / " + size);
        }
        if (!ComponentValue.join(v.get(4)).equals("repeat")) {
            out.add(ComponentValue.join(v.get(4)));
        }
        if (!v.get(5).get(0).isIdent("scroll")) {
            out.add(ComponentValue.join(v.get(5)));
        }
        String origin = ComponentValue.join(v.get(6));
        String clip = ComponentValue.join(v.get(7));
        if (!origin.equals("padding-box") || !clip.equals("border-box")) {
            out.add(origin.equals(clip) ? origin : origin + " " + clip);
        }
        if (!color.equalsIgnoreCase("transparent")) {
            out.add(color);
        }
        return out.isEmpty() ? "none" : String.join(" ", out);
    }
}

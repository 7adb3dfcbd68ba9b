package org.calmpalette.core.cascade;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.calmpalette.core.Budget;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.page.Paths;
import org.calmpalette.core.value.ComponentValue;
import org.calmpalette.core.value.ComponentValue.Kind;
import org.calmpalette.core.value.Lengths;

/** From specified to computed values, written as the browser's computed style writes them. */
final class Computation {
    private static final Map<String, String> BLOCKIFIED = Map.of(
            "inline",
            "block",
            "inline-block",
            "block",
            "inline-table",
            "table",
            "inline-flex",
            "flex",
            "inline-grid",
            "grid",
            "-webkit-inline-box",
            "-webkit-box",
            "ruby",
            "block");
    private static final Set<String> TABLE_PARTS = Set.of(
            "table-row-group",
            "table-header-group",
            "table-footer-group",
            "table-row",
            "table-cell",
            "table-column",
            "table-column-group",
            "table-caption",
            "ruby-text");

    private Computation() {}

    static String of(ElementStyle style, String longhand) {
        if (longhand.equals("font-size")) {
            return Lengths.px(style.fontSize().px());
        }
        boolean border = longhand.startsWith("border-") && longhand.endsWith("-color");
        if ((border || longhand.startsWith("padding-")) && style.isDrawnTick()) {
            // As Chromium does it (from memory of its source; held to it by a page of such boxes).
            return border ? of(style, longhand, "currentcolor") : "0px";
        }
        String value = style.specified(longhand);
        if (value.equals("inherit")) {
            return style.parent() == null
                    ? of(style, longhand, Properties.initial(longhand))
                    : inherited(style, longhand);
        }
        return of(style, longhand, value.equals("initial") ? Properties.initial(longhand) : value);
    }

    private static String inherited(ElementStyle style, String longhand) {
        return isCurrentColor(style.parent(), longhand)
                ? of(style, longhand, "currentcolor")
                : style.parent().computed(longhand);
    }

    /** currentcolor is inherited as itself, not as the parent's colour: CSS Color 4, section 6.3. */
    private static boolean isCurrentColor(ElementStyle style, String longhand) {
        boolean takes = longhand.endsWith("-color") || longhand.equals("fill") || longhand.equals("stroke");
        String value = takes ? style.specified(longhand) : "";
        return value.equalsIgnoreCase("currentcolor")
                || value.equals("initial") && Properties.initial(longhand).equals("currentcolor")
                || value.equals("inherit")
                        && (style.parent() == null
                                ? Properties.initial(longhand).equals("currentcolor")
                                : isCurrentColor(style.parent(), longhand));
    }

    private static String of(ElementStyle style, String longhand, String value) {
        if (longhand.equals("color")) {
            Color inherited =
                    style.parent() == null ? Color.BLACK : style.parent().currentColor();
            return Expansion.color(value, inherited, style.isDark())
                    .map(Color::css)
                    .orElse(value);
        }
        if (longhand.endsWith("-color")) {
            return style.color(value).map(Color::css).orElse(value);
        }
        if (longhand.startsWith("padding-") || longhand.startsWith("margin-")) {
            return length(style, value, longhand.startsWith("padding-"));
        }
        return switch (longhand) {
            case "opacity" -> opacity(style, value);
            case "display" -> display(style, value.toLowerCase(Locale.ROOT));
            case "position" -> value.toLowerCase(Locale.ROOT);
            case "visibility", "direction", "color-scheme" -> value.toLowerCase(Locale.ROOT);
            case "float" -> floating(style, value.toLowerCase(Locale.ROOT));
            case "font-weight" -> weight(style, value.toLowerCase(Locale.ROOT));
            case "fill", "stroke" -> paint(style, value, longhand);
            case "background-image" -> {
                // Of a list of thousands of pictures all are read from one place.
                Images.Context context = images(style, longhand);
                yield layers(value, 0, l -> Images.computed(l.get(0), context));
            }
            case "background-size" -> layers(value, count(style), l -> size(style, l));
            case "background-repeat" -> layers(value, count(style), Computation::repeat);
            case "background-attachment", "background-origin", "background-clip" ->
                layers(value, count(style), l -> l.get(0).name());
            case "background-position-x", "background-position-y" -> layers(value, count(style), l -> axis(style, l));
            default -> value;
        };
    }

    /** Pictures decide how many layers there are: CSS Backgrounds 3, section 3.1. */
    private static int count(ElementStyle style) {
        return ComponentValue.commaSeparated(ComponentValue.read(style.computed("background-image")))
                .size();
    }

    private interface Layer {
        String computed(List<ComponentValue> layer);
    }

    /** @param count how many layers there are, or 0 for as many as the value has; lists repeat to fill them */
    private static String layers(String value, int count, Layer each) {
        List<String> out = new ArrayList<>();
        List<List<ComponentValue>> lists = ComponentValue.commaSeparated(ComponentValue.read(value));
        for (int i = 0; i < (count > 0 ? count : lists.size()); i++) {
            Budget.step();
            List<ComponentValue> layer = lists.get(i % lists.size());
            out.add(layer.isEmpty() ? "" : each.computed(layer));
        }
        return String.join(", ", out);
    }

    private static String length(ElementStyle style, String value, boolean notNegative) {
        ComponentValue part = ComponentValue.read(value).get(0);
        if (part.isIdent("auto")) {
            return "auto";
        }
        return Lengths.sum(part, style.base())
                .map(s -> notNegative && s.percent() == 0 && s.px() < 0 ? "0px" : Lengths.text(s))
                .orElse(value);
    }

    private static String opacity(ElementStyle style, String value) {
        ComponentValue part = ComponentValue.read(value).get(0);
        double number = part.kind() == Kind.PERCENTAGE
                ? part.number() / 100
                : part.kind() == Kind.NUMBER
                        ? part.number()
                        : Lengths.math(part, style.base())
                                .map(s -> s.number() ? s.px() : s.percent() / 100)
                                .orElse(1.0);
        return Lengths.number(Math.max(0, Math.min(1, number)));
    }

    private static String weight(ElementStyle style, String value) {
        double inherited =
                style.parent() == null ? 400 : Double.parseDouble(style.parent().computed("font-weight"));
        return switch (value) {
            case "normal" -> "400";
            case "bold" -> "700";
            case "bolder" ->
                inherited < 350 ? "400" : inherited < 550 ? "700" : inherited < 900 ? "900" : Lengths.number(inherited);
            case "lighter" ->
                inherited < 100 ? Lengths.number(inherited) : inherited < 550 ? "100" : inherited < 750 ? "400" : "700";
            default -> {
                ComponentValue part = ComponentValue.read(value).get(0);
                double number = Lengths.number(part, style.base()).orElse(400);
                yield Lengths.number(Math.max(1, Math.min(1000, number)));
            }
        };
    }

    private static boolean isOutOfFlow(ElementStyle style) {
        String position = style.computed("position");
        return position.equals("absolute") || position.equals("fixed");
    }

    private static String floating(ElementStyle style, String value) {
        return isOutOfFlow(style) ? "none" : value;
    }

    /** Blockification: CSS Display 3, section 2.7, and Flexbox and Grid for their items. */
    private static String display(ElementStyle style, String value) {
        String display =
                switch (value) {
                    case "-webkit-flex" -> "flex";
                    case "-webkit-inline-flex" -> "inline-flex";
                    default -> value;
                };
        if (display.equals("none") || display.equals("contents") && !style.isRoot()) {
            return display;
        }
        // What the browser draws is a box, inline or a block, as Chromium has it (held to it by a page of form parts).
        if ((display.equals("inline") || display.equals("list-item") || display.contains("table"))
                && style.isDrawnByBrowser()) {
            display = display.equals("table") || display.equals("list-item") ? "block" : "inline-block";
        }
        boolean blockified =
                style.isRoot() || isOutOfFlow(style) || !style.computed("float").equals("none") || isItem(style);
        if (!blockified) {
            return display;
        }
        return TABLE_PARTS.contains(display) || display.equals("contents")
                ? "block"
                : BLOCKIFIED.getOrDefault(display, display);
    }

    private static boolean isItem(ElementStyle style) {
        ElementStyle parent = style.parent();
        while (parent != null && parent.computed("display").equals("contents")) {
            parent = parent.parent();
        }
        if (parent == null) {
            return false;
        }
        String around = parent.computed("display");
        return around.endsWith("flex") || around.endsWith("grid");
    }

    private static String paint(ElementStyle style, String value, String longhand) {
        List<ComponentValue> parts = ComponentValue.read(value);
        if (parts.get(0).kind() == Kind.URL) {
            String rest = parts.size() > 1
                    ? " "
                            + (parts.get(1).isIdent("none")
                                    ? "none"
                                    : style.color(parts.get(1).text())
                                            .map(Color::css)
                                            .orElse(parts.get(1).text()))
                    : "";
            return Images.computed(parts.get(0), images(style, longhand)) + rest;
        }
        return style.color(value).map(Color::css).orElse(value.toLowerCase(Locale.ROOT));
    }

    /** Addresses are read from where the declaration stands that gives the longhand its value. */
    private static Images.Context images(ElementStyle style, String longhand) {
        String from = style.winner(longhand)
                .map(ElementStyle.Winner::applied)
                .filter(a -> a.rule() != null)
                .map(a -> a.rule().source().file().file())
                .orElse(style.page().page().source().file());
        return new Images.Context() {
            @Override
            public Optional<Color> color(String text) {
                return style.color(text);
            }

            @Override
            public Lengths.Base base() {
                return style.base();
            }

            @Override
            public String address(String written) {
                return written.isEmpty() || written.startsWith("data:") || written.startsWith("#")
                        ? written
                        : Paths.resolve(from, written).orElse(written);
            }
        };
    }

    private static String size(ElementStyle style, List<ComponentValue> layer) {
        List<String> out = new ArrayList<>();
        for (ComponentValue p : layer) {
            out.add(
                    p.kind() == Kind.IDENT
                            ? p.name()
                            : Lengths.sum(p, style.base()).map(Lengths::text).orElse(p.text()));
        }
        if (out.size() == 1 && layer.get(0).kind() != Kind.IDENT) {
            out.add("auto");
        }
        return out.equals(List.of("auto", "auto")) ? "auto" : String.join(" ", out);
    }

    private static String repeat(List<ComponentValue> layer) {
        String x = layer.get(0).name();
        String y = layer.size() > 1 ? layer.get(1).name() : x;
        if (layer.size() == 2 && x.equals("repeat") && y.equals("no-repeat")) {
            return "repeat-x";
        }
        if (layer.size() == 2 && x.equals("no-repeat") && y.equals("repeat")) {
            return "repeat-y";
        }
        return x.equals(y) ? x : x + " " + y;
    }

    private static String axis(ElementStyle style, List<ComponentValue> layer) {
        ComponentValue first = layer.get(0);
        if (first.kind() == Kind.IDENT) {
            boolean end = first.isIdent("right") || first.isIdent("bottom");
            if (layer.size() == 1) {
                return end ? "100%" : first.isIdent("center") ? "50%" : "0%";
            }
            Optional<Lengths.Sum> offset = Lengths.sum(layer.get(1), style.base());
            if (offset.isEmpty()) {
                return ComponentValue.join(layer);
            }
            Lengths.Sum s = offset.get();
            return Lengths.text(end ? new Lengths.Sum(-s.px(), 100 - s.percent(), false) : s);
        }
        return Lengths.sum(first, style.base()).map(Lengths::text).orElse(first.text());
    }
}

package org.calmpalette.core.setting;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.function.UnaryOperator;
import org.calmpalette.core.css.Tokenizer;
import org.calmpalette.core.css.Tokens;
import org.calmpalette.core.language.Language;

/**
 * A border: a width, a style and a colour, or the text {@code none}.
 *
 * @param none whether no border may be chosen
 */
public record BorderKind(boolean none, CompositeKind parts) implements Kind {
    static final List<String> STYLES =
            List.of("solid", "dashed", "dotted", "double", "groove", "ridge", "inset", "outset");
    private static final LengthKind WIDTH = widths();
    public static final BorderKind ANY = (BorderKind) read(new JsonEntry(Value.parts("none", true), ""));

    private static LengthKind widths() {
        Map<String, Range> units = new LinkedHashMap<>();
        for (String unit : List.of("px", "rem", "em")) {
            units.put(unit, new Range(java.math.BigDecimal.ZERO, Range.FARTHEST, null));
        }
        return new LengthKind(units, List.of());
    }

    static Kind read(JsonEntry e) {
        List<String> styles = e.has("styles") ? e.texts("styles") : STYLES;
        if (styles.isEmpty() || !STYLES.containsAll(styles)) {
            throw JsonEntry.bad(
                    e.at("styles"),
                    "it names a style that borders do not have, or none",
                    "Write some of " + String.join(", ", STYLES) + ".");
        }
        return new BorderKind(
                e.flag("none"),
                CompositeKind.of(
                        e,
                        "width",
                        e.has("width") ? LengthKind.read(e.entry("width")) : WIDTH,
                        "style",
                        ChoiceKind.of(styles),
                        "color",
                        ColorKind.read(e.entry("color"))));
    }

    @Override
    public Value.Parts allowed() {
        Map<String, Value> all = new LinkedHashMap<>();
        if (none) {
            all.put("none", Value.of(true));
        }
        Kind width = parts.kinds().get("width");
        ChoiceKind style = (ChoiceKind) parts.kinds().get("style");
        List<String> styles =
                style.options().stream().map(ChoiceKind.Option::key).toList();
        if (!width.equals(WIDTH)) {
            all.put("width", width.allowed());
        }
        if (!styles.equals(STYLES)) {
            all.put("styles", Value.of(styles));
        }
        Value.Parts color = parts.kinds().get("color").allowed();
        if (!color.parts().isEmpty()) {
            all.put("color", color);
        }
        all.putAll(parts.allowed().parts());
        return new Value.Parts(all);
    }

    @Override
    public String name() {
        return "border";
    }

    @Override
    public boolean isFiner() {
        return true;
    }

    @Override
    public String label() {
        return "border";
    }

    @Override
    public String inWords() {
        String all = parts.inWords(ANY.parts.kinds());
        return none ? Language.say("allowed.or-none", all) : all;
    }

    @Override
    public BorderKind recolored(UnaryOperator<String> to) {
        return new BorderKind(none, parts.recolored(to));
    }

    @Override
    public BorderKind withTexts(UnaryOperator<String> to) {
        return new BorderKind(none, parts.withTexts(to));
    }

    @Override
    public Value recolored(Value value, UnaryOperator<String> to) {
        return parts.recolored(value, to);
    }

    @Override
    public Value normal(Value given) {
        return parts.normalOrNone(given, "a border", ANY.initial());
    }

    @Override
    public Optional<Refusal> refusal(Value value, Around around) {
        return parts.refusalOrNone(none, value, around, "border");
    }

    @Override
    public Value initial() {
        return parts.initial("width", Value.parts("value", 1, "unit", "px"), "color", "#808080");
    }

    @Override
    public Map<String, String> css(Value value, UnaryOperator<String> address) {
        if (value.equals(CompositeKind.NONE)) {
            return Map.of("", "none");
        }
        Value.Parts p = (Value.Parts) value;
        return Map.of(
                "", LengthKind.written(p.part("width").orElseThrow()) + " " + p.text("style") + " " + p.text("color"));
    }

    @Override
    public Optional<Value> readCss(String css) {
        Tokens tokens = Tokenizer.tokenize(css.strip());
        String width = "";
        String style = "none";
        String color = "";
        for (int i = tokens.skipBlank(0, tokens.size()); i < tokens.size(); ) {
            int next = tokens.opens(i) ? tokens.afterBlock(i, tokens.size()) : i + 1;
            String part = tokens.text()
                    .substring(tokens.start(i), tokens.end(next - 1))
                    .toLowerCase(Locale.ROOT);
            if (width.isEmpty() && LengthKind.ANY.readCss(part).isPresent()) {
                width = part;
            } else if (part.equals("none") || part.equals("hidden") || STYLES.contains(part)) {
                style = part.equals("hidden") ? "none" : part;
            } else if (ColorKind.ANY.readCss(part).isPresent()) {
                color = part;
            } else {
                return Optional.empty();
            }
            i = tokens.skipBlank(next, tokens.size());
        }
        if (style.equals("none")) {
            return css.isBlank() ? Optional.empty() : Optional.of(CompositeKind.NONE);
        }
        // Without a colour it is currentcolor, which no setting can hold.
        return color.isEmpty()
                ? Optional.empty()
                : Optional.of(Value.parts(
                        "width",
                        LengthKind.ANY.readCss(width.isEmpty() ? "3px" : width).orElseThrow(),
                        "style",
                        style,
                        "color",
                        ColorKind.canonical(color)));
    }

    @Override
    public String words(Value value) {
        return css(value, a -> a).get("");
    }

    @Override
    public Value.Parts schema(Around around) {
        return parts.schemaOrNone(none, around);
    }

    @Override
    public Value read(Function<String, String> fields) {
        return fields.apply(".style").equals("none") ? CompositeKind.NONE : parts.read(fields);
    }

    @Override
    public Map<String, String> fields(Value value) {
        Map<String, String> all =
                new LinkedHashMap<>(parts.fields(value.equals(CompositeKind.NONE) ? initial() : value));
        if (value.equals(CompositeKind.NONE)) {
            all.put(".style", "none");
        }
        return all;
    }
}

package org.calmpalette.core.setting;

import java.util.ArrayList;
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
 * One shadow of a box, or the text {@code none}.
 *
 * @param none whether no shadow may be chosen
 */
public record ShadowKind(boolean none, CompositeKind parts) implements Kind {
    private static final List<String> LENGTHS = List.of("x", "y", "blur", "spread");
    public static final ShadowKind ANY = (ShadowKind) read(new JsonEntry(Value.parts("none", true), ""));

    static Kind read(JsonEntry e) {
        Map<String, Range> any = new LinkedHashMap<>();
        Map<String, Range> blur = new LinkedHashMap<>();
        java.math.BigDecimal most = e.number("mostBlur").orElse(Range.FARTHEST);
        for (String unit : List.of("px", "rem", "em")) {
            any.put(unit, Range.ANY);
            // A blur is never negative (CSS Backgrounds and Borders Level 3, section 4.6).
            blur.put(unit, new Range(java.math.BigDecimal.ZERO, most, null));
        }
        LengthKind length = new LengthKind(any, List.of());
        return new ShadowKind(
                e.flag("none"),
                CompositeKind.of(
                        e,
                        "x",
                        length,
                        "y",
                        length,
                        "blur",
                        new LengthKind(blur, List.of()),
                        "spread",
                        length,
                        "color",
                        ColorKind.read(e.entry("color")),
                        "inside",
                        YesNoKind.PLAIN));
    }

    @Override
    public Value.Parts allowed() {
        Map<String, Value> all = new LinkedHashMap<>();
        if (none) {
            all.put("none", Value.of(true));
        }
        java.math.BigDecimal most =
                ((LengthKind) parts.kinds().get("blur")).units().get("px").most();
        if (most.compareTo(Range.FARTHEST) < 0) {
            all.put("mostBlur", Value.of(most));
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
        return "shadow";
    }

    @Override
    public boolean isFiner() {
        return true;
    }

    @Override
    public String label() {
        return "shadow";
    }

    @Override
    public String inWords() {
        String free = String.join(
                ", ",
                parts.kinds().keySet().stream()
                        .filter(k -> !parts.fixed().containsKey(k))
                        .map(CompositeKind::said)
                        .toList());
        String all = free.isEmpty() ? Language.say("allowed.as-it-is") : free;
        return none ? Language.say("allowed.or-none", all) : all;
    }

    @Override
    public ShadowKind recolored(UnaryOperator<String> to) {
        return new ShadowKind(none, parts.recolored(to));
    }

    @Override
    public ShadowKind withTexts(UnaryOperator<String> to) {
        return new ShadowKind(none, parts.withTexts(to));
    }

    @Override
    public Value recolored(Value value, UnaryOperator<String> to) {
        return parts.recolored(value, to);
    }

    @Override
    public Value normal(Value given) {
        return parts.normalOrNone(given, "a shadow", ANY.initial());
    }

    @Override
    public Optional<Refusal> refusal(Value value, Around around) {
        return parts.refusalOrNone(none, value, around, "shadow");
    }

    @Override
    public Value initial() {
        return parts.initial("y", px(2), "blur", px(6), "color", "#00000040", "inside", false);
    }

    private static Value px(int n) {
        return Value.parts("value", n, "unit", "px");
    }

    @Override
    public Map<String, String> css(Value value, UnaryOperator<String> address) {
        if (value.equals(CompositeKind.NONE)) {
            return Map.of("", "none");
        }
        Value.Parts p = (Value.Parts) value;
        List<String> all = new ArrayList<>();
        if (p.flag("inside")) {
            all.add("inset");
        }
        LENGTHS.forEach(l -> all.add(LengthKind.written(p.part(l).orElseThrow())));
        all.add(p.text("color"));
        return Map.of("", String.join(" ", all));
    }

    @Override
    public Optional<Value> readCss(String css) {
        Tokens tokens = Tokenizer.tokenize(css.strip());
        List<Value> lengths = new ArrayList<>();
        boolean inside = false;
        String color = "";
        if (css.strip().equalsIgnoreCase("none")) {
            return Optional.of(CompositeKind.NONE);
        }
        for (int i = tokens.skipBlank(0, tokens.size()); i < tokens.size(); ) {
            int next = tokens.opens(i) ? tokens.afterBlock(i, tokens.size()) : i + 1;
            String part = tokens.text()
                    .substring(tokens.start(i), tokens.end(next - 1))
                    .toLowerCase(Locale.ROOT);
            Optional<Value> length = LengthKind.ANY.readCss(part);
            if (length.isPresent()) {
                lengths.add(length.get());
            } else if (part.equals("inset")) {
                inside = true;
            } else if (color.isEmpty() && ColorKind.ANY.readCss(part).isPresent()) {
                color = ColorKind.canonical(part);
            } else {
                return Optional.empty();
            }
            i = tokens.skipBlank(next, tokens.size());
        }
        if (lengths.size() < 2 || lengths.size() > 4 || color.isEmpty()) {
            return Optional.empty();
        }
        Map<String, Value> p = new LinkedHashMap<>();
        for (int i = 0; i < 4; i++) {
            p.put(LENGTHS.get(i), i < lengths.size() ? lengths.get(i) : px(0));
        }
        p.put("color", Value.of(color));
        p.put("inside", Value.of(inside));
        boolean units = LENGTHS.stream()
                .allMatch(l -> List.of("px", "rem", "em").contains(((Value.Parts) p.get(l)).text("unit")));
        return units ? Optional.of(new Value.Parts(p)) : Optional.empty();
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
        return fields.apply(".drawn").equals("none") ? CompositeKind.NONE : parts.read(fields);
    }

    @Override
    public Map<String, String> fields(Value value) {
        Map<String, String> all =
                new LinkedHashMap<>(parts.fields(value.equals(CompositeKind.NONE) ? initial() : value));
        all.put(".drawn", value.equals(CompositeKind.NONE) ? "none" : "one");
        return all;
    }
}

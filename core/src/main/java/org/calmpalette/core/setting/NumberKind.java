package org.calmpalette.core.setting;

import java.math.BigDecimal;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.function.UnaryOperator;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.language.Language;

/**
 * A number, or a percentage.
 *
 * @param percentage whether stylesheets get it with a percent sign; 38 means 38%
 */
public record NumberKind(boolean percentage, Range range) implements Kind {
    public static final NumberKind ANY = new NumberKind(false, Range.ANY);
    public static final NumberKind PERCENTAGE = new NumberKind(true, Range.ANY);
    static final NumberKind SHARE = new NumberKind(true, new Range(BigDecimal.ZERO, BigDecimal.valueOf(100), null));

    static Kind read(boolean percentage, JsonEntry e) {
        try {
            return new NumberKind(percentage, Range.of(e));
        } catch (JsonEntry.PlacedException placed) {
            throw placed;
        } catch (BadInputException bounds) {
            throw JsonEntry.bad(e.place(), bounds.getMessage(), bounds.mend());
        }
    }

    private String unit() {
        return percentage ? "%" : "";
    }

    @Override
    public Value.Parts allowed() {
        return range.parts();
    }

    @Override
    public String name() {
        return percentage ? "percentage" : "number";
    }

    @Override
    public boolean isFiner() {
        return true;
    }

    @Override
    public String label() {
        return name();
    }

    @Override
    public String inWords() {
        return range.isAny() ? Language.say(name() + ".any") : range.inWords(unit());
    }

    @Override
    public Value normal(Value given) {
        return Value.of(Range.normal(given, Language.say("is." + name())));
    }

    @Override
    public Optional<Refusal> refusal(Value value, Around around) {
        return range.refusal(((Value.Number) value).number(), unit());
    }

    @Override
    public Value initial() {
        return Value.of(range.least().compareTo(Range.FARTHEST.negate()) == 0 ? BigDecimal.ZERO : range.least());
    }

    @Override
    public Map<String, String> css(Value value, UnaryOperator<String> address) {
        return Map.of("", words(value));
    }

    @Override
    public Optional<Value> readCss(String css) {
        String t = css.strip();
        if (percentage != t.endsWith("%")) {
            return Optional.empty();
        }
        try {
            return Optional.of(
                    normal(Range.typed(percentage ? t.substring(0, t.length() - 1) : t, Language.say("is.number"))));
        } catch (BadInputException none) {
            return Optional.empty();
        }
    }

    @Override
    public String words(Value value) {
        return Language.spoken().number(((Value.Number) value).number()) + unit();
    }

    @Override
    public Value.Parts schema(Around around) {
        return range.schema();
    }

    @Override
    public Value read(Function<String, String> fields) {
        return normal(Range.typed(fields.apply("").replace("%", ""), Language.say("is.number")));
    }

    @Override
    public Map<String, String> fields(Value value) {
        return Map.of("", Range.plain(((Value.Number) value).number()));
    }
}

package org.calmpalette.core.setting;

import java.math.BigDecimal;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import org.calmpalette.core.language.Language;

/** The level of a heading: which of {@code h1} to {@code h6} it is. */
public record LevelKind(int least, int most) implements Kind {
    public static final LevelKind ANY = new LevelKind(1, 6);

    static Kind read(JsonEntry e) {
        int least = e.whole("least").orElse(1);
        int most = e.whole("most").orElse(6);
        if (least < 1 || most > 6 || least > most) {
            throw JsonEntry.bad(e.at("least"), "headings have levels 1 to 6", "Write \"least\": 2, \"most\": 4.");
        }
        return new LevelKind(least, most);
    }

    @Override
    public Value.Parts allowed() {
        return Value.parts("least", least == 1 ? null : least, "most", most == 6 ? null : most);
    }

    @Override
    public String name() {
        return "level";
    }

    @Override
    public String label() {
        return "heading level";
    }

    @Override
    public String inWords() {
        return Language.say("level.between", least, most);
    }

    @Override
    public Value normal(Value given) {
        if (!(given instanceof Value.Number n) || n.number().scale() > 0) {
            throw Kind.wrong(given, Language.say("is.level"), "Write a whole number from 1 to 6.");
        }
        return given;
    }

    @Override
    public Optional<Refusal> refusal(Value value, Around around) {
        return new Range(BigDecimal.valueOf(least), BigDecimal.valueOf(most), null)
                .refusal(((Value.Number) value).number(), "");
    }

    @Override
    public Value initial() {
        return Value.of(BigDecimal.valueOf(Math.max(least, Math.min(2, most))));
    }

    @Override
    public String words(Value value) {
        return Language.say("level.one", ((Value.Number) value).number());
    }

    @Override
    public Value.Parts schema(Around around) {
        return Value.parts("type", "integer", "minimum", least, "maximum", most);
    }

    @Override
    public Value read(Function<String, String> fields) {
        return normal(Range.typed(fields.apply(""), Language.say("is.level")));
    }

    @Override
    public Map<String, String> fields(Value value) {
        return Map.of("", Range.plain(((Value.Number) value).number()));
    }

    @Override
    public List<Binding> bindings() {
        return List.of(Binding.LEVEL);
    }
}

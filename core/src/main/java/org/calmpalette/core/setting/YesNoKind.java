package org.calmpalette.core.setting;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.function.UnaryOperator;
import org.calmpalette.core.language.Language;

/**
 * Yes or no.
 *
 * @param yes what stylesheets get for yes, {@code 1} if nothing else is said
 * @param no what they get for no, {@code 0} if nothing else is said
 */
public record YesNoKind(String yes, String no) implements Kind {
    public static final YesNoKind PLAIN = new YesNoKind("1", "0");

    static Kind read(JsonEntry e) {
        String yes = e.optionalText("yes").orElse("1");
        String no = e.optionalText("no").orElse("0");
        for (String css : List.of(yes, no)) {
            if (!ChoiceKind.isSafe(css)) {
                throw JsonEntry.bad(
                        e.at(css.equals(yes) ? "yes" : "no"),
                        "“" + css + "” cannot stand as one value in a stylesheet",
                        "Write a value such as sticky, without ; or braces.");
            }
        }
        return new YesNoKind(yes, no);
    }

    @Override
    public Value.Parts allowed() {
        return equals(PLAIN) ? Value.parts() : Value.parts("yes", yes, "no", no);
    }

    @Override
    public String name() {
        return "yes-no";
    }

    @Override
    public String label() {
        return "yes or no";
    }

    @Override
    public String inWords() {
        return Language.say("yes") + ", " + Language.say("no");
    }

    @Override
    public Value normal(Value given) {
        if (!(given instanceof Value.Flag)) {
            throw Kind.wrong(given, "yes or no", "Write true or false.");
        }
        return given;
    }

    @Override
    public Optional<Refusal> refusal(Value value, Around around) {
        return Optional.empty();
    }

    @Override
    public Value initial() {
        return Value.of(true);
    }

    @Override
    public Map<String, String> css(Value value, UnaryOperator<String> address) {
        return Map.of("", ((Value.Flag) value).on() ? yes : no);
    }

    @Override
    public Optional<Value> readCss(String css) {
        return css.strip().equals(yes)
                ? Optional.of(Value.of(true))
                : css.strip().equals(no) ? Optional.of(Value.of(false)) : Optional.empty();
    }

    @Override
    public String words(Value value) {
        return Language.say(((Value.Flag) value).on() ? "yes" : "no");
    }

    @Override
    public Value.Parts schema(Around around) {
        return Value.parts("type", "boolean");
    }

    @Override
    public Value read(Function<String, String> fields) {
        String text = fields.apply("");
        if (!text.equals("true") && !text.equals("false")) {
            throw Kind.wrong(Value.of(text), "yes or no", "Choose one of the two.");
        }
        return Value.of(text.equals("true"));
    }

    @Override
    public Map<String, String> fields(Value value) {
        return Map.of("", String.valueOf(((Value.Flag) value).on()));
    }

    @Override
    public List<Binding> bindings() {
        return List.of(Binding.SHOW);
    }
}

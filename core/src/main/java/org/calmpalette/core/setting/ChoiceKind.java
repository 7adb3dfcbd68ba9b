package org.calmpalette.core.setting;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.function.UnaryOperator;
import org.calmpalette.core.css.TokenType;
import org.calmpalette.core.css.Tokenizer;
import org.calmpalette.core.css.Tokens;
import org.calmpalette.core.language.Language;

/** One of a list. The value is the option's key. */
public record ChoiceKind(List<Option> options) implements Kind {
    static final int MOST = 60;

    public ChoiceKind {
        options = List.copyOf(options);
    }

    /** @param css what stylesheets get for it */
    public record Option(String key, String label, String css) {}

    /** A choice among keywords of CSS. */
    public static ChoiceKind of(List<String> keywords) {
        return new ChoiceKind(keywords.stream().map(k -> new Option(k, k, k)).toList());
    }

    static Kind read(JsonEntry e) {
        List<Option> options = new ArrayList<>();
        for (JsonEntry o : e.entries("options")) {
            String key = o.text("key");
            if (options.stream().anyMatch(x -> x.key().equals(key))) {
                throw JsonEntry.bad(
                        o.at("key"), "the option “" + key + "” is there twice", "Give one of the two another key.");
            }
            String css = o.optionalText("css").orElse(key);
            if (!isSafe(css)) {
                throw JsonEntry.bad(
                        o.at("css"),
                        "“" + css + "” cannot stand as one value in a stylesheet",
                        "Write a value such as center, without ; or braces.");
            }
            options.add(new Option(key, o.optionalText("label").orElse(key), css));
        }
        if (options.isEmpty() || options.size() > MOST) {
            throw JsonEntry.bad(
                    e.at("options"),
                    options.isEmpty() ? "there is nothing to choose from" : "there are more than " + MOST + " options",
                    "Write [{\"key\": \"center\", \"label\": \"in the middle\"}, …].");
        }
        return new ChoiceKind(options);
    }

    /** Whether a text may stand as the value of a custom property and end nowhere but where it ends. */
    public static boolean isSafe(String css) {
        Tokenizer.Result read = Tokenizer.read(css);
        Tokens tokens = read.tokens();
        Deque<TokenType> open = new ArrayDeque<>();
        for (int i = 0; i < tokens.size(); i++) {
            if (tokens.opens(i)) {
                open.push(tokens.is(i, TokenType.LEFT_BRACKET) ? TokenType.RIGHT_BRACKET : TokenType.RIGHT_PAREN);
            } else if (tokens.closes(i) && (open.isEmpty() || !tokens.is(i, open.pop()))) {
                return false;
            }
            boolean bad = tokens.is(i, TokenType.SEMICOLON)
                    || tokens.is(i, TokenType.LEFT_BRACE)
                    || tokens.is(i, TokenType.RIGHT_BRACE)
                    || tokens.is(i, TokenType.BAD_STRING)
                    || tokens.is(i, TokenType.BAD_URL)
                    || tokens.isDelim(i, '!')
                    || tokens.isDelim(i, '<')
                    || tokens.is(i, TokenType.CDC)
                    || tokens.is(i, TokenType.CDO);
            if (bad) {
                return false;
            }
        }
        // A string, an address or an escape that ends with the text goes on in what comes after it.
        return open.isEmpty()
                && read.faults().isEmpty()
                && !css.endsWith("\\")
                && !css.isBlank()
                && !css.contains("/*")
                && css.length() <= 400;
    }

    @Override
    public Value.Parts allowed() {
        return Value.parts(
                "options",
                new Value.Many(options.stream()
                        .<Value>map(o -> Value.parts(
                                "key",
                                o.key(),
                                "label",
                                o.label().equals(o.key()) ? null : o.label(),
                                "css",
                                o.css().equals(o.key()) ? null : o.css()))
                        .toList()));
    }

    @Override
    public String name() {
        return "choice";
    }

    @Override
    public String label() {
        return "choice";
    }

    @Override
    public String inWords() {
        return options.size() > 4
                ? Language.say("choice.options", options.size())
                : String.join(", ", options.stream().map(Option::label).toList());
    }

    @Override
    public Value normal(Value given) {
        if (!(given instanceof Value.Text t)) {
            throw Kind.wrong(given, "an option", "Write the key of one: " + keys() + ".");
        }
        return t;
    }

    private String keys() {
        return String.join(", ", options.stream().map(Option::key).toList());
    }

    @Override
    public Optional<Refusal> refusal(Value value, Around around) {
        return option(value).isPresent()
                ? Optional.empty()
                : Optional.of(new Refusal.NotAmong(
                        Refusal.Listed.OPTIONS,
                        ((Value.Text) value).text(),
                        options.stream().map(Option::key).toList(),
                        options.stream().map(Option::label).toList()));
    }

    Optional<Option> option(Value value) {
        return options.stream().filter(o -> Value.of(o.key()).equals(value)).findFirst();
    }

    @Override
    public Value initial() {
        return Value.of(options.get(0).key());
    }

    @Override
    public Map<String, String> css(Value value, UnaryOperator<String> address) {
        return option(value).map(o -> Map.of("", o.css())).orElse(Map.of());
    }

    @Override
    public Optional<Value> readCss(String css) {
        return options.stream()
                .filter(o -> o.css().equalsIgnoreCase(css.strip()))
                .findFirst()
                .map(o -> Value.of(o.key()));
    }

    @Override
    public ChoiceKind withTexts(UnaryOperator<String> to) {
        // A keyword of CSS that the maker gave no name is no text.
        return new ChoiceKind(options.stream()
                .map(o -> o.label().equals(o.key()) ? o : new Option(o.key(), to.apply(o.label()), o.css()))
                .toList());
    }

    @Override
    public String words(Value value) {
        return option(value).map(Option::label).orElse(((Value.Text) value).text());
    }

    @Override
    public Value.Parts schema(Around around) {
        return Value.parts("enum", Value.of(options.stream().map(Option::key).toList()));
    }

    @Override
    public Value read(Function<String, String> fields) {
        return Value.of(fields.apply(""));
    }
}

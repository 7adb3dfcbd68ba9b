package org.calmpalette.core.setting;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.function.UnaryOperator;
import java.util.regex.Pattern;
import org.calmpalette.core.css.Escapes;
import org.calmpalette.core.language.Language;

/**
 * A text of one line, or of many.
 *
 * @param rows of the field that it is written in; 1 for a text of one line
 * @param least characters (Unicode code points), 0 if it may be empty
 * @param most characters
 * @param form what it has to look like, or null; only for parts of other kinds
 */
public record TextKind(int rows, int least, int most, Form form) implements Kind {
    public static final int LONGEST = 10_000;
    public static final TextKind LINE = new TextKind(1, 0, 200, null);
    public static final TextKind LINES = new TextKind(4, 0, 4_000, null);
    private static final String ONE_LINE = "^[^\\u0000-\\u001f\\u007f]*" + CompositeKind.END;
    private static final String MANY_LINES = "^[^\\u0000-\\u0008\\u000b-\\u001f\\u007f]*" + CompositeKind.END;

    /**
     * A pattern that browsers and Java read alike, and how it is told to people.
     *
     * @param key of the sentence that says what it is
     * @param plain brings what may be written into the form that the pattern has; what it cannot bring there it leaves as it is
     * @param taken a pattern of all that plain brings into the form
     */
    public record Form(String pattern, String key, String example, UnaryOperator<String> plain, String taken) {
        Form(String pattern, String key, String example) {
            this(pattern, key, example, UnaryOperator.identity(), pattern);
        }

        String words() {
            return Language.say(key);
        }
    }

    static Kind read(boolean many, JsonEntry e) {
        int rows = many ? e.whole("rows").orElse(LINES.rows) : 1;
        int least = e.whole("least").orElse(0);
        int most = e.whole("most").orElse(many ? LINES.most : LINE.most);
        if (many && (rows < 2 || rows > 40)) {
            throw JsonEntry.bad(
                    e.at("rows"), "a text of many lines has 2 to 40 rows", "Write \"rows\": 4, or take the kind line.");
        }
        if (least < 0 || most < Math.max(1, least) || most > LONGEST) {
            throw JsonEntry.bad(
                    e.at("most"),
                    "a text may have from 0 to " + LONGEST + " characters, the least no more than the most",
                    "Write \"least\": 0, \"most\": 200.");
        }
        return new TextKind(rows, least, most, null);
    }

    private boolean isMany() {
        return rows > 1;
    }

    @Override
    public Value.Parts allowed() {
        return Value.parts("rows", isMany() ? rows : null, "least", least == 0 ? null : least, "most", most);
    }

    @Override
    public String name() {
        return isMany() ? "text" : "line";
    }

    @Override
    public String label() {
        return isMany() ? "text of many lines" : "text of one line";
    }

    @Override
    public String inWords() {
        return form != null
                ? form.words()
                : least == 0 ? Language.say("text.up-to", most) : Language.say("text.between", least, most);
    }

    @Override
    public Value normal(Value given) {
        if (!(given instanceof Value.Text t)) {
            throw Kind.wrong(given, "a text", "Write it between quotation marks.");
        }
        String text = form == null ? t.text() : form.plain().apply(t.text());
        if (!Pattern.compile(isMany() ? MANY_LINES : ONE_LINE).matcher(text).find()) {
            throw Kind.wrong(
                    Value.of(text.replaceAll("\\p{Cntrl}", "?")),
                    Language.say(isMany() ? "is.plain-text" : "is.line"),
                    Language.say(isMany() ? "text.write.plain" : "text.write.line"));
        }
        if (form != null && !Pattern.compile(form.pattern()).matcher(text).find()) {
            throw Kind.wrong(given, form.words(), Language.say("text.write.like", form.example()));
        }
        return Value.of(text);
    }

    @Override
    public Optional<Refusal> refusal(Value value, Around around) {
        String text = ((Value.Text) value).text();
        int length = text.codePointCount(0, text.length());
        return length < least || length > most
                ? Optional.of(new Refusal.Length(length, least, most))
                : Optional.empty();
    }

    @Override
    public Value initial() {
        return Value.of("Text".repeat((least + 3) / 4));
    }

    @Override
    public Map<String, String> css(Value value, UnaryOperator<String> address) {
        String text = ((Value.Text) value).text();
        // For content: of ::before and the like; longer texts stand in pages only.
        return form != null ? Map.of("", text) : isMany() ? Map.of() : Map.of("", Escapes.string(text));
    }

    @Override
    public Optional<Value> readCss(String css) {
        String t = form == null ? css.strip() : form.plain().apply(css.strip());
        boolean matches =
                form != null && Pattern.compile(form.pattern()).matcher(t).find();
        return matches ? Optional.of(Value.of(t)) : Optional.empty();
    }

    @Override
    public String words(Value value) {
        String text = ((Value.Text) value).text();
        return form != null
                ? text
                : text.isEmpty()
                        ? Language.say("text.empty")
                        : Language.say("quoted", text.length() > 40 ? text.substring(0, 39) + "…" : text);
    }

    @Override
    public Value.Parts schema(Around around) {
        if (form != null) {
            return Value.parts("type", "string", "pattern", form.taken());
        }
        return Value.parts(
                "type", "string", "pattern", isMany() ? MANY_LINES : ONE_LINE, "minLength", least, "maxLength", most);
    }

    @Override
    public Value read(Function<String, String> fields) {
        // Browsers send line breaks as two characters.
        String text = fields.apply("").replace("\r\n", "\n");
        return normal(Value.of(isMany() ? text : text.strip()));
    }

    @Override
    public List<Binding> bindings() {
        return isMany() ? List.of(Binding.TEXT) : List.of(Binding.TEXT, Binding.ALT);
    }
}

package org.calmpalette.core.value;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import org.calmpalette.core.Budget;
import org.calmpalette.core.css.TokenType;
import org.calmpalette.core.css.Tokenizer;
import org.calmpalette.core.css.Tokens;

/**
 * One component of a value.
 *
 * @param text as written, a function with its arguments
 * @param name identifier, function name or unit in lower case; the text of a string or address
 * @param number of a number, percentage or dimension
 * @param spaced whether white space stands before it
 */
public record ComponentValue(Kind kind, String text, String name, double number, boolean spaced) {
    public enum Kind {
        IDENT,
        FUNCTION,
        STRING,
        URL,
        HASH,
        NUMBER,
        PERCENTAGE,
        DIMENSION,
        COMMA,
        SLASH,
        BLOCK,
        OTHER
    }

    /** The components of a value, without white space and comments. */
    public static List<ComponentValue> read(String value) {
        // All that is reckoned with a value goes through here, so none of it escapes the budget of who asks.
        Budget.read(value.length());
        Tokens tokens = Tokenizer.tokenize(value);
        List<ComponentValue> parts = new ArrayList<>();
        int end = tokens.size();
        boolean spaced = false;
        for (int i = 0; i < end; ) {
            if (tokens.isBlank(i)) {
                spaced |= tokens.is(i, TokenType.WHITESPACE);
                i++;
                continue;
            }
            int next = tokens.opens(i) ? tokens.afterBlock(i, end) : i + 1;
            parts.add(part(tokens, i, next, spaced));
            spaced = false;
            i = next;
        }
        return parts;
    }

    private static ComponentValue part(Tokens tokens, int i, int next, boolean spaced) {
        String text = tokens.text().substring(tokens.start(i), tokens.end(next - 1));
        return switch (tokens.type(i)) {
            case IDENT -> new ComponentValue(Kind.IDENT, text, tokens.lower(i), 0, spaced);
            case FUNCTION -> {
                String name = tokens.lower(i);
                if (name.equals("url")) {
                    int string = tokens.skipBlank(i + 1, next);
                    yield new ComponentValue(
                            Kind.URL, text, tokens.is(string, TokenType.STRING) ? tokens.value(string) : "", 0, spaced);
                }
                yield new ComponentValue(Kind.FUNCTION, text, name, 0, spaced);
            }
            case STRING -> new ComponentValue(Kind.STRING, text, tokens.value(i), 0, spaced);
            case URL -> new ComponentValue(Kind.URL, text, tokens.value(i), 0, spaced);
            case HASH -> new ComponentValue(Kind.HASH, text, tokens.lower(i), 0, spaced);
            case NUMBER -> new ComponentValue(Kind.NUMBER, text, "", tokens.number(i), spaced);
            case PERCENTAGE -> new ComponentValue(Kind.PERCENTAGE, text, "%", tokens.number(i), spaced);
            case DIMENSION -> new ComponentValue(Kind.DIMENSION, text, tokens.lower(i), tokens.number(i), spaced);
            case COMMA -> new ComponentValue(Kind.COMMA, text, ",", 0, spaced);
            case DELIM -> new ComponentValue(text.equals("/") ? Kind.SLASH : Kind.OTHER, text, text, 0, spaced);
            case LEFT_PAREN, LEFT_BRACKET, LEFT_BRACE ->
                new ComponentValue(Kind.BLOCK, text, text.substring(0, 1), 0, spaced);
            default -> new ComponentValue(Kind.OTHER, text, text.toLowerCase(Locale.ROOT), 0, spaced);
        };
    }

    /** What stands between the parentheses of a function or block. */
    public String inside() {
        int open = kind == Kind.FUNCTION || kind == Kind.URL ? text.indexOf('(') : 0;
        boolean closed = text.length() > open + 1 && ")]}".indexOf(text.charAt(text.length() - 1)) >= 0;
        return text.substring(open + 1, closed ? text.length() - 1 : text.length());
    }

    public boolean isIdent(String word) {
        return kind == Kind.IDENT && name.equals(word);
    }

    /** Parts between commas at the top. */
    public static List<List<ComponentValue>> commaSeparated(List<ComponentValue> parts) {
        List<List<ComponentValue>> lists = new ArrayList<>();
        List<ComponentValue> now = new ArrayList<>();
        for (ComponentValue p : parts) {
            if (p.kind() == Kind.COMMA) {
                lists.add(now);
                now = new ArrayList<>();
            } else {
                now.add(p);
            }
        }
        lists.add(now);
        return lists;
    }

    public static String join(List<ComponentValue> parts) {
        StringBuilder out = new StringBuilder();
        for (ComponentValue p : parts) {
            if (out.length() > 0 && p.kind() != Kind.COMMA) {
                out.append(' ');
            }
            out.append(p.text());
        }
        return out.toString();
    }
}

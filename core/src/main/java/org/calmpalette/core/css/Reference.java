package org.calmpalette.core.css;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * A reference to a custom property: {@code var(--name)} or {@code var(--name, fallback)}. The name of the function may be written in
 * capitals, and text in strings, comments and addresses that looks like one is none.
 *
 * @param name of the custom property, with its escapes resolved
 * @param open token of the function
 * @param nameAt token of the name
 * @param fallback token after the comma, or -1 where there is no fallback; it may be empty
 * @param end token after the closing bracket, or the end where that is missing
 * @see <a href="https://www.w3.org/TR/css-variables-1/#using-variables">CSS Custom Properties 1, section 3</a>
 */
public record Reference(String name, int open, int nameAt, int fallback, int end) {
    private static final String FUNCTION = "var";

    public boolean hasFallback() {
        return fallback >= 0;
    }

    /** All between two tokens, in order; those in fallbacks of others, too. */
    public static List<Reference> in(Tokens tokens, int first, int end) {
        List<Reference> all = new ArrayList<>();
        for (int i = first; i < end; i++) {
            at(tokens, i, end).ifPresent(all::add);
        }
        return all;
    }

    /** Whether a token opens one, be it well formed or not. */
    public static boolean isOpened(Tokens tokens, int open) {
        return tokens.is(open, TokenType.FUNCTION) && tokens.lower(open).equals(FUNCTION);
    }

    /** The one that a token opens. */
    public static Optional<Reference> at(Tokens tokens, int open, int end) {
        if (!isOpened(tokens, open)) {
            return Optional.empty();
        }
        int after = tokens.afterBlock(open, end);
        int name = tokens.skipBlank(open + 1, after);
        if (name >= after || !tokens.is(name, TokenType.IDENT)) {
            return Optional.empty();
        }
        int comma = tokens.skipBlank(name + 1, after);
        boolean more = comma < after && tokens.is(comma, TokenType.COMMA);
        return Optional.of(new Reference(tokens.value(name), open, name, more ? comma + 1 : -1, after));
    }

    /** Where a text is one and nothing else. */
    public static Optional<Reference> whole(Tokens tokens) {
        int first = tokens.skipBlank(0, tokens.size());
        return at(tokens, first, tokens.size()).filter(r -> tokens.skipBlank(r.end(), tokens.size()) == tokens.size());
    }

    /** The names that a value reads itself, in order. */
    public static List<String> names(String value) {
        if (!mayBeIn(value)) {
            return List.of();
        }
        Tokens tokens = Tokenizer.tokenize(value);
        return in(tokens, 0, tokens.size()).stream().map(Reference::name).toList();
    }

    /** Whether a value reads a custom property. */
    public static boolean isIn(String value) {
        return !names(value).isEmpty();
    }

    /** Asked of every value of every sheet, data URLs among them: most need no tokens to tell. */
    private static boolean mayBeIn(String value) {
        int bracket = value.indexOf('(');
        // A name may be written with escapes. Looked for once: a value may have thousands of brackets.
        if (bracket >= 0 && value.indexOf('\\') >= 0) {
            return true;
        }
        for (int at = bracket; at >= 0; at = value.indexOf('(', at + 1)) {
            int start = at - FUNCTION.length();
            if (start >= 0 && value.regionMatches(true, start, FUNCTION, 0, FUNCTION.length())) {
                return true;
            }
        }
        return false;
    }
}

package org.calmpalette.core.css;

import java.util.Arrays;
import java.util.Locale;

/**
 * The tokens of one text, in order and without a gap: token {@code i} ends where {@code i + 1} starts, so the text can
 * be put together again byte for byte. Kept as two arrays, since a large stylesheet has a hundred thousand of them.
 */
public final class Tokens {
    private static final TokenType[] TYPES = TokenType.values();

    private final String text;
    private byte[] types;
    private int[] starts;
    private int size;

    Tokens(String text) {
        this.text = text;
        int guess = text.length() / 3 + 16;
        this.types = new byte[guess];
        this.starts = new int[guess];
    }

    void add(TokenType type, int start) {
        if (size == types.length) {
            types = Arrays.copyOf(types, size * 2);
            starts = Arrays.copyOf(starts, size * 2);
        }
        types[size] = (byte) type.ordinal();
        starts[size++] = start;
    }

    public String text() {
        return text;
    }

    /** How many tokens there are. */
    public int size() {
        return size;
    }

    /** The type of a token; {@code EOF} at {@link #size()} and beyond. */
    public TokenType type(int index) {
        return index < size ? TYPES[types[index]] : TokenType.EOF;
    }

    public boolean is(int index, TokenType type) {
        return index < size ? types[index] == type.ordinal() : type == TokenType.EOF;
    }

    /** Offset of the token's first character; the length of the text at {@link #size()} and beyond. */
    public int start(int index) {
        return index < size ? starts[index] : text.length();
    }

    /** Offset after the token's last character. */
    public int end(int index) {
        return index + 1 < size ? starts[index + 1] : text.length();
    }

    /** The characters of a token as they are written. */
    public String raw(int index) {
        return text.substring(start(index), end(index));
    }

    /** True for white space and comments. */
    public boolean isBlank(int index) {
        return index < size && types[index] <= TokenType.WHITESPACE.ordinal();
    }

    public boolean isDelim(int index, char c) {
        return is(index, TokenType.DELIM) && text.charAt(starts[index]) == c;
    }

    /** The first token at or after {@code index}, and before {@code end}, that is neither white space nor a comment. */
    public int skipBlank(int index, int end) {
        int i = index;
        while (i < end && isBlank(i)) {
            i++;
        }
        return i;
    }

    /**
     * The name or text that a token stands for, with escapes resolved: an identifier, a function's or at-rule's name, a
     * hash without {@code #}, a string without quotes, an address without {@code url()}, a dimension's unit.
     */
    public String value(int index) {
        String raw = raw(index);
        return switch (type(index)) {
            case IDENT -> Escapes.resolve(raw);
            case FUNCTION -> Escapes.resolve(raw.substring(0, raw.length() - 1));
            case AT_KEYWORD, HASH -> Escapes.resolve(raw.substring(1));
            case STRING -> {
                String inner = raw.substring(1, closed(raw) ? raw.length() - 1 : raw.length());
                // A backslash as the last character of the whole text adds nothing to a string.
                yield Escapes.resolve(endsInLoneBackslash(inner) ? inner.substring(0, inner.length() - 1) : inner);
            }
            case URL -> {
                String inner = raw.substring(raw.indexOf('(') + 1, raw.endsWith(")") ? raw.length() - 1 : raw.length());
                yield Escapes.resolve(inner.strip());
            }
            case DIMENSION -> Escapes.resolve(raw.substring(Numbers.length(raw, 0)));
            default -> raw;
        };
    }

    /** Like {@link #value}, in ASCII lower case. */
    public String lower(int index) {
        return value(index).toLowerCase(Locale.ROOT);
    }

    /** The number of a NUMBER, PERCENTAGE or DIMENSION token. */
    public double number(int index) {
        String raw = raw(index);
        return Double.parseDouble(raw.substring(0, Numbers.length(raw, 0)));
    }

    private static boolean closed(String raw) {
        if (raw.length() < 2 || raw.charAt(raw.length() - 1) != raw.charAt(0)) {
            return false;
        }
        return !endsInLoneBackslash(raw.substring(1, raw.length() - 1));
    }

    private static boolean endsInLoneBackslash(String text) {
        int backslashes = 0;
        while (backslashes < text.length() && text.charAt(text.length() - 1 - backslashes) == '\\') {
            backslashes++;
        }
        return backslashes % 2 == 1;
    }

    /**
     * The token after the one that closes what {@code open} opens: a function, parenthesis, bracket or brace. Runs to
     * {@code end} if nothing closes it.
     */
    public int afterBlock(int open, int end) {
        // An explicit stack: hostile sheets nest ten thousand deep.
        TokenType[] stack = new TokenType[16];
        int depth = 0;
        for (int i = open; i < end; i++) {
            TokenType type = type(i);
            TokenType closer =
                    switch (type) {
                        case FUNCTION, LEFT_PAREN -> TokenType.RIGHT_PAREN;
                        case LEFT_BRACKET -> TokenType.RIGHT_BRACKET;
                        case LEFT_BRACE -> TokenType.RIGHT_BRACE;
                        default -> null;
                    };
            if (closer != null) {
                if (depth == stack.length) {
                    stack = Arrays.copyOf(stack, depth * 2);
                }
                stack[depth++] = closer;
            } else if (depth > 0 && type == stack[depth - 1] && --depth == 0) {
                return i + 1;
            }
        }
        return end;
    }

    public boolean closes(int index) {
        return switch (type(index)) {
            case RIGHT_PAREN, RIGHT_BRACKET, RIGHT_BRACE -> true;
            default -> false;
        };
    }

    public boolean opens(int index) {
        return switch (type(index)) {
            case FUNCTION, LEFT_PAREN, LEFT_BRACKET, LEFT_BRACE -> true;
            default -> false;
        };
    }
}

package org.calmpalette.core.css;

import java.util.ArrayList;
import java.util.List;

/**
 * Tokenization after CSS Syntax Level 3, section 4.3. Comments are tokens here, and the text is not preprocessed: NUL,
 * CR and FF are understood where they stand, so that every offset is one of the text as it was read.
 *
 * @see <a href="https://www.w3.org/TR/css-syntax-3/#tokenization">CSS Syntax 3, tokenization</a>
 */
public final class Tokenizer {
    private final String text;
    private final char[] chars;
    private final int end;
    private final Tokens tokens;
    private final List<SyntaxFault> faults = new ArrayList<>();
    private int at;

    private Tokenizer(String text) {
        this.text = text;
        this.end = text.length();
        // One sentinel spares the bounds checks; it is no character of the text, since every use also looks at the end.
        this.chars = new char[end + 4];
        text.getChars(0, end, chars, 0);
        this.tokens = new Tokens(text);
    }

    /** What came out: the tokens, and where the standard had to recover. */
    public record Result(Tokens tokens, List<SyntaxFault> faults) {}

    public static Tokens tokenize(String text) {
        return read(text).tokens();
    }

    /** Tokenizes a text, and tells where it had to recover. Never fails. */
    public static Result read(String text) {
        Tokenizer tokenizer = new Tokenizer(text);
        while (tokenizer.at < tokenizer.end) {
            int start = tokenizer.at;
            tokenizer.tokens.add(tokenizer.next(), start);
        }
        return new Result(tokenizer.tokens, tokenizer.faults);
    }

    private void fault(int offset, SyntaxFault.Kind kind) {
        faults.add(new SyntaxFault(offset, kind));
    }

    private char peek(int ahead) {
        return at + ahead < end ? chars[at + ahead] : 0;
    }

    private TokenType next() {
        char c = chars[at];
        switch (c) {
            case ' ', '\t', '\n', '\r', '\f' -> {
                do {
                    at++;
                } while (at < end && Escapes.isSpace(chars[at]));
                return TokenType.WHITESPACE;
            }
            case '/' -> {
                if (peek(1) == '*') {
                    return comment();
                }
            }
            case '"', '\'' -> {
                return string(c);
            }
            case '#' -> {
                if (at + 1 < end && (isName(chars[at + 1]) || isEscape(at + 1))) {
                    at++;
                    name();
                    return TokenType.HASH;
                }
            }
            case '(' -> {
                return single(TokenType.LEFT_PAREN);
            }
            case ')' -> {
                return single(TokenType.RIGHT_PAREN);
            }
            case '[' -> {
                return single(TokenType.LEFT_BRACKET);
            }
            case ']' -> {
                return single(TokenType.RIGHT_BRACKET);
            }
            case '{' -> {
                return single(TokenType.LEFT_BRACE);
            }
            case '}' -> {
                return single(TokenType.RIGHT_BRACE);
            }
            case ',' -> {
                return single(TokenType.COMMA);
            }
            case ':' -> {
                return single(TokenType.COLON);
            }
            case ';' -> {
                return single(TokenType.SEMICOLON);
            }
            case '+', '.' -> {
                if (startsNumber()) {
                    return numeric();
                }
            }
            case '-' -> {
                if (startsNumber()) {
                    return numeric();
                }
                if (peek(1) == '-' && peek(2) == '>') {
                    at += 3;
                    return TokenType.CDC;
                }
                if (startsIdent(at)) {
                    return identLike();
                }
            }
            case '<' -> {
                if (text.startsWith("<!--", at)) {
                    at += 4;
                    return TokenType.CDO;
                }
            }
            case '@' -> {
                if (startsIdent(at + 1)) {
                    at++;
                    name();
                    return TokenType.AT_KEYWORD;
                }
            }
            case '\\' -> {
                if (isEscape(at)) {
                    return identLike();
                }
                fault(at, SyntaxFault.Kind.STRAY_BACKSLASH);
            }
            default -> {
                if (c >= '0' && c <= '9') {
                    return numeric();
                }
                if (isNameStart(c)) {
                    return identLike();
                }
            }
        }
        return single(TokenType.DELIM);
    }

    private TokenType single(TokenType type) {
        at++;
        return type;
    }

    private TokenType comment() {
        int close = text.indexOf("*/", at + 2);
        if (close < 0) {
            fault(at, SyntaxFault.Kind.UNCLOSED_COMMENT);
        }
        at = close < 0 ? end : close + 2;
        return TokenType.COMMENT;
    }

    private TokenType string(char quote) {
        int start = at++;
        while (at < end) {
            char c = chars[at];
            if (c == quote) {
                at++;
                return TokenType.STRING;
            }
            if (Escapes.isNewline(c)) {
                fault(start, SyntaxFault.Kind.UNCLOSED_STRING);
                return TokenType.BAD_STRING;
            }
            if (c == '\\' && at + 1 < end && Escapes.isNewline(chars[at + 1])) {
                at += chars[at + 1] == '\r' && at + 2 < end && chars[at + 2] == '\n' ? 3 : 2;
            } else if (c == '\\') {
                at += escapeLength(at);
            } else {
                at++;
            }
        }
        fault(start, SyntaxFault.Kind.UNCLOSED_STRING);
        return TokenType.STRING;
    }

    private boolean startsNumber() {
        char c = chars[at];
        int i = c == '+' || c == '-' ? 1 : 0;
        return isDigit(peek(i)) || peek(i) == '.' && isDigit(peek(i + 1));
    }

    private TokenType numeric() {
        at += Numbers.length(text, at);
        if (startsIdent(at)) {
            name();
            return TokenType.DIMENSION;
        }
        if (at < end && chars[at] == '%') {
            at++;
            return TokenType.PERCENTAGE;
        }
        return TokenType.NUMBER;
    }

    private TokenType identLike() {
        int start = at;
        name();
        if (at >= end || chars[at] != '(') {
            return TokenType.IDENT;
        }
        at++;
        if (!isUrl(start, at - 1)) {
            return TokenType.FUNCTION;
        }
        int i = at;
        while (i < end && Escapes.isSpace(chars[i])) {
            i++;
        }
        if (i < end && (chars[i] == '"' || chars[i] == '\'')) {
            return TokenType.FUNCTION;
        }
        return url(start);
    }

    private boolean isUrl(int from, int to) {
        String raw = text.substring(from, to);
        return raw.equalsIgnoreCase("url")
                || raw.indexOf('\\') >= 0 && Escapes.resolve(raw).equalsIgnoreCase("url");
    }

    private TokenType url(int start) {
        while (at < end && Escapes.isSpace(chars[at])) {
            at++;
        }
        while (at < end) {
            char c = chars[at];
            if (c == ')') {
                at++;
                return TokenType.URL;
            }
            if (Escapes.isSpace(c)) {
                while (at < end && Escapes.isSpace(chars[at])) {
                    at++;
                }
                if (at < end && chars[at] != ')') {
                    return badUrl(start);
                }
            } else if (c == '"' || c == '\'' || c == '(' || isNonPrintable(c) || c == '\\' && !isEscape(at)) {
                return badUrl(start);
            } else {
                at += c == '\\' ? escapeLength(at) : 1;
            }
        }
        fault(start, SyntaxFault.Kind.UNCLOSED_URL);
        return TokenType.URL;
    }

    private TokenType badUrl(int start) {
        fault(start, SyntaxFault.Kind.BAD_URL);
        while (at < end) {
            if (chars[at] == ')') {
                at++;
                break;
            }
            at += isEscape(at) ? escapeLength(at) : 1;
        }
        return TokenType.BAD_URL;
    }

    private void name() {
        while (at < end) {
            if (isName(chars[at])) {
                at++;
            } else if (isEscape(at)) {
                at += escapeLength(at);
            } else {
                return;
            }
        }
    }

    private boolean startsIdent(int i) {
        if (i >= end) {
            return false;
        }
        char c = chars[i];
        if (c == '-') {
            return i + 1 < end && (isNameStart(chars[i + 1]) || chars[i + 1] == '-') || isEscape(i + 1);
        }
        return isNameStart(c) || isEscape(i);
    }

    /** Two code points are a valid escape; the end of the text after a backslash counts as one. */
    private boolean isEscape(int i) {
        return i < end && chars[i] == '\\' && (i + 1 >= end || !Escapes.isNewline(chars[i + 1]));
    }

    private int escapeLength(int i) {
        if (i + 1 >= end) {
            return 1;
        }
        if (!Escapes.isHex(chars[i + 1])) {
            return Character.isHighSurrogate(chars[i + 1]) && i + 2 < end ? 3 : 2;
        }
        int j = i + 1;
        while (j < end && j < i + 7 && Escapes.isHex(chars[j])) {
            j++;
        }
        if (j < end && Escapes.isSpace(chars[j])) {
            j += chars[j] == '\r' && j + 1 < end && chars[j + 1] == '\n' ? 2 : 1;
        }
        return j - i;
    }

    private static boolean isDigit(char c) {
        return c >= '0' && c <= '9';
    }

    static boolean isNameStart(char c) {
        return c >= 'a' && c <= 'z' || c >= 'A' && c <= 'Z' || c == '_' || c == 0 || c >= 0x80 && isNonAsciiIdent(c);
    }

    /** Non-ASCII ident code points: CSS Syntax 3, section 4.2. Surrogates stand for code points from U+10000. */
    private static boolean isNonAsciiIdent(char c) {
        return c == 0xb7
                || c >= 0xc0 && c <= 0x37d && c != 0xd7 && c != 0xf7
                || c >= 0x37f && c <= 0x1fff
                || c == 0x200c
                || c == 0x200d
                || c == 0x203f
                || c == 0x2040
                || c >= 0x2070 && c <= 0x218f
                || c >= 0x2c00 && c <= 0x2fef
                || c >= 0x3001 && c <= 0xdfff
                || c >= 0xf900 && c <= 0xfdcf
                || c >= 0xfdf0 && c <= 0xfffd;
    }

    static boolean isName(char c) {
        return isNameStart(c) || isDigit(c) || c == '-';
    }

    private static boolean isNonPrintable(char c) {
        return c >= 1 && c <= 8 || c == 0x0b || c >= 0x0e && c <= 0x1f || c == 0x7f;
    }
}

package org.calmpalette.core.css;

/** Escapes in names and strings: CSS Syntax 3, section 4.3.7, and serializing an identifier, CSSOM 2.1. */
public final class Escapes {
    private Escapes() {}

    static String resolve(String raw) {
        if (raw.indexOf('\\') < 0 && raw.indexOf('\0') < 0) {
            return raw;
        }
        StringBuilder out = new StringBuilder(raw.length());
        for (int i = 0; i < raw.length(); i++) {
            char c = raw.charAt(i);
            if (c == '\0') {
                out.append('\uFFFD');
            } else if (c != '\\') {
                out.append(c);
            } else if (i + 1 == raw.length()) {
                // A backslash at the very end of the text: a replacement character in a name, nothing in a string.
                out.append('\uFFFD');
            } else if (isHex(raw.charAt(i + 1))) {
                int code = 0;
                int digits = 0;
                while (digits < 6 && i + 1 < raw.length() && isHex(raw.charAt(i + 1))) {
                    code = code * 16 + Character.digit(raw.charAt(++i), 16);
                    digits++;
                }
                boolean bad = code == 0 || code > 0x10FFFF || code >= 0xD800 && code <= 0xDFFF;
                out.appendCodePoint(bad ? 0xFFFD : code);
                if (i + 1 < raw.length() && isSpace(raw.charAt(i + 1))) {
                    i++;
                    if (raw.charAt(i) == '\r' && i + 1 < raw.length() && raw.charAt(i + 1) == '\n') {
                        i++;
                    }
                }
            } else if (isNewline(raw.charAt(i + 1))) {
                // Only in strings: the line goes on.
                i++;
                if (raw.charAt(i) == '\r' && i + 1 < raw.length() && raw.charAt(i + 1) == '\n') {
                    i++;
                }
            } else {
                int code = raw.codePointAt(i + 1);
                out.appendCodePoint(code == 0 ? 0xFFFD : code);
                i += Character.charCount(code);
            }
        }
        return out.toString();
    }

    /** Writes a name so that it reads back as one identifier. */
    public static String identifier(String name) {
        StringBuilder out = new StringBuilder();
        for (int i = 0; i < name.length(); i++) {
            char c = name.charAt(i);
            boolean digit = c >= '0' && c <= '9';
            boolean first = i == 0 || i == 1 && name.charAt(0) == '-';
            if (c < 0x20 || c == 0x7f || digit && first) {
                out.append('\\').append(Integer.toHexString(c)).append(' ');
            } else if (Tokenizer.isName(c) && !(c == '-' && name.length() == 1)) {
                out.append(c);
            } else {
                out.append('\\').append(c);
            }
        }
        return out.toString();
    }

    /** Writes a text as a double-quoted string. */
    public static String string(String text) {
        StringBuilder out = new StringBuilder("\"");
        for (int i = 0; i < text.length(); i++) {
            char c = text.charAt(i);
            if (c < 0x20 || c == 0x7f) {
                out.append('\\').append(Integer.toHexString(c)).append(' ');
            } else {
                out.append(c == '"' || c == '\\' ? "\\" : "").append(c);
            }
        }
        return out.append('"').toString();
    }

    static boolean isHex(char c) {
        return c >= '0' && c <= '9' || c >= 'a' && c <= 'f' || c >= 'A' && c <= 'F';
    }

    static boolean isNewline(char c) {
        return c == '\n' || c == '\r' || c == '\f';
    }

    static boolean isSpace(char c) {
        return c == ' ' || c == '\t' || isNewline(c);
    }
}

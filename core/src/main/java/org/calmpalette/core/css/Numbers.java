package org.calmpalette.core.css;

/** Finds how far a number reaches: CSS Syntax 3, section 4.3.12. */
final class Numbers {
    private Numbers() {}

    /** How many characters from {@code at} make a number; 0 if none does. */
    static int length(CharSequence text, int at) {
        int end = text.length();
        int i = at;
        if (i < end && (text.charAt(i) == '+' || text.charAt(i) == '-')) {
            i++;
        }
        int whole = digits(text, i);
        i += whole;
        int fraction = i < end && text.charAt(i) == '.' ? digits(text, i + 1) : 0;
        if (fraction > 0) {
            i += 1 + fraction;
        }
        if (whole + fraction == 0) {
            return 0;
        }
        if (i < end && (text.charAt(i) == 'e' || text.charAt(i) == 'E')) {
            int j = i + 1;
            if (j < end && (text.charAt(j) == '+' || text.charAt(j) == '-')) {
                j++;
            }
            int exponent = digits(text, j);
            if (exponent > 0) {
                i = j + exponent;
            }
        }
        return i - at;
    }

    private static int digits(CharSequence text, int at) {
        int i = at;
        while (i < text.length() && text.charAt(i) >= '0' && text.charAt(i) <= '9') {
            i++;
        }
        return i - at;
    }
}

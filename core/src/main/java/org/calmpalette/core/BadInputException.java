package org.calmpalette.core;

/**
 * Something that a person gave cannot be used. The message says what and where; the mend says what to do about it.
 * Both are plain words that a screen or a terminal shows as they are.
 */
public class BadInputException extends RuntimeException {
    private final String mend;

    public BadInputException(String message, String mend) {
        super(message);
        this.mend = mend;
    }

    public String mend() {
        return mend;
    }
}

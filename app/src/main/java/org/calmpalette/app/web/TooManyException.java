package org.calmpalette.app.web;

/** Somebody asked more often than one person can. */
public class TooManyException extends RuntimeException {
    private final long seconds;

    /** @param seconds until the next try is taken */
    public TooManyException(String message, long seconds) {
        super(message);
        this.seconds = seconds;
    }

    public long seconds() {
        return seconds;
    }
}

package org.calmpalette.app.web;

/** Somebody else changed the thing between looking and changing. Nothing was done. */
public class StaleException extends RuntimeException {
    private final long head;

    /**
     * @param message who changed what and when, in plain words
     * @param head the state on top of which the change could be made
     */
    public StaleException(String message, long head) {
        super(message);
        this.head = head;
    }

    public long head() {
        return head;
    }
}

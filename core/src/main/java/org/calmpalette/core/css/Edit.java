package org.calmpalette.core.css;

/** One change of a text: the characters from {@code start} to before {@code end} become {@code replacement}. */
public record Edit(int start, int end, String replacement) {
    public Edit {
        if (start < 0 || end < start) {
            throw new IllegalArgumentException("An edit runs from " + start + " to " + end + ".");
        }
    }
}

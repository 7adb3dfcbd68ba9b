package org.calmpalette.core;

/** A question about a theme took more than its {@link Budget}. */
public class BeyondLimitException extends BadInputException {
    private final String why;

    /** @param why continues "Not looked at: ", without a full stop */
    BeyondLimitException(String why) {
        super(
                "This part of the theme is more than can be looked at here: " + why + ".",
                "Everything else of the theme goes on working. Smaller pages and stylesheets can be looked at.");
        this.why = why;
    }

    public String why() {
        return why;
    }
}

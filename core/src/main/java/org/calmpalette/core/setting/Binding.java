package org.calmpalette.core.setting;

import java.util.Arrays;
import java.util.Optional;

/** The attributes by which a part of a page says that a setting fills it. */
public enum Binding {
    TEXT("data-setting-text", "text"),
    SRC("data-setting-src", "picture or video"),
    ALT("data-setting-alt", "description of the picture"),
    HREF("data-setting-href", "link"),
    SHOW("data-setting-show", "shown or not"),
    LEVEL("data-setting-level", "heading level"),
    /** Repeats the first element in it for each item; the parts of an item fill {@code data-item-text} and so on. */
    ITEMS("data-setting-items", "items");

    private final String attribute;
    private final String label;

    Binding(String attribute, String label) {
        this.attribute = attribute;
        this.label = label;
    }

    public String attribute() {
        return attribute;
    }

    /** The attribute that says the same inside of an item, of one of its parts. */
    public String itemAttribute() {
        return attribute.replace("data-setting-", "data-item-");
    }

    /** What of the part it fills, for people. */
    public String label() {
        return label;
    }

    public static Optional<Binding> of(String attribute) {
        return Arrays.stream(values())
                .filter(b -> b.attribute.equals(attribute))
                .findFirst();
    }
}

package org.calmpalette.core.cascade;

/** Where a declaration comes from, the weaker first: CSS Cascade 5, section 6.2. */
public enum Origin {
    /** The browser's own sheet. */
    USER_AGENT,
    /** Presentational attributes of HTML and SVG: author rules of no specificity before all others. */
    PRESENTATION,
    /** The theme's sheets. */
    AUTHOR,
    /** The {@code style} attribute. */
    STYLE_ATTRIBUTE
}

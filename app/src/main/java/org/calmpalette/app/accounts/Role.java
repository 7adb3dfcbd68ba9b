package org.calmpalette.app.accounts;

/** What somebody may do: a maker builds themes and makes sites of them, an owner changes a site's values. */
public enum Role {
    MAKER,
    OWNER
}

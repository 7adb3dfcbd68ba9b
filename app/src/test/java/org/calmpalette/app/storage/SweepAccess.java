package org.calmpalette.app.storage;

/** Lets tests sweep now. */
public final class SweepAccess {
    private SweepAccess() {}

    public static int sweep(ContentStore store, int minutes) {
        return store.sweep(minutes);
    }
}

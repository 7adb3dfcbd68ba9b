package org.calmpalette.app.web;

import java.util.List;
import java.util.Locale;

/**
 * A long list, some of it at a time.
 *
 * @param from index of the first that is shown
 */
public record Pager(int from, int size, int total) {
    /** Rows that a page shows. */
    public static final int SIZE = 200;

    /** @param wanted any number; the nearest beginning of a page is taken */
    public static Pager of(int wanted, int total) {
        return of(wanted, total, SIZE);
    }

    /** @param size how many are shown at a time, 1 or more */
    public static Pager of(int wanted, int total, int size) {
        int last = total == 0 ? 0 : (total - 1) / size * size;
        return new Pager(Math.max(0, Math.min(last, wanted / size * size)), size, total);
    }

    public <T> List<T> of(List<T> all) {
        return all.subList(from, Math.min(all.size(), from + size));
    }

    public boolean isNeeded() {
        return total > size;
    }

    /** Where the page before begins; -1 if there is none. */
    public int before() {
        return from == 0 ? -1 : from - size;
    }

    public int after() {
        return from + size >= total ? -1 : from + size;
    }

    public String words() {
        return String.format(Locale.ROOT, "%,d to %,d of %,d", from + 1, Math.min(total, from + size), total);
    }
}

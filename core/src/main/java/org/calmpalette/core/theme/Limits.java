package org.calmpalette.core.theme;

import java.math.BigDecimal;
import org.calmpalette.core.css.SourceText;
import org.calmpalette.core.css.Stylesheet;
import org.calmpalette.core.language.Language;
import org.calmpalette.core.page.Page;

/**
 * How much of a theme is looked at. The largest published sheets of frameworks are well within; what is beyond is kept,
 * handed over and shown to visitors like everything else, and told.
 */
public final class Limits {
    /** Bytes of one stylesheet. */
    static final int SHEET = 2_000_000;
    /** Files of a theme. */
    public static final int FILES = 2_000;
    /** Bytes of all files of a theme. */
    public static final long ALL_BYTES = 100_000_000;
    /** Bytes of one file. */
    public static final long FILE = 32_000_000;
    /** Bytes of all stylesheets. */
    static final int SHEETS = 3_000_000;
    /** Selectors of all stylesheets together: each of them may be tried on each element. */
    static final int SELECTORS = 30_000;
    /** Bytes of one page. */
    static final int PAGE = 3_000_000;
    /** Elements of one page. */
    static final int ELEMENTS = 20_000;
    /** Elements of all pages. */
    static final int ALL_ELEMENTS = 50_000;
    /** Bytes of palette.json. */
    static final int PALETTE = 2_000_000;

    private long bytes;
    private int selectors;
    private int elements;

    /** Takes a file that is beyond a limit by its size alone. */
    static SetAside large(String path, long bytes, int most) {
        return new SetAside(
                path,
                false,
                "It has " + words(bytes) + "; files of its kind are looked at up to " + words(most) + ".",
                "Split it, or leave out what the site does not use.");
    }

    /** Null if the stylesheet is within the limits, together with those before it. */
    SetAside sheet(String path, Stylesheet sheet) {
        int here = sheet.selectors();
        // What is set aside takes nothing from those after it.
        if (bytes + sheet.source().size() > SHEETS) {
            return new SetAside(
                    path,
                    false,
                    "With it the stylesheets have more than " + words(SHEETS)
                            + ", which is the most that is looked at.",
                    "Leave out stylesheets that the site does not use.");
        }
        if (selectors + here > SELECTORS) {
            return new SetAside(
                    path,
                    false,
                    "It has " + counted(here) + " selectors; a theme is looked at up to " + counted(SELECTORS)
                            + " in all its stylesheets.",
                    "Leave out rules that the site does not use.");
        }
        bytes += sheet.source().size();
        selectors += here;
        return null;
    }

    SetAside page(String path, Page page) {
        int here = page.elements().size();
        if (elements + here > ALL_ELEMENTS) {
            return new SetAside(
                    path,
                    false,
                    "With it the pages have more than " + counted(ALL_ELEMENTS)
                            + " elements, which is the most that is looked at.",
                    "Bring in fewer pages: one of each kind shows how the theme looks.");
        }
        elements += here;
        return null;
    }

    static SetAside manyElements(String path) {
        return new SetAside(
                path,
                false,
                "It has more than " + counted(ELEMENTS) + " elements; pages are looked at up to that.",
                "Shorten the page: some of its repeated parts are enough to see how it looks.");
    }

    static SetAside unread(String path, SourceText.UnreadableException e) {
        return new SetAside(path, true, e.why(), "Save it as UTF-8.");
    }

    /** A number of bytes as people read it, such as "12 kB", "1.5 MB" or "2 GB"; rounded down. */
    public static String words(long bytes) {
        return bytes >= 1_000_000_000
                ? Language.say(
                        "size.gb", BigDecimal.valueOf(bytes / 100_000_000, 1).stripTrailingZeros())
                : bytes >= 1_000_000
                        ? Language.say("size.mb", BigDecimal.valueOf(bytes / 100_000, 1))
                        : bytes >= 1_000 ? Language.say("size.kb", bytes / 1_000) : Language.say("size.bytes", bytes);
    }

    private static String counted(int n) {
        return String.format(java.util.Locale.ROOT, "%,d", n);
    }
}

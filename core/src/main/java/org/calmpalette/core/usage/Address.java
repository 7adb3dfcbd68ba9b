package org.calmpalette.core.usage;

import org.calmpalette.core.css.Edit;
import org.calmpalette.core.css.Escapes;

/**
 * An address where it is written.
 *
 * @param line from 1
 * @param start offset of what is replaced when it is corrected, with its quotation marks in a stylesheet; -1 if that is not
 *     known
 * @param quoting how a corrected one is written
 * @param url as written, without escapes
 * @param loads what it is of
 */
public record Address(String file, int line, int start, int end, Quoting quoting, String url, Loads loads) {
    /** What an address is of. */
    public enum Loads {
        PICTURE("picture"),
        FONT("font"),
        STYLESHEET("stylesheet"),
        LINKED("stylesheet or icon"),
        VIDEO("video"),
        AUDIO("audio"),
        SOURCE("source"),
        SCRIPT("script"),
        FRAME("iframe");

        private final String word;

        Loads(String word) {
            this.word = word;
        }

        public String word() {
            return word;
        }
    }

    /** How an address is written. */
    public enum Quoting {
        /** An attribute of a page, whose quotation marks stay. */
        ATTRIBUTE,
        /** One candidate of a srcset attribute. */
        CANDIDATE,
        /** {@code url(a.png)}. */
        BARE,
        SINGLE,
        DOUBLE
    }

    public boolean isOnAnotherHost() {
        return isOnAnotherHost(url);
    }

    public static boolean isOnAnotherHost(String url) {
        return url.strip().matches("(?i)(https?:)?//.*");
    }

    /** Whether it can be corrected where it stands. */
    public boolean isPlaced() {
        return start >= 0;
    }

    /** Writes another address in its place, in the same way. */
    public Edit corrected(String right) {
        String bare = right.replace(" ", "%20");
        return new Edit(
                start,
                end,
                switch (quoting) {
                    case ATTRIBUTE -> bare.replace("&", "&amp;");
                    case CANDIDATE -> bare.replace("&", "&amp;").replace(",", "%2C");
                    case BARE -> bare.replaceAll("[()'\"\\\\]", "\\\\$0");
                    case DOUBLE -> Escapes.string(right);
                    case SINGLE -> "'" + right.replace("\\", "\\\\").replace("'", "\\'") + "'";
                });
    }
}

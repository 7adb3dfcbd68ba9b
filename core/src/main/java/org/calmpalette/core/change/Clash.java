package org.calmpalette.core.change;

import org.calmpalette.core.setting.Palette;

/**
 * What two sides changed differently, or what cannot stand together.
 *
 * @param file path; both sides have their say in it
 * @param line in the state that both were made of, from 1; 0 where it is about the whole file
 * @param what it is, in words; empty where the texts say it
 * @param base text that both were made of; empty where there was none
 * @param ours what one side made of it; empty where it is gone
 * @param theirs what the other side made of it
 */
public record Clash(String file, int line, String what, String base, String ours, String theirs) {
    private static final int LONGEST = 90;

    static Clash whole(String file, String what) {
        return new Clash(file, 0, what, "", "", "");
    }

    /** File, line and what it is, with the text of our side. */
    public String message() {
        String where = file + (line > 0 ? ", line " + line : "");
        if (!what.isEmpty()) {
            return where + ": " + what
                    + (file.equals(Palette.FILE) && !ours.isEmpty() ? ", now " + shortened(ours) : "");
        }
        return where + ": “" + shortened(base) + "” is now “" + shortened(ours) + "”";
    }

    private static String shortened(String text) {
        String one = text.strip().replaceAll("\\s+", " ");
        return one.length() > LONGEST ? one.substring(0, LONGEST - 1) + "…" : one;
    }
}

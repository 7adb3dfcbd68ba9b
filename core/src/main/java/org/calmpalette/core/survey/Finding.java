package org.calmpalette.core.survey;

import java.util.List;
import java.util.Locale;
import java.util.function.Supplier;
import org.calmpalette.core.change.Change;
import org.calmpalette.core.usage.Painted;

/**
 * Something the survey found that is wrong or wants a look.
 *
 * @param line from 1
 * @param column from 1, in UTF-16 code units; 0 if the whole line is meant
 * @param mend what would put it right, in plain words
 * @param subject what it is about, such as an address or a declaration; with kind and file it names the finding as long
 *     as that stays, wherever the line moves to
 * @param fix makes the mend; null where a person has to decide
 * @param painted what it concerns on the pages; may be empty
 */
public record Finding(
        Kind kind,
        String file,
        int line,
        int column,
        String message,
        String mend,
        String subject,
        Supplier<Change> fix,
        List<Painted> painted) {

    /** What findings do to a site, the worst first. */
    public enum Group {
        UNSEEN("Not looked at"),
        SHOWN("Visitors see it"),
        LOST("Written, but without effect"),
        SOME("Some visitors miss it"),
        SLOW("Slow, or tells others who visits"),
        LATER("Makes changes hard later");

        private final String words;

        Group(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /** What can be found. */
    public enum Kind {
        UNUSABLE_SETTING("Settings that cannot be used", Group.LOST),
        UNKNOWN_SETTING("Parts bound to no setting", Group.LOST),
        MISSING_PICTURE("Missing pictures", Group.SHOWN),
        UNASKED_PICTURE("Missing, and not asked for", Group.LOST),
        MISSING_STYLESHEET("Missing stylesheets", Group.SHOWN),
        COVERED_TARGET("Covered by the header", Group.SHOWN),
        OVER_WINDOW("Over the whole window", Group.SHOWN),
        COVERED_CONTENT("Hidden behind the header", Group.SHOWN),
        UNREADABLE_TEXT("Hard to read", Group.SOME),
        TEXT_ON_PICTURE("Hard to read on what is behind", Group.SOME),
        BUSY_GROUND("Restless behind the text", Group.SOME),
        TEXT_WITHOUT_PICTURE("Hard to read until the picture has come", Group.SOME),
        WIDER_PAGE("Wider than the window", Group.SHOWN),
        CUT_TEXT("Words cut off", Group.SHOWN),
        LOST_SUBJECT("Out of sight", Group.SHOWN),
        SEAM("Where the picture ends", Group.SHOWN),
        TILE_SEAM("Where tiles meet", Group.SHOWN),
        STRETCHED_PICTURE("Stretched", Group.SHOWN),
        BLURRED_PICTURE("Blurred", Group.SHOWN),
        HIDDEN_TEXT("Hidden from screen readers", Group.SOME),
        PUSHED_TEXT("Pushed out of sight", Group.SOME),
        HEADING_LEVEL("Levels of headings", Group.SOME),
        NO_ALTERNATIVE("Pictures without words", Group.SOME),
        LIMIT("Beyond what is looked at", Group.UNSEEN),
        HEAVY_PICTURE("Heavy pictures", Group.SLOW),
        OTHER_HOST("From other hosts", Group.SLOW),
        NAME_BESIDE_COLOR("Names of other colours", Group.LATER),
        NEAR_COLORS("Nearly the same colour", Group.LATER),
        REPEATED_COLOR("Repeated colours", Group.LATER),
        REPEATED_LENGTH("Repeated lengths", Group.LATER),
        MARKUP_COLOR("Colours in the markup", Group.LATER),
        NEEDLESS_IMPORTANT("Needless !important", Group.LATER),
        SHEET_ORDER("Order of stylesheets", Group.LATER),
        BUILT_SHEET("Made by a build", Group.LATER),
        UNKNOWN_PROPERTY("Unknown properties", Group.LOST),
        UNKNOWN_SELECTOR("Unknown selectors", Group.LOST),
        BEATEN_DECLARATION("Beaten everywhere", Group.LOST),
        DEAD_RULE("Finds nothing", Group.LOST),
        ENCODING("Encoding", Group.SHOWN),
        MISSPELT_PROPERTY("Misspelt", Group.LOST),
        MISSPELT_VALUE("Misspelt", Group.LOST),
        MISSPELT_IMPORTANT("Misspelt", Group.LOST),
        CIRCULAR_IMPORT("Circles", Group.LOST),
        CIRCULAR_VARIABLE("Circles", Group.LOST),
        SYNTAX("Broken syntax", Group.LOST);

        private final String heading;
        private final Group group;

        Kind(String heading, Group group) {
            this.heading = heading;
            this.group = group;
        }

        /** A short name that stays the same, such as {@code missing-picture}. */
        public String key() {
            return name().toLowerCase(Locale.ROOT).replace('_', '-');
        }

        /** Stands over several findings of the kind. */
        public String heading() {
            return heading;
        }

        public Group group() {
            return group;
        }

        /** Whether what mends it is said to change nothing that is seen. */
        public boolean isQuiet() {
            return switch (this) {
                case NEEDLESS_IMPORTANT,
                        REPEATED_COLOR,
                        REPEATED_LENGTH,
                        UNKNOWN_PROPERTY,
                        UNKNOWN_SELECTOR,
                        BEATEN_DECLARATION,
                        DEAD_RULE -> true;
                default -> false;
            };
        }

        /** Whether somebody slipped at the keys. */
        public boolean isMisspelt() {
            return this == MISSPELT_PROPERTY || this == MISSPELT_VALUE || this == MISSPELT_IMPORTANT;
        }
    }

    public Finding(Kind kind, String file, int line, int column, String message, String mend) {
        this(kind, file, line, column, message, mend, message, null, List.of());
    }

    public Finding about(String what) {
        return new Finding(kind, file, line, column, message, mend, what, fix, painted);
    }

    public Finding fixedBy(Supplier<Change> how) {
        return new Finding(kind, file, line, column, message, mend, subject, how, painted);
    }

    public Finding painting(List<Painted> what) {
        return new Finding(kind, file, line, column, message, mend, subject, fix, what);
    }

    /** The same in a file of another name. */
    public Finding in(String other) {
        return new Finding(kind, other, line, column, message, mend, subject, fix, painted);
    }

    public boolean canBeMended() {
        return fix != null;
    }

    /** Names the finding among those of a theme, from one snapshot to the next. */
    public String key() {
        return kind.key() + "|" + file + "|" + subject;
    }

    public Group group() {
        return kind.group();
    }
}

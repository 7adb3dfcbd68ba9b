package org.calmpalette.core.css;

/**
 * A place where a browser has to recover, and what it then does.
 *
 * @param offset of the character where the trouble starts, in the text
 */
public record SyntaxFault(int offset, Kind kind) {
    /** The recoveries of CSS Syntax 3, each with what browsers do and how to mend it. */
    public enum Kind {
        UNCLOSED_COMMENT(
                "A comment is opened here and never closed, so all that follows is part of it.",
                "Put */ where the comment should end."),
        UNCLOSED_STRING(
                "A quotation mark is opened here and not closed on its line.", "Put the missing quotation mark."),
        UNCLOSED_URL("An address is opened here with url( and never closed.", "Put the missing )."),
        BAD_URL(
                "The address in this url( holds a quotation mark, bracket or space, so browsers ignore the declaration.",
                "Put the address in quotation marks."),
        STRAY_BACKSLASH("A backslash stands alone at the end of a line.", "Take it away."),
        UNCLOSED_BLOCK(
                "A { is opened here and never closed, so all that follows belongs to it.",
                "Put the missing } where the rule should end."),
        UNCLOSED_BRACKET(
                "A ( or [ is opened here and never closed, so what follows is swallowed.", "Put the missing bracket."),
        STRAY_CLOSE("A } closes nothing here, so browsers ignore the rule that follows it.", "Take the } away."),
        NO_BLOCK("This selector is followed by no { }, so browsers ignore it.", "Give it a block, or take it away."),
        BAD_DECLARATION(
                "This is not a declaration, so browsers ignore it up to the next ; or }.",
                "Write it as property: value;"),
        TOO_DEEP("Rules are nested more than 200 deep here; what lies deeper is not read.", "Nest less deeply."),
        VALUE_TOO_DEEP(
                "Brackets are nested more than 200 deep here; what they are part of is not read.", "Nest less deeply.");

        private final String message;
        private final String mend;

        Kind(String message, String mend) {
            this.message = message;
            this.mend = mend;
        }

        public String message() {
            return message;
        }

        public String mend() {
            return mend;
        }
    }
}

package org.calmpalette.core.usage;

import java.util.List;
import org.calmpalette.core.css.Node;
import org.calmpalette.core.css.Stylesheet;
import org.calmpalette.core.css.TokenType;
import org.calmpalette.core.css.Tokens;

/** Comments of a stylesheet: makers of themes name their rules in them. */
public final class Comments {
    private static final int LONGEST = 120;

    private Comments() {}

    /** The text of the comment right above the outermost style rule, without stars; empty if there is none. */
    public static String above(Stylesheet sheet, List<Node.Rule> around) {
        Tokens tokens = sheet.tokens();
        for (Node.Rule rule : around) {
            if (rule instanceof Node.StyleRule) {
                int i = rule.first() - 1;
                if (i > 0 && tokens.is(i, TokenType.WHITESPACE)) {
                    // An empty line between the comment and the rule: the comment names something larger.
                    if (tokens.raw(i).chars().filter(c -> c == '\n').count() > 1) {
                        return "";
                    }
                    i--;
                }
                // A comment that starts with /*! is a licence, which names no rule (common practice of build tools).
                return i >= 0
                                && tokens.is(i, TokenType.COMMENT)
                                && !tokens.raw(i).startsWith("/*!")
                        ? words(tokens.raw(i))
                        : "";
            }
        }
        return "";
    }

    /** What a comment says, without its stars, in one line of at most 120 characters. */
    public static String words(String comment) {
        String text = comment.replaceAll("^/\\*+|\\*+/$", "")
                .replaceAll("(?m)^[\\s*=#-]+|[\\s*=#-]+$", "")
                .replaceAll("\\s+", " ")
                .strip();
        return text.length() > LONGEST ? text.substring(0, LONGEST) + "…" : text;
    }
}

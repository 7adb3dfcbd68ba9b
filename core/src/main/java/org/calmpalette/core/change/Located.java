package org.calmpalette.core.change;

import java.util.List;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.css.Node;
import org.calmpalette.core.css.Tokens;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.ThemeSheet;

/** A declaration where it stands in a theme's files. */
public record Located(ThemeSheet part, Node.Declaration declaration, List<Node.Rule> around) {

    /** @throws BadInputException if no declaration starts there */
    public static Located find(Theme theme, String file, int start) {
        for (ThemeSheet part : theme.declaring()) {
            if (part.path().equals(file)) {
                Located[] found = new Located[1];
                part.sheet().eachDeclaration((d, around) -> {
                    if (found[0] == null
                            && part.offset() + part.sheet().tokens().start(d.first()) == start) {
                        found[0] = new Located(part, d, List.copyOf(around));
                    }
                });
                if (found[0] != null) {
                    return found[0];
                }
            }
        }
        throw new BadInputException(
                "The declaration is no longer where it was in " + file + ".", "Load the page again.");
    }

    private Tokens tokens() {
        return part.sheet().tokens();
    }

    public String value() {
        return part.sheet().value(declaration);
    }

    public int line() {
        return part.line(tokens().start(declaration.first()));
    }

    /** Offset of a token's first character in the file. */
    public int start(int token) {
        return part.offset() + tokens().start(token);
    }

    /** Offset after a token's last character. */
    public int end(int token) {
        return part.offset() + tokens().end(token);
    }

    public int nameStart() {
        return start(declaration.first());
    }

    public int valueStart() {
        return start(declaration.valueFirst());
    }

    public int valueEnd() {
        return declaration.valueEnd() > declaration.valueFirst() ? end(declaration.valueEnd() - 1) : valueStart();
    }

    /** Offset after the declaration, {@code !important} counted, the semicolon not. */
    public int declarationEnd() {
        int last = declaration.end() - 1;
        while (last > declaration.first() && tokens().isBlank(last)) {
            last--;
        }
        return end(last);
    }

    /** The innermost rule with a selector around it, or null. */
    public Node.StyleRule rule() {
        for (int i = around.size() - 1; i >= 0; i--) {
            if (around.get(i) instanceof Node.StyleRule style) {
                return style;
            }
        }
        return null;
    }

    /** What stands before the first character on the declaration's line, if that is only white space. */
    public String indent() {
        return indent(nameStart());
    }

    private String indent(int offset) {
        int line = part.file().line(offset);
        String before = part.file().text().substring(part.file().lineStart(line), offset);
        return before.isBlank() ? before : "";
    }

    /** True if the declaration has a line of its own. */
    public boolean isOnOwnLine() {
        int line = part.file().line(nameStart());
        String before = part.file().text().substring(part.file().lineStart(line), nameStart());
        return before.isBlank();
    }

    /** The offset where a comment on the rule goes, and the white space before the rule. */
    public int ruleStart() {
        return around.isEmpty()
                ? nameStart()
                : start(around.get(around.size() - 1).first());
    }

    public String ruleIndent() {
        return indent(ruleStart());
    }
}

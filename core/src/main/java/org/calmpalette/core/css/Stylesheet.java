package org.calmpalette.core.css;

import java.util.List;
import java.util.function.BiConsumer;

/**
 * A stylesheet that keeps every byte: the text, its tokens, and a tree of rules over them.
 *
 * @param faults where a browser has to recover, in the order of the text
 */
public record Stylesheet(SourceText source, Tokens tokens, List<Node> rules, List<SyntaxFault> faults) {

    /** Reads a stylesheet as browsers do; troubles become faults, never errors. */
    public static Stylesheet read(String file, byte[] bytes) {
        return Parser.parse(SourceText.stylesheet(file, bytes));
    }

    public static Stylesheet read(SourceText source) {
        return Parser.parse(source);
    }

    /** The declarations of a {@code style} attribute: CSS Style Attributes, section 3. */
    public static Stylesheet readAttribute(SourceText source) {
        return Parser.parseDeclarations(source);
    }

    /** How many selectors its rules have, counted by their commas. */
    public int selectors() {
        return selectors(rules);
    }

    private int selectors(List<Node> nodes) {
        int count = 0;
        for (Node node : nodes) {
            if (node instanceof Node.StyleRule rule) {
                count++;
                for (int i = rule.preludeFirst(); i < rule.preludeEnd(); i++) {
                    count += tokens.is(i, TokenType.COMMA) ? 1 : 0;
                }
            }
            count += node instanceof Node.Rule rule ? selectors(rule.children()) : 0;
        }
        return count;
    }

    /** The characters of a run of tokens, as written. */
    public String text(int firstToken, int endToken) {
        return firstToken >= endToken
                ? ""
                : source.text().substring(tokens.start(firstToken), tokens.end(endToken - 1));
    }

    /** A rule's prelude without comments, blanks drawn together: the selector as one reads it. */
    public String prelude(Node.Rule rule) {
        StringBuilder out = new StringBuilder();
        for (int i = rule.preludeFirst(); i < rule.preludeEnd(); i++) {
            if (!tokens.isBlank(i)) {
                out.append(tokens.raw(i));
            } else if (out.length() > 0 && out.charAt(out.length() - 1) != ' ') {
                out.append(' ');
            }
        }
        return out.toString().strip();
    }

    /** A declaration's value as written, without {@code !important}. */
    public String value(Node.Declaration declaration) {
        return text(declaration.valueFirst(), declaration.valueEnd());
    }

    public int line(Node node) {
        return source.line(tokens.start(node.first()));
    }

    public int column(Node node) {
        return source.column(tokens.start(node.first()));
    }

    /** Visits every declaration in order, with the rules around it from the outermost to the innermost. */
    public void eachDeclaration(BiConsumer<Node.Declaration, List<Node.Rule>> visitor) {
        Walk.declarations(rules, visitor);
    }
}

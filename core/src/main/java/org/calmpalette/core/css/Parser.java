package org.calmpalette.core.css;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;

/**
 * Parsing after CSS Syntax Level 3, section 5.5, with nested rules. The names of the methods are those of the
 * standard's algorithms.
 *
 * @see <a href="https://drafts.csswg.org/css-syntax-3/#parser-algorithms">CSS Syntax 3, parser algorithms</a>
 */
final class Parser {
    private static final int MOST_NESTED = 200;
    /** A declaration that is passed over, since no reader of values should have to follow it that deep. */
    private static final Node.Declaration TOO_DEEP = new Node.Declaration("", 0, 0, 0, 0, false);

    private final SourceText source;
    private final Tokens tokens;
    private final int end;
    private final List<SyntaxFault> faults;
    private int at;

    private Parser(SourceText source) {
        Tokenizer.Result read = Tokenizer.read(source.text());
        this.source = source;
        this.tokens = read.tokens();
        this.end = tokens.size();
        this.faults = new ArrayList<>(read.faults());
    }

    static Stylesheet parse(SourceText source) {
        Parser parser = new Parser(source);
        return parser.finish(parser.consumeStylesheetContents());
    }

    static Stylesheet parseDeclarations(SourceText source) {
        Parser parser = new Parser(source);
        List<Node> nodes = new ArrayList<>();
        while (parser.at < parser.end) {
            // At the top of an attribute a } closes nothing; it is passed over with what it spoils.
            nodes.addAll(parser.consumeBlockContents(0));
            parser.at++;
        }
        return parser.finish(nodes);
    }

    private Stylesheet finish(List<Node> nodes) {
        // What turns out to be a rule was first tried as a declaration, so a fault inside it was met twice.
        List<SyntaxFault> once = faults.stream()
                .distinct()
                .sorted(Comparator.comparingInt(SyntaxFault::offset))
                .toList();
        return new Stylesheet(source, tokens, nodes, once);
    }

    private void fault(int token, SyntaxFault.Kind kind) {
        faults.add(new SyntaxFault(tokens.start(token), kind));
    }

    private List<Node> consumeStylesheetContents() {
        List<Node> rules = new ArrayList<>();
        while (at < end) {
            switch (tokens.type(at)) {
                case WHITESPACE, COMMENT, CDO, CDC -> at++;
                case AT_KEYWORD -> add(rules, consumeAtRule(false, 0));
                default -> add(rules, consumeQualifiedRule(false, 0));
            }
        }
        return rules;
    }

    private static void add(List<Node> nodes, Node node) {
        if (node != null) {
            nodes.add(node);
        }
    }

    /** A block's contents, up to before its closing brace or the end. */
    private List<Node> consumeBlockContents(int depth) {
        List<Node> nodes = new ArrayList<>();
        while (at < end) {
            switch (tokens.type(at)) {
                case WHITESPACE, COMMENT, SEMICOLON -> at++;
                case RIGHT_BRACE -> {
                    return nodes;
                }
                case AT_KEYWORD -> add(nodes, consumeAtRule(true, depth));
                default -> {
                    int mark = at;
                    Node declaration = consumeDeclaration();
                    if (declaration != null) {
                        add(nodes, declaration == TOO_DEEP ? null : declaration);
                    } else {
                        at = mark;
                        add(nodes, consumeQualifiedRule(true, depth));
                    }
                }
            }
        }
        return nodes;
    }

    private Node consumeAtRule(boolean nested, int depth) {
        int first = at;
        String name = tokens.lower(at++);
        int preludeFirst = at;
        while (at < end) {
            TokenType type = tokens.type(at);
            if (type == TokenType.SEMICOLON) {
                at++;
                return atStatement(name, first, preludeFirst, at - 1);
            }
            if (type == TokenType.RIGHT_BRACE && nested) {
                return atStatement(name, first, preludeFirst, at);
            }
            if (type == TokenType.LEFT_BRACE) {
                int preludeEnd = trimEnd(preludeFirst, at);
                if (isTooDeep(preludeFirst, preludeEnd)) {
                    fault(first, SyntaxFault.Kind.VALUE_TOO_DEEP);
                    consumeBlock(depth);
                    return null;
                }
                List<Node> children = consumeBlock(depth);
                return new Node.AtRule(
                        name, first, at, tokens.skipBlank(preludeFirst, preludeEnd), preludeEnd, true, children);
            }
            consumeComponentValue();
        }
        return atStatement(name, first, preludeFirst, end);
    }

    private Node atStatement(String name, int first, int preludeFirst, int preludeEnd) {
        int trimmed = trimEnd(preludeFirst, preludeEnd);
        return new Node.AtRule(name, first, at, tokens.skipBlank(preludeFirst, trimmed), trimmed, false, List.of());
    }

    private Node consumeQualifiedRule(boolean nested, int depth) {
        int first = at;
        while (at < end) {
            switch (tokens.type(at)) {
                case RIGHT_BRACE -> {
                    if (nested) {
                        fault(first, SyntaxFault.Kind.BAD_DECLARATION);
                        return null;
                    }
                    fault(at, SyntaxFault.Kind.STRAY_CLOSE);
                    at++;
                }
                case SEMICOLON -> {
                    if (nested) {
                        fault(first, SyntaxFault.Kind.BAD_DECLARATION);
                        return null;
                    }
                    at++;
                }
                case LEFT_BRACE -> {
                    int preludeEnd = trimEnd(first, at);
                    if (looksLikeCustomProperty(first, preludeEnd)) {
                        fault(first, SyntaxFault.Kind.BAD_DECLARATION);
                        if (nested) {
                            consumeRemnantsOfBadDeclaration();
                        } else {
                            consumeBlock(depth);
                        }
                        return null;
                    }
                    List<Node> children = consumeBlock(depth);
                    return new Node.StyleRule(first, at, first, preludeEnd, children);
                }
                default -> consumeComponentValue();
            }
        }
        fault(first, nested ? SyntaxFault.Kind.BAD_DECLARATION : SyntaxFault.Kind.NO_BLOCK);
        return null;
    }

    private boolean looksLikeCustomProperty(int first, int preludeEnd) {
        int colon = tokens.skipBlank(first + 1, preludeEnd);
        return tokens.is(first, TokenType.IDENT)
                && tokens.value(first).startsWith("--")
                && colon < preludeEnd
                && tokens.is(colon, TokenType.COLON);
    }

    /** From a left brace to after its right one. */
    private List<Node> consumeBlock(int depth) {
        int open = at++;
        if (depth >= MOST_NESTED) {
            fault(open, SyntaxFault.Kind.TOO_DEEP);
            at = tokens.afterBlock(open, end);
            return List.of();
        }
        List<Node> children = consumeBlockContents(depth + 1);
        if (at < end) {
            at++;
        } else {
            fault(open, SyntaxFault.Kind.UNCLOSED_BLOCK);
        }
        return children;
    }

    private Node consumeDeclaration() {
        int first = at;
        if (!tokens.is(at, TokenType.IDENT)) {
            return null;
        }
        int colon = tokens.skipBlank(at + 1, end);
        if (!tokens.is(colon, TokenType.COLON)) {
            return null;
        }
        String name = tokens.value(first);
        boolean custom = name.startsWith("--");
        at = tokens.skipBlank(colon + 1, end);
        int valueFirst = at;
        boolean braces = false;
        boolean others = false;
        while (at < end && !tokens.is(at, TokenType.SEMICOLON) && !tokens.is(at, TokenType.RIGHT_BRACE)) {
            if (!tokens.isBlank(at)) {
                boolean brace = tokens.is(at, TokenType.LEFT_BRACE);
                braces |= brace;
                others |= !brace;
                if (braces && others && !custom) {
                    // A block beside other values: this is a nested rule such as a:hover {}.
                    return null;
                }
            }
            consumeComponentValue();
        }
        int valueEnd = trimEnd(valueFirst, at);
        int declarationEnd = valueEnd;
        boolean important = false;
        if (valueEnd - 1 >= valueFirst
                && tokens.is(valueEnd - 1, TokenType.IDENT)
                && tokens.lower(valueEnd - 1).equals("important")) {
            int bang = trimEnd(valueFirst, valueEnd - 1) - 1;
            if (bang >= valueFirst && tokens.isDelim(bang, '!')) {
                important = true;
                valueEnd = trimEnd(valueFirst, bang);
            }
        }
        String property = custom ? name : name.toLowerCase(java.util.Locale.ROOT);
        if (isTooDeep(valueFirst, valueEnd)) {
            fault(first, SyntaxFault.Kind.VALUE_TOO_DEEP);
            return TOO_DEEP;
        }
        return new Node.Declaration(property, first, declarationEnd, valueFirst, valueEnd, important);
    }

    private void consumeRemnantsOfBadDeclaration() {
        while (at < end && !tokens.is(at, TokenType.SEMICOLON) && !tokens.is(at, TokenType.RIGHT_BRACE)) {
            consumeComponentValue();
        }
    }

    private void consumeComponentValue() {
        if (!tokens.opens(at)) {
            at++;
            return;
        }
        int open = at;
        at = tokens.afterBlock(open, end);
        // With one more token to look at, a block that is closed ends before it.
        if (at == end && tokens.afterBlock(open, end + 1) > end) {
            fault(
                    open,
                    tokens.is(open, TokenType.LEFT_BRACE)
                            ? SyntaxFault.Kind.UNCLOSED_BLOCK
                            : SyntaxFault.Kind.UNCLOSED_BRACKET);
        }
    }

    private boolean isTooDeep(int first, int endToken) {
        int depth = 0;
        for (int i = first; i < endToken; i++) {
            if (tokens.opens(i)) {
                if (++depth > MOST_NESTED) {
                    return true;
                }
            } else if (depth > 0 && tokens.closes(i)) {
                depth--;
            }
        }
        return false;
    }

    private int trimEnd(int first, int endToken) {
        int e = endToken;
        while (e > first && tokens.isBlank(e - 1)) {
            e--;
        }
        return e;
    }
}

package org.calmpalette.core.css.selector;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.calmpalette.core.css.TokenType;
import org.calmpalette.core.css.Tokens;

/** Reads selectors: Selectors 4, section 18, and CSS Nesting 1 for selectors inside a rule. */
final class SelectorParser {
    /** Thrown when browsers would not understand a selector. It carries no trace. */
    private static final class Invalid extends RuntimeException {
        Invalid() {
            super(null, null, false, false);
        }
    }

    private static final int MOST_NESTED = 64;
    /** Simple selectors of one rule when all nesting is written out; far more than any rule that was written by hand. */
    private static final int MOST_NESTED_WEIGHT = 5_000;

    private static final Pattern AN_PLUS_B = Pattern.compile("([+-]?\\d*)n(?:\\s*([+-])\\s*(\\d+))?|([+-]?\\d+)");
    /** Pseudo-elements that may be written with one colon. */
    private static final Set<String> OLD_PSEUDO_ELEMENTS = Set.of("before", "after", "first-line", "first-letter");

    private static final Set<String> PSEUDO_ELEMENTS = Set.of(
            "before",
            "after",
            "first-line",
            "first-letter",
            "marker",
            "placeholder",
            "selection",
            "backdrop",
            "file-selector-button",
            "cue",
            "grammar-error",
            "spelling-error",
            "target-text",
            "highlight",
            "part",
            "slotted",
            "details-content",
            "view-transition",
            "view-transition-group",
            "view-transition-image-pair",
            "view-transition-new",
            "view-transition-old",
            "scroll-marker",
            "scroll-marker-group",
            "scroll-button",
            "column",
            "checkmark",
            "picker",
            "picker-icon",
            "search-text");
    static final Set<String> PSEUDO_CLASSES = Set.of(
            "root",
            "empty",
            "first-child",
            "last-child",
            "only-child",
            "first-of-type",
            "last-of-type",
            "only-of-type",
            "link",
            "any-link",
            "visited",
            "hover",
            "active",
            "focus",
            "focus-visible",
            "focus-within",
            "target",
            "target-current",
            "scope",
            "enabled",
            "disabled",
            "checked",
            "indeterminate",
            "default",
            "required",
            "optional",
            "valid",
            "invalid",
            "in-range",
            "out-of-range",
            "read-only",
            "read-write",
            "placeholder-shown",
            "user-valid",
            "user-invalid",
            "autofill",
            "-webkit-autofill",
            "-webkit-any-link",
            "-webkit-full-screen",
            "defined",
            "fullscreen",
            "modal",
            "open",
            "popover-open",
            "picture-in-picture",
            "playing",
            "paused",
            "muted",
            "seeking",
            "stalled",
            "buffering",
            "volume-locked",
            "host",
            "future",
            "past",
            "current",
            "local-link",
            "target-within",
            "blank",
            "-webkit-drag",
            "-internal-autofill-previewed",
            "window-inactive",
            "horizontal",
            "vertical",
            "decrement",
            "increment",
            "start",
            "end",
            "double-button",
            "single-button",
            "no-button",
            "corner-present",
            "active-view-transition",
            "xr-overlay",
            "has-slotted");
    /** Known to the standard, but not to today's Chromium, so that a rule with one of them is dropped. */
    private static final Set<String> NOT_IN_BROWSERS = Set.of(
            "local-link",
            "target-within",
            "blank",
            "buffering",
            "stalled",
            "seeking",
            "volume-locked",
            "playing",
            "muted");

    private static final Set<String> WITH_MARKER = Set.of("before", "after");
    /** Pseudo-elements that no state may follow, as Chromium has it. */
    private static final Set<String> STATELESS =
            Set.of("before", "after", "first-line", "first-letter", "marker", "before::marker", "after::marker");

    private static final Set<String> WITH_WORDS = Set.of("lang", "dir", "state", "active-view-transition-type");

    private final Tokens tokens;
    private final int end;
    private final SelectorList around;
    private int at;
    private int depth;
    private boolean inHas;

    SelectorParser(Tokens tokens, int first, int end, SelectorList around) {
        this.tokens = tokens;
        this.at = first;
        this.end = end;
        this.around = around;
    }

    Optional<SelectorList> parse() {
        try {
            List<ComplexSelector> list = new ArrayList<>();
            do {
                int start = at;
                ComplexSelector one = complex(end, around != null);
                list.add(nested(one, start));
            } while (takeComma(end));
            SelectorList read = new SelectorList(List.copyOf(list));
            // Each & stands for the whole list around it, so a few lines can stand for more than fits anywhere.
            return around != null && read.weight() > MOST_NESTED_WEIGHT ? Optional.empty() : Optional.of(read);
        } catch (Invalid e) {
            return Optional.empty();
        }
    }

    private static void require(boolean condition) {
        if (!condition) {
            throw new Invalid();
        }
    }

    /**
     * A selector inside a rule that does not say {@code &} starts from it. One that says it in an argument that {@code :is()} forgives
     * says it, too (as Chromium has it).
     */
    private ComplexSelector nested(ComplexSelector s, int start) {
        if (around == null || !s.isRelative() && mentionsNesting(start)) {
            return s;
        }
        List<CompoundSelector> compounds = new ArrayList<>(s.compounds());
        List<Combinator> combinators = new ArrayList<>(s.combinators());
        compounds.add(0, new CompoundSelector(List.of(new SimpleSelector.Nesting(around)), null, List.of()));
        if (!s.isRelative()) {
            combinators.add(0, Combinator.DESCENDANT);
        }
        return ComplexSelector.of(compounds, combinators);
    }

    private boolean mentionsNesting(int start) {
        for (int i = start; i < at; i++) {
            if (tokens.isDelim(i, '&')) {
                return true;
            }
        }
        return false;
    }

    private boolean takeComma(int stop) {
        at = tokens.skipBlank(at, stop);
        if (at < stop && tokens.is(at, TokenType.COMMA)) {
            at++;
            return true;
        }
        require(at >= stop);
        return false;
    }

    private ComplexSelector complex(int stop, boolean mayBeRelative) {
        List<CompoundSelector> compounds = new ArrayList<>();
        List<Combinator> combinators = new ArrayList<>();
        at = tokens.skipBlank(at, stop);
        Combinator lead = combinatorSign(stop);
        if (lead != null) {
            require(mayBeRelative);
            combinators.add(lead);
            at = tokens.skipBlank(at, stop);
        }
        while (true) {
            CompoundSelector compound = compound(stop);
            compounds.add(compound);
            int before = at;
            at = tokens.skipBlank(at, stop);
            if (at >= stop || tokens.is(at, TokenType.COMMA)) {
                return ComplexSelector.of(compounds, combinators);
            }
            Combinator sign = combinatorSign(stop);
            require(sign != null || at > before);
            require(compound.pseudoElement() == null);
            combinators.add(sign == null ? Combinator.DESCENDANT : sign);
            at = tokens.skipBlank(at, stop);
        }
    }

    private Combinator combinatorSign(int stop) {
        if (at >= stop || !tokens.is(at, TokenType.DELIM)) {
            return null;
        }
        Combinator sign =
                switch (tokens.raw(at)) {
                    case ">" -> Combinator.CHILD;
                    case "+" -> Combinator.NEXT_SIBLING;
                    case "~" -> Combinator.SUBSEQUENT_SIBLING;
                    default -> null;
                };
        at += sign == null ? 0 : 1;
        return sign;
    }

    private CompoundSelector compound(int stop) {
        List<SimpleSelector> simples = new ArrayList<>();
        String pseudoElement = null;
        List<SimpleSelector> pseudoStates = new ArrayList<>();
        int start = at;
        while (at < stop) {
            TokenType type = tokens.type(at);
            if (type == TokenType.COMMENT) {
                at++;
                continue;
            }
            SimpleSelector simple = null;
            if (type == TokenType.IDENT || tokens.isDelim(at, '*') || tokens.isDelim(at, '|')) {
                require(simples.isEmpty() && pseudoElement == null);
                simple = typeSelector(stop);
            } else if (type == TokenType.HASH) {
                // A hash that is no identifier, such as #1a, is no id selector.
                String raw = tokens.raw(at);
                require(raw.length() > 1 && !Character.isDigit(raw.charAt(1)));
                simple = new SimpleSelector.Id(tokens.value(at++));
            } else if (tokens.isDelim(at, '.')) {
                at++;
                require(at < stop && tokens.is(at, TokenType.IDENT));
                simple = new SimpleSelector.ClassName(tokens.value(at++));
            } else if (type == TokenType.LEFT_BRACKET) {
                simple = attribute();
            } else if (tokens.isDelim(at, '&')) {
                at++;
                simple = new SimpleSelector.Nesting(around);
            } else if (type == TokenType.COLON) {
                boolean twice = tokens.is(at + 1, TokenType.COLON);
                int nameToken = at + (twice ? 2 : 1);
                require(nameToken < stop);
                if (twice
                        || tokens.is(nameToken, TokenType.IDENT)
                                && OLD_PSEUDO_ELEMENTS.contains(tokens.lower(nameToken))) {
                    at = nameToken;
                    String name = pseudoElement(stop);
                    // Generated content may be a list item with a marker of its own.
                    require(pseudoElement == null
                            || name.equals("marker") && WITH_MARKER.contains(pseudoElement) && pseudoStates.isEmpty());
                    pseudoElement = pseudoElement == null ? name : pseudoElement + "::" + name;
                    continue;
                }
                at = nameToken;
                require(pseudoElement == null || !STATELESS.contains(pseudoElement));
                simple = pseudoClass(stop);
            } else {
                break;
            }
            (pseudoElement == null ? simples : pseudoStates).add(simple);
        }
        require(at > start && !(simples.isEmpty() && pseudoElement == null));
        return new CompoundSelector(List.copyOf(simples), pseudoElement, List.copyOf(pseudoStates));
    }

    private SimpleSelector typeSelector(int stop) {
        // Namespaces: *|name and |name are understood; a declared prefix would need @namespace, which no theme uses.
        if (tokens.isDelim(at + 1, '|') && at + 2 < stop && !tokens.isDelim(at + 2, '=')) {
            require(tokens.isDelim(at, '*'));
            at += 2;
        } else if (tokens.isDelim(at, '|')) {
            // Of no namespace; elements of HTML are in one.
            at++;
            require(at < stop && (tokens.is(at, TokenType.IDENT) || tokens.isDelim(at, '*')));
            at++;
            return new SimpleSelector.Functional(
                    "not",
                    new SelectorList(List.of(ComplexSelector.of(
                            List.of(new CompoundSelector(List.of(new SimpleSelector.Universal()), null, List.of())),
                            List.of()))));
        }
        if (tokens.isDelim(at, '*')) {
            at++;
            return new SimpleSelector.Universal();
        }
        require(at < stop && tokens.is(at, TokenType.IDENT));
        return new SimpleSelector.Type(tokens.value(at++));
    }

    private SimpleSelector attribute() {
        int close = tokens.afterBlock(at, end);
        int stop = tokens.is(close - 1, TokenType.RIGHT_BRACKET) ? close - 1 : close;
        at = tokens.skipBlank(at + 1, stop);
        if (tokens.isDelim(at, '*') && tokens.isDelim(at + 1, '|')) {
            at += 2;
        }
        if (tokens.isDelim(at, '|')) {
            at++;
        }
        require(at < stop && tokens.is(at, TokenType.IDENT));
        String name = tokens.value(at++);
        at = tokens.skipBlank(at, stop);
        if (at >= stop) {
            at = close;
            return new SimpleSelector.Attribute(name, "", "", (char) 0);
        }
        String operator = tokens.raw(at++);
        if (!operator.equals("=")) {
            require(operator.length() == 1 && "~|^$*".contains(operator) && at < stop && tokens.isDelim(at++, '='));
            operator += "=";
        }
        at = tokens.skipBlank(at, stop);
        require(at < stop && (tokens.is(at, TokenType.IDENT) || tokens.is(at, TokenType.STRING)));
        String value = tokens.value(at++);
        at = tokens.skipBlank(at, stop);
        char flag = 0;
        if (at < stop) {
            String word = tokens.is(at, TokenType.IDENT) ? tokens.lower(at) : "";
            // Selectors 4 also knows the flag s, but Chromium drops a rule with it.
            require(word.equals("i"));
            flag = word.charAt(0);
            at = tokens.skipBlank(at + 1, stop);
        }
        require(at >= stop);
        at = close;
        return new SimpleSelector.Attribute(name, operator, value, flag);
    }

    private String pseudoElement(int stop) {
        String name = tokens.lower(at);
        boolean function = tokens.is(at, TokenType.FUNCTION);
        require(function || tokens.is(at, TokenType.IDENT));
        // Browsers on WebKit's line accept any name with their prefix.
        require(PSEUDO_ELEMENTS.contains(name) || name.startsWith("-webkit-") && !function);
        if (!function) {
            at++;
            return name;
        }
        int close = tokens.afterBlock(at, stop);
        require(tokens.skipBlank(at + 1, close) < close - 1);
        String whole = tokens.text().substring(tokens.start(at), tokens.end(close - 1));
        at = close;
        return whole;
    }

    private SimpleSelector pseudoClass(int stop) {
        if (tokens.is(at, TokenType.IDENT)) {
            String name = tokens.lower(at++);
            require(PSEUDO_CLASSES.contains(name) && !NOT_IN_BROWSERS.contains(name));
            return new SimpleSelector.PseudoClass(name);
        }
        require(tokens.is(at, TokenType.FUNCTION) && ++depth <= MOST_NESTED);
        String name = tokens.lower(at);
        int close = tokens.afterBlock(at, stop);
        int inner = tokens.is(close - 1, TokenType.RIGHT_PAREN) ? close - 1 : close;
        at++;
        SimpleSelector simple =
                switch (name) {
                    case "is", "where", "-webkit-any", "matches" -> {
                        require(!name.equals("matches"));
                        yield new SimpleSelector.Functional(name, forgiving(inner));
                    }
                    case "not" -> new SimpleSelector.Functional(name, list(inner, false));
                    case "has" -> {
                        // Selectors 4, section 4.5: it does not nest.
                        require(!inHas);
                        inHas = true;
                        try {
                            yield new SimpleSelector.Functional(name, list(inner, true));
                        } finally {
                            inHas = false;
                        }
                    }
                    case "host", "host-context" -> new SimpleSelector.Functional(name, list(inner, false));
                    case "nth-child", "nth-last-child", "nth-of-type", "nth-last-of-type" -> nth(name, inner);
                    default -> {
                        require(WITH_WORDS.contains(name));
                        yield new SimpleSelector.Words(name, words(inner));
                    }
                };
        at = close;
        depth--;
        return simple;
    }

    private SelectorList list(int stop, boolean relative) {
        List<ComplexSelector> list = new ArrayList<>();
        do {
            ComplexSelector s = complex(stop, relative);
            require(s.pseudoElement() == null);
            if (relative && !s.isRelative()) {
                List<Combinator> combinators = new ArrayList<>(s.combinators());
                combinators.add(0, Combinator.DESCENDANT);
                s = ComplexSelector.of(s.compounds(), combinators);
            }
            list.add(s);
        } while (takeComma(stop));
        return new SelectorList(List.copyOf(list));
    }

    /** A forgiving list drops what is not understood: Selectors 4, section 18.1. */
    private SelectorList forgiving(int stop) {
        List<ComplexSelector> list = new ArrayList<>();
        while (at < stop) {
            int itemEnd = at;
            while (itemEnd < stop && !tokens.is(itemEnd, TokenType.COMMA)) {
                itemEnd = tokens.opens(itemEnd) ? tokens.afterBlock(itemEnd, stop) : itemEnd + 1;
            }
            int outerDepth = depth;
            try {
                ComplexSelector s = complex(itemEnd, false);
                if (s.pseudoElement() == null && tokens.skipBlank(at, itemEnd) >= itemEnd) {
                    list.add(s);
                }
            } catch (Invalid e) {
                depth = outerDepth;
            }
            at = itemEnd + 1;
        }
        return new SelectorList(List.copyOf(list));
    }

    private SimpleSelector nth(String name, int stop) {
        int formulaEnd = at;
        while (formulaEnd < stop
                && !(tokens.is(formulaEnd, TokenType.IDENT)
                        && tokens.lower(formulaEnd).equals("of"))) {
            formulaEnd++;
        }
        StringBuilder formula = new StringBuilder();
        for (int i = at; i < formulaEnd; i++) {
            formula.append(tokens.is(i, TokenType.COMMENT) ? "" : tokens.raw(i));
        }
        int[] ab = anPlusB(formula.toString().strip().toLowerCase(Locale.ROOT));
        SelectorList of = null;
        if (formulaEnd < stop) {
            require(name.endsWith("child"));
            at = formulaEnd + 1;
            of = list(stop, false);
        }
        return new SimpleSelector.Nth(name, ab[0], ab[1], of);
    }

    private static int[] anPlusB(String formula) {
        if (formula.equals("odd")) {
            return new int[] {2, 1};
        }
        if (formula.equals("even")) {
            return new int[] {2, 0};
        }
        Matcher m = AN_PLUS_B.matcher(formula);
        require(m.matches());
        if (m.group(4) != null) {
            return new int[] {0, integer(m.group(4))};
        }
        String a = m.group(1);
        int step = a.isEmpty() || a.equals("+") ? 1 : a.equals("-") ? -1 : integer(a);
        int offset = m.group(3) == null ? 0 : integer(m.group(2) + m.group(3));
        return new int[] {step, offset};
    }

    private static int integer(String digits) {
        try {
            return Integer.parseInt(digits);
        } catch (NumberFormatException e) {
            return digits.startsWith("-") ? Integer.MIN_VALUE / 2 : Integer.MAX_VALUE / 2;
        }
    }

    private List<String> words(int stop) {
        List<String> words = new ArrayList<>();
        for (; at < stop; at++) {
            if (tokens.is(at, TokenType.IDENT) || tokens.is(at, TokenType.STRING)) {
                words.add(tokens.value(at));
            } else {
                require(tokens.isBlank(at) || tokens.is(at, TokenType.COMMA));
            }
        }
        require(!words.isEmpty());
        return List.copyOf(words);
    }
}

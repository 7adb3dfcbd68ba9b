package org.calmpalette.core.section;

import java.nio.charset.StandardCharsets;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.Budget;
import org.calmpalette.core.cascade.Understanding;
import org.calmpalette.core.css.Edit;
import org.calmpalette.core.css.Escapes;
import org.calmpalette.core.css.Node;
import org.calmpalette.core.css.SourceText;
import org.calmpalette.core.css.Stylesheet;
import org.calmpalette.core.css.TokenType;
import org.calmpalette.core.css.Tokens;
import org.calmpalette.core.css.selector.Combinator;
import org.calmpalette.core.css.selector.ComplexSelector;
import org.calmpalette.core.css.selector.CompoundSelector;
import org.calmpalette.core.css.selector.SelectorList;
import org.calmpalette.core.css.selector.SimpleSelector;

/**
 * The stylesheet of a section, made to hold for one section on a page and for nothing else: every selector is put behind the attribute
 * that names the section, so that what it finds lies inside (Selectors 4, descendant combinator); what CSS has no scope for (names of
 * keyframes) gets the section's name; what would reach out of it is refused with its line.
 */
final class SectionSheet {
    /** At-rules that only hold what is scoped, and keyframes, whose names are made the section's own. */
    private static final Set<String> AT_RULES = Set.of("media", "supports", "container", "starting-style", "keyframes");

    private static final Set<String> ANIMATIONS = Set.of("animation", "animation-name");

    private final Stylesheet sheet;
    private final String root;
    private final String prefix;
    private final Map<String, String> properties;
    private final Map<String, String> addresses;
    private final Identifiers identifiers;
    private final Set<String> overruled;
    private final Set<String> keyframes = new HashSet<>();
    private final List<Edit> edits = new ArrayList<>();

    private SectionSheet(
            String css,
            String root,
            String prefix,
            Map<String, String> properties,
            Map<String, String> pictures,
            Identifiers identifiers,
            Set<String> overruled) {
        this.overruled = new TreeSet<>(overruled);
        this.sheet = Stylesheet.read(SourceText.of(SectionKit.CSS, css));
        this.root = root;
        this.prefix = prefix;
        this.properties = properties;
        this.addresses = new HashMap<>(pictures);
        this.addresses.putAll(identifiers.anchors());
        this.identifiers = identifiers;
    }

    /** @throws BadInputException with the line, if a rule would reach out of the section */
    static void check(SectionKit kit) {
        scoped(kit, "x", Map.of(), Map.of(), Identifiers.NONE, Set.of());
    }

    /**
     * What stands before the rules of a section that is {@link SectionKit#apart()}: everything that rules around it say of what is in it
     * goes back to what browsers do (CSS Cascade 4, section 7.3.4). Attributes that say how something looks would go back, too, so what
     * has them is left out.
     */
    private static final String APART =
            """
            %1$s, %1$s :where(:not(svg, svg *, font, [width], [height], [align], [valign], [bgcolor], [border], [cellpadding], [cellspacing])),
            %1$s::before, %1$s::after, %1$s ::before, %1$s ::after {
              all: revert;%2$s
            }
            """;

    /** Weighs more than what themes write, and is true of everything. */
    private static final String HEAVY = ":not(#_#_)";

    /**
     * The rules of a section as they are on its page; the other parameters are those below.
     *
     * @param overruled longhands that the theme's rules say with {@code !important} of what is in it
     */
    static String scoped(
            SectionKit kit,
            String name,
            Map<String, String> properties,
            Map<String, String> pictures,
            Identifiers identifiers,
            Set<String> overruled) {
        if (!kit.apart()) {
            return scoped(kit.css(), name, properties, pictures, identifiers);
        }
        String root = "[data-section=\"" + name + "\"]" + HEAVY;
        SectionSheet sheet =
                new SectionSheet(kit.css(), root, name + "-", properties, pictures, identifiers, overruled);
        sheet.closeOverruled();
        String back = sheet.overruled.stream()
                .map(longhand -> "\n  " + longhand + ": revert !important;")
                .collect(Collectors.joining());
        return String.format(APART, root, back) + sheet.scoped();
    }

    /** A shorthand that is said with importance says all its longhands so, and what else of the section says one of these has to follow. */
    private void closeOverruled() {
        int before;
        do {
            before = overruled.size();
            sheet.eachDeclaration((d, around) -> {
                Set<String> sides = Understanding.sides(d.property());
                if (sides.stream().anyMatch(overruled::contains)) {
                    overruled.addAll(sides);
                }
            });
        } while (overruled.size() > before);
    }

    /**
     * @param name of the section on its page
     * @param properties custom properties of its settings, by the name that the section's own stylesheet has for them
     * @param pictures addresses of its pictures in the theme, by their own
     * @param identifiers in its markup
     */
    static String scoped(
            String css,
            String name,
            Map<String, String> properties,
            Map<String, String> pictures,
            Identifiers identifiers) {
        String root = "[data-section=\"" + name + "\"]";
        return new SectionSheet(css, root, name + "-", properties, pictures, identifiers, Set.of()).scoped();
    }

    private String scoped() {
        if (!sheet.faults().isEmpty()) {
            var f = sheet.faults().get(0);
            throw new BadInputException(
                    SectionKit.CSS + ", line " + sheet.source().line(f.offset()) + ": "
                            + f.kind().message(),
                    f.kind().mend());
        }
        sheet.rules().forEach(this::names);
        sheet.rules().forEach(r -> rule(r, null));
        Tokens tokens = sheet.tokens();
        loads();
        for (int i = 0; i < tokens.size(); i++) {
            if (tokens.is(i, TokenType.IDENT) && properties.containsKey(tokens.value(i))) {
                edits.add(new Edit(tokens.start(i), tokens.end(i), properties.get(tokens.value(i))));
            }
            boolean quoted = tokens.is(i, TokenType.STRING)
                    && i > 0
                    && tokens.is(i - 1, TokenType.FUNCTION)
                    && tokens.lower(i - 1).equals("url");
            if ((quoted || tokens.is(i, TokenType.URL)) && addresses.containsKey(tokens.value(i))) {
                String address = Escapes.string(addresses.get(tokens.value(i)));
                edits.add(new Edit(tokens.start(i), tokens.end(i), quoted ? address : "url(" + address + ")"));
            }
        }
        sheet.eachDeclaration((d, around) -> {
            for (int i = d.valueFirst(); ANIMATIONS.contains(d.property()) && i < d.valueEnd(); i++) {
                if (isName(i) && keyframes.contains(tokens.value(i))) {
                    edits.add(named(i));
                }
            }
            // In keyframes it would take the declaration out (CSS Animations 1, section 3).
            boolean moves = around.stream()
                    .anyMatch(r -> r instanceof Node.AtRule at && at.name().equals("keyframes"));
            if (!d.important()
                    && !moves
                    && Understanding.sides(d.property()).stream().anyMatch(overruled::contains)) {
                int end = tokens.end(d.end() - 1);
                edits.add(new Edit(end, end, " !important"));
            }
        });
        edits.sort(java.util.Comparator.comparingInt(Edit::start).thenComparingInt(Edit::end));
        return new String(sheet.source().withEdits(edits), StandardCharsets.UTF_8);
    }

    /** Functions whose strings are addresses (CSS Values 4, section 4.5; CSS Images 4, section 2). */
    private static final Set<String> LOADING =
            Set.of("url", "src", "image", "image-set", "-webkit-image-set", "cross-fade");

    /** Refuses what a browser would ask another host for; pictures that the rules hold themselves run nothing and load nothing. */
    private void loads() {
        Tokens tokens = sheet.tokens();
        Deque<String> around = new ArrayDeque<>();
        for (int i = 0; i < tokens.size(); i++) {
            Budget.step();
            boolean address = tokens.is(i, TokenType.URL)
                    || tokens.is(i, TokenType.STRING) && !around.isEmpty() && LOADING.contains(around.peek());
            String value = address ? tokens.value(i).strip() : "";
            boolean inside =
                    value.startsWith("#") || value.toLowerCase(Locale.ROOT).startsWith("data:image/");
            if (address && !inside && !SectionSafety.isOwn(value)) {
                throw new BadInputException(
                        SectionKit.CSS + ", line " + sheet.source().line(tokens.start(i)) + ": it loads “"
                                + (value.length() > 60 ? value.substring(0, 60) + "…" : value) + "”.",
                        "Put the file beside " + SectionKit.CSS
                                + " and name it there: nothing is loaded from elsewhere.");
            }
            if (tokens.opens(i)) {
                around.push(tokens.is(i, TokenType.FUNCTION) ? tokens.lower(i) : "");
            } else if (tokens.closes(i) && !around.isEmpty()) {
                around.pop();
            }
        }
    }

    private void names(Node node) {
        if (node instanceof Node.AtRule at) {
            if (at.name().equals("keyframes")) {
                int name = sheet.tokens().skipBlank(at.preludeFirst(), at.preludeEnd());
                if (!isName(name)) {
                    throw refused(at, "these keyframes have no name", "Write @keyframes and a name.");
                }
                keyframes.add(sheet.tokens().value(name));
            }
            at.children().forEach(this::names);
        }
    }

    /** A name of keyframes is an identifier or a string (CSS Animations 1, section 3): both name the same. */
    private boolean isName(int token) {
        return token < sheet.tokens().size()
                && (sheet.tokens().is(token, TokenType.IDENT) || sheet.tokens().is(token, TokenType.STRING));
    }

    private Edit named(int token) {
        int start = sheet.tokens().start(token) + (sheet.tokens().is(token, TokenType.STRING) ? 1 : 0);
        return new Edit(start, start, prefix);
    }

    /** @param around the selectors of the rule around it, scoped; null outside of every rule */
    private void rule(Node node, SelectorList around) {
        if (node instanceof Node.AtRule at) {
            if (!AT_RULES.contains(at.name())) {
                throw refused(
                        at,
                        "@" + at.name() + " holds for the whole page",
                        "Leave it out, or write it into the theme's own stylesheet.");
            }
            if (at.name().equals("keyframes")) {
                int first = sheet.tokens().skipBlank(at.preludeFirst(), at.preludeEnd());
                edits.add(named(first));
                return;
            }
            at.children().forEach(c -> rule(c, around));
        } else if (node instanceof Node.StyleRule style) {
            identifiers(style);
            SelectorList own = around == null ? selectors(style) : nested(style, around);
            style.children().forEach(c -> rule(c, own));
        } else if (node instanceof Node.Declaration d && around == null) {
            throw refused(d, "a declaration stands outside of every rule", "Put it into :scope { … }.");
        }
    }

    /** Identifiers in a selector, as they are called on the page. */
    private void identifiers(Node.StyleRule style) {
        Tokens tokens = sheet.tokens();
        for (int i = style.preludeFirst(); i < style.preludeEnd(); i++) {
            if (tokens.is(i, TokenType.HASH)
                    && !identifiers.named(tokens.value(i)).equals(tokens.value(i))) {
                edits.add(new Edit(
                        tokens.start(i), tokens.end(i), "#" + Escapes.identifier(identifiers.named(tokens.value(i)))));
            }
        }
    }

    private SelectorList nested(Node.StyleRule style, SelectorList around) {
        String written = sheet.prelude(style).strip();
        SelectorList list = SelectorList.parse(sheet.tokens(), style.preludeFirst(), style.preludeEnd(), around)
                .orElseThrow(
                        () -> refused(style, "“" + written + "” is no selector that browsers know", "Correct it."));
        if (written.contains(":scope")) {
            throw refused(style, "“" + written + "” names the section inside of a rule", "Write & for what is around.");
        }
        for (ComplexSelector one : list.selectors()) {
            boolean stays = false;
            for (int i = 0; i < one.compounds().size(); i++) {
                // What stands beside a part of the section is in the section, too.
                stays |= isNesting(one.compounds().get(i))
                        && (goesInside(one, i) || around.selectors().stream().noneMatch(SectionSheet::mayBeTheSection));
            }
            if (!stays) {
                throw refused(
                        style,
                        "“" + written + "” may find what stands beside the section",
                        "Let it begin with & and name what is inside of it.");
            }
        }
        return list;
    }

    private static boolean isNesting(CompoundSelector compound) {
        return compound.simples().stream().anyMatch(SimpleSelector.Nesting.class::isInstance);
    }

    /** Whether a selector that was taken may find the section's own element, not only what is in it. */
    private static boolean mayBeTheSection(ComplexSelector selector) {
        List<SimpleSelector> subject = selector.subject().simples();
        return subject.stream()
                .filter(SimpleSelector.Nesting.class::isInstance)
                .findFirst()
                .map(n -> ((SimpleSelector.Nesting) n)
                        .parent().selectors().stream().anyMatch(SectionSheet::mayBeTheSection))
                .orElse(selector.compounds().size() == 1);
    }

    /** Whether what a selector finds is what its compound at an index finds, or lies inside of that. */
    private static boolean goesInside(ComplexSelector selector, int index) {
        Combinator next =
                index < selector.compounds().size() - 1 ? selector.combinators().get(index) : Combinator.DESCENDANT;
        return next == Combinator.DESCENDANT || next == Combinator.CHILD;
    }

    /** Each selector of a list by itself, as it is written. */
    private SelectorList selectors(Node.StyleRule style) {
        Tokens tokens = sheet.tokens();
        List<ComplexSelector> all = new ArrayList<>();
        int from = tokens.skipBlank(style.preludeFirst(), style.preludeEnd());
        int depth = 0;
        for (int i = from; i <= style.preludeEnd(); i++) {
            boolean ends = i == style.preludeEnd() || depth == 0 && tokens.is(i, TokenType.COMMA);
            if (ends) {
                all.add(selector(style, from, i));
                from = i < style.preludeEnd() ? tokens.skipBlank(i + 1, style.preludeEnd()) : i;
            } else if (tokens.is(i, TokenType.FUNCTION)
                    || tokens.is(i, TokenType.LEFT_PAREN)
                    || tokens.is(i, TokenType.LEFT_BRACKET)) {
                depth++;
            } else if (tokens.is(i, TokenType.RIGHT_PAREN) || tokens.is(i, TokenType.RIGHT_BRACKET)) {
                depth--;
            }
        }
        return new SelectorList(all);
    }

    private ComplexSelector selector(Node.StyleRule style, int first, int end) {
        String written = sheet.text(first, end).strip();
        boolean itself = written.startsWith(":scope") || written.startsWith("&");
        String rest = itself ? written.substring(written.startsWith("&") ? 1 : 6) : written;
        if (rest.contains(":scope") || rest.contains("&")) {
            throw refused(style, "“" + written + "” names the section in its middle", "Let it begin with :scope.");
        }
        String full = itself ? root + rest : root + " " + rest;
        SelectorList list = SelectorList.parse(full)
                .orElseThrow(
                        () -> refused(style, "“" + written + "” is no selector that browsers know", "Correct it."));
        ComplexSelector one = list.selectors().get(0);
        if (!goesInside(one, 0)) {
            throw refused(
                    style, "“" + written + "” finds what stands beside the section", "Name what is inside of it.");
        }
        int start = sheet.tokens().start(first);
        edits.add(
                new Edit(start, itself ? start + written.length() - rest.length() : start, itself ? root : root + " "));
        return one;
    }

    private BadInputException refused(Node node, String what, String mend) {
        return new BadInputException(SectionKit.CSS + ", line " + sheet.line(node) + ": " + what + ".", mend);
    }
}

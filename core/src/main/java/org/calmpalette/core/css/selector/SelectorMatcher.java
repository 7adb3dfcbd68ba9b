package org.calmpalette.core.css.selector;

import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import org.calmpalette.core.Budget;
import org.jsoup.nodes.Document;
import org.jsoup.nodes.Element;

/**
 * Matches selectors against the elements of a page: Selectors 4, section 17.2. Element states that depend on a person
 * are an input; those that follow from the markup are read from it.
 */
public final class SelectorMatcher {
    /** Attributes whose values HTML compares without regard to case: HTML Standard, section 4.16.2. */
    private static final Set<String> CASELESS_VALUES = Set.of(
            "accept",
            "accept-charset",
            "align",
            "alink",
            "axis",
            "bgcolor",
            "charset",
            "checked",
            "clear",
            "codetype",
            "color",
            "compact",
            "declare",
            "defer",
            "dir",
            "direction",
            "disabled",
            "enctype",
            "face",
            "frame",
            "hreflang",
            "http-equiv",
            "lang",
            "language",
            "link",
            "media",
            "method",
            "multiple",
            "nohref",
            "noresize",
            "noshade",
            "nowrap",
            "readonly",
            "rel",
            "rev",
            "rules",
            "scope",
            "scrolling",
            "selected",
            "shape",
            "target",
            "text",
            "type",
            "valign",
            "valuetype",
            "vlink");

    private static final SimpleSelector.Nth OF_TYPE = new SimpleSelector.Nth("nth-of-type", 0, 1, null);
    private static final SimpleSelector.Nth LAST_OF_TYPE = new SimpleSelector.Nth("nth-last-of-type", 0, 1, null);

    private final States states;
    private final boolean quirks;
    private final Element scope;
    private SelectorMatcher opposite;

    public SelectorMatcher(Document page, States states) {
        this.states = states;
        this.quirks = page.quirksMode() == Document.QuirksMode.quirks;
        this.scope = null;
    }

    private SelectorMatcher(SelectorMatcher outer, Element scope, States states) {
        this.states = states;
        this.quirks = outer.quirks;
        this.scope = scope;
    }

    public States states() {
        return states;
    }

    /** Asks of the argument of a negation. */
    private SelectorMatcher opposite() {
        if (opposite == null) {
            opposite = states.opposite() == states ? this : new SelectorMatcher(this, scope, states.opposite());
        }
        return opposite;
    }

    /** The same matcher with another meaning of {@code :scope}. */
    public SelectorMatcher scopedTo(Element root) {
        return new SelectorMatcher(this, root, states);
    }

    /** Whether any selector of the list means this element itself; those that mean a pseudo-element of it do not. */
    public boolean matches(SelectorList list, Element element) {
        for (ComplexSelector s : list.selectors()) {
            if (s.pseudoElement() == null && matches(s, element)) {
                return true;
            }
        }
        return false;
    }

    /** Whether the selector means this element, or a pseudo-element of it. */
    public boolean matches(ComplexSelector selector, Element element) {
        Budget.step();
        return matchesFrom(selector, selector.compounds().size() - 1, element);
    }

    private boolean matchesFrom(ComplexSelector selector, int index, Element element) {
        if (!matches(selector.compounds().get(index), element)) {
            return false;
        }
        if (index == 0) {
            return true;
        }
        switch (selector.combinators().get(index - 1)) {
            case CHILD -> {
                Element parent = parent(element);
                return parent != null && matchesFrom(selector, index - 1, parent);
            }
            case DESCENDANT -> {
                for (Element a = parent(element); a != null; a = parent(a)) {
                    if (matchesFrom(selector, index - 1, a)) {
                        return true;
                    }
                }
                return false;
            }
            case NEXT_SIBLING -> {
                Element before = element.previousElementSibling();
                return before != null && matchesFrom(selector, index - 1, before);
            }
            case SUBSEQUENT_SIBLING -> {
                for (Element b = element.previousElementSibling(); b != null; b = b.previousElementSibling()) {
                    Budget.step();
                    if (matchesFrom(selector, index - 1, b)) {
                        return true;
                    }
                }
                return false;
            }
            default -> throw new IllegalStateException();
        }
    }

    /** The parent element; jsoup's document is an element too, but none that a selector can mean. */
    public static Element parent(Element element) {
        Element parent = element.parent();
        return parent instanceof Document ? null : parent;
    }

    private boolean matches(CompoundSelector compound, Element element) {
        for (SimpleSelector simple : compound.simples()) {
            if (!matches(simple, element)) {
                return false;
            }
        }
        return true;
    }

    private boolean matches(SimpleSelector simple, Element element) {
        if (simple instanceof SimpleSelector.ClassName c) {
            return hasClass(element, c.name());
        } else if (simple instanceof SimpleSelector.Type t) {
            // In HTML pages browsers compare names of SVG elements without regard to case too.
            return element.normalName().equalsIgnoreCase(t.name());
        } else if (simple instanceof SimpleSelector.Universal) {
            return true;
        } else if (simple instanceof SimpleSelector.Id i) {
            String id = element.id();
            return quirks ? id.equalsIgnoreCase(i.id()) : id.equals(i.id());
        } else if (simple instanceof SimpleSelector.Attribute a) {
            return matches(a, element);
        } else if (simple instanceof SimpleSelector.PseudoClass p) {
            return matches(p.name(), element);
        } else if (simple instanceof SimpleSelector.Functional f) {
            return switch (f.name()) {
                case "not" -> !opposite().matches(f.arguments(), element);
                case "has" -> has(f.arguments(), element);
                // Pages here have no shadow trees.
                case "host", "host-context" -> false;
                default -> matches(f.arguments(), element);
            };
        } else if (simple instanceof SimpleSelector.Nth n) {
            return (n.of() == null || matches(n.of(), element)) && n.matches(position(n, element));
        } else if (simple instanceof SimpleSelector.Nesting n) {
            return n.parent() == null ? matches("scope", element) : matches(n.parent(), element);
        } else if (simple instanceof SimpleSelector.Words w) {
            return switch (w.name()) {
                case "lang" -> Language.matches(element, w.words());
                case "dir" -> Direction.of(element).equals(w.words().get(0).toLowerCase(Locale.ROOT));
                default -> false;
            };
        }
        throw new IllegalStateException();
    }

    static boolean isForeign(Element element) {
        String namespace = element.tag().namespace();
        return namespace.endsWith("svg") || namespace.endsWith("MathML");
    }

    private boolean hasClass(Element element, String name) {
        String classes = element.attributes().getIgnoreCase("class");
        int length = name.length();
        if (length == 0) {
            return false;
        }
        for (int at = 0; at <= classes.length() - length; at++) {
            if (classes.regionMatches(quirks, at, name, 0, length)
                    && (at == 0 || isSpace(classes.charAt(at - 1)))
                    && (at + length == classes.length() || isSpace(classes.charAt(at + length)))) {
                return true;
            }
        }
        return false;
    }

    private static boolean isSpace(char c) {
        return c == ' ' || c == '\t' || c == '\n' || c == '\r' || c == '\f';
    }

    private static boolean matches(SimpleSelector.Attribute a, Element element) {
        boolean foreign = isForeign(element);
        boolean present = element.attributes().hasKeyIgnoreCase(a.name());
        if (!present || a.operator().isEmpty()) {
            return present;
        }
        String have = element.attributes().getIgnoreCase(a.name());
        String want = a.value();
        if (a.flag() == 'i'
                || a.flag() == 0
                        && !foreign
                        && CASELESS_VALUES.contains(a.name().toLowerCase(Locale.ROOT))) {
            have = have.toLowerCase(Locale.ROOT);
            want = want.toLowerCase(Locale.ROOT);
        }
        return switch (a.operator()) {
            case "=" -> have.equals(want);
            case "~=" ->
                !want.isEmpty() && List.of(have.split("[ \\t\\n\\r\\f]+")).contains(want);
            case "|=" -> have.equals(want) || have.startsWith(want + "-");
            case "^=" -> !want.isEmpty() && have.startsWith(want);
            case "$=" -> !want.isEmpty() && have.endsWith(want);
            default -> !want.isEmpty() && have.contains(want);
        };
    }

    private boolean matches(String pseudoClass, Element e) {
        return switch (pseudoClass) {
            case "root" -> e.parent() instanceof Document;
            case "scope" -> scope == null ? e.parent() instanceof Document : e == scope;
            case "empty" ->
                e.childNodes().stream()
                        .noneMatch(n -> n instanceof Element
                                || n instanceof org.jsoup.nodes.TextNode t
                                        && !t.getWholeText().isEmpty()
                                || n instanceof org.jsoup.nodes.DataNode d
                                        && !d.getWholeData().isEmpty());
            case "first-child" -> e.previousElementSibling() == null;
            case "last-child" -> e.nextElementSibling() == null;
            case "only-child" -> e.previousElementSibling() == null && e.nextElementSibling() == null;
            case "first-of-type" -> position(OF_TYPE, e) == 1;
            case "last-of-type" -> position(LAST_OF_TYPE, e) == 1;
            case "only-of-type" -> position(OF_TYPE, e) == 1 && position(LAST_OF_TYPE, e) == 1;
            case "link" -> FormState.isLink(e) && states.lacks(e, "visited");
            case "any-link", "-webkit-any-link" -> FormState.isLink(e);
            case "visited" -> FormState.isLink(e) && states.has(e, "visited");
            case "hover",
                    "active",
                    "focus",
                    "focus-visible",
                    "focus-within",
                    "target",
                    "user-valid",
                    "user-invalid",
                    "autofill",
                    "-webkit-autofill",
                    "fullscreen",
                    "-webkit-full-screen",
                    "modal",
                    "popover-open",
                    "paused" -> states.has(e, pseudoClass);
            case "defined" -> !e.normalName().contains("-") || isForeign(e);
            default -> FormState.matches(pseudoClass, e);
        };
    }

    private boolean has(SelectorList relative, Element anchor) {
        for (ComplexSelector s : relative.selectors()) {
            boolean found =
                    switch (s.combinators().get(0)) {
                        case CHILD, DESCENDANT -> anyDescendant(s, anchor, anchor);
                        case NEXT_SIBLING, SUBSEQUENT_SIBLING -> {
                            boolean any = false;
                            for (Element b = anchor.nextElementSibling();
                                    b != null && !any;
                                    b = b.nextElementSibling()) {
                                any = matchesRelative(s, s.compounds().size() - 1, b, anchor)
                                        || anyDescendant(s, b, anchor);
                            }
                            yield any;
                        }
                    };
            if (found) {
                return true;
            }
        }
        return false;
    }

    private boolean anyDescendant(ComplexSelector s, Element under, Element anchor) {
        for (Element child : under.children()) {
            Budget.step();
            if (matchesRelative(s, s.compounds().size() - 1, child, anchor) || anyDescendant(s, child, anchor)) {
                return true;
            }
        }
        return false;
    }

    /** Like {@link #matchesFrom}, but the leftmost combinator has to lead to the anchor. */
    private boolean matchesRelative(ComplexSelector s, int index, Element element, Element anchor) {
        if (!matches(s.compounds().get(index), element)) {
            return false;
        }
        boolean leftmost = index == 0;
        switch (s.combinators().get(index)) {
            case CHILD -> {
                Element p = parent(element);
                return p != null && (leftmost ? p == anchor : matchesRelative(s, index - 1, p, anchor));
            }
            case DESCENDANT -> {
                for (Element a = parent(element); a != null; a = parent(a)) {
                    if (leftmost ? a == anchor : matchesRelative(s, index - 1, a, anchor)) {
                        return true;
                    }
                }
                return false;
            }
            case NEXT_SIBLING -> {
                Element b = element.previousElementSibling();
                return b != null && (leftmost ? b == anchor : matchesRelative(s, index - 1, b, anchor));
            }
            default -> {
                for (Element b = element.previousElementSibling(); b != null; b = b.previousElementSibling()) {
                    if (leftmost ? b == anchor : matchesRelative(s, index - 1, b, anchor)) {
                        return true;
                    }
                }
                return false;
            }
        }
    }

    /** Where each child of one parent stands among those that count, from both ends. */
    private static final class Places {
        private final Map<Element, Integer> fromStart = new IdentityHashMap<>();
        private final Map<Object, Integer> totals = new HashMap<>();
    }

    private final Map<List<Object>, Places> places = new HashMap<>();

    private int position(SimpleSelector.Nth nth, Element e) {
        Element parent = e.parent();
        Places known = parent == null ? null : places.get(List.of(new Same(parent), nth.ofType(), new Same(nth.of())));
        if (known == null) {
            known = new Places();
            for (Element child : parent == null ? List.of(e) : parent.children()) {
                Budget.step();
                boolean counts = nth.of() == null || matches(nth.of(), child);
                Object group =
                        nth.ofType() ? child.tagName() + " " + child.tag().namespace() : "";
                int before = known.totals.merge(group, counts ? 1 : 0, Integer::sum);
                known.fromStart.put(child, before);
            }
            if (parent != null) {
                places.put(List.of(new Same(parent), nth.ofType(), new Same(nth.of())), known);
            }
        }
        int at = known.fromStart.get(e);
        return nth.fromEnd()
                ? known.totals.get(nth.ofType() ? e.tagName() + " " + e.tag().namespace() : "") - at + 1
                : at;
    }

    /** A thing that is only the same as itself. */
    private record Same(Object thing) {
        @Override
        public boolean equals(Object other) {
            return other instanceof Same s && s.thing == thing;
        }

        @Override
        public int hashCode() {
            return System.identityHashCode(thing);
        }
    }
}

package org.calmpalette.core.change;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.calmpalette.core.cascade.Explanation;
import org.calmpalette.core.cascade.Origin;
import org.calmpalette.core.css.selector.ComplexSelector;
import org.calmpalette.core.css.selector.SelectorList;
import org.calmpalette.core.css.selector.SelectorMatcher;
import org.calmpalette.core.css.selector.SimpleSelector;
import org.calmpalette.core.css.selector.Specificity;
import org.calmpalette.core.css.selector.States;
import org.calmpalette.core.page.Page;
import org.jsoup.nodes.Element;

/**
 * A selector raised by the least that beats another declaration: CSS Cascade 5, section 6, and Selectors 4, section 17.
 *
 * @param important whether nothing but {@code !important} does it
 */
public record Strengthened(String selector, boolean important, boolean raised) {
    private static final int MOST_REPEATS = 6;

    /**
     * @param selector of the rule that is to win, as a list
     * @param winner what it has to beat; null for nothing
     * @param after whether the rule comes after the winner
     * @param pages on which a raised selector has to find the same elements
     * @return empty if no rule outside can beat it: an important declaration in a layer
     */
    public static Optional<Strengthened> over(
            SelectorList selector, Explanation.Cause winner, boolean after, List<Page> pages) {
        if (winner == null
                || winner.origin() == Origin.USER_AGENT && !winner.important()
                || winner.origin() == Origin.PRESENTATION) {
            return Optional.of(new Strengthened(selector.toString(), false, false));
        }
        if (winner.important() && !winner.layer().isEmpty() || winner.origin() == Origin.USER_AGENT) {
            return Optional.empty();
        }
        boolean important = winner.important() || winner.origin() == Origin.STYLE_ATTRIBUTE;
        boolean strongEnough = winner.origin() == Origin.STYLE_ATTRIBUTE && !winner.important()
                || !winner.layer().isEmpty();
        List<String> out = new ArrayList<>();
        boolean raised = false;
        for (ComplexSelector s : selector.selectors()) {
            String text = s.toString();
            if (!strongEnough && !beats(s.specificity(), winner.specificity(), after)) {
                Optional<String> more = raise(s, winner.specificity(), after, pages);
                if (more.isEmpty()) {
                    return Optional.of(new Strengthened(selector.toString(), true, false));
                }
                text = more.get();
                raised = true;
            }
            out.add(text);
        }
        return Optional.of(new Strengthened(String.join(", ", out), important, raised));
    }

    private static boolean beats(Specificity own, Specificity other, boolean after) {
        int by = own.compareTo(other);
        return by > 0 || by == 0 && after;
    }

    /** Tried from the least to the most; a variant that finds less, such as {@code body .x} for a class of the body, is passed over. */
    private static Optional<String> raise(ComplexSelector s, Specificity other, boolean after, List<Page> pages) {
        String text = s.toString();
        List<String> variants = new ArrayList<>();
        boolean rooted = s.compounds().get(0).simples().stream()
                .anyMatch(x -> x.toString().equals(":root")
                        || x instanceof SimpleSelector.Type t
                                && List.of("html", "body").contains(t.name()));
        if (!rooted) {
            variants.add("body " + text);
            variants.add("html body " + text);
        }
        String handle = s.subject().simples().stream()
                .filter(x -> x instanceof SimpleSelector.ClassName || x instanceof SimpleSelector.Attribute)
                .map(Object::toString)
                .findFirst()
                .orElse("");
        String id = s.subject().simples().stream()
                .filter(SimpleSelector.Id.class::isInstance)
                .map(Object::toString)
                .findFirst()
                .orElse("");
        String end = s.pseudoElement() == null ? "" : "::" + s.pseudoElement();
        String bare = text.substring(0, text.length() - end.length());
        for (int n = 1; n <= MOST_REPEATS; n++) {
            if (!handle.isEmpty()) {
                String repeated = bare + handle.repeat(n) + end;
                variants.add(repeated);
                if (!rooted) {
                    variants.add("body " + repeated);
                    variants.add("html body " + repeated);
                }
            } else if (!rooted) {
                variants.add(":root".repeat(n) + " " + text);
            } else {
                // An attribute selector that nothing has, turned round, holds everywhere and counts as a class.
                variants.add(bare + ":not([\\_])".repeat(n) + end);
            }
        }
        for (int n = 1; n <= MOST_REPEATS; n++) {
            variants.add(id.isEmpty() ? bare + ":not(#\\_)".repeat(n) + end : bare + id.repeat(n) + end);
        }
        return variants.stream()
                .filter(v -> SelectorList.parse(v)
                        .filter(l -> beats(l.mostSpecific(), other, after)
                                && count(l, pages) == count(new SelectorList(List.of(s)), pages))
                        .isPresent())
                .findFirst();
    }

    private static int count(SelectorList list, List<Page> pages) {
        int found = 0;
        for (Page page : pages) {
            SelectorMatcher matcher = new SelectorMatcher(page.document(), States.ANY);
            for (Element e : page.elements()) {
                found += e != page.document() && list.selectors().stream().anyMatch(s -> matcher.matches(s, e)) ? 1 : 0;
            }
        }
        return found;
    }
}

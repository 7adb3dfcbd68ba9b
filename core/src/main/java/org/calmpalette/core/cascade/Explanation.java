package org.calmpalette.core.cascade;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Deque;
import java.util.IdentityHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.Budget;
import org.calmpalette.core.css.Reference;
import org.calmpalette.core.css.selector.Specificity;
import org.jsoup.nodes.Element;

/**
 * Why a property of an element has its value.
 *
 * @param value as the browser's computed style writes it; for properties that are not computed here, the declared value
 *     with its {@code var()} replaced
 * @param winner the declaration that decides, on the element or on the ancestor that it is inherited from; null if the
 *     value is the initial one
 * @param beaten the others, the strongest first
 * @param inheritedFrom the ancestor whose declaration decides; null if it is the element's own
 * @param through custom properties that the value comes through, from the declaration inwards
 */
public record Explanation(
        Element element,
        String property,
        String value,
        Cause winner,
        List<Cause> beaten,
        Element inheritedFrom,
        List<String> through) {

    /**
     * A declaration that takes part.
     *
     * @param line from 1, in the file
     * @param column from 1, in UTF-16 code units
     * @param because why it does not win, or what is particular about the winner
     * @param start offset of the declaration in the file's text; -1 where there is none to change
     * @param origin whose rule it is
     * @param conditions at-rules around it, from the outermost
     */
    public record Cause(
            String file,
            int line,
            int column,
            String selector,
            Specificity specificity,
            boolean important,
            String layer,
            String property,
            String written,
            Because because,
            int start,
            Origin origin,
            List<String> conditions) {

        /** True for a declaration in a stylesheet of the theme, as a file or inside a page. */
        public boolean isInTheme() {
            return start >= 0 && origin == Origin.AUTHOR;
        }

        /** True for one in a style attribute that is written in quotes and without character references. */
        public boolean isInAttribute() {
            return start >= 0 && origin == Origin.STYLE_ATTRIBUTE;
        }
    }

    /**
     * Explains a longhand or a custom property of an element.
     *
     * @throws BadInputException if the property is a shorthand or no property
     */
    public static Explanation of(ElementStyle style, String property) {
        if (Properties.isShorthand(property)) {
            throw new BadInputException(
                    "“" + property + "” is a shorthand for several properties.",
                    "Ask for one of them: " + String.join(", ", Properties.longhands(property)) + ".");
        }
        if (!Properties.isKnown(property) && !property.startsWith("--")) {
            throw new BadInputException(
                    "“" + property + "” is no CSS property that browsers know.", "Check its spelling.");
        }
        return property.startsWith("--") ? variable(style, property) : longhand(style, property);
    }

    private static Explanation longhand(ElementStyle style, String property) {
        ElementStyle decider = style;
        Optional<ElementStyle.Winner> winner = style.winner(property);
        while (winner.isEmpty()
                ? Properties.isInherited(property) && decider.parent() != null
                : inherits(winner.get(), property) && decider.parent() != null) {
            decider = decider.parent();
            winner = decider.winner(property);
        }
        List<Cause> beaten = new ArrayList<>();
        List<CascadedDeclaration> candidates = decider.candidates(property);
        CascadedDeclaration won = winner.map(ElementStyle.Winner::applied).orElse(null);
        for (int i = candidates.size() - 1; i >= 0; i--) {
            CascadedDeclaration a = candidates.get(i);
            if (a != won) {
                beaten.add(cause(a, won == null ? Because.DECIDES : because(a, won)));
            }
        }
        if (decider != style) {
            // What stands on the element itself hands the decision on.
            style.winner(property)
                    .ifPresent(own ->
                            beaten.add(0, cause(own.applied(), new Because(Because.Step.INHERITS, own.value()))));
        }
        Set<CascadedDeclaration> taken = Collections.newSetFromMap(new IdentityHashMap<>());
        taken.addAll(candidates);
        for (CascadedDeclaration a : decider.matchedDeclarations()) {
            Budget.step();
            if (sets(a, property) && !taken.contains(a)) {
                beaten.add(cause(a, Because.of(Because.Step.INVALID)));
            }
        }
        for (CascadedDeclaration a : decider.page().withUnmetConditions(decider.element(), decider.pseudoElement())) {
            if (sets(a, property)) {
                beaten.add(cause(
                        a,
                        new Because(
                                Because.Step.CONDITION,
                                decider.page().unmetConditions(a.rule()).get(0).toString())));
            }
        }
        Set<String> through = new LinkedHashSet<>();
        if (won != null) {
            follow(decider, won.value(), through);
        }
        String value = Properties.isComputed(property)
                ? style.computed(property)
                : winner.map(ElementStyle.Winner::value).orElse("");
        Because particular =
                winner.filter(ElementStyle.Winner::invalidAtComputedValueTime).isPresent()
                        ? Because.of(Because.Step.INVALID_COMPUTED)
                        : Because.DECIDES;
        return new Explanation(
                style.element(),
                property,
                value,
                won == null ? null : cause(won, particular),
                beaten,
                won == null || decider == style ? null : decider.element(),
                List.copyOf(through));
    }

    private static final int MOST_STEPS = 100;

    private static boolean inherits(ElementStyle.Winner winner, String property) {
        return winner.value().equals("inherit") || winner.value().equals("unset") && Properties.isInherited(property);
    }

    private static boolean sets(CascadedDeclaration a, String property) {
        return a.property().equals(property)
                || Properties.longhands(a.property()).contains(property)
                || a.property().equals("all");
    }

    private static Explanation variable(ElementStyle style, String name) {
        ElementStyle decider = style;
        List<CascadedDeclaration> own = declarations(decider, name);
        while (own.isEmpty() && decider.parent() != null) {
            decider = decider.parent();
            own = declarations(decider, name);
        }
        List<Cause> beaten = new ArrayList<>();
        CascadedDeclaration won = own.isEmpty() ? null : own.get(own.size() - 1);
        for (int i = own.size() - 2; i >= 0; i--) {
            beaten.add(cause(own.get(i), because(own.get(i), won)));
        }
        for (CascadedDeclaration a : decider.page().withUnmetConditions(decider.element(), decider.pseudoElement())) {
            if (a.property().equals(name)) {
                beaten.add(cause(
                        a,
                        new Because(
                                Because.Step.CONDITION,
                                decider.page().unmetConditions(a.rule()).get(0).toString())));
            }
        }
        Set<String> through = new LinkedHashSet<>();
        if (won != null) {
            follow(decider, won.value(), through);
        }
        return new Explanation(
                style.element(),
                name,
                style.variable(name).orElse(""),
                won == null ? null : cause(won, Because.DECIDES),
                beaten,
                won == null || decider == style ? null : decider.element(),
                List.copyOf(through));
    }

    private static List<CascadedDeclaration> declarations(ElementStyle style, String name) {
        return style.customDeclarations(name);
    }

    /** The custom properties on the way, in the order in which they are met; of long chains the first ones. */
    private static void follow(ElementStyle style, String value, Set<String> through) {
        record Step(ElementStyle style, String name) {}
        Deque<Step> open = new ArrayDeque<>();
        Reference.names(value).forEach(n -> open.add(new Step(style, n)));
        while (!open.isEmpty() && through.size() < MOST_STEPS) {
            Step step = open.poll();
            Budget.step();
            if (!through.add(step.name())) {
                continue;
            }
            for (ElementStyle s = step.style(); s != null; s = s.parent()) {
                List<CascadedDeclaration> declared = declarations(s, step.name());
                if (!declared.isEmpty()) {
                    List<String> next =
                            Reference.names(declared.get(declared.size() - 1).value());
                    for (int i = next.size() - 1; i >= 0; i--) {
                        open.addFirst(new Step(s, next.get(i)));
                    }
                    break;
                }
            }
        }
    }

    /** The first step of the cascade at which one loses against the other: CSS Cascade 5, section 6. */
    static Because because(CascadedDeclaration loser, CascadedDeclaration winner) {
        if (loser.important() != winner.important() && loser.origin() != Origin.USER_AGENT) {
            return Because.of(Because.Step.IMPORTANCE);
        }
        boolean browserLost = loser.origin() == Origin.USER_AGENT && winner.origin() != Origin.USER_AGENT;
        if (browserLost || loser.origin() == Origin.PRESENTATION && winner.origin() != Origin.PRESENTATION) {
            return Because.of(Because.Step.ORIGIN);
        }
        if (loser.important() != winner.important()) {
            return Because.of(Because.Step.IMPORTANCE);
        }
        if (winner.origin() == Origin.STYLE_ATTRIBUTE && loser.origin() != Origin.STYLE_ATTRIBUTE) {
            return Because.of(Because.Step.STYLE_ATTRIBUTE);
        }
        if (loser.layerRank() != winner.layerRank()) {
            return Because.of(Because.Step.LAYER);
        }
        if (loser.specificity().compareTo(winner.specificity()) != 0) {
            return Because.of(Because.Step.SPECIFICITY);
        }
        return Because.of(loser.proximity() != winner.proximity() ? Because.Step.SCOPE : Because.Step.ORDER);
    }

    static Cause cause(CascadedDeclaration a, Because because) {
        if (a.rule() == null) {
            return new Cause(
                    "",
                    0,
                    0,
                    "presentational attribute",
                    Specificity.NONE,
                    false,
                    "",
                    a.property(),
                    a.value(),
                    because,
                    -1,
                    Origin.PRESENTATION,
                    List.of());
        }
        int token = a.declaration().first();
        return new Cause(
                a.rule().source().file().file(),
                a.rule().source().line(token),
                a.rule().source().column(token),
                a.rule().shownSelector(),
                a.specificity(),
                a.important(),
                a.rule().layer(),
                a.property(),
                a.value(),
                because,
                a.origin() == Origin.STYLE_ATTRIBUTE && !a.rule().source().isVerbatim()
                        ? -1
                        : a.rule().source().offset()
                                + a.rule().source().sheet().tokens().start(token),
                a.origin(),
                a.rule().conditions().stream().map(Condition::toString).toList());
    }
}

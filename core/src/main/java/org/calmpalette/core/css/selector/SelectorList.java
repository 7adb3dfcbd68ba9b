package org.calmpalette.core.css.selector;

import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import org.calmpalette.core.css.Tokenizer;
import org.calmpalette.core.css.Tokens;

/** Selectors separated by commas. */
public record SelectorList(List<ComplexSelector> selectors) {

    /** Reads a selector that stands by itself; empty if browsers do not understand it. */
    public static Optional<SelectorList> parse(String text) {
        Tokens tokens = Tokenizer.tokenize(text);
        return parse(tokens, 0, tokens.size(), null);
    }

    /**
     * Reads the selector of a rule.
     *
     * @param around the selectors of the rule around it, or null at the top
     * @return empty if browsers do not understand it and drop the rule
     */
    public static Optional<SelectorList> parse(Tokens tokens, int first, int end, SelectorList around) {
        return new SelectorParser(tokens, first, end, around).parse();
    }

    /** How many simple selectors it has when all nesting is written out. */
    long weight() {
        long weight = 0;
        for (ComplexSelector s : selectors) {
            for (CompoundSelector c : s.compounds()) {
                for (SimpleSelector simple : c.simples()) {
                    weight += simple instanceof SimpleSelector.Nesting n
                            ? n.weight()
                            : simple instanceof SimpleSelector.Functional f
                                    ? 1 + f.arguments().weight()
                                    : simple instanceof SimpleSelector.Nth n && n.of() != null
                                            ? 1 + n.of().weight()
                                            : 1;
                }
            }
        }
        return weight;
    }

    public Specificity mostSpecific() {
        Specificity most = Specificity.NONE;
        for (ComplexSelector s : selectors) {
            most = Specificity.max(most, s.specificity());
        }
        return most;
    }

    @Override
    public String toString() {
        return selectors.stream().map(Object::toString).collect(Collectors.joining(", "));
    }
}

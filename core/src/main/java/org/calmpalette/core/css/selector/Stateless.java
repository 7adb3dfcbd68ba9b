package org.calmpalette.core.css.selector;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/** What a selector finds whatever the state of the page: hover, focus, what is ticked or typed. */
public final class Stateless {
    private static final Set<String> STATES = Set.of(
            "hover",
            "active",
            "focus",
            "focus-visible",
            "focus-within",
            "target",
            "user-valid",
            "user-invalid",
            "autofill",
            "-webkit-autofill",
            "placeholder-shown",
            "checked",
            "disabled",
            "enabled",
            "indeterminate",
            "invalid",
            "valid",
            "open",
            "popover-open",
            "modal",
            "fullscreen",
            "read-only",
            "read-write",
            "in-range",
            "out-of-range");

    private Stateless() {}

    /**
     * A selector without its states.
     *
     * @param selector with its specificity as it was, and with its pseudo-element
     * @param states those left out, as written, with the pseudo-element; may be empty
     */
    public record Stripped(ComplexSelector selector, String states) {}

    public static Stripped of(ComplexSelector s) {
        StringBuilder left = new StringBuilder();
        return new Stripped(strip(s, left), left.toString());
    }

    /** True if no state of the page decides whether the selector holds. */
    public static boolean isStateless(ComplexSelector s) {
        return of(s).states().replaceFirst("::.*", "").isEmpty()
                && s.compounds().stream().flatMap(c -> c.simples().stream()).noneMatch(Stateless::negates);
    }

    private static boolean negates(SimpleSelector s) {
        return s instanceof SimpleSelector.Functional f
                && f.arguments().selectors().stream().anyMatch(a -> !isStateless(a));
    }

    private static ComplexSelector strip(ComplexSelector s, StringBuilder left) {
        List<CompoundSelector> compounds = new ArrayList<>();
        for (CompoundSelector c : s.compounds()) {
            List<SimpleSelector> kept = new ArrayList<>();
            for (SimpleSelector simple : c.simples()) {
                strip(simple, left).ifPresent(kept::add);
            }
            if (c.pseudoElement() != null) {
                left.append("::").append(c.pseudoElement());
            }
            compounds.add(new CompoundSelector(kept, c.pseudoElement(), List.of()));
        }
        return new ComplexSelector(compounds, s.combinators(), s.specificity());
    }

    private static Optional<SimpleSelector> strip(SimpleSelector simple, StringBuilder left) {
        if (simple instanceof SimpleSelector.PseudoClass p
                && (p.name().equals("link") || p.name().equals("visited"))) {
            // Each finds links at times, and the two exclude each other.
            left.append(simple);
            return Optional.of(new SimpleSelector.PseudoClass("any-link"));
        }
        if (simple instanceof SimpleSelector.PseudoClass p && STATES.contains(p.name())) {
            left.append(simple);
            return Optional.empty();
        }
        if (simple instanceof SimpleSelector.Nesting n && n.parent() != null) {
            return Optional.of(new SimpleSelector.Nesting(strip(n.parent(), left)));
        }
        if (simple instanceof SimpleSelector.Functional f) {
            StringBuilder inside = new StringBuilder();
            SelectorList arguments = strip(f.arguments(), inside);
            if (f.name().equals("not")) {
                // "Not hovered" holds most of the time; without its state the condition would turn round.
                return inside.isEmpty() ? Optional.of(simple) : Optional.empty();
            }
            left.append(inside);
            return Optional.of(new SimpleSelector.Functional(f.name(), arguments));
        }
        return Optional.of(simple);
    }

    private static SelectorList strip(SelectorList list, StringBuilder left) {
        return new SelectorList(
                list.selectors().stream().map(s -> strip(s, left)).toList());
    }
}

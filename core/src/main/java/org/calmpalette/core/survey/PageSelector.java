package org.calmpalette.core.survey;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.calmpalette.core.css.selector.ComplexSelector;
import org.calmpalette.core.css.selector.Compound;
import org.calmpalette.core.css.selector.SelectorList;
import org.calmpalette.core.css.selector.Simple;

/** Turns the selector of a rule into one that finds the elements in a page whatever their state. */
final class PageSelector {
  private static final Set<String> STATES = Set.of(
      "hover", "active", "focus", "focus-visible", "focus-within", "visited", "target", "user-valid", "user-invalid",
      "autofill", "-webkit-autofill", "placeholder-shown", "checked", "disabled", "enabled", "indeterminate", "invalid",
      "valid", "open", "popover-open", "modal", "fullscreen");

  private PageSelector() {}

  /** One entry for each selector of the list; the states and pseudo-elements left out are told. */
  static List<Painted> of(SelectorList list, String property) {
    List<Painted> painted = new ArrayList<>();
    for (ComplexSelector s : list.selectors()) {
      StringBuilder left = new StringBuilder();
      painted.add(new Painted(strip(s, left).toString(), property, left.toString()));
    }
    return painted;
  }

  private static ComplexSelector strip(ComplexSelector s, StringBuilder left) {
    List<Compound> compounds = new ArrayList<>();
    for (Compound c : s.compounds()) {
      List<Simple> kept = new ArrayList<>();
      for (Simple simple : c.simples()) {
        strip(simple, left).ifPresent(kept::add);
      }
      if (c.pseudoElement() != null) {
        left.append("::").append(c.pseudoElement());
      }
      compounds.add(new Compound(kept, null, List.of()));
    }
    return new ComplexSelector(compounds, s.combinators(), s.specificity());
  }

  private static Optional<Simple> strip(Simple simple, StringBuilder left) {
    if (simple instanceof Simple.PseudoClass p && STATES.contains(p.name())) {
      left.append(simple);
      return Optional.empty();
    }
    if (simple instanceof Simple.Nesting n && n.parent() != null) {
      return Optional.of(new Simple.Nesting(strip(n.parent(), left)));
    }
    if (simple instanceof Simple.Functional f) {
      StringBuilder inside = new StringBuilder();
      SelectorList arguments = strip(f.arguments(), inside);
      if (f.name().equals("not")) {
        // "Not hovered" holds most of the time; without its state the condition would turn round.
        return inside.isEmpty() ? Optional.of(simple) : Optional.empty();
      }
      left.append(inside);
      return Optional.of(new Simple.Functional(f.name(), arguments));
    }
    return Optional.of(simple);
  }

  private static SelectorList strip(SelectorList list, StringBuilder left) {
    return new SelectorList(list.selectors().stream().map(s -> strip(s, left)).toList());
  }
}

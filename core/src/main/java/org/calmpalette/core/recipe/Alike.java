package org.calmpalette.core.recipe;

import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import org.calmpalette.core.css.Escapes;
import org.calmpalette.core.css.selector.SelectorList;
import org.calmpalette.core.css.selector.SelectorMatcher;
import org.calmpalette.core.css.selector.States;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.part.PartSelector;
import org.jsoup.nodes.Element;

/** Selectors for elements of a part that look alike. */
final class Alike {
    private Alike() {}

    /** For all elements of the part that are like one: links of a list, links of a navigation, headings. */
    static String to(Page page, Element whole, Element one) {
        String in = one.parents().stream()
                .takeWhile(p -> p != whole)
                .map(Element::normalName)
                .filter(n -> n.equals("ul") || n.equals("ol") || n.equals("nav"))
                .findFirst()
                .map(n -> n + " ")
                .orElse("");
        return PartSelector.unique(page, whole) + " " + in + one.normalName();
    }

    /** For all of some elements of a part and nothing else in it: of their list, but for those that look otherwise. */
    static String of(Page page, Element whole, List<Element> all, Set<String> states) {
        String end = states.stream().map(s -> ":" + s).collect(Collectors.joining());
        boolean children = all.stream().allMatch(e -> e.parent() == whole);
        String alike = children
                ? PartSelector.unique(page, whole) + " > " + all.get(0).normalName()
                : to(page, whole, all.get(0));
        List<Element> found = found(page, alike);
        Set<String> without = new LinkedHashSet<>();
        for (Element other : found) {
            if (!all.contains(other)) {
                without.add(other.classNames().stream()
                        .filter(c -> all.stream().noneMatch(e -> e.hasClass(c)))
                        .findFirst()
                        .map(c -> ":not(." + Escapes.identifier(c) + ")")
                        .orElse(
                                other.hasAttr("aria-current") && all.stream().noneMatch(e -> e.hasAttr("aria-current"))
                                        ? ":not([aria-current])"
                                        : ""));
            }
        }
        return found.containsAll(all) && !without.contains("")
                ? alike + String.join("", without) + end
                : all.stream().map(e -> PartSelector.unique(page, e) + end).collect(Collectors.joining(", "));
    }

    static List<Element> found(Page page, String selector) {
        SelectorMatcher matcher = new SelectorMatcher(page.document(), States.NONE);
        return SelectorList.parse(selector).stream()
                .flatMap(list -> page.elements().stream().skip(1).filter(e -> matcher.matches(list, e)))
                .toList();
    }
}

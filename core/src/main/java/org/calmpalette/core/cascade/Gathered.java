package org.calmpalette.core.cascade;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import org.calmpalette.core.Budget;
import org.calmpalette.core.css.Node;
import org.calmpalette.core.css.Reference;
import org.calmpalette.core.css.selector.ComplexSelector;
import org.calmpalette.core.css.selector.SelectorMatcher;
import org.calmpalette.core.css.selector.States;
import org.jsoup.nodes.Element;

/**
 * A rule of a page's stylesheets that finds a part of it, or something in that part, in some state and under some condition.
 *
 * @param file that it stands in
 * @param conditions at-rules around it, as {@code @media (width > 600px)}
 * @param selector nesting resolved; one of those of the rule
 * @param found indices of what it finds, among the part and all in it
 * @param declarations in order
 */
public record Gathered(
        String file,
        List<String> conditions,
        ComplexSelector selector,
        List<Integer> found,
        List<Declared> declarations) {

    /** A declaration as it is written. @param property in lower case, but a custom property as it is written */
    public record Declared(String property, String value, boolean important) {
        /** The custom properties that it reads itself, in order. */
        public List<String> reads() {
            return Reference.names(value);
        }

        /** The same with another value. */
        public Declared with(String other) {
            return new Declared(property, other, important);
        }

        @Override
        public String toString() {
            return property + ": " + value + (important ? " !important" : "");
        }
    }

    /** All rules of makers and libraries that concern a part, the weaker first (CSS Cascade 5, section 6.1, importance left aside). */
    public static List<Gathered> of(PageStyles.Sheets sheets, Element root) {
        record Ranked(int layer, Gathered rule) {}
        SheetReader reader = sheets.reader();
        Map<String, Integer> layers = reader.layerOrder();
        List<Element> inside = root.getAllElements();
        SelectorMatcher idle = new SelectorMatcher(sheets.page().document(), States.NONE);
        SelectorMatcher any = new SelectorMatcher(sheets.page().document(), States.ANY);
        List<Ranked> all = new ArrayList<>();
        for (FlatRule rule : reader.rules) {
            Budget.step();
            if (rule.selectors() == null || rule.source().origin() != Origin.AUTHOR || rule.scope() != null) {
                continue;
            }
            for (ComplexSelector s : rule.selectors().selectors()) {
                List<Integer> found = new ArrayList<>();
                for (int i = 0; i < inside.size(); i++) {
                    if (idle.matches(s, inside.get(i)) || any.matches(s, inside.get(i))) {
                        found.add(i);
                    }
                }
                if (!found.isEmpty()) {
                    all.add(new Ranked(
                            rule.layer().isEmpty() ? Integer.MAX_VALUE : layers.getOrDefault(rule.layer(), 0),
                            new Gathered(
                                    rule.source().file().file(),
                                    rule.conditions().stream()
                                            .map(Condition::toString)
                                            .toList(),
                                    s,
                                    found,
                                    rule.declarations().stream()
                                            .map(d -> declared(rule, d))
                                            .toList())));
                }
            }
        }
        all.sort(Comparator.comparingInt(Ranked::layer)
                .thenComparing(r -> r.rule().selector().specificity()));
        return all.stream().map(Ranked::rule).toList();
    }

    private static Declared declared(FlatRule rule, Node.Declaration d) {
        return new Declared(d.property(), rule.source().sheet().value(d), d.important());
    }
}

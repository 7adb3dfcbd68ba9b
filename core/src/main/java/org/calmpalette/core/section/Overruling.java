package org.calmpalette.core.section;

import java.util.Collections;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Pattern;
import org.calmpalette.core.Budget;
import org.calmpalette.core.cascade.Understanding;
import org.calmpalette.core.css.Node;
import org.calmpalette.core.css.selector.ComplexSelector;
import org.calmpalette.core.css.selector.SelectorList;
import org.calmpalette.core.css.selector.SelectorMatcher;
import org.calmpalette.core.css.selector.States;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.ThemeSheet;
import org.calmpalette.core.usage.Readers;
import org.jsoup.nodes.Element;

/**
 * What rules of a theme say with {@code !important} of what stands in a section: no rule without it can beat them (CSS Cascade 5, section
 * 6.1), so that a section that is to look the same everywhere has to say it so as well.
 */
final class Overruling {
    /** What a theme says for paper, or for those who asked for less movement or more contrast, holds in sections too. */
    private static final Pattern FOR_ALL = Pattern.compile("(?i)\\bprint\\b|prefers-|forced-colors");

    private static final Pattern MOVING = Pattern.compile("animation.*|transition.*|scroll-behavior");

    private Overruling() {}

    /**
     * Longhands that some rule of the theme may decide for some element of a section. Where the rule asks for what stands around the
     * section, that is taken to be there.
     *
     * @param markup of the section by itself
     */
    static Set<String> of(Theme theme, Page markup) {
        Set<String> all = new TreeSet<>();
        SelectorMatcher matcher = new SelectorMatcher(markup.document(), States.ANY);
        List<Element> elements = markup.document().body().getAllElements();
        elements.remove(markup.document().body());
        for (ThemeSheet part : theme.sheets()) {
            Set<Node> matches = Collections.newSetFromMap(new IdentityHashMap<>());
            Set<Node> looked = Collections.newSetFromMap(new IdentityHashMap<>());
            if (Sections.isSheet(part) || !part.file().text().contains("!")) {
                continue;
            }
            part.sheet().eachDeclaration((d, around) -> {
                if (!d.important() || d.isCustom() || around.isEmpty() || isForAll(part, around)) {
                    return;
                }
                Node rule = around.get(around.size() - 1);
                if (looked.add(rule)
                        && Readers.selector(part.sheet(), around).stream()
                                .flatMap(list -> list.selectors().stream())
                                .anyMatch(s -> mayFind(s, matcher, elements))) {
                    matches.add(rule);
                }
                boolean hides =
                        d.property().equals("display") && part.sheet().value(d).equalsIgnoreCase("none");
                if (matches.contains(rule)
                        && !hides
                        && !MOVING.matcher(d.property()).matches()) {
                    all.addAll(Understanding.sides(d.property()));
                }
            });
        }
        return all;
    }

    private static boolean isForAll(ThemeSheet part, List<Node.Rule> around) {
        return around.stream()
                .anyMatch(r -> r instanceof Node.AtRule at
                        && FOR_ALL.matcher(part.sheet().text(at.preludeFirst(), at.preludeEnd()))
                                .find());
    }

    private static boolean mayFind(ComplexSelector selector, SelectorMatcher matcher, List<Element> elements) {
        SelectorList subject = new SelectorList(
                List.of(new ComplexSelector(List.of(selector.subject()), List.of(), selector.specificity())));
        return elements.stream().anyMatch(e -> {
            Budget.step();
            return matcher.matches(subject, e);
        });
    }
}

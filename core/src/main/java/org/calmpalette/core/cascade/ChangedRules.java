package org.calmpalette.core.cascade;

import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.calmpalette.core.css.Node;
import org.calmpalette.core.css.Reference;
import org.calmpalette.core.css.selector.ComplexSelector;
import org.calmpalette.core.css.selector.SelectorMatcher;
import org.calmpalette.core.css.selector.States;
import org.calmpalette.core.page.Page;
import org.jsoup.nodes.Element;

/**
 * Which rules differ between two states of a page's stylesheets, custom properties followed to the rules that read them:
 * only what such a rule finds, and what inherits from it, can look different.
 */
public final class ChangedRules {
    private final List<ComplexSelector> selectors = new ArrayList<>();

    private ChangedRules() {}

    /** What was found between the stylesheets of pages: most pages of a theme load the same. */
    public static final class Known {
        private final Map<SheetReader, Map<SheetReader, Optional<ChangedRules>>> found = new IdentityHashMap<>();

        /** @see ChangedRules#between */
        public Optional<ChangedRules> between(PageStyles.Sheets a, PageStyles.Sheets b) {
            return found.computeIfAbsent(a.reader(), r -> new IdentityHashMap<>())
                    .computeIfAbsent(b.reader(), r -> ChangedRules.between(a, b));
        }
    }

    /** @return empty if more than single rules changed, such as their order, so that every element has to be looked at */
    public static Optional<ChangedRules> between(PageStyles.Sheets a, PageStyles.Sheets b) {
        SheetReader before = a.reader();
        SheetReader after = b.reader();
        if (!before.layerOrder().equals(after.layerOrder()) || !before.registered.equals(after.registered)) {
            return Optional.empty();
        }
        Map<String, Integer> balance = new HashMap<>();
        List<String> signaturesBefore =
                before.rules.stream().map(ChangedRules::signature).toList();
        List<String> signaturesAfter =
                after.rules.stream().map(ChangedRules::signature).toList();
        signaturesBefore.forEach(s -> balance.merge(s, 1, Integer::sum));
        signaturesAfter.forEach(s -> balance.merge(s, -1, Integer::sum));
        List<FlatRule> changed = new ArrayList<>();
        List<String> keptBefore = split(before.rules, signaturesBefore, balance, changed);
        List<String> keptAfter = split(after.rules, signaturesAfter, balance, changed);
        if (!keptBefore.equals(keptAfter)) {
            return Optional.empty();
        }
        follow(before.rules, after.rules, changed);
        ChangedRules found = new ChangedRules();
        for (FlatRule r : changed) {
            if (r.scope() != null) {
                return Optional.empty();
            }
            found.selectors.addAll(r.selectors().selectors());
        }
        return Optional.of(found);
    }

    private static List<String> split(
            List<FlatRule> rules, List<String> signatures, Map<String, Integer> balance, List<FlatRule> changed) {
        List<String> kept = new ArrayList<>();
        for (int i = 0; i < rules.size(); i++) {
            String signature = signatures.get(i);
            if (balance.get(signature) != 0) {
                changed.add(rules.get(i));
            } else {
                kept.add(signature);
            }
        }
        return kept;
    }

    private static String signature(FlatRule r) {
        StringBuilder out = new StringBuilder(r.shownSelector())
                .append('|')
                .append(r.layer())
                .append('|')
                .append(r.conditions());
        for (Node.Declaration d : r.declarations()) {
            out.append('|')
                    .append(d.property())
                    .append(':')
                    .append(r.source().sheet().value(d))
                    .append(d.important());
        }
        return out.toString();
    }

    /** Adds the rules that read a custom property of a changed rule, through others if need be. */
    private static void follow(List<FlatRule> before, List<FlatRule> after, List<FlatRule> changed) {
        Set<String> variables = new LinkedHashSet<>();
        changed.forEach(r -> declared(r, variables));
        if (variables.isEmpty()) {
            return;
        }
        Map<FlatRule, Set<String>> readers = new IdentityHashMap<>();
        List<FlatRule> waiting = new ArrayList<>();
        for (List<FlatRule> rules : List.of(before, after)) {
            for (FlatRule r : rules) {
                Set<String> reads = reads(r);
                if (!reads.isEmpty() && readers.put(r, reads) == null) {
                    waiting.add(r);
                }
            }
        }
        boolean more = true;
        while (more) {
            more = false;
            List<FlatRule> left = new ArrayList<>();
            for (FlatRule r : waiting) {
                if (Collections.disjoint(readers.get(r), variables)) {
                    left.add(r);
                } else {
                    changed.add(r);
                    more |= declared(r, variables);
                }
            }
            waiting = left;
        }
    }

    private static boolean declared(FlatRule r, Set<String> variables) {
        boolean more = false;
        for (Node.Declaration d : r.declarations()) {
            more |= d.isCustom() && variables.add(d.property());
        }
        return more;
    }

    private static Set<String> reads(FlatRule r) {
        Set<String> names = new HashSet<>();
        for (Node.Declaration d : r.declarations()) {
            String value = r.source().sheet().value(d);
            if (CustomProperties.mentions(value)) {
                names.addAll(Reference.names(value));
            }
        }
        return names;
    }

    /** Tells which elements of a page a changed rule finds. */
    public Finder on(Page page) {
        return new Finder(new SelectorMatcher(page.document(), States.NONE));
    }

    /** Asks about the elements of one page. */
    public final class Finder {
        private final SelectorMatcher matcher;

        private Finder(SelectorMatcher matcher) {
            this.matcher = matcher;
        }

        public boolean finds(Element element) {
            return selectors.stream().anyMatch(s -> matcher.matches(s, element));
        }
    }
}

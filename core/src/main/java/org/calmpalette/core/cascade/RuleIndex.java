package org.calmpalette.core.cascade;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.function.Consumer;
import org.calmpalette.core.css.selector.ComplexSelector;
import org.calmpalette.core.css.selector.SimpleSelector;
import org.jsoup.nodes.Element;

/**
 * Rules by what the last compound of their selectors asks for, so that an element is tried against few of them.
 */
final class RuleIndex {
    /** One selector of a rule. */
    record Entry(ComplexSelector selector, FlatRule rule, int order) {}

    private final Map<String, List<Entry>> byId = new HashMap<>();
    private final Map<String, List<Entry>> byClass = new HashMap<>();
    private final Map<String, List<Entry>> byType = new HashMap<>();
    private final List<Entry> others = new ArrayList<>();

    void add(FlatRule rule, int order) {
        for (ComplexSelector selector : rule.selectors().selectors()) {
            list(selector).add(new Entry(selector, rule, order));
        }
    }

    void add(Entry entry) {
        list(entry.selector()).add(entry);
    }

    /** Every entry, in no particular order. */
    void each(Consumer<Entry> visitor) {
        for (Map<String, List<Entry>> by : List.of(byId, byClass, byType)) {
            by.values().forEach(list -> list.forEach(visitor));
        }
        others.forEach(visitor);
    }

    private List<Entry> list(ComplexSelector selector) {
        List<Entry> byTypeOnly = null;
        for (SimpleSelector s : selector.subject().simples()) {
            if (s instanceof SimpleSelector.Id id) {
                return byId.computeIfAbsent(fold(id.id()), k -> new ArrayList<>());
            }
            if (s instanceof SimpleSelector.ClassName c) {
                return byClass.computeIfAbsent(fold(c.name()), k -> new ArrayList<>());
            }
            if (s instanceof SimpleSelector.Type t) {
                byTypeOnly = byType.computeIfAbsent(fold(t.name()), k -> new ArrayList<>());
            }
        }
        return byTypeOnly == null ? others : byTypeOnly;
    }

    /** Pages in quirks mode compare ids and classes without regard to case; a key too many costs only a try. */
    private static String fold(String name) {
        return name.toLowerCase(Locale.ROOT);
    }

    /** Every entry that might match the element. */
    void candidates(Element element, Consumer<Entry> visitor) {
        if (!element.id().isEmpty()) {
            byId.getOrDefault(fold(element.id()), List.of()).forEach(visitor);
        }
        String classes = element.attributes().getIgnoreCase("class");
        if (!classes.isEmpty()) {
            List<String> seen = new ArrayList<>();
            for (String c : fold(classes).split("[ \\t\\n\\r\\f]+")) {
                if (!seen.contains(c)) {
                    seen.add(c);
                    byClass.getOrDefault(c, List.of()).forEach(visitor);
                }
            }
        }
        byType.getOrDefault(fold(element.normalName()), List.of()).forEach(visitor);
        others.forEach(visitor);
    }
}

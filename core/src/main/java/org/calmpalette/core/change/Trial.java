package org.calmpalette.core.change;

import java.util.ArrayList;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.calmpalette.core.cascade.ChangedRules;
import org.calmpalette.core.cascade.PageStyles;
import org.calmpalette.core.cascade.Painting;
import org.calmpalette.core.css.selector.States;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.value.Viewport;
import org.jsoup.nodes.Element;

/**
 * What a change alters on the pages: the computed style of every element before and after, in a narrow and a wide window.
 *
 * @param changed parts by page path, as indices among all elements of the page
 * @param properties that changed somewhere
 * @param left pages that were not looked at, since there are more than {@link #MOST_PAGES}
 */
public record Trial(Map<String, List<Integer>> changed, Set<String> properties, int left) {
    public static final int MOST_PAGES = 24;
    private static final Viewport[] WINDOWS = {Viewport.of(390, 800), Viewport.of(1440, 900)};

    public static Trial of(Rendered before, Change fix) {
        return between(before, new Rendered(fix.applied(before.theme())), false);
    }

    /**
     * Of changes that are said to change nothing that is seen, those of which that is so, together as well as each. Tried in halves, so
     * that a few that are not do not cost a trial for each that is.
     */
    public static List<Change> quiet(Rendered before, List<Change> changes) {
        if (changes.isEmpty() || of(before, Change.all("", changes)).parts() == 0) {
            return changes;
        }
        if (changes.size() == 1) {
            return List.of();
        }
        int half = changes.size() / 2;
        List<Change> first = quiet(before, changes.subList(0, half));
        List<Change> second = quiet(before, changes.subList(half, changes.size()));
        List<Change> kept = new ArrayList<>(first);
        kept.addAll(second);
        if (first.isEmpty()
                || second.isEmpty()
                || of(before, Change.all("", kept)).parts() == 0) {
            return kept;
        }
        // Two that need each other are in different halves: one by one then.
        kept = new ArrayList<>(first);
        for (Change one : second) {
            kept.add(one);
            if (of(before, Change.all("", kept)).parts() > 0) {
                kept.remove(kept.size() - 1);
            }
        }
        return kept;
    }

    /** What differs between two looks of the same theme, such as with one choice and with another. */
    public static Trial between(Rendered before, Rendered after) {
        return between(before, after, false);
    }

    /** @param everything whether every element is looked at, even where few can have changed */
    static Trial between(Rendered before, Rendered after, boolean everything) {
        Map<String, List<Integer>> changed = new LinkedHashMap<>();
        Set<String> properties = new LinkedHashSet<>();
        List<Page> pages = before.theme().pages();
        ChangedRules.Known known = new ChangedRules.Known();
        for (Page page : pages.subList(0, Math.min(MOST_PAGES, pages.size()))) {
            Page then = after.page(page.source().file()).orElse(null);
            Set<Integer> here = new java.util.TreeSet<>();
            if (then != null) {
                // Where the markup stays and only single rules change, only what those find has to be looked at.
                Optional<ChangedRules> rules = !everything && isSameMarkup(page, then)
                        ? known.between(
                                before.library().of(page), after.library().of(then))
                        : Optional.empty();
                for (Viewport window : WINDOWS) {
                    compare(
                            before.styles(page, window, States.NONE),
                            page,
                            after.styles(then, window, States.NONE),
                            then,
                            rules.map(r -> r.on(page)),
                            here,
                            properties);
                }
            }
            if (!here.isEmpty()) {
                changed.put(page.source().file(), new ArrayList<>(here));
            }
        }
        return new Trial(changed, properties, Math.max(0, pages.size() - MOST_PAGES));
    }

    /** True if nothing but the head may differ, where links to stylesheets stand. */
    private static boolean isSameMarkup(Page page, Page then) {
        return page.source().text().equals(then.source().text())
                || page.document()
                        .body()
                        .outerHtml()
                        .equals(then.document().body().outerHtml());
    }

    private static void compare(
            PageStyles a,
            Page page,
            PageStyles b,
            Page then,
            Optional<ChangedRules.Finder> rules,
            Set<Integer> changed,
            Set<String> properties) {
        List<Element> olds = body(page);
        List<Element> news = body(then);
        Map<Element, Integer> indices = new IdentityHashMap<>();
        page.elements().forEach(e -> indices.put(e, indices.size()));
        Map<Element, List<String>> handed = new IdentityHashMap<>();
        for (int i = 0; i < Math.min(olds.size(), news.size()); i++) {
            Element e = olds.get(i);
            // Without the rules it is not known who reads a custom property that differs, so then each is compared in
            // full.
            List<String> inherits =
                    rules.isPresent() && e.parent() != null ? handed.getOrDefault(e.parent(), List.of()) : List.of();
            boolean found = rules.isEmpty() || rules.get().finds(e);
            List<String> differ = found
                    ? Painting.differences(a, e, b, news.get(i))
                    : inherits.isEmpty() ? List.of() : Painting.handedDown(a.of(e), b.of(news.get(i)), inherits);
            if (!differ.isEmpty()) {
                properties.addAll(differ);
                changed.add(indices.get(e));
                handed.put(e, differ);
            }
        }
    }

    /** Elements from the root element on, without the head, whose links may have changed. */
    private static List<Element> body(Page page) {
        List<Element> all = new ArrayList<>();
        Element root = page.document().selectFirst("html");
        if (root != null) {
            all.add(root);
        }
        all.addAll(page.document().body().getAllElements());
        return all;
    }

    public int parts() {
        return changed.values().stream().mapToInt(List::size).sum();
    }

    /** One sentence: how many parts of which pages look different. */
    public String inWords() {
        if (changed.isEmpty()) {
            return "No part of any page looks different.";
        }
        int parts = parts();
        String[] names = changed.keySet().toArray(String[]::new);
        return parts + (parts == 1 ? " part of " : " parts of ")
                + (names.length == 1 ? names[0] : names.length + " pages") + (parts == 1 ? " looks" : " look")
                + " different: "
                + String.join(", ", Painting.inGroups(properties)) + "."
                + (left > 0 ? " " + left + " more pages were not looked at." : "");
    }

    /** The numbers by page, such as {@code index.html 1}. */
    public List<String> byPage() {
        return changed.entrySet().stream()
                .map(e -> e.getKey() + " " + e.getValue().size())
                .toList();
    }
}

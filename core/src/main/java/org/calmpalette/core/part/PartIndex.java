package org.calmpalette.core.part;

import java.util.ArrayList;
import java.util.BitSet;
import java.util.Collection;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import org.calmpalette.core.css.selector.ComplexSelector;
import org.calmpalette.core.css.selector.SelectorList;
import org.calmpalette.core.css.selector.SelectorMatcher;
import org.calmpalette.core.css.selector.SimpleSelector;
import org.calmpalette.core.css.selector.States;
import org.calmpalette.core.page.Page;
import org.jsoup.nodes.Element;

/** Which elements of a theme's pages selectors find, remembered by selector. Safe for use by several threads. */
public final class PartIndex {
    private final List<OnePage> pages;
    private final Map<String, List<BitSet>> found = new ConcurrentHashMap<>();

    public PartIndex(List<Page> pages) {
        this.pages = pages.stream().map(OnePage::new).toList();
    }

    /**
     * @param parts elements on all pages
     * @param pages how many have one
     * @param byPage the numbers of those, such as {@code index.html 3}
     */
    public record Count(int parts, int pages, List<String> byPage) {}

    /** How many elements the selectors find, whatever their state. */
    public Count count(Collection<String> selectors) {
        return count(union(selectors));
    }

    /** The same with further elements, by page and index. */
    public Count count(Collection<String> selectors, Collection<Element> more) {
        List<BitSet> all = union(selectors);
        for (int i = 0; i < all.size(); i++) {
            for (Element e : more) {
                Integer at = pages.get(i).numbers.get(e);
                if (at != null) {
                    all.get(i).set(at);
                }
            }
        }
        return count(all);
    }

    private Count count(List<BitSet> all) {
        int parts = 0;
        List<String> byPage = new ArrayList<>();
        for (int i = 0; i < all.size(); i++) {
            int here = all.get(i).cardinality();
            parts += here;
            if (here > 0) {
                byPage.add(pages.get(i).page.source().file() + " " + here);
            }
        }
        return new Count(parts, byPage.size(), byPage);
    }

    private List<BitSet> union(Collection<String> selectors) {
        List<BitSet> all = new ArrayList<>();
        pages.forEach(p -> all.add(new BitSet()));
        for (String s : selectors) {
            List<BitSet> one = found.computeIfAbsent(s, this::find);
            for (int i = 0; i < all.size(); i++) {
                all.get(i).or(one.get(i));
            }
        }
        return all;
    }

    private List<BitSet> find(String selector) {
        SelectorList list = SelectorList.parse(selector).orElse(new SelectorList(List.of()));
        return pages.stream().map(p -> p.find(list)).toList();
    }

    private static final class OnePage {
        private final Page page;
        private final List<Element> elements;
        private final Map<String, List<Integer>> byName = new HashMap<>();
        private final Map<Element, Integer> numbers = new IdentityHashMap<>();

        OnePage(Page page) {
            this.page = page;
            this.elements = page.elements();
            for (int i = 1; i < elements.size(); i++) {
                Element e = elements.get(i);
                numbers.put(e, i);
                name("", i);
                name(e.normalName(), i);
                if (!e.id().isEmpty()) {
                    name("#" + fold(e.id()), i);
                }
                for (String c : e.classNames()) {
                    name("." + fold(c), i);
                }
            }
        }

        private void name(String name, int index) {
            byName.computeIfAbsent(name, k -> new ArrayList<>()).add(index);
        }

        private static String fold(String name) {
            return name.toLowerCase(Locale.ROOT);
        }

        BitSet find(SelectorList list) {
            BitSet bits = new BitSet(elements.size());
            SelectorMatcher matcher = new SelectorMatcher(page.document(), States.ANY);
            for (ComplexSelector s : list.selectors()) {
                for (int i : candidates(s)) {
                    if (!bits.get(i) && matcher.matches(s, elements.get(i))) {
                        bits.set(i);
                    }
                }
            }
            return bits;
        }

        /** The fewest elements that one simple selector of the subject leaves. */
        private List<Integer> candidates(ComplexSelector s) {
            List<Integer> fewest = byName.getOrDefault("", List.of());
            for (SimpleSelector simple : s.subject().simples()) {
                String name = simple instanceof SimpleSelector.Id id
                        ? "#" + fold(id.id())
                        : simple instanceof SimpleSelector.ClassName c
                                ? "." + fold(c.name())
                                : simple instanceof SimpleSelector.Type t ? fold(t.name()) : "";
                List<Integer> some = byName.getOrDefault(name, List.of());
                fewest = some.size() < fewest.size() ? some : fewest;
            }
            return fewest;
        }
    }
}

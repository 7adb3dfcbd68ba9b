package org.calmpalette.core.part;

import java.util.ArrayList;
import java.util.List;
import org.calmpalette.core.Budget;
import org.calmpalette.core.css.Escapes;
import org.calmpalette.core.css.selector.SelectorList;
import org.calmpalette.core.css.selector.SelectorMatcher;
import org.calmpalette.core.css.selector.States;
import org.calmpalette.core.page.Page;
import org.jsoup.nodes.Element;

/** A selector for one element of a page that a person would write: by id, by class, inside something named. */
public final class PartSelector {
    private static final int MOST_PAGES = 60;

    private PartSelector() {}

    /** What one calls the element: its tag with its id or classes. */
    public static String name(Element e) {
        String tag = e.normalName();
        if (!e.id().isEmpty()) {
            return tag + "#" + e.id();
        }
        List<String> classes = List.copyOf(e.classNames());
        return classes.isEmpty() ? tag : tag + "." + String.join(".", classes.subList(0, Math.min(2, classes.size())));
    }

    /** The shortest selector that finds this element and no other on its page. */
    public static String unique(Page page, Element element) {
        List<String> own = own(element);
        for (String s : own) {
            if (finds(page, s, element)) {
                return s;
            }
        }
        for (Element around = element.parent(); around != null; around = around.parent()) {
            for (String outer : own(around)) {
                if (outer.startsWith(".")
                        || outer.startsWith("#")
                        || List.of("header", "footer", "nav", "main").contains(outer)) {
                    for (String s : own) {
                        String candidate = outer + " " + s;
                        if (finds(page, candidate, element)) {
                            return candidate;
                        }
                    }
                }
            }
        }
        return path(page, element);
    }

    /**
     * The shortest selector that finds this element and no other, on none of the theme's pages; where nothing around it is named that
     * other pages do not have as well, the shortest for its own page.
     */
    public static String alone(List<Page> pages, Page page, Element element) {
        String own = unique(page, element);
        List<Page> others = pages.stream()
                .filter(p -> !p.source().file().equals(page.source().file()))
                .limit(MOST_PAGES)
                .toList();
        if (!findsAny(others, own, element)) {
            return own;
        }
        for (Element around = element.parent(); around != null && around != page.document(); around = around.parent()) {
            for (String outer : own(around)) {
                if (!outer.startsWith(".") && !outer.startsWith("#")) {
                    continue;
                }
                for (String inner : own(element)) {
                    String candidate = outer + " " + inner;
                    if (finds(page, candidate, element) && !findsAny(others, candidate, element)) {
                        return candidate;
                    }
                }
            }
        }
        return own;
    }

    private static boolean findsAny(List<Page> pages, String selector, Element like) {
        SelectorList list = SelectorList.parse(selector).orElse(null);
        for (Page page : list == null ? List.<Page>of() : pages) {
            Budget.step();
            SelectorMatcher matcher = new SelectorMatcher(page.document(), States.NONE);
            if (page.document().getElementsByTag(like.normalName()).stream().anyMatch(e -> matcher.matches(list, e))) {
                return true;
            }
        }
        return false;
    }

    private static List<String> own(Element e) {
        List<String> all = new ArrayList<>();
        if (!e.id().isEmpty()) {
            all.add("#" + Escapes.identifier(e.id()));
        }
        for (String c : e.classNames()) {
            all.add("." + Escapes.identifier(c));
        }
        if (e.classNames().size() > 1) {
            all.add(String.join(
                    "",
                    e.classNames().stream()
                            .map(c -> "." + Escapes.identifier(c))
                            .toList()));
        }
        all.add(e.normalName());
        int position = 1;
        for (Element before = e.previousElementSibling(); before != null; before = before.previousElementSibling()) {
            position += before.normalName().equals(e.normalName()) ? 1 : 0;
        }
        all.add(e.normalName() + ":nth-of-type(" + position + ")");
        return all;
    }

    private static boolean finds(Page page, String selector, Element element) {
        SelectorList list = SelectorList.parse(selector).orElse(null);
        if (list == null) {
            return false;
        }
        SelectorMatcher matcher = new SelectorMatcher(page.document(), States.NONE);
        if (!matcher.matches(list, element)) {
            return false;
        }
        for (Element e : page.elements()) {
            if (e != page.document() && e != element && matcher.matches(list, e)) {
                return false;
            }
        }
        return true;
    }

    /** Steps from the nearest element with an id, or from the root, down to the element. */
    private static String path(Page page, Element element) {
        StringBuilder out = new StringBuilder();
        for (Element e = element; e != null && e != page.document(); e = e.parent()) {
            if (!e.id().isEmpty() && finds(page, "#" + Escapes.identifier(e.id()), e)) {
                return "#" + Escapes.identifier(e.id()) + " > " + out;
            }
            List<String> own = own(e);
            boolean top = e.parent() == null || e.parent() == page.document();
            out.insert(0, (top ? e.normalName() : own.get(own.size() - 1)) + (out.isEmpty() ? "" : " > "));
        }
        return out.toString();
    }
}

package org.calmpalette.core.part;

import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.calmpalette.core.css.selector.SelectorList;
import org.calmpalette.core.css.selector.SelectorMatcher;
import org.calmpalette.core.css.selector.States;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.usage.Painted;
import org.jsoup.nodes.Element;

/** Finds elements on pages, and the part of the page they lie in. */
public final class Landmarks {
    private Landmarks() {}

    /** How many elements of a page any of these declarations may paint, whatever their state. */
    public static int count(List<Painted> painted, Page page) {
        return found(painted, page).size();
    }

    /** Those elements, in the order of the page. */
    public static List<Element> found(List<Painted> painted, Page page) {
        List<SelectorList> lists = painted.stream()
                .map(Painted::selector)
                .distinct()
                .flatMap(s -> SelectorList.parse(s).stream())
                .toList();
        SelectorMatcher matcher = new SelectorMatcher(page.document(), States.ANY);
        return page.document().getAllElements().stream()
                .filter(e -> e != page.document() && lists.stream().anyMatch(l -> matcher.matches(l, e)))
                .toList();
    }

    /** The place around what the selector finds, by the markup's own names; empty if they lie in several. */
    public static String around(String selector, List<Page> pages) {
        Optional<SelectorList> list = SelectorList.parse(selector);
        String place = null;
        for (Page page : list.isPresent() ? pages : List.<Page>of()) {
            SelectorMatcher matcher = new SelectorMatcher(page.document(), States.ANY);
            for (Element e : page.document().getAllElements()) {
                if (e != page.document() && matcher.matches(list.get(), e)) {
                    String found = placeOf(e);
                    if (place != null && !place.equals(found)) {
                        return "";
                    }
                    place = found;
                }
            }
        }
        return place == null ? "" : place;
    }

    private static String placeOf(Element element) {
        for (Element e = element; e != null; e = e.parent()) {
            String name = e.normalName();
            if (name.equals("body")) {
                return "";
            }
            if (name.equals("header")
                    && e.parents().stream().anyMatch(p -> p.normalName().equals("section"))) {
                continue;
            }
            switch (name) {
                case "header", "footer", "nav" -> {
                    return name.equals("nav")
                            ? "Navigation"
                            : name.substring(0, 1).toUpperCase(Locale.ROOT) + name.substring(1);
                }
                case "section", "main", "aside" -> {
                    String own = e.id().isEmpty()
                            ? e.classNames().stream().findFirst().orElse("")
                            : e.id();
                    if (!own.isEmpty()) {
                        String words = own.replaceAll("[-_]+", " ").strip();
                        return words.isEmpty()
                                ? ""
                                : words.substring(0, 1).toUpperCase(Locale.ROOT) + words.substring(1);
                    }
                }
                default -> {}
            }
        }
        return "";
    }
}

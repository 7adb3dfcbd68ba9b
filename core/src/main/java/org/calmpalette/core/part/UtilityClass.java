package org.calmpalette.core.part;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.change.Change;
import org.calmpalette.core.css.Node;
import org.calmpalette.core.css.selector.SelectorList;
import org.calmpalette.core.css.selector.SelectorMatcher;
import org.calmpalette.core.css.selector.States;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.page.Tag;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.theme.ThemeSheet;
import org.jsoup.nodes.Element;

/** A class that a loaded stylesheet has already, whose rule sets one thing and nothing else. */
public record UtilityClass(String name, String declarations, String file, int line) {

    /** The classes that set a property, or its like, and that the element does not have yet. */
    public static List<UtilityClass> of(Rendered rendered, Page page, Element element, String property) {
        Map<String, UtilityClass> found = new LinkedHashMap<>();
        List<String> loaded = rendered.loaded(page);
        for (ThemeSheet part : rendered.theme().sheets()) {
            if (loaded.contains(part.path())) {
                for (Node node : part.sheet().rules()) {
                    if (node instanceof Node.StyleRule rule) {
                        read(part, rule, family(property))
                                .filter(u -> !element.hasClass(u.name()))
                                .ifPresent(u -> found.putIfAbsent(u.name(), u));
                    }
                }
            }
        }
        return List.copyOf(found.values());
    }

    private static Optional<UtilityClass> read(ThemeSheet part, Node.StyleRule rule, String family) {
        String selector = part.sheet().prelude(rule);
        if (!selector.matches("\\.[A-Za-z_][\\w-]*")) {
            return Optional.empty();
        }
        List<String> declarations = new ArrayList<>();
        for (Node child : rule.children()) {
            if (!(child instanceof Node.Declaration d)
                    || !d.isCustom() && !family(d.property()).equals(family)) {
                return Optional.empty();
            }
            if (!d.isCustom()) {
                declarations.add(d.property() + ": " + part.sheet().value(d));
            }
        }
        return declarations.isEmpty()
                ? Optional.empty()
                : Optional.of(new UtilityClass(
                        selector.substring(1),
                        String.join("; ", declarations),
                        part.path(),
                        part.line(part.sheet().tokens().start(rule.first()))));
    }

    private static String family(String property) {
        return List.of("background", "border", "margin", "padding").stream()
                .filter(property::startsWith)
                .findFirst()
                .orElse(property);
    }

    /**
     * Puts a class on a part.
     *
     * @param everywhere on the same part of all pages, not of this page alone
     */
    public static Change put(Rendered rendered, Page page, Element element, String name, boolean everywhere) {
        if (!name.matches("[A-Za-z_][\\w-]*")) {
            throw new BadInputException(
                    "“" + name + "” is no class name.", "Choose one of the classes that are offered.");
        }
        SelectorList same =
                SelectorList.parse(PartSelector.unique(page, element)).orElseThrow();
        Change fix = Change.of("Put the class " + name + " on " + PartSelector.name(element));
        for (Page p : rendered.theme().pages()) {
            if (everywhere || p.source().file().equals(page.source().file())) {
                SelectorMatcher matcher = new SelectorMatcher(p.document(), States.NONE);
                for (Element e : p.elements()) {
                    if (e != p.document()
                            && matcher.matches(same, e)
                            && !e.hasClass(name)
                            && e.sourceRange().isTracked()) {
                        fix = fix.with(p.source().file(), new Tag(p, e).withClass(name));
                    }
                }
            }
        }
        return fix;
    }
}

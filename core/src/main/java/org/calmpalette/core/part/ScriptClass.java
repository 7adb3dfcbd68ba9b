package org.calmpalette.core.part;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Collections;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.calmpalette.core.Budget;
import org.calmpalette.core.css.Node;
import org.calmpalette.core.css.selector.ComplexSelector;
import org.calmpalette.core.css.selector.CompoundSelector;
import org.calmpalette.core.css.selector.SelectorList;
import org.calmpalette.core.css.selector.SelectorMatcher;
import org.calmpalette.core.css.selector.SimpleSelector;
import org.calmpalette.core.css.selector.States;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.page.Paths;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.ThemeSheet;
import org.calmpalette.core.usage.Readers;
import org.jsoup.nodes.Element;

/**
 * A class that the theme's scripts put on elements while somebody looks, such as the one of a header that changes on scrolling. What a
 * script does is not known; which classes it names where it changes them, and which elements the stylesheets wait for it on, is.
 *
 * @param page with the class on all of them
 * @param changed their indexes
 */
public record ScriptClass(String name, Page page, Set<Integer> changed) {
    private static final int MOST = 6;
    private static final long LARGEST = 2_000_000;
    /** A call that changes classes, with what it is given, and an assignment of the whole attribute. */
    private static final Pattern CHANGES = Pattern.compile(
            "(?:classList\\s*\\.\\s*(?:add|toggle|replace)|addClass|toggleClass)\\s*\\(([^)]{0,300})\\)|className\\s*\\+?=\\s*([^;\\n]{0,300})");

    private static final Pattern QUOTED = Pattern.compile("['\"`]([^'\"`]*)['\"`]");
    private static final Pattern NAME = Pattern.compile("-?[_a-zA-Z][\\w-]*");

    /** What the page's scripts may make of it, one class at a time; those that no stylesheet waits for are left out. */
    public static List<ScriptClass> of(Theme theme, Page page) {
        Set<String> names = names(theme, page);
        if (names.isEmpty()) {
            return List.of();
        }
        Map<String, Set<Integer>> places = new LinkedHashMap<>();
        SelectorMatcher matcher = new SelectorMatcher(page.document(), States.ANY);
        List<Element> elements = page.elements();
        for (ThemeSheet part : theme.sheets()) {
            String text = part.sheet().source().text();
            if (names.stream().noneMatch(name -> text.contains("." + name))) {
                continue;
            }
            Set<Node.Rule> looked = Collections.newSetFromMap(new IdentityHashMap<>());
            part.sheet().eachDeclaration((declaration, around) -> {
                if (!around.isEmpty() && looked.add(around.get(around.size() - 1))) {
                    Budget.step();
                    Readers.selector(part.sheet(), around).ifPresent(list -> list.selectors()
                            .forEach(s -> waits(s, names, matcher, elements, places)));
                }
            });
        }
        List<ScriptClass> all = new ArrayList<>();
        places.forEach((name, at) -> {
            if (all.size() < MOST) {
                all.add(new ScriptClass(name, page.withClass(name, at), Collections.unmodifiableSet(at)));
            }
        });
        return all;
    }

    /** Whether an element is one of those that are changed, or inside of one. */
    public boolean reaches(int index) {
        Element e = page.elements().get(index);
        return changed.stream()
                .map(page.elements()::get)
                .anyMatch(c -> c == e || e.parents().contains(c));
    }

    /**
     * The same for whoever asks of many; true as well for one that has the class anyway.
     *
     * @param e of {@link #page}
     */
    public boolean reaches(Element e) {
        for (Element a = e; a != null; a = a.parent()) {
            if (a.hasClass(name)) {
                return true;
            }
        }
        return false;
    }

    /** Elements that a selector would find if they had the class. */
    private static void waits(
            ComplexSelector selector,
            Set<String> names,
            SelectorMatcher matcher,
            List<Element> elements,
            Map<String, Set<Integer>> places) {
        for (int i = 0; i < selector.compounds().size(); i++) {
            CompoundSelector compound = selector.compounds().get(i);
            for (SimpleSelector simple : compound.simples()) {
                if (!(simple instanceof SimpleSelector.ClassName c) || !names.contains(c.name())) {
                    continue;
                }
                List<SimpleSelector> rest =
                        compound.simples().stream().filter(s -> s != simple).toList();
                // A class alone may be put on anything.
                if (rest.isEmpty()) {
                    continue;
                }
                List<CompoundSelector> compounds =
                        new ArrayList<>(selector.compounds().subList(0, i));
                compounds.add(new CompoundSelector(rest, null, List.of()));
                SelectorList without = new SelectorList(List.of(
                        new ComplexSelector(compounds, selector.combinators().subList(0, i), selector.specificity())));
                for (int at = 1; at < elements.size(); at++) {
                    Element e = elements.get(at);
                    if (!e.hasClass(c.name()) && matcher.matches(without, e)) {
                        places.computeIfAbsent(c.name(), k -> new TreeSet<>()).add(at);
                    }
                }
            }
        }
    }

    private static Set<String> names(Theme theme, Page page) {
        Set<String> names = new LinkedHashSet<>();
        for (Element script : page.document().select("script")) {
            Optional<String> path =
                    script.hasAttr("src") ? Paths.resolve(page.source().file(), script.attr("src")) : Optional.empty();
            if (path.isPresent()
                    && theme.files().has(path.get())
                    && theme.files().size(path.get()) <= LARGEST) {
                add(new String(theme.files().read(path.get()), StandardCharsets.UTF_8), names);
            }
            add(script.data(), names);
        }
        return names;
    }

    private static void add(String script, Set<String> names) {
        Matcher changes = CHANGES.matcher(script);
        while (changes.find()) {
            Matcher quoted = QUOTED.matcher(changes.group(1) != null ? changes.group(1) : changes.group(2));
            while (quoted.find()) {
                for (String word : quoted.group(1).split("\\s+")) {
                    if (NAME.matcher(word).matches()) {
                        names.add(word);
                    }
                }
            }
        }
    }
}

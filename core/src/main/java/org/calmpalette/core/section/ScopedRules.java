package org.calmpalette.core.section;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.calmpalette.core.cascade.Gathered;
import org.calmpalette.core.css.Escapes;
import org.calmpalette.core.css.TokenType;
import org.calmpalette.core.css.Tokenizer;
import org.calmpalette.core.css.Tokens;
import org.calmpalette.core.css.selector.ComplexSelector;
import org.calmpalette.core.css.selector.SelectorList;
import org.calmpalette.core.css.selector.SelectorMatcher;
import org.calmpalette.core.css.selector.States;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.render.Rendered;
import org.jsoup.nodes.Document;
import org.jsoup.nodes.Element;

/**
 * Every rule that finds something in a part of a page, in the order in which one beats another.
 *
 * <p>Selectors are cut to what lies inside of the part and put into {@code :where()}, so that all weigh the same and their order alone
 * decides (Selectors 4, section 17): what won in the page wins in the section, on whatever page that stands. What the part inherits
 * stands in the rule of the section itself.
 */
final class ScopedRules {
    private final Rendered rendered;
    private final Page page;
    private final Element root;
    private final List<Element> elements;
    private final OwnPictures pictures;
    private final InheritedStyle inherited;
    private final Map<Element, String> styled = new LinkedHashMap<>();

    ScopedRules(Rendered rendered, Page page, Element root, OwnPictures pictures) {
        this.rendered = rendered;
        this.page = page;
        this.root = root;
        this.elements = root.getAllElements();
        this.pictures = pictures;
        this.inherited = new InheritedStyle(rendered, page, root);
    }

    /** Classes that stand for what elements of the part say in a style attribute; there once {@link #css} was asked for. */
    Map<Element, String> styled() {
        return styled;
    }

    /** The rules that concern the part, the weaker first, each by itself. */
    String css() {
        Document alone = Document.createShell("");
        Element copy = root.clone();
        alone.body().appendChild(copy);
        List<Element> copies = copy.getAllElements();
        SelectorMatcher any = new SelectorMatcher(alone, States.ANY);
        SelectorMatcher idle = new SelectorMatcher(alone, States.NONE);
        SelectorMatcher there = new SelectorMatcher(page.document(), States.NONE);
        StringBuilder out = new StringBuilder();
        Set<String> variables = new LinkedHashSet<>();
        for (Gathered rule : Gathered.of(rendered.library().of(page), root)) {
            List<Gathered.Declared> declarations = rule.declarations().stream()
                    .map(d -> d.with(pictures.in(d.value(), rule.file())))
                    .toList();
            declarations.forEach(d -> variables.addAll(d.reads()));
            List<String> written = declarations.stream().map(Object::toString).toList();
            boolean itself = rule.found().contains(0);
            List<Integer> within = rule.found().stream().filter(i -> i > 0).toList();
            String state = rule.selector().pseudoElement() == null
                    ? ""
                    : "::" + rule.selector().pseudoElement();
            // What holds only while something around the part is pointed at, say, cannot hold in the section.
            boolean always = rule.found().stream().anyMatch(i -> there.matches(rule.selector(), elements.get(i)));
            Optional<String> own = Optional.of(
                            rule.selector().originating().subject().toString())
                    .filter(c -> itself)
                    .filter(c -> always || !isFound(c, idle, copies.subList(0, 1)));
            Optional<String> inner = (within.isEmpty()
                            ? Optional.<String>empty()
                            : cut(rule.selector(), within, copies, any, idle))
                    .filter(c -> always
                            || !isFound(
                                    c, idle, within.stream().map(copies::get).toList()));
            List<String> ofRoot = declarations.stream().map(inherited::ofRoot).toList();
            boolean together = ofRoot.equals(written);
            List<String> selectors = new ArrayList<>();
            own.ifPresent(c -> selectors.add(":scope:where(" + classes(c) + ")" + state));
            if (!together && !selectors.isEmpty()) {
                rule(out, rule.conditions(), selectors, ofRoot);
                selectors.clear();
            }
            inner.ifPresent(c -> selectors.add(":where(" + classes(c) + ")" + state));
            rule(out, rule.conditions(), selectors, written);
        }
        for (Element e : elements) {
            if (!e.attr("style").isBlank()) {
                String name = "s" + (styled.size() + 1);
                styled.put(e, name);
                out.append(e == root ? ":scope" : ":where(." + name + ")")
                        .append(" {\n  ")
                        .append(pictures.in(
                                e.attr("style").strip().replaceAll(";$", ""),
                                page.source().file()))
                        .append(";\n}\n");
            }
        }
        return inherited.rules(variables) + out;
    }

    private static boolean isFound(String selector, SelectorMatcher matcher, List<Element> among) {
        return SelectorList.parse(selector)
                .filter(l -> among.stream().anyMatch(e -> matcher.matches(l, e)))
                .isPresent();
    }

    private static void rule(
            StringBuilder out, List<String> conditions, List<String> selectors, List<String> declarations) {
        if (selectors.isEmpty() || declarations.isEmpty()) {
            return;
        }
        String indent = "  ".repeat(conditions.size());
        for (int i = 0; i < conditions.size(); i++) {
            out.append("  ".repeat(i)).append(conditions.get(i)).append(" {\n");
        }
        out.append(indent).append(String.join(",\n" + indent, selectors)).append(" {\n");
        declarations.forEach(d -> out.append(indent).append("  ").append(d).append(";\n"));
        out.append(indent).append("}\n");
        for (int i = conditions.size() - 1; i >= 0; i--) {
            out.append("  ".repeat(i)).append("}\n");
        }
    }

    /** Identifiers are taken out of the markup, since a section may stand on a page twice; they go on as classes. */
    private static String classes(String selector) {
        Tokens tokens = Tokenizer.tokenize(selector);
        StringBuilder out = new StringBuilder();
        for (int i = 0; i < tokens.size(); i++) {
            out.append(
                    tokens.is(i, TokenType.HASH)
                            ? "." + Escapes.identifier(tokens.value(i))
                            : selector.substring(tokens.start(i), tokens.end(i)));
        }
        return out.toString();
    }

    /** As much of a selector, from its right, as lies inside of the part. */
    private static Optional<String> cut(
            ComplexSelector s, List<Integer> found, List<Element> copies, SelectorMatcher any, SelectorMatcher idle) {
        ComplexSelector whole = s.originating();
        for (int start = 0; start < whole.compounds().size(); start++) {
            String part = whole.from(start).toString();
            Optional<SelectorList> list = SelectorList.parse(part);
            boolean all = list.isPresent()
                    && found.stream()
                            .allMatch(i ->
                                    any.matches(list.get(), copies.get(i)) || idle.matches(list.get(), copies.get(i)));
            if (all) {
                return Optional.of(part);
            }
        }
        return Optional.empty();
    }
}

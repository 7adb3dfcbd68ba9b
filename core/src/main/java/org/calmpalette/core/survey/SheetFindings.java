package org.calmpalette.core.survey;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.calmpalette.core.Budget;
import org.calmpalette.core.css.Node;
import org.calmpalette.core.css.Reference;
import org.calmpalette.core.css.TokenType;
import org.calmpalette.core.css.Tokens;
import org.calmpalette.core.css.selector.SelectorList;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.page.Paths;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.ThemeSheet;
import org.jsoup.nodes.Element;

/** Troubles between stylesheets: those that are not there, circles, and selectors that browsers drop. */
final class SheetFindings {
    private static final int MOST_NAMED = 8;

    private final Theme theme;
    private final List<Finding> findings = new ArrayList<>();
    private final Map<String, List<String>> imports = new HashMap<>();

    private SheetFindings(Theme theme) {
        this.theme = theme;
    }

    static List<Finding> of(Theme theme) {
        SheetFindings found = new SheetFindings(theme);
        theme.pages().forEach(found::links);
        for (ThemeSheet part : theme.sheets()) {
            found.rules(part, part.sheet().rules(), null);
            found.variables(part);
        }
        return found.findings;
    }

    private void add(Finding.Kind kind, ThemeSheet part, int token, String message, String mend) {
        int offset = part.sheet().tokens().start(token);
        findings.add(new Finding(kind, part.path(), part.line(offset), part.column(offset), message, mend));
    }

    private void links(Page page) {
        for (Element link : page.document().select("link[rel~=(?i)\\bstylesheet\\b][href]")) {
            String href = link.attr("href");
            Optional<String> path = Paths.resolve(page.source().file(), href);
            int start = Math.max(0, link.sourceRange().startPos());
            if (path.isPresent() && !theme.files().has(path.get()) && !Theme.isGenerated(path.get())) {
                findings.add(new Finding(
                        Finding.Kind.MISSING_STYLESHEET,
                        page.source().file(),
                        page.source().line(start),
                        page.source().column(start),
                        "The stylesheet “" + href + "” is not in the theme, so its rules are missing.",
                        "Add " + path.get() + " to the theme, or correct the address."));
            }
        }
    }

    private void rules(ThemeSheet part, List<Node> nodes, SelectorList around) {
        Tokens tokens = part.sheet().tokens();
        for (Node node : nodes) {
            if (node instanceof Node.AtRule at) {
                if (at.name().equals("import")) {
                    imported(part, at);
                } else if (!at.name().endsWith("keyframes")) {
                    rules(part, at.children(), around);
                }
            } else if (node instanceof Node.StyleRule rule) {
                Optional<SelectorList> selectors =
                        SelectorList.parse(tokens, rule.preludeFirst(), rule.preludeEnd(), around);
                String text = part.sheet().prelude(rule);
                // Selectors with another browser's prefix are dropped on purpose.
                if (selectors.isEmpty()
                        && around != null
                        && SelectorList.parse(text.replace("&", "*")).isPresent()) {
                    add(
                            Finding.Kind.LIMIT,
                            part,
                            rule.first(),
                            "The selector “" + shortened(text)
                                    + "” repeats what is nested around it so often that it is not looked at.",
                            "Write the selector out, or nest less deeply.");
                } else if (selectors.isEmpty() && !text.contains(":-") && !text.isEmpty()) {
                    add(
                            Finding.Kind.UNKNOWN_SELECTOR,
                            part,
                            rule.first(),
                            "Browsers do not understand the selector “" + shortened(text)
                                    + "”, so they drop the whole rule.",
                            "Check its spelling.");
                }
                selectors.ifPresent(s -> rules(part, rule.children(), s));
            }
        }
    }

    private static String shortened(String text) {
        return text.length() > 80 ? text.substring(0, 80) + "…" : text;
    }

    private void imported(ThemeSheet part, Node.AtRule at) {
        Tokens tokens = part.sheet().tokens();
        int first = tokens.skipBlank(at.preludeFirst(), at.preludeEnd());
        if (first >= at.preludeEnd()) {
            return;
        }
        int name = tokens.is(first, TokenType.FUNCTION) ? tokens.skipBlank(first + 1, at.preludeEnd()) : first;
        Optional<String> path = Paths.resolve(part.path(), tokens.value(name));
        if (path.isEmpty()) {
            return;
        }
        if (!theme.files().has(path.get())) {
            add(
                    Finding.Kind.MISSING_STYLESHEET,
                    part,
                    at.first(),
                    "The imported stylesheet “" + tokens.value(name)
                            + "” is not in the theme, so its rules are missing.",
                    "Add " + path.get() + " to the theme, or correct the address.");
            return;
        }
        imports.computeIfAbsent(part.path(), k -> new ArrayList<>()).add(path.get());
        if (leadsTo(path.get(), part.path())) {
            add(
                    Finding.Kind.CIRCULAR_IMPORT,
                    part,
                    at.first(),
                    "This import leads back to " + part.path() + "; browsers stop the circle here.",
                    "Take one of the imports out.");
        }
    }

    private boolean leadsTo(String from, String to) {
        Set<String> seen = new LinkedHashSet<>(List.of(from));
        Deque<String> open = new ArrayDeque<>(seen);
        while (!open.isEmpty()) {
            String at = open.poll();
            if (at.equals(to)) {
                return true;
            }
            imports.getOrDefault(at, List.of()).stream().filter(seen::add).forEach(open::add);
        }
        return false;
    }

    /** Custom properties of one rule that read each other in a circle are invalid: CSS Custom Properties 1, section 2.3. */
    private void variables(ThemeSheet part) {
        Map<Integer, Map<String, Node.Declaration>> byRule = new LinkedHashMap<>();
        part.sheet().eachDeclaration((d, around) -> {
            if (d.isCustom()) {
                byRule.computeIfAbsent(
                                around.isEmpty()
                                        ? -1
                                        : around.get(around.size() - 1).first(),
                                k -> new LinkedHashMap<>())
                        .put(d.property(), d);
            }
        });
        for (Map<String, Node.Declaration> declared : byRule.values()) {
            Set<String> told = new LinkedHashSet<>();
            Set<String> circular = circular(part, declared);
            for (String name : declared.keySet()) {
                List<String> circle =
                        circular.contains(name) && !told.contains(name) ? circle(part, declared, name) : List.of();
                if (!circle.isEmpty() && told.addAll(circle)) {
                    add(
                            Finding.Kind.CIRCULAR_VARIABLE,
                            part,
                            declared.get(name).first(),
                            "These custom properties read each other in a circle, so"
                                    + " none of them has a value: "
                                    + String.join(", ", circle.subList(0, Math.min(MOST_NAMED, circle.size())))
                                    + (circle.size() > MOST_NAMED
                                            ? " and " + (circle.size() - MOST_NAMED) + " more"
                                            : "")
                                    + ".",
                            "Give one of them a value of its own.");
                }
            }
        }
    }

    /** Those that may be in a circle: what is left when all that read nothing, or only such, are taken away again and again. */
    private static Set<String> circular(ThemeSheet part, Map<String, Node.Declaration> declared) {
        Map<String, Integer> waits = new LinkedHashMap<>();
        Map<String, List<String>> readers = new HashMap<>();
        Deque<String> free = new ArrayDeque<>();
        declared.forEach((name, d) -> {
            Set<String> reads = new LinkedHashSet<>(read(part, d));
            reads.retainAll(declared.keySet());
            reads.forEach(
                    r -> readers.computeIfAbsent(r, k -> new ArrayList<>()).add(name));
            waits.put(name, reads.size());
            if (reads.isEmpty()) {
                free.add(name);
            }
        });
        while (!free.isEmpty()) {
            String done = free.poll();
            waits.remove(done);
            for (String reader : readers.getOrDefault(done, List.of())) {
                if (waits.merge(reader, -1, Integer::sum) == 0) {
                    free.add(reader);
                }
            }
        }
        return waits.keySet();
    }

    /** The custom properties on a way from one of them back to itself; empty if there is none. */
    private static List<String> circle(ThemeSheet part, Map<String, Node.Declaration> declared, String start) {
        Map<String, String> cameFrom = new LinkedHashMap<>();
        Deque<String> open = new ArrayDeque<>(List.of(start));
        while (!open.isEmpty()) {
            String at = open.removeLast();
            for (String next : read(part, declared.get(at))) {
                Budget.step();
                if (next.equals(start)) {
                    List<String> way = new ArrayList<>();
                    for (String back = at; back != null; back = cameFrom.get(back)) {
                        way.add(0, back);
                    }
                    return way;
                }
                if (declared.containsKey(next) && !cameFrom.containsKey(next)) {
                    cameFrom.put(next, at);
                    open.addLast(next);
                }
            }
        }
        return List.of();
    }

    private static List<String> read(ThemeSheet part, Node.Declaration d) {
        return Reference.in(part.sheet().tokens(), d.valueFirst(), d.valueEnd()).stream()
                .map(Reference::name)
                .toList();
    }
}

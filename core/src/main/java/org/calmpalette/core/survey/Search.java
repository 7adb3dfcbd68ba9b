package org.calmpalette.core.survey;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import org.calmpalette.core.change.Located;
import org.calmpalette.core.css.Node;
import org.calmpalette.core.css.TokenType;
import org.calmpalette.core.css.Tokens;
import org.calmpalette.core.css.selector.SelectorList;
import org.calmpalette.core.css.selector.SelectorMatcher;
import org.calmpalette.core.css.selector.States;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.part.PartSelector;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.ThemeSheet;
import org.calmpalette.core.usage.Comments;
import org.calmpalette.core.usage.PageSelector;
import org.calmpalette.core.usage.Painted;
import org.calmpalette.core.usage.Readers;
import org.jsoup.nodes.Comment;
import org.jsoup.nodes.Element;

/** Finds words in all stylesheets and pages: in selectors, properties, values, comments and markup. */
public final class Search {
    /** More than this nobody reads; the whole number is told. */
    public static final int MOST = 80;

    private final String wanted;
    private final List<Hit> hits = new ArrayList<>();
    private int total;

    private Search(String wanted) {
        this.wanted = wanted;
    }

    /**
     * A place where the words stand.
     *
     * @param where selector, declaration, comment or markup
     * @param start offset of the declaration in its file; -1 if it is none
     * @param comment what the author calls the rule; may be empty
     */
    public record Hit(
            String where,
            String file,
            int line,
            String selector,
            String text,
            int start,
            String comment,
            List<Painted> painted) {}

    /** @param total how many there are; the hits are at most {@link #MOST} */
    public record Result(List<Hit> hits, int total) {}

    public static Result of(Theme theme, String words) {
        String wanted = words.strip().replaceAll("\\s+", " ").toLowerCase(Locale.ROOT);
        Search search = new Search(wanted);
        if (!wanted.isEmpty()) {
            theme.declaring().forEach(search::sheet);
            theme.pages().forEach(search::page);
        }
        return new Result(List.copyOf(search.hits), search.total);
    }

    private boolean has(String text) {
        return text.toLowerCase(Locale.ROOT).contains(wanted);
    }

    private void add(Hit hit) {
        total++;
        if (hits.size() < MOST) {
            hits.add(hit);
        }
    }

    private void sheet(ThemeSheet part) {
        Set<Integer> told = new LinkedHashSet<>();
        Set<String> comments = new LinkedHashSet<>();
        part.sheet().eachDeclaration((d, around) -> {
            Located at = new Located(part, d, around);
            Node.Rule rule = around.isEmpty() ? null : around.get(around.size() - 1);
            String selector = rule == null ? "" : part.sheet().prelude(rule);
            String comment = Comments.above(part.sheet(), around);
            boolean named = has(selector) || has(comment);
            String text = d.property() + ": " + at.value() + (d.important() ? " !important" : "");
            if (named && rule != null && told.add(rule.first())) {
                int line = part.line(part.sheet().tokens().start(rule.first()));
                comments.add(comment);
                add(new Hit(
                        has(selector) ? "selector" : "comment",
                        part.path(),
                        line,
                        selector,
                        "",
                        at.nameStart(),
                        comment,
                        painted(at)));
            }
            if (has(text) || has(d.property() + ":" + at.value())) {
                add(new Hit(
                        "declaration", part.path(), at.line(), selector, text, at.nameStart(), comment, painted(at)));
            }
        });
        // Those that stand above no rule: at the head of the file, between declarations, at its end.
        Tokens tokens = part.sheet().tokens();
        for (int i = 0; i < tokens.size(); i++) {
            if (tokens.is(i, TokenType.COMMENT) && (has(tokens.raw(i)) || has(Comments.words(tokens.raw(i))))) {
                String words = Comments.words(tokens.raw(i));
                if (comments.stream().noneMatch(c -> !c.isEmpty() && (c.equals(words) || c.contains(words)))) {
                    add(new Hit("comment", part.path(), part.line(tokens.start(i)), "", words, -1, "", List.of()));
                }
            }
        }
    }

    private static List<Painted> painted(Located at) {
        return Readers.selector(at.part().sheet(), at.around())
                .map(s -> PageSelector.of(s, at.declaration().property()))
                .orElse(List.of());
    }

    /** Elements that the words find as a selector, or whose class, id or style holds them; and comments of the markup. */
    private void page(Page page) {
        Optional<SelectorList> selector =
                wanted.matches("[.#\\[a-z].*") ? SelectorList.parse(wanted) : Optional.empty();
        SelectorMatcher matcher = new SelectorMatcher(page.document(), States.NONE);
        for (Element e : page.elements()) {
            if (e == page.document()) {
                continue;
            }
            boolean found = selector.isPresent() && matcher.matches(selector.get(), e)
                    || has(e.className()) && !e.className().isEmpty()
                    || has(e.id()) && !e.id().isEmpty()
                    || has(e.attr("style")) && e.hasAttr("style");
            if (found) {
                String unique = PartSelector.unique(page, e);
                add(new Hit(
                        "markup",
                        page.source().file(),
                        line(page, e.sourceRange().startPos()),
                        PartSelector.name(e),
                        e.text().length() > 60 ? e.text().substring(0, 60) + "…" : e.text(),
                        -1,
                        "",
                        SelectorList.parse(unique)
                                .map(l -> PageSelector.of(l, "color"))
                                .orElse(List.of())));
            }
        }
        page.document().forEachNode(n -> {
            if (n instanceof Comment c && has(c.getData())) {
                add(new Hit(
                        "comment",
                        page.source().file(),
                        line(page, c.sourceRange().startPos()),
                        "",
                        c.getData().strip(),
                        -1,
                        "",
                        List.of()));
            }
        });
    }

    private static int line(Page page, int offset) {
        return page.source().line(Math.max(0, offset));
    }
}

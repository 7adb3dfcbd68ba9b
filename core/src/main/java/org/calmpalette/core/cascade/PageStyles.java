package org.calmpalette.core.cascade;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Function;
import java.util.stream.Stream;
import org.calmpalette.core.css.Node;
import org.calmpalette.core.css.Reference;
import org.calmpalette.core.css.SourceText;
import org.calmpalette.core.css.Stylesheet;
import org.calmpalette.core.css.selector.SelectorMatcher;
import org.calmpalette.core.css.selector.Specificity;
import org.calmpalette.core.css.selector.States;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.page.Paths;
import org.calmpalette.core.value.Viewport;
import org.jsoup.nodes.Element;

/**
 * What paints every element of a page in a window of one size, and why. Made for one page, window and set of states;
 * not safe for use by several threads at once.
 */
public final class PageStyles {
    private static final int NO_SCOPE = Integer.MAX_VALUE;
    private static final SheetReader BROWSER = browser();

    private final Page page;
    private final Viewport window;
    private final SelectorMatcher matcher;
    private final Element root;
    private final SheetReader sheets;
    private final Prepared prepared;
    private final Map<Element, ElementStyle> styles = new IdentityHashMap<>();
    private final Map<String, Optional<Map<String, String>>> expansions = new HashMap<>();

    private PageStyles(Page page, SheetReader sheets, Prepared prepared, Viewport window, States states) {
        this.page = page;
        this.window = window;
        this.sheets = sheets;
        this.prepared = prepared;
        this.matcher = new SelectorMatcher(page.document(), states);
        this.root = page.document().firstElementChild();
    }

    /** The root element; null on an empty page. */
    Element root() {
        return root;
    }

    /** Rules made ready for one window, shared by all pages that load the same sheets. */
    private static final class Prepared {
        final RuleIndex index = new RuleIndex();
        final RuleIndex unmet = new RuleIndex();
        final Map<FlatRule, List<Condition>> failing = new IdentityHashMap<>();
        final Map<String, Integer> layers;
        private final Map<String, RuleIndex> giving = new ConcurrentHashMap<>();

        /** Only what may decide a longhand. */
        Prepared(Prepared all, String longhand) {
            layers = all.layers;
            all.index.each(e -> {
                if (concerns(e.rule(), longhand)) {
                    index.add(e);
                }
            });
        }

        /** The rules that may give a longhand a keyword, by a name of their own or through a custom property. */
        RuleIndex giving(String longhand, String keyword) {
            return giving.computeIfAbsent(longhand + ":" + keyword, k -> {
                RuleIndex few = new RuleIndex();
                index.each(e -> {
                    for (Node.Declaration d : e.rule().declarations()) {
                        String value = e.rule().source().sheet().value(d).toLowerCase(Locale.ROOT);
                        if (Properties.longhands(d.property()).contains(longhand)
                                && (value.contains(keyword) || Reference.isIn(value))) {
                            few.add(e);
                            return;
                        }
                    }
                });
                return few;
            });
        }

        Prepared(SheetReader sheets, Viewport window) {
            layers = sheets.layerOrder();
            int order = 0;
            for (FlatRule rule : BROWSER.rules) {
                index.add(rule, order++);
            }
            Map<Condition, Boolean> asked = new HashMap<>();
            for (FlatRule rule : sheets.rules) {
                List<Condition> fail = rule.conditions().isEmpty()
                        ? List.of()
                        : rule.conditions().stream()
                                .filter(c -> !asked.computeIfAbsent(c, k -> k.holds(window)))
                                .toList();
                if (fail.isEmpty()) {
                    index.add(rule, order++);
                } else {
                    failing.put(rule, fail);
                    unmet.add(rule, order++);
                }
            }
        }
    }

    /** Rules made ready for the windows that were asked for last. A request may name any width, so few are kept. */
    private static final class Windows {
        private static final int MOST = 6;
        private final SheetReader sheets;
        private final Map<Viewport, Prepared> latest = new LinkedHashMap<>(16, 0.75f, true) {
            @Override
            protected boolean removeEldestEntry(Map.Entry<Viewport, Prepared> eldest) {
                return size() > MOST;
            }
        };

        Windows(SheetReader sheets) {
            this.sheets = sheets;
        }

        synchronized Prepared of(Viewport window) {
            Prepared known = latest.get(window);
            if (known == null) {
                known = new Prepared(sheets, window);
                latest.put(window, known);
            }
            return known;
        }
    }

    private static boolean concerns(FlatRule rule, String longhand) {
        return rule.declarations().stream()
                .anyMatch(d -> d.isCustom()
                        || d.property().equals("all")
                        || Properties.longhands(d.property()).contains(longhand));
    }

    private static SheetReader browser() {
        try (InputStream in = PageStyles.class.getResourceAsStream("browser.css")) {
            SourceText text = SourceText.stylesheet("the browser's own sheet", in.readAllBytes());
            SheetReader reader = new SheetReader(path -> Optional.empty());
            reader.read(new SheetSource(text, Stylesheet.read(text), 0, Origin.USER_AGENT), List.of());
            return reader;
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** The sheets of a page, read once; styles for several windows and states can be made from them. */
    public static final class Sheets {
        private final Page page;
        private final SheetReader reader;
        private final Windows prepared;

        private Sheets(Page page, SheetReader reader, Windows prepared) {
            this.page = page;
            this.reader = reader;
            this.prepared = prepared;
        }

        public PageStyles in(Viewport window, States states) {
            return new PageStyles(page, reader, prepared.of(window), window, states);
        }

        /** Paths of sheets that are named and not there. */
        public List<String> missing() {
            return reader.missing;
        }

        Page page() {
            return page;
        }

        SheetReader reader() {
            return reader;
        }
    }

    /** The stylesheets of a theme's pages. What several pages load is read once. Safe for use by several threads. */
    public static final class Library {
        private final Function<String, Optional<Stylesheet>> files;
        private final List<String> first;
        private final List<String> last;
        private final Map<String, Optional<SheetSource>> read = new HashMap<>();
        private final Map<List<String>, Sheets> known = new HashMap<>();

        /**
         * @param files gives a stylesheet by its path; empty if it is not there
         * @param first paths of sheets that every page loads before its own, unless it links to them itself
         * @param last likewise, after its own
         */
        public Library(Function<String, Optional<Stylesheet>> files, List<String> first, List<String> last) {
            this.files = files;
            this.first = first;
            this.last = last;
        }

        /** The sheets of a page in document order: linked ones, embedded ones, and what they import. */
        public synchronized Sheets of(Page page) {
            List<Named> named = named(page);
            List<String> key = named.stream()
                    .map(n -> n.path() + "|" + n.media()
                            + (n.style() == null ? "" : "|" + page.source().file()))
                    .toList();
            Sheets same = known.get(key);
            if (same == null) {
                SheetReader reader = new SheetReader(this::source);
                named.forEach(n -> add(n, page, reader));
                same = new Sheets(page, reader, new Windows(reader));
                known.put(key, same);
            }
            return new Sheets(page, same.reader, same.prepared);
        }

        /** Paths of the stylesheets that a page loads by itself and that are there, in order; imports are not among them. */
        public List<String> loaded(Page page) {
            return named(page).stream()
                    .filter(n -> n.style() == null)
                    .map(Named::path)
                    .filter(p -> source(p).isPresent())
                    .toList();
        }

        private synchronized Optional<SheetSource> source(String path) {
            return read.computeIfAbsent(
                    path, p -> files.apply(p).map(sheet -> new SheetSource(sheet.source(), sheet, 0, Origin.AUTHOR)));
        }

        /** @param style null for a link */
        private record Named(String path, String media, Element style) {}

        private List<Named> named(Page page) {
            List<Named> own = new ArrayList<>();
            for (Element e : page.document().select("link[rel][href], style")) {
                if (e.normalName().equals("style")) {
                    own.add(new Named("#" + own.size(), e.attr("media"), e));
                } else if (isStylesheet(e)) {
                    Paths.resolve(page.source().file(), e.attr("href"))
                            .ifPresent(p -> own.add(new Named(p, e.attr("media"), null)));
                }
            }
            List<String> linked = own.stream().map(Named::path).toList();
            List<Named> all = new ArrayList<>();
            first.stream().filter(p -> !linked.contains(p)).forEach(p -> all.add(new Named(p, "", null)));
            all.addAll(own);
            last.stream().filter(p -> !linked.contains(p)).forEach(p -> all.add(new Named(p, "", null)));
            return all;
        }

        private void add(Named named, Page page, SheetReader reader) {
            List<Condition> conditions =
                    named.media().isBlank() ? List.of() : List.of(new Condition(Condition.Kind.MEDIA, named.media()));
            if (named.style() == null) {
                source(named.path())
                        .ifPresentOrElse(s -> reader.read(s, conditions), () -> reader.missing.add(named.path()));
                return;
            }
            page.styleSpan(named.style()).ifPresent(span -> {
                SourceText text =
                        SourceText.of(page.source().file(), page.source().text().substring(span.start(), span.end()));
                reader.read(
                        new SheetSource(page.source(), Stylesheet.read(text), span.start(), Origin.AUTHOR), conditions);
            });
        }
    }

    /**
     * Reads the sheets of one page.
     *
     * @param files gives the bytes of a stylesheet by its path; empty if it is not there
     */
    public static Sheets sheets(Page page, Function<String, Optional<byte[]>> files) {
        return new Library(path -> files.apply(path).map(b -> Stylesheet.read(path, b)), List.of(), List.of()).of(page);
    }

    private static boolean isStylesheet(Element link) {
        List<String> rel =
                List.of(link.attr("rel").toLowerCase(java.util.Locale.ROOT).split("\\s+"));
        return rel.contains("stylesheet") && !rel.contains("alternate") && !link.hasAttr("disabled");
    }

    public Page page() {
        return page;
    }

    /**
     * A declaration that decides a property.
     *
     * @param start offset of the declaration in its file
     * @param value as written
     */
    public record Decider(String file, int start, String value) {}

    /** For each element whose value of a longhand comes from a theme's rule, the declaration, on whichever element it stands. */
    public Map<Element, Decider> deciders(String longhand) {
        // Only rules that set the property, and custom properties that it may read, are tried.
        PageStyles few = new PageStyles(page, sheets, new Prepared(prepared, longhand), window, matcher.states());
        Map<Element, Decider> deciders = new IdentityHashMap<>();
        boolean inherits = Properties.isInherited(longhand);
        for (Element e : page.document().getAllElements()) {
            Element parent = SelectorMatcher.parent(e);
            ElementStyle.Winner own =
                    e == page.document() ? null : few.of(e).winner(longhand).orElse(null);
            boolean handedOn = own == null
                    ? inherits
                    : own.value().equals("inherit") || own.value().equals("unset") && inherits;
            if (handedOn && parent != null && deciders.containsKey(parent)) {
                deciders.put(e, deciders.get(parent));
            } else if (own != null
                    && own.applied().declaration() != null
                    && own.applied().origin() == Origin.AUTHOR) {
                CascadedDeclaration a = own.applied();
                deciders.put(
                        e,
                        new Decider(
                                a.rule().source().file().file(),
                                a.rule().source().offset()
                                        + a.rule()
                                                .source()
                                                .sheet()
                                                .tokens()
                                                .start(a.declaration().first()),
                                a.value()));
            }
        }
        return deciders;
    }

    /**
     * A box of the page.
     *
     * @param pseudoElement name without colons, such as {@code before}; null for the box of the element itself
     */
    public record Box(Element element, String pseudoElement) {}

    /**
     * The boxes whose value of a longhand is a keyword: of elements, of {@code ::before} and of {@code ::after}, in the order of the
     * page.
     */
    public List<Box> with(String longhand, String keyword) {
        RuleIndex few = prepared.giving(longhand, keyword);
        List<Box> found = new ArrayList<>();
        Set<String> names = new HashSet<>();
        for (Element e : page.document().getAllElements()) {
            if (e == page.document()) {
                continue;
            }
            names.clear();
            eachMatch(
                    few,
                    e,
                    (entry, proximity) ->
                            names.add(Objects.toString(entry.selector().pseudoElement(), "")));
            boolean own = names.contains("")
                    || e.attr("style").toLowerCase(Locale.ROOT).contains(keyword);
            if (own && of(e).is(longhand, keyword)) {
                found.add(new Box(e, null));
            }
            for (String name : List.of("before", "after")) {
                if (names.contains(name) && of(e, name).is(longhand, keyword)) {
                    found.add(new Box(e, name));
                }
            }
        }
        return found;
    }

    public Viewport window() {
        return window;
    }

    Map<String, SheetReader.Registered> registered() {
        return sheets.registered;
    }

    /** Whether nothing of an element shows: it is not laid out, its words are hidden, or it waits for a script or for being opened. */
    public boolean isHidden(Element e) {
        for (Element a = e; a != null && a.parent() != null; a = a.parent()) {
            if (of(a).is("display", "none")
                    || a.hasAttr("hidden")
                    || a.normalName().equals("template")
                    || a.normalName().equals("noscript")
                    || a.normalName().equals("dialog") && !a.hasAttr("open")) {
                return true;
            }
        }
        return of(e).is("visibility", "hidden");
    }

    /** The style of an element of the page. */
    public ElementStyle of(Element element) {
        ElementStyle style = styles.get(element);
        if (style == null) {
            Element parent = SelectorMatcher.parent(element);
            style = new ElementStyle(this, element, parent == null ? null : of(parent), null);
            styles.put(element, style);
        }
        return style;
    }

    /**
     * The style of a pseudo-element.
     *
     * @param name without colons, such as {@code before}
     */
    public ElementStyle of(Element element, String name) {
        return new ElementStyle(this, element, of(element), name);
    }

    private Map<String, Integer> layers() {
        return prepared.layers;
    }

    Optional<Map<String, String>> expand(String property, String value) {
        return expansions.computeIfAbsent(property + ":" + value, k -> Expansion.of(property, value));
    }

    /** All declarations that hold for an element, the weaker first. */
    List<CascadedDeclaration> matched(Element element, String pseudoElement) {
        List<CascadedDeclaration> found = collect(prepared.index, element, pseudoElement);
        if (pseudoElement == null) {
            attributes(element, found);
        }
        found.sort(CascadedDeclaration.STRENGTH);
        return found;
    }

    /** Declarations whose selector holds, but a condition around them does not; the stronger first. */
    List<CascadedDeclaration> withUnmetConditions(Element element, String pseudoElement) {
        List<CascadedDeclaration> found = collect(prepared.unmet, element, pseudoElement);
        found.sort(CascadedDeclaration.STRENGTH.reversed());
        return found;
    }

    /** Whether a rule that holds by the size or style of a container selects an element, or a box of its content: layout decides whether it does. */
    public boolean mayFollowAContainer(Element element) {
        return Stream.of(Optional.<String>empty(), Optional.of("before"), Optional.of("after"))
                .flatMap(p -> collect(prepared.unmet, element, p.orElse(null)).stream())
                .anyMatch(a -> a.rule() != null
                        && unmetConditions(a.rule()).stream().anyMatch(c -> c.kind() == Condition.Kind.CONTAINER));
    }

    List<Condition> unmetConditions(FlatRule rule) {
        return prepared.failing.getOrDefault(rule, List.of());
    }

    /** A selector that holds for an element, with its distance from the root of its scope. */
    private record Match(RuleIndex.Entry entry, int proximity) {}

    private List<CascadedDeclaration> collect(RuleIndex rules, Element element, String pseudoElement) {
        // Of several selectors of one rule the most specific one that holds counts.
        Map<FlatRule, Match> best = new IdentityHashMap<>();
        rules.candidates(element, entry -> {
            int proximity = !Objects.equals(entry.selector().pseudoElement(), pseudoElement)
                    ? -1
                    : entry.rule().scope() != null
                            ? proximity(entry.rule().scope(), entry, element)
                            : matcher.matches(entry.selector(), element) ? NO_SCOPE : -1;
            if (proximity >= 0) {
                best.merge(
                        entry.rule(),
                        new Match(entry, proximity),
                        (a, b) -> b.entry()
                                                .selector()
                                                .specificity()
                                                .compareTo(a.entry().selector().specificity())
                                        > 0
                                ? b
                                : a);
            }
        });
        List<CascadedDeclaration> found = new ArrayList<>();
        best.values().forEach(m -> apply(m, found));
        return found;
    }

    /** Hears of an entry whose selector holds for an element, and its steps from the root of its scope. */
    interface MatchVisitor {
        void matches(RuleIndex.Entry entry, int proximity);
    }

    /** Visits every selector that holds for an element or one of its pseudo-elements. */
    void eachMatch(RuleIndex rules, Element element, MatchVisitor visitor) {
        rules.candidates(element, entry -> {
            int proximity = entry.rule().scope() != null
                    ? proximity(entry.rule().scope(), entry, element)
                    : matcher.matches(entry.selector(), element) ? NO_SCOPE : -1;
            if (proximity >= 0) {
                visitor.matches(entry, proximity);
            }
        });
    }

    /** The declarations of a rule, as strong as one of its selectors makes them. */
    List<CascadedDeclaration> applied(RuleIndex.Entry entry) {
        List<CascadedDeclaration> found = new ArrayList<>();
        apply(new Match(entry, NO_SCOPE), found);
        return found;
    }

    private void apply(Match match, List<CascadedDeclaration> found) {
        FlatRule rule = match.entry().rule();
        boolean browser = rule.source().origin() == Origin.USER_AGENT;
        int rank = browser ? 0 : layers().getOrDefault(rule.layer(), layers().size());
        // A rule has fewer declarations than this, and a page fewer rules than fit beside it into a long.
        long order = (long) match.entry().order() << 20;
        for (Node.Declaration d : rule.declarations()) {
            found.add(new CascadedDeclaration(
                    rule,
                    d,
                    d.property(),
                    rule.source().sheet().value(d),
                    d.important(),
                    rule.source().origin(),
                    rank,
                    match.proximity(),
                    match.entry().selector().specificity(),
                    order++));
        }
    }

    /** Steps from the element to the nearest scope root under which the selector matches; -1 if there is none. */
    private int proximity(Scope scope, RuleIndex.Entry entry, Element element) {
        int steps = 0;
        for (Element root = element; root != null; root = SelectorMatcher.parent(root), steps++) {
            if (matcher.matches(scope.roots(), root)
                    && isInside(scope, root, element)
                    && matcher.scopedTo(root).matches(entry.selector(), element)) {
                return steps;
            }
        }
        return -1;
    }

    private boolean isInside(Scope scope, Element root, Element element) {
        if (scope.limits() == null) {
            return true;
        }
        SelectorMatcher inside = matcher.scopedTo(root);
        for (Element e = element; e != null; e = SelectorMatcher.parent(e)) {
            if (inside.matches(scope.limits(), e)) {
                return false;
            }
            if (e == root) {
                return true;
            }
        }
        return true;
    }

    private void attributes(Element element, List<CascadedDeclaration> found) {
        for (Map.Entry<String, String> hint : Presentation.of(element).entrySet()) {
            found.add(new CascadedDeclaration(
                    null,
                    null,
                    hint.getKey(),
                    hint.getValue(),
                    false,
                    Origin.PRESENTATION,
                    layers().size(),
                    NO_SCOPE,
                    Specificity.NONE,
                    0));
        }
        if (element.hasAttr("style")) {
            SourceText text = SourceText.of(page.source().file(), element.attr("style"));
            Stylesheet sheet = Stylesheet.readAttribute(text);
            SheetSource source = new SheetSource(
                    page.source(), sheet, page.attributeOffset(element, "style"), Origin.STYLE_ATTRIBUTE);
            List<Node.Declaration> declarations = sheet.rules().stream()
                    .filter(Node.Declaration.class::isInstance)
                    .map(Node.Declaration.class::cast)
                    .toList();
            FlatRule rule = new FlatRule(source, null, "style attribute", "", List.of(), null, declarations);
            int order = 0;
            for (Node.Declaration d : declarations) {
                found.add(new CascadedDeclaration(
                        rule,
                        d,
                        d.property(),
                        sheet.value(d),
                        d.important(),
                        Origin.STYLE_ATTRIBUTE,
                        layers().size(),
                        NO_SCOPE,
                        Specificity.NONE,
                        order++));
            }
        }
    }
}

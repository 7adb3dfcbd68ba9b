package org.calmpalette.core.section;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.cascade.ElementStyle;
import org.calmpalette.core.cascade.Explanation;
import org.calmpalette.core.cascade.Gathered;
import org.calmpalette.core.cascade.Origin;
import org.calmpalette.core.cascade.PageStyles;
import org.calmpalette.core.cascade.Painting;
import org.calmpalette.core.css.Edit;
import org.calmpalette.core.css.Escapes;
import org.calmpalette.core.css.TokenType;
import org.calmpalette.core.css.Tokenizer;
import org.calmpalette.core.css.Tokens;
import org.calmpalette.core.css.selector.ComplexSelector;
import org.calmpalette.core.css.selector.SelectorList;
import org.calmpalette.core.css.selector.SelectorMatcher;
import org.calmpalette.core.css.selector.States;
import org.calmpalette.core.output.BoundPage;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.page.Paths;
import org.calmpalette.core.page.StartTag;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.setting.ColorKey;
import org.calmpalette.core.setting.ColorKind;
import org.calmpalette.core.setting.ItemsKind;
import org.calmpalette.core.setting.Kind;
import org.calmpalette.core.setting.LevelKind;
import org.calmpalette.core.setting.LinkKind;
import org.calmpalette.core.setting.PictureKind;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.TextKind;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.setting.YesNoKind;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.ThemeFiles;
import org.calmpalette.core.usage.ColorProperties;
import org.calmpalette.core.usage.ColorRow;
import org.calmpalette.core.usage.ColorUsage;
import org.calmpalette.core.usage.ColorUse;
import org.calmpalette.core.value.Viewport;
import org.jsoup.nodes.Document;
import org.jsoup.nodes.Element;

/**
 * A section made of a part of a page: its markup; every rule that finds something in it, in the order in which one beats another; its
 * words, pictures, links and colours as settings; what repeats in it as items.
 *
 * <p>Selectors are cut to what lies inside of the part and put into {@code :where()}, so that all weigh the same and their order alone
 * decides (Selectors 4, section 17): what won in the page wins in the section, on whatever page that stands. What the part inherits
 * stands in the rule of the section itself.
 */
public final class SectionFrom {
    /** Inherited from around the part: these make it look as it does. */
    private static final List<String> HANDED_DOWN = List.of(
            "color",
            "font-family",
            "font-size",
            "font-weight",
            "font-style",
            "line-height",
            "letter-spacing",
            "text-align",
            "text-transform",
            "list-style",
            "white-space",
            "word-spacing",
            "text-indent",
            "border-collapse",
            "direction",
            "font-variant",
            "text-shadow",
            "text-align-last",
            "word-break",
            "overflow-wrap",
            "hyphens",
            "cursor",
            "visibility",
            "quotes",
            "tab-size",
            "border-spacing",
            "caption-side",
            "color-scheme");

    private static final Set<String> TEXTS = Set.of(
            "h1",
            "h2",
            "h3",
            "h4",
            "h5",
            "h6",
            "p",
            "a",
            "button",
            "figcaption",
            "dt",
            "dd",
            "blockquote",
            "li",
            "span",
            "strong",
            "label",
            "summary");

    private static final Pattern URL = Pattern.compile("url\\(\\s*(?:\"([^\"]*)\"|'([^']*)'|([^)\"'\\s]*))\\s*\\)");
    private static final Pattern VARIABLE = Pattern.compile("var\\(\\s*(--[^\\s,)]+)");
    private static final Pattern DECLARATION = Pattern.compile("([a-z-]+): (.*?)( !important)?", Pattern.DOTALL);

    /** The fonts of {@code font: inherit}, each by itself. */
    private static final List<String> FONT =
            List.of("font-style", "font-weight", "font-size", "line-height", "font-family");

    private static final List<String> LISTS = List.of("ul", "ol", "menu", "dir");

    private static final int MOST_ELEMENTS = 400;

    private final Rendered rendered;
    private final Page page;
    private final Element root;
    private final String key;
    private final List<Element> elements;
    private final List<Setting> settings = new ArrayList<>();
    private final SortedMap<String, byte[]> pictures = new TreeMap<>();
    private final Map<String, String> pictureNames = new TreeMap<>();
    private final Map<Element, Map<String, String>> bound = new LinkedHashMap<>();
    private final Map<Element, String> styled = new LinkedHashMap<>();
    private final Set<Element> left = new HashSet<>();
    private PageStyles styles;

    private SectionFrom(Rendered rendered, Page page, int at, String key) {
        this.rendered = rendered;
        this.page = page;
        this.key = key;
        if (at < 1 || at >= page.elements().size()) {
            throw new BadInputException("That part is no longer on the page.", "Point at it again.");
        }
        this.root = page.elements().get(at);
        this.elements = root.getAllElements();
        if (page.inside(root).isEmpty() || List.of("html", "head", "body").contains(root.normalName())) {
            throw new BadInputException(
                    page.source().file() + ", line "
                            + page.source().line(root.sourceRange().startPos()) + ": <" + root.normalName()
                            + "> is no part that a section can be made of.",
                    "Point at an element in the page that has an end tag.");
        }
        if (elements.size() > MOST_ELEMENTS) {
            throw new BadInputException(
                    "The part holds " + elements.size() + " elements; a section is made of up to " + MOST_ELEMENTS
                            + ".",
                    "Point at a smaller part.");
        }
    }

    /**
     * @param at index of the part among the elements of the page
     * @param key name of the section's folder
     * @param label as people read it
     * @throws BadInputException if the part cannot be one, with file and line
     */
    public static SectionKit of(Rendered rendered, Page page, int at, String key, String label) {
        SectionFrom from = new SectionFrom(rendered, page, at, key);
        return from.made(label);
    }

    private SectionKit made(String label) {
        settings.add(Setting.of("shown", "Shown", "", key, YesNoKind.PLAIN, Value.of(true))
                .withPerBand(true));
        bind(root, "data-setting-show", "shown");
        items();
        elements.forEach(this::words);
        String css = rules();
        String html = markup();
        css = colors(css, html);
        SectionKit plain = new SectionKit(
                key, label, "", html, css, List.copyOf(settings), pictures, SectionKit.remOf(rendered, page), true);
        // Read once more as any other: what could not be used is told now, with its line.
        return SectionKit.read(key, plain.json(label), html, css, pictures);
    }

    private void bind(Element e, String attribute, String value) {
        bound.computeIfAbsent(e, x -> new LinkedHashMap<>()).put(attribute, value);
    }

    /** What repeats: children that are all alike become items of the first. */
    private void items() {
        for (Element e : elements) {
            List<Element> children = e.children();
            boolean inside = e.parents().stream().anyMatch(left::contains) || left.contains(e);
            boolean repeats = children.size() >= 2
                    && children.size() <= ItemsKind.MOST
                    && e.ownText().isBlank()
                    && !e.normalName().equals("nav")
                    && children.stream().allMatch(c -> shape(c).equals(shape(children.get(0))))
                    && children.get(0).getAllElements().size() > 1;
            if (inside || !repeats || page.inside(children.get(0)).isEmpty()) {
                continue;
            }
            Map<String, ItemsKind.Part> parts = new LinkedHashMap<>();
            List<Map<String, Value>> values = new ArrayList<>();
            children.forEach(c -> values.add(new LinkedHashMap<>()));
            List<Element> pattern = children.get(0).getAllElements();
            for (int i = 0; i < pattern.size(); i++) {
                for (Filled f : fillings(pattern.get(i))) {
                    String name = free(parts.keySet(), f.name());
                    boolean all = true;
                    for (int c = 0; c < children.size(); c++) {
                        Element twin = children.get(c).getAllElements().get(i);
                        Optional<Value> v = fillings(twin).stream()
                                .filter(t -> t.attribute().equals(f.attribute()))
                                .map(Filled::value)
                                .findFirst()
                                // A picture that the theme does not hold is none, and not that of its neighbour.
                                .or(() -> switch (f.attribute()) {
                                    case "src" -> Optional.of(Value.of(""));
                                    case "alt" ->
                                        Optional.of(Value.of(twin.attr("alt").strip()));
                                    default -> Optional.empty();
                                });
                        all = all && v.isPresent();
                        int at = c;
                        v.ifPresent(x -> values.get(at).put(name, x));
                    }
                    if (all) {
                        parts.put(
                                name,
                                new ItemsKind.Part(
                                        f.label(),
                                        f.kind(),
                                        f.kind() instanceof PictureKind ? Value.of("") : f.value()));
                        bind(pattern.get(i), "data-item-" + f.attribute(), name);
                    } else {
                        values.forEach(v -> v.remove(name));
                    }
                }
            }
            if (parts.isEmpty()) {
                continue;
            }
            children.forEach(c -> left.addAll(c.getAllElements()));
            String name = free(keys(), "items");
            bind(e, "data-setting-items", name);
            settings.add(Setting.of(
                    name,
                    "Items",
                    "",
                    key,
                    new ItemsKind(parts, 1, Math.min(ItemsKind.MOST, Math.max(12, 2 * children.size()))),
                    new Value.Many(
                            values.stream().map(v -> (Value) new Value.Parts(v)).toList())));
        }
    }

    private static String shape(Element e) {
        StringBuilder out = new StringBuilder();
        e.getAllElements().forEach(x -> out.append(x.normalName())
                .append('.')
                .append(x.className())
                .append('/')
                .append(x.childrenSize())
                .append(' '));
        return out.toString();
    }

    private record Filled(String attribute, String name, String label, Kind kind, Value value) {}

    /** What settings could fill of an element. */
    private List<Filled> fillings(Element e) {
        List<Filled> all = new ArrayList<>();
        String name = e.normalName();
        boolean heading = name.matches("h[1-6]");
        if (TEXTS.contains(name) && page.inside(e).isPresent()) {
            BoundPage.plainText(e)
                    .filter(t -> !t.isBlank() && t.length() <= 2_000)
                    .ifPresent(t -> {
                        TextKind kind = t.contains("\n") || t.length() > 120 ? TextKind.LINES : TextKind.LINE;
                        all.add(new Filled(
                                "text",
                                heading
                                        ? "heading"
                                        : name.equals("a") || name.equals("button") ? "link-words" : "words",
                                heading
                                        ? "Heading"
                                        : name.equals("a") || name.equals("button") ? "Words of the link" : "Words",
                                kind,
                                Value.of(t)));
                    });
        }
        if (heading) {
            all.add(new Filled("level", "level", "Heading level", LevelKind.ANY, Value.of(name.charAt(1) - '0')));
        }
        if (name.equals("a") && e.hasAttr("href")) {
            try {
                all.add(new Filled(
                        "href",
                        "link",
                        "Where the link leads",
                        LinkKind.ANY,
                        LinkKind.ANY.normal(
                                Value.of(BoundPage.target(page.source().file(), e.attr("href"))))));
            } catch (BadInputException foreign) {
                // It stays as it is written.
            }
        }
        if (name.equals("img")) {
            picture(page.source().file(), e.attr("src")).ifPresent(p -> {
                all.add(new Filled(
                        "src",
                        "picture",
                        "Picture",
                        new PictureKind(true, 0, 0, null, null, 0, List.of()),
                        Value.of(p)));
                all.add(new Filled(
                        "alt",
                        "alt",
                        "What the picture shows",
                        TextKind.LINE,
                        Value.of(e.attr("alt").strip())));
            });
        }
        return all;
    }

    /** The name that a picture of the theme has in the section; empty if the theme does not hold it. */
    private Optional<String> picture(String from, String address) {
        Optional<String> path = Paths.resolve(from, address)
                .filter(p -> rendered.theme().pictures().contains(p));
        path.ifPresent(p -> pictureNames.computeIfAbsent(p, x -> {
            String wanted = x.substring(x.lastIndexOf('/') + 1);
            String free = wanted;
            for (int i = 2; pictures.containsKey(free); i++) {
                free = wanted.replaceFirst("(\\.[^.]*)$", "-" + i + "$1");
            }
            pictures.put(free, rendered.theme().files().read(x));
            return free;
        }));
        return path.map(pictureNames::get);
    }

    private void words(Element e) {
        if (left.contains(e)) {
            return;
        }
        for (Filled f : fillings(e)) {
            String name = free(keys(), f.name());
            settings.add(Setting.of(name, f.label(), "", key, f.kind(), f.value()));
            bind(e, "data-setting-" + f.attribute(), name);
        }
    }

    private Set<String> keys() {
        Set<String> all = new LinkedHashSet<>();
        settings.forEach(s -> all.add(s.key()));
        return all;
    }

    private static String free(Set<String> taken, String wanted) {
        String name = wanted;
        for (int i = 2; taken.contains(name); i++) {
            name = wanted + "-" + i;
        }
        return name;
    }

    /** The rules that concern the part, the weaker first, each by itself. */
    private String rules() {
        Theme theme = rendered.theme();
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
            List<String> declarations = new ArrayList<>();
            for (String d : rule.declarations()) {
                String here = addresses(d, rule.file());
                declarations.add(here);
                Matcher m = VARIABLE.matcher(here);
                while (m.find()) {
                    variables.add(m.group(1));
                }
            }
            boolean itself = rule.found().contains(0);
            List<Integer> within = rule.found().stream().filter(i -> i > 0).toList();
            String state = rule.selector().pseudoElement() == null
                    ? ""
                    : "::" + rule.selector().pseudoElement();
            // What holds only while something around the part is pointed at, say, cannot hold in the section.
            boolean always = rule.found().stream().anyMatch(i -> there.matches(rule.selector(), elements.get(i)));
            Optional<String> own = Optional.of(last(rule.selector()))
                    .filter(c -> itself)
                    .filter(c -> always || !isFound(c, idle, copies.subList(0, 1)));
            Optional<String> inner = (within.isEmpty()
                            ? Optional.<String>empty()
                            : cut(rule.selector(), within, copies, any, idle))
                    .filter(c -> always
                            || !isFound(
                                    c, idle, within.stream().map(copies::get).toList()));
            List<String> ofRoot = declarations.stream().map(this::ofRoot).toList();
            boolean together = ofRoot.equals(declarations);
            List<String> selectors = new ArrayList<>();
            own.ifPresent(c -> selectors.add(":scope:where(" + classes(c) + ")" + state));
            if (!together && !selectors.isEmpty()) {
                rule(out, rule.conditions(), selectors, ofRoot);
                selectors.clear();
            }
            inner.ifPresent(c -> selectors.add(":where(" + classes(c) + ")" + state));
            rule(out, rule.conditions(), selectors, declarations);
        }
        for (Element e : elements) {
            if (!e.attr("style").isBlank()) {
                String name = "s" + (styled.size() + 1);
                styled.put(e, name);
                out.append(e == root ? ":scope" : ":where(." + name + ")")
                        .append(" {\n  ")
                        .append(addresses(
                                e.attr("style").strip().replaceAll(";$", ""),
                                page.source().file()))
                        .append(";\n}\n");
            }
        }
        return handedDown(theme, variables) + lists() + out;
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

    /** A declaration of the part itself: what it takes from around it is written out, and so is what its parent makes of its display. */
    private String ofRoot(String declaration) {
        Matcher m = DECLARATION.matcher(declaration);
        if (!m.matches() || declaration.startsWith("--")) {
            return declaration;
        }
        String property = m.group(1);
        String value = m.group(2).strip().toLowerCase(java.util.Locale.ROOT);
        String important = m.group(3) == null ? "" : m.group(3);
        boolean handedOn = property.equals("font") || Painting.isInherited(property);
        // A custom property that holds nothing makes the whole declaration one that was never written.
        boolean inherits = value.equals("inherit")
                || value.equals("unset") && handedOn
                || value.contains("var(")
                        && handedOn
                        && Painting.declared(styleOf(root), property)
                                .map(String::strip)
                                .filter(v -> !v.isEmpty() && !v.equals("unset") && !v.equals("inherit"))
                                .isEmpty();
        if (inherits) {
            List<String> written = (property.equals("font") ? FONT : List.of(property))
                    .stream()
                            .filter(p -> !from(root.parent(), p).isBlank())
                            .map(p -> p + ": " + from(root.parent(), p) + important)
                            .toList();
            return written.isEmpty() ? declaration : String.join("; ", written);
        }
        return property.equals("display") && isItem() ? "display: " + blockified(value) + important : declaration;
    }

    /** The value that an element has of an inherited property; empty if that is not known, or the one that all have. */
    private String from(Element element, String property) {
        if (Painting.isComputed(property)) {
            return styleOf(element).computed(property);
        }
        for (Element at = element; at != null && !at.normalName().equals("#root"); at = at.parent()) {
            Element here = at;
            ElementStyle style = styleOf(at);
            // Browsers give lists their marks by the longhand, makers by the shorthand as well.
            String value = Painting.declared(style, property)
                    .or(() -> property.equals("list-style")
                            ? Painting.declared(style, "list-style-type").or(() -> marks(here))
                            : Optional.empty())
                    .orElse("inherit");
            if (!value.equals("inherit") && !value.equals("unset")) {
                return value;
            }
        }
        return "";
    }

    private static int listsAround(Element e) {
        return (int)
                e.parents().stream().filter(p -> LISTS.contains(p.normalName())).count();
    }

    /** The marks that browsers give a list by how deep it is among lists (HTML, section 15.3.8). */
    private static Optional<String> marks(Element list) {
        return !LISTS.contains(list.normalName())
                ? Optional.empty()
                : Optional.of(list.normalName().equals("ol") ? "decimal" : marks(listsAround(list)));
    }

    private static String marks(int around) {
        return around == 0 ? "disc" : around == 1 ? "circle" : "square";
    }

    /** Lists in the part are as deep as they were: browsers give them marks and margins by that. */
    private String lists() {
        int around = listsAround(root) + (LISTS.contains(root.normalName()) ? 1 : 0);
        boolean any = elements.stream().skip(1).anyMatch(e -> LISTS.contains(e.normalName()));
        if (listsAround(root) == 0 || !any) {
            return "";
        }
        return ":where(ul, ol, menu, dir) {\n  margin-block: 0;\n}\n:where(ul, menu, dir) {\n  list-style-type: "
                + marks(around)
                + ";\n}\n"
                + (around > 1
                        ? ""
                        : ":where(:is(ul, ol, menu, dir) :is(ul, menu, dir)) {\n  list-style-type: " + marks(around + 1)
                                + ";\n}\n");
    }

    private static boolean isByRule(ElementStyle style, String property) {
        Explanation why = Explanation.of(style, property);
        return why.winner() != null
                && why.inheritedFrom() == null
                && why.winner().origin() != Origin.USER_AGENT;
    }

    private ElementStyle styleOf(Element e) {
        if (styles == null) {
            styles = rendered.styles(page, Viewport.of(1440, 900), States.NONE);
        }
        return styles.of(e);
    }

    private boolean isItem() {
        return styleOf(root.parent()).computed("display").matches("(inline-)?(flex|grid)");
    }

    /** What a flex or grid container makes of the display of its items (CSS Display 3, section 2.7). */
    private static String blockified(String display) {
        return display.equals("inline") || display.equals("inline-block")
                ? "block"
                : display.replaceFirst("^inline-(?=flex|grid|table)", "");
    }

    /** What comes from around the part: inherited properties, and custom properties of the theme that its rules read. */
    private String handedDown(Theme theme, Set<String> variables) {
        ElementStyle style = styleOf(root);
        StringBuilder out = new StringBuilder(":scope {\n");
        for (String property : HANDED_DOWN) {
            // What a browser gives an element of its own accord, as letters to a button, stays; what rules give it
            // comes after this.
            String value = from(isByRule(style, property) ? root.parent() : root, property);
            // Elsewhere something else may come from around it.
            String said = value.isBlank() ? "initial" : value;
            out.append("  ").append(property).append(": ").append(said).append(";\n");
        }
        String display = style.computed("display");
        if (isItem() && !isByRule(style, "display") && !blockified(display).equals(display)) {
            out.append("  display: ").append(blockified(display)).append(";\n");
        }
        for (String name : variables) {
            if (!theme.palette().properties().containsKey(name)) {
                style.variable(name).filter(v -> !v.isBlank()).ifPresent(v -> out.append("  ")
                        .append(name)
                        .append(": ")
                        .append(v.strip())
                        .append(";\n"));
            }
        }
        return out.append("}\n").toString();
    }

    /** Addresses as they are in the section: names of its own pictures; others stay as they are. */
    private String addresses(String css, String file) {
        return URL.matcher(css).replaceAll(m -> {
            String url = m.group(1) != null ? m.group(1) : m.group(2) != null ? m.group(2) : m.group(3);
            return Matcher.quoteReplacement(
                    picture(file, url).map(p -> "url(\"" + p + "\")").orElse(m.group()));
        });
    }

    private static String last(ComplexSelector s) {
        return plain(s.subject().toString(), s);
    }

    private static String plain(String selector, ComplexSelector s) {
        String pseudo = s.pseudoElement();
        return pseudo == null
                ? selector
                : selector.replaceFirst("::?" + Pattern.quote(pseudo) + ".*$", "")
                        .replaceFirst("^$|(?<=[\\s>+~])$", "*");
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
        String whole = plain(s.toString(), s);
        List<Integer> starts = new ArrayList<>(List.of(0));
        // Where each of its compounds begins, as they are written out.
        int at = 0;
        for (int i = 0; i + 1 < s.compounds().size(); i++) {
            at = whole.indexOf(s.compounds().get(i).toString(), at)
                    + s.compounds().get(i).toString().length();
            while (at < whole.length() && " >+~".indexOf(whole.charAt(at)) >= 0) {
                at++;
            }
            starts.add(at);
        }
        for (int start : starts) {
            String part = whole.substring(start);
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

    /** The markup with what is bound in it, without identifiers and style attributes; of what repeats the first. */
    private String markup() {
        String text = page.source().text();
        List<Edit> edits = new ArrayList<>();
        int from = root.sourceRange().startPos();
        int to = root.endSourceRange().endPos();
        for (Element e : elements) {
            int start = e.sourceRange().startPos();
            int end = e.sourceRange().endPos();
            if (start < from || end > to || end <= start || !text.startsWith("<", start)) {
                continue;
            }
            boolean again = e.parent() != null
                    && bound.getOrDefault(e.parent(), Map.of()).containsKey("data-setting-items")
                    && e != e.parent().child(0);
            if (again) {
                edits.add(new Edit(
                        start,
                        e.endSourceRange().isTracked()
                                ? Math.max(end, e.endSourceRange().endPos())
                                : end,
                        ""));
                continue;
            }
            if (edits.stream()
                    .anyMatch(x -> x.start() <= start
                            && x.end() >= end
                            && x.replacement().isEmpty())) {
                continue;
            }
            StartTag tag = new StartTag(text.substring(start, end));
            for (StartTag.Attribute a : tag.attributes()) {
                if (a.name().startsWith("data-setting-")
                        || a.name().startsWith("data-section")
                        || a.name().equals("style")
                        || a.name().equals("id")
                        || SectionSafety.refusal(e, new org.jsoup.nodes.Attribute(a.name(), e.attr(a.name())))
                                .isPresent()) {
                    tag = tag.without(a.name());
                }
            }
            String classes = e.className();
            if (!e.id().isEmpty()) {
                classes = (classes + " " + e.id()).strip();
            }
            if (styled.containsKey(e) && e != root) {
                classes = (classes + " " + styled.get(e)).strip();
            }
            if (!classes.equals(e.className())) {
                tag = tag.with("class", classes.replace("\"", "&quot;"));
            }
            for (Map.Entry<String, String> b : bound.getOrDefault(e, Map.of()).entrySet()) {
                tag = tag.with(b.getKey(), b.getValue());
            }
            if (e.normalName().equals("img")) {
                Optional<String> own = picture(page.source().file(), e.attr("src"));
                tag = own.isPresent() ? tag.without("srcset").with("src", own.get()) : tag;
            }
            edits.add(new Edit(start, end, tag.text()));
        }
        StringBuilder out = new StringBuilder();
        int last = from;
        edits.sort(java.util.Comparator.comparingInt(Edit::start));
        for (Edit e : edits) {
            if (e.start() >= last) {
                out.append(text, last, e.start()).append(e.replacement());
                last = e.end();
            }
        }
        String html =
                out.append(text, last, to).toString().replace("\r\n", "\n").replaceAll("\n[ \t]*(?=\n)", "");
        int line = page.source().line(from);
        String indent = text.substring(page.source().lineStart(line), from);
        return indent.isBlank() ? html.replace("\n" + indent, "\n") : html;
    }

    /** Each colour of the rules becomes a setting. */
    private String colors(String css, String html) {
        TreeMap<String, byte[]> files = new TreeMap<>();
        files.put(
                "index.html",
                ("<!doctype html><link rel=stylesheet href=s.css>" + html)
                        .getBytes(java.nio.charset.StandardCharsets.UTF_8));
        files.put("s.css", css.getBytes(java.nio.charset.StandardCharsets.UTF_8));
        Theme alone = Theme.read(ThemeFiles.of(files), key);
        List<Edit> edits = new ArrayList<>();
        for (ColorRow row : ColorUsage.of(alone).rows()) {
            List<ColorUse> uses = row.uses().stream()
                    .filter(u -> u.isLiftable()
                            && !u.triple()
                            && !u.fallback()
                            && u.file().equals("s.css"))
                    .toList();
            if (uses.isEmpty() || row.color().alpha() == 0) {
                continue;
            }
            String role = ColorProperties.role(uses.get(0).property());
            String name = free(
                    keys(),
                    switch (role) {
                        case "text" -> "ink";
                        case "fill" -> "ground";
                        case "icon" -> "icon";
                        case "shadow" -> "shadow";
                        default -> "line";
                    });
            String label =
                    switch (role) {
                        case "text" -> "Colour of words";
                        case "fill" -> "Ground";
                        case "icon" -> "Colour of icons";
                        case "shadow" -> "Shadow";
                        default -> "Lines";
                    };
            String number = name.replaceFirst("^[a-z]+-?", "");
            settings.add(Setting.of(
                    name,
                    label + (number.isEmpty() ? "" : " " + number),
                    "",
                    key,
                    ColorKind.ANY,
                    Value.of(ColorKey.of(row.color()))));
            uses.forEach(u -> edits.add(new Edit(u.start(), u.end(), "var(--" + name + ", " + u.written() + ")")));
        }
        edits.sort(java.util.Comparator.comparingInt(Edit::start));
        return new String(alone.sheets().get(0).file().withEdits(edits), java.nio.charset.StandardCharsets.UTF_8);
    }
}

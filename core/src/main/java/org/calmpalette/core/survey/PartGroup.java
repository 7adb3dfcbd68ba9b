package org.calmpalette.core.survey;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.cascade.ElementStyle;
import org.calmpalette.core.cascade.Explanation;
import org.calmpalette.core.cascade.Origin;
import org.calmpalette.core.cascade.PageStyles;
import org.calmpalette.core.cascade.Painting;
import org.calmpalette.core.change.Between;
import org.calmpalette.core.change.Change;
import org.calmpalette.core.change.LiftedValue;
import org.calmpalette.core.change.Located;
import org.calmpalette.core.change.OwnSheet;
import org.calmpalette.core.change.SheetRole;
import org.calmpalette.core.change.Trial;
import org.calmpalette.core.css.Edit;
import org.calmpalette.core.css.Escapes;
import org.calmpalette.core.css.selector.SelectorList;
import org.calmpalette.core.css.selector.SelectorMatcher;
import org.calmpalette.core.css.selector.States;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.part.PartChange;
import org.calmpalette.core.part.PartLook;
import org.calmpalette.core.part.PartSelector;
import org.calmpalette.core.part.ScriptClass;
import org.calmpalette.core.render.Breakpoint;
import org.calmpalette.core.render.Measures;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.setting.AnotherValue;
import org.calmpalette.core.setting.BackgroundKind;
import org.calmpalette.core.setting.Band;
import org.calmpalette.core.setting.Bands;
import org.calmpalette.core.setting.ChoiceKind;
import org.calmpalette.core.setting.Chosen;
import org.calmpalette.core.setting.ColorKind;
import org.calmpalette.core.setting.Given;
import org.calmpalette.core.setting.GradientKind;
import org.calmpalette.core.setting.Kind;
import org.calmpalette.core.setting.LengthKind;
import org.calmpalette.core.setting.Palette;
import org.calmpalette.core.setting.Place;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.usage.ColorRow;
import org.calmpalette.core.usage.ColorUsage;
import org.calmpalette.core.usage.Painted;
import org.calmpalette.core.usage.Readers;
import org.calmpalette.core.usage.SpacingSteps;
import org.calmpalette.core.value.Viewport;
import org.jsoup.nodes.Element;

/**
 * A part of a page as a ready-made group of settings: what decides how it looks, at every band of window widths, and the change that
 * lets settings decide it. Nothing looks otherwise by it: each setting has today's value as its default.
 */
public final class PartGroup {
    private static final int HEIGHT = 900;
    private static final int FROM = 320;
    /** What is as wide as the column goes with it. */
    private static final String HANGS = "hangs";

    /** What the links of a header look like in their states, by what the offers begin with. */
    private static final Map<String, String> STATES =
            Map.of("pointed-", "hover", "focused-", "focus", "pressed-", "active");

    private static final String POINTED = "pointed-";
    private static final String TURNS = "It turns at ";
    private static final String SHADE = "shade";
    private static final String GROUND = "ground";
    /** What no rule decided before: a rule of its own is written for it. */
    private static final Set<String> ADDED = Set.of("room", "box-fill", "box-room");

    private static final List<String> BOXED = List.of(
            "background-color", "background-image", "padding-top", "padding-right", "padding-bottom", "padding-left");

    private static final Value CLEAR = Value.of("#00000000");

    private static final Pattern ONE_PICTURE = Pattern.compile("(?is)[^,()]*url\\([^()]*\\)[^,()]*");

    private static final Pattern SPACED = Pattern.compile("^(padding|margin)|gap$");

    private static final Pattern RELATIVE = Pattern.compile("\\d(em|ex|ch|lh|%)");

    /**
     * One setting that could be made.
     *
     * @param id names it among those of the part
     * @param label as the owner reads it
     * @param element index of the element that it concerns
     * @param kind with what an owner may choose
     * @param value today's, in the widest band
     * @param bands today's in those bands that differ
     * @param now in words
     * @param where what decides it today; empty if nothing does
     * @param note what an owner's choice does not reach; may be empty
     * @param once the class of a script with which it holds; empty for the page as it is loaded
     */
    public record Offer(
            String id,
            String label,
            int element,
            String property,
            Kind kind,
            Value value,
            Map<String, Value> bands,
            String now,
            List<String> where,
            String note,
            String once) {
        Offer(
                String id,
                String label,
                int element,
                String property,
                Kind kind,
                Value value,
                Map<String, Value> bands,
                String now,
                List<String> where,
                String note) {
            this(id, label, element, property, kind, value, bands, now, where, note, "");
        }

        Offer noted(String words) {
            return new Offer(id, label, element, property, kind, value, bands, now, where, words, once);
        }

        Offer once(String name) {
            return new Offer(
                    "once-" + Place.keyOf(name) + "-" + id,
                    label + ", once a script sets “" + name + "”",
                    element,
                    property,
                    kind,
                    value,
                    bands,
                    now,
                    where,
                    note,
                    name);
        }

        /** Its id on the page as it is loaded. */
        String plain() {
            return once.isEmpty() ? id : id.substring(("once-" + Place.keyOf(once) + "-").length());
        }
    }

    /** What to look at: a property of an element, and how the owner reads it. */
    private record Wanted(String id, String label, Element element, String property) {
        Set<String> states() {
            return statesOf(id);
        }
    }

    /** States in which an offer holds. */
    private static Set<String> statesOf(String id) {
        return STATES.entrySet().stream()
                .filter(e -> id.startsWith(e.getKey()))
                .map(Map.Entry::getValue)
                .collect(Collectors.toSet());
    }

    private final Rendered rendered;
    private final Page page;
    private final Measures measures;
    private final PageParts.Kind part;
    private final int index;
    private final List<Element> elements;
    private final List<Integer> widths = new ArrayList<>();
    private final Map<Integer, PageStyles> styles = new LinkedHashMap<>();
    private List<ColorRow> colors;
    /** A class that a script sets, with the part as it is without; both null for the page as it is loaded. */
    private final ScriptClass script;

    private final PartGroup before;

    /** @param measures of the page, or null; without them a header's room is not offered */
    public PartGroup(Rendered rendered, Page page, Measures measures, PageParts.Kind part, int index) {
        this(rendered, page, measures, part, index, null, null);
    }

    private PartGroup(
            Rendered rendered,
            Page page,
            Measures measures,
            PageParts.Kind part,
            int index,
            ScriptClass script,
            PartGroup before) {
        this.script = script;
        this.before = before;
        this.rendered = rendered;
        this.page = page;
        this.measures = measures;
        this.part = part;
        this.index = index;
        this.elements = page.elements();
        if (index < 2 || index >= elements.size()) {
            throw new BadInputException("That part is no longer on the page.", "Point at it again.");
        }
        Set<Integer> turns = new TreeSet<>(List.of(FROM, PageParts.WIDTH));
        for (Breakpoint b : Breakpoint.of(rendered.theme())) {
            turns.add((int) (b.from() ? Math.ceil(b.width()) : Math.floor(b.width()) + 1));
        }
        Bands bands = rendered.theme().palette().bands();
        bands.list().forEach(b -> turns.add(Math.max(FROM, bands.from(b))));
        turns.stream().filter(w -> w >= FROM && w <= 2560).limit(60).forEach(widths::add);
    }

    public Element element() {
        return elements.get(index);
    }

    /** What can be made of the part, in the order in which a person would ask. */
    public List<Offer> offers() {
        List<Offer> all = new ArrayList<>();
        if (part == PageParts.Kind.HERO) {
            shade().ifPresent(all::add);
        }
        Optional<Offer> ground = part == PageParts.Kind.HEADER ? ground() : Optional.empty();
        ground.ifPresent(all::add);
        // One rule for two states is one setting.
        Set<String> ofStates = new HashSet<>();
        for (Wanted w : wanted()) {
            if (ground.isPresent() && w.id().equals("fill")) {
                // The whole background is asked for, with its colour.
                continue;
            }
            offer(w).filter(o -> w.states().isEmpty() || ofStates.add(decides(w)))
                    .ifPresent(all::add);
        }
        if (part == PageParts.Kind.HEADER) {
            room().ifPresent(all::add);
        }
        if (part == PageParts.Kind.HERO) {
            all.addAll(box());
        }
        if (part == PageParts.Kind.COLUMN) {
            all.stream()
                    .filter(o -> o.id().equals("width"))
                    .findFirst()
                    .flatMap(this::hangs)
                    .ifPresent(all::add);
        }
        return scripted(all);
    }

    /** The part as it is once a script has set a class. */
    private PartGroup once(ScriptClass s) {
        return new PartGroup(rendered, s.page(), measures, part, index, s, this);
    }

    private PartGroup of(Offer o) {
        return o.once().isEmpty()
                ? this
                : ScriptClass.of(rendered.theme(), page).stream()
                        .filter(s -> s.name().equals(o.once()))
                        .findFirst()
                        .map(this::once)
                        .orElseThrow();
    }

    /** What rules of the class decide, each with a setting of its own: what shows then is seldom what shows before. */
    private List<Offer> ofTheClass() {
        List<Offer> all = new ArrayList<>();
        Set<String> rules = new HashSet<>();
        for (Wanted w : wanted()) {
            List<Integer> there = widths(w);
            if (there.contains(PageParts.WIDTH)
                    && there.stream()
                            .allMatch(width -> isOwn(
                                    rendered.theme(),
                                    page,
                                    element(),
                                    Explanation.of(styles(width, w).of(w.element()), w.property()),
                                    w.property()))
                    && rules.add(decides(w))) {
                offer(w).map(o -> o.once(script.name())).ifPresent(all::add);
            }
        }
        return all;
    }

    /** Where the window's width turns something; with a class of a script only those at which another rule decides than without it. */
    private List<Integer> widths(Wanted w) {
        if (script == null) {
            return widths;
        }
        Wanted same = new Wanted(w.id(), w.label(), before.elements.get(elements.indexOf(w.element())), w.property());
        return widths.stream()
                .filter(width -> {
                    Explanation.Cause then = Explanation.of(styles(width, w).of(w.element()), w.property())
                            .winner();
                    Explanation.Cause now = Explanation.of(
                                    before.styles(width, same).of(same.element()), w.property())
                            .winner();
                    return then != null
                            && (now == null
                                    || now.start() != then.start()
                                    || !now.file().equals(then.file()));
                })
                .toList();
    }

    /** With what a class that a script puts on takes out of an offer's reach, as headers that change on scrolling do. */
    private List<Offer> scripted(List<Offer> all) {
        List<ScriptClass> classes = ScriptClass.of(rendered.theme(), page);
        List<Offer> told = new ArrayList<>();
        List<Offer> more = new ArrayList<>();
        for (ScriptClass s : classes) {
            boolean concerns = s.reaches(index) || s.changed().stream().anyMatch(this::isInside);
            if (concerns) {
                more.addAll(once(s).ofTheClass());
            }
        }
        for (Offer o : all) {
            String beyond = "";
            for (ScriptClass s : classes) {
                int at = named(o).get(0);
                if (s.reaches(at) && beyond.isEmpty()) {
                    beyond = otherRule(o, at, s)
                            .map(w -> "Not once a script sets the class “" + s.name() + "”: then " + w.selector()
                                    + " in " + w.file() + ", line " + w.line() + ", decides"
                                    + (more.stream()
                                                    .anyMatch(m -> m.once().equals(s.name())
                                                            && m.plain().equals(o.id()))
                                            ? "; it has a setting of its own below."
                                            : "."))
                            .orElse("");
                }
            }
            told.add(beyond.isEmpty() ? o : o.noted((o.note() + " " + beyond).strip()));
        }
        told.addAll(more);
        return List.copyOf(told);
    }

    private boolean isInside(int at) {
        return elements.get(at).parents().contains(element());
    }

    private Optional<Explanation.Cause> otherRule(Offer o, int at, ScriptClass s) {
        States states = PartLook.states(statesOf(o.id()), s.page().elements().get(at));
        Explanation.Cause now = Explanation.of(
                        rendered.styles(
                                        page,
                                        Viewport.of(PageParts.WIDTH, HEIGHT),
                                        PartLook.states(statesOf(o.id()), elements.get(at)))
                                .of(elements.get(at)),
                        o.property())
                .winner();
        Explanation.Cause then = Explanation.of(
                        rendered.styles(s.page(), Viewport.of(PageParts.WIDTH, HEIGHT), states)
                                .of(s.page().elements().get(at)),
                        o.property())
                .winner();
        boolean same = now == null
                ? then == null
                : then != null && now.file().equals(then.file()) && now.start() == then.start();
        return same || then == null || !then.isInTheme() ? Optional.empty() : Optional.of(then);
    }

    /** Elements that other rules make as wide as the column, one for each rule: rows of headers, columns of heroes and footers. */
    private Map<String, Element> asWide(Offer width) {
        Map<String, Element> found = new LinkedHashMap<>();
        PageStyles wide = styles(PageParts.WIDTH);
        Explanation own = Explanation.of(wide.of(element()), "max-width");
        for (Element e : elements.subList(2, elements.size())) {
            Explanation why = Explanation.of(wide.of(e), "max-width");
            Explanation.Cause w = why.winner();
            if (w != null
                    && w.isInTheme()
                    && why.inheritedFrom() == null
                    && why.through().isEmpty()
                    && lasts(rendered.theme(), w.file())
                    && (own.winner() == null
                            || w.start() != own.winner().start()
                            || !w.file().equals(own.winner().file()))
                    && width.kind()
                            .readCss(Painting.declared(wide.of(e), "max-width").orElse(""))
                            .filter(width.value()::equals)
                            .isPresent()) {
                found.putIfAbsent(w.selector() + " in " + w.file() + ", line " + w.line(), e);
            }
        }
        return found;
    }

    private Optional<Offer> hangs(Offer width) {
        Map<String, Element> others = asWide(width);
        return others.isEmpty()
                ? Optional.empty()
                : Optional.of(new Offer(
                        HANGS,
                        others.size() == 1
                                ? "One other rule of the same width"
                                : others.size() + " other rules of the same width",
                        index,
                        "max-width",
                        width.kind(),
                        width.value(),
                        Map.of(),
                        width.now(),
                        List.copyOf(others.keySet()),
                        ""));
    }

    private List<Wanted> wanted() {
        Element e = element();
        List<Wanted> all = new ArrayList<>();
        switch (part) {
            case HEADER -> {
                all.add(new Wanted("stays", "When the page scrolls", e, "position"));
                all.add(new Wanted("fill", "Colour", e, "background-color"));
                all.add(new Wanted("above", "Room above", e, "padding-top"));
                all.add(new Wanted("below", "Room below", e, "padding-bottom"));
                all.add(new Wanted("height", "Height", e, "height"));
                all.add(new Wanted("least-height", "Least height", e, "min-height"));
                List<Element> links = links(e);
                if (!links.isEmpty()) {
                    Element link = links.get(0);
                    all.add(new Wanted("link-color", "Colour of the links", link, "color"));
                    all.add(new Wanted(POINTED + "color", "Colour of links that are pointed at", link, "color"));
                    all.add(new Wanted(
                            POINTED + "fill", "Ground of links that are pointed at", link, "background-color"));
                    all.add(new Wanted("focused-color", "Colour of links that are reached by keyboard", link, "color"));
                    all.add(new Wanted(
                            "focused-outline", "Outline of links that are reached by keyboard", link, "outline-color"));
                    all.add(new Wanted("pressed-color", "Colour of links that are pressed", link, "color"));
                    Element current = current(e, link);
                    if (current != null) {
                        all.add(new Wanted("current-color", "Colour of the link to this page", current, "color"));
                        all.add(new Wanted(
                                "current-fill", "Ground of the link to this page", current, "background-color"));
                    }
                    Element list = list(e, link);
                    if (list != null) {
                        all.add(new Wanted("link-gap", "Room between the links", list, "column-gap"));
                    }
                    all.add(new Wanted("link-size", "Size of the links", link, "font-size"));
                    all.add(new Wanted("link-weight", "Weight of the links", link, "font-weight"));
                    all.add(new Wanted("link-spacing", "Letter spacing of the links", link, "letter-spacing"));
                }
            }
            case HERO -> {
                all.add(new Wanted("height", "Least height", deciding("min-height"), "min-height"));
                all.add(new Wanted("fixed-height", "Height", deciding("height"), "height"));
                all.add(new Wanted("fill", "Colour", e, "background-color"));
                all.add(new Wanted("place", "Where the content is", deciding("align-items"), "align-items"));
                all.add(new Wanted("align", "Alignment of the text", deciding("text-align"), "text-align"));
                all.add(new Wanted("above", "Room above", deciding("padding-top"), "padding-top"));
                all.add(new Wanted("below", "Room below", deciding("padding-bottom"), "padding-bottom"));
                Element heading = e.selectFirst("h1, h2");
                if (heading != null) {
                    all.add(new Wanted("heading-color", "Colour of the heading", heading, "color"));
                    all.add(new Wanted("heading-size", "Size of the heading", heading, "font-size"));
                }
            }
            case COLUMN -> {
                all.add(new Wanted("width", "Width", e, "max-width"));
                all.add(new Wanted("fixed-width", "Width", e, "width"));
                all.add(new Wanted("left", "Room at the left", e, "padding-left"));
                all.add(new Wanted("right", "Room at the right", e, "padding-right"));
                all.add(new Wanted("size", "Size of the text", e, "font-size"));
                between(e).ifPresent(all::add);
            }
        }
        return all;
    }

    /**
     * What decides a property of the part: the part, or where no rule says so of it, a box in it that holds all its words. Heroes are
     * made as high as they are by the room or the height of such a box as often as by their own.
     */
    private Element deciding(String property) {
        PageStyles wide = styles(PageParts.WIDTH);
        Element words = element().selectFirst("h1, h2, p");
        List<Element> boxes = new ArrayList<>(List.of(element()));
        for (Element around = words; around != null && around != element(); around = around.parent()) {
            if (around.children().size() > 0 && around.text().equals(element().text())) {
                boxes.add(1, around);
            }
        }
        return boxes.stream()
                .filter(b -> isDecided(wide, b, property))
                .findFirst()
                .orElse(element());
    }

    private static boolean isDecided(PageStyles styles, Element e, String property) {
        Explanation why = Explanation.of(styles.of(e), property);
        return why.winner() != null
                && why.winner().isInTheme()
                && why.inheritedFrom() == null
                && !Painting.declared(styles.of(e), property).orElse("0").matches("0(px)?|auto|none|normal");
    }

    /** The link to the page itself, where a rule gives it a look of its own. */
    private Element current(Element header, Element link) {
        PageStyles wide = styles(PageParts.WIDTH);
        for (Element a :
                header.select("a[aria-current], [aria-current] > a, a.active, .active > a, a.current, .current > a")) {
            for (String property : List.of("color", "background-color")) {
                Explanation.Cause own = Explanation.of(wide.of(a), property).winner();
                Explanation.Cause others =
                        Explanation.of(wide.of(link), property).winner();
                if (a != link
                        && own != null
                        && (others == null
                                || own.start() != others.start()
                                || !own.file().equals(others.file()))) {
                    return a;
                }
            }
        }
        return null;
    }

    /** What lays the links out in a row with gaps. */
    private Element list(Element header, Element link) {
        for (Element p = link.parent(); p != null && p != header.parent(); p = p.parent()) {
            if (laysOut(p)) {
                return p.select("a[href]").size() > 1 ? p : null;
            }
        }
        return null;
    }

    private boolean laysOut(Element e) {
        String display = styles(PageParts.WIDTH).of(e).computed("display");
        return display.contains("flex") || display.contains("grid");
    }

    /** The room between neighbours: the gap of a box that lays them out, or the margin that one rule gives most of them. */
    private Optional<Wanted> between(Element e) {
        if (laysOut(e)) {
            return Optional.of(new Wanted("between", "Room between its parts", e, "row-gap"));
        }
        PageStyles wide = styles(PageParts.WIDTH);
        Map<String, List<Element>> alike = new LinkedHashMap<>();
        for (Element child : e.children()) {
            for (String property : List.of("margin-bottom", "margin-top")) {
                Explanation.Cause w = Explanation.of(wide.of(child), property).winner();
                boolean some = wide.of(child).px(property).orElse(0) > 0;
                if (some && w != null && w.isInTheme() && lasts(rendered.theme(), w.file())) {
                    alike.computeIfAbsent(property + " " + w.file() + w.start(), k -> new ArrayList<>())
                            .add(child);
                }
            }
        }
        return alike.entrySet().stream()
                .filter(a -> a.getValue().size() > 1 && a.getValue().size() * 2 >= e.childrenSize())
                .max(Comparator.comparingInt(a -> a.getValue().size()))
                .map(a -> new Wanted(
                        "between",
                        "Room between its parts",
                        a.getValue().get(0),
                        a.getKey().substring(0, a.getKey().indexOf(' '))));
    }

    /** What holds the words of a hero: the outermost box around its heading inside of it. */
    private Element words() {
        Element heading = element().selectFirst("h1, h2");
        Element e = heading == null || heading == element() ? null : heading.parent();
        while (e != null && e != element() && e.parent() != element()) {
            e = e.parent();
        }
        return e == element() ? null : e;
    }

    /** How a rule finds the words of a hero: by the hero, so that it finds nothing beside them. */
    private static String wordsSelector(Page page, Element hero, Element words) {
        return PartSelector.unique(page, hero) + " > " + PartSelector.name(words);
    }

    /** Whether no rule gives any of what that selector finds a ground or room, on this page and all others, at any width. */
    private boolean isBare(Element words) {
        String selector = wordsSelector(page, element(), words);
        SelectorList list = SelectorList.parse(selector).orElse(null);
        boolean named = selector.matches(".*[.#].* > .*");
        if (list == null) {
            return false;
        }
        for (Page p : rendered.theme().pages()) {
            SelectorMatcher matcher = new SelectorMatcher(p.document(), States.ANY);
            List<Element> found = p.elements().stream()
                    .skip(1)
                    .filter(e -> matcher.matches(list, e))
                    .toList();
            if (p == page ? found.size() != 1 : !named && !found.isEmpty()) {
                return false;
            }
            for (int width : found.isEmpty() ? List.<Integer>of() : widths) {
                PageStyles there = rendered.styles(p, Viewport.of(width, HEIGHT), States.NONE);
                for (Element e : found) {
                    for (String property : BOXED) {
                        if (Painting.declared(there.of(e), property).isPresent()) {
                            return false;
                        }
                    }
                }
            }
        }
        return true;
    }

    /** A ground for the words of a hero and the room around them, where no rule gives them one. Both are nothing at first. */
    private List<Offer> box() {
        Element words = words();
        if (words == null || words.childrenSize() == 0 || !isBare(words)) {
            return List.of();
        }
        int at = elements.indexOf(words);
        String note = "Nothing at first. It is a box for the words over a picture.";
        return List.of(
                new Offer(
                        "box-fill",
                        "Ground of the text",
                        at,
                        "background-color",
                        ColorKind.ANY,
                        CLEAR,
                        Map.of(),
                        "nothing",
                        List.of(),
                        note),
                new Offer(
                        "box-room",
                        "Room around the text",
                        at,
                        "padding",
                        LengthKind.ANY,
                        Value.parts("value", 0, "unit", "px"),
                        Map.of(),
                        "nothing",
                        List.of(),
                        note));
    }

    /** The strip or gradient of a header, where one declaration says all of its background at every width. */
    private Optional<Offer> ground() {
        Explanation.Cause one = null;
        for (int width : widths) {
            Explanation why = Explanation.of(styles(width).of(element()), "background-image");
            Explanation.Cause w = why.winner();
            Explanation.Cause color = Explanation.of(styles(width).of(element()), "background-color")
                    .winner();
            boolean whole = w != null
                    && w.isInTheme()
                    && w.origin() == Origin.AUTHOR
                    && w.property().equals("background")
                    && lasts(rendered.theme(), w.file())
                    && why.through().isEmpty()
                    && color != null
                    && color.start() == w.start()
                    && color.file().equals(w.file())
                    && (one == null || one.start() == w.start() && one.file().equals(w.file()));
            if (!whole) {
                return Optional.empty();
            }
            one = w;
        }
        Explanation.Cause w = Objects.requireNonNull(one);
        return LiftedValue.of("background", w.written(), w.file()).stream()
                .filter(l -> l.layer() == 0 && (l.kind() instanceof BackgroundKind || l.kind() instanceof GradientKind))
                .filter(l -> !(l.kind() instanceof BackgroundKind)
                        || !((Value.Parts) l.value()).text("picture").isEmpty())
                .findFirst()
                .map(l -> new Offer(
                        GROUND,
                        l.kind() instanceof GradientKind ? "Gradient" : "Picture and colour",
                        index,
                        "background",
                        l.kind(),
                        l.value(),
                        Map.of(),
                        w.written(),
                        List.of(w.file() + ", line " + w.line()),
                        ""));
    }

    private Theme grounded(Theme theme, Setting setting) {
        Explanation.Cause w = Explanation.of(styles(PageParts.WIDTH).of(element()), "background-image")
                .winner();
        // It is offered first and so taken first: what was found stands where it was found.
        Located at = Located.find(theme, w.file(), w.start());
        return Change.of(setting.label())
                .with(
                        w.file(),
                        new Edit(at.valueStart(), at.valueEnd(), "var(" + setting.property() + ", " + at.value() + ")"))
                .applied(theme);
    }

    /** Declarations that paint a picture of one layer behind a hero, one for each stretch of widths; empty if any is not that. */
    private List<Explanation.Cause> pictures() {
        Map<String, Explanation.Cause> all = new LinkedHashMap<>();
        for (int width : widths) {
            ElementStyle style = styles(width).of(element());
            Explanation why = Explanation.of(style, "background-image");
            Explanation.Cause w = why.winner();
            // A layer as large as its picture would leave the rest without shade; of a gradient all of these mean
            // everywhere.
            boolean fills = Set.of("auto", "auto auto", "cover", "contain", "100% 100%", "100%", "100% auto")
                    .contains(style.computed("background-size"));
            boolean one = w != null
                    && w.isInTheme()
                    && w.origin() == Origin.AUTHOR
                    && lasts(rendered.theme(), w.file())
                    && why.through().isEmpty()
                    && Set.of("background", "background-image").contains(w.property())
                    && ONE_PICTURE.matcher(w.written()).matches();
            if (!one || !fills) {
                return List.of();
            }
            all.putIfAbsent(w.file() + " " + w.start(), w);
        }
        return List.copyOf(all.values());
    }

    /** A colour that lies over the picture of a hero and lets it through; nothing at first. */
    private Optional<Offer> shade() {
        List<Explanation.Cause> pictures = pictures();
        return pictures.isEmpty()
                ? Optional.empty()
                : Optional.of(new Offer(
                        SHADE,
                        "Shade over the picture",
                        index,
                        "background-image",
                        ColorKind.ANY,
                        CLEAR,
                        Map.of(),
                        "nothing",
                        pictures.stream()
                                .map(w -> w.file() + ", line " + w.line())
                                .toList(),
                        "Nothing at first. A colour that lets through makes words on the picture easier to read."));
    }

    private Theme shaded(Theme theme, Setting setting) {
        String layer = "var(" + setting.property() + ", transparent)";
        Change change = Change.of(setting.label());
        for (Explanation.Cause w : pictures()) {
            // It is offered first and so taken first: what was found stands where it was found.
            int at = Located.find(theme, w.file(), w.start()).valueStart();
            change = change.with(w.file(), new Edit(at, at, "linear-gradient(" + layer + ", " + layer + "), "));
        }
        return change.applied(theme);
    }

    /** Of the links of a header those that look as most of them do. */
    private List<Element> links(Element header) {
        List<Element> links = header.select("nav a[href], ul a[href]");
        PageStyles wide = styles(PageParts.WIDTH);
        Map<String, List<Element>> alike = new LinkedHashMap<>();
        for (Element a : links.isEmpty() ? header.select("a[href]") : links) {
            Explanation e = Explanation.of(wide.of(a), "color");
            alike.computeIfAbsent(
                            e.winner() == null
                                    ? ""
                                    : e.winner().file() + e.winner().start(),
                            k -> new ArrayList<>())
                    .add(a);
        }
        return alike.values().stream().max(Comparator.comparingInt(List::size)).orElse(List.of());
    }

    /** The elements that an offer names, as indices: one, all links that look alike, or all neighbours with the same room between. */
    private List<Integer> named(Offer o) {
        if (part == PageParts.Kind.HEADER && ofLinks(o.plain())) {
            return links(element()).stream().map(elements::indexOf).toList();
        }
        return o.plain().equals("between") && o.element() != index
                ? neighbours(o.property(), o.element()).stream()
                        .map(elements::indexOf)
                        .toList()
                : List.of(o.element());
    }

    /** Those of the part that have their room from the same declaration as one. */
    private List<Element> neighbours(String property, int one) {
        PageStyles wide = styles(PageParts.WIDTH);
        Explanation.Cause rule =
                Explanation.of(wide.of(elements.get(one)), property).winner();
        return element().children().stream()
                .filter(e -> {
                    Explanation.Cause w = Explanation.of(wide.of(e), property).winner();
                    return w != null && w.start() == rule.start() && w.file().equals(rule.file());
                })
                .toList();
    }

    private static boolean ofLinks(String id) {
        return id.startsWith("link-") && !id.equals("link-gap") || !statesOf(id).isEmpty();
    }

    private PageStyles styles(int width) {
        return styles.computeIfAbsent(width, w -> rendered.styles(page, Viewport.of(w, HEIGHT), States.NONE));
    }

    private PageStyles styles(int width, Wanted w) {
        return w.states().isEmpty()
                ? styles(width)
                : rendered.styles(page, Viewport.of(width, HEIGHT), PartLook.states(w.states(), w.element()));
    }

    /** Which declaration decides it in the widest band. */
    private String decides(Wanted w) {
        Explanation.Cause winner = Explanation.of(styles(PageParts.WIDTH, w).of(w.element()), w.property())
                .winner();
        return winner == null ? w.id() : w.property() + " " + winner.file() + " " + winner.start();
    }

    /** Whether another rule decides it in the state than without; else there is nothing to ask for in the state. */
    private boolean isOfItsState(Wanted w) {
        if (w.states().isEmpty()) {
            return true;
        }
        Explanation.Cause in = Explanation.of(styles(PageParts.WIDTH, w).of(w.element()), w.property())
                .winner();
        Explanation.Cause out = Explanation.of(styles(PageParts.WIDTH).of(w.element()), w.property())
                .winner();
        // A rule of a library would have to be beaten in this state alone; it is not offered.
        return in != null
                && in.isInTheme()
                && lasts(rendered.theme(), in.file())
                && (out == null || out.start() != in.start() || !out.file().equals(in.file()));
    }

    private Optional<Offer> offer(Wanted w) {
        Map<Integer, String> declared = new LinkedHashMap<>();
        Set<String> where = new LinkedHashSet<>();
        if (!isOfItsState(w)) {
            return Optional.empty();
        }
        for (int width : widths(w)) {
            PageStyles here = styles(width, w);
            Explanation e = Explanation.of(here.of(w.element()), w.property());
            Element holder = e.inheritedFrom() == null ? w.element() : e.inheritedFrom();
            String css = Painting.declared(here.of(holder), w.property()).orElse(e.value());
            if (holder != w.element() && RELATIVE.matcher(e.value()).find()) {
                return Optional.empty();
            }
            // What is relative to the font means something else on the element that inherits it.
            declared.put(width, holder != w.element() && RELATIVE.matcher(css).find() ? e.value() : css);
            boolean bound =
                    e.through().stream().anyMatch(rendered.theme().palette().properties()::containsKey);
            if (bound || part == PageParts.Kind.COLUMN && e.inheritedFrom() != null) {
                // A setting decides it already; or the whole page does, not its column.
                return Optional.empty();
            }
            if (e.winner() != null && e.winner().isInTheme()) {
                where.add(e.winner().file() + ", line " + e.winner().line());
            }
        }
        String widest = declared.get(PageParts.WIDTH);
        if (comesFromOutside(w) && !isFree(w)) {
            return Optional.empty();
        }
        if (where.isEmpty() && !w.property().equals("position")) {
            // Nobody ever decided it, so nobody would look for it.
            return Optional.empty();
        }
        String file =
                where.isEmpty() ? page.source().file() : where.iterator().next().replaceAll(", line \\d+$", "");
        Kind kind = kind(w.property(), widest, file).orElse(null);
        Value value = kind == null ? null : kind.readCss(widest).orElse(null);
        if (value == null) {
            return Optional.empty();
        }
        Map<String, Value> bands = new LinkedHashMap<>();
        String note = perBand(declared, kind, value, bands);
        Explanation.Cause wide = Explanation.of(styles(PageParts.WIDTH, w).of(w.element()), w.property())
                .winner();
        if (!note.isEmpty() && (wide == null || !wide.isInTheme() || !lasts(rendered.theme(), wide.file()))) {
            // A rule of a library that turns with the window can only be beaten as a whole.
            return Optional.empty();
        }
        return Optional.of(new Offer(
                w.id(),
                w.label(),
                elements.indexOf(w.element()),
                w.property(),
                allowed(kind, value, bands, w),
                value,
                bands,
                words(declared, bands, note),
                List.copyOf(where),
                note));
    }

    private boolean comesFromOutside(Wanted w) {
        Element holder = Explanation.of(styles(PageParts.WIDTH).of(w.element()), w.property())
                .inheritedFrom();
        return w.element() != element()
                && holder != null
                && holder != element()
                && !holder.parents().contains(element());
    }

    /** Whether none of those that a rule for all alike would find has a rule of its own. */
    private boolean isFree(Wanted w) {
        return SelectorList.parse(alike(page, element(), w.element())).stream().allMatch(list -> {
            SelectorMatcher matcher = new SelectorMatcher(page.document(), States.ANY);
            return elements.stream()
                    .skip(1)
                    .filter(e -> matcher.matches(list, e))
                    .allMatch(e -> Explanation.of(styles(PageParts.WIDTH).of(e), w.property())
                                    .inheritedFrom()
                            != null);
        });
    }

    /** A selector for all elements of the part that are like one: links of a list, links of a navigation, headings. */
    private static String alike(Page page, Element whole, Element one) {
        String in = one.parents().stream()
                .takeWhile(p -> p != whole)
                .map(Element::normalName)
                .filter(n -> n.equals("ul") || n.equals("ol") || n.equals("nav"))
                .findFirst()
                .map(n -> n + " ")
                .orElse("");
        return PartSelector.unique(page, whole) + " " + in + one.normalName();
    }

    private Optional<Kind> kind(String property, String css, String file) {
        if (property.equals("position")) {
            List<ChoiceKind.Option> options = new ArrayList<>(List.of(
                    new ChoiceKind.Option(
                            css.equals("relative") ? "relative" : "static",
                            "it scrolls away",
                            css.equals("relative") ? "relative" : "static"),
                    new ChoiceKind.Option("sticky", "it stays in view", "sticky")));
            if (css.equals("fixed")) {
                options.add(new ChoiceKind.Option("fixed", "it stays, over the page", "fixed"));
            }
            return Set.of("static", "relative", "sticky", "fixed").contains(css)
                    ? Optional.of(new ChoiceKind(options))
                    : Optional.empty();
        }
        if (property.equals("align-items")) {
            return choice(
                    css,
                    Map.of(
                            "start",
                            "top",
                            "flex-start",
                            "top",
                            "center",
                            "middle",
                            "end",
                            "bottom",
                            "flex-end",
                            "bottom"));
        }
        if (property.equals("text-align")) {
            return choice(
                    css,
                    Map.of("left", "left", "start", "left", "center", "centred", "right", "right", "end", "right"));
        }
        return LiftedValue.of(property, css, file).stream()
                .map(LiftedValue::kind)
                .filter(k -> !(k instanceof ChoiceKind))
                .findFirst();
    }

    /** Of keywords that mean the same that one which stands there, so that the default is what is written. */
    private static Optional<Kind> choice(String now, Map<String, String> labels) {
        if (!labels.containsKey(now)) {
            return Optional.empty();
        }
        boolean flex = now.startsWith("flex-");
        Map<String, ChoiceKind.Option> byLabel = new LinkedHashMap<>();
        for (String label : List.of("top", "left", "middle", "centred", "bottom", "right")) {
            labels.entrySet().stream()
                    .filter(e -> e.getValue().equals(label))
                    .map(Map.Entry::getKey)
                    .sorted(Comparator.comparing((String k) -> !k.equals(now))
                            .thenComparing(k -> k.startsWith("flex-") != flex)
                            .thenComparing(k -> k))
                    .findFirst()
                    .ifPresent(k -> byLabel.put(label, new ChoiceKind.Option(k, label, k)));
        }
        return Optional.of(new ChoiceKind(List.copyOf(byLabel.values())));
    }

    /** Fills the values of bands that differ; where a value turns inside of a band, only the widest stretch is bound, and that is said. */
    private String perBand(Map<Integer, String> declared, Kind kind, Value value, Map<String, Value> bands) {
        Bands all = rendered.theme().palette().bands();
        Map<String, Set<String>> byBand = new LinkedHashMap<>();
        declared.forEach((width, css) -> byBand.computeIfAbsent(all.at(width).key(), k -> new LinkedHashSet<>())
                .add(css));
        boolean even = byBand.values().stream().allMatch(s -> s.size() == 1)
                && declared.values().stream().allMatch(css -> kind.readCss(css).isPresent());
        if (!even) {
            List<String> turns = new ArrayList<>();
            String before = null;
            for (Map.Entry<Integer, String> e : declared.entrySet()) {
                if (before != null && !before.equals(e.getValue())) {
                    turns.add(e.getKey() + " px");
                }
                before = e.getValue();
            }
            return TURNS + String.join(", ", turns) + " by rules of the theme. What decides it at " + PageParts.WIDTH
                    + " px follows the setting; the others stay.";
        }
        for (Band b : all.list()) {
            Set<String> css = byBand.get(b.key());
            if (css != null && b != all.widest()) {
                Value own = kind.readCss(css.iterator().next()).orElseThrow();
                if (!own.equals(value)) {
                    bands.put(b.key(), own);
                }
            }
        }
        return "";
    }

    private Kind allowed(Kind kind, Value value, Map<String, Value> bands, Wanted w) {
        if (kind instanceof LengthKind && SPACED.matcher(w.property()).find()) {
            Set<Value> all = new LinkedHashSet<>(bands.values());
            all.add(value);
            Optional<LengthKind> steps = SpacingSteps.of(rendered.theme(), path -> lasts(rendered.theme(), path), all);
            boolean fit = steps.isPresent()
                    && all.stream()
                            .allMatch(v ->
                                    steps.get().refusal(v, Kind.Around.NOTHING).isEmpty());
            if (fit) {
                return steps.get();
            }
        }
        List<Painted> painted = List.of(new Painted(PartSelector.unique(page, w.element()), w.property(), ""));
        Kind proposed = Proposal.of(kind, value, rendered, colors(), painted);
        boolean all = bands.values().stream()
                .allMatch(v -> proposed.refusal(v, Kind.Around.NOTHING).isEmpty());
        return all ? proposed : kind;
    }

    /** Read once: a large sheet has thousands. */
    private List<ColorRow> colors() {
        if (colors == null) {
            colors = ColorUsage.of(rendered.theme()).rows();
        }
        return colors;
    }

    private String words(Map<Integer, String> declared, Map<String, Value> bands, String note) {
        String widest = declared.get(PageParts.WIDTH);
        if (!note.isEmpty() || bands.isEmpty()) {
            return widest;
        }
        Bands all = rendered.theme().palette().bands();
        List<String> parts = new ArrayList<>();
        for (Band b : all.list()) {
            declared.entrySet().stream()
                    .filter(e -> all.at(e.getKey()) == b)
                    .findFirst()
                    .ifPresent(e -> parts.add(b.label() + " " + e.getValue()));
        }
        return String.join(", ", parts);
    }

    /** What a header that stays in view hides is given room: anchors stop below it. As high as it was measured in each band. */
    private Optional<Offer> room() {
        if (measures == null) {
            return Optional.empty();
        }
        Element root = elements.get(1);
        boolean given = Painting.declared(styles(PageParts.WIDTH).of(root), "scroll-padding-top")
                .isPresent();
        if (given) {
            return Optional.empty();
        }
        Bands all = rendered.theme().palette().bands();
        Map<String, Value> bands = new LinkedHashMap<>();
        Value widest = null;
        for (Band b : all.list()) {
            int from = Math.max(FROM, all.from(b));
            int to = b.to() == null ? 2560 : b.to();
            double most = 0;
            for (int w = from; w <= to; w += Math.max(1, (to - from) / 12)) {
                most = Math.max(
                        most, measures.box(index, w).map(x -> x.height()).orElse(0.0));
            }
            Value v = Value.parts("value", (int) Math.ceil(most), "unit", "px");
            if (b == all.widest()) {
                widest = v;
            } else {
                bands.put(b.key(), v);
            }
        }
        Value wide = Objects.requireNonNull(widest);
        bands.values().removeIf(wide::equals);
        return Optional.of(new Offer(
                "room",
                "Room for it above what one jumps to",
                1,
                "scroll-padding-top",
                LengthKind.ANY,
                wide,
                bands,
                "nothing",
                List.of(),
                "As high as it is now in each band. Owners are not asked."));
    }

    /**
     * Lets settings decide what was chosen.
     *
     * @param ids of the offers
     * @param name what the part is called: the place of the settings
     * @throws BadInputException if nothing is chosen, a key is taken, or a rule cannot be bound
     */
    public Change take(Set<String> ids, String name) {
        return take(ids, name, (done, total, what) -> {});
    }

    /** Told which setting is made next. */
    @FunctionalInterface
    public interface Progress {
        /** @param what label of the setting */
        void at(int done, int total, String what);
    }

    /** As {@link #take(Set, String)}; on a sheet of thousands of rules each setting takes a tenth of a second and more. */
    public Change take(Set<String> ids, String name, Progress progress) {
        List<Offer> chosen = offers().stream()
                .filter(o -> ids.contains(o.id()) && !o.id().equals(HANGS))
                .toList();
        if (ids.contains(HANGS) && !ids.contains("width")) {
            throw new BadInputException(
                    "Rules of the same width follow the width of the column, which is not chosen.", "Tick it as well.");
        }
        if (chosen.isEmpty()) {
            throw new BadInputException("Nothing was chosen.", "Tick what the owner should be able to change.");
        }
        String label = name.isBlank() ? part.label() : name.strip();
        Theme before = rendered.theme();
        Place place = before.palette().places().stream()
                .filter(p -> p.label().equalsIgnoreCase(label))
                .findFirst()
                .orElseGet(() -> new Place(Place.keyOf(label), label));
        Theme now = before;
        List<String> left = new ArrayList<>();
        Set<String> taken = new HashSet<>();
        for (int i = 0; i < chosen.size(); i++) {
            Offer o = chosen.get(i);
            progress.at(i, chosen.size(), o.label());
            PartGroup of = of(o);
            Theme next = of.bound(now, o, place, label);
            List<Setting> settings = next.palette().settings();
            Optional<String> fault = of.tried(next, o, settings.get(settings.size() - 1));
            if (fault.isPresent()) {
                left.add("“" + o.label() + "” (with another value " + fault.get() + ")");
                continue;
            }
            now = next;
            taken.add(o.id());
            if (o.id().equals("width") && ids.contains(HANGS)) {
                now = together(now, o);
            }
        }
        int made = taken.size();
        if (made == 0) {
            throw new BadInputException(
                    "No setting was made: tried with another value, " + left.get(0) + " does not reach what it names.",
                    "Point at the part in the survey, and give it a setting there.");
        }
        if (taken.contains("stays")) {
            now = stuck(now);
        }
        return Between.of(
                before,
                now,
                "Made " + made + (made == 1 ? " setting" : " settings") + " of the "
                        + part.label().toLowerCase(Locale.ROOT) + ", “" + label + "”"
                        + (left.isEmpty() ? "" : "; left out: " + String.join(", ", left)));
    }

    private Theme bound(Theme theme, Offer o, Place place, String label) {
        Palette palette = theme.palette();
        String base = place.key() + "-" + o.id();
        String key = base;
        Set<String> taken = ColorUsage.of(theme).customProperties();
        for (int i = 2; palette.setting(key).isPresent() || taken.contains("--" + key); i++) {
            key = base + "-" + i;
        }
        Map<String, Given> bands = new LinkedHashMap<>();
        o.bands().forEach((b, v) -> bands.put(b, new Given.Fixed(v)));
        Setting setting = Setting.of(key, o.label(), "", place.key(), o.kind(), o.value())
                .withBands(bands)
                .withPerBand(!bands.isEmpty());
        if (o.id().equals("room")) {
            setting = setting.withShown(Setting.Shown.NEVER).withPerBand(false);
        }
        List<Integer> at = new ArrayList<>(turnsInside(o) ? List.of(PageParts.WIDTH) : widths(wanted(o)));
        // The widest first: what stands there is what all the others fall back on.
        at.sort(Comparator.comparingInt(w -> Math.abs(w - PageParts.WIDTH)));
        Theme now = ADDED.contains(o.id())
                ? added(theme, o, setting)
                : o.id().equals(GROUND)
                        ? grounded(theme, setting)
                        : o.id().equals(SHADE) ? shaded(theme, setting) : bound(theme, o, setting, at);
        return Change.of(label)
                .withPalette(now, now.palette().with(setting, place))
                .applied(now);
    }

    /** Lets what is as wide as the column follow its setting. */
    private Theme together(Theme theme, Offer width) {
        Setting setting =
                theme.palette().settings().get(theme.palette().settings().size() - 1);
        Theme now = theme;
        for (Element other : asWide(width).values()) {
            Offer one = new Offer(
                    HANGS,
                    width.label(),
                    elements.indexOf(other),
                    "max-width",
                    width.kind(),
                    width.value(),
                    Map.of(),
                    width.now(),
                    List.of(),
                    "");
            now = bound(now, one, setting, List.of(PageParts.WIDTH));
        }
        return now;
    }

    private Theme bound(Theme theme, Offer o, Setting setting, List<Integer> at) {
        Rendered then = new Rendered(theme);
        for (int width : at) {
            for (int named : named(o)) {
                Theme next = bound(then, o, setting, width, named);
                then = next == then.theme() ? then : new Rendered(next);
            }
        }
        return then.theme();
    }

    private Wanted wanted(Offer o) {
        return new Wanted(o.plain(), o.label(), elements.get(o.element()), o.property());
    }

    /** The page as it is in a changed theme, with the class of the script. */
    private Page there(Rendered then) {
        Page plain = then.page(page.source().file()).orElseThrow();
        return script == null
                ? plain
                : plain.withClass(
                        script.name(),
                        script.changed().stream().map(i -> now(then, i)).collect(Collectors.toSet()));
    }

    /** The element on the page as it is now: a link to a new stylesheet in its head moves all that follow. */
    private int now(Rendered then, int element) {
        int more = then.page(page.source().file()).orElseThrow().elements().size() - elements.size();
        return element <= 1 ? element : element + more;
    }

    private Theme bound(Rendered then, Offer o, Setting setting, int width, int named) {
        Theme theme = then.theme();
        Page there = there(then);
        int at = now(then, named);
        Explanation e = Explanation.of(
                then.styles(
                                there,
                                Viewport.of(width, HEIGHT),
                                PartLook.states(
                                        statesOf(o.plain()), there.elements().get(at)))
                        .of(there.elements().get(at)),
                o.property());
        if (e.through().contains(setting.property())) {
            return theme;
        }
        Element target = there.elements().get(at);
        Element whole = there.elements().get(now(then, index));
        Element holder = e.inheritedFrom();
        boolean inside = holder == null || holder == whole || holder.parents().contains(whole);
        boolean own = inside && isOwn(theme, there, whole, e, o.property());
        if (!inside && target != whole && holder != null) {
            // What comes from outside is decided by no rule on the element, so that a plain one does for all that are
            // like it.
            String css = o.bands().isEmpty() ? o.now() : e.value();
            return new OwnSheet(then, SheetRole.of(theme))
                    .append(
                            o.label(),
                            alike(there, whole, target) + " {\n  " + o.property() + ": var(" + setting.property() + ", "
                                    + css + ");\n}",
                            theme.pages())
                    .applied(theme);
        }
        Set<String> states = statesOf(o.plain());
        PartChange change =
                new PartChange(then, there, at, null, o.property(), Viewport.of(width, HEIGHT), states, null);
        PartChange.What reads = new PartChange.What.Reads(setting);
        List<Element> all =
                named(o).stream().map(i -> there.elements().get(now(then, i))).toList();
        if (!own && (all.size() > 1 || !states.isEmpty())) {
            return change.all(selector(there, whole, all, states), reads).applied(theme);
        }
        return change.fix(own ? "rule" : "only", reads).applied(theme);
    }

    /** Whether what decides is a rule of the theme's own that finds the part and nothing else. */
    private boolean isOwn(Theme theme, Page there, Element whole, Explanation e, String property) {
        Element holder = e.inheritedFrom();
        return e.winner() != null
                && e.winner().isInTheme()
                && e.winner().origin() == Origin.AUTHOR
                && (holder == null || holder == whole || holder.parents().contains(whole))
                && e.through().stream().allMatch(theme.palette().properties()::containsKey)
                && lasts(theme, e.winner().file())
                && !findsMore(theme, there, whole, e.winner(), property);
    }

    /** A selector for all of some elements of a part and nothing else in it: of their list, but for those that look otherwise. */
    private static String selector(Page page, Element whole, List<Element> all, Set<String> states) {
        String end = states.stream().map(s -> ":" + s).collect(Collectors.joining());
        boolean children = all.stream().allMatch(e -> e.parent() == whole);
        String alike = children
                ? PartSelector.unique(page, whole) + " > " + all.get(0).normalName()
                : alike(page, whole, all.get(0));
        List<Element> found = found(page, alike);
        Set<String> without = new LinkedHashSet<>();
        for (Element other : found) {
            if (!all.contains(other)) {
                without.add(other.classNames().stream()
                        .filter(c -> all.stream().noneMatch(e -> e.hasClass(c)))
                        .findFirst()
                        .map(c -> ":not(." + Escapes.identifier(c) + ")")
                        .orElse(
                                other.hasAttr("aria-current") && all.stream().noneMatch(e -> e.hasAttr("aria-current"))
                                        ? ":not([aria-current])"
                                        : ""));
            }
        }
        return found.containsAll(all) && !without.contains("")
                ? alike + String.join("", without) + end
                : all.stream().map(e -> PartSelector.unique(page, e) + end).collect(Collectors.joining(", "));
    }

    private static List<Element> found(Page page, String selector) {
        SelectorMatcher matcher = new SelectorMatcher(page.document(), States.NONE);
        return SelectorList.parse(selector).stream()
                .flatMap(list -> page.elements().stream().skip(1).filter(e -> matcher.matches(list, e)))
                .toList();
    }

    /**
     * Whether a rule finds something beside the part, on this page or where the part is on others: what is named after the part must not
     * change that. How wide the column is may be told to all that is as wide.
     */
    private boolean findsMore(Theme theme, Page there, Element whole, Explanation.Cause rule, String property) {
        if (part == PageParts.Kind.COLUMN && property.equals("max-width")) {
            return false;
        }
        Located at = Located.find(theme, rule.file(), rule.start());
        SelectorList list = at.around().isEmpty()
                ? null
                : Readers.selector(at.part().sheet(), at.around()).orElse(null);
        if (list == null) {
            return false;
        }
        String part = PartSelector.unique(there, whole);
        for (Page one : theme.pages()) {
            Page p = one.source().file().equals(there.source().file()) ? there : one;
            SelectorMatcher matcher = new SelectorMatcher(p.document(), States.ANY);
            List<Element> parts = p == there ? List.of(whole) : found(p, part);
            for (Element e : p.elements().subList(1, p.elements().size())) {
                if (matcher.matches(list, e)
                        && parts.stream().noneMatch(x -> x == e || e.parents().contains(x))) {
                    return true;
                }
            }
        }
        return false;
    }

    /**
     * Tries a setting with another value than today's: all that it names has to change, and nothing outside of the part may.
     *
     * @return what went wrong, or empty
     */
    private Optional<String> tried(Theme theme, Offer o, Setting setting) {
        Value other = AnotherValue.of(setting.kind(), o.value()).orElse(null);
        if (other == null || ADDED.contains(o.id()) || o.id().equals(GROUND) || o.id().equals(SHADE)) {
            return Optional.empty();
        }
        Chosen chosen = Chosen.of(other);
        for (Map.Entry<String, Value> band : o.bands().entrySet()) {
            chosen = chosen.with(
                    band.getKey(),
                    AnotherValue.of(setting.kind(), band.getValue()).orElse(other));
        }
        Rendered before = new Rendered(theme);
        Rendered after = new Rendered(theme, Map.of(setting.key(), chosen));
        Page there = there(before);
        Page changed = there(after);
        Set<Element> inside =
                new HashSet<>(there.elements().get(now(before, index)).getAllElements());
        List<Element> named =
                named(o).stream().map(i -> there.elements().get(now(before, i))).toList();
        List<Integer> reached = widths(wanted(o));
        for (int width : turnsInside(o) ? List.of(PageParts.WIDTH) : List.of(FROM, 390, PageParts.WIDTH)) {
            // With a script's class the same rule decides from one turn to the next.
            int turn = widths.stream()
                    .filter(w -> w <= width)
                    .max(Comparator.naturalOrder())
                    .orElse(FROM);
            if (!reached.contains(turn)) {
                continue;
            }
            for (Element e : named) {
                States states = PartLook.states(statesOf(o.plain()), e);
                PageStyles was = before.styles(there, Viewport.of(width, HEIGHT), states);
                PageStyles is = after.styles(changed, Viewport.of(width, HEIGHT), states);
                Element same = changed.elements().get(there.elements().indexOf(e));
                if (was.of(e).computed(o.property()).equals(is.of(same).computed(o.property()))) {
                    return Optional.of(PartSelector.unique(there, e) + " stays at " + width + " px");
                }
            }
        }
        if (part == PageParts.Kind.COLUMN) {
            return Optional.empty();
        }
        Trial trial = Trial.between(before, after);
        return trial.changed().getOrDefault(page.source().file(), List.of()).stream()
                .map(i -> there.elements().get(i))
                .filter(e -> !inside.contains(e))
                .findFirst()
                .map(e -> PartSelector.unique(there, e) + " changes as well");
    }

    /** Whether its value turns inside of a band, so that only what decides in the widest stretch follows. */
    private static boolean turnsInside(Offer o) {
        return o.note().startsWith(TURNS);
    }

    private static boolean lasts(Theme theme, String file) {
        SheetRole role = SheetRole.of(theme).get(file);
        return role == null || role.lasts();
    }

    /** A rule for what no rule decided. */
    private Theme added(Theme theme, Offer o, Setting setting) {
        Rendered then = new Rendered(theme);
        Page there = then.page(page.source().file()).orElseThrow();
        String selector = o.element() == 1
                ? "html"
                : wordsSelector(
                        there,
                        there.elements().get(now(then, index)),
                        there.elements().get(now(then, o.element())));
        String css = o.kind().css(o.value(), a -> a).get("");
        return new OwnSheet(then, SheetRole.of(theme))
                .append(
                        o.label(),
                        selector + " {\n  " + o.property() + ": var(" + setting.property() + ", " + css + ");\n}",
                        theme.pages())
                .applied(theme);
    }

    /** What stays in view needs to be told where, and has to lie over what passes under it. */
    private Theme stuck(Theme theme) {
        Rendered then = new Rendered(theme);
        Page there = then.page(page.source().file()).orElseThrow();
        Element e = there.elements().get(now(then, index));
        PageStyles wide = then.styles(there, Viewport.of(PageParts.WIDTH, HEIGHT), States.NONE);
        List<String> lines = new ArrayList<>();
        if (Painting.declared(wide.of(e), "top").isEmpty()) {
            lines.add("  top: 0;\n");
        }
        if (Painting.declared(wide.of(e), "z-index").isEmpty()) {
            lines.add("  z-index: 10;\n");
        }
        if (lines.isEmpty()) {
            return theme;
        }
        return new OwnSheet(then, SheetRole.of(theme))
                .append(
                        "The header may stay in view",
                        PartSelector.unique(there, e) + " {\n" + String.join("", lines) + "}",
                        theme.pages())
                .applied(theme);
    }
}

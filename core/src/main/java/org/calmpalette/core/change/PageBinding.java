package org.calmpalette.core.change;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.css.Edit;
import org.calmpalette.core.output.BoundPage;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.page.Paths;
import org.calmpalette.core.page.Tag;
import org.calmpalette.core.setting.Binding;
import org.calmpalette.core.setting.Effective;
import org.calmpalette.core.setting.Kind;
import org.calmpalette.core.setting.LevelKind;
import org.calmpalette.core.setting.LinkKind;
import org.calmpalette.core.setting.Palette;
import org.calmpalette.core.setting.PictureKind;
import org.calmpalette.core.setting.Place;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.TextKind;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.setting.VideoKind;
import org.calmpalette.core.setting.YesNoKind;
import org.calmpalette.core.theme.Theme;
import org.jsoup.nodes.Element;

/** Ties parts of pages to settings, by an attribute in the part's own tag. */
public final class PageBinding {
    private PageBinding() {}

    /**
     * What of a part a setting could fill.
     *
     * @param kind of the setting, with the value that the page has today
     * @param bound key of the setting that fills it already, or empty
     */
    public record Offer(Binding binding, Kind kind, Value value, String bound) {}

    private static final Set<String> UNSEEN = Set.of(
            "title",
            "style",
            "script",
            "meta",
            "link",
            "base",
            "template",
            "noscript",
            "noframes",
            "source",
            "track",
            "param");

    /** What settings could fill of a part; nothing for what is not written in the page. */
    public static List<Offer> offers(Page page, Element e) {
        List<Offer> all = new ArrayList<>();
        String name = e.normalName();
        if (!new Tag(page, e).isWritten() || List.of("html", "head", "body").contains(name)) {
            return all;
        }
        String file = page.source().file();
        BoundPage.plainText(e)
                .filter(t -> !t.isEmpty() && page.inside(e).isPresent())
                .ifPresent(t -> add(
                        all,
                        e,
                        Binding.TEXT,
                        t.contains("\n") || t.length() > 120 ? TextKind.LINES : TextKind.LINE,
                        Value.of(t)));
        if (name.equals("img") || name.equals("video")) {
            String src = path(file, e.attr("src"));
            add(
                    all,
                    e,
                    Binding.SRC,
                    name.equals("img") ? PictureKind.ANY : VideoKind.ANY,
                    name.equals("img")
                            ? Value.of(src)
                            : Value.parts("src", src, "poster", path(file, e.attr("poster"))));
        }
        if (name.equals("img")) {
            add(all, e, Binding.ALT, TextKind.LINE, Value.of(e.attr("alt").strip()));
        }
        if (name.equals("a") || name.equals("area")) {
            add(all, e, Binding.HREF, LinkKind.ANY, Value.of(BoundPage.target(file, e.attr("href"))));
        }
        if (name.matches("h[1-6]")) {
            add(all, e, Binding.LEVEL, LevelKind.ANY, Value.of(name.charAt(1) - '0'));
        }
        // What is never shown cannot be hidden.
        if (!UNSEEN.contains(name)
                && e.parents().stream().noneMatch(p -> p.normalName().equals("head"))) {
            add(all, e, Binding.SHOW, YesNoKind.PLAIN, Value.of(true));
        }
        return all;
    }

    private static void add(List<Offer> all, Element e, Binding binding, Kind kind, Value value) {
        try {
            all.add(new Offer(binding, kind, kind.normal(value), e.attr(binding.attribute())));
        } catch (BadInputException foreign) {
            // A picture from another host, say: a setting could not hold what is there today.
        }
    }

    private static String path(String file, String address) {
        return address.isBlank() ? "" : Paths.resolve(file, address).orElse("//" + address);
    }

    /** Parts of all pages that are like one: the same element with the same classes and, for that aspect, the same content. */
    public static Map<Page, List<Element>> alike(Theme theme, Page page, Element e, Binding binding) {
        Map<Page, List<Element>> all = new LinkedHashMap<>();
        Optional<Value> wanted = value(page, e, binding);
        for (Page other : theme.pages()) {
            List<Element> found = other.document().getElementsByTag(e.normalName()).stream()
                    .filter(x -> x.className().equals(e.className())
                            && x.id().equals(e.id())
                            && new Tag(other, x).isWritten()
                            && !x.hasAttr(binding.attribute())
                            && value(other, x, binding).equals(wanted)
                            && (binding != Binding.SHOW
                                    || x.text().equals(e.text())
                                            && x.parents().size() == e.parents().size()))
                    .toList();
            if (!found.isEmpty()) {
                all.put(other, found);
            }
        }
        return all;
    }

    private static Optional<Value> value(Page page, Element e, Binding binding) {
        return offers(page, e).stream()
                .filter(o -> o.binding() == binding)
                .map(Offer::value)
                .findFirst();
    }

    /**
     * Binds a part, and on wish all that are like it.
     *
     * @param setting a new one, or one that is there
     * @param place of a new setting; null if the setting is there already
     */
    public static Change bind(
            Theme theme, Page page, Element e, Binding binding, Setting setting, Place place, boolean everywhere) {
        if (!setting.kind().bindings().contains(binding)) {
            throw new BadInputException(
                    "“" + setting.label() + "” is a " + setting.kind().label() + " and cannot fill the "
                            + binding.label() + " of a part.",
                    "Choose another setting, or make a new one.");
        }
        boolean video = setting.kind() instanceof VideoKind;
        if (binding == Binding.SRC && video != e.normalName().equals("video")) {
            throw new BadInputException(
                    video ? "A video cannot stand in an img element." : "A picture cannot stand in a video element.",
                    "Choose a setting of the other kind.");
        }
        Element parent = e.parent();
        if (binding == Binding.SRC
                && parent != null
                && parent.normalName().equals("picture")
                && !parent.getElementsByTag("source").isEmpty()) {
            throw new BadInputException(
                    page.source().file() + ", line "
                            + page.source().line(e.sourceRange().startPos())
                            + ": the source elements around this picture would win over the setting.",
                    "Take them out of the picture element first.");
        }
        TreeMap<String, List<Edit>> edits = new TreeMap<>();
        Map<Page, List<Element>> parts = everywhere ? alike(theme, page, e, binding) : Map.of(page, List.of(e));
        int count = 0;
        for (Map.Entry<Page, List<Element>> p : parts.entrySet()) {
            for (Element x : p.getValue()) {
                count++;
                edits.computeIfAbsent(p.getKey().source().file(), f -> new ArrayList<>())
                        .add(inserted(p.getKey(), x, binding, setting.key()));
            }
        }
        Palette palette = theme.palette();
        if (place != null) {
            PaletteChange.checkFree(theme, setting);
            palette = palette.with(setting, place);
        }
        String where = count == 1
                ? page.source().file() + ", line "
                        + page.source().line(e.sourceRange().startPos())
                : count + " parts of " + parts.size() + " pages";
        Change change = Change.of("“" + setting.label() + "” fills the " + binding.label() + " of " + where)
                .with(edits);
        return place == null ? change : change.withPalette(theme, palette);
    }

    private static Edit inserted(Page page, Element e, Binding binding, String key) {
        if (e.hasAttr(binding.attribute())) {
            throw new BadInputException(
                    "The " + binding.label() + " of this part is bound to “" + e.attr(binding.attribute())
                            + "” already.",
                    "Let it go first.");
        }
        return new Tag(page, e).with(binding.attribute(), key);
    }

    /** Takes the attribute out of one part; the page keeps what it says. */
    public static Change release(Theme theme, Page page, Element e, Binding binding) {
        return Change.edit(
                "The " + binding.label() + " of " + page.source().file() + ", line "
                        + page.source().line(e.sourceRange().startPos()) + " is fixed again",
                page.source().file(),
                new Tag(page, e).without(binding.attribute()));
    }

    /** The parts of pages that one setting fills. */
    public record Use(String file, int line, Binding binding, String part, int index) {}

    public static List<Use> uses(Theme theme, String key) {
        List<Use> all = new ArrayList<>();
        for (Page page : theme.pages()) {
            if (!BoundPage.isBound(page)) {
                continue;
            }
            List<Element> elements = page.elements();
            for (int i = 1; i < elements.size(); i++) {
                Element e = elements.get(i);
                for (Binding b : Binding.values()) {
                    if (e.attr(b.attribute()).equals(key)) {
                        String classes =
                                e.classNames().stream().map(c -> "." + c).reduce("", String::concat);
                        all.add(new Use(
                                page.source().file(),
                                page.source().line(Math.max(0, e.sourceRange().startPos())),
                                b,
                                e.normalName() + classes,
                                i));
                    }
                }
            }
        }
        return all;
    }

    /** Edits that take a setting's attributes out of all pages. */
    static Map<String, List<Edit>> released(Theme theme, String key, Effective defaults) {
        TreeMap<String, List<Edit>> edits = new TreeMap<>();
        for (Use use : uses(theme, key)) {
            Page page = theme.pages().stream()
                    .filter(p -> p.source().file().equals(use.file()))
                    .findFirst()
                    .orElseThrow();
            Element e = page.elements().get(use.index());
            Setting s = theme.palette().known(key);
            Optional<Value> today = offers(page, e).stream()
                    .filter(o -> o.binding() == use.binding())
                    .map(Offer::value)
                    .findFirst();
            boolean same = use.binding() == Binding.ITEMS
                    ? BoundPage.isAsWritten(page, e, defaults)
                    : s.kind().bindings().contains(use.binding())
                            && today.isPresent()
                            && theme.palette().bands().list().stream()
                                    .allMatch(b -> defaults.value(s, b).equals(today.get()));
            if (s.kind().bindings().contains(use.binding()) && !same) {
                throw new BadInputException(
                        use.file() + ", line " + use.line()
                                + " says something else than the setting's default, which would be lost.",
                        "Write the default into the page, or let the part go first.");
            }
            edits.computeIfAbsent(use.file(), f -> new ArrayList<>())
                    .add(new Tag(page, e).without(use.binding().attribute()));
        }
        return edits;
    }

    /** Edits that let attributes name a setting by its new key, and style attributes read its new custom properties. */
    static Map<String, List<Edit>> renamed(Theme theme, String key, String to, Map<String, String> names) {
        TreeMap<String, List<Edit>> edits = new TreeMap<>();
        for (Page page : theme.pages()) {
            for (Element e : page.document().getAllElements()) {
                for (Binding b : Binding.values()) {
                    if (e.attr(b.attribute()).equals(key)) {
                        edits.computeIfAbsent(page.source().file(), f -> new ArrayList<>())
                                .add(new Tag(page, e).replaced(b.attribute(), to));
                    }
                }
                if (e.attr("style").contains("--" + key)) {
                    int start = page.attributeOffset(e, "style");
                    int end = e.attributes().sourceRange("style").valueRange().endPos();
                    String style = page.source().text().substring(start, Math.max(start, end));
                    names.forEach((old, now) -> {
                        var m = java.util.regex.Pattern.compile(java.util.regex.Pattern.quote(old) + "(?![\\w-])")
                                .matcher(style);
                        while (m.find()) {
                            edits.computeIfAbsent(page.source().file(), f -> new ArrayList<>())
                                    .add(new Edit(start + m.start(), start + m.end(), now));
                        }
                    });
                }
            }
        }
        return edits;
    }
}

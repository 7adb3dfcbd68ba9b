package org.calmpalette.core.section;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.css.Edit;
import org.calmpalette.core.output.BoundPage;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.page.StartTag;
import org.calmpalette.core.setting.ItemsKind;
import org.calmpalette.core.setting.Kind;
import org.calmpalette.core.setting.LevelKind;
import org.calmpalette.core.setting.LinkKind;
import org.calmpalette.core.setting.PictureKind;
import org.calmpalette.core.setting.TextKind;
import org.calmpalette.core.setting.Value;
import org.jsoup.nodes.Element;

/** The markup of a section that is made of a part of a page: its words, pictures and links as settings, what repeats as items. */
final class SectionMarkup {
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

    private final Page page;
    private final Element root;
    private final List<Element> elements;
    private final NewSettings settings;
    private final OwnPictures pictures;
    private final Map<Element, Map<String, String>> bound = new LinkedHashMap<>();
    private final Set<Element> left = new HashSet<>();

    /** @param shown key of the setting that shows the section at all */
    SectionMarkup(Page page, Element root, NewSettings settings, OwnPictures pictures, String shown) {
        this.page = page;
        this.root = root;
        this.elements = root.getAllElements();
        this.settings = settings;
        this.pictures = pictures;
        bind(root, "data-setting-show", shown);
        items();
        elements.forEach(this::words);
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
                    String name = NewSettings.free(parts.keySet(), f.name());
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
            String name = settings.add(
                    "items",
                    "Items",
                    new ItemsKind(parts, 1, Math.min(ItemsKind.MOST, Math.max(12, 2 * children.size()))),
                    new Value.Many(
                            values.stream().map(v -> (Value) new Value.Parts(v)).toList()));
            bind(e, "data-setting-items", name);
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
            pictures.named(page.source().file(), e.attr("src")).ifPresent(p -> {
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

    private void words(Element e) {
        if (left.contains(e)) {
            return;
        }
        for (Filled f : fillings(e)) {
            bind(e, "data-setting-" + f.attribute(), settings.add(f.name(), f.label(), f.kind(), f.value()));
        }
    }

    /**
     * The markup with what is bound in it, without identifiers and style attributes; of what repeats the first.
     *
     * @param styled classes that stand for style attributes
     */
    String markup(Map<Element, String> styled) {
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
                Optional<String> own = pictures.named(page.source().file(), e.attr("src"));
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
}

package org.calmpalette.core.output;

import java.nio.charset.Charset;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.calmpalette.core.css.Edit;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.page.Paths;
import org.calmpalette.core.page.StartTag;
import org.calmpalette.core.setting.Band;
import org.calmpalette.core.setting.Binding;
import org.calmpalette.core.setting.Effective;
import org.calmpalette.core.setting.MediaFacts;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.theme.Theme;
import org.jsoup.nodes.Element;
import org.jsoup.nodes.Node;
import org.jsoup.nodes.TextNode;

/**
 * Fills the parts of a page that are bound to settings. A part whose settings say what the page says already stays as it
 * is, to the byte. Where bands differ, the part is written once for each value; each copy names its bands in
 * {@code data-setting-in}, and {@code settings.css} shows the one that belongs to the window's width. A part that is
 * switched off names the bands in {@code data-setting-hidden}.
 */
public final class BoundPage {
    static final String IN = "data-setting-in";
    static final String HIDDEN = "data-setting-hidden";
    private static final Pattern HEADING = Pattern.compile("h[1-6]");

    private final Page page;
    private final Effective values;
    private final String text;
    private final Value.Parts item;

    private BoundPage(Page page, Effective values, Value.Parts item) {
        this.page = page;
        this.values = values;
        this.text = page.source().text();
        this.item = item;
    }

    /** What fills an aspect of an element, in a band. */
    private interface Filling {
        Value in(Band band);
    }

    /** Whether any part of a page is bound to a setting. */
    public static boolean isBound(Page page) {
        return page.source().text().contains("data-setting-");
    }

    static List<Edit> edits(Page page, Effective values) {
        return isBound(page) ? new BoundPage(page, values, null).inside(page.document(), bands(values)) : List.of();
    }

    /** Whether a part says in the page what its settings say. */
    public static boolean isAsWritten(Page page, Element e, Effective values) {
        BoundPage bound = new BoundPage(page, values, null);
        return bound.whole(e, bands(values))
                .equals(bound.text.substring(e.sourceRange().startPos(), bound.end(e)));
    }

    private static Set<String> bands(Effective values) {
        return values.palette().bands().list().stream()
                .map(Band::key)
                .collect(Collectors.toCollection(LinkedHashSet::new));
    }

    /** What fills an element, by the attribute: the settings that are there and can. */
    public static Map<Binding, Setting> bindings(Element e, Effective values) {
        Map<Binding, Setting> found = new EnumMap<>(Binding.class);
        for (Binding b : Binding.values()) {
            values.palette()
                    .setting(e.attr(b.attribute()))
                    .filter(s -> s.kind().bindings().contains(b))
                    .ifPresent(s -> found.put(b, s));
        }
        if (!HEADING.matcher(e.normalName()).matches()) {
            found.remove(Binding.LEVEL);
        }
        return found;
    }

    /** Which setting holds the words for the picture of which other one, where one part shows both: keys, those of items within their item. */
    public static Map<String, String> descriptions(Theme theme) {
        Map<String, String> all = new TreeMap<>();
        for (Page page : theme.pages()) {
            for (Element e : page.elements()) {
                String words = e.attr(Binding.ALT.attribute());
                if (!words.isEmpty() && e.hasAttr(Binding.SRC.attribute())) {
                    all.putIfAbsent(e.attr(Binding.SRC.attribute()), words);
                }
            }
        }
        return all;
    }

    /** The text of an element as a setting would hold it; empty if it holds more than text and line breaks. */
    public static Optional<String> plainText(Element e) {
        StringBuilder out = new StringBuilder();
        for (Node child : e.childNodes()) {
            if (child instanceof TextNode t) {
                out.append(t.getWholeText().replaceAll("[ \\t\\r\\n\\f]+", " "));
            } else if (child instanceof Element br && br.normalName().equals("br")) {
                out.append('\n');
            } else {
                return Optional.empty();
            }
        }
        return Optional.of(out.toString().replaceAll(" *\\n *", "\n").strip());
    }

    private static final Set<String> TEXT_ALONE = Set.of("title", "textarea");

    private List<Edit> inside(Element around, Set<String> bands) {
        List<Edit> edits = new ArrayList<>();
        Element copied = null;
        for (Element e : around.children()) {
            // A page that was built before: the first copy stands for all of them, and the others are made anew.
            if (copied != null && isCopy(copied, e)) {
                edits.add(new Edit(e.sourceRange().startPos(), end(e), ""));
                continue;
            }
            copied = e.hasAttr(IN) && e.sourceRange().isTracked() ? e : null;
            Map<Binding, Filling> bound = e.attributes().size() == 0 ? Map.of() : fillings(e);
            boolean written = e.sourceRange().isTracked()
                    && text.startsWith("<", Math.max(0, e.sourceRange().startPos()));
            if (!bound.isEmpty() && written) {
                int start = e.sourceRange().startPos();
                int end = end(e);
                String made = rendered(e, bound, bands);
                if (!made.equals(text.substring(start, end))) {
                    edits.add(new Edit(start, end, made));
                }
            } else {
                edits.addAll(inside(e, bands));
            }
        }
        return edits;
    }

    private static boolean isCopy(Element first, Element e) {
        return e.hasAttr(IN)
                && e.sourceRange().isTracked()
                && java.util.Arrays.stream(Binding.values())
                        .allMatch(b -> e.attr(b.attribute()).equals(first.attr(b.attribute())))
                && first.nextElementSiblings().contains(e);
    }

    private int end(Element e) {
        return e.endSourceRange().isTracked()
                ? Math.max(e.endSourceRange().endPos(), e.sourceRange().endPos())
                : e.sourceRange().endPos();
    }

    /** What fills an element: settings, and inside of an item its parts. */
    private Map<Binding, Filling> fillings(Element e) {
        Map<Binding, Filling> found = new EnumMap<>(Binding.class);
        bindings(e, values).forEach((b, s) -> found.put(b, band -> values.value(s, band)));
        if (item != null) {
            for (Binding b : Binding.values()) {
                item.part(e.attr(b.itemAttribute())).filter(v -> fits(b, v, e)).ifPresent(v -> found.put(b, band -> v));
            }
        }
        return found;
    }

    private static boolean fits(Binding b, Value v, Element e) {
        return switch (b) {
            case TEXT, SRC, ALT, HREF -> v instanceof Value.Text;
            case SHOW -> v instanceof Value.Flag;
            case LEVEL ->
                v instanceof Value.Number && HEADING.matcher(e.normalName()).matches();
            case ITEMS -> false;
        };
    }

    /**
     * What repeats, once for each item: the first element in it is the pattern, with what stands before it; what stands behind the last
     * stays behind the last.
     */
    private String items(Element e, Value.Many items, String inner, Set<String> bands) {
        List<Element> there = e.children().stream()
                .filter(c ->
                        c.sourceRange().isTracked() && end(c) > c.sourceRange().startPos())
                .toList();
        if (there.isEmpty()) {
            return inner;
        }
        Element pattern = there.get(0);
        int from = e.sourceRange().endPos();
        int start = pattern.sourceRange().startPos();
        String before = text.substring(from, start);
        String between = there.size() > 1
                ? text.substring(end(pattern), there.get(1).sourceRange().startPos())
                : before;
        StringBuilder out = new StringBuilder(before);
        for (int i = 0; i < items.items().size(); i++) {
            String one = new BoundPage(page, values, (Value.Parts) items.items().get(i)).whole(pattern, bands);
            out.append(i == 0 ? "" : between).append(i == 0 ? one : withoutId(one, pattern));
        }
        return out.append(text, end(there.get(there.size() - 1)), from + inner.length())
                .toString();
    }

    private static String withoutId(String one, Element pattern) {
        int end = one.indexOf('>') + 1;
        return pattern.hasAttr("id")
                ? new StartTag(one.substring(0, end)).without("id").text() + one.substring(end)
                : one;
    }

    /** An element with all that is bound in it. */
    private String whole(Element e, Set<String> bands) {
        int start = e.sourceRange().startPos();
        Map<Binding, Filling> bound = fillings(e);
        if (!bound.isEmpty()) {
            return rendered(e, bound, bands);
        }
        StringBuilder out = new StringBuilder();
        int last = start;
        for (Edit edit : inside(e, bands)) {
            out.append(text, last, edit.start()).append(edit.replacement());
            last = edit.end();
        }
        return out.append(text, last, end(e)).toString();
    }

    /** The element for some bands: once if they are alike, else once for each difference. */
    private String rendered(Element e, Map<Binding, Filling> bound, Set<String> bands) {
        Set<String> hidden = new LinkedHashSet<>();
        Map<Map<Binding, Value>, Set<String>> groups = new LinkedHashMap<>();
        for (Band band : values.palette().bands().list()) {
            if (!bands.contains(band.key())) {
                continue;
            }
            Map<Binding, Value> here = new EnumMap<>(Binding.class);
            bound.forEach((b, f) -> here.put(b, f.in(band)));
            boolean off = here.remove(Binding.SHOW) instanceof Value.Flag f && !f.on();
            if (off || isNone(here.get(Binding.SRC))) {
                hidden.add(band.key());
            }
            groups.computeIfAbsent(here, h -> new LinkedHashSet<>()).add(band.key());
        }
        // A part that is hidden in a band needs no copy for it.
        groups.values().removeIf(keys -> hidden.containsAll(keys) && groups.size() > 1);
        StringBuilder out = new StringBuilder();
        for (Map.Entry<Map<Binding, Value>, Set<String>> group : groups.entrySet()) {
            boolean copy = out.length() > 0;
            Set<String> off = hidden.stream()
                    .filter(h -> groups.size() == 1 || group.getValue().contains(h))
                    .collect(Collectors.toCollection(LinkedHashSet::new));
            out.append(written(
                    e, group.getKey(), groups.size() > 1 ? group.getValue() : Set.of(), off, group.getValue(), copy));
        }
        return out.toString();
    }

    private static boolean isNone(Value src) {
        return src instanceof Value.Text t
                ? t.text().isEmpty()
                : src instanceof Value.Parts p
                        && p.text("src").isEmpty()
                        && p.text("poster").isEmpty();
    }

    private String written(
            Element e, Map<Binding, Value> here, Set<String> in, Set<String> hidden, Set<String> bands, boolean copy) {
        StartTag tag = new StartTag(text.substring(
                        e.sourceRange().startPos(), e.sourceRange().endPos()))
                .without(IN)
                .without(HIDDEN);
        Optional<Page.Span> contents = page.inside(e);
        boolean closes = contents.isPresent();
        int innerEnd = contents.map(Page.Span::end).orElse(e.sourceRange().endPos());
        String inner = text.substring(e.sourceRange().endPos(), innerEnd);
        String close = closes ? text.substring(innerEnd, e.endSourceRange().endPos()) : "";
        String file = page.source().file();
        boolean replaced = false;
        for (Map.Entry<Binding, Value> bound : here.entrySet()) {
            Value v = bound.getValue();
            switch (bound.getKey()) {
                case TEXT -> {
                    String wanted = ((Value.Text) v).text();
                    replaced = plainText(e).filter(t -> t.equals(wanted)).isEmpty();
                    // In a title or a field a tag would be read as text.
                    inner = replaced
                            ? html(wanted).replace("\n", TEXT_ALONE.contains(e.normalName()) ? "\n" : "<br>")
                            : inner;
                }
                case SRC ->
                    tag = v instanceof Value.Text t
                            ? source(tag, "src", t.text(), e, file)
                            : source(
                                    source(tag, "src", ((Value.Parts) v).text("src"), e, file),
                                    "poster",
                                    ((Value.Parts) v).text("poster"),
                                    e,
                                    file);
                case ALT ->
                    tag = e.attr("alt").equals(((Value.Text) v).text()) && e.hasAttr("alt")
                            ? tag
                            : tag.with("alt", html(((Value.Text) v).text()));
                case HREF -> {
                    String to = ((Value.Text) v).text();
                    tag = target(file, e.attr("href")).equals(to) ? tag : tag.with("href", html(seenFrom(file, to)));
                }
                case LEVEL -> {
                    String name = "h" + ((Value.Number) v).number().toPlainString();
                    if (!name.equals(e.normalName())) {
                        tag = tag.named(name);
                        close = close.isEmpty() ? close : "</" + name + close.substring(4);
                    }
                }
                case ITEMS -> {
                    inner = items(e, (Value.Many) v, inner, bands);
                    replaced = true;
                }
                default -> {}
            }
        }
        if (!replaced) {
            inner = nested(e, inner, bands);
        }
        if (copy) {
            tag = tag.without("id");
            tag = e.normalName().equals("img") ? tag.with("loading", "lazy") : tag;
        }
        tag = in.isEmpty() ? tag : tag.with(IN, String.join(" ", in));
        tag = hidden.isEmpty() ? tag : tag.with(HIDDEN, String.join(" ", hidden));
        return tag.text() + inner + close;
    }

    /** Bound parts inside of a bound part. */
    private String nested(Element e, String inner, Set<String> bands) {
        int from = e.sourceRange().endPos();
        StringBuilder out = new StringBuilder();
        int last = from;
        for (Edit edit : inside(e, bands)) {
            if (edit.start() >= last && edit.end() <= from + inner.length()) {
                out.append(text, last, edit.start()).append(edit.replacement());
                last = edit.end();
            }
        }
        return out.append(text, last, from + inner.length()).toString();
    }

    private StartTag source(StartTag tag, String attribute, String path, Element e, String file) {
        if (Paths.resolve(file, e.attr(attribute)).orElse("").equals(path)) {
            return tag;
        }
        // Other sizes of the picture that was there would win over the new one.
        StartTag plain = attribute.equals("src") ? tag.without("srcset").without("sizes") : tag;
        return path.isEmpty()
                ? plain.without(attribute)
                : sized(plain.with(attribute, html(Paths.address(Paths.relative(file, path)))), e, path);
    }

    /** Room for the picture is kept in its own shape: where width and height are told, they are told of the new one. */
    private StartTag sized(StartTag tag, Element e, String path) {
        MediaFacts facts = values.media().facts(path).orElse(null);
        boolean told = e.normalName().equals("img")
                && e.attr("width").matches("[1-9]\\d{0,4}")
                && e.attr("height").matches("[1-9]\\d{0,4}");
        if (!told || facts == null || facts.width() == 0 || facts.height() == 0) {
            return tag;
        }
        long width = Long.parseLong(e.attr("width"));
        return tag.with(
                "height", Long.toString(Math.max(1, Math.round(width * (double) facts.height() / facts.width()))));
    }

    /** Where a link leads, as a link setting says it: a page by its path from the theme's folder. */
    public static String target(String file, String href) {
        String h = href.strip();
        Optional<String> path = Paths.resolve(file, h);
        if (path.isEmpty() || h.startsWith("#")) {
            return h;
        }
        int cut = h.indexOf('?') >= 0 ? h.indexOf('?') : h.indexOf('#');
        return path.get() + (cut >= 0 ? h.substring(cut) : "");
    }

    private static String seenFrom(String file, String to) {
        boolean away = to.startsWith("#") || to.matches("[A-Za-z][A-Za-z0-9+.-]*:.*");
        int cut = to.indexOf('?') >= 0 ? to.indexOf('?') : to.indexOf('#');
        String path = cut >= 0 ? to.substring(0, cut) : to;
        return away ? to : Paths.address(Paths.relative(file, path)) + (cut >= 0 ? to.substring(cut) : "");
    }

    private String html(String plain) {
        StringBuilder out = new StringBuilder();
        Charset charset = page.source().charset();
        plain.codePoints().forEach(c -> {
            String s = Character.toString(c);
            switch (c) {
                case '&' -> out.append("&amp;");
                case '<' -> out.append("&lt;");
                case '>' -> out.append("&gt;");
                case '"' -> out.append("&quot;");
                default -> out.append(charset.newEncoder().canEncode(s) ? s : "&#" + c + ";");
            }
        });
        return out.toString();
    }

    /** What one bound part of a page gets, for a page that is open: the same as the build writes, as far as a script can do it. */
    public record Fill(String attribute, String key, Value value) {}

    /** What all bound parts get in a band. */
    public static List<Fill> fills(Effective values, Band band) {
        List<Fill> all = new ArrayList<>();
        for (Setting s : values.palette().settings()) {
            s.kind().bindings().forEach(b -> all.add(new Fill(b.attribute(), s.key(), values.value(s, band))));
        }
        return all;
    }
}

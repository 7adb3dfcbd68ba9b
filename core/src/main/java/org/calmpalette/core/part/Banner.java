package org.calmpalette.core.part;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.cascade.ElementStyle;
import org.calmpalette.core.cascade.Explanation;
import org.calmpalette.core.change.Change;
import org.calmpalette.core.change.Located;
import org.calmpalette.core.change.OwnSheet;
import org.calmpalette.core.change.PageBinding;
import org.calmpalette.core.change.PaletteChange;
import org.calmpalette.core.change.SheetRole;
import org.calmpalette.core.css.Edit;
import org.calmpalette.core.css.selector.States;
import org.calmpalette.core.output.BoundPage;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.page.Paths;
import org.calmpalette.core.page.StartTag;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.setting.Binding;
import org.calmpalette.core.setting.MediaFacts;
import org.calmpalette.core.setting.Place;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.value.Viewport;
import org.jsoup.nodes.Element;

/**
 * A picture in place of a title. It stands in the title as an {@code img} whose alternative text is what the title said, so that
 * screen readers say the same (WCAG 2.2, 1.1.1), whose height follows the picture and which never repeats. What pushed or painted
 * the title before is undone where the maker wrote it.
 */
public final class Banner {
    private static final Viewport WINDOW = Viewport.of(1440, 800);
    private static final Pattern URL = Pattern.compile("url\\(\\s*(?:\"([^\"]*)\"|'([^']*)'|([^)\"'\\s]*))\\s*\\)");
    private static final Pattern FAR_OUT = Pattern.compile(
            "-?(?:[5-9]\\d{2,}|\\d{4,})(?:\\.\\d+)?px|-?\\d{2,}(?:\\.\\d+)?r?em|-?\\d{3,}(?:\\.\\d+)?(?:%|vw)");

    private final Rendered rendered;
    private final Map<String, SheetRole> roles;

    public Banner(Rendered rendered, Map<String, SheetRole> roles) {
        this.rendered = rendered;
        this.roles = roles;
    }

    /** The element whose text is the title and nothing else: the one pointed at, or the only one in it. */
    public static Optional<Element> holder(Page page, Element e) {
        Element now = e;
        while (now.childrenSize() == 1 && now.ownText().isBlank()) {
            now = now.child(0);
        }
        boolean plain = page.inside(now).isPresent()
                && BoundPage.plainText(now).filter(t -> !t.isBlank()).isPresent();
        return plain ? Optional.of(now) : Optional.empty();
    }

    /** The picture of the theme that is painted behind a title now; empty if there is none. */
    public Optional<String> behind(Page page, Element title) {
        return around(page, title).stream()
                .flatMap(e -> picture(styles(page, e)).stream())
                .findFirst();
    }

    private ElementStyle styles(Page page, Element e) {
        return rendered.styles(page, WINDOW, States.NONE).of(e);
    }

    private Optional<String> picture(ElementStyle style) {
        Explanation.Cause w = Explanation.of(style, "background-image").winner();
        Matcher m = URL.matcher(w == null ? "" : w.written());
        return w == null || !w.isInTheme() || !m.find()
                ? Optional.empty()
                : Paths.resolve(
                                w.file(),
                                m.group(1) != null ? m.group(1) : m.group(2) != null ? m.group(2) : m.group(3))
                        .filter(rendered.theme().files()::has);
    }

    /** The title from the outside in: what it was pointed at, and what of it holds the text. */
    private static List<Element> around(Page page, Element title) {
        List<Element> all = new ArrayList<>(List.of(title));
        holder(page, title).ifPresent(h -> {
            for (Element e = h; e != title; e = e.parent()) {
                all.add(1, e);
            }
        });
        return all;
    }

    /**
     * Puts a picture in place of a title.
     *
     * @param picture its path in the theme
     * @param setting that owners change it with, with that picture as its default; null to keep it fixed
     * @param place of the setting
     * @param everywhere whether the same title on all pages gets it too
     * @throws BadInputException if the part has no plain text, or the picture is not there
     */
    public Change of(Page page, Element title, String picture, Setting setting, Place place, boolean everywhere) {
        Theme theme = rendered.theme();
        MediaFacts facts = theme.media()
                .facts(picture)
                .filter(f -> theme.pictures().contains(picture) && f.width() > 0)
                .orElseThrow(() -> new BadInputException(
                        "“" + picture + "” is no picture of the theme whose size is known.", "Choose another one."));
        Element holder = holder(page, title)
                .orElseThrow(() -> new BadInputException(
                        page.source().file() + ", line "
                                + page.source().line(title.sourceRange().startPos())
                                + ": this part is no title, it holds more than one text.",
                        "Point at the words that the picture should stand for."));
        Map<Page, List<Element>> parts =
                everywhere ? PageBinding.alike(theme, page, holder, Binding.TEXT) : new LinkedHashMap<>();
        parts.putIfAbsent(page, List.of(holder));
        Map<String, List<Edit>> edits = new TreeMap<>();
        int count = 0;
        for (Map.Entry<Page, List<Element>> p : parts.entrySet()) {
            for (Element e : p.getValue()) {
                edits.computeIfAbsent(p.getKey().source().file(), f -> new ArrayList<>())
                        .addAll(image(p.getKey(), e, picture, facts, setting));
                count++;
            }
        }
        undo(page, title).forEach((file, list) -> edits.computeIfAbsent(file, f -> new ArrayList<>())
                .addAll(list));
        String where = count == 1 ? page.source().file() : count + " titles on " + parts.size() + " pages";
        String css = PartSelector.unique(page, holder)
                + " > img {\n  display: block;\n  width: auto;\n  max-width: 100%;\n  height: auto;\n}";
        Change change = new OwnSheet(rendered, roles)
                .append(
                        "Put " + picture + " in place of “" + holder.text() + "” in " + where,
                        css,
                        List.copyOf(parts.keySet()))
                .with(edits);
        if (setting == null) {
            return change;
        }
        PaletteChange.checkFree(theme, setting);
        return change.withPalette(theme, theme.palette().with(setting, place));
    }

    /** The image in place of the words. What filled the words fills its alternative text. */
    private static List<Edit> image(Page page, Element e, String picture, MediaFacts facts, Setting setting) {
        String file = page.source().file();
        Page.Span inside = page.inside(e).orElseThrow();
        int start = e.sourceRange().startPos();
        int open = e.sourceRange().endPos();
        StartTag tag = new StartTag(page.source().text().substring(start, open));
        String bound = e.attr(Binding.TEXT.attribute());
        StartTag img = new StartTag("<img>")
                .with("src", Paths.address(Paths.relative(file, picture)).replace("&", "&amp;"))
                .with(
                        "alt",
                        page.source()
                                .text()
                                .substring(inside.start(), inside.end())
                                .replaceAll("<[^>]*>", " ")
                                .strip()
                                .replaceAll("\\s+", " ")
                                .replace("\"", "&quot;"))
                .with("width", Integer.toString(facts.width()))
                .with("height", Integer.toString(facts.height()));
        if (setting != null) {
            img = img.with(Binding.SRC.attribute(), setting.key());
        }
        if (!bound.isEmpty()) {
            img = img.with(Binding.ALT.attribute(), bound);
        }
        List<Edit> edits = new ArrayList<>();
        if (!bound.isEmpty()) {
            edits.add(
                    new Edit(start, open, tag.without(Binding.TEXT.attribute()).text()));
        }
        edits.add(new Edit(inside.start(), inside.end(), img.text()));
        return edits;
    }

    /** Indents that push the words away, pictures that stood behind them and heights made for these, where the maker wrote them. */
    private Map<String, List<Edit>> undo(Page page, Element title) {
        Map<String, List<Edit>> edits = new TreeMap<>();
        for (Element e : around(page, title)) {
            ElementStyle style = styles(page, e);
            boolean painted = picture(style).isPresent();
            Explanation.Cause indent = Explanation.of(style, "text-indent").winner();
            boolean pushed =
                    indent != null && FAR_OUT.matcher(indent.written().strip()).matches();
            if (pushed) {
                put(edits, indent, "0");
            }
            if (painted) {
                Explanation.Cause w = Explanation.of(style, "background-image").winner();
                put(edits, w, URL.matcher(w.written()).replaceFirst("none"));
            }
            if (pushed || painted) {
                Explanation.Cause height = Explanation.of(style, "height").winner();
                if (height != null && !height.written().strip().equals("auto")) {
                    put(edits, height, "auto");
                }
            }
        }
        return edits;
    }

    private void put(Map<String, List<Edit>> edits, Explanation.Cause w, String value) {
        boolean own = w.isInTheme()
                && roles.containsKey(w.file())
                && roles.get(w.file()).lasts();
        if (own) {
            Located at = Located.find(rendered.theme(), w.file(), w.start());
            Edit edit = new Edit(at.valueStart(), at.valueEnd(), value);
            List<Edit> all = edits.computeIfAbsent(w.file(), f -> new ArrayList<>());
            if (!all.contains(edit)) {
                all.add(edit);
            }
        }
    }
}

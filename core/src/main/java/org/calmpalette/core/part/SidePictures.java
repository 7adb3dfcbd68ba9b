package org.calmpalette.core.part;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.regex.Pattern;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.cascade.ElementStyle;
import org.calmpalette.core.cascade.Explanation;
import org.calmpalette.core.change.Change;
import org.calmpalette.core.change.OwnSheet;
import org.calmpalette.core.change.PaletteChange;
import org.calmpalette.core.change.SheetRole;
import org.calmpalette.core.css.Edit;
import org.calmpalette.core.css.Reference;
import org.calmpalette.core.css.Tokenizer;
import org.calmpalette.core.css.selector.SelectorList;
import org.calmpalette.core.css.selector.SelectorMatcher;
import org.calmpalette.core.css.selector.States;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.page.Paths;
import org.calmpalette.core.page.StartTag;
import org.calmpalette.core.render.Breakpoint;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.setting.Bands;
import org.calmpalette.core.setting.Binding;
import org.calmpalette.core.setting.LinkKind;
import org.calmpalette.core.setting.Palette;
import org.calmpalette.core.setting.PictureKind;
import org.calmpalette.core.setting.Place;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.TextKind;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.value.Viewport;
import org.jsoup.nodes.Element;

/**
 * One or two linked pictures at the side of a part, as headers have them: flush with its edges, as high as it is, and beside what it
 * holds, which gets the rest of the room. In the narrowest windows, where there is no rest, they are not shown. Picture, link and
 * words of each are settings.
 */
public final class SidePictures {
    /** Pictures at one side. */
    public static final int MOST = 2;
    /** Of one picture, in CSS pixels. */
    public static final int NARROWEST = 24;
    /** Of one picture, in CSS pixels. */
    public static final int WIDEST = 400;

    private static final String HOLDS = "has-side-pictures";
    /** Elements whose children are theirs alone to decide. */
    private static final Set<String> CLOSED = Set.of(
            "html",
            "body",
            "ul",
            "ol",
            "dl",
            "table",
            "tbody",
            "thead",
            "tfoot",
            "tr",
            "select",
            "p",
            "h1",
            "h2",
            "h3",
            "h4",
            "h5",
            "h6",
            "a",
            "button",
            "span",
            "video",
            "audio",
            "picture",
            "object",
            "svg",
            "iframe",
            "textarea",
            "script",
            "style",
            "pre",
            "label");

    private static final Pattern ZERO = Pattern.compile("[+-]?0*\\.?0*");

    private final Rendered rendered;
    private final Map<String, SheetRole> roles;

    public SidePictures(Rendered rendered, Map<String, SheetRole> roles) {
        this.rendered = rendered;
        this.roles = roles;
    }

    /**
     * One picture.
     *
     * @param picture its path in the theme
     * @param link where it leads, as {@link LinkKind} has it
     * @param words what it shows, or where it leads, for those who do not see it
     */
    public record Linked(String picture, String link, String words) {}

    /** Which side, in a page from left to right. */
    public enum Side {
        LEFT,
        RIGHT
    }

    /** Whether a part may have pictures at its side: a box that holds others, and has none yet. */
    public static boolean mayHave(Page page, Element e) {
        return page.inside(e).isPresent()
                && !CLOSED.contains(e.normalName())
                && e.closest("svg") == null
                && e.childrenSize() > 0
                && !e.hasClass(HOLDS)
                && !e.hasClass("side-pictures");
    }

    /**
     * Puts pictures at the side of a part, on every page that has it.
     *
     * @param width of each, {@value #NARROWEST} to {@value #WIDEST} CSS px
     * @param label what owners read before “picture”, “link” and “words”
     * @param key what the keys of the settings begin with
     * @throws BadInputException if the part cannot hold them, a picture is not there, or a rule with more weight decides the room
     */
    public Change of(
            Page page,
            Element part,
            Side side,
            int width,
            List<Linked> pictures,
            String label,
            String key,
            Place place) {
        Theme theme = rendered.theme();
        check(page, part, width, pictures);
        List<Setting> settings = settings(pictures, label, key, place);
        Palette palette = theme.palette();
        for (Setting s : settings) {
            PaletteChange.checkFree(theme, s);
            palette = palette.with(s, place);
        }
        String selector = PartSelector.unique(page, part);
        Map<Page, Element> parts = alike(page, part, selector);
        Map<String, List<Edit>> edits = new TreeMap<>();
        parts.forEach((p, e) -> edits.put(p.source().file(), edits(p, e, pictures, key)));
        String css = css(page, part, selector + "." + HOLDS, side, width, pictures.size());
        Change change = new OwnSheet(rendered, roles)
                .append(
                        "Put " + (pictures.size() == 1 ? "a linked picture" : "two linked pictures") + " at the "
                                + word(side) + " of " + PartSelector.name(part) + " on "
                                + (parts.size() == 1 ? page.source().file() : parts.size() + " pages"),
                        css,
                        List.copyOf(parts.keySet()))
                .with(edits);
        Change whole = change.withPalette(theme, palette);
        confirm(whole.applied(theme), page, selector, side);
        return whole;
    }

    private static String word(Side side) {
        return side.name().toLowerCase(java.util.Locale.ROOT);
    }

    private void check(Page page, Element part, int width, List<Linked> pictures) {
        if (!mayHave(page, part)) {
            throw new BadInputException(
                    page.source().file() + ", line "
                            + page.source().line(part.sourceRange().startPos()) + ": "
                            + (part.hasClass(HOLDS)
                                    ? "this part has pictures at its side already."
                                    : "this part is no box that holds others."),
                    part.hasClass(HOLDS)
                            ? "Change their settings, or take them back in the history."
                            : "Point at the header itself, or go out to it.");
        }
        if (pictures.isEmpty() || pictures.size() > MOST) {
            throw new BadInputException("No picture was chosen.", "Choose one or two.");
        }
        if (width < NARROWEST || width > WIDEST) {
            throw new BadInputException(
                    "A width of " + width + " px is out of bounds.", "Write " + NARROWEST + " to " + WIDEST + ".");
        }
        for (Linked l : pictures) {
            if (!rendered.theme().pictures().contains(l.picture())) {
                throw new BadInputException("“" + l.picture() + "” is no picture of the theme.", "Choose another one.");
            }
            if (l.words().isBlank()) {
                throw new BadInputException(
                        "The words of " + l.picture() + " are missing: a link needs a name (WCAG 2.2, 2.4.4).",
                        "Write where it leads.");
            }
        }
    }

    private static List<Setting> settings(List<Linked> pictures, String label, String key, Place place) {
        List<Setting> all = new ArrayList<>();
        for (int i = 0; i < pictures.size(); i++) {
            Linked l = pictures.get(i);
            String n = pictures.size() == 1 ? "" : " " + (i + 1);
            String at = key + (pictures.size() == 1 ? "" : "-" + (i + 1));
            all.add(Setting.of(at, label + n, "", place.key(), PictureKind.ANY, Value.of(l.picture())));
            all.add(Setting.of(
                    at + "-link",
                    label + n + ": link",
                    "",
                    place.key(),
                    LinkKind.ANY,
                    Value.of(l.link().strip())));
            all.add(Setting.of(
                    at + "-words",
                    label + n + ": words",
                    "For those who do not see the picture: where it leads.",
                    place.key(),
                    TextKind.LINE,
                    Value.of(l.words().strip())));
        }
        return all;
    }

    /** The same part on all pages: what the selector finds there, if it is one and starts with the same tag. */
    private Map<Page, Element> alike(Page page, Element part, String selector) {
        Map<Page, Element> all = new LinkedHashMap<>();
        SelectorList list = SelectorList.parse(selector).orElseThrow();
        String tag = PartSelector.name(part);
        for (Page p : rendered.theme().pages()) {
            SelectorMatcher matcher = new SelectorMatcher(p.document(), States.NONE);
            List<Element> found =
                    p.elements().stream().filter(e -> matcher.matches(list, e)).toList();
            if (p == page) {
                all.put(p, part);
            } else if (found.size() == 1 && PartSelector.name(found.get(0)).equals(tag) && mayHave(p, found.get(0))) {
                all.put(p, found.get(0));
            }
        }
        return all;
    }

    private List<Edit> edits(Page page, Element part, List<Linked> pictures, String key) {
        String file = page.source().file();
        int start = part.sourceRange().startPos();
        StartTag tag = new StartTag(
                page.source().text().substring(start, part.sourceRange().endPos()));
        StringBuilder html = new StringBuilder("<div class=\"side-pictures\">");
        for (int i = 0; i < pictures.size(); i++) {
            Linked l = pictures.get(i);
            String at = key + (pictures.size() == 1 ? "" : "-" + (i + 1));
            boolean inTheme = rendered.theme().files().has(l.link().replaceFirst("[?#].*", ""));
            String href = inTheme ? Paths.address(Paths.relative(file, l.link())) : l.link();
            html.append(new StartTag("<a>")
                            .with("href", escaped(href))
                            .with(Binding.HREF.attribute(), at + "-link")
                            .text())
                    .append(new StartTag("<img>")
                            .with("src", escaped(Paths.address(Paths.relative(file, l.picture()))))
                            .with("alt", escaped(l.words().strip()))
                            .with(Binding.SRC.attribute(), at)
                            .with(Binding.ALT.attribute(), at + "-words")
                            .text())
                    .append("</a>");
        }
        html.append("</div>");
        int end = page.inside(part).orElseThrow().end();
        return List.of(classed(tag, start), new Edit(end, end, html.toString()));
    }

    /** One more class, behind those that are written. */
    private static Edit classed(StartTag tag, int start) {
        for (StartTag.Attribute a : tag.attributes()) {
            boolean quoted = a.valueStart() > 0 && "\"'".indexOf(tag.text().charAt(a.valueStart() - 1)) >= 0;
            if (a.name().equals("class") && quoted) {
                return new Edit(start + a.valueEnd(), start + a.valueEnd(), " " + HOLDS);
            }
            if (a.name().equals("class")) {
                String value = a.valueStart() < 0 ? "" : tag.text().substring(a.valueStart(), a.valueEnd());
                return new Edit(
                        start,
                        start + tag.text().length(),
                        tag.with("class", (value + " " + HOLDS).strip()).text());
            }
        }
        return new Edit(
                start, start + tag.text().length(), tag.with("class", HOLDS).text());
    }

    private static String escaped(String text) {
        return text.replace("&", "&amp;").replace("\"", "&quot;").replace("<", "&lt;");
    }

    /** Room is made at the side where the pictures stand, on top of the padding that the part has at each window width. */
    private String css(Page page, Element part, String selector, Side side, int width, int count) {
        Bands bands = rendered.theme().palette().bands();
        StringBuilder css = new StringBuilder();
        ElementStyle widest = style(page, part, bands.from(bands.widest()) + 200);
        if (widest.is("position", "static")) {
            css.append(selector).append(" {\n  position: relative;\n}\n");
        }
        String inner = selector + " > .side-pictures";
        css.append(inner)
                .append(" {\n  position: absolute;\n  top: 0;\n  bottom: 0;\n  ")
                .append(word(side))
                .append(": 0;\n  display: flex;\n}\n");
        css.append(inner)
                .append(" a {\n  display: block;\n  width: ")
                .append(width)
                .append("px;\n}\n");
        css.append(inner)
                .append(" img {\n  display: block;\n  width: 100%;\n  height: 100%;\n  object-fit: cover;\n}\n");
        // Where the padding changes is not where the bands end.
        TreeMap<Integer, String> paddings = new TreeMap<>();
        int first = bands.list().size() > 1 ? bands.from(bands.list().get(1)) : 0;
        Breakpoint.of(rendered.theme()).stream()
                .map(b -> (int) (b.from() ? Math.ceil(b.width()) : Math.floor(b.width()) + 1))
                .filter(w -> w > first)
                .forEach(w -> paddings.put(w, ""));
        paddings.put(first, "");
        paddings.replaceAll((from, none) -> padding(style(page, part, Math.max(from, 320)), side));
        if (first > 0) {
            css.append("@media (width < ")
                    .append(first)
                    .append("px) {\n  ")
                    .append(inner)
                    .append(" {\n    display: none;\n  }\n}\n");
        }
        String before = "";
        for (Map.Entry<Integer, String> p : paddings.entrySet()) {
            if (!p.getValue().equals(before)) {
                before = p.getValue();
                String rule = selector + " {\n    box-sizing: border-box;\n    padding-" + word(side) + ": calc("
                        + before + " + " + width * count + "px);\n  }";
                css.append(
                                p.getKey() == 0
                                        ? rule.replace("\n  ", "\n")
                                        : "@media (width >= " + p.getKey() + "px) {\n  " + rule + "\n}")
                        .append('\n');
            }
        }
        return css.toString().stripTrailing();
    }

    private ElementStyle style(Page page, Element part, int window) {
        return rendered.styles(page, Viewport.of(window, 800), States.NONE).of(part);
    }

    private String padding(ElementStyle style, Side side) {
        Explanation why = Explanation.of(style, "padding-" + word(side));
        Explanation.Cause w = why.winner();
        boolean bound =
                why.through().stream().anyMatch(rendered.theme().palette().properties()::containsKey);
        if (bound) {
            // What a setting decides goes on following it; of a shorthand it is not known here which part is meant.
            String written = w == null ? "" : w.written().strip();
            if (Reference.whole(Tokenizer.tokenize(written)).isEmpty()
                    || !w.property().equals("padding-" + word(side))) {
                throw new BadInputException(
                        (w == null ? "A setting" : w.file() + ", line " + w.line() + ": a setting")
                                + " decides the padding together with something else.",
                        "Write padding-" + word(side) + " by itself there.");
            }
            return written;
        }
        String computed = style.computed("padding-" + word(side)).strip();
        return ZERO.matcher(computed).matches() ? "0px" : computed;
    }

    /** A rule of the theme that has more weight would leave what the part holds under the pictures. */
    private void confirm(Theme after, Page page, String selector, Side side) {
        Rendered then = new Rendered(after);
        Page there = after.page(page.source().file());
        Element part = there.document().selectFirst("." + HOLDS + ":has(> .side-pictures)");
        Bands bands = after.palette().bands();
        Explanation.Cause w = Explanation.of(
                        then.styles(there, Viewport.of(bands.from(bands.widest()) + 200, 800), States.NONE)
                                .of(part),
                        "padding-" + word(side))
                .winner();
        if (w == null || !w.written().startsWith("calc(")) {
            throw new BadInputException(
                    (w == null ? "A rule" : w.file() + ", line " + w.line()) + " decides the padding of " + selector
                            + " with more weight, so the pictures would lie over what it holds.",
                    "Take its !important away, or point at a part around it.");
        }
    }
}

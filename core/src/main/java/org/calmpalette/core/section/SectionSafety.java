package org.calmpalette.core.section;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.Budget;
import org.jsoup.Jsoup;
import org.jsoup.nodes.Attribute;
import org.jsoup.nodes.Comment;
import org.jsoup.nodes.Element;
import org.jsoup.nodes.Node;
import org.jsoup.safety.Safelist;

/**
 * What the markup of a section may hold: elements and attributes of which none runs a script, changes an address, or loads anything
 * from another host, neither here nor on the site that is handed over. All that is not named is refused with its line, and not
 * cleaned: markup that somebody wrote is not rewritten unseen.
 *
 * <p>Browsers and parsers differ in what they make of markup that is written to deceive, so three things are asked: every name that
 * looks like a tag in the text as it stands, every element and attribute of the tree, and whether the tree written out and read again
 * is the same tree (HTML, section 13.2 “Parsing HTML documents”).
 */
final class SectionSafety {
    /** Elements of HTML with the attributes that each may have beside those of all. */
    private static final Safelist HTML = new Safelist();

    /** Shapes drawn in the page; what moves, runs, shows another document or HTML inside of a drawing is not among them. */
    private static final Set<String> SVG = words(
            "svg g path circle ellipse line polyline polygon rect text tspan defs lineargradient radialgradient stop clippath"
                    + " mask pattern symbol use title desc");

    private static final Set<String> SVG_ATTRIBUTES = words(
            "viewbox width height x y x1 y1 x2 y2 cx cy r rx ry fx fy d points dx dy rotate textlength lengthadjust pathlength"
                    + " transform fill fill-opacity fill-rule stroke stroke-width stroke-opacity stroke-linecap stroke-linejoin"
                    + " stroke-miterlimit stroke-dasharray stroke-dashoffset opacity color display visibility overflow clip-path clip-rule mask"
                    + " paint-order vector-effect shape-rendering text-rendering text-anchor dominant-baseline font-family font-size font-weight"
                    + " font-style letter-spacing gradientunits gradienttransform spreadmethod offset stop-color stop-opacity clippathunits"
                    + " maskunits maskcontentunits patternunits patterncontentunits patterntransform preserveaspectratio focusable version xmlns"
                    + " xmlns:xlink xml:space href xlink:href");

    private static final Set<String> EVERYWHERE = words(
            "class id title lang dir hidden role tabindex translate accesskey itemscope itemprop itemtype itemid part slot inert"
                    + " spellcheck autocapitalize enterkeyhint inputmode");
    private static final Pattern NAMED = Pattern.compile("(?:data|aria)-[a-z0-9_.-]+");

    /** Where a browser goes when somebody asks for it. */
    private static final Set<String> LINKS = Set.of("href", "action", "formaction", "cite", "itemtype", "itemid");

    private static final Set<String> LINK_SCHEMES = Set.of("http", "https", "mailto", "tel", "sms");
    /** What a browser loads by itself. */
    private static final Set<String> LOADS = Set.of("src", "srcset", "poster");

    private static final Pattern PICTURE =
            Pattern.compile("(?is)data:image/(?:png|jpe?g|gif|webp|avif)(?:;[a-z0-9=-]+)*,.*");
    private static final Pattern SCHEME = Pattern.compile("([a-z][a-z0-9+.-]*):.*", Pattern.DOTALL);
    /** Browsers take these out of an address before they read it (URL Standard, section 4.4). */
    private static final Pattern IGNORED = Pattern.compile("[\\t\\n\\r]");

    private static final Pattern TAG = Pattern.compile("<[/!?]?([a-zA-Z][^\\s/>]*)|<([!?])");

    static {
        String plain =
                "section article aside header footer nav main div p h1 h2 h3 h4 h5 h6 hgroup address blockquote dl dt dd"
                        + " figure figcaption hr pre ul menu a abbr b bdi bdo br cite code data dfn em i kbd mark q rp rt ruby s samp small"
                        + " span strong sub sup time u var wbr del ins picture img source video audio track table caption colgroup col tbody"
                        + " thead tfoot tr td th details summary form label input button select datalist optgroup option textarea output"
                        + " progress meter fieldset legend ol li search map area"
                        // As pages of another age write them (HTML, section 16.2 “Non-conforming features”).
                        + " font center big strike tt nobr";
        HTML.addTags(plain.split(" "));
        allow("a", "href target rel download hreflang type referrerpolicy");
        for (String aligned :
                "p div h1 h2 h3 h4 h5 h6 hr table caption tr tbody thead tfoot col img input legend".split(" ")) {
            allow(aligned, "align");
        }
        for (String colored : "table tr td th tbody thead tfoot".split(" ")) {
            allow(colored, "bgcolor valign height");
        }
        allow("font", "color face size");
        allow("br", "clear");
        allow("hr", "size width noshade color");
        allow("ul", "type compact");
        allow("area", "href target rel alt shape coords");
        allow("img", "src srcset sizes alt width height loading decoding fetchpriority usemap border hspace vspace");
        allow("source", "src srcset sizes type media width height");
        allow("video", "src poster controls autoplay loop muted playsinline preload width height");
        allow("audio", "src controls autoplay loop muted preload");
        allow("track", "src kind srclang label default");
        allow("map", "name");
        allow("ol", "start reversed type");
        allow("li", "value");
        allow("col", "span");
        allow("colgroup", "span");
        allow("td", "colspan rowspan headers align width nowrap");
        allow("th", "colspan rowspan headers scope abbr align width nowrap");
        allow("table", "border cellpadding cellspacing width summary rules frame");
        allow("time", "datetime");
        allow("data", "value");
        allow("del", "cite datetime");
        allow("ins", "cite datetime");
        allow("q", "cite");
        allow("blockquote", "cite");
        allow("details", "open name");
        allow("form", "action method enctype autocomplete novalidate target name accept-charset");
        allow("label", "for");
        allow(
                "input",
                "type name value placeholder required min max step maxlength minlength pattern checked disabled readonly size"
                        + " multiple accept autocomplete list");
        allow("button", "type name value disabled formaction formmethod popovertarget");
        allow("select", "name required disabled multiple size autocomplete");
        allow("optgroup", "label disabled");
        allow("option", "value selected disabled label");
        allow(
                "textarea",
                "name rows cols placeholder required maxlength minlength disabled readonly wrap autocomplete");
        allow("output", "for name");
        allow("progress", "value max");
        allow("meter", "value min max low high optimum");
        allow("fieldset", "disabled name");
    }

    private static void allow(String tag, String attributes) {
        HTML.addAttributes(tag, attributes.split(" "));
    }

    private static Set<String> words(String text) {
        return Set.of(text.split(" "));
    }

    private SectionSafety() {}

    /** What may not be in a section. @param offset in the markup */
    record Fault(int offset, String what, String mend) {}

    private static final String RUNS =
            "A section is made of HTML that shows something: nothing in it runs, or is loaded from elsewhere.";

    /**
     * Refuses markup that may not be in a section.
     *
     * @param html one element with all that is in it
     * @throws BadInputException with the line
     */
    static void check(String html) {
        fault(html).ifPresent(f -> {
            long line = html.substring(0, Math.min(html.length(), Math.max(0, f.offset())))
                            .chars()
                            .filter(c -> c == '\n')
                            .count()
                    + 1;
            throw new BadInputException(SectionKit.HTML + ", line " + line + ": " + f.what() + ".", f.mend());
        });
    }

    /** The first thing that may not be there, if there is one. */
    static Optional<Fault> fault(String html) {
        Matcher tags = TAG.matcher(html);
        while (tags.find()) {
            Budget.step();
            String name = tags.group(1) == null ? "" : tags.group(1).toLowerCase(Locale.ROOT);
            boolean comment = html.startsWith("<!--", tags.start());
            if (!comment && !isElement(name)) {
                return Optional.of(new Fault(
                        tags.start(),
                        name.isEmpty()
                                ? "a section holds no “" + tags.group() + "”"
                                : "a section holds no <" + name + ">",
                        name.equals("style") || name.equals("link")
                                ? "Its rules go into " + SectionKit.CSS
                                        + "; nothing in it runs or is loaded from elsewhere."
                                : RUNS));
            }
        }
        Element body = Jsoup.parse(
                        "<!doctype html><body>" + html + "</body>",
                        "",
                        org.jsoup.parser.Parser.htmlParser().setTrackPosition(true))
                .body();
        int before = "<!doctype html><body>".length();
        int elements = (int) body.stream().limit(MOST_ELEMENTS + 2L).count() - 1;
        if (elements > MOST_ELEMENTS) {
            return Optional.of(new Fault(
                    0,
                    String.format(Locale.ROOT, "a section holds up to %,d elements, and this one more", MOST_ELEMENTS),
                    "Make several sections of it."));
        }
        for (Element e : body.getAllElements()) {
            Budget.step();
            if (e == body) {
                if (e.attributesSize() > 0) {
                    return Optional.of(new Fault(0, "a section holds no <body>", RUNS));
                }
                continue;
            }
            Optional<Fault> fault = fault(e, Math.max(0, e.sourceRange().startPos() - before));
            if (fault.isPresent()) {
                return fault;
            }
        }
        if (!names(body).equals(names(again(body)))) {
            return Optional.of(new Fault(
                    0,
                    "its markup is read in two ways, depending on who reads it",
                    "Close each element where it ends, and leave < and > out of attributes."));
        }
        return Optional.empty();
    }

    private static Element again(Element body) {
        String written = body.html();
        return Jsoup.parse("<!doctype html><body>" + written + "</body>").body();
    }

    /** Elements, attributes and comments of a tree, one after the other. */
    private static List<String> names(Element body) {
        List<String> all = new ArrayList<>();
        body.nodeStream().forEach(n -> {
            Budget.step();
            if (n instanceof Element e && e != body) {
                all.add(depth(e, body) + e.tagName().toLowerCase(Locale.ROOT) + e.attributes());
            } else if (n instanceof Comment c) {
                all.add("#" + c.getData());
            }
        });
        return all;
    }

    private static int depth(Node node, Element body) {
        int depth = 0;
        for (Node at = node; at != null && at != body && depth < MOST_DEPTH; at = at.parent()) {
            depth++;
        }
        return depth;
    }

    private static final int MOST_DEPTH = 500;
    /** A page of a theme holds ten times as many. */
    static final int MOST_ELEMENTS = 2_000;

    private static boolean isElement(String name) {
        return HTML.isSafeTag(name) || SVG.contains(name);
    }

    private static Optional<Fault> fault(Element e, int at) {
        String tag = e.normalName();
        boolean drawing = isDrawing(e);
        if (drawing ? !SVG.contains(tag) : !HTML.isSafeTag(tag)) {
            return Optional.of(
                    new Fault(at, "a section holds no <" + tag + ">" + (drawing ? " inside of a drawing" : ""), RUNS));
        }
        for (Attribute a : e.attributes()) {
            Optional<String> why = refusal(e, a);
            if (why.isPresent()) {
                return Optional.of(new Fault(
                        at,
                        why.get(),
                        a.getKey().equalsIgnoreCase("style")
                                ? "Give the element a class, and a rule in " + SectionKit.CSS + "."
                                : RUNS));
            }
        }
        return Optional.empty();
    }

    /** Whether an element is an SVG, or in one. */
    private static boolean isDrawing(Element e) {
        return e.normalName().equals("svg")
                || Stream.iterate(e.parent(), java.util.Objects::nonNull, Element::parent)
                        .anyMatch(p -> p.normalName().equals("svg"));
    }

    /** Whether an element may be in a section, whatever its attributes say. */
    static boolean isAllowed(Element e) {
        return isDrawing(e) ? SVG.contains(e.normalName()) : HTML.isSafeTag(e.normalName());
    }

    /** Why an attribute may not be in a section, in words that go on from “section.html, line 3:”; empty if it may. */
    static Optional<String> refusal(Element e, Attribute a) {
        String tag = e.normalName();
        String name = a.getKey().toLowerCase(Locale.ROOT);
        String value = a.getValue();
        boolean known = EVERYWHERE.contains(name)
                || NAMED.matcher(name).matches()
                || (isDrawing(e) ? SVG_ATTRIBUTES.contains(name) : HTML.isSafeAttribute(tag, e, a));
        if (!known) {
            return Optional.of("a section holds no " + shortened(name) + " attribute on <" + tag + ">");
        }
        if (isDrawing(e)) {
            boolean inside = value.strip().startsWith("#") || value.isBlank();
            boolean link = name.equals("href") || name.equals("xlink:href");
            boolean paint = value.toLowerCase(Locale.ROOT).contains("url(")
                    && !value.replaceAll("\\s", "").toLowerCase(Locale.ROOT).matches("url\\(['\"]?#[^()]*\\).*");
            return link && !inside || paint
                    ? Optional.of("<" + tag + "> loads “" + shortened(value) + "”, in " + name)
                    : Optional.empty();
        }
        if (LINKS.contains(name)) {
            String scheme = scheme(value);
            return scheme.isEmpty() || LINK_SCHEMES.contains(scheme)
                    ? Optional.empty()
                    : Optional.of("<" + tag + "> leads to “" + shortened(value) + "”, in " + name);
        }
        if (LOADS.contains(name)) {
            List<String> addresses = name.equals("srcset")
                    ? org.calmpalette.core.page.Srcset.read(value).stream()
                            .map(c -> c.url())
                            .toList()
                    : List.of(value);
            for (String address : addresses) {
                if (!isOwn(address)) {
                    return Optional.of("<" + tag + "> loads “" + shortened(address) + "”, in " + name);
                }
            }
        }
        return Optional.empty();
    }

    /** Whether an address that a browser loads by itself is one of the theme, or a picture that it holds itself. */
    static boolean isOwn(String address) {
        String clean = clean(address);
        return scheme(address).isEmpty()
                        && !clean.startsWith("//")
                        && !clean.startsWith("/\\")
                        && !clean.startsWith("\\")
                || PICTURE.matcher(clean).matches();
    }

    private static String clean(String address) {
        return IGNORED.matcher(address)
                .replaceAll("")
                .replaceFirst("^[\\x00-\\x20]+", "")
                .toLowerCase(Locale.ROOT);
    }

    /** In small letters; empty if the address has none. */
    private static String scheme(String address) {
        Matcher m = SCHEME.matcher(clean(address));
        return m.matches() ? m.group(1) : "";
    }

    private static String shortened(String text) {
        return text.length() > 60 ? text.substring(0, 60) + "…" : text;
    }
}

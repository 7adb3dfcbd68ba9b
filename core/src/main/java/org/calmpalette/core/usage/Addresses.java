package org.calmpalette.core.usage;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.calmpalette.core.css.Node;
import org.calmpalette.core.css.TokenType;
import org.calmpalette.core.css.Tokens;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.page.Srcset;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.ThemeSheet;
import org.calmpalette.core.usage.Address.Loads;
import org.calmpalette.core.usage.Address.Quoting;
import org.jsoup.nodes.Element;

/** The addresses that a theme's stylesheets and pages load things from: the one reader of {@code url()} and {@code srcset}. */
public final class Addresses {
    /** Elements that load something, with their attributes. */
    private static final Map<String, Map<String, Loads>> LOADING = Map.ofEntries(
            Map.entry("img", Map.of("src", Loads.PICTURE)),
            Map.entry("source", Map.of("src", Loads.SOURCE)),
            Map.entry("video", Map.of("src", Loads.VIDEO, "poster", Loads.PICTURE)),
            Map.entry("audio", Map.of("src", Loads.AUDIO)),
            Map.entry("script", Map.of("src", Loads.SCRIPT)),
            Map.entry("iframe", Map.of("src", Loads.FRAME)),
            Map.entry("image", Map.of("href", Loads.PICTURE, "xlink:href", Loads.PICTURE)));

    private final List<Address> all = new ArrayList<>();

    private Addresses() {}

    /** All addresses: those of stylesheets first, then those of pages, each in the order of the text. */
    public static List<Address> of(Theme theme) {
        Addresses found = new Addresses();
        theme.declaring().forEach(found::sheet);
        theme.pages().forEach(found::page);
        return List.copyOf(found.all);
    }

    private void sheet(ThemeSheet part) {
        Tokens tokens = part.sheet().tokens();
        part.sheet().eachDeclaration((d, around) -> {
            boolean font = around.stream()
                    .anyMatch(r -> r instanceof Node.AtRule at && at.name().equals("font-face"));
            for (int i = d.valueFirst(); i < d.valueEnd(); i++) {
                address(part, tokens, i, d.valueEnd(), font ? Loads.FONT : Loads.PICTURE);
            }
        });
        for (Node node : part.sheet().rules()) {
            if (node instanceof Node.AtRule at && at.name().equals("import")) {
                int first = tokens.skipBlank(at.preludeFirst(), at.preludeEnd());
                if (first < at.preludeEnd() && tokens.is(first, TokenType.STRING)) {
                    add(part, tokens, first, Loads.STYLESHEET);
                } else if (first < at.preludeEnd()) {
                    address(part, tokens, first, at.preludeEnd(), Loads.STYLESHEET);
                }
            }
        }
    }

    private void address(ThemeSheet part, Tokens tokens, int i, int end, Loads loads) {
        if (tokens.is(i, TokenType.URL)) {
            String raw = tokens.raw(i);
            int open = raw.indexOf('(') + 1;
            String inside = raw.substring(open, raw.endsWith(")") ? raw.length() - 1 : raw.length());
            int lead = inside.length() - inside.stripLeading().length();
            int start = part.offset() + tokens.start(i) + open + lead;
            all.add(new Address(
                    part.path(),
                    part.line(tokens.start(i)),
                    start,
                    start + inside.strip().length(),
                    Quoting.BARE,
                    tokens.value(i),
                    loads));
        } else if (tokens.is(i, TokenType.FUNCTION) && tokens.lower(i).equals("url")) {
            int string = tokens.skipBlank(i + 1, end);
            if (tokens.is(string, TokenType.STRING)) {
                add(part, tokens, string, loads);
            }
        }
    }

    private void add(ThemeSheet part, Tokens tokens, int string, Loads loads) {
        all.add(new Address(
                part.path(),
                part.line(tokens.start(string)),
                part.offset() + tokens.start(string),
                part.offset() + tokens.end(string),
                tokens.raw(string).startsWith("'") ? Quoting.SINGLE : Quoting.DOUBLE,
                tokens.value(string),
                loads));
    }

    private void page(Page page) {
        for (Element e : page.elements()) {
            String name = e.normalName();
            LOADING.getOrDefault(name, Map.of()).keySet().stream()
                    .sorted()
                    .forEach(a -> attribute(page, e, a, LOADING.get(name).get(a)));
            if (name.equals("input") && e.attr("type").equalsIgnoreCase("image")) {
                attribute(page, e, "src", Loads.PICTURE);
            }
            if (name.equals("link") && e.attr("rel").matches("(?is)(.*\\s)?(stylesheet|icon|preload)(\\s.*)?")) {
                attribute(page, e, "href", Loads.LINKED);
            }
            if (name.equals("img") || name.equals("source")) {
                candidates(page, e);
            }
        }
    }

    private void attribute(Page page, Element e, String name, Loads loads) {
        if (e.hasAttr(name)) {
            var range = e.attributes().sourceRange(name).valueRange();
            all.add(new Address(
                    page.source().file(),
                    line(page, e, range.startPos()),
                    range.startPos(),
                    range.endPos(),
                    Quoting.ATTRIBUTE,
                    e.attr(name),
                    loads));
        }
    }

    private void candidates(Page page, Element e) {
        String value = e.attr("srcset");
        int from = value.isEmpty()
                ? -1
                : e.attributes().sourceRange("srcset").valueRange().startPos();
        // Where the attribute holds character references, offsets in its value are not offsets in the file.
        boolean placed = from >= 0 && page.source().text().startsWith(value, from);
        for (Srcset.Candidate c : Srcset.read(value)) {
            all.add(new Address(
                    page.source().file(),
                    line(page, e, from),
                    placed ? from + c.start() : -1,
                    placed ? from + c.end() : -1,
                    Quoting.CANDIDATE,
                    c.url(),
                    Loads.PICTURE));
        }
    }

    private static int line(Page page, Element e, int at) {
        return page.source().line(Math.max(0, Math.max(at, e.sourceRange().startPos())));
    }
}

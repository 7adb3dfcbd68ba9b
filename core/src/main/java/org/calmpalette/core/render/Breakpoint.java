package org.calmpalette.core.render;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import org.calmpalette.core.cascade.MediaQuery;
import org.calmpalette.core.css.Node;
import org.calmpalette.core.css.TokenType;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.ThemeSheet;
import org.calmpalette.core.value.ComponentValue;
import org.calmpalette.core.value.Lengths;
import org.calmpalette.core.value.Viewport;

/**
 * A window width at which a media query begins or ceases to hold.
 *
 * @param width in CSS px
 * @param from true if the width itself belongs to the wider side, as with {@code min-width}; false as with {@code max-width}
 * @param query as it is written, the first one that turns here
 * @param file where that stands
 * @param line from 1
 */
public record Breakpoint(double width, boolean from, String query, String file, int line) {
    /** Less than any difference that a theme makes. */
    private static final double A_LITTLE = 1.0 / 256;

    private static final double HEIGHT = 800;
    private static final int DEEPEST = 50;

    /** All of a theme's stylesheets and pages, from the narrowest; each width and side once. */
    public static List<Breakpoint> of(Theme theme) {
        Map<List<Object>, Breakpoint> found = new LinkedHashMap<>();
        Consumer<Breakpoint> add = b -> found.putIfAbsent(List.of(b.width(), b.from()), b);
        for (ThemeSheet part : theme.sheets()) {
            inside(part, part.sheet().rules(), add);
        }
        for (Page page : theme.pages()) {
            page.document()
                    .select("link[media], style[media], source[media]")
                    .forEach(e -> turns(
                            e.attr("media"),
                            page.source().file(),
                            page.source().line(Math.max(0, e.sourceRange().startPos())),
                            add));
        }
        return found.values().stream()
                .sorted(Comparator.comparingDouble(Breakpoint::width).thenComparing(b -> !b.from()))
                .toList();
    }

    /** The first whole window width on the wider side of each that lies within bounds, in CSS px, the narrowest first. */
    public static List<Integer> firsts(Theme theme, int from, int to) {
        return of(theme).stream()
                .map(b -> (int) (b.from() ? Math.ceil(b.width()) : Math.floor(b.width()) + 1))
                .filter(first -> first > from && first <= to)
                .distinct()
                .sorted()
                .toList();
    }

    private static void inside(ThemeSheet part, List<? extends Node> nodes, Consumer<Breakpoint> add) {
        for (Node node : nodes) {
            if (node instanceof Node.AtRule at) {
                if (at.name().equals("media")) {
                    turns(
                            part.sheet().prelude(at),
                            part.path(),
                            part.line(part.sheet().tokens().start(at.first())),
                            add);
                } else if (at.name().equals("import")) {
                    imported(part, at, add);
                }
                inside(part, at.children(), add);
            } else if (node instanceof Node.StyleRule rule) {
                inside(part, rule.children(), add);
            }
        }
    }

    /** What stands behind the address of an import; other conditions in it are blocks and functions that name no width. */
    private static void imported(ThemeSheet part, Node.AtRule at, Consumer<Breakpoint> add) {
        var tokens = part.sheet().tokens();
        int address = tokens.skipBlank(at.preludeFirst(), at.preludeEnd());
        int next = address < at.preludeEnd() && tokens.opens(address)
                ? tokens.afterBlock(address, at.preludeEnd())
                : address + 1;
        while (next < at.preludeEnd()
                && (tokens.isBlank(next)
                        || tokens.is(next, TokenType.FUNCTION)
                        || tokens.is(next, TokenType.IDENT)
                                && tokens.lower(next).equals("layer"))) {
            next = tokens.opens(next) ? tokens.afterBlock(next, at.preludeEnd()) : next + 1;
        }
        if (next < at.preludeEnd()) {
            turns(
                    part.sheet().text(next, at.preludeEnd()).strip(),
                    part.path(),
                    part.line(tokens.start(at.first())),
                    add);
        }
    }

    /** The widths that the query names, as far as it really turns there. */
    private static void turns(String query, String file, int line, Consumer<Breakpoint> add) {
        List<Double> named = new ArrayList<>();
        widths(ComponentValue.read(query), named, 0);
        for (double width : named) {
            boolean before = holds(query, width - A_LITTLE);
            boolean here = holds(query, width);
            boolean after = holds(query, width + A_LITTLE);
            if (before != here) {
                add.accept(new Breakpoint(width, true, query, file, line));
            }
            if (here != after) {
                add.accept(new Breakpoint(width, false, query, file, line));
            }
        }
    }

    private static boolean holds(String query, double width) {
        return MediaQuery.matches(query, Viewport.of(width, HEIGHT));
    }

    private static void widths(List<ComponentValue> parts, List<Double> named, int depth) {
        // Relative units of media queries refer to the initial font size: Media Queries 4, section 1.3.
        Lengths.Base base = new Lengths.Base(16, 16, Viewport.of(Double.NaN, HEIGHT));
        for (ComponentValue p : parts) {
            boolean length = p.kind() == ComponentValue.Kind.DIMENSION || Lengths.isMath(p);
            if (length) {
                Lengths.sum(p, base).filter(s -> !s.needsLayout()).ifPresent(s -> named.add(s.px()));
            } else if (p.kind() == ComponentValue.Kind.BLOCK) {
                // No query is nested so deep, and what is may not take the house down.
                List<ComponentValue> inner = depth < DEEPEST ? ComponentValue.read(p.inside()) : List.of();
                widths(inner, named, depth + 1);
                ratio(inner, named);
            }
        }
    }

    /** A ratio of the window is a width at the height that is looked at. */
    private static void ratio(List<ComponentValue> parts, List<Double> named) {
        boolean about = parts.stream().anyMatch(p -> p.name().endsWith("aspect-ratio"));
        List<ComponentValue> numbers = parts.stream()
                .filter(p -> p.kind() == ComponentValue.Kind.NUMBER)
                .toList();
        if (about
                && !numbers.isEmpty()
                && numbers.size() <= 2
                && (numbers.size() == 1 || numbers.get(1).number() != 0)) {
            named.add(HEIGHT
                    * numbers.get(0).number()
                    / (numbers.size() == 2 ? numbers.get(1).number() : 1));
        }
        if (parts.stream().anyMatch(p -> p.isIdent("orientation"))) {
            named.add(HEIGHT);
        }
    }
}

package org.calmpalette.core.survey;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.calmpalette.core.background.BoxGeometry.Rectangle;
import org.calmpalette.core.cascade.ElementStyle;
import org.calmpalette.core.cascade.Explanation;
import org.calmpalette.core.cascade.PageStyles;
import org.calmpalette.core.css.selector.States;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.render.Measures;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.value.Viewport;
import org.jsoup.nodes.Element;

/**
 * Where a page has its header, its hero and its content column, whatever its markup: by where their measured boxes are and what the
 * cascade says of them. A guess that is shown before anything is made of it.
 */
public final class PageParts {
    /** A window of an ordinary desktop. */
    public static final int WIDTH = 1440;

    private static final int WIDEST = 2560;
    /** Share of the window from which a part counts as going from edge to edge. */
    private static final double FULL = 0.95;

    /** Parts that most pages have. */
    public enum Kind {
        HEADER("Header", "header"),
        HERO("Hero", "hero"),
        COLUMN("Content column", "content");

        private final String label;
        private final String key;

        Kind(String label, String key) {
            this.label = label;
            this.key = key;
        }

        public String label() {
            return label;
        }

        /** The first word of its settings' keys. */
        public String key() {
            return key;
        }
    }

    private final Measures measures;
    private final List<Element> elements;
    private final Map<Integer, Rectangle> boxes = new LinkedHashMap<>();
    private final PageStyles styles;

    private PageParts(Rendered rendered, Page page, Measures measures) {
        this.measures = measures;
        this.elements = page.elements();
        this.styles = rendered.styles(page, Viewport.of(WIDTH, measures.windowHeight()), States.NONE);
        for (int i = 2; i < elements.size(); i++) {
            int at = i;
            measures.box(i, WIDTH)
                    .filter(b -> b.width() > 0
                            && b.height() > 0
                            && !elements.get(at).normalName().equals("body"))
                    .ifPresent(b -> boxes.put(at, b));
        }
    }

    /** The index of each part that was found; none where nobody measured the page. */
    public static Map<Kind, Integer> of(Rendered rendered, Page page, Measures measures) {
        Map<Kind, Integer> found = new EnumMap<>(Kind.class);
        if (measures == null || !measures.isSureAt(WIDTH)) {
            return found;
        }
        PageParts parts = new PageParts(rendered, page, measures);
        Optional<Integer> header = parts.header();
        header.ifPresent(h -> found.put(Kind.HEADER, h));
        parts.hero(header.orElse(-1)).ifPresent(h -> found.put(Kind.HERO, h));
        parts.column(header.orElse(-1)).ifPresent(c -> found.put(Kind.COLUMN, c));
        return found;
    }

    private boolean isWide(Rectangle b, double share) {
        return b.width() >= share * WIDTH && b.x() <= (1 - share) * WIDTH + 1;
    }

    /** At the top, low, and with links in it: the outermost from edge to edge, else the outermost at least half as wide. */
    private Optional<Integer> header() {
        for (double share : new double[] {FULL, 0.5}) {
            Optional<Integer> found = boxes.entrySet().stream()
                    .filter(e -> e.getValue().y() <= 130
                            && e.getValue().height() >= 24
                            && e.getValue().height() <= 260
                            && (share == FULL
                                    ? isWide(e.getValue(), FULL)
                                    : e.getValue().width() >= share * WIDTH))
                    .filter(e -> {
                        Element x = elements.get(e.getKey());
                        int links = x.select("a[href]").size();
                        return x.select("h1").size() <= 1
                                && (links >= 2 || links == 1 && !x.select("nav").isEmpty());
                    })
                    .map(Map.Entry::getKey)
                    .findFirst();
            if (found.isPresent()) {
                return found;
            }
        }
        return Optional.empty();
    }

    /** High up, tall, with a heading in it, and not the page itself: the outermost from edge to edge, else one that paints. */
    private Optional<Integer> hero(int header) {
        double top = header < 0 ? 0 : boxes.get(header).y() + boxes.get(header).height();
        double most = Math.min(1400, measures.pageHeight(WIDTH) * 0.75);
        List<Map.Entry<Integer, Rectangle>> all = boxes.entrySet().stream()
                .filter(e -> !elements.get(e.getKey()).normalName().equals("main")
                        && !elements.get(e.getKey()).normalName().equals("article"))
                .filter(e -> e.getKey() != header
                        && (header < 0 || !elements.get(header).parents().contains(elements.get(e.getKey()))))
                .filter(e -> header < 0 || !elements.get(e.getKey()).parents().contains(elements.get(header)))
                .filter(e -> e.getValue().y() >= -200
                        && e.getValue().y() <= top + 160
                        && e.getValue().height() >= 180
                        && e.getValue().height() <= most
                        && !elements.get(e.getKey()).select("h1, h2").isEmpty())
                .toList();
        return all.stream()
                .filter(e -> isWide(e.getValue(), FULL))
                .findFirst()
                .or(() -> all.stream()
                        .filter(e -> e.getValue().width() >= WIDTH * 0.4 && paints(elements.get(e.getKey())))
                        .findFirst())
                .map(Map.Entry::getKey);
    }

    private boolean paints(Element e) {
        ElementStyle style = styles.of(e);
        return !style.computed("background-image").equals("none")
                || style.colorOf("background-color").filter(c -> c.alpha() > 0).isPresent();
    }

    /** In the middle of the window, no wider in a wider window, and with more text in it than any other such. */
    private Optional<Integer> column(int header) {
        Map<String, List<Integer>> groups = new LinkedHashMap<>();
        for (Map.Entry<Integer, Rectangle> e : boxes.entrySet()) {
            Rectangle b = e.getValue();
            Optional<Rectangle> wide = measures.isSureAt(WIDEST) ? measures.box(e.getKey(), WIDEST) : Optional.empty();
            boolean middle = Math.abs(b.x() - (WIDTH - b.x() - b.width())) <= 20;
            boolean held = wide.isPresent()
                    && wide.get().width() <= b.width() * 1.25
                    && wide.get().width() < WIDEST * 0.8;
            if (middle && held && b.width() >= WIDTH * 0.3 && b.width() <= WIDTH * 0.97) {
                groups.computeIfAbsent(decider(elements.get(e.getKey())), k -> new ArrayList<>())
                        .add(e.getKey());
            }
        }
        groups.remove("");
        return groups.values().stream()
                .max(Comparator.comparingDouble(this::text))
                .flatMap(all -> all.stream()
                        .filter(i ->
                                header < 0 || !elements.get(i).parents().contains(elements.get(header)) && i != header)
                        .max(Comparator.comparingDouble(i -> text(List.of(i))))
                        .or(() -> all.stream().findFirst()));
    }

    /** What holds its width: the declaration of max-width, or of width; empty for neither. */
    private String decider(Element e) {
        for (String property : List.of("max-width", "width")) {
            Explanation why = Explanation.of(styles.of(e), property);
            if (why.winner() != null
                    && why.inheritedFrom() == null
                    && !why.value().matches("none|auto|100%")) {
                return why.winner().file() + ":" + why.winner().start();
            }
        }
        return "";
    }

    /** CSS px of lines of text in some elements, each line once. */
    private double text(List<Integer> in) {
        double all = 0;
        for (int line : measures.lines().keySet()) {
            if (line < elements.size()) {
                Element at = elements.get(line);
                if (in.stream()
                        .anyMatch(i -> at == elements.get(i) || at.parents().contains(elements.get(i)))) {
                    all += measures.lines(line, WIDTH).stream()
                            .mapToDouble(Rectangle::width)
                            .sum();
                }
            }
        }
        return all;
    }
}

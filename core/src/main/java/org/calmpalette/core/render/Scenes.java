package org.calmpalette.core.render;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import org.calmpalette.core.Budget;
import org.calmpalette.core.background.BoxGeometry;
import org.calmpalette.core.background.BoxGeometry.Rectangle;
import org.calmpalette.core.background.BoxGeometry.Sides;
import org.calmpalette.core.background.Scene;
import org.calmpalette.core.cascade.ElementStyle;
import org.calmpalette.core.cascade.PageStyles;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.css.selector.States;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.value.BackgroundLayer;
import org.calmpalette.core.value.Lengths;
import org.calmpalette.core.value.Position;
import org.calmpalette.core.value.Viewport;
import org.jsoup.nodes.Element;

/**
 * The backgrounds of one page over all window widths, with the boxes that a browser measured. Styles are asked for where media
 * queries turn; between two such widths a background differs only in lengths that follow the window, which are worked out from
 * both ends and checked in the middle.
 */
public final class Scenes {
    /** Elements of a page that may cover a background. */
    private static final int MOST_COVERS = 2_000;
    /** A length that is this near, in CSS px, is the same. */
    private static final double SAME = 0.01;

    private final Rendered rendered;
    private final boolean dark;
    private final Page page;
    private final Measures measures;
    private final List<Element> elements;
    private final Map<Element, Integer> indexes = new IdentityHashMap<>();
    private final TreeMap<Integer, Integer> stretches = new TreeMap<>();
    private final Map<Integer, PageStyles> styles = new HashMap<>();
    private final Map<Integer, Boolean> bare = new HashMap<>();
    private final Map<Integer, List<Cover>> covers = new HashMap<>();
    private final Map<List<Integer>, Optional<BackgroundLayer>> layers = new LinkedHashMap<>();

    /** @param text whether it is the lines of a text, and no box */
    private record Cover(int index, boolean text) {}

    public Scenes(Rendered rendered, Page page, Measures measures) {
        this(rendered, page, measures, false);
    }

    /** @param dark whether the visitor prefers a dark scheme; boxes are those of a light one, so nothing may be laid otherwise there */
    public Scenes(Rendered rendered, Page page, Measures measures, boolean dark) {
        this.dark = dark;
        this.rendered = rendered;
        this.page = page;
        this.measures = measures;
        this.elements = page.elements();
        elements.forEach(e -> indexes.put(e, indexes.size()));
        List<Integer> starts = new ArrayList<>(List.of(measures.from()));
        starts.addAll(Breakpoint.firsts(rendered.theme(), measures.from(), measures.to()));
        for (int i = 0; i < starts.size(); i++) {
            stretches.put(starts.get(i), i + 1 < starts.size() ? starts.get(i + 1) - 1 : measures.to());
        }
    }

    public Measures measures() {
        return measures;
    }

    public Page page() {
        return page;
    }

    /** Widths at which media queries turn, each the first of a stretch. */
    public List<Integer> stretches() {
        return List.copyOf(stretches.keySet());
    }

    /** Which of the elements of the page it is; they are looked for often, and a page may have many. */
    public int index(Element e) {
        return indexes.get(e);
    }

    /** The first width of the stretch in which one lies. */
    public int stretch(int width) {
        return stretches.floorKey(Math.max(width, stretches.firstKey()));
    }

    /** The page's styles at a width, kept until another few widths were asked for. */
    public PageStyles styles(int width) {
        if (styles.size() > 8 && !styles.containsKey(width)) {
            styles.clear();
        }
        return styles.computeIfAbsent(width, w -> {
            Viewport window = Viewport.of(w, measures.windowHeight());
            return rendered.styles(page, dark ? window.inTheDark() : window, States.NONE);
        });
    }

    /** A layer of an element's background at a width; empty if it cannot be read or is not there. */
    public Optional<BackgroundLayer> layer(int element, int index, int width) {
        int from = stretch(width);
        return between(element, index, from, stretches.get(from), width);
    }

    private Optional<BackgroundLayer> between(int element, int index, int from, int to, int width) {
        Optional<BackgroundLayer> a = read(element, index, from);
        if (width == from || from >= to) {
            return a;
        }
        Optional<BackgroundLayer> b = read(element, index, to);
        if (width == to || a.equals(b)) {
            return width == to ? b : a;
        }
        int middle = (from + to) / 2;
        if (a.isPresent() && b.isPresent() && middle > from) {
            Optional<BackgroundLayer> guess = mixed(a.get(), b.get(), (middle - from) / (double) (to - from));
            Optional<BackgroundLayer> there = read(element, index, middle);
            if (guess.isPresent() && there.isPresent() && isSame(guess.get(), there.get())) {
                return mixed(a.get(), b.get(), (width - from) / (double) (to - from));
            }
        }
        return middle == from
                ? a
                : width <= middle
                        ? between(element, index, from, middle, width)
                        : between(element, index, middle, to, width);
    }

    private Optional<BackgroundLayer> read(int element, int index, int width) {
        return layers.computeIfAbsent(List.of(element, index, width), k -> {
            Budget.step();
            List<BackgroundLayer> all =
                    styles(width).of(elements.get(element)).backgroundLayers().orElse(List.of());
            return index < all.size() ? Optional.of(all.get(index)) : Optional.empty();
        });
    }

    /** What lies between two layers that differ in lengths only. */
    private static Optional<BackgroundLayer> mixed(BackgroundLayer a, BackgroundLayer b, double share) {
        boolean alike = a.image().equals(b.image())
                && a.repeatX() == b.repeatX()
                && a.repeatY() == b.repeatY()
                && a.origin() == b.origin()
                && a.clip() == b.clip()
                && a.attachment() == b.attachment();
        Optional<BackgroundLayer.Size> size = size(a.size(), b.size(), share);
        return alike && size.isPresent()
                ? Optional.of(new BackgroundLayer(
                        a.image(),
                        new Position(
                                mixed(a.position().x(), b.position().x(), share),
                                mixed(a.position().y(), b.position().y(), share)),
                        size.get(),
                        a.repeatX(),
                        a.repeatY(),
                        a.origin(),
                        a.clip(),
                        a.attachment()))
                : Optional.empty();
    }

    private static Optional<BackgroundLayer.Size> size(BackgroundLayer.Size a, BackgroundLayer.Size b, double share) {
        if (a instanceof BackgroundLayer.Size.Given x
                && b instanceof BackgroundLayer.Size.Given y
                && x.width().isPresent() == y.width().isPresent()
                && x.height().isPresent() == y.height().isPresent()) {
            return Optional.of(new BackgroundLayer.Size.Given(
                    x.width().map(w -> mixed(w, y.width().get(), share)),
                    x.height().map(h -> mixed(h, y.height().get(), share))));
        }
        return a.equals(b) ? Optional.of(a) : Optional.empty();
    }

    private static Lengths.Sum mixed(Lengths.Sum a, Lengths.Sum b, double share) {
        return new Lengths.Sum(
                a.px() + (b.px() - a.px()) * share,
                a.percent() + (b.percent() - a.percent()) * share,
                a.number(),
                a.needsLayout());
    }

    private static boolean isSame(BackgroundLayer a, BackgroundLayer b) {
        return isSame(a.position().x(), b.position().x())
                && isSame(a.position().y(), b.position().y())
                && (a.size().equals(b.size())
                        || a.size() instanceof BackgroundLayer.Size.Given x
                                && b.size() instanceof BackgroundLayer.Size.Given y
                                && isSame(x.width(), y.width())
                                && isSame(x.height(), y.height()));
    }

    private static boolean isSame(Optional<Lengths.Sum> a, Optional<Lengths.Sum> b) {
        return a.isPresent() == b.isPresent() && (a.isEmpty() || isSame(a.get(), b.get()));
    }

    private static boolean isSame(Lengths.Sum a, Lengths.Sum b) {
        return Math.abs(a.px() - b.px()) <= SAME && Math.abs(a.percent() - b.percent()) <= SAME;
    }

    /**
     * Whether the background of an element is that of the whole canvas: the root's, or the one of {@code body} where the root has
     * none. CSS Backgrounds 3, section 2.11.
     */
    public boolean isCanvas(int element, int width) {
        Element e = elements.get(element);
        if (element == 1) {
            return true;
        }
        return e.normalName().equals("body")
                && e.parent() == elements.get(1)
                && bare.computeIfAbsent(
                        stretch(width), stretch -> isBare(styles(stretch).of(elements.get(1))));
    }

    private static boolean isBare(ElementStyle root) {
        return root.computed("background-image").equals("none")
                && root.colorOf("background-color").orElse(Color.TRANSPARENT).alpha() == 0;
    }

    /** The box of an element's background and what lies over it; empty where it is not shown, or nobody measured. */
    public Optional<Scene> scene(int element, BackgroundLayer layer, int width) {
        if (!measures.isSureAt(width)) {
            return Optional.empty();
        }
        return placed(element, layer, width, covers(element, width));
    }

    /** The same without what lies over it, which takes longest. */
    Optional<Scene> uncovered(int element, BackgroundLayer layer, int width) {
        return measures.isSureAt(width) ? placed(element, layer, width, List.of()) : Optional.empty();
    }

    private Optional<Scene> placed(int element, BackgroundLayer layer, int width, List<Rectangle> over) {
        boolean canvas = isCanvas(element, width);
        double high = measures.pageHeight(width);
        if (layer.attachment() == BackgroundLayer.Attachment.FIXED) {
            // It is placed in the window; before anybody scrolls that is the first screen of the page.
            return Optional.of(new Scene(
                    0, 0, BoxGeometry.of(width, measures.windowHeight()), width, measures.windowHeight(), over));
        }
        return measures.geometry(canvas ? 1 : element, width)
                .flatMap(g -> measures.box(canvas ? 1 : element, width).map(box -> {
                    double x = box.x() + g.border().left();
                    double y = box.y() + g.border().top();
                    // What is painted of a canvas goes on beyond the box of the root on all sides.
                    BoxGeometry boxes = !canvas
                            ? g
                            : new BoxGeometry(
                                    g.width(),
                                    g.height(),
                                    new Sides(
                                            y,
                                            Math.max(0, width - x - g.width()),
                                            Math.max(0, high - y - g.height()),
                                            x),
                                    g.padding());
                    return new Scene(x, y, boxes, width, high, over);
                }));
    }

    /** The same for a box that is generated and has no border: nothing is known to lie over it. */
    Scene sceneOf(Rectangle box, BackgroundLayer layer, int width) {
        double high = measures.pageHeight(width);
        return layer.attachment() == BackgroundLayer.Attachment.FIXED
                ? new Scene(
                        0, 0, BoxGeometry.of(width, measures.windowHeight()), width, measures.windowHeight(), List.of())
                : new Scene(box.x(), box.y(), BoxGeometry.of(box.width(), box.height()), width, high, List.of());
    }

    /** A layer as it is painted: what belongs to the canvas is not cut at a box. */
    public BackgroundLayer painted(int element, BackgroundLayer layer, int width) {
        boolean fixed = layer.attachment() == BackgroundLayer.Attachment.FIXED;
        return !fixed && !isCanvas(element, width)
                ? layer
                : new BackgroundLayer(
                        layer.image(),
                        layer.position(),
                        layer.size(),
                        layer.repeatX(),
                        layer.repeatY(),
                        fixed ? BackgroundLayer.Box.PADDING_BOX : layer.origin(),
                        BackgroundLayer.Box.BORDER_BOX,
                        layer.attachment());
    }

    private List<Rectangle> covers(int element, int width) {
        List<Rectangle> all = new ArrayList<>();
        int stretch = stretch(width);
        for (Cover c : covers.computeIfAbsent(stretch, this::covers)) {
            if (c.index() == element && !c.text() || !isOver(c.index(), element, stretch)) {
                continue;
            }
            if (c.text()) {
                all.addAll(measures.lines(c.index(), width));
            } else {
                measures.box(c.index(), width)
                        .filter(b -> b.width() > 0 && b.height() > 0)
                        .ifPresent(all::add);
            }
        }
        return all;
    }

    /** What is inside of an element lies over its background; over that of the canvas lies everything. */
    private boolean isOver(int index, int element, int width) {
        if (isCanvas(element, width)) {
            return index > 1 && !(elements.get(index).normalName().equals("body") && isCanvas(index, width));
        }
        Element holder = elements.get(element);
        for (Element at = elements.get(index); at != null; at = at.parent()) {
            if (at == holder) {
                return true;
            }
        }
        return false;
    }

    /** Elements that let nothing through, and texts. */
    private List<Cover> covers(int width) {
        List<Cover> all = new ArrayList<>();
        PageStyles here = styles(width);
        for (int i = 1; i < elements.size() && all.size() < MOST_COVERS; i++) {
            Element e = elements.get(i);
            ElementStyle style = here.of(e);
            boolean picture = e.normalName().equals("img") || e.normalName().equals("video");
            if (style.opacity() == 1
                    && (picture
                            || style.colorOf("background-color")
                                    .orElse(Color.TRANSPARENT)
                                    .isOpaque())) {
                all.add(new Cover(i, false));
            }
            if (measures.lines().containsKey(i)) {
                all.add(new Cover(i, true));
            }
        }
        return all;
    }
}

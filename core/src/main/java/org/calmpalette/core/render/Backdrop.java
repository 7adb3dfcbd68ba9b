package org.calmpalette.core.render;

import java.util.ArrayList;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.function.Predicate;
import java.util.stream.Stream;
import org.calmpalette.core.cascade.ElementStyle;
import org.calmpalette.core.cascade.PageStyles;
import org.calmpalette.core.cascade.Painting;
import org.calmpalette.core.color.BlendMode;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.color.Contrast;
import org.calmpalette.core.color.Interpolation;
import org.calmpalette.core.value.BackgroundLayer;
import org.calmpalette.core.value.Image;
import org.jsoup.nodes.Element;

/**
 * What lies behind the text of an element: the paint of the element itself and of all around it, down to the canvas. The one
 * answer that findings, proposals and the owner's side ask.
 *
 * <p>Colours and opacities are put together as CSS Compositing 1 has it: each element with an opacity below 1 is a group that
 * is painted first and then laid over what is behind it. Where paint cannot be known without layout or pixels, the backdrop says
 * why and gives no colour.
 *
 * @param layers from the element outwards
 */
public record Backdrop(List<Layer> layers) {
    private static final int STEPS = 16;
    private static final int MOST_STOPS = 30;

    /** Why nobody can tell the colour without seeing the pixels or the layout. */
    public enum Unknown {
        /** A picture lies behind the text. */
        PICTURE,
        /** A gradient fills what is behind the text; {@link #range} tells between what the contrast lies. */
        GRADIENT,
        /** A background of a kind that is not read. */
        UNREAD_BACKGROUND,
        /** Blended with what is behind it by a mode other than {@code normal}. */
        BLEND_MODE,
        /** Changed by a filter. */
        FILTER,
        /** Taken out of the flow, or moved: it may lie over anything. */
        MOVED,
        /** The page below takes on other colours at times; {@link #range} tells between what the contrast lies. */
        CHANGES
    }

    /**
     * The paint of one element.
     *
     * @param color of its background, may be translucent
     * @param images over that colour, the uppermost first
     * @param blends how each of them mixes with those below it and the colour
     * @param opacity of the element with all that is in it, 0 to 1
     * @param unknown what keeps its paint from being known, or null
     * @param moved whether it is taken out of the flow, or pulled over its neighbours
     * @param generated the generated box of the element whose paint this is, or null for that of the element itself
     * @param beneath the boxes whose paint this is, which fill the window below the element; empty for that of the element itself
     */
    public record Layer(
            Element element,
            Color color,
            List<BackgroundLayer> images,
            List<BlendMode> blends,
            double opacity,
            Unknown unknown,
            boolean moved,
            Pseudo generated,
            List<Beneath.One> beneath) {}

    /**
     * A {@code ::before} or {@code ::after} that is taken out of the flow; where it is, layout tells.
     *
     * @param opacity its own, 0 to 1, which concerns nothing else; that of the layer is 1
     * @param above whether it is painted over the text, not behind it
     */
    public record Pseudo(String name, double opacity, boolean above) {}

    /** What one sees: the colour of a text and the colour around it, both opaque. */
    public record Seen(Color text, Color ground) {
        /** Contrast ratio as WCAG 2.2 defines it, 1 to 21. */
        public double ratio() {
            return Contrast.ratio(text, ground);
        }
    }

    /** Backdrops of one page in one window, each element's paint read once. */
    public static final class Reader {
        private final PageStyles styles;
        private final Predicate<String> there;
        private final Map<Element, Layer> known = new IdentityHashMap<>();
        private final Map<Element, List<Generated.Box>> boxes = new IdentityHashMap<>();
        private Map<Element, List<Beneath.One>> beneath;

        /** @param there whether a picture of an address in computed values can be loaded; one that cannot shows nothing */
        public Reader(PageStyles styles, Predicate<String> there) {
            this.styles = styles;
            this.there = there;
        }

        public Backdrop of(Element element) {
            List<Layer> layers = new ArrayList<>();
            List<Element> path = new ArrayList<>();
            List<Layer> sunk = new ArrayList<>();
            if (beneath == null) {
                beneath = Beneath.of(styles, there);
            }
            for (Element at = element; at != null && !at.normalName().equals("#root"); at = at.parent()) {
                for (Generated.Box box : boxes.computeIfAbsent(at, this::boxes)) {
                    if (box.level() < 0) {
                        sunk.add(layer(at, box, false));
                    } else if (Generated.isBelow(styles, box, path)) {
                        layers.add(layer(at, box, false));
                    } else {
                        layers.add(0, layer(at, box, true));
                    }
                }
                // What is below level 0 lies on the background of the stacking context that it belongs to.
                if (!sunk.isEmpty() && Generated.isStackingContext(styles, at)) {
                    layers.addAll(sunk);
                    sunk.clear();
                }
                Layer own = known.computeIfAbsent(at, e -> layer(e, styles.of(e)));
                Optional<Layer> low = beneath(at, path);
                if (low.isPresent()) {
                    // Where the root has no paint, the body's is the canvas, below all (Backgrounds 3, 2.11.2).
                    boolean onBody = at.normalName().equals("html") && !paints(own) && !path.isEmpty();
                    layers.add(layers.size() - (onBody ? 1 : 0), low.get());
                }
                layers.add(own);
                path.add(at);
            }
            return new Backdrop(List.copyOf(layers));
        }

        private static boolean paints(Layer layer) {
            return layer.color().alpha() > 0 || !layer.images().isEmpty();
        }

        /** What lies lowest in a stacking context and fills the window, without what the text itself is in. */
        private Optional<Layer> beneath(Element context, List<Element> path) {
            List<Beneath.One> low = beneath.getOrDefault(context, List.of()).stream()
                    .filter(one -> one.pseudoElement() != null || !path.contains(one.element()))
                    .toList();
            if (low.isEmpty()) {
                return Optional.empty();
            }
            Unknown unknown = low.stream().anyMatch(one -> !one.plain())
                    ? Unknown.PICTURE
                    : low.stream().anyMatch(Beneath.One::changes) ? Unknown.CHANGES : null;
            return Optional.of(
                    new Layer(context, Beneath.always(low), List.of(), List.of(), 1, unknown, false, null, low));
        }

        /** Uppermost first. */
        private List<Generated.Box> boxes(Element element) {
            return Stream.of("after", "before")
                    .filter(name ->
                            beneath.values().stream().flatMap(List::stream).noneMatch(one -> one.isOf(element, name)))
                    .flatMap(name -> Generated.of(styles, element, name).stream())
                    .filter(box -> {
                        Layer paint = layer(element, box.style());
                        return paint.color().alpha() > 0
                                || !paint.images().isEmpty()
                                || paint.unknown() == Unknown.FILTER;
                    })
                    .sorted(java.util.Comparator.comparing(Generated.Box::level).reversed())
                    .toList();
        }

        private Layer layer(Element element, Generated.Box box, boolean above) {
            Layer paint = layer(element, box.style());
            boolean read = paint.unknown() != Unknown.UNREAD_BACKGROUND
                    && paint.unknown() != Unknown.BLEND_MODE
                    && paint.unknown() != Unknown.FILTER;
            return new Layer(
                    element,
                    paint.color(),
                    paint.images(),
                    paint.blends(),
                    1,
                    read ? Unknown.MOVED : paint.unknown(),
                    false,
                    new Pseudo(box.name(), paint.opacity(), above),
                    List.of());
        }

        private Layer layer(Element element, ElementStyle style) {
            Color color = style.colorOf("background-color").orElse(Color.TRANSPARENT);
            var read = style.backgroundLayers();
            List<BackgroundLayer> all = read.orElse(List.of());
            List<BlendMode> modes = blends(style);
            List<BackgroundLayer> images = new ArrayList<>();
            List<BlendMode> blends = new ArrayList<>();
            for (int i = 0; i < all.size(); i++) {
                if (shows(all.get(i))) {
                    images.add(all.get(i));
                    blends.add(modes.get(i % modes.size()));
                }
            }
            boolean mixed = blends.stream().anyMatch(b -> b != BlendMode.NORMAL);
            boolean moved = isMoved(style);
            // What changes the colours of all its layers comes before what the layers are.
            Unknown unknown = read.isEmpty()
                    ? Unknown.UNREAD_BACKGROUND
                    : Generated.isDeclared(style, "mix-blend-mode", "normal")
                            ? Unknown.BLEND_MODE
                            : Generated.isDeclared(style, "filter", "none")
                                            || Generated.isDeclared(style, "backdrop-filter", "none")
                                    ? Unknown.FILTER
                                    : !images.isEmpty()
                                            ? images.size() == 1 && !mixed && isFilling(images.get(0))
                                                    ? Unknown.GRADIENT
                                                    : Unknown.PICTURE
                                            : moved ? Unknown.MOVED : null;
            return new Layer(element, color, images, blends, style.opacity(), unknown, moved, null, List.of());
        }

        /** A gradient as large as its box, which therefore lies behind every letter. */
        private static boolean isFilling(BackgroundLayer layer) {
            boolean whole = !(layer.size() instanceof BackgroundLayer.Size.Given given)
                    || given.width().isEmpty() && given.height().isEmpty();
            return layer.image() instanceof Image.Gradient
                    && whole
                    && layer.clip() != BackgroundLayer.Box.TEXT
                    && layer.origin() != BackgroundLayer.Box.CONTENT_BOX;
        }

        private boolean shows(BackgroundLayer layer) {
            return !(layer.image() instanceof Image.None)
                    && !(layer.image() instanceof Image.Url url
                            && !url.address().startsWith("data:")
                            && !there.test(url.address()));
        }

        /** At least one; a mode that nobody knows is as if it were not declared. */
        private static List<BlendMode> blends(ElementStyle style) {
            List<BlendMode> modes = Painting.declared(style, "background-blend-mode").stream()
                    .flatMap(v -> Stream.of(v.toLowerCase(Locale.ROOT).split(",")))
                    .map(v -> BlendMode.of(v.strip()).orElse(BlendMode.NORMAL))
                    .toList();
            return modes.isEmpty() ? List.of(BlendMode.NORMAL) : modes;
        }

        /** What is taken out of the flow, or pulled over its neighbours, may lie over anything. */
        private static boolean isMoved(ElementStyle style) {
            String position = style.computed("position");
            return position.equals("absolute")
                    || position.equals("fixed")
                    || position.equals("sticky")
                    || isNegative(style, "margin-top")
                    || isNegative(style, "margin-left")
                    || Generated.isDeclared(style, "transform", "none");
        }

        private static boolean isNegative(ElementStyle style, String margin) {
            return style.length(margin)
                    .filter(s -> s.px() < 0 && s.percent() <= 0 || s.percent() < 0 && s.px() <= 0)
                    .isPresent();
        }
    }

    /** The nearest thing that keeps the colour from being known; null if it is known. */
    public Unknown unknown() {
        for (Layer layer : layers) {
            boolean moved = layer.unknown() == Unknown.MOVED;
            if (layer.unknown() != null && !moved) {
                return layer.unknown();
            }
            // What covers all behind it may lie wherever it likes; but an opacity further out lets through what it
            // covers.
            if (layer.color().isOpaque() && layer.opacity() == 1 && layer.generated() == null) {
                return opacityAround(layer);
            }
            if (moved) {
                return Unknown.MOVED;
            }
        }
        return null;
    }

    private Unknown opacityAround(Layer opaque) {
        for (int i = layers.indexOf(opaque) + 1; i < layers.size(); i++) {
            Layer around = layers.get(i);
            if (around.unknown() == Unknown.FILTER || around.unknown() == Unknown.BLEND_MODE) {
                return around.unknown();
            }
            if (around.opacity() < 1) {
                return new Backdrop(layers.subList(i, layers.size())).unknown();
            }
        }
        return null;
    }

    /** Whether an opacity of 0 lets nothing of the element show. */
    public boolean isInvisible() {
        return layers.stream().anyMatch(l -> l.opacity() == 0);
    }

    /** As it is once whatever is wholly clear is shown whole. */
    public Backdrop shown() {
        return new Backdrop(layers.stream()
                .map(l -> l.opacity() > 0
                        ? l
                        : new Layer(
                                l.element(),
                                l.color(),
                                l.images(),
                                l.blends(),
                                1,
                                l.unknown(),
                                l.moved(),
                                l.generated(),
                                l.beneath()))
                .toList());
    }

    /** Without a generated box of an element. */
    public Backdrop without(Element element, String pseudoElement) {
        return new Backdrop(layers.stream()
                .filter(l -> l.generated() == null
                        || l.element() != element
                        || !l.generated().name().equals(pseudoElement))
                .toList());
    }

    /** The element whose paint is uppermost behind the text; the root if there is none. */
    public Element holder() {
        return layers.stream()
                .filter(l -> l.color().alpha() > 0 || !l.images().isEmpty())
                .findFirst()
                .orElse(layers.get(layers.size() - 1))
                .element();
    }

    /**
     * A text on this backdrop, with the opacities of all groups it is in.
     *
     * @param text may be translucent
     * @throws IllegalStateException if {@link #unknown} says that it cannot be known
     */
    public Seen under(Color text) {
        if (unknown() != null) {
            throw new IllegalStateException("cannot be known: " + unknown());
        }
        Color letters = text;
        Color ground = Color.TRANSPARENT;
        for (Layer layer : layers) {
            letters = faded(Contrast.over(letters, layer.color()), layer.opacity());
            ground = faded(Contrast.over(ground, layer.color()), layer.opacity());
        }
        // The canvas is white where nothing paints it: common practice of browsers in a light scheme.
        return new Seen(Contrast.over(letters, Color.WHITE), Contrast.over(ground, Color.WHITE));
    }

    /**
     * Contrast ratios of a text on a gradient, or on a page that changes.
     *
     * @param least where, or when, it is hardest to read
     * @param most where it reads best
     * @param worst the ground at the least, opaque
     */
    public record Range(double least, double most, Color worst) {}

    /**
     * Between what the contrast of a text lies, wherever on a gradient it stands, or whatever the page below it has come to.
     *
     * @return empty if something else than that gradient, or that page, keeps it from being known
     */
    public Optional<Range> range(Color text) {
        Unknown why = unknown();
        if (why != Unknown.GRADIENT && why != Unknown.CHANGES) {
            return Optional.empty();
        }
        // The nearest: what it covers does not matter, and what it does not cover keeps the answer back below.
        Layer where =
                layers.stream().filter(l -> l.unknown() == why).findFirst().orElseThrow();
        Range range = null;
        for (Color color : why == Unknown.CHANGES
                ? comings(where.beneath())
                : colors((Image.Gradient) where.images().get(0).image())) {
            Backdrop here = with(where, color);
            if (here.unknown() != null) {
                return Optional.empty();
            }
            Seen seen = here.under(text);
            double ratio = seen.ratio();
            range = range == null
                    ? new Range(ratio, ratio, seen.ground())
                    : new Range(
                            Math.min(range.least(), ratio),
                            Math.max(range.most(), ratio),
                            ratio < range.least() ? seen.ground() : range.worst());
        }
        return Optional.ofNullable(range);
    }

    /** This one with a plain colour over that of a layer. */
    private Backdrop with(Layer where, Color color) {
        Layer flat = new Layer(
                where.element(),
                Contrast.over(color, where.color()),
                List.of(),
                List.of(),
                where.opacity(),
                null,
                where.moved(),
                where.generated(),
                List.of());
        return new Backdrop(layers.stream().map(l -> l == where ? flat : l).toList());
    }

    /** Of the boxes that come and go below the text, the one that it is hardest to read on; empty if none changes it. */
    public Optional<PageStyles.Box> hardest(Color text) {
        Optional<Layer> where =
                layers.stream().filter(l -> l.unknown() == Unknown.CHANGES).findFirst();
        return unknown() != Unknown.CHANGES || range(text).isEmpty()
                ? Optional.empty()
                : where.flatMap(l -> l.beneath().stream()
                        .filter(Beneath.One::changes)
                        .min(java.util.Comparator.comparingDouble(
                                one -> with(l, one.color()).under(text).ratio()))
                        .map(one -> new PageStyles.Box(one.element(), one.pseudoElement())));
    }

    /**
     * The colours that boxes which come and go lay over the page: none of them, each of them, and what one sees while one goes and
     * another comes, in steps that nobody sees. Luminance is a convex function of the channels, so what is lightest is one of the
     * boxes or the page itself, and only what is darkest can lie between two.
     */
    private static List<Color> comings(List<Beneath.One> beneath) {
        List<Color> ends = new ArrayList<>(List.of(Color.TRANSPARENT));
        beneath.stream()
                .filter(Beneath.One::changes)
                .map(Beneath.One::color)
                .distinct()
                .forEach(ends::add);
        List<Color> all = new ArrayList<>(ends);
        for (int i = 0; i < Math.min(ends.size(), MOST_STOPS); i++) {
            for (int j = i + 1; j < Math.min(ends.size(), MOST_STOPS); j++) {
                for (int step = 1; step < STEPS; step++) {
                    double share = step / (double) STEPS;
                    all.add(Contrast.over(faded(ends.get(j), share), i == 0 ? Color.TRANSPARENT : ends.get(i)));
                }
            }
        }
        return all;
    }

    /** The colours of a gradient from stop to stop, in steps that nobody sees. */
    private static List<Color> colors(Image.Gradient gradient) {
        List<Color> stops = gradient.stops().stream()
                .map(Image.Stop::color)
                .filter(Objects::nonNull)
                .toList();
        List<Color> all = new ArrayList<>(stops);
        for (int i = 0; i + 1 < Math.min(stops.size(), MOST_STOPS); i++) {
            for (int step = 1; step < STEPS; step++) {
                all.add(Interpolation.mix(
                        stops.get(i), stops.get(i + 1), step / (double) STEPS, gradient.space(), gradient.arc()));
            }
        }
        return all;
    }

    private static Color faded(Color color, double opacity) {
        return opacity == 1 ? color : color.withAlpha(color.alpha() * opacity);
    }
}

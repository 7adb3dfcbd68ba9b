package org.calmpalette.core.promise;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import org.calmpalette.core.cascade.ColorExpression;
import org.calmpalette.core.cascade.ElementStyle;
import org.calmpalette.core.cascade.PageStyles;
import org.calmpalette.core.color.BlendMode;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.color.ColorSpace;
import org.calmpalette.core.paint.ColorRange;
import org.calmpalette.core.paint.Paint.Veil;
import org.calmpalette.core.picture.Pixels;
import org.calmpalette.core.render.Backdrop;
import org.calmpalette.core.render.Behind;
import org.calmpalette.core.render.Gallery;
import org.calmpalette.core.value.BackgroundLayer;
import org.calmpalette.core.value.BackgroundLayer.Repeat;
import org.calmpalette.core.value.Image;
import org.calmpalette.core.value.Lengths;
import org.jsoup.nodes.Element;

/**
 * What lies behind the texts of a page in one window, still holding what choices go to: colours as they are read, gradients by their
 * colours, pictures by the range of their pixels, since which of them come to lie behind a text only layout tells.
 */
final class Grounds {
    /** Steps of eight bits by which decoders and scaling may differ from the pixels that are read here; chosen with room. */
    private static final double DECODED = 4 / 255.0;

    /** What of a layer must not follow a choice, so that it is the same layer whatever is chosen. */
    private static final List<String> PAINTED =
            List.of("background-clip", "mix-blend-mode", "filter", "backdrop-filter", "color-scheme");

    /** What, when it follows a choice, may move a box over anything. */
    private static final List<String> PLACED = List.of("position", "transform", "margin-top", "margin-left", "z-index");

    private static final List<String> LAID = List.of(
            "background-size",
            "background-repeat",
            "background-position-x",
            "background-position-y",
            "background-origin",
            "background-attachment");

    static final String SHADOW = "a shadow of the letters";

    /**
     * Either what lies there, or why that is not known.
     *
     * @param byPlace whether the boxes could tell more
     */
    record Found(Ply under, String why, boolean byPlace) {
        static Found not(String why) {
            return new Found(null, why, false);
        }

        /** With shadows right behind the letters, each anywhere between all of it and nothing. */
        Found shadowed(List<Color> shadows) {
            return under == null || shadows.isEmpty()
                    ? this
                    : new Found(
                            behind(
                                    under,
                                    new Ply.Group(
                                            shadows.stream()
                                                    .<Ply>map(c -> new Ply.Plain(new ColorExpression.Fixed(c)))
                                                    .toList(),
                                            0,
                                            1,
                                            SHADOW)),
                            why,
                            byPlace);
        }

        /** With something else in the place of the letters, which holds them. */
        Found holding(Ply other) {
            return under == null ? this : new Found(replaced(under, other), why, byPlace);
        }

        private static Ply replaced(Ply all, Ply letters) {
            return all instanceof Ply.Letters
                    ? letters
                    : all instanceof Ply.Group g
                            ? new Ply.Group(
                                    g.all().stream()
                                            .map(p -> replaced(p, letters))
                                            .toList(),
                                    g.from(),
                                    g.to(),
                                    g.what())
                            : all;
        }

        private static Ply behind(Ply all, Ply one) {
            return all instanceof Ply.Letters
                    ? Ply.Group.of(List.of(all, one), 1)
                    : all instanceof Ply.Group g
                            ? new Ply.Group(
                                    g.all().stream().map(p -> behind(p, one)).toList(), g.from(), g.to(), g.what())
                            : all;
        }
    }

    private final PageStyles styles;
    private final ColorExpression.Choices choices;
    private final Gallery gallery;
    private final Map<String, Veil> pictures;
    private final java.util.function.Predicate<ColorExpression> hides;

    /**
     * @param pictures ranges of pictures that are known, by path; filled in
     * @param hides whether a colour lets nothing through, whatever is chosen
     */
    Grounds(
            PageStyles styles,
            ColorExpression.Choices choices,
            Gallery gallery,
            Map<String, Veil> pictures,
            java.util.function.Predicate<ColorExpression> hides) {
        this.styles = styles;
        this.choices = choices;
        this.gallery = gallery;
        this.pictures = pictures;
        this.hides = hides;
    }

    /**
     * From the letters down to what hides all else, or to the canvas.
     *
     * @param place of the text, where it is known to lie on what is around it and on nothing else; null where it is not
     * @param closely whether of pictures and gradients only counts what lies behind the text, which takes long to find out
     */
    Found under(Backdrop backdrop, Laid.Place place, boolean closely) {
        boolean amid = place != null;
        List<Backdrop.Layer> layers = backdrop.layers();
        Ply inner = new Ply.Letters();
        List<Ply> between = new ArrayList<>();
        boolean floats = false;
        boolean byPlace = false;
        boolean covered = false;
        for (int i = 0; i < layers.size(); i++) {
            Backdrop.Layer layer = layers.get(i);
            ElementStyle style = layer.generated() == null
                    ? styles.of(layer.element())
                    : styles.of(layer.element(), layer.generated().name());
            String why = why(layer, style);
            if (!why.isEmpty()) {
                return Found.not(why);
            }
            List<Ply> own = own(layer, style, closely ? place : null);
            if (layer.generated() != null) {
                between.add(generated(layer, style, own));
                continue;
            }
            boolean boxless = style.is("display", "contents");
            boolean blank = boxless || style.is("visibility", "hidden");
            boolean paints = !blank && !own.stream().allMatch(Grounds::isClear);
            boolean adrift = floats && paints && !amid;
            floats |= !style.is("float", "none");
            List<Ply> all = new ArrayList<>(List.of(inner));
            all.addAll(between);
            between.clear();
            if (adrift && !byPlace) {
                byPlace = true;
                all.add(new Ply.Range(Veil.ANYTHING, "what it may float over"));
            }
            if (paints) {
                List<Ply> painted = own.stream().filter(p -> !isClear(p)).toList();
                boolean leaves = amid && place.leaves(index(layer.element()));
                if (leaves) {
                    all.add(new Ply.Group(painted, 0, 1, "a box that it leaves in part"));
                } else {
                    all.addAll(painted);
                    covered |= hides(own.get(own.size() - 1));
                }
            }
            inner = boxless ? Ply.Group.of(all, 1) : faded(all, style, layer.opacity(), "an opacity that is chosen");
            // What hides all in a group that lets through hides nothing.
            covered &= !isGroup(style, layer);
            if (covered && !groupsAround(layers.subList(i + 1, layers.size()))) {
                return new Found(inner, "", byPlace);
            }
            if (mayMove(style) && !covered) {
                return Found.not("a choice may move it over anything");
            }
            if (layer.unknown() == Backdrop.Unknown.MOVED && !covered && !amid && !byPlace) {
                byPlace = true;
                inner = Ply.Group.of(List.of(inner, new Ply.Range(Veil.ANYTHING, "what it was moved over")), 1);
            }
        }
        return new Found(
                isDark(styles)
                        ? Ply.Group.of(List.of(inner, new Ply.Range(DARK_CANVAS, "the dark canvas of a browser")), 1)
                        : inner,
                "",
                byPlace);
    }

    private int index(Element e) {
        return styles.page().elements().indexOf(e);
    }

    private boolean mayMove(ElementStyle style) {
        return PLACED.stream().anyMatch(l -> ColorExpression.follows(style, l, choices));
    }

    /** Greys that browsers paint a dark canvas in: #121212 Chromium, #1e1e1e WebKit, #1c1b22 Gecko (from memory), and some room. */
    private static final Veil DARK_CANVAS =
            new Veil(ColorRange.of(Color.rgb(0, 0, 0)).and(ColorRange.of(Color.rgb(0.18, 0.18, 0.18))), 1, 1);

    /** Whether the canvas is a dark one where nothing paints it: the root's colour scheme decides (CSS Color Adjustment 1, section 2.2). */
    static boolean isDark(PageStyles styles) {
        Element root = styles.page().document().selectFirst("html");
        return root != null && styles.of(root).isDark();
    }

    private static boolean isClear(Ply p) {
        return p instanceof Ply.Plain plain
                && plain.color() instanceof ColorExpression.Fixed f
                && f.color().alpha() == 0;
    }

    private boolean hides(Ply p) {
        return p instanceof Ply.Plain plain && hides.test(plain.color());
    }

    private boolean isGroup(ElementStyle style, Backdrop.Layer layer) {
        return layer.opacity() != 1 || ColorExpression.follows(style, "opacity", choices);
    }

    /** What is hidden may still change what hides it. */
    private boolean groupsAround(List<Backdrop.Layer> layers) {
        return layers.stream()
                .filter(l -> l.generated() == null && l.beneath().isEmpty())
                .anyMatch(l -> isGroup(styles.of(l.element()), l)
                        || l.unknown() == Backdrop.Unknown.FILTER
                        || l.unknown() == Backdrop.Unknown.BLEND_MODE
                        || Stream.of("filter", "mix-blend-mode")
                                .anyMatch(p -> ColorExpression.follows(styles.of(l.element()), p, choices)));
    }

    private Ply faded(List<Ply> all, ElementStyle style, double opacity, String what) {
        return ColorExpression.follows(style, "opacity", choices)
                ? new Ply.Group(all, 0, 1, what)
                : Ply.Group.of(all, opacity);
    }

    private String why(Backdrop.Layer layer, ElementStyle style) {
        if (style.computed("background-clip").contains("text")) {
            return "what is around it paints nothing there";
        }
        if (layer.generated() != null && layer.generated().above()) {
            return "a generated box lies over it";
        }
        if (!layer.beneath().isEmpty()) {
            return "the page below it changes, or something lies below it";
        }
        if (layer.unknown() == Backdrop.Unknown.FILTER) {
            return "a filter changes it";
        }
        if (layer.unknown() == Backdrop.Unknown.BLEND_MODE) {
            return "it is blended with what is behind it";
        }
        if (layer.unknown() == Backdrop.Unknown.UNREAD_BACKGROUND) {
            return "a background that is not read lies behind it";
        }
        // A setting that is the whole background leaves its clip as it is from the start.
        boolean whole = ColorExpression.background(style, choices).isPresent();
        for (String longhand : PAINTED) {
            boolean mayDiffer = !whole || !longhand.equals("background-clip");
            if (mayDiffer && ColorExpression.follows(style, longhand, choices)) {
                return longhand + " of what is behind it follows a choice";
            }
        }
        return "";
    }

    /** The background of a box, the uppermost first, the colour last. */
    private List<Ply> own(Backdrop.Layer layer, ElementStyle style, Laid.Place place) {
        Optional<String> whole = ColorExpression.background(style, choices);
        if (whole.isPresent()) {
            return List.of(new Ply.Background(whole.get()));
        }
        List<Ply> all = new ArrayList<>(images(layer, style, place));
        all.add(new Ply.Plain(ColorExpression.of(style, "background-color", choices)));
        return all;
    }

    private List<Ply> images(Backdrop.Layer layer, ElementStyle style, Laid.Place place) {
        boolean follows = ColorExpression.follows(style, "background-image", choices);
        boolean laid = LAID.stream().anyMatch(l -> ColorExpression.follows(style, l, choices));
        boolean blended = layer.blends().stream().anyMatch(b -> b != BlendMode.NORMAL)
                || ColorExpression.follows(style, "background-blend-mode", choices);
        if (blended) {
            return List.of(new Ply.Range(Veil.ANYTHING, "a picture that is blended"));
        }
        List<Ply> all = new ArrayList<>();
        if (!follows) {
            List<BackgroundLayer> written = style.backgroundLayers().orElse(List.of());
            for (BackgroundLayer l : layer.images()) {
                Optional<Behind.Part> part = place == null || laid || layer.generated() != null
                        ? Optional.empty()
                        : place.behind(index(layer.element()), written.indexOf(l), l);
                if (part.isEmpty()) {
                    all.add(image(l, l.image(), null, laid));
                } else if (part.get().isAnywhere()) {
                    all.add(image(l.image(), part.get()));
                }
            }
            return all;
        }
        List<BackgroundLayer> now = style.backgroundLayers().orElse(List.of());
        List<ColorExpression.Drawn> drawn =
                ColorExpression.images(style, choices).orElse(List.of());
        if (drawn.isEmpty() || drawn.size() != now.size()) {
            return List.of(new Ply.Range(Veil.ANYTHING, "a picture that is chosen"));
        }
        for (int i = 0; i < drawn.size(); i++) {
            Image image = drawn.get(i).image();
            if (!(image instanceof Image.None)) {
                all.add(image(
                        now.get(i), image instanceof Image.Url ? now.get(i).image() : image, drawn.get(i), laid));
            }
        }
        return all;
    }

    /** @param drawn tells which of its colours are chosen; null for none */
    private Ply image(BackgroundLayer layer, Image image, ColorExpression.Drawn drawn, boolean laid) {
        Ply all;
        if (image instanceof Image.Gradient g && (g.space() == ColorSpace.SRGB || g.space() == ColorSpace.RGB)) {
            all = new Ply.Gradient(g.stops().stream()
                    .filter(s -> s.color() != null)
                    .<ColorExpression>map(
                            s -> drawn == null ? new ColorExpression.Fixed(s.color()) : drawn.of(s.color()))
                    .toList());
        } else if (image instanceof Image.Url url) {
            all = new Ply.Range(picture(url.address()), "the picture " + url.address());
        } else {
            all = new Ply.Range(
                    Veil.ANYTHING, image instanceof Image.Gradient ? "a gradient" : "a picture that is not read");
        }
        return fills(layer, image) && !laid
                ? all
                : new Ply.Group(List.of(all), 0, 1, "something that may not fill its box");
    }

    /** What lies behind the text of a picture or gradient whose place is known. */
    private static Ply image(Image image, Behind.Part part) {
        Veil veil = image instanceof Image.Url
                ? new Veil(
                        part.veil().colors().wider(DECODED),
                        Math.max(0, part.veil().thinnest() - DECODED),
                        part.veil().densest())
                : part.veil();
        Ply all = new Ply.Range(veil, image instanceof Image.Url url ? "the picture " + url.address() : "a gradient");
        return part.everywhere() ? all : new Ply.Group(List.of(all), 0, 1, "something that ends behind it");
    }

    private Veil picture(String path) {
        return pictures.computeIfAbsent(path, p -> gallery.pixels(p)
                .flatMap(Pixels::range)
                .map(r -> new Veil(r.colors().wider(DECODED), Math.max(0, r.thinnest() - DECODED), r.densest()))
                .orElse(Veil.ANYTHING));
    }

    /** Whether an image lies behind all that is in its box: one that does not repeat must not be pushed aside. */
    private static boolean fills(BackgroundLayer layer, Image image) {
        boolean tiled = isEndless(layer.repeatX()) && isEndless(layer.repeatY());
        boolean sized = layer.size() instanceof BackgroundLayer.Size.Given g
                && Stream.of(g.width(), g.height())
                        .flatMap(Optional::stream)
                        .noneMatch(s -> s.px() <= 0 && s.percent() <= 0 || s.px() < 0 || s.percent() < 0);
        boolean auto = layer.size() instanceof BackgroundLayer.Size.Given g
                && g.width().isEmpty()
                && g.height().isEmpty();
        boolean whole = layer.size() instanceof BackgroundLayer.Size.Cover || auto && image instanceof Image.Gradient;
        return whole
                        && (tiled
                                || isWithin(layer.position().x())
                                        && isWithin(layer.position().y()))
                || tiled && (sized || layer.size() instanceof BackgroundLayer.Size.Contain);
    }

    /** Between both edges, which is where something as large as its box or larger leaves no gap. */
    private static boolean isWithin(Lengths.Sum position) {
        return position.px() == 0 && position.percent() >= 0 && position.percent() <= 100;
    }

    private static boolean isEndless(Repeat repeat) {
        return repeat == Repeat.REPEAT || repeat == Repeat.ROUND;
    }

    /** A box of {@code ::before} or {@code ::after} below the text: it may lie elsewhere, unless it fills the box around it. */
    private Ply generated(Backdrop.Layer layer, ElementStyle style, List<Ply> own) {
        double opacity = layer.generated().opacity();
        boolean placed = Stream.of("top", "right", "bottom", "left", "width", "height", "content", "display", "opacity")
                .anyMatch(l -> ColorExpression.follows(style, l, choices));
        boolean fills = !placed
                && !mayMove(style)
                && !mayMove(styles.of(layer.element()))
                && style.is("position", "absolute")
                && !styles.of(layer.element()).is("position", "static")
                && Stream.of("top", "left").allMatch(s -> isZero(style, s))
                && (isZero(style, "right") || isWhole(style, "width"))
                && (isZero(style, "bottom") || isWhole(style, "height"))
                && Stream.of("top", "right", "bottom", "left").allMatch(s -> isZero(style, "margin-" + s));
        return fills
                ? Ply.Group.of(own, opacity)
                : new Ply.Group(own, 0, opacity, "a generated box that may lie elsewhere");
    }

    private static boolean isZero(ElementStyle style, String longhand) {
        return style.length(longhand)
                .filter(s -> s.px() == 0 && s.percent() == 0)
                .isPresent();
    }

    private static boolean isWhole(ElementStyle style, String longhand) {
        return style.length(longhand)
                .filter(s -> s.px() == 0 && s.percent() == 100)
                .isPresent();
    }
}

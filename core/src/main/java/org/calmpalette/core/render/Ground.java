package org.calmpalette.core.render;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.apache.commons.numbers.arrays.Selection;
import org.calmpalette.core.Budget;
import org.calmpalette.core.background.BoxGeometry;
import org.calmpalette.core.background.BoxGeometry.Rectangle;
import org.calmpalette.core.background.GradientPaint;
import org.calmpalette.core.background.NaturalSize;
import org.calmpalette.core.background.Placement;
import org.calmpalette.core.background.Scene;
import org.calmpalette.core.cascade.PageStyles;
import org.calmpalette.core.color.BlendMode;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.color.Contrast;
import org.calmpalette.core.picture.Pixels;
import org.calmpalette.core.value.BackgroundLayer;
import org.calmpalette.core.value.Image;
import org.jsoup.nodes.Element;

/**
 * What a text stands on, in pixels: every layer of paint behind its lines, pictures and gradients where a browser lays them, put
 * together as {@link Backdrop} does for plain colours.
 */
public final class Ground {
    /** Pixels that are looked at under one text; of more than that every second, third … in both directions. */
    private static final int MOST_POINTS = 60_000;

    /**
     * What is behind a text.
     *
     * @param worst least contrast ratio of its colour with what is behind, at any point of its lines, 1 to 21
     * @param low the ratio that 95 of 100 points reach
     * @param x where the worst is, in CSS px from the corner of the page
     * @param text the colour of the letters there, opaque
     * @param ground what is behind them there, opaque
     * @param dark relative luminance, 0 to 1, below which a twentieth of the ground lies
     * @param light above which a twentieth lies
     * @param busy how much the ground varies within squares as high as a line, as a share of what parts it from the letters: the
     *     standard deviation of lightness there by the distance in lightness between letters and ground; 0 for an even ground, 1
     *     where it varies as much as the letters stand out. That variation at the size of letters hides them the more the stronger
     *     it is beside their own contrast is what Scharff, Hill and Ahumada found (Discriminability measures for predicting
     *     readability of text on textured backgrounds, Optics Express 6, 2000; from memory); the figure is our own, and a slow
     *     change of a gradient counts little in it
     */
    public record Reading(
            double worst,
            double low,
            double x,
            double y,
            Color text,
            Color ground,
            double dark,
            double light,
            double busy) {}

    /** Lightness in squares as high as a line of text: how much it varies in them, and how far it is from that of the letters. */
    private static final class Restless {
        private static final double[] LIGHTNESS = new double[4097];

        static {
            // As CIE L* has it above its darkest part, 0 to 1; near enough for a share.
            for (int i = 0; i < LIGHTNESS.length; i++) {
                LIGHTNESS[i] = Math.cbrt(i / 4096.0);
            }
        }

        private double[] count = new double[8];
        private double[] sum = new double[8];
        private double[] squares = new double[8];
        private double apart;
        private double all;

        static double lightness(double luminance) {
            return LIGHTNESS[(int) Math.round(Math.max(0, Math.min(1, luminance)) * 4096)];
        }

        void add(int square, double ground, double letters) {
            if (square >= count.length) {
                int size = Math.max(square + 1, count.length * 2);
                count = Arrays.copyOf(count, size);
                sum = Arrays.copyOf(sum, size);
                squares = Arrays.copyOf(squares, size);
            }
            double l = lightness(ground);
            count[square]++;
            sum[square] += l;
            squares[square] += l * l;
            apart += lightness(letters) - l;
            all++;
        }

        double share() {
            double variance = 0;
            for (int i = 0; i < count.length; i++) {
                if (count[i] > 0) {
                    variance += Math.max(0, squares[i] - sum[i] * sum[i] / count[i]);
                }
            }
            double distance = Math.abs(apart) / all;
            double deviation = Math.sqrt(variance / all);
            return deviation < 1e-6 ? 0 : distance < 1e-6 ? 1 : Math.min(1, deviation / distance);
        }
    }

    /** Why there is no reading. */
    public enum Missing {
        /** The text has no line at this width: it is not shown. */
        NOT_SHOWN,
        /** The boxes at this width are not known. */
        NOT_MEASURED,
        /** A picture behind it cannot be decoded here. */
        PICTURE_NOT_READ,
        /** A background of a kind that is not read. */
        UNREAD_BACKGROUND,
        /** Blended with what is behind it. */
        BLEND_MODE,
        /** Changed by a filter. */
        FILTER,
        /** Taken out of the flow, and something that is not around it lies there too. */
        OVERLAP,
        /** The page below it changes while it is moved through the window. */
        CHANGES
    }

    /** Either a reading, or why there is none. */
    public record Answer(Optional<Reading> reading, Optional<Missing> missing) {
        static Answer of(Missing why) {
            return new Answer(Optional.empty(), Optional.of(why));
        }
    }

    /**
     * Paint of one element: what is asked for at each point.
     *
     * @param color of the layer, premultiplied
     * @param alone opacity of a generated box by itself, else 1
     * @param mixed whether its images are put together by themselves before they are laid over what is behind
     */
    private record Paint(
            Backdrop.Layer layer,
            Rectangle box,
            boolean canvas,
            List<Sheet> sheets,
            double[] color,
            double alone,
            boolean mixed) {
        static Paint of(Backdrop.Layer layer, Rectangle box, boolean canvas, List<Sheet> sheets) {
            double alone = layer.generated() == null ? 1 : layer.generated().opacity();
            return new Paint(
                    layer,
                    box,
                    canvas,
                    sheets,
                    premultiplied(layer.color()),
                    alone,
                    alone < 1 || sheets.stream().anyMatch(s -> s.blend() != BlendMode.NORMAL));
        }

        boolean holds(double x, double y) {
            return canvas || x >= box.x() && x < box.x() + box.width() && y >= box.y() && y < box.y() + box.height();
        }

        boolean touches(List<Rectangle> lines) {
            return lines.stream().anyMatch(l -> overlap(l, box));
        }

        boolean hides(List<Rectangle> lines) {
            return canvas
                    || lines.stream()
                            .allMatch(l -> l.x() >= box.x() - 1
                                    && l.y() >= box.y() - 1
                                    && l.x() + l.width() <= box.x() + box.width() + 1
                                    && l.y() + l.height() <= box.y() + box.height() + 1);
        }
    }

    /** One image of a background, ready to be asked. */
    private record Sheet(
            Placement placement,
            double x,
            double y,
            Rectangle clip,
            Pixels pixels,
            int level,
            GradientPaint gradient,
            BlendMode blend) {}

    private final Scenes scenes;
    private final Gallery gallery;
    private final List<Element> elements;
    private final Map<Element, Integer> indexes = new java.util.IdentityHashMap<>();
    private final boolean withPictures;
    private final Map<Integer, Color> overlays;
    private int widthOfPaints = -1;
    private final Map<List<Object>, Object> paints = new HashMap<>();
    private Backdrop.Reader backdrops;

    /** @param withPictures false for a page whose pictures have not come: only colours and gradients show */
    public Ground(Scenes scenes, Gallery gallery, boolean withPictures) {
        this(scenes, gallery, withPictures, Map.of());
    }

    /** @param overlays background colours that some elements would have, by index */
    public Ground(Scenes scenes, Gallery gallery, boolean withPictures, Map<Integer, Color> overlays) {
        this.overlays = Map.copyOf(overlays);
        this.scenes = scenes;
        this.gallery = gallery;
        this.withPictures = withPictures;
        this.elements = scenes.page().elements();
        for (int i = 0; i < elements.size(); i++) {
            indexes.put(elements.get(i), i);
        }
    }

    /** What the text of an element stands on at a window width, in its own colour. */
    public Answer under(int element, int width) {
        return under(element, width, null);
    }

    /** A text, and all paint behind it down to where nothing shows through any more; or why that is not known. */
    private record Stacked(List<Rectangle> lines, List<Paint> stack, Missing missing) {
        static Stacked not(Missing why) {
            return new Stacked(List.of(), List.of(), why);
        }
    }

    /**
     * The elements whose paint may be seen behind the text of an element at a width, the innermost first: those around it, as far
     * as none of them hides the others.
     */
    public List<Element> behind(int element, int width) {
        return stacked(element, width).stack().stream()
                .map(p -> p.layer().element())
                .toList();
    }

    /**
     * The elements around a text that paint something behind it and that its lines leave in part; none where all of it lies inside, or where
     * it is not shown. Empty where that is not known, or something that is not around it lies there too.
     */
    public Optional<Set<Element>> leaves(int element, int width) {
        Stacked text = stacked(element, width);
        if (text.missing() != null) {
            return text.missing() == Missing.NOT_SHOWN ? Optional.of(Set.of()) : Optional.empty();
        }
        Set<Element> left = new HashSet<>();
        for (Paint p : text.stack()) {
            boolean paints = p.color()[3] > 0 || !p.layer().images().isEmpty();
            if (paints && !p.hides(text.lines())) {
                if (p.layer().generated() != null) {
                    return Optional.empty();
                }
                left.add(p.layer().element());
            }
        }
        return !left.isEmpty() && somethingElseLiesThere(element, text.lines(), text.stack(), width)
                ? Optional.empty()
                : Optional.of(left);
    }

    /** @param color of the text, or null for its own */
    public Answer under(int element, int width, Color color) {
        Stacked text = stacked(element, width);
        if (text.missing() != null) {
            return Answer.of(text.missing());
        }
        Color letters = color != null
                ? color
                : scenes.styles(width)
                        .of(elements.get(element))
                        .colorOf("color")
                        .orElse(Color.BLACK);
        return reading(text.lines(), text.stack(), letters, width)
                .map(r -> new Answer(Optional.of(r), Optional.empty()))
                .orElse(Answer.of(Missing.NOT_SHOWN));
    }

    /** The lines of a text as far as they are seen in the window. */
    static List<Rectangle> lines(Scenes scenes, int element, int width) {
        return scenes.measures().lines(element, width).stream()
                .filter(l -> l.width() >= 1
                        && l.height() >= 1
                        && l.x() < width
                        && l.x() + l.width() > 0
                        && l.y() + l.height() > 0)
                .toList();
    }

    private Stacked stacked(int element, int width) {
        if (!scenes.measures().isSureAt(width)) {
            return Stacked.not(Missing.NOT_MEASURED);
        }
        List<Rectangle> lines = lines(scenes, element, width);
        if (lines.isEmpty()) {
            return Stacked.not(Missing.NOT_SHOWN);
        }
        PageStyles styles = scenes.styles(width);
        if (widthOfPaints != width) {
            widthOfPaints = width;
            paints.clear();
            backdrops = new Backdrop.Reader(styles, gallery::has);
        }
        List<Backdrop.Layer> layers = backdrops.of(elements.get(element)).layers().stream()
                .map(this::overlaid)
                .toList();
        List<Paint> stack = new ArrayList<>();
        boolean moved = false;
        for (int i = 0; i < layers.size(); i++) {
            Backdrop.Layer layer = layers.get(i);
            Backdrop.Pseudo generated = layer.generated();
            if (!layer.beneath().isEmpty()) {
                if (layer.unknown() != null) {
                    return new Stacked(
                            lines,
                            stack,
                            layer.unknown() == Backdrop.Unknown.CHANGES ? Missing.CHANGES : Missing.UNREAD_BACKGROUND);
                }
                stack.add(Paint.of(layer, new Rectangle(0, 0, 0, 0), true, List.of()));
                continue;
            }
            Object paint = paints.computeIfAbsent(
                    List.of(layer.element(), generated == null ? "" : generated.name()), k -> paint(layer, width));
            if (generated != null && generated.above()) {
                if (!(paint instanceof Paint p) || p.touches(lines)) {
                    return new Stacked(lines, stack, Missing.OVERLAP);
                }
                continue;
            }
            if (paint instanceof Missing why) {
                return new Stacked(lines, stack, why);
            }
            stack.add((Paint) paint);
            boolean last = layer.color().isOpaque()
                    && (generated == null || generated.opacity() == 1)
                    && ((Paint) paint).hides(lines)
                    && layers.subList(i, layers.size()).stream().allMatch(l -> l.opacity() == 1 && !isChanged(l));
            // What hides all behind it hides nothing that lies between it and something inside of it that was moved.
            if (last) {
                break;
            }
            moved |= layer.moved();
        }
        if (moved && somethingElseLiesThere(element, lines, stack, width)) {
            return new Stacked(lines, stack, Missing.OVERLAP);
        }
        return new Stacked(lines, stack, null);
    }

    private static boolean overlap(Rectangle a, Rectangle b) {
        return a.x() < b.x() + b.width()
                && b.x() < a.x() + a.width()
                && a.y() < b.y() + b.height()
                && b.y() < a.y() + a.height();
    }

    private Backdrop.Layer overlaid(Backdrop.Layer layer) {
        Color overlay = overlays.get(indexes.get(layer.element()));
        return overlay == null || layer.generated() != null || !layer.beneath().isEmpty()
                ? layer
                : new Backdrop.Layer(
                        layer.element(),
                        Contrast.over(overlay, layer.color()),
                        layer.images(),
                        layer.blends(),
                        layer.opacity(),
                        layer.unknown(),
                        layer.moved(),
                        null,
                        layer.beneath());
    }

    private static boolean isChanged(Backdrop.Layer layer) {
        return layer.unknown() == Backdrop.Unknown.FILTER || layer.unknown() == Backdrop.Unknown.BLEND_MODE;
    }

    /** Paint of an element that is not around the text, where the text is: which of the two is uppermost is not known here. */
    private boolean somethingElseLiesThere(int element, List<Rectangle> lines, List<Paint> stack, int width) {
        int uppermost = indexes.get(stack.get(stack.size() - 1).layer().element());
        for (int i = 1; i < elements.size(); i++) {
            Element e = elements.get(i);
            boolean around = elements.get(element) == e
                    || elements.get(element).parents().contains(e);
            boolean inside = e.parents().contains(elements.get(element));
            if (around || inside || uppermost > 1 && !e.parents().contains(elements.get(uppermost))) {
                continue;
            }
            boolean replaced = e.normalName().equals("img") || e.normalName().equals("video");
            Backdrop.Layer own = backdrops.of(e).layers().get(0);
            boolean paints = own.color().alpha() > 0 || !own.images().isEmpty() || replaced;
            Optional<Rectangle> box = paints ? scenes.measures().box(i, width) : Optional.empty();
            if (box.isPresent() && lines.stream().anyMatch(l -> overlap(l, box.get()))) {
                return true;
            }
        }
        return false;
    }

    /** @return a {@link Paint}, or the {@link Missing} that keeps it from being known */
    private Object paint(Backdrop.Layer layer, int width) {
        Backdrop.Unknown unknown = layer.unknown();
        if (unknown == Backdrop.Unknown.BLEND_MODE) {
            return Missing.BLEND_MODE;
        }
        if (unknown == Backdrop.Unknown.FILTER) {
            return Missing.FILTER;
        }
        if (unknown == Backdrop.Unknown.UNREAD_BACKGROUND) {
            return Missing.UNREAD_BACKGROUND;
        }
        int index = indexes.get(layer.element());
        Optional<Rectangle> made = layer.generated() == null
                ? Optional.empty()
                : Generated.place(
                        scenes,
                        layer.element(),
                        scenes.styles(width)
                                .of(layer.element(), layer.generated().name()),
                        width);
        if (layer.generated() != null && made.isEmpty()) {
            return Missing.OVERLAP;
        }
        boolean canvas = made.isEmpty() && scenes.isCanvas(index, width);
        boolean paints = layer.color().alpha() > 0 || !layer.images().isEmpty();
        if (paints && !scenes.measures().boxes().containsKey(canvas ? 1 : index)) {
            return Missing.NOT_MEASURED;
        }
        List<Sheet> sheets = new ArrayList<>();
        for (int i = 0; i < layer.images().size(); i++) {
            BackgroundLayer image = layer.images().get(i);
            if (image.image() instanceof Image.Unread || image.clip() == BackgroundLayer.Box.TEXT) {
                return Missing.UNREAD_BACKGROUND;
            }
            if (image.image() instanceof Image.Url && !withPictures) {
                continue;
            }
            BackgroundLayer painted = made.isEmpty() ? scenes.painted(index, image, width) : image;
            Optional<Scene> scene = (made.isEmpty()
                            ? scenes.scene(index, painted, width)
                            : Optional.of(scenes.sceneOf(made.get(), image, width)))
                    .map(Ground::snapped);
            if (scene.isEmpty()) {
                continue;
            }
            Optional<Sheet> sheet = sheet(painted, layer.blends().get(i), scene.get());
            if (sheet.isEmpty()) {
                return Missing.PICTURE_NOT_READ;
            }
            sheets.add(sheet.get());
        }
        return Paint.of(
                layer,
                canvas
                        ? null
                        : made.or(() -> scenes.measures().box(index, width))
                                .map(Ground::snapped)
                                .orElse(new Rectangle(0, 0, 0, 0)),
                canvas,
                sheets);
    }

    /** Browsers put the edges of boxes on whole pixels before they paint them. */
    private static Scene snapped(Scene s) {
        double x = Math.round(s.x());
        double y = Math.round(s.y());
        BoxGeometry b = s.boxes();
        return new Scene(
                x,
                y,
                new BoxGeometry(
                        Math.round(s.x() + b.width()) - x, Math.round(s.y() + b.height()) - y, b.border(), b.padding()),
                s.pageWidth(),
                s.pageHeight(),
                s.covers());
    }

    private static Rectangle snapped(Rectangle r) {
        double x = Math.round(r.x());
        double y = Math.round(r.y());
        return new Rectangle(x, y, Math.round(r.x() + r.width()) - x, Math.round(r.y() + r.height()) - y);
    }

    private Optional<Sheet> sheet(BackgroundLayer layer, BlendMode blend, Scene scene) {
        Rectangle clip = scene.boxes().of(layer.clip());
        Rectangle onPage = new Rectangle(scene.x() + clip.x(), scene.y() + clip.y(), clip.width(), clip.height());
        if (layer.image() instanceof Image.Gradient g) {
            Placement p = Placement.of(layer, NaturalSize.NONE, scene.boxes());
            GradientPaint paint = p.tile().width() > 0
                    ? new GradientPaint(g, p.tile().width(), p.tile().height())
                    : null;
            return Optional.of(new Sheet(p, scene.x(), scene.y(), onPage, null, 0, paint, blend));
        }
        String path = ((Image.Url) layer.image()).address();
        Optional<Pixels> pixels = gallery.pixels(path);
        return pixels.flatMap(px -> {
            NaturalSize size = gallery.size(path).orElse(NaturalSize.of(px.width(), px.height()));
            Placement p = Placement.of(layer, size, scene.boxes());
            boolean seen =
                    p.tile().width() <= 0 || px.fills(p.tile().width(), p.tile().height());
            int level = px.level(Math.max(p.scaleX(), p.scaleY()));
            return seen
                    ? Optional.of(new Sheet(p, scene.x(), scene.y(), onPage, px, level, null, blend))
                    : Optional.empty();
        });
    }

    private static Optional<Reading> reading(List<Rectangle> lines, List<Paint> stack, Color text, int width) {
        double area = lines.stream().mapToDouble(l -> l.width() * l.height()).sum();
        int step = (int) Math.max(1, Math.ceil(Math.sqrt(area / MOST_POINTS)));
        double[] ratios = new double[16];
        int count = 0;
        double worst = Double.MAX_VALUE;
        double atX = 0;
        double atY = 0;
        double[] luminances = new double[16];
        double[] letters = new double[4];
        double[] ground = new double[4];
        double[] worstText = null;
        double[] worstGround = null;
        double[] one = new double[4];
        double[] written = premultiplied(text);
        Paint[] paints = stack.toArray(Paint[]::new);
        int solidFrom = solidFrom(paints);
        Restless restless = new Restless();
        int squares = 0;
        for (Rectangle line : lines) {
            Budget.step();
            int before = squares;
            double endX = Math.min(width, line.x() + line.width());
            // The middles of pixels, as a screen has them.
            for (double y = Math.ceil(line.y() - 0.5) + 0.5; y < line.y() + line.height(); y += step) {
                for (double x = Math.max(0, Math.ceil(line.x() - 0.5)) + 0.5; x < endX; x += step) {
                    System.arraycopy(written, 0, letters, 0, 4);
                    Arrays.fill(ground, 0);
                    seen(paints, solidFrom, x, y, letters, ground, one);
                    double lum = luminance(ground);
                    double own = luminance(letters);
                    double ratio = ratio(own, lum);
                    int square = before + (int) ((x - Math.max(0, line.x())) / line.height());
                    squares = Math.max(squares, square + 1);
                    restless.add(square, lum, own);
                    if (ratio < worst) {
                        worst = ratio;
                        atX = x;
                        atY = y;
                        worstText = letters.clone();
                        worstGround = ground.clone();
                    }
                    if (count == ratios.length) {
                        ratios = Arrays.copyOf(ratios, count * 2);
                        luminances = Arrays.copyOf(luminances, count * 2);
                    }
                    luminances[count] = lum;
                    ratios[count++] = ratio;
                }
            }
        }
        if (count == 0) {
            // Less than half of a pixel of it is inside of the window.
            return Optional.empty();
        }
        int twentieth = Math.min(count - 1, (int) Math.floor(count * 0.05));
        Selection.select(ratios, 0, count, twentieth);
        Selection.select(luminances, 0, count, new int[] {twentieth, count - 1 - twentieth});
        return Optional.of(new Reading(
                worst,
                ratios[twentieth],
                atX,
                atY,
                color(worstText),
                color(worstGround),
                luminances[twentieth],
                luminances[count - 1 - twentieth],
                restless.share()));
    }

    /** The index in the stack from which on no group lets through what is behind it, so that what is opaque by then is all one sees. */
    private static int solidFrom(Paint[] stack) {
        int from = stack.length;
        while (from > 0 && stack[from - 1].layer().opacity() == 1) {
            from--;
        }
        return from;
    }

    /** What is seen at a point of the page: all paint from the text down to the canvas, each group with its opacity. */
    private static void seen(
            Paint[] stack, int solidFrom, double x, double y, double[] letters, double[] ground, double[] one) {
        for (int at = 0; at < stack.length; at++) {
            Paint p = stack[at];
            boolean inside = p.holds(x, y);
            if (inside && p.mixed()) {
                // From the colour upwards, and by itself: backgrounds do not blend with what is behind their element.
                double[] own = p.color().clone();
                for (int i = p.sheets().size() - 1; i >= 0; i--) {
                    if (at(p.sheets().get(i), x, y, one)) {
                        p.sheets().get(i).blend().over(own, one);
                        // What a browser keeps between two layers is whole levels.
                        for (int k = 0; k < 4; k++) {
                            own[k] = Math.round(own[k] * 255) / 255.0;
                        }
                    }
                }
                for (int k = 0; k < 4; k++) {
                    own[k] *= p.alone();
                }
                under(letters, own);
                under(ground, own);
            } else if (inside) {
                List<Sheet> sheets = p.sheets();
                for (int i = 0; i < sheets.size(); i++) {
                    if (at(sheets.get(i), x, y, one)) {
                        under(letters, one);
                        under(ground, one);
                    }
                }
                if (p.color()[3] > 0) {
                    under(letters, p.color());
                    under(ground, p.color());
                }
            }
            double opacity = p.layer().opacity();
            if (opacity < 1) {
                for (int i = 0; i < 4; i++) {
                    letters[i] *= opacity;
                    ground[i] *= opacity;
                }
            }
            if (ground[3] == 1 && letters[3] == 1 && at + 1 >= solidFrom) {
                return;
            }
        }
        // The canvas is white where nothing paints it: common practice of browsers in a light scheme.
        Arrays.fill(one, 1);
        under(letters, one);
        under(ground, one);
    }

    private static double[] premultiplied(Color c) {
        Color in = c.toGamut();
        double a = c.alpha();
        return new double[] {in.c0() * a, in.c1() * a, in.c2() * a, a};
    }

    /** Lays a colour under another: source-over, premultiplied. */
    private static void under(double[] top, double[] bottom) {
        double rest = 1 - top[3];
        if (rest <= 0) {
            return;
        }
        for (int i = 0; i < 4; i++) {
            top[i] += bottom[i] * rest;
        }
    }

    private static boolean at(Sheet s, double x, double y, double[] into) {
        Placement p = s.placement();
        if (p.tile().width() <= 0
                || x < s.clip().x()
                || y < s.clip().y()
                || x >= s.clip().x() + s.clip().width()
                || y >= s.clip().y() + s.clip().height()) {
            return false;
        }
        double u = x - s.x() - p.tile().x();
        double v = y - s.y() - p.tile().y();
        if (p.repeatsX()) {
            u -= Math.floor(u / p.stepX()) * p.stepX();
        }
        if (p.repeatsY()) {
            v -= Math.floor(v / p.stepY()) * p.stepY();
        }
        if (u < 0 || v < 0 || u >= p.tile().width() || v >= p.tile().height()) {
            return false;
        }
        if (s.gradient() != null) {
            s.gradient().at(u, v, into);
        } else {
            s.pixels().atLevel(u / p.scaleX(), v / p.scaleY(), s.level(), into);
        }
        return true;
    }

    /** Relative luminance as WCAG 2.2 has it, of a colour as it gets to the screen: in whole bytes. */
    private static double luminance(double[] c) {
        return 0.2126 * linear(c[0]) + 0.7152 * linear(c[1]) + 0.0722 * linear(c[2]);
    }

    private static final double[] LINEAR = new double[256];

    static {
        for (int i = 0; i < LINEAR.length; i++) {
            LINEAR[i] = Contrast.relativeLuminance(Color.rgb(i / 255.0, i / 255.0, i / 255.0));
        }
    }

    private static double linear(double v) {
        return LINEAR[(int) Math.max(0, Math.min(255, Math.round(v * 255)))];
    }

    private static double ratio(double a, double b) {
        return (Math.max(a, b) + 0.05) / (Math.min(a, b) + 0.05);
    }

    private static Color color(double[] premultiplied) {
        return Color.rgb(Math.min(1, premultiplied[0]), Math.min(1, premultiplied[1]), Math.min(1, premultiplied[2]));
    }
}

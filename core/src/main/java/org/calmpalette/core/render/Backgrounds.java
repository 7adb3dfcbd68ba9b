package org.calmpalette.core.render;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.function.UnaryOperator;
import org.calmpalette.core.Budget;
import org.calmpalette.core.background.BoxGeometry.Rectangle;
import org.calmpalette.core.background.NaturalSize;
import org.calmpalette.core.background.PageLengths;
import org.calmpalette.core.background.Scene;
import org.calmpalette.core.background.Seam;
import org.calmpalette.core.background.Sight;
import org.calmpalette.core.background.Sweep;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.color.Contrast;
import org.calmpalette.core.picture.Pixels;
import org.calmpalette.core.setting.Subject;
import org.calmpalette.core.value.BackgroundLayer;

/** What every window width shows of the pictures of one page, from measured boxes. */
public final class Backgrounds {
    private final Scenes scenes;
    private final Gallery gallery;
    private final Map<List<Object>, Optional<Scene>> known = new HashMap<>();

    public Backgrounds(Scenes scenes, Gallery gallery) {
        this.scenes = scenes;
        this.gallery = gallery;
    }

    public Scenes scenes() {
        return scenes;
    }

    public Gallery gallery() {
        return gallery;
    }

    /** The box of a subject as a part of its picture. */
    public static Optional<Sight.Part> part(Optional<Subject> subject) {
        return subject.map(s -> new Sight.Part(
                s.left().doubleValue() / 100,
                s.top().doubleValue() / 100,
                s.width().doubleValue() / 100,
                s.height().doubleValue() / 100));
    }

    /**
     * A picture over all widths.
     *
     * @param as the layer as it would be; the identity for as it is
     * @return without sights if the picture's size cannot be read
     */
    public Sweep sweep(PaintedPicture picture, Optional<Sight.Part> subject, UnaryOperator<BackgroundLayer> as) {
        return Sweep.of(
                Math.max(Sweep.FROM, scenes.measures().from()),
                Math.min(Sweep.TO, scenes.measures().to()),
                w -> sight(picture, subject, as, w));
    }

    /** A picture at one width; empty where it does not show, or nobody measured. */
    public Optional<Sight> sight(
            PaintedPicture picture, Optional<Sight.Part> subject, UnaryOperator<BackgroundLayer> as, int width) {
        Budget.step();
        Optional<NaturalSize> size = gallery.size(picture.path());
        return size.flatMap(s -> layer(picture, width).map(as).flatMap(l -> {
            BackgroundLayer painted = scenes.painted(picture.element(), l, width);
            return scene(picture, painted, width).map(scene -> Sight.of(painted, s, scene, subject));
        }));
    }

    /**
     * A picture behind the whole page over all lengths of pages, in a window of a width; empty if it lies behind a part, stays in the
     * window, or is not shown there.
     */
    public Optional<PageLengths> lengths(PaintedPicture picture, int width) {
        if (!scenes.isCanvas(picture.element(), width)) {
            return Optional.empty();
        }
        Optional<BackgroundLayer> layer = layer(picture, width)
                .filter(l -> l.attachment() != BackgroundLayer.Attachment.FIXED)
                .map(l -> scenes.painted(picture.element(), l, width));
        return layer.flatMap(l -> gallery.size(picture.path()).map(size -> PageLengths.of(l, size, width)))
                .filter(p -> !p.stretches().isEmpty());
    }

    private Optional<Scene> scene(PaintedPicture picture, BackgroundLayer layer, int width) {
        // The same for all places in the box that are tried.
        return known.computeIfAbsent(
                List.of(picture.element(), layer.attachment(), width),
                k -> scenes.scene(picture.element(), layer, width));
    }

    /** The layer that shows the picture, as it is at a width; empty where another picture or none is shown. */
    public Optional<BackgroundLayer> layer(PaintedPicture picture, int width) {
        return scenes.layer(picture.element(), picture.layer(), width)
                .filter(l -> l.image() instanceof org.calmpalette.core.value.Image.Url url
                        && url.address().equals(picture.path()));
    }

    /** The colour that goes on where the picture ends, opaque: its own element's, over white where that lets through. */
    public Color beyond(PaintedPicture picture, int width) {
        Color own = scenes.styles(width)
                .of(scenes.page().elements().get(picture.element()))
                .colorOf("background-color")
                .orElse(Color.TRANSPARENT);
        return Contrast.over(own, Color.WHITE);
    }

    /** The worst of the seams at a width: where the picture ends within what is painted; empty if it does not, or cannot be looked at. */
    public Optional<Seam> seam(PaintedPicture picture, UnaryOperator<BackgroundLayer> as, Color beyond, int width) {
        Optional<Pixels> pixels = gallery.pixels(picture.path());
        Optional<BackgroundLayer> layer =
                layer(picture, width).map(as).map(l -> scenes.painted(picture.element(), l, width));
        Optional<Scene> scene = layer.flatMap(l -> scenes.scene(picture.element(), l, width));
        if (pixels.isEmpty() || scene.isEmpty()) {
            return Optional.empty();
        }
        Sight sight = Sight.of(
                layer.get(),
                NaturalSize.of(pixels.get().width(), pixels.get().height()),
                scene.get(),
                Optional.empty());
        Rectangle clip = scene.get().boxes().of(layer.get().clip());
        Rectangle area =
                new Rectangle(scene.get().x() + clip.x(), scene.get().y() + clip.y(), clip.width(), clip.height());
        return Seam.open(sight.placement(), sight.tile(), area).stream()
                .map(side -> Seam.of(pixels.get(), side, sight.placement().scaleX(), beyond))
                .max(java.util.Comparator.comparingDouble(Seam::mean));
    }

    /** A seam, and the window width at which it is. */
    public record SeamAt(Seam seam, int width) {}

    /** The seam that is farthest from the colour beside it, at any of the widths that were measured; empty if the picture ends at none. */
    public Optional<SeamAt> worstSeam(PaintedPicture picture, Sweep sweep, List<Integer> widths) {
        SeamAt worst = null;
        for (int width : widths) {
            Optional<Seam> here = sweep.sights().containsKey(width)
                    ? seam(picture, UnaryOperator.identity(), beyond(picture, width), width)
                    : Optional.empty();
            if (here.isPresent()
                    && (worst == null || here.get().mean() > worst.seam().mean())) {
                worst = new SeamAt(here.get(), width);
            }
        }
        return Optional.ofNullable(worst);
    }

    /** The first width that a stretch of widths up to the widest one shares with it; for “from … px up”. */
    public static OptionalInt upFrom(Sweep sweep, Sight.State... states) {
        int from = -1;
        for (var e : sweep.sights().entrySet()) {
            boolean is = e.getValue().state().filter(List.of(states)::contains).isPresent();
            from = !is ? -1 : from < 0 ? e.getKey() : from;
        }
        return from < 0 ? OptionalInt.empty() : OptionalInt.of(from);
    }
}

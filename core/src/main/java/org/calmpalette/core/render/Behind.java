package org.calmpalette.core.render;

import java.util.BitSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.calmpalette.core.Budget;
import org.calmpalette.core.background.BoxGeometry.Rectangle;
import org.calmpalette.core.background.GradientPaint;
import org.calmpalette.core.background.NaturalSize;
import org.calmpalette.core.background.Placement;
import org.calmpalette.core.background.Scene;
import org.calmpalette.core.paint.Paint.Veil;
import org.calmpalette.core.picture.Pixels;
import org.calmpalette.core.value.BackgroundLayer;
import org.calmpalette.core.value.Image;

/**
 * What of a picture or gradient comes to lie behind a text at any width of a stretch, by the boxes that were measured: every whole width
 * is looked at, at the height of window at which the page was measured.
 */
public final class Behind {
    /** How far browsers may put an edge from where it is reckoned to be, in CSS px: boxes go to whole pixels, and letters lean out. */
    private static final double ROOM = 2;

    private final Scenes scenes;
    private final Gallery gallery;
    private final Map<String, Optional<Pixels.Blocks>> blocks = new HashMap<>();

    public Behind(Scenes scenes, Gallery gallery) {
        this.scenes = scenes;
        this.gallery = gallery;
    }

    /**
     * @param veil between what its colours lie where the text stands; null where it never comes to lie behind it
     * @param everywhere whether at every width all of the text stands on it
     */
    public record Part(Veil veil, boolean everywhere) {
        public boolean isAnywhere() {
            return veil != null;
        }
    }

    /**
     * @param element whose lines
     * @param holder whose background
     * @param layer of it, 0 for the uppermost
     * @param from first width, CSS px
     * @param to last width
     * @return empty where that is not known: a picture that cannot be read, what stays in the window, boxes that nobody measured
     */
    public Optional<Part> of(int element, int holder, int layer, int from, int to) {
        Found found = new Found();
        for (int width = from; width <= to; width++) {
            Budget.step();
            if (!scenes.measures().isSureAt(width)) {
                return Optional.empty();
            }
            List<Rectangle> lines = Ground.lines(scenes, element, width);
            if (lines.isEmpty()) {
                continue;
            }
            Optional<BackgroundLayer> there = scenes.layer(holder, layer, width);
            if (there.isEmpty() || there.get().attachment() == BackgroundLayer.Attachment.FIXED) {
                return Optional.empty();
            }
            BackgroundLayer painted = scenes.painted(holder, there.get(), width);
            Optional<Scene> scene = scenes.uncovered(holder, painted, width);
            if (scene.isEmpty()
                    || painted.clip() == BackgroundLayer.Box.TEXT
                    || !found.add(painted, scene.get(), lines)) {
                return Optional.empty();
            }
        }
        return Optional.of(new Part(found.veil(), found.everywhere));
    }

    /** What was found at the widths so far. */
    private final class Found {
        private boolean everywhere = true;
        private Veil veil;
        private Image.Gradient written;
        private GradientPaint gradient;
        private Pixels.Blocks read;
        private final BitSet touched = new BitSet();

        /** @return false if it cannot be told */
        boolean add(BackgroundLayer layer, Scene scene, List<Rectangle> lines) {
            NaturalSize size = NaturalSize.NONE;
            if (layer.image() instanceof Image.Url url) {
                Optional<Pixels> pixels = gallery.pixels(url.address());
                Optional<Pixels.Blocks> all =
                        blocks.computeIfAbsent(url.address(), p -> pixels.flatMap(Pixels::blocks));
                if (all.isEmpty() || read != null && read != all.get()) {
                    return false;
                }
                read = all.get();
                size = gallery.size(url.address())
                        .orElse(NaturalSize.of(
                                pixels.get().width(), pixels.get().height()));
            } else if (!(layer.image() instanceof Image.Gradient)) {
                return false;
            }
            Placement p = Placement.of(layer, size, scene.boxes());
            if (p.tile().width() <= 0) {
                everywhere = false;
                return true;
            }
            if (layer.image() instanceof Image.Gradient g) {
                if (written != null && !written.equals(g)) {
                    // Something of it follows the window's width.
                    return false;
                }
                written = g;
                Optional<GradientPaint> sized = gradient == null
                        ? GradientPaint.ofAnySize(g, p.tile().width(), p.tile().height())
                        : Optional.of(gradient.sized(p.tile().width(), p.tile().height()));
                if (sized.isEmpty()) {
                    return false;
                }
                gradient = sized.get();
            }
            Rectangle clip = scene.boxes().of(layer.clip());
            for (Rectangle line : lines) {
                add(p, scene, clip, line);
            }
            return true;
        }

        private void add(Placement p, Scene scene, Rectangle clip, Rectangle line) {
            double[] x = side(
                    line.x() - scene.x(),
                    line.width(),
                    clip.x(),
                    clip.width(),
                    p.tile().x(),
                    p.tile().width(),
                    p.stepX(),
                    p.repeatsX());
            double[] y = side(
                    line.y() - scene.y(),
                    line.height(),
                    clip.y(),
                    clip.height(),
                    p.tile().y(),
                    p.tile().height(),
                    p.stepY(),
                    p.repeatsY());
            everywhere &= x != null && y != null && x[2] == 1 && y[2] == 1;
            if (x == null || y == null) {
                return;
            }
            if (gradient != null) {
                Veil here = gradient.between(x[0], y[0], x[1], y[1]);
                veil = veil == null ? here : veil.and(here);
            } else {
                read.touch(x[0] / p.scaleX(), y[0] / p.scaleY(), x[1] / p.scaleX(), y[1] / p.scaleY(), touched);
            }
        }

        /** From where to where of a tile a line shows on one axis, and 1 if all of the line is on some tile; null if none is. */
        private double[] side(
                double at,
                double length,
                double clipAt,
                double clipLength,
                double tileAt,
                double tile,
                double step,
                boolean repeats) {
            double from = Math.max(at - ROOM, clipAt);
            double to = Math.min(at + length + ROOM, clipAt + clipLength);
            if (from >= to) {
                return null;
            }
            boolean within = at >= clipAt - 0.5 && at + length <= clipAt + clipLength + 0.5;
            double first = from - tileAt;
            double last = to - tileAt;
            if (repeats) {
                double turns = Math.floor(first / step) * step;
                boolean one = last - turns <= tile;
                return new double[] {
                    one ? first - turns : 0, one ? last - turns : tile, within && (one || step <= tile + 1e-6) ? 1 : 0
                };
            }
            boolean inside = at - tileAt >= -0.5 && at + length - tileAt <= tile + 0.5;
            first = Math.max(0, first);
            last = Math.min(tile, last);
            return first >= last ? null : new double[] {first, last, within && inside ? 1 : 0};
        }

        Veil veil() {
            return read == null ? veil : touched.isEmpty() ? null : read.range(touched);
        }
    }
}

package org.calmpalette.core.background;

import java.util.List;
import java.util.Optional;
import org.calmpalette.core.background.BoxGeometry.Rectangle;
import org.calmpalette.core.value.BackgroundLayer;

/**
 * What one window shows of a picture, and of what matters in it.
 *
 * @param placement in its box
 * @param tile the first one, on the page
 * @param shown where the picture is on the page, as far as it is painted; of width 0 if it is not
 * @param subject where the subject is on the page, in the tile that shows most of it; empty if none is marked
 * @param state empty if no subject is marked
 * @param column what lies over the picture: from the left to the right end of all that crosses the rows of the subject; if none is
 *     marked, the largest thing; empty if nothing does
 * @param open share of the subject that is seen, 0 to 1; 0 if none is marked
 */
public record Sight(
        Placement placement,
        Rectangle tile,
        Rectangle shown,
        Optional<Rectangle> subject,
        Optional<State> state,
        Optional<Rectangle> column,
        double open) {
    /** What becomes of the subject. */
    public enum State {
        /** All of it is seen. */
        WHOLE,
        /** It goes over an edge. */
        CUT,
        /** Something lies over it. */
        UNDER,
        /** Nothing of it is seen, and nothing lies over it: it is outside. */
        OFF
    }

    /** A part of a picture. @param left and all others as shares of the picture's width or height, 0 to 1 */
    public record Part(double left, double top, double width, double height) {}

    /** Less than this share of the subject is nothing, in both directions. */
    private static final double LITTLE = 0.005;
    /** Tiles in one direction that are looked at; with more of them the subject is tiny, and one is like the other. */
    private static final int MOST_TILES = 12;

    public static Sight of(BackgroundLayer layer, NaturalSize picture, Scene scene, Optional<Part> subject) {
        Placement p = Placement.of(layer, picture, scene.boxes());
        Rectangle t = p.tile();
        Rectangle tile = new Rectangle(scene.x() + t.x(), scene.y() + t.y(), t.width(), t.height());
        Rectangle clip = scene.boxes().of(layer.clip());
        Rectangle area = cut(
                new Rectangle(scene.x() + clip.x(), scene.y() + clip.y(), clip.width(), clip.height()),
                new Rectangle(0, 0, scene.pageWidth(), scene.pageHeight()));
        double left = p.repeatsX() ? area.x() : tile.x();
        double top = p.repeatsY() ? area.y() : tile.y();
        Rectangle shown = tile.width() <= 0
                ? new Rectangle(tile.x(), tile.y(), 0, 0)
                : cut(
                        new Rectangle(
                                left,
                                top,
                                p.repeatsX() ? area.width() : tile.width(),
                                p.repeatsY() ? area.height() : tile.height()),
                        area);
        if (subject.isEmpty()) {
            return new Sight(p, tile, shown, Optional.empty(), Optional.empty(), largest(scene.covers(), shown), 0);
        }
        if (shown.width() <= 0 || shown.height() <= 0) {
            return new Sight(
                    p,
                    tile,
                    shown,
                    Optional.of(within(subject.get(), tile)),
                    Optional.of(State.OFF),
                    Optional.empty(),
                    0);
        }
        Sight best = null;
        int columns = p.repeatsX() ? count(tile.x(), p.stepX(), area.x(), area.width()) : 1;
        int rows = p.repeatsY() ? count(tile.y(), p.stepY(), area.y(), area.height()) : 1;
        double firstX = p.repeatsX() ? tile.x() + Math.floor((area.x() - tile.x()) / p.stepX()) * p.stepX() : tile.x();
        double firstY = p.repeatsY() ? tile.y() + Math.floor((area.y() - tile.y()) / p.stepY()) * p.stepY() : tile.y();
        for (int row = 0; row < rows; row++) {
            for (int column = 0; column < columns; column++) {
                Rectangle here = new Rectangle(
                        firstX + column * p.stepX(), firstY + row * p.stepY(), tile.width(), tile.height());
                Rectangle s = within(subject.get(), here);
                double size = s.width() * s.height();
                Rectangle visible = cut(s, area);
                double inside = size <= 0 ? 0 : visible.width() * visible.height() / size;
                double covered = size <= 0 ? 0 : covered(visible, scene.covers()) / size;
                State state = covered > LITTLE
                        ? State.UNDER
                        : inside >= 1 - LITTLE ? State.WHOLE : inside > LITTLE ? State.CUT : State.OFF;
                if (best == null || inside - covered > best.open()) {
                    best = new Sight(
                            p,
                            tile,
                            shown,
                            Optional.of(s),
                            Optional.of(state),
                            across(scene.covers(), s),
                            inside - covered);
                }
            }
        }
        return best;
    }

    /** Whether the edges of two tiles meet in what is shown: side by side, or one above the other. */
    public boolean tilesMeet(boolean across) {
        double side = across ? tile.width() : tile.height();
        double step = across ? placement.stepX() : placement.stepY();
        if (!(across ? placement.repeatsX() : placement.repeatsY()) || side <= 0 || step > side + 0.5) {
            return false;
        }
        double from = across ? shown.x() : shown.y();
        double to = from + (across ? shown.width() : shown.height());
        double first = across ? tile.x() : tile.y();
        return first + Math.ceil((from + 0.5 - first) / step) * step < to - 0.5;
    }

    private static Optional<Rectangle> largest(List<Rectangle> covers, Rectangle shown) {
        return covers.stream()
                .map(c -> cut(c, shown))
                .filter(c -> c.width() > 0 && c.height() > 0)
                .max(java.util.Comparator.comparingDouble(c -> c.width() * c.height()));
    }

    private static Optional<Rectangle> across(List<Rectangle> covers, Rectangle rows) {
        double left = Double.POSITIVE_INFINITY;
        double right = Double.NEGATIVE_INFINITY;
        for (Rectangle c : covers) {
            if (c.width() > 0 && c.y() < rows.y() + rows.height() && c.y() + c.height() > rows.y()) {
                left = Math.min(left, c.x());
                right = Math.max(right, c.x() + c.width());
            }
        }
        return left < right
                ? Optional.of(new Rectangle(left, rows.y(), right - left, rows.height()))
                : Optional.empty();
    }

    private static int count(double at, double step, double areaAt, double area) {
        double first = Math.floor((areaAt - at) / step);
        return (int) Math.max(1, Math.min(MOST_TILES, Math.ceil((areaAt + area - at) / step) - first));
    }

    private static Rectangle within(Part part, Rectangle tile) {
        return new Rectangle(
                tile.x() + part.left() * tile.width(),
                tile.y() + part.top() * tile.height(),
                part.width() * tile.width(),
                part.height() * tile.height());
    }

    /** What two rectangles share; of width or height 0 if they share nothing. */
    static Rectangle cut(Rectangle a, Rectangle b) {
        double x = Math.max(a.x(), b.x());
        double y = Math.max(a.y(), b.y());
        return new Rectangle(
                x,
                y,
                Math.max(0, Math.min(a.x() + a.width(), b.x() + b.width()) - x),
                Math.max(0, Math.min(a.y() + a.height(), b.y() + b.height()) - y));
    }

    /** Area of a rectangle that lies under others, each spot counted once. */
    private static double covered(Rectangle of, List<Rectangle> covers) {
        if (of.width() <= 0 || of.height() <= 0) {
            return 0;
        }
        List<Rectangle> over = covers.stream()
                .map(c -> cut(c, of))
                .filter(c -> c.width() > 0 && c.height() > 0)
                .toList();
        double[] xs = over.stream()
                .flatMapToDouble(c -> java.util.stream.DoubleStream.of(c.x(), c.x() + c.width()))
                .sorted()
                .distinct()
                .toArray();
        double area = 0;
        for (int i = 0; i + 1 < xs.length; i++) {
            double middle = (xs[i] + xs[i + 1]) / 2;
            List<Rectangle> here = over.stream()
                    .filter(c -> c.x() <= middle && middle <= c.x() + c.width())
                    .sorted(java.util.Comparator.comparingDouble(Rectangle::y))
                    .toList();
            double end = Double.NEGATIVE_INFINITY;
            double high = 0;
            for (Rectangle c : here) {
                high += Math.max(0, c.y() + c.height() - Math.max(end, c.y()));
                end = Math.max(end, c.y() + c.height());
            }
            area += high * (xs[i + 1] - xs[i]);
        }
        return area;
    }
}

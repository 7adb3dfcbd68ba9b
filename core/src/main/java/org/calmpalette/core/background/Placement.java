package org.calmpalette.core.background;

import java.util.OptionalDouble;
import org.calmpalette.core.background.BoxGeometry.Rectangle;
import org.calmpalette.core.value.BackgroundLayer;
import org.calmpalette.core.value.BackgroundLayer.Repeat;
import org.calmpalette.core.value.BackgroundLayer.Size;
import org.calmpalette.core.value.Lengths;

/**
 * Where the tiles of one layer of a background land in its box: CSS Backgrounds 3, sections 3.3 to 3.9. All in CSS px, from
 * the left and top edge of the padding box.
 *
 * @param tile the one that the position places, from which the others go on
 * @param stepX from one tile to the next; the tile's own width where there is only one
 * @param stepY likewise downwards
 * @param repeatsX whether there is more than the one tile across, as far as the painting area goes
 * @param repeatsY likewise downwards
 * @param painted share of the painting area that gets paint, 0 to 1, transparent pixels of the picture counted as paint
 * @param shown the part of the picture that is seen in some tile, in pixels of the picture (of the tile, if the picture has no
 *     size of its own); of width 0 if nothing is seen
 * @param scaleX how much wider it is drawn than it is; 1 if it has no width of its own
 * @param scaleY how much higher
 */
public record Placement(
        Rectangle tile,
        double stepX,
        double stepY,
        boolean repeatsX,
        boolean repeatsY,
        double painted,
        Rectangle shown,
        double scaleX,
        double scaleY) {
    /** Nothing is drawn: a box, picture or size of no extent. */
    private static Placement nothing(Rectangle area) {
        Rectangle none = new Rectangle(area.x(), area.y(), 0, 0);
        return new Placement(none, 0, 0, false, false, 0, new Rectangle(0, 0, 0, 0), 0, 0);
    }

    /** One axis of a placement. */
    private record Axis(double at, double step, boolean many, double share, double from, double to) {}

    /** Sides of a tile before they are rounded. */
    private record Sides(double width, double height) {}

    /**
     * Places a layer that scrolls with its element.
     *
     * @param box of the element; for a fixed attachment, the window
     */
    public static Placement of(BackgroundLayer layer, NaturalSize picture, BoxGeometry box) {
        Rectangle area = box.of(layer.origin());
        Rectangle clip = box.of(layer.clip());
        Sides sides = sides(layer.size(), picture, area.width(), area.height());
        double width = sides.width();
        double height = sides.height();
        if (!(width > 0)
                || !(height > 0)
                || !Double.isFinite(width)
                || !Double.isFinite(height)
                || clip.width() <= 0
                || clip.height() <= 0) {
            return nothing(area);
        }
        boolean roundX = layer.repeatX() == Repeat.ROUND && area.width() > 0;
        boolean roundY = layer.repeatY() == Repeat.ROUND && area.height() > 0;
        double wide = roundX ? rounded(area.width(), width) : width;
        double high = roundY ? rounded(area.height(), height) : height;
        // Section 3.8: what is rounded in one direction keeps its ratio if its other side was left open.
        if (roundX && !roundY && isAuto(layer.size(), false)) {
            high = height * wide / width;
        } else if (roundY && !roundX && isAuto(layer.size(), true)) {
            wide = width * high / height;
        }
        Axis x = axis(
                layer.repeatX(), layer.position().x(), area.x(), area.width(), width, wide, clip.x(), clip.width());
        Axis y = axis(
                layer.repeatY(), layer.position().y(), area.y(), area.height(), height, high, clip.y(), clip.height());
        double scaleX = picture.width().isPresent() ? wide / picture.width().getAsDouble() : 1;
        double scaleY = picture.height().isPresent() ? high / picture.height().getAsDouble() : 1;
        boolean seen = x.share() > 0 && y.share() > 0;
        Rectangle shown = seen
                ? new Rectangle(
                        x.from() / scaleX,
                        y.from() / scaleY,
                        (x.to() - x.from()) / scaleX,
                        (y.to() - y.from()) / scaleY)
                : new Rectangle(0, 0, 0, 0);
        return new Placement(
                new Rectangle(x.at(), y.at(), wide, high),
                x.step(),
                y.step(),
                x.many(),
                y.many(),
                x.share() * y.share(),
                shown,
                scaleX,
                scaleY);
    }

    /** As many whole tiles as come nearest: section 3.4, {@code round}. */
    private static double rounded(double area, double tile) {
        return area / Math.max(1, Math.floor(area / tile + 0.5 + 1e-9));
    }

    private static boolean isAuto(Size size, boolean width) {
        // Chromium keeps the ratio of cover and contain too, of which the standard does not speak.
        return !(size instanceof Size.Given g) || (width ? g.width() : g.height()).isEmpty();
    }

    /** Section 3.9, with the default sizing of CSS Images 3, section 4.3; the default object size is the positioning area. */
    private static Sides sides(Size size, NaturalSize picture, double areaWidth, double areaHeight) {
        boolean sized = picture.width().isPresent() && picture.height().isPresent();
        if (size instanceof Size.Cover || size instanceof Size.Contain) {
            if (sized && picture.ratio().isEmpty()) {
                return new Sides(0, 0);
            }
            if (picture.ratio().isEmpty()) {
                return new Sides(areaWidth, areaHeight);
            }
            double ratio = picture.ratio().getAsDouble();
            boolean byWidth = (areaWidth / ratio >= areaHeight) == (size instanceof Size.Cover);
            return byWidth ? new Sides(areaWidth, areaWidth / ratio) : new Sides(areaHeight * ratio, areaHeight);
        }
        Size.Given given = (Size.Given) size;
        OptionalDouble width = given.width()
                .map(w -> length(w, areaWidth))
                .map(OptionalDouble::of)
                .orElse(OptionalDouble.empty());
        OptionalDouble height = given.height()
                .map(h -> length(h, areaHeight))
                .map(OptionalDouble::of)
                .orElse(OptionalDouble.empty());
        if (width.isPresent() && height.isPresent()) {
            return new Sides(width.getAsDouble(), height.getAsDouble());
        }
        if (width.isPresent()) {
            return new Sides(
                    width.getAsDouble(),
                    picture.ratio().isPresent()
                            ? width.getAsDouble() / picture.ratio().getAsDouble()
                            : picture.height().orElse(areaHeight));
        }
        if (height.isPresent()) {
            return new Sides(
                    picture.ratio().isPresent()
                            ? height.getAsDouble() * picture.ratio().getAsDouble()
                            : picture.width().orElse(areaWidth),
                    height.getAsDouble());
        }
        if (picture.width().isPresent() || picture.height().isPresent()) {
            double ratio = picture.ratio().orElse(Double.NaN);
            double wide = picture.width()
                    .orElse(picture.ratio().isPresent() ? picture.height().getAsDouble() * ratio : areaWidth);
            double high = picture.height().orElse(picture.ratio().isPresent() ? wide / ratio : areaHeight);
            return new Sides(wide, high);
        }
        // With a ratio and no sides it is drawn as large as fits, as contain does.
        return picture.ratio().isPresent()
                ? sides(new Size.Contain(), picture, areaWidth, areaHeight)
                : new Sides(areaWidth, areaHeight);
    }

    private static double length(Lengths.Sum sum, double of) {
        return Math.max(0, sum.px() + sum.percent() / 100 * of);
    }

    /** @param placedBy side of the tile before it is rounded, by which Chromium places it; the standard leaves that open */
    private static Axis axis(
            Repeat repeat,
            Lengths.Sum position,
            double areaAt,
            double area,
            double placedBy,
            double tile,
            double clipAt,
            double clip) {
        double at = areaAt + position.px() + position.percent() / 100 * (area - placedBy);
        double step = tile;
        boolean many = repeat == Repeat.REPEAT || repeat == Repeat.ROUND;
        if (repeat == Repeat.SPACE) {
            double count = Math.floor(area / tile + 1e-9);
            // Section 3.4: where no two fit, one is placed by the position.
            many = count >= 2;
            at = many ? areaAt : at;
            step = many ? tile + (area - count * tile) / (count - 1) : tile;
        }
        double end = clipAt + clip;
        if (!many) {
            double from = Math.max(at, clipAt);
            double to = Math.min(at + tile, end);
            return new Axis(
                    at, step, false, Math.max(0, to - from) / clip, Math.max(0, from - at), Math.max(0, to - at));
        }
        // The first tile that reaches into the painting area, and the last.
        double first = Math.floor((clipAt - at - tile) / step) + 1;
        double last = Math.ceil((end - at) / step) - 1;
        double gap = step - tile;
        double covered = gap <= 0 ? clip : 0;
        double from = tile;
        double to = 0;
        if (gap > 0) {
            covered = Math.max(0, last - first - 1) * tile;
        }
        for (double n : last > first ? new double[] {first, last} : new double[] {first}) {
            double start = at + n * step;
            double a = Math.max(start, clipAt);
            double b = Math.min(start + tile, end);
            if (b > a) {
                covered += gap > 0 ? b - a : 0;
                from = Math.min(from, a - start);
                to = Math.max(to, b - start);
            }
        }
        if (last - first >= 2) {
            from = 0;
            to = tile;
        }
        return new Axis(at, step, true, Math.min(1, covered / clip), Math.min(from, to), to);
    }
}

package org.calmpalette.core.background;

import java.util.ArrayList;
import java.util.List;
import org.calmpalette.core.background.BoxGeometry.Rectangle;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.color.ColorSpace;
import org.calmpalette.core.color.Contrast;
import org.calmpalette.core.picture.Pixels;

/**
 * How much the edge of a picture differs from the colour that goes on beyond it.
 *
 * @param mean OK distance over the edge, times 100 (distance in OKLab, CSS Color 4, where 2 is just noticeable)
 * @param worst where it differs most, times 100
 * @param at where that is along the edge, 0 at its top or left, 1 at its end
 * @param edge the colour in the middle of the edge's colours, opaque
 */
public record Seam(Side side, double mean, double worst, double at, Color edge) {
    /** An edge of the picture. */
    public enum Side {
        LEFT,
        TOP,
        RIGHT,
        BOTTOM
    }

    private static final int POINTS = 64;

    /** The sides on which the picture ends inside of what is painted, and one sees where. @param area that is painted */
    public static List<Side> open(Placement p, Rectangle tile, Rectangle area) {
        List<Side> sides = new ArrayList<>();
        if (tile.width() <= 0 || tile.height() <= 0) {
            return sides;
        }
        if (!p.repeatsX()) {
            if (tile.x() > area.x() + 0.5 && tile.x() < area.x() + area.width()) {
                sides.add(Side.LEFT);
            }
            if (tile.x() + tile.width() < area.x() + area.width() - 0.5 && tile.x() + tile.width() > area.x()) {
                sides.add(Side.RIGHT);
            }
        }
        if (!p.repeatsY()) {
            if (tile.y() > area.y() + 0.5 && tile.y() < area.y() + area.height()) {
                sides.add(Side.TOP);
            }
            if (tile.y() + tile.height() < area.y() + area.height() - 0.5 && tile.y() + tile.height() > area.y()) {
                sides.add(Side.BOTTOM);
            }
        }
        return sides;
    }

    /**
     * @param scale how much larger than itself the picture is drawn
     * @param beyond the colour that goes on, opaque
     */
    public static Seam of(Pixels picture, Side side, double scale, Color beyond) {
        double[] here = new double[4];
        double[] mean = new double[3];
        double sum = 0;
        double worst = -1;
        double at = 0;
        for (int i = 0; i < POINTS; i++) {
            double share = (i + 0.5) / POINTS;
            double x = side == Side.LEFT ? 0.5 : side == Side.RIGHT ? picture.width() - 0.5 : share * picture.width();
            double y = side == Side.TOP ? 0.5 : side == Side.BOTTOM ? picture.height() - 0.5 : share * picture.height();
            picture.at(x, y, scale, here);
            double a = here[3];
            Color color = a == 0
                    ? beyond
                    : Contrast.over(
                            Color.rgb(here[0] / a, here[1] / a, here[2] / a).withAlpha(a), beyond);
            Color lab = color.to(ColorSpace.OKLAB);
            double distance = 100 * lab.distance(beyond);
            sum += distance;
            if (distance > worst) {
                worst = distance;
                at = share;
            }
            mean[0] += lab.c0() / POINTS;
            mean[1] += lab.c1() / POINTS;
            mean[2] += lab.c2() / POINTS;
        }
        return new Seam(
                side, sum / POINTS, worst, at, new Color(ColorSpace.OKLAB, mean[0], mean[1], mean[2], 1).toGamut());
    }
}

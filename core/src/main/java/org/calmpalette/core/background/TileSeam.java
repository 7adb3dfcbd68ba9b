package org.calmpalette.core.background;

import org.calmpalette.core.color.Color;
import org.calmpalette.core.color.ColorSpace;
import org.calmpalette.core.picture.Pixels;

/**
 * Whether a picture goes on at its other edge, as one has to that is laid out in tiles. Distances in OKLab, times 100 (CSS Color 4,
 * where 2 is just noticeable). What jumps at an edge is a seam only if the picture jumps less everywhere within: stripes and
 * checks jump on purpose.
 */
public final class TileSeam {
    /** Points along an edge, and places within the picture that are compared with it. */
    private static final int POINTS = 48;

    private static final int PLACES = 4096;

    private TileSeam() {}

    /**
     * @param across true for tiles side by side, false for tiles one above the other
     * @return how much further apart the meeting edges are, on average over their length, than any two neighbouring columns or
     *     rows within the picture; 0 or less if there is no seam
     */
    public static double of(Pixels picture, boolean across) {
        int length = across ? picture.width() : picture.height();
        if (length < 2) {
            return 0;
        }
        double edge = apart(picture, across, length - 1, 0);
        double within = 0;
        // All but of the very largest.
        int every = Math.max(1, length / PLACES);
        for (int i = 0; i + 1 < length && within < edge; i += every) {
            within = Math.max(within, apart(picture, across, i, i + 1));
        }
        return edge - Math.max(within, apart(picture, across, length - 2, length - 1));
    }

    private static double apart(Pixels picture, boolean across, int one, int other) {
        double[] a = new double[4];
        double[] b = new double[4];
        double sum = 0;
        for (int i = 0; i < POINTS; i++) {
            double along = (i + 0.5) / POINTS * (across ? picture.height() : picture.width());
            picture.at(across ? one + 0.5 : along, across ? along : one + 0.5, 1, a);
            picture.at(across ? other + 0.5 : along, across ? along : other + 0.5, 1, b);
            sum += 100 * onGray(a).distance(onGray(b));
        }
        return sum / POINTS;
    }

    /** Something is behind a picture that lets through; a middle gray hides neither what is dark nor what is light. */
    private static Color onGray(double[] premultiplied) {
        double rest = 0.5 * (1 - premultiplied[3]);
        return Color.rgb(premultiplied[0] + rest, premultiplied[1] + rest, premultiplied[2] + rest)
                .to(ColorSpace.OKLAB);
    }
}

package org.calmpalette.core.background;

import java.util.SortedMap;
import java.util.TreeMap;
import org.calmpalette.core.background.BoxGeometry.Rectangle;
import org.calmpalette.core.value.BackgroundLayer;

/**
 * What pages of every length show of a picture that lies behind the whole page and scrolls with it. The length decides where it
 * lies, and with {@code cover} and percentages also how large it is: the same stylesheet may be sharp on a short page and blurred
 * on a long one. Lengths are in whole CSS px, and each of them is answered.
 *
 * @param stretches by length of the page
 */
public record PageLengths(SortedMap<Integer, Stretch> stretches) {
    /** Lengths of pages, in CSS px: from a small window to about six screens. */
    public static final int FROM = 400;

    public static final int TO = 5_000;

    /**
     * Of a page of one length.
     *
     * @param from where the picture starts, in CSS px from the top of the page, not above it; of a picture that repeats downwards 0
     * @param to where it ends, not below the page; as {@code from} if nothing of it is seen
     * @param scale how much larger than itself it is drawn
     * @param across share of its width that is in view, 0 to 1
     */
    public record Stretch(double from, double to, double scale, double across) {}

    /**
     * @param layer as it is painted behind the page
     * @param picture its size
     * @param width of the window, in CSS px
     */
    public static PageLengths of(BackgroundLayer layer, NaturalSize picture, int width) {
        SortedMap<Integer, Stretch> all = new TreeMap<>();
        for (int length = FROM; length <= TO; length++) {
            Placement p = Placement.of(layer, picture, BoxGeometry.of(width, length));
            Rectangle t = p.tile();
            if (t.width() <= 0 || t.height() <= 0) {
                continue;
            }
            double from = p.repeatsY() ? 0 : Math.max(0, Math.min(length, t.y()));
            double to = p.repeatsY() ? length : Math.max(from, Math.min(length, t.y() + t.height()));
            double across = p.shown().width() * p.scaleX() / t.width();
            all.put(length, new Stretch(from, to, Math.max(p.scaleX(), p.scaleY()), Math.min(1, across)));
        }
        return new PageLengths(all);
    }

    /** Of a page of a length; the nearest there is. */
    public Stretch at(int length) {
        int within = Math.max(stretches.firstKey(), Math.min(stretches.lastKey(), length));
        return stretches.get(stretches.headMap(within + 1).lastKey());
    }

    /** The length up to which the picture reaches the page's end; 0 if it never does, {@link #TO} if it always does. */
    public int filledUpTo() {
        int last = 0;
        for (var e : stretches.entrySet()) {
            if (e.getValue().to() < e.getKey() - 0.5) {
                return last;
            }
            last = e.getKey();
        }
        return last;
    }

    /** Whether the length decides how large it is drawn. */
    public boolean grows() {
        return Math.abs(at(TO).scale() / at(FROM).scale() - 1) > 0.01;
    }
}

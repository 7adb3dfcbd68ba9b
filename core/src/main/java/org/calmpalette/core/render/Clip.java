package org.calmpalette.core.render;

import org.calmpalette.core.background.BoxGeometry.Rectangle;
import org.calmpalette.core.cascade.ElementStyle;
import org.calmpalette.core.cascade.PageStyles;
import org.calmpalette.core.cascade.Painting;
import org.jsoup.nodes.Element;

/**
 * Between which edges the words of an element are seen: those of the boxes around it that cut off what leaves them, and the left and the top
 * edge of the page, since nobody gets to what lies beyond these. What can be scrolled to is not cut off, nor what is shortened with a sign
 * that says so ({@code text-overflow}, {@code line-clamp}) or moves.
 *
 * @param left the four edges in CSS px from the page's corner, infinite where nothing cuts anything off
 * @param by whose box cuts off; null for the page
 */
public record Clip(double left, double top, double right, double bottom, Element by) {
    /** What is this narrow or low, in CSS px, hides all that is in it, for readers of screens as a rule. */
    private static final double NOTHING = 4;

    /** A share of a line's height that is still read as a whole line: letters do not fill it. */
    private static final double WHOLE_LINE = 0.6;

    private static final double ROUNDING = 3;
    private static final double END = Double.POSITIVE_INFINITY;

    /** @param styles of the stretch in which the width lies */
    public static Clip of(Scenes scenes, PageStyles styles, int element, int width) {
        boolean fromRight = styles.of(scenes.page().elements().get(1)).isRightToLeft();
        Clip clip = new Clip(fromRight ? -END : 0, 0, fromRight ? width : END, END, null);
        boolean across = true;
        boolean down = true;
        String placed = "static";
        for (Element a = scenes.page().elements().get(element); a != null && a.parent() != null; a = a.parent()) {
            ElementStyle style = styles.of(a);
            boolean reached = placed.equals("static")
                    || (placed.equals("absolute")
                            ? ContainingBlock.holds(styles, a)
                            : ContainingBlock.holdsFixed(styles, a));
            if (reached) {
                placed = "static";
                boolean window = a.normalName().equals("html") || a.normalName().equals("body");
                String x = overflow(style, "x");
                String y = overflow(style, "y");
                boolean boxless = style.is("display", "inline") || style.is("display", "contents");
                Rectangle box = window
                        ? new Rectangle(0, -END, width, END)
                        : boxless
                                ? null
                                : scenes.measures().box(scenes.index(a), width).orElse(null);
                if (box != null && across && cuts(x) && !says(style, "text-overflow", "clip")) {
                    clip = clip.within(box.x(), clip.top, box.x() + box.width(), clip.bottom, a);
                }
                if (box != null && down && !window && cuts(y) && !says(style, "-webkit-line-clamp", "none")) {
                    clip = clip.within(clip.left, box.y(), clip.right, box.y() + box.height(), a);
                }
                // What is in a box that scrolls can be brought to where that is seen.
                across &= boxless || cuts(x) || x.equals("visible");
                down &= boxless || cuts(y) || y.equals("visible");
                if (says(style, "animation-name", "none")) {
                    return new Clip(-END, -END, END, END, null);
                }
            }
            if (style.is("position", "fixed") || style.is("position", "absolute") && !placed.equals("fixed")) {
                placed = style.computed("position");
            }
        }
        return across && down
                ? clip
                : new Clip(
                        across ? clip.left : -END,
                        down ? clip.top : -END,
                        across ? clip.right : END,
                        down ? clip.bottom : END,
                        clip.by);
    }

    /** Whether it is painted, or holds what is placed, as one that is placed itself (CSS Transforms 1, section 3, and others like it). */
    public static boolean mayHold(PageStyles styles, Element e) {
        return ContainingBlock.holdsFixed(styles, e);
    }

    private Clip within(double l, double t, double r, double b, Element a) {
        boolean nearer = l > left || t > top || r < right || b < bottom;
        return new Clip(Math.max(l, left), Math.max(t, top), Math.min(r, right), Math.min(b, bottom), nearer ? a : by);
    }

    private static boolean cuts(String overflow) {
        return overflow.equals("hidden") || overflow.equals("clip");
    }

    private static boolean says(ElementStyle style, String property, String usual) {
        return Painting.declared(style, property)
                .filter(v -> !v.equals(usual) && !v.equals("initial") && !v.equals("unset"))
                .isPresent();
    }

    /** As it is used: of two axes of which one is not visible, the other is not either (CSS Overflow 3, section 3.1). */
    public static String overflow(ElementStyle style, String axis) {
        String own = declared(style, axis);
        String other = declared(style, axis.equals("x") ? "y" : "x");
        return own.equals("visible") && !other.equals("visible") && !other.equals("clip") ? "auto" : own;
    }

    private static String declared(ElementStyle style, String axis) {
        return Painting.declared(style, "overflow-" + axis)
                .or(() -> Painting.declared(style, "overflow").map(v -> {
                    String[] both = v.trim().split("\\s+");
                    return both[axis.equals("x") || both.length == 1 ? 0 : 1];
                }))
                .orElse("visible");
    }

    private Rectangle seen(Rectangle line) {
        double x = Math.max(left, line.x());
        double y = Math.max(top, line.y());
        return new Rectangle(
                x,
                y,
                Math.max(0, Math.min(right, line.x() + line.width()) - x),
                Math.max(0, Math.min(bottom, line.y() + line.height()) - y));
    }

    /** Whether a part of a line is seen. */
    public boolean shows(Rectangle line) {
        Rectangle seen = seen(line);
        return seen.width() > NOTHING && seen.height() > NOTHING;
    }

    /** CSS px of a line that are not seen, on the side on which most is missing; 0 where it is seen as a whole. */
    public double missing(Rectangle line) {
        double across = Math.max(left - line.x(), line.x() + line.width() - right);
        double down = line.height() - seen(line).height();
        return across > ROUNDING ? across : down > line.height() * (1 - WHOLE_LINE) ? down : 0;
    }
}

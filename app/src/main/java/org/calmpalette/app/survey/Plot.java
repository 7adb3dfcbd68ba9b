package org.calmpalette.app.survey;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.color.ColorSpace;
import org.calmpalette.core.usage.ColorRow;
import org.calmpalette.core.usage.ColorUsage;

/**
 * The colours of a theme as a picture: lightness from below to above against hue from left to right, both in OKLCH,
 * sized by use; those without a hue in a strip of their own at the left; near ones tied by a line.
 */
public record Plot(List<Dot> dots, List<Tie> ties, boolean isPart) {
    /** More dots than this cannot be told apart. */
    private static final int MOST = 400;

    static final int WIDTH = 330;
    static final int HEIGHT = 240;
    private static final int LEFT = 30;
    private static final int NEUTRAL = 44;
    private static final int TOP = 18;
    private static final int BOTTOM = 34;
    /** Below this chroma nobody sees a hue. */
    private static final double COLORLESS = 0.02;

    /** @param r radius in px; the area grows with the number of uses */
    public record Dot(String value, String x, String y, String r, String title) {}

    /** A line between two colours that can hardly be told apart. */
    public record Tie(String x1, String y1, String x2, String y2) {}

    static Plot of(ColorUsage.Result colors) {
        List<Dot> dots = new ArrayList<>();
        Map<String, Dot> byValue = new HashMap<>();
        for (ColorRow row : colors.rows()) {
            if (dots.size() == MOST) {
                break;
            }
            if (row.color().alpha() == 0) {
                continue;
            }
            Color c = row.color().to(ColorSpace.OKLCH);
            boolean neutral = c.c1() < COLORLESS || Double.isNaN(c.c2());
            double r = Math.min(13, 3.2 + 1.6 * Math.sqrt(row.uses().size()));
            double lightness = Math.max(0, Math.min(1, c.c0()));
            // Colours that fall on one another are set a little apart, by turns, in the strip that has no second axis.
            double spread = neutral ? (dots.size() % 5 - 2) * 5.0 : 0;
            double x = neutral
                    ? LEFT + NEUTRAL / 2.0 + spread
                    : LEFT + NEUTRAL + 10 + ((c.c2() % 360) + 360) % 360 / 360 * (WIDTH - LEFT - NEUTRAL - 24);
            double y = TOP + (1 - lightness) * (HEIGHT - TOP - BOTTOM);
            String title = row.value() + ", " + row.uses().size() + (row.uses().size() == 1 ? " use" : " uses")
                    + ", lightness " + Math.round(lightness * 100) + " %"
                    + (neutral ? ", no hue" : ", hue " + Math.round(((c.c2() % 360) + 360) % 360) + "°");
            Dot dot = new Dot(row.value(), number(x), number(y), number(r), title);
            dots.add(dot);
            byValue.put(row.value(), dot);
        }
        List<Tie> ties = new ArrayList<>();
        colors.ties().forEach((value, main) -> {
            Dot a = byValue.get(value);
            Dot b = byValue.get(main.value());
            if (a != null && b != null) {
                ties.add(new Tie(a.x(), a.y(), b.x(), b.y()));
            }
        });
        // Large ones first, so that small ones lie on top and can be pointed at.
        dots.sort((a, b) -> Double.compare(Double.parseDouble(b.r()), Double.parseDouble(a.r())));
        return new Plot(dots, ties, dots.size() == MOST);
    }

    private static String number(double v) {
        return String.format(Locale.ROOT, "%.1f", v);
    }
}

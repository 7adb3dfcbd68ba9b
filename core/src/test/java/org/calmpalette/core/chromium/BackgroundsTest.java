package org.calmpalette.core.chromium;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Random;
import org.calmpalette.core.Generated;
import org.calmpalette.core.background.BoxGeometry;
import org.calmpalette.core.background.NaturalSize;
import org.calmpalette.core.background.Placement;
import org.calmpalette.core.cascade.PageStyles;
import org.calmpalette.core.css.selector.States;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.value.BackgroundLayer;
import org.calmpalette.core.value.Viewport;
import org.jsoup.nodes.Element;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/**
 * Where the tiles of backgrounds land, against Chromium's pixels: the red of the picture tells how far a pixel is from its left
 * edge, the green how far from its top. 2,000 generated boxes over all keywords.
 */
public class BackgroundsTest {
    public static final int CASES = 2_000;

    /** @param style of the element, without its picture */
    public record Case(
            String style, int width, int height, int pictureWidth, int pictureHeight, int[] border, int[] padding) {
        public int outerWidth() {
            return width + border[1] + border[3];
        }

        public int outerHeight() {
            return height + border[0] + border[2];
        }
    }

    private static String pick(Random random, String... of) {
        return of[random.nextInt(of.length)];
    }

    private static String length(Random random) {
        return switch (random.nextInt(4)) {
            case 0 -> random.nextInt(150) - 40 + "px";
            case 1 -> random.nextInt(160) - 30 + "%";
            case 2 -> "calc(" + random.nextInt(120) + "% " + pick(random, "+", "-") + " " + random.nextInt(40) + "px)";
            default -> "0";
        };
    }

    private static String size(Random random) {
        String side = random.nextInt(9) + 1 + (random.nextInt(8)) + "px";
        return switch (random.nextInt(8)) {
            case 0 -> "cover";
            case 1 -> "contain";
            case 2 -> side;
            case 3 -> 10 + random.nextInt(140) + "%";
            case 4 -> "auto " + side;
            case 5 -> side + " " + (10 + random.nextInt(120)) + "%";
            default -> "auto";
        };
    }

    private static String position(Random random) {
        return switch (random.nextInt(6)) {
            case 0 -> pick(random, "left", "center", "right") + " " + pick(random, "top", "center", "bottom");
            case 1 -> pick(random, "top", "bottom", "center", "left", "right");
            case 2 ->
                pick(random, "left ", "right ") + length(random) + " " + pick(random, "top ", "bottom ")
                        + length(random);
            default -> length(random) + " " + length(random);
        };
    }

    public static List<Case> cases() {
        Random random = Generated.random(12);
        List<Case> all = new ArrayList<>();
        for (int i = 0; i < CASES; i++) {
            boolean plain = random.nextInt(3) > 0;
            int[] border = plain
                    ? new int[4]
                    : new int[] {random.nextInt(12), random.nextInt(12), random.nextInt(12), random.nextInt(12)};
            int[] padding = plain
                    ? new int[4]
                    : new int[] {random.nextInt(12), random.nextInt(12), random.nextInt(12), random.nextInt(12)};
            int width = 40 + random.nextInt(160);
            int height = 40 + random.nextInt(130);
            String repeat = random.nextInt(3) == 0
                    ? pick(random, "repeat-x", "repeat-y", "repeat", "no-repeat", "space", "round")
                    : pick(random, "repeat", "no-repeat", "space", "round") + " "
                            + pick(random, "repeat", "no-repeat", "space", "round");
            String style = String.format(
                    Locale.ROOT,
                    "background-size:%s;background-position:%s;background-repeat:%s;background-origin:%s;background-clip:%s",
                    size(random),
                    position(random),
                    repeat,
                    plain ? "padding-box" : pick(random, "padding-box", "border-box", "content-box"),
                    plain ? "border-box" : pick(random, "padding-box", "border-box", "content-box"));
            all.add(new Case(style, width, height, 8 + random.nextInt(90), 8 + random.nextInt(90), border, padding));
        }
        return all;
    }

    public static String question() {
        return "tiles "
                + Answers.hash(cases().stream()
                        .map(c -> c.style() + c.width() + " " + c.height() + " " + c.pictureWidth() + " "
                                + c.pictureHeight() + java.util.Arrays.toString(c.border())
                                + java.util.Arrays.toString(c.padding()))
                        .toArray(String[]::new));
    }

    /** One axis of a placement, asked pixel by pixel. */
    private record Axis(
            double at, double step, double tile, boolean many, double clipFrom, double clipTo, int picture) {
        /** How far from the picture's edge a point is, 0 to 1; negative where nothing is painted. */
        double at(double point) {
            if (point < clipFrom || point >= clipTo || tile <= 0) {
                return -1;
            }
            double n = Math.floor((point - at) / step);
            double offset = point - at - n * step;
            return (many || n == 0) && offset < tile ? offset / tile : -1;
        }
    }

    @Tag("generated")
    @Test
    void everyTileLandsWithinOnePixelOfChromiums() {
        List<Case> cases = cases();
        StringBuilder html = new StringBuilder("<!doctype html>");
        cases.forEach(c -> html.append("<div style=\"background-image:url(a.png);")
                .append(c.style())
                .append("\"></div>"));
        Page page = Page.read("index.html", html.toString().getBytes(StandardCharsets.UTF_8));
        PageStyles styles = PageStyles.sheets(page, p -> Optional.empty()).in(Viewport.of(1200, 800), States.NONE);
        List<Element> divs = page.document().getElementsByTag("div");
        List<String> theirs = Answers.read("backgrounds").to(question());
        List<String> wrong = new ArrayList<>();
        int compared = 0;
        int snapped = 0;
        for (int i = 0; i < cases.size(); i++) {
            Case c = cases.get(i);
            BackgroundLayer layer =
                    styles.of(divs.get(i)).backgroundLayers().orElseThrow().get(0);
            BoxGeometry box = new BoxGeometry(c.width(), c.height(), sides(c.border()), sides(c.padding()));
            Placement p = Placement.of(layer, NaturalSize.of(c.pictureWidth(), c.pictureHeight()), box);
            BoxGeometry.Rectangle clip = box.of(layer.clip());
            Axis x = new Axis(
                    p.tile().x(),
                    p.stepX(),
                    p.tile().width(),
                    p.repeatsX(),
                    clip.x(),
                    clip.x() + clip.width(),
                    c.pictureWidth());
            Axis y = new Axis(
                    p.tile().y(),
                    p.stepY(),
                    p.tile().height(),
                    p.repeatsY(),
                    clip.y(),
                    clip.y() + clip.height(),
                    c.pictureHeight());
            String[] projected = theirs.get(i).split(" ", -1);
            boolean nothing = p.painted() == 0;
            // Less than a pixel across is drawn or not as the rounding falls.
            if (!nothing && p.painted() * clip.width() * clip.height() < Math.max(clip.width(), clip.height())) {
                snapped++;
                continue;
            }
            for (int axis = 0; axis < 2; axis++) {
                Axis a = axis == 0 ? x : y;
                BackgroundLayer.Repeat own = axis == 0 ? layer.repeatX() : layer.repeatY();
                // Where the tile is made smaller two of them may have room where one had.
                double room = axis == 0
                        ? box.of(layer.origin()).width()
                        : box.of(layer.origin()).height();
                boolean many = a.many()
                        || own == BackgroundLayer.Repeat.SPACE
                                && Math.floor(room / (a.tile() - 1)) != Math.floor(room / a.tile());
                if (isSnapped(c, many, axis == 0 ? layer.repeatY() : layer.repeatX())
                        || isAtTheEdge(layer, c, box, p, axis == 0)) {
                    snapped++;
                    continue;
                }
                int border = axis == 0 ? c.border()[3] : c.border()[0];
                int length = axis == 0 ? c.outerWidth() : c.outerHeight();
                for (int at = 0; at < length; at++) {
                    String hex = projected[axis].substring(2 * at, 2 * at + 2);
                    double point = at + 0.5 - border;
                    compared++;
                    if (!fits(nothing ? null : a, point, hex)) {
                        wrong.add(
                                c + " " + (axis == 0 ? "x" : "y") + " at " + point + ": " + hex + ", tile " + p.tile());
                        break;
                    }
                }
            }
        }
        assertThat(compared).isGreaterThan(350_000);
        assertThat(snapped).as("axes that are not compared").isLessThan(2 * CASES / 5);
        assertThat(wrong.stream()
                        .limit(40)
                        .map(w -> w.replaceAll("border=.*?\\] ", ""))
                        .toList())
                .as(wrong.size() + " of " + 2 * CASES)
                .isEmpty();
    }

    /** Within a pixel of an edge either side of it will do, and so will a mixture of the two. */
    private static boolean fits(Axis a, double point, String hex) {
        boolean painted = !hex.equals("--");
        if (a == null) {
            return !painted;
        }
        // Chromium keeps lengths in 64ths of a pixel, that of a tile and that of the gap beside it, which adds up from
        // tile to tile.
        double lengths = a.step() > a.tile() ? 2 : 1;
        double reach = 1 + lengths * Math.abs(Math.floor((point - a.at()) / a.step())) / 64;
        double before = a.at(point - reach);
        double here = a.at(point);
        double after = a.at(point + reach);
        boolean edge = before < 0 || after < 0 || before > after || here > after || before > here;
        if (edge) {
            return before < 0 || here < 0 || after < 0 || painted || a.step() > a.tile();
        }
        // A pixel of the tile and one of the picture, since each shows one colour only.
        double within = 255 * (reach / Math.max(1, a.tile()) + 1.0 / a.picture()) + 4;
        return painted && Math.abs(Integer.parseInt(hex, 16) - 255 * here) <= within;
    }

    /**
     * Where Chromium leaves the standard: the side of cover and contain that follows is made whole pixels, so where that side
     * repeats its tiles run away from ours, and where one side is rounded the other follows by another ratio.
     */
    private static boolean isSnapped(Case c, boolean repeats, BackgroundLayer.Repeat other) {
        return repeats && (c.style().contains("size:cover") || c.style().contains("size:contain"))
                || other == BackgroundLayer.Repeat.ROUND && c.style().contains("size:contain");
    }

    /**
     * Whether one tile more or less would fit if the picture were a 64th smaller, in which units Chromium counts; a side that follows a
     * rounded one is cut to them twice, before that and after.
     */
    private static boolean isAtTheEdge(BackgroundLayer layer, Case c, BoxGeometry box, Placement p, boolean across) {
        boolean follows = (across ? layer.repeatX() : layer.repeatY()) == BackgroundLayer.Repeat.SPACE
                && (across ? layer.repeatY() : layer.repeatX()) == BackgroundLayer.Repeat.ROUND;
        double length =
                across ? box.of(layer.origin()).width() : box.of(layer.origin()).height();
        double side = across ? p.tile().width() : p.tile().height();
        if (follows && Math.floor(length / side) != Math.floor(length / (side - 2.0 / 64))) {
            return true;
        }
        for (double[] turned : new double[][] {{-0.25, 0}, {0, -0.25}, {0.25, 0}, {0, 0.25}}) {
            Placement other = Placement.of(
                    layer, NaturalSize.of(c.pictureWidth() + turned[0], c.pictureHeight() + turned[1]), box);
            double one = across ? p.stepX() : p.stepY();
            double two = across ? other.stepX() : other.stepY();
            BackgroundLayer.Repeat repeat = across ? layer.repeatX() : layer.repeatY();
            boolean counted = repeat == BackgroundLayer.Repeat.ROUND || repeat == BackgroundLayer.Repeat.SPACE;
            double area = across
                    ? box.of(layer.origin()).width()
                    : box.of(layer.origin()).height();
            double tile = across ? p.tile().width() : p.tile().height();
            double turnedTile = across ? other.tile().width() : other.tile().height();
            if (counted && Math.rint((area - tile) / one) != Math.rint((area - turnedTile) / two)) {
                return true;
            }
        }
        return false;
    }

    private static BoxGeometry.Sides sides(int[] s) {
        return new BoxGeometry.Sides(s[0], s[1], s[2], s[3]);
    }
}

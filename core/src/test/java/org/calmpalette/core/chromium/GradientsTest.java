package org.calmpalette.core.chromium;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.calmpalette.core.Generated;
import org.calmpalette.core.background.GradientPaint;
import org.calmpalette.core.value.ComponentValue;
import org.calmpalette.core.value.Image;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/**
 * The colours of gradients against Chromium's pixels: 500 generated ones, linear, radial, conic and repeating, with hints, hard
 * stops, translucent colours and spaces of interpolation, over white.
 */
public class GradientsTest {
    public static final int CASES = 500;
    public static final int WIDTH = 60;
    public static final int HEIGHT = 42;
    /** Every so many pixels in both directions one is looked at. */
    public static final int STEP = 5;

    private static String pick(Random r, String... of) {
        return of[r.nextInt(of.length)];
    }

    private static String color(Random r) {
        return switch (r.nextInt(6)) {
            case 0 ->
                String.format("rgb(%d %d %d / %d%%)", r.nextInt(256), r.nextInt(256), r.nextInt(256), r.nextInt(101));
            case 1 -> "transparent";
            case 2 -> String.format("hsl(%d %d%% %d%%)", r.nextInt(360), r.nextInt(101), 10 + r.nextInt(80));
            default -> String.format("#%06x", r.nextInt(0x1000000));
        };
    }

    private static String stops(Random r, boolean conic, boolean repeating) {
        int count = 2 + r.nextInt(4);
        List<String> all = new ArrayList<>();
        int at = repeating ? 0 : r.nextInt(20);
        for (int i = 0; i < count; i++) {
            String unit = conic ? pick(r, "%", "deg") : pick(r, "%", "px");
            int by = unit.equals("deg") ? at * 3 : unit.equals("px") ? at / 2 : at;
            boolean placed = repeating || r.nextInt(3) > 0;
            all.add(color(r)
                    + (placed ? " " + by + unit : "")
                    + (placed && r.nextInt(6) == 0 ? " " + (by + 6) + unit : ""));
            at += 4 + r.nextInt(28);
            if (i + 1 < count && !repeating && r.nextInt(6) == 0 && placed) {
                all.add((by + 3 + r.nextInt(6)) + unit);
            }
        }
        return String.join(", ", all);
    }

    /** Gradients as a stylesheet has them, the same each time. */
    public static List<String> cases() {
        Random r = Generated.random(41);
        List<String> all = new ArrayList<>();
        for (int i = 0; i < CASES; i++) {
            boolean repeating = r.nextInt(4) == 0;
            String space = r.nextInt(4) == 0
                    ? pick(r, "in oklab", "in oklch", "in hsl longer hue", "in srgb", "in srgb-linear", "in lab")
                    : "";
            String place = r.nextInt(3) > 0 ? "at " + r.nextInt(100) + "% " + r.nextInt(42) + "px" : "";
            String kind = pick(r, "linear", "linear", "radial", "conic");
            String shape =
                    switch (kind) {
                        case "linear" ->
                            r.nextBoolean()
                                    ? r.nextInt(720) - 180 + "deg"
                                    : "to "
                                            + pick(
                                                    r,
                                                    "right",
                                                    "top",
                                                    "bottom right",
                                                    "top left",
                                                    "left",
                                                    "bottom left");
                        case "conic" -> (r.nextBoolean() ? "from " + r.nextInt(360) + "deg " : "") + place;
                        default ->
                            switch (r.nextInt(4)) {
                                case 0 ->
                                    pick(r, "circle", "ellipse") + " "
                                            + pick(
                                                    r,
                                                    "closest-side",
                                                    "farthest-side",
                                                    "closest-corner",
                                                    "farthest-corner")
                                            + " " + place;
                                case 1 -> "circle " + (6 + r.nextInt(40)) + "px " + place;
                                case 2 -> (6 + r.nextInt(40)) + "px " + (6 + r.nextInt(30)) + "px " + place;
                                default -> place;
                            };
                    };
            String prelude = (shape.strip() + " " + space).strip();
            all.add((repeating ? "repeating-" : "") + kind + "-gradient(" + (prelude.isEmpty() ? "" : prelude + ", ")
                    + stops(r, kind.equals("conic"), repeating) + ")");
        }
        return all;
    }

    public static String question() {
        return "gradients " + Answers.hash(cases().toArray(String[]::new));
    }

    /** @return the computed value, then a colour in hexadecimal digits for each point, row by row */
    static int[] seen(String answer) {
        String pixels = answer.substring(answer.lastIndexOf(' ') + 1);
        int[] all = new int[pixels.length() / 2];
        for (int i = 0; i < all.length; i++) {
            all[i] = Integer.parseInt(pixels.substring(2 * i, 2 * i + 2), 16);
        }
        return all;
    }

    private static boolean isOnAnEdge(GradientPaint paint, double x, double y, double[] here) {
        double[] beside = new double[4];
        for (double[] by : new double[][] {{1e-4, 0}, {-1e-4, 0}, {0, 1e-4}, {0, -1e-4}}) {
            paint.at(x + by[0], y + by[1], beside);
            for (int k = 0; k < 4; k++) {
                if (Math.abs(beside[k] - here[k]) > 8 / 255.0) {
                    return true;
                }
            }
        }
        return false;
    }

    @Tag("generated")
    @Test
    void coloursAgreeWithChromium() {
        List<String> answers = Answers.read("gradients").to(question());
        List<String> far = new ArrayList<>();
        double sum = 0;
        for (String answer : answers) {
            String computed = answer.substring(0, answer.lastIndexOf(' '));
            Image image = Image.read(ComponentValue.read(computed).get(0));
            assertThat(image).as(computed).isInstanceOf(Image.Gradient.class);
            GradientPaint paint = new GradientPaint((Image.Gradient) image, WIDTH, HEIGHT);
            int[] seen = seen(answer);
            double[] c = new double[4];
            double off = 0;
            int left = 0;
            int i = 0;
            for (int y = 0; y < HEIGHT; y += STEP) {
                for (int x = 0; x < WIDTH; x += STEP) {
                    paint.at(x + 0.5, y + 0.5, c);
                    // An edge right through the middle of a pixel is on this side of it or on the other.
                    boolean onAnEdge = isOnAnEdge(paint, x + 0.5, y + 0.5, c);
                    for (int k = 0; k < 3; k++, i++) {
                        off += onAnEdge ? 0 : Math.abs((c[k] + 1 - c[3]) * 255 - seen[i]);
                        left += onAnEdge ? 1 : 0;
                    }
                }
            }
            assertThat(left).as("points that are left out of %s", computed).isLessThan(seen.length / 4);
            double mean = off / (seen.length - left);
            sum += mean;
            if (mean >= 1) {
                far.add(String.format("%.2f %s", mean, computed));
            }
        }
        assertThat(answers).hasSize(CASES);
        assertThat(sum / answers.size())
                .as("mean difference of all, in levels of 255")
                .isLessThan(0.6);
        // Chromium draws a polar space and a hint by a few straight stretches, and an ellipse of no width in its own
        // way.
        List<String> named = far.stream()
                .filter(f -> f.contains("in oklch")
                        || f.contains("in hsl")
                        || f.matches(".*, -?\\d+(%|px|deg), .*")
                        || f.matches(".*closest-(corner|side) at [^,]*\\b(0%|0px|100%).*"))
                .toList();
        assertThat(far)
                .as("off by a level or more on average, and not for a cause that is known")
                .isSubsetOf(named);
        assertThat(named).hasSizeLessThanOrEqualTo(Generated.LONG ? CASES / 20 : 13);
    }
}

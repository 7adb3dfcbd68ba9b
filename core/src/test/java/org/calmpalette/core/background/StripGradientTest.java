package org.calmpalette.core.background;

import static org.assertj.core.api.Assertions.assertThat;

import java.awt.image.BufferedImage;
import java.util.function.IntUnaryOperator;
import org.calmpalette.core.picture.Pixels;
import org.calmpalette.core.value.ComponentValue;
import org.calmpalette.core.value.Image;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Strips as gradients, checked with the painting of gradients, which is itself checked against Chromium's pixels. */
class StripGradientTest {
    private static Pixels strip(int width, int height, boolean down, IntUnaryOperator argb) {
        BufferedImage image = new BufferedImage(width, height, BufferedImage.TYPE_INT_ARGB);
        for (int x = 0; x < width; x++) {
            for (int y = 0; y < height; y++) {
                image.setRGB(x, y, argb.applyAsInt(down ? y : x));
            }
        }
        return Pixels.of(image);
    }

    private static int mixed(int a, int b, double share) {
        int all = 0;
        for (int shift = 0; shift < 32; shift += 8) {
            int x = a >>> shift & 255;
            int y = b >>> shift & 255;
            all |= (int) Math.round(x + (y - x) * share) << shift;
        }
        return all;
    }

    /** How far the gradient's own painting is from the picture at most, in levels of 255. */
    private static double painted(StripGradient g, Pixels picture) {
        Image.Gradient gradient =
                (Image.Gradient) Image.read(ComponentValue.read(g.css()).get(0));
        GradientPaint paint = new GradientPaint(gradient, picture.width(), picture.height());
        double[] ours = new double[4];
        double[] theirs = new double[4];
        double worst = 0;
        for (int x = 0; x < picture.width(); x++) {
            for (int y = 0; y < picture.height(); y++) {
                paint.at(x + 0.5, y + 0.5, ours);
                picture.at(x + 0.5, y + 0.5, 1, theirs);
                for (int k = 0; k < 4; k++) {
                    worst = Math.max(worst, 255 * Math.abs(ours[k] - theirs[k]));
                }
            }
        }
        return worst;
    }

    @Test
    void aRampOfTwoColoursIsTwoColours() {
        Pixels strip = strip(4, 40, true, i -> mixed(0xff284050, 0xff1f3347, i / 39.0));
        StripGradient g = StripGradient.of(strip).orElseThrow();
        assertThat(g.css()).isEqualTo("linear-gradient(#284050, #1f3347)");
        assertThat(g.size()).isEqualTo("100% 40px");
        assertThat(painted(g, strip)).isLessThan(1.6);
    }

    @ParameterizedTest
    @CsvSource({"1, 60, true", "60, 1, false", "3, 60, true"})
    void hardEdgesAndSeveralStretchesStayWhereTheyAre(int width, int height, boolean down) {
        // A light line of two pixels at the start, an even stretch, and a ramp to a translucent end.
        Pixels strip = strip(
                width,
                height,
                down,
                i -> i < 2 ? 0xffffffff : i < 30 ? 0xff336699 : mixed(0xff336699, 0x00336699, (i - 30) / 29.0));
        StripGradient g = StripGradient.of(strip).orElseThrow();
        assertThat(g.css()).startsWith(down ? "linear-gradient(#ffffff" : "linear-gradient(to right, #ffffff");
        assertThat(g.size()).isEqualTo(down ? "100% 60px" : "60px 100%");
        assertThat(painted(g, strip)).as(g.css()).isLessThan(2.2);
    }

    @Test
    void whatIsNoStripIsNone() {
        BufferedImage photo = new BufferedImage(20, 20, BufferedImage.TYPE_INT_RGB);
        for (int i = 0; i < 400; i++) {
            photo.setRGB(i % 20, i / 20, i * 7919);
        }
        assertThat(StripGradient.of(Pixels.of(photo))).isEmpty();
        assertThat(StripGradient.of(strip(1, 200, true, i -> i * 2654435 | 0xff000000)))
                .as("too many colours")
                .isEmpty();
        assertThat(StripGradient.of(strip(1, 1, true, i -> -1))).isEmpty();
    }
}

package org.calmpalette.core.background;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Random;
import org.calmpalette.core.Generated;
import org.calmpalette.core.paint.Paint.Veil;
import org.calmpalette.core.value.ComponentValue;
import org.calmpalette.core.value.Image;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Colours of gradients at single points: the rules of CSS Images 3, sections 3.1 to 3.5, reckoned by hand for a tile of 200 by 100 px. */
class GradientPaintTest {
    /** Red stands for how far it is along the line: from black to red. */
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "linear-gradient(90deg, rgb(0,0,0), rgb(255,0,0)) | 50 | 50 | 0.25",
                "linear-gradient(rgb(0,0,0), rgb(255,0,0)) | 50 | 75 | 0.75",
                "linear-gradient(0deg, rgb(0,0,0), rgb(255,0,0)) | 50 | 75 | 0.25",
                "linear-gradient(to right bottom, rgb(0,0,0), rgb(255,0,0)) | 200 | 0 | 0.5",
                "linear-gradient(to right bottom, rgb(0,0,0), rgb(255,0,0)) | 0 | 100 | 0.5",
                "linear-gradient(90deg, rgb(0,0,0) 50px, rgb(255,0,0) 75%) | 100 | 0 | 0.5",
                "linear-gradient(90deg, rgb(0,0,0) 50px, rgb(255,0,0) 75%) | 20 | 0 | 0",
                "linear-gradient(90deg, rgb(0,0,0), rgb(0,0,0) 60%, rgb(255,0,0) 20%) | 121 | 0 | 1",
                "linear-gradient(90deg, rgb(0,0,0), 25%, rgb(255,0,0)) | 50 | 0 | 0.5",
                "repeating-linear-gradient(90deg, rgb(0,0,0) 0px, rgb(255,0,0) 40px) | 130 | 0 | 0.25",
                "radial-gradient(circle at 50px 50px, rgb(0,0,0), rgb(255,0,0) 100px) | 50 | 0 | 0.5",
                "radial-gradient(closest-side, rgb(0,0,0), rgb(255,0,0)) | 150 | 50 | 0.5",
                "radial-gradient(farthest-corner, rgb(0,0,0), rgb(255,0,0)) | 200 | 100 | 1",
                "conic-gradient(rgb(0,0,0), rgb(255,0,0)) | 200 | 50 | 0.25",
                "conic-gradient(from 90deg at 0px 0px, rgb(0,0,0), rgb(255,0,0)) | 0 | 50 | 0.25"
            })
    void places(String gradient, double x, double y, double red) {
        GradientPaint paint = new GradientPaint(
                (Image.Gradient) Image.read(ComponentValue.read(gradient).get(0)), 200, 100);
        double[] c = new double[4];
        paint.at(x, y, c);
        assertThat(c[0]).isCloseTo(red, within(0.004));
        assertThat(c[3]).isEqualTo(1);
    }

    /** What is told of a rectangle holds every point of it, in a tile of another size too; and is not the whole gradient where it is a part. */
    @ParameterizedTest
    @ValueSource(
            strings = {
                "linear-gradient(37deg, rgb(0,0,0), rgb(255,0,0) 40%, rgb(0 0 255 / 20%))",
                "linear-gradient(rgb(0 0 0 / 0), 30%, rgb(255,255,0))",
                "repeating-linear-gradient(90deg, rgb(0,0,0) 5%, rgb(255,0,0) 30%)",
                "repeating-radial-gradient(circle, rgb(0,0,0), rgb(0,200,0) 12%)",
                "radial-gradient(ellipse at 20% 80%, rgb(0,0,0) 10%, rgb(255,0,0) 50%, rgb(0 0 0 / 0))",
                "conic-gradient(from 30deg, rgb(0,0,0), rgb(255,0,0))"
            })
    void aRectangleHoldsItsPoints(String gradient) {
        Random random = Generated.random(17);
        GradientPaint made = GradientPaint.ofAnySize(
                        (Image.Gradient)
                                Image.read(ComponentValue.read(gradient).get(0)),
                        200,
                        100)
                .orElseThrow();
        double[] c = new double[4];
        int narrower = 0;
        for (int n = 0; n < 300; n++) {
            double width = 50 + random.nextInt(500);
            double height = 50 + random.nextInt(300);
            GradientPaint paint = made.sized(width, height);
            double left = random.nextDouble() * width;
            double top = random.nextDouble() * height;
            double right = left + random.nextDouble() * (width - left) / 3;
            double bottom = top + random.nextDouble() * (height - top) / 3;
            Veil veil = paint.between(left, top, right, bottom);
            narrower += veil.densest() - veil.thinnest() < 0.5
                            && veil.colors().high()[0] - veil.colors().low()[0] < 0.8
                    ? 1
                    : 0;
            for (int i = 0; i < 40; i++) {
                paint.at(left + random.nextDouble() * (right - left), top + random.nextDouble() * (bottom - top), c);
                assertThat(c[3]).isBetween(veil.thinnest() - 1e-9, veil.densest() + 1e-9);
                for (int k = 0; c[3] > 0 && k < 3; k++) {
                    assertThat(c[k] / c[3])
                            .as("%s in %s x %s", gradient, width, height)
                            .isBetween(
                                    veil.colors().low()[k] - 1e-6, veil.colors().high()[k] + 1e-6);
                }
            }
        }
        if (!gradient.startsWith("conic")) {
            assertThat(narrower).isGreaterThan(30);
        }
    }
}

package org.calmpalette.core.background;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import org.calmpalette.core.value.ComponentValue;
import org.calmpalette.core.value.Image;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

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
}

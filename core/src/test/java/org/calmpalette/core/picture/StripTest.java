package org.calmpalette.core.picture;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.util.List;
import javax.imageio.ImageIO;
import org.calmpalette.core.background.GradientPaint;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.value.ComponentValue;
import org.calmpalette.core.value.Image;
import org.junit.jupiter.api.Test;

class StripTest {
    private static Color color(String text) {
        return Color.parse(text).orElseThrow();
    }

    private static BufferedImage image(Strip strip) throws IOException {
        return ImageIO.read(new ByteArrayInputStream(strip.png()));
    }

    @Test
    void aGradientRunsFromEndToEnd() throws IOException {
        Strip strip = Strip.gradient(true, 100, 1, List.of(color("#000000"), color("#ffffff")));
        BufferedImage image = image(strip);
        assertThat(image.getWidth()).isEqualTo(1);
        assertThat(image.getHeight()).isEqualTo(100);
        assertThat(image.getRGB(0, 0) & 255).isEqualTo(1);
        assertThat(image.getRGB(0, 49) & 255).isEqualTo(126);
        assertThat(image.getRGB(0, 99) & 255).isEqualTo(254);
        assertThat(strip.css()).isEqualTo("repeating-linear-gradient(#000000 0px, #ffffff 100px)");
        assertThat(strip.png()).isEqualTo(strip.png()).hasSizeLessThan(500);
    }

    /** Of a translucent end only its own share of colour is seen on the way: premultiplied, CSS Images 3, section 3.4.2. */
    @Test
    void whatLetsThroughIsMixedPremultiplied() throws IOException {
        BufferedImage image = image(Strip.gradient(false, 2, 3, List.of(color("rgb(255 0 0 / 0)"), color("#0000ff"))));
        assertThat(image.getWidth()).isEqualTo(2);
        assertThat(image.getHeight()).isEqualTo(3);
        assertThat(Integer.toHexString(image.getRGB(0, 2))).isEqualTo("400000ff");
        assertThat(Integer.toHexString(image.getRGB(1, 0))).isEqualTo("bf0000ff");
    }

    @Test
    void linesAreSharp() throws IOException {
        Strip strip = Strip.lines(true, 8, 2, 1, color("#102030"), color("#fff8"));
        BufferedImage image = image(strip);
        assertThat(Integer.toHexString(image.getRGB(0, 1))).isEqualTo("ff102030");
        assertThat(Integer.toHexString(image.getRGB(0, 2))).isEqualTo("88ffffff");
        assertThat(Integer.toHexString(image.getRGB(0, 7))).isEqualTo("88ffffff");
    }

    /** The twin shows the same: reckoned by what is held to Chromium's gradients. */
    @Test
    void theGradientInCssShowsTheSame() throws IOException {
        for (Strip strip : List.of(
                Strip.gradient(true, 40, 1, List.of(color("#203850"), color("#d8a13c80"), color("#fff"))),
                Strip.lines(true, 7, 3, 1, color("#102030"), color("#fff8")))) {
            BufferedImage image = image(strip);
            Image read = Image.read(ComponentValue.read(strip.css()).get(0));
            GradientPaint paint = new GradientPaint((Image.Gradient) read, 1, strip.length());
            double[] seen = new double[4];
            for (int y = 0; y < strip.length(); y++) {
                paint.at(0.5, y + 0.5, seen);
                int argb = image.getRGB(0, y);
                double alpha = (argb >>> 24) / 255.0;
                assertThat(seen[3]).as("alpha " + y).isCloseTo(alpha, within(0.6 / 255));
                assertThat(seen[0]).as("red " + y).isCloseTo((argb >> 16 & 255) / 255.0 * alpha, within(1.5 / 255));
            }
        }
    }

    @Test
    void whatIsNoStripIsRefusedWithWhatWouldBe() {
        assertThatThrownBy(() -> Strip.gradient(true, 0, 1, List.of(Color.BLACK)))
                .hasMessageContaining("0 px");
        assertThatThrownBy(() -> Strip.gradient(true, 10, 17, List.of(Color.BLACK)))
                .hasMessageContaining("17 px");
        assertThatThrownBy(() -> Strip.gradient(true, 10, 1, List.of())).hasMessageContaining("1 to");
        assertThatThrownBy(() -> Strip.lines(true, 4, 4, 1, Color.BLACK, Color.WHITE))
                .hasMessageContaining("does not fit");
    }
}

package org.calmpalette.core.picture;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.awt.Color;
import java.awt.Graphics2D;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.util.Random;
import javax.imageio.ImageIO;
import org.calmpalette.core.BadInputException;
import org.junit.jupiter.api.Test;

/** Pixels of a picture, leading colours, and pictures that are written anew. */
class PixelsTest {
    private static BufferedImage halves(int width, int height, int left, int right) {
        BufferedImage image = new BufferedImage(width, height, BufferedImage.TYPE_INT_ARGB);
        for (int y = 0; y < height; y++) {
            for (int x = 0; x < width; x++) {
                image.setRGB(x, y, x < width / 2 ? left : right);
            }
        }
        return image;
    }

    private static byte[] bytes(BufferedImage image, String format) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        ImageIO.write(image, format, out);
        return out.toByteArray();
    }

    private static byte[] noise(int width, int height) throws IOException {
        Random random = new Random(3);
        BufferedImage image = new BufferedImage(width, height, BufferedImage.TYPE_INT_RGB);
        for (int y = 0; y < height; y++) {
            for (int x = 0; x < width; x++) {
                image.setRGB(x, y, random.nextInt(0x1000000));
            }
        }
        return bytes(image, "jpeg");
    }

    @Test
    void betweenPixelsColoursMix() {
        Pixels p = Pixels.of(halves(4, 4, 0xff000000, 0xffffffff));
        double[] c = new double[4];
        p.at(0.5, 2, 1, c);
        assertThat(c[0]).isZero();
        p.at(2, 2, 1, c);
        assertThat(c[0]).as("on the edge between black and white").isCloseTo(0.5, within(1e-6));
        p.at(100, -5, 1, c);
        assertThat(c[0]).as("beyond an edge the pixel at the edge counts").isEqualTo(1);
        p.at(2, 2, 0.25, c);
        assertThat(c[0]).as("drawn as one pixel").isCloseTo(0.5, within(1e-6));
        assertThat(p.middle().hex()).isEqualTo("#808080");
        assertThat(p.hasAlpha()).isFalse();
    }

    @Test
    void whatLetsThroughIsMixedWithWhatItShows() {
        Pixels p = Pixels.of(halves(2, 2, 0x00ff0000, 0xff0000ff));
        double[] c = new double[4];
        p.at(1, 1, 1, c);
        assertThat(c).as("no red from what is not seen").containsExactly(new double[] {0, 0, 0.5, 0.5}, within(1e-6));
        assertThat(p.middle().hex()).isEqualTo("#0000ff");
        assertThat(p.hasAlpha()).isTrue();
    }

    @Test
    void whatIsNoPictureOrBrokenIsEmpty() throws IOException {
        byte[] png = bytes(halves(40, 40, 0xff000000, 0xffffffff), "png");
        assertThat(Pixels.read(png)).map(Pixels::width).contains(40);
        assertThat(Pixels.read("<svg/>".getBytes())).isEmpty();
        assertThat(Pixels.read(new byte[0])).isEmpty();
        assertThat(Pixels.read(java.util.Arrays.copyOf(png, 60))).isEmpty();
    }

    @Test
    void aLargePictureIsReadInCoarserPixelsAndKeepsItsSize() throws IOException {
        BufferedImage large = new BufferedImage(3000, 2000, BufferedImage.TYPE_INT_RGB);
        Graphics2D g = large.createGraphics();
        g.setColor(Color.RED);
        g.fillRect(1500, 0, 1500, 2000);
        g.dispose();
        Pixels p = Pixels.read(bytes(large, "png")).orElseThrow();
        assertThat(p.width()).isEqualTo(3000);
        assertThat(p.weight()).as("bytes").isLessThan(4L * 4 * 4_000_000 * 2);
        double[] c = new double[4];
        p.at(2000, 1000, 1, c);
        assertThat(c[0]).isEqualTo(1);
        p.at(1000, 1000, 1, c);
        assertThat(c[0]).isZero();
    }

    @Test
    void leadingColoursAreThoseOfTheMostPixels() {
        BufferedImage image = halves(100, 60, 0xff204060, 0xff204060);
        Graphics2D g = image.createGraphics();
        g.setColor(new Color(0xd8a13c));
        g.fillRect(0, 0, 30, 60);
        g.dispose();
        var found = LeadingColors.of(Pixels.of(image), 6);
        assertThat(found).extracting(c -> c.color().hex()).containsExactly("#204060", "#d8a13c");
        assertThat(found.get(0).share()).isCloseTo(0.7, within(0.03));
        assertThat(LeadingColors.of(Pixels.of(halves(4, 4, 0, 0)), 6))
                .as("nothing is seen")
                .isEmpty();
    }

    @Test
    void lighterKeepsItsShapeAndIsTheSameEachTime() throws IOException {
        byte[] before = noise(800, 400);
        byte[] light = Lighter.of("a/dusk.JPG", before, 300, 60);
        assertThat(PictureSize.read(light)).contains(new PictureSize(300, 150));
        assertThat(light.length).isLessThan(before.length / 4);
        assertThat(Lighter.of("a/dusk.JPG", before, 300, 60)).isEqualTo(light);
        assertThat(PictureSize.read(Lighter.of("a.jpg", before, 5000, 60)))
                .as("none is made larger")
                .contains(new PictureSize(800, 400));
        BufferedImage translucent = ImageIO.read(
                new ByteArrayInputStream(Lighter.of("a.png", bytes(halves(40, 40, 0, 0xff0000ff), "png"), 20, 80)));
        assertThat(translucent.getRGB(2, 2) >>> 24).as("alpha is kept").isZero();
    }

    @Test
    void whatCannotBeWrittenIsRefusedInWords() throws IOException {
        byte[] picture = noise(20, 20);
        assertThatThrownBy(() -> Lighter.of("a.avif", picture, 10, 80))
                .isInstanceOf(BadInputException.class)
                .hasMessage("a.avif is neither a JPEG nor a PNG nor a WebP, and only these are written here.");
        assertThatThrownBy(() -> Lighter.of("a.jpg", picture, 0, 80))
                .hasMessage("A width of 0 pixels is none for a picture.");
        assertThatThrownBy(() -> Lighter.of("a.jpg", picture, 10, 10)).hasMessage("A quality of 10 is out of bounds.");
        assertThatThrownBy(() -> Lighter.of("a.jpg", new byte[] {1, 2, 3}, 10, 80))
                .hasMessageStartingWith("The picture a.jpg cannot be read here");
    }
}

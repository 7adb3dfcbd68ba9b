package org.calmpalette.core.picture;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.util.Arrays;
import javax.imageio.IIOImage;
import javax.imageio.ImageIO;
import javax.imageio.ImageReader;
import javax.imageio.metadata.IIOMetadata;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.color.Tint;
import org.junit.jupiter.api.Test;

/** What is written in formats other than JPEG and PNG. */
class FormatsTest {
    private static final PictureEdit RED = new PictureEdit.Recolored(new Tint(
            Tint.Way.of("over"),
            Color.parse("#ff0000").orElseThrow(),
            Color.parse("#fff").orElseThrow(),
            50));

    /** Soft hills under a sky, as a photograph has them, with a hole that lets through. */
    private static BufferedImage hills(int width, int height, boolean hole) {
        BufferedImage image =
                new BufferedImage(width, height, hole ? BufferedImage.TYPE_INT_ARGB : BufferedImage.TYPE_INT_RGB);
        for (int y = 0; y < height; y++) {
            for (int x = 0; x < width; x++) {
                boolean hill = y > height * (0.6 + 0.1 * Math.sin(x * 9.0 / width));
                int shade = (int) (90 + 60.0 * y / height + 8 * Math.sin(x * 0.7 + y * 1.3));
                int alpha = hole && x < width / 4 ? 0 : 255;
                image.setRGB(x, y, alpha << 24 | shade << 16 | (hill ? shade / 2 : shade) << 8 | (hill ? 40 : 150));
            }
        }
        return image;
    }

    private static byte[] encoded(BufferedImage image, String format) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        ImageIO.write(image, format, out);
        return out.toByteArray();
    }

    private static BufferedImage decoded(byte[] bytes) throws IOException {
        try (var in = ImageIO.createImageInputStream(new ByteArrayInputStream(bytes))) {
            ImageReader reader = Engine.reader(in).orElseThrow();
            reader.setInput(in);
            return reader.read(0);
        }
    }

    private static double meanError(BufferedImage a, BufferedImage b) {
        double sum = 0;
        for (int y = 0; y < a.getHeight(); y++) {
            for (int x = 0; x < a.getWidth(); x++) {
                for (int shift = 0; shift < 24; shift += 8) {
                    sum += Math.abs((a.getRGB(x, y) >> shift & 255) - (b.getRGB(x, y) >> shift & 255));
                }
            }
        }
        return sum / (3.0 * a.getWidth() * a.getHeight());
    }

    @Test
    void webpIsLighterThanJpegAtTheSameErrorAndTheSameEachTime() throws IOException {
        BufferedImage hills = hills(600, 400, false);
        byte[] png = encoded(hills, "png");
        byte[] webp = Lighter.asWebp("a.png", png, 600, 80);
        assertThat(new String(webp, 0, 4) + new String(webp, 8, 4)).isEqualTo("RIFFWEBP");
        assertThat(PictureSize.read(webp)).contains(new PictureSize(600, 400));
        assertThat(Lighter.asWebp("a.png", png, 600, 80)).isEqualTo(webp);
        // RFC 9649, section 3: lossy, so near the picture and not the picture itself.
        assertThat(meanError(hills, decoded(webp))).isBetween(0.1, 4.0);
        assertThat(Lighter.asWebp("a.png", png, 600, 40).length).isLessThan(webp.length);
        assertThat(PictureSize.read(Lighter.asWebp("a.png", png, 150, 80))).contains(new PictureSize(150, 100));
    }

    @Test
    void webpLetsThroughWhatLetThrough() throws IOException {
        BufferedImage out = decoded(Lighter.asWebp("a.png", encoded(hills(80, 40, true), "png"), 80, 90));
        assertThat(out.getRGB(5, 20) >>> 24).isZero();
        assertThat(out.getRGB(60, 20) >>> 24).isEqualTo(255);
        BufferedImage red = decoded(
                Lighter.edited("a.webp", Lighter.asWebp("a.png", encoded(hills(80, 40, true), "png"), 80, 95), RED));
        assertThat(red.getRGB(60, 4) >> 16 & 255).isGreaterThan(160);
        assertThat(red.getRGB(5, 20) >>> 24).isZero();
    }

    /** A decoder that is native code would be a fault in our process at a stranger's file. */
    @Test
    void strangersPicturesAreReadInJava() throws IOException {
        byte[] webp = Lighter.asWebp("a.png", encoded(hills(20, 20, false), "png"), 20, 80);
        try (var in = ImageIO.createImageInputStream(new ByteArrayInputStream(webp))) {
            assertThat(Engine.reader(in).orElseThrow().getClass().getName()).startsWith("com.twelvemonkeys.");
        }
        ImageIO.getImageReadersByFormatName("webp")
                .forEachRemaining(r -> assertThat(r.getClass().getName()).doesNotContain("luciad"));
    }

    /** With one more chunk behind the header of a PNG. */
    private static byte[] with(byte[] png, byte[] chunk) {
        return ByteBuffer.allocate(png.length + chunk.length)
                .put(png, 0, 33)
                .put(chunk)
                .put(png, 33, png.length - 33)
                .array();
    }

    @Test
    void whatMovesIsNotMadeStill() throws IOException {
        byte[] still = encoded(hills(30, 20, false), "png");
        byte[] control = ByteBuffer.allocate(20)
                .putInt(8)
                .put("acTL".getBytes())
                .putInt(2)
                .putInt(0)
                .putInt(0)
                .array();
        byte[] moving = with(still, control);
        assertThatThrownBy(() -> Lighter.of("a.png", moving, 20, 80)).hasMessageContaining("is a picture that moves");
        // Behind a long profile of colours it moves no less, and words about it do not make a picture move.
        byte[] words = new byte[8_012];
        ByteBuffer.wrap(words).putInt(8_000).put("tEXtacTL".getBytes());
        assertThatThrownBy(() -> Lighter.checkStill("a.png", with(moving, words)))
                .hasMessageContaining("is a picture that moves");
        Lighter.checkStill("a.png", with(still, words));
        Lighter.checkStill("a.png", Arrays.copyOf(still, 35));
        Lighter.checkStill("a.webp", "RIFF\40\0\0\0WEBPVP8X".getBytes("ISO-8859-1"));
        byte[] webp = Arrays.copyOf("RIFF\40\0\0\0WEBPVP8X\12\0\0\0\2".getBytes("ISO-8859-1"), 64);
        assertThatThrownBy(() -> Lighter.checkStill("a.webp", webp)).isInstanceOf(BadInputException.class);
        webp[20] = 16;
        Lighter.checkStill("a.webp", webp);
    }

    /** Two pictures, the second with a table of its own. */
    private static byte[] movingGif() throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        var writer = ImageIO.getImageWritersByFormatName("gif").next();
        try (var stream = ImageIO.createImageOutputStream(out)) {
            writer.setOutput(stream);
            writer.prepareWriteSequence(null);
            for (int rgb : new int[] {0x336699, 0x00cc00}) {
                BufferedImage one = new BufferedImage(8, 8, BufferedImage.TYPE_INT_RGB);
                for (int i = 0; i < 64; i++) {
                    one.setRGB(i % 8, i / 8, i < 32 ? rgb : 0xffffff);
                }
                writer.writeToSequence(new IIOImage(one, null, (IIOMetadata) null), null);
            }
            writer.endWriteSequence();
        }
        return out.toByteArray();
    }

    @Test
    void aGifThatMovesGoesOnMovingInOtherColours() throws IOException {
        byte[] before = movingGif();
        byte[] after = Lighter.edited("a.GIF", before, RED);
        assertThat(after).hasSameSizeAs(before);
        try (var in = ImageIO.createImageInputStream(new ByteArrayInputStream(after))) {
            ImageReader reader = Engine.reader(in).orElseThrow();
            reader.setInput(in);
            assertThat(reader.getNumImages(true)).isEqualTo(2);
            // Source-over at a half, Compositing 1, section 5.1.
            assertThat(Integer.toHexString(reader.read(0).getRGB(0, 0))).isEqualTo("ff99334d");
            assertThat(Integer.toHexString(reader.read(1).getRGB(0, 0))).isEqualTo("ff806600");
            assertThat(Integer.toHexString(reader.read(1).getRGB(0, 7))).isEqualTo("ffff8080");
        }
        for (int length = 0; length < before.length; length++) {
            byte[] cut = Arrays.copyOf(before, length);
            assertThatThrownBy(() -> Lighter.edited("a.gif", cut, RED))
                    .as("%d bytes", length)
                    .isInstanceOf(BadInputException.class)
                    .hasMessageContaining("no whole GIF");
        }
    }
}

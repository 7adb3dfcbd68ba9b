package org.calmpalette.core.picture;

import static org.assertj.core.api.Assertions.assertThat;

import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import javax.imageio.ImageIO;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Pictures made smaller, beside what libvips makes of the same one; {@code pictures/resize.mjs} wrote its answers down. */
class ResizeTest {
    private static byte[] file(String name) throws IOException {
        try (InputStream in = ResizeTest.class.getResourceAsStream("/pictures/" + name)) {
            return in.readAllBytes();
        }
    }

    private static BufferedImage image(byte[] bytes) throws IOException {
        return ImageIO.read(new ByteArrayInputStream(bytes));
    }

    /** Of premultiplied colours and alpha, in levels of 255: what is not seen does not count. */
    private static double meanError(BufferedImage a, BufferedImage b) {
        double sum = 0;
        for (int y = 0; y < a.getHeight(); y++) {
            for (int x = 0; x < a.getWidth(); x++) {
                int p = a.getRGB(x, y);
                int q = b.getRGB(x, y);
                for (int shift = 0; shift < 32; shift += 8) {
                    sum += Math.abs(seen(p, shift) - seen(q, shift));
                }
            }
        }
        return sum / (4.0 * a.getWidth() * a.getHeight());
    }

    private static double seen(int pixel, int shift) {
        int level = pixel >>> shift & 255;
        return shift == 24 ? level : level * (pixel >>> 24) / 255.0;
    }

    /** As small a difference as that between two good kernels: leaving pixels out is several times as far away. */
    @ParameterizedTest
    @CsvSource({"220, 2.5", "150, 2", "60, 2.5"})
    void smallerPicturesAreNearThoseOfLibvips(int width, double most) throws IOException {
        byte[] source = file("resize.png");
        BufferedImage theirs = image(file("resize-" + width + ".png"));
        BufferedImage ours = image(Lighter.of("a.png", source, width, 80));
        assertThat(ours.getWidth()).isEqualTo(theirs.getWidth());
        assertThat(ours.getHeight()).isEqualTo(theirs.getHeight());
        double error = meanError(ours, theirs);
        BufferedImage whole = image(source);
        BufferedImage rough = new BufferedImage(width, ours.getHeight(), BufferedImage.TYPE_INT_ARGB);
        for (int y = 0; y < rough.getHeight(); y++) {
            for (int x = 0; x < width; x++) {
                rough.setRGB(x, y, whole.getRGB(x * 300 / width, y * 200 / rough.getHeight()));
            }
        }
        assertThat(error).isLessThan(most).isLessThan(meanError(rough, theirs) / 3);
    }
}

package org.calmpalette.core.chromium;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.InputStream;
import java.util.Arrays;
import java.util.List;
import org.calmpalette.core.Generated;
import org.calmpalette.core.picture.PictureSize;
import org.calmpalette.core.picture.Pixels;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** WebP pictures, made by {@code pictures/webp.mjs}, against the pixels that Chromium shows. */
public class WebpTest {
    public static final List<String> PICTURES =
            List.of("lossy.webp", "lossy-alpha.webp", "lossless.webp", "lossless-alpha.webp");

    public static byte[] bytes(String name) throws IOException {
        try (InputStream in = WebpTest.class.getResourceAsStream("/pictures/" + name)) {
            return in.readAllBytes();
        }
    }

    /**
     * Lossless ones to the last bit but one (alpha is multiplied in here). Of lossy ones Chromium draws the colour between the
     * samples of chroma smoothly and the library does not, so at hard edges of colour single pixels differ more.
     */
    @ParameterizedTest
    @CsvSource({
        "lossy.webp, 1.1, 40",
        "lossy-alpha.webp, 1.1, 40",
        "lossless.webp, 0.1, 1",
        "lossless-alpha.webp, 0.1, 1"
    })
    void pixelsAreThoseThatChromiumShows(String name, double mean, int most) throws IOException {
        String[] answer =
                Answers.read("webp").to("pixels").get(PICTURES.indexOf(name)).split(" ");
        Pixels ours = Pixels.read(bytes(name)).orElseThrow();
        assertThat(ours.width() + "x" + ours.height()).isEqualTo(answer[0]);
        double sum = 0;
        double largest = 0;
        double[] p = new double[4];
        for (int i = 0; i < ours.width() * ours.height(); i++) {
            ours.at(i % ours.width() + 0.5, i / ours.width() + 0.5, 1, p);
            int alpha = Integer.parseInt(answer[1].substring(i * 8 + 6, i * 8 + 8), 16);
            for (int c = 0; c < 4; c++) {
                int theirs = Integer.parseInt(answer[1].substring(i * 8 + c * 2, i * 8 + c * 2 + 2), 16);
                double difference = Math.abs(p[c] * 255 - (c == 3 ? alpha : theirs * alpha / 255.0));
                sum += difference;
                largest = Math.max(largest, difference);
            }
        }
        assertThat(sum / (ours.width() * ours.height() * 4))
                .as("mean, in levels of 255")
                .isLessThan(mean);
        assertThat(largest).as("the farthest, in levels of 255").isLessThanOrEqualTo(most);
    }

    /** The AVIF was made by sharp 0.35.5 (libvips), quality 40, from the lossless WebP with alpha: two images, of colour and of alpha. */
    @Test
    void sizesAreReadFromTheHeader() throws IOException {
        for (String name : PICTURES) {
            assertThat(PictureSize.read(bytes(name))).as(name).contains(new PictureSize(97, 61));
        }
        byte[] avif = bytes("alpha.avif");
        assertThat(PictureSize.read(avif)).contains(new PictureSize(97, 61));
        assertThat(Pixels.read(avif)).as("sized, not decoded").isEmpty();
        assertThat(PictureSize.read(Arrays.copyOf(avif, 40))).as("cut off").isEmpty();
    }

    @Test
    void brokenOnesAreNoPictureAndNeverAnythingElse() throws IOException {
        for (String name : PICTURES) {
            byte[] whole = bytes(name);
            for (int cut = 0; cut < whole.length; cut += whole.length / Generated.times(6)) {
                Pixels.read(Arrays.copyOf(whole, cut));
                byte[] wrong = whole.clone();
                wrong[cut] ^= 0x5a;
                Pixels.read(wrong);
                PictureSize.read(wrong);
            }
            assertThat(Pixels.read(Arrays.copyOf(whole, 20))).as(name).isEmpty();
        }
    }
}

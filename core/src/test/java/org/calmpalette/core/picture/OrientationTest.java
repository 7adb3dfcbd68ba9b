package org.calmpalette.core.picture;

import static org.assertj.core.api.Assertions.assertThat;

import java.awt.Color;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Random;
import java.util.TreeMap;
import javax.imageio.ImageIO;
import org.calmpalette.core.survey.Finding;
import org.calmpalette.core.survey.Survey;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.ThemeFiles;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class OrientationTest {
    private static final Color[] QUARTERS = {
        new Color(200, 40, 40), new Color(40, 180, 40), new Color(40, 60, 200), new Color(200, 180, 40)
    };

    /** A photograph that is grainy, so that it is heavy, with a quarter of each colour in its pixels. */
    private static byte[] photograph(int width, int height, int orientation) throws IOException {
        BufferedImage image = new BufferedImage(width, height, BufferedImage.TYPE_INT_RGB);
        Random grain = new Random(4);
        for (int y = 0; y < height; y++) {
            for (int x = 0; x < width; x++) {
                Color c = QUARTERS[(y < height / 2 ? 0 : 2) + (x < width / 2 ? 0 : 1)];
                int g = grain.nextInt(60) - 30;
                image.setRGB(
                        x,
                        y,
                        new Color(
                                        Math.max(0, c.getRed() + g - 15),
                                        Math.max(0, c.getGreen() + g - 15),
                                        Math.max(0, c.getBlue() + g - 15))
                                .getRGB());
            }
        }
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        var writer = ImageIO.getImageWritersByFormatName("jpeg").next();
        var param = writer.getDefaultWriteParam();
        param.setCompressionMode(javax.imageio.ImageWriteParam.MODE_EXPLICIT);
        param.setCompressionQuality(0.97f);
        try (var stream = ImageIO.createImageOutputStream(out)) {
            writer.setOutput(stream);
            writer.write(null, new javax.imageio.IIOImage(image, null, null), param);
        }
        byte[] plain = out.toByteArray();
        // An APP1 segment with a TIFF header and one entry: tag 274, a short.
        byte[] exif = {
            (byte) 0xFF,
            (byte) 0xE1,
            0,
            34,
            'E',
            'x',
            'i',
            'f',
            0,
            0,
            'M',
            'M',
            0,
            42,
            0,
            0,
            0,
            8,
            0,
            1,
            1,
            18,
            0,
            3,
            0,
            0,
            0,
            1,
            0,
            (byte) orientation,
            0,
            0,
            0,
            0,
            0,
            0
        };
        ByteArrayOutputStream with = new ByteArrayOutputStream();
        with.write(plain, 0, 2);
        with.write(exif);
        with.write(plain, 2, plain.length - 2);
        return with.toByteArray();
    }

    private static int nearest(int rgb) {
        Color c = new Color(rgb);
        int best = 0;
        for (int i = 1; i < 4; i++) {
            best = distance(QUARTERS[i], c) < distance(QUARTERS[best], c) ? i : best;
        }
        return best;
    }

    private static int distance(Color a, Color b) {
        return Math.abs(a.getRed() - b.getRed())
                + Math.abs(a.getGreen() - b.getGreen())
                + Math.abs(a.getBlue() - b.getBlue());
    }

    /**
     * Exif 2.3, tag 274: which side of what is shown row 0 and column 0 of the pixels are. The quarters are numbered in the pixels
     * from the left of row 0; here they stand as they are shown, from the left of the top.
     */
    @ParameterizedTest
    @CsvSource({
        "1,top,left,0 1 2 3",
        "2,top,right,1 0 3 2",
        "3,bottom,right,3 2 1 0",
        "4,bottom,left,2 3 0 1",
        "5,left,top,0 2 1 3",
        "6,right,top,2 0 3 1",
        "7,right,bottom,3 1 2 0",
        "8,left,bottom,1 3 0 2"
    })
    void aPhotographMadeLighterIsUpright(int orientation, String rowZero, String columnZero, String shown)
            throws IOException {
        byte[] photograph = photograph(1_400, 900, orientation);
        boolean turned = rowZero.equals("left") || rowZero.equals("right");
        assertThat(PictureSize.read(photograph))
                .hasValue(turned ? new PictureSize(900, 1_400) : new PictureSize(1_400, 900));
        TreeMap<String, byte[]> files = new TreeMap<>();
        files.put("index.html", "<img src=a.jpg alt=a>".getBytes(StandardCharsets.UTF_8));
        files.put("a.jpg", photograph);
        Theme theme = Theme.read(ThemeFiles.of(files), "T");
        Finding heavy = Survey.of(theme).findings().stream()
                .filter(f -> f.kind() == Finding.Kind.HEAVY_PICTURE)
                .findFirst()
                .orElseThrow();
        byte[] light = heavy.fix().get().files(theme).get("a.jpg");
        assertThat(light.length).isLessThan(photograph.length);
        assertThat(Orientation.of(light)).isEqualTo(Orientation.UPRIGHT);
        BufferedImage now = ImageIO.read(new ByteArrayInputStream(light));
        assertThat(now.getWidth()).isEqualTo(turned ? 900 : 1_400);
        int w = now.getWidth();
        int h = now.getHeight();
        List<Integer> quarters = List.of(
                nearest(now.getRGB(w / 4, h / 4)),
                nearest(now.getRGB(w * 3 / 4, h / 4)),
                nearest(now.getRGB(w / 4, h * 3 / 4)),
                nearest(now.getRGB(w * 3 / 4, h * 3 / 4)));
        assertThat(quarters.toString().replaceAll("[\\[\\],]", "")).isEqualTo(shown);
    }

    @Test
    void whatSaysNothingOrNonsenseIsAsItLies() throws IOException {
        assertThat(Orientation.of(photograph(20, 10, 0))).isEqualTo(Orientation.UPRIGHT);
        assertThat(Orientation.of(photograph(20, 10, 9))).isEqualTo(Orientation.UPRIGHT);
        assertThat(Orientation.of(new byte[] {(byte) 0xFF, (byte) 0xD8, 1, 2, 3}))
                .isEqualTo(Orientation.UPRIGHT);
        assertThat(Orientation.of("GIF89a".getBytes(StandardCharsets.US_ASCII))).isEqualTo(Orientation.UPRIGHT);
    }
}

package org.calmpalette.core.render;

import static org.assertj.core.api.Assertions.assertThat;

import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.util.List;
import java.util.Random;
import javax.imageio.ImageIO;
import org.calmpalette.core.Generated;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.color.Contrast;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What of a background lies behind a text. */
class BehindTest {
    /** 200 by 100 pixels: black on the left, white on the right. */
    private static byte[] halves() {
        return png(new BufferedImage(200, 100, BufferedImage.TYPE_INT_RGB), (x, y) -> x < 100 ? 0 : 0xffffff);
    }

    private interface Painting {
        int at(int x, int y);
    }

    private static byte[] png(BufferedImage image, Painting painting) {
        for (int y = 0; y < image.getHeight(); y++) {
            for (int x = 0; x < image.getWidth(); x++) {
                image.setRGB(x, y, painting.at(x, y));
            }
        }
        try {
            ByteArrayOutputStream out = new ByteArrayOutputStream();
            ImageIO.write(image, "png", out);
            return out.toByteArray();
        } catch (IOException e) {
            throw new IllegalStateException(e);
        }
    }

    /** A section of 400 by 200 px in each window, with words 100 px long and 20 px high. */
    private static Boxes page(String background, double x, double y, byte[] picture) {
        return new Boxes(
                        "section { background: " + background + " }",
                        "<section><p>Words</p></section>",
                        "p.png",
                        picture)
                .box(5, "[320,0,0,400,200],[2560,0,0,400,200]")
                .box(6, "[320," + x + "," + y + ",100,20],[2560," + x + "," + y + ",100,20]")
                .line(6, "[320," + x + "," + y + ",100,20],[2560," + x + "," + y + ",100,20]");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "url(p.png) center / cover | 20 | 20 | #000000 | #000000 | true",
                "url(p.png) center / cover | 260 | 20 | #ffffff | #ffffff | true",
                "url(p.png) center / cover | 150 | 20 | #000000 | #ffffff | true",
                "url(p.png) 0 0 no-repeat | 20 | 20 | #000000 | #ffffff | true",
                "url(p.png) 0 0 no-repeat | 150 | 20 | #ffffff | #ffffff | false",
                "url(p.png) 0 0 / 40px 20px repeat | 20 | 20 | #000000 | #ffffff | true",
                "url(p.png) 0 0 / 400px 20px repeat-y | 20 | 90 | #000000 | #000000 | true",
                "linear-gradient(#ffffff 50%, #000000 50%) | 20 | 20 | #ffffff | #ffffff | true",
                "linear-gradient(#ffffff 50%, #000000 50%) | 20 | 150 | #000000 | #000000 | true",
                "linear-gradient(90deg, #ffffff 50%, #000000 50%) | 160 | 150 | #000000 | #ffffff | true",
                "radial-gradient(circle at 0 0, #ffffff 50%, #000000 50%) | 20 | 20 | #ffffff | #ffffff | true",
            })
    void countsAlone(String background, double x, double y, String dark, String light, boolean everywhere) {
        Boxes boxes = page(background, x, y, halves());
        Behind.Part part = new Behind(boxes.scenes(), boxes.gallery())
                .of(6, 5, 0, 600, 640)
                .orElseThrow();
        assertThat(part.everywhere()).isEqualTo(everywhere);
        assertThat(Color.rgb(
                                part.veil().colors().low()[0],
                                part.veil().colors().low()[1],
                                part.veil().colors().low()[2])
                        .hex())
                .isEqualTo(dark);
        assertThat(Color.rgb(
                                part.veil().colors().high()[0],
                                part.veil().colors().high()[1],
                                part.veil().colors().high()[2])
                        .hex())
                .isEqualTo(light);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "url(p.png) 0 0 no-repeat | 260",
                "linear-gradient(#000000, #000000) 0 0 / 9px 9px no-repeat | 60",
                "url(p.png) 0 0 / 0 0 | 60"
            })
    void whatLiesElsewhereIsNothing(String background, double x) {
        Boxes boxes = page(background, x, 120, halves());
        Behind.Part part = new Behind(boxes.scenes(), boxes.gallery())
                .of(6, 5, 0, 600, 640)
                .orElseThrow();
        assertThat(part.isAnywhere()).isFalse();
        assertThat(part.everywhere()).isFalse();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "url(p.png) fixed",
                "url(none.png)",
                "linear-gradient(#000000 9px, #ffffff)",
                "linear-gradient(#000000, #ffffff); background-clip: text"
            })
    void isNotKnown(String background) {
        Boxes boxes = page(background, 20, 20, halves());
        assertThat(new Behind(boxes.scenes(), boxes.gallery()).of(6, 5, 0, 600, 640))
                .isEmpty();
    }

    /** At every width no pixel under the words is outside of what is told: the darkest and the lightest are asked of the pixels. */
    @Tag("generated")
    @Test
    void noPixelIsOutside() {
        Random random = Generated.random(131);
        int narrow = 0;
        int compared = 0;
        for (int n = 0; n < Generated.times(60); n++) {
            byte[] picture = png(
                    new BufferedImage(40 + random.nextInt(300), 40 + random.nextInt(200), BufferedImage.TYPE_INT_RGB),
                    (x, y) -> 0x010101 * Math.min(255, (x + 2 * y) / 4 + random.nextInt(9)));
            String image = random.nextInt(3) > 0
                    ? "url(p.png)"
                    : (random.nextBoolean() ? "repeating-" : "")
                            + (random.nextBoolean()
                                    ? "linear-gradient(" + random.nextInt(360) + "deg, "
                                    : "radial-gradient(")
                            + "#101010 " + random.nextInt(40) + "%, #f0f0f0 " + (41 + random.nextInt(60)) + "%)";
            String background = image + " " + (random.nextInt(140) - 20) + "% " + (random.nextInt(140) - 20) + "px"
                    + List.of("", " / cover", " / contain", " / 60% auto", " / 70px 50px")
                            .get(random.nextInt(5)) + " "
                    + List.of("repeat", "no-repeat", "repeat-x", "round", "space")
                            .get(random.nextInt(5));
            double x = random.nextInt(420) - 10;
            double y = random.nextInt(190);
            Boxes boxes = new Boxes(
                            "body { background: #808080 } section { background: " + background
                                    + " } @media (min-width: 620px) { p { color: red } }",
                            "<section><p>Words</p></section>",
                            "p.png",
                            picture)
                    .box(5, "[320,0,0,320,200],[2560,0,0,2560,200]")
                    .box(6, "[320," + x + "," + y + ",60,20],[2560," + x * 2 + "," + y + ",60,20]")
                    .line(6, "[320," + x + "," + y + ",60,20],[2560," + x * 2 + "," + y + ",60,20]");
            Scenes scenes = boxes.scenes();
            Behind.Part part =
                    new Behind(scenes, boxes.gallery()).of(6, 5, 0, 600, 620).orElseThrow();
            Ground ground = new Ground(scenes, boxes.gallery(), true);
            double low = part.isAnywhere() ? luminance(part.veil().colors().low()) : 1;
            double high = part.isAnywhere() ? luminance(part.veil().colors().high()) : 0;
            double gray = Contrast.relativeLuminance(Color.parse("#808080").orElseThrow());
            if (!part.everywhere()) {
                low = Math.min(low, gray);
                high = Math.max(high, gray);
            }
            narrow += high - low < 0.5 ? 1 : 0;
            for (int width : List.of(600, 607, 613, 620)) {
                for (Color letters : List.of(Color.BLACK, Color.WHITE)) {
                    var reading = ground.under(6, width, letters).reading();
                    if (reading.isPresent()) {
                        compared++;
                        assertThat(Contrast.relativeLuminance(reading.get().ground()))
                                .as("%s at %s %s, %s px", background, x, y, width)
                                .isBetween(low - 0.005, high + 0.005);
                    }
                }
            }
        }
        assertThat(compared).isGreaterThan(Generated.times(60) * 4);
        assertThat(narrow).as("told closely").isGreaterThan(Generated.times(60) / 4);
    }

    private static double luminance(double[] channels) {
        return Contrast.relativeLuminance(Color.rgb(channels[0], channels[1], channels[2]));
    }
}

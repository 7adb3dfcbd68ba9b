package org.calmpalette.core.setting;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.awt.Color;
import java.awt.Graphics2D;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Random;
import javax.imageio.ImageIO;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.picture.HostilePictures;
import org.calmpalette.core.picture.PictureFile;
import org.calmpalette.core.picture.PictureSize;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** What an owner brings becomes what the setting asks for, or stays out with what is missing. */
class OwnPictureTest {
    /** Left half red, right half blue; with noise where it is to be heavy. */
    private static byte[] picture(String format, int width, int height, boolean noise) throws IOException {
        BufferedImage image = new BufferedImage(
                width, height, format.equals("png") ? BufferedImage.TYPE_INT_ARGB : BufferedImage.TYPE_INT_RGB);
        Graphics2D g = image.createGraphics();
        g.setColor(Color.RED);
        g.fillRect(0, 0, width / 2, height);
        g.setColor(Color.BLUE);
        g.fillRect(width / 2, 0, width - width / 2, height);
        g.dispose();
        Random random = new Random(1);
        for (int i = 0; noise && i < width * height; i++) {
            image.setRGB(i % width, i / width, 0xff000000 | random.nextInt(0x1000000));
        }
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        ImageIO.write(image, format, out);
        return out.toByteArray();
    }

    private static PictureKind kind(
            int leastWidth, int leastHeight, String narrowest, String widest, long most, String... formats) {
        return new PictureKind(
                false,
                leastWidth,
                leastHeight,
                narrowest.isEmpty() ? null : new BigDecimal(narrowest),
                widest.isEmpty() ? null : new BigDecimal(widest),
                most,
                List.of(formats));
    }

    @ParameterizedTest
    @CsvSource({
        // picture, least, shape, what becomes of it
        "1000, 500, 0, 0, '', '', 1000, 500",
        "2800, 1400, 0, 0, '', '', 2560, 1280",
        "3200, 1600, 3000, 0, '', '', 3000, 1500",
        "1000, 1000, 0, 0, 1.5, 2, 1000, 667",
        "1000, 300, 0, 0, 1.5, 2, 600, 300",
        "1000, 1000, 0, 0, 1.7778, 1.7778, 1000, 562",
        "2800, 2100, 0, 0, 1.7778, 1.7778, 2560, 1440",
        "997, 613, 0, 0, 1.3333, 1.3334, 817, 613",
        "600, 900, 0, 400, 1, '', 600, 600",
    })
    void isCutAndMadeSmallerToWhatIsAskedFor(
            int w, int h, int leastWidth, int leastHeight, String narrowest, String widest, int width, int height)
            throws IOException {
        PictureKind kind = kind(leastWidth, leastHeight, narrowest, widest, 0);
        OwnPicture own = OwnPicture.of("a.jpg", picture("jpg", w, h, false), kind, 0.5, 0.5);
        assertThat(own.width()).isEqualTo(width);
        assertThat(own.height()).isEqualTo(height);
        PictureSize is = PictureSize.read(own.bytes()).orElseThrow();
        assertThat(is).isEqualTo(new PictureSize(own.width(), own.height()));
        MediaFacts facts = MediaFacts.of("a." + own.format(), own.bytes());
        assertThat(kind.refusal(
                        Value.of("a." + own.format()), new Effective.MediaOnly(Media.one("a." + own.format(), facts))))
                .isEmpty();
    }

    /** The script on the page tells the same before anything is sent: one file of cases holds both to it. */
    @Test
    void theScriptOnThePageIsHeldToTheSameCases() throws IOException {
        int lacking = 0;
        for (JsonNode c : JsonMapper.shared().readTree(OwnPictureTest.class.getResourceAsStream("/cases/cuts.json"))) {
            JsonNode asks = c.get("asks");
            PictureKind kind = kind(
                    asks.get("leastWidth").asInt(),
                    asks.get("leastHeight").asInt(),
                    asks.get("narrowest").isNull() ? "" : asks.get("narrowest").asString(),
                    asks.get("widest").isNull() ? "" : asks.get("widest").asString(),
                    0);
            int w = c.get("size").get(0).asInt();
            int h = c.get("size").get(1).asInt();
            assertThat(OwnPicture.Cut.of(kind, w, h))
                    .isEqualTo(new OwnPicture.Cut(
                            c.get("cut").get(0).asInt(), c.get("cut").get(1).asInt()));
            String missing = c.get("missing").asString();
            if (!missing.isEmpty()) {
                lacking++;
                assertThatThrownBy(() -> OwnPicture.of("a.jpg", picture("jpg", w, h, false), kind, 0.5, 0.5))
                        .hasMessage("“a.jpg” " + missing);
            }
        }
        assertThat(lacking).isEqualTo(3);
    }

    /** Cut alone, and cut and made smaller, in each format: a part of a picture is written as itself. */
    @ParameterizedTest
    @CsvSource({"png, 0", "jpg, 0", "webp, 0", "png, 1", "jpg, 1", "webp, 1"})
    void whatMustStayIsInTheCut(String format, double x) throws IOException {
        // PNG is written by the same way whatever its size, and slowly.
        for (int height : format.equals("png") ? new int[] {200} : new int[] {200, 2600}) {
            OwnPicture own = OwnPicture.of(
                    "a.jpg", picture("jpg", height * 5 / 4, height, false), kind(0, 0, "1", "1", 0, format), x, 0.5);
            BufferedImage made = ImageIO.read(new java.io.ByteArrayInputStream(own.bytes()));
            assertThat(own.format()).isEqualTo(format);
            assertThat(made.getWidth()).isEqualTo(made.getHeight()).isEqualTo(Math.min(height, 2560));
            // The colours meet at five eighths of a cut at the left, and at three eighths of one at the right.
            int half = made.getWidth() / 2;
            for (int at : x == 0 ? new int[] {5, half / 2, half} : new int[] {half, half * 3 / 2, 2 * half - 5}) {
                Color seen = new Color(made.getRGB(at, at));
                assertThat(x == 0 ? seen.getRed() : seen.getBlue()).isGreaterThan(245);
                assertThat(seen.getGreen() + (x == 0 ? seen.getBlue() : seen.getRed()))
                        .isLessThan(20);
            }
        }
    }

    @Test
    void whatIsTooSmallStaysOutWithWhatIsMissing() throws IOException {
        assertThatThrownBy(() ->
                        OwnPicture.of("a.jpg", picture("jpg", 800, 600, false), kind(1600, 0, "", "", 0), 0.5, 0.5))
                .isInstanceOf(BadInputException.class)
                .hasMessage(
                        "“a.jpg” has 800 by 600 pixels. Here it needs at least 1600 in width, or it would look soft.");
        assertThatThrownBy(() -> OwnPicture.of(
                        "a.jpg", picture("jpg", 1600, 1600, false), kind(1600, 900, "2", "", 0), 0.5, 0.5))
                .hasMessageContaining("1600 by 1600 pixels, of which 1600 by 800 remain in the shape that is asked for")
                .hasMessageContaining("at least 1600 in width and at least 900 in height");
        assertThatThrownBy(() -> OwnPicture.of(
                        "a.png", picture("png", 500, 500, true), kind(500, 0, "", "", 2_000, "png"), 0.5, 0.5))
                .hasMessageContaining("heavier than 2 kB");
        assertThatThrownBy(() ->
                        OwnPicture.of("a.jpg", picture("jpg", 50, 50, false), kind(0, 0, "", "", 0, "svg"), 0.5, 0.5))
                .hasMessageContaining("only svg may be chosen");
    }

    @Test
    void whatIsHeavyIsWrittenLighter() throws IOException {
        byte[] noisy = picture("jpg", 800, 450, true);
        OwnPicture free = OwnPicture.of("a.jpg", noisy, kind(0, 0, "", "", 0), 0.5, 0.5);
        long most = free.bytes().length / 4;
        OwnPicture own = OwnPicture.of("a.jpg", noisy, kind(400, 0, "", "", most), 0.5, 0.5);
        assertThat(own.bytes().length).isLessThanOrEqualTo((int) most);
        assertThat(own.width()).isBetween(400, 800);
        assertThat(own.told()).anyMatch(t -> t.contains("became"));
    }

    /** Transparent pixels stay so, unless only JPEG may be chosen: then they are white. */
    @Test
    void whatLetsThroughDoesSo() throws IOException {
        BufferedImage image = new BufferedImage(100, 100, BufferedImage.TYPE_INT_ARGB);
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        ImageIO.write(image, "png", out);
        OwnPicture webp = OwnPicture.of("a.png", out.toByteArray(), PictureKind.ANY, 0.5, 0.5);
        assertThat(ImageIO.read(new java.io.ByteArrayInputStream(webp.bytes())).getRGB(5, 5) >>> 24)
                .isZero();
        OwnPicture jpg = OwnPicture.of("a.png", out.toByteArray(), kind(0, 0, "", "", 0, "jpg"), 0.5, 0.5);
        assertThat(jpg.format()).isEqualTo("jpg");
        assertThat(ImageIO.read(new java.io.ByteArrayInputStream(jpg.bytes())).getRGB(5, 5))
                .isEqualTo(0xffffffff);
    }

    /** A phone held upright writes lying pixels, and where it was. */
    @Test
    void isUprightAndSaysNothingOfItsPlace() throws IOException {
        byte[] lying = picture("jpg", 400, 200, false);
        byte[] exif = exif("51.5074 N, 0.1278 W, Phone of a stranger");
        ByteArrayOutputStream with = new ByteArrayOutputStream();
        with.write(lying, 0, 2);
        with.write(exif);
        with.write(lying, 2, lying.length - 2);
        assertThat(new String(with.toByteArray(), StandardCharsets.ISO_8859_1)).contains("stranger");
        OwnPicture own = OwnPicture.of("IMG_1.jpg", with.toByteArray(), PictureKind.ANY, 0.5, 0.5);
        assertThat(own.width()).isEqualTo(200);
        assertThat(own.height()).isEqualTo(400);
        assertThat(new String(own.bytes(), StandardCharsets.ISO_8859_1)).doesNotContain("stranger", "Exif", "51.5");
    }

    /** One directory with orientation 6 and a description (Exif 2.3, tags 274 and 270). */
    private static byte[] exif(String words) throws IOException {
        byte[] text = (words + "\0").getBytes(StandardCharsets.US_ASCII);
        ByteArrayOutputStream tiff = new ByteArrayOutputStream();
        tiff.write(new byte[] {'M', 'M', 0, 42, 0, 0, 0, 8, 0, 2});
        tiff.write(new byte[] {1, 14, 0, 2, 0, 0, 0, (byte) text.length, 0, 0, 0, 38});
        tiff.write(new byte[] {1, 18, 0, 3, 0, 0, 0, 1, 0, 6, 0, 0});
        tiff.write(new byte[] {0, 0, 0, 0});
        tiff.write(text);
        ByteArrayOutputStream app = new ByteArrayOutputStream();
        int length = 2 + 6 + tiff.size();
        app.write(new byte[] {(byte) 0xff, (byte) 0xe1, (byte) (length >> 8), (byte) length, 'E', 'x', 'i', 'f', 0, 0});
        app.write(tiff.toByteArray());
        return app.toByteArray();
    }

    @Test
    void hostileOnesAreRefusedOrHarmless() {
        int refused = 0;
        int made = 0;
        for (var e : HostilePictures.all().entrySet()) {
            try {
                OwnPicture own = OwnPicture.of(e.getKey(), e.getValue().get(), PictureKind.ANY, 0.5, 0.5);
                assertThat(PictureFile.format(own.bytes())).as(e.getKey()).contains("webp");
                made++;
            } catch (BadInputException told) {
                assertThat(told.getMessage() + told.mend()).as(e.getKey()).isNotBlank();
                refused++;
            }
        }
        assertThat(refused).isGreaterThan(25);
        assertThat(made).isPositive();
    }
}

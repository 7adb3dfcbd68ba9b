package org.calmpalette.core.picture;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import javax.imageio.ImageIO;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.color.ColorSpace;
import org.calmpalette.core.color.Tint;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class PictureEditTest {
    private static Color color(String text) {
        return Color.parse(text).orElseThrow();
    }

    private static Tint tint(String way, String color, String light, double amount) {
        return new Tint(Tint.Way.of(way), color(color), color(light), amount);
    }

    private static byte[] png(BufferedImage image) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        ImageIO.write(image, "png", out);
        return out.toByteArray();
    }

    /** By hand: Compositing and Blending 1, sections 5.1, 10.1.2 and 10.2; two tones end where they are said to. */
    @ParameterizedTest
    @CsvSource({
        "over, #808080, #ff0000, 50, #c04040",
        "over, #336699, #000000, 0, #336699",
        "over, #336699, #2b8a3e, 100, #2b8a3e",
        "multiply, #808080, #ff8000, 100, #804000",
        "multiply, #808080, #ff8000, 50, #806040",
        "color, #808080, #808080, 100, #808080",
        "color, #ffffff, #ff0000, 100, #ffffff",
        "color, #000000, #ff0000, 100, #000000",
        "two-tone, #000000, #102030, 100, #102030",
        "two-tone, #ffffff, #102030, 100, #fedcba",
        "two-tone, #00ff00, #102030, 0, #00ff00"
    })
    void aColourIsLaidOverAnother(String way, String from, String with, double amount, String to) {
        assertThat(tint(way, with, "#fedcba", amount).of(color(from)).hex()).isEqualTo(to);
    }

    @Test
    void theColourModeKeepsTheLuminosityOfTheSpecification() {
        // Compositing 1, section 10.2: Lum = 0.3 r + 0.59 g + 0.11 b.
        Color c = tint("color", "#2b8a3e", "#fff", 100).of(color("#7a6a5a"));
        assertThat(0.3 * c.c0() + 0.59 * c.c1() + 0.11 * c.c2())
                .isCloseTo((0.3 * 0x7a + 0.59 * 0x6a + 0.11 * 0x5a) / 255, within(1e-6));
    }

    @Test
    void aTurnedHueKeepsLightnessAndComesBack() {
        Color from = color("#7a6a5a");
        Color turned = tint("hue", "#000", "#fff", 120).of(from).to(ColorSpace.OKLCH);
        Color was = from.to(ColorSpace.OKLCH);
        assertThat(turned.c0()).isCloseTo(was.c0(), within(1e-6));
        assertThat(turned.c1()).isCloseTo(was.c1(), within(1e-6));
        assertThat((turned.c2() - was.c2() + 360) % 360).isCloseTo(120, within(1e-4));
        assertThat(tint("hue", "#000", "#fff", -120).of(turned).hex()).isEqualTo(from.hex());
        // A chroma that no screen shows at the new hue is taken back, not clipped to another hue.
        Color vivid = tint("hue", "#000", "#fff", 180).of(color("#0000ff"));
        assertThat(vivid.isInGamut()).isTrue();
        assertThat(vivid.to(ColorSpace.OKLCH).c2()).isCloseTo((264.05 + 180) % 360, within(6.0));
    }

    @Test
    void whatLetsThroughLetsThroughAsMuchAsBefore() throws IOException {
        BufferedImage image = new BufferedImage(3, 1, BufferedImage.TYPE_INT_ARGB);
        image.setRGB(0, 0, 0x80336699);
        image.setRGB(1, 0, 0x00ffffff);
        image.setRGB(2, 0, 0xff336699);
        BufferedImage out = ImageIO.read(new ByteArrayInputStream(
                Lighter.edited("a.png", png(image), new PictureEdit.Recolored(tint("over", "#ff0000", "#fff", 50)))));
        assertThat(Integer.toHexString(out.getRGB(0, 0))).isEqualTo("8099334d");
        assertThat(out.getRGB(1, 0) >>> 24).isZero();
        assertThat(Integer.toHexString(out.getRGB(2, 0))).isEqualTo("ff99334d");
    }

    @Test
    void anSvgKeepsAllButItsColours() {
        String svg = "<svg xmlns='http://www.w3.org/2000/svg' viewBox='0 0 4 4'><!-- fill -->"
                + "<path fill=\"#336699\" stroke='none' d='M0 0'/><g style='fill: rgb(0, 0, 0); stroke:white'/><a fill='url(#red)'/></svg>";
        String out = new String(
                Lighter.edited(
                        "a.svg",
                        svg.getBytes(StandardCharsets.UTF_8),
                        new PictureEdit.Recolored(tint("over", "#ff0000", "#fff", 50))),
                StandardCharsets.UTF_8);
        assertThat(out)
                .isEqualTo(svg.replace("#336699", "#99334d")
                        .replace("rgb(0, 0, 0)", "#800000")
                        .replace("white", "#ff8080"));
    }

    @ParameterizedTest
    @CsvSource({
        // Picture 200 by 100, slot, middle of the subject; what is cut out of it.
        "100, 100, 0.5, 0.5, 50, 0, 100, 100",
        "100, 100, 0.1, 0.5, 0, 0, 100, 100",
        "100, 100, 1, 0.5, 100, 0, 100, 100",
        "200, 50, 0.5, 0.9, 0, 50, 200, 50",
        "20, 10, 0.5, 0.5, 0, 0, 200, 100"
    })
    void aSlotIsCutAroundTheSubject(
            int w, int h, double x, double y, double left, double top, double width, double height) {
        assertThat(new PictureEdit.Fitted(w, h, x, y).cut(200, 100)).containsExactly(left, top, width, height);
    }

    @Test
    void whatIsFittedHasTheSizeOfTheSlotAndShowsTheSubject() throws IOException {
        BufferedImage image = new BufferedImage(400, 200, BufferedImage.TYPE_INT_RGB);
        for (int x = 0; x < 400; x++) {
            for (int y = 0; y < 200; y++) {
                image.setRGB(x, y, x >= 300 ? 0xff0000 : 0x0000ff);
            }
        }
        BufferedImage out = ImageIO.read(new ByteArrayInputStream(
                Lighter.edited("a.png", png(image), new PictureEdit.Fitted(50, 50, 0.875, 0.5))));
        assertThat(out.getWidth()).isEqualTo(50);
        assertThat(out.getHeight()).isEqualTo(50);
        assertThat(out.getRGB(40, 25) & 0xffffff).isEqualTo(0xff0000);
        assertThat(out.getRGB(10, 25) & 0xffffff).isEqualTo(0x0000ff);
    }

    @Test
    void whatCannotBeDoneSaysWhatWouldDo() throws IOException {
        byte[] small = png(new BufferedImage(40, 20, BufferedImage.TYPE_INT_RGB));
        assertThatThrownBy(() -> Lighter.edited("a.png", small, new PictureEdit.Fitted(100, 20, 0.5, 0.5)))
                .isInstanceOf(BadInputException.class)
                .hasMessageContaining("40 by 20")
                .hasMessageContaining("at least 100");
        assertThatThrownBy(() -> new PictureEdit.Fitted(0, 20, 0, 0)).isInstanceOf(BadInputException.class);
        assertThatThrownBy(() -> Lighter.edited("a.gif", small, new PictureEdit.Fitted(4, 2, 0, 0)))
                .hasMessageContaining("neither");
        assertThatThrownBy(() -> Lighter.edited("a.png", new byte[] {1, 2, 3}, new PictureEdit.Fitted(4, 2, 0, 0)))
                .isInstanceOf(BadInputException.class);
        byte[] huge = png(new BufferedImage(4001, 4000, BufferedImage.TYPE_BYTE_GRAY));
        assertThatThrownBy(() -> Lighter.edited("a.png", huge, new PictureEdit.Fitted(4, 2, 0, 0)))
                .hasMessageContaining("more than 16 million pixels");
        assertThatThrownBy(() -> tint("over", "#000", "#fff", 101)).hasMessageContaining("101");
        assertThatThrownBy(() -> tint("under", "#000", "#fff", 1)).hasMessageContaining("under");
        assertThatThrownBy(() -> Lighter.edited(
                        "a.svg",
                        "<svg xmlns='http://www.w3.org/2000/svg'><path d='M0 0'/></svg>"
                                .getBytes(StandardCharsets.UTF_8),
                        new PictureEdit.Recolored(tint("over", "#000", "#fff", 10))))
                .hasMessageContaining("writes no colour");
    }
}

package org.calmpalette.app;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Page;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.IntStream;
import javax.imageio.ImageIO;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.color.ColorVision;
import org.junit.jupiter.api.Test;

/** The frames as people with another colour vision see them: as core sees the colours, by which promises are judged. */
class ColorVisionTest {
    private final Running running = Running.get();

    /** A pixel of the ground, where nothing else lies. */
    private static int[] seen(Page page) {
        try {
            BufferedImage shot = ImageIO.read(
                    new ByteArrayInputStream(page.locator("iframe").last().screenshot()));
            int rgb = shot.getRGB(shot.getWidth() / 2, shot.getHeight() * 3 / 4);
            return new int[] {rgb >> 16 & 255, rgb >> 8 & 255, rgb & 255};
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static boolean isNear(int[] a, int[] b) {
        return IntStream.range(0, 3).allMatch(i -> Math.abs(a[i] - b[i]) <= 2);
    }

    @Test
    void theFramesAreSeenThroughTheMatrixOfTheVision() throws IOException {
        String theme = new Client(running.address)
                .signedIn("ida")
                .bringIn(
                        "hue.zip",
                        HostileThemesInTheApplicationTest.zip(new TreeMap<>(Map.of(
                                "index.html",
                                "<!doctype html><html lang=en><title>Hue</title><style>html { background: #b06030 }</style><p>Hue"
                                        .getBytes(StandardCharsets.UTF_8)))));
        Page page = running.maker();
        page.navigate(running.address + theme + "/settings");
        Running.settled(page);
        assertThat(page.locator("[data-vision-name]").innerText()).isEqualTo("usual colour vision");
        for (ColorVision vision : List.of(ColorVision.PROTANOPIA, ColorVision.DEUTERANOPIA, ColorVision.TRITANOPIA)) {
            page.keyboard().press("v");
            page.waitForSelector("[data-vision-name] >> text=" + vision.label());
            int[] is = vision.seen(Color.parse("#b06030").orElseThrow()).bytes();
            page.waitForCondition(() -> isNear(is, seen(page)));
        }
        page.keyboard().press("v");
        page.keyboard().press("v");
        page.waitForSelector("[data-vision-name] >> text=protanopia");
        // It stays while one goes from view to view, and ends where it began.
        page.navigate(running.address + theme + "/survey");
        page.waitForSelector("[data-vision-name] >> text=protanopia");
        for (int i = 0; i < 3; i++) {
            page.click("[data-vision-next]");
        }
        assertThat(page.locator("[data-vision-name]").innerText()).isEqualTo("usual colour vision");
    }
}

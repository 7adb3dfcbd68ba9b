package org.calmpalette.app;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Page;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.Map;
import java.util.TreeMap;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.Test;

/** The frames as people with another colour vision see them, against the matrices of Machado, Oliveira and Fernandes 2009 by hand. */
class ColorVisionTest {
    private final Running running = Running.get();

    private static double linear(int channel) {
        double c = channel / 255.0;
        return c <= 0.04045 ? c / 12.92 : Math.pow((c + 0.055) / 1.055, 2.4);
    }

    private static int encoded(double linear) {
        double l = Math.max(0, Math.min(1, linear));
        return (int) Math.round(255 * (l <= 0.0031308 ? l * 12.92 : 1.055 * Math.pow(l, 1 / 2.4) - 0.055));
    }

    @Test
    void theFramesAreSeenThroughTheMatrixOfTheVision() throws IOException {
        int[] color = {0xb0, 0x60, 0x30};
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
        double[][] rows = {
            {0.152286, 1.052583, -0.204868}, {0.114503, 0.786281, 0.099216}, {-0.003882, -0.048116, 1.051998}
        };
        assertThat(page.locator("[data-vision-name]").innerText()).isEqualTo("usual colour vision");
        page.keyboard().press("v");
        page.waitForSelector("[data-vision-name] >> text=protanopia");
        int[] seen = new int[3];
        page.waitForCondition(() -> {
            try {
                BufferedImage shot = ImageIO.read(
                        new ByteArrayInputStream(page.locator("iframe").last().screenshot()));
                int rgb = shot.getRGB(shot.getWidth() / 2, shot.getHeight() * 3 / 4);
                for (int i = 0; i < 3; i++) {
                    seen[i] = rgb >> (16 - 8 * i) & 255;
                }
                return seen[0] != color[0];
            } catch (IOException e) {
                throw new java.io.UncheckedIOException(e);
            }
        });
        for (int i = 0; i < 3; i++) {
            double l = 0;
            for (int k = 0; k < 3; k++) {
                l += rows[i][k] * linear(color[k]);
            }
            assertThat(seen[i]).as("channel " + i).isBetween(encoded(l) - 2, encoded(l) + 2);
        }
        // It stays while one goes from view to view, and ends where it began.
        page.navigate(running.address + theme + "/survey");
        page.waitForSelector("[data-vision-name] >> text=protanopia");
        for (int i = 0; i < 3; i++) {
            page.click("[data-vision-next]");
        }
        assertThat(page.locator("[data-vision-name]").innerText()).isEqualTo("usual colour vision");
    }
}

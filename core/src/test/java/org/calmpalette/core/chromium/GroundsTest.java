package org.calmpalette.core.chromium;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.SortedMap;
import java.util.TreeMap;
import javax.imageio.ImageIO;
import org.calmpalette.core.Generated;
import org.calmpalette.core.color.Contrast;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.render.Gallery;
import org.calmpalette.core.render.Ground;
import org.calmpalette.core.render.Measures;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.render.Scenes;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.ThemeFiles;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/**
 * What texts stand on, against Chromium's pixels: a page is drawn without its letters at 20 widths, and the contrast of each text
 * with the pixels under its lines is reckoned by the formula of WCAG 2.2.
 */
public class GroundsTest {
    public static final List<Integer> WIDTHS = List.of(
            320, 347, 390, 444, 512, 600, 690, 767, 768, 820, 900, 999, 1024, 1111, 1280, 1366, 1440, 1600, 1777, 1920);
    public static final int HEIGHT = 800;

    /** Two of them where pictures are enlarged, three where two pictures are mixed; {@link #levels}. */
    private static final double LEVELS = 3;

    public static final String HTML =
            """
      <!doctype html><html><head><style>
      body { margin: 0; font: 17px/1.5 sans-serif; background: #c9cdd2 url(hills.png) left top no-repeat }
      section { padding: 30px 24px }
      .hero { background: url(hills.png) center / cover; color: #fff; min-height: 320px }
      h1 { font-size: clamp(28px, 5vw, 58px); margin: 0 0 12px }
      .band { background: linear-gradient(100deg, #123456, #fedcba 80%); color: #e8d8c8 }
      .veil { background: linear-gradient(rgb(0 0 0 / 35%), rgb(0 0 0 / 70%)), url(hills.png) 30% 70% / 60% auto no-repeat #ccd; color: #ffe }
      .box { background: rgb(255 255 255 / 60%); color: #333; padding: 10px }
      .tiles { background: url(hills.png) 7px 3px / 90px 60px; color: #111 }
      .round { background: radial-gradient(circle at 30% 40%, #fff, #456 60%), #000; color: #223 }
      .duo { background: url(hills.png) center / cover #204060; background-blend-mode: luminosity; color: #fff }
      .mixed { background: linear-gradient(90deg, #fc8, #6ad), url(hills.png) 0 0 no-repeat, #e8d8c8;
        background-blend-mode: multiply, hard-light; color: #102030 }
      .soft { background: url(hills.png) center / 300px, #c04020; background-blend-mode: soft-light, normal; color: #ffd }
      .shade { position: relative; background: url(hills.png) center / cover; color: #fff }
      .shade::before { content: ""; position: absolute; inset: 10px 0 0 20%; background: linear-gradient(90deg, rgb(0 0 0 / 70%), transparent) }
      .shade p { position: relative }
      .sunk { position: relative; z-index: 0; background: #e8e0d0; color: #201008; border: 4px solid #888 }
      .sunk::after { content: ""; position: absolute; z-index: -1; left: 5%; bottom: 1em; width: 60%; height: 2.5em; padding: 3px;
        background: url(hills.png) 0 0 / 200px; opacity: .6 }
      @media (min-width: 768px) { .hero { background-position: right bottom } .band { color: #fff } }
      </style></head><body>
      <p>On the picture of the page itself, which ends somewhere.</p>
      <section class=hero><h1>Cross the mere by dusk</h1><p>Four piers, one ticket, every half hour, in all weathers but fog.</p></section>
      <section class=band><p>Over a gradient from dark to light the letters are lost on the way.</p></section>
      <section class=veil><p>Under a veil.</p><div class=box><p>In a box that lets something through, with more words than fit on a line.</p></div></section>
      <section class=tiles><p>Tiles repeat behind this text.</p></section>
      <section class=round><p>Light in one corner.</p></section>
      <section class=duo><p>A picture in two tones, as many heroes have it.</p></section>
      <section class=mixed><p>Two layers, each mixed with those below it in its own way.</p></section>
      <section class=soft><p>Soft light on tiles.</p></section>
      <section class=shade><p>A shade that comes from a generated box, as many heroes have it.</p></section>
      <section class=sunk><p>Something lies below the words and above the background.</p></section>
      </body></html>""";

    /** Hills with grain, the same each time. */
    public static byte[] picture() {
        Random random = Generated.random(7);
        BufferedImage image = new BufferedImage(900, 600, BufferedImage.TYPE_INT_RGB);
        for (int x = 0; x < 900; x++) {
            double ridge = 330 + 60 * Math.sin(x / 70.0) + 25 * Math.sin(x / 23.0);
            for (int y = 0; y < 600; y++) {
                int base = y < ridge ? 70 + (int) (y * 0.4) : 40 + (y % 40);
                int d = (int) (random.nextGaussian() * 4);
                image.setRGB(
                        x,
                        y,
                        clip(base + d) << 16 | clip(base * 8 / 10 + d) << 8 | clip((y < ridge ? 160 - y / 6 : 70) + d));
            }
        }
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try {
            ImageIO.write(image, "png", out);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return out.toByteArray();
    }

    private static int clip(int v) {
        return Math.max(0, Math.min(255, v));
    }

    public static String question() {
        return "grounds " + Answers.hash(HTML, WIDTHS.toString());
    }

    /**
     * How many levels of 255 apart the greys are that give these two ratios with the letters: browsers and we round to whole levels, once
     * for each picture that is sampled and once more for each layer that is mixed, and what is said of ratios has to bear as much.
     */
    private static double levels(double ratio, double seen, Ground.Reading r) {
        double letters = Contrast.relativeLuminance(r.text());
        boolean darker = Contrast.relativeLuminance(r.ground()) < letters;
        return Math.abs(level(ratio, letters, darker) - level(seen, letters, darker));
    }

    private static double level(double ratio, double letters, boolean darker) {
        double luminance = darker ? (letters + 0.05) / ratio - 0.05 : (letters + 0.05) * ratio - 0.05;
        double l = Math.max(0, Math.min(1, luminance));
        // The transfer function of sRGB, IEC 61966-2-1.
        return 255 * (l <= 0.0031308 ? 12.92 * l : 1.055 * Math.pow(l, 1 / 2.4) - 0.055);
    }

    @Tag("generated")
    @Test
    void contrastAgreesWithPixels() {
        List<String> answers = Answers.read("grounds").to(question());
        SortedMap<String, byte[]> files = new TreeMap<>();
        files.put("index.html", HTML.getBytes(StandardCharsets.UTF_8));
        files.put("hills.png", picture());
        Theme theme = Theme.read(ThemeFiles.of(files), "T");
        Page page = theme.pages().get(0);
        Measures measures = Measures.read("measures", answers.get(0).getBytes(StandardCharsets.UTF_8));
        Ground ground = new Ground(new Scenes(new Rendered(theme), page, measures), new Gallery(theme), true);
        List<String> off = new ArrayList<>();
        int compared = 0;
        int near = 0;
        for (String line : answers.subList(1, answers.size())) {
            String[] a = line.split(" ");
            int width = Integer.parseInt(a[0]);
            int element = Integer.parseInt(a[1]);
            Ground.Reading r = ground.under(element, width)
                    .reading()
                    .orElseThrow(() -> new AssertionError("no reading at " + line));
            double worst = Double.parseDouble(a[2]);
            double low = Double.parseDouble(a[3]);
            compared++;
            double apart = Math.max(levels(r.worst(), worst, r), levels(r.low(), low, r));
            near += apart <= 1 ? 1 : 0;
            if (apart > LEVELS) {
                off.add(String.format(
                        "%s: %.3f %.3f, the browser %s %s, %.2f levels, %s",
                        page.elements().get(element).cssSelector(), r.worst(), r.low(), a[2], a[3], apart, width));
            }
            assertThat(r.worst()).as("the worst is not above what most reach").isLessThanOrEqualTo(r.low() + 1e-9);
        }
        assertThat(compared).isGreaterThan(150);
        assertThat(near).as("texts within one level").isGreaterThan(compared * 3 / 4);
        assertThat(off).as("of " + compared + " compared").isEmpty();
        assertThat(measures.pageHeight(1000)).isCloseTo(measures.pageHeight(999), within(40.0));
    }
}

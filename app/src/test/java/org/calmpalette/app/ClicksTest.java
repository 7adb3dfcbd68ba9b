package org.calmpalette.app;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Frame;
import com.microsoft.playwright.Page;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.TreeMap;
import javax.imageio.ImageIO;
import org.calmpalette.core.Generated;
import org.calmpalette.core.chromium.PagePartsTest;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.EnabledIfSystemProperty;

/** Clicks anywhere on pages under published sheets: the part that opens is what Chromium paints there. */
class ClicksTest {
    private static final int MAGENTA = 0xff00ff;
    private final Running running = Running.get();

    @AfterEach
    void close() {
        Browsers.closeAll();
    }

    /** Forty on each of five pages, which takes minutes; what each run asks of clicks is in {@code WhyTest}. */
    @Test
    @EnabledIfSystemProperty(named = "calm.long", matches = "true")
    void aClickOpensWhatIsPaintedThere() throws IOException {
        Random random = Generated.random(23);
        Client client = new Client(running.address).signedIn("ida", Running.PASSWORD);
        List<String> wrong = new ArrayList<>();
        int clicks = 0;
        List<PagePartsTest.Site> sites = PagePartsTest.sites();
        for (PagePartsTest.Site site : sites.subList(0, 5)) {
            TreeMap<String, byte[]> files = new TreeMap<>(Map.of(
                    "index.html",
                    site.html().getBytes(StandardCharsets.UTF_8),
                    "lib.css",
                    site.css(),
                    "own.css",
                    "section { background: #dde6ee } h2 { border-bottom: 3px solid #b5462f }"
                            .getBytes(StandardCharsets.UTF_8)));
            String theme = client.bringIn(site.name() + ".zip", HostileThemesInTheApplicationTest.zip(files));
            Page maker = running.maker();
            maker.navigate(running.address + theme + "/survey");
            maker.waitForSelector(
                    "iframe[data-width]", new Page.WaitForSelectorOptions().setTimeout(6 * Browsers.patience()));
            Page plain = Browsers.page(1440, 900);
            plain.navigate(running.address + maker.getAttribute("[data-base]", "data-base") + "index.html");
            for (int i = 0; i < 40; i++) {
                List<Frame> frames = Running.frames(maker);
                Frame frame = frames.get(frames.size() - 1);
                double height = ((Number) frame.evaluate("() => document.documentElement.scrollHeight")).doubleValue();
                int x = 5 + random.nextInt(1430);
                int y = 5 + random.nextInt((int) Math.max(10, Math.min(height, 2_400) - 10));
                String found = clicked(maker, frame, x, y);
                String trouble = trouble(plain, found, x, y);
                clicks++;
                if (!trouble.isEmpty()) {
                    wrong.add(site.name() + " at " + x + "," + y + ": " + trouble);
                }
            }
            Browsers.closeAll();
        }
        assertThat(clicks).isEqualTo(200);
        assertThat(wrong).isEmpty();
    }

    /** @return the index of the element whose panel opened */
    private static String clicked(Page maker, Frame frame, int x, int y) {
        List<?> inside = (List<?>) frame.evaluate(
                "([x, y]) => { scrollTo({ top: y - 200, behavior: 'instant' }); return [x, y - scrollY]; }",
                List.of(x, y));
        List<?> outside =
                (List<?>) maker.evaluate("() => { const f = [...document.querySelectorAll('iframe[data-width]')].pop();"
                        + " const b = f.getBoundingClientRect(); return [b.x, b.y, b.width / f.offsetWidth]; }");
        double scale = ((Number) outside.get(2)).doubleValue();
        maker.evaluate("() => { window.openBefore = document.querySelector('#card [data-part]'); }");
        maker.waitForResponse("**/part?**", () -> maker.mouse()
                .click(
                        ((Number) outside.get(0)).doubleValue() + ((Number) inside.get(0)).doubleValue() * scale,
                        ((Number) outside.get(1)).doubleValue() + ((Number) inside.get(1)).doubleValue() * scale));
        maker.waitForFunction(
                "() => { const part = document.querySelector('#card [data-part]'); return part && part !== window.openBefore; }");
        assertThat(maker.locator("#card details.aspect[open][data-aspect]").count())
                .as("open aspects")
                .isEqualTo(1);
        return maker.getAttribute("#card [data-part]", "data-at");
    }

    /** What speaks against it: painted in another colour the part does not show there, or it paints nothing there at all. */
    private static String trouble(Page plain, String at, int x, int y) throws IOException {
        String paints = (String) plain.evaluate(
                """
          ([at, x, y]) => { scrollTo({ top: y - 200, behavior: 'instant' });
            const e = document.querySelector(`[data-calm-at="${at}"]`), s = getComputedStyle(e), top = y - scrollY;
            const words = [...e.childNodes].some(n => { if (n.nodeType !== 3 || !n.data.trim()) return false;
              const r = document.createRange(); r.selectNodeContents(n); return [...r.getClientRects()].some(b => x >= b.left - 2 && x <= b.right + 2 && top >= b.top - 2 && top <= b.bottom + 2); });
            const ground = s.backgroundImage !== 'none' || !/(, 0\\)|transparent)$/.test(s.backgroundColor);
            const border = ['Top', 'Right', 'Bottom', 'Left'].some(d => parseFloat(s[`border${d}Width`]) > 0);
            // Where nothing around paints either there is only the canvas, and the innermost box is as good as any.
            const painted = a => a && (getComputedStyle(a).backgroundImage !== 'none' || !/(, 0\\)|transparent)$/.test(getComputedStyle(a).backgroundColor) || painted(a.parentElement));
            return words || ground || border || e.matches('img, input, button, hr, svg, html, body') || !painted(e) ? '' : `<${e.localName}> paints nothing`; }""",
                List.of(at, x, y));
        if (!paints.isEmpty()) {
            return paints;
        }
        plain.evaluate(
                """
          ([at]) => { const e = document.querySelector(`[data-calm-at="${at}"]`); e.dataset.before = e.getAttribute('style') || '';
            e.style.cssText += ';background: #f0f !important; color: #f0f !important; border-color: #f0f !important; transition: none !important'; }""",
                List.of(at));
        double shown = ((Number) plain.evaluate("y => y - scrollY", y)).doubleValue();
        BufferedImage seen = ImageIO.read(new ByteArrayInputStream(plain.screenshot()));
        plain.evaluate(
                "([at]) => { const e = document.querySelector(`[data-calm-at='${at}']`); e.setAttribute('style', e.dataset.before); }",
                List.of(at));
        for (int dx = -1; dx <= 1; dx++) {
            for (int dy = -1; dy <= 1; dy++) {
                int px = Math.max(0, Math.min(1439, x + dx));
                int py = (int) Math.max(0, Math.min(899, shown + dy));
                if ((seen.getRGB(px, py) & 0xffffff) == MAGENTA) {
                    return "";
                }
            }
        }
        return "element " + at + " does not show there";
    }
}

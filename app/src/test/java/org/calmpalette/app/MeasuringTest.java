package org.calmpalette.app;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Page;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.calmpalette.core.background.BoxGeometry;
import org.calmpalette.core.render.Measures;
import org.junit.jupiter.api.Test;

/** What a page is measured as, against the page itself at other widths. */
class MeasuringTest {
    private final Running running = Running.get();

    /** Borders and paddings that follow the window, a part that is hidden in one band, and one that is not laid out in another. */
    private static final String CSS =
            """
      body { margin: 0; font: 16px/1.5 sans-serif }
      header { padding: 10px 5vw; border-bottom: 3px solid }
      main { padding: clamp(12px, 6vw, 60px); max-width: 900px; margin: 0 auto }
      section { background: linear-gradient(rgb(0 0 0 / .2), transparent), linear-gradient(#fff, #ccc); border: 1px solid; padding: 12px }
      h2 { color: #777 }
      #gone { display: none } #hid { visibility: hidden }
      @media (min-width: 700px) { section { padding: 30px 20px 10px; border-width: 6px } #gone { display: block } #hid { visibility: visible } }
      """;

    private static final String BOXES =
            """
      () => Object.fromEntries([...document.querySelectorAll('[data-calm-at]')].filter(e => e.getClientRects().length).map(e => {
        const b = e.getBoundingClientRect(), s = getComputedStyle(e);
        const sides = n => ['Top', 'Right', 'Bottom', 'Left'].map(d => parseFloat(s[n + d + (n === 'border' ? 'Width' : '')]) || 0);
        return [e.dataset.calmAt, [b.left + scrollX, b.top + scrollY, b.width, b.height, ...sides('border'), ...sides('padding')]]; }))""";

    /** Measuring begins by itself where a view needs it, and what is not asked again at each width is the same there. */
    @Test
    void everyBoxWithItsSidesIsWhereItIsMeasuredToBe() {
        TreeMap<String, byte[]> files = new TreeMap<>();
        files.put(
                "index.html",
                ("<!doctype html><html lang=en><head><title>F</title><link rel=stylesheet href=a.css></head><body><header><nav><a href=#>One</a></nav></header>"
                                + "<main><p id=gone>Only in wide windows</p><p id=hid>Seen in wide windows</p>"
                                + "<section><h2>Cross the mere</h2><p>Words of the ferry that wrap here and there.</p></section>"
                                        .repeat(12)
                                + "</main></body></html>")
                        .getBytes(StandardCharsets.UTF_8));
        files.put("a.css", CSS.getBytes(StandardCharsets.UTF_8));
        Client client = new Client(running.address).signedIn("ida", Running.PASSWORD);
        String theme = client.bringIn("boxes.zip", HostileThemesInTheApplicationTest.zip(files));
        Page maker = running.maker();
        maker.navigate(running.address + theme + "/survey");
        Running.clickPart(maker, "section h2", 0.02, 0.5);
        // The panel has its page measured, and says then how its text reads.
        maker.waitForSelector(
                "#card .reads:has(.state-breaks):not(:has-text('measured'))",
                new Page.WaitForSelectorOptions().setTimeout(4 * Browsers.patience()));
        assertThat(maker.textContent("#card .reads"))
                .contains("Hard to read")
                .contains("#777777 on #")
                .contains("3 is needed");
        Measures measures = Measures.read(
                "index.html",
                maker.request()
                        .get(running.address + theme + "/measures?page=index.html")
                        .body());
        Page page = Browsers.page(1280, 800);
        page.navigate(running.address + maker.getAttribute("[data-base]", "data-base") + "index.html");
        List<String> off = new ArrayList<>();
        int compared = 0;
        for (int width : List.of(333, 401, 555, 699, 700, 731, 880, 1001, 1777, 2400)) {
            page.setViewportSize(width, 800);
            @SuppressWarnings("unchecked")
            Map<String, List<Number>> seen = (Map<String, List<Number>>) page.evaluate(BOXES);
            assertThat(measures.isSureAt(width)).as("known at %d", width).isTrue();
            for (Map.Entry<String, List<Number>> e : seen.entrySet()) {
                int element = Integer.parseInt(e.getKey());
                BoxGeometry.Rectangle box = measures.box(element, width).orElseThrow();
                BoxGeometry whole = measures.geometry(element, width).orElseThrow();
                double[] told = {
                    box.x(), box.y(), box.width(), box.height(),
                    whole.border().top(), whole.border().right(), whole.border().bottom(),
                            whole.border().left(),
                    whole.padding().top(), whole.padding().right(),
                            whole.padding().bottom(), whole.padding().left()
                };
                for (int k = 0; k < told.length; k++) {
                    compared++;
                    if (Math.abs(told[k] - e.getValue().get(k).doubleValue()) > 0.51) {
                        off.add(width + " px, element " + element + ", number " + k + ": " + told[k] + ", seen "
                                + e.getValue().get(k));
                    }
                }
            }
            int hidden = indexOf(page, "#hid");
            assertThat(measures.lines(hidden, width).isEmpty())
                    .as("hidden words have no lines at %d", width)
                    .isEqualTo(width < 700);
            assertThat(measures.box(indexOf(page, "#gone"), width).isEmpty()).isEqualTo(width < 700);
        }
        assertThat(off).isEmpty();
        assertThat(compared).isGreaterThan(4_000);
    }

    private static int indexOf(Page page, String selector) {
        return Integer.parseInt(page.getAttribute(selector, "data-calm-at"));
    }
}

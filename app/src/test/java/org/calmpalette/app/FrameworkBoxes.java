package org.calmpalette.app;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Page;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.calmpalette.core.background.BoxGeometry.Rectangle;
import org.calmpalette.core.chromium.OutsideSheets;
import org.calmpalette.core.render.Measures;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/**
 * Boxes between measured widths on specimen pages of published sheets, against Chromium at 200 random widths. Takes minutes, so it is
 * run by hand: {@code ./calm test FrameworkBoxes}; what came out stands in
 * docs/agreement.md.
 */
class FrameworkBoxes {
    private static final int WIDTHS = 200;

    private final Running running = Running.get();

    @TempDir
    Path folder;

    @ParameterizedTest
    @ValueSource(
            strings = {
                "bootstrap 5.3.8",
                "bulma 1.0.4",
                "purecss 2.1.0",
                "materialize-css 1.0.0",
                "picocss 2.1.1",
                "foundation-sites 6.9.0",
                "milligram 1.4.1",
                "tachyons 4.12.0"
            })
    void boxesAreWithinHalfAPixelOrMarked(String sheet) throws IOException {
        Path css = folder.resolve(sheet.replaceAll("[ .].*", "") + ".css");
        Files.write(css, OutsideSheets.get(sheet));
        Page maker = running.maker();
        Running.bringIn(maker, running.address, css);
        String theme = maker.url().replaceAll("/survey.*", "");
        maker.navigate(theme + "/pictures");
        String first = maker.locator(".gallery").getAttribute("data-unmeasured").replaceFirst("\\|.*", "");
        maker.evaluate(
                "async page => { const { measured } = await import('/assets/measure.js'); await measured(document.querySelector('.gallery'), page, () => {}); }",
                first);
        Measures measures = Measures.read(
                first, maker.request().get(theme + "/measures?page=" + first).body());
        String address = maker.locator(".gallery").getAttribute("data-base") + first;
        Page page = Browsers.page(1280, 800);
        page.navigate(running.address + address + "?still");
        Random random = new Random(sheet.hashCode());
        List<String> off = new ArrayList<>();
        int compared = 0;
        int marked = 0;
        for (int i = 0; i < WIDTHS; i++) {
            int width = 320 + random.nextInt(2241);
            page.setViewportSize(width, 800);
            // What turns is measured standing still.
            page.evaluate("() => document.getAnimations().forEach(a => a.cancel())");
            if (!measures.isSureAt(width)) {
                marked++;
                continue;
            }
            for (Map.Entry<String, List<Number>> e :
                    PicturesTest.boxes(page.mainFrame()).entrySet()) {
                int element = Integer.parseInt(e.getKey());
                if (!measures.boxes().containsKey(element)) {
                    continue;
                }
                Rectangle box = measures.box(element, width).orElse(new Rectangle(-1, -1, -1, -1));
                double[] told = {box.x(), box.y(), box.width(), box.height()};
                for (int k = 0; k < 4; k++) {
                    compared++;
                    if (Math.abs(told[k] - e.getValue().get(k).doubleValue()) > 0.5) {
                        off.add(width + " px, element " + element + ": told " + box + ", seen " + e.getValue());
                    }
                }
            }
        }
        System.out.printf(
                "%s, %s: %,d numbers at %d widths, %d widths marked as not known, %d off%n",
                sheet, first, compared, WIDTHS, marked, off.size());
        assertThat(off.stream().limit(10)).isEmpty();
        assertThat(compared).isGreaterThan(2_000);
    }
}

package org.calmpalette.app;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Page;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/**
 * What has come stays where it is: nobody presses what has just moved away under the pointer. The measure is the layout shift of the
 * W3C's Layout Instability draft, share of the window that moved times how far, added up over the load; 0.1 is what is commonly
 * called good (common practice), and half of that is borne here: frames that are drawn to scale move sideways inside of their strip.
 */
class StandsStillTest {
    private static final double BORNE = 0.05;
    private static final Running running = Running.get();
    private static final Page maker = watched(running.maker());

    private static Page watched(Page page) {
        page.context()
                .addInitScript("window.shifted = 0; window.moved = [];"
                        + " new PerformanceObserver((list) => list.getEntries().forEach((e) => { if (e.hadRecentInput) return;"
                        + " window.shifted += e.value; window.moved.push(e.value.toFixed(4) + ' ' + e.sources.map((s) =>"
                        + " `${s.node?.className || s.node?.nodeName} ${s.previousRect.x},${s.previousRect.y} > ${s.currentRect.x},${s.currentRect.y}`)); }))"
                        + ".observe({ type: 'layout-shift', buffered: true });");
        return page;
    }

    @AfterAll
    static void close() {
        maker.context().close();
    }

    @ParameterizedTest
    @ValueSource(strings = {"survey", "settings", "promises", "pictures", "sections", "history", "handover"})
    void aViewOfTheMakerStandsStillAsItComes(String view) {
        stands(maker, "/themes/1/" + view);
    }

    @Test
    void anOwnersPageStandsStillAsItComes() {
        Page owner = watched(running.signedIn("jonas", 390, 844));
        stands(owner, "/sites/sallowmere-ferries");
        owner.context().close();
    }

    private static void stands(Page page, String address) {
        assertThat(page.navigate(running.address + address).status()).isEqualTo(200);
        page.waitForFunction(
                "[...document.querySelectorAll('iframe[data-width]')].every((f) => f.dataset.ready === '' && f.style.transform)");
        Running.settled(page);
        // What was drawn last is told after the next picture of the page.
        page.evaluate("() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done)))");
        assertThat(
                        page.evaluate(
                                "performance.getEntriesByType('resource').filter((e) => e.name.includes('next-latin-wght')).length"))
                .as("the font that is asked for early is the one that the style sheet means")
                .isEqualTo(1);
        assertThat(((Number) page.evaluate("window.shifted")).doubleValue())
                .as("%s moved: %s", address, page.evaluate("window.moved.join('\\n')"))
                .isLessThan(BORNE);
    }
}

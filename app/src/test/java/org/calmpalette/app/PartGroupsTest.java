package org.calmpalette.app;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Page;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.TreeMap;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import org.calmpalette.app.work.Jobs;
import org.junit.jupiter.api.Test;

/** A part of a page becomes a group of settings: found, shown, taken, and nothing looks otherwise at any width. */
class PartGroupsTest {
    private final Running running = Running.get();

    private static final String LOOK =
            "() => [...document.querySelectorAll('body, body *')].map(e => { const b = e.getBoundingClientRect(), s = getComputedStyle(e); return [e.localName, b.x, b.y, b.width, b.height, s.color, s.backgroundColor, s.fontSize, s.position].join(' ') })";

    @SuppressWarnings("unchecked")
    private static List<String> look(String address) {
        List<String> all = new ArrayList<>();
        for (int width : List.of(390, 820, 1440)) {
            Page page = Browsers.page(width, 800);
            page.navigate(address);
            all.addAll((List<String>) page.evaluate(LOOK));
        }
        return all;
    }

    @Test
    void aHeroAndAHeaderAreTakenAndNothingLooksOtherwise() throws java.io.IOException {
        TreeMap<String, byte[]> files = new TreeMap<>();
        files.put(
                "index.html",
                ("<!doctype html><html lang=en><head><title>F</title><link rel=stylesheet href=a.css></head><body><header><nav><a href=#one>One</a> <a href=#two>Two</a></nav></header>"
                                + "<section><h1>Cross the mere</h1></section><main><h2 id=one>One</h2>"
                                + "<p>Words of the ferry.</p>".repeat(60) + "<h2 id=two>Two</h2></main></body></html>")
                        .getBytes(StandardCharsets.UTF_8));
        files.put(
                "a.css",
                "body { margin: 0 } header { padding: 18px 24px; background: #123 } header a { color: #fff } section { min-height: 60vh; padding: 30px; background: #dde } main { max-width: 800px; margin: 0 auto; padding: 0 20px } @media (max-width: 767px) { section { min-height: 240px } }"
                        .getBytes(StandardCharsets.UTF_8));
        Client client = new Client(running.address).signedIn("ida", Running.PASSWORD);
        String theme = client.bringIn("parts.zip", HostileThemesInTheApplicationTest.zip(files));
        Page maker = running.maker();
        maker.navigate(running.address + theme + "/survey?view=parts");
        // Where they are is told by boxes, so the page is measured without being asked.
        maker.waitForSelector(
                "tr.pick[data-row=hero]", new Page.WaitForSelectorOptions().setTimeout(4 * Browsers.patience()));
        List<String> before = look(running.address + maker.getAttribute("[data-base]", "data-base") + "index.html");
        for (String part : List.of("hero", "header", "column")) {
            maker.navigate(running.address + theme + "/survey?view=parts");
            maker.click("tr.pick[data-row=" + part + "] .name");
            maker.waitForSelector(".offers");
            maker.locator(".offers input").all().forEach(box -> box.setChecked(true));
            maker.click("text=Make settings of these");
            maker.waitForSelector(".notice >> text=of the");
        }
        assertThat(maker.locator("tr.pick").count()).isGreaterThan(9);
        maker.navigate(running.address + theme + "/survey?view=parts");
        String frame = running.address + maker.getAttribute("[data-base]", "data-base") + "index.html";
        assertThat(look(frame)).isEqualTo(before);

        // What one jumps to lies clear of a header that the maker lets stay in view.
        maker.navigate(running.address + theme + "/settings?key=header-stays");
        maker.click("label:has-text('it stays in view')");
        maker.click("button:has-text('Save')");
        maker.waitForSelector(".notice >> text=it stays in view");
        maker.navigate(running.address + theme + "/survey?view=parts");
        Page page = Browsers.page(820, 500);
        page.navigate(running.address + maker.getAttribute("[data-base]", "data-base") + "index.html#two");
        page.waitForCondition(() -> ((Number) page.evaluate("() => scrollY")).doubleValue() > 100);
        double header = ((Number)
                        page.evaluate("() => document.querySelector('header').getBoundingClientRect().bottom"))
                .doubleValue();
        double heading = ((Number) page.evaluate("() => document.getElementById('two').getBoundingClientRect().top"))
                .doubleValue();
        assertThat(header).isGreaterThan(40);
        assertThat(heading).isGreaterThanOrEqualTo(header - 1);
        // Pointed at, any part may be said to be one.
        assertThat(client.get(theme + "/parts?page=index.html&as=hero&at=8").statusCode())
                .isEqualTo(200);
        assertThat(client.get(theme + "/parts?page=index.html&as=nothing&at=8").statusCode())
                .isEqualTo(422);
    }

    /** On a large sheet a part takes its time: that is shown, can be stopped without a trace, and ends where it would have at once. */
    @Test
    void aPartThatTakesLongIsWaitedForAndCanBeStopped() {
        TreeMap<String, byte[]> files = new TreeMap<>();
        files.put(
                "index.html",
                "<!doctype html><html lang=en><head><title>F</title><link rel=stylesheet href=a.css></head><body><section><div><h1>Cross the mere</h1></div></section></body></html>"
                        .getBytes(StandardCharsets.UTF_8));
        files.put(
                "a.css",
                "section { min-height: 60vh; background: #dde url(a.svg) center/cover }"
                        .getBytes(StandardCharsets.UTF_8));
        files.put(
                "a.svg",
                "<svg xmlns='http://www.w3.org/2000/svg' width='40' height='20'><rect width='40' height='20' fill='#cde'/></svg>"
                        .getBytes(StandardCharsets.UTF_8));
        Client client = new Client(running.address).signedIn("ida", Running.PASSWORD);
        String theme = client.bringIn("slow.zip", HostileThemesInTheApplicationTest.zip(files));
        Page maker = running.maker();
        maker.navigate(running.address + theme + "/survey?page=index.html");
        String at = Running.frames(maker).get(0).waitForSelector("section").getAttribute("data-calm-at");
        for (boolean stops : new boolean[] {true, false}) {
            CountDownLatch others = new CountDownLatch(1);
            running.bean(Jobs.class).start(Jobs.Lane.CHANGES, Duration.ofMinutes(1), j -> {
                try {
                    return others.await(5, TimeUnit.MINUTES);
                } catch (InterruptedException e) {
                    throw new IllegalStateException(e);
                }
            });
            maker.navigate(running.address + theme + "/survey?page=index.html&at=" + at);
            maker.click("text=Hero");
            maker.waitForSelector(".offers");
            maker.locator(".offers input").all().forEach(box -> box.setChecked(true));
            maker.click("text=Make settings of these");
            maker.waitForURL("**/parts/taking");
            maker.waitForSelector("text=Waiting for others to end.");
            if (stops) {
                maker.click("text=Stop");
                maker.waitForURL("**/survey?view=parts");
                others.countDown();
                assertThat(maker.locator("[data-key=u]:not([disabled])").count())
                        .isZero();
            } else {
                others.countDown();
                maker.waitForSelector(".notice >> text=of the hero");
                assertThat(maker.url()).contains("key=hero-shade");
            }
        }
        // A shade that half lets through: read back from the picture that Chromium makes.
        maker.navigate(running.address + theme + "/settings?key=hero-shade");
        String base = maker.locator("[data-base]").first().getAttribute("data-base");
        Page page = Browsers.page(820, 500);
        page.navigate(running.address + base + "index.html");
        String painted =
                (String) page.evaluate("() => getComputedStyle(document.querySelector('section')).backgroundImage");
        assertThat(painted).startsWith("linear-gradient(rgba(0, 0, 0, 0), rgba(0, 0, 0, 0)), url(");
    }
}

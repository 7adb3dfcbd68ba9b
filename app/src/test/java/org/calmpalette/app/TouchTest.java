package org.calmpalette.app;

import static org.assertj.core.api.Assertions.assertThat;

import com.google.gson.JsonArray;
import com.google.gson.JsonObject;
import com.microsoft.playwright.Browser;
import com.microsoft.playwright.BrowserContext;
import com.microsoft.playwright.CDPSession;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.Cookie;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.util.List;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.json.JsonMapper;

/** The owner's side under a thumb. */
class TouchTest {
    private static final int FINGER = 44;
    private final Running running = Running.get();

    private Page phone() {
        BrowserContext context = Browsers.get()
                .newContext(new Browser.NewContextOptions()
                        .setViewportSize(390, 844)
                        .setHasTouch(true)
                        .setIsMobile(true)
                        .setDeviceScaleFactor(2));
        context.addCookies(new Client(running.address)
                .signedInWindow("jonas").cookies().entrySet().stream()
                        .map(c -> new Cookie(c.getKey(), c.getValue()).setUrl(running.address))
                        .toList());
        Page page = context.newPage();
        page.setDefaultTimeout(Browsers.patience());
        page.navigate(running.address + "/sites/sallowmere-ferries");
        page.waitForCondition(() -> !Running.frames(page).isEmpty());
        return page;
    }

    private static void touch(CDPSession protocol, String type, double x, double y) {
        JsonArray points = new JsonArray();
        if (!type.equals("touchEnd")) {
            JsonObject point = new JsonObject();
            point.addProperty("x", x);
            point.addProperty("y", y);
            points.add(point);
        }
        JsonObject event = new JsonObject();
        event.addProperty("type", type);
        event.add("touchPoints", points);
        protocol.send("Input.dispatchTouchEvent", event);
    }

    /** WCAG 2.2, 2.5.5: targets of at least 44 by 44 CSS px, but for links within a text. */
    @Test
    void everyControlIsLargeEnoughForAFinger() {
        Page page = phone();
        try {
            for (Object place : (List<?>)
                    page.evaluate("() => [...document.querySelectorAll('[data-place]')].map(c => c.dataset.place)")) {
                page.locator("[data-place='" + place + "']").tap();
                Object small = page.evaluate(
                        """
                        least => [...document.querySelectorAll('button, input:not([type=hidden]), select, textarea, summary, label, a[href]')]
                          .filter(e => e.checkVisibility({ visibilityProperty: true, opacityProperty: true }))
                          .filter(e => !(e.matches('input[type=radio], input[type=checkbox]') && e.closest('label')) && !(e.matches('label') && !e.querySelector('input')))
                          .filter(e => !(e.matches('a') && getComputedStyle(e).display === 'inline' && e.parentElement.matches('p')))
                          .map(e => [e, e.getBoundingClientRect()])
                          .filter(([, b]) => b.width > 0 && (b.height < least - 0.5 || b.width < least - 0.5))
                          .map(([e, b]) => `${e.localName}.${e.className} ${e.textContent.trim().slice(0, 20)} ${Math.round(b.width)}x${Math.round(b.height)}`)""",
                        FINGER);
                assertThat((List<?>) small).as("in " + place).isEmpty();
            }
        } finally {
            page.context().close();
        }
    }

    /** What must stay in sight is marked on a phone too. */
    @Test
    void aMarkOnAPictureIsLargeEnoughForAFinger() throws IOException {
        Page page = phone();
        try {
            Client owner = new Client(running.address).signedIn("jonas");
            ByteArrayOutputStream png = new ByteArrayOutputStream();
            ImageIO.write(new BufferedImage(1300, 700, BufferedImage.TYPE_INT_RGB), "png", png);
            String mark = JsonMapper.shared()
                    .readTree(owner.upload(
                                    "/sites/sallowmere-ferries/pictures",
                                    "quay.png",
                                    png.toByteArray(),
                                    "key",
                                    "river-picture",
                                    "field",
                                    "v.picture")
                            .body())
                    .get("mark")
                    .asString();
            page.navigate(running.address + mark);
            page.waitForSelector("[data-marking][open] [name=left]");
            Object small = page.evaluate(
                    "least => [...document.querySelectorAll('.own-pictures :is(button, input[name=left], input[name=height], summary)')].map(e => [e.name || e.localName, e.getBoundingClientRect().height]).filter(([, h]) => h < least - 0.5)",
                    FINGER);
            assertThat((List<?>) small).isEmpty();
        } finally {
            page.context().close();
        }
    }

    /** A thumb that moves up over a slider scrolls; one that lands on its track changes nothing either. */
    @Test
    void aThumbThatScrollsOverASliderChangesNothing() {
        Page page = phone();
        try {
            page.locator("[data-place=hero]").tap();
            var slider =
                    page.locator("[data-key=hero-height] input[type=range]").first();
            slider.scrollIntoViewIfNeeded();
            String before = slider.inputValue();
            String state = page.locator("#state .state").textContent();
            var box = slider.boundingBox();
            CDPSession protocol = page.context().newCDPSession(page);
            double x = box.x + box.width * 0.15;
            double y = box.y + box.height / 2;
            touch(protocol, "touchStart", x, y);
            for (int i = 1; i <= 8; i++) {
                touch(protocol, "touchMove", x + i, y - i * 12);
            }
            touch(protocol, "touchEnd", 0, 0);
            page.touchscreen()
                    .tap(
                            box.x + box.width * 0.9,
                            page.locator("[data-key=hero-height] input[type=range]")
                                            .first()
                                            .boundingBox()
                                            .y
                                    + box.height / 2);
            page.waitForFunction(
                    "() => new Promise(r => requestAnimationFrame(() => requestAnimationFrame(() => r(true))))");
            assertThat(slider.inputValue()).isEqualTo(before);
            assertThat(page.locator("#state .state").textContent()).isEqualTo(state);
        } finally {
            page.context().close();
        }
    }
}

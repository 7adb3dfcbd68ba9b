package org.calmpalette.app;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.BoundingBox;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.junit.jupiter.api.Test;

/** The field of colours with its safe area: on the maker's card with limits that keep to it, on the owner's side by hand and by keys. */
class SafeAreaViewTest {
    private static final String PALETTE =
            "{\"name\": \"Buoy\", \"places\": [{\"key\": \"p\", \"label\": \"P\"}], \"settings\": ["
                    + "{\"key\": \"ground\", \"label\": \"Ground\", \"place\": \"p\", \"kind\": \"color\", \"default\": \"#204060\", \"allowed\": {\"bounds\": {\"lightness\": [0, 80]}}},"
                    + "{\"key\": \"veil\", \"label\": \"Veil\", \"place\": \"p\", \"kind\": \"color\", \"default\": \"#20406080\"}]}";

    private final Running running = Running.get();
    private final Client maker = new Client(running.address).signedIn("ida");

    private String bringIn() throws IOException {
        TreeMap<String, byte[]> files = new TreeMap<>(Map.of(
                "index.html",
                "<!doctype html><html lang=en><head><title>Buoy</title><meta name=viewport content=width=device-width><link rel=stylesheet href=a.css></head><body><main><h1>One</h1><p>Two</p></main></body></html>"
                        .getBytes(StandardCharsets.UTF_8),
                "a.css",
                "main { background: var(--ground); color: #ffffff; border: 1px solid var(--veil) }"
                        .getBytes(StandardCharsets.UTF_8),
                "palette.json",
                PALETTE.getBytes(StandardCharsets.UTF_8)));
        return maker.bringIn("buoy.zip", HostileThemesInTheApplicationTest.zip(files));
    }

    /** Of a colour of the field by its lightness: whether the drawing covers it with stripes. */
    private static boolean isStriped(Page page, double across, double down) {
        return (boolean) page.evaluate(
                "([x, y]) => { const p = document.querySelector('.field-unsafe'); const b = document.querySelector('.field-plane').getBoundingClientRect();"
                        + " return p.isPointInFill(new DOMPoint(x * b.width, y * b.height)); }",
                List.of(across, down));
    }

    @Test
    void aMakerSeesTheAreaAndKeepsOwnersInIt() throws IOException {
        String theme = bringIn();
        Page page = running.maker();
        page.navigate(running.address + theme + "/settings?key=ground");
        page.waitForSelector("calm-field [data-said]:has-text('Least of all pages and choices: “Two”')");
        page.waitForSelector(
                ".field-unsafe[d*=M]",
                new Page.WaitForSelectorOptions()
                        .setState(com.microsoft.playwright.options.WaitForSelectorState.ATTACHED));
        // White on it: all that is light is striped, all that is dark is not.
        assertThat(isStriped(page, 0.5, 0.1)).isTrue();
        assertThat(isStriped(page, 0.5, 0.9)).isFalse();
        BoundingBox plane = page.locator(".field-plane").boundingBox();
        page.mouse().move(plane.x + plane.width / 6, plane.y + plane.height * 0.2);
        page.mouse().down();
        page.waitForCondition(
                () -> page.locator("[data-any]").first().inputValue().matches("#[c-f].*"));
        page.mouse().move(plane.x + plane.width / 6, plane.y + plane.height * 0.3);
        page.mouse().up();
        page.waitForCondition(() -> Running.frames(page).stream()
                .allMatch(f -> !Running.style(f, "main", "background-color").equals("rgb(32, 64, 96)")));
        page.waitForSelector("[data-judged].state-breaks");
        // Limits: the contrast with white is the widest, and with it the promise is kept.
        Locator way = page.locator(".way-out", new Page.LocatorOptions().setHasText("a contrast of 4.5 with #ffffff"));
        assertThat(way.innerText()).contains("Ask of “Ground”", "no colours that let through");
        way.locator("button").click();
        page.waitForSelector("#notice >> text=a contrast of 4.5 with #ffffff");
        page.waitForSelector("#card calm-field");
        page.waitForCondition(() -> page.locator("#card .way-out").count() == 0);
        assertThat(maker.get(theme + "/settings/area?key=ground&at=%23777777").body())
                .contains("\"state\":\"breaks\"", "4.47 to 1; 4.5 is needed");
        assertThat(maker.get(theme + "/settings/area?key=ground&at=%23767676").body())
                .contains("\"state\":\"kept\"");
        assertThat(maker.get(theme + "/settings/area?key=nothing").statusCode()).isEqualTo(404);
        assertThat(maker.post(theme + "/settings/limit", "base", maker.base(theme), "key", "ground", "way", "made up")
                        .statusCode())
                .isEqualTo(422);
        page.click("text=Undo");
        page.waitForSelector(".way-out");
    }

    @Test
    void anOwnerPicksByHandAndByKeysAndWhatLetsThroughStaysSo() throws IOException {
        String theme = bringIn();
        String name = "Buoy " + System.nanoTime();
        assertThat(maker.post(theme + "/sites", "name", name, "whose", "me").statusCode())
                .isEqualTo(302);
        Page page = running.signedIn("ida", 390, 844);
        page.navigate(running.address + "/sites/" + name.toLowerCase().replace(' ', '-'));
        Locator ground = page.locator("[data-question][data-key=ground]");
        ground.locator(".field-of summary").click();
        page.waitForSelector("[data-key=ground] [data-legend]:has-text('Striped')");
        Locator point = ground.locator(".field-point");
        point.focus();
        page.keyboard().press("Shift+ArrowUp");
        page.waitForCondition(() -> ground.locator("[data-any]").inputValue().matches("#2d5.86"));
        page.waitForSelector("#state button:has-text('Undo'):not([disabled])");
        for (int i = 0; i < 4; i++) {
            page.keyboard().press("Shift+ArrowUp");
        }
        page.waitForCondition(
                () -> String.valueOf(point.getAttribute("aria-valuetext")).contains("“Two” would be hard to read."));
        // No number that only makers know.
        assertThat(ground.locator("calm-field").innerText()).doesNotContain("to 1");
        // A colour that lets through is shown as one, and stays one however it is picked anew.
        Locator veil = page.locator("[data-question][data-key=veil]");
        veil.locator(".field-of summary").click();
        page.waitForCondition(() -> veil.locator("[data-through]").inputValue().equals("50"));
        veil.locator("input[type=color]")
                .evaluate("e => { e.value = '#aa0000'; e.dispatchEvent(new Event('input', {bubbles: true})); }");
        assertThat(veil.locator("[data-any]").inputValue()).isEqualTo("#aa000080");
        veil.locator(".field-point").focus();
        page.keyboard().press("ArrowUp");
        assertThat(veil.locator("[data-any]").inputValue()).matches("#[0-9a-f]{6}80");
        // Whatever CSS calls a colour is followed by what picks one.
        veil.locator("[data-any]").fill("hsl(120 100% 25% / 40%)");
        assertThat(veil.locator("input[type=color]").inputValue()).isEqualTo("#008000");
        page.waitForCondition(() -> veil.locator("[data-through]").inputValue().equals("60"));
    }
}

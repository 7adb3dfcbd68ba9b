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

    private static final String FOG =
            "{\"name\": \"Fog\", \"places\": [{\"key\": \"p\", \"label\": \"P\"}], \"settings\": ["
                    + "{\"key\": \"ink\", \"label\": \"Ink\", \"place\": \"p\", \"kind\": \"color\", \"default\": \"#000000\"},"
                    + "{\"key\": \"fade\", \"label\": \"Fade\", \"place\": \"p\", \"kind\": \"percentage\", \"default\": 90, \"allowed\": {\"least\": 20, \"most\": 95, \"step\": 5}},"
                    + "{\"key\": \"mood\", \"label\": \"Mood\", \"place\": \"p\", \"kind\": \"choice\", \"default\": \"day\", \"allowed\": {\"options\": [{\"key\": \"day\", \"label\": \"Day\", \"css\": \"#fff\"}, {\"key\": \"night\", \"label\": \"Night\", \"css\": \"#14202b\"}]}},"
                    + "{\"key\": \"round\", \"label\": \"Round\", \"place\": \"p\", \"kind\": \"yes-no\", \"default\": true}]}";

    private String bringIn() throws IOException {
        return bringIn(PALETTE, "main { background: var(--ground); color: #ffffff; border: 1px solid var(--veil) }");
    }

    private String bringIn(String palette, String css) throws IOException {
        TreeMap<String, byte[]> files = new TreeMap<>(Map.of(
                "index.html",
                "<!doctype html><html lang=en><head><title>Buoy</title><meta name=viewport content=width=device-width><link rel=stylesheet href=a.css></head><body><main><h1>One</h1><p>Two</p></main></body></html>"
                        .getBytes(StandardCharsets.UTF_8),
                "a.css",
                css.getBytes(StandardCharsets.UTF_8),
                "palette.json",
                palette.getBytes(StandardCharsets.UTF_8)));
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

    /** From and to, in percent of the way of a slide, of what is striped. */
    private static String striped(Locator question) {
        return String.valueOf(
                question.locator(".safe-part .unsafe")
                        .evaluateAll(
                                "all => all.map(r => [r.x, r.width].map(l => Math.round(l.baseVal.valueInSpecifiedUnits)).join('+')).join(' ')"));
    }

    @Test
    void sliderAndListShowTheirSafePartAsAllElseIsNowAndLimitsKeepToIt() throws IOException {
        String theme = bringIn(
                FOG,
                "h1 { opacity: var(--fade); font-size: 12px; color: var(--ink) } p { background: var(--mood); color: #111111; border-radius: calc(1px * var(--round)) }");
        String name = "Fog " + System.nanoTime();
        assertThat(maker.post(theme + "/sites", "name", name, "whose", "me").statusCode())
                .isEqualTo(302);
        String site = "/sites/" + name.toLowerCase().replace(' ', '-');
        Page page = running.signedIn("ida", 390, 844);
        page.navigate(running.address + site);
        Locator fade = page.locator("[data-question][data-key=fade]");
        Locator mood = page.locator("[data-question][data-key=mood]");
        // Black with an opacity of 55% and more is read on white (WCAG 2.2: from 53.5% on); up to there the way of 0 to
        // 100 is striped.
        page.waitForSelector(
                "[data-key=fade] [data-safe-said]:has-text('All words can be read with 55% to 95%; else “One”')");
        assertThat(striped(fade)).isEqualTo("20+35");
        assertThat(fade.locator("[data-number]").getAttribute("aria-describedby"))
                .isEqualTo(fade.locator("[data-safe-said]").getAttribute("id"));
        assertThat(mood.locator("label.unsafe").innerText()).isEqualTo("Night");
        assertThat(mood.locator("label.unsafe input").getAttribute("aria-description"))
                .isEqualTo("“Two” would be hard to read.");
        assertThat(page.locator("[data-key=round] [data-safe-said]").count()).isZero();
        // With another ink less of it is safe.
        page.locator("[data-key=ink] [data-any]").fill("#555555");
        page.locator("[data-key=ink] [data-any]").press("Enter");
        page.waitForSelector("[data-key=fade] [data-safe-said]:has-text('85% to 95%')");
        assertThat(striped(fade)).isEqualTo("20+65");
        // The maker's card shows it as all else is made, and keeps owners to it.
        Page card = running.maker();
        card.navigate(running.address + theme + "/settings?key=fade");
        card.waitForSelector("[data-safe-said]:has-text('55% to 95%')");
        Locator way = card.locator(".way-out", new Page.LocatorOptions().setHasText("Let “Fade” be 55% to 95%"));
        way.locator("button").click();
        card.waitForSelector("#notice >> text=Let “Fade” be 55% to 95%");
        card.waitForSelector("#card input[value='55']");
        card.waitForCondition(
                () -> card.locator("#card .way-out, #card .safe-part").count() == 0);
        card.click("text=Undo");
        card.waitForSelector("#card .way-out");
        assertThat(maker.get(theme + "/settings/safe?key=nothing").statusCode()).isEqualTo(404);
        assertThat(maker.get(theme + "/settings/safe?key=ink").body()).isEqualTo("[]");
        // All settings at once.
        assertThat(maker.page(theme + "/promises/limits").text())
                .contains("Let “Fade” be 55% to 95%", "Let “Mood” be Day");
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

package org.calmpalette.app;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Page;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Boxes are measured with other values of settings by themselves, and a page that does not hold together then is a broken promise. */
class VariedBoxesTest {
    private static final String PALETTE =
            "{\"name\": \"Quay\", \"places\": [{\"key\": \"p\", \"label\": \"P\"}], \"settings\": ["
                    + "{\"key\": \"wide\", \"label\": \"Wide\", \"place\": \"p\", \"kind\": \"length\", \"default\": {\"value\": 300, \"unit\": \"px\"}, \"allowed\": {\"units\": [{\"unit\": \"px\", \"least\": 100, \"most\": 900}]}},"
                    + "{\"key\": \"title\", \"label\": \"Title\", \"place\": \"p\", \"kind\": \"line\", \"default\": \"One\", \"allowed\": {\"least\": 1, \"most\": 60}},"
                    + "{\"key\": \"soft\", \"label\": \"Soft\", \"place\": \"p\", \"kind\": \"percentage\", \"default\": 10, \"allowed\": {\"least\": 0, \"most\": 50}}]}";

    private final Running running = Running.get();
    private final Client maker = new Client(running.address).signedIn("ida");

    private JsonNode unvaried(String theme) {
        return JsonMapper.shared()
                .readTree(maker.get(theme + "/measures/unvaried").body())
                .path("pages");
    }

    @Test
    void whatDoesNotHoldTogetherWithAnotherValueIsFoundAndShown() throws Exception {
        TreeMap<String, byte[]> files = new TreeMap<>(Map.of(
                "index.html",
                "<!doctype html><html lang=en><head><title>Quay</title><meta name=viewport content=width=device-width><link rel=stylesheet href=a.css></head><body><main><h1 data-setting-text=title>One</h1><p>Two</p></main></body></html>"
                        .getBytes(StandardCharsets.UTF_8),
                "more.html",
                "<!doctype html><html lang=en><head><title>More</title></head><body><h1>More</h1></body></html>"
                        .getBytes(StandardCharsets.UTF_8),
                "a.css",
                "p { width: var(--wide); border-radius: var(--soft) } h1 { font-size: 30px }"
                        .getBytes(StandardCharsets.UTF_8),
                "palette.json",
                PALETTE.getBytes(StandardCharsets.UTF_8)));
        String theme = maker.bringIn("quay.zip", HostileThemesInTheApplicationTest.zip(files));
        // The corners move nothing, the title its page, and a length whatever page may read it.
        List<String> wanted = unvaried(theme)
                .valueStream()
                .map(u -> u.path("page").asString())
                .toList();
        assertThat(wanted)
                .containsExactlyInAnyOrder(
                        "index.html", "index.html", "index.html", "index.html", "more.html", "more.html");
        JsonNode first = unvaried(theme).get(0);
        String address = first.path("base").asString();
        assertThat(new Client(running.address).get(address + "settings.css").statusCode())
                .isEqualTo(200);
        assertThat(new Client(running.address)
                        .get(address.replaceFirst("(/frame/v\\d+-\\w+-)\\d+", "$15") + "index.html")
                        .statusCode())
                .as("another value than the address was made for")
                .isEqualTo(404);
        Page page = running.maker();
        page.navigate(running.address + theme + "/promises");
        // Six to begin with; then, between the width that holds and the one that does not, four, four and one.
        PromisesViewTest.measured(page, "tr.group:has-text('15 other values')");
        assertThat(unvaried(theme).size()).isZero();
        assertThat(page.locator("tr.pick:has-text('wider than the window')").allInnerTexts())
                .anyMatch(t -> t.contains("Wide: ") && t.contains("the page is 908 px wide") && t.contains("<p>"))
                .anyMatch(t -> t.contains("Title: ") && t.contains("<h1>"));
        page.locator("tr.pick:has-text('908 px wide') .name").click();
        page.waitForSelector("#card dl.case:has-text('Wide')");
        assertThat(page.locator("#card").innerText())
                .contains("900px", "a choice breaks it", "Give it max-width: 100%");
        page.waitForCondition(() -> Running.frames(page).stream()
                .allMatch(f -> Running.style(f, "p", "width").equals("900px")));
        // What is left open says how far it was looked.
        assertThat(page.locator("table.promises").innerText())
                .contains("and nothing with 15 other values of 3 settings, one at a time");
        // 310 px and the body's margin fit the narrowest window, 320 px, and 320 px do not.
        page.click("#card .way-out:has-text('Let “Wide” be 100 to 310 px') button");
        page.waitForSelector("#notice >> text=Let “Wide” be 100 to 310 px");
        PromisesViewTest.measured(page, "tr.pick:has-text('Title: ')");
        assertThat(page.locator("table.promises").innerText()).doesNotContain("Wide: ");
    }
}

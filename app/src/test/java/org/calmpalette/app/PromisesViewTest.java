package org.calmpalette.app;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import java.io.IOException;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.TreeMap;
import org.junit.jupiter.api.Test;

/** The promises of a theme in the application: from a red row to one that is kept, and back. */
class PromisesViewTest {
    private final Running running = Running.get();

    private static final String INDEX =
            "<!doctype html><html lang=en><head><title>Pier</title><meta name=viewport content=width=device-width>"
                    + "<link rel=stylesheet href=a.css></head><body><main><h1>One</h1><p>Two <a href=index.html data-setting-text=more>More</a></p></main></body></html>";
    private static final String PALETTE =
            "{\"name\": \"Pier\", \"places\": [{\"key\": \"p\", \"label\": \"P\"}], \"settings\": ["
                    + "{\"key\": \"ink\", \"label\": \"Ink\", \"place\": \"p\", \"kind\": \"color\", \"default\": \"#222222\", \"allowed\": {\"swatches\": [\"#222222\", \"#bbbbbb\"]}},"
                    + "{\"key\": \"more\", \"label\": \"More\", \"place\": \"p\", \"kind\": \"line\", \"default\": \"More\"}]}";

    /** The demo's maker brings it in. @return its address */
    private String bringIn() throws IOException {
        TreeMap<String, byte[]> files = new TreeMap<>();
        files.put("index.html", INDEX.getBytes(StandardCharsets.UTF_8));
        files.put(
                "a.css",
                "p { color: var(--ink); overflow-wrap: anywhere } a { color: #0000ee }"
                        .getBytes(StandardCharsets.UTF_8));
        files.put("palette.json", PALETTE.getBytes(StandardCharsets.UTF_8));
        return new Client(running.address)
                .signedIn("ida")
                .bringIn("pier.zip", HostileThemesInTheApplicationTest.zip(files));
    }

    private Page open() throws IOException {
        Page page = running.maker();
        page.navigate(running.address + bringIn() + "/promises");
        page.waitForSelector("tr.pick", new Page.WaitForSelectorOptions().setTimeout(4 * Browsers.patience()));
        Running.settled(page);
        return page;
    }

    @Test
    void aBrokenPromiseIsSeenInTheFramesMendedAndUndone() throws IOException {
        Page page = open();
        assertThat(page.locator(".trail [aria-current] .count").innerText()).isEqualTo("2");
        assertThat(page.locator("tr.pick .name").allInnerTexts()).startsWith("Two", "More");
        page.waitForSelector("#card .way-out");
        // The ledger of settings carries it too, and leads back to the case.
        String here = page.url();
        page.navigate(here.replace("/promises", "/settings"));
        assertThat(page.locator("tr.pick[data-row=ink] .state-breaks")
                        .innerText()
                        .strip())
                .isEqualTo("1");
        assertThat(page.locator("tr.pick .state-breaks").count()).isEqualTo(2);
        page.navigate(here.replace("/promises", "/handover"));
        assertThat(page.locator("main").innerText())
                .contains("2 promises are broken", "Say first why it goes out")
                .doesNotContain("Download with the defaults");
        page.fill("#site-name", "Pier " + System.nanoTime());
        page.click("text=Mine for now");
        page.click("text=Make the site");
        page.waitForSelector("text=Say first, on the page of the handover");
        Running.handover(page, here.replace("/promises", "/handover"));
        assertThat(page.locator("main").innerText())
                .contains("It goes out all the same: “it is mended next week”", "Download with the defaults");
        page.navigate(here.replaceFirst("/promises.*", "/history"));
        assertThat(page.locator(".history").innerText())
                .contains("Given out with broken promises: it is mended next week");
        // On paper: the same case, its number, and what is seen then.
        page.navigate(here.replaceFirst("/promises.*", "/promises/report"));
        Locator worst =
                page.locator(".report tr:has-text('a choice breaks it')").first();
        assertThat(worst.innerText()).contains("Two", "1.91 to 1, needs 4.5", "With Ink #bbbbbb");
        assertThat(worst.locator(".sample text").getAttribute("fill")).isEqualTo("#bbbbbb");
        assertThat(worst.locator(".sample rect").getAttribute("fill")).isEqualTo("#ffffff");
        assertThat(page.locator(".report tr:has-text('kept, the closest')").count())
                .isEqualTo(1);
        page.addInitScript("window.print = () => { document.title = 'printed' }");
        page.reload();
        page.click("[data-print]");
        assertThat(page.title()).isEqualTo("printed");
        page.navigate(here.replace("/promises", "/settings"));
        page.click("tr.pick[data-row=ink] .state-breaks");
        page.waitForSelector("#card .way-out");
        assertThat(page.locator("#card h2").innerText()).isEqualTo("Two");
        assertThat(page.locator("#card").innerText())
                .contains("a choice breaks it", "1.91 to 1", "where 4.5 is needed", "#bbbbbb")
                .contains("Ask of “Ink” a contrast of 4.5 with #ffffff", "Take #bbbbbb out of the swatches of “Ink”");
        page.waitForCondition(() -> Running.frames(page).stream()
                .allMatch(f -> Running.style(f, "p", "color").equals("rgb(187, 187, 187)")));
        // What the same choice comes to with a way out: it is not allowed then.
        Locator way = page.locator("#card .way-out").first();
        way.hover();
        page.waitForCondition(() -> Running.frames(page).stream()
                .allMatch(f -> Running.style(f, "p", "color").equals("rgb(34, 34, 34)")));
        page.waitForNavigation(() -> way.locator("button").click());
        page.waitForSelector("#notice >> text=a contrast of 4.5");
        page.waitForSelector("tr.pick");
        Running.settled(page);
        assertThat(page.locator("tr.pick .name").allInnerTexts()).startsWith("More");
        assertThat(page.locator(".trail [aria-current] .count").innerText()).isEqualTo("1");
        page.locator("tr.pick .name").first().click();
        page.waitForSelector("#card .way-out >> text=Let “More” be 1 to 200 characters");
        page.waitForNavigation(() -> page.locator("#card .way-out button").click());
        page.waitForSelector("#notice >> text=1 to 200 characters");
        page.waitForSelector(".promised .state-kept");
        Running.settled(page);
        assertThat(page.locator("tr.pick .state-breaks").count()).isZero();
        assertThat(page.locator(".trail [aria-current] .count").innerText()).isEqualTo("0");
        page.waitForNavigation(() -> page.click("text=Undo"));
        page.navigate(page.url().replaceFirst("\\?.*|$", "?kept=true"));
        page.waitForSelector("tr.pick");
        assertThat(page.locator("tr.pick .sign").allInnerTexts().stream().map(String::strip))
                .contains("a choice breaks it", "kept");
        page.fill("[data-search]", "still");
        assertThat(page.locator("tr.pick:visible .name").allInnerTexts()).containsExactly("Pier");
        page.fill("[data-search]", "");
        // Boxes are measured without being asked; if not before, they are now, and what they tell is shown when one
        // wants to see it.
        measured(page, "tr.group:has-text('2 other values')");
        // What several promises share is said once.
        assertThat(page.locator("tr.group:has-text('2 other values')").count()).isEqualTo(1);
        assertThat(page.locator("tr.group:has-text('Fits')").innerText())
                .contains("and nothing with 2 other values of one setting, one at a time");
    }

    /** Waits until the pages are measured, with other values too, and shows what that tells, as it is offered. */
    static void measured(Page page, String known) {
        String offered = "a:has-text('Pages are measured'), a:has-text('Show what is known now')";
        Page.WaitForSelectorOptions patience = new Page.WaitForSelectorOptions().setTimeout(8 * Browsers.patience());
        while (page.locator(known).count() == 0) {
            page.waitForSelector(known + ", " + offered, patience);
            if (page.locator(known).count() == 0) {
                page.waitForNavigation(() -> page.locator(offered).first().click());
            }
        }
    }

    /** Rows are walked by the arrow keys, and each opens its card. */
    @Test
    void rowsAreWalkedByKeys() throws IOException {
        Page page = open();
        page.locator("tr.pick .name").first().focus();
        page.keyboard().press("ArrowDown");
        page.waitForSelector("#card h2:has-text('More')");
        assertThat(page.url()).contains("/promises?key=whole");
        page.reload();
        assertThat(page.locator("tr.pick[aria-selected=true] .name").innerText())
                .isEqualTo("More");
    }

    @Test
    void whatIsNotPromisedIsLetBeWithItsReasonAndAskedForAgain() throws IOException {
        Page page = open();
        page.click("#card summary:has-text('Do not promise it')");
        page.fill("#w-note", "Only for a week");
        page.click("text=Let it be");
        page.waitForSelector("#notice >> text=is not promised: Only for a week");
        page.waitForSelector("tr.pick:has-text('not promised')");
        assertThat(page.locator(".trail [aria-current] .count").innerText()).isEqualTo("1");
        page.click("tr.pick:has-text('not promised') .name");
        page.waitForSelector("#card >> text=Not promised: Only for a week");
        page.click("text=Promise it again");
        page.waitForSelector("#notice >> text=is promised again");
        page.waitForCondition(() ->
                page.locator(".trail [aria-current] .count").allInnerTexts().equals(List.of("2")));
    }

    @Test
    void whatHasChangedIsToldSo() throws IOException {
        Client maker = new Client(running.address).signedIn("ida");
        String theme = bringIn();
        HttpResponse<String> gone = maker.get(theme + "/promises/card?key=readable%20nothing");
        assertThat(gone.statusCode()).isEqualTo(422);
        assertThat(gone.body()).contains("asked otherwise now");
        assertThat(maker.post(theme + "/promises/try", "key", "readable nothing")
                        .body())
                .contains("asked otherwise now");
        assertThat(maker.get(theme + "/promises?key=readable%20nothing").statusCode())
                .isEqualTo(200);
    }

    /** All limits at once, taken and undone. */
    @Test
    void limitsForAllSettingsAreTakenInOneStep() throws IOException {
        Page page = open();
        page.click(".tabs >> text=Limits for all");
        page.waitForSelector("#card h2:has-text('Limits for all settings')");
        assertThat(page.locator("#card").innerText()).contains("Ask of “Ink” a contrast of 4.5 with #ffffff");
        assertThat(page.locator("#card").innerText()).contains("Today: 2 swatches.");
        page.waitForNavigation(() -> page.click("text=Take the ticked ones"));
        page.waitForSelector("#notice >> text=Limits that keep all texts: Ink");
        page.waitForSelector("tr.pick");
        Running.settled(page);
        assertThat(page.locator("tr.pick .name").allInnerTexts()).startsWith("More");
        page.click(".tabs >> text=Limits for all");
        page.waitForSelector("#card >> text=Nothing that may be chosen makes a text hard to read");
        page.waitForNavigation(() -> page.click("text=Undo"));
    }

    @Test
    void aPromiseAboutTwoColorsIsAddedAndTakenBack() throws IOException {
        Client maker = new Client(running.address).signedIn("ida");
        TreeMap<String, byte[]> files = new TreeMap<>();
        files.put("index.html", INDEX.getBytes(StandardCharsets.UTF_8));
        files.put(
                "a.css",
                "p { color: var(--ink); overflow-wrap: anywhere } a { color: #0000ee }"
                        .getBytes(StandardCharsets.UTF_8));
        files.put(
                "palette.json",
                PALETTE.replace(
                                "{\"key\": \"more\"",
                                "{\"key\": \"edge\", \"label\": \"Edge\", \"place\": \"p\", \"kind\": \"color\", \"default\": \"#dddddd\", \"allowed\": {\"swatches\": [\"#dddddd\", \"#999999\"]}}, {\"key\": \"more\"")
                        .getBytes(StandardCharsets.UTF_8));
        String theme = maker.bringIn("pier.zip", HostileThemesInTheApplicationTest.zip(files));
        Page page = running.maker();
        page.navigate(running.address + theme + "/promises");
        page.waitForSelector("tr.pick", new Page.WaitForSelectorOptions().setTimeout(4 * Browsers.patience()));
        page.click("text=Two colours");
        page.selectOption("#b-one", "ink");
        page.selectOption("#b-other", "edge");
        page.fill("#b-contrast", "3");
        page.waitForNavigation(() -> page.click("text=Promise it"));
        page.waitForSelector("#notice >> text=Promised of “Ink” and “Edge”: a contrast of 3");
        page.waitForSelector("tr.pick:has-text('Ink and Edge')");
        Running.settled(page);
        page.click("tr.pick:has-text('Ink and Edge') .name");
        page.waitForSelector("#card h2:has-text('Ink and Edge')");
        // #bbbbbb on #dddddd, by WCAG's formula: 0.773 / 0.547.
        assertThat(page.locator("#card").innerText()).contains("1.41 to 1", "where 3 is needed", "#bbbbbb");
        page.waitForSelector("#card .way-out >> text=Ask of “Ink” a contrast of 3 with “Edge”");
        page.waitForNavigation(() -> page.click("text=Take this promise back"));
        page.waitForSelector("#notice >> text=The contrast of “Ink” and “Edge” is not promised any more");
        // That everybody tells them apart: #bbbbbb and the edge as made, #dddddd, are 0.105 apart in OKLab, as greys
        // are to all: by
        // hand, the cube roots of 0.4969 and 0.7230.
        page.click("text=Two colours");
        page.selectOption("#b-one", "ink");
        page.selectOption("#b-other", "edge");
        page.fill("#b-contrast", "");
        page.fill("#b-distance", "0,2");
        page.waitForNavigation(() -> page.click("text=Promise it"));
        page.waitForSelector("#notice >> text=a distance of 0.2 for every colour vision");
        page.waitForSelector("tr.pick:has-text('Ink and Edge')");
        Running.settled(page);
        page.click("tr.pick:has-text('Ink and Edge') .name");
        page.waitForSelector("#card h2:has-text('Ink and Edge')");
        assertThat(page.locator("#card").innerText())
                .contains("Told apart", "0.105 apart", "where 0.2 is needed, with usual colour vision", "#bbbbbb");
        page.waitForSelector("#card .way-out >> text=Take #bbbbbb out of the swatches of “Ink”");
        page.waitForNavigation(
                () -> page.locator("#card .way-out button").first().click());
        page.waitForSelector("tr.group:has-text('Told apart') .state-kept");
        assertThat(maker.get(theme + "/promises/report").body()).contains("Told apart");
        assertThat(maker.post(
                                theme + "/promises/between",
                                "base",
                                maker.base(theme),
                                "one",
                                "ink",
                                "other",
                                "edge",
                                "distance",
                                "far")
                        .body())
                .contains("is no distance.", "such as 0.1");
    }

    @Test
    void howMuchIsPromisedIsSaidAndUndone() {
        Client maker = new Client(running.address).signedIn("ida");
        TreeMap<String, byte[]> files = new TreeMap<>();
        files.put("index.html", INDEX.getBytes(StandardCharsets.UTF_8));
        files.put("a.css", "p { color: #767676 }".getBytes(StandardCharsets.UTF_8));
        String theme = maker.bringIn("much.zip", HostileThemesInTheApplicationTest.zip(files));
        assertThat(maker.page(theme + "/promises/thresholds")
                        .select("input[checked]")
                        .val())
                .isEqualTo("AA");
        String base = maker.base(theme);
        assertThat(maker.post(theme + "/promises/thresholds", "base", base, "level", "AA", "pictures", "1500")
                        .body())
                .contains("That is promised already.");
        assertThat(maker.post(theme + "/promises/thresholds", "base", base, "level", "AAA", "pictures", "lots")
                        .body())
                .contains("is no weight.", "from 50 to 20000");
        assertThat(maker.post(
                                theme + "/promises/thresholds",
                                "base",
                                base,
                                "level",
                                "AA",
                                "pictures",
                                "1500",
                                "larger",
                                "9")
                        .body())
                .contains("drawn at most 9 times", "from 0.25 to 4");
        maker.post(
                theme + "/promises/thresholds",
                "base",
                base,
                "level",
                "AAA",
                "pictures",
                "700",
                "seam",
                "4",
                "larger",
                "1");
        assertThat(maker.page(theme + "/history").text())
                .contains(
                        "Promised from now on: texts keep the contrast of level AAA, and the pictures of a page weigh at most 700 kB, and pictures end less than 4 from what goes on there, and pictures are drawn at most 1 times as large as they are");
        assertThat(maker.page(theme + "/promises/thresholds")
                        .select("#t-pictures")
                        .val())
                .isEqualTo("700");
        Page page = running.maker();
        page.navigate(running.address + theme + "/promises");
        page.waitForSelector("tr.pick", new Page.WaitForSelectorOptions().setTimeout(4 * Browsers.patience()));
        assertThat(page.locator("table.promises").innerText())
                .contains(
                        "7 to 1, or 4.5 to 1 where it is large",
                        "less than 4 from its edge",
                        "more than 1 times as large",
                        "at most 700 kB",
                        "needs 7");
        maker.post(theme + "/undo", "base", maker.base(theme));
        assertThat(maker.page(theme + "/promises/thresholds")
                        .select("input[checked]")
                        .val())
                .isEqualTo("AA");
    }
}

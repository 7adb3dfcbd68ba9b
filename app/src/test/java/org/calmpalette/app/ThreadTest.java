package org.calmpalette.app;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.APIResponse;
import com.microsoft.playwright.Download;
import com.microsoft.playwright.Frame;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.FormData;
import com.microsoft.playwright.options.RequestOptions;
import java.nio.file.Files;
import java.nio.file.Path;
import org.calmpalette.core.intake.ThemeZip;
import org.junit.jupiter.api.MethodOrderer;
import org.junit.jupiter.api.Order;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestMethodOrder;
import org.junit.jupiter.api.io.TempDir;

/** The whole job on the demo, in the browser: from a fixed colour to a visitor who sees an owner's choice. */
@TestMethodOrder(MethodOrderer.OrderAnnotation.class)
class ThreadTest {
    private final Running running = Running.get();

    @TempDir
    Path folder;

    private String theme(Page page) {
        page.navigate(running.address + "/themes");
        return running.address + running.towpath();
    }

    @Test
    @Order(1)
    void aMakerLiftsOneUseOfAColourAndChangesItsDefault() {
        Page page = running.maker();
        String theme = theme(page);
        page.navigate(theme + "/survey?row=%231f3347");
        Running.frames(page);
        assertThat(page.locator("#card .uses li").count()).isEqualTo(3);
        page.click("text=All or none");
        page.locator("#card .uses li", new Page.LocatorOptions().setHasText(".pier {"))
                .locator("input")
                .check();
        page.fill("#f-label", "Pier line");
        page.fill("#f-key", "pier-line");
        page.fill("#f-place", "Piers");
        page.click("#card >> text=Any colour");
        page.click("text=Make it a setting");
        page.waitForURL("**/settings?key=pier-line");
        assertThat(page.locator("#notice").innerText())
                .contains("css/towpath.css, line 169")
                .contains("Pier line");

        page.selectOption("#page-pick", "piers.html");
        page.waitForCondition(
                () -> Running.frames(page).stream().allMatch(f -> f.url().endsWith("piers.html")));
        page.waitForCondition(() -> page.locator("[data-counts]").innerText().contains("4 parts"));
        page.fill("#card [name=v]", "rgb(200 30 60)");
        for (Frame frame : Running.frames(page)) {
            page.waitForCondition(
                    () -> Running.style(frame, ".pier", "borderLeftColor").equals("rgb(200, 30, 60)"));
            assertThat(Running.style(frame, ".column h1", "color")).isEqualTo("rgb(31, 51, 71)");
        }
        page.click("#card >> text=Save");
        page.waitForSelector("#notice >> text=default #1f3347 to #c81e3c");
        assertThat(page.locator("tr.pick[data-row=pier-line]").innerText()).contains("#c81e3c");

        page.click("text=Undo");
        page.waitForSelector("#notice >> text=Undone");
        assertThat(page.locator("tr.pick[data-row=pier-line]").innerText()).contains("#1f3347");
        page.keyboard().press("r");
        page.waitForSelector("#notice >> text=Done again");
        assertThat(page.locator("tr.pick[data-row=pier-line]").innerText()).contains("#c81e3c");
    }

    @Test
    @Order(2)
    void aRestorePointIsSetAndGoneBackTo() {
        Page page = running.maker();
        String theme = theme(page);
        page.navigate(theme + "/history");
        page.fill("#point-name", "red piers");
        page.click("text=Set it");
        page.waitForSelector(".history >> text=red piers");
        page.navigate(theme + "/settings?key=pier-line");
        page.click("text=Duplicate, rename, remove");
        page.click("text=Remove this setting");
        page.waitForSelector("#notice >> text=Removed the setting");
        page.navigate(theme + "/history");
        page.locator(".history li", new Page.LocatorOptions().setHasText("red piers:"))
                .locator("text=Go back here")
                .click();
        page.waitForSelector("#notice >> text=restore point “red piers”");
        page.navigate(theme + "/settings");
        assertThat(page.locator("tr.pick[data-row=pier-line]").innerText()).contains("#c81e3c");
    }

    @Test
    @Order(3)
    void theHandoverLooksAsThePreviewWithoutUs() throws Exception {
        Page page = running.maker();
        String theme = theme(page);
        Running.handover(page, theme + "/handover");
        Download download = page.waitForDownload(() -> page.click("text=Download with the defaults"));
        Path zip = folder.resolve("handover.zip");
        download.saveAs(zip);
        Path site = folder.resolve("site");
        ThemeZip.read(zip, "handover.zip", (path, bytes) -> write(site.resolve(path), bytes), (d, t, p) -> {});
        assertThat(Files.readString(site.resolve("README.txt")))
                .contains("--pier-line")
                .contains("web server");
        assertThat(Files.readString(site.resolve("css/towpath.css")))
                .contains("border-left: 6px solid var(--pier-line, #1f3347);")
                .contains("/* Piers */");

        page.navigate(theme + "/settings");
        String preview = Running.frames(page).get(0).url();
        for (String name : new String[] {"index.html", "piers.html"}) {
            Page ours = running.visitor(1000, 700);
            ours.navigate(preview.replace("index.html", name) + "?still");
            Page theirs = running.visitor(1000, 700);
            theirs.navigate(site.resolve(name).toUri().toString());
            assertThat(Browsers.different(ours.screenshot(), theirs.screenshot()))
                    .as(name)
                    .isLessThan(20);
            assertThat(theirs.evaluate("() => document.styleSheets.length")).isEqualTo(4);
        }
    }

    private static void write(Path path, byte[] bytes) {
        try {
            Files.createDirectories(path.getParent());
            Files.write(path, bytes);
        } catch (java.io.IOException e) {
            throw new java.io.UncheckedIOException(e);
        }
    }

    /** How many of all pixels differ. */
    @Test
    @Order(4)
    void anOwnerChoosesGoesLiveAndTakesAnEditionBack() {
        Page page = running.owner();
        Page visitor = running.visitor(1280, 800);
        String live = running.address + "/at/sallowmere-ferries/";
        page.click("[data-place=everywhere]");
        page.waitForSelector(".reading >> text=“3 notices” is hard to read.");
        page.locator("[data-key=signal-fill] .reading button").click();
        page.waitForSelector(".reading >> text=2.31 to 1; 4.5 is needed");
        page.fill("[data-key=signal-fill] [data-any]", "#7a4a00");
        Frame preview = Running.frames(page).get(0);
        page.waitForCondition(
                () -> Running.style(preview, ".notice-badge", "backgroundColor").equals("rgb(122, 74, 0)"));
        page.waitForSelector("[data-key=signal-fill] .reading.state-kept >> text=Clearly readable.");
        assertThat(Running.style(preview, ".hero .button", "color"))
                .as("follows: light on a dark signal colour")
                .isEqualTo("rgb(255, 255, 255)");
        page.fill("[data-key=signal-fill] [data-any]", "#e8e0ff");
        page.locator("[data-key=signal-fill] [data-any]").blur();
        page.waitForSelector("#state >> text=2 changes not yet live");

        visitor.navigate(live);
        assertThat(Running.style(visitor.mainFrame(), ".notice-badge", "backgroundColor"))
                .isEqualTo("rgb(216, 161, 60)");
        Running.goLive(page);
        visitor.reload();
        assertThat(Running.style(visitor.mainFrame(), ".notice-badge", "backgroundColor"))
                .isEqualTo("rgb(232, 224, 255)");
        String sheet = (String) visitor.evaluate("() => [...document.styleSheets].at(-1).href");
        assertThat(sheet).matches(".*/palette\\.[0-9a-f]{64}\\.css");
        APIResponse css = visitor.request().get(sheet);
        assertThat(css.text()).isEqualTo(":root {\n  --signal-fill: #e8e0ff;\n  --header-fill: #24463a;\n}\n");
        assertThat(css.headers().get("cache-control")).contains("immutable").contains("max-age=31536000");
        assertThat(visitor.request().get(live).headers().get("cache-control")).isEqualTo("no-cache");

        page.click("text=Earlier editions");
        page.click("[aria-label='Look at edition 1']");
        assertThat(page.locator(".changes:not([data-hard])").innerText())
                .contains("Signal colour", "#e8e0ff", "#d8a13c");
        page.click("[data-live-now]");
        page.waitForSelector("#notice >> text=Edition 1 is live again");
        visitor.reload();
        assertThat(Running.style(visitor.mainFrame(), ".notice-badge", "backgroundColor"))
                .isEqualTo("rgb(216, 161, 60)");
        page.click("text=Back to the draft");
        page.waitForSelector("#state >> text=2 changes not yet live");
        // One of two goes back, then all; each is undone.
        page.click("text=Put back");
        page.waitForSelector("#put-back h2");
        assertThat(page.locator("#put-back").innerText())
                .contains(
                        "Signal colour: #e8e0ff (pale greyish violet)",
                        "live #d8a13c (dark yellow), as made #d8a13c (dark yellow)");
        page.locator("#put-back [data-all-of]").first().uncheck();
        assertThat(page.locator("#put-back [name=key]").first().isChecked()).isFalse();
        page.click("#put-back >> text=As it is live");
        page.waitForSelector("#state >> text=1 change not yet live");
        assertThat(page.locator("[data-key=signal-fill] [data-any]").inputValue())
                .isEqualTo("#e8e0ff");
        page.click("#state >> text=Undo");
        page.waitForSelector("#state >> text=2 changes not yet live");
        page.click("text=Put back");
        page.click("#put-back >> text=As the maker made it");
        page.waitForSelector("#state >> text=nothing changed");
        page.click("#state >> text=Undo");
        page.waitForSelector("#state >> text=2 changes not yet live");
    }

    @Test
    @Order(5)
    void whatTheMakerDoesNotAllowIsRefusedOnTheServer() {
        Page page = running.owner();
        String token = page.locator("body").getAttribute("hx-headers").replaceAll(".*: \"|\"}", "");
        RequestOptions ask =
                RequestOptions.create().setHeader("X-CSRF-TOKEN", token).setHeader("HX-Request", "true");
        String choose = running.address + "/sites/sallowmere-ferries/choose";
        APIResponse refused = page.request()
                .post(
                        choose,
                        ask.setForm(FormData.create().set("key", "header-fill").set("v", "#123456")));
        assertThat(refused.status()).isEqualTo(422);
        assertThat(refused.text()).contains("Only these colours may be chosen here: #1f3347, #24463a, #4a2636");
        assertThat(page.request()
                        .post(
                                choose,
                                ask.setForm(FormData.create()
                                        .set("key", "signal-fill")
                                        .set("v", "red;}body{display:none")))
                        .status())
                .isEqualTo(422);
        assertThat(page.request()
                        .post(
                                choose,
                                ask.setForm(FormData.create()
                                        .set("key", "no-such-key")
                                        .set("v", "red")))
                        .status())
                .isEqualTo(404);
        assertThat(page.request()
                        .post(
                                choose,
                                RequestOptions.create()
                                        .setForm(FormData.create()
                                                .set("key", "signal-fill")
                                                .set("v", "red")))
                        .status())
                .as("without a CSRF token")
                .isEqualTo(403);
        assertThat(page.request().get(running.address + "/themes").status())
                .as("an owner among themes")
                .isEqualTo(403);
    }
}

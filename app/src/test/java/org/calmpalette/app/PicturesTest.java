package org.calmpalette.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import com.microsoft.playwright.Frame;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.TreeMap;
import org.calmpalette.core.background.BoxGeometry.Rectangle;
import org.calmpalette.core.render.Measures;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;

/** Pictures: pages are measured in the browser, and what is told of every width is what the browser shows there. */
class PicturesTest {
    private static Running running;

    @BeforeAll
    static void start() {
        running = Running.get();
    }

    private static String towpath(Page maker) {
        maker.navigate(running.address + "/themes");
        return running.towpath();
    }

    private static Page pictures(Page maker, String theme) {
        maker.navigate(running.address + theme + "/pictures?picture=img/river-dusk.jpg");
        maker.waitForSelector("[data-reading]", new Page.WaitForSelectorOptions().setTimeout(4 * Browsers.patience()));
        return maker;
    }

    @Test
    void boxesBetweenMeasuredWidthsAreWhereTheBrowserHasThem() {
        Page maker = running.maker();
        String theme = towpath(maker);
        pictures(maker, theme);
        byte[] file = maker.request()
                .get(running.address + theme + "/measures?page=index.html")
                .body();
        Measures measures = Measures.read("index.html", file);
        assertThat(measures.unsure()).isEmpty();
        String address = maker.locator(".gallery").getAttribute("data-base") + "index.html";
        Page page = Browsers.page(1280, 800);
        Random random = new Random(12);
        List<String> off = new ArrayList<>();
        int compared = 0;
        for (int i = 0; i < 60; i++) {
            int width = 320 + random.nextInt(2241);
            page.setViewportSize(width, 800);
            if (i == 0) {
                page.navigate(running.address + address + "?still");
            }
            Map<String, List<Number>> seen = boxes(page.mainFrame());
            for (Map.Entry<String, List<Number>> e : seen.entrySet()) {
                Rectangle box =
                        measures.box(Integer.parseInt(e.getKey()), width).orElse(new Rectangle(-1, -1, -1, -1));
                double[] told = {box.x(), box.y(), box.width(), box.height()};
                for (int k = 0; k < 4; k++) {
                    compared++;
                    if (Math.abs(told[k] - e.getValue().get(k).doubleValue()) > 0.5) {
                        off.add(width + " px, element " + e.getKey() + ": told " + box + ", seen " + e.getValue());
                    }
                }
            }
        }
        assertThat(compared).isGreaterThan(5_000);
        assertThat(off).isEmpty();
    }

    @SuppressWarnings("unchecked")
    static Map<String, List<Number>> boxes(Frame frame) {
        return (Map<String, List<Number>>)
                frame.evaluate(
                        """
        () => { document.documentElement.style.scrollbarWidth = 'none'; const all = {};
          for (const e of document.querySelectorAll('[data-calm-at]')) { if (!e.getClientRects().length) continue;
            const b = e.getBoundingClientRect(); all[e.dataset.calmAt] = [b.left + scrollX, b.top + scrollY, b.width, b.height] } return all }""");
    }

    @Test
    void fromTheWidthThatIsToldTheFerryIsUnderTheColumn() {
        Page maker = running.maker();
        String theme = towpath(maker);
        pictures(maker, theme);
        maker.click("text=In numbers >> nth=0");
        String told = maker.locator(".runs li", new Page.LocatorOptions().setHasText("is covered"))
                .first()
                .textContent();
        int from = Integer.parseInt(told.replaceAll("^(\\d+).*", "$1"));
        String address = maker.locator(".gallery").getAttribute("data-base") + "index.html";
        Page page = Browsers.page(from, 800);
        page.navigate(running.address + address + "?still");
        // The picture is 1600 by 900 at the left top; the ferry's box starts at 80.4 hundredths of it and is 10.1 wide.
        double left = 16 * 80.4;
        double width = 16 * 10.1;
        for (int w : new int[] {from - 1, from}) {
            page.setViewportSize(w, 800);
            double column = ((Number)
                            page.evaluate("() => document.querySelector('.column').getBoundingClientRect().right"))
                    .doubleValue();
            double covered = Math.max(0, Math.min(column, left + width) - left) / width;
            assertThat(covered > 0.005)
                    .as("%d px: %.4f of the ferry is covered", w, covered)
                    .isEqualTo(w == from);
        }
        maker.locator("[data-scrub]").fill(String.valueOf(from));
        assertThat(maker.locator("[data-reading]").textContent())
                .startsWith(from + " px: ")
                .contains("the ferry is covered");
        maker.locator("[data-scrub]").fill(String.valueOf(from - 1));
        assertThat(maker.locator("[data-reading]").textContent()).contains("the ferry is seen whole");
        // Below the picture, which is 900 px high, the page goes on for the rest of its own length.
        page.setViewportSize(1440, 800);
        int length = ((Number) page.evaluate("() => document.documentElement.scrollHeight")).intValue();
        assertThat(maker.locator("[data-lengths] p").first().textContent())
                .contains("it ends 900 px down", "index.html for another " + (length - 900) + " px");
    }

    @Test
    void movingAlongTheWidthsAsksTheServerForNothing() {
        Page maker = running.maker();
        pictures(maker, towpath(maker));
        maker.waitForSelector("#tried svg");
        maker.click("[data-show-page]");
        maker.waitForCondition(
                () -> maker.frames().stream().anyMatch(f -> f.url().endsWith("/index.html")));
        // What the frame itself loads is there.
        maker.frames().stream().filter(f -> f.url().endsWith("/index.html")).forEach(Frame::waitForLoadState);
        List<String> asked = new ArrayList<>();
        maker.onRequest(r -> {
            if (!r.url().contains("/measures") && !r.url().contains("/frame")) {
                asked.add(r.url());
            }
        });
        maker.evaluate(
                """
        () => { const s = document.querySelector('[data-scrub]');
          for (let w = 320; w <= 2560; w += 10) { s.value = w; s.dispatchEvent(new Event('input', { bubbles: true })) } }""");
        assertThat(asked).isEmpty();
        assertThat(maker.locator("[data-frame]").evaluate("f => f.style.width")).isEqualTo("2560px");
        assertThat(maker.locator("[data-sweep] [data-cursor]").getAttribute("x1"))
                .isEqualTo("546");
    }

    @Test
    void theBoxIsDrawnKeptAndTakenAwayAndTheAnchorIsChanged() {
        Page maker = running.maker();
        TreeMap<String, byte[]> files = new TreeMap<>();
        files.put(
                "index.html",
                "<!doctype html><link rel=stylesheet href=a.css><body><main>Words</main>"
                        .getBytes(StandardCharsets.UTF_8));
        files.put(
                "a.css",
                "body { background: url(p.png) no-repeat #fff }\nmain { width: 300px; height: 900px; background: #eee }\n"
                        .getBytes(StandardCharsets.UTF_8));
        files.put("p.png", org.calmpalette.core.chromium.GroundsTest.picture());
        String theme = new Client(running.address)
                .signedIn("ida", Running.PASSWORD)
                .bringIn("pictures.zip", HostileThemesInTheApplicationTest.zip(files));
        maker.navigate(running.address + theme + "/survey");
        maker.waitForSelector(
                "text=Measure the pages", new Page.WaitForSelectorOptions().setTimeout(4 * Browsers.patience()));
        maker.click("text=Measure the pages");
        maker.waitForSelector(
                "text=Pages are measured", new Page.WaitForSelectorOptions().setTimeout(4 * Browsers.patience()));
        maker.navigate(running.address + theme + "/pictures");
        maker.waitForSelector("[data-reading]");
        Locator picture = maker.locator("[data-image]");
        var box = picture.boundingBox();
        maker.mouse().move(box.x + box.width * 0.1, box.y + box.height * 0.2);
        maker.mouse().down();
        maker.mouse().move(box.x + box.width * 0.3, box.y + box.height * 0.6);
        maker.mouse().up();
        assertThat(Double.parseDouble(maker.inputValue("[name=left]"))).isCloseTo(10, within(1.0));
        assertThat(Double.parseDouble(maker.inputValue("[name=height]"))).isCloseTo(40, within(1.5));
        double before = Double.parseDouble(maker.inputValue("[name=left]"));
        maker.keyboard().press("ArrowLeft");
        assertThat(Double.parseDouble(maker.inputValue("[name=left]")))
                .as("moved by the keys")
                .isCloseTo(before - 0.5, within(0.01));
        maker.fill("[data-subject-form] [name=name]", "the ridge");
        String head = maker.locator(".gallery").getAttribute("data-head");
        maker.click("[data-keep]");
        maker.waitForSelector(".notice >> text=Marked the ridge in p.png.");
        assertThat(List.of(measuredAt(maker, theme, head), measuredAt(maker, theme, "1")))
                .as("what another window measured before the box was kept, and on a theme that this is not")
                .containsExactly(204, 404);
        maker.waitForSelector("text=the ridge lies under what is over the picture.");
        maker.click("text=Anchor to right top");
        maker.waitForSelector("text=right top, auto, no-repeat");
        Client client = new Client(running.address).signedIn("ida", Running.PASSWORD);
        assertThat(client.get(maker.locator(".gallery").getAttribute("data-base") + "a.css")
                        .body())
                .startsWith("body { background: url(p.png) no-repeat #fff; background-position: right top }\n");
        maker.click("[data-key=u]");
        maker.waitForSelector("text=left top, auto, no-repeat");
        maker.navigate(running.address + theme + "/pictures");
        maker.click("text=Remove it");
        maker.waitForSelector(".notice >> text=Nothing is marked in p.png any more.");
        // A box that does not fit is refused in words.
        maker.fill("[name=left]", "90");
        maker.fill("[name=top]", "0");
        maker.fill("[data-subject-form] [name=width]", "20");
        maker.fill("[name=height]", "5");
        maker.evaluate(
                "() => { document.querySelector('[name=left]').value = 90; document.querySelector('[data-keep]').disabled = false }");
        maker.click("[data-keep]");
        maker.waitForSelector("text=The subject of p.png does not lie inside of the picture.");
    }

    /** Sends what is measured of the page once more, as measured at a snapshot. @return the status of the answer */
    private static int measuredAt(Page maker, String theme, String snapshot) {
        return (int) maker.evaluate(
                "async ([theme, base]) => { const page = 'index.html';"
                        + " const body = await (await fetch(`${theme}/measures?page=${page}`)).text();"
                        + " const headers = { ...JSON.parse(document.body.getAttribute('hx-headers')), 'Content-Type': 'application/octet-stream' };"
                        + " return (await fetch(`${theme}/measures?${new URLSearchParams({ base, page })}`, { method: 'POST', body, headers })).status; }",
                List.of(theme, snapshot));
    }

    @Test
    void whatIsNoMeasureIsRefusedAndWhatIsBehindTextsIsFound() {
        Page maker = running.maker();
        String theme = towpath(maker);
        pictures(maker, theme);
        Client client = new Client(running.address).signedIn("ida", Running.PASSWORD);
        assertThat(client.get(theme + "/measures?page=nothing.html").statusCode())
                .isEqualTo(404);
        maker.navigate(running.address + theme + "/survey?view=findings");
        maker.waitForCondition(
                () -> {
                    maker.reload();
                    return maker.locator("tr[data-kind=lost-subject]").count() == 1;
                },
                new Page.WaitForConditionOptions().setTimeout(4 * Browsers.patience()));
        assertThat(maker.locator("tr[data-kind=text-on-picture]").first().textContent())
                .contains("Cross the mere by dusk");
        maker.click("tr[data-kind=text-on-picture] .name >> nth=0");
        maker.waitForSelector("#card >> text=Lay a dark shade of");
        maker.waitForSelector("#preview .difference");
    }

    @Test
    void aPictureIsMadeLighterReplacedAndAdded(@org.junit.jupiter.api.io.TempDir java.nio.file.Path folder)
            throws java.io.IOException {
        Page maker = running.maker();
        TreeMap<String, byte[]> files = new TreeMap<>();
        files.put("index.html", "<!doctype html><img src=p.png>".getBytes(StandardCharsets.UTF_8));
        files.put("p.png", org.calmpalette.core.chromium.GroundsTest.picture());
        String theme = new Client(running.address)
                .signedIn("ida", Running.PASSWORD)
                .bringIn("lighter.zip", HostileThemesInTheApplicationTest.zip(files));
        maker.navigate(running.address + theme + "/pictures");
        maker.waitForSelector("text=This picture is no background.");
        maker.click("summary:has-text('Make it lighter')");
        maker.fill("form[action$=lighten] [name=width]", "300");
        maker.locator("form[action$=lighten] [name=width]").blur();
        maker.waitForSelector("#lighter >> text=300 by 200");
        maker.waitForCondition(() ->
                ((Number) maker.locator("#lighter img").last().evaluate("i => i.naturalWidth")).intValue() == 300);
        maker.click("button:has-text('Make it lighter')");
        maker.waitForSelector(".notice >> text=Made p.png lighter");
        // As WebP, under another name wherever it is named, and back.
        maker.click("summary:has-text('Make it lighter')");
        maker.check("form[action$=lighten] [name=webp]");
        maker.waitForCondition(
                () -> (boolean) maker.evaluate("() => { const i = [...document.querySelectorAll('#lighter img')].pop();"
                        + " return Boolean(i && i.src.includes('webp=true') && i.naturalWidth === 300); }"));
        maker.click("button:has-text('Make it lighter')");
        maker.waitForSelector(".notice >> text=Made p.png a WebP");
        maker.waitForCondition(() ->
                (boolean) maker.evaluate("() => document.querySelector('[data-image]').currentSrc.endsWith('p.webp')"
                        + " && document.querySelector('[data-image]').naturalWidth === 300"));
        maker.click("[data-key=u]");
        maker.waitForSelector("h2 >> text=p.png");
        java.nio.file.Path other = java.nio.file.Files.write(
                folder.resolve("other.png"), org.calmpalette.core.chromium.GroundsTest.picture());
        maker.click("summary:has-text('Put another one')");
        maker.setInputFiles("form[action$=replace] [name=file]", other);
        maker.click("text=Put it in its place");
        maker.waitForSelector(".notice >> text=Replaced p.png by a picture of 900 by 600 px.");
        maker.setInputFiles("[data-add]", java.nio.file.Files.copy(other, folder.resolve("second.png")));
        maker.waitForSelector(".notice >> text=Added the picture second.png.");
        maker.click("summary:has-text('What uses it')");
        maker.click("text=Remove it from the theme");
        maker.waitForSelector(".notice >> text=Removed the picture second.png.");
        assertThat(maker.locator(".shelf > a")).extracting(Locator::count).isEqualTo(1);
        maker.click("[data-key=u]");
        maker.waitForCondition(() -> maker.locator(".shelf > a").count() == 2);
        maker.setInputFiles("[data-add]", java.nio.file.Files.writeString(folder.resolve("third.png"), "no picture"));
        maker.waitForSelector("text=“third.png” cannot be read as a picture");
    }

    /** A missing picture is brought, renamed, put in place of the title; an owner who chose it by its first name still has it. */
    @Test
    void aMissingPictureIsBroughtRenamedAndTakesThePlaceOfTheTitle(
            @org.junit.jupiter.api.io.TempDir java.nio.file.Path folder) throws java.io.IOException {
        TreeMap<String, byte[]> files = new TreeMap<>();
        files.put(
                "index.html",
                "<!doctype html><html><head><title>T</title><link rel=stylesheet href=a.css></head><body><h1 class=name>Withy Boats</h1><img data-setting-src=view src=img/view.png alt=''></body></html>"
                        .getBytes(StandardCharsets.UTF_8));
        files.put("a.css", "h1 { color: #123456 }".getBytes(StandardCharsets.UTF_8));
        files.put("img/other.png", org.calmpalette.core.chromium.GroundsTest.picture());
        files.put(
                "palette.json",
                """
                {"name":"T","places":[{"key":"p","label":"P"}],"settings":[{"key":"view","label":"View","kind":"picture","place":"p","default":"img/other.png"}]}"""
                        .getBytes(StandardCharsets.UTF_8));
        Client client = new Client(running.address).signedIn("ida", Running.PASSWORD);
        String theme = client.bringIn("bring.zip", HostileThemesInTheApplicationTest.zip(files));
        Page maker = running.maker();
        maker.navigate(running.address + theme + "/pictures");
        maker.waitForSelector(".absent >> text=missing");
        java.nio.file.Path bad = java.nio.file.Files.writeString(
                folder.resolve("bad.svg"),
                "<svg xmlns='http://www.w3.org/2000/svg' width='9' height='9'>\n<script/></svg>");
        maker.setInputFiles(".absent input[type=file]", bad);
        maker.waitForSelector("text=line 2: it holds a <script>");
        maker.navigate(running.address + theme + "/pictures");
        maker.setInputFiles(
                ".absent input[type=file]",
                java.nio.file.Files.write(
                        folder.resolve("mine.png"), org.calmpalette.core.chromium.GroundsTest.picture()));
        maker.waitForSelector(".notice >> text=Brought the missing picture img/view.png");
        assertThat(maker.locator(".absent").count()).isZero();
        maker.navigate(running.address + theme + "/pictures?picture=img/view.png");
        maker.click("summary:has-text('Rename it')");
        maker.fill("form[action$=rename] [name=name]", "harbour.png");
        maker.click("text=Rename it everywhere");
        maker.waitForSelector(".notice >> text=Renamed img/view.png to img/harbour.png, in 1 place");
        maker.waitForSelector("h2 >> text=img/harbour.png");

        maker.click("summary:has-text('Narrower copies')");
        maker.click("text=Make narrower copies");
        maker.waitForSelector(".notice >> text=Made narrower copies of img/harbour.png: 480 px");
        maker.navigate(running.address + theme + "/survey?page=index.html");
        Frame frame = maker.waitForSelector(".strip iframe, iframe").contentFrame();
        String at = frame.waitForSelector("h1").getAttribute("data-calm-at");
        maker.navigate(running.address + theme + "/survey?page=index.html&at=" + at);
        maker.click("[data-banner]");
        maker.waitForSelector(".difference >> text=Withy Boats");
        maker.selectOption("[name=picture]", "img/harbour.png");
        maker.click("text=Put it there");
        maker.waitForSelector(".notice >> text=in place of “Withy Boats”");
        String base = maker.locator("[data-base]").first().getAttribute("data-base");
        for (int width : new int[] {390, 820, 1440}) {
            Page page = Browsers.page(width, 800);
            page.navigate(running.address + base + "index.html?still");
            Map<?, ?> seen = (Map<?, ?>)
                    page.waitForSelector("h1 img")
                            .evaluate(
                                    "i => ({ alt: i.alt, w: i.width, h: i.height, room: i.parentElement.clientWidth, nw: i.naturalWidth })");
            assertThat(seen.get("alt")).isEqualTo("Withy Boats");
            // On a plain screen a narrow window takes the narrow copy.
            page.waitForFunction(
                    "w => document.querySelector('h1 img').currentSrc.includes('480w') === (w < 480)", width);
            int shown = ((Number) seen.get("w")).intValue();
            assertThat(shown).isEqualTo(Math.min(900, ((Number) seen.get("room")).intValue()));
            assertThat(((Number) seen.get("h")).doubleValue()).isCloseTo(shown * 600 / 900.0, within(1.0));
        }
    }

    /** A background is cut for narrow windows, and linked pictures stand at the side of the header: read back from Chromium. */
    @Test
    void aPartForNarrowWindowsAndLinkedPicturesAtTheSideOfTheHeader() throws java.io.IOException {
        TreeMap<String, byte[]> files = new TreeMap<>();
        files.put(
                "index.html",
                "<!doctype html><html><head><title>T</title><link rel=stylesheet href=a.css></head><body><header><p>Withy Boats</p></header><main><h1>Boats</h1></main></body></html>"
                        .getBytes(StandardCharsets.UTF_8));
        files.put(
                "a.css",
                "body{margin:0}header{padding:10px 20px;background:#eee}main{height:200px;background:var(--view) center/cover}"
                        .getBytes(StandardCharsets.UTF_8));
        files.put("img/wide.png", org.calmpalette.core.chromium.GroundsTest.picture());
        files.put(
                "palette.json",
                """
                {"name":"T","places":[{"key":"p","label":"P"}],"settings":[{"key":"view","label":"View","kind":"picture","place":"p","default":"img/wide.png"}]}"""
                        .getBytes(StandardCharsets.UTF_8));
        Client client = new Client(running.address).signedIn("ida", Running.PASSWORD);
        String theme = client.bringIn("parts.zip", HostileThemesInTheApplicationTest.zip(files));
        Page maker = running.maker();
        maker.navigate(running.address + theme + "/pictures?picture=img/wide.png");
        maker.waitForSelector("[data-scrub]");
        // The picture of 900 by 600 covers a box as wide as the window and 200 high.
        assertThat(maker.locator("[data-crop]").all().stream()
                        .map(c -> c.getAttribute("data-crop") + ": " + c.getAttribute("data-box")))
                .containsExactly(
                        "390: 0.00 11.54 100.00 76.92",
                        "820: 0.00 31.71 100.00 36.59",
                        "1440: 0.00 39.58 100.00 20.83");
        maker.click("summary:has-text('Cut it to a slot')");
        maker.selectOption("[data-slots]", new com.microsoft.playwright.options.SelectOption().setIndex(1));
        // The box of main is as wide as the window, up to 767 px, and 200 px high: twice that for dense screens.
        assertThat(maker.inputValue("form:has([data-slots]) [name=width]")).isEqualTo("1534");
        assertThat(maker.inputValue("form:has([data-slots]) [name=height]")).isEqualTo("400");
        maker.fill("form:has([data-slots]) [name=width]", "500");
        maker.click("text=Cut it so");
        maker.waitForSelector(".notice >> text=for “View” in windows of");
        // The page measures itself anew and shows itself then.
        maker.waitForSelector("[data-scrub]");

        maker.navigate(running.address + theme + "/survey?page=index.html");
        String at = maker.waitForSelector("iframe")
                .contentFrame()
                .waitForSelector("header")
                .getAttribute("data-calm-at");
        maker.navigate(running.address + theme + "/survey?page=index.html&at=" + at);
        maker.click("[data-side]");
        maker.fill("#f-link-1", "index.html");
        maker.fill("#f-words-1", "Home");
        maker.fill("#f-width", "90");
        maker.locator("#f-width").blur();
        maker.waitForSelector(".difference >> text=has-side-pictures");
        maker.click("text=Put them there");
        maker.waitForSelector(".notice >> text=Put a linked picture at the right of header on index.html");
        String base = maker.locator("[data-base]").first().getAttribute("data-base");
        for (int width : new int[] {390, 820, 1440}) {
            Page page = Browsers.page(width, 800);
            page.navigate(running.address + base + "index.html?still");
            Map<?, ?> seen = (Map<?, ?>)
                    page.evaluate(
                            """
                    () => { const box = (s) => document.querySelector(s).getBoundingClientRect();
                      const h = box("header"), p = box("header p"), i = box("header img");
                      return { picture: getComputedStyle(document.querySelector("main")).backgroundImage,
                        flush: i.right === h.right && i.top === h.top && i.bottom === h.bottom,
                        wide: i.width, room: h.right - p.right, overflow: document.documentElement.scrollWidth > innerWidth,
                        name: document.querySelector("header a").textContent + document.querySelector("header img").alt }; }""");
            boolean narrow = width == 390;
            assertThat((String) seen.get("picture")).contains(narrow ? "wide-" : "wide.png");
            assertThat(((Number) seen.get("wide")).intValue()).isEqualTo(narrow ? 0 : 90);
            assertThat(((Number) seen.get("room")).intValue()).isEqualTo(narrow ? 20 : 110);
            assertThat(seen.get("flush")).isEqualTo(!narrow);
            assertThat(seen.get("overflow")).isEqualTo(false);
            assertThat(seen.get("name")).isEqualTo("Home");
        }
    }

    /** Many pictures are sixty at a time, the one that is looked at among them, and are found by their path. */
    @Test
    void manyPicturesAreFoundOnTheShelf() throws java.io.IOException {
        TreeMap<String, byte[]> files = new TreeMap<>();
        files.put(
                "index.html",
                "<!doctype html><title>T</title><img src=img/p099.svg alt=P>".getBytes(StandardCharsets.UTF_8));
        for (int i = 0; i < 130; i++) {
            files.put(
                    String.format("img/p%03d.svg", i),
                    ("<svg xmlns='http://www.w3.org/2000/svg' width='9' height='" + (9 + i) + "'/>")
                            .getBytes(StandardCharsets.UTF_8));
        }
        Client client = new Client(running.address).signedIn("ida", Running.PASSWORD);
        String theme = client.bringIn("many.zip", HostileThemesInTheApplicationTest.zip(files));
        Page maker = running.maker();
        maker.navigate(running.address + theme + "/pictures?picture=img/p099.svg");
        assertThat(maker.locator(".shelf > a").count()).isEqualTo(60);
        assertThat(maker.locator(".shelf > a[aria-current]").innerText()).startsWith("p099.svg");
        assertThat(maker.locator(".shelf .number").innerText()).isEqualTo("61 to 120 of 130");
        maker.click(".shelf [rel=next]");
        maker.waitForSelector(".shelf .number >> text=121 to 130 of 130");
        assertThat(maker.locator("#picture-name").innerText()).isEqualTo("img/p099.svg");
        maker.fill(".shelf [name=find]", "P01");
        maker.press(".shelf [name=find]", "Enter");
        maker.waitForSelector(".shelf .number >> text=1 to 10 of 10");
        maker.fill(".shelf [name=find]", "nothing");
        maker.press(".shelf [name=find]", "Enter");
        maker.waitForSelector(".shelf .number >> text=none");
        maker.click(".shelf >> text=All");
        maker.waitForCondition(() -> maker.locator(".shelf > a").count() == 60);
    }

    /** All at once, in the background: seen before anything changes, some kept, one snapshot, and stopped without a trace. */
    @Test
    void allPicturesAreMadeLighterAtOnceThoseThatAreTicked() throws java.io.IOException {
        TreeMap<String, byte[]> files = new TreeMap<>();
        files.put("index.html", "<!doctype html><img src=a.png><img src='b,c.png'>".getBytes(StandardCharsets.UTF_8));
        files.put("a.png", org.calmpalette.core.chromium.GroundsTest.picture());
        files.put("b,c.png", org.calmpalette.core.chromium.GroundsTest.picture());
        files.put("broken.jpg", new byte[] {1, 2, 3});
        files.put("d.svg", "<svg xmlns='http://www.w3.org/2000/svg'/>".getBytes(StandardCharsets.UTF_8));
        Client client = new Client(running.address).signedIn("ida", Running.PASSWORD);
        String theme = client.bringIn("all-lighter.zip", HostileThemesInTheApplicationTest.zip(files));
        Page maker = running.maker();
        maker.navigate(running.address + theme + "/pictures");
        maker.click("text=Make all lighter");
        maker.fill("[name=width]", "300");
        maker.click("text=Try it on all 4");
        maker.waitForSelector("text=Keep the ticked ones");
        assertThat(maker.locator("tbody tr").allInnerTexts()).hasSize(2).allSatisfy(row -> assertThat(row)
                .containsPattern("\\d\\d%"));
        assertThat(maker.locator("main").innerText())
                .contains("1 picture stays as it is")
                .contains("broken.jpg: The picture broken.jpg cannot be read here");
        maker.uncheck("[value='a.png']");
        maker.click("text=Keep the ticked ones");
        maker.waitForSelector(".notice >> text=Made 1 picture lighter");
        maker.waitForCondition(() -> maker.locator(".shelf > a[title='b,c.png']")
                        .innerText()
                        .contains("300 by 200")
                && maker.locator(".shelf > a[title='a.png']").innerText().contains("900 by 600"));
        maker.navigate(running.address + theme + "/pictures/all");
        assertThat(maker.locator("text=Keep the ticked ones").count())
                .as("what was tried on the earlier state is over")
                .isZero();
        assertThat(client.post(theme + "/pictures/all", "width", "300", "quality", "12")
                        .statusCode())
                .isEqualTo(422);
        assertThat(client.post(theme + "/pictures/all/keep", "base", "0", "picture", "a.png")
                        .statusCode())
                .isIn(409, 422);
    }

    /** The whole theme in other colours, seen first, as a theme of its own; one picture cut to a slot; a strip drawn. */
    @Test
    void picturesAreRecolouredCutAndDrawn() throws java.io.IOException {
        TreeMap<String, byte[]> files = new TreeMap<>();
        files.put(
                "index.html",
                "<!doctype html><link rel=stylesheet href=a.css><img src=p.png><img src=d.svg><p>x</p>"
                        .getBytes(StandardCharsets.UTF_8));
        files.put("a.css", "p { color: #a03020 }".getBytes(StandardCharsets.UTF_8));
        files.put("p.png", org.calmpalette.core.chromium.GroundsTest.picture());
        files.put(
                "d.svg",
                "<svg xmlns='http://www.w3.org/2000/svg' width='8' height='8'><path fill='#a03020' d='M0 0h8v8z'/></svg>"
                        .getBytes(StandardCharsets.UTF_8));
        Client client = new Client(running.address).signedIn("ida", Running.PASSWORD);
        String theme = client.bringIn("recolor.zip", HostileThemesInTheApplicationTest.zip(files));
        Page maker = running.maker();
        maker.navigate(running.address + theme + "/pictures");
        maker.click("text=Recolour the theme");
        maker.fill("[name=amount]", "120");
        maker.click("text=Try it");
        maker.waitForSelector("text=1 colour that its own stylesheets and pages write");
        maker.waitForCondition(() -> maker.locator(".picture-pairs img").count() == 4);
        maker.locator(".picture-pairs img").last().scrollIntoViewIfNeeded();
        maker.waitForCondition(
                () -> ((Number) maker.locator(".picture-pairs img").last().evaluate("i => i.naturalWidth")).intValue()
                        == 900);
        maker.selectOption("[data-keep-as]", "theme");
        maker.fill("[name=name]", "In green");
        maker.click("text=Keep the ticked ones");
        maker.waitForSelector("text=Made the theme “In green” of this one");
        maker.waitForSelector(".code >> text=#");
        assertThat(maker.locator("main").innerText()).doesNotContain("#a03020");
        maker.navigate(running.address + theme + "/survey");
        maker.waitForSelector("text=#a03020");

        maker.navigate(running.address + theme + "/pictures?picture=p.png");
        maker.click("summary:has-text('Cut it to a slot')");
        maker.fill("form[action$=edit] [name=width]", "300");
        maker.fill("form[action$=edit] [name=height]", "300");
        maker.locator("form[action$=edit] [name=height]").blur();
        maker.waitForSelector("#fitted >> text=300 by 300");
        maker.click("text=Cut it so");
        maker.waitForSelector(".notice >> text=p.png: cut and scaled to 300 by 300 px");

        maker.click("text=Draw a strip");
        maker.fill("[name=length]", "1e9");
        maker.waitForSelector("text=The length is no whole number");
        maker.fill("[name=length]", "60");
        maker.fill("[name=last]", "#fff0");
        maker.waitForSelector("text=1 by 60 px");
        maker.waitForSelector("text=#ffffff00 60px");
        maker.click("text=Add it to the theme");
        maker.waitForSelector(".notice >> text=Added the picture strip.png.");
        assertThat(client.post(theme + "/pictures/recolor", "way", "hue", "amount", "9999")
                        .statusCode())
                .isEqualTo(422);
        assertThat(client.get(theme + "/pictures/edit?picture=nothing.png&edit=fit&width=1&height=1")
                        .statusCode())
                .isEqualTo(404);
    }

    /** A colour is that of the pixel that was pointed at, by mouse and by keys. */
    @Test
    void aColourIsTakenFromAPicture() throws java.io.IOException {
        java.awt.image.BufferedImage halves =
                new java.awt.image.BufferedImage(40, 20, java.awt.image.BufferedImage.TYPE_INT_RGB);
        for (int x = 20; x < 40; x++) {
            for (int y = 0; y < 20; y++) {
                halves.setRGB(x, y, 0x2b8a3e);
            }
        }
        java.io.ByteArrayOutputStream png = new java.io.ByteArrayOutputStream();
        javax.imageio.ImageIO.write(halves, "png", png);
        TreeMap<String, byte[]> files = new TreeMap<>();
        files.put("index.html", "<!doctype html><img src=p.png>".getBytes(StandardCharsets.UTF_8));
        files.put("p.png", png.toByteArray());
        String theme = new Client(running.address)
                .signedIn("ida", Running.PASSWORD)
                .bringIn("taken.zip", HostileThemesInTheApplicationTest.zip(files));
        Page maker = running.maker();
        maker.navigate(running.address + theme + "/settings");
        maker.click("text=New setting");
        maker.click(".kinds >> text='colour'");
        maker.locator("calm-taker button").first().click();
        maker.waitForSelector(".taker output >> text=#2b8a3e");
        maker.keyboard().press("Shift+ArrowLeft");
        maker.waitForSelector(".taker output >> text=#000000");
        maker.keyboard().press("ArrowRight");
        maker.keyboard().press("Enter");
        assertThat(maker.locator("[name=v]").inputValue()).isEqualTo("#000000");
        maker.locator("calm-taker button").first().click();
        maker.waitForSelector(".taker output >> text=#2b8a3e");
        maker.click(".taker [data-use]");
        assertThat(maker.locator("[name=v]").inputValue()).isEqualTo("#2b8a3e");
        // A dialog tells that it has closed a moment after it has.
        maker.waitForCondition(() -> maker.locator(".taker").count() == 0);
    }

    @Test
    void aClickAsksAboutWhatIsSeenThere() {
        Page maker = running.maker();
        maker.navigate(running.address + towpath(maker) + "/survey");
        // The hero paints nothing: above its words one sees the picture of the page.
        Running.clickPart(maker, ".hero", 0.5, 0.3);
        assertThat(maker.locator("#card .part-name").textContent()).isEqualTo("body");
        assertThat(maker.locator("#card [data-aspect=picture]").getAttribute("open"))
                .isNotNull();
        Running.clickPart(maker, ".hero h1");
        assertThat(maker.locator("#card .part-name").textContent()).isEqualTo("h1");
        Running.clickPart(maker, ".card", 0.002, 0.5);
        assertThat(maker.locator("#card [data-aspect=border]").getAttribute("open"))
                .as("its edge")
                .isNotNull();
    }

    @Test
    void besideAColourStandsTheContrastOnThePictureOnceThePageWasMeasured() {
        Page maker = running.maker();
        String theme = towpath(maker);
        pictures(maker, theme);
        maker.navigate(running.address + theme + "/settings?key=hero-text");
        maker.waitForSelector("[data-judged] >> text=to 1");
        assertThat(maker.locator("[data-judged]").textContent())
                .contains("is hard to read")
                .doesNotContain("cannot be told");
    }

    @Test
    void thePageIsShownAsItIsUntilItsPicturesCome() {
        Page maker = running.maker();
        pictures(maker, towpath(maker));
        maker.click("[data-bare]");
        maker.waitForCondition(() -> maker.frames().stream()
                .anyMatch(f -> f.url().endsWith("/index.html")
                        && f.parentFrame() != null
                        && "none".equals(f.evaluate("() => getComputedStyle(document.body).backgroundImage"))));
        maker.click("[data-bare]");
        maker.waitForCondition(() -> maker.frames().stream()
                .filter(f -> f.url().endsWith("/index.html"))
                .noneMatch(f -> "none".equals(f.evaluate("() => getComputedStyle(document.body).backgroundImage"))));
    }
}

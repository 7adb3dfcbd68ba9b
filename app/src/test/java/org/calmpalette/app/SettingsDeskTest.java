package org.calmpalette.app;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Download;
import com.microsoft.playwright.Frame;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.FilePayload;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.TreeMap;
import org.calmpalette.core.intake.ThemeZip;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The maker's settings on a theme that nobody prepared, and the owner who meets them. */
class SettingsDeskTest {
    private static final String HTML =
            """
      <!doctype html>\r
      <title>T</title><link rel=stylesheet href=css/a.css>\r
      <body><header class="bar"><a class=name href="index.html">Harrow &amp; Sons</a></header>\r
      <main><h2>Boats</h2><p class="lead">Every half hour.</p></main>
      """;
    private static final String CSS =
            "/* bar */\r\n.bar{padding:8px 16px;background:#203040 url('../img/a.svg') no-repeat center;color:#fff}\r\n.lead{color:#333;text-align:center}\r\n";

    private final Running running = Running.get();

    @TempDir
    Path folder;

    private Page page;
    private String theme;

    @BeforeEach
    void bringIn() throws IOException {
        TreeMap<String, byte[]> files = new TreeMap<>();
        files.put("index.html", HTML.getBytes(StandardCharsets.UTF_8));
        files.put("about.html", HTML.replace("Boats", "About").getBytes(StandardCharsets.UTF_8));
        files.put("css/a.css", CSS.getBytes(StandardCharsets.UTF_8));
        files.put(
                "img/a.svg",
                "<svg xmlns='http://www.w3.org/2000/svg' width='40' height='20'/>".getBytes(StandardCharsets.UTF_8));
        Path zip = folder.resolve("desk.zip");
        try (var out = Files.newOutputStream(zip)) {
            ThemeZip.write(org.calmpalette.core.theme.ThemeFiles.of(files), out);
        }
        page = running.maker();
        Running.bringIn(page, running.address, zip);
        theme = page.url().replaceAll("/survey.*", "");
    }

    private void made(String key) {
        page.click("text=Make it a setting");
        page.waitForURL("**/settings?key=" + key);
    }

    /** From the survey: a part is pointed at, and what it says or how it looks is given a setting. */
    private void bind(String selector, String what, String key, boolean everywhere) {
        page.navigate(theme + "/survey");
        Running.clickPart(page, selector);
        page.click("[data-fills] > summary");
        page.click("[data-bind=" + what + "]");
        page.waitForSelector("#f-key");
        page.fill("#f-key", key);
        if (everywhere) {
            assertThat(page.locator("[name=everywhere]").isChecked()).isTrue();
        }
        made(key);
    }

    private String handedOver(String path) throws IOException {
        Running.handover(page, theme + "/handover");
        Download download = page.waitForDownload(() -> page.click("text=Download with the defaults"));
        TreeMap<String, byte[]> files = new TreeMap<>();
        ThemeZip.read(download.path(), "h.zip", files::put, (d, t, p) -> {});
        return new String(files.get(path), StandardCharsets.UTF_8);
    }

    /** A shade over a picture, as most heroes have it, becomes one setting that paints the same. */
    @Test
    void aShadeOverAPictureIsOneSettingAndOfMoreLayersThePictureOfOne() throws IOException {
        String css =
                ".hero{background:linear-gradient(rgba(0,0,0,.4),rgba(0,0,0,.4)),url(a.svg) center/cover no-repeat}"
                        + ".tiles{background:url(a.svg) 0 0/8px,linear-gradient(#fff8,#0000)}";
        TreeMap<String, byte[]> files = new TreeMap<>();
        files.put(
                "index.html",
                ("<link rel=stylesheet href=a.css><div class=hero>Hero<br>of the day</div><div class=tiles>Tiles</div>"
                                + "<div class=inline style=\"background:url('a.svg') no-repeat\">Inline</div>")
                        .getBytes(StandardCharsets.UTF_8));
        files.put("a.css", css.getBytes(StandardCharsets.UTF_8));
        files.put(
                "a.svg",
                "<svg xmlns='http://www.w3.org/2000/svg' width='40' height='20'/>".getBytes(StandardCharsets.UTF_8));
        Path zip = folder.resolve("shade.zip");
        try (var out = Files.newOutputStream(zip)) {
            ThemeZip.write(org.calmpalette.core.theme.ThemeFiles.of(files), out);
        }
        Running.bringIn(page, running.address, zip);
        theme = page.url().replaceAll("/survey.*", "");
        page.navigate(theme + "/survey");
        String before = Running.style(Running.frames(page).get(2), ".hero", "backgroundImage");
        for (String[] part : new String[][] {{".hero", "hero-ground"}, {".tiles", "tile"}, {".inline", "inline"}}) {
            page.navigate(theme + "/survey");
            Running.clickPart(page, part[0]);
            page.waitForSelector("[data-aspect=picture][open]");
            page.locator("details[open] [data-lift]").first().click();
            page.waitForSelector("#f-key");
            page.fill("#f-key", part[1]);
            made(part[1]);
        }
        assertThat(handedOver("a.css"))
                .isEqualTo(
                        ".hero{background:var(--hero-ground, linear-gradient(rgba(0,0,0,.4),rgba(0,0,0,.4)),url(a.svg) center/cover no-repeat)}"
                                + ".tiles{background:var(--tile, url(a.svg)) 0 0/8px,linear-gradient(#fff8,#0000)}");
        assertThat(handedOver("index.html")).contains("style=\"background:var(--inline, url('a.svg') no-repeat)\"");
        page.navigate(theme + "/settings?key=hero-ground");
        assertThat(page.inputValue("[name='v.strength']")).isEqualTo("40");
        Frame widest = Running.frames(page).get(2);
        assertThat(addressless(Running.style(widest, ".hero", "backgroundImage")))
                .isEqualTo(addressless(before));
        assertThat(Running.style(widest, ".hero", "backgroundSize")).isEqualTo("auto, cover");
        assertThat(Running.style(widest, ".tiles", "backgroundImage"))
                .startsWith("url(")
                .contains("/a.svg\"), linear-gradient(");
        page.fill("[name='v.strength']", "70");
        page.waitForCondition(() ->
                Running.style(widest, ".hero", "backgroundImage").startsWith("linear-gradient(rgba(0, 0, 0, 0.7)"));
    }

    /** Snapshots have addresses of their own. */
    private static String addressless(String value) {
        return value.replaceAll("url\\(\"[^\"]*/", "url(\"");
    }

    @Test
    void aPartIsPointedAtAndItsTextLinkAndSpacingBecomeSettingsThatAnOwnerChanges() throws IOException {
        bind(".name", "text", "site-name", true);
        assertThat(page.locator("#notice").innerText()).contains("2 parts of 2 pages");
        page.navigate(theme + "/survey");
        Running.clickPart(page, ".bar");
        page.locator("[data-aspect^=padding] > summary").first().click();
        page.locator("[data-aspect^=padding][open] [data-lift]").click();
        page.waitForSelector("#f-key");
        assertThat(page.inputValue("[name='a.unit0.least']") + " to " + page.inputValue("[name='a.unit0.most']"))
                .as("from half to double")
                .isEqualTo("4 to 32");
        page.fill("#f-key", "bar-room");
        made("bar-room");
        page.navigate(theme + "/survey");
        Running.clickPart(page, ".bar");
        // What one saw at the point stands open: the picture, not the colour under it.
        page.waitForSelector("[data-aspect=picture][open]");
        page.locator("details[open] [data-lift]").first().click();
        page.waitForSelector(
                "#card input[name=kind][value=background]",
                new Page.WaitForSelectorOptions()
                        .setState(com.microsoft.playwright.options.WaitForSelectorState.ATTACHED));
        page.fill("#f-key", "bar-ground");
        made("bar-ground");

        assertThat(handedOver("css/a.css"))
                .isEqualTo(CSS.replace("8px 16px", "var(--bar-room, 8px 16px)")
                        .replace(
                                "#203040 url('../img/a.svg') no-repeat center",
                                "var(--bar-ground, #203040 url('../img/a.svg') no-repeat center)"));
        assertThat(handedOver("index.html"))
                .contains("<a data-setting-text=\"site-name\" class=name href=\"index.html\">Harrow &amp; Sons</a>");
        page.navigate(theme + "/settings?key=bar-ground");
        String seen = Running.style(Running.frames(page).get(2), ".bar", "backgroundImage");
        assertThat(seen)
                .as("the same picture, whichever sheet reads it")
                .endsWith("/img/a.svg\")")
                .doesNotContain("/css/img");

        Running.handover(page, theme + "/handover");
        page.fill("#site-name", "Desk");
        page.click("text=Mine for now");
        page.click("text=Make the site");
        page.click("text=Open it");
        page.fill("[data-key=site-name] [name=v]", "Nettle & Daughters");
        Frame preview = Running.frames(page).get(0);
        page.waitForCondition(() -> preview.locator(".name").innerText().equals("Nettle & Daughters"));
        page.fill("[data-key=bar-room] [name='v.top.value']", "400");
        page.waitForSelector("[data-key=bar-room] .reading.state-breaks >> text=400 px is outside of 4 to 32 px");
        page.fill("[data-key=bar-room] [name='v.top.value']", "20");
        page.waitForCondition(() -> Running.style(preview, ".bar", "paddingTop").equals("20px"));
        page.locator("[data-key=bar-room] [name='v.top.value']").blur();
        page.waitForSelector("#state >> text=not live yet");
        page.waitForSelector("#state >> text=Undo");
        Running.goLive(page);
        Page visitor = running.visitor(1000, 700);
        visitor.navigate(running.address + "/at/" + page.url().replaceAll(".*/sites/", "") + "/");
        assertThat(visitor.locator(".name").innerText()).isEqualTo("Nettle & Daughters");
        assertThat(Running.style(visitor.mainFrame(), ".bar", "padding")).isEqualTo("20px 16px 8px");
    }

    @Test
    void settingsAreRenamedEverywhereDuplicatedOrderedAndChangedTogether() throws IOException {
        page.navigate(theme + "/survey?row=%23333333");
        page.fill("#f-key", "lead-text");
        made("lead-text");
        bind("h2", "level", "lead-level", false);
        page.navigate(theme + "/settings?key=lead-text");
        page.click("text=Duplicate, rename, remove");
        page.fill("[name=to]", "intro-ink");
        page.click("text=Rename the key everywhere");
        page.waitForURL("**/settings?key=intro-ink");
        assertThat(handedOver("css/a.css"))
                .contains(".lead{color:var(--intro-ink, #333)")
                .doesNotContain("lead-text");
        page.navigate(theme + "/settings?key=intro-ink");
        page.click("text=Duplicate, rename, remove");
        page.click("#card >> text='Duplicate'");
        page.waitForURL("**/settings?key=intro-ink-2");
        assertThat(rows()).containsExactly("intro-ink", "intro-ink-2", "lead-level");

        page.locator("tr.pick[data-row=lead-level] .name").focus();
        page.waitForNavigation(() -> page.keyboard().press("Alt+ArrowUp"));
        page.waitForSelector("#notice >> text=Moved");
        assertThat(rows()).containsExactly("intro-ink", "lead-level", "intro-ink-2");
        page.waitForNavigation(() ->
                page.locator("tr.pick[data-row=intro-ink-2]").dragTo(page.locator("tr.pick[data-row=intro-ink]")));
        assertThat(rows()).containsExactly("intro-ink-2", "intro-ink", "lead-level");

        page.check("tr.pick[data-row=intro-ink] input");
        page.check("tr.pick[data-row=lead-level] input");
        page.fill("#each [name=place]", "Words");
        page.click("text=Change all");
        page.waitForSelector("#notice >> text=Moved 2 settings to “Words”");
        assertThat(page.locator("tr.group").allInnerTexts()).contains("Words");
        page.fill("[data-search]", "level");
        assertThat(page.locator("tr.pick:visible").count()).isEqualTo(1);
        page.click("text=Undo");
        page.waitForSelector("#notice >> text=Undone");
        assertThat(page.locator("tr.group").allInnerTexts()).doesNotContain("Words");
    }

    private List<String> rows() {
        return page.locator("tr.pick").all().stream()
                .map(r -> r.getAttribute("data-row"))
                .toList();
    }

    @Test
    void bandsFollowTheirEdgesSchemesAreOneClickAndQuestionsDependOnAnswers() throws IOException {
        page.navigate(theme + "/survey?row=%23333333");
        page.fill("#f-key", "lead-text");
        page.click("#card >> text=Any colour");
        made("lead-text");
        bind(".lead", "show", "lead-shown", false);
        page.navigate(theme + "/bands");
        page.fill("[aria-label='End of phone']", "1500");
        page.click("text=Save the bands");
        page.waitForSelector("#notice >> text=overlaps");
        page.fill("[aria-label='End of phone']", "600");
        page.fill("[aria-label='Name of another band']", "watch");
        page.fill("[aria-label='End of the other band']", "260");
        page.click("text=Save the bands");
        page.waitForSelector("#notice >> text=watch up to 260 px, phone 261 to 600 px");

        page.navigate(theme + "/settings?key=lead-text");
        assertThat(page.locator("thead").innerText())
                .contains("watch")
                .contains("phone")
                .contains("tablet");
        page.click("text=By window width");
        page.selectOption("[name='b.phone.how']", "own");
        page.fill("[name='b.phone']", "#008000");
        page.click("text=Words, place and when it is asked for");
        page.selectOption("#f-shown", "lead-shown");
        page.fill("#f-is", "yes");
        page.click("#card >> text=Save");
        page.waitForSelector("#notice >> text=phone #333333 to #008000; asked for depending on lead-shown");
        Page window = running.visitor(1201, 700);
        window.navigate(Running.frames(page).get(0).url() + "?still");
        for (Object[] c : new Object[][] {
            {600, "rgb(0, 128, 0)"}, {601, "rgb(51, 51, 51)"}, {261, "rgb(0, 128, 0)"}, {260, "rgb(51, 51, 51)"}
        }) {
            window.setViewportSize((Integer) c[0], 700);
            assertThat(Running.style(window.mainFrame(), ".lead", "color"))
                    .as(c[0] + " px")
                    .isEqualTo(c[1]);
        }

        page.navigate(theme + "/schemes");
        page.fill("#s-label", "Moss");
        page.fill("[name='s.lead-text']", "#204020");
        page.waitForCondition(() -> Running.frames(page).stream()
                .anyMatch(f -> Running.style(f, ".lead", "color").equals("rgb(32, 64, 32)")));
        page.click("text=Make the scheme");
        page.waitForSelector("#notice >> text=New scheme “Moss”, sets 1 value");

        Running.handover(page, theme + "/handover");
        page.fill("#site-name", "Bands");
        page.click("text=Mine for now");
        page.click("text=Make the site");
        page.click("text=Open it");
        page.click("text=Moss");
        page.waitForCondition(() ->
                page.locator("[data-key=lead-text] [data-any]").inputValue().equals("#204020"));
        page.locator("[data-key=lead-shown] >> text=no").click();
        page.waitForCondition(() -> page.locator("[data-key=lead-text]").count() == 0);
        page.click("#state >> text=Undo");
        page.waitForSelector("[data-key=lead-text]");
        String choices = page.waitForDownload(() -> {
                            page.click("text=Your choices as a file");
                            page.click("text=Download them");
                        })
                        .path()
                        .toFile()
                        .exists()
                ? page.request().get(page.url() + "/choices.json").text()
                : "";
        assertThat(choices).isEqualTo("{\"lead-text\":\"#204020\"}");
        page.setInputFiles(
                "input[type=file]",
                new FilePayload(
                        "mine.json",
                        "application/json",
                        "{\"lead-text\":\"#000080\",\"gone\":1}".getBytes(StandardCharsets.UTF_8)));
        page.click("button:text-is('Take over')");
        page.waitForSelector("#notice >> text=Taken over but for gone");
        assertThat(page.locator("[data-key=lead-text] [data-any]").inputValue()).isEqualTo("#000080");
    }

    @Test
    void tokensComeInAndGoOutAndTheStripShowsAnyWidths() {
        page.navigate(theme + "/formats");
        page.setInputFiles(
                "#file",
                new FilePayload(
                        "brand.json",
                        "application/json",
                        ("{\"brand\":{\"$type\":\"color\",\"ink\":{\"$value\":{\"colorSpace\":\"srgb\",\"components\":[0,0,1]}},\n"
                                        + "\"copy\":{\"$value\":\"{brand.ink}\"},\n\"lost\":{\"$value\":\"{no}\"}}}")
                                .getBytes(StandardCharsets.UTF_8)));
        page.click("text=Look into it");
        assertThat(page.locator(".faults").innerText()).contains("brand.json, line 3, brand.lost: {no} names no token");
        page.click("text=Take these in");
        page.waitForSelector("#notice >> text=Took 2 settings in from brand.json");
        assertThat(page.locator("tr.pick[data-row=brand-copy]").innerText()).contains("same as “Ink”");
        page.navigate(theme + "/settings?key=brand-ink");
        page.click("text=Duplicate, rename, remove");
        page.click("text=Remove this setting");
        page.waitForSelector("#notice >> text=“Copy” depends on it");
        assertThat(page.request().get(theme + "/formats/tokens.json").text())
                .contains("\"$value\" : \"{brand.brand-ink}\"");
        assertThat(page.request().get(theme + "/formats/settings.less").text())
                .contains("@brand-copy: @brand-ink; // Copy");

        page.navigate(theme + "/settings");
        page.keyboard().press("w");
        page.fill("#widths-list", "100");
        page.click("text=Show these");
        page.waitForSelector("text=whole numbers from 200 to 4000");
        page.fill("#widths-list", "320 700 900 1300 1900");
        page.check("[name=together]");
        page.waitForNavigation(() -> page.click("text=Show these"));
        assertThat(Running.frames(page)).hasSize(5);
        assertThat(page.locator("figcaption").allInnerTexts().toString())
                .contains("320")
                .contains("1900");
        page.locator("figure.shown").first().hover();
        page.locator("[data-full]").first().click();
        assertThat(page.locator("figure.full iframe").boundingBox().width).isEqualTo(320);
        page.keyboard().press("Escape");
        assertThat(page.locator("figure.full").count()).isZero();
    }
}

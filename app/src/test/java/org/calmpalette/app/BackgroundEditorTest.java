package org.calmpalette.app;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Frame;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.BoundingBox;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.TreeMap;
import javax.imageio.ImageIO;
import org.calmpalette.core.intake.ThemeZip;
import org.calmpalette.core.theme.ThemeFiles;
import org.junit.jupiter.api.Order;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The box of a background and the bar of a gradient: what is moved there is what the fields say, and what is kept. */
// It asks the demo's theme as it came, measured, before others change how it is laid out.
@Order(2)
class BackgroundEditorTest {
    private final Running running = Running.get();

    @TempDir
    Path folder;

    private static byte[] picture(int width, int height) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        ImageIO.write(new BufferedImage(width, height, BufferedImage.TYPE_INT_RGB), "png", out);
        return out.toByteArray();
    }

    /** A theme with a picture twice as wide as its box is high, and a gradient; both are settings. */
    private String theme(Page page) throws IOException {
        TreeMap<String, byte[]> files = new TreeMap<>();
        files.put(
                "index.html",
                ("<!doctype html><link rel=stylesheet href=a.css><div class=hero>Hero</div>"
                                + "<div class=band>Band</div>")
                        .getBytes(StandardCharsets.UTF_8));
        files.put(
                "a.css",
                (".hero{height:200px;background:var(--hero, #123 url(a.png) left top/auto no-repeat)}"
                                + ".band{background-image:var(--band, linear-gradient(180deg, #000000 0%, #ffffff 100%))}")
                        .getBytes(StandardCharsets.UTF_8));
        files.put("a.png", picture(2000, 600));
        files.put(
                "palette.json",
                """
                {"settings": [
                  {"key": "hero", "label": "Picture", "place": "page", "kind": "background", "default":
                    {"color": "#112233", "picture": "a.png", "repeat": "no-repeat", "position": "left top", "size": "auto",
                     "attachment": "scroll", "overlay": "#000000", "strength": 0}},
                  {"key": "band", "label": "Band", "place": "page", "kind": "gradient", "default":
                    {"shape": "linear", "angle": 180, "stops": [{"color": "#000000", "at": 0}, {"color": "#ffffff", "at": 100}]}}
                ], "places": [{"key": "page", "label": "Page"}]}
                """
                        .getBytes(StandardCharsets.UTF_8));
        Path zip = folder.resolve("box.zip");
        try (var out = Files.newOutputStream(zip)) {
            ThemeZip.write(ThemeFiles.of(files), out);
        }
        Running.bringIn(page, running.address, zip);
        return page.url().replaceAll("/survey.*", "");
    }

    /** Takes hold of the picture in the middle of its box and moves it by a share of the box's room. */
    private static void drag(Page page, Locator stage, double across, double down) {
        // Thumbnails that come in and boxes that become known move what stands below them.
        stage.evaluate("async e => { let before = '', same = 0; while (same < 8) { const r = e.getBoundingClientRect();"
                + " const now = [r.x, r.y, r.width, r.height].join(); same = now === before ? same + 1 : 0; before = now;"
                + " await new Promise(requestAnimationFrame); } }");
        BoundingBox box = stage.boundingBox();
        double x = box.x + box.width / 2;
        double y = box.y + box.height / 2;
        page.mouse().move(x, y);
        page.mouse().down();
        page.mouse().move(x + across * box.width / 2, y + down * box.height / 2);
        page.mouse().move(x + across * box.width, y + down * box.height);
        page.mouse().up();
    }

    /** Another snapshot has another address of its previews. */
    private static void save(Page page) {
        String before = page.locator("[data-strip]").getAttribute("data-base");
        page.click("text=Save");
        page.waitForCondition(
                () -> !page.locator("[data-strip]").getAttribute("data-base").equals(before));
    }

    @Test
    void aPictureIsDraggedInItsBoxAndMovedByKeysAndTheOwnerKeepsIt() throws IOException {
        Page page = running.maker();
        String theme = theme(page);
        page.navigate(theme + "/settings?key=hero");
        Frame widest = Running.frames(page).get(2);
        Locator stage = page.locator("calm-background .box-stage").first();
        stage.waitFor();
        // 2000 px in a box of 1424 to 1440: there is room to move in both directions.
        page.waitForSelector("calm-background p >> text=At 1440 px");
        drag(page, stage, -1, -2);
        assertThat(page.inputValue("[name='v.position']")).isEqualTo("right bottom");
        page.waitForCondition(
                () -> Running.style(widest, ".hero", "backgroundPosition").equals("100% 100%"));
        stage.focus();
        page.keyboard().press("Shift+ArrowRight");
        page.keyboard().press("ArrowDown");
        assertThat(page.inputValue("[name='v.position']"))
                .as("the way the arrow points")
                .isEqualTo("90% 99%");
        assertThat(stage.getAttribute("aria-valuenow")).isEqualTo("90");
        page.fill("[name='v.position']", "40px 0px");
        stage.focus();
        page.keyboard().press("ArrowLeft");
        assertThat(page.inputValue("[name='v.position']"))
                .as("what is in px stays in px")
                .isEqualTo("39px 0px");
        page.fill("[name='v.position']", "center top");
        page.fill("[name='v.size']", "cover");
        page.waitForSelector("calm-background p >> text=up and down only");
        save(page);

        Running.handover(page, theme + "/handover");
        page.fill("#site-name", "Box");
        page.click("text=Mine for now");
        page.click("text=Make the site");
        page.click("text=Open it");
        Frame preview = Running.frames(page).get(0);
        Locator own = page.locator("[data-key=hero] .box-stage");
        own.scrollIntoViewIfNeeded();
        own.waitFor();
        page.waitForSelector("[data-key=hero] calm-background p >> text=At 1280 px");
        drag(page, own, 0, -1);
        assertThat(page.inputValue("[data-key=hero] [name='v.position']")).isEqualTo("center bottom");
        page.waitForCondition(
                () -> Running.style(preview, ".hero", "backgroundPosition").equals("50% 100%"));
        page.waitForSelector("#state >> text=not live yet");
        page.reload();
        assertThat(page.inputValue("[data-key=hero] [name='v.position']")).isEqualTo("center bottom");
    }

    /** The demo's pages are measured: what is tried behind their texts is judged at once, before it is kept. */
    @Test
    void howTextsReadOnABackgroundIsToldWhileItIsTried() {
        Page page = running.maker();
        page.navigate(running.address + running.towpath() + "/settings?key=river-picture");
        page.waitForSelector("[data-judged].state-breaks >> text=is hard to read: ");
        page.fill("[name='v.strength']", "60");
        page.waitForSelector("[data-judged].state-kept >> text=reads at ");
        page.fill("[name='v.strength']", "0");
        page.waitForSelector("[data-judged].state-breaks >> text=is hard to read: ");
        // One press sets the weakest shade that is enough; a step less is not.
        page.click("[data-judged] [data-shade]");
        page.waitForSelector("[data-judged].state-kept >> text=reads at ");
        int enough = Integer.parseInt(page.inputValue("[name='v.strength']"));
        assertThat(enough).isBetween(1, 60);
        // Beside the strength it is shown which ones are enough, whatever it is now.
        page.waitForSelector("[data-strengths] >> text=a shade of " + enough + "% to 100%");
        assertThat(page.locator(".safe-part .unsafe").getAttribute("width")).isEqualTo(enough + "%");
        assertThat(page.locator("[name='v.strength']").getAttribute("aria-describedby"))
                .isEqualTo(page.locator("[data-strengths]").getAttribute("id"));
        page.fill("[name='v.strength']", String.valueOf(enough - 1));
        page.waitForSelector("[data-judged].state-breaks >> text=is hard to read: ");
        Page other = running.maker();
        other.navigate(page.url());
        assertThat(other.inputValue("[name='v.strength']"))
                .as("nothing was kept")
                .isEqualTo("0");
    }

    private static String stops(Page page) {
        return (String) page.evaluate("[...document.querySelector('.gradient').querySelectorAll('.any')].map(r =>"
                + " [r.querySelector('[data-any]').value, r.querySelector('.at').value]).filter(r => r[0]).join(' ')");
    }

    @Test
    void coloursOfAGradientAreAddedMovedAndTakenAwayOnItsBar() throws IOException {
        Page page = running.maker();
        page.navigate(theme(page) + "/settings?key=band");
        Frame widest = Running.frames(page).get(2);
        page.waitForSelector(".gradient-bar .stop");
        BoundingBox bar = page.locator(".gradient-bar").first().boundingBox();
        page.mouse().click(bar.x + bar.width / 2, bar.y + 4);
        assertThat(stops(page)).isEqualTo("#000000,0 #808080,50 #ffffff,100");
        page.keyboard().press("Shift+ArrowLeft");
        page.keyboard().press("ArrowLeft");
        assertThat(stops(page)).isEqualTo("#000000,0 #808080,39 #ffffff,100");
        page.waitForCondition(() -> Running.style(widest, ".band", "backgroundImage")
                .equals("linear-gradient(rgb(0, 0, 0) 0%, rgb(128, 128, 128) 39%, rgb(255, 255, 255) 100%)"));
        // Past another one they change places, and so do their rows.
        BoundingBox black = page.locator(".stop").first().boundingBox();
        page.mouse().move(black.x + 7, black.y + 7);
        page.mouse().down();
        page.mouse().move(bar.x + bar.width * 0.7, black.y + 7);
        page.mouse().move(bar.x + bar.width * 0.75, black.y + 7);
        page.mouse().up();
        assertThat(stops(page)).isEqualTo("#808080,39 #000000,75 #ffffff,100");
        page.keyboard().press("Delete");
        assertThat(stops(page)).isEqualTo("#808080,39 #ffffff,100");
        page.keyboard().press("Delete");
        assertThat(stops(page)).as("two have to stay").isEqualTo("#808080,39 #ffffff,100");
        save(page);
        page.reload();
        assertThat(stops(page)).isEqualTo("#808080,39 #ffffff,100");
    }
}

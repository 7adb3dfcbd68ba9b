package org.calmpalette.app;

import com.microsoft.playwright.Page;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;

/** Takes the pictures in docs/screenshots from the demo; run by {@code ./calm screenshots}, not with the tests. */
class Screenshots {
    private final Running running = Running.get();
    private final Path target = Path.of(System.getProperty("calm.screenshots", "target/screenshots"));

    private void take(Page page, String path, String name) {
        page.navigate(running.address + path);
        shoot(page, name);
    }

    private void shoot(Page page, String name) {
        page.waitForLoadState();
        // Not until nothing is asked for any more: previews that draw themselves anew ask now and then. Each is looked
        // at by itself.
        page.frames().stream()
                .filter(f -> f != page.mainFrame() && !f.isDetached())
                .forEach(f -> f.waitForLoadState());
        Running.settled(page);
        page.screenshot(new Page.ScreenshotOptions().setPath(target.resolve(name + ".png")));
    }

    @Test
    void all() {
        Page maker = running.maker();
        take(maker, "/themes", "themes");
        String theme = maker.locator("h2 a", new Page.LocatorOptions().setHasText("Towpath"))
                .getAttribute("href")
                .replace("/survey", "");
        take(maker, theme + "/survey", "survey");
        maker.navigate(running.address + theme + "/survey");
        Running.clickPart(maker, ".notice-badge");
        shoot(maker, "part");
        maker.navigate(running.address + theme + "/survey?view=findings");
        maker.click("tr.pick[data-kind=covered-target] .name");
        shoot(maker, "findings");
        if (System.getProperty("calm.look") != null) {
            // To look at, not kept.
            take(maker, theme + "/survey?view=search", "look-sheets");
            take(running.signedIn("jonas", 390, 844), "/sites/sallowmere-ferries", "look-phone");
        }
        maker.navigate(running.address + theme + "/survey?view=parts");
        maker.click("tr.pick[data-row=hero] .name");
        shoot(maker, "parts");
        maker.navigate(running.address + theme + "/settings?key=signal-fill");
        maker.waitForFunction("() => document.querySelector('.field-unsafe')?.getAttribute('d')?.length > 9");
        shoot(maker, "settings");
        take(maker, theme + "/settings?key=river-picture", "background");
        take(maker, theme + "/schemes?key=heather", "schemes");
        take(maker, theme + "/formats", "formats");
        take(maker, theme + "/history", "history");
        maker.navigate(running.address + theme + "/pictures");
        maker.waitForSelector("#tried svg");
        shoot(maker, "pictures");
        maker.navigate(running.address + theme + "/promises");
        maker.locator("tr.pick:has-text('a choice breaks it') .name").first().click();
        maker.waitForSelector("#card .way-out");
        shoot(maker, "promises");
        take(maker, theme + "/promises/report", "report");
        take(maker, theme + "/handover", "handover");
        if (System.getProperty("calm.look") != null) {
            take(maker, theme + "/settings", "look-settings");
            take(maker, theme + "/handover", "look-handover");
        }
        maker.navigate(running.address + theme + "/sections?page=piers.html");
        maker.click(".kit:has([value=cards])");
        maker.fill("#f-name", "First boats");
        maker.click("text=Put it there");
        maker.waitForSelector(".notice");
        maker.navigate(maker.url());
        shoot(maker, "sections");
        maker.click("[data-key=u]");
        maker.waitForSelector(".notice");
        Page owner = running.owner();
        owner.navigate(running.address + "/sites/sallowmere-ferries");
        owner.click("[data-place=hero]");
        shoot(owner, "owner");
        take(owner, "/sites/sallowmere-ferries/review", "review");
        take(running.signedIn("jonas", 390, 844), "/sites/sallowmere-ferries", "owner-phone");
        take(running.visitor(1280, 800), "/at/sallowmere-ferries/", "live");
    }
}

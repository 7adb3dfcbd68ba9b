package org.calmpalette.app;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.ColorScheme;
import java.util.List;
import org.junit.jupiter.api.Order;
import org.junit.jupiter.api.Test;

/** axe-core finds nothing on any of our views, and the thread can be gone through with the keyboard. */
@Order(2)
class AccessibilityTest {
    private final Running running = Running.get();

    private void check(Page page, String path) {
        page.navigate(running.address + path);
        if (path.contains("/promises")) {
            // Until they are worked out another page is there, which makes way by itself.
            page.waitForSelector(
                    "tr.pick, .report-sum", new Page.WaitForSelectorOptions().setTimeout(4 * Browsers.patience()));
        }
        Running.settled(page);
        assertThat(Axe.violations(page)).as(path).isEmpty();
    }

    @Test
    void axeFindsNothingOnAnyView() {
        Page nobody = running.visitor(1280, 800);
        check(nobody, "/sign-in");
        check(nobody, "/sign-in?failed");
        Page maker = running.maker();
        check(maker, "/themes");
        String theme = running.towpath();
        for (String view : new String[] {
            "/survey",
            "/survey?view=findings",
            "/survey?view=search&q=button",
            "/survey?view=parts",
            "/survey?at=19",
            "/settings",
            "/settings?key=header-fill",
            "/settings?key=hero-height",
            "/settings?key=card-edge",
            "/bands",
            "/schemes",
            "/formats",
            "/history",
            "/handover",
            "/pictures",
            "/pictures?picture=img/harrow-pier.svg",
            "/pictures/recolor",
            "/pictures/strip",
            "/sections",
            "/promises?kept=true",
            "/promises/report",
            "/survey?by=paint&all=true"
        }) {
            check(maker, theme + view);
        }
        maker.navigate(running.address + theme + "/sections");
        maker.click(".kit:has([value=cards])");
        maker.fill("#f-name", "Looked at");
        maker.click("text=Make one of my own from it");
        maker.waitForURL("**/sections/own/looked-at");
        check(maker, theme + "/sections/own/looked-at");
        maker.click("[data-key=u]");
        maker.waitForSelector(".notice");
        for (String kind : new String[] {"background", "gradient", "video", "choice", "spacing", "shadow"}) {
            maker.navigate(running.address + theme + "/settings");
            maker.click("text=New setting");
            maker.click(".kinds a[hx-get$='kind=" + kind + "']");
            maker.waitForSelector("#f-key");
            assertThat(Axe.violations(maker)).as(kind).isEmpty();
        }
        check(maker, "/account");
        check(maker, "/sites");
        check(maker, "/nothing-here");
        Page owner = running.owner();
        check(owner, "/sites/sallowmere-ferries");
        owner.click("[data-place=hero]");
        assertThat(Axe.violations(owner)).as("the hero's questions").isEmpty();
        check(owner, "/sites/sallowmere-ferries/editions");
        check(owner, "/sites/sallowmere-ferries/pictures");
        check(owner, "/sites/sallowmere-ferries/review");
        check(owner, "/sites/sallowmere-ferries/editions/1");
        check(owner, "/account");
        check(owner, "/sites/sallowmere-ferries/people");
        Page phone = running.signedIn("jonas", 390, 844);
        check(phone, "/sites/sallowmere-ferries");
        assertThat(phone.evaluate("() => document.documentElement.scrollWidth"))
                .as("no sideways scrolling")
                .isEqualTo(390);
        // For who prefers it dark the owner's side is, and reads as well.
        phone.emulateMedia(new Page.EmulateMediaOptions().setColorScheme(ColorScheme.DARK));
        for (String path : List.of("", "/editions", "/review")) {
            check(phone, "/sites/sallowmere-ferries" + path);
            assertThat((String) phone.evaluate("getComputedStyle(document.body).backgroundColor"))
                    .isEqualTo("rgb(25, 28, 30)");
        }
        check(phone, "/sites");
    }

    /** Else the views would be found good whatever they are; what stands in a frame is not ours. */
    @Test
    void axeFindsWhatIsWrong() {
        Page page = running.visitor(1280, 800);
        page.setContent("<!doctype html><html lang=en><title>x</title><main><h1 style='color:#999'>Grey</h1><img src=x>"
                + "<iframe title=theirs srcdoc='<img src=y>'></iframe></main></html>");
        assertThat(Axe.violations(page))
                .extracting(v -> v.replaceFirst(" .*", ""))
                .containsExactlyInAnyOrder("color-contrast", "image-alt");
        assertThat(Axe.violations(page, "h1")).singleElement().asString().startsWith("color-contrast");
    }

    @Test
    void rowsAndChoicesAreReachedByKeyboard() {
        Page page = running.maker();
        page.keyboard().press("Tab");
        page.locator("h2 a", new Page.LocatorOptions().setHasText("Towpath")).focus();
        page.keyboard().press("Enter");
        page.waitForURL("**/survey");
        page.keyboard().press("?");
        page.waitForSelector("#keys[open]");
        page.keyboard().press("Escape");
        page.keyboard().press("/");
        page.keyboard().type("pier-cards nothing");
        page.waitForSelector("text=No colour, file or selector like that.");
        page.locator("[data-search]").fill("");
        page.locator("tr.pick .name").first().focus();
        page.keyboard().press("ArrowDown");
        String second = page.locator("tr.pick").nth(1).getAttribute("data-row");
        page.waitForCondition(
                () -> second.equals(page.locator("#card [data-marks]").getAttribute("data-row")));
        Page owner = running.owner();
        owner.click("[data-place=header]");
        owner.locator("#slip [data-key=header-fill] input:checked").focus();
        owner.keyboard().press("ArrowRight");
        owner.waitForCondition(() -> Running.style(Running.frames(owner).get(0), ".site-header", "backgroundColor")
                .equals("rgb(74, 38, 54)"));
        owner.waitForSelector("#state >> text=not yet live");
        owner.keyboard().press("ArrowLeft");
        owner.waitForCondition(() -> Running.style(Running.frames(owner).get(0), ".site-header", "backgroundColor")
                .equals("rgb(36, 70, 58)"));
    }
}

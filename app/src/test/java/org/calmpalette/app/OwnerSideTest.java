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
import org.calmpalette.core.chromium.GroundsTest;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** The owner's page in the hand and on a desk: from a part of the page to its questions, widths, and no word that only makers know. */
class OwnerSideTest {
    private static final String PALETTE =
            """
            {"name": "Jetty", "places": [{"key": "top", "label": "Top"}, {"key": "text", "label": "Text"}], "settings": [
              {"key": "ground", "label": "Ground", "place": "top", "kind": "color", "default": "#aaaaaa", "allowed": {"bounds": {"lightness": [0, 80]}}},
              {"key": "room", "label": "Room", "place": "text", "kind": "length", "default": {"value": 2, "unit": "rem"}, "perBand": true,
               "bands": {"phone": {"value": 1, "unit": "rem"}}, "allowed": {"units": [{"unit": "rem", "least": 0.5, "most": 4, "step": 0.5}]}},
              {"key": "to", "label": "To", "place": "text", "kind": "link", "default": "more.html"},
              {"key": "words", "label": "Words", "place": "text", "kind": "line", "default": "Every hour."},
              {"key": "photo", "label": "Photo", "place": "text", "kind": "picture", "default": "a.png"},
              {"key": "says", "label": "What is on the photo", "place": "top", "kind": "line", "default": "A pier"}]}""";

    private final Running running = Running.get();

    /** Ten questions in one place, four of them about room and edges; swatches of which two are called the same. */
    private static final String MANY =
            """
            {"name": "Jetty", "places": [{"key": "top", "label": "Top"}], "settings": [
              {"key": "pad", "label": "Padding", "place": "top", "kind": "length", "default": {"value": 2, "unit": "rem"}, "allowed": {"units": [{"unit": "rem", "least": 0.5, "most": 4, "step": 0.5}]}},
              {"key": "words", "label": "Words", "place": "top", "kind": "line", "default": "Every hour."},
              {"key": "ground", "label": "Ground", "place": "top", "kind": "color", "default": "#24463a", "allowed": {"swatches": ["#24463a", "#204638", "#7a4a1e", "#f4f1ea"]}},
              {"key": "gap", "label": "Gap", "place": "top", "kind": "length", "default": {"value": 1, "unit": "rem"}, "allowed": {"units": [{"unit": "rem", "least": 0, "most": 4, "step": 0.5}]}},
              {"key": "to", "label": "To", "place": "top", "kind": "link", "default": "more.html"},
              {"key": "edge", "label": "Corners", "place": "top", "kind": "length", "default": {"value": 0, "unit": "rem"}, "allowed": {"units": [{"unit": "rem", "least": 0, "most": 4, "step": 0.5}]}},
              {"key": "photo", "label": "Photo", "place": "top", "kind": "picture", "default": "a.png"},
              {"key": "says", "label": "What is on the photo", "place": "top", "kind": "line", "default": "A pier"},
              {"key": "one", "label": "One more", "place": "top", "kind": "line", "default": "1"},
              {"key": "two", "label": "And another", "place": "top", "kind": "line", "default": "2"}]}""";

    Page open(int width, int height) throws IOException {
        return open(width, height, PALETTE);
    }

    private Page open(int width, int height, String palette) throws IOException {
        TreeMap<String, byte[]> files = new TreeMap<>(Map.of(
                "index.html",
                bytes(
                        "<!doctype html><html lang=en><head><meta name=viewport content=width=device-width><title>Jetty</title><link rel=stylesheet href=a.css></head>"
                                + "<body><header><h1>Boats</h1></header><main><p data-setting-text=words>Every hour.</p><a href=more.html data-setting-href=to>More</a><img width=90 data-setting-src=photo data-setting-alt=says src=a.png alt='A pier'></main></body></html>"),
                "more.html",
                bytes(
                        "<!doctype html><html lang=en><head><title>More</title><link rel=stylesheet href=a.css></head><body><header><h1>More</h1></header></body></html>"),
                "a.css",
                bytes(
                        "header { background: var(--ground); color: #fff; padding: var(--pad); gap: var(--gap); border-radius: var(--edge) } main { padding: var(--room) }"),
                "palette.json",
                bytes(palette),
                "a.png",
                GroundsTest.picture(),
                "b.png",
                GroundsTest.picture()));
        Client maker = new Client(running.address).signedIn("ida");
        String theme = maker.bringIn("jetty.zip", HostileThemesInTheApplicationTest.zip(files));
        String owner = running.newOwner();
        String name = "Jetty " + System.nanoTime();
        assertThat(maker.post(theme + "/sites", "name", name, "whose", "owner", "owner", owner)
                        .statusCode())
                .isEqualTo(302);
        Page page = running.signedIn(owner, width, height);
        page.navigate(running.address + "/sites/" + name.toLowerCase().replace(' ', '-'));
        Running.settled(page);
        return page;
    }

    private static byte[] bytes(String text) {
        return text.getBytes(StandardCharsets.UTF_8);
    }

    @ParameterizedTest
    @CsvSource({"1280, 800", "390, 844"})
    void aTapOnAPartLeadsToItsQuestion(int width, int height) throws IOException {
        Page page = open(width, height);
        assertThat(page.locator("[data-place=top]").getAttribute("aria-pressed"))
                .isEqualTo("true");
        Running.frames(page).get(0).locator("main p").click();
        page.waitForSelector("[data-place=text][aria-pressed=true]");
        page.waitForFunction("() => document.activeElement.textContent === 'Words'");
        // What has no question of its own leads to that of what is around it.
        Running.frames(page).get(0).locator("h1").click();
        page.waitForFunction("() => document.activeElement.textContent === 'Ground'");
        assertThat(page.locator("[data-key=ground]").isVisible()).isTrue();
    }

    /** What a place says and shows comes first; what shapes it more finely is folded away, and stays folded out where it is in use. */
    @Test
    void whatIsUsedMostComesFirstAndTheRestIsFolded() throws IOException {
        Page page = open(1280, 800, MANY);
        Locator finer = page.locator(".finer");
        assertThat(finer.locator("> summary").innerText()).contains("More", "Padding, Gap, Corners");
        assertThat(page.locator("[data-question]:visible h3").allInnerTexts())
                .containsExactly("Words", "Ground", "To", "Photo", "What is on the photo", "One more", "And another");
        assertThat(page.locator("[data-key=ground] .swatches label").allInnerTexts())
                .extracting(t -> t.strip().lines().findFirst().orElse(""))
                .containsExactly("dark green #24463a", "dark green #204638", "brown", "off-white");
        // The header follows Ground, which is not folded away, and Padding, which is.
        finer.locator("> summary").press("Enter");
        page.fill("[data-key=gap] [name='v.value']", "2.5");
        page.press("[data-key=gap] [name='v.value']", "Tab");
        page.click("#state [data-key=u]:not([disabled])");
        page.waitForCondition(
                () -> page.inputValue("[data-key=gap] [name='v.value']").equals("1"));
        assertThat(page.locator("[data-key=gap]").isVisible())
                .as("folded out by hand, and so after the server sent all anew")
                .isTrue();
        finer.locator("> summary").press("Enter");
        assertThat(page.locator("[data-key=gap]").isVisible()).isFalse();
        page.click("#state [data-key=r]:not([disabled])");
        page.waitForCondition(
                () -> page.inputValue("[data-key=gap] [name='v.value']").equals("2.5"));
        assertThat(page.locator("[data-key=gap]").isVisible()).isFalse();
        // Who comes anew sees what is their own.
        page.reload();
        assertThat(page.locator("[data-key=gap]").isVisible()).isTrue();
        // The first stop of who goes by keys leads past the head.
        page.keyboard().press("Tab");
        page.keyboard().press("Enter");
        page.waitForFunction("() => document.activeElement.id === 'slip'");
    }

    @Test
    void aChangeForAnotherWidthThanIsShownSaysSo() throws IOException {
        Page page = open(1280, 800);
        page.click("[data-place=text]");
        Locator room = page.locator("[data-question][data-key=room]");
        room.locator("summary", new Locator.LocatorOptions().setHasText("On phone"))
                .click();
        room.locator("form[data-band=phone] [name='v.value']").fill("1.5");
        room.locator("[data-elsewhere] >> text=Show phone").click();
        page.waitForCondition(() ->
                Running.style(Running.frames(page).get(0), "main", "paddingTop").equals("24px"));
        assertThat(page.locator("[data-to-width='390']").getAttribute("aria-pressed"))
                .isEqualTo("true");
        // The other way round: phones keep their own.
        room.locator("form:not([data-band]) [name='v.value']").fill("3");
        assertThat(room.locator("[data-elsewhere]").innerText()).contains("a value of its own", "Show wide");
        room.locator("[data-elsewhere] button").click();
        page.waitForCondition(() ->
                Running.style(Running.frames(page).get(0), "main", "paddingTop").equals("48px"));
        room.locator("form:not([data-band]) [name='v.value']").fill("3.5");
        assertThat(room.locator("[data-elsewhere]").count()).isZero();
    }

    /** Both follow the hand and the page that is chosen; what holds for one width alone is seen in that one. */
    @Test
    void bothWidthsAreSeenBesideEachOther() throws IOException {
        Page page = open(1280, 800);
        page.click("[data-place=text]");
        Locator room = page.locator("[data-question][data-key=room]");
        room.locator("form:not([data-band]) [name='v.value']").fill("3");
        page.click("[data-to-width='390 1280']");
        page.waitForCondition(() -> rooms(page).equals(List.of("16px", "48px")));
        room.locator("summary", new Locator.LocatorOptions().setHasText("On phone"))
                .click();
        room.locator("form[data-band=phone] [name='v.value']").fill("0.5");
        page.waitForCondition(() -> rooms(page).equals(List.of("8px", "48px")));
        assertThat(room.locator("[data-elsewhere]").count())
                .as("each width is shown")
                .isZero();
        Locator windows = page.locator(".screen .window");
        assertThat(windows.nth(0).boundingBox().width).isLessThan(windows.nth(1).boundingBox().width);
        assertThat(windows.nth(1).boundingBox().x + windows.nth(1).boundingBox().width)
                .as("within the stage")
                .isLessThan(page.locator("#slip").boundingBox().x);
        page.selectOption("#page-pick", "more.html");
        page.waitForCondition(() -> page.frames().stream()
                        .filter(f -> f.url().endsWith("more.html"))
                        .count()
                == 2);
        page.click("[data-to-width='1280']");
        page.waitForCondition(() -> windows.count() == 1);
        assertThat(page.locator(".screen iframe").getAttribute("data-width")).isEqualTo("1280");
    }

    /** What the frames show as the room around the text, the narrowest first. */
    private static List<String> rooms(Page page) {
        return page.locator(".screen iframe[data-ready]").elementHandles().stream()
                .map(frame -> Running.style(frame.contentFrame(), "main", "paddingTop"))
                .toList();
    }

    @Test
    void noWordOfMakersReachesAnOwner() throws IOException {
        Page page = open(390, 844);
        page.waitForSelector("[data-key=ground] .reading >> text=“Boats” is hard to read.");
        page.click("[data-place=text]");
        String words = page.locator("#slip").innerText();
        assertThat(words)
                .contains("times the size of letters", "As made: 2 times the size of letters")
                .doesNotContain("rem", "to 1", "lightness");
        // The head is one line, and what it does not show is one tap away.
        assertThat(page.locator(".top").boundingBox().height).isLessThan(60);
        assertThat(page.locator("[data-to-width='1280']").isVisible()).isTrue();
        page.click("text=More");
        assertThat(page.locator("#more").innerText()).contains("Earlier editions", "Put back", "Sign out");
        page.keyboard().press("Escape");
        page.waitForCondition(() -> !page.locator("#more").isVisible());
    }

    @Test
    void linksAreCheckedAndGetTheSchemeThatIsMeant() throws IOException {
        Page page = open(1280, 800);
        page.click("[data-place=text]");
        Locator to = page.locator("[data-question][data-key=to]");
        to.locator("[name=v]").fill("timetables.html");
        to.locator(
                        ".reading >> text=It leads to timetables.html, which is not there. There are: index.html, more.html.")
                .waitFor();
        to.locator("[name=v]").fill("more.html#prices");
        to.locator(".reading >> text=It leads to #prices, which is not there.").waitFor();
        for (String[] typed : new String[][] {
            {"www.example.org/boats", "https://www.example.org/boats"},
            {"quay@example.org", "mailto:quay@example.org"},
            {"+44 20 7946 0000", "tel:+442079460000"}
        }) {
            to.locator("[name=v]").fill(typed[0]);
            page.waitForCondition(() -> typed[1].equals(
                    Running.frames(page).get(0).locator("main a").getAttribute("href")));
            assertThat(to.locator(".reading").innerText()).isEmpty();
        }
    }

    /** The old words speak of the old picture; one press leads to them, in another place too. */
    @Test
    void aPictureThatIsChosenAsksForItsDescription() throws IOException {
        Page page = open(390, 844);
        page.click("[data-place=text]");
        Locator photo = page.locator("[data-question][data-key=photo]");
        photo.locator("label:has([value='b.png'])").click();
        Locator asks = photo.locator("[data-wants-words]");
        asks.waitFor();
        assertThat(asks.innerText()).contains("“A pier”");
        asks.locator("button").click();
        assertThat(page.locator("[data-place=top]").getAttribute("aria-pressed"))
                .isEqualTo("true");
        assertThat(page.evaluate("document.activeElement.form.elements.key.value"))
                .isEqualTo("says");
        page.keyboard().type("A boat in fog");
        page.waitForCondition(() -> Running.frames(page)
                        .get(0)
                        .locator("img[alt='A boat in fog'][src*='b.png']")
                        .count()
                == 1);
        assertThat(asks.count()).isZero();
    }

    /** A slide shows its allowed part of the whole and stays in it; of pictures those are shown that can be used. */
    @Test
    void whatIsAllowedIsSeenAndWhatCannotBeUsedIsNot() throws IOException {
        Page page = open(1280, 800, ALLOWED);
        Locator slide = page.locator("[data-key=high] [data-slides]");
        assertThat(List.of(slide.getAttribute("min"), slide.getAttribute("max")))
                .containsExactly("0", "100");
        assertThat(page.locator("[data-key=high] .slide rect").last().getAttribute("x"))
                .isEqualTo("40");
        assertThat(page.locator("[data-key=high] .slide rect").last().getAttribute("width"))
                .isEqualTo("50");
        BoundingBox box = slide.boundingBox();
        page.mouse().click(box.x + 4, box.y + box.height / 2);
        assertThat(page.inputValue("[data-key=high] [data-number]")).isEqualTo("40");
        page.mouse().click(box.x + box.width - 4, box.y + box.height / 2);
        assertThat(page.inputValue("[data-key=high] [data-number]")).isEqualTo("90");
        assertThat(slide.inputValue()).isEqualTo("90");
        // All of a whole, and what is part of none, slide over what is allowed.
        assertThat(page.locator("[data-key=all] .slide svg").count()).isZero();
        assertThat(page.locator("[data-key=room] [data-slides]").getAttribute("min"))
                .isEqualTo("0.5");
        assertThat(page.locator("[data-key=photo] .pictures input").all().stream()
                        .map(i -> i.getAttribute("value"))
                        .toList())
                .containsExactly("a.png");
    }

    private static final String ALLOWED =
            """
            {"name": "Jetty", "places": [{"key": "top", "label": "Top"}], "settings": [
              {"key": "high", "label": "High", "place": "top", "kind": "length", "default": {"value": 60, "unit": "vh"}, "allowed": {"units": [{"unit": "vh", "least": 40, "most": 90, "step": 1}]}},
              {"key": "all", "label": "All", "place": "top", "kind": "percentage", "default": 20, "allowed": {"least": 0, "most": 100}},
              {"key": "room", "label": "Room", "place": "top", "kind": "length", "default": {"value": 2, "unit": "rem"}, "allowed": {"units": [{"unit": "rem", "least": 0.5, "most": 4, "step": 0.5}]}},
              {"key": "photo", "label": "Photo", "place": "top", "kind": "picture", "default": "a.png", "allowed": {"leastWidth": 5000}}]}""";

    @Test
    void pagesAreChosenBesideThePreview() throws IOException {
        Page page = open(1280, 800);
        page.selectOption("#page-pick", "more.html");
        page.waitForCondition(() -> Running.frames(page).get(0).url().endsWith("more.html"));
        assertThat(Running.frames(page).get(0).locator("h1").innerText()).isEqualTo("More");
    }

    @Test
    void theButtonsOfPuttingBackDoWhatTheySayAndNothingWithoutATick() throws IOException {
        Page page = open(1280, 800);
        Locator ground = page.locator("[data-question][data-key=ground] [data-any]");
        ground.fill("#205080");
        Running.goLive(page);
        ground.fill("#306090");
        page.click("#state >> text=Put back");
        page.waitForSelector("#put-back h2");
        page.locator("#put-back [data-all-of]").uncheck();
        assertThat(page.locator("#put-back [type=submit]:not([disabled])").count())
                .isZero();
        page.locator("#put-back [data-all-of]").check();
        page.click("#put-back >> text=As the maker made it");
        page.waitForCondition(() -> ground.inputValue().equals("#aaaaaa"));
        page.click("#state >> text=Undo");
        page.waitForCondition(() -> ground.inputValue().equals("#306090"));
        page.click("#state >> text=Put back");
        page.waitForSelector("#put-back[open] h2");
        page.click("#put-back >> text=As it is live");
        page.waitForCondition(() -> ground.inputValue().equals("#205080"));
    }
}

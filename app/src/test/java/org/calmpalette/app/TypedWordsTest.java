package org.calmpalette.app;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Page;
import com.microsoft.playwright.Request;
import com.microsoft.playwright.Route;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.TreeMap;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Order;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Nothing that was typed is lost, whatever is pressed next. */
@Order(2)
class TypedWordsTest {
    private static final Running running = Running.get();
    private static String theme;
    private String site;
    private String ownerName;

    /** A theme with a heading and a colour to choose. */
    @BeforeAll
    static void bringATheme() {
        TreeMap<String, byte[]> files = new TreeMap<>();
        files.put(
                "index.html",
                "<!doctype html><link rel=stylesheet href=a.css><h1 data-setting-text=heading>Boats</h1><p class=lead>Every hour.</p>"
                        .getBytes(StandardCharsets.UTF_8));
        files.put(
                "a.css",
                "h1{color:var(--ink, #102030)}.lead{color:var(--lead, #203040)}".getBytes(StandardCharsets.UTF_8));
        files.put(
                "palette.json",
                """
        {"name": "Typed", "places": [{"key": "top", "label": "Top"}, {"key": "text", "label": "Text"}], "settings": [
          {"key": "heading", "label": "Heading", "place": "top", "kind": "line", "allowed": {"least": 1, "most": 40}, "default": "Boats"},
          {"key": "ink", "label": "Ink", "place": "top", "kind": "color", "default": "#102030"},
          {"key": "lead", "label": "Lead", "place": "text", "kind": "color", "default": "#203040"}]}
        """
                        .getBytes(StandardCharsets.UTF_8));
        theme = new Client(running.address)
                .signedIn("ida")
                .bringIn("typed.zip", HostileThemesInTheApplicationTest.zip(files));
    }

    /** A site of it that is live. */
    @BeforeEach
    void makeASite() {
        Client maker = new Client(running.address).signedIn("ida");
        ownerName = running.newOwner();
        String name = "Typed " + System.nanoTime();
        assertThat(maker.post(theme + "/sites", "name", name, "whose", "owner", "owner", ownerName)
                        .statusCode())
                .isEqualTo(302);
        site = name.toLowerCase().replace(' ', '-');
        Client owner = new Client(running.address).signedIn(ownerName);
        assertThat(owner.post("/sites/" + site + "/go-live").statusCode()).isEqualTo(302);
    }

    private Page site(int width, int height) {
        Page page = running.signedIn(ownerName, width, height);
        page.navigate(running.address + "/sites/" + site);
        return page;
    }

    private String live() {
        return new Client(running.address).get("/at/" + site + "/").body();
    }

    private String heading(Page page) {
        return page.locator("[data-key=heading] [name=v]").inputValue();
    }

    /** Whoever is sooner than the page's script is shown and kept as well. */
    @Test
    void wordsTypedBeforeTheScriptIsThereAreShownAndLive() {
        Page page = running.signedIn(running.hasty(1280, 800), ownerName);
        List<Route> held = new ArrayList<>();
        page.route("**/assets/*/owner.js", held::add);
        page.navigate(
                running.address + "/sites/" + site,
                new Page.NavigateOptions().setWaitUntil(com.microsoft.playwright.options.WaitUntilState.COMMIT));
        page.fill("[data-key=heading] [name=v]", "Sooner");
        page.waitForCondition(() -> !held.isEmpty());
        held.get(0).resume();
        page.waitForCondition(
                () -> Running.frames(page).get(0).locator("h1").innerText().equals("Sooner"));
        Running.goLive(page);
        assertThat(live()).contains("Sooner</h1>");
    }

    @ParameterizedTest
    @CsvSource({"1280, 800", "390, 844"})
    void wordsTypedJustBeforeGoingLiveAreLive(int width, int height) {
        Page page = site(width, height);
        for (int i = 0; i < 4; i++) {
            // With a change already waiting, and with none.
            if (i % 2 == 1) {
                page.fill("[data-key=ink] [data-any]", "#40506" + i);
            }
            page.locator("[data-key=heading] [name=v]").press("End");
            page.locator("[data-key=heading] [name=v]").pressSequentially(" " + i);
            page.evaluate("() => document.getElementById('notice').replaceChildren()");
            Running.goLive(page);
            assertThat(live()).contains(heading(page)).contains("Boats" + " 0 1 2 3".substring(0, 2 * (i + 1)));
        }
        page.locator("[data-key=heading] [name=v]").fill("By the enter key");
        page.keyboard().press("Enter");
        Running.state(page, "1 change not yet live");
        assertThat(page.url()).endsWith("/sites/" + site);
    }

    /** The answer may come at the worst moment: between pressing the button and letting it go. */
    @Test
    void anAnswerThatComesWhileTheButtonIsPressedDoesNotTakeTheClickAway() {
        Page page = site(1280, 800);
        page.locator("[data-key=heading] [name=v]").fill("Boats while pressed");
        var button = page.locator("[data-go-live]").boundingBox();
        page.mouse().move(button.x + button.width / 2, button.y + button.height / 2);
        // The field is left when the button goes down, so its words are sent then.
        page.waitForResponse("**/choose", () -> page.mouse().down()).finished();
        page.mouse().up();
        page.click("[data-live-now]");
        page.waitForSelector("#notice >> text=Your site is live");
        assertThat(live()).contains("Boats while pressed");
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "Undo",
                "Put back",
                "Earlier editions",
                "another place",
                "another page",
                "reload",
                "closing",
                "sign out"
            })
    void wordsTypedJustBeforeSomethingElseAreKept(String action) {
        Page page = site(1280, 800);
        page.locator("[data-key=heading] [name=v]").fill("First");
        page.locator("[data-key=heading] [name=v]").blur();
        Running.state(page, "1 change not yet live");
        page.locator("[data-key=heading] [name=v]").fill("Second");
        switch (action) {
            case "Undo" -> {
                page.click("#state >> text=Undo");
                page.waitForCondition(() -> heading(page).equals("First"));
                page.click("#state >> text=Redo");
            }
            case "Put back" -> {
                page.click("#state >> text=Put back");
                page.click("#put-back >> text=As it is live");
                Running.state(page, "nothing changed");
                page.click("#state >> text=Undo");
            }
            case "Earlier editions" -> {
                page.click("text=Earlier editions");
                page.waitForURL("**/editions");
            }
            case "another place" -> page.click("[data-place=text]");
            case "another page" -> page.navigate(running.address + "/sites");
            case "reload" -> {
                page.reload();
                assertThat(heading(page)).as("the old words are not back").isEqualTo("Second");
            }
            case "sign out" -> {
                page.click("text=Sign out");
                page.waitForURL("**/sign-in**");
            }
            default -> page.close(new Page.CloseOptions().setRunBeforeUnload(true));
        }
        // Kept means that another window sees it.
        Client owner = new Client(running.address).signedIn(ownerName);
        Page other = site(1280, 800);
        other.waitForCondition(
                () -> owner.get("/sites/" + site + "/choices.json").body().contains("Second"));
        other.reload();
        assertThat(heading(other)).isEqualTo("Second");
    }

    @Test
    void whatCannotBeKeptStopsLeavingAndSaysWhy() {
        Page page = site(1280, 800);
        List<String> asked = new ArrayList<>();
        page.onDialog(d -> {
            asked.add(d.type());
            d.dismiss();
        });
        page.locator("[data-key=ink] [data-any]").fill("no colour at all");
        page.locator("[data-go-live]").click();
        page.waitForSelector("#notice [role=alert] >> text=no colour at all");
        assertThat(live()).contains("Boats");
        assertThat(page.locator("[data-key=ink] [data-any]").inputValue())
                .as("it is still there to be mended")
                .isEqualTo("no colour at all");

        page.route("**/choose", Route::abort);
        page.locator("[data-key=heading] [name=v]").fill("Not sent");
        page.click("text=Earlier editions");
        page.waitForSelector("#notice [role=alert] >> text=does not answer");
        assertThat(page.url()).doesNotContain("editions");
        page.locator("[data-key=heading] [name=v]").fill("Not sent either");
        page.locator("[data-key=heading] [name=v]").blur();
        page.waitForSelector("#notice [role=alert] >> text=does not answer");
        page.close(new Page.CloseOptions().setRunBeforeUnload(true));
        page.waitForCondition(() -> asked.contains("beforeunload"));
        page.unroute("**/choose");
        Running.goLive(page);
        assertThat(live()).contains("Not sent either");
    }

    /** The answer of the server comes late: whoever loads the page again meanwhile sees what was typed, and it is kept. */
    @Test
    void wordsThatAreStillOnTheirWayAreShownAfterReloading() {
        Page page = site(1280, 800);
        List<Route> held = new ArrayList<>();
        page.route("**/choose", held::add);
        page.locator("[data-key=heading] [name=v]").fill("On its way");
        page.locator("[data-key=heading] [name=v]").blur();
        page.waitForCondition(() -> !held.isEmpty());
        page.unroute("**/choose");
        page.onDialog(com.microsoft.playwright.Dialog::accept);
        page.reload();
        assertThat(heading(page)).isEqualTo("On its way");
        Running.state(page, "1 change not yet live");
        page.waitForCondition(
                () -> Running.frames(page).get(0).locator("h1").innerText().equals("On its way"));
        page.reload();
        assertThat(heading(page)).isEqualTo("On its way");
    }

    /** The page that comes was written before the answer was kept, and comes after: what it shows is what is kept. */
    @Test
    void aPageThatIsOlderThanWhatIsKeptShowsWhatIsKept() {
        Page page = site(1280, 800);
        List<String> old = new ArrayList<>();
        page.route("**/sites/" + site, route -> {
            // As the server has it now; meanwhile the window that goes keeps something.
            var answer = route.fetch();
            old.add(answer.text());
            route.fulfill(new Route.FulfillOptions().setResponse(answer).setBody(old.get(0)));
        });
        page.reload();
        page.unroute("**/sites/" + site);
        page.locator("[data-key=heading] [name=v]").fill("Kept meanwhile");
        page.locator("[data-key=heading] [name=v]").blur();
        Running.state(page, "1 change not yet live");
        page.route(
                "**/sites/" + site,
                route -> route.fulfill(
                        new Route.FulfillOptions().setContentType("text/html").setBody(old.get(0))));
        page.reload();
        assertThat(heading(page)).isEqualTo("Kept meanwhile");
        Running.state(page, "1 change not yet live");
        page.unroute("**/sites/" + site);
        page.reload();
        assertThat(heading(page)).isEqualTo("Kept meanwhile");
        page.click("#state >> text=Undo");
        page.waitForCondition(() -> heading(page).equals("Boats"));
        page.reload();
        assertThat(heading(page)).as("what was undone does not come back").isEqualTo("Boats");
    }

    @Test
    void withoutALineItIsSaidAtOnceAndSentWhenItIsBack() {
        Page page = site(390, 844);
        Running.settled(page);
        page.context().setOffline(true);
        page.waitForSelector("#notice [role=alert] >> text=There is no connection.");
        page.locator("[data-key=heading] [name=v]").fill("In the tunnel");
        page.locator("[data-key=heading] [name=v]").blur();
        page.locator("[data-go-live]").click();
        page.waitForSelector("#notice [role=alert] >> text=There is no connection.");
        page.click("text=More");
        page.click("text=Earlier editions");
        assertThat(page.url()).endsWith("/sites/" + site);
        assertThat(heading(page)).isEqualTo("In the tunnel");
        assertThat(live()).contains("Boats</h1>");

        page.context().setOffline(false);
        page.waitForSelector("#notice >> text=The line is back");
        Running.state(page, "1 change not yet live");
        page.context().setOffline(true);
        page.locator("[data-go-live]").click();
        page.waitForSelector("#notice [role=alert] >> text=so that was not done");
        assertThat(page.url()).endsWith("/sites/" + site);
        page.context().setOffline(false);
        Running.goLive(page);
        assertThat(live()).contains("In the tunnel</h1>");
    }

    /** Left open on one device and written in on another: what the first one sends as it closes does not replace newer words. */
    @Test
    void anOlderTextDoesNotReplaceANewerOneAsItsWindowCloses() {
        Page first = site(1280, 800);
        Page second = site(390, 844);
        first.locator("[data-key=heading] [name=v]").fill("Older");
        second.locator("[data-key=heading] [name=v]").fill("Newer");
        second.locator("[data-key=heading] [name=v]").blur();
        Running.state(second, "1 change not yet live");
        first.navigate(running.address + "/sites");
        second.waitForCondition(() -> {
            second.reload();
            return second.locator("[data-aside] >> text=Older").count() == 1;
        });
        assertThat(heading(second)).isEqualTo("Newer");
        second.locator("[data-aside] >> text=Take this").click();
        second.waitForCondition(() -> heading(second).equals("Older"));
        assertThat(second.locator("[data-aside]").count()).isZero();
    }

    @Test
    void allColoursAreJudgedWithOneQuestion() {
        Page page = site(1280, 800);
        page.waitForSelector(
                "[data-key=ink] .reading >> text=Clearly readable",
                new Page.WaitForSelectorOptions()
                        .setState(com.microsoft.playwright.options.WaitForSelectorState.ATTACHED));
        List<String> asked = new ArrayList<>();
        page.onRequest((Request r) -> asked.add(r.method() + " " + r.url().replaceAll(".*/", "")));
        page.locator("[data-key=ink] [data-any]").fill("#304050");
        page.locator("[data-key=ink] [data-any]").blur();
        Running.state(page, "1 change not yet live");
        page.waitForCondition(() -> asked.contains("POST judge"));
        page.waitForSelector(
                "[data-key=lead] .reading >> text=Clearly readable",
                new Page.WaitForSelectorOptions()
                        .setState(com.microsoft.playwright.options.WaitForSelectorState.ATTACHED));
        assertThat(asked.stream().filter(a -> a.startsWith("POST")))
                .as("one try while typing, one to keep it, one about all colours")
                .containsExactlyInAnyOrder("POST try", "POST choose", "POST judge");
    }

    @Test
    void aMakersFormIsBackAfterAnotherRowUndoAndReload() {
        Page page = running.maker();
        page.navigate(running.address + theme + "/settings?key=heading");
        page.fill("#card [name=v]", "Ferries");
        page.locator("tr.pick[data-row=ink] .name").click();
        page.waitForSelector("#card form[data-key=ink]");
        page.locator("tr.pick[data-row=heading] .name").click();
        page.waitForSelector("#card [data-typed] >> text=not saved yet");
        assertThat(page.inputValue("#card [name=v]")).isEqualTo("Ferries");
        assertThat(page.locator("#card form[data-key=heading]").count()).isEqualTo(1);
        page.reload();
        page.waitForSelector("#card [data-typed]");
        assertThat(page.inputValue("#card [name=v]")).isEqualTo("Ferries");

        page.click("#card >> text=Leave it");
        assertThat(page.inputValue("#card [name=v]")).isEqualTo("Boats");
        page.fill("#card [name=v]", "Sails");
        page.click("#card >> text=Save");
        page.waitForSelector("#notice >> text=default");
        assertThat(page.inputValue("#card [name=v]")).isEqualTo("Sails");
        assertThat(page.locator("#card [data-typed]").count())
                .as("what is saved is not brought back")
                .isZero();
        page.click("text=Undo");
        page.waitForSelector("#notice >> text=Undone");
        assertThat(page.inputValue("#card [name=v]")).isEqualTo("Boats");

        // A form that goes the plain way: refused, it is back; taken, it is gone.
        page.navigate(running.address + theme + "/history");
        page.fill("#point-name", "before the sails");
        page.click("header >> text=Handover");
        page.waitForURL("**/handover");
        page.navigate(running.address + theme + "/history");
        page.waitForSelector("[data-typed]");
        assertThat(page.inputValue("#point-name")).isEqualTo("before the sails");
        page.click("text=Set it");
        page.waitForSelector("#notice >> text=before the sails");
        assertThat(page.locator("[data-typed]").count()).isZero();
        page.click("text=Sign out");
        page.waitForURL("**/sign-in*");
        assertThat(page.evaluate("() => Object.keys(localStorage).length"))
                .as("nothing stays for the next person")
                .isEqualTo(0);
    }
}

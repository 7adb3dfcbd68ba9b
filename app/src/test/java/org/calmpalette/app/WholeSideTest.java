package org.calmpalette.app;

import static org.assertj.core.api.Assertions.assertThat;

import com.google.gson.JsonArray;
import com.google.gson.JsonElement;
import com.google.gson.JsonObject;
import com.microsoft.playwright.CDPSession;
import com.microsoft.playwright.Page;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.springframework.jdbc.core.simple.JdbcClient;

/** The owner's side as a screen reader, axe-core and somebody without a pointer have it, in every state that a person brings it into. */
class WholeSideTest {
    private static final String SITE = "/sites/sallowmere-ferries";
    private static final Set<String> CONTROLS = Set.of(
            "button",
            "link",
            "textbox",
            "slider",
            "radio",
            "checkbox",
            "combobox",
            "spinbutton",
            "radiogroup",
            "dialog");

    private final Running running = Running.get();

    /** What somebody who sees nothing is told of a page: role and name of each control, in order. */
    private static List<String> heard(Page page) {
        CDPSession protocol =
                page.context().newCDPSession(page.context().pages().get(0));
        JsonArray nodes = protocol.send("Accessibility.getFullAXTree").getAsJsonArray("nodes");
        protocol.detach();
        List<String> all = new ArrayList<>();
        for (JsonElement e : nodes) {
            JsonObject node = e.getAsJsonObject();
            if (node.get("ignored").getAsBoolean() || !node.has("role")) {
                continue;
            }
            String role = value(node, "role");
            if (CONTROLS.contains(role)) {
                all.add(role + ": " + value(node, "name"));
            }
        }
        return all;
    }

    private static String value(JsonObject node, String what) {
        return node.has(what) && node.getAsJsonObject(what).has("value")
                ? node.getAsJsonObject(what).get("value").getAsString().strip()
                : "";
    }

    /** Faults of a state: what axe-core finds, controls without a name, and like controls that are called the same. */
    private static void check(Page page, String state, List<String> faults) {
        Running.settled(page);
        Axe.violations(page).forEach(v -> faults.add(state + ": " + v));
        Map<String, Integer> times = new TreeMap<>();
        for (String control : heard(page)) {
            if (control.endsWith(": ")) {
                faults.add(state + ": without a name: " + control);
            }
            times.merge(control, 1, Integer::sum);
        }
        // Of one group of choices each is told with the group it is in.
        times.forEach((control, n) -> {
            if (n > 1 && !control.startsWith("radio: ")) {
                faults.add(state + ": " + n + " times " + control);
            }
        });
    }

    /**
     * From the sign-in to a live site and to putting it back, with nothing but keys: every stop shows that it has the focus, and is not
     * hidden by what stays in view (WCAG 2.2, 2.4.7 and 2.4.11).
     */
    @ParameterizedTest
    @CsvSource({"1280, 800", "390, 844"})
    void allIsDoneByKeysAlone(int width, int height) throws IOException {
        Page seen = new OwnerSideTest().open(width, height);
        String site = seen.url();
        seen.close();
        String name = running.bean(JdbcClient.class)
                .sql(
                        "select a.sign_in from account a join site_owner o on o.account_id = a.id join site s on s.id = o.site_id where s.slug = :slug")
                .param("slug", site.replaceFirst(".*/sites/", ""))
                .query(String.class)
                .single();
        Page page = running.visitor(width, height);
        page.navigate(site);
        tabTo(page, "[name=username]");
        page.keyboard().type(name);
        tabTo(page, "[name=password]");
        page.keyboard().type(Running.PASSWORD);
        page.keyboard().press("Enter");
        page.waitForURL(site);
        Running.settled(page);
        tabTo(page, "[data-place=text]");
        page.keyboard().press("Enter");
        tabTo(page, "[data-key=words] [name=v]");
        page.keyboard().press("Control+a");
        page.keyboard().type("Every ten minutes.");
        // Who goes on at once is waited for: going live takes what is still being kept.
        tabTo(page, "[data-go-live]");
        page.keyboard().press("Enter");
        page.waitForURL("**/review**");
        tabTo(page, "[data-live-now]");
        page.keyboard().press("Enter");
        page.waitForSelector("#notice >> text=Your site is live");
        assertThat(new Client(running.address)
                        .get(site.replace(running.address, "").replace("/sites/", "/at/") + "/")
                        .body())
                .contains("Every ten minutes.");
        // Undo by the button, and by its key.
        Running.settled(page);
        tabTo(page, "[data-key=u]");
        page.keyboard().press("Enter");
        page.waitForCondition(() -> page.inputValue("[data-key=words] [name=v]").equals("Every hour."));
        Running.settled(page);
        page.keyboard().press("r");
        page.waitForCondition(() -> page.inputValue("[data-key=words] [name=v]").equals("Every ten minutes."));
    }

    private static final int MOST_STOPS = 90;

    /** Goes on with the Tab key until something has the focus. */
    private static void tabTo(Page page, String selector) {
        for (int i = 0; i < MOST_STOPS; i++) {
            page.keyboard().press("Tab");
            String fault = (String) page.evaluate(SEEN);
            assertThat(fault).isEmpty();
            if ((boolean) page.evaluate("s => document.activeElement.matches(s)", selector)) {
                return;
            }
        }
        throw new AssertionError("no key leads to " + selector);
    }

    /** What is wrong with how the focus is seen; empty if nothing is. */
    private static final String SEEN =
            """
            () => {
              const at = document.activeElement;
              if (at === document.body || at.localName === 'iframe') return '';
              const b = at.getBoundingClientRect();
              const name = at.localName + ' ' + (at.getAttribute('aria-label') || at.name || at.textContent.trim().slice(0, 30));
              const style = getComputedStyle(at);
              const near = at.nextElementSibling ? getComputedStyle(at.nextElementSibling) : style;
              const marked = [style, near, getComputedStyle(at.parentElement)].some((s) => (s.outlineStyle !== 'none' && parseFloat(s.outlineWidth) > 0) || s.boxShadow !== 'none');
              if (!marked) return name + ' does not show that it has the focus';
              if (b.bottom < 1 || b.top > innerHeight - 1) return name + ' has the focus and is out of sight, at ' + Math.round(b.top);
              const top = document.elementFromPoint(Math.min(innerWidth - 1, Math.max(0, b.left + b.width / 2)), Math.min(innerHeight - 1, Math.max(0, b.top + b.height / 2)));
              const within = top && (at.contains(top) || top.contains(at) || at.closest('label')?.contains(top));
              return within ? '' : name + ' has the focus and lies under ' + (top ? top.localName + '.' + top.className : 'nothing');
            }""";

    /** Else every stop would be found good, whatever it shows. */
    @Test
    void aStopThatIsNotSeenIsTold() {
        Page page = running.visitor(1280, 800);
        page.setContent(
                "<!doctype html><style>.bare:focus{outline:none}.under{position:fixed;inset:0;background:#fff}</style>"
                        + "<p><button class=bare>Bare</button><p><button>Good</button><p><button id=covered>Covered</button>");
        page.keyboard().press("Tab");
        assertThat((String) page.evaluate(SEEN)).contains("Bare", "does not show that it has the focus");
        page.keyboard().press("Tab");
        assertThat((String) page.evaluate(SEEN)).isEmpty();
        page.keyboard().press("Tab");
        page.evaluate("document.body.insertAdjacentHTML('beforeend', '<div class=under></div>')");
        assertThat((String) page.evaluate(SEEN)).contains("Covered", "lies under div.under");
    }

    @ParameterizedTest
    @CsvSource({"1280, 800", "390, 844"})
    void everyStateIsHeardAndHasNoFault(int width, int height) {
        Page page = running.signedIn("jonas", width, height);
        List<String> faults = new ArrayList<>();
        page.navigate(running.address + SITE);
        for (String place : page.locator("[data-place]").all().stream()
                .map(c -> c.getAttribute("data-place"))
                .toList()) {
            page.click("[data-place='" + place + "']");
            page.waitForSelector("[data-in-place='" + place + "']:not([hidden]) h2");
            page.evaluate("() => document.querySelectorAll('#slip details').forEach(d => { d.open = true; })");
            check(page, place, faults);
        }
        if (width < 768) {
            page.click("text=More");
            check(page, "more", faults);
        }
        page.click("#state >> text=On your phone");
        page.waitForSelector("#hand[open] h2");
        check(page, "on your phone", faults);
        page.keyboard().press("Escape");
        page.click("[data-place=everywhere]");
        page.fill("[data-key=signal-fill] [data-any]", "no colour at all");
        page.waitForSelector("[data-key=signal-fill] .reading.state-breaks >> text=is not a colour");
        assertThat(page.locator("[data-key=signal-fill] .reading").getAttribute("aria-live"))
                .as("what comes of it is read out without being asked for")
                .isEqualTo("polite");
        check(page, "refused", faults);
        page.fill("[data-key=signal-fill] [data-any]", "#7a4a00");
        Running.state(page, "not yet live");
        if (width < 768) {
            page.click("text=More");
        }
        page.click("#state >> text=Put back");
        page.waitForSelector("#put-back[open] h2");
        check(page, "put back", faults);
        page.keyboard().press("Escape");
        page.click("#state [data-key=u]:not([disabled])");
        page.waitForCondition(
                () -> !page.inputValue("[data-key=signal-fill] [data-any]").equals("#7a4a00"));
        for (String view : List.of("/editions", "/pictures", "/review", "/people")) {
            page.navigate(running.address + SITE + view);
            check(page, view, faults);
        }
        assertThat(faults.stream().distinct().toList()).isEmpty();
    }
}

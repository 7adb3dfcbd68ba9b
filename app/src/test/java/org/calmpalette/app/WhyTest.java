package org.calmpalette.app;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Frame;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import java.io.IOException;
import java.net.URLEncoder;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.calmpalette.app.accounts.AccountService;
import org.calmpalette.app.accounts.Role;
import org.calmpalette.app.accounts.SignedIn;
import org.calmpalette.app.themes.OwnThemes;
import org.calmpalette.app.themes.ThemeService;
import org.calmpalette.core.chromium.OutsideSheets;
import org.jsoup.nodes.Document;
import org.jsoup.nodes.Element;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Order;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Why a part looks so, changing it from there, findings and their mends, rules that do not win: in the browser. */
@Order(2)
class WhyTest {
    private final Running running = Running.get();
    private final Set<Long> made = new LinkedHashSet<>();

    @TempDir
    Path folder;

    private SignedIn ida() {
        return running.bean(AccountService.class).demo("ida", "Ida Marlow", Role.MAKER);
    }

    /** A second Towpath, so that other tests find the first one as it was. */
    private String towpath() throws IOException {
        long id =
                running.bean(OwnThemes.class).bringIn(OwnThemes.TOWPATH, ida()).id();
        made.add(id);
        return running.address + "/themes/" + id;
    }

    @AfterEach
    void tidy() {
        Browsers.closeAll();
        made.forEach(id -> running.bean(ThemeService.class).remove(id, ida()));
    }

    private static String styles(Page page, String selector) {
        return Running.frames(page).stream()
                .map(f -> (String) f.evaluate(
                        "s => [...document.querySelectorAll(s)].map(e => {"
                                + " const c = getComputedStyle(e); return [...c].filter(n => !n.startsWith('--')).map(n => n + ':' + c.getPropertyValue(n)).join(';'); }).join('|')",
                        selector))
                .toList()
                .toString();
    }

    /** Click after click, without loading the page again: each opens one panel, and no click opens none. */
    @Test
    void everyClickOnAPartOpensWhatIsSeenThere() throws IOException {
        Page page = running.maker();
        page.navigate(towpath() + "/survey");
        for (String selector : List.of(
                ".notice-badge",
                ".hero h1",
                ".card h2",
                ".notice-badge",
                ".site-footer",
                ".button",
                ".site-name",
                ".card p",
                ".hero h1")) {
            Running.clickPart(page, selector);
            assertThat(page.locator("#card details[name=aspect][open]").count())
                    .as(selector)
                    .isEqualTo(1);
        }
    }

    /** What is faded to nothing is passed over, and what lets clicks through is asked about all the same. */
    @Test
    void whatCannotBeSeenIsPassedOver() throws IOException {
        TreeMap<String, byte[]> files = new TreeMap<>();
        files.put(
                "index.html",
                "<!doctype html><link rel=stylesheet href=a.css><body><div id=box><p id=faded>faded</p><p id=through>through</p></div>"
                        .getBytes(StandardCharsets.UTF_8));
        files.put(
                "a.css",
                "#box{background:#123456;height:300px} #faded{opacity:0;background:#ff0000;height:100px;margin:0} #through{pointer-events:none;background:#00ff00;height:100px;margin:0}"
                        .getBytes(StandardCharsets.UTF_8));
        String theme = new Client(running.address)
                .signedIn("ida")
                .bringIn("faded.zip", HostileThemesInTheApplicationTest.zip(files));
        Page page = running.maker();
        page.navigate(running.address + theme + "/survey");
        Running.clickPart(page, "#faded", 0.7, 0.5);
        assertThat(page.locator("#card .part-name").textContent()).isEqualTo("div#box");
        Running.clickPart(page, "#through", 0.7, 0.5);
        assertThat(page.locator("#card .part-name").textContent()).isEqualTo("p#through");
    }

    @Test
    void fromTheBadgeToItsOwnSettingInTwoStepsAndTheButtonsStay() throws IOException {
        Page page = running.maker();
        String theme = towpath();
        page.navigate(theme + "/survey");
        String buttons = styles(page, ".button");
        Running.clickPart(page, ".notice-badge");
        assertThat(page.locator("[data-aspect=background]").innerText())
                .contains("#d8a13c", ".notice-badge in css/towpath.css, line 67", "--amber");
        assertThat(page.locator("[data-aspect=background] .excerpt .marked").innerText())
                .contains("background: var(--amber);");
        page.click("[data-aspect=background] [data-own-setting]");
        page.waitForSelector("#preview >> text=No part of any page looks different.");
        assertThat(page.locator("#preview").innerText()).contains("background: var(--notice-badge-fill, #d8a13c);");
        page.click("text=Make the change");
        page.waitForURL("**/settings?key=notice-badge-fill**");
        page.fill("#card [name=v]", "#b5462f");
        page.click("#card >> text=Save");
        page.waitForSelector("#notice >> text=default #d8a13c to #b5462f");
        for (Frame frame : Running.frames(page)) {
            assertThat(Running.style(frame, ".notice-badge", "backgroundColor")).isEqualTo("rgb(181, 70, 47)");
        }
        assertThat(styles(page, ".button").equals(buttons))
                .as("no computed value of any button has changed")
                .isTrue();
    }

    private static void mend(Page page) {
        // What the change is comes in after it was asked for, and moves the button.
        Running.settled(page);
        page.waitForNavigation(() -> page.click("text=Mend it"));
        // A long survey shows its progress first.
        page.waitForSelector(".ledger");
        assertThat(page.locator("#notice .notice-kept").count()).isEqualTo(1);
    }

    /** The findings of a theme, as its page lists them once it is looked through. */
    private static List<Element> findings(Client maker, String theme) {
        maker.survey(theme);
        return maker.page(theme + "/survey?view=findings").select("tr.pick");
    }

    private static List<String> kinds(List<Element> findings) {
        return findings.stream().map(r -> r.attr("data-kind")).distinct().toList();
    }

    /** Asks for a finding and for what its mend would do, which comes as a difference of lines; then for the mend, of all of its kind where that is offered. */
    private static void mend(Client maker, String theme, String key) {
        String asked = "?key=" + URLEncoder.encode(key, StandardCharsets.UTF_8);
        Document card = maker.page(theme + "/finding" + asked);
        String all = String.valueOf(!card.select("[name=all]").isEmpty());
        assertThat(maker.page(theme + "/finding/effect" + asked + "&all=" + all).select(".difference"))
                .as(key)
                .isNotEmpty();
        HttpResponse<String> answer = maker.post(
                theme + "/finding/mend", "base", card.select("[name=base]").val(), "key", key, "all", all);
        assertThat(answer.statusCode()).as(key + ": " + answer.body()).isEqualTo(302);
    }

    /** In the browser one is mended by {@link #dismissedFindingsStayDismissedWithTheirNote}; here all are asked for as the page asks. */
    @Test
    void everyKindOfFindingOnTheDemoIsMendedAndGone() throws IOException {
        Client maker = new Client(running.address).signedIn("ida");
        String theme = towpath().substring(running.address.length());
        List<String> kinds = kinds(findings(maker, theme));
        assertThat(kinds)
                .contains(
                        "covered-target",
                        "covered-content",
                        "missing-picture",
                        "beaten-declaration",
                        "dead-rule",
                        "misspelt-property",
                        "misspelt-value",
                        "misspelt-important",
                        "unreadable-text",
                        "hidden-text",
                        "other-host",
                        "heavy-picture",
                        "near-colors",
                        "needless-important",
                        "sheet-order",
                        "repeated-color",
                        "repeated-length");
        int mends = 0;
        for (String kind : kinds) {
            // One mend may settle, or bring up, another of its kind: a handful of rounds must be enough.
            List<Element> rows = ofKind(maker, theme, kind);
            for (int round = 0; round < 4 && !rows.isEmpty(); round++) {
                mend(maker, theme, rows.get(0).attr("data-row"));
                mends++;
                rows = ofKind(maker, theme, kind);
            }
            assertThat(rows).as(kind).isEmpty();
        }
        assertThat(maker.page(theme + "/survey?view=findings").select(".ledger").text())
                .contains("Nothing is wrong that the survey knows of");
        for (int i = 0; i < mends; i++) {
            assertThat(maker.post(theme + "/undo", "base", maker.base(theme)).statusCode())
                    .isEqualTo(302);
        }
        assertThat(kinds(findings(maker, theme))).containsAll(kinds);
    }

    private static List<Element> ofKind(Client maker, String theme, String kind) {
        return findings(maker, theme).stream()
                .filter(r -> r.attr("data-kind").equals(kind))
                .toList();
    }

    @Test
    void aLoneFrameworkIsMendedAndOverriddenFromASheetOfItsOwn() throws IOException {
        Page page = running.maker();
        Path sheet = folder.resolve("bootstrap.css");
        Files.write(sheet, OutsideSheets.get("bootstrap 5.3.8"));
        Running.bringIn(page, running.address, sheet);
        long id = Long.parseLong(page.url().replaceFirst(".*/themes/(\\d+)/.*", "$1"));
        made.add(id);
        String theme = "/themes/" + id;
        Client maker = new Client(running.address).signedIn("ida");
        for (String kind : kinds(findings(maker, theme))) {
            List<Element> rows = ofKind(maker, theme, kind);
            if (kind.equals("near-colors")) {
                // Shades of a framework are one line, and nobody edits them.
                assertThat(rows).hasSize(1);
                continue;
            }
            String key = rows.get(0).attr("data-row");
            mend(maker, theme, key);
            assertThat(findings(maker, theme))
                    .extracting(r -> r.attr("data-row"))
                    .as(kind)
                    .doesNotContain(key);
        }
        page.navigate(running.address + theme + "/survey");
        Running.clickPart(page, ".btn-danger");
        page.click("[data-aspect=background] [data-change]");
        page.fill("#p-value", "rgb(1 2 3)");
        page.waitForSelector("#preview >> text=own.css");
        page.waitForNavigation(() -> page.click("text=Make the change"));
        page.waitForSelector("iframe[data-width]");
        for (Frame frame : Running.frames(page)) {
            assertThat(Running.style(frame, ".btn-danger", "backgroundColor")).isEqualTo("rgb(1, 2, 3)");
        }
    }

    /** Rows without those that come from boxes, which a worker adds to each snapshot in its own time. */
    private static final String TOLD_AT_ONCE = "tr.pick"
            + Stream.of(
                            "text-on-picture",
                            "busy-ground",
                            "text-without-picture",
                            "wider-page",
                            "lost-subject",
                            "seam",
                            "tile-seam",
                            "stretched-picture",
                            "blurred-picture")
                    .map(kind -> ":not([data-kind=" + kind + "])")
                    .collect(Collectors.joining());

    @Test
    void dismissedFindingsStayDismissedWithTheirNote() throws IOException {
        Page page = running.maker();
        String theme = towpath();
        page.navigate(theme + "/survey?view=findings");
        page.waitForSelector(
                "tr.pick[data-kind=heavy-picture]",
                new Page.WaitForSelectorOptions().setTimeout(4 * Browsers.patience()));
        Running.settled(page);
        int before = page.locator(TOLD_AT_ONCE).count();
        page.click("tr.pick[data-kind=heavy-picture] .name");
        // What would change comes after the finding, and would move what is pressed under the pointer.
        page.waitForSelector("#card >> text=The exact change");
        Running.settled(page);
        page.click("text=Let it stand");
        page.fill("#d-note", "Only this once");
        page.click("text=Dismiss this finding");
        page.waitForSelector("#notice >> text=stays so");
        page.click("tr.pick[data-kind=covered-target] .name");
        page.waitForSelector("#card #preview .difference");
        mend(page);
        assertThat(page.locator(TOLD_AT_ONCE).count()).isEqualTo(before - 2);
        page.click("text=1 dismissed");
        assertThat(page.locator("details .uses").innerText())
                .contains("river-dusk.jpg", "Ida Marlow", "Only this once");
        page.click("text=List it again");
        page.waitForSelector("tr.pick[data-kind=heavy-picture]");
    }

    @Test
    void aRuleThatDoesNotWinIsFoundExplainedAndMadeToWin() throws IOException {
        Page page = running.maker();
        page.navigate(towpath() + "/survey?view=search");
        page.fill("[data-search-all]", "buttons");
        page.locator("tr.pick:has-text('.button') .name").first().click();
        page.locator("#card .aspect summary:has-text('border-radius')").click();
        assertThat(page.locator("#card .aspect[open]").innerText())
                .contains("Wins nowhere", "css/lattice.css, line 11", "which comes later");
        List<String> ways =
                page.locator("#card .aspect[open] .ways-to-win button").allInnerTexts();
        assertThat(ways).hasSize(3);
        assertThat(ways.get(0)).contains("after the framework's");
        assertThat(ways.get(1)).contains("body .button");
        assertThat(ways.get(2)).contains("!important");
        page.locator("#card .aspect[open] .ways-to-win button").first().click();
        page.waitForSelector("#card .difference >> text=index.html");
        page.click("#card >> text=Make the change");
        page.waitForSelector("#notice .notice-kept");
        for (Frame frame : Running.frames(page)) {
            assertThat(Running.style(frame, ".button", "borderTopLeftRadius")).isEqualTo("4px");
        }
    }

    @Test
    void partsAreWalkedByKeyboardLookedAtInStatesAndWithoutTheirDecoration() throws IOException {
        Page page = running.maker();
        page.navigate(towpath() + "/survey");
        Running.frames(page);
        page.locator("tr.pick .name").first().focus();
        page.keyboard().press("p");
        page.waitForSelector("#card [data-part]");
        for (int i = 0; i < 20 && !page.locator("#card .part-name").innerText().contains("site-header"); i++) {
            String name = page.locator("#card .part-name").innerText();
            String go = name.equals("html") || name.equals("body") ? "In" : "After";
            page.locator("#card [data-go]:has-text('" + go + "')").last().press("Enter");
            page.waitForCondition(
                    () -> !page.locator("#card .part-name").innerText().equals(name));
        }
        assertThat(page.locator("#card .part-name").innerText()).isEqualTo("header.site-header");
        page.locator("[data-aspect=picture] summary").press("Enter");
        page.locator("[data-aspect=picture] [data-without]").press("Enter");
        for (Frame frame : Running.frames(page)) {
            page.waitForCondition(() ->
                    Running.style(frame, ".site-header", "backgroundImage").equals("none"));
        }
        page.click("text=Show again");
        page.waitForCondition(() -> Running.style(Running.frames(page).get(2), ".site-header", "backgroundImage")
                .contains("header-strip"));
        Running.clickPart(page, ".hero .button");
        assertThat(page.locator("[data-aspect=background] > summary").innerText())
                .contains("#d8a13c");
        page.locator("#card [data-state][value=hover]").check(new Locator.CheckOptions().setForce(true));
        page.waitForCondition(() ->
                page.locator("[data-aspect=background] > summary").innerText().contains("#e5b458"));
        Running.clickPart(page, ".site-nav a");
        page.locator("#card [data-state][value=current]").check(new Locator.CheckOptions().setForce(true));
        page.waitForSelector("[data-aspect=border-bottom]");
    }

    @Test
    void iconsInSvgAreParts() throws IOException {
        Page page = running.maker();
        Path zip = folder.resolve("icons.zip");
        TestZips.write(
                zip,
                Map.of(
                        "index.html",
                        "<!doctype html><link rel=stylesheet href=a.css><p class=tile>"
                                + "<svg width=200 height=200 viewBox='0 0 10 10'><circle class=sun cx=5 cy=5 r=5 /></svg></p>",
                        "a.css",
                        ".tile { color: #aa1100 }\n.sun { fill: currentColor }\n"));
        Running.bringIn(page, running.address, zip);
        made.add(Long.parseLong(page.url().replaceFirst(".*/themes/(\\d+)/.*", "$1")));
        Running.clickPart(page, ".sun");
        assertThat(page.locator("[data-aspect=fill]").innerText()).contains("#aa1100", ".sun in a.css, line 2");
        page.click("[data-aspect=fill] [data-own-setting]");
        page.waitForSelector("#preview >> text=fill: var(--sun-icon, #aa1100)");
        page.fill("#p-key", "sun");
        page.click("text=Make the change");
        page.waitForURL("**/settings?key=sun**");
        page.waitForCondition(
                () -> Running.style(Running.frames(page).get(0), ".sun", "fill").equals("rgb(170, 17, 0)"));
    }

    /** Zips for tests. */
    private static final class TestZips {
        static void write(Path zip, Map<String, String> files) throws IOException {
            try (var out = new java.util.zip.ZipOutputStream(Files.newOutputStream(zip))) {
                for (Map.Entry<String, String> e : files.entrySet()) {
                    out.putNextEntry(new java.util.zip.ZipEntry(e.getKey()));
                    out.write(e.getValue().getBytes(StandardCharsets.UTF_8));
                    out.closeEntry();
                }
            }
        }
    }
}

package org.calmpalette.app;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.Cookie;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.regex.Pattern;
import org.calmpalette.app.accounts.AccountService;
import org.calmpalette.app.accounts.Role;
import org.calmpalette.core.setting.Bands;
import org.calmpalette.core.setting.Kind;
import org.calmpalette.core.setting.Kinds;
import org.calmpalette.core.setting.Palette;
import org.calmpalette.core.setting.PaletteJson;
import org.calmpalette.core.setting.Place;
import org.calmpalette.core.setting.Scheme;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.Value;
import org.jsoup.Jsoup;
import org.jsoup.nodes.Document;
import org.jsoup.nodes.Element;
import org.jsoup.nodes.TextNode;
import org.jsoup.select.NodeTraversor;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.springframework.jdbc.core.simple.JdbcClient;

/**
 * The owner's side takes all its words from files: in a language of which every sentence is marked, nothing is left outside of the marks
 * but what a maker or an owner wrote, file names, colours, units and times.
 */
class OwnersLanguageTest {
    private static final String PASSWORD = "a long password";
    private static final Running RUNNING = Running.get();
    private static final String UNLIKE = String.valueOf(System.nanoTime());
    /** Of a maker or an owner. */
    private static final Pattern THEIRS = Pattern.compile("§[^§]*§");

    private static final Pattern NO_WORDS = Pattern.compile(
            "[\\w./-]+\\.(html|png|css|zip|json)|#[0-9a-f]{3,8}\\b|\\b(px|pt|vmin|vmax|kB|MB|x|auto)\\b|https?://\\S+|/at/\\S+"
                    + "|(\\d{1,2} )?[A-Z][a-z]{2}( \\d{1,2},?)?( \\d{4})?,? \\d{1,2}:\\d{2}( UTC)?|\\d{1,2}:\\d{2} UTC|Calm Palette"
                    + "|English( \\(Pseudo-Accents\\))?|Deutsch");

    private static Client maker;
    private static Client owner;
    private static String theme;
    private static String site;

    private static Client person(String name, Role role) {
        RUNNING.bean(AccountService.class).create(name + UNLIKE, "§" + name + "§", PASSWORD, role);
        return new Client(RUNNING.address).signedIn(name + UNLIKE, PASSWORD);
    }

    private static Setting setting(String key, Kind kind, Value value) {
        return Setting.of(key, "§" + key + "§", "§help§", "all", kind, value).withPerBand(true);
    }

    private static Kind kind(String name, String allowed) {
        return Kinds.read(name, (Value.Parts)
                Value.of(tools.jackson.databind.json.JsonMapper.shared().readTree(allowed)));
    }

    /** Every kind, with limits and without, and a scheme. */
    private static Palette palette() {
        List<Setting> all = new ArrayList<>();
        for (String name : Kinds.names()) {
            Kind plain = Kinds.plain(name);
            if (!name.equals("choice")) {
                all.add(setting("any-" + name, plain, plain.initial()));
            }
        }
        Map<String, Kind> limited = new LinkedHashMap<>();
        limited.put("swatches", kind("color", "{\"swatches\": [\"#24463a\", \"#24473b\", \"#ffffff\"]}"));
        limited.put("solid", kind("color", "{\"opaque\": true, \"bounds\": {\"lightness\": [20, 60]}}"));
        limited.put("beside", kind("color", "{\"contrast\": [{\"with\": \"#ffffff\", \"atLeast\": 4.5}]}"));
        limited.put("steps", kind("length", "{\"steps\": [{\"label\": \"§small§\", \"value\": 1, \"unit\": \"px\"}]}"));
        limited.put(
                "range", kind("length", "{\"units\": [{\"unit\": \"vh\", \"least\": 10, \"most\": 80, \"step\": 5}]}"));
        limited.put(
                "options", kind("choice", "{\"options\": [{\"key\": \"a\", \"label\": \"§a§\", \"css\": \"left\"}]}"));
        limited.put("some", kind("number", "{\"least\": 0.5, \"most\": 2.5, \"step\": 0.5}"));
        limited.put("short", kind("line", "{\"least\": 2, \"most\": 8}"));
        limited.put("pages", kind("link", "{\"targets\": [\"page\", \"anchor\"]}"));
        limited.put("large", kind("picture", "{\"leastWidth\": 400, \"none\": true}"));
        limited.put("framed", kind("border", "{\"none\": true, \"fixed\": {\"color\": \"#123456\"}}"));
        limited.put(
                "list",
                kind(
                        "items",
                        """
                        {"least": 1, "most": 3, "parts": [
                          {"key": "heading", "label": "§heading§", "kind": "line", "default": "§x§"},
                          {"key": "to", "label": "§to§", "kind": "link", "default": "index.html"}]}"""));
        limited.forEach((key, k) -> all.add(setting(key, k, key.equals("beside") ? Value.of("#123456") : k.initial())));
        return new Palette(
                "§theme§",
                Bands.USUAL,
                List.of(new Place("all", "§all§")),
                all,
                List.of(new Scheme("dusk", "§dusk§", Map.of())),
                List.of());
    }

    @BeforeAll
    static void aSiteThatAsksForEverything() throws Exception {
        maker = person("lang-maker", Role.MAKER);
        TreeMap<String, byte[]> files = new TreeMap<>();
        files.put(
                "index.html",
                "<link rel=stylesheet href=a.css><p>§x§<a href=other.html data-calm-href=pages>§y§</a>"
                        .getBytes(StandardCharsets.UTF_8));
        files.put(
                "a.css",
                "p{color:var(--swatches, #123456);background:var(--any-color)}".getBytes(StandardCharsets.UTF_8));
        files.put("palette.json", PaletteJson.write(palette(), null));
        files.put("img/a.png", png());
        theme = maker.bringIn("language.zip", HostileThemesInTheApplicationTest.zip(files));
        String name = "§Lang " + UNLIKE + "§";
        owner = person("lang-owner", Role.OWNER);
        assertThat(maker.post(theme + "/sites", "name", name, "whose", "owner", "owner", "lang-owner" + UNLIKE)
                        .statusCode())
                .isEqualTo(302);
        site = "/sites/"
                + RUNNING.bean(JdbcClient.class)
                        .sql("select slug from site where name = ?")
                        .param(name)
                        .query(String.class)
                        .single();
        speakMarked(owner);
    }

    private static byte[] png() throws Exception {
        var out = new java.io.ByteArrayOutputStream();
        javax.imageio.ImageIO.write(
                new java.awt.image.BufferedImage(40, 30, java.awt.image.BufferedImage.TYPE_INT_RGB), "png", out);
        return out.toByteArray();
    }

    private static void speakMarked(Client who) {
        assertThat(who.post("/language", "tag", Running.MARKED).statusCode()).isEqualTo(302);
    }

    /** What is left of a text without what is marked and what is nobody's sentence. */
    private static String left(String text) {
        StringBuilder outside = new StringBuilder();
        int depth = 0;
        String own = THEIRS.matcher(text).replaceAll("");
        for (char c : own.toCharArray()) {
            if (c == '⟦') {
                depth++;
            } else if (c == '⟧') {
                depth--;
            } else if (depth == 0) {
                outside.append(c);
            }
        }
        return NO_WORDS.matcher(outside)
                .replaceAll("")
                .replaceAll("[^\\p{L}]+", " ")
                .strip();
    }

    private static void check(String where, Document page, List<String> faults) {
        NodeTraversor.traverse(
                (node, depth) -> {
                    if (node instanceof TextNode t) {
                        Element around = t.parent();
                        if (around.closest("script, style, noscript, .code, textarea") == null
                                && !left(t.text()).isEmpty()) {
                            faults.add(where + ": " + t.text().strip() + " in " + around.tagName() + " "
                                    + around.className());
                        }
                    }
                    if (node instanceof Element e) {
                        for (String name : List.of("aria-label", "title", "placeholder", "alt")) {
                            if (!left(e.attr(name)).isEmpty()) {
                                faults.add(where + ": " + name + " " + e.attr(name));
                            }
                        }
                    }
                },
                page.body());
        if (!left(page.title()).isEmpty()) {
            faults.add(where + ": title " + page.title());
        }
        if (page.html().contains("??")) {
            faults.add(where + ": a sentence is missing");
        }
        if (!page.select("html[lang]").isEmpty()
                && !page.select("html").attr("lang").equals(Running.MARKED)
                && page.select("header").size() > 0) {
            faults.add(where + ": it says that it is in " + page.select("html").attr("lang"));
        }
    }

    private static Document tree(HttpResponse<String> answer) {
        return Jsoup.parse(new String(answer.body().getBytes(StandardCharsets.ISO_8859_1), StandardCharsets.UTF_8));
    }

    @Test
    void everyPageOfTheOwnersSideSpeaksTheLanguage() {
        List<String> faults = new ArrayList<>();
        owner.post(site + "/choose", "key", "swatches", "v", "#ffffff");
        owner.post(site + "/choose", "key", "any-number", "band", "phone", "v", "2.5");
        owner.post(site + "/go-live", "word", "§word§");
        check("after going live", owner.page(site), faults);
        owner.post(site + "/choose", "key", "any-color", "v", "#804020");
        owner.post(site + "/scheme", "scheme", "dusk");
        owner.post(site + "/choose", "key", "steps", "v.step", "1px");
        for (String path : List.of(
                "",
                "/put-back",
                "/hand",
                "/review",
                "/editions",
                "/editions/1",
                "/pictures",
                "/people",
                "/places/all")) {
            check(site + path, owner.page(site + path), faults);
        }
        owner.post(site + "/people/invite");
        Document people = owner.page(site + "/people");
        check("people, invited", people, faults);
        String invitation = people.select("input[readonly]").val().replaceFirst(".*/join/", "/join/");
        Client guest = new Client(RUNNING.address);
        check("sign-in in English", guest.page("/sign-in"), new ArrayList<>());
        speakMarked(guest);
        for (String path : List.of(
                "/sign-in",
                "/sign-in?failed",
                "/sign-in?wait=3",
                "/sign-in?left",
                invitation,
                "/join/none",
                "/password/none")) {
            check(path, guest.page(path), faults);
        }
        check("refused", tree(guest.post(invitation, "signIn", "a b", "name", "", "password", "short")), faults);
        check("withdrawn hand", tree(owner.post(site + "/hand")), faults);
        check("sites", owner.page("/sites"), faults);
        check("account", owner.page("/account"), faults);
        check("wrong password", tree(owner.post("/account/password", "now", "no", "next", "another long one")), faults);
        check("nothing there", owner.page("/sites/none-of-this"), faults);
        check("not put back", tree(owner.post(site + "/put-back", "ticked", "true")), faults);
        owner.post("/account/name", "name", "§lang-owner§");
        check("renamed", owner.page("/account"), faults);
        owner.post(site + "/editions/1/take-back");
        check("taken back", owner.page(site + "/editions"), faults);
        assertThat(faults.stream().distinct().toList()).isEmpty();
    }

    /** Visitors read their own language, and a note that one owner leaves is told to another in theirs. */
    @Test
    void visitorsAndOtherOwnersReadTheirOwnLanguage() {
        HttpResponse<String> gone = new Client(RUNNING.address)
                .get("/at/sallowmere-ferries/gone.html", "Accept-Language", "de-AT, fr;q=0.9");
        assertThat(gone.statusCode()).isEqualTo(404);
        assertThat(gone.body()).isEqualTo("Die Seite gone.html gibt es auf dieser Website nicht.");
        assertThat(gone.headers().firstValue("Content-Language")).contains("de");
        Client owner = new Client(RUNNING.address).signedIn("jonas");
        String site = "/sites/sallowmere-ferries";
        String seen = owner.page(site)
                .select("[hx-post*='/undo?base=']")
                .attr("hx-post")
                .replaceAll("\\D+", "");
        String scheme = owner.page(site)
                .select("[hx-post*='scheme=']")
                .first()
                .attr("hx-post")
                .replaceAll(".*=", "");
        assertThat(owner.post(site + "/scheme", "scheme", scheme).statusCode()).isEqualTo(200);
        assertThat(tree(owner.post(site + "/undo", "base", seen)).text()).contains("Took over “");
        owner.post("/language", "tag", "de");
        assertThat(tree(owner.post(site + "/undo", "base", seen)).text()).contains("“ übernommen");
        String now = owner.page(site)
                .select("[hx-post*='/undo?base=']")
                .attr("hx-post")
                .replaceAll("\\D+", "");
        assertThat(owner.post(site + "/undo", "base", now).statusCode()).isEqualTo(200);
    }

    /** What a value is refused with, kind by kind. */
    @Test
    void everyRefusalSpeaksTheLanguage() {
        List<String> told = new ArrayList<>();
        String[][] wrong = {
            {"any-color", "v", "mud"},
            {"swatches", "v", "#123123"},
            {"solid", "v", "#ffffff"},
            {"solid", "v", "#00000080"},
            {"beside", "v", "#eeeeee"},
            {"any-length", "v.value", "abc", "v.unit", "px"},
            {"range", "v.value", "7", "v.unit", "vh"},
            {"range", "v.value", "99", "v.unit", "vh"},
            {"some", "v", "9"},
            {"some", "v", "0.7"},
            {"any-percentage", "v", "much"},
            {"short", "v", "x"},
            {"short", "v", "far too long for it"},
            {"pages", "v", "https://example.org/"},
            {"pages", "v", "nowhere.html"},
            {"large", "v", "img/a.png"},
            {"any-level", "v", "nine"},
            {
                "any-gradient",
                "v.shape",
                "linear",
                "v.angle",
                "400",
                "v.stop1.color",
                "#000",
                "v.stop1.at",
                "0",
                "v.stop2.color",
                "#fff",
                "v.stop2.at",
                "100"
            },
            {"any-gradient", "v.shape", "linear", "v.stop1.color", "#000", "v.stop1.at", "0"},
            {"any-background", "v.color", "mud", "v.position", "nowhere", "v.size", "huge", "v.strength", "200"},
            {"any-border", "v.width.value", "x", "v.width.unit", "px", "v.style", "solid", "v.color", "#000"},
            {"list", "v.order", ""},
            {"list", "v.order", "0", "v.0.heading", "x\ty", "v.0.to", "index.html"},
        };
        for (String[] one : wrong) {
            List<String> fields = new ArrayList<>(List.of("key"));
            fields.addAll(List.of(one));
            HttpResponse<String> answer = owner.post(site + "/try", fields.toArray(String[]::new));
            assertThat(answer.statusCode()).as(String.join(" ", one)).isEqualTo(200);
            String body = new String(answer.body().getBytes(StandardCharsets.ISO_8859_1), StandardCharsets.UTF_8);
            String refusal = body.replaceFirst("(?s).*\"refusal\":\"((?:[^\"\\\\]|\\\\.)*)\".*", "$1");
            assertThat(refusal).as(String.join(" ", one)).contains("⟦");
            if (!left(refusal).isEmpty()) {
                told.add(String.join(" ", one) + ": " + refusal);
            }
        }
        assertThat(told).isEmpty();
    }

    /** Whatever a browser asks for, and whatever anybody chose: the maker's side is in English. */
    @Test
    void theBrowserIsHeardAndTheMakersSideIsEnglish() {
        Client guest = new Client(RUNNING.address);
        assertThat(guest.get("/sign-in", "Accept-Language", "de-AT,de;q=0.9,en;q=0.8")
                        .body())
                .contains("<h1>Anmelden</h1>");
        assertThat(guest.get("/sign-in", "Accept-Language", "fr,pt;q=0.5").body())
                .contains("<h1>Sign in</h1>");
        assertThat(guest.get("/sign-in", "Accept-Language", "!!").body()).contains("<h1>Sign in</h1>");
        guest.post("/language", "tag", "de");
        assertThat(guest.get("/sign-in", "Accept-Language", "en").body()).contains("<h1>Anmelden</h1>");
        assertThat(guest.post("/language", "tag", "../en").statusCode()).isEqualTo(404);
        speakMarked(maker);
        assertThat(maker.page(theme + "/settings").text()).doesNotContain("⟦").contains("Settings");
        assertThat(maker.page("/account").text()).doesNotContain("⟦").contains("Makers here");
        assertThat(maker.page("/sites").text()).contains("⟦");
    }

    /** A theme's own labels as its file translates them; what has no translation is as the maker wrote it. */
    @Test
    void labelsOfAThemeAreTranslatedByItsOwnFile() throws Exception {
        Client own = person("lang-two", Role.MAKER);
        TreeMap<String, byte[]> files = new TreeMap<>();
        files.put("index.html", "<link rel=stylesheet href=a.css><p>x".getBytes(StandardCharsets.UTF_8));
        files.put("a.css", "p{color:var(--ink)}".getBytes(StandardCharsets.UTF_8));
        files.put(
                "palette.json",
                """
                {"name": "T", "places": [{"key": "head", "label": "Head"}],
                 "settings": [{"key": "ink", "label": "Ink", "help": "Of all words.", "kind": "color", "place": "head", "default": "#123456"},
                              {"key": "room", "label": "Heading", "kind": "length", "place": "head", "default": {"value": 1.5, "unit": "rem"}}],
                 "translations": {"de": {"Head": "Kopf", "Ink": "Tinte"}}}"""
                        .getBytes(StandardCharsets.UTF_8));
        String at = own.bringIn("two.zip", HostileThemesInTheApplicationTest.zip(files));
        own.post(at + "/sites", "name", "Zwei " + UNLIKE, "whose", "me");
        own.post("/language", "tag", "de");
        String zwei = "/sites/zwei-" + UNLIKE;
        Document page = own.page(zwei);
        assertThat(page.select("[data-place]").text()).isEqualTo("Kopf");
        // “Heading” is a label of ours, and known without the theme's help.
        assertThat(page.select(".question h3").eachText()).containsExactly("Tinte", "Überschrift");
        assertThat(page.select(".help").text()).isEqualTo("Of all words.");
        assertThat(page.select(".question").last().text()).contains("1,5 mal die Schriftgröße");
        own.post(zwei + "/choose", "key", "ink", "v", "#ffffff");
        assertThat(own.page(zwei + "/review").select(".changes").text())
                .contains("Kopf")
                .contains("Tinte");
        // What is live and what is handed over knows no language.
        own.post(zwei + "/go-live");
        assertThat(own.get("/at/zwei-" + UNLIKE + "/palette.css").body()).doesNotContain("Tinte");
    }

    /** What scripts say comes from the same files; and where sentences are long the head stays on one line, with the rest behind “More”. */
    @Test
    void scriptsSpeakTheLanguageAndLongWordsHaveRoom() {
        Page page = RUNNING.visitor(1280, 800);
        page.context()
                .addCookies(owner.cookies().entrySet().stream()
                        .map(c -> new Cookie(c.getKey(), c.getValue()).setUrl(RUNNING.address))
                        .toList());
        page.navigate(RUNNING.address + site);
        page.waitForSelector("header.top.tight");
        Locator editions = page.locator("#more a[href$='/editions']");
        assertThat(editions.isVisible()).isFalse();
        page.locator("[popovertarget=more]").click();
        editions.waitFor();
        page.keyboard().press("Escape");
        assertThat(page.evaluate("() => document.querySelector('header.top').offsetHeight"))
                .isEqualTo(46);
        Locator swatches = page.locator("[data-key=swatches] .reading");
        page.locator("[data-key=swatches] input[type=radio]").first().focus();
        page.keyboard().press("ArrowRight");
        page.waitForCondition(() -> swatches.textContent().contains("⟦"));
        page.context().setOffline(true);
        page.locator("[data-key=any-line] form:not([data-band]) [name=v]").fill("§words§");
        page.locator("[data-key=any-line] form:not([data-band]) [name=v]").blur();
        page.waitForSelector("#notice [data-lost]");
        assertThat(left(page.locator("#notice").textContent())).isEmpty();
        page.context().setOffline(false);
        page.waitForCondition(() -> page.locator("#notice").textContent().contains("⟦The line is back"));
        for (String element : List.of(
                "calm-taker button", "calm-bring label", "calm-background [role=slider]", "calm-gradient .stop")) {
            Locator made = page.locator(element).first();
            String said = made.textContent() + made.evaluate("e => e.ariaLabel ?? ''");
            assertThat(said).as(element).contains("⟦");
            assertThat(left(said)).as(element).isEmpty();
        }
    }
}

package org.calmpalette.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.util.TreeMap;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.jdbc.core.simple.JdbcClient;

/** Two windows of one owner: neither writes over the other without a sign, and what loses can be taken. */
class TwoWindowsTest {
    private static final String ONE = "aaaaaaaaaaaaaaaa";
    private static final String TWO = "bbbbbbbbbbbbbbbb";
    private static final Running running = Running.get();
    private static String theme;
    private Client owner;
    private String site;

    @BeforeAll
    static void bringATheme() {
        TreeMap<String, byte[]> files = new TreeMap<>();
        files.put(
                "index.html",
                "<link rel=stylesheet href=a.css><h1 data-setting-text=heading>Boats</h1>"
                        .getBytes(StandardCharsets.UTF_8));
        files.put(
                "a.css",
                "h1{color:var(--ink, #102030);background:var(--ground, none)}".getBytes(StandardCharsets.UTF_8));
        files.put(
                "palette.json",
                """
        {"name": "Windows", "places": [{"key": "top", "label": "Top"}], "settings": [
          {"key": "heading", "label": "Heading", "place": "top", "kind": "line", "allowed": {"least": 1, "most": 40}, "default": "Boats"},
          {"key": "ink", "label": "Ink", "place": "top", "kind": "color", "default": "#102030"},
          {"key": "ground", "label": "Ground", "place": "top", "kind": "background",
            "default": {"color": "#ffffff", "picture": "", "repeat": "no-repeat", "position": "left top", "size": "cover", "attachment": "scroll", "overlay": "#000000", "strength": 0}}]}
        """
                        .getBytes(StandardCharsets.UTF_8));
        theme = new Client(running.address)
                .signedIn("ida")
                .bringIn("windows.zip", HostileThemesInTheApplicationTest.zip(files));
    }

    @BeforeEach
    void makeASite() {
        Client maker = new Client(running.address).signedIn("ida");
        String name = running.newOwner();
        site = "windows-" + System.nanoTime();
        assertThat(maker.post(theme + "/sites", "name", site, "whose", "owner", "owner", name)
                        .statusCode())
                .isEqualTo(302);
        owner = new Client(running.address).signedIn(name);
    }

    /** What a window sends. */
    private HttpResponse<String> choose(String page, int turn, String was, long ageMs, String key, String value) {
        return owner.post(
                "/sites/" + site + "/choose",
                "key",
                key,
                "v",
                value,
                "page",
                page,
                "turn",
                String.valueOf(turn),
                "was",
                was,
                "typed",
                String.valueOf(System.currentTimeMillis() - ageMs));
    }

    private static String was(HttpResponse<String> answer) {
        return answer.headers().firstValue("X-Was").orElseThrow();
    }

    private String draft() {
        return owner.get("/sites/" + site + "/choices.json").body();
    }

    private String page() {
        return owner.get("/sites/" + site).body();
    }

    private long aside() {
        return Long.parseLong(page().replaceFirst("(?s).*/asides/(\\d+)/take.*", "$1"));
    }

    @Test
    void wordsThatAreOlderLoseAreShownAndCanBeTaken() {
        choose(TWO, 1, "", 0, "heading", "Newer");
        // Written before, in a window that was left open, and sent when that one was closed.
        HttpResponse<String> late = choose(ONE, 1, "", 60_000, "heading", "Older");
        assertThat(late.body()).contains("changed in another window after you wrote this", "Older", "Take this");
        assertThat(late.headers().firstValue("HX-Retarget")).contains("#slip");
        // The same once more, as a window sends it that goes.
        choose(ONE, 1, "", 60_000, "heading", "Older");
        assertThat(draft()).contains("Newer").doesNotContain("Older");
        assertThat(page()).contains("Older");

        assertThat(owner.post("/sites/" + site + "/asides/" + aside() + "/take").statusCode())
                .isEqualTo(200);
        assertThat(draft()).contains("Older");
        assertThat(page()).doesNotContain("Take this");
    }

    @Test
    void wordsThatAreNewerWinAndWhatTheyReplaceUnseenIsShown() {
        choose(TWO, 1, "", 60_000, "heading", "Of the other");
        HttpResponse<String> answer = choose(ONE, 1, "", 0, "heading", "Mine");
        assertThat(answer.body()).contains("changed in another window too", "Of the other");
        assertThat(draft()).contains("Mine");
        assertThat(owner.post("/sites/" + site + "/asides/" + aside() + "/let-go")
                        .statusCode())
                .isEqualTo(200);
        assertThat(page()).doesNotContain("Of the other");
        assertThat(draft()).contains("Mine");
    }

    @Test
    void oneWindowAloneIsNeverToldOfAnother() {
        String first = was(choose(ONE, 1, "", 900, "heading", "First"));
        assertThat(first).isNotEmpty();
        // Typed on before the answer came, so the window does not know yet what it replaces.
        choose(ONE, 2, "", 500, "heading", "Second");
        // Sent once more as the window closes, and in the wrong order.
        choose(ONE, 4, first, 100, "heading", "Fourth");
        choose(ONE, 3, first, 300, "heading", "Third");
        choose(ONE, 2, "", 900, "heading", "Second");
        assertThat(draft()).contains("Fourth");
        // Another question of the same window is not held back by that, even if it was entered before there was a
        // draft.
        choose(ONE, 3, "", 60_000, "ink", "#223344");
        assertThat(draft()).contains("Fourth", "#223344");
        assertThat(page()).doesNotContain("Take this");
    }

    /** A window that saw what the other one wrote, and writes on it, is no quarrel; nor is the other one's echo after that. */
    @Test
    void whoSawWhatTheyReplaceIsToldNothing() {
        String first = was(choose(ONE, 1, "", 0, "heading", "First"));
        choose(TWO, 1, first, 0, "heading", "On top");
        choose(ONE, 1, "", 5_000, "heading", "First");
        assertThat(draft()).contains("On top");
        assertThat(page()).doesNotContain("Take this");
    }

    @Test
    void ofSeveralFieldsOneThatCannotBeReadTakesNoOtherWithIt() {
        HttpResponse<String> answer = owner.post(
                "/sites/" + site + "/choose",
                "key",
                "ground",
                "v.color",
                "#fedcba",
                "v.picture",
                "",
                "v.repeat",
                "repeat",
                "v.position",
                "somewhere",
                "v.size",
                "contain",
                "v.attachment",
                "scroll",
                "v.overlay",
                "#000000",
                "v.strength",
                "0");
        assertThat(answer.statusCode()).isEqualTo(422);
        assertThat(answer.body()).contains("somewhere", "What else you chose here is kept.", "id=\"state\"");
        assertThat(draft()).contains("#fedcba", "contain", "left top").doesNotContain("somewhere");
        // With nothing else to be kept it is refused as it always was.
        assertThat(owner.post("/sites/" + site + "/choose", "key", "ink", "v", "no colour")
                        .statusCode())
                .isEqualTo(422);
    }

    @Test
    void aSiteThatGoesTakesWhatWasPutAsideAlong() {
        choose(TWO, 1, "", 0, "heading", "Newer");
        choose(ONE, 1, "", 60_000, "heading", "Older");
        JdbcClient database = running.bean(JdbcClient.class);
        long id = database.sql("select id from site where slug = ?")
                .param(site)
                .query(Long.class)
                .single();
        String left = "select count(*) from site_aside where site_id = ?";
        assertThat(database.sql(left).param(id).query(Long.class).single()).isEqualTo(1);
        new Client(running.address).signedIn("ida").post(theme + "/sites/" + id + "/remove", "confirmed", site);
        assertThat(database.sql(left).param(id).query(Long.class).single()).isZero();
    }

    /** A choice that the theme no longer allows is told with what is shown instead, keeps nobody from going live, and is not lost. */
    @Test
    void whatTheThemeNoLongerAllowsIsSaidAndTheSiteGoesLive() {
        choose(ONE, 1, "", 0, "heading", "Ferries");
        String tooLong = "x".repeat(50);
        running.bean(JdbcClient.class)
                .sql("update site_draft d join site s on s.draft_id = d.id set d.choices = ? where s.slug = ?")
                .param("{\"heading\":\"" + tooLong + "\",\"ink\":\"#445566\"}")
                .param(site)
                .update();
        String said = "is no longer allowed, “Boats” is shown instead";
        assertThat(page().replace("\u00e2\u0080\u009c", "“").replace("\u00e2\u0080\u009d", "”"))
                .contains(said);
        assertThat(owner.post("/sites/" + site + "/go-live").statusCode()).isEqualTo(302);
        assertThat(page()).contains("Your site is live", "is no longer allowed");
        assertThat(new Client(running.address).get("/at/" + site + "/").body())
                .contains("Boats</h1>")
                .doesNotContain(tooLong);
        assertThat(draft()).contains(tooLong, "#445566");
    }
}

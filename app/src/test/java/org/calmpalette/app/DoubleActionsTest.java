package org.calmpalette.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.TreeMap;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import org.calmpalette.app.accounts.AccountService;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.jdbc.core.simple.JdbcClient;

/** Pressing twice, and two people at once: each is done once, and whoever is second is told so. */
class DoubleActionsTest {
    private final Running running = Running.get();
    private Client maker;
    private Client owner;
    private String theme;
    private String site;
    private String ownerName;

    @BeforeEach
    void makeASite() {
        maker = new Client(running.address).signedIn("ida");
        ownerName = running.newOwner();
        TreeMap<String, byte[]> files = new TreeMap<>();
        files.put("index.html", "<link rel=stylesheet href=a.css><h1>x</h1><p>y".getBytes(StandardCharsets.UTF_8));
        files.put(
                "a.css", "h1{color:var(--ink, #102030)}p{color:var(--lead, #203040)}".getBytes(StandardCharsets.UTF_8));
        files.put(
                "palette.json",
                """
        {"name": "Twice", "places": [{"key": "top", "label": "Top"}], "settings": [
          {"key": "ink", "label": "Ink", "place": "top", "kind": "color", "default": "#102030", "former": ["old-ink"], "allowed": {"swatches": ["#102030", "#000000", "#111111"]}},
          {"key": "lead", "label": "Lead", "place": "top", "kind": "color", "default": "#203040"},
          {"key": "to", "label": "To", "place": "top", "kind": "link", "default": "index.html"}]}
        """
                        .getBytes(StandardCharsets.UTF_8));
        theme = maker.bringIn("twice.zip", HostileThemesInTheApplicationTest.zip(files));
        String name = "Twice " + System.nanoTime();
        site = name.toLowerCase().replace(' ', '-');
        assertThat(maker.post(theme + "/sites", "name", name, "whose", "owner", "owner", ownerName)
                        .statusCode())
                .isEqualTo(302);
        owner = new Client(running.address).signedIn(ownerName);
    }

    @SafeVarargs
    private static List<HttpResponse<String>> atOnce(Callable<HttpResponse<String>>... calls) throws Exception {
        ExecutorService threads = Executors.newFixedThreadPool(calls.length);
        try {
            List<HttpResponse<String>> answers = new ArrayList<>();
            for (Future<HttpResponse<String>> f : threads.invokeAll(List.of(calls))) {
                answers.add(f.get());
            }
            return answers;
        } finally {
            threads.shutdown();
        }
    }

    private long editions() {
        return running.bean(JdbcClient.class)
                .sql("select count(*) from edition e join site s on s.id = e.site_id where s.slug = ?")
                .param(site)
                .query(Long.class)
                .single();
    }

    private String draft() {
        return owner.get("/sites/" + site).body().replaceFirst("(?s).*/undo\\?base=(\\d+).*", "$1");
    }

    @Test
    void goingLiveTwiceIsGoingLiveOnce() throws Exception {
        String token = owner.token();
        for (int i = 0; i < 10; i++) {
            assertThat(owner.post("/sites/" + site + "/choose", "key", "lead", "v", "#00000" + i)
                            .statusCode())
                    .isEqualTo(200);
            Callable<HttpResponse<String>> press = () -> owner.postAs(token, "/sites/" + site + "/go-live");
            assertThat(atOnce(press, press)).allMatch(a -> a.statusCode() == 302);
            assertThat(editions()).isEqualTo(i + 1);
        }
    }

    @Test
    void choicesOfTwoFieldsAndAnUpdateMeanwhileAreAllKept() throws Exception {
        String token = owner.token();
        String makers = maker.token();
        String id = running.bean(JdbcClient.class)
                .sql("select id from site where slug = ?")
                .param(site)
                .query(String.class)
                .single();
        for (int i = 10; i < 40; i++) {
            String color = "#0000" + i;
            String link = "page-" + i + ".html";
            assertThat(atOnce(
                            () -> owner.postAs(token, "/sites/" + site + "/choose", "key", "lead", "v", color),
                            () -> owner.postAs(token, "/sites/" + site + "/choose", "key", "to", "v", link),
                            () -> maker.postAs(makers, theme + "/sites/" + id + "/update")))
                    .allMatch(a -> a.statusCode() < 400);
            assertThat(owner.get("/sites/" + site + "/choices.json").body())
                    .contains(color)
                    .contains(link);
        }
    }

    private HttpResponse<String> setting(String token, String base, String key, String label) {
        return maker.postAs(
                token,
                theme + "/settings/new",
                "base",
                base,
                "kind",
                "number",
                "key",
                key,
                "label",
                label,
                "v",
                "1",
                "place",
                "Top");
    }

    @Test
    void twoEditsOfOneStateStandTogetherAndOfTheSameTheSecondIsTold() throws Exception {
        String token = maker.token();
        for (int i = 0; i < 8; i++) {
            String base = maker.base(theme);
            String n = String.valueOf(i);
            assertThat(atOnce(
                            () -> setting(token, base, "a" + n, "A" + n),
                            () -> setting(token, base, "b" + n, "B" + n),
                            () -> setting(token, base, "c" + n, "C" + n)))
                    .extracting(HttpResponse::statusCode)
                    .containsExactly(302, 302, 302);
            assertThat(maker.get(theme + "/settings").body()).contains("A" + n, "B" + n, "C" + n);
            String then = maker.base(theme);
            List<HttpResponse<String>> answers =
                    atOnce(() -> setting(token, then, "s" + n, "One"), () -> setting(token, then, "s" + n, "Two"));
            assertThat(answers).extracting(HttpResponse::statusCode).containsExactlyInAnyOrder(302, 409);
            assertThat(answers.stream()
                            .filter(r -> r.statusCode() == 409)
                            .findFirst()
                            .orElseThrow()
                            .body())
                    .contains(
                            "has changed since you opened this page",
                            "Both change the same: palette.json: the setting &quot;s" + n + "&quot;, label, now ");
            // The same twice is done once.
            String last = maker.base(theme);
            assertThat(atOnce(() -> setting(token, last, "t" + n, "T"), () -> setting(token, last, "t" + n, "T")))
                    .extracting(HttpResponse::statusCode)
                    .containsExactlyInAnyOrder(302, 409);
        }
        assertThat(maker.get(theme + "/history").body())
                .contains("(beside: New setting ")
                .doesNotContainPattern("beside[^)]*beside[^)]*\\)\\)");
    }

    /** Of changes made one after another any can be taken back alone, unless a later one stands on it. */
    @Test
    void oneEarlierChangeIsTakenBackAlone() {
        String token = maker.token();
        List<String> made = new ArrayList<>();
        for (String key : List.of("a", "b", "c")) {
            assertThat(setting(token, maker.base(theme), key, "Label " + key).statusCode())
                    .isEqualTo(302);
            made.add(maker.base(theme));
        }
        assertThat(maker.post(
                                theme + "/settings",
                                "base",
                                maker.base(theme),
                                "key",
                                "a",
                                "label",
                                "Other",
                                "v",
                                "1",
                                "place",
                                "Top")
                        .statusCode())
                .isEqualTo(302);
        HttpResponse<String> back =
                maker.post(theme + "/history/take-back", "base", maker.base(theme), "which", made.get(1));
        assertThat(back.statusCode()).as(back.body()).isEqualTo(302);
        assertThat(maker.get(theme + "/history").body()).contains("Took back: New setting ");
        assertThat(maker.get(theme + "/settings").body())
                .contains(">Other<", ">Label c<")
                .doesNotContain(">Label b<");
        // Once more there is nothing of it left.
        assertThat(maker.post(theme + "/history/take-back", "base", maker.base(theme), "which", made.get(1))
                        .body())
                .contains("is left in the theme");
        String before = maker.base(theme);
        HttpResponse<String> refused = maker.post(theme + "/history/take-back", "base", before, "which", made.get(0));
        assertThat(refused.statusCode()).isEqualTo(422);
        assertThat(refused.body())
                .contains("cannot be taken back by itself: palette.json", "label, was ")
                .doesNotContain(", ,");
        assertThat(maker.base(theme)).isEqualTo(before);
        // How it came in cannot be taken back, nor what another theme has.
        assertThat(maker.get(theme + "/history").body().split("Take back alone", -1))
                .hasSize(1 + 4);
        assertThat(maker.post(theme + "/history/take-back", "base", before, "which", "1")
                        .statusCode())
                .isEqualTo(404);
    }

    @Test
    void oneSessionsUndoDoesNotTakeAnothersChoiceBack() {
        String seen = draft();
        assertThat(owner.post("/sites/" + site + "/choose", "key", "lead", "v", "#000001")
                        .statusCode())
                .isEqualTo(200);
        HttpResponse<String> undone = owner.post("/sites/" + site + "/undo", "base", seen);
        assertThat(undone.statusCode()).isEqualTo(409);
        assertThat(undone.body()).contains("Lead: #000001");
        assertThat(owner.get("/sites/" + site + "/choices.json").body()).contains("#000001");
        assertThat(owner.post("/sites/" + site + "/undo", "base", draft()).statusCode())
                .isEqualTo(200);
        assertThat(owner.get("/sites/" + site + "/choices.json").body()).isEqualTo("{}");
        assertThat(owner.post("/sites/" + site + "/redo", "base", draft()).statusCode())
                .isEqualTo(200);
        assertThat(owner.get("/sites/" + site + "/choices.json").body()).contains("#000001");
    }

    @Test
    void oneInvitationLetsOneIn() throws Exception {
        String name = "Invited " + System.nanoTime();
        assertThat(maker.post(theme + "/sites", "name", name, "whose", "invite").statusCode())
                .isEqualTo(302);
        String token = running.bean(JdbcClient.class)
                .sql("select invitation from site where name = ?")
                .param(name)
                .query(String.class)
                .single();
        Client visitor = new Client(running.address);
        String csrf = visitor.token();
        String who = "guest-" + System.nanoTime();
        List<HttpResponse<String>> answers = atOnce(
                () -> visitor.postAs(
                        csrf, "/join/" + token, "signIn", who + "a", "name", "A", "password", "a long password"),
                () -> visitor.postAs(
                        csrf, "/join/" + token, "signIn", who + "b", "name", "B", "password", "a long password"));
        assertThat(answers).extracting(HttpResponse::statusCode).containsExactlyInAnyOrder(302, 422);
        assertThat(answers.stream()
                        .filter(a -> a.statusCode() == 422)
                        .findFirst()
                        .orElseThrow()
                        .body())
                .contains("This invitation has been used");
        AccountService accounts = running.bean(AccountService.class);
        assertThat(accounts.findBySignIn(who + "a").isPresent()
                        ^ accounts.findBySignIn(who + "b").isPresent())
                .isTrue();
    }

    @Test
    void aFileOfChoicesKeepsNothingThatWouldBlockGoingLive() {
        // Under the key that the setting had before, with a colour that is not allowed.
        HttpResponse<String> taken = owner.upload(
                "/sites/" + site + "/choices.json",
                "choices.json",
                "{\"old-ink\": \"#ff0000\", \"lead\": \"#000007\"}".getBytes(StandardCharsets.UTF_8));
        assertThat(taken.statusCode()).isEqualTo(302);
        assertThat(owner.get("/sites/" + site + "/choices.json").body()).isEqualTo("{\"lead\":\"#000007\"}");
        assertThat(owner.post("/sites/" + site + "/go-live").statusCode()).isEqualTo(302);
        assertThat(owner.upload(
                                "/sites/" + site + "/choices.json",
                                "choices.json",
                                "{\"old-ink\": \"#111111\"}".getBytes(StandardCharsets.UTF_8))
                        .statusCode())
                .isEqualTo(302);
        assertThat(owner.get("/sites/" + site + "/choices.json").body()).contains("\"ink\":\"#111111\"");
        StringBuilder many = new StringBuilder("{");
        for (int i = 0; i < 20_000; i++) {
            many.append("\"k").append(i).append("\":1,");
        }
        HttpResponse<String> refused = owner.upload(
                "/sites/" + site + "/choices.json",
                "choices.json",
                (many + "\"z\":1}").getBytes(StandardCharsets.UTF_8));
        assertThat(refused.statusCode()).isEqualTo(422);
        assertThat(refused.body()).contains("the most is 2400");
        assertThat(owner.upload("/sites/" + site + "/choices.json", "choices.json", new byte[600_000])
                        .body())
                .contains("larger than 500 kB");
    }
}

package org.calmpalette.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.util.Random;
import java.util.TreeMap;
import org.calmpalette.app.accounts.AccountService;
import org.calmpalette.app.accounts.Role;
import org.calmpalette.app.themes.Kept;
import org.junit.jupiter.api.Test;
import org.springframework.jdbc.core.simple.JdbcClient;

/** How much a maker may keep, what is told of it, and earlier states that go. */
class KeptTest {
    private final Running running = Running.get();

    private Client maker(String name) {
        running.bean(AccountService.class).create(name, name, "a long password", Role.MAKER);
        return new Client(running.address).signedIn(name, "a long password");
    }

    private long id(String name) {
        return running.bean(AccountService.class)
                .findBySignIn(name)
                .orElseThrow()
                .id();
    }

    private static byte[] theme(int more) {
        TreeMap<String, byte[]> files = new TreeMap<>();
        files.put("index.html", "<link rel=stylesheet href=a.css><p>x".getBytes(StandardCharsets.UTF_8));
        files.put("a.css", "p{color:#123456}".getBytes(StandardCharsets.UTF_8));
        byte[] film = new byte[more];
        new Random(5).nextBytes(film);
        files.put("film.mp4", film);
        return HostileThemesInTheApplicationTest.zip(files);
    }

    private static void change(Client maker, String theme, int n) {
        HttpResponse<String> answer = maker.post(
                theme + "/settings/new",
                "base",
                maker.base(theme),
                "kind",
                "number",
                "key",
                "n" + n,
                "label",
                "N" + n,
                "v",
                "1",
                "place",
                "Page");
        assertThat(answer.statusCode()).as(answer.body()).isEqualTo(302);
    }

    @Test
    void whoHasNoRoomLeftIsToldBeforeAndThenRefusedAndCanMakeRoom() {
        String name = "kept-" + System.nanoTime();
        Client maker = maker(name);
        String theme = maker.bringIn("film.zip", theme(1_200_000));
        assertThat(maker.get("/themes").body()).contains("1.2 MB of 2 GB taken").doesNotContain("data-near");
        change(maker, theme, 0);
        JdbcClient jdbc = running.bean(JdbcClient.class);
        long head = Long.parseLong(maker.base(theme));
        jdbc.sql("update snapshot set added = 1900000000 where id = :id")
                .param("id", head)
                .update();
        assertThat(maker.get("/themes").body()).contains("data-near").contains("1.9 GB of 2 GB");
        change(maker, theme, 1);
        jdbc.sql("update snapshot set added = 1999000000 where id = :id")
                .param("id", head)
                .update();
        String before = maker.base(theme);
        HttpResponse<String> refused = maker.post(
                theme + "/settings/new",
                "base",
                before,
                "kind",
                "number",
                "key",
                "k",
                "label",
                "K",
                "v",
                "1",
                "place",
                "Page");
        assertThat(refused.statusCode()).isEqualTo(422);
        assertThat(refused.body()).contains("There is no room for this").contains("Remove earlier states");
        assertThat(maker.base(theme)).isEqualTo(before);
        assertThatThrownBy(() -> maker.bringIn("again.zip", theme(100))).hasMessageContaining("There is no room");
        // Undoing takes no room, and others have theirs.
        assertThat(maker.post(theme + "/undo", "base", before).statusCode()).isEqualTo(302);
        assertThat(maker(name + "-2").bringIn("mine.zip", theme(100))).matches("/themes/\\d+");
        jdbc.sql("update snapshot set added = 10 where id = :id")
                .param("id", head)
                .update();
        change(maker, theme, 2);
    }

    @Test
    void earlierStatesGoAndWhatSomebodyNeedsStays() {
        String name = "earlier-" + System.nanoTime();
        Client maker = maker(name);
        String theme = maker.bringIn("film.zip", theme(100_000));
        String first = maker.base(theme);
        String point = "";
        String site = "";
        for (int n = 0; n < 32; n++) {
            change(maker, theme, n);
            if (n == 3) {
                point = maker.base(theme);
                maker.post(theme + "/points", "snapshot", point, "name", "before the film");
            }
            if (n == 6) {
                site = maker.base(theme);
                assertThat(maker.post(theme + "/sites", "name", name, "whose", "me")
                                .statusCode())
                        .isEqualTo(302);
            }
        }
        assertThat(maker.get(theme + "/history").body().replaceAll("(?s).*Remove (\\d+) earlier.*", "$1"))
                .isEqualTo("10");
        long bytes = running.bean(Kept.class).of(id(name)).bytes();
        String head = maker.base(theme);
        assertThat(maker.post(theme + "/history/earlier", "base", first).statusCode())
                .as("a page from before the last change")
                .isEqualTo(409);
        assertThat(maker.post(theme + "/history/earlier", "base", head).statusCode())
                .isEqualTo(302);
        String history = maker.get(theme + "/history").body();
        assertThat(maker.base(theme)).isEqualTo(head);
        assertThat(history)
                .contains("Removed 10 earlier states", "before the film")
                .doesNotContain("data-open=\"earlier\"");
        assertThat(history.split("Go back here", -1))
                .as("states but the one of now, and what is before the first")
                .hasSize(22 + 1);
        assertThat(running.bean(Kept.class).of(id(name)).bytes()).isLessThan(bytes);
        for (String to : java.util.List.of(point, site, first)) {
            assertThat(maker.post(theme + "/back", "base", maker.base(theme), "to", to)
                            .statusCode())
                    .isEqualTo(302);
        }
        // Step by step back to how it came in, over what went.
        int steps = 0;
        for (String base = maker.base(theme); !base.equals(first); base = maker.base(theme)) {
            assertThat(maker.post(theme + "/undo", "base", base).statusCode()).isEqualTo(302);
            steps++;
        }
        assertThat(steps).isEqualTo(3 + 22);
        assertThat(maker.get(theme + "/settings").statusCode()).isEqualTo(200);
    }
}

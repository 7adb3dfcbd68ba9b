package org.calmpalette.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.atomic.AtomicReference;
import org.calmpalette.core.Generated;
import org.junit.jupiter.api.Test;

/** The packed application as {@code ./calm} runs it: started, killed in the middle of writing, started again, stopped. */
class CalmIT extends PackedApplication {
    private static final Path ROOT = Path.of("..").toAbsolutePath().normalize();
    private static final int WRITES_BEFORE_A_KILL = 7;
    /** The application and the database in turn. */
    private static final int KILLS = Generated.LONG ? 6 : 2;

    CalmIT() {
        super("calm-run", 35_000);
    }

    @Test
    void killsInTheMiddleOfWritesLoseNothingThatWasTold() throws IOException, InterruptedException {
        calm(ROOT, "stop");
        new ProcessBuilder("rm", "-rf", run.toString()).start().waitFor();
        Files.createDirectories(run.resolve("database"));
        // Left over: a number that another process has today.
        Files.writeString(run.resolve("process"), ProcessHandle.current().pid() + " 1\n");
        Files.writeString(
                run.resolve("database/process"), ProcessHandle.current().pid() + " 1\n");
        int port = freePort();
        Said started = calm(ROOT, "start", "--port", String.valueOf(port));
        assertThat(started.code()).as(started.words()).isZero();
        assertThat(calm(ROOT, "start").words()).contains("runs already");
        assertThat(Files.readString(run.resolve("app.log")))
                .as("the demo's measures fit; else record them anew, see CONTRIBUTING.md")
                .contains("4 of its pages known as a browser lays them out");
        Client client = new Client("http://127.0.0.1:" + port);
        client.signedIn("jonas", Files.readString(run.resolve("demo-password")).strip());
        AtomicReference<String> last = new AtomicReference<>("");
        AtomicReference<String> sent = new AtomicReference<>("");
        int told = 0;
        for (int round = 0; round < KILLS; round++) {
            boolean database = round % 2 == 1;
            String victim = database ? pid("database/process") : pid("java-pid");
            CountDownLatch some = new CountDownLatch(WRITES_BEFORE_A_KILL);
            Thread killer = new Thread(() -> {
                try {
                    // In the middle of the writes below, which go on meanwhile.
                    some.await();
                    kill(victim);
                } catch (IOException | InterruptedException e) {
                    throw new IllegalStateException(e);
                }
            });
            killer.start();
            for (int i = 0; ; i++) {
                String color = String.format("#%02x%04x", round + 16, i);
                sent.set(color);
                try {
                    if (client.post("/sites/sallowmere-ferries/choose", "key", "signal-fill", "v", color)
                                    .statusCode()
                            != 200) {
                        break;
                    }
                    last.set(color);
                    told++;
                    some.countDown();
                    if (i % 3 == 0
                            && client.post("/sites/sallowmere-ferries/go-live").statusCode() != 302) {
                        break;
                    }
                } catch (RuntimeException gone) {
                    break;
                }
            }
            // If they were refused before, the assertion below says so.
            while (some.getCount() > 0) {
                some.countDown();
            }
            killer.join();
            if (database) {
                assertThat(client.get("/at/sallowmere-ferries/").statusCode())
                        .as("live sites go on")
                        .isEqualTo(200);
                Said again = calm(ROOT, "start");
                assertThat(again.words()).contains("without its database");
            }
            await("the application is back by itself", () -> {
                try {
                    return client.get("/sites/sallowmere-ferries/choices.json").statusCode() == 200;
                } catch (RuntimeException notYet) {
                    return false;
                }
            });
            String kept = client.get("/sites/sallowmere-ferries/choices.json").body();
            // What was told as kept is there, or the one that was on its way after it.
            assertThat(kept).containsAnyOf(last.get(), sent.get());
            assertThat(client.get("/sites/sallowmere-ferries/editions").statusCode())
                    .isEqualTo(200);
            assertThat(client.get("/at/sallowmere-ferries/").statusCode()).isEqualTo(200);
        }
        assertThat(told).isGreaterThanOrEqualTo(KILLS * WRITES_BEFORE_A_KILL);
        assertThat(Files.readString(run.resolve("app.log")))
                .as("the log of before stays")
                .contains("ended with 137 and started again");
        // Nobody but who runs the database is its root.
        Process root = new ProcessBuilder(
                        "bash",
                        "-c",
                        ". " + run.resolve("database/env")
                                + "; p=${CALM_DATABASE_URL#*1:}; mariadb --no-defaults --protocol=tcp -h 127.0.0.1 -P ${p%/*} -u root -e 'select 1'")
                .redirectErrorStream(true)
                .start();
        assertThat(new String(root.getInputStream().readAllBytes(), StandardCharsets.UTF_8))
                .contains("Access denied");
        assertThat(calm(ROOT, "stop").words()).contains("Stopped");
        assertThat(ProcessHandle.of(Long.parseLong(Files.exists(run.resolve("java-pid")) ? pid("java-pid") : "1"))
                        .filter(p -> p.pid() != 1 && p.isAlive()))
                .isEmpty();
        assertThat(calm(ROOT, "stop").words()).contains("does not run");
    }

    @Test
    void pathsAreReadFromWhereThePersonStandsAndTheScriptMayBeALink() throws IOException, InterruptedException {
        Files.createDirectories(folder.resolve("mine/theme"));
        Path mine = folder.resolve("mine");
        Files.writeString(mine.resolve("theme/index.html"), "<link rel=stylesheet href=a.css><p class=a>x");
        Files.writeString(mine.resolve("theme/a.css"), ".a{color:#123456}");
        Files.writeString(mine.resolve("mine.json"), "{}");
        Files.writeString(mine.resolve("cases.jsonl"), "{\"path\": \"theme\"}\n");
        Files.createSymbolicLink(mine.resolve("calm"), ROOT.resolve("calm"));
        assertThat(calm(mine, "survey", "theme", "--json"))
                .satisfies(s -> assertThat(s.code()).as(s.words()).isZero())
                .extracting(Said::words)
                .asString()
                .contains("#123456");
        assertThat(calm(mine, "survey", "--cases", "cases.jsonl").words()).contains("#123456");
        assertThat(calm(mine, "build", "theme", "--values", "mine.json", "--out", "out")
                        .code())
                .isZero();
        assertThat(mine.resolve("out/settings.css")).exists();
        assertThat(calm(mine, "explain", "theme/index.html", "--select", ".a", "--property", "color")
                        .words())
                .contains("a.css");
        assertThat(calm(mine, "export", "theme", "--as", "tokens.json", "--out", "tokens.json")
                        .code())
                .isZero();
        assertThat(mine.resolve("tokens.json")).exists();
        assertThat(calm(mine, "survey", "not-there.zip"))
                .satisfies(s -> assertThat(s.code()).isEqualTo(2))
                .extracting(Said::words)
                .asString()
                .contains("not-there.zip");
    }
}

package org.calmpalette.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.atomic.AtomicReference;
import javax.imageio.ImageIO;
import org.calmpalette.core.Generated;
import org.jsoup.select.Elements;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.json.JsonMapper;

/** The packed application as {@code ./calm} runs it: started, killed in the middle of writing, started again, stopped. */
class CalmIT extends PackedApplication {
    private static final Path ROOT = Path.of("..").toAbsolutePath().normalize();
    private static final int WRITES_BEFORE_A_KILL = 7;
    /** The application and the database in turn. */
    private static final int KILLS = Generated.LONG ? 6 : 2;

    CalmIT() {
        super("calm-run", 35_000);
    }

    /** Each another one, and large enough to take a moment. */
    private static byte[] picture(int round, int i) throws IOException {
        BufferedImage image = new BufferedImage(2400, 1350, BufferedImage.TYPE_INT_RGB);
        for (int y = 0; y < image.getHeight(); y++) {
            for (int x = 0; x < image.getWidth(); x++) {
                image.setRGB(x, y, (x * 7 + round) << 16 | (y * 5 + i) << 8 | (x ^ y));
            }
        }
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        ImageIO.write(image, "png", out);
        return out.toByteArray();
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
        List<String> brought = new ArrayList<>();
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
                    if (i % 3 == 1) {
                        HttpResponse<String> answer = client.upload(
                                "/sites/sallowmere-ferries/pictures",
                                "quay-" + round + "-" + i + ".png",
                                picture(round, i),
                                "key",
                                "river-picture",
                                "field",
                                "v.picture");
                        if (answer.statusCode() != 200) {
                            break;
                        }
                        brought.add(JsonMapper.shared()
                                .readTree(answer.body())
                                .get("name")
                                .asString());
                    }
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
            // Every picture that was told as taken is on the shelf and whole, and nothing there is half a picture.
            Elements shelf = client.page("/sites/sallowmere-ferries/pictures").select(".own-pictures li");
            assertThat(shelf.select("b").eachText()).containsAll(brought);
            for (String address : shelf.select("img.thumb").eachAttr("src")) {
                assertThat(ImageIO.read(new ByteArrayInputStream(
                                client.get(address).body().getBytes(StandardCharsets.ISO_8859_1))))
                        .as(address)
                        .isNotNull();
            }
        }
        assertThat(brought).hasSizeGreaterThanOrEqualTo(KILLS * 2);
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

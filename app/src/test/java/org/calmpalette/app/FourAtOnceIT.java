package org.calmpalette.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.TimeUnit;
import org.calmpalette.core.theme.HostileThemes;
import org.junit.jupiter.api.Test;

/** Four hostile themes at once in the packed application. */
class FourAtOnceIT extends PackedApplication {
    FourAtOnceIT() {
        super("four-at-once-run", 36_000);
    }

    /** With the heap that {@code ./calm} gives: nothing falls over, and a second person goes on working. */
    @Test
    void fourHostileThemesAtOnceStayWithinTheHeap() throws IOException, InterruptedException, ExecutionException {
        int port = freePort();
        Said started = calm(ROOT, "start", "--port", String.valueOf(port));
        assertThat(started.code()).as(started.words()).isZero();
        String address = "http://127.0.0.1:" + port;
        String password = Files.readString(run.resolve("demo-password")).strip();
        String process = pid("java-pid");
        Client owner = new Client(address).signedIn("jonas", password);
        ExecutorService makers = Executors.newFixedThreadPool(4);
        List<Future<?>> all = new ArrayList<>();
        for (String name : List.of(
                "29,000 rules for one class of 5,000 elements",
                "one rule of 60,000 declarations",
                "1,900 pages",
                "10,000 colours")) {
            all.add(makers.submit(() -> {
                Client maker = new Client(address).signedIn("ida", password);
                String theme = maker.bringIn(
                        name.replaceAll("[^a-z0-9]+", "-") + ".zip",
                        HostileThemesInTheApplicationTest.zip(
                                HostileThemes.all().get(name).get()));
                maker.survey(theme);
                for (String view : List.of(
                        "/settings",
                        "/part?page=index.html&at=6&width=1440",
                        "/part/change?page=index.html&at=6&width=1440&aspect=text",
                        "/handover.zip")) {
                    assertThat(maker.get(theme + view).statusCode())
                            .as(name + view)
                            .isIn(200, 422);
                }
                assertThat(maker.post(theme + "/remove").statusCode()).as(name).isEqualTo(302);
            }));
        }
        makers.shutdown();
        List<Long> times = new ArrayList<>();
        while (!makers.awaitTermination(60, TimeUnit.MILLISECONDS)) {
            long began = System.nanoTime();
            assertThat(owner.get("/sites/sallowmere-ferries").statusCode()).isEqualTo(200);
            times.add((System.nanoTime() - began) / 1_000_000);
            assertThat(owner.get("/at/sallowmere-ferries/").statusCode()).isEqualTo(200);
        }
        for (Future<?> one : all) {
            one.get();
        }
        Collections.sort(times);
        Files.writeString(
                Path.of("target/four-at-once.txt"),
                "The owner's page meanwhile: median " + times.get(times.size() / 2) + " ms, 95 of 100 within "
                        + times.get(times.size() * 95 / 100) + " ms, the slowest " + times.get(times.size() - 1)
                        + " ms, of " + times.size() + "\n");
        assertThat(pid("java-pid")).as("it never ended").isEqualTo(process);
    }
}

package org.calmpalette.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
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
import javax.imageio.ImageIO;
import org.calmpalette.core.theme.HostileThemes;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.EnabledIfSystemProperty;

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

    /** Owners' photographs, as phones make them, all at the same moment: each is kept or told that it has to wait, and nothing falls over. */
    @Test
    @EnabledIfSystemProperty(named = "calm.long", matches = "true", disabledReason = "the long run tries it")
    void manyPicturesAtOnceStayWithinTheHeap() throws Exception {
        int port = freePort();
        Said started = calm(ROOT, "start", "--port", String.valueOf(port));
        assertThat(started.code()).as(started.words()).isZero();
        String address = "http://127.0.0.1:" + port;
        String password = Files.readString(run.resolve("demo-password")).strip();
        String process = pid("java-pid");
        int many = 50;
        Client first = new Client(address).signedIn("jonas", password);
        String site = "/sites/sallowmere-ferries";
        List<byte[]> photographs = new ArrayList<>();
        for (int i = 0; i < many; i++) {
            photographs.add(photograph(i));
        }
        ExecutorService owners = Executors.newFixedThreadPool(many);
        List<Future<Integer>> all = new ArrayList<>();
        long began = System.nanoTime();
        for (int i = 0; i < many; i++) {
            byte[] photograph = photographs.get(i);
            String name = "quay-" + i + ".jpg";
            all.add(owners.submit(() -> new Client(address)
                    .signedIn("jonas", password)
                    .upload(site + "/pictures", name, photograph, "key", "river-picture", "field", "v.picture")
                    .statusCode()));
        }
        owners.shutdown();
        while (!owners.awaitTermination(100, TimeUnit.MILLISECONDS)) {
            assertThat(first.get("/at/sallowmere-ferries/").statusCode()).isEqualTo(200);
        }
        int kept = 0;
        for (Future<Integer> one : all) {
            assertThat(one.get()).isIn(200, 422);
            kept += one.get() == 200 ? 1 : 0;
        }
        assertThat(kept).isPositive();
        assertThat(first.page(site + "/pictures").select(".own-pictures > li").size())
                .isEqualTo(kept);
        Files.writeString(
                Path.of("target/pictures-at-once.txt"),
                many + " photographs of 12 megapixels at once: " + kept + " kept, in "
                        + (System.nanoTime() - began) / 1_000_000_000 + " s\n");
        assertThat(pid("java-pid")).as("it never ended").isEqualTo(process);
    }

    private static byte[] photograph(int n) throws IOException {
        BufferedImage image = new BufferedImage(4_000, 3_000, BufferedImage.TYPE_INT_RGB);
        for (int y = 0; y < 3_000; y++) {
            for (int x = 0; x < 4_000; x++) {
                image.setRGB(x, y, (x / 16 + n * 7 & 255) << 16 | (y / 12 & 255) << 8 | (x * 31 + y * 17 & 63));
            }
        }
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        ImageIO.write(image, "jpeg", out);
        return out.toByteArray();
    }
}

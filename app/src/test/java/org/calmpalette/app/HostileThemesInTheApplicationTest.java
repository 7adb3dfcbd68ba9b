package org.calmpalette.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Set;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.concurrent.Callable;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.function.Supplier;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import org.apache.commons.compress.archivers.zip.ZipArchiveEntry;
import org.apache.commons.compress.archivers.zip.ZipArchiveOutputStream;
import org.calmpalette.app.accounts.AccountService;
import org.calmpalette.app.accounts.Role;
import org.calmpalette.app.themes.OpenTheme;
import org.calmpalette.app.themes.ThemeService;
import org.calmpalette.app.work.Jobs;
import org.calmpalette.core.Generated;
import org.calmpalette.core.theme.HostileThemes;
import org.junit.jupiter.api.MethodOrderer;
import org.junit.jupiter.api.Order;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestMethodOrder;

/** Every hostile theme goes through the real thing, and everybody else goes on working meanwhile. */
@TestMethodOrder(MethodOrderer.OrderAnnotation.class)
class HostileThemesInTheApplicationTest {
    private final Running running = Running.get();

    /**
     * Of each way to be expensive one in every run, beside those that go through at once in {@link FourAtOnceIT}; all of them in a long one, and in core,
     * which asks the same without the application.
     */
    private static final Set<String> EVERY_RUN = Set.of(
            "8 MB stylesheet on one line",
            "page 50,000 elements deep",
            "custom properties that double themselves",
            "one rule of 5,000 gradients",
            "15,000 paragraphs in the main part");

    static byte[] zip(SortedMap<String, byte[]> files) {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        // Stored, since much of it is the same again and again and would look like a bomb.
        try (ZipArchiveOutputStream out = new ZipArchiveOutputStream(bytes)) {
            out.setLevel(0);
            for (var e : files.entrySet()) {
                out.putArchiveEntry(new ZipArchiveEntry(e.getKey()));
                out.write(e.getValue());
                out.closeArchiveEntry();
            }
        } catch (IOException e) {
            throw new IllegalStateException(e);
        }
        return bytes.toByteArray();
    }

    /** Import, survey, a part, settings, handover, removal. None is a 5xx; how long each took is written down for people. */
    @Test
    @Order(1)
    void eachGetsAnAnswerEverywhere() throws IOException {
        Client maker = new Client(running.address).signedIn("ida");
        Client owner = new Client(running.address).signedIn("jonas");
        List<String> lines = new ArrayList<>();
        AtomicBoolean done = new AtomicBoolean();
        List<Long> others = Collections.synchronizedList(new ArrayList<>());
        ExecutorService aside = Executors.newSingleThreadExecutor();
        Future<?> second = aside.submit(() -> {
            while (!done.get()) {
                long began = System.nanoTime();
                assertThat(owner.get("/sites/sallowmere-ferries").statusCode()).isEqualTo(200);
                others.add((System.nanoTime() - began) / 1_000_000);
                Thread.sleep(60);
            }
            return null;
        });
        try {
            HostileThemes.all().forEach((name, made) -> {
                if (Generated.LONG || EVERY_RUN.contains(name)) {
                    lines.add(through(maker, name, made));
                }
            });
        } finally {
            done.set(true);
        }
        try {
            second.get();
        } catch (Exception e) {
            throw new AssertionError("a second person could not work", e);
        }
        aside.shutdown();
        List<Long> sorted = others.stream().sorted().toList();
        lines.add(String.format(
                "A second person's page meanwhile: median %d ms, 95 of 100 within %d ms, the slowest %d ms, of %d",
                sorted.get(sorted.size() / 2),
                sorted.get(sorted.size() * 95 / 100),
                sorted.get(sorted.size() - 1),
                sorted.size()));
        Files.write(Path.of("target/hostile-themes.txt"), lines);
        assertThat(WRONG).isEmpty();
        assertThat(HostileThemes.all().keySet()).containsAll(EVERY_RUN);
        assertThat(lines).hasSize((Generated.LONG ? HostileThemes.all().size() : EVERY_RUN.size()) + 1);
        assertThat(sorted.size()).as("answers to a second person").isGreaterThan(30);
    }

    private static String through(Client maker, String name, Supplier<SortedMap<String, byte[]>> made) {
        byte[] zip = zip(made.get());
        StringBuilder line = new StringBuilder(String.format("%-58s", name));
        String theme = timed(line, "import", () -> maker.bringIn(name.replaceAll("[^a-zA-Z0-9]+", "-") + ".zip", zip));
        String survey = timed(line, "survey", () -> maker.survey(theme));
        String sheet = made.get().keySet().stream()
                .filter(f -> f.endsWith(".css"))
                .findFirst()
                .orElse("a.css");
        String finding =
                maker.get(theme + "/survey?view=findings").body().replaceFirst("(?s).*?[?&;]key=([^\"&]+).*", "$1");
        for (String route : RoutesTest.questions()) {
            if (route.equals("/handover.zip")) {
                continue;
            }
            String asked = theme
                    + route.replace("{name}", "tokens.json").replace("{kit}", "lead")
                    + "?page=index.html&at=6&width=1440&aspect=text&q=color&view=rules&start=2&way=own&row=%23123456&file="
                    + sheet + "&key=" + (finding.length() < 200 ? finding : "x");
            answered(name, timed(line, route.substring(route.isEmpty() ? 0 : 1), () -> maker.get(asked)));
        }
        HttpResponse<String> handed = timed(line, "zip", () -> maker.get(theme + "/handover.zip"));
        answered(name, handed);
        assertThat(same(handed.body().getBytes(StandardCharsets.ISO_8859_1), made.get()))
                .as(name + ": what is set aside is handed over as it came")
                .isTrue();
        assertThat(survey).as(name).contains("Findings");
        answered(name, timed(line, "remove", () -> maker.post(theme + "/remove")));
        assertThat(maker.get(theme + "/survey").statusCode())
                .as(name + " is gone")
                .isEqualTo(404);
        System.gc();
        return line.append(" heap ")
                .append((Runtime.getRuntime().totalMemory()
                                - Runtime.getRuntime().freeMemory())
                        / 1_000_000)
                .append(" MB")
                .toString();
    }

    private static final List<String> WRONG = new ArrayList<>();

    private static void answered(String name, HttpResponse<String> answer) {
        if (!Set.of(200, 204, 302, 400, 404, 422).contains(answer.statusCode())) {
            WRONG.add(answer.statusCode() + " for " + name + " at " + answer.uri());
        }
        if (!answer.uri().getPath().endsWith(".zip")) {
            assertThat(answer.body().length())
                    .as(name + " at " + answer.uri() + ": characters of a page")
                    .isLessThan(2_000_000);
        }
    }

    private static <T> T timed(StringBuilder line, String what, Callable<T> call) {
        long began = System.nanoTime();
        try {
            T answer = call.call();
            line.append(' ').append(what).append(' ').append((System.nanoTime() - began) / 1_000_000);
            return answer;
        } catch (Exception e) {
            throw new AssertionError(line + " " + what + " failed", e);
        }
    }

    /** Whether all files that are larger than what is looked at come out as they went in. */
    private static boolean same(byte[] zip, SortedMap<String, byte[]> files) {
        int found = 0;
        try (ZipInputStream in = new ZipInputStream(new ByteArrayInputStream(zip))) {
            for (ZipEntry e = in.getNextEntry(); e != null; e = in.getNextEntry()) {
                byte[] bytes = in.readAllBytes();
                byte[] was = files.get(e.getName());
                if (was != null && e.getName().endsWith(".css")) {
                    found++;
                    if (!java.util.Arrays.equals(was, bytes)) {
                        return false;
                    }
                }
            }
        } catch (IOException e) {
            throw new IllegalStateException(e);
        }
        return found == files.keySet().stream().filter(f -> f.endsWith(".css")).count();
    }

    /** The theme goes while it is being looked at, and so does what is done for it. */
    @Test
    @Order(2)
    void aThemeIsRemovedWhileItIsRead() {
        Jobs jobs = running.bean(Jobs.class);
        CountDownLatch turn = new CountDownLatch(1);
        // Its survey waits for its turn behind this.
        jobs.<Void>start(Jobs.Lane.SURVEYS, Duration.ofMinutes(1), job -> {
            try {
                turn.await();
            } catch (InterruptedException e) {
                throw new IllegalStateException(e);
            }
            return null;
        });
        Client maker = new Client(running.address).signedIn("ida");
        String theme = maker.bringIn(
                "quick.zip",
                zip(HostileThemes.all().get("3,000 classes, all used").get()));
        assertThat(maker.get(theme + "/settings").statusCode()).isEqualTo(200);
        OpenTheme open = running.bean(ThemeService.class)
                .open(
                        Long.parseLong(theme.replace("/themes/", "")),
                        running.bean(AccountService.class).demo("ida", "Ida Marlow", Role.MAKER));
        assertThat(maker.post(theme + "/remove").statusCode()).isEqualTo(302);
        assertThat(maker.get(theme + "/history").statusCode()).isEqualTo(404);
        turn.countDown();
        assertThat(jobs.<Void>start(Jobs.Lane.SURVEYS, Duration.ofMinutes(1), job -> null)
                        .await(Duration.ofMinutes(2)))
                .isTrue();
        assertThat(open.read().surveyWithin(Duration.ZERO)).isEmpty();
    }

    /** Two makers bring in the same zip: each gets the name that they gave it. */
    @Test
    @Order(3)
    void theSameFilesUnderTwoNamesKeepTheirNames() {
        Client maker = new Client(running.address).signedIn("ida");
        TreeMap<String, byte[]> files = new TreeMap<>();
        files.put("index.html", "<link rel=stylesheet href=a.css><p>x".getBytes(StandardCharsets.UTF_8));
        files.put("a.css", "p{color:#123456}".getBytes(StandardCharsets.UTF_8));
        for (String name : List.of("Harrow", "Withy")) {
            String theme = maker.bringIn(name + ".zip", zip(files));
            maker.survey(theme);
            HttpResponse<String> made = maker.post(
                    theme + "/settings/new",
                    "base",
                    maker.base(theme),
                    "kind",
                    "number",
                    "key",
                    "n",
                    "label",
                    "N",
                    "v",
                    "1",
                    "place",
                    "Page");
            assertThat(made.statusCode()).as(made.body()).isEqualTo(302);
            assertThat(paletteName(maker.get(theme + "/handover.zip").body())).isEqualTo(name);
        }
    }

    private static String paletteName(String zip) {
        try (ZipInputStream in =
                new ZipInputStream(new ByteArrayInputStream(zip.getBytes(StandardCharsets.ISO_8859_1)))) {
            for (ZipEntry e = in.getNextEntry(); e != null; e = in.getNextEntry()) {
                if (e.getName().equals("palette.json")) {
                    return new String(in.readAllBytes(), StandardCharsets.UTF_8)
                            .replaceFirst("(?s).*?\"name\"\\s*:\\s*\"([^\"]*)\".*", "$1");
                }
            }
        } catch (IOException e) {
            throw new IllegalStateException(e);
        }
        return "";
    }
}

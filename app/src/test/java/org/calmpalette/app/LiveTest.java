package org.calmpalette.app;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Page;
import java.io.IOException;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import java.util.TreeMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.MethodOrderer;
import org.junit.jupiter.api.Order;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestMethodOrder;
import org.springframework.jdbc.core.simple.JdbcClient;

/** What visitors get, and what happens to it when the database goes. */
@TestMethodOrder(MethodOrderer.OrderAnnotation.class)
class LiveTest {
    private static final String SITE = "/at/sallowmere-ferries/";
    private final Running running = Running.get();
    private final Client visitor = new Client(running.address);

    private static String header(HttpResponse<?> answer, String name) {
        return answer.headers().firstValue(name).orElse("");
    }

    private String find(String body, String pattern) {
        Matcher m = Pattern.compile(pattern).matcher(body);
        assertThat(m.find())
                .as(pattern + " in " + body.substring(0, Math.min(900, body.length())))
                .isTrue();
        return m.group(1);
    }

    @Test
    @Order(1)
    void pagesAreAskedForAnewAndStylesheetsNeverAgain() {
        HttpResponse<String> page = visitor.get(SITE);
        assertThat(page.statusCode()).isEqualTo(200);
        assertThat(header(page, "Cache-Control")).isEqualTo("no-cache");
        HttpResponse<String> same = visitor.get(SITE, "If-None-Match", header(page, "ETag"));
        assertThat(same.statusCode()).isEqualTo(304);
        assertThat(same.body()).isEmpty();
        assertThat(visitor.get(SITE, "If-None-Match", "\"another\"").statusCode())
                .isEqualTo(200);

        String sheet = find(page.body(), "href=\"(/at/sallowmere-ferries/files/[0-9a-f]{24}/css/towpath\\.css)\"");
        HttpResponse<String> css = visitor.get(sheet);
        assertThat(header(css, "Cache-Control")).contains("immutable");
        assertThat(header(css, "Content-Type")).startsWith("text/css");
        HttpResponse<String> packed = visitor.get(sheet, "Accept-Encoding", "gzip");
        assertThat(header(packed, "Content-Encoding")).isEqualTo("gzip");
        assertThat(header(packed, "ETag")).isNotEqualTo(header(css, "ETag"));
        assertThat(packed.body().length()).isLessThan(css.body().length());
        assertThat(visitor.get(sheet.replaceFirst("/files/[0-9a-f]{24}/", "/files/" + "0".repeat(24) + "/"))
                        .statusCode())
                .isEqualTo(404);
        assertThat(visitor.get(SITE + "palette." + "0".repeat(64) + ".css").statusCode())
                .isEqualTo(404);
        assertThat(visitor.get(SITE + "palette.json").statusCode()).isEqualTo(404);
        assertThat(visitor.get("/at/sallowmere-ferries").headers().firstValue("Location"))
                .hasValue("/at/sallowmere-ferries/");
    }

    @Test
    @Order(2)
    void anythingAskedForIsAnAnswerAndNoTrace() {
        for (String path : List.of(
                "/at/%7Bx%7D",
                "/at/SITE/files/a",
                "/at/%C3%A4/",
                "/at/",
                "/at/a%2F..%2Fb/",
                "/at/sallowmere-ferries/%2e%2e/%2e%2e/x",
                "/at/sallowmere-ferries/%00",
                "/at/sallowmere-ferries/%ff",
                "/at/" + "x".repeat(500) + "/",
                "/join/%C3%A4",
                "/join/" + "x".repeat(43),
                "/join/short",
                "/makers/join/%C3%A4",
                "/frame/x/y",
                "/frame/t1-zzz-" + "a".repeat(43) + "/",
                "/frame/",
                "/sites/%C3%A4",
                "/themes/abc",
                "/themes/99999999999999999999")) {
            int status = visitor.get(path).statusCode();
            assertThat(status).as(path).isIn(302, 400, 404, 422);
        }
        Client owner = new Client(running.address).signedIn("jonas");
        assertThat(owner.get("/sites/%C3%A4").statusCode()).isEqualTo(404);
        assertThat(owner.get("/sites/SITE").statusCode()).isEqualTo(404);
    }

    @Test
    @Order(3)
    void filesWithAnyNameVideosInRangesAndScriptsAsText() {
        byte[] video = new byte[3_000_000];
        new Random(3).nextBytes(video);
        byte[] small = Arrays.copyOf(video, 5_000);
        TreeMap<String, byte[]> files = new TreeMap<>();
        files.put(
                "index.html",
                "<!doctype html><link rel=stylesheet href='100%25/a%3Bb%23c.css'><p>x<script src=run.js></script><img src='img/a%20(1).png'>"
                        .getBytes(StandardCharsets.UTF_8));
        files.put("100%/a;b#c.css", "p{color:#123456}".getBytes(StandardCharsets.UTF_8));
        files.put("run.js", "alert(1)".getBytes(StandardCharsets.UTF_8));
        files.put("img/a (1).png", small);
        files.put("long.mp4", video);
        Client maker = new Client(running.address).signedIn("ida");
        String theme = maker.bringIn("odd names.zip", HostileThemesInTheApplicationTest.zip(files));
        assertThat(maker.post(theme + "/sites", "name", "Odd names", "whose", "me", "owner", "")
                        .statusCode())
                .isEqualTo(302);
        assertThat(maker.post("/sites/odd-names/go-live").statusCode()).isEqualTo(302);
        String page = visitor.get("/at/odd-names/").body();
        String sheet = find(page, "href=\"([^\"]*a%3Bb%23c\\.css)\"");
        assertThat(visitor.get(sheet).body()).isEqualTo("p{color:#123456}");
        String frame = find(maker.get(theme + "/settings").body(), "data-base=\"(/frame/[^\"]+/)\"");
        assertThat(visitor.get(frame + "100%25/a%3Bb%23c.css").body()).isEqualTo("p{color:#123456}");
        assertThat(visitor.get(frame + "img/a%20(1).png").body().length()).isEqualTo(small.length);

        for (String address : List.of("/at/odd-names/run.js", frame + "run.js")) {
            HttpResponse<String> script = visitor.get(address);
            assertThat(header(script, "Content-Type")).as(address).startsWith("text/plain");
            assertThat(header(script, "X-Content-Type-Options")).as(address).isEqualTo("nosniff");
        }
        for (String address : List.of("/at/odd-names/long.mp4", frame + "long.mp4")) {
            HttpResponse<String> part = visitor.get(address, "Range", "bytes=1500000-1500099");
            assertThat(part.statusCode()).as(address).isEqualTo(206);
            assertThat(header(part, "Content-Range")).isEqualTo("bytes 1500000-1500099/3000000");
            assertThat(part.body().getBytes(StandardCharsets.ISO_8859_1))
                    .isEqualTo(Arrays.copyOfRange(video, 1_500_000, 1_500_100));
            assertThat(visitor.get(address, "Range", "bytes=-10").body().getBytes(StandardCharsets.ISO_8859_1))
                    .isEqualTo(Arrays.copyOfRange(video, 2_999_990, 3_000_000));
            assertThat(visitor.get(address, "Range", "bytes=4000000-").statusCode())
                    .isEqualTo(416);
            HttpResponse<String> whole = visitor.get(address);
            assertThat(whole.body().getBytes(StandardCharsets.ISO_8859_1)).isEqualTo(video);
            assertThat(visitor.get(address, "If-None-Match", header(whole, "ETag"))
                            .statusCode())
                    .isEqualTo(304);
            assertThat(visitor.get(address, "Range", "bytes=0-9", "If-Range", "\"old\"")
                            .statusCode())
                    .as("of another state the whole")
                    .isEqualTo(200);
        }
        HttpResponse<String> asset = visitor.get("/assets/icon.svg");
        assertThat(header(asset, "Last-Modified") + header(asset, "ETag")).isNotEmpty();
        assertThat(maker.post(theme + "/remove").statusCode())
                .as("a site uses it")
                .isEqualTo(422);
    }

    @Test
    @Order(4)
    void whoOnlyLooksLeavesNoTraceInTheDatabase() {
        JdbcClient database = running.bean(JdbcClient.class);
        long before = database.sql("select count(*) from SPRING_SESSION")
                .query(Long.class)
                .single();
        for (String path : List.of(
                "/",
                "/sign-in",
                "/sign-in?failed",
                "/sign-in?wait=4",
                "/themes",
                "/sites/sallowmere-ferries",
                "/join/" + "x".repeat(43),
                SITE,
                "/nothing")) {
            Client passing = new Client(running.address);
            passing.get(path);
            assertThat(passing.hasCookie("calm-session")).as(path).isFalse();
        }
        assertThat(database.sql("select count(*) from SPRING_SESSION")
                        .query(Long.class)
                        .single())
                .isEqualTo(before);
    }

    @Test
    @Order(5)
    void whileTheDatabaseIsGoneSitesAreShownAndAllElseSaysSo() throws IOException, InterruptedException {
        Client owner = new Client(running.address).signedIn("jonas");
        String page = visitor.get(SITE).body();
        String sheet = find(page, "href=\"(/at/sallowmere-ferries/files/[0-9a-f]{24}/css/towpath\\.css)\"");
        visitor.get(sheet);
        Running.calm("stop");
        try {
            for (int i = 0; i < 2; i++) {
                assertThat(visitor.get(SITE).body()).isEqualTo(page);
                assertThat(visitor.get(sheet).statusCode()).isEqualTo(200);
                HttpResponse<String> own = owner.get("/sites/sallowmere-ferries");
                assertThat(own.statusCode()).isEqualTo(503);
                assertThat(header(own, "Retry-After")).isNotEmpty();
                assertThat(own.body()).contains("Nothing is lost");
                // What needs it and was not asked for before cannot be shown either.
                assertThat(visitor.get("/at/never-asked-for/").statusCode()).isEqualTo(503);
            }
        } finally {
            Running.calm("start");
        }
        long end = System.nanoTime() + 60_000_000_000L;
        while (owner.get("/sites/sallowmere-ferries").statusCode() != 200 && System.nanoTime() < end) {
            Thread.sleep(200);
        }
        assertThat(owner.get("/sites/sallowmere-ferries").statusCode())
                .as("back by itself, still signed in")
                .isEqualTo(200);
        assertThat(Running.DATABASE.resolve("env")).exists();
    }

    /** What is previewed is what visitors get: a film that starts by itself does, without controls, and a script on its page still does not. */
    @Test
    @Order(90)
    void aFilmPlaysAndNothingElseRuns() throws IOException {
        TreeMap<String, byte[]> files = new TreeMap<>();
        files.put(
                "index.html",
                ("<!doctype html><html lang=en><head><title>still</title></head><body><video muted loop playsinline autoplay src=wake.webm></video>"
                                + "<script>document.title = 'ran'</script><img src=none.png onerror=\"document.title = 'ran'\">"
                                + "<a id=a href=\"javascript:document.title = 'ran'\">x</a><svg onload=\"document.title = 'ran'\"></svg></body></html>")
                        .getBytes(StandardCharsets.UTF_8));
        try (var film = org.calmpalette.core.section.SectionKit.class.getResourceAsStream("film/wake.webm")) {
            files.put("wake.webm", film.readAllBytes());
        }
        Client maker = new Client(running.address).signedIn("ida");
        String theme = maker.bringIn("wake.zip", HostileThemesInTheApplicationTest.zip(files));
        assertThat(maker.post(theme + "/sites", "name", "Wake", "whose", "me").statusCode())
                .isEqualTo(302);
        assertThat(maker.post("/sites/wake/go-live").statusCode()).isEqualTo(302);
        assertThat(header(visitor.get("/at/wake/"), "Content-Security-Policy"))
                .startsWith("sandbox allow-scripts")
                .contains("default-src 'none'")
                .doesNotContain("script-src", "allow-same-origin");
        assertThat(header(visitor.get(SITE), "Content-Security-Policy")).doesNotContain("allow-scripts");
        Page page = Browsers.page(800, 600);
        page.navigate(running.address + "/at/wake/");
        page.waitForFunction(
                "() => { const v = document.querySelector('video'); return !v.paused && v.currentTime > 0 }");
        page.click("#a");
        assertThat(page.title()).isEqualTo("still");
        assertThat((boolean) page.evaluate("document.querySelector('video').controls"))
                .isFalse();
    }
}

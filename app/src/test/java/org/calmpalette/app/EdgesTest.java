package org.calmpalette.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import ch.qos.logback.classic.Logger;
import ch.qos.logback.classic.spi.ILoggingEvent;
import ch.qos.logback.core.read.ListAppender;
import java.io.IOException;
import java.net.Socket;
import java.net.URI;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileVisitResult;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.SimpleFileVisitor;
import java.nio.file.attribute.BasicFileAttributes;
import java.util.ArrayList;
import java.util.List;
import java.util.TreeMap;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicLong;
import java.util.stream.Collectors;
import org.calmpalette.app.accounts.AccountService;
import org.calmpalette.app.accounts.Role;
import org.calmpalette.app.storage.SweepAccess;
import org.calmpalette.core.Budget;
import org.junit.jupiter.api.Test;
import org.slf4j.LoggerFactory;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.web.servlet.mvc.method.RequestMappingInfo;
import org.springframework.web.servlet.mvc.method.annotation.RequestMappingHandlerMapping;

/** Lengths, rates, guesses, leaving, and what stays behind. */
class EdgesTest {
    private final Running running = Running.get();
    private final JdbcClient database = running.bean(JdbcClient.class);
    private final AccountService accounts = running.bean(AccountService.class);

    private static byte[] plain(String css) {
        TreeMap<String, byte[]> files = new TreeMap<>();
        files.put("index.html", "<link rel=stylesheet href=a.css><p>x".getBytes(StandardCharsets.UTF_8));
        files.put("a.css", css.getBytes(StandardCharsets.UTF_8));
        return HostileThemesInTheApplicationTest.zip(files);
    }

    private Client made(String name, Role role) {
        accounts.create(name, "Somebody", "a long password", role);
        return new Client(running.address).signedIn(name, "a long password");
    }

    /** A fault in the middle of a long page: whoever waits is told, instead of half a page that never ends. */
    @Test
    void aPageThatFailsLateIsToldAsATrouble() throws NoSuchMethodException {
        RequestMappingHandlerMapping pages =
                running.bean("requestMappingHandlerMapping", RequestMappingHandlerMapping.class);
        RequestMappingInfo at = RequestMappingInfo.paths("/fails-late").build();
        pages.registerMapping(at, new FailsLate(), FailsLate.class.getMethod("page"));
        ListAppender<ILoggingEvent> log = new ListAppender<>();
        log.start();
        Logger root = (Logger) LoggerFactory.getLogger(org.slf4j.Logger.ROOT_LOGGER_NAME);
        root.addAppender(log);
        try {
            HttpResponse<String> answer =
                    new Client(running.address).signedIn("ida").get("/fails-late");
            assertThat(answer.statusCode()).isEqualTo(500);
            assertThat(answer.body())
                    .contains("Something went wrong on our side.", "</html>")
                    .doesNotContain("longer than what is kept", "there()");
            // The name of the request leads from the page to the one place in the log.
            String id = answer.headers().firstValue("X-Request-Id").orElseThrow();
            assertThat(answer.body()).contains("under " + id);
            assertThat(log.list.stream()
                            .filter(e -> id.equals(e.getMDCPropertyMap().get("request"))))
                    .singleElement()
                    .satisfies(e -> {
                        assertThat(e.getFormattedMessage()).isEqualTo("GET /fails-late: 500");
                        assertThat(e.getThrowableProxy()).isNotNull();
                    });
        } finally {
            root.detachAppender(log);
            pages.unregisterMapping(at);
        }
    }

    static final class FailsLate {
        public String page() {
            return "fails-late";
        }
    }

    /** Whoever leaves takes the work along that was done for them, and nothing of that is a trouble in the log. */
    @Test
    void aLongQuestionEndsWithItsClient() throws Exception {
        RequestMappingHandlerMapping pages =
                running.bean("requestMappingHandlerMapping", RequestMappingHandlerMapping.class);
        RequestMappingInfo at = RequestMappingInfo.paths("/goes-on").build();
        GoesOn goesOn = new GoesOn();
        pages.registerMapping(at, goesOn, GoesOn.class.getMethod("page"));
        ListAppender<ILoggingEvent> log = new ListAppender<>();
        log.start();
        Logger root = (Logger) LoggerFactory.getLogger(org.slf4j.Logger.ROOT_LOGGER_NAME);
        root.addAppender(log);
        try {
            String cookies = new Client(running.address)
                    .signedIn("ida").cookies().entrySet().stream()
                            .map(c -> c.getKey() + "=" + c.getValue())
                            .collect(Collectors.joining("; "));
            URI address = URI.create(running.address);
            try (Socket socket = new Socket(address.getHost(), address.getPort())) {
                socket.getOutputStream()
                        .write(("GET /goes-on HTTP/1.1\r\nHost: " + address.getAuthority() + "\r\nCookie: " + cookies
                                        + "\r\n\r\n")
                                .getBytes(StandardCharsets.US_ASCII));
                assertThat(goesOn.told.poll(1, TimeUnit.MINUTES)).isEqualTo("begun");
            }
            assertThat(goesOn.told.poll(1, TimeUnit.MINUTES)).isEqualTo("CancellationException");
            assertThat(log.list)
                    .filteredOn(e -> e.getFormattedMessage().contains("/goes-on"))
                    .isEmpty();
        } finally {
            root.detachAppender(log);
            pages.unregisterMapping(at);
        }
    }

    static final class GoesOn {
        private final BlockingQueue<String> told = new LinkedBlockingQueue<>();

        public String page() {
            told.add("begun");
            try {
                while (true) {
                    Budget.longStep();
                }
            } catch (RuntimeException ended) {
                told.add(ended.getClass().getSimpleName());
                throw ended;
            }
        }
    }

    /** Every form with a text, filled with one character more than its column or limit takes: told, never a 5xx, nothing kept. */
    @Test
    void whatIsTooLongIsToldBeforeTheDatabaseFindsOut() {
        Client maker = made("long-" + System.nanoTime(), Role.MAKER);
        String theme = maker.bringIn("long.zip", plain("p{color:#123456}"));
        maker.survey(theme);
        String x = "x".repeat(20_000);
        record Form(String path, String field, int most, String... others) {}
        List<Form> forms = List.of(
                new Form(theme + "/points", "name", 80, "snapshot", maker.base(theme)),
                new Form(theme + "/sites", "name", 100, "whose", "me", "owner", ""),
                new Form(theme + "/sites", "owner", 100, "whose", "owner", "name", "S"),
                new Form(
                        theme + "/settings/new",
                        "key",
                        60,
                        "base",
                        maker.base(theme),
                        "kind",
                        "number",
                        "label",
                        "N",
                        "v",
                        "1",
                        "place",
                        "Page"),
                new Form(
                        theme + "/settings/new",
                        "label",
                        120,
                        "base",
                        maker.base(theme),
                        "kind",
                        "number",
                        "key",
                        "n",
                        "v",
                        "1",
                        "place",
                        "Page"),
                new Form(
                        theme + "/settings/new",
                        "place",
                        80,
                        "base",
                        maker.base(theme),
                        "kind",
                        "number",
                        "key",
                        "n",
                        "label",
                        "N",
                        "v",
                        "1"),
                new Form(
                        theme + "/settings/new",
                        "help",
                        1_000,
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
                        "Page"),
                new Form("/account/password", "next", 72, "now", "a long password"));
        for (Form form : forms) {
            String[] fields = new String[form.others().length + 2];
            System.arraycopy(form.others(), 0, fields, 0, form.others().length);
            fields[fields.length - 2] = form.field();
            for (int length : new int[] {form.most() + 1, x.length()}) {
                fields[fields.length - 1] = x.substring(0, length);
                HttpResponse<String> answer = maker.post(form.path(), fields);
                assertThat(answer.statusCode())
                        .as(form.path() + " " + form.field() + " with " + length + ": "
                                + answer.body().replaceAll("<[^>]*>", " ").strip())
                        .isEqualTo(422);
            }
        }
        Client visitor = new Client(running.address);
        for (String field : List.of("signIn", "name", "password")) {
            for (int length : new int[] {101, 5_000}) {
                TreeMap<String, String> all = new TreeMap<>(
                        java.util.Map.of("signIn", "somebody", "name", "N", "password", "a long password"));
                all.put(field, x.substring(0, length));
                assertThat(org.assertj.core.api.Assertions.catchThrowable(() ->
                                accounts.create(all.get("signIn"), all.get("name"), all.get("password"), Role.OWNER)))
                        .as(field + " " + length)
                        .isInstanceOf(org.calmpalette.core.BadInputException.class);
            }
        }
        // The longest that can be made signs in.
        String longest = "l".repeat(80) + String.format("%020d", System.nanoTime());
        assertThat(made(longest, Role.OWNER).get("/account").statusCode()).isEqualTo(200);
        assertThat(visitor.post("/sign-in", "username", x, "password", x).statusCode())
                .isEqualTo(302);
        // A link of two thousand characters is allowed, and its note is cut, not the choice.
        assertThat(maker.post(
                                theme + "/settings/new",
                                "base",
                                maker.base(theme),
                                "kind",
                                "link",
                                "key",
                                "to",
                                "label",
                                "To",
                                "v",
                                "index.html",
                                "place",
                                "Page")
                        .statusCode())
                .isEqualTo(302);
        String name = "Link " + System.nanoTime();
        assertThat(maker.post(theme + "/sites", "name", name, "whose", "me", "owner", "")
                        .statusCode())
                .isEqualTo(302);
        String link = "https://pages.invalid/" + "a".repeat(1_900);
        HttpResponse<String> chosen =
                maker.post("/sites/" + name.toLowerCase().replace(' ', '-') + "/choose", "key", "to", "v", link);
        assertThat(chosen.statusCode()).as(chosen.body()).isEqualTo(200);
        assertThat(maker.get("/sites/" + name.toLowerCase().replace(' ', '-') + "/choices.json")
                        .body())
                .contains(link);
    }

    @Test
    void namesAreComparedAsTheyAreWritten() {
        String n = String.valueOf(System.nanoTime());
        made("jonas" + n, Role.OWNER);
        assertThatThrownBy(() -> made("j\u00f6nas" + n, Role.OWNER))
                .as("one that is taken for another's")
                .hasMessageContaining("looks like the sign-in name of somebody");
        made("j\u00f6rg" + n, Role.OWNER);
        assertThat(accounts.findBySignIn("jo\u0308rg" + n))
                .as("two spellings of one accent are one name")
                .isPresent();
        assertThat(accounts.findBySignIn("J\u00d6RG" + n)).isPresent();
        assertThat(accounts.findBySignIn("jonas" + n).orElseThrow().signIn()).isEqualTo("jonas" + n);
        assertThat(accounts.findBySignIn("j\u00f3rg" + n)).isEmpty();
    }

    @Test
    void whoGuessesWaitsAndTheOwnerIsTold() {
        String name = "guessed-" + System.nanoTime();
        accounts.create(name, "Guessed", "a long password", Role.OWNER);
        Client guesser = new Client(running.address);
        String token = guesser.token();
        String last = "";
        for (int i = 0; i < 7; i++) {
            last = guesser.postAs(token, "/sign-in", "username", name, "password", "wrong words here")
                    .headers()
                    .firstValue("Location")
                    .orElse("");
        }
        assertThat(last).contains("/sign-in?wait=");
        assertThat(guesser.get(last.replaceFirst(".*(/sign-in)", "$1")).body())
                .contains("was not looked at")
                .contains("Wait ");
        // From elsewhere, which the proxy would tell, the owner gets in at once: here the tries are moved to another
        // address.
        database.sql("update sign_in_attempt set address = '10.9.8.7' where sign_in = ?")
                .param(name)
                .update();
        Client owner = new Client(running.address).signedIn(name, "a long password");
        assertThat(owner.get("/account").body())
                .contains("5 tries to sign in with your name failed")
                .contains("guessing");
        assertThat(owner.get("/account").body()).as("told once").doesNotContain("tries to sign in");
    }

    @Test
    void whoAsksTooOftenIsToldWhen() throws InterruptedException, ExecutionException {
        Client owner = new Client(running.address).signedIn("jonas");
        String token = owner.token();
        // Side by side and for a site that is not there: one after the other a busy machine never asks too often.
        ExecutorService many = Executors.newFixedThreadPool(16);
        List<Future<HttpResponse<String>>> answers = new ArrayList<>();
        for (int i = 0; i < 240; i++) {
            answers.add(many.submit(() -> owner.postAs(token, "/sites/no-such-site/try", "key", "k", "v", "red")));
        }
        many.shutdown();
        HttpResponse<String> answer = null;
        for (Future<HttpResponse<String>> one : answers) {
            answer = answer == null || answer.statusCode() != 429 ? one.get() : answer;
        }
        assertThat(answer.statusCode()).isEqualTo(429);
        assertThat(answer.headers().firstValueAsLong("Retry-After").orElse(0)).isBetween(1L, 5L);
        assertThat(answer.body()).contains("Wait 1 second");
        assertThat(owner.get("/sites/sallowmere-ferries").statusCode())
                .as("pages are not counted")
                .isEqualTo(200);
    }

    @Test
    void nobodysUploadIsNotWrittenToTheDisk() throws IOException {
        Path temporary = Path.of(System.getProperty("java.io.tmpdir"));
        long before = size(temporary);
        Client visitor = new Client(running.address);
        HttpResponse<String> answer = visitor.upload("/themes", "large.zip", new byte[40_000_000]);
        assertThat(answer.statusCode()).isEqualTo(302);
        assertThat(answer.headers().firstValue("Location").orElse("")).endsWith("/sign-in");
        HttpResponse<String> forged = visitor.send(HttpRequest.newBuilder(URI.create(running.address + "/themes"))
                .header("Cookie", "calm-session=bm90LWEtc2Vzc2lvbg==")
                .header("Content-Type", "multipart/form-data; boundary=x")
                .POST(HttpRequest.BodyPublishers.ofString("--x--\r\n"))
                .build());
        assertThat(forged.statusCode()).isEqualTo(302);
        assertThat(size(temporary)).isLessThan(before + 5_000_000);
    }

    /** Others have their files there too, which come and go meanwhile. */
    private static long size(Path folder) throws IOException {
        AtomicLong all = new AtomicLong();
        Files.walkFileTree(folder, new SimpleFileVisitor<>() {
            @Override
            public FileVisitResult visitFile(Path file, BasicFileAttributes attributes) {
                boolean uploaded = file.getFileName().toString().startsWith("upload_")
                        || file.toString().contains("tomcat.");
                all.addAndGet(uploaded && attributes.isRegularFile() ? attributes.size() : 0);
                return FileVisitResult.CONTINUE;
            }

            @Override
            public FileVisitResult visitFileFailed(Path file, IOException gone) {
                return FileVisitResult.CONTINUE;
            }

            @Override
            public FileVisitResult postVisitDirectory(Path folder, IOException gone) {
                return FileVisitResult.CONTINUE;
            }
        });
        return all.get();
    }

    @Test
    void whoLeavesIsToldWhatBecomesOfEverything() {
        String n = String.valueOf(System.nanoTime());
        Client maker = made("leaver-" + n, Role.MAKER);
        Client owner = made("leavers-owner-" + n, Role.OWNER);
        String theme = maker.bringIn("leaving.zip", plain("p{color:#654321}"));
        String name = "Left " + n;
        String slug = "left-" + n;
        assertThat(maker.post(theme + "/sites", "name", name, "whose", "owner", "owner", "leavers-owner-" + n)
                        .statusCode())
                .isEqualTo(302);
        assertThat(owner.post("/sites/" + slug + "/go-live").statusCode()).isEqualTo(302);
        assertThat(maker.get("/account").body())
                .contains("1 theme")
                .contains("leaving")
                .contains("1 site")
                .contains(name);
        assertThat(maker.post("/account/remove", "password", "wrong words here").statusCode())
                .isEqualTo(422);
        HttpResponse<String> kept = maker.post("/account/remove", "password", "a long password", "handTo", "");
        assertThat(kept.statusCode()).isEqualTo(422);
        assertThat(kept.body()).contains(name).contains("would lose its theme");

        // A second maker comes by invitation, which works once, and takes over.
        assertThat(maker.post("/makers/invite").statusCode()).isEqualTo(302);
        String join =
                maker.get("/account").body().replaceFirst("(?s).*data-copy=\"[^\"]*(/makers/join/[^\"]+)\".*", "$1");
        Client visitor = new Client(running.address);
        assertThat(visitor.get(join).body()).contains("Somebody invites you");
        assertThat(visitor.post(join, "signIn", "heir-" + n, "name", "Heir", "password", "a long password")
                        .statusCode())
                .isEqualTo(302);
        assertThat(visitor.get("/themes").statusCode())
                .as("who has joined is signed in")
                .isEqualTo(200);
        assertThat(new Client(running.address).get(join).body()).contains("This invitation has been used");
        // Whoever is signed in where an invitation is opened stays so.
        assertThat(maker.post("/makers/invite").statusCode()).isEqualTo(302);
        String second =
                maker.get("/account").body().replaceFirst("(?s).*data-copy=\"[^\"]*(/makers/join/[^\"]+)\".*", "$1");
        HttpResponse<String> joined =
                visitor.post(second, "signIn", "guest-" + n, "name", "Guest", "password", "a long password");
        assertThat(joined.headers().firstValue("location").orElseThrow()).endsWith("/sign-in?made");
        assertThat(visitor.get("/account").body()).contains("signed in as heir-" + n);
        Client heir = new Client(running.address).signedIn("heir-" + n, "a long password");
        assertThat(maker.post("/account/remove", "password", "a long password", "handTo", "heir-" + n)
                        .statusCode())
                .isEqualTo(302);
        assertThat(maker.get("/themes").statusCode()).as("the session is over").isEqualTo(302);
        assertThat(accounts.findBySignIn("leaver-" + n)).isEmpty();
        assertThat(heir.get(theme + "/settings").statusCode()).isEqualTo(200);
        assertThat(visitor.get("/at/" + slug + "/").statusCode()).isEqualTo(200);

        // The owner leaves: the site stays live and is its maker's.
        Client elsewhere = new Client(running.address).signedIn("leavers-owner-" + n, "a long password");
        assertThat(owner.get("/account").body()).contains(name).contains("stays live");
        // What is refused is told in the form, and nothing is changed.
        for (String[] no : new String[][] {
            {"wrong words here", "another long one", "another one"},
            {"a long password", "a long password", "that you have now"},
            {"a long password", "Password123", "anybody would guess"},
            {"a long password", "aaaabbbbccca", "anybody would guess"}
        }) {
            HttpResponse<String> refused = owner.post("/account/password", "now", no[0], "next", no[1]);
            assertThat(refused.statusCode()).isEqualTo(422);
            assertThat(refused.body()).contains(no[2], "name=\"next\"");
        }
        assertThat(owner.post("/account/password", "now", "a long password", "next", "another long one")
                        .statusCode())
                .isEqualTo(302);
        assertThat(elsewhere.get("/sites").statusCode())
                .as("signed out elsewhere")
                .isEqualTo(302);
        assertThat(owner.post("/account/remove", "password", "another long one").statusCode())
                .isEqualTo(302);
        assertThat(visitor.get("/at/" + slug + "/").statusCode()).isEqualTo(200);
        assertThat(heir.get("/sites/" + slug).statusCode()).isEqualTo(200);

        // The site is removed by its name, then the theme.
        String id = heir.get(theme + "/handover").body().replaceFirst("(?s).*/sites/(\\d+)/remove.*", "$1");
        assertThat(heir.post(theme + "/sites/" + id + "/remove", "confirmed", "something else")
                        .statusCode())
                .isEqualTo(422);
        assertThat(heir.post(theme + "/sites/" + id + "/remove", "confirmed", name)
                        .statusCode())
                .isEqualTo(302);
        assertThat(visitor.get("/at/" + slug + "/").statusCode()).isEqualTo(404);
        assertThat(heir.post("/account/remove", "password", "a long password", "handTo", "")
                        .statusCode())
                .isEqualTo(302);
        assertThat(accounts.findBySignIn("heir-" + n)).isEmpty();
        assertThat(database.sql("select count(*) from theme where name = 'leaving'")
                        .query(Long.class)
                        .single())
                .isZero();
        // Contents that nothing uses go, what is used stays.
        String gone = org.calmpalette.app.storage.Hash.of("p{color:#654321}");
        assertThat(count(gone)).isEqualTo(1);
        SweepAccess.sweep(running.bean(org.calmpalette.app.storage.ContentStore.class), 120);
        assertThat(count(gone)).as("too young").isEqualTo(1);
        database.sql("update content set kept_at = kept_at - interval 1 day").update();
        SweepAccess.sweep(running.bean(org.calmpalette.app.storage.ContentStore.class), 120);
        assertThat(count(gone)).isZero();
        assertThat(visitor.get("/at/sallowmere-ferries/").statusCode()).isEqualTo(200);
        Client ida = new Client(running.address).signedIn("ida");
        String demo = ida.get("/themes")
                .body()
                .replaceFirst("(?s).*href=\"(/themes/\\d+)/survey\"[^>]*>\\s*Towpath\\s*<.*", "$1");
        assertThat(ida.get(demo + "/handover.zip").statusCode()).isEqualTo(200);
    }

    private long count(String hash) {
        return database.sql("select count(*) from content where hash = ?")
                .param(hash)
                .query(Long.class)
                .single();
    }

    @Test
    void thePeopleOfTheDemoStayAndTheirSessionsEndWithTheDemo() {
        Client ida = new Client(running.address).signedIn("ida");
        assertThat(ida.post("/account/password", "now", Running.PASSWORD, "next", "another long one")
                        .body())
                .contains("people of the demo stay");
        assertThat(ida.post("/account/remove", "password", Running.PASSWORD).statusCode())
                .isEqualTo(422);
        assertThat(ida.get("/themes").statusCode()).isEqualTo(200);
        accounts.endDemoSessions();
        assertThat(ida.get("/themes").statusCode()).isEqualTo(302);
    }
}

package org.calmpalette.app;

import com.microsoft.playwright.Frame;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.Cookie;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.io.Writer;
import java.lang.reflect.InvocationTargetException;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Properties;
import java.util.Set;
import java.util.regex.Pattern;
import org.calmpalette.core.language.Language;
import org.springframework.boot.SpringApplication;
import org.springframework.context.ConfigurableApplicationContext;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.context.annotation.Primary;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.security.crypto.bcrypt.BCryptPasswordEncoder;
import org.springframework.security.crypto.password.DelegatingPasswordEncoder;
import org.springframework.security.crypto.password.PasswordEncoder;

/** The real application on a scratch database with a browser, started once for all tests of a run. */
public final class Running {
    static final String PASSWORD = "only-for-this-run";
    /** Several runs go on side by side, each with a database of its own. */
    @SuppressWarnings("unused")
    private static FileChannel held;

    private static final int FORK = slot();

    static final Path DATABASE = Path.of("target/database-" + FORK).toAbsolutePath();
    private static Running one;

    private final ConfigurableApplicationContext app;
    final String address;
    /** The first number that no other run holds; held until this one ends, however it does. */
    private static int slot() {
        for (int n = 1; ; n++) {
            try {
                Files.createDirectories(Path.of("target"));
                var lock = FileChannel.open(
                        Path.of("target/database-" + n + ".lock"), StandardOpenOption.CREATE, StandardOpenOption.WRITE);
                if (lock.tryLock() != null) {
                    // A channel that nobody holds is closed by the garbage collector, and its lock is gone.
                    held = lock;
                    return n;
                }
                lock.close();
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            }
        }
    }

    private Running() throws IOException, InterruptedException {
        calm("stop");
        delete(DATABASE);
        calm("start");
        Runtime.getRuntime().addShutdownHook(new Thread(() -> calm("stop")));
        for (String line : Files.readAllLines(DATABASE.resolve("env"))) {
            String[] pair = line.split("=", 2);
            System.setProperty(pair[0], pair[1].replace("'", ""));
        }
        app = new SpringApplication(CalmPaletteApplication.class, QuickPasswords.class)
                .run(
                        "--server.port=0",
                        "--calm.demo=true",
                        "--calm.demo-password=" + PASSWORD,
                        "--calm.languages=" + markedLanguage(),
                        "--spring.main.banner-mode=off");
        address = "http://127.0.0.1:" + app.getEnvironment().getProperty("local.server.port");
    }

    /**
     * Passwords hashed with the least work that BCrypt knows: some hundred accounts are made in a run, and a third of what Java took in a
     * class that makes many was that. What the application itself does, {@code AccountServiceTest} and the packed application try.
     */
    @Configuration
    static class QuickPasswords {
        @Bean
        @Primary
        PasswordEncoder quickPasswords() {
            return new DelegatingPasswordEncoder("bcrypt", Map.of("bcrypt", new BCryptPasswordEncoder(4)));
        }
    }

    /** A language of which each sentence stands between marks: what stands outside of them is in no file. */
    static final String MARKED = "en-XA";

    private static Path markedLanguage() throws IOException {
        Path folder =
                Files.createDirectories(Path.of("target/languages-" + FORK).toAbsolutePath());
        Properties marked = new Properties();
        Language.english()
                .keys()
                .forEach(key -> marked.setProperty(
                        key,
                        key.equals("labels.small")
                                ? "yes"
                                : "⟦" + Language.english().pattern(key) + "⟧"));
        try (Writer out = Files.newBufferedWriter(folder.resolve(MARKED + ".properties"))) {
            marked.store(out, null);
        }
        return folder;
    }

    static synchronized Running get() {
        if (one == null) {
            try {
                one = new Running();
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            } catch (InterruptedException e) {
                throw new IllegalStateException(e);
            }
        }
        return one;
    }

    static void calm(String what) {
        try {
            // The output goes to a file: MariaDB inherits it and would keep a pipe open for ever.
            ProcessBuilder builder = new ProcessBuilder("../calm", "database", what, DATABASE.toString());
            // Apart from each other: two that look for a free port at once would find the same one.
            builder.environment().put("CALM_DATABASE_PORT", String.valueOf(33_060 + 400 * FORK));
            // Nobody needs these data after the run, so nothing waits for a disk that others keep busy.
            builder.environment()
                    .put(
                            "CALM_DB_FLAGS",
                            "--innodb-flush-log-at-trx-commit=0 --innodb-flush-method=nosync --innodb-doublewrite=0");
            Process process = builder.redirectErrorStream(true)
                    .redirectOutput(new java.io.File("target/database-" + FORK + "-" + what + ".log"))
                    .start();
            if (process.waitFor() != 0) {
                throw new IllegalStateException("database " + what + " failed: "
                        + Files.readString(Path.of("target/database-" + FORK + "-" + what + ".log")));
            }
        } catch (IOException | InterruptedException e) {
            throw new IllegalStateException(e);
        }
    }

    private static void delete(Path folder) throws IOException {
        if (Files.exists(folder)) {
            try (var all = Files.walk(folder)) {
                for (Path p : all.sorted(java.util.Comparator.reverseOrder()).toList()) {
                    Files.delete(p);
                }
            }
        }
    }

    <T> T bean(Class<T> type) {
        return app.getBean(type);
    }

    <T> T bean(String name, Class<T> type) {
        return app.getBean(name, type);
    }

    /** What a person does on a page. */
    private static final Set<String> ACTS = Set.of(
            "click",
            "dblclick",
            "fill",
            "press",
            "type",
            "selectOption",
            "check",
            "uncheck",
            "setChecked",
            "setInputFiles",
            "dragAndDrop",
            "keyboard",
            "mouse",
            "locator");

    /**
     * A page on which nothing is done before it is there as a whole: a person does not press keys that fast, and on a busy machine the
     * words of a page are seen well before its scripts have come.
     */
    private static Page unhurried(Page page) {
        return Browsers.proxied((method, args) -> {
            if (ACTS.contains(method.getName())) {
                page.waitForLoadState();
            }
            try {
                return method.invoke(page, args);
            } catch (InvocationTargetException e) {
                // A page that has measured itself shows itself anew, and may do so in the very moment in which
                // one leaves.
                String why = String.valueOf(e.getCause().getMessage());
                boolean crossed = method.getName().equals("navigate")
                        && (why.contains("net::ERR_ABORTED") || why.contains("interrupted by another navigation"));
                if (!crossed) {
                    throw e;
                }
                page.waitForLoadState();
                return method.invoke(page, args);
            }
        });
    }

    /** A window of a new visitor. */
    Page visitor(int width, int height) {
        return unhurried(hasty(width, height));
    }

    /** A window of a visitor who does not wait until a page is there. */
    Page hasty(int width, int height) {
        return Browsers.page(width, height);
    }

    Page signedIn(String name, int width, int height) {
        return signedIn(visitor(width, height), name);
    }

    /**
     * Somebody who has signed in, as they come to the page that they work on. What it takes is done once for each name, and where they
     * go at once to another page, the first one is passed over.
     */
    Page signedIn(Page page, String name) {
        page.context()
                .addCookies(new Client(address)
                        .signedInWindow(name).cookies().entrySet().stream()
                                .map(c -> new Cookie(c.getKey(), c.getValue()).setUrl(address))
                                .toList());
        return Browsers.proxied((method, args) -> {
            if (!BEFORE.matcher(method.getName()).matches() && page.url().equals("about:blank")) {
                page.navigate(address + "/");
            }
            return method.invoke(page, args);
        });
    }

    /** What one does before one is anywhere. */
    private static final Pattern BEFORE = Pattern.compile(
            "navigate|context|close|isClosed|waitFor(Download|Request|Response).*|(un)?route.*|(on|off|set|add)[A-Z].*");

    /** An owner of their own for one test, so that the demo's owner keeps the one site that they have. */
    String newOwner() {
        String name = "owner-" + System.nanoTime();
        bean(org.calmpalette.app.accounts.AccountService.class)
                .create(name, "Owner", PASSWORD, org.calmpalette.app.accounts.Role.OWNER);
        return name;
    }

    /** The demo's own theme, whatever copies of it tests have made since. @return its address, such as {@code /themes/1} */
    String towpath() {
        return "/themes/"
                + bean(JdbcClient.class)
                        .sql("select min(id) from theme where name = 'Towpath'")
                        .query(Long.class)
                        .single();
    }

    Page maker() {
        return signedIn("ida", 1280, 800);
    }

    Page owner() {
        return signedIn("jonas", 1280, 800);
    }

    /** The previews on a page, the narrowest first. */
    static List<Frame> frames(Page page) {
        // Others, which nobody sees, measure pages in the background; and a page that has measured itself comes anew.
        List<Frame> frames = new ArrayList<>();
        page.waitForCondition(() -> {
            frames.clear();
            page.querySelectorAll("iframe[data-width]").forEach(e -> frames.add(e.contentFrame()));
            return !frames.isEmpty()
                    && frames.stream().allMatch(f -> f != null && f.url().contains("/frame/"));
        });
        frames.forEach(Frame::waitForLoadState);
        return frames;
    }

    static String style(Frame frame, String selector, String property) {
        return (String) frame.evaluate(
                "([s, p]) => getComputedStyle(document.querySelector(s))[p]", List.of(selector, property));
    }

    /** Clicks a part in the widest preview, which is drawn to scale, where a person would. */
    static void clickPart(Page page, String selector) {
        clickPart(page, selector, 0.5, 0.5);
    }

    /** @param across share of its width, from its left edge */
    static void clickPart(Page page, String selector, double across, double down) {
        page.waitForSelector("iframe[data-width]");
        List<Frame> frames = frames(page);
        Frame frame = frames.get(frames.size() - 1);
        // The strip draws its frames to scale once their room is known, and a frame listens once its script is there;
        // before that
        // a place on the screen means nothing.
        page.waitForFunction(
                "() => { const f = [...document.querySelectorAll('iframe[data-width]')].pop();"
                        + " const b = JSON.stringify(f.getBoundingClientRect()); const stands = f.dataset.ready === '' && window.stood === b; window.stood = b; return stands; }");
        List<?> inside = (List<?>) frame.evaluate(
                "([s, across, down]) => { const e = document.querySelector(s); e.scrollIntoView({block: 'center', behavior: 'instant'});"
                        + " const b = e.getBoundingClientRect(); return [b.x + b.width * across, b.y + b.height * down]; }",
                List.of(selector, across, down));
        List<?> outside =
                (List<?>) page.evaluate("() => { const f = [...document.querySelectorAll('iframe[data-width]')].pop();"
                        + " const b = f.getBoundingClientRect(); return [b.x, b.y, b.width / f.offsetWidth]; }");
        double scale = number(outside, 2);
        page.evaluate("() => { window.openBefore = document.querySelector('#card [data-part]'); }");
        page.waitForResponse("**/part?**", () -> page.mouse()
                .click(number(outside, 0) + number(inside, 0) * scale, number(outside, 1) + number(inside, 1) * scale));
        // The answer is there before it stands in the page; until then the part that was open before does.
        page.waitForFunction(
                "() => { const part = document.querySelector('#card [data-part]'); return part && part !== window.openBefore; }");
        // What is told of it comes after it, and would move what is pressed next under the pointer.
        settled(page);
    }

    /** Waits until the head of an owner's page tells of a state of the draft; on a phone it stands behind “More”. */
    static void state(Page page, String words) {
        page.waitForFunction("words => document.querySelector('#state .state')?.textContent.includes(words)", words);
    }

    /** Goes live with what is in the draft, by way of what that changes. */
    static void goLive(Page page) {
        page.locator("[data-go-live]").click();
        page.locator("[data-live-now]").click();
        page.waitForSelector("#notice >> text=Your site is live");
    }

    /** Opens the handover of a theme and says why it goes out, where promises are known to be broken. */
    static void handover(Page page, String address) {
        page.navigate(address);
        if (page.locator("#word").count() > 0) {
            page.fill("#word", "it is mended next week");
            page.click("text=Say so");
            page.waitForSelector("text=It goes out all the same");
        }
    }

    /** Waits until a page has come to rest: its letters and pictures are there, nothing moves, and nothing is on its way. */
    static void settled(Page page) {
        page.waitForFunction(
                "() => document.fonts.status === 'loaded' && !document.querySelector('.htmx-request, .htmx-swapping, .htmx-settling')"
                        + " && document.getAnimations().every(a => a.playState !== 'running')"
                        + " && [...document.images].every(i => i.complete || i.loading === 'lazy')");
    }

    private static double number(List<?> list, int index) {
        return ((Number) list.get(index)).doubleValue();
    }

    /** Brings a file in through the page and waits for its survey, or for the message that it was refused. */
    static void bringIn(Page page, String address, Path file) {
        page.navigate(address + "/themes");
        page.setInputFiles("#file", file);
        page.click("text=Bring it in");
        page.waitForCondition(() ->
                page.url().contains("/survey") || page.locator("[role=alert]").count() > 0);
    }
}

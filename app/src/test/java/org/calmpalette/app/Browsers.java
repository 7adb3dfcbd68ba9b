package org.calmpalette.app;

import com.google.gson.JsonObject;
import com.microsoft.playwright.Browser;
import com.microsoft.playwright.BrowserContext;
import com.microsoft.playwright.BrowserType;
import com.microsoft.playwright.CDPSession;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Playwright;
import com.microsoft.playwright.PlaywrightException;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.lang.reflect.InvocationTargetException;
import java.lang.reflect.Method;
import java.lang.reflect.Proxy;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Base64;
import java.util.IdentityHashMap;
import java.util.Iterator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.ScheduledFuture;
import java.util.concurrent.TimeUnit;
import java.util.function.BooleanSupplier;
import java.util.regex.Pattern;
import javax.imageio.ImageIO;

/** Headless Chromium, started once for all tests of a run. */
final class Browsers {
    private static final Map<Page, List<String>> OPEN = new LinkedHashMap<>();
    private static final int CORES = Runtime.getRuntime().availableProcessors();
    /** After which a wait on a machine that has nothing else to do is in vain. */
    private static final double PATIENCE_MS = 10_000;

    private static Browser browser;

    /** What htmx says where something is wrong with a page; that a request was refused, or nobody answered, is no fault of the page. */
    private static final Pattern WRONG = Pattern.compile(
            "htmx:(targetError|swapError|oobErrorNoTarget|onLoadError|invalidPath|syntax:error|eventFilter:error|evalDisallowedError)");

    /** What scripts of our pages threw since the last test began. */
    private static final List<String> ERRORS = new CopyOnWriteArrayList<>();

    static List<String> errors() {
        return List.copyOf(ERRORS);
    }

    private Browsers() {}

    static synchronized Browser get() {
        if (browser != null && (ended || !browser.isConnected())) {
            browser = null;
            ended = false;
            RESTED.clear();
        }
        if (browser == null) {
            Playwright playwright = Playwright.create(
                    new Playwright.CreateOptions().setEnv(Map.of("PLAYWRIGHT_SKIP_BROWSER_DOWNLOAD", "1")));
            browser = playwright
                    .chromium()
                    .launch(new BrowserType.LaunchOptions()
                            .setExecutablePath(Path.of(System.getenv().getOrDefault("CHROMIUM", "/usr/bin/chromium")))
                            .setArgs(List.of(
                                    "--no-sandbox",
                                    "--disable-gpu",
                                    "--disable-background-networking",
                                    "--disable-component-update",
                                    "--disable-sync",
                                    "--no-first-run",
                                    "--disable-features=IsolateSandboxedIframes",
                                    "--disable-gpu-rasterization",
                                    // As on a screen: letters stand where they belong, not on whole pixels.
                                    "--font-render-hinting=none")));
            Runtime.getRuntime().addShutdownHook(new Thread(playwright::close));
        }
        return browser;
    }

    /**
     * How long something is waited for, in ms: ten seconds on a machine that has nothing else to do, more as more programs want to run
     * than there are cores.
     */
    static double patience() {
        try {
            String[] load = Files.readString(Path.of("/proc/loadavg")).split("[ /]");
            double wanting = Math.max(Double.parseDouble(load[0]), Double.parseDouble(load[3]));
            // Who has to share a core waits longer than its share: for each step anew.
            return PATIENCE_MS * Math.max(1, 2 * wanting / CORES - 1);
        } catch (IOException elsewhere) {
            return 6 * PATIENCE_MS;
        }
    }

    /** A page of a new visitor, who knows nothing of the others. */
    static Page page(int width, int height) {
        return page(width, height, true);
    }

    /** @param scripts whether the browser of the visitor runs any */
    static Page page(int width, int height, boolean scripts) {
        Page page = context(scripts).newPage();
        page.setViewportSize(width, height);
        List<String> console = new ArrayList<>();
        page.onConsoleMessage(m -> {
            console.add(m.type() + " " + m.text());
            if (WRONG.matcher(m.text()).lookingAt()) {
                ERRORS.add(m.text());
            }
        });
        page.onPageError(error -> {
            console.add(error);
            ERRORS.add(error);
        });
        page.onRequestFailed(r -> console.add("not there: " + r.url() + " " + r.failure()));
        OPEN.put(page, console);
        return patient(page);
    }

    /**
     * A context in which nobody is signed in and nothing is stored. One that others have left still holds what may be cached, as the
     * browser of a person does who comes again; a new one is dear, and would ask for all of that anew.
     */
    private static BrowserContext context(boolean scripts) {
        Browser now = get();
        for (Iterator<Rested> i = RESTED.iterator(); i.hasNext(); ) {
            Rested rested = i.next();
            if (rested.scripts() == scripts) {
                i.remove();
                SCRIPTS.put(rested.context(), scripts);
                return rested.context();
            }
        }
        BrowserContext made = now.newContext(new Browser.NewContextOptions()
                .setJavaScriptEnabled(scripts)
                .setAcceptDownloads(true)
                .setLocale("en-GB"));
        SCRIPTS.put(made, scripts);
        return made;
    }

    private record Rested(BrowserContext context, boolean scripts) {}

    private static final List<Rested> RESTED = new ArrayList<>();
    private static final Map<BrowserContext, Boolean> SCRIPTS = new IdentityHashMap<>();
    private static final int MOST_RESTED = 6;

    /** Closes the pages of a context and takes away what they stored; only what is cached stays. */
    private static void rest(BrowserContext context) {
        Boolean scripts = SCRIPTS.remove(context);
        try (Watch ending = new Watch()) {
            List<Page> pages = context.pages();
            if (scripts == null || pages.isEmpty() || RESTED.size() >= MOST_RESTED) {
                context.close();
                return;
            }
            CDPSession protocol = context.newCDPSession(pages.get(0));
            for (String origin : pages.stream()
                    .map(p -> p.url().replaceFirst("^(https?://[^/]+).*", "$1"))
                    .filter(o -> o.startsWith("http"))
                    .distinct()
                    .toList()) {
                JsonObject all = new JsonObject();
                all.addProperty("origin", origin);
                all.addProperty("storageTypes", "cookies,indexeddb,local_storage,service_workers,cache_storage");
                protocol.send("Storage.clearDataForOrigin", all);
            }
            for (Page page : pages) {
                page.close();
            }
            context.setOffline(false);
            context.clearCookies();
            context.clearPermissions();
            context.unrouteAll();
            RESTED.add(new Rested(context, scripts));
        } catch (PlaywrightException gone) {
            if (!ended && browser.isConnected()) {
                context.close();
            }
        }
    }

    /**
     * Once in a great while Chromium never answers that a window is closed, and nothing limits how long that is waited for: a run would
     * stand still until somebody came. Then the browser is ended, and the next window has another.
     */
    private static final class Watch implements AutoCloseable {
        private static final ScheduledExecutorService CLOCK = Executors.newSingleThreadScheduledExecutor(work -> {
            Thread thread = new Thread(work, "watch");
            thread.setDaemon(true);
            return thread;
        });
        private final ScheduledFuture<?> inVain = CLOCK.schedule(
                () -> {
                    System.out.println("Chromium does not close a window, and is ended.");
                    end();
                },
                (long) (6 * patience()),
                TimeUnit.MILLISECONDS);

        @Override
        public void close() {
            inVain.cancel(false);
        }
    }

    /** Whether the browser of this run was ended, so that nothing is to be asked of it any more. */
    private static volatile boolean ended;

    /** Ends the browser of this run, whatever it does, and what speaks with it: that would go on waiting for the browser's answer. */
    static void end() {
        ended = true;
        ProcessHandle.current()
                .descendants()
                .filter(p -> p.info().command().orElse("").matches(".*(chromium|playwright).*"))
                .forEach(ProcessHandle::destroyForcibly);
    }

    /** The page, of which each wait is as long as the machine makes necessary now. */
    private static Page patient(Page page) {
        return proxied((method, args) -> {
            page.setDefaultTimeout(patience());
            if (method.getName().equals("waitForCondition")) {
                args[0] = calmly((BooleanSupplier) args[0]);
            }
            return method.invoke(page, args);
        });
    }

    /** A condition that is looked at a few times in a tenth of a second: asked without a pause, it would keep the page from getting there. */
    private static BooleanSupplier calmly(BooleanSupplier condition) {
        long[] next = {0};
        return () -> {
            if (System.nanoTime() < next[0]) {
                return false;
            }
            boolean holds = condition.getAsBoolean();
            next[0] = System.nanoTime() + 30_000_000;
            return holds;
        };
    }

    /** What happens in place of a page's own method. */
    interface Call {
        Object of(Method method, Object[] args) throws ReflectiveOperationException;
    }

    static Page proxied(Call call) {
        return (Page) Proxy.newProxyInstance(
                Page.class.getClassLoader(), new Class<?>[] {Page.class}, (self, method, args) -> {
                    try {
                        return call.of(method, args);
                    } catch (InvocationTargetException e) {
                        throw e.getCause();
                    }
                });
    }

    /** What a page shows, without what making a small file of it costs. @param whole also what is below its window */
    static BufferedImage seen(Page page, boolean whole) {
        CDPSession protocol =
                page.context().newCDPSession(page.context().pages().get(0));
        JsonObject how = new JsonObject();
        how.addProperty("optimizeForSpeed", true);
        if (whole) {
            JsonObject size = protocol.send("Page.getLayoutMetrics").getAsJsonObject("cssContentSize");
            size.addProperty("scale", 1);
            how.add("clip", size);
            how.addProperty("captureBeyondViewport", true);
        }
        byte[] png = Base64.getDecoder()
                .decode(protocol.send("Page.captureScreenshot", how).get("data").getAsString());
        protocol.detach();
        try {
            return ImageIO.read(new ByteArrayInputStream(png));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** Writes what every open window shows, its markup, its address and what its console said, into a folder. */
    static synchronized void keep(Path folder) throws IOException {
        Files.createDirectories(folder);
        int n = 0;
        for (Map.Entry<Page, List<String>> open : OPEN.entrySet()) {
            Page page = open.getKey();
            n++;
            Files.write(folder.resolve(n + "-console.txt"), open.getValue());
            try {
                page.setDefaultTimeout(PATIENCE_MS);
                Files.writeString(folder.resolve(n + "-page.html"), "<!-- " + page.url() + " -->\n" + page.content());
                page.screenshot(new Page.ScreenshotOptions().setPath(folder.resolve(n + "-seen.png")));
            } catch (PlaywrightException gone) {
                Files.writeString(folder.resolve(n + "-gone.txt"), gone.getMessage());
            }
        }
    }

    /** Windows that were open before a test began are those of its class, and stay. */
    private static Set<Page> ofTheClass = Set.of();

    static synchronized void testBegins() {
        ofTheClass = Set.copyOf(OPEN.keySet());
        ERRORS.clear();
    }

    /** Closes what a test left open: pages with frames go on costing time. */
    static synchronized void closeAll() {
        List<Page> own =
                OPEN.keySet().stream().filter(p -> !ofTheClass.contains(p)).toList();
        own.stream().map(Page::context).distinct().forEach(Browsers::rest);
        own.forEach(OPEN::remove);
    }

    /** Closes what is open of a class whose tests are over. */
    static synchronized void classIsOver() {
        ofTheClass = Set.of();
        closeAll();
    }

    /** How many pixels of two pictures of one size differ; all of them if their sizes do. */
    static int different(byte[] a, byte[] b) throws IOException {
        BufferedImage one = ImageIO.read(new ByteArrayInputStream(a));
        BufferedImage two = ImageIO.read(new ByteArrayInputStream(b));
        if (one.getWidth() != two.getWidth() || one.getHeight() != two.getHeight()) {
            return Integer.MAX_VALUE;
        }
        int count = 0;
        for (int y = 0; y < one.getHeight(); y++) {
            for (int x = 0; x < one.getWidth(); x++) {
                count += one.getRGB(x, y) == two.getRGB(x, y) ? 0 : 1;
            }
        }
        return count;
    }
}

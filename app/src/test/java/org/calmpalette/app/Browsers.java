package org.calmpalette.app;

import com.microsoft.playwright.Browser;
import com.microsoft.playwright.BrowserContext;
import com.microsoft.playwright.BrowserType;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Playwright;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;

/** Headless Chromium, started once for all tests of a run. */
final class Browsers {
    private static final List<BrowserContext> OPEN = new ArrayList<>();
    private static Browser browser;

    private Browsers() {}

    static synchronized Browser get() {
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
                                    "--disable-gpu-rasterization")));
            Runtime.getRuntime().addShutdownHook(new Thread(playwright::close));
        }
        return browser;
    }

    /** A page of a new visitor, who knows nothing of the others. */
    static Page page(int width, int height) {
        Page page = get().newContext(new Browser.NewContextOptions()
                        .setViewportSize(width, height)
                        .setAcceptDownloads(true)
                        .setLocale("en-GB"))
                .newPage();
        // Long enough for a busy machine with two cores; what is waited for comes in a fraction of a second on a free
        // one.
        page.setDefaultTimeout(60_000);
        OPEN.add(page.context());
        return page;
    }

    /** Closes what a test left open: pages with frames go on costing time. */
    static synchronized void closeAll() {
        OPEN.forEach(BrowserContext::close);
        OPEN.clear();
    }
}

package org.calmpalette.app;

import com.microsoft.playwright.Browser;
import com.microsoft.playwright.BrowserContext;
import com.microsoft.playwright.BrowserType;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Playwright;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import javax.imageio.ImageIO;

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
        return page(width, height, true);
    }

    /** @param scripts whether the browser of the visitor runs any */
    static Page page(int width, int height, boolean scripts) {
        Page page = get().newContext(new Browser.NewContextOptions()
                        .setViewportSize(width, height)
                        .setJavaScriptEnabled(scripts)
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

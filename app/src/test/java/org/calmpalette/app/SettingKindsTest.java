package org.calmpalette.app;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Frame;
import com.microsoft.playwright.Page;
import com.sun.net.httpserver.HttpServer;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.stream.Stream;
import javax.imageio.ImageIO;
import org.calmpalette.core.intake.ThemeZip;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.MethodOrderer;
import org.junit.jupiter.api.Order;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestMethodOrder;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.springframework.jdbc.core.simple.JdbcClient;

/**
 * Every kind of setting is made in the interface, gets another default for phones, and is read back from what Chromium
 * computes and shows, in windows of 390 and of 1440 px.
 */
@TestMethodOrder(MethodOrderer.OrderAnnotation.class)
class SettingKindsTest {
    @TempDir
    static Path folder;

    private static Page page;
    private static String theme;

    /**
     * A kind with what is entered and what the browser shows.
     *
     * @param enter fields as name=text; a leading dot follows the prefix
     * @param phone fields for the phone band
     * @param asked script that reads the effect
     */
    record Kind(String name, List<String> enter, List<String> phone, String asked, String wide, String narrow) {
        @Override
        public String toString() {
            return name;
        }
    }

    private static Kind css(
            String name, List<String> enter, List<String> phone, String property, String wide, String narrow) {
        return new Kind(
                name,
                enter,
                phone,
                "getComputedStyle(document.querySelector('#" + name + "'))['" + property + "']",
                wide,
                narrow);
    }

    private static Kind shown(
            String name, List<String> enter, List<String> phone, String expression, String wide, String narrow) {
        return new Kind(
                name,
                enter,
                phone,
                "[...document.querySelectorAll('." + name + "')].filter(e => e.getClientRects().length).map(e => "
                        + expression + ").join('|')",
                wide,
                narrow);
    }

    static Stream<Kind> kinds() {
        return Stream.of(
                css("color", List.of("=#102030"), List.of("=#405060"), "color", "rgb(16, 32, 48)", "rgb(64, 80, 96)"),
                css(
                        "background",
                        List.of(".color=#112233", ".picture=img/a.png", ".overlay=#000000", ".strength=50"),
                        List.of(".color=#ffffff", ".picture=img/b.png", ".size=contain"),
                        "background",
                        "linear-gradient(rgba(0, 0, 0, 0.5), rgba(0, 0, 0, 0.5)), rgb(17, 34, 51) a.png cover",
                        "linear-gradient(rgba(0, 0, 0, 0.5), rgba(0, 0, 0, 0.5)), rgb(255, 255, 255) b.png contain"),
                css(
                        "gradient",
                        List.of(".stop1.color=#000000", ".stop2.color=#ffffff"),
                        List.of(".angle=45", ".stop1.color=#ff0000"),
                        "backgroundImage",
                        "linear-gradient(rgb(0, 0, 0) 0%, rgb(255, 255, 255) 100%)",
                        "linear-gradient(45deg, rgb(255, 0, 0) 0%, rgb(255, 255, 255) 100%)"),
                css("picture", List.of("=img/a.png"), List.of("=img/b.png"), "backgroundImage", "a.png", "b.png"),
                shown(
                        "video",
                        List.of(".src=film/a.mp4", ".poster=img/a.png"),
                        List.of(".src=film/b.mp4", ".poster=img/b.png"),
                        "[e.src, e.poster].map(a => a.split('/').pop()).join(' ')",
                        "a.mp4 a.png",
                        "b.mp4 b.png"),
                css(
                        "length",
                        List.of(".value=72", ".unit=px"),
                        List.of(".value=3", ".unit=rem"),
                        "width",
                        "72px",
                        "48px"),
                css("number", List.of("=0.5"), List.of("=0.25"), "opacity", "0.5", "0.25"),
                css("percentage", List.of("=50"), List.of("=25"), "width", "300px", "150px"),
                css(
                        "choice",
                        List.of("a.options=left\nmiddle | In the middle | center", "=left"),
                        List.of("=middle"),
                        "textAlign",
                        "left",
                        "center"),
                css(
                        "yes-no",
                        List.of("a.yes=sticky", "a.no=static", "=true"),
                        List.of("=false"),
                        "position",
                        "sticky",
                        "static"),
                shown(
                        "line",
                        List.of("=Long & <wide> words"),
                        List.of("=Short"),
                        "e.textContent",
                        "Long & <wide> words",
                        "Short"),
                shown("text", List.of("=One\nTwo"), List.of("=Three"), "e.innerHTML", "One<br>Two", "Three"),
                shown(
                        "link",
                        List.of("=b.html#x"),
                        List.of("=tel:+100"),
                        "e.getAttribute('href')",
                        "b.html#x",
                        "tel:+100"),
                shown("level", List.of("=2"), List.of("=4"), "e.tagName", "H2", "H4"),
                css(
                        "spacing",
                        List.of(".top.value=8", ".right.value=16", ".bottom.value=8", ".left.value=16"),
                        List.of(".top.value=2", ".left.value=1", ".left.unit=rem"),
                        "padding",
                        "8px 16px",
                        "2px 16px 8px"),
                css(
                        "border",
                        List.of(".style=dashed", ".width.value=2", ".color=#00ff00"),
                        List.of(".width.value=5", ".color=#ff0000"),
                        "borderTop",
                        "2px dashed rgb(0, 255, 0)",
                        "5px dashed rgb(255, 0, 0)"),
                css(
                        "shadow",
                        List.of(".y.value=4", ".color=#000000"),
                        List.of(".y.value=9", ".inside=true"),
                        "boxShadow",
                        "rgb(0, 0, 0) 0px 4px 6px 0px",
                        "rgb(0, 0, 0) 0px 9px 6px 0px inset"));
    }

    private static byte[] picture() throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        ImageIO.write(new java.awt.image.BufferedImage(8, 4, java.awt.image.BufferedImage.TYPE_INT_RGB), "png", out);
        return out.toByteArray();
    }

    @BeforeAll
    static void aThemeThatReadsEverySetting() throws IOException {
        String html =
                """
        <!doctype html><title>Kinds</title><link rel=stylesheet href="css/a.css">
        <p id=color>c<p id=background>b<p id=gradient>g<p id=picture>p<p id=length>l<p id=number>n
        <div style="width:600px"><p id=percentage>%</div><p id=choice>c<p id=yes-no>y<p id=spacing>s<p id=border>b<p id=shadow>s
        <video class=video data-setting-src="my-video"></video><p class=line data-setting-text=my-line>x</p><p class=text data-setting-text='my-text'>x</p>
        <a class=link data-setting-href=my-link href=a.html>x</a><h3 class="level" data-setting-level=my-level>x</h3>
        <p class=yes-no data-setting-show=my-yes-no>now and then</p>
        """;
        String css =
                "p { width: auto } #color { color: var(--my-color, red) } #background { background: var(--my-background) } #gradient { background: var(--my-gradient) }"
                        + " #picture { background-image: var(--my-picture, none) } #length { width: var(--my-length) } #number { opacity: var(--my-number) }"
                        + " #percentage { width: var(--my-percentage) } #choice { text-align: var(--my-choice) } #yes-no { position: var(--my-yes-no) }"
                        + " #spacing { padding: var(--my-spacing) } #border { border: var(--my-border) } #shadow { box-shadow: var(--my-shadow) }";
        TreeMap<String, byte[]> files = new TreeMap<>();
        files.put("index.html", html.getBytes(StandardCharsets.UTF_8));
        files.put("b.html", "<!doctype html><title>B</title>".getBytes(StandardCharsets.UTF_8));
        files.put("css/a.css", css.getBytes(StandardCharsets.UTF_8));
        for (String name : List.of("a", "b")) {
            files.put("img/" + name + ".png", picture());
            files.put("film/" + name + ".mp4", new byte[] {0});
        }
        Path zip = folder.resolve("kinds.zip");
        try (var out = Files.newOutputStream(zip)) {
            ThemeZip.write(org.calmpalette.core.theme.ThemeFiles.of(files), out);
        }
        Running running = Running.get();
        page = running.maker();
        Running.bringIn(page, running.address, zip);
        theme = page.url().replaceAll("/survey.*", "");
    }

    @AfterAll
    static void closeWindows() {
        Browsers.closeAll();
    }

    private static void enter(String prefix, List<String> fields) {
        for (String field : fields) {
            String[] pair = field.split("=", 2);
            String name = pair[0].startsWith("a.") ? pair[0] : prefix + pair[0];
            String script =
                    "([name, value]) => { const all = [...document.querySelectorAll(`#card [name=\"${name}\"]`)];"
                            + " const radio = all.find(e => e.type === 'radio' && e.value === value); const field = radio || all[0];"
                            + " if (radio) radio.checked = true; else field.value = value; field.dispatchEvent(new Event('input', {bubbles: true})); return field.value; }";
            assertThat(page.evaluate(script, List.of(name, pair[1]))).as(name).isEqualTo(pair[1]);
        }
    }

    @ParameterizedTest
    @MethodSource("kinds")
    @Order(1)
    void isMadeDiffersOnPhonesAndShowsInTheBrowser(Kind kind) {
        page.navigate(theme + "/settings");
        page.click("text=New setting");
        page.click(".kinds a[hx-get$='kind=" + kind.name() + "']");
        page.waitForSelector(
                "#card input[name=kind][value=" + kind.name() + "]",
                new Page.WaitForSelectorOptions()
                        .setState(com.microsoft.playwright.options.WaitForSelectorState.ATTACHED));
        page.fill("#f-key", "my-" + kind.name());
        page.fill("#f-label", "My " + kind.name());
        enter("v", kind.enter());
        page.click("text=Make it a setting");
        page.waitForURL("**/settings?key=my-" + kind.name());
        enter("b.phone", List.of(".how=own"));
        // A band starts from the default; what is entered for it differs.
        enter("b.phone", kind.phone());
        page.click("#card >> text=Save");
        page.waitForSelector("#notice >> text=phone ");
        List<Frame> frames = Running.frames(page);
        assertThat(seen(frames.get(2), kind)).as("in a window of 1440 px").isEqualTo(kind.wide());
        assertThat(seen(frames.get(0), kind)).as("in a window of 390 px").isEqualTo(kind.narrow());
        if (kind.name().equals("yes-no")) {
            String count = "[...document.querySelectorAll('p.yes-no')].filter(e => e.getClientRects().length).length";
            assertThat(Arrays.asList(
                            frames.get(2).evaluate(count), frames.get(0).evaluate(count)))
                    .containsExactly(1, 0);
        }
    }

    /**
     * The draft as its owner sees it, the live site and the files on a server that knows nothing of us show the same of every kind, in both
     * windows, and a film is there under the same conditions.
     */
    @Test
    @Order(2)
    void whatVisitorsGetIsWhatWasPreviewedOfEveryKind() throws Exception {
        Running running = Running.get();
        Client maker = new Client(running.address).signedIn("ida");
        String name = running.newOwner();
        String called = "Kinds " + System.nanoTime();
        String at = theme.replace(running.address, "");
        assertThat(maker.post(at + "/sites", "name", called, "whose", "owner", "owner", name)
                        .statusCode())
                .isEqualTo(302);
        String slug = called.toLowerCase(Locale.ROOT).replace(' ', '-');
        Client owner = new Client(running.address).signedIn(name);
        String preview =
                owner.page("/sites/" + slug).select("iframe[data-width]").attr("src");
        assertThat(owner.post("/sites/" + slug + "/go-live").statusCode()).isEqualTo(302);
        String id = running.bean(JdbcClient.class)
                .sql("select id from site where slug = :slug")
                .param("slug", slug)
                .query(String.class)
                .single();
        Path files = folder.resolve("handed-over");
        Path zip = folder.resolve("handed-over.zip");
        Files.write(zip, maker.get(at + "/handover.zip?site=" + id).body().getBytes(StandardCharsets.ISO_8859_1));
        TreeMap<String, byte[]> handed = new TreeMap<>();
        ThemeZip.read(zip, "handed-over.zip", handed::put, (done, total, path) -> {});
        for (Map.Entry<String, byte[]> file : handed.entrySet()) {
            Files.createDirectories(files.resolve(file.getKey()).getParent());
            Files.write(files.resolve(file.getKey()), file.getValue());
        }
        HttpServer plain = HttpServer.create(new InetSocketAddress("127.0.0.1", 0), 0);
        plain.createContext("/", exchange -> {
            Path file = files.resolve(exchange.getRequestURI().getPath().substring(1));
            byte[] bytes = Files.isRegularFile(file) ? Files.readAllBytes(file) : new byte[0];
            exchange.getResponseHeaders()
                    .add(
                            "Content-Type",
                            Optional.ofNullable(Files.probeContentType(file)).orElse("text/plain"));
            exchange.sendResponseHeaders(bytes.length > 0 ? 200 : 404, bytes.length > 0 ? bytes.length : -1);
            exchange.getResponseBody().write(bytes);
            exchange.close();
        });
        plain.start();
        try {
            List<String> places = List.of(
                    preview.startsWith("http") ? preview : running.address + preview,
                    running.address + "/at/" + slug + "/",
                    "http://127.0.0.1:" + plain.getAddress().getPort() + "/index.html");
            int compared = 0;
            for (String place : places) {
                for (int width : new int[] {1440, 390}) {
                    Page visitor = running.visitor(width, 800);
                    visitor.navigate(place);
                    for (Kind kind : kinds().toList()) {
                        assertThat(seen(visitor.mainFrame(), kind))
                                .as(kind.name() + " at " + width + " px, " + place)
                                .isEqualTo(width == 390 ? kind.narrow() : kind.wide());
                        compared++;
                    }
                    assertThat(
                                    visitor.evaluate(
                                            "() => [...document.querySelectorAll('video')].filter(v => v.getClientRects().length).map(v => [v.autoplay, v.loop, v.controls, v.preload].join(' ')).join('|')"))
                            .as("the film, " + place)
                            .isEqualTo("false false false metadata");
                    visitor.close();
                }
            }
            assertThat(compared).isEqualTo(6 * (int) kinds().count());
        } finally {
            plain.stop(0);
        }
    }

    /** What the browser computes, with addresses cut to the file's name and without what every background has. */
    private static String seen(Frame frame, Kind kind) {
        return String.valueOf(frame.evaluate(kind.asked()))
                .replaceAll("url\\(\"[^\"]*/([^\"/]+)\"\\)", "$1")
                .replace(" repeat scroll 0% 0% / auto padding-box border-box", "")
                .replaceAll(" no-repeat scroll 50% 50% / (\\w+) padding-box border-box", " $1")
                .replaceAll("rgba\\(0, 0, 0, 0\\) ", "");
    }
}

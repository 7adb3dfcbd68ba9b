package org.calmpalette.app;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.BoundingBox;
import com.microsoft.playwright.options.FilePayload;
import java.awt.Color;
import java.awt.Graphics2D;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.net.URI;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import javax.imageio.ImageIO;
import org.calmpalette.app.storage.ContentStore;
import org.calmpalette.core.picture.HostilePictures;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.springframework.jdbc.core.simple.JdbcClient;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** An owner brings a picture: it is made fit, shows, goes live and along with the site, and is never the theme's or another site's. */
class SitePicturesTest {
    private static final String PALETTE =
            """
            {"name": "Quay", "places": [{"key": "top", "label": "Top"}], "settings": [
              {"key": "photo", "label": "Photo", "place": "top", "kind": "picture", "default": "a.png", "allowed": {"leastWidth": 300, "shape": {"from": 2, "to": 2}}},
              {"key": "behind", "label": "Behind", "place": "top", "kind": "background", "default": {"color": "#ffffff", "picture": "a.png", "repeat": "no-repeat", "position": "center bottom", "size": "cover", "attachment": "scroll", "overlay": "#000000", "strength": 0}}]}""";

    private final Running running = Running.get();
    private Client maker;
    private Client owner;
    private String name;
    private String theme;
    private String site;

    @BeforeEach
    void aSite() throws IOException {
        TreeMap<String, byte[]> files = new TreeMap<>(Map.of(
                "index.html",
                bytes(
                        "<!doctype html><html lang=en><head><meta name=viewport content=width=device-width><title>Quay</title><link rel=stylesheet href=a.css></head>"
                                + "<body><main><h1>Boats</h1><img width=300 data-setting-src=photo src=a.png alt='A quay'></main></body></html>"),
                "a.css",
                bytes("main { background: var(--behind) }"),
                "palette.json",
                bytes(PALETTE),
                "a.png",
                picture("png", 400, 200)));
        maker = new Client(running.address).signedIn("ida");
        theme = maker.bringIn("quay.zip", HostileThemesInTheApplicationTest.zip(files));
        name = running.newOwner();
        site = site(name);
        owner = new Client(running.address).signedIn(name);
    }

    private String site(String whose) {
        String called = "Quay " + System.nanoTime();
        assertThat(maker.post(theme + "/sites", "name", called, "whose", "owner", "owner", whose)
                        .statusCode())
                .isEqualTo(302);
        return "/sites/" + called.toLowerCase().replace(' ', '-');
    }

    private static byte[] bytes(String text) {
        return text.getBytes(StandardCharsets.UTF_8);
    }

    /** The left half red, the right half blue. */
    private static byte[] picture(String format, int width, int height) throws IOException {
        BufferedImage image = new BufferedImage(width, height, BufferedImage.TYPE_INT_RGB);
        Graphics2D g = image.createGraphics();
        g.setColor(Color.RED);
        g.fillRect(0, 0, width / 2, height);
        g.setColor(Color.BLUE);
        g.fillRect(width / 2, 0, width, height);
        g.dispose();
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        ImageIO.write(image, format, out);
        return out.toByteArray();
    }

    private HttpResponse<String> bring(byte[] picture, String key, String field, String... more) {
        List<String> fields = new ArrayList<>(List.of("key", key, "field", field));
        fields.addAll(List.of(more));
        return owner.upload(site + "/pictures", "Our harbour.jpg", picture, fields.toArray(String[]::new));
    }

    private static String path(HttpResponse<String> brought) {
        assertThat(brought.statusCode()).as(brought.body()).isEqualTo(200);
        return JsonMapper.shared().readTree(brought.body()).get("path").asString();
    }

    private static byte[] file(Client client, String path) {
        HttpResponse<String> answer = client.get(path);
        return answer.statusCode() == 200 ? answer.body().getBytes(StandardCharsets.ISO_8859_1) : new byte[0];
    }

    @Test
    void itIsMadeFitGoesLiveAndBelongsToTheSiteAlone() throws IOException {
        HttpResponse<String> answer = bring(picture("jpg", 900, 900), "photo", "v", "x", "0.5", "y", "0");
        String path = path(answer);
        assertThat(path).matches("own-pictures/[0-9a-f]{16}/our-harbour\\.webp");
        assertThat(answer.body()).contains("900 by 450 pixels", "cut to the shape");
        String unused = path(bring(picture("jpg", 800, 400), "photo", "v"));
        String behind = path(bring(picture("jpg", 333, 222), "behind", "v.picture"));
        assertThat(owner.post(site + "/choose", "key", "photo", "v", path).statusCode())
                .isEqualTo(200);
        // The preview of the draft has all of them, visitors get what is chosen.
        String base = JsonMapper.shared()
                .readTree(answer.body())
                .get("address")
                .asString()
                .replace(path, "");
        String frame = base.replaceFirst("^https?://[^/]+", running.address);
        assertThat(ImageIO.read(new ByteArrayInputStream(file(owner, frame + path)))
                        .getHeight())
                .isEqualTo(450);
        assertThat(file(owner, frame + unused)).isNotEmpty();
        assertThat(owner.post(site + "/go-live").statusCode()).isEqualTo(302);
        String live = site.replace("/sites/", "/at/") + "/";
        Client visitor = new Client(running.address);
        assertThat(visitor.get(live).body()).contains("src=\"" + path + "\"");
        assertThat(file(visitor, live + path)).isNotEmpty();
        assertThat(visitor.get(live + unused).statusCode()).isEqualTo(404);
        assertThat(visitor.get(live + behind).statusCode()).isEqualTo(404);
        // The next edition says what it made otherwise, has a word to be found by, and is there as files.
        owner.post(site + "/choose", "key", "photo", "v", unused);
        String review = owner.get(site + "/review").body();
        assertThat(owner.post(
                                site + "/go-live",
                                "base",
                                review.replaceAll("(?s).*name=\"base\" value=\"(\\d+)\".*", "$1"),
                                "snapshot",
                                review.replaceAll("(?s).*name=\"snapshot\"\\s+value=\"(\\d+)\".*", "$1"),
                                "word",
                                "for the regatta")
                        .statusCode())
                .isEqualTo(302);
        assertThat(owner.get(site + "/editions").body())
                .contains("for the regatta", "Photo: our-harbour.webp", "Edition 2", "/frame/e")
                .doesNotContain("Behind: ");
        assertThat(names(owner, site + "/live.zip"))
                .contains(unused, "palette.css")
                .doesNotContain(path, behind);
        assertThat(stranger().get(site + "/live.zip").statusCode()).isEqualTo(404);
        owner.post(site + "/editions/1/take-back");
        assertThat(owner.get(site + "/editions").body()).contains("Edition 1 again");
        assertThat(owner.post(site + "/go-live", "base", "1", "snapshot", "1", "word", "x".repeat(201))
                        .statusCode())
                .isEqualTo(422);
        // The handover of the site has it, the one of the theme has not, nor has another site of the theme.
        String id = running.bean(JdbcClient.class)
                .sql("select id from site where slug = :slug")
                .param("slug", site.replace("/sites/", ""))
                .query(String.class)
                .single();
        assertThat(names(theme + "/handover.zip?site=" + id)).contains(path).doesNotContain(unused);
        assertThat(names(theme + "/handover.zip")).noneMatch(n -> n.startsWith("own-pictures"));
        assertThat(maker.get(theme + "/pictures").body()).doesNotContain("own-pictures");
        String other = running.newOwner();
        String elsewhere = site(other);
        Client stranger = new Client(running.address).signedIn(other);
        HttpResponse<String> refused = stranger.post(elsewhere + "/choose", "key", "photo", "v", path);
        assertThat(refused.statusCode()).isEqualTo(422);
        assertThat(stranger.get(elsewhere + "/pictures").body()).contains("You have brought none yet");
        assertThat(stranger.get(site + "/pictures").statusCode()).isEqualTo(404);
        // What nothing uses is swept; these are used, by the site alone.
        running.bean(JdbcClient.class)
                .sql("update content set kept_at = kept_at - interval 1 day")
                .update();
        running.bean(ContentStore.class).sweep(120);
        assertThat(file(owner, frame + unused)).isNotEmpty();
        assertThat(file(visitor, live + path)).isNotEmpty();
    }

    private Client stranger() {
        return new Client(running.address).signedIn(running.newOwner());
    }

    private List<String> names(String zip) throws IOException {
        return names(maker, zip);
    }

    private static List<String> names(Client who, String zip) throws IOException {
        List<String> names = new ArrayList<>();
        try (ZipInputStream in = new ZipInputStream(new ByteArrayInputStream(file(who, zip)))) {
            for (ZipEntry e = in.getNextEntry(); e != null; e = in.getNextEntry()) {
                names.add(e.getName());
            }
        }
        assertThat(names).contains("index.html");
        return names;
    }

    /** Elements: html 1, head 2, meta 3, title 4, link 5, body 6, main 7, h1 8, img 9. */
    private static final String MEASURES =
            """
            {"format":"calm-measures/1","page":"index.html","windowHeight":800,"from":320,"to":2560,"unsure":[],"height":[[320,500]],
             "boxes":{"1":[[320,0,0,320,500],[2560,0,0,2560,500]],"6":[[320,8,8,304,480],[2560,8,8,2544,480]],"7":[[320,8,8,304,480],[2560,8,8,2544,480]],"8":[[320,8,20,304,40],[2560,8,20,2544,40]]},
             "lines":{"8":[[320,8,20,90,40],[2560,8,20,90,40]]}}""";

    /** What is brought is judged by the words that stand on it, and the least shade that helps is exact to a step. */
    @Test
    void itIsToldHowWellWordsReadOnIt() throws IOException {
        measured();
        BufferedImage black = new BufferedImage(600, 600, BufferedImage.TYPE_INT_RGB);
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        ImageIO.write(black, "jpg", out);
        String path = path(bring(out.toByteArray(), "behind", "v.picture"));
        JsonNode bare = behind(path, 0);
        assertThat(bare.get("known").asBoolean())
                .as("it moves no box, so what was measured holds")
                .isTrue();
        assertThat(bare.get("worst").get("ratio").asDouble()).isLessThan(1.1);
        int shade = bare.get("shade").asInt();
        assertThat(behind(path, shade).get("worst").get("ratio").asDouble())
                .isGreaterThanOrEqualTo(
                        behind(path, shade).get("worst").get("needed").asDouble());
        assertThat(behind(path, shade - 1).get("worst").get("ratio").asDouble())
                .isLessThan(behind(path, shade).get("worst").get("needed").asDouble());
        String id = running.bean(JdbcClient.class)
                .sql("select id from site where slug = :slug")
                .param("slug", site.replace("/sites/", ""))
                .query(String.class)
                .single();
        String called = owner.get(site).body().replaceAll("(?s).*<h1[^>]*>The look of ([^<]+)</h1>.*", "$1");
        assertThat(maker.post(theme + "/sites/" + id + "/remove", "confirmed", called)
                        .statusCode())
                .isEqualTo(302);
        assertThat(id(path)).as("what was brought goes with the site").isEmpty();
    }

    /**
     * What lies near the upper edge of a square is cut away where the part is wide, as the picture stands at the bottom; on a phone all of
     * its height is seen. It is marked on a phone with a finger's events, told with the bands, and mended by one press.
     */
    @Test
    void whatMustStayInSightIsMarkedToldAndMended() throws IOException {
        measured();
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        // Another picture than that of other tests: one and the same has one path.
        ImageIO.write(new BufferedImage(601, 601, BufferedImage.TYPE_INT_RGB), "jpg", out);
        HttpResponse<String> brought = bring(out.toByteArray(), "behind", "v.picture");
        String path = path(brought);
        assertThat(behind(path, 0).get("lost").isNull()).isTrue();
        String mark = JsonMapper.shared().readTree(brought.body()).get("mark").asString();
        String form = mark.replaceFirst("#picture-(\\d+)-mark", "/$1/subject");
        assertThat(owner.post(form, "left", "95", "top", "5", "width", "20", "height", "10")
                        .body())
                .contains("does not lie inside of the picture", "from 0 to 100");
        assertThat(owner.post(form, "left", "1e9999999", "top", "5", "width", "x", "height", "10")
                        .statusCode())
                .isEqualTo(422);
        assertThat(stranger()
                        .post(form, "left", "40", "top", "5", "width", "20", "height", "10")
                        .statusCode())
                .isEqualTo(404);
        Page page = running.signedIn(name, 390, 844);
        page.navigate(running.address + mark);
        Locator image = page.locator("[data-marking][open] [data-image]");
        image.scrollIntoViewIfNeeded();
        page.waitForCondition(
                () -> (boolean) image.evaluate("i => i.complete && i.naturalWidth > 0") && image.boundingBox() != null);
        BoundingBox box = image.boundingBox();
        page.mouse().move(box.x + box.width * 0.4, box.y + box.height * 0.05);
        page.mouse().down();
        page.mouse().move(box.x + box.width * 0.6, box.y + box.height * 0.15);
        page.mouse().up();
        // The box has the focus then, and keys move and size it.
        page.keyboard().press("ArrowRight");
        page.keyboard().press("Shift+ArrowDown");
        String left = page.inputValue("[data-marking][open] [name=left]");
        assertThat(Double.parseDouble(left)).isBetween(38.0, 43.0);
        page.click("[data-marking][open] [data-keep]");
        page.waitForSelector("text=Marked what must stay in sight of “Our harbour.jpg”");
        assertThat(page.inputValue("[name=left]")).isEqualTo(left);
        JsonNode lost = behind(path, 0).get("lost");
        assertThat(lost.get("said").asString()).contains("not seen on: phone (in part), tablet, desktop.");
        assertThat(lost.get("position").asString()).isEqualTo("center top");
        page.navigate(running.address + site);
        Locator question = page.locator("[data-key=behind]");
        question.locator("label:has([value='" + path + "'])").click();
        question.locator("[data-lost-sight] button").click();
        assertThat(question.locator("[name='v.position']").inputValue()).isEqualTo("center top");
        page.waitForCondition(() -> question.locator("[data-lost-sight]").count() == 0);
        // A sight that is marked no more is not asked about.
        assertThat(owner.post(form, "remove", "true").statusCode()).isEqualTo(302);
        assertThat(behind(path, 0).get("lost").isNull()).isTrue();
    }

    private void measured() throws IOException {
        assertThat(maker.send(HttpRequest.newBuilder(
                                        URI.create(running.address + theme + "/measures?page=index.html&base="
                                                + maker.base(theme) + "&_csrf=" + maker.token()))
                                .POST(HttpRequest.BodyPublishers.ofString(MEASURES))
                                .build())
                        .statusCode())
                .isEqualTo(204);
    }

    private JsonNode behind(String path, int shade) {
        return JsonMapper.shared()
                .readTree(owner.post(
                                site + "/behind",
                                "key",
                                "behind",
                                "v.color",
                                "#ffffff",
                                "v.picture",
                                path,
                                "v.repeat",
                                "no-repeat",
                                "v.position",
                                "center bottom",
                                "v.size",
                                "cover",
                                "v.attachment",
                                "scroll",
                                "v.overlay",
                                "#ffffff",
                                "v.strength",
                                String.valueOf(shade),
                                "page",
                                "index.html",
                                "width",
                                "1280",
                                "least",
                                "true")
                        .body());
    }

    /** Many at once wait for their turn, and each is there afterwards. */
    @Test
    void manyAtOnceAreAllThere() throws Exception {
        String token = owner.token();
        List<Callable<Integer>> calls = new ArrayList<>();
        for (int i = 0; i < 12; i++) {
            byte[] one = picture("jpg", 800 + 20 * i, 400 + 10 * i);
            calls.add(() -> owner.upload(site + "/pictures", "p.jpg", one, "key", "photo", "field", "v", "_csrf", token)
                    .statusCode());
        }
        ExecutorService threads = Executors.newFixedThreadPool(calls.size());
        try {
            for (Future<Integer> status : threads.invokeAll(calls)) {
                assertThat(status.get()).isEqualTo(200);
            }
        } finally {
            threads.shutdownNow();
        }
        assertThat(owner.get(site + "/pictures").body().split("class=\"thumb\"", -1))
                .hasSize(12 + 1);
    }

    @Test
    void whatIsTakenOffTheShelfStaysWhereItIsChosen() throws IOException {
        String path = path(bring(picture("jpg", 800, 400), "photo", "v"));
        assertThat(path(bring(picture("jpg", 800, 400), "photo", "v")))
                .as("the same once more")
                .isEqualTo(path);
        String unused = path(bring(picture("jpg", 700, 350), "photo", "v"));
        owner.post(site + "/choose", "key", "photo", "v", path);
        String shelf = owner.get(site + "/pictures").body();
        assertThat(shelf).contains("in your draft: Photo", "not used in your draft", "800 by 400 pixels");
        for (String id : List.of(id(path), id(unused))) {
            assertThat(owner.post(site + "/pictures/" + id + "/remove").statusCode())
                    .isEqualTo(302);
        }
        assertThat(owner.get(site + "/pictures").body()).contains("You have brought none yet");
        // What nothing shows can be put back, until its room is needed; what a draft shows never goes.
        assertThat(owner.get(site + "/pictures").body()).contains("Put it back: Our harbour.jpg");
        owner.post(site + "/pictures/" + id(unused) + "/put-back");
        assertThat(owner.get(site).body()).contains(unused);
        owner.post(site + "/pictures/" + id(unused) + "/remove");
        size(path, 20_000_000);
        size(unused, 45_000_000);
        path(bring(picture("jpg", 900, 450), "photo", "v"));
        assertThat(id(unused)).as("nothing names it, and its room is needed").isEmpty();
        assertThat(id(path)).isNotEmpty();
        assertThat(owner.get(site).body()).contains(path).doesNotContain(unused);
        // Chosen otherwise it is not offered any more, and undoing still finds it.
        owner.post(site + "/choose", "key", "photo", "v", "a.png");
        assertThat(owner.get(site).body()).doesNotContain(path);
        String draft = owner.get(site).body().replaceAll("(?s).*undo\\?base=(\\d+).*", "$1");
        assertThat(owner.post(site + "/undo", "base", draft).statusCode()).isEqualTo(200);
        assertThat(owner.get(site + "/choices.json").body()).contains(path);
        assertThat(owner.get(site).body()).contains(path).doesNotContain("no longer allowed");
    }

    private void size(String path, int bytes) {
        running.bean(JdbcClient.class)
                .sql("update site_upload set size = :size where id = :id")
                .param("size", bytes)
                .param("id", id(path))
                .update();
    }

    private String id(String path) {
        return running.bean(JdbcClient.class)
                .sql("select id from site_upload where path = :path order by id desc limit 1")
                .param("path", path)
                .query(String.class)
                .optional()
                .orElse("");
    }

    @Test
    void whatCannotBeUsedIsRefusedInWordsAndKeepsNothing() throws IOException {
        assertThat(bring(picture("jpg", 200, 100), "photo", "v").body())
                .contains("Here it needs at least 300 in width");
        assertThat(bring(
                                bytes("<svg xmlns='http://www.w3.org/2000/svg'><script>1</script></svg>"),
                                "behind",
                                "v.picture")
                        .body())
                .contains("in the format SVG");
        assertThat(bring(new byte[0], "photo", "v").body()).contains("is empty");
        for (String field : List.of("v.picture", "v.0.src", "v.x", "w.y.z")) {
            assertThat(bring(picture("jpg", 600, 300), "photo", field).statusCode())
                    .as(field)
                    .isEqualTo(404);
        }
        assertThat(bring(picture("jpg", 600, 300), "none", "v").statusCode()).isEqualTo(404);
        int tried = 0;
        for (var hostile : HostilePictures.all().entrySet()) {
            if (tried++ % 4 == 0) {
                HttpResponse<String> answer = owner.upload(
                        site + "/pictures", hostile.getKey(), hostile.getValue().get(), "key", "photo", "field", "v");
                assertThat(answer.statusCode()).as(hostile.getKey()).isEqualTo(422);
            }
        }
        assertThat(owner.get(site + "/pictures").body()).contains("You have brought none yet");
        path(bring(picture("jpg", 600, 300), "photo", "v"));
        running.bean(JdbcClient.class)
                .sql("update site_upload set size = 59999999 where site_id = (select id from site where slug = :slug)")
                .param("slug", site.replace("/sites/", ""))
                .update();
        HttpResponse<String> full = bring(picture("jpg", 660, 330), "photo", "v");
        assertThat(full.statusCode()).isEqualTo(422);
        assertThat(full.body()).contains("more than 60 MB");
        assertThat(owner.get(site + "/pictures").body()).contains("59.9 MB of 60 MB");
    }

    @ParameterizedTest
    @CsvSource({"1280, 800", "390, 844"})
    void anOwnerChoosesWhichPartStaysAndSeesIt(int width, int height) throws IOException {
        Page page = running.signedIn(name, width, height);
        page.navigate(running.address + site);
        Running.settled(page);
        String bring = "[data-key=photo] calm-bring";
        page.setInputFiles(
                bring + " input[type=file]", new FilePayload("small.jpg", "image/jpeg", picture("jpg", 250, 125)));
        page.waitForSelector(
                bring + " .state-breaks >> text=It has 250 by 125 pixels. Here it needs at least 300 in width");
        page.setInputFiles(
                bring + " input[type=file]", new FilePayload("wide.jpg", "image/jpeg", picture("jpg", 1600, 400)));
        page.waitForSelector(bring + " canvas");
        // The slide has the focus: End goes to the right, where it is blue.
        page.keyboard().press("End");
        page.waitForCondition(() -> "1000".equals(page.inputValue(bring + " input[type=range]")));
        assertThat(Axe.violations(page, "#slip")).isEmpty();
        page.locator(bring).getByText("Use this part").click();
        page.waitForSelector(bring + " >> text=It is 800 by 400 pixels");
        page.waitForSelector("#state [data-key=u]:not([disabled])");
        page.waitForCondition(() -> String.valueOf(
                        Running.frames(page)
                                .get(0)
                                .evaluate(
                                        "() => { const i = document.querySelector('img'); return i.complete && i.naturalWidth > 0 && i.currentSrc; }"))
                .contains("/wide.webp"));
        assertThat(page.locator("[data-key=photo] .pictures input:checked").getAttribute("value"))
                .matches("own-pictures/[0-9a-f]{16}/wide\\.webp");
        // Dropped on the pictures of a background, it is taken as it is.
        page.evaluate(
                "async () => { const c = new OffscreenCanvas(320, 200); c.getContext('2d').fillRect(0, 0, 320, 200);"
                        + " const file = new File([await c.convertToBlob()], 'dropped.png', {type: 'image/png'});"
                        + " const data = new DataTransfer(); data.items.add(file);"
                        + " document.querySelector('[data-key=behind] .pictures').dispatchEvent(new DragEvent('drop', {dataTransfer: data, bubbles: true, cancelable: true})); }");
        page.waitForSelector("[data-key=behind] calm-bring >> text=It is 320 by 200 pixels");
        page.waitForCondition(() -> owner.get(site + "/choices.json").body().contains("/dropped.webp"));
        page.reload();
        Running.settled(page);
        assertThat(page.locator("[data-key=behind] .pictures input:checked").getAttribute("value"))
                .matches("own-pictures/[0-9a-f]{16}/dropped\\.webp");
    }
}

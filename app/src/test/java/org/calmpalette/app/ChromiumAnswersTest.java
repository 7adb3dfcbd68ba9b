package org.calmpalette.app;

import static org.assertj.core.api.Assertions.assertThat;

import com.google.gson.JsonArray;
import com.google.gson.JsonElement;
import com.google.gson.JsonObject;
import com.microsoft.playwright.CDPSession;
import com.microsoft.playwright.Page;
import java.awt.image.BufferedImage;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.DoubleStream;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.calmpalette.core.Generated;
import org.calmpalette.core.chromium.Answers;
import org.calmpalette.core.chromium.BackgroundsTest;
import org.calmpalette.core.chromium.ColorsTest;
import org.calmpalette.core.chromium.ComputedStyleTest;
import org.calmpalette.core.chromium.ConditionsTest;
import org.calmpalette.core.chromium.GradientsTest;
import org.calmpalette.core.chromium.GroundsTest;
import org.calmpalette.core.chromium.MadeValuesTest;
import org.calmpalette.core.chromium.OutsideSheets;
import org.calmpalette.core.chromium.PagePartsTest;
import org.calmpalette.core.chromium.SelectorsTest;
import org.calmpalette.core.chromium.SvgTest;
import org.calmpalette.core.chromium.WebpTest;
import org.calmpalette.core.usage.ColorFamilyTest;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/**
 * Asks Chromium what core's tests compare themselves with, and confirms the recorded files; with {@code -Dcalm.record=true} it
 * writes them.
 */
class ChromiumAnswersTest {
    private static final boolean RECORD = Boolean.getBoolean("calm.record");

    @TempDir
    Path folder;

    /** One of so many is asked about again where the browser is the very one that gave the answers. */
    private static final int SAMPLE = 5;

    /**
     * Whether the browser is asked about the nth of many: of all where its version is not the one that gave the recorded answers, when they
     * are recorded, and in a long run; else of a sample, which tells a file that was not made from these questions.
     */
    private static boolean isAsked(int n) {
        return RECORD
                || Generated.LONG
                || n % SAMPLE == 0
                || !Answers.givenBy().equals(Browsers.get().version());
    }

    /** The cases that are asked about. */
    private static <T> Iterable<T> asked(Stream<T> cases) {
        List<T> all = cases.toList();
        return IntStream.range(0, all.size())
                .filter(ChromiumAnswersTest::isAsked)
                .mapToObj(all::get)
                .toList();
    }

    /** @param answers none at all to a question that was not asked, and null among answers to several */
    private static void settle(String name, Map<String, List<String>> answers) {
        if (RECORD) {
            Answers.write(name, answers);
            Answers.givenBy(Browsers.get().version());
            return;
        }
        Answers recorded = Answers.read(name);
        answers.forEach((question, now) -> {
            List<String> then = recorded.to(question);
            assertThat(now).as(question).hasSameSizeAs(then);
            List<String> differ = new ArrayList<>();
            for (int i = 0; i < now.size(); i++) {
                if (now.get(i) != null && !Answers.same(now.get(i), then.get(i))) {
                    differ.add("answer " + i + ": recorded " + then.get(i) + " | now " + now.get(i));
                }
            }
            assertThat(differ).as(question + " in " + Browsers.get().version()).isEmpty();
        });
    }

    @Test
    @SuppressWarnings("unchecked")
    void computedStyles() throws IOException {
        Map<String, List<String>> answers = new LinkedHashMap<>();
        Page browser = Browsers.page(800, ComputedStyleTest.HEIGHT);
        for (ComputedStyleTest.Case c : asked(ComputedStyleTest.cases())) {
            Path own = folder.resolve(c.name().replace(' ', '-'));
            for (Map.Entry<String, byte[]> f : c.files().entrySet()) {
                Path file = own.resolve(f.getKey());
                Files.createDirectories(file.getParent());
                Files.write(file, f.getValue());
            }
            browser.setViewportSize(c.width(), ComputedStyleTest.HEIGHT);
            browser.navigate(own.resolve("index.html").toUri().toString());
            answers.put(c.question(), (List<String>) browser.evaluate(
                    // What is on its way from one value to another has got there first.
                    """
          ([names, base]) => document.getAnimations().forEach(a => { try { a.finish() } catch { a.cancel() } })
            || [...document.querySelectorAll('*')].map(e => [e.localName, ...[null, '::before', '::after'].flatMap(p => {
            const s = getComputedStyle(e, p); return names.map(n => s.getPropertyValue(n).replaceAll(base, '')) })].join('\\t'))""",
                    List.of(ComputedStyleTest.PROPERTIES, own.toUri().toString())));
        }
        settle("computed-style", answers);
    }

    /**
     * All parts of the ten sites taken (of three in each run), every setting changed by an owner: at three widths each element has what was chosen, which is
     * read by asking for the same once more in a style attribute, and most differ from what was there.
     */
    @Test
    @SuppressWarnings("unchecked")
    void whatOwnersChooseOfPartsIsWhatIsSeen() throws IOException {
        int changed = 0;
        int asked = 0;
        Page browser = Browsers.page(1440, 800);
        for (PagePartsTest.Changed site : PagePartsTest.changedByOwners(Generated.LONG ? 10 : 3)) {
            Map<String, Path> addresses = new LinkedHashMap<>();
            for (String state : List.of("before", "after")) {
                Path own = Files.createDirectories(folder.resolve(site.name() + state));
                addresses.put(state, own.resolve("index.html"));
                for (Map.Entry<String, byte[]> f : (state.equals("before") ? site.before() : site.after()).entrySet()) {
                    Files.write(own.resolve(f.getKey()), f.getValue());
                }
            }
            Map<Integer, List<List<Object>>> asks = new LinkedHashMap<>();
            for (int width : List.of(390, 820, 1440)) {
                List<List<Object>> rows = site.choices().stream()
                        .filter(c -> c.css().containsKey(width))
                        .map(c -> List.<Object>of(
                                c.at() - 1, c.property(), c.css().get(width)))
                        .toList();
                asks.put(width, rows);
            }
            // Each page is loaded once; no script of it knows of a width.
            Map<Integer, List<List<String>>> seen = new LinkedHashMap<>();
            for (Path address : addresses.values()) {
                browser.navigate(address.toUri().toString());
                // Another width is another value, at once.
                browser.evaluate(
                        "() => document.querySelectorAll('*').forEach(e => e.style.setProperty('transition', 'none', 'important'))");
                asks.forEach((width, rows) -> {
                    browser.setViewportSize(width, 800);
                    seen.computeIfAbsent(width, w -> new ArrayList<>()).add((List<String>) browser.evaluate(
                            """
                            rows => { const all = [...document.querySelectorAll('*')];
                              return rows.map(([at, property, css]) => { const e = all[at], s = getComputedStyle(e);
                                const is = s.getPropertyValue(property); e.style.setProperty(property, css, 'important');
                                const wanted = s.getPropertyValue(property); e.style.removeProperty(property);
                                return is + ' | ' + wanted }) }""",
                            rows));
                });
            }
            for (Map.Entry<Integer, List<List<Object>>> ask : asks.entrySet()) {
                List<List<String>> both = seen.get(ask.getKey());
                for (int i = 0; i < ask.getValue().size(); i++) {
                    String[] now = both.get(1).get(i).split(" \\| ");
                    assertThat(now[0])
                            .as(site.name() + ", " + ask.getKey() + " px, "
                                    + ask.getValue().get(i))
                            .isEqualTo(now[1]);
                    asked++;
                    changed += both.get(0).get(i).startsWith(now[0] + " |") ? 0 : 1;
                }
            }
        }
        assertThat(asked).isGreaterThan(Generated.LONG ? 200 : 60);
        assertThat(changed).isGreaterThan(asked * 3 / 4);
    }

    /** What core says of a published sheet that was turned from blue to green, asked of the browser: every element, every state. */
    @Test
    @SuppressWarnings("unchecked")
    void aBrandThatIsTurnedGreenLeavesNothingBlue() throws IOException {
        for (Map.Entry<String, byte[]> f : ColorFamilyTest.turnedGreen().entrySet()) {
            Files.write(folder.resolve(f.getKey()), f.getValue());
        }
        Page browser = Browsers.page(1280, 800);
        browser.navigate(folder.resolve("index.html").toUri().toString());
        browser.addStyleTag(new Page.AddStyleTagOptions().setContent("*{transition:none!important}"));
        CDPSession protocol =
                browser.context().newCDPSession(browser.context().pages().get(0));
        protocol.send("DOM.enable");
        protocol.send("CSS.enable");
        JsonObject all = new JsonObject();
        all.addProperty(
                "nodeId",
                protocol.send("DOM.getDocument")
                        .getAsJsonObject("root")
                        .get("nodeId")
                        .getAsInt());
        all.addProperty("selector", "body *");
        JsonArray nodes = protocol.send("DOM.querySelectorAll", all).getAsJsonArray("nodeIds");
        assertThat(nodes.size()).isGreaterThan(30);
        List<String> blue = new ArrayList<>();
        List<String> greens = new ArrayList<>();
        for (String states : List.of("", "hover", "focus,focus-visible", "active")) {
            JsonArray forced = new JsonArray();
            Stream.of(states.split(",")).filter(t -> !t.isEmpty()).forEach(forced::add);
            for (JsonElement node : nodes) {
                JsonObject force = new JsonObject();
                force.add("nodeId", node);
                force.add("forcedPseudoClasses", forced);
                protocol.send("CSS.forcePseudoState", force);
            }
            List<String> said = (List<String>)
                    browser.evaluate(
                            """
                    () => [...document.querySelectorAll('body *')].flatMap((e, i) => [null, '::before', '::after'].flatMap(p => {
                      const s = getComputedStyle(e, p);
                      return ['color', 'background-color', 'background-image', 'border-top-color', 'outline-color', 'box-shadow',
                        'text-decoration-color', 'fill', 'stroke'].map(n => e.className + (p ?? '') + ' ' + n + ' = ' + s.getPropertyValue(n)) }))""");
            said.stream()
                    .filter(t -> ColorFamilyTest.isInTheHueOf(ColorFamilyTest.BLUE, t.substring(t.indexOf(" = "))))
                    .forEach(t -> blue.add(states + ": " + t));
            said.stream()
                    .filter(t -> t.contains("background-image") && t.contains("svg") && t.contains("%2395c59f"))
                    .forEach(t -> greens.add(states + ": " + t));
        }
        assertThat(blue).isEmpty();
        // The thumb of a switch that has the focus is drawn in an address.
        assertThat(greens).anyMatch(t -> t.startsWith("focus"));
    }

    @Test
    @SuppressWarnings("unchecked")
    void selectors() {
        Map<String, List<String>> answers = new LinkedHashMap<>();
        Page browser = Browsers.page(800, 600);
        for (SelectorsTest.Case c : asked(SelectorsTest.cases())) {
            browser.setContent(c.html());
            answers.put(c.question(), (List<String>) browser.evaluate(
                    """
          list => { const all = [...document.querySelectorAll('*')]; const at = new Map(all.map((e, i) => [e, i]));
            return list.map(s => { try { return [...document.querySelectorAll(s)].map(e => at.get(e)).join(' ') } catch { return 'invalid' } }) }""",
                    SelectorsTest.selectors()));
        }
        answers.put(SelectorsTest.doubtfulQuestion(), (List<String>) browser.evaluate(
                "list => list.map(s => { try { document.querySelector(s); return 'valid' } catch { return 'invalid' } })",
                SelectorsTest.doubtful()));
        settle("selectors", answers);
    }

    @Test
    @SuppressWarnings("unchecked")
    void conditions() {
        Map<String, List<String>> answers = new LinkedHashMap<>();
        for (String window : ConditionsTest.WINDOWS) {
            Page page = Browsers.page(Integer.parseInt(window.split("x")[0]), Integer.parseInt(window.split("x")[1]));
            answers.put(ConditionsTest.question(window, ConditionsTest.MEDIA), (List<String>)
                    page.evaluate("list => list.map(q => String(matchMedia(q).matches))", ConditionsTest.MEDIA));
        }
        Page page = Browsers.page(800, 600);
        answers.put(ConditionsTest.question("supports", ConditionsTest.SUPPORTS), (List<String>)
                page.evaluate("list => list.map(c => String(CSS.supports(c)))", ConditionsTest.SUPPORTS));
        answers.put(ConditionsTest.question("values", ConditionsTest.VALUES), (List<String>) page.evaluate(
                "list => list.map(d => { const at = d.indexOf(': '); return String(CSS.supports(d.slice(0, at), d.slice(at + 2))) })",
                ConditionsTest.VALUES));
        settle("conditions", answers);
    }

    @Tag("generated")
    @Test
    @SuppressWarnings("unchecked")
    void madeValues() {
        List<String> all = MadeValuesTest.declarations();
        settle("values", Map.of(MadeValuesTest.question(all), (List<String>) Browsers.page(400, 300)
                .evaluate(
                        "list => list.map(d => { const at = d.indexOf(': '); return String(CSS.supports(d.slice(0, at), d.slice(at + 2))) })",
                        all)));
    }

    @Tag("generated")
    @Test
    @SuppressWarnings("unchecked")
    void colors() {
        Map<String, List<String>> answers = new LinkedHashMap<>();
        Page page = Browsers.page(400, 300);
        List<String> notations = ColorsTest.notations();
        answers.put(ColorsTest.question("notations", notations), (List<String>) page.evaluate(
                """
        list => list.map(c => { const e = document.createElement('p'); document.body.append(e); e.style.color = c;
          const s = e.style.color ? getComputedStyle(e).color : 'none'; e.remove(); return s })""",
                notations));
        for (String scheme : List.of("light", "dark")) {
            answers.put(ColorsTest.question("system, " + scheme, ColorsTest.SYSTEM), (List<String>) page.evaluate(
                    """
            ([list, scheme]) => list.map(c => { const e = document.createElement('p'); document.body.append(e); e.style.colorScheme = scheme;
              e.style.color = c; const s = e.style.color ? getComputedStyle(e).color : 'none'; e.remove(); return s })""",
                    List.of(ColorsTest.SYSTEM, scheme)));
        }
        page.addScriptTag(new Page.AddScriptTagOptions()
                .setContent(new String(
                        OutsideSheets.resource("/outside/colorjs-0.7.1.global.min.js"), StandardCharsets.UTF_8)));
        List<String> pairs = ColorsTest.pairs();
        answers.put(ColorsTest.question("colorjs 0.7.1", pairs), (List<String>) page.evaluate(
                """
        list => list.map(pair => { const [a, b] = pair.split(' '); const x = new Color(a);
          return [...x.to('oklab').coords, ...x.to('lab').coords, ...x.to('p3').coords, x.contrast(new Color(b), 'WCAG21')].map(v => v.toFixed(7)).join(' ') })""",
                pairs));
        settle("colors", answers);
    }

    /** Reads the tiles of generated backgrounds back from the pixels. */
    @Tag("generated")
    @Test
    void backgrounds() throws IOException {
        List<BackgroundsTest.Case> cases = BackgroundsTest.cases();
        List<String> answers = new ArrayList<>();
        int together = 100;
        Page browser = Browsers.page(1200, 800);
        for (int from = 0; from < cases.size(); from += together) {
            List<BackgroundsTest.Case> some = cases.subList(from, Math.min(cases.size(), from + together));
            if (!isAsked(from / together)) {
                answers.addAll(Collections.nCopies(some.size(), null));
                continue;
            }
            StringBuilder html = new StringBuilder("<!doctype html><body style='margin:0;background:#000'>");
            for (int i = 0; i < some.size(); i++) {
                BackgroundsTest.Case c = some.get(i);
                html.append(String.format(
                        "<div data-w=%d data-h=%d style=\"position:absolute;left:%dpx;top:%dpx;width:%dpx;height:%dpx;border:solid transparent;border-width:%dpx %dpx %dpx %dpx;"
                                + "padding:%dpx %dpx %dpx %dpx;image-rendering:pixelated;%s\"></div>",
                        c.pictureWidth(),
                        c.pictureHeight(),
                        i % 5 * 240,
                        i / 5 * 220,
                        c.width() - c.padding()[1] - c.padding()[3],
                        c.height() - c.padding()[0] - c.padding()[2],
                        c.border()[0],
                        c.border()[1],
                        c.border()[2],
                        c.border()[3],
                        c.padding()[0],
                        c.padding()[1],
                        c.padding()[2],
                        c.padding()[3],
                        c.style()));
            }
            browser.setContent(html.toString());
            browser.evaluate(
                    """
          async () => { for (const e of document.querySelectorAll('div')) {
            const w = +e.dataset.w, h = +e.dataset.h, c = document.createElement('canvas'); c.width = w; c.height = h;
            const g = c.getContext('2d'), d = g.createImageData(w, h);
            for (let y = 0; y < h; y++) for (let x = 0; x < w; x++) d.data.set([(x + .5) / w * 255, (y + .5) / h * 255, 255, 255], 4 * (y * w + x));
            g.putImageData(d, 0, 0); const u = c.toDataURL(); const i = new Image(); i.src = u; await i.decode(); e.style.backgroundImage = `url(${u})` }
            await new Promise(r => requestAnimationFrame(() => requestAnimationFrame(r))) }""");
            BufferedImage seen = Browsers.seen(browser, true);
            for (int i = 0; i < some.size(); i++) {
                BackgroundsTest.Case c = some.get(i);
                answers.add(projected(seen, i % 5 * 240, i / 5 * 220, c.outerWidth(), c.outerHeight(), true) + " "
                        + projected(seen, i % 5 * 240, i / 5 * 220, c.outerWidth(), c.outerHeight(), false));
            }
        }
        Map<String, List<String>> all = new LinkedHashMap<>();
        all.put(BackgroundsTest.question(), answers);
        settle("backgrounds", all);
    }

    /** The computed value of each gradient, and the colours of its pixels. */
    @Tag("generated")
    @Test
    void gradients() throws IOException {
        List<String> cases = GradientsTest.cases();
        StringBuilder html = new StringBuilder("<!doctype html><body style='margin:0;background:#fff'>");
        for (int i = 0; i < cases.size(); i++) {
            html.append(String.format(
                    "<div style=\"position:absolute;left:%dpx;top:%dpx;width:%dpx;height:%dpx;background:%s\"></div>",
                    i % 12 * GradientsTest.WIDTH,
                    i / 12 * GradientsTest.HEIGHT,
                    GradientsTest.WIDTH,
                    GradientsTest.HEIGHT,
                    cases.get(i)));
        }
        Page browser = Browsers.page(12 * GradientsTest.WIDTH, 800);
        browser.setContent(html.toString());
        @SuppressWarnings("unchecked")
        List<String> computed = (List<String>) browser.evaluate(
                "() => [...document.querySelectorAll('div')].map(e => getComputedStyle(e).backgroundImage)");
        BufferedImage seen = Browsers.seen(browser, true);
        List<String> answers = new ArrayList<>();
        for (int i = 0; i < cases.size(); i++) {
            StringBuilder pixels = new StringBuilder();
            for (int y = 0; y < GradientsTest.HEIGHT; y += GradientsTest.STEP) {
                for (int x = 0; x < GradientsTest.WIDTH; x += GradientsTest.STEP) {
                    pixels.append(String.format(
                            "%06x",
                            seen.getRGB(i % 12 * GradientsTest.WIDTH + x, i / 12 * GradientsTest.HEIGHT + y)
                                    & 0xffffff));
                }
            }
            answers.add(computed.get(i) + " " + pixels);
        }
        settle("gradients", Map.of(GradientsTest.question(), answers));
    }

    /** The pixels of SVG pictures over white, three bytes each, from the upper left on. */
    @Test
    void svg() throws IOException {
        Page browser = Browsers.page(SvgTest.WIDTH, SvgTest.HEIGHT);
        List<String> answers = new ArrayList<>();
        for (String svg : SvgTest.PICTURES) {
            String address = "data:image/svg+xml;base64,"
                    + java.util.Base64.getEncoder()
                            .encodeToString(svg.getBytes(java.nio.charset.StandardCharsets.UTF_8));
            browser.setContent("<!doctype html><body style='margin:0;background:#fff'><img width=" + SvgTest.WIDTH
                    + " height=" + SvgTest.HEIGHT + " style='display:block' src='" + address + "'>");
            browser.waitForCondition(
                    () -> Boolean.TRUE.equals(browser.evaluate("() => document.querySelector('img').complete")));
            BufferedImage seen = Browsers.seen(browser, false);
            StringBuilder pixels = new StringBuilder();
            for (int i = 0; i < SvgTest.WIDTH * SvgTest.HEIGHT; i++) {
                pixels.append(String.format("%06x", seen.getRGB(i % SvgTest.WIDTH, i / SvgTest.WIDTH) & 0xffffff));
            }
            answers.add(pixels.toString());
        }
        settle("svg", Map.of("pixels", answers));
    }

    /** The pixels of WebP pictures, four numbers each, from the upper left on. */
    @Test
    void webp() throws IOException {
        Page browser = Browsers.page(300, 200);
        List<String> answers = new ArrayList<>();
        for (String name : WebpTest.PICTURES) {
            answers.add((String) browser.evaluate(
                    """
          async (base64) => {
            const bytes = Uint8Array.from(atob(base64), c => c.charCodeAt(0));
            const bitmap = await createImageBitmap(new Blob([bytes], { type: 'image/webp' }), { premultiplyAlpha: 'none' });
            const g = new OffscreenCanvas(bitmap.width, bitmap.height).getContext('2d');
            g.drawImage(bitmap, 0, 0);
            return bitmap.width + 'x' + bitmap.height + ' '
              + [...g.getImageData(0, 0, bitmap.width, bitmap.height).data].map(v => v.toString(16).padStart(2, '0')).join('') }""",
                    java.util.Base64.getEncoder().encodeToString(WebpTest.bytes(name))));
        }
        settle("webp", Map.of("pixels", answers));
    }

    /** Boxes and lines as measures hold them, then for each width and text the worst contrast with the pixels behind it and the one that 95 of 100 reach. */
    @Tag("generated")
    @Test
    @SuppressWarnings("unchecked")
    void grounds() throws IOException {
        Files.write(folder.resolve("hills.png"), GroundsTest.picture());
        Files.writeString(folder.resolve("index.html"), GroundsTest.HTML);
        Map<String, List<List<Object>>> boxes = new TreeMap<>();
        Map<String, List<List<Object>>> lines = new TreeMap<>();
        List<List<Object>> heights = new ArrayList<>();
        List<String> readings = new ArrayList<>();
        Page browser = Browsers.page(1440, GroundsTest.HEIGHT);
        for (int width : GroundsTest.WIDTHS) {
            browser.setViewportSize(width, GroundsTest.HEIGHT);
            browser.navigate(folder.resolve("index.html").toUri().toString());
            Map<String, Object> laid = (Map<String, Object>)
                    browser.evaluate(
                            """
          () => { document.documentElement.style.scrollbarWidth = 'none'; const boxes = {}, lines = {}, colors = {};
            [...document.querySelectorAll('*')].forEach((e, i) => { const b = e.getBoundingClientRect(); if (!e.getClientRects().length) return;
              const s = getComputedStyle(e), side = n => ['Top', 'Right', 'Bottom', 'Left'].map(d => parseFloat(s[n + d + (n === 'border' ? 'Width' : '')]));
              boxes[i + 1] = [b.left, b.top, b.width, b.height, ...side('border'), ...side('padding')];
              const own = [...e.childNodes].filter(n => n.nodeType === 3 && n.data.trim()).flatMap(n => { const r = document.createRange(); r.selectNodeContents(n); return [...r.getClientRects()] });
              if (own.length) { lines[i + 1] = own.flatMap(r => [r.left, r.top, r.width, r.height]); colors[i + 1] = s.color } });
            return { boxes, lines, colors, height: document.documentElement.scrollHeight } }""");
            heights.add(List.of(width, laid.get("height")));
            ((Map<String, List<Object>>) laid.get("boxes"))
                    .forEach((k, v) ->
                            boxes.computeIfAbsent(k, x -> new ArrayList<>()).add(at(width, v)));
            ((Map<String, List<Object>>) laid.get("lines"))
                    .forEach((k, v) ->
                            lines.computeIfAbsent(k, x -> new ArrayList<>()).add(at(width, v)));
            browser.addStyleTag(new Page.AddStyleTagOptions().setContent("* { color: transparent !important }"));
            BufferedImage seen = Browsers.seen(browser, true);
            new TreeMap<>((Map<String, List<Number>>) laid.get("lines"))
                    .forEach((k, v) -> readings.add(width + " " + k + " "
                            + contrast(seen, v, ((Map<String, String>) laid.get("colors")).get(k))));
        }
        String measures = tools.jackson.databind.json.JsonMapper.shared()
                .writeValueAsString(new TreeMap<>(Map.of(
                        "format",
                        "calm-measures/1",
                        "page",
                        "index.html",
                        "windowHeight",
                        GroundsTest.HEIGHT,
                        "from",
                        320,
                        "to",
                        1920,
                        "unsure",
                        List.of(),
                        "height",
                        heights,
                        "boxes",
                        boxes,
                        "lines",
                        lines)));
        readings.add(0, measures);
        settle("grounds", Map.of(GroundsTest.question(), readings));
    }

    /** Boxes of pages in the markup of ten libraries, at the widths that tell where their parts are. */
    @Test
    @SuppressWarnings("unchecked")
    void parts() throws IOException {
        Map<String, List<String>> all = new LinkedHashMap<>();
        Page browser = Browsers.page(1440, 800);
        for (PagePartsTest.Site site : asked(PagePartsTest.sites().stream())) {
            Path own = Files.createDirectories(folder.resolve(site.name()));
            Files.writeString(own.resolve("index.html"), site.html());
            Files.write(own.resolve("lib.css"), site.css());
            Files.writeString(own.resolve("own.css"), PagePartsTest.own());
            Map<String, List<List<Object>>> boxes = new TreeMap<>();
            Map<String, List<List<Object>>> lines = new TreeMap<>();
            List<List<Object>> heights = new ArrayList<>();
            browser.navigate(own.resolve("index.html").toUri().toString());
            for (int width : List.of(320, 390, 767, 768, 820, 1199, 1200, 1440, 2560)) {
                browser.setViewportSize(width, 800);
                Map<String, Object> laid = (Map<String, Object>)
                        browser.evaluate(
                                """
              () => { document.documentElement.style.scrollbarWidth = 'none'; const boxes = {}, lines = {};
                [...document.querySelectorAll('*')].forEach((e, i) => { const b = e.getBoundingClientRect(); if (!e.getClientRects().length) return;
                  boxes[i + 1] = [b.left, b.top, b.width, b.height];
                  const own = [...e.childNodes].filter(n => n.nodeType === 3 && n.data.trim()).flatMap(n => { const r = document.createRange(); r.selectNodeContents(n); return [...r.getClientRects()] });
                  if (own.length) lines[i + 1] = own.flatMap(r => [r.left, r.top, r.width, r.height]) });
                return { boxes, lines, height: document.documentElement.scrollHeight } }""");
                heights.add(List.of(width, laid.get("height")));
                ((Map<String, List<Object>>) laid.get("boxes"))
                        .forEach((k, v) ->
                                boxes.computeIfAbsent(k, x -> new ArrayList<>()).add(at(width, v)));
                ((Map<String, List<Object>>) laid.get("lines"))
                        .forEach((k, v) ->
                                lines.computeIfAbsent(k, x -> new ArrayList<>()).add(at(width, v)));
            }
            all.put(
                    site.question(),
                    List.of(tools.jackson.databind.json.JsonMapper.shared()
                            .writeValueAsString(new TreeMap<>(Map.of(
                                    "format",
                                    "calm-measures/1",
                                    "page",
                                    "index.html",
                                    "windowHeight",
                                    800,
                                    "from",
                                    320,
                                    "to",
                                    2560,
                                    "unsure",
                                    List.of(),
                                    "height",
                                    heights,
                                    "boxes",
                                    boxes,
                                    "lines",
                                    lines)))));
        }
        settle("parts", all);
    }

    private static List<Object> at(int width, List<Object> numbers) {
        List<Object> all = new ArrayList<>(List.of(width));
        all.addAll(numbers);
        return all;
    }

    /** WCAG 2.2, contrast ratio, with each pixel whose middle lies in a line. */
    private static String contrast(BufferedImage seen, List<Number> lines, String color) {
        int[] rgb = java.util.Arrays.stream(color.replaceAll("[^0-9,]", "").split(","))
                .mapToInt(Integer::parseInt)
                .toArray();
        double text = luminance(rgb[0], rgb[1], rgb[2]);
        DoubleStream.Builder ratios = DoubleStream.builder();
        for (int i = 0; i < lines.size(); i += 4) {
            double left = lines.get(i).doubleValue();
            double top = lines.get(i + 1).doubleValue();
            for (int y = (int) Math.ceil(top - 0.5);
                    y + 0.5 < top + lines.get(i + 3).doubleValue() && y < seen.getHeight();
                    y++) {
                for (int x = Math.max(0, (int) Math.ceil(left - 0.5));
                        x + 0.5 < left + lines.get(i + 2).doubleValue() && x < seen.getWidth();
                        x++) {
                    int p = seen.getRGB(x, y);
                    double ground = luminance(p >> 16 & 255, p >> 8 & 255, p & 255);
                    ratios.add((Math.max(text, ground) + 0.05) / (Math.min(text, ground) + 0.05));
                }
            }
        }
        double[] sorted = ratios.build().sorted().toArray();
        return String.format(
                java.util.Locale.ROOT, "%.3f %.3f", sorted[0], sorted[(int) Math.floor(sorted.length * 0.05)]);
    }

    private static double luminance(int r, int g, int b) {
        return 0.2126 * LINEAR[r] + 0.7152 * LINEAR[g] + 0.0722 * LINEAR[b];
    }

    /** Of each byte: WCAG 2.2, relative luminance. */
    private static final double[] LINEAR = IntStream.range(0, 256)
            .mapToDouble(i -> i / 255.0)
            .map(v -> v <= 0.04045 ? v / 12.92 : Math.pow((v + 0.055) / 1.055, 2.4))
            .toArray();

    /** For each column the red, or for each row the green, of its pixel that is painted most fully; -- where nothing is painted. */
    private static String projected(BufferedImage seen, int left, int top, int width, int height, boolean columns) {
        StringBuilder out = new StringBuilder();
        for (int a = 0; a < (columns ? width : height); a++) {
            String found = "--";
            int most = 127;
            // The pixel that is painted most fully: one at the edge of a tile is mixed with what is behind.
            for (int b = 0; b < (columns ? height : width) && most < 255; b++) {
                int x = left + (columns ? a : b);
                int y = top + (columns ? b : a);
                int rgb = x < seen.getWidth() && y < seen.getHeight() ? seen.getRGB(x, y) : 0;
                if ((rgb & 255) > most) {
                    most = rgb & 255;
                    found = String.format("%02x", columns ? rgb >> 16 & 255 : rgb >> 8 & 255);
                }
            }
            out.append(found);
        }
        return out.toString();
    }
}

package org.calmpalette.app;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Page;
import com.microsoft.playwright.Route;
import java.awt.image.BufferedImage;
import java.io.IOException;
import java.io.InputStream;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.zip.GZIPInputStream;
import org.calmpalette.app.accounts.Role;
import org.calmpalette.app.accounts.SignedIn;
import org.calmpalette.app.themes.ThemeService;
import org.calmpalette.core.Generated;
import org.calmpalette.core.cascade.PageStyles;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.color.Contrast;
import org.calmpalette.core.css.Edit;
import org.calmpalette.core.css.selector.States;
import org.calmpalette.core.output.ThemeBuild;
import org.calmpalette.core.promise.Answer;
import org.calmpalette.core.promise.EachText;
import org.calmpalette.core.render.Backdrop;
import org.calmpalette.core.render.Measures;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.setting.Chosen;
import org.calmpalette.core.setting.RandomChoices;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.ThemeFiles;
import org.calmpalette.core.value.Viewport;
import org.jsoup.nodes.Element;
import org.junit.jupiter.api.Test;
import org.springframework.jdbc.core.simple.JdbcClient;

/**
 * What is said to be kept of the texts of our own themes, with the settings that they have: whatever an owner chooses, at whatever width,
 * no text contradicts it, by the cascade and by what axe-core 4.11 (rule color-contrast) and pixels say of the built pages in Chromium.
 */
class DemoPromisesTest {
    private static final String SITE = "http://built.test/";
    private static final int NARROWEST = 320;
    private static final int WIDEST = 1920;
    /** What a ratio may differ by where colours are whole steps of 255 and letters have soft edges left out. */
    private static final double WHOLE_STEPS = 0.12;

    /** Of a picture of a page, in px: Chromium draws none that is higher as a whole, and a border may be made 200em wide. */
    private static final int DRAWN = 16_000;

    private final Running running = Running.get();

    /** Each element of a page says where it stands among all of them, so that it is found in what is built of the page. */
    private static Theme marked(Theme theme) {
        TreeMap<String, byte[]> files = new TreeMap<>();
        theme.files().paths().forEach(p -> files.put(p, theme.files().read(p)));
        for (var page : theme.pages()) {
            List<Edit> edits = new ArrayList<>();
            List<Element> all = page.elements();
            for (int i = 1; i < all.size(); i++) {
                Element e = all.get(i);
                if (e.sourceRange().isTracked() && !e.sourceRange().isImplicit()) {
                    int at = e.sourceRange().startPos() + 1 + e.tagName().length();
                    edits.add(new Edit(at, at, " data-at=" + i));
                }
            }
            files.put(page.source().file(), page.source().withEdits(edits));
        }
        return Theme.read(ThemeFiles.of(files), theme.palette().name());
    }

    private Theme theme(String name) {
        JdbcClient sql = running.bean(JdbcClient.class);
        long maker = sql.sql("select id from account where sign_in = 'ida'")
                .query(Long.class)
                .single();
        long theme = sql.sql("select min(id) from theme where name = ?")
                .param(name)
                .query(Long.class)
                .single();
        return marked(running.bean(ThemeService.class)
                .open(theme, new SignedIn(maker, "ida", "Ida", Role.MAKER, ""))
                .theme());
    }

    /** As a browser laid the demo's pages out, recorded beside them. */
    private static Map<String, Measures> measures(String theme, Theme of) throws IOException {
        Map<String, Measures> all = new TreeMap<>();
        for (var page : of.pages()) {
            String path = page.source().file();
            String name = "/own/" + theme.toLowerCase(java.util.Locale.ROOT) + "-measures/" + path + ".json.gz";
            try (InputStream in = DemoPromisesTest.class.getResourceAsStream(name)) {
                if (in != null) {
                    all.put(path, Measures.read(name, new GZIPInputStream(in).readAllBytes()));
                }
            }
        }
        return all;
    }

    private static List<EachText.Told> kept(String name, Theme theme) throws IOException {
        return EachText.of(theme, measures(name, theme)).stream()
                .filter(t -> t.answer().state() == Answer.State.KEPT)
                .toList();
    }

    private static int width(Random random) {
        // Half of them near the widths at which something turns: phones and tablets.
        return random.nextBoolean() ? NARROWEST + random.nextInt(800) : NARROWEST + random.nextInt(WIDEST - NARROWEST);
    }

    @Test
    void noAllowedChoiceContradictsWhatIsKept() throws IOException {
        Random random = Generated.random(211);
        int looked = 0;
        for (String name : List.of("Towpath", "Landing Stage")) {
            Theme theme = theme(name);
            List<EachText.Told> kept = kept(name, theme);
            assertThat(kept).as(name).hasSizeGreaterThan(20);
            for (int i = 0; i < (Generated.LONG ? 10_000 : 30); i++) {
                Map<String, Chosen> chosen = RandomChoices.of(random, theme.palette(), theme.media());
                Rendered rendered = new Rendered(theme, chosen);
                var page = rendered.page(theme.pages()
                                .get(random.nextInt(theme.pages().size()))
                                .source()
                                .file())
                        .orElseThrow();
                int width = width(random);
                PageStyles styles = rendered.styles(page, Viewport.of(width, 900), States.NONE);
                Backdrop.Reader backdrops = new Backdrop.Reader(styles, theme.files()::has);
                for (EachText.Told t : kept) {
                    Element e = t.isAt(page.source().file(), width)
                            ? page.document().selectFirst("[data-at=" + t.element() + "]")
                            : null;
                    if (e != null && !styles.isHidden(e)) {
                        Optional<Double> ratio = ratio(
                                backdrops.of(e), styles.of(e).colorOf("color").orElseThrow());
                        looked += ratio.isPresent() ? 1 : 0;
                        assertThat(ratio.orElse(21.0))
                                .as("%s at %d with %s: %s", name, width, chosen, t)
                                .isGreaterThanOrEqualTo(t.answer().needed())
                                .isGreaterThanOrEqualTo(t.answer().worst() - 1e-9);
                    }
                }
            }
        }
        assertThat(looked).isGreaterThan(Generated.LONG ? 100_000 : 300);
    }

    /** Empty where layout alone could tell. */
    private static Optional<Double> ratio(Backdrop backdrop, Color letters) {
        return backdrop.unknown() == null
                ? Optional.of(backdrop.under(letters).ratio())
                : backdrop.range(letters).map(Backdrop.Range::least);
    }

    @Test
    void axeAndPixelsFindNothingWrongWithWhatIsKept() throws IOException {
        Page page = running.visitor(1280, 900);
        Random random = Generated.random(212);
        int texts = 0;
        int wrong = 0;
        SortedMap<String, byte[]> built = new TreeMap<>();
        page.route(SITE + "**", r -> answer(r, built));
        for (String name : List.of("Towpath", "Landing Stage")) {
            Theme theme = theme(name);
            List<EachText.Told> kept = kept(name, theme);
            for (int i = 0; i < (Generated.LONG ? 250 : 4); i++) {
                Map<String, Chosen> chosen = RandomChoices.of(random, theme.palette(), theme.media());
                built.clear();
                theme.files().paths().forEach(p -> built.put(p, theme.files().read(p)));
                built.putAll(ThemeBuild.build(theme, chosen).files());
                String path = theme.pages()
                        .get(random.nextInt(theme.pages().size()))
                        .source()
                        .file();
                int width = width(random);
                page.setViewportSize(width, 900);
                page.navigate(SITE + path);
                Set<Integer> found = Axe.lowContrast(page);
                wrong += found.size();
                Map<Integer, Double> pixels = pixels(page);
                for (EachText.Told t : kept) {
                    if (t.isAt(path, width)) {
                        assertThat(found)
                                .as("%s at %d with %s: %s", name, width, chosen, t)
                                .doesNotContain(t.element());
                        if (pixels.containsKey(t.element())) {
                            texts++;
                            assertThat(pixels.get(t.element()))
                                    .as("%s at %d with %s: %s", name, width, chosen, t)
                                    .isGreaterThan(t.answer().needed() - WHOLE_STEPS);
                        }
                    }
                }
            }
        }
        assertThat(texts).isGreaterThan(Generated.LONG ? 5_000 : 80);
        // So that it is seen that somebody looks: not all that is allowed in the demo can be read.
        assertThat(wrong).isPositive();
    }

    private static void answer(Route route, Map<String, byte[]> built) {
        String path = route.request().url().substring(SITE.length()).replaceFirst("[?#].*", "");
        if (built.containsKey(path)) {
            String type = path.endsWith(".css")
                    ? "text/css"
                    : path.endsWith(".html")
                            ? "text/html"
                            : path.endsWith(".js") ? "text/javascript" : path.endsWith(".svg") ? "image/svg+xml" : "";
            route.fulfill(new Route.FulfillOptions()
                    .setBodyBytes(built.get(path))
                    .setHeaders(type.isEmpty() ? Map.of() : Map.of("content-type", type)));
        } else {
            route.fulfill(new Route.FulfillOptions().setStatus(404));
        }
    }

    /** The least contrast of each text's colour with the pixels behind its lines, by the element that it stands in. */
    private static Map<Integer, Double> pixels(Page page) {
        List<?> texts = (List<?>) page.evaluate(TEXTS);
        page.addStyleTag(new Page.AddStyleTagOptions()
                .setContent("* { -webkit-text-fill-color: transparent !important; text-decoration: none !important }"));
        BufferedImage ground = Browsers.seen(page, true);
        Map<Integer, Double> all = new TreeMap<>();
        for (Object o : texts) {
            List<?> text = (List<?>) o;
            Color letters = Color.parse((String) text.get(1)).orElseThrow();
            double least = 21;
            Set<Integer> seen = new HashSet<>();
            for (int y = whole(text.get(3)) + 1;
                    y < Math.min(whole(text.get(5)), Math.min(DRAWN, ground.getHeight()));
                    y += 2) {
                for (int x = whole(text.get(2)) + 1; x < Math.min(whole(text.get(4)), ground.getWidth()); x += 3) {
                    if (x >= 0 && y >= 0 && seen.add(ground.getRGB(x, y))) {
                        least = Math.min(least, Contrast.ratio(letters, rgb(ground.getRGB(x, y))));
                    }
                }
            }
            all.merge(whole(text.get(0)), least, Math::min);
        }
        return all;
    }

    private static int whole(Object number) {
        return (int) Math.round(((Number) number).doubleValue());
    }

    private static Color rgb(int rgb) {
        return Color.rgb((rgb >> 16 & 255) / 255.0, (rgb >> 8 & 255) / 255.0, (rgb & 255) / 255.0);
    }

    /** Lines of texts in opaque colours, inside of their blocks, that nothing see-through holds and nothing that is placed covers. */
    private static final String TEXTS =
            """
            () => {
              const over = [...document.querySelectorAll('*')].filter(e => /absolute|fixed|sticky/.test(getComputedStyle(e).position));
              const crosses = (a, b) => a.left < b.right && b.left < a.right && a.top < b.bottom && b.top < a.bottom;
              // That a text in the flow stays in the box around it is a promise of its own.
              const block = e => /inline|contents/.test(getComputedStyle(e).display) && e.parentElement ? block(e.parentElement) : e;
              const inside = (a, b) => a.left >= b.left - 1 && a.right <= b.right + 1 && a.top >= b.top - 1 && a.bottom <= b.bottom + 1;
              const texts = [];
              for (const e of document.querySelectorAll('body [data-at]')) {
                const style = getComputedStyle(e);
                let clear = !/^rgb\\(/.test(style.color) || style.visibility !== 'visible' || style.textShadow !== 'none';
                for (let a = e; a; a = a.parentElement) clear ||= getComputedStyle(a).opacity !== '1';
                if (clear) continue;
                for (const node of e.childNodes) {
                  if (node.nodeType !== 3 || !node.data.trim()) continue;
                  const range = document.createRange();
                  range.selectNodeContents(node);
                  for (const box of range.getClientRects()) {
                    if (box.width < 4 || !inside(box, block(e).getBoundingClientRect()) || over.some(o => !o.contains(e) && crosses(o.getBoundingClientRect(), box))) continue;
                    texts.push([Number(e.dataset.at), style.color, box.left + scrollX, box.top + scrollY, box.right + scrollX, box.bottom + scrollY]);
                  }
                }
              }
              return texts;
            }
            """;
}

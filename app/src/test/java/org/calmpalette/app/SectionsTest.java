package org.calmpalette.app;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Route;
import com.microsoft.playwright.options.ReducedMotion;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.regex.Pattern;
import javax.imageio.ImageIO;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.Generated;
import org.calmpalette.core.cascade.PageStyles;
import org.calmpalette.core.chromium.OutsideSheets;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.color.Contrast;
import org.calmpalette.core.css.Stylesheet;
import org.calmpalette.core.css.selector.States;
import org.calmpalette.core.intake.Specimen;
import org.calmpalette.core.output.Handover;
import org.calmpalette.core.output.ThemeBuild;
import org.calmpalette.core.render.Backdrop;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.section.OwnSections;
import org.calmpalette.core.section.ScriptCarriers;
import org.calmpalette.core.section.SectionKit;
import org.calmpalette.core.section.Sections;
import org.calmpalette.core.section.Shelf;
import org.calmpalette.core.setting.AnotherValue;
import org.calmpalette.core.setting.ChoiceKind;
import org.calmpalette.core.setting.Chosen;
import org.calmpalette.core.setting.Given;
import org.calmpalette.core.setting.ItemsKind;
import org.calmpalette.core.setting.Kind;
import org.calmpalette.core.setting.LengthKind;
import org.calmpalette.core.setting.LevelKind;
import org.calmpalette.core.setting.LinkKind;
import org.calmpalette.core.setting.NumberKind;
import org.calmpalette.core.setting.PictureKind;
import org.calmpalette.core.setting.Range;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.TextKind;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.ThemeFiles;
import org.calmpalette.core.value.Viewport;
import org.junit.jupiter.api.Order;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.EnabledIfSystemProperty;
import org.junit.jupiter.api.io.TempDir;

/** Sections as Chromium shows them, and the view in which they are put on pages. */
@Order(2)
class SectionsTest {
    @TempDir
    Path folder;

    /** Outside of every section, with all classes and elements that sections use. */
    private static final String OUTSIDE =
            "<div id=outside><div class='inner words notice act lead'><h1>a</h1><h2>b</h2><h3>c</h3><p class=inner>d <strong>e</strong></p>"
                    + "<a class=button href=x>f</a><ul class=all><li class=one>g<img alt=''></li></ul><div class='one columns'>h</div><video></video></div></div>";

    private static Theme theme() {
        TreeMap<String, byte[]> files = new TreeMap<>();
        files.put(
                "index.html",
                ("<!doctype html><html lang=en><head><title>T</title><link rel=stylesheet href=a.css></head><body>"
                                + OUTSIDE + "<main></main></body></html>")
                        .getBytes(StandardCharsets.UTF_8));
        files.put(
                "a.css",
                "body{margin:0} h2{color:#800000} #outside{position:absolute;width:300px;visibility:hidden}"
                        .getBytes(StandardCharsets.UTF_8));
        return Theme.read(ThemeFiles.of(files), "T");
    }

    private static SectionKit kit(String key) {
        return Shelf.kits().stream()
                .filter(k -> k.key().equals(key))
                .findFirst()
                .orElseThrow();
    }

    private Page shown(Theme theme, Map<String, Chosen> choices, String name, int width) throws IOException {
        Map<String, byte[]> files = new LinkedHashMap<>();
        theme.files().paths().forEach(p -> files.put(p, theme.files().read(p)));
        files.putAll(ThemeBuild.build(theme, choices).files());
        Page page = Browsers.page(width, 800);
        page.navigate(written(name, files).toUri().toString());
        return page;
    }

    /** @return the home page of the files, on the disk */
    private Path written(String name, Map<String, byte[]> files) throws IOException {
        Path own = Files.createDirectories(folder.resolve(name));
        for (Map.Entry<String, byte[]> f : files.entrySet()) {
            Path file = own.resolve(f.getKey());
            Files.createDirectories(file.getParent());
            Files.write(file, f.getValue());
        }
        return own.resolve("index.html");
    }

    private static final String LOOK =
            "where => [...document.querySelectorAll(where + ', ' + where + ' *')].map(e => { const s = getComputedStyle(e); return e.localName + ' ' + [...s].filter(n => !n.startsWith('--')).map(n => n + ':' + s.getPropertyValue(n).replaceAll(new URL('.', location).href, '')).join(';') })";

    /** Rules of a section reach nothing outside of it, and a second one of the kind is not touched by what is chosen for the first. */
    @Test
    void nothingLeaksOutOfASection() throws IOException {
        Object bare = shown(theme(), Map.of(), "bare", 1000).evaluate(LOOK, "#outside");
        List<String> leaking = new ArrayList<>();
        for (SectionKit kit : Shelf.kits()) {
            Theme one = Sections.put(theme(), kit, theme().pages().get(0), "First", 0)
                    .applied(theme());
            Theme two = Sections.put(one, kit, one.pages().get(0), "Second", 0).applied(one);
            Page before = shown(two, Map.of(), kit.key() + "-before", 1000);
            Object outside = before.evaluate(LOOK, "#outside");
            Object second = before.evaluate(LOOK, "[data-section=second]");
            Map<String, Chosen> choices = new TreeMap<>();
            two.palette().settings().stream()
                    .filter(s -> s.place().equals("first"))
                    .forEach(s -> {
                        if (s.kind().name().equals("color")) {
                            // A shade that these words are read on: another one would not be taken.
                            choices.put(s.key(), Chosen.of(s.key().endsWith("-shade") ? "#0a1420" : "#12cd56"));
                        } else if (s.kind().name().equals("line")) {
                            choices.put(s.key(), Chosen.of("Other words"));
                        }
                    });
            Page after = shown(two, choices, kit.key() + "-after", 1000);
            if (!bare.equals(outside) || !bare.equals(after.evaluate(LOOK, "#outside"))) {
                leaking.add(kit.key() + " reaches out");
            }
            if (!second.equals(after.evaluate(LOOK, "[data-section=second]"))) {
                leaking.add(kit.key() + " reaches its copy");
            }
            assertThat(after.evaluate(LOOK, "[data-section=first]"))
                    .as(kit.key())
                    .isNotEqualTo(before.evaluate(LOOK, "[data-section=first]"));
            Browsers.closeAll();
        }
        assertThat(leaking).isEmpty();
    }

    /** Selectors that try all ways out of a section, put together at random; the seed makes them the same each time. */
    private static final class Escaping {
        private static final String[] SIMPLE = {
            "p",
            "a",
            "*",
            ".inner",
            "h2",
            "#outside",
            ":root",
            "html",
            "body",
            ":scope",
            "&",
            "[class]",
            ".x",
            "bo\\64 y",
            "[data-section]",
            "[data-section=second]",
            ":first-child",
            "strong",
            "p::before",
            ":hover",
            "main",
            "div"
        };
        private static final String[] JOINS = {" ", " > ", " + ", " ~ ", "", "/**/", " /* } */ "};
        private final Random random;

        Escaping(long seed) {
            random = new Random(seed);
        }

        private String any(String... of) {
            return of[random.nextInt(of.length)];
        }

        String selector(int depth) {
            StringBuilder made = new StringBuilder(random.nextInt(8) == 0 ? any("> ", "+ ", "~ ") : "");
            for (int i = random.nextInt(3); i >= 0; i--) {
                made.append(
                        depth > 0 && random.nextInt(3) == 0
                                ? any("", ":scope", "&", "p") + any(":is(", ":where(", ":not(", ":has(")
                                        + selector(depth - 1) + ")"
                                : any(SIMPLE));
                made.append(i > 0 ? any(JOINS) : "");
            }
            return made + (random.nextInt(4) == 0 ? ", " + selector(depth) : "");
        }

        String rule(int depth) {
            String inside = "outline: 7px solid #12ab34; letter-spacing: 3px; animation: drop 9s paused;";
            String body = depth > 0 && random.nextInt(3) == 0 ? inside + rule(depth - 1) : inside;
            String rule = selector(2) + " {" + body + "}";
            return switch (random.nextInt(6)) {
                case 0 -> "@media all {" + rule + "}";
                case 1 -> "@supports (color: red) {" + rule + "}";
                case 2 -> rule + " @keyframes drop {from {opacity: .25}}";
                default -> rule;
            };
        }
    }

    /** A stylesheet of a section is refused, or nothing outside of the section looks otherwise for it, nor does a second copy. */
    @Tag("generated")
    @Test
    @SuppressWarnings("unchecked")
    void noStylesheetThatIsTakenReachesOutOfASection() throws IOException {
        String html =
                "<section class=x><div class=inner><h2>a</h2><p>b <strong>c</strong> <a href=x>d</a></p></div></section>";
        List<String> written = new ArrayList<>();
        List<String> taken = new ArrayList<>();
        int refused = 0;
        Escaping escaping = new Escaping(Generated.seed(77));
        Theme both = null;
        int wanted = Generated.times(300);
        while (taken.size() < wanted) {
            String css = escaping.rule(2);
            try {
                SectionKit kit = SectionKit.read("x", "{\"label\":\"X\",\"settings\":[]}", html, css, new TreeMap<>());
                Theme one = Sections.put(theme(), kit, theme().pages().get(0), "First", 0)
                        .applied(theme());
                if (both == null) {
                    both = Sections.put(one, kit, one.pages().get(0), "Second", 0)
                            .applied(one);
                }
                taken.add(new String(one.files().read("sections.css"), StandardCharsets.UTF_8));
                written.add(css);
            } catch (BadInputException why) {
                refused++;
            }
        }
        Page page = Browsers.page(1000, 800);
        page.setContent(
                new String(both.files().read("index.html"), StandardCharsets.UTF_8)
                        .replace(
                                "</head>",
                                "<style>#outside p{animation:drop 9s paused} @keyframes drop {from {opacity:.5}}</style></head>"));
        List<Map<String, Object>> seen = (List<Map<String, Object>>) page.evaluate(
                "([sheets, out]) => { const look = eval(out); const style = document.head.appendChild(document.createElement('style'));"
                        + " const all = () => ({ outside: look('body').join('|'), second: look('[data-section=second]').join('|'), first: look('[data-section=first]').join('|') });"
                        + " const rest = all();"
                        + " return sheets.map(css => { style.textContent = css; const now = all(); return { outside: now.outside === rest.outside, second: now.second === rest.second, first: now.first !== rest.first }; }) }",
                List.of(taken, OUTSIDE_LOOK));
        List<String> leaking = new ArrayList<>();
        int painting = 0;
        for (int i = 0; i < taken.size(); i++) {
            painting += (boolean) seen.get(i).get("first") ? 1 : 0;
            if (!(boolean) seen.get(i).get("outside") || !(boolean) seen.get(i).get("second")) {
                leaking.add(written.get(i));
            }
        }
        assertThat(leaking).isEmpty();
        assertThat(painting)
                .as("sheets that find something in their own section")
                .isGreaterThan(wanted / 5);
        assertThat(refused).as("and some that are refused").isGreaterThan(wanted / 5);
    }

    /** Few properties, all that the sheets set; nothing inside of the sections counts for what is outside. */
    private static final String OUTSIDE_LOOK =
            "where => [...document.querySelectorAll(where.startsWith('body') ? 'html, body, main, #outside, #outside *' : where + ', ' + where + ' *')]"
                    + ".flatMap(e => [null, '::before'].map(n => { const s = getComputedStyle(e, n); return [s.outline, s.letterSpacing, s.animationName, s.opacity].join(' ') }))";

    private static String style(Page page, String selector, String property) {
        return (String) page.evaluate(
                "([s, p]) => getComputedStyle(document.querySelector(s)).getPropertyValue(p)",
                List.of(selector, property));
    }

    @Test
    void whatOwnersChooseIsWhatIsSeenAtThreeWidths() throws IOException {
        Theme theme = theme();
        for (String kit : List.of("lead", "cards", "notice", "act", "drift", "film", "beside", "columns")) {
            theme = Sections.put(theme, kit(kit), theme.pages().get(0), kit, 0).applied(theme);
        }
        Value hidden = Value.of(false);
        Map<String, Chosen> choices = new TreeMap<>();
        choices.put("notice-shown", new Chosen(null, Map.of("phone", hidden)));
        choices.put("columns-shown", Chosen.of(hidden));
        choices.put("lead-height", Chosen.of("window"));
        choices.put("lead-width", Chosen.of("narrow"));
        choices.put("lead-place", Chosen.of("bottom"));
        choices.put(
                "cards-columns",
                new Chosen(
                        new Value.Number(new java.math.BigDecimal(4)),
                        Map.of("tablet", new Value.Number(new java.math.BigDecimal(2)))));
        choices.put("beside-side", Chosen.of("right"));
        choices.put("act-rises", Chosen.of("rises"));
        choices.put(
                "lead-ground",
                Chosen.of(((Value.Parts)
                                theme.palette().known("lead-ground").given().value())
                        .with("picture", Value.of(""))
                        .with("color", Value.of("#114411"))));
        for (int width : List.of(390, 820, 1440)) {
            Page page = shown(theme, choices, "all-" + width, width);
            assertThat(style(page, "[data-section=notice]", "display")).isEqualTo(width == 390 ? "none" : "block");
            assertThat(style(page, "[data-section=columns]", "display")).isEqualTo("none");
            assertThat(style(page, "[data-section=lead]", "min-height")).isEqualTo("800px");
            assertThat(style(page, "[data-section=lead]", "background-color")).isEqualTo("rgb(17, 68, 17)");
            assertThat(style(page, "[data-section=lead] .lead-inner", "max-width"))
                    .isEqualTo("704px");
            assertThat(style(page, "[data-section=lead] h2", "color"))
                    .as("not the theme's own")
                    .isEqualTo("rgb(255, 255, 255)");
            assertThat(style(page, "[data-section=cards] ul", "grid-template-columns")
                            .split(" "))
                    .hasSize(width == 390 ? 1 : width == 820 ? 2 : 4);
            assertThat(
                            page.evaluate(
                                    "() => { const [a, b] = [...document.querySelector('[data-section=beside] .beside-inner').children].map(e => e.getBoundingClientRect()); return a.bottom > b.top && b.bottom > a.top; }"))
                    .as("picture and words beside each other at %d", width)
                    .isEqualTo(width != 390);
            assertThat(style(page, "[data-section=beside] img", "order")).isEqualTo("1");
            assertThat(style(page, "[data-section=act]", "background-image")).contains("linear-gradient(90deg");
            assertThat(style(page, "[data-section=act] .act-inner", "animation-name"))
                    .isEqualTo("act-rise");
            assertThat(
                            page.evaluate(
                                    "() => ['lead', 'act'].map(n => document.querySelector(`.${n}-inner`).getAnimations()[0].timeline.constructor.name)"))
                    .as("what is seen from the start enters at once, what comes later as it comes")
                    .isEqualTo(List.of("DocumentTimeline", "ViewTimeline"));
            assertThat(style(page, "[data-section=drift] img", "animation-name"))
                    .isEqualTo("drift-drift");
            assertThat(style(page, "[data-section=film] video", "display")).isEqualTo("block");
            page.locator("[data-section=film] video").scrollIntoViewIfNeeded();
            page.waitForFunction(
                    "() => { const v = document.querySelector('[data-section=film] video'); return v.muted && !v.paused && v.currentTime > 0 }");
            assertThat(page.evaluate("() => document.documentElement.scrollWidth <= innerWidth"))
                    .as("no wider than the window")
                    .isEqualTo(true);
            page.emulateMedia(new Page.EmulateMediaOptions().setReducedMotion(ReducedMotion.REDUCE));
            assertThat(style(page, "[data-section=act] .act-inner", "animation-name"))
                    .isEqualTo("none");
            assertThat(style(page, "[data-section=drift] img", "animation-name"))
                    .isEqualTo("none");
            assertThat(style(page, "[data-section=film] video", "display")).isEqualTo("none");
            Browsers.closeAll();
        }
    }

    private static Theme withAll() {
        Theme theme = theme();
        for (SectionKit kit : Shelf.kits()) {
            theme = Sections.put(theme, kit, theme.pages().get(0), kit.key(), 0).applied(theme);
        }
        return theme;
    }

    /** What markup tries to pass as something else: a letter more or less, another case, other quotes, inside of what is allowed. */
    private static String spoilt(String html, Random random) {
        StringBuilder out = new StringBuilder(html);
        for (int n = 1 + random.nextInt(3); n > 0; n--) {
            int at = 9 + random.nextInt(Math.max(1, out.length() - 19));
            switch (random.nextInt(6)) {
                case 0 -> out.deleteCharAt(at);
                case 1 -> out.insert(at, out.charAt(at));
                case 2 -> out.insert(at, "\t\n /\"'<>=&;\u0000-!".charAt(random.nextInt(14)));
                case 3 -> out.setCharAt(at, Character.toUpperCase(out.charAt(at)));
                case 4 ->
                    out.insert(
                            at,
                            List.of("<p>", "</p>", "<!--", "-->", "<b ", "&lt;", "&#", "=\"", "data-")
                                    .get(random.nextInt(9)));
                default ->
                    out.insert(
                            at,
                            List.of("<svg>", "</svg>", "<table>", "<td>", "<title>", "<select>", "<a href=")
                                    .get(random.nextInt(7)));
            }
        }
        return out.toString();
    }

    /**
     * Carriers of scripts, each spoilt in many ways: what is taken of them is put, handed over and opened in Chromium. Nothing runs,
     * nothing asks another host, nothing waits for a click with a script.
     */
    @Test
    @Tag("generated")
    void markupThatIsTakenRunsNothingAndAsksNobody() throws IOException {
        Random random = Generated.random(77);
        List<String> carriers = ScriptCarriers.all();
        List<SectionKit> taken = new ArrayList<>();
        int tried = 0;
        for (; tried < Generated.times(6_000) && taken.size() < Generated.times(120); tried++) {
            String html = spoilt(carriers.get(random.nextInt(carriers.size())), random);
            try {
                taken.add(SectionKit.read("k" + tried, "{\"settings\": []}", html, "", new TreeMap<>()));
            } catch (BadInputException refused) {
                // As almost all of them.
            }
        }
        assertThat(taken.size()).as("of " + tried + " that were tried").isGreaterThan(40);
        Theme theme = theme();
        int put = 0;
        for (SectionKit kit : taken) {
            try {
                theme = Sections.put(theme, kit, theme.pages().get(0), kit.key(), 0)
                        .applied(theme);
                put++;
            } catch (BadInputException refused) {
                // Where it would not stay whole on a page.
            }
        }
        assertThat(put).isGreaterThan(30);
        ThemeFiles handed = Handover.files(theme, Map.of());
        Page page = Browsers.page(1280, 800);
        List<String> wrong = new ArrayList<>();
        String home = "https://ferries.invalid/";
        page.route("**/*", route -> {
            String url = route.request().url();
            if (!url.startsWith(home) && !url.startsWith("data:image/")) {
                wrong.add(url);
            }
            String path = url.substring(Math.min(url.length(), home.length())).replaceAll("[?#].*", "");
            String file = path.isEmpty() ? "index.html" : path;
            route.fulfill(
                    handed.has(file)
                            ? new Route.FulfillOptions()
                                    .setBodyBytes(handed.read(file))
                                    .setContentType(file.endsWith(".css") ? "text/css" : "text/html")
                            : new Route.FulfillOptions().setStatus(404));
        });
        page.onDialog(d -> {
            wrong.add(d.message());
            d.dismiss();
        });
        page.addInitScript("window.hits = 0; window.hit = () => { window.hits++; }");
        page.navigate(home);
        page.waitForLoadState();
        @SuppressWarnings("unchecked")
        List<String> waiting = (List<String>) page.evaluate("() => [...document.querySelectorAll('*')].flatMap(e => {"
                + " e.dispatchEvent(new Event('error')); e.dispatchEvent(new MouseEvent('mouseover', {bubbles: true})); e.focus?.();"
                + " return [...e.attributes].filter(a => /^on/i.test(a.name) || /^[\\x00-\\x20]*(javascript:|vbscript:|data:text)/i.test(a.value.replace(/[\\t\\n\\r]/g, '')))"
                + "   .filter(a => /^on/i.test(a.name) || ['href', 'src', 'action', 'formaction', 'xlink:href', 'data', 'srcdoc', 'poster'].includes(a.name))"
                + "   .map(() => e.outerHTML.slice(0, 200)); })");
        assertThat(waiting).isEmpty();
        assertThat(page.locator("script, iframe, object, embed, base, meta[http-equiv=refresh i]")
                        .count())
                .isZero();
        assertThat(page.evaluate("() => window.hits")).isEqualTo(0);
        assertThat(page.url()).isEqualTo(home);
        assertThat(wrong).isEmpty();
    }

    private static final String SHOWN =
            """
            name => { const root = document.querySelector(`[data-section="${name}"]`);
              return [root, ...root.querySelectorAll('*')].map(e => [null, '::before', '::after'].map(p => { const s = getComputedStyle(e, p);
                return p && s.content === 'none' ? '' : [...s].filter(n => !n.startsWith('--')).map(n => n + ':' + s.getPropertyValue(n)).join(';') }).join('|')
                + e.localName + [...e.attributes].map(a => a.name + '=' + a.value) + (e.children.length ? '' : e.textContent)) }""";

    private static void fill(Page page, Theme theme, Map<String, Chosen> choices) {
        Map<String, byte[]> files = ThemeBuild.build(theme, choices).files();
        StringBuilder css = new StringBuilder();
        for (String sheet : List.of("settings.css", "a.css", "sections.css", "palette.css")) {
            byte[] bytes =
                    files.containsKey(sheet) ? files.get(sheet) : theme.files().read(sheet);
            css.append(new String(bytes, StandardCharsets.UTF_8)).append('\n');
        }
        String html = new String(files.get("index.html"), StandardCharsets.UTF_8).replaceAll("<link[^>]*>", "");
        page.evaluate(
                "([html, css]) => { document.body.replaceWith(new DOMParser().parseFromString(html, 'text/html').body);"
                        + " let s = document.getElementById('css'); if (!s) { s = document.createElement('style'); s.id = 'css'; document.head.append(s); } s.textContent = css }",
                List.of(html, css.toString()));
    }

    /** Values that a setting allows and does not have. */
    private static List<Value> others(Setting s, Value now) {
        List<Value> tries = new ArrayList<>();
        if (s.kind() instanceof TextKind) {
            tries.add(Value.of("Other words"));
        } else if (s.kind() instanceof LinkKind) {
            tries.add(Value.of("https://ferries.invalid/"));
        } else if (s.kind() instanceof LevelKind) {
            tries.add(Value.of(4));
            tries.add(Value.of(3));
        } else if (s.kind() instanceof ItemsKind) {
            List<Value> items = ((Value.Many) now).items();
            tries.add(new Value.Many(
                    items.size() > 1 ? items.subList(1, items.size()) : List.of(items.get(0), items.get(0))));
        }
        tries.removeIf(v -> v.equals(now));
        tries.addAll(AnotherValue.all(s.kind(), now));
        return tries.subList(0, Math.min(4, tries.size()));
    }

    /**
     * What a setting changes by what it is called: of the properties of the first pattern at least one, and none of the second. Words,
     * attributes and elements that come and go count as properties of these names.
     */
    private record Says(Pattern label, Pattern changes, Pattern leaves) {
        static Says of(String label, String changes, String leaves) {
            return new Says(Pattern.compile(label), Pattern.compile(changes), Pattern.compile(leaves));
        }
    }

    private static final String BOXES = "(min-|max-)?(width|height|inline-size|block-size)|padding-.*|font-size";
    private static final String COLORS = "color|background-color|border-.*-color";
    private static final List<Says> SAYS = List.of(
            Says.of("line|text|link|items|yes-no", "words|elements|attributes|display|visibility", "color"),
            Says.of("level", "words|elements|font-size", "color"),
            Says.of("picture|video", "background-image|attributes|elements", "color|padding-.*"),
            Says.of(
                    "(color|gradient|border|background) .*",
                    "background.*|color|border.*|outline.*|fill|stroke|.*-color",
                    BOXES),
            Says.of("length Least height", "min-height|min-block-size", COLORS),
            Says.of("length Room (above|below|at the sides|in).*", "padding-.*", COLORS + "|font-size"),
            Says.of("length Room between.*", "(row|column)-gap|margin-.*", COLORS + "|font-size"),
            Says.of("length Size of the sign", "font-size|width|height", COLORS),
            Says.of("length Size of .*", "font-size", COLORS + "|padding-.*"),
            Says.of(
                    "(choice|number) .*",
                    "(min-|max-)?(height|width|block-size|inline-size)|grid.*|flex.*|align.*|justify.*|text-align|order|"
                            + "aspect-ratio|inset.*|top|left|object.*|margin.*|place.*|transform.*|translate|words|attributes|elements|animation.*|clip-path|content|background.*|mask.*",
                    COLORS + "|font-size"));

    /** What a setting's label does not say of what it changed, or leaves unsaid; empty if both agree. */
    private static String unsaid(Setting s, List<String> was, List<String> now) {
        Set<String> changed = changed(was, now);
        if (changed.isEmpty()) {
            return "";
        }
        Says says = SAYS.stream()
                .filter(x -> x.label().matcher(s.kind().name()).matches()
                        || x.label().matcher(s.kind().name() + " " + s.label()).matches())
                .findFirst()
                .orElseThrow(() -> new AssertionError(
                        "What does “" + s.label() + "” of kind " + s.kind().name() + " say?"));
        boolean does = changed.stream().anyMatch(c -> says.changes().matcher(c).matches());
        List<String> beside =
                changed.stream().filter(c -> says.leaves().matcher(c).matches()).toList();
        return does && beside.isEmpty() ? "" : (does ? "changes " + beside : "changes only " + changed);
    }

    private static Set<String> changed(List<String> was, List<String> now) {
        if (was.size() != now.size()) {
            return Set.of("elements");
        }
        Set<String> all = new TreeSet<>();
        for (int i = 0; i < was.size(); i++) {
            String[] a = was.get(i).split("[|;](?=[\\w-]+:|$)");
            String[] b = now.get(i).split("[|;](?=[\\w-]+:|$)");
            if (a.length != b.length) {
                all.add("elements");
                continue;
            }
            for (int n = 0; n < a.length; n++) {
                if (!a[n].equals(b[n])) {
                    all.add(n == a.length - 1 ? "words" : a[n].replaceAll(":.*", ""));
                }
            }
        }
        return all;
    }

    /**
     * Each setting of each section of the shelf does what it is called, and nothing beside that, at each width whose band has no value of its own, on a page without rules
     * and under a published sheet. What moves is tried elsewhere, and so is what is asked for only while another setting has some value.
     */
    @Test
    @EnabledIfSystemProperty(named = "calm.long", matches = "true")
    @SuppressWarnings("unchecked")
    void eachSettingDoesWhatItIsCalledAtEachWidth() {
        List<String> nothing = new ArrayList<>();
        int tried = 0;
        for (String sheet : List.of("", "milligram 1.4.1")) {
            for (SectionKit kit : Shelf.kits()) {
                Theme before = page("<link rel=\"stylesheet\" href=\"a.css\">", new byte[0]);
                TreeMap<String, byte[]> files = new TreeMap<>();
                files.put("index.html", before.files().read("index.html"));
                files.put("a.css", sheet.isEmpty() ? new byte[] {' '} : OutsideSheets.get(sheet));
                before = Theme.read(ThemeFiles.of(files), "T");
                Theme theme =
                        Sections.put(before, kit, before.pages().get(0), "S", 0).applied(before);
                Page page = Browsers.page(1440, 800);
                page.emulateMedia(new Page.EmulateMediaOptions().setReducedMotion(ReducedMotion.REDUCE));
                for (int width : List.of(390, 820, 1440)) {
                    page.setViewportSize(width, 800);
                    fill(page, theme, Map.of());
                    List<String> was = (List<String>) page.evaluate(SHOWN, "s");
                    String band = theme.palette().bands().at(width).key();
                    for (Setting s : theme.palette().settings()) {
                        boolean moves = s.key().matches("s-(rises|fades|cue-moves|speed|page)");
                        if (moves
                                || s.shown() != null
                                || s.bands().containsKey(band)
                                || !(s.given() instanceof Given.Fixed f)) {
                            continue;
                        }
                        List<Value> others = others(s, f.value());
                        if (others.isEmpty()) {
                            continue;
                        }
                        tried++;
                        boolean any = false;
                        for (Value v : others) {
                            fill(page, theme, Map.of(s.key(), Chosen.of(v)));
                            List<String> now = (List<String>) page.evaluate(SHOWN, "s");
                            any = !now.equals(was);
                            if (any) {
                                String unsaid = unsaid(s, was, now);
                                if (!unsaid.isEmpty()) {
                                    nothing.add(kit.key() + " “" + s.label() + "” at " + width + " " + sheet + " "
                                            + unsaid);
                                }
                                break;
                            }
                        }
                        if (!any) {
                            nothing.add(kit.key() + " " + s.key() + " at " + width + " " + sheet);
                        }
                    }
                }
                Browsers.closeAll();
            }
        }
        assertThat(tried).isGreaterThan(500);
        assertThat(nothing).isEmpty();
    }

    /** What is wrong with a section as it stands: what reaches beyond the window, what is cut off, and what is seen of nothing. */
    private static final String TROUBLES =
            """
      () => { const found = [];
        const root = document.documentElement;
        if (root.scrollWidth > root.clientWidth + 1) found.push('the page is ' + root.scrollWidth + ' px wide');
        for (const e of document.querySelectorAll('[data-section] *')) {
          const box = e.getBoundingClientRect();
          if (box.width === 0 || box.height === 0 || e.closest('.lead-said')) continue;
          const name = e.textContent.trim() || [...e.querySelectorAll('img')].map(i => i.alt).join('');
          if (e.matches('a, button, h1, h2, h3, h4, h5, h6') && !name) found.push('an empty <' + e.localName + '>');
          if (e.matches('img') && !e.getAttribute('src')) found.push('a picture of nothing');
          if (e.matches('li, [class$=-one]') && !name) found.push('an empty item');
          if (e.matches('li, [class$=-one]') && box.width < 120) found.push('an item of ' + Math.round(box.width) + ' px');
          if (getComputedStyle(e).overflow !== 'visible' && e.scrollWidth > e.clientWidth + 1) found.push('cut off: ' + e.className);
          if (box.right > root.clientWidth + 1 || box.left < -1) found.push(e.localName + ' reaches from ' + Math.round(box.left) + ' to ' + Math.round(box.right));
        }
        return [...new Set(found)]; }""";

    /** @return the value with all of its words this one, and without pictures and links where nothing is said; items as many as there are */
    private static Value worded(Kind kind, Value now, String word) {
        if (kind instanceof TextKind text) {
            return word.length() < text.least()
                    ? now
                    : Value.of(word.substring(0, Math.min(word.length(), text.most())));
        }
        if (kind instanceof PictureKind && word.isEmpty()) {
            Value none = Value.of("");
            return kind.refusal(none, Kind.Around.NOTHING).isEmpty() ? none : now;
        }
        if (kind instanceof ItemsKind items && now instanceof Value.Many many) {
            return new Value.Many(many.items().stream()
                    .map(item -> {
                        Value.Parts parts = (Value.Parts) item;
                        for (Map.Entry<String, ItemsKind.Part> p : items.parts().entrySet()) {
                            if (parts.has(p.getKey())) {
                                parts = parts.with(
                                        p.getKey(),
                                        worded(
                                                p.getValue().kind(),
                                                parts.part(p.getKey()).orElseThrow(),
                                                word));
                            }
                        }
                        return (Value) parts;
                    })
                    .toList());
        }
        return now;
    }

    /** One long word, or none at all, with the largest sizes, the most columns and each choice that there is. */
    @Test
    void everySectionBearsTheWorstThatItAllows() {
        List<String> wrong = new ArrayList<>();
        int tried = 0;
        for (SectionKit kit : Shelf.kits()) {
            TreeMap<String, byte[]> files = new TreeMap<>();
            files.put(
                    "index.html",
                    page("<link rel=\"stylesheet\" href=\"a.css\">", new byte[0])
                            .files()
                            .read("index.html"));
            files.put("a.css", "body { margin: 0 }".getBytes(StandardCharsets.UTF_8));
            Theme before = Theme.read(ThemeFiles.of(files), "T");
            Theme theme =
                    Sections.put(before, kit, before.pages().get(0), "S", 0).applied(before);
            Page page = Browsers.page(1440, 800);
            for (String word :
                    List.of("Donaudampfschifffahrtselektrizitätenhauptbetriebswerkbauunterbeamtengesellschaft", "")) {
                Map<String, Chosen> base = new TreeMap<>();
                List<Map<String, Chosen>> cases = new ArrayList<>();
                for (Setting s : theme.palette().settings()) {
                    if (s.given() instanceof Given.Fixed f) {
                        base.put(s.key(), Chosen.of(largest(s.kind(), worded(s.kind(), f.value(), word))));
                    }
                }
                cases.add(base);
                for (Setting s : theme.palette().settings()) {
                    if (s.kind() instanceof ChoiceKind c && !s.key().endsWith("-shown")) {
                        c.options().forEach(o -> {
                            Map<String, Chosen> one = new TreeMap<>(base);
                            one.put(s.key(), Chosen.of(Value.of(o.key())));
                            cases.add(one);
                        });
                    }
                }
                for (Map<String, Chosen> one : word.isEmpty() ? cases.subList(0, 1) : cases) {
                    for (int width : one == base ? List.of(320, 390, 820, 1440) : List.of(320, 1440)) {
                        page.setViewportSize(width, 800);
                        fill(page, theme, everyBand(theme, one));
                        tried++;
                        List<?> troubles = (List<?>) page.evaluate(TROUBLES);
                        if (!troubles.isEmpty()) {
                            String which = one.entrySet().stream()
                                    .filter(e -> !e.getValue().equals(base.get(e.getKey())))
                                    .map(Map.Entry::getKey)
                                    .toList()
                                    .toString();
                            wrong.add(kit.key() + (word.isEmpty() ? " without words " : " ") + which + " at " + width
                                    + ": " + troubles);
                        }
                    }
                }
            }
            Browsers.closeAll();
        }
        assertThat(tried).isGreaterThan(150);
        assertThat(wrong).isEmpty();
    }

    /** The same choice in every band, so that no default of a band stands before it. */
    private static Map<String, Chosen> everyBand(Theme theme, Map<String, Chosen> choices) {
        Map<String, Chosen> all = new TreeMap<>();
        choices.forEach((key, c) -> {
            Map<String, Value> bands = new TreeMap<>();
            if (theme.palette().known(key).perBand()) {
                theme.palette().bands().list().forEach(b -> bands.put(b.key(), c.everywhere()));
            }
            all.put(key, new Chosen(c.everywhere(), bands));
        });
        return all;
    }

    private static Value largest(Kind kind, Value now) {
        if (kind instanceof NumberKind n && n.range().most() != null) {
            return new Value.Number(n.range().most());
        }
        if (kind instanceof LengthKind l && now instanceof Value.Parts p) {
            Range range = l.units().get(p.text("unit"));
            if (range != null && range.most() != null) {
                return p.with("value", new Value.Number(range.most()));
            }
            return l.steps().isEmpty()
                    ? now
                    : l.steps().get(l.steps().size() - 1).length();
        }
        return now;
    }

    /** What is handed over needs nobody: from the disk it loads only what is in it, and looks the same where no script runs. */
    @Test
    void theHandoverOfAllSectionsOpensFromTheDiskWithScriptsAndWithout() throws IOException {
        Theme theme = withAll();
        ThemeFiles handed = Handover.files(
                theme, Map.of("notice-text", Chosen.of("None today."), "columns-count", Chosen.of(Value.of(2))));
        Map<String, byte[]> files = new LinkedHashMap<>();
        handed.paths().forEach(p -> files.put(p, handed.read(p)));
        Path home = written("handed", files);
        for (int width : List.of(390, 820, 1440)) {
            List<byte[]> shots = new ArrayList<>();
            for (boolean scripts : List.of(true, false)) {
                Page page = Browsers.page(width, 800, scripts);
                List<String> wrong = new ArrayList<>();
                page.onRequest(r -> {
                    if (!r.url().startsWith(home.getParent().toUri().toString())) {
                        wrong.add(r.url());
                    }
                });
                page.onRequestFailed(r -> wrong.add("not there: " + r.url()));
                page.onConsoleMessage(m -> wrong.add(m.text()));
                page.emulateMedia(new Page.EmulateMediaOptions().setReducedMotion(ReducedMotion.REDUCE));
                page.navigate(home.toUri().toString());
                assertThat(page.locator("[data-section]").count())
                        .isEqualTo(Shelf.kits().size());
                assertThat(page.locator("[data-section=notice]").innerText()).contains("None today.");
                assertThat(page.locator("iframe, script, object, embed").count())
                        .isZero();
                // Without scripts a browser does not wait with pictures until they come near, with them it does.
                page.evaluate("() => { for (const i of document.images) i.loading = 'eager' }");
                page.waitForCondition(
                        () -> (boolean)
                                page.evaluate(
                                        "() => [...document.querySelectorAll('[data-section] img[src]')].every(i => i.complete && i.naturalWidth)"));
                shots.add(page.screenshot(new Page.ScreenshotOptions().setFullPage(true)));
                assertThat(wrong).as(width + ", scripts " + scripts).isEmpty();
            }
            assertThat(Browsers.different(shots.get(0), shots.get(1)))
                    .as("at " + width)
                    .isZero();
            Browsers.closeAll();
        }
    }

    @Test
    void everyKindOfBackgroundAndWidthIsWhatItSays() throws IOException {
        Theme theme = withAll();
        Value.Parts ground =
                (Value.Parts) theme.palette().known("lead-ground").given().value();
        Value.Parts tint =
                (Value.Parts) theme.palette().known("lead-tint").given().value();
        record Case(String key, Object chosen, String selector, String property, String seen) {}
        Value none = Value.parts("value", 0, "unit", "rem");
        List<Case> cases = List.of(
                new Case(
                        "lead-ground",
                        ground.with("picture", Value.of("")),
                        "[data-section=lead]",
                        "background-image",
                        "none"),
                new Case("lead-ground", ground, "[data-section=lead]", "background-image", "img/lead-lake.svg"),
                new Case(
                        "lead-ground",
                        ground.with("attachment", Value.of("fixed")),
                        "[data-section=lead]",
                        "background-attachment",
                        "fixed"),
                new Case(
                        "lead-tint",
                        tint.with("angle", Value.of(90)),
                        "[data-section=lead]::after",
                        "background-image",
                        "linear-gradient(90deg"),
                new Case(
                        "act-ground",
                        tint.with("angle", Value.of(45)),
                        "[data-section=act]",
                        "background-image",
                        "linear-gradient(45deg"),
                new Case("plain-ground", "#a1b2c3", "[data-section=plain]", "background-color", "rgb(161, 178, 195)"),
                new Case("plain-width", "narrow", "[data-section=plain] .plain-inner", "width", "704px"),
                new Case("plain-width", "column", "[data-section=plain] .plain-inner", "width", "1152px"),
                new Case("plain-width", "all", "[data-section=plain] .plain-inner", "width", "1400px"),
                new Case("plain-sides", none, "[data-section=plain]", "padding-left", "0px"),
                new Case(
                        "columns-count",
                        Value.of(1),
                        "[data-section=columns] .columns-all",
                        "grid-template-columns",
                        "1152px"),
                new Case("columns-place", "even", "[data-section=columns] .columns-all", "align-items", "stretch"),
                new Case("lead-height", "third", "[data-section=lead]", "min-height", "264px"),
                new Case("lead-height", "content", "[data-section=lead]", "min-height", "0px"));
        for (Case c : cases) {
            Chosen chosen = c.chosen() instanceof Value v ? Chosen.of(v) : Chosen.of((String) c.chosen());
            assertThat(ThemeBuild.chosen(theme, Map.of(c.key(), chosen)).leftOut())
                    .as(c.key())
                    .isEmpty();
            Page page = shown(theme, Map.of(c.key(), chosen), c.key() + c.seen().hashCode(), 1440);
            String[] where = c.selector().split("(?=::)");
            assertThat((String) page.evaluate(
                            "([s, e, p]) => getComputedStyle(document.querySelector(s), e || null).getPropertyValue(p)",
                            List.of(where[0], where.length > 1 ? where[1] : "", c.property())))
                    .as(c.key() + " " + c.chosen())
                    .contains(c.seen());
            Browsers.closeAll();
        }
        Map<String, Chosen> flush = Map.of("plain-width", Chosen.of("all"), "plain-sides", Chosen.of(none));
        assertThat(
                        shown(theme, flush, "flush", 1440)
                                .evaluate(
                                        "() => { const b = document.querySelector('[data-section=plain] .plain-inner').getBoundingClientRect(); return b.left + ' ' + b.width }"))
                .isEqualTo("0 1440");
        for (int count = 2; count <= 4; count++) {
            assertThat(style(
                                    shown(
                                            theme,
                                            Map.of("cards-columns", Chosen.of(Value.of(count))),
                                            "cards" + count,
                                            1440),
                                    "[data-section=cards] ul",
                                    "grid-template-columns")
                            .split(" "))
                    .hasSize(count);
        }
    }

    /**
     * The page takes on a section's colour while that crosses the middle of the window, and what is seen then is never harder to read
     * on than core says; without movement, and for what stands on a ground of its own, nothing changes.
     */
    @Test
    void thePageTakesOnTheColorOfTheSectionInView() throws IOException {
        Theme bare = theme();
        Theme theme = bare;
        for (String label : List.of("Dusk", "Dawn")) {
            theme = Sections.put(theme, kit("plain"), theme.pages().get(0), label, 0)
                    .applied(theme);
        }
        String html = new String(theme.files().read("index.html"), StandardCharsets.UTF_8);
        String tall = "<div style='height:1600px'></div>";
        theme = Theme.read(
                ThemeFiles.overlaid(
                        theme.files(),
                        new TreeMap<>(Map.of(
                                "index.html",
                                html.replace("<main>", "<main><p id=far>On the page</p>" + tall)
                                        .replace("</main>", tall + "</main>")
                                        .getBytes(StandardCharsets.UTF_8)))),
                "T");
        Map<String, Chosen> choices = Map.of(
                "dusk-page",
                Chosen.of("#1d2a44"),
                "dawn-page",
                Chosen.of("#f2c9a0"),
                "dusk-ground",
                Chosen.of("#00000000"));
        Page page = shown(theme, choices, "page", 900);
        Rendered rendered = new Rendered(theme, choices);
        org.calmpalette.core.page.Page read = rendered.theme().pages().get(0);
        PageStyles styles = rendered.styles(read, Viewport.of(900, 800), States.NONE);
        Backdrop backdrop =
                new Backdrop.Reader(styles, f -> true).of(read.document().getElementById("far"));
        double least = backdrop.range(Color.BLACK).orElseThrow().least();
        assertThat(backdrop.range(Color.BLACK).orElseThrow().worst().hex()).isEqualTo("#1d2a44");
        double seen = 21;
        for (String[] at : new String[][] {{"dusk", "#1d2a44"}, {"dawn", "#f2c9a0"}}) {
            page.evaluate(
                    "s => { const b = document.querySelector(`[data-section=${s}]`).getBoundingClientRect(); scrollTo(0, b.top + b.height / 2 + scrollY - innerHeight / 2) }",
                    at[0]);
            assertThat(pixel(page).hex()).as(at[0]).isEqualTo(at[1]);
        }
        int from = ((Number) page.evaluate("() => document.querySelector('[data-section=dusk]').offsetTop - 900"))
                .intValue();
        for (int step = 0; step <= 60; step++) {
            page.evaluate("y => scrollTo(0, y)", from + step * 25);
            seen = Math.min(seen, Contrast.ratio(Color.BLACK, pixel(page)));
        }
        assertThat(seen).isBetween(least - 0.02, least + 0.5);
        page.evaluate("() => scrollTo(0, 0)");
        assertThat(pixel(page).hex()).isEqualTo("#ffffff");
        assertThat(style(page, "[data-section=dawn]", "background-color")).isEqualTo("rgb(255, 255, 255)");
        page.emulateMedia(new Page.EmulateMediaOptions().setReducedMotion(ReducedMotion.REDUCE));
        page.evaluate("() => document.querySelector('[data-section=dusk]').scrollIntoView({ block: 'center' })");
        assertThat(pixel(page).hex()).as("nothing changes").isEqualTo("#ffffff");
    }

    /** What is painted in the lower left corner of the window, where only the page itself is. */
    private static Color pixel(Page page) throws IOException {
        BufferedImage shot = ImageIO.read(
                new ByteArrayInputStream(page.screenshot(new Page.ScreenshotOptions().setClip(0, 795, 4, 4))));
        int rgb = shot.getRGB(1, 1);
        return Color.rgb((rgb >> 16 & 255) / 255.0, (rgb >> 8 & 255) / 255.0, (rgb & 255) / 255.0);
    }

    /** Of very many questions those of one place are there at a time; what is answered is kept, undone and found again. */
    @Test
    void aSiteOfManySectionsBringsTheQuestionsOfThePlaceThatIsOpened() throws IOException {
        Running running = Running.get();
        Theme theme = theme();
        for (int i = 0; i < 12; i++) {
            theme = Sections.put(
                            theme,
                            Shelf.kits().get(i % Shelf.kits().size()),
                            theme.pages().get(0),
                            "S" + i,
                            0)
                    .applied(theme);
        }
        TreeMap<String, byte[]> files = new TreeMap<>();
        for (String path : theme.files().paths()) {
            files.put(path, theme.files().read(path));
        }
        Client client = new Client(running.address).signedIn("ida", Running.PASSWORD);
        String brought = client.bringIn("many-sections.zip", HostileThemesInTheApplicationTest.zip(files));
        String ownerName = running.newOwner();
        client.post(brought + "/sites", "name", "Many Sections", "whose", "owner", "owner", ownerName);
        Page owner = running.signedIn(ownerName, 1280, 800);
        owner.navigate(running.address + "/sites/many-sections");
        assertThat(owner.locator("[data-in-place]").count()).isEqualTo(12);
        assertThat(owner.locator("[data-in-place]:has([data-question])").count())
                .isEqualTo(1);
        owner.click("[data-place=s5]");
        owner.waitForSelector("[data-in-place=s5] [data-question]");
        assertThat(
                        owner.evaluate(
                                "() => { const over = (e, side) => e['scroll' + side] - e['client' + side];"
                                        + " return [over(document.scrollingElement, 'Height'), over(document.querySelector('.owner .bar'), 'Width')]; }"))
                .as("questions and places that do not fit are reached where they stand; the page itself stays")
                .isEqualTo(List.of(0, 0));
        Locator heading = owner.locator("[data-key=s5-heading] input[name=v]");
        heading.fill("Sold on the quay");
        heading.blur();
        Client asOwner = client(running, ownerName);
        owner.waitForCondition(
                () -> asOwner.get("/sites/many-sections/choices.json").body().contains("Sold on the quay"));
        // Whether the button is shown brings and takes other questions: all come anew, and the place stays open.
        owner.locator(
                        "[data-key=s5-button-shown] input[type=checkbox], [data-key=s5-button-shown] input[type=radio]:not(:checked)")
                .first()
                .click();
        owner.waitForCondition(() -> owner.locator("[data-key=s5-button]").count() == 0);
        assertThat(owner.locator("[data-in-place=s5]").isVisible()).isTrue();
        owner.click("[data-key=u]");
        owner.waitForCondition(() -> owner.locator("[data-key=s5-button]").count() == 1);
        owner.click("[data-key=u]");
        owner.waitForCondition(
                () -> !asOwner.get("/sites/many-sections/choices.json").body().contains("Sold on the quay"));
        owner.waitForCondition(
                () -> heading.count() == 1 && heading.inputValue().equals("Tickets are sold on board"));
        owner.navigate(running.address + "/sites/many-sections");
        owner.waitForSelector("[data-in-place=s5] [data-question]");
        assertThat(asOwner.get("/sites/many-sections/places/none").statusCode()).isEqualTo(404);
    }

    /** Put, moved, once more, away and undone by the maker; items added, ordered and filled by the owner, and live. */
    @Test
    void aMakerPutsSectionsAndAnOwnerFillsThem() throws IOException {
        Running running = Running.get();
        TreeMap<String, byte[]> files = new TreeMap<>();
        files.put(
                "index.html",
                "<!doctype html><html lang=en><head><title>Reed</title><link rel=stylesheet href=a.css></head><body><main><h1>Reed</h1><div class=side><p>By the water</p></div></main></body></html>"
                        .getBytes(StandardCharsets.UTF_8));
        files.put("a.css", "h1 { color: #123456 }".getBytes(StandardCharsets.UTF_8));
        Client client = new Client(running.address).signedIn("ida", Running.PASSWORD);
        String theme = client.bringIn("sections.zip", HostileThemesInTheApplicationTest.zip(files));
        Page maker = running.maker();
        maker.navigate(running.address + theme + "/sections");
        maker.click(".kit:has([value=cards])");
        maker.fill("#f-name", "Boats");
        maker.click("text=Put it there");
        maker.waitForSelector(".notice >> text=Put the section “Boats” on index.html");
        maker.click(".kit:has([value=notice])");
        maker.selectOption("#f-before", new com.microsoft.playwright.options.SelectOption().setLabel("before Boats"));
        maker.click("text=Put it there");
        maker.waitForSelector(".notice >> text=“Notice band”");
        assertThat(maker.locator("tbody .name"))
                .extracting(Locator::allTextContents)
                .isEqualTo(List.of("Notice band", "Boats"));
        maker.click("[aria-label='Boats: up']");
        maker.waitForSelector(".notice >> text=Moved “Boats” up");
        assertThat(maker.locator("tbody .name").allTextContents()).containsExactly("Boats", "Notice band");
        maker.locator("tr.pick[data-row=notice-band]")
                .dragTo(maker.locator("tr.pick").first());
        maker.waitForSelector(".notice >> text=Moved “Notice band” before “Reed”");
        assertThat(maker.locator("tbody tr").first().innerText()).contains("Notice band");
        maker.click("[aria-label='Boats: once more']");
        maker.waitForSelector(".notice >> text=“Boats 2”");
        maker.click("[aria-label='Boats 2: take away']");
        maker.waitForSelector(".notice >> text=Took the section “Boats 2” away");
        maker.click("[data-key=u]");
        maker.waitForCondition(() -> maker.locator("tbody .name").count() == 3);

        // Beside the main part of the page, and by keyboard into it.
        maker.click(".kit:has([value=notice])");
        maker.fill("#f-name", "Wide");
        maker.selectOption("#f-before", "-1");
        maker.click("text=Put it there");
        maker.waitForSelector(".notice >> text=Put the section “Wide”");
        assertThat(maker.locator("tr.group").allInnerTexts()).containsExactly("In main", "After main");
        maker.locator("tr.pick[data-row=wide] .name").focus();
        maker.keyboard().press("Alt+ArrowUp");
        maker.waitForSelector(".notice >> text=Moved “Wide” up, into the main part");
        assertThat(maker.locator("tr.group").count()).isZero();
        maker.click("[aria-label='Wide: take away']");
        maker.waitForSelector(".notice >> text=Took the section “Wide” away");

        // In a container of the page, and out of it.
        maker.click("[aria-label='Inside div.side']");
        maker.click(".kit:has([value=notice])");
        maker.fill("#f-name", "Low");
        maker.locator("#f-before option").all().stream()
                .filter(o -> o.innerText().equals("at the end of div.side"))
                .findFirst()
                .ifPresentOrElse(
                        o -> assertThat(maker.inputValue("#f-before")).isEqualTo(o.getAttribute("value")),
                        () -> assertThat(maker.locator("#f-before").innerText()).contains("at the end of div.side"));
        maker.click("text=Put it there");
        maker.waitForSelector(".notice >> text=Put the section “Low”");
        assertThat(maker.locator("tr.pick[data-row=low] td.deeper-1").count()).isOne();
        maker.click("[aria-label='Low: down']");
        maker.waitForSelector(".notice >> text=Moved “Low” down, out of “div.side”");
        maker.click("[aria-label='Low: take away']");
        maker.waitForSelector(".notice >> text=Took the section “Low” away");

        // A part that is clicked becomes one.
        maker.navigate(running.address + theme + "/survey?page=index.html");
        Running.clickPart(maker, "h1");
        maker.click("[data-make-section]");
        maker.waitForURL("**/sections/own/**");
        assertThat(maker.inputValue("#k-html")).contains("data-setting-text=\"heading\"");
        // Rules are written in an editor: a fault is told at its line as it is typed, and what can be used is shown at
        // once.
        Locator rules = maker.locator("[data-editor=css] .cm-content");
        rules.click();
        maker.keyboard().press("Control+A");
        maker.keyboard().insertText("\n:scope + p { color: red }");
        maker.waitForSelector("[data-tried] >> text=section.css, line 2");
        maker.waitForSelector("[data-editor=css] .cm-lint-marker-error");
        assertThat(maker.locator("[data-editor=html] .cm-lint-marker-error").count())
                .isZero();
        maker.click("text=Keep it so");
        maker.waitForSelector("#notice >> text=section.css, line 2");
        rules.click();
        maker.keyboard().press("Control+A");
        // Key by key: letters that do something elsewhere (o, p, w, u, r) are letters here.
        maker.keyboard().type("/* our power up */");
        maker.waitForCondition(() -> maker.inputValue("#k-css").equals("/* our power up */"));
        assertThat(maker.url()).contains("/sections/own/");
        maker.keyboard().press("Control+A");
        maker.keyboard().insertText(":scope { color: rgb(1, 2, 3); width: var(--");
        maker.keyboard().press("Control+Space");
        maker.waitForSelector("[data-editor=css] .cm-tooltip-autocomplete >> text=--heading");
        maker.keyboard().press("Escape");
        maker.keyboard().insertText("wide, auto) }");
        maker.waitForCondition(() -> maker.locator("[data-alive]").first().getAttribute("data-shown") != null);
        String tried = maker.locator("[data-alive]").first().getAttribute("data-shown");
        maker.waitForCondition(
                () -> maker.frames().stream().anyMatch(f -> f.url().endsWith(tried)));
        assertThat(client.get(tried).body()).contains("rgb(1, 2, 3)");
        assertThat(client.get(tried.replaceAll("[?].*", "")).body())
                .as("nothing is kept by typing")
                .doesNotContain("rgb(1, 2, 3)");
        assertThat(new Client(running.address)
                        .signedIn("ida", Running.PASSWORD)
                        .get(tried.replaceAll("/own/.*|/kit/.*", "/kit/no-such?tried=1"))
                        .statusCode())
                .isEqualTo(404);
        maker.keyboard().press("Control+s");
        maker.waitForSelector(".notice >> text=Changed the section");
        assertThat(maker.inputValue("#k-css")).isEqualTo(":scope { color: rgb(1, 2, 3); width: var(--wide, auto) }\n");

        String slug = "reed-boats";
        String ownerName = running.newOwner();
        assertThat(client.post(theme + "/sites", "name", "Reed Boats", "whose", "owner", "owner", ownerName)
                        .statusCode())
                .isEqualTo(302);
        Page owner = running.signedIn(ownerName, 1280, 800);
        owner.navigate(running.address + "/sites/" + slug);
        Locator question = owner.locator("[data-question][data-key=boats-cards]");
        question.locator("[data-item-add]").click();
        question.locator("[name='v.3.heading']").fill("The late boat");
        question.locator("[name='v.3.heading']").blur();
        question.locator("[data-item='3'] [data-item-move='-1']").click();
        question.locator("[data-item='0'] [data-item-remove]").click();
        owner.waitForCondition(() -> client(running, ownerName)
                .get("/sites/" + slug + "/choices.json")
                .body()
                .contains("The late boat"));
        Running.goLive(owner);
        owner.waitForCondition(() ->
                new Client(running.address).get("/at/" + slug + "/").body().contains("The late boat"));
        String live = new Client(running.address).get("/at/" + slug + "/").body();
        String boats = live.substring(live.indexOf("data-section=\"boats\""), live.indexOf("data-section=\"boats-2\""));
        assertThat(boats.indexOf("Withy Landing")).isPositive().isLessThan(boats.indexOf("The late boat"));
        assertThat(boats.indexOf("The late boat")).isLessThan(boats.indexOf("Candle Steps"));
        assertThat(boats).doesNotContain("Harrow Pier");
        assertThat(live.substring(live.indexOf("data-section=\"boats-2\""))).contains("Harrow Pier");
    }

    /** A part of a page of the demo, made a section, looks the same on a bare page of another theme. */
    @Test
    void aPartOfTheDemoLooksTheSameOnABarePage() throws IOException {
        Theme towpath = org.calmpalette.core.intake.ThemeFolder.read(Path.of("src/main/resources/own/towpath"));
        org.calmpalette.core.page.Page index = towpath.pages().stream()
                .filter(p -> p.source().file().equals("index.html"))
                .findFirst()
                .orElseThrow();
        Page original = shown(towpath, Map.of(), "towpath", 1200);
        for (String selector : List.of(".card", ".hero", "footer")) {
            org.jsoup.nodes.Element part = index.document().selectFirst(selector);
            if (selector.equals(".card")) {
                part = part.parent();
            }
            int at = index.elements().indexOf(part);
            Theme with = OwnSections.from(new org.calmpalette.core.render.Rendered(towpath), index, at, "Taken")
                    .applied(towpath);
            SectionKit kit = SectionKit.of(with.files()).get(0);
            TreeMap<String, byte[]> files = new TreeMap<>();
            files.put(
                    "index.html",
                    "<!doctype html><html lang=en><head><title>B</title></head><body><main></main></body></html>"
                            .getBytes(StandardCharsets.UTF_8));
            Theme bare = Theme.read(ThemeFiles.of(files), "B");
            Page copy = shown(
                    Sections.put(bare, kit, bare.pages().get(0), "", 0).applied(bare),
                    Map.of(),
                    "bare-" + selector.replace(".", ""),
                    1200);
            String paint =
                    """
                    s => { const root = s.startsWith('[') ? document.querySelector(s) : document.querySelectorAll('*')[Number(s)];
                      return [root, ...root.querySelectorAll('*')].map(e => { const c = getComputedStyle(e);
                        return [e.localName, c.color, c.backgroundColor, c.fontSize, c.fontFamily, c.fontWeight, c.paddingTop, c.paddingLeft, c.marginTop,
                          c.borderTopColor, c.borderTopWidth, c.textAlign, c.lineHeight, c.textDecorationLine,
                          e.localName === 'img' ? '' : c.display].join(' | ') }) }""";
            int built = org.calmpalette.core.page.Page.read(
                                    "i",
                                    ThemeBuild.build(towpath, Map.of()).files().get("index.html"))
                            .elements()
                            .size()
                    - index.elements().size();
            assertThat((List<?>) copy.evaluate(paint, "[data-section]"))
                    .as(selector)
                    .isEqualTo(original.evaluate(paint, String.valueOf(at - 1 + built)));
        }
    }

    private static final String PAINT =
            """
            root => [root, ...root.querySelectorAll('*')].map(e => { const c = getComputedStyle(e);
              return [e.localName, c.color, c.backgroundColor, c.backgroundImage.replace(/url\\([^)]*\\)/g, 'url'), c.fontSize, c.fontFamily, c.fontWeight, c.fontStyle, c.paddingTop, c.paddingLeft,
                c.marginTop, c.borderTopColor, c.borderTopWidth, c.borderTopStyle, c.borderBottomLeftRadius, c.textAlign, c.lineHeight, c.letterSpacing, c.textTransform,
                c.textDecorationLine, c.listStyleType, c.opacity, c.boxShadow, c.position, e.localName === 'img' ? '' : c.display].join(' | ') })""";

    private static final String STILL = " *{transition:none!important;animation:none!important}";

    private static Theme page(String sheet, byte[] css) {
        TreeMap<String, byte[]> files = new TreeMap<>();
        files.put(
                "index.html",
                ("<!doctype html><html lang=en><head><title>B</title>" + sheet
                                + "</head><body><main></main></body></html>")
                        .getBytes(StandardCharsets.UTF_8));
        if (css.length > 0) {
            files.put("sheet.css", css);
        }
        return Theme.read(ThemeFiles.of(files), "B");
    }

    /**
     * Parts of pages in the markup of published sheets, each a section on a page without any of their rules, and on one under another
     * published sheet, which says other things of the same elements and classes.
     */
    @Test
    @SuppressWarnings("unchecked")
    void partsOfPagesUnderPublishedSheetsLookTheSameOnOtherPages() {
        // In the markup of people where there is some, else of a specimen page of all its classes.
        Map<String, String> sheets = new TreeMap<>(Map.of(
                "bootstrap 5.3.8", "bootstrap",
                "bulma 1.0.4", "bulma",
                "foundation-sites 6.9.0", "foundation",
                "purecss 2.1.0", "pure",
                "milligram 1.4.1", "",
                "picocss 2.1.1", ""));
        Page original = Browsers.page(1440, 900);
        Page copy = Browsers.page(1440, 900);
        Theme bare = page("", new byte[0]);
        List<String> names = List.copyOf(sheets.keySet());
        List<String> wrong = new ArrayList<>();
        int parts = 0;
        int seen = 0;
        for (Map.Entry<String, String> sheet : sheets.entrySet()) {
            byte[] css = OutsideSheets.get(sheet.getKey());
            byte[] html = sheet.getValue().isEmpty()
                    ? Specimen.page(Stylesheet.read("sheet.css", css))
                    : OutsideSheets.resource("/agreement/" + sheet.getValue() + ".html");
            Theme theme = Theme.read(ThemeFiles.of(new TreeMap<>(Map.of("index.html", html, "sheet.css", css))), "T");
            original.setContent(new String(html, StandardCharsets.UTF_8)
                    .replaceFirst("<link rel=\"stylesheet\"[^>]*>", "<style id=sheet></style>"));
            original.evaluate(
                    "css => { document.getElementById('sheet').textContent = css }",
                    new String(css, StandardCharsets.UTF_8) + STILL);
            org.calmpalette.core.page.Page index = theme.pages().get(0);
            Rendered rendered = new Rendered(theme);
            byte[] foreign = OutsideSheets.get(names.get((names.indexOf(sheet.getKey()) + 1) % names.size()));
            Theme other = page("<link rel=\"stylesheet\" href=\"sheet.css\">", foreign);
            for (org.jsoup.nodes.Element part : index.document().body().getAllElements()) {
                int size = part.getAllElements().size();
                int depth = part.parents().size();
                if (part == index.document().body() || size < 2 || size > 200 || depth > 5) {
                    continue;
                }
                // Of neighbours that are much alike one in three, but for long runs.
                if (!Generated.LONG && seen++ % 3 > 0) {
                    continue;
                }
                SectionKit kit;
                try {
                    kit = SectionKit.of(OwnSections.from(
                                            rendered, index, index.elements().indexOf(part), "Taken")
                                    .applied(theme)
                                    .files())
                            .get(0);
                } catch (BadInputException refused) {
                    continue;
                }
                parts++;
                Theme to = parts % 3 == 0 ? bare : other;
                Theme put = Sections.put(to, kit, to.pages().get(0), "", 0).applied(to);
                String page = new String(
                        ThemeBuild.filled(put.pages().get(0), ThemeBuild.defaults(put)), StandardCharsets.UTF_8);
                copy.setContent(page.replaceAll("<link rel=\"stylesheet\" [^>]*>", "")
                        .replaceFirst("</head>", "<style id=foreign></style><style id=sheet></style></head>"));
                copy.evaluate(
                        "([foreign, css]) => { document.getElementById('foreign').textContent = foreign; document.getElementById('sheet').textContent = css }",
                        List.of(
                                to == bare ? "" : new String(foreign, StandardCharsets.UTF_8),
                                ThemeBuild.settingsCss(put)
                                        + new String(put.files().read("sections.css"), StandardCharsets.UTF_8)
                                        + STILL));
                List<String> theirs = (List<String>) original.evaluate(
                        "([at, paint]) => eval(paint)(document.querySelectorAll('*')[at])",
                        List.of(index.elements().indexOf(part) - 1, PAINT));
                List<String> ours = (List<String>)
                        copy.evaluate("paint => eval(paint)(document.querySelector('[data-section]'))", PAINT);
                // Browsers make letters of one width smaller where no length has been given around them yet (from
                // memory).
                theirs.removeIf(l -> l.matches("(code|pre|kbd|samp) .*"));
                ours.removeIf(l -> l.matches("(code|pre|kbd|samp) .*"));
                if (!theirs.equals(ours)) {
                    int n = 0;
                    while (n < Math.min(theirs.size(), ours.size())
                            && theirs.get(n).equals(ours.get(n))) {
                        n++;
                    }
                    wrong.add(
                            sheet.getKey() + " " + part.cssSelector() + (to == bare ? ", bare" : ", elsewhere") + "\n  "
                                    + (n < theirs.size() ? theirs.get(n) : "-") + "\n  "
                                    + (n < ours.size() ? ours.get(n) : "-"));
                }
            }
        }
        assertThat(wrong).as(parts + " parts").isEmpty();
        assertThat(parts).isGreaterThan(Generated.LONG ? 80 : 27);
    }

    private static Client client(Running running, String name) {
        return new Client(running.address).signedIn(name, Running.PASSWORD);
    }
}

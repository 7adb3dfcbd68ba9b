package org.calmpalette.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import com.deque.html.axecore.playwright.AxeBuilder;
import com.deque.html.axecore.results.Rule;
import com.microsoft.playwright.Page;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import javax.imageio.ImageIO;
import org.calmpalette.core.Generated;
import org.calmpalette.core.cascade.ElementStyle;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.color.Contrast;
import org.calmpalette.core.css.selector.States;
import org.calmpalette.core.output.ThemeBuild;
import org.calmpalette.core.promise.Answer;
import org.calmpalette.core.promise.MadeThemes;
import org.calmpalette.core.promise.Perceivable;
import org.calmpalette.core.promise.Readable;
import org.calmpalette.core.promise.SafeArea;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.setting.Chosen;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.Themes;
import org.calmpalette.core.value.Viewport;
import org.junit.jupiter.api.Test;

/**
 * What is proved of readable texts, against a judge from outside: axe-core 4.11, rule color-contrast, on the pages as Chromium shows them
 * with allowed choices. What it cannot tell it leaves open, as where letters have the very colour of their ground.
 */
class PromisesInChromiumTest {
    private final Running running = Running.get();
    private Page page;

    /** @param wrong ids of elements whose contrast is too low; @param open of those that it cannot tell */
    private record Judged(Set<String> wrong, Set<String> open) {}

    private Judged judge(Theme theme, Map<String, Chosen> chosen) {
        String css = ThemeBuild.settingsCss(theme)
                + Themes.text(theme.files(), "a.css")
                + ThemeBuild.paletteCss(theme, chosen);
        page.setContent(MadeThemes.PAGE.replace("<link rel=stylesheet href=a.css>", "<style>" + css + "</style>"));
        var found = new AxeBuilder(page)
                .setLegacyMode(true)
                .withRules(List.of("color-contrast"))
                .analyze();
        return new Judged(ids(found.getViolations()), ids(found.getIncomplete()));
    }

    private static Set<String> ids(List<Rule> rules) {
        return rules.stream()
                .flatMap(r -> r.getNodes().stream())
                .map(n -> n.getHtml().replaceFirst("(?s)^.*?id=\"(t\\d)\".*$", "$1"))
                .collect(Collectors.toSet());
    }

    @Test
    void axeFindsWhatIsBrokenAndNothingOfWhatIsKept() {
        page = running.visitor(320, 800);
        Random random = Generated.random(95);
        int kept = 0;
        int broken = 0;
        for (int n = 0; n < Generated.times(6); n++) {
            Theme theme = MadeThemes.theme(random);
            List<Answer> answers = Readable.of(theme).stream()
                    .filter(a -> a.pseudoClass().isEmpty() && a.width() == 320)
                    .toList();
            for (int i = 0; i < (Generated.LONG ? 10 : 4); i++) {
                Map<String, Chosen> chosen = MadeThemes.choices(random, theme);
                Judged judged = judge(theme, chosen);
                for (Answer a : answers) {
                    if (a.state() == Answer.State.KEPT) {
                        kept++;
                        assertThat(judged.wrong())
                                .as("%s %s %s", Themes.text(theme.files(), "a.css"), chosen, a)
                                .doesNotContain(a.selector().substring(1));
                    }
                }
            }
            for (Answer a : answers) {
                if (a.isBroken()) {
                    Map<String, Chosen> chosen = new LinkedHashMap<>();
                    a.values().forEach((key, v) -> chosen.put(key, Chosen.of(v)));
                    Judged judged = judge(theme, chosen);
                    String id = a.selector().substring(1);
                    if (!judged.open().contains(id)) {
                        broken++;
                        assertThat(judged.wrong())
                                .as("%s %s %s", Themes.text(theme.files(), "a.css"), chosen, a)
                                .contains(id);
                    }
                }
            }
        }
        assertThat(kept).as("texts that are kept").isGreaterThan(Generated.times(6) * 2);
        assertThat(broken).as("texts that are broken").isGreaterThanOrEqualTo(Generated.times(6) / 3);
    }

    /** What stylesheets write, drawings, edges and outlines: the colours that Chromium paints there, beside what lies next to them. */
    @Test
    void pixelsShowWhatIsKeptAndWhatIsBroken() {
        page = running.visitor(320, 800);
        Random random = Generated.random(96);
        int kept = 0;
        int broken = 0;
        for (int n = 0; n < Generated.times(8); n++) {
            Theme theme = MadeThemes.parts(random);
            String css = Themes.text(theme.files(), "a.css");
            List<Answer> answers = Readable.of(theme).stream()
                    .filter(a -> a.what() != Perceivable.TEXT && a.width() == 320)
                    .toList();
            for (int i = 0; i < 3; i++) {
                Map<String, Chosen> chosen = MadeThemes.choices(random, theme);
                Map<Perceivable, Double> seen = seen(theme, chosen);
                for (Answer a : answers) {
                    if (a.state() == Answer.State.KEPT) {
                        kept++;
                        assertThat(seen.get(a.what()))
                                .as("%s %s %s", css, chosen, a)
                                .isGreaterThan(a.needed() - WHOLE_STEPS);
                    }
                }
            }
            for (Answer a : answers) {
                if (a.isBroken()) {
                    broken++;
                    Map<String, Chosen> chosen = new LinkedHashMap<>();
                    a.values().forEach((key, v) -> chosen.put(key, Chosen.of(v)));
                    assertThat(seen(theme, chosen).get(a.what()))
                            .as("%s %s", css, a)
                            .isCloseTo(a.worst(), within(WHOLE_STEPS));
                }
            }
        }
        assertThat(kept).isGreaterThan(Generated.times(8));
        assertThat(broken).isGreaterThan(Generated.times(8));
    }

    /** What a ratio near those that are needed may differ by where colours are whole steps of 255, several times over. */
    private static final double WHOLE_STEPS = 0.12;

    private Map<Perceivable, Double> seen(Theme theme, Map<String, Chosen> chosen) {
        String css = ThemeBuild.settingsCss(theme)
                + Themes.text(theme.files(), "a.css")
                + ThemeBuild.paletteCss(theme, chosen);
        page.setContent(MadeThemes.PARTS.replace("<link rel=stylesheet href=a.css>", "<style>" + css + "</style>"));
        page.focus("#t4");
        BufferedImage shot = Browsers.seen(page, false);
        return Map.of(
                Perceivable.BEFORE, contrast(shot, "#t1", 5, IntStream.range(24, 100)),
                Perceivable.EDGE, contrast(shot, "#t2", -8, IntStream.of(3, 40)),
                Perceivable.ICON, contrast(shot, "svg", -8, IntStream.of(2, 20)),
                Perceivable.OUTLINE, contrast(shot, "#t4", -14, IntStream.of(-3)));
    }

    /** The greatest of some points with one, in the middle of an element's height, each in px from its left edge. */
    private double contrast(BufferedImage shot, String selector, int ground, IntStream points) {
        List<?> box = (List<?>) page.evaluate(
                "s => { const b = document.querySelector(s).getBoundingClientRect(); return [b.left, b.top + b.height / 2]; }",
                selector);
        int left = (int) Math.round(((Number) box.get(0)).doubleValue());
        int middle = (int) Math.round(((Number) box.get(1)).doubleValue());
        return points.mapToDouble(x ->
                        Contrast.ratio(color(shot.getRGB(left + x, middle)), color(shot.getRGB(left + ground, middle))))
                .max()
                .orElseThrow();
    }

    private static final int POINTS = 200;

    /**
     * Words in white on colours along the border of the safe area, as Chromium makes them of {@code hsl()}: judged by axe-core, and by the
     * pixels of the ground and of a letter that fills its box.
     */
    @Test
    void axeAndPixelsDrawTheBorderOfTheSafeAreaInTheSamePlace() throws IOException {
        page = running.visitor(320, 800);
        Theme theme = Themes.of(
                "index.html",
                MadeThemes.PAGE,
                "a.css",
                "body { background: var(--ground); color: #fff } a { color: #fff }",
                "palette.json",
                "{\"name\": \"T\", \"places\": [{\"key\": \"p\", \"label\": \"P\"}], \"settings\": [{\"key\": \"ground\", \"label\": \"G\", \"place\": \"p\", \"kind\": \"color\", \"default\": \"#000000\"}]}");
        List<List<double[]>> columns = SafeArea.Texts.of(theme)
                .around(theme.palette().known("ground"))
                .field(80, POINTS)
                .columns();
        StringBuilder html = new StringBuilder(
                "<!doctype html><html lang=en><title>T</title><style>body { margin: 0 } p { margin: 0; font: 16px/20px sans-serif; height: 20px }</style><main>");
        for (int i = 0; i < columns.size(); i++) {
            double border = columns.get(i).get(0)[1];
            for (int side = 0; side < 2; side++) {
                html.append(String.format(
                        java.util.Locale.ROOT,
                        "<p class=%s style='color:#fff;background:hsl(%.2f 80%% %.3f%%)'>&#x2588;&#x2588; Words</p>",
                        side == 0 ? "in" : "out",
                        360.0 * i / (columns.size() - 1),
                        side == 0 ? border - 0.02 : border + 0.5));
            }
        }
        page.setContent(html.toString());
        List<String> wrong = new AxeBuilder(page)
                .setLegacyMode(true).withRules(List.of("color-contrast")).analyze().getViolations().stream()
                        .flatMap(r -> r.getNodes().stream())
                        .map(n -> n.getHtml().replaceFirst("(?s)^.*?class=\"(\\w+)\".*$", "$1"))
                        .toList();
        assertThat(wrong).hasSize(POINTS).containsOnly("out");
        BufferedImage shot =
                ImageIO.read(new ByteArrayInputStream(page.screenshot(new Page.ScreenshotOptions().setFullPage(true))));
        for (int i = 0; i < 2 * POINTS; i++) {
            Color letter = color(shot.getRGB(8, 20 * i + 10));
            Color ground = color(shot.getRGB(300, 20 * i + 10));
            assertThat(letter.hex()).isEqualTo("#ffffff");
            assertThat(Contrast.ratio(letter, ground) >= 4.5)
                    .as("point %d, %s", i / 2, ground.hex())
                    .isEqualTo(i % 2 == 0);
        }
    }

    private static Color color(int rgb) {
        return Color.rgb((rgb >> 16 & 255) / 255.0, (rgb >> 8 & 255) / 255.0, (rgb & 255) / 255.0);
    }

    /** The grey of placeholders is the browser's own, and rules of theirs win as those of other boxes do. */
    @Test
    void placeholdersHaveTheColorsThatChromiumComputes() {
        page = running.visitor(1280, 800);
        for (String css : List.of(
                "",
                "input { color: red }",
                "input { color: red } ::placeholder { color: inherit; opacity: .5 }",
                "#t::placeholder { color: #123456 } input::placeholder { color: #654321 !important }",
                ":root { color-scheme: dark }")) {
            Theme theme = Themes.of(
                    "index.html",
                    "<!doctype html><html lang=en><head><link rel=stylesheet href=a.css></head><body><input id=t placeholder=x></body></html>",
                    "a.css",
                    css);
            ElementStyle style = new Rendered(theme)
                    .styles(theme.pages().get(0), Viewport.of(1280, 800), States.NONE)
                    .of(theme.pages().get(0).document().getElementById("t"), "placeholder");
            page.setContent("<!doctype html><style>" + css + "</style><input id=t placeholder=x>");
            assertThat(style.computed("color") + " " + style.computed("opacity"))
                    .as(css)
                    .isEqualTo(
                            page.evaluate(
                                    "() => { const s = getComputedStyle(document.querySelector('#t'), '::placeholder'); return s.color + ' ' + s.opacity; }"));
        }
    }
}

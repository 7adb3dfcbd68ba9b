package org.calmpalette.core.output;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.Map;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.setting.Bands;
import org.calmpalette.core.setting.Chosen;
import org.calmpalette.core.setting.LeftOut;
import org.calmpalette.core.setting.PaletteJson;
import org.calmpalette.core.setting.Specimens;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.Themes;
import org.junit.jupiter.api.Test;

class ThemeBuildTest {
    private static final String PALETTE =
            """
      {"format":"calm-palette/1","later":{"kept":true},"places":[{"key":"p","label":"P"}],
       "settings":[{"key":"a","label":"A","kind":"color","place":"p","default":"#112233","tool":7},
        {"key":"b","label":"B","kind":"color","place":"p","default":"red","allowed":{"swatches":["red","blue"]}}]}""";

    private static String page(String html, String path) {
        Theme theme = Themes.of(path, html, "palette.json", PALETTE);
        return new String(ThemeBuild.build(theme, null).files().get(path), StandardCharsets.UTF_8);
    }

    @Test
    void settingsComeBeforeEveryStylesheetAndChoicesAfterAll() {
        assertThat(page(
                        "<!doctype html><html><head><title>x</title>\n<link rel=stylesheet href=a.css>\n<style>p{}</style></head><p>",
                        "index.html"))
                .isEqualTo(
                        "<!doctype html><html><head><title>x</title>\n<link rel=\"stylesheet\" href=\"settings.css\">\n"
                                + "<link rel=stylesheet href=a.css>\n<style>p{}</style>\n<link rel=\"stylesheet\" href=\"palette.css\"></head><p>");
        assertThat(page("<p>No head, no sheet", "deep/er/x.html"))
                .startsWith("<link rel=\"stylesheet\" href=\"../../settings.css\">")
                .contains("../../palette.css")
                .endsWith("<p>No head, no sheet");
        String twice = page(page("<head></head><p>", "index.html"), "index.html");
        assertThat(twice).isEqualTo(page("<head></head><p>", "index.html")).containsOnlyOnce("settings.css");
    }

    @Test
    void onlyWhatDiffersFromTheDefaultsAndIsAllowedIsWritten() {
        Theme theme = Themes.of("a.css", "", "palette.json", PALETTE);
        assertThat(ThemeBuild.paletteCss(theme, Map.of("a", Chosen.of("rgb(17, 34, 51)"), "b", Chosen.of("#00f"))))
                .isEqualTo(":root {\n  --b: #0000ff;\n}\n");
        Map<String, Chosen> bad =
                Map.of("a", Chosen.of("red;}body{x:y"), "b", Chosen.of("green"), "gone", Chosen.of("red"));
        assertThat(ThemeBuild.chosen(theme, bad).leftOut())
                .extracting(LeftOut::key)
                .containsExactly("a", "b", "gone");
        assertThat(ThemeBuild.paletteCss(theme, bad)).isEqualTo("/* No choice differs from the defaults. */\n");
    }

    private static Theme specimens(String page) {
        return Themes.of(
                "index.html",
                page,
                "palette.json",
                new String(PaletteJson.write(Specimens.palette(), null), StandardCharsets.UTF_8),
                "img/a.png",
                "",
                "img/b.png",
                "",
                "film/a.mp4",
                "");
    }

    @Test
    void bandsAreWrittenForExactlyTheWidthsAtWhichTheyDiffer() {
        Theme theme = specimens("<p>");
        String settings = ThemeBuild.settingsCss(theme);
        assertThat(settings)
                .contains("@property --hero-picture {\n  syntax: \"<url> | none\";")
                .contains("  --height: 72vh;\n")
                .contains("@media (width < 768px) {\n  :root {\n    --ink: #303030;\n")
                .doesNotContain("(768px <= width");
        String choices = ThemeBuild.paletteCss(
                theme, Map.of("ink", Chosen.of("#000080"), "shade", new Chosen(null, Map.of("tablet", Value.of(10)))));
        // On phones the maker's own value stays, so nothing is written for them; what follows goes along.
        assertThat(choices)
                .startsWith("@media (width >= 768px) {\n  :root {\n    --ink: #000080;\n    --ink-copy: #000080;\n")
                .contains("@media (768px <= width < 1200px) {\n  :root {\n    --shade: 10%;\n  }\n}\n")
                .doesNotContain("--height")
                .doesNotContain("width < 768px");
    }

    @Test
    void theSameInputGivesTheSameBytes() {
        Map<String, Chosen> choices = Map.of(
                "hero",
                Chosen.of(Specimens.background("#ffffff", "img/b.png", 0)),
                "height",
                Chosen.of(Specimens.px(250)),
                "heading",
                Chosen.of("Other"),
                "edge",
                Chosen.of("none"),
                "banner",
                Chosen.of(Value.of(false)));
        String page =
                "<h2 data-setting-text=heading>Cross the mere &amp; back</h2><div data-setting-show='banner'>x</div>";
        var once = ThemeBuild.build(specimens(page), choices);
        var twice = ThemeBuild.build(specimens(page), new java.util.TreeMap<>(choices));
        assertThat(once.leftOut()).isEmpty();
        assertThat(twice.files().keySet()).isEqualTo(once.files().keySet());
        once.files()
                .forEach((file, bytes) ->
                        assertThat(twice.files().get(file)).as(file).isEqualTo(bytes));
    }

    @Test
    void aPageThatWasBuiltBeforeIsBuiltToTheSame() {
        String page =
                "<main><h2 id=t data-setting-text=heading data-setting-level=level>x</h2>\n<p data-setting-show=banner>y</p><p>z</p></main>";
        Map<String, Chosen> choices = Map.of("banner", Chosen.of(Value.of(false)));
        String once = filled(page, choices);
        assertThat(once).contains("data-setting-in=\"phone\"").contains("data-setting-hidden");
        assertThat(filled(once, choices)).isEqualTo(once);
        assertThat(filled(once, Map.of("heading", Chosen.of("New"))))
                .contains(">New</h2>")
                .doesNotContain("hidden=\"phone tablet desktop\"");
    }

    private static String filled(String html, Map<String, Chosen> choices) {
        Theme theme = specimens(html);
        String built = new String(
                ThemeBuild.finished(theme.pages().get(0), ThemeBuild.chosen(theme, choices)), StandardCharsets.UTF_8);
        return built.replaceAll("<link[^>]*>\n?", "");
    }

    @Test
    void aBoundPartThatSaysWhatTheSettingSaysStaysToTheByte() {
        String html =
                "<A  HREF='piers.html#harrow' data-setting-alt=x >go</A><img src=img/a.png><h2 data-setting-level=level data-x>x</h2>";
        assertThat(filled(html, Map.of("level", new Chosen(null, Map.of("phone", Value.of(2))))))
                .isEqualTo(html);
    }

    @Test
    void partsOfPagesAreFilledOncePerBandWhereBandsDiffer() {
        Map<String, Chosen> same =
                Map.of("heading", new Chosen(Value.of("A <b> & \"c\""), Map.of("phone", Value.of("A <b> & \"c\""))));
        assertThat(filled("<h1 class=x data-setting-text=heading>Cross the mere</h1>", same))
                .isEqualTo("<h1 class=x data-setting-text=heading>A &lt;b&gt; &amp; &quot;c&quot;</h1>");
        assertThat(filled(
                        "<h2 id=t data-setting-text=heading data-setting-level=level>Cross the mere &amp; back</h2>",
                        Map.of()))
                .isEqualTo(
                        "<h3 id=t data-setting-text=heading data-setting-level=level data-setting-in=\"phone\">Cross &lt;it&gt;</h3>"
                                + "<h2 data-setting-text=heading data-setting-level=level data-setting-in=\"tablet desktop\">Cross the mere &amp; back</h2>");
        assertThat(filled(
                        "<p data-setting-show=banner><img data-setting-src=logo src=\"img/a.png\" srcset=x></p>",
                        Map.of("logo", new Chosen(Value.of(""), Map.of("phone", Value.of(""))))))
                .isEqualTo(
                        "<p data-setting-show=banner data-setting-hidden=\"phone\"><img data-setting-src=logo data-setting-hidden=\"phone tablet desktop\"></p>");
        assertThat(filled(
                        "<a href=x data-setting-href=target>x</a>",
                        Map.of("target", new Chosen(null, Map.of("phone", Value.of("piers.html"))))))
                .isEqualTo(
                        "<a href=\"piers.html\" data-setting-href=target data-setting-in=\"phone\">x</a>"
                                + "<a href=\"piers.html#harrow\" data-setting-href=target data-setting-in=\"tablet desktop\">x</a>");
    }

    /** What is off at every width keeps its place among its neighbours and loads nothing; what is off at one width stays whole. */
    @Test
    void whatIsSwitchedOffLoadsNothing() {
        String whole =
                "<p>a</p><aside data-setting-hidden=\"phone tablet desktop\" class=x><img src=a.png><video src=b.webm></video></aside>"
                        + "<img src=c.png srcset='c.png 2x' alt=c data-setting-hidden='desktop phone tablet'>"
                        + "<div data-setting-hidden=phone><img src=d.png></div><p>z</p>";
        Page page = Page.read("index.html", whole.getBytes(StandardCharsets.UTF_8));
        assertThat(ThemeBuild.lean(page, Bands.USUAL).source().text())
                .isEqualTo("<p>a</p><aside data-setting-hidden=\"phone tablet desktop\" class=x></aside>"
                        + "<img alt=c data-setting-hidden='desktop phone tablet'>"
                        + "<div data-setting-hidden=phone><img src=d.png></div><p>z</p>");
    }

    @Test
    void whatPaletteJsonHoldsBesidesIsKept() {
        Theme theme = Themes.of("a.css", "", "palette.json", PALETTE);
        String written = new String(
                PaletteJson.write(theme.palette().without("b"), theme.files().read("palette.json")),
                StandardCharsets.UTF_8);
        assertThat(written)
                .contains("\"later\"")
                .contains("\"kept\": true")
                .contains("\"tool\": 7")
                .doesNotContain("\"b\"");
    }
}

package org.calmpalette.core.output;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.Map;
import org.calmpalette.core.setting.Chosen;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.Themes;
import org.junit.jupiter.api.Test;

/** Parts of pages filled by settings: only what says something else is written, and what differs by band once for each. */
class BoundPageTest {
    private static final String PALETTE =
            """
      {"format":"calm-palette/1","places":[{"key":"p","label":"P"}],"settings":[
       {"key":"title","label":"T","kind":"line","place":"p","default":"Boats","bands":{"phone":"Boats!"},"perBand":true},
       {"key":"words","label":"W","kind":"text","place":"p","default":"One\\nTwo"},
       {"key":"logo","label":"L","kind":"picture","place":"p","default":"img/a.png","allowed":{"none":true}},
       {"key":"film","label":"F","kind":"video","place":"p","default":{"src":"film/a.mp4","poster":"img/a.png"},"allowed":{"none":true}},
       {"key":"alt","label":"A","kind":"line","place":"p","default":"A pier"},
       {"key":"to","label":"H","kind":"link","place":"p","default":"piers.html"},
       {"key":"level","label":"V","kind":"level","place":"p","default":2},
       {"key":"there","label":"Y","kind":"yes-no","place":"p","default":true}]}""";

    private static String built(String page, String html, Map<String, Chosen> choices) {
        Theme theme = Themes.of(
                page,
                html,
                "piers.html",
                "<p>",
                "palette.json",
                PALETTE,
                "img/a.png",
                "x",
                "img/b c.png",
                "x",
                "film/a.mp4",
                "x",
                "film/b.mp4",
                "x");
        ThemeBuild.Result result = ThemeBuild.build(theme, choices);
        assertThat(theme.palette().faults()).isEmpty();
        assertThat(result.leftOut()).isEmpty();
        String text = new String(result.files().get(page), StandardCharsets.UTF_8);
        return text.substring(text.indexOf("<body>") + 6, text.indexOf("</body>"));
    }

    @Test
    void wordsForAPictureAreThoseOfTheSamePart() {
        Theme theme = Themes.of(
                "index.html",
                "<img data-setting-src=logo data-setting-alt=alt><div data-setting-items=cards><img data-setting-src=picture data-setting-alt=words></div>"
                        + "<img data-setting-src=film><p data-setting-alt=to>");
        assertThat(BoundPage.descriptions(theme)).isEqualTo(Map.of("logo", "alt", "picture", "words"));
    }

    private static String built(String body, Map<String, Chosen> choices) {
        return built("index.html", "<!doctype html><html><head></head><body>" + body + "</body></html>", choices);
    }

    @Test
    void whatSaysTheSameStaysAsItIs() {
        String body =
                "<IMG data-setting-src=logo  SRC = 'img/a.png' srcset='x 2x'><a href='./piers.html' data-setting-href=to>x</a><h2 data-setting-level=level>y</h2><p data-setting-text=words>One<br>Two</p><i data-setting-show=there>z</i>";
        assertThat(built(body, Map.of())).isEqualTo(body);
    }

    @Test
    void picturesVideosAndAlternatives() {
        assertThat(built(
                        "<img data-setting-src=logo data-setting-alt=alt src=img/a.png srcset='a 2x' sizes=100vw alt='Old'>",
                        Map.of("logo", Chosen.of("img/b c.png"))))
                .isEqualTo("<img data-setting-src=logo data-setting-alt=alt src=\"img/b%20c.png\" alt=\"A pier\">");
        assertThat(built("<img data-setting-src=logo src=img/a.png>", Map.of("logo", Chosen.of(""))))
                .as("none")
                .isEqualTo("<img data-setting-src=logo data-setting-hidden=\"phone tablet desktop\">");
        assertThat(built(
                        "<video data-setting-src=film src=film/a.mp4 poster=img/a.png></video>",
                        Map.of("film", Chosen.of(Value.parts("src", "film/b.mp4", "poster", "img/b c.png")))))
                .isEqualTo("<video data-setting-src=film src=\"film/b.mp4\" poster=\"img/b%20c.png\"></video>");
        assertThat(built(
                        "<video data-setting-src=film src=film/a.mp4 poster=img/a.png></video>",
                        Map.of("film", Chosen.of(Value.parts("src", "", "poster", "img/a.png")))))
                .isEqualTo("<video data-setting-src=film poster=img/a.png></video>");
    }

    @Test
    void linksAreSeenFromTheirPage() {
        assertThat(built(
                        "deep/er/x.html",
                        "<!doctype html><html><head></head><body><a data-setting-href=to href=#>x</a></body></html>",
                        Map.of("to", Chosen.of("piers.html#withy"))))
                .isEqualTo("<a data-setting-href=to href=\"../../piers.html#withy\">x</a>");
        assertThat(built(
                        "<a data-setting-href=to href=old>x</a>",
                        Map.of("to", Chosen.of("https://sallowmere.example/a?b=1&c=2"))))
                .contains("href=\"https://sallowmere.example/a?b=1&amp;c=2\"");
        assertThat(built("<a data-setting-href=to>x</a>", Map.of("to", Chosen.of("#top"))))
                .isEqualTo("<a data-setting-href=to href=\"#top\">x</a>");
        assertThat(BoundPage.target("a/b.html", "../c.html?x#y")).isEqualTo("c.html?x#y");
        assertThat(BoundPage.target("a/b.html", "#y")).isEqualTo("#y");
        assertThat(BoundPage.target("a/b.html", "mailto:a@b")).isEqualTo("mailto:a@b");
    }

    @Test
    void levelsChangeBothTagsAndKeepTheRest() {
        assertThat(built(
                        "<h2 class=x data-setting-level=level>y <b>z</b></h2>",
                        Map.of("level", Chosen.of(Value.of(4)))))
                .isEqualTo("<h4 class=x data-setting-level=level>y <b>z</b></h4>");
        assertThat(built("<p data-setting-level=level>y</p>", Map.of("level", Chosen.of(Value.of(4)))))
                .as("no heading")
                .isEqualTo("<p data-setting-level=level>y</p>");
    }

    @Test
    void whatDiffersByBandIsWrittenOnceForEach() {
        String made = built("<h2 id=t data-setting-text=title>Boats</h2>", Map.of());
        assertThat(made)
                .isEqualTo(
                        "<h2 id=t data-setting-text=title data-setting-in=\"phone\">Boats!</h2><h2 data-setting-text=title data-setting-in=\"tablet desktop\">Boats</h2>");
        assertThat(built(made, Map.of())).as("built again it is the same").isEqualTo(made);
        assertThat(built(made, Map.of("title", new Chosen(Value.of("Ferries"), Map.of("phone", Value.of("Ferries"))))))
                .isEqualTo("<h2 id=t data-setting-text=title>Ferries</h2>");
        String off = built(
                "<p data-setting-show=there data-setting-text=title>Boats</p>",
                Map.of("there", Chosen.of(Value.of(false))));
        assertThat(off).contains("data-setting-hidden=\"phone tablet desktop\"");
    }

    @Test
    void boundPartsInsideOfBoundPartsAreFilledToo() {
        assertThat(built("<div data-setting-show=there>a<h1 data-setting-text=words>x</h1>b</div>", Map.of()))
                .isEqualTo("<div data-setting-show=there>a<h1 data-setting-text=words>One<br>Two</h1>b</div>");
        assertThat(built("<textarea data-setting-text=words>x</textarea>", Map.of()))
                .isEqualTo("<textarea data-setting-text=words>One\nTwo</textarea>");
        assertThat(built("<p data-setting-text=nobody>x</p><img data-setting-text=title>", Map.of()))
                .as("no such setting, and nothing to fill")
                .startsWith("<p data-setting-text=nobody>x</p>");
        assertThat(built("<p data-setting-text=words>q</p>", Map.of("words", Chosen.of("<b>&\""))))
                .contains("&lt;b&gt;&amp;&quot;");
    }
}

package org.calmpalette.core.section;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.TreeMap;
import org.calmpalette.core.cascade.ElementStyle;
import org.calmpalette.core.css.selector.States;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.setting.ItemsKind;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.ThemeFiles;
import org.calmpalette.core.theme.Themes;
import org.calmpalette.core.value.Viewport;
import org.jsoup.nodes.Element;
import org.junit.jupiter.api.Test;

/** A part of a page becomes a section: it looks the same where nothing else of the theme is. */
class SectionFromTest {
    private static final String CSS =
            """
            :root { --brand: #204060; --room: 12px }
            body { font-family: serif; color: #101010; line-height: 1.6 }
            .piers h2 { color: #800000; letter-spacing: 1px }
            main .piers .card h3 { color: var(--brand); margin: 0 }
            #special h3 { color: #006000 }
            #special img[alt="A #one pier"] { padding-top: 3px }
            .card { padding: var(--room); background: #ffffff url(../img/p.svg) no-repeat; border: 1px solid #cccccc }
            .card:hover { background-color: #eeeeff }
            .card a::after { content: "x"; color: #ff0000 }
            h3 { color: #000080; font-size: 20px }
            h2 { border: 0; border-left: 2px solid #000080 }
            @media (max-width: 600px) { .piers { padding: 4px } .piers .card { border-width: 3px } }
            .away { color: #123123 }
            """;
    private static final String BODY =
            """
            <main>
              <section class="piers" id="all">
                <h2 style="text-align: center">Our piers</h2>
                <div class="list">
                  <article class="card" id="special"><h3>Harrow</h3><img src="../img/a.svg" alt="A #one pier"><a href="harrow.html">More</a></article>
                  <article class="card" id="other"><h3>Withy &amp; Reed</h3><img src="../img/b.svg" alt=""><a href="withy.html">More</a></article>
                </div>
              </section>
              <p class="away">Away</p>
            </main>
            """;
    private static final String SVG = "<svg xmlns='http://www.w3.org/2000/svg' width='%d' height='9'/>";

    private static Theme theme() {
        return Theme.read(
                Themes.files(
                        "p/index.html",
                        "<!doctype html><html><head><title>T</title><link rel=stylesheet href=../css/a.css></head><body>\n"
                                + BODY + "</body></html>",
                        "css/a.css",
                        CSS,
                        "img/p.svg",
                        SVG.formatted(1),
                        "img/a.svg",
                        SVG.formatted(2),
                        "img/b.svg",
                        SVG.formatted(3)),
                "T");
    }

    private static Page page(Theme theme) {
        return theme.pages().get(0);
    }

    private static SectionKit kit(Theme theme, String selector) {
        Element e = page(theme).document().selectFirst(selector);
        return SectionFrom.of(
                new Rendered(theme), page(theme), page(theme).elements().indexOf(e), "piers", "Piers");
    }

    private static Theme elsewhere(SectionKit kit) {
        TreeMap<String, byte[]> files = new TreeMap<>();
        files.put(
                "index.html",
                "<!doctype html><html><head><title>O</title><link rel=stylesheet href=o.css></head><body><main></main></body></html>"
                        .getBytes(StandardCharsets.UTF_8));
        // Another theme says other things of the same elements and classes, and hands other things down.
        files.put(
                "o.css",
                """
                body { letter-spacing: 3px; font: 30px monospace; color: #00ff00; text-align: right }
                body main .card h3, body main h2 { color: #00ff00; font-size: 50px; margin-top: 9px; text-align: left }
                #piers * { border: 9px solid #00ff00; padding-top: 7px; line-height: 3; background-color: #00ff00 }
                #piers .card a::after { color: #00ff00; content: "o" }
                h3, a, .elsewhere h2 { color: #00ff00 !important; margin-inline: 5px !important }
                main * { border-top-width: 7px !important }
                h2 { border-bottom: 7px solid #00ff00 !important }
                article:hover { background: #00ff00 !important; padding: 1px !important }
                p, .other { letter-spacing: 7px !important; z-index: 7 !important }
                @media (prefers-reduced-motion: reduce) { * { transition: none !important; scroll-margin: 0 !important } }
                """
                        .getBytes(StandardCharsets.UTF_8));
        Theme other = Theme.read(ThemeFiles.of(files), "O");
        return Sections.put(other, kit, other.pages().get(0), "", 0).applied(other);
    }

    @Test
    void itLooksTheSameOnAnotherPageOfAnotherThemeInEveryWindowAndState() {
        Theme theme = theme();
        Theme other = elsewhere(kit(theme, ".piers"));
        for (int width : List.of(500, 1000)) {
            for (States states : List.of(States.NONE, (States) (e, s) -> s.equals("hover"))) {
                List<Element> then =
                        page(theme).document().selectFirst(".piers").getAllElements();
                List<Element> now =
                        page(other).document().selectFirst("[data-section]").getAllElements();
                // Of what repeats the second is an item now, with the rules of all: what was written for one of them
                // alone goes to all.
                assertThat(now).hasSameSizeAs(then);
                for (int i = 0; i < then.size(); i++) {
                    if (then.get(i).closest("#other") != null) {
                        continue;
                    }
                    ElementStyle a = new Rendered(theme)
                            .styles(page(theme), Viewport.of(width, 800), states)
                            .of(then.get(i));
                    ElementStyle b = new Rendered(other)
                            .styles(page(other), Viewport.of(width, 800), states)
                            .of(now.get(i));
                    for (String property : List.of(
                            "color",
                            "background-color",
                            "padding-top",
                            "border-top-width",
                            "border-left-width",
                            "border-bottom-width",
                            "border-top-color",
                            "font-size",
                            "font-family",
                            "letter-spacing",
                            "line-height",
                            "text-align",
                            "margin-top",
                            "margin-left")) {
                        assertThat(b.computed(property))
                                .as(then.get(i).cssSelector() + " " + property + " at " + width)
                                .isEqualTo(a.computed(property));
                    }
                }
            }
        }
        assertThat(Themes.text(other.files(), "sections.css"))
                .contains("url(\"img/piers-p.svg\")")
                .contains("::after")
                .doesNotContain("#123123")
                .contains("\n  border-top-width: revert !important;\n")
                .as("what reaches nothing in it, or is said for those who asked for less movement, is left alone")
                .doesNotContain("z-index", "transition: revert", "scroll-margin");
    }

    @Test
    void wordsPicturesLinksAndColoursAreSettingsAndWhatRepeatsIsItems() {
        SectionKit kit = kit(theme(), ".piers");
        assertThat(kit.settings())
                .extracting(Setting::key)
                .contains("shown", "heading", "level", "items", "ink", "ground");
        Setting items = kit.settings().stream()
                .filter(s -> s.key().equals("items"))
                .findFirst()
                .orElseThrow();
        assertThat(((ItemsKind) items.kind()).parts().keySet())
                .containsExactly("heading", "level", "picture", "alt", "link-words", "link");
        assertThat(((Value.Many) items.given().value()).items().get(1))
                .isEqualTo(Value.parts(
                        "heading",
                        "Withy & Reed",
                        "level",
                        3,
                        "picture",
                        "b.svg",
                        "alt",
                        "",
                        "link-words",
                        "More",
                        "link",
                        "p/withy.html"));
        assertThat(kit.html())
                .contains(
                        "<article class=\"card special\"><h3 data-item-text=\"heading\" data-item-level=\"level\">Harrow</h3>")
                .contains("<h2 class=\"s1\" data-setting-text=\"heading\" data-setting-level=\"level\">Our piers</h2>")
                .doesNotContain("Withy", " id=", "style=");
        assertThat(kit.pictures()).containsOnlyKeys("a.svg", "b.svg", "p.svg");
        // A picture that is not there is none, and not its neighbour's.
        Theme less =
                Theme.read(ThemeFiles.overlaid(theme().files(), new TreeMap<>(), java.util.Set.of("img/b.svg")), "T");
        Setting left = kit(less, ".piers").settings().stream()
                .filter(s -> s.key().equals("items"))
                .findFirst()
                .orElseThrow();
        assertThat(((Value.Parts) ((Value.Many) left.given().value()).items().get(1)).text("picture"))
                .isEmpty();
        Theme other = elsewhere(kit);
        assertThat(Themes.text(other.files(), "index.html")).contains("Withy &amp; Reed", "src=\"img/piers-b.svg\"");
    }

    @Test
    void whatCannotBeASectionIsRefusedWithItsLine() {
        Theme theme = theme();
        assertThatThrownBy(() -> kit(theme, "body"))
                .hasMessageContaining("p/index.html, line 1")
                .hasMessageContaining("<body>");
        Theme scripted = Themes.of("index.html", "<!doctype html><body><div>\n<script>x</script></div></body>");
        assertThatThrownBy(() -> SectionFrom.of(
                        new Rendered(scripted),
                        page(scripted),
                        page(scripted)
                                .elements()
                                .indexOf(page(scripted).document().selectFirst("div")),
                        "x",
                        "X"))
                .hasMessageContaining("a section holds no <script>");
    }
}

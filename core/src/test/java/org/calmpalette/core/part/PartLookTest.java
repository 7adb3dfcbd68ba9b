package org.calmpalette.core.part;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Set;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.Themes;
import org.calmpalette.core.usage.Readers;
import org.calmpalette.core.value.Viewport;
import org.junit.jupiter.api.Test;

class PartLookTest {
    private static PartLook.Reach reach(String css, String html, String selector, String aspect, String label) {
        Theme theme = Themes.of(
                "a.css",
                css,
                "index.html",
                "<link rel=stylesheet href=a.css>" + html,
                "two.html",
                "<link rel=stylesheet href=a.css><p>x");
        Page page = theme.pages().get(0);
        int index = page.elements().indexOf(page.document().selectFirst(selector));
        PartLook look = PartLook.of(
                new Rendered(theme),
                Readers.of(theme),
                new PartIndex(theme.pages()),
                page,
                index,
                Viewport.of(1440, 900),
                Set.of());
        return look.aspect(aspect).orElseThrow().reaches().stream()
                .filter(r -> r.label().contains(label))
                .findFirst()
                .orElseThrow();
    }

    @Test
    void whatInheritsAColourCounts() {
        String html = "<body><h1>a</h1><p>b <a>c <b>d</b></a> <i class=own>e</i></p></body>";
        String css = "body{color:#123}a{color:#f00}.own{color:inherit}";
        assertThat(reach(css, html, "h1", "text", "All that body").count().byPage())
                .as("body, h1, p and i; not a, nor b inside it")
                .containsExactly("index.html 4", "two.html 2");
        assertThat(reach(css, html, "a", "text", "All that a").count().byPage()).containsExactly("index.html 2");
    }

    @Test
    void whatInheritsFromACustomPropertyCountsToo() {
        String html = "<body><h1>a</h1><p>b</p><p class=bar>c</p></body>";
        String css =
                ":root{--ink:#123;--text:var(--ink);--ink-2:#222}body{color:var(--text)}.bar{background:var(--ink);color:var(--ink-2)}";
        assertThat(reach(css, html, "h1", "text", "All that --ink").count().byPage())
                .as("body, h1, p, and .bar by its ground")
                .containsExactly("index.html 4", "two.html 2");
        assertThat(reach(css, html, "h1", "text", "All that --text").count().byPage())
                .containsExactly("index.html 3", "two.html 2");
    }

    @Test
    void ofLongChainsTheFirstOnesAreNamed() {
        StringBuilder css = new StringBuilder(":root{--v0:red;");
        for (int i = 1; i <= 40; i++) {
            css.append("--v").append(i).append(":var(--v").append(i - 1).append(");");
        }
        Theme theme =
                Themes.of("a.css", css + "}p{color:var(--v40)}", "index.html", "<link rel=stylesheet href=a.css><p>x");
        Page page = theme.pages().get(0);
        PartLook look = PartLook.of(
                new Rendered(theme),
                Readers.of(theme),
                new PartIndex(theme.pages()),
                page,
                page.elements().indexOf(page.document().selectFirst("p")),
                Viewport.of(1440, 900),
                Set.of());
        assertThat(look.aspect("text").orElseThrow().sentence())
                .contains("through --v40 and --v39")
                .contains("--v33 and 33 more")
                .doesNotContain("--v32");
    }

    private static PartLook look(String css, String html, String selector, Set<String> states) {
        Theme theme = Themes.of(
                "a.css",
                css,
                "index.html",
                "<!doctype html><link rel=stylesheet href=a.css><body>" + html,
                "two.html",
                "<!doctype html><link rel=stylesheet href=a.css><p class=box>x",
                "palette.json",
                "{\"format\":\"calm-palette/1\",\"places\":[{\"key\":\"p\",\"label\":\"P\"}],\"settings\":[{\"key\":\"ink\",\"label\":\"Ink\",\"kind\":\"color\",\"place\":\"p\",\"default\":\"#112233\"}]}");
        Page page = theme.pages().get(0);
        return PartLook.of(
                new Rendered(theme),
                Readers.of(theme),
                new PartIndex(theme.pages()),
                page,
                page.elements().indexOf(page.document().selectFirst(selector)),
                Viewport.of(1440, 900),
                states);
    }

    private static String sentence(String css, String html, String aspect) {
        return look(css, html, ".x", Set.of()).aspect(aspect).orElseThrow().sentence();
    }

    @Test
    void onlyWhatIsThereIsAnAspect() {
        String plain = "<p class=x>words</p>";
        assertThat(look(".x{margin:0}", plain, ".x", Set.of()).aspects())
                .extracting(PartLook.Aspect::id)
                .containsExactly("text", "background", "font-size", "font-weight", "text-align");
        assertThat(look(".x{margin:0;border:1px solid red}", plain, ".x", Set.of())
                        .aspects())
                .extracting(PartLook.Aspect::id)
                .as("four alike are one")
                .contains("border")
                .doesNotContain("border-top");
        assertThat(look(".x{margin:0;border:1px solid red;border-left-color:blue}", plain, ".x", Set.of())
                        .aspects())
                .extracting(PartLook.Aspect::id)
                .contains("border-top", "border-left")
                .doesNotContain("border");
        assertThat(look(".x{margin:0;border-top:1px solid red;border-bottom:1px none red}", plain, ".x", Set.of())
                        .aspects())
                .extracting(PartLook.Aspect::id)
                .contains("border-top")
                .doesNotContain("border-bottom", "border");
        assertThat(look(
                                ".x{margin:0;opacity:.5;box-shadow:0 0 1px red;text-shadow:none;background:url(a.png);padding:0 4px;letter-spacing:1px}",
                                plain,
                                ".x",
                                Set.of())
                        .aspects())
                .extracting(PartLook.Aspect::id)
                .contains("picture", "box-shadow", "opacity", "padding-right", "padding-left", "letter-spacing")
                .doesNotContain("text-shadow", "padding-top");
        assertThat(look("", "<img class=x>", ".x", Set.of()).aspects())
                .extracting(PartLook.Aspect::id)
                .as("no words, no type")
                .doesNotContain("font-size");
        assertThat(look("path{fill:red;stroke:blue}", "<svg><path class=x></path></svg>", ".x", Set.of())
                        .aspects())
                .extracting(PartLook.Aspect::id)
                .startsWith("fill", "stroke");
        assertThat(look("path{fill:red}", "<svg><path class=x></path></svg>", ".x", Set.of())
                        .aspects())
                .extracting(PartLook.Aspect::id)
                .contains("fill")
                .doesNotContain("stroke");
    }

    @Test
    void generatedContentHasAspectsOfItsOwn() {
        PartLook look = look(
                ".x::before{content:'»';color:red} .x::after{content:none;color:blue}", "<p class=x>y", ".x", Set.of());
        assertThat(look.aspect("before-text").orElseThrow().color()).isEqualTo("#ff0000");
        assertThat(look.aspect("after-text")).isEmpty();
    }

    @Test
    void theSentenceTellsWhereItComesFrom() {
        String p = "<p class=x>y</p>";
        assertThat(sentence("", p, "background")).isEqualTo("Nothing paints it; the browser's white shows.");
        assertThat(sentence("body{background:red}", p, "background"))
                .isEqualTo("Nothing paints it; body shows through.");
        assertThat(sentence("body{background:url(a.png)}", p, "background"))
                .isEqualTo("Nothing paints it; body shows through.");
        assertThat(sentence("", p, "text")).isEqualTo("No declaration sets it; it is as browsers start out.");
        assertThat(sentence("", "<a class=x href=#>y</a>", "text")).startsWith("The browser's own style for ");
        assertThat(sentence("", "<font class=x color=red>y</font>", "text"))
                .isEqualTo("An attribute in the page sets it.");
        assertThat(sentence("", "<p class=x style='color:red'>y", "text"))
                .startsWith("The style attribute in index.html, line 1, sets it");
        assertThat(sentence("p{color:red!important}", p, "text"))
                .isEqualTo("p in a.css, line 1, sets it; it is !important.");
        assertThat(sentence("@media (min-width:2px){\np{color:red}}", p, "text"))
                .isEqualTo("p in a.css, line 2, sets it; only under @media (min-width:2px).");
        assertThat(sentence("body{color:red}", p, "text"))
                .isEqualTo("body in a.css, line 1, sets it; inherited from body.");
        assertThat(sentence("p{color:var(--ink, red)}", p, "text"))
                .isEqualTo("p in a.css, line 1, sets it, through --ink.");
    }

    @Test
    void statesAreSwitchedOnForThePartAndWhatIsAroundIt() {
        String css =
                ".x:hover{color:red} .x:focus{color:lime} div:hover b{background:blue} .x[aria-current]{color:#123456} .y:hover{color:red}";
        String html = "<div><b class=x>y</b><b class=y>z</b></div>";
        assertThat(look(css, html, ".x", Set.of()).aspect("text").orElseThrow().color())
                .isEqualTo("#000000");
        assertThat(look(css, html, ".x", Set.of("hover"))
                        .aspect("text")
                        .orElseThrow()
                        .color())
                .isEqualTo("#ff0000");
        assertThat(look(css, html, ".x", Set.of("hover"))
                        .aspect("background")
                        .orElseThrow()
                        .color())
                .as("what is around is hovered too")
                .isEqualTo("#0000ff");
        assertThat(look(css, html, ".x", Set.of("focus"))
                        .aspect("text")
                        .orElseThrow()
                        .color())
                .isEqualTo("#00ff00");
        assertThat(look(css, html, ".x", Set.of("current"))
                        .aspect("text")
                        .orElseThrow()
                        .color())
                .isEqualTo("#123456");
        assertThat(look(css, html, ".x", Set.of("nonsense"))
                        .aspect("text")
                        .orElseThrow()
                        .color())
                .isEqualTo("#000000");
    }

    @Test
    void reachesGoFromThePartToWhatSettingsPaint() {
        String html = "<p class=x>a</p><p class=box>b</p>";
        PartLook one = look(".x{color:red}", html, ".x", Set.of());
        assertThat(one.aspect("text").orElseThrow().reaches())
                .extracting(PartLook.Reach::id)
                .as("the rule finds this part alone")
                .containsExactly("rule");
        PartLook many = look("p{color:var(--ink, red);background:var(--own)} :root{--own:lime}", html, ".x", Set.of());
        assertThat(many.aspect("text").orElseThrow().reaches())
                .extracting(PartLook.Reach::label)
                .containsExactly("This part alone", "All that p paints", "The setting “Ink”");
        assertThat(many.aspect("background").orElseThrow().reaches())
                .extracting(PartLook.Reach::label)
                .containsExactly("This part alone", "All that p paints", "All that --own paints");
        assertThat(many.aspect("background")
                        .orElseThrow()
                        .reaches()
                        .get(1)
                        .count()
                        .parts())
                .isEqualTo(3);
        PartLook browser = look("", "<a class=x href=#>a</a>", ".x", Set.of());
        assertThat(browser.aspect("text").orElseThrow().reaches())
                .extracting(PartLook.Reach::id)
                .containsExactly("only");
        assertThat(many.around()).extracting(PartLook.Step::name).containsExactly("html", "body");
    }

    /** Where every page has one, the selector has to name what only this page has around it; where it has nothing, that is said. */
    @Test
    void thisPartAloneIsAloneOnAllPages() {
        Theme theme = Themes.of(
                "a.css",
                "h1{color:#123}",
                "index.html",
                "<link rel=stylesheet href=a.css><section class=welcome><h1>a</h1></section>",
                "two.html",
                "<link rel=stylesheet href=a.css><section><h1>b</h1></section>");
        assertThat(only(theme, "index.html").place()).isEqualTo(".welcome h1");
        assertThat(only(theme, "index.html").label()).isEqualTo("This part alone");
        assertThat(only(theme, "index.html").count().parts()).isEqualTo(1);
        assertThat(only(theme, "two.html").label()).isEqualTo("This part and its like on other pages");
        assertThat(only(theme, "two.html").count().byPage()).containsExactly("index.html 1", "two.html 1");
    }

    private static PartLook.Reach only(Theme theme, String path) {
        Page page = theme.page(path);
        PartLook look = PartLook.of(
                new Rendered(theme),
                Readers.of(theme),
                new PartIndex(theme.pages()),
                page,
                page.elements().indexOf(page.document().selectFirst("h1")),
                Viewport.of(1440, 900),
                Set.of());
        return look.aspect("background").orElseThrow().reaches().get(0);
    }
}

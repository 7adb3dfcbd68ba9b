package org.calmpalette.core.section;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.TreeMap;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.Themes;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;
import org.junit.jupiter.params.provider.ValueSource;

class SectionSafetyTest {
    static List<String> carriers() {
        return ScriptCarriers.all();
    }

    @ParameterizedTest
    @MethodSource("carriers")
    void whatCarriesAScriptOrAsksAnotherHostIsRefused(String html) {
        assertThat(SectionSafety.fault(html)).isPresent();
    }

    @Test
    void thereAreManyOfThem() {
        assertThat(carriers()).hasSizeGreaterThanOrEqualTo(300).doesNotHaveDuplicates();
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "<section><h2 id=a class='b c' data-x=1 aria-label='y' hidden>Words &amp; more</h2></section>",
                "<section><a href='https://ferries.invalid/times?x=1#a' target=_blank rel=noreferrer>t</a><a href='mailto:a@b.invalid'>m</a><a href='#top'>u</a><a href=''>e</a></section>",
                "<section><img src='img/a b.jpg' srcset='img/a.jpg 1x, img/b.jpg 2x' alt=''><img src='data:image/png;base64,AAAA' alt=''></section>",
                "<section><video src=wake.webm poster=lake.svg muted loop playsinline autoplay controls preload=none></video></section>",
                "<section><svg viewBox='0 0 10 10' width=10><defs><linearGradient id=g><stop offset=0 stop-color=red /></linearGradient></defs><path d='M0 0h9' fill='url(#g)'/><use href='#g'/><title>Drawn</title></svg></section>",
                "<section><form action='/send' method=post><label for=f>Name</label><input id=f name=n type=text required><select name=s><option value=1 selected>One</select><textarea name=t rows=3></textarea><button>Go</button></form></section>",
                "<section><table border=0 cellpadding=4><tr><td bgcolor='#ffffff' align=center><font color=red size=2>x</font><br clear=all></td></tr></table></section>",
                "<section><!-- a comment --><details open><summary>s</summary><p>1 < 2, turn on = 3</p></details></section>"
            })
    void whatPagesAreMadeOfIsTaken(String html) {
        assertThat(SectionSafety.fault(html)).isEmpty();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "<p onclick='x()'>a</p> | line 2: a section holds no onclick attribute on <p>",
                "<noscript><p title='</noscript><img src=x>'></noscript> | line 2: a section holds no <noscript>",
                "<a href=' java\tscript:x()'>a</a> | line 2: <a> leads to “ java\tscript:x()”, in href",
                "<img src='https://elsewhere.invalid/p.png'> | line 2: <img> loads “https://elsewhere.invalid/p.png”, in src",
                "<img src='//elsewhere.invalid/p.png'> | in src",
                "<svg><image href=x /></svg> | a section holds no <image>",
                "<p style='color:red'>a</p> | a section holds no style attribute on <p>"
            })
    void theMessageNamesTheLineAndWhatIsThere(String inside, String words) {
        assertThatThrownBy(() -> SectionSafety.check("<section>\n" + inside + "</section>"))
                .isInstanceOf(BadInputException.class)
                .hasMessageContaining("section.html, ")
                .hasMessageContaining(words);
    }

    /** As many elements as fit into a file of a section, beside each other and in each other: put on a page, or refused with a reason. */
    @ParameterizedTest
    @ValueSource(strings = {"<b>x</b>", "<p>x", "<b>", "<div>", "<i a>", "<svg>", "<table>"})
    void moreElementsThanAnybodyWritesGetAnAnswer(String one) {
        String html =
                "<section>" + one.repeat(28_000).substring(0, Math.min(196_000, 28_000 * one.length())) + "</section>";
        Theme theme = Themes.of("index.html", "<!doctype html><body><main></main></body>");
        try {
            SectionKit kit = SectionKit.read("x", "{\"settings\": []}", html, "", new TreeMap<>());
            Theme put =
                    Sections.put(theme, kit, theme.pages().get(0), "First", 0).applied(theme);
            assertThat(put.pages().get(0).elements().size()).isGreaterThan(3);
        } catch (BadInputException told) {
            assertThat(told.getMessage()).contains("section.html");
        }
    }

    private static void rules(String css) {
        SectionKit.read("x", "{\"settings\": []}", "<section class=a>x</section>", css, new TreeMap<>());
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                ".a { background: url(https://elsewhere.invalid/a.png) }",
                ".a { background: url('//elsewhere.invalid/a.png') }",
                ".a { background: image-set('https://elsewhere.invalid/a.png' 1x) }",
                ".a { background: image-set(url(a.png) 1x, \"http://elsewhere.invalid/a.png\" 2x) }",
                ".a { cursor: url(\\68ttps://elsewhere.invalid/a.cur), auto }",
                ".a { --x: url(https://elsewhere.invalid/a.png) }",
                "@media all { .a { mask: src('https://elsewhere.invalid/a.svg') } }"
            })
    void rulesThatAskAnotherHostAreRefused(String css) {
        assertThatThrownBy(() -> rules(css))
                .isInstanceOf(BadInputException.class)
                .hasMessageContaining("it loads");
    }

    @Test
    void rulesMayNameTheirOwnPicturesAndSpeakOfOthers() {
        rules(".a { background: url(a.png), url(data:image/svg+xml;utf8,x), url('#b') }"
                + " .a::after { content: 'https://elsewhere.invalid/' }");
    }

    /** CSS Animations 1, section 3: a name of keyframes may be written as a string, and means the same. */
    @Test
    void keyframesNamedByAStringGetTheSectionsName() {
        Theme theme = Themes.of("index.html", "<!doctype html><body><main></main></body>");
        SectionKit kit = SectionKit.read(
                "x",
                "{\"settings\": []}",
                "<section class=a>x</section>",
                "@keyframes 'spin' { to { opacity: 0 } }\n.a { animation: spin 1s } .b { animation-name: \"spin\" }",
                new TreeMap<>());
        String css = Themes.text(
                Sections.put(theme, kit, theme.pages().get(0), "First", 0)
                        .applied(theme)
                        .files(),
                "sections.css");
        assertThat(css)
                .contains("@keyframes 'first-spin'", "animation: first-spin 1s", "animation-name: \"first-spin\"");
    }

    @Test
    void allOfTheShelfIsTaken() {
        List<String> faults = new ArrayList<>();
        for (SectionKit kit : Shelf.kits()) {
            Optional<SectionSafety.Fault> fault = SectionSafety.fault(kit.html());
            fault.ifPresent(f -> faults.add(kit.key() + ": " + f.what()));
        }
        assertThat(faults).isEmpty();
    }
}

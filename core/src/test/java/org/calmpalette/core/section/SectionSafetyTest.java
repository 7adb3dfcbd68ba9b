package org.calmpalette.core.section;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.calmpalette.core.BadInputException;
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

package org.calmpalette.core.usage;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.List;
import org.calmpalette.core.css.Edit;
import org.calmpalette.core.css.SourceText;
import org.calmpalette.core.survey.Finding;
import org.calmpalette.core.survey.Survey;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.Themes;
import org.calmpalette.core.usage.Address.Loads;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Where a theme loads things from, found in stylesheets and pages, and corrected in the way each is written. */
class AddressesTest {
    private static List<Address> of(String css, String html) {
        return Addresses.of(Themes.of("css/a.css", css, "index.html", html));
    }

    @Test
    void everyWayOfLoadingIsFoundInTheOrderOfTheText() {
        List<Address> all = of(
                "@import 'b.css';\n@import url(c.css) screen;\n@font-face { src: url(f.woff2) }\np { background: url( \"g.png\" ), URL(h.png) ; --x: url('i.png') }\n.a { .b { mask: url(j.svg#m) } }",
                """
        <!doctype html><link rel="ICON stylesheet" href=k.css><link rel=next href=no.html><link rel=preload href=l.woff2>
        <img src=m.png srcset="n.png 1x, o.png 2x"><video src=p.mp4 poster=q.jpg><source src=r.mp4 srcset=s.png></video><audio src=t.mp3></audio>
        <script src=u.js></script><iframe src=v.html></iframe><input type=IMAGE src=w.png><input src=no.png><svg><image href=x.png /><image xlink:href=y.png /></svg><a href=no2.html>z</a>
        """);
        assertThat(all)
                .extracting(Address::url)
                .containsExactly(
                        "f.woff2", "g.png", "h.png", "i.png", "j.svg#m", "b.css", "c.css", "k.css", "l.woff2", "m.png",
                        "n.png", "o.png", "q.jpg", "p.mp4", "r.mp4", "s.png", "t.mp3", "u.js", "v.html", "w.png",
                        "x.png", "y.png")
                .doesNotContain("no.html");
    }

    @Test
    void whatIsLoadedAndWhereItStands() {
        List<Address> all = of(
                "@font-face { src: url(f.woff2) }\np { background: url(g.png) }",
                "<!doctype html>\n<img src='a b.png'>\n<script src=u.js></script>");
        assertThat(all)
                .extracting(Address::loads)
                .containsExactlyInAnyOrder(Loads.FONT, Loads.PICTURE, Loads.PICTURE, Loads.SCRIPT);
        assertThat(all).filteredOn(a -> a.url().equals("g.png")).singleElement().satisfies(a -> assertThat(a.line())
                .isEqualTo(2));
        assertThat(all).filteredOn(a -> a.url().equals("u.js")).singleElement().satisfies(a -> assertThat(a.line())
                .isEqualTo(3));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '`',
            value = {
                "p{background:url(old.png)} | p{background:url(n\\'e\\(w\\).png)}",
                "p{background:url( 'old.png' )} | p{background:url( 'n\\'e(w).png' )}",
                "p{background:url(\"old.png\")} | p{background:url(\"n'e(w).png\")}",
                "p{background:URL(  old.png  )} | p{background:URL(  n\\'e\\(w\\).png  )}"
            })
    void stylesheetsAreCorrectedInTheirOwnQuotation(String before, String after) {
        Address address = of(before, "<p>").get(0);
        assertThat(new String(
                        SourceText.of("a.css", before).withEdits(List.of(address.corrected("n'e(w).png"))),
                        StandardCharsets.UTF_8))
                .isEqualTo(after);
        assertThat(of(after, "<p>").get(0).url()).as("it reads back").isEqualTo("n'e(w).png");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '`',
            value = {
                "<img src=old.png> | <img src=a%20b&amp;c,d.png>",
                "<img src='old.png'> | <img src='a%20b&amp;c,d.png'>",
                "<img srcset='x.png 1x, old.png 2x'> | <img srcset='x.png 1x, a%20b&amp;c%2Cd.png 2x'>"
            })
    void pagesAreCorrectedWhereTheAddressStands(String before, String after) {
        Theme theme = Themes.of("index.html", before);
        Edit edit = Addresses.of(theme).stream()
                .filter(a -> a.url().equals("old.png"))
                .findFirst()
                .orElseThrow()
                .corrected("a b&c,d.png");
        assertThat(new String(theme.pages().get(0).source().withEdits(List.of(edit)), StandardCharsets.UTF_8))
                .isEqualTo(after);
    }

    @Test
    void whereACandidateStandsIsNotGuessed() {
        Address moved = of("p{}", "<img srcset='x&amp;y.png 1x, old.png 2x'>").get(1);
        assertThat(moved.url()).isEqualTo("old.png");
        assertThat(moved.isPlaced())
                .as("the attribute holds a character reference")
                .isFalse();
    }

    @ParameterizedTest
    @CsvSource({
        "//host/a,true",
        "https://host/a,true",
        "HTTP://host/a,true",
        "' //host/a',true",
        "a.png,false",
        "/a.png,false",
        "data:x,false",
        "mailto:a@b,false",
        "#x,false",
        "httpx://a,false"
    })
    void otherHosts(String url, boolean other) {
        assertThat(Address.isOnAnotherHost(url)).isEqualTo(other);
    }

    @Test
    void whatComesFromAnotherHostIsTakenFromTheThemeIfItHasIt() {
        Theme theme = Themes.of(
                "css/a.css",
                "p{background:url(https://cdn.example/x/pier.png)} b{background:url(//cdn.example/gone.png?1)}",
                "index.html",
                "<!doctype html><link rel=stylesheet href=css/a.css><p><b>x</b>",
                "img/pier.png",
                "x");
        List<Finding> found = Survey.of(theme).findings().stream()
                .filter(f -> f.kind() == Finding.Kind.OTHER_HOST)
                .toList();
        assertThat(found)
                .extracting(Finding::mend)
                .containsExactlyInAnyOrder(
                        "The theme has img/pier.png; use that.", "Put the file into the theme and name it from there.");
        Finding mendable =
                found.stream().filter(Finding::canBeMended).findFirst().orElseThrow();
        assertThat(Themes.text(mendable.fix().get().applied(theme).files(), "css/a.css"))
                .startsWith("p{background:url(../img/pier.png)}");
    }
}

package org.calmpalette.core.survey;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Set;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.Themes;
import org.calmpalette.core.usage.ColorUsage;
import org.calmpalette.core.usage.ColorUse;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Names and places that a new setting is offered with. */
class SuggestionTest {
    private static Suggestion suggested(String css, String html, Set<String> taken) {
        Theme theme =
                Themes.of("a.css", css, "index.html", "<!doctype html><link rel=stylesheet href=a.css><body>" + html);
        List<ColorUse> uses = ColorUsage.of(theme).rows().get(0).uses();
        return Suggestion.of(uses, new Rendered(theme), taken);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                ".card{color:red} | card-text",
                ".card a:hover{color:red} | link-hover-text",
                "a{color:red} | link-text",
                "p{background:red} | paragraph-fill",
                "h2{color:red} | heading-2-text",
                "body{background:red} | page-fill",
                ":root{color:red} | page-text",
                "#nav .item{border-color:red} | item-line",
                ".btn-fill{background:red} | btn-fill",
                ":root{--brand-color:red} | brand-color",
                ":root{--bs-link-rgb:1,2,3} a{color:rgb(var(--bs-link-rgb))} | link",
                ":root{--1x:red} | color",
                ".card::before{background:red} | card-fill",
                "li.current{color:red} | current-text",
                "input:disabled{color:red} | input-disabled-text",
                "._x{color:red} | part-x-text",
                ".a,.b{box-shadow:0 0 1px red} | a-shadow",
                "svg{fill:red} | svg-icon",
                "[data-x]{color:red} | part-text"
            })
    void keysComeFromWhatFindsThePart(String css, String key) {
        assertThat(suggested(css, "<p class=card>x", Set.of()).key()).isEqualTo(key);
    }

    @Test
    void whatIsTakenGetsANumber() {
        assertThat(suggested(".card{color:red}", "", Set.of("--card-text")).key())
                .isEqualTo("card-text-2");
        assertThat(suggested(".card{color:red}", "", Set.of("--card-text", "--card-text-2-rgb"))
                        .key())
                .isEqualTo("card-text-3");
        String key = suggested("." + "long-".repeat(30) + "{color:red}", "", Set.of())
                .key();
        assertThat(key.length()).isLessThanOrEqualTo(60);
    }

    @Test
    void theAuthorsOwnNameIsTheLabel() {
        assertThat(suggested("/* Notice band */ .nb{color:red}", "", Set.of()).label())
                .isEqualTo("Notice band text");
        assertThat(suggested("/* This explains at length what it is for. */ .nb{color:red}", "", Set.of())
                        .label())
                .isEqualTo("Nb text");
    }

    /** What one sees, not what its author called it. */
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                ".zz{color:red} | <a class=zz href=#>x</a> | Text of the link",
                ".zz{color:red} | <a class=zz href=#>x</a><a class=zz href=#>y</a> | Text of the links",
                ".zz{background:red;padding:4px} | <a class=zz href=#>x</a> | Background of the button",
                ".zz:hover{color:red} | <button class=zz>x</button> | Text of the button, pointed at",
                ".zz{background:red} | <section class=zz><h2>Timetable</h2></section> | Background of the part “Timetable”",
                ".zz{border:1px solid red} | <div class=zz>x</div><div class=zz>y</div> | Border of the boxes",
                ".zz{color:red} | <a class=zz>x</a><p class=zz>y</p> | Text of the link and paragraph",
                ".zz{color:red} | <a class=zz>x</a><p class=zz>y</p><h2 class=zz>z</h2> | Zz text",
                "body{background:red} | x | Background of the page",
                ".zz{color:red} | x | Zz text"
            })
    void theLabelSaysWhatIsSeen(String css, String html, String label) {
        assertThat(suggested(css, html, Set.of()).label()).isEqualTo(label);
    }

    @Test
    void thePlaceIsTheLandmarkAround() {
        assertThat(suggested(".c{color:red}", "<header><b class=c>x</b></header>", Set.of())
                        .place())
                .isEqualTo("Header");
        assertThat(suggested(".c{color:red}", "<footer><b class=c>x</b></footer>", Set.of())
                        .place())
                .isEqualTo("Footer");
    }
}

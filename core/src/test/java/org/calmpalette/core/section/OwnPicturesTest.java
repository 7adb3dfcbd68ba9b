package org.calmpalette.core.section;

import static org.assertj.core.api.Assertions.assertThat;

import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.Themes;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class OwnPicturesTest {
    private static final String SVG = "<svg xmlns='http://www.w3.org/2000/svg' width='4' height='3'/>";
    private final Theme theme = Themes.of(
            "css/a.css", "p{}", "img/p 1.svg", SVG, "img/q.svg", SVG, "other/q.svg", SVG, "index.html", "<p>");

    /** Addresses are tokens: text that looks like one is none, however an address is written. */
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '`',
            textBlock =
                    """
            url(../img/q.svg) no-repeat                | url("q.svg") no-repeat
            URL( '../img/q.svg' )                      | url("q.svg")
            url("../img/p%201.svg"), url(../img/q.svg) | url("p 1.svg"), url("q.svg")
            url(../img/p\\ 1.svg)                      | url("p 1.svg")
            "url(../img/q.svg)"                        | "url(../img/q.svg)"
            /* url(../img/q.svg) */ red                | /* url(../img/q.svg) */ red
            url(../img/gone.svg)                       | url(../img/gone.svg)
            url(https://example.org/q.svg)             | url(https://example.org/q.svg)
            var(--url, url(../img/q.svg))              | var(--url, url("q.svg"))
            """)
    void addressesAreThoseOfTheSection(String css, String wanted) {
        assertThat(new OwnPictures(theme).in(css, "css/a.css")).isEqualTo(wanted);
    }

    @Test
    void twoOfOneNameAreToldApart() {
        OwnPictures pictures = new OwnPictures(theme);
        assertThat(pictures.in("url(../img/q.svg) url(../other/q.svg) url(../img/q.svg)", "css/a.css"))
                .isEqualTo("url(\"q.svg\") url(\"q-2.svg\") url(\"q.svg\")");
        assertThat(pictures.files()).containsOnlyKeys("q.svg", "q-2.svg");
    }
}

package org.calmpalette.core.css.selector;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.jsoup.Jsoup;
import org.jsoup.nodes.Element;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Language ranges by the examples of RFC 4647, section 3.3.2 (extended filtering), and of Selectors 4, section 7.2. */
class LanguageTest {
    private static Element of(String html) {
        return Jsoup.parse(html).selectFirst("p");
    }

    /** RFC 4647, section 3.3.2: what the range de-*-DE (also written de-DE) matches and what not, to the letter. */
    @ParameterizedTest
    @CsvSource({
        "de-DE,true",
        "de-de,true",
        "de-Latn-DE,true",
        "de-Latf-DE,true",
        "de-DE-x-goethe,true",
        "de-Latn-DE-1996,true",
        "de-Deva-DE,true",
        "de,false",
        "de-x-DE,false",
        "de-Deva,false"
    })
    void extendedFiltering(String language, boolean matches) {
        Element p = of("<p lang='" + language + "'>");
        assertThat(Language.matches(p, List.of("de-*-DE"))).isEqualTo(matches);
        assertThat(Language.matches(p, List.of("de-DE")))
                .as("the star in between changes nothing")
                .isEqualTo(matches);
    }

    /** Selectors 4, section 7.2. */
    @ParameterizedTest
    @CsvSource({
        "*-CH,de-CH,true",
        "*-CH,it-CH,true",
        "*-CH,de-Latn-CH,true",
        "*-CH,de,false",
        "*-Latn,en-Latn-GB,true",
        "fr-FR,fr-Latn-FR,true",
        "iw,iw-IL,true",
        "de-DE,de-DE-1996,true",
        "de,den,false",
        "*,sl,true"
    })
    void examplesOfSelectors(String range, String language, boolean matches) {
        assertThat(Language.matches(of("<p lang='" + language + "'>"), List.of(range)))
                .isEqualTo(matches);
    }

    @Test
    void theLanguageIsThatOfTheNearestElementThatHasOneAndNoneIsItsOwn() {
        assertThat(Language.matches(of("<div lang=fr><p>"), List.of("fr"))).isTrue();
        assertThat(Language.matches(of("<div lang=fr><p lang=''>"), List.of("fr")))
                .isFalse();
        assertThat(Language.matches(of("<div lang=fr><p lang=''>"), List.of("")))
                .isTrue();
        assertThat(Language.matches(of("<p>"), List.of("*")))
                .as("no language is known")
                .isFalse();
        assertThat(Language.matches(of("<p lang=it>"), List.of("fr", "it")))
                .as("one of the list")
                .isTrue();
    }
}

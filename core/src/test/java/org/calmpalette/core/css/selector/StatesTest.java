package org.calmpalette.core.css.selector;

import static org.assertj.core.api.Assertions.assertThat;

import org.jsoup.Jsoup;
import org.jsoup.nodes.Document;
import org.jsoup.nodes.Element;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What a selector may find, what it finds for sure, and what it finds on a page that nobody touches. */
class StatesTest {
    private static final Document PAGE = Jsoup.parse("<!doctype html><p><a href=x>x</a><b>y</b>");

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            textBlock =
                    """
            selector              | ever  | surely | at rest
            a                     | true  | true   | true
            a:link                | true  | false  | true
            a:visited             | true  | false  | false
            a:any-link            | true  | true   | true
            a:hover               | true  | false  | false
            a:not(:hover)         | true  | false  | true
            a:not(:link)          | true  | false  | false
            a:not(:visited)       | true  | false  | true
            a:not(:not(:hover))   | true  | false  | false
            a:not(b)              | true  | true   | true
            a:not(a)              | false | false  | false
            a:is(:hover, :link)   | true  | false  | true
            p:has(a:link) > a     | true  | false  | true
            b:link                | false | false  | false
            """,
            useHeadersInDisplayName = true)
    void whatMayBeFoundIsNotWhatIsFoundForSure(String selector, boolean ever, boolean surely, boolean atRest) {
        SelectorList list = SelectorList.parse(selector).orElseThrow();
        Element element = PAGE.selectFirst(selector.startsWith("b") ? "b" : "a");
        assertThat(new SelectorMatcher(PAGE, States.ANY).matches(list, element))
                .as("ever")
                .isEqualTo(ever);
        assertThat(new SelectorMatcher(PAGE, States.SURE).matches(list, element))
                .as("surely")
                .isEqualTo(surely);
        assertThat(new SelectorMatcher(PAGE, States.NONE).matches(list, element))
                .as("at rest")
                .isEqualTo(atRest);
    }
}

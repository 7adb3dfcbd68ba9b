package org.calmpalette.core.css.selector;

import static org.assertj.core.api.Assertions.assertThat;

import org.calmpalette.core.css.Tokenizer;
import org.calmpalette.core.css.Tokens;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** The worked list of Selectors Level 4, section 17, and nesting after CSS Nesting 1, section 3.2. */
class SpecificityTest {
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '`',
            value = {
                "* | 0 0 0",
                "LI | 0 0 1",
                "UL LI | 0 0 2",
                "UL OL+LI | 0 0 3",
                "H1 + *[REL=up] | 0 1 1",
                "UL OL LI.red | 0 1 3",
                "LI.red.level | 0 2 1",
                "#x34y | 1 0 0",
                "#s12:not(FOO) | 1 0 1",
                ".foo :is(.bar, #baz) | 1 1 0",
                ":is(em, #foo) | 1 0 0",
                ".qux:where(em, #foo#bar#baz) | 0 1 0",
                ":nth-child(even of li, .item) | 0 2 0",
                ":not(em, strong#foo) | 1 0 1",
                "p::before | 0 0 2",
                ":has(> #a, b) | 1 0 0"
            })
    void specificityIsThatOfTheStandard(String selector, String expected) {
        Specificity s = SelectorList.parse(selector).orElseThrow().mostSpecific();
        assertThat(s.ids() + " " + s.classes() + " " + s.elements()).isEqualTo(expected);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '`',
            value = {
                "& b | 1 0 1 | :is(#a, p) b",
                "b | 1 0 1 | :is(#a, p) b",
                "> b | 1 0 1 | :is(#a, p) > b",
                ".x & | 1 1 0 | .x :is(#a, p)",
                ":is(&, i) b | 1 0 1 | :is(:is(#a, p), i) b",
                ":where(i, > &) b | 0 0 1 | :where(i) b"
            })
    void nestedSelectorsCountAllOfTheirParents(String selector, String specificity, String written) {
        SelectorList around = SelectorList.parse("#a, p").orElseThrow();
        Tokens tokens = Tokenizer.tokenize(selector);
        SelectorList nested =
                SelectorList.parse(tokens, 0, tokens.size(), around).orElseThrow();
        Specificity s = nested.mostSpecific();
        assertThat(s.ids() + " " + s.classes() + " " + s.elements()).isEqualTo(specificity);
        assertThat(nested.toString()).isEqualTo(written);
    }
}

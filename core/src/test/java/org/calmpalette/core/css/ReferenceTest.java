package org.calmpalette.core.css;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class ReferenceTest {
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '`',
            textBlock =
                    """
            var(--a)                                  | [--a]
            VAR( --a , red) 1px var(--b)              | [--a, --b]
            var(--a, var(--b, var(--c)))              | [--a, --b, --c]
            calc(1px + var(--é\\66))                  | [--éf]
            v\\61r(--a)                               | [--a]
            "var(--a)" url(var(--a))                  | []
            /* var(--a) */ red                        | []
            myvar(--a) env(--a) variable(--a)         | []
            var() var(1px) var(, red)                 | []
            var(--a                                   | [--a]
            url("data:image/svg+xml,<svg var(--a)/>") | []
            """)
    void whatIsReadIsToldByTokens(String value, String names) {
        assertThat(Reference.names(value).toString()).isEqualTo(names);
        assertThat(Reference.isIn(value)).isEqualTo(!names.equals("[]"));
    }

    @Test
    void oneAloneIsToldWithItsFallback() {
        Tokens tokens = Tokenizer.tokenize("  var( --a , 1px 2px ) ");
        Reference one = Reference.whole(tokens).orElseThrow();
        assertThat(one.name()).isEqualTo("--a");
        assertThat(tokens.text()
                        .substring(tokens.start(one.fallback()), tokens.start(one.end() - 1))
                        .strip())
                .isEqualTo("1px 2px");
        assertThat(Reference.whole(Tokenizer.tokenize("var(--a) x"))).isEmpty();
        assertThat(Reference.whole(Tokenizer.tokenize(""))).isEmpty();
        assertThat(Reference.whole(Tokenizer.tokenize("var(--a,)"))
                        .orElseThrow()
                        .hasFallback())
                .isTrue();
        assertThat(Reference.whole(Tokenizer.tokenize("var(--a)")).orElseThrow().hasFallback())
                .isFalse();
    }
}

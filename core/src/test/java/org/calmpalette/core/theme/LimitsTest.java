package org.calmpalette.core.theme;

import static org.assertj.core.api.Assertions.assertThat;

import org.calmpalette.core.css.SourceText;
import org.calmpalette.core.css.Stylesheet;
import org.junit.jupiter.api.Test;

class LimitsTest {
    private final Limits limits = new Limits();

    private SetAside sheet(String css) {
        return limits.sheet("a.css", Stylesheet.read(SourceText.of("a.css", css)));
    }

    @Test
    void asManySelectorsAsAreLookedAtAndNotOneMore() {
        assertThat(sheet("a,b{}".repeat(Limits.SELECTORS / 2))).isNull();
        assertThat(sheet("a{}")).isNotNull().satisfies(a -> assertThat(a.why()).contains("30,000"));
        assertThat(sheet("/* nothing */")).as("a sheet without selectors").isNull();
    }

    @Test
    void whatIsSetAsideTakesNothingFromTheRest() {
        String filler = "/*" + "x".repeat(1_900_000 - 4) + "*/";
        assertThat(sheet("a{}".repeat(Limits.SELECTORS + 1) + filler))
                .as("too many selectors")
                .isNotNull();
        assertThat(sheet("a{}" + filler)).isNull();
        assertThat(sheet(filler)).as("too large beside it").isNotNull().satisfies(a -> assertThat(a.why())
                .contains("3.0 MB"));
        assertThat(sheet("a{}".repeat(Limits.SELECTORS - 1))).isNull();
    }

    @Test
    void sizesAreSaidAsPeopleReadThem() {
        assertThat(Limits.large("a.css", 8_250_000, Limits.SHEET).why())
                .contains("It has 8.2 MB")
                .contains("up to 2.0 MB");
        assertThat(Limits.large("a.css", 3_100, 900).why()).contains("3 kB");
    }
}

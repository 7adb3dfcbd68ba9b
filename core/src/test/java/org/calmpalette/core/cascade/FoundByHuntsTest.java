package org.calmpalette.core.cascade;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Values of which generated input once found that they were taken wrongly; each as Chromium 156 has it. */
class FoundByHuntsTest {
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "font | italic calc(1 + 2) 12px serif | true",
                "font | calc(3 * (1 - 2)) condensed small-caps smaller / normal serif | true",
                "font | calc(1px + 2px) italic 12px serif | false",
                "font | 0 12px serif | false",
                "font-weight | calc(10% + 5%) | false",
                "display | ruby block | true",
                "display | block ruby | true",
                "background-image | conic-gradient(red calc(10% + 2px), blue) | false",
                "background-image | conic-gradient(red clamp(1px, 2%, 3em), blue) | false",
                "background-image | conic-gradient(red calc(10% * (1 + 2)), blue) | true",
                "background-image | conic-gradient(red 10%, blue 1turn) | true"
            })
    void isValidWhereItIsInChromium(String property, String value, boolean valid) {
        assertThat(Expansion.supports(property, value)).isEqualTo(valid);
    }
}

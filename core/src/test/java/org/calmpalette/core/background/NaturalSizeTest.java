package org.calmpalette.core.background;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.OptionalDouble;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What an SVG says of its own size: SVG 2, section 8.12, and CSS Images 3, section 4.1. */
class NaturalSizeTest {
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "<svg width='300' height='150'/> | 300 | 150 | 2",
                "<svg width='300px' height='100PX' viewBox='0 0 1 1'/> | 300 | 100 | 3",
                "<svg viewBox='0 0 320 80'/> | - | - | 4",
                "<svg viewBox='0,0,10,20' width='100%'/> | - | - | 0.5",
                "<svg width='40' viewBox='0 0 10 20'/> | 40 | - | 0.5",
                "<svg/> | - | - | -",
                "<svg width='0' height='-5' viewBox='0 0 0 0'/> | - | - | -",
                "<svg width='wide' viewBox='a b c d'/> | - | - | -",
                "no picture | - | - | -"
            })
    void ofSvg(String svg, String width, String height, String ratio) {
        NaturalSize size = NaturalSize.ofSvg(svg.getBytes(StandardCharsets.UTF_8));
        assertThat(size.width()).isEqualTo(number(width));
        assertThat(size.height()).isEqualTo(number(height));
        assertThat(size.ratio()).isEqualTo(number(ratio));
    }

    private static OptionalDouble number(String text) {
        return text.equals("-") ? OptionalDouble.empty() : OptionalDouble.of(Double.parseDouble(text));
    }

    @Test
    void aPictureWithoutExtentHasNoRatio() {
        assertThat(NaturalSize.of(0, 20).ratio()).isEmpty();
        assertThat(NaturalSize.of(30, 20).ratio()).hasValue(1.5);
    }
}

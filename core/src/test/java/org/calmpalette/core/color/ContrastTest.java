package org.calmpalette.core.color;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import org.junit.jupiter.api.Test;

class ContrastTest {
    private static Color color(String text) {
        return Color.parse(text).orElseThrow();
    }

    /** WCAG 2.2, definition of contrast ratio: 21 to 1 for black on white, 1 to 1 for a colour on itself. */
    @Test
    void theEndsOfTheScaleAreThoseOfWcag() {
        assertThat(Contrast.ratio(Color.BLACK, Color.WHITE)).isEqualTo(21);
        assertThat(Contrast.ratio(color("#4a7"), color("#44aa77"))).isEqualTo(1);
    }

    /** From memory, and widely published: #777 on white just fails 4.5, #767676 just passes. */
    @Test
    void theGreysAroundTheThresholdFallOnTheirSides() {
        assertThat(Contrast.ratio(color("#777"), Color.WHITE)).isCloseTo(4.48, within(0.005));
        assertThat(Contrast.ratio(color("#767676"), Color.WHITE)).isGreaterThanOrEqualTo(4.5);
    }

    /** Compositing and Blending Level 1, section 5.1: half black over white is the grey in the middle. */
    @Test
    void translucentLayersAreCompositedFromTheTop() {
        assertThat(Contrast.flatten(List.of(color("rgb(0 0 0 / 50%)"), Color.WHITE))
                        .c0())
                .isCloseTo(0.5, within(1e-9));
        assertThat(Contrast.flatten(List.of(color("rgb(255 0 0 / 50%)"), color("rgb(0 0 255 / 50%)"), Color.BLACK))
                        .hex())
                .isEqualTo("#800040");
        assertThat(Contrast.ratioOver(color("rgb(0 0 0 / 50%)"), List.of(Color.WHITE)))
                .isEqualTo(Contrast.ratio(color("rgb(50% 50% 50%)"), Color.WHITE));
    }

    @Test
    void aLastLayerThatLetsThroughIsRefused() {
        assertThatThrownBy(() -> Contrast.ratioOver(Color.BLACK, List.of(color("#fff8"))))
                .hasMessageContaining("#ffffff88")
                .hasMessageContaining("opaque");
    }
}

package org.calmpalette.core.color;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** The formulas of Compositing and Blending Level 1, section 10, worked out by hand for a backdrop of .25 .5 .75 and a source of .8 .4 .2. */
class BlendModeTest {
    private static double[] over(BlendMode mode, double[] backdrop, double[] source) {
        double[] result = backdrop.clone();
        mode.over(result, source);
        return result;
    }

    @ParameterizedTest
    @CsvSource({
        "normal, .8, .4, .2",
        "multiply, .2, .2, .15",
        "screen, .85, .7, .8",
        // Twice the product where the backdrop is dark, screened where it is light.
        "overlay, .4, .4, .6",
        "darken, .25, .4, .2",
        "lighten, .8, .5, .75",
        "color-dodge, 1, .833333, .9375",
        "color-burn, .0625, 0, 0",
        "hard-light, .7, .4, .3",
        // Red: D = 16/64 * ... = .5 at .25; .25 + .6 * (.5 - .25). Green: .5 - .2 * .5 * .5. Blue: .75 - .6 * .75 *
        // .25.
        "soft-light, .4, .45, .6375",
        "difference, .55, .1, .55",
        "exclusion, .65, .5, .65",
        // Lum of the backdrop .4525, of the source .498: the difference goes to each component.
        "luminosity, .2955, .5455, .7955",
        "color, .7545, .3545, .1545",
    })
    void eachModeMixesAsItsFormulaSays(String name, double red, double green, double blue) {
        double[] seen =
                over(BlendMode.of(name).orElseThrow(), new double[] {.25, .5, .75, 1}, new double[] {.8, .4, .2, 1});
        assertThat(seen[0]).as("red").isCloseTo(red, within(1e-4));
        assertThat(seen[1]).as("green").isCloseTo(green, within(1e-4));
        assertThat(seen[2]).as("blue").isCloseTo(blue, within(1e-4));
        assertThat(seen[3]).isEqualTo(1);
    }

    @Test
    void hueAndSaturationKeepWhatTheyTakeFromTheBackdrop() {
        double[] backdrop = {.25, .5, .75, 1};
        double[] source = {.8, .4, .2, 1};
        double[] hue = over(BlendMode.HUE, backdrop, source);
        // The source's order of components and shares of its spread: .5 wide, as the backdrop's, with the backdrop's
        // luminosity.
        assertThat(hue[0] - hue[2]).isCloseTo(.5, within(1e-9));
        assertThat((hue[1] - hue[2]) / (hue[0] - hue[2])).isCloseTo(1 / 3.0, within(1e-9));
        assertThat(.3 * hue[0] + .59 * hue[1] + .11 * hue[2]).isCloseTo(.4525, within(1e-9));
        double[] saturation = over(BlendMode.SATURATION, backdrop, source);
        assertThat(saturation[2] - saturation[0]).isCloseTo(.6, within(1e-9));
        assertThat(over(BlendMode.SATURATION, backdrop, new double[] {.3, .3, .3, 1})[0])
                .as("a gray source leaves no colour")
                .isCloseTo(.4525, within(1e-9));
    }

    @Test
    void whatLetsThroughIsMixedAsFarAsItDoes() {
        // Half a source over a whole backdrop: half of the product, half of the backdrop.
        double[] half = over(BlendMode.MULTIPLY, new double[] {.5, .5, .5, 1}, new double[] {.25, .25, .25, .5});
        assertThat(half[0]).isCloseTo(.375, within(1e-9));
        // Over nothing there is nothing to mix with.
        assertThat(over(BlendMode.MULTIPLY, new double[4], new double[] {.2, .1, 0, .5}))
                .containsExactly(.2, .1, 0, .5);
        assertThat(over(BlendMode.DIFFERENCE, new double[] {.3, .3, .3, 1}, new double[4]))
                .containsExactly(.3, .3, .3, 1);
        assertThat(BlendMode.of("plus-lighter")).isEmpty();
    }
}

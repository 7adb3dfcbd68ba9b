package org.calmpalette.core.usage;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Map;
import org.calmpalette.core.Generated;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.theme.Themes;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/** CSS Color 4, section 13.2: a distance of 0.02 in OKLab can just be noticed; half of that nobody tells apart. */
class NearColorsTest {
    private static Color color(String css) {
        return Color.parse(css).orElseThrow();
    }

    private static Map<String, ColorRow> ties(String css) {
        return NearColors.ties(ColorUsage.of(Themes.of("a.css", css)).rows());
    }

    @Test
    void distancesAreThoseOfOklab() {
        assertThat(color("oklab(0.5 0.1 0)").distance(color("oklab(0.5 0.1 0.02)")))
                .isCloseTo(0.02, within(1e-12));
        assertThat(color("oklab(0.5 0 0)").distance(color("oklab(0.53 0.04 0)")))
                .isCloseTo(0.05, within(1e-12));
        assertThat(Color.BLACK.distance(Color.WHITE))
                .as("from lightness 0 to 1")
                .isCloseTo(1, within(1e-6));
        assertThat(color("#123456").distance(color("#123456"))).isZero();
    }

    @Test
    void aColourIsTiedToTheNearestMoreUsedOne() {
        Map<String, ColorRow> ties = ties("a{color:#1f3347}b{color:#1f3347}c{color:#1e3347}d{color:#204060}");
        assertThat(ties).containsOnlyKeys("#1e3347");
        assertThat(ties.get("#1e3347").value()).isEqualTo("#1f3347");
    }

    @Test
    void anotherAlphaIsAnotherColour() {
        assertThat(ties("a{color:rgb(31 51 71)}b{color:rgb(31 51 71)}c{color:rgb(30 51 71 / 90%)}"))
                .isEmpty();
        assertThat(ties("a{color:rgb(31 51 71 / 90%)}b{color:rgb(31 51 71 / 90%)}c{color:rgb(30 51 71 / 90%)}"))
                .hasSize(1);
    }

    /** Neighbours lie in other cells of the grid too; whoever searches all pairs finds the same. */
    @Tag("generated")
    @Test
    void nothingIsLostAtTheEdgesOfTheGrid() {
        StringBuilder css = new StringBuilder();
        java.util.Random random = Generated.random(5);
        for (int i = 0; i < 300; i++) {
            css.append(String.format(
                    ".c%d{color:#%02x%02x%02x}",
                    i, 100 + random.nextInt(30), 100 + random.nextInt(30), 100 + random.nextInt(30)));
        }
        var rows = ColorUsage.of(Themes.of("a.css", css.toString())).rows();
        Map<String, ColorRow> ties = NearColors.ties(rows);
        java.util.List<ColorRow> mains = new java.util.ArrayList<>();
        for (ColorRow row : rows) {
            ColorRow nearest = mains.stream()
                    .filter(m -> m.color().distance(row.color()) < NearColors.NEAR)
                    .min(java.util.Comparator.comparingDouble(m -> m.color().distance(row.color())))
                    .orElse(null);
            assertThat(ties.get(row.value()) == null).as(row.value()).isEqualTo(nearest == null);
            if (nearest == null) {
                mains.add(row);
            } else {
                assertThat(ties.get(row.value()).color().distance(row.color()))
                        .isCloseTo(nearest.color().distance(row.color()), within(1e-12));
            }
        }
        assertThat(ties).hasSizeGreaterThan(20);
    }
}

package org.calmpalette.core.background;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import org.calmpalette.core.value.BackgroundLayer;
import org.junit.jupiter.api.Test;

/** A picture of 1600 by 900 px behind pages of every length, worked out by hand from CSS Backgrounds 3, sections 3.6 and 3.9. */
class PageLengthsTest {
    private static PageLengths of(String x, String y, String size, String repeat) {
        BackgroundLayer layer = BackgroundLayer.read(new BackgroundLayer.Longhands(
                        "url(a.png)", x, y, size, repeat, "padding-box", "border-box", "scroll"))
                .orElseThrow()
                .get(0);
        return PageLengths.of(layer, NaturalSize.of(1600, 900), 1440);
    }

    @Test
    void whatIsAnchoredToTheTopEndsWhereItEnds() {
        PageLengths top = of("0%", "0%", "auto", "no-repeat");
        assertThat(top.filledUpTo()).isEqualTo(900);
        assertThat(top.at(700)).isEqualTo(new PageLengths.Stretch(0, 700, 1, 0.9));
        assertThat(top.at(5000)).isEqualTo(new PageLengths.Stretch(0, 900, 1, 0.9));
        assertThat(top.grows()).isFalse();
    }

    @Test
    void inPercentItMovesDownWithThePage() {
        PageLengths middle = of("50%", "50%", "auto", "no-repeat");
        assertThat(middle.at(2900).from()).isEqualTo(1000);
        assertThat(middle.at(2900).to()).isEqualTo(1900);
        assertThat(middle.filledUpTo()).as("half a pixel is none").isEqualTo(901);
        PageLengths bottom = of("50%", "100%", "auto", "no-repeat");
        assertThat(bottom.filledUpTo()).as("the end is never bare, the top is").isEqualTo(PageLengths.TO);
        assertThat(bottom.at(5000).from()).isEqualTo(4100);
    }

    @Test
    void coverGrowsWithThePageAndShowsEverLessOfTheWidth() {
        PageLengths cover = of("50%", "0%", "cover", "no-repeat");
        assertThat(cover.grows()).isTrue();
        assertThat(cover.filledUpTo()).isEqualTo(PageLengths.TO);
        // Up to 810 px the width decides: 1440 of 1600. From then on the length does.
        assertThat(cover.at(800).scale()).isCloseTo(0.9, within(1e-9));
        assertThat(cover.at(1800).scale()).isCloseTo(2, within(1e-9));
        assertThat(cover.at(1800).across()).isCloseTo(1440.0 / 3200, within(1e-9));
        assertThat(of("0%", "0%", "100% auto", "no-repeat").grows()).isFalse();
        assertThat(of("0%", "0%", "auto 50%", "no-repeat").at(3600).scale()).isCloseTo(2, within(1e-9));
    }

    @Test
    void whatRepeatsDownwardsFillsEveryPage() {
        assertThat(of("0%", "0%", "auto", "repeat-y").filledUpTo()).isEqualTo(PageLengths.TO);
        assertThat(of("0%", "0%", "auto", "repeat-x").filledUpTo()).isEqualTo(900);
        assertThat(of("0%", "-950px", "auto", "no-repeat").at(2000))
                .satisfies(s -> assertThat(s.to()).isEqualTo(s.from()));
    }
}

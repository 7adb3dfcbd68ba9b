package org.calmpalette.core.background;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.awt.image.BufferedImage;
import java.util.List;
import java.util.Optional;
import org.calmpalette.core.background.BoxGeometry.Rectangle;
import org.calmpalette.core.background.Sight.Part;
import org.calmpalette.core.background.Sight.State;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.picture.Pixels;
import org.calmpalette.core.value.BackgroundLayer;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What a window shows of a picture 1000 px wide and 500 px high, reckoned by hand. */
class SightTest {
    private static final NaturalSize PICTURE = NaturalSize.of(1000, 500);
    /** From 800 to 900 px across and from 200 to 300 px down. */
    private static final Optional<Part> FERRY = Optional.of(new Part(0.8, 0.4, 0.1, 0.2));

    private static BackgroundLayer layer(String position, String size, String repeat) {
        String[] p = position.split(" ");
        return BackgroundLayer.read(new BackgroundLayer.Longhands(
                        "none", p[0], p[1], size, repeat, "padding-box", "border-box", "scroll"))
                .orElseThrow()
                .get(0);
    }

    private static Sight sight(String position, String size, String repeat, int width, Rectangle... covers) {
        return Sight.of(
                layer(position, size, repeat),
                PICTURE,
                new Scene(0, 0, BoxGeometry.of(width, 600), width, 600, List.of(covers)),
                FERRY);
    }

    @ParameterizedTest
    @CsvSource({"800, OFF", "805, CUT", "899, CUT", "900, WHOLE", "2000, WHOLE"})
    void anEdgeOfTheWindowCutsIt(int width, State expected) {
        assertThat(sight("0% 0%", "auto", "no-repeat", width).state()).contains(expected);
    }

    @Test
    void whatLiesOverItCountsEachSpotOnce() {
        Sight half = sight(
                "0% 0%", "auto", "no-repeat", 1200, new Rectangle(0, 0, 850, 600), new Rectangle(700, 250, 150, 100));
        assertThat(half.state()).contains(State.UNDER);
        assertThat(half.open()).isCloseTo(0.5, within(1e-9));
        assertThat(half.column()).contains(new Rectangle(0, 200, 850, 100));
        assertThat(sight("0% 0%", "auto", "no-repeat", 1200, new Rectangle(0, 0, 800, 600))
                        .state())
                .as("beside it")
                .contains(State.WHOLE);
        assertThat(sight("0% 0%", "auto", "no-repeat", 1200, new Rectangle(0, 300, 1200, 300))
                        .column())
                .as("below it")
                .isEmpty();
    }

    @Test
    void anchoredToTheMiddleItKeepsStepWithTheMiddle() {
        for (int width : new int[] {900, 1300, 1999}) {
            Rectangle s = sight("50% 0%", "auto", "no-repeat", width).subject().orElseThrow();
            assertThat(s.x() - width / 2.0).as("%d", width).isCloseTo(300, within(1e-9));
        }
    }

    @Test
    void coverCropsAndContainLeavesRoom() {
        assertThat(sight("0% 0%", "cover", "no-repeat", 900).shown())
                .as("1200 by 600, of which 900 are seen")
                .isEqualTo(new Rectangle(0, 0, 900, 600));
        assertThat(sight("0% 0%", "cover", "no-repeat", 900).state())
                .as("from 960 on")
                .contains(State.OFF);
        Sight contain = sight("50% 50%", "contain", "no-repeat", 900);
        assertThat(contain.shown()).isEqualTo(new Rectangle(0, 75, 900, 450));
        assertThat(contain.placement().painted()).isCloseTo(0.75, within(1e-9));
    }

    @Test
    void ofSeveralTilesTheOneThatShowsMostCounts() {
        Sight repeated = sight("0% 0%", "auto", "repeat-x", 2000, new Rectangle(700, 0, 300, 600));
        assertThat(repeated.state()).contains(State.WHOLE);
        assertThat(repeated.subject()).contains(new Rectangle(1800, 200, 100, 100));
        assertThat(repeated.shown()).isEqualTo(new Rectangle(0, 0, 2000, 500));
    }

    @Test
    void withoutASubjectTheLargestThingOverItIsTheColumn() {
        Sight s = Sight.of(
                layer("0% 0%", "auto", "no-repeat"),
                PICTURE,
                new Scene(
                        0,
                        0,
                        BoxGeometry.of(1200, 600),
                        1200,
                        600,
                        List.of(new Rectangle(0, 0, 1200, 60), new Rectangle(100, 100, 800, 900))),
                Optional.empty());
        assertThat(s.state()).isEmpty();
        assertThat(s.column()).contains(new Rectangle(100, 100, 800, 400));
    }

    @Test
    void whatHasNoExtentShowsNothing() {
        assertThat(sight("0% 0%", "0px 0px", "no-repeat", 900).state()).contains(State.OFF);
        Sight none = Sight.of(
                layer("0% 0%", "auto", "repeat"),
                NaturalSize.of(0, 0),
                new Scene(0, 0, BoxGeometry.of(900, 600), 900, 600, List.of()),
                FERRY);
        assertThat(none.shown().width()).isZero();
    }

    @Test
    void runsAreExactToThePixel() {
        Sweep sweep = Sweep.of(
                320,
                2560,
                w -> Optional.of(
                        sight("0% 0%", "auto", "no-repeat", w, new Rectangle((w - 1080) / 2.0, 0, 1080, 600))));
        // The column reaches the ferry's left edge, 800, from (w - 1080) / 2 + 1080 = 800.5 on; less than half of a
        // hundredth of it counts as nothing.
        assertThat(sweep.subject())
                .extracting(r -> r.what() + " " + r.from() + "-" + r.to())
                .containsExactly("OFF 320-800", "UNDER 801-2560");
        assertThat(sweep.count(State.OFF, State.UNDER)).isEqualTo(2241);
        assertThat(sweep.largestScale()).isEqualTo(1);
        assertThat(Sweep.of(
                                320,
                                400,
                                w -> w == 350 ? Optional.empty() : Optional.of(sight("0% 0%", "auto", "no-repeat", w)))
                        .subject())
                .as("a width that is not known parts a run")
                .hasSize(2);
    }

    @Test
    void aSeamIsAsFarAsItsColoursAre() {
        BufferedImage image = new BufferedImage(10, 10, BufferedImage.TYPE_INT_RGB);
        for (int y = 0; y < 10; y++) {
            image.setRGB(9, y, y < 5 ? 0xffffff : 0x000000);
        }
        Seam seam = Seam.of(Pixels.of(image), Seam.Side.RIGHT, 1, Color.WHITE);
        assertThat(seam.worst()).as("black and white are 100 apart").isCloseTo(100, within(0.01));
        assertThat(seam.at()).isGreaterThan(0.5);
        assertThat(seam.mean()).isCloseTo(50, within(8.0));
        assertThat(Seam.of(Pixels.of(image), Seam.Side.LEFT, 1, Color.BLACK).worst())
                .isZero();
        Placement p = Placement.of(layer("0% 0%", "auto", "no-repeat"), PICTURE, BoxGeometry.of(1200, 500));
        assertThat(Seam.open(p, p.tile(), new Rectangle(0, 0, 1200, 500))).containsExactly(Seam.Side.RIGHT);
        assertThat(Seam.open(p, p.tile(), new Rectangle(0, 0, 1000, 500))).isEmpty();
    }
}

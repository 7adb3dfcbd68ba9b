package org.calmpalette.core.background;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import org.calmpalette.core.background.BoxGeometry.Rectangle;
import org.calmpalette.core.background.BoxGeometry.Sides;
import org.calmpalette.core.value.BackgroundLayer;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** The worked examples of CSS Backgrounds 3, sections 3.4, 3.6 and 3.9, and cases worked out by hand from its rules. */
class PlacementTest {
    private static BackgroundLayer layer(String size, String x, String y, String repeat, String origin, String clip) {
        return BackgroundLayer.read(
                        new BackgroundLayer.Longhands("url(a.png)", x, y, size, repeat, origin, clip, "scroll"))
                .orElseThrow()
                .get(0);
    }

    private static Placement place(
            String size, String x, String y, String repeat, NaturalSize picture, double width, double height) {
        return Placement.of(
                layer(size, x, y, repeat, "padding-box", "border-box"), picture, BoxGeometry.of(width, height));
    }

    private static String tile(Placement p) {
        return round(p.tile().x()) + " " + round(p.tile().y()) + " "
                + round(p.tile().width()) + " " + round(p.tile().height());
    }

    private static String round(double v) {
        return java.math.BigDecimal.valueOf(Math.rint(v * 1000) / 1000)
                .stripTrailingZeros()
                .toPlainString();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                // A picture of 200 by 100 in a box of 400 by 300.
                "auto | 0% 0% | 0 0 200 100",
                "auto | 100% 100% | 200 200 200 100",
                "auto | 50% 50% | 100 100 200 100",
                "auto | 10px 20px | 10 20 200 100",
                "auto | calc(100% - 10px) 0% | 190 0 200 100",
                "auto | -50% 0% | -100 0 200 100",
                "cover | 0% 0% | 0 0 600 300",
                "cover | 50% 50% | -100 0 600 300",
                "cover | 100% 0% | -200 0 600 300",
                "contain | 50% 50% | 0 50 400 200",
                "contain | 0% 100% | 0 100 400 200",
                "100% 100% | 0% 0% | 0 0 400 300",
                "50% | 0% 0% | 0 0 200 100",
                "auto 50% | 0% 0% | 0 0 300 150",
                "30px 60px | 0% 0% | 0 0 30 60",
                "auto 25px | 100% 100% | 350 275 50 25",
                "calc(100% - 40px) auto | 0% 0% | 0 0 360 180"
            })
    void sizesAndPositions(String size, String position, String expected) {
        assertThat(tile(place(
                        size,
                        position.substring(0, position.lastIndexOf(' ')),
                        position.substring(position.lastIndexOf(' ') + 1),
                        "no-repeat",
                        NaturalSize.of(200, 100),
                        400,
                        300)))
                .isEqualTo(expected);
    }

    /** "a single image … is rescaled … so that it fits a whole number of times": 3.4, and 3.9's example of 'round'. */
    @Test
    void roundFitsAWholeNumberOfTimes() {
        Placement p = place("auto", "0%", "0%", "round", NaturalSize.of(30, 30), 100, 80);
        assertThat(tile(p)).as("three and three").isEqualTo("0 0 33.333 26.667");
        // Rounding in one direction keeps the ratio if the other side is auto.
        assertThat(tile(place("auto", "0%", "0%", "round no-repeat", NaturalSize.of(30, 30), 100, 80)))
                .isEqualTo("0 0 33.333 33.333");
        assertThat(tile(place("30px 30px", "0%", "0%", "round no-repeat", NaturalSize.of(30, 30), 100, 80)))
                .isEqualTo("0 0 33.333 30");
        assertThat(tile(place("auto", "0%", "0%", "no-repeat round", NaturalSize.of(30, 30), 100, 80)))
                .isEqualTo("0 0 26.667 26.667");
        assertThat(place("auto", "0%", "0%", "round", NaturalSize.of(300, 30), 100, 80)
                        .tile()
                        .width())
                .as("never less than one")
                .isEqualTo(100);
    }

    @Test
    void spaceSetsTilesApartAndTouchesTheEdges() {
        Placement p = place("auto", "50%", "50%", "space", NaturalSize.of(30, 30), 100, 80);
        assertThat(tile(p)).isEqualTo("0 0 30 30");
        assertThat(p.stepX()).as("three in 100: 35 from one to the next").isEqualTo(35);
        assertThat(p.stepY()).as("two in 80: 50 from one to the next").isEqualTo(50);
        assertThat(p.painted()).isCloseTo(0.9 * 0.75, within(1e-9));
        assertThat(tile(place("auto", "50%", "100%", "space", NaturalSize.of(70, 50), 100, 80)))
                .as("only one fits: the position places it")
                .isEqualTo("15 30 70 50");
    }

    @Test
    void paintedAndShown() {
        Placement cut = place("auto", "-50px", "250px", "no-repeat", NaturalSize.of(200, 100), 400, 300);
        assertThat(cut.painted()).isCloseTo(150.0 / 400 * 50 / 300, within(1e-12));
        assertThat(cut.shown()).isEqualTo(new Rectangle(50, 0, 150, 50));
        assertThat(place("auto", "500px", "0%", "no-repeat", NaturalSize.of(200, 100), 400, 300)
                        .painted())
                .isZero();
        assertThat(place("auto", "500px", "0%", "no-repeat", NaturalSize.of(200, 100), 400, 300)
                        .shown()
                        .width())
                .isZero();
        Placement cover = place("cover", "50%", "50%", "no-repeat", NaturalSize.of(200, 100), 400, 300);
        assertThat(cover.painted()).isEqualTo(1);
        assertThat(cover.scaleX()).isEqualTo(3);
        assertThat(cover.shown().x()).isCloseTo(100.0 / 3, within(1e-9));
        assertThat(cover.shown().width()).isCloseTo(400.0 / 3, within(1e-9));
        Placement tiled = place("auto", "50px", "0%", "repeat-x", NaturalSize.of(200, 100), 400, 300);
        assertThat(tiled.painted()).isCloseTo(100.0 / 300, within(1e-12));
        assertThat(tiled.shown()).isEqualTo(new Rectangle(0, 0, 200, 100));
        Placement oneAndABit = place("auto", "10px", "0%", "repeat", NaturalSize.of(395, 300), 400, 300);
        assertThat(oneAndABit.shown().width())
                .as("two tiles, of which one shows its start and one its end")
                .isEqualTo(395);
    }

    @Test
    void originAndClipAreBoxesOfTheirOwn() {
        BoxGeometry box = new BoxGeometry(400, 300, new Sides(10, 20, 30, 40), new Sides(5, 6, 7, 8));
        assertThat(tile(Placement.of(
                        layer("auto", "0%", "0%", "no-repeat", "border-box", "border-box"),
                        NaturalSize.of(20, 10),
                        box)))
                .isEqualTo("-40 -10 20 10");
        assertThat(tile(Placement.of(
                        layer("auto", "100%", "100%", "no-repeat", "content-box", "border-box"),
                        NaturalSize.of(20, 10),
                        box)))
                .isEqualTo("374 283 20 10");
        assertThat(tile(Placement.of(
                        layer("cover", "0%", "0%", "no-repeat", "content-box", "border-box"),
                        NaturalSize.of(10, 10),
                        box)))
                .isEqualTo("8 5 386 386");
        Placement clipped = Placement.of(
                layer("auto", "0%", "0%", "no-repeat", "border-box", "padding-box"), NaturalSize.of(60, 30), box);
        assertThat(clipped.shown()).isEqualTo(new Rectangle(40, 10, 20, 20));
        Placement around = Placement.of(
                layer("auto", "0%", "0%", "repeat", "content-box", "border-box"), NaturalSize.of(50, 50), box);
        assertThat(around.painted()).as("tiles go on into padding and border").isEqualTo(1);
    }

    /** CSS Images 3, section 4.3, with the positioning area as the default object size. */
    @Test
    void picturesWithoutSizeOrWithARatioOnly() {
        assertThat(tile(place("auto", "0%", "0%", "no-repeat", NaturalSize.NONE, 400, 300)))
                .isEqualTo("0 0 400 300");
        assertThat(tile(place("50px auto", "0%", "0%", "no-repeat", NaturalSize.NONE, 400, 300)))
                .isEqualTo("0 0 50 300");
        assertThat(tile(place("cover", "0%", "0%", "no-repeat", NaturalSize.NONE, 400, 300)))
                .isEqualTo("0 0 400 300");
        assertThat(tile(place("auto", "0%", "0%", "no-repeat", NaturalSize.ofRatio(2), 400, 300)))
                .isEqualTo("0 0 400 200");
        assertThat(tile(place("auto 50px", "0%", "0%", "no-repeat", NaturalSize.ofRatio(2), 400, 300)))
                .isEqualTo("0 0 100 50");
        assertThat(tile(place("cover", "50%", "0%", "no-repeat", NaturalSize.ofRatio(2), 400, 300)))
                .isEqualTo("-100 0 600 300");
        NaturalSize wide = new NaturalSize(
                java.util.OptionalDouble.of(80), java.util.OptionalDouble.empty(), java.util.OptionalDouble.empty());
        assertThat(tile(place("auto", "0%", "0%", "no-repeat", wide, 400, 300))).isEqualTo("0 0 80 300");
    }

    @ParameterizedTest
    @CsvSource({"0,0,auto", "0,100,cover", "100,0,contain", "200,100,0px", "200,100,10px 0px", "200,100,-5px"})
    void whatHasNoExtentIsNotDrawn(double width, double height, String size) {
        Placement p = place(size, "50%", "50%", "repeat", NaturalSize.of(width, height), 400, 300);
        assertThat(p.painted()).isZero();
        assertThat(place("cover", "0%", "0%", "repeat", NaturalSize.of(10, 10), 0, 0)
                        .painted())
                .isZero();
    }

    @Test
    void hugeNumbersEnd() {
        Placement p = place("1e30px 1e-30px", "1e30px", "-1e30px", "repeat space", NaturalSize.of(10, 10), 400, 300);
        assertThat(p.painted()).isBetween(0.0, 1.0);
        assertThat(place("0.0001px", "0%", "0%", "space", NaturalSize.of(10, 10), 1e7, 1e7)
                        .painted())
                .isBetween(0.0, 1.0);
    }
}

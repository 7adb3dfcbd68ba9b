package org.calmpalette.app.pictures;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.calmpalette.core.background.BoxGeometry;
import org.calmpalette.core.background.BoxGeometry.Rectangle;
import org.calmpalette.core.background.NaturalSize;
import org.calmpalette.core.background.Scene;
import org.calmpalette.core.background.Sight;
import org.calmpalette.core.background.Sweep;
import org.calmpalette.core.value.BackgroundLayer;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** The drawing of all window widths, and the words for how a picture lies. */
class SweepDrawingTest {
    private static BackgroundLayer layer(String x, String y, String size, String repeat) {
        return BackgroundLayer.read(new BackgroundLayer.Longhands(
                        "none", x, y, size, repeat, "padding-box", "border-box", "scroll"))
                .orElseThrow()
                .get(0);
    }

    /** A picture of 1600 by 900 at the left top, its subject from 1280 to 1440 px, under a column of 1080 px in the middle. */
    private static Sweep sweep() {
        return Sweep.of(
                Sweep.FROM,
                Sweep.TO,
                w -> Optional.of(Sight.of(
                        layer("0%", "0%", "auto", "no-repeat"),
                        NaturalSize.of(1600, 900),
                        new Scene(
                                0,
                                0,
                                BoxGeometry.of(w, 900),
                                w,
                                900,
                                List.of(new Rectangle(Math.max(0, (w - 1080) / 2.0), 0, Math.min(w, 1080), 900))),
                        Optional.of(new Sight.Part(0.8, 0.5, 0.1, 0.1)))));
    }

    @Test
    void betweenTheKeptPointsEverythingLiesInStraightLines() {
        JsonNode points = JsonMapper.shared().readTree(SweepDrawing.of(sweep()).points());
        assertThat(points.size()).as("of 2,241 widths").isBetween(5, 40);
        List<double[]> read = new ArrayList<>();
        points.forEach(
                p -> read.add(p.valueStream().mapToDouble(JsonNode::doubleValue).toArray()));
        sweep().sights().forEach((width, sight) -> {
            int i = 0;
            while (i < read.size() - 1 && read.get(i)[0] < width) {
                i++;
            }
            double[] b = read.get(i);
            double[] a = b[0] == width ? b : read.get(i - 1);
            double share = a == b ? 0 : (width - a[0]) / (b[0] - a[0]);
            assertThat(a[7]).as("%d: the state of a stretch", width).isEqualTo(b[0] == width ? b[7] : a[7]);
            double[] shown = {
                Math.max(0, sight.shown().x()),
                Math.min(width, sight.shown().x() + sight.shown().width())
            };
            assertThat(a[1] + (b[1] - a[1]) * share).as("%d", width).isCloseTo(shown[0], within(0.3));
            assertThat(a[2] + (b[2] - a[2]) * share).as("%d", width).isCloseTo(shown[1], within(0.3));
        });
    }

    @Test
    void eachStateOfTheSubjectIsAStretchAndWhatIsOutsideIsNotDrawn() {
        SweepDrawing drawing = SweepDrawing.of(sweep());
        // Outside up to 1280, cut to 1439; the column reaches it from 1482 on.
        assertThat(drawing.subject()).extracting(SweepDrawing.Stretch::state).containsExactly("cut", "whole", "under");
        assertThat(drawing.subject())
                .allSatisfy(
                        s -> assertThat(s.path()).startsWith("M").endsWith("Z").doesNotContain("NaN"));
        assertThat(drawing.ticks()).first().isEqualTo(new SweepDrawing.Tick(320, SweepDrawing.LEFT));
        assertThat(drawing.ticks().get(drawing.ticks().size() - 1).x())
                .isEqualTo(SweepDrawing.LEFT + SweepDrawing.WIDTH);
    }

    @Test
    void ofNothingNothingIsDrawn() {
        SweepDrawing drawing = SweepDrawing.of(Sweep.of(320, 2560, w -> Optional.empty()));
        assertThat(drawing.picture()).isEmpty();
        assertThat(drawing.subject()).isEmpty();
        assertThat(drawing.points()).isEqualTo("[]");
        assertThat(SweepDrawing.of(Sweep.of(
                                700,
                                700,
                                w -> Optional.ofNullable(sweep().sights().get(w))))
                        .picture())
                .as("one width alone is a line")
                .startsWith("M")
                .endsWith("Z");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "0% | 0% | auto | no-repeat | left top | auto | no-repeat",
                "50% | 100% | cover | repeat | center bottom | cover | repeat",
                "100% | 50% | contain | repeat no-repeat | right center | contain | repeat-x",
                "12px | 25% | 100% auto | no-repeat repeat | 12px 25% | 100% auto | repeat-y",
                "calc(50% - 10px) | 0px | 300px 200px | space round | calc(50% - 10px) top | 300px 200px | space round"
            })
    void asTheFieldsHaveIt(
            String x, String y, String size, String repeat, String anchor, String sized, String repeated) {
        BackgroundLayer layer = layer(x, y, size, repeat);
        PictureLook.Wanted wanted = PictureLook.wanted(layer);
        assertThat(wanted).isEqualTo(new PictureLook.Wanted(anchor, sized, repeated));
        assertThat(wanted.on(layer)).as("and back").map(BackgroundLayer::size).contains(layer.size());
        assertThat(wanted.on(layer)).map(l -> PictureLook.wanted(l)).contains(wanted);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "10em top | auto | repeat",
                "middle | auto | repeat",
                "left top | 50vw | repeat",
                "left top | auto | sometimes",
                "left top | auto | repeat; color: red"
            })
    void whatIsNoPlaceIsNone(String anchor, String size, String repeat) {
        assertThat(new PictureLook.Wanted(anchor, size, repeat).on(layer("0%", "0%", "auto", "repeat")))
                .isEmpty();
    }
}

package org.calmpalette.core.setting;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/**
 * What a refusal holds as data, and how makers and owners read the same one. Lightness, chroma and hue were reckoned apart from this
 * project with the matrices of "A perceptual color space for image processing" (Ottosson, 2020), which CSS Color 4 takes over.
 */
class RefusalTest {
    private static final Palette PALETTE = palette();
    private static final Media FILES = new Media() {
        private final Map<String, MediaFacts> all = Map.of(
                "img/a/dusk.jpg",
                new MediaFacts(400, 300, 900_000, "jpg"),
                "img/pier.gif",
                new MediaFacts(800, 800, 90, "gif"),
                "img/tower.jpg",
                new MediaFacts(1600, 2400, 90_000, "jpg"),
                "img/broken.jpg",
                new MediaFacts(0, 0, 90, "jpg"));

        @Override
        public List<String> paths() {
            return List.copyOf(all.keySet());
        }

        @Override
        public Optional<MediaFacts> facts(String path) {
            return Optional.ofNullable(all.get(path));
        }
    };

    private static Palette palette() {
        List<Setting> all = List.of(
                setting("ground", "Page background", "color", Value.parts(), Value.of("#ffffff")),
                setting(
                        "ink",
                        "Letters",
                        "color",
                        Value.parts(
                                "opaque",
                                true,
                                "contrast",
                                many(Value.parts("with", "ground", "atLeast", Value.of(4.5)))),
                        Value.of("#202020")),
                setting(
                        "tone",
                        "Tone",
                        "color",
                        Value.parts(
                                "bounds",
                                Value.parts(
                                        "lightness", pair(30, 60), "chroma", pair(0.05, 0.15), "hue", pair(350, 60))),
                        Value.of("#8b3a3a")),
                setting(
                        "dye",
                        "Dye",
                        "color",
                        Value.parts("swatches", Value.of(List.of("#8b0000", "#00008b"))),
                        Value.of("#8b0000")),
                setting(
                        "side",
                        "Side",
                        "choice",
                        Value.parts(
                                "options",
                                many(
                                        Value.parts("key", "l", "label", "Left"),
                                        Value.parts("key", "r", "label", "Right"))),
                        Value.of("l")),
                setting(
                        "height",
                        "Height",
                        "length",
                        Value.parts("units", many(Value.parts("unit", "vh", "least", 20, "most", 80, "step", 10))),
                        length(40, "vh")),
                setting("name", "Name", "line", Value.parts("least", 3, "most", 8), Value.of("Ferry")),
                setting(
                        "photo",
                        "Photo",
                        "picture",
                        Value.parts(
                                "none",
                                true,
                                "formats",
                                Value.of(List.of("jpg")),
                                "leastWidth",
                                300,
                                "mostBytes",
                                400_000,
                                "shape",
                                Value.parts("from", 1)),
                        Value.of("")));
        return new Palette("Refusals", Bands.USUAL, List.of(new Place("p", "P")), all, List.of(), List.of());
    }

    private static Setting setting(String key, String label, String kind, Value.Parts allowed, Value value) {
        return Setting.of(key, label, "", "p", Kinds.read(kind, allowed), value);
    }

    private static Value many(Value... items) {
        return new Value.Many(List.of(items));
    }

    private static Value pair(double from, double to) {
        return many(Value.of(from), Value.of(to));
    }

    private static Value length(double n, String unit) {
        return Value.parts("value", Value.of(n), "unit", unit);
    }

    private static Refusal refused(String key, Value value) {
        List<LeftOut> left =
                Effective.of(PALETTE, Map.of(key, Chosen.of(value)), FILES).leftOut();
        assertThat(left).as("%s: %s", key, value).hasSize(1);
        return left.get(0).why();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "ink|#999999|low-contrast|Beside “ground”, which is #ffffff, its contrast is 2.84 to 1; 4.5 is needed."
                        + "|Beside “Page background”, which is #ffffff, it is hard to tell apart: contrast 2.84 to 1, and 4.5 is needed.",
                "ink|#00000080|translucent|Only an opaque colour may be chosen here.|It lets through what is behind it; only a solid colour may be chosen here.",
                "tone|#3d0f0f|color-beyond|Its lightness is 24.8%, allowed is 30 to 60%.|It is too dark here; take a lighter one.",
                "tone|#f0b8b8|color-beyond|Its lightness is 83.3%, allowed is 30 to 60%.|It is too light here; take a darker one.",
                "tone|#777777|color-beyond|Its chroma is 0, allowed is 0.05 to 0.15.|It is too grey here; take a stronger one.",
                "tone|#c00000|color-beyond|Its chroma is 0.208, allowed is 0.05 to 0.15.|It is too strong here; take a greyer one.",
                "tone|#3a6a8b|color-beyond|Its hue is 240°, allowed is 350 to 60°."
                        + "|It is too far from the colours that go here: its hue is 240°, and 350 to 60° may be chosen.",
                "dye|#ff0000|not-among|Only these colours may be chosen here: #8b0000, #00008b.|Only these colours may be chosen here: #8b0000, #00008b.",
                "side|top|not-among|“top” is not among what may be chosen: l, r.|One of these may be chosen here: Left, Right.",
                "name|Me|length|It has 2 characters; at least 3 are needed.|It has 2 characters; at least 3 are needed.",
                "name|Ferryboat⛴|length|It has 10 characters; at most 8 fit.|It has 10 characters; at most 8 fit.",
                "photo|img/pier.gif|format|img/pier.gif is a .gif file; allowed are jpg.|pier.gif is a .gif file; allowed are jpg.",
                "photo|img/gone.jpg|no-file|There is no file img/gone.jpg in the theme.|There is no file gone.jpg in the theme.",
                "photo|img/broken.jpg|no-size|The size of img/broken.jpg cannot be read.|The size of broken.jpg cannot be read.",
                "photo|img/tower.jpg|wrong-shape|img/tower.jpg is 1600 by 2400 px, too high for its width or height; the shape has to be at least 1 (width divided by height)."
                        + "|tower.jpg is 1600 by 2400 px, too high for its width; take a broader one.",
                "gone|x|no-setting|The theme has no setting with this key.|The theme does not ask for it any more.",
            })
    void oneRefusalReadsOneWayForMakersAndAnotherForOwners(
            String key, String value, String limit, String maker, String owner) {
        Refusal why = refused(key, Value.of(value));
        assertThat(why.limit()).isEqualTo(limit);
        assertThat(why.words()).isEqualTo(maker);
        assertThat(why.said(new OwnerWords(PALETTE))).isEqualTo(owner);
    }

    @Test
    void aRefusalHoldsWhichLimitAndWhichValue() {
        assertThat(refused("height", length(90, "vh"))).isInstanceOfSatisfying(Refusal.OutOfRange.class, r -> {
            assertThat(r.value()).isEqualByComparingTo("90");
            assertThat(r.range().most()).isEqualByComparingTo("80");
        });
        assertThat(refused("height", length(45, "vh")))
                .isInstanceOfSatisfying(
                        Refusal.OffStep.class, r -> assertThat(r.step()).isEqualByComparingTo("10"));
        assertThat(refused("height", length(40, "px"))).isInstanceOfSatisfying(Refusal.NotAmong.class, r -> {
            assertThat(r.what()).isEqualTo(Refusal.Listed.UNITS);
            assertThat(r.allowed()).containsExactly("vh");
        });
        assertThat(refused("photo", Value.of("img/a/dusk.jpg")))
                .isEqualTo(new Refusal.TooHeavy("img/a/dusk.jpg", 900_000, 400_000));
        assertThat(refused("ink", Value.of("#999999"))).isInstanceOfSatisfying(Refusal.LowContrast.class, r -> {
            assertThat(r.with()).isEqualTo("ground");
            assertThat(r.ratio()).as("WCAG 2.2: (1 + 0.05) / (0.3185 + 0.05)").isBetween(2.84, 2.86);
        });
    }

    @Test
    void bandsThatAThemeNoLongerHasAreRefused() {
        Effective values = Effective.of(
                PALETTE,
                Map.of("ink", new Chosen(null, Map.of("watch", Value.of("#000000"), "phone", Value.of("#111111")))),
                FILES);
        assertThat(values.leftOut())
                .extracting(LeftOut::why)
                .containsExactlyInAnyOrder(new Refusal.NoBand("watch"), new Refusal.NotByBand());
        assertThat(new Refusal.NoBand("watch").said(new OwnerWords(PALETTE))).doesNotContain("watch");
    }
}

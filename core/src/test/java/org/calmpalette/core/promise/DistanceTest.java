package org.calmpalette.core.promise;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.math.BigDecimal;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Random;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.Generated;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.color.ColorSpace;
import org.calmpalette.core.color.ColorVision;
import org.calmpalette.core.setting.Between;
import org.calmpalette.core.setting.Chosen;
import org.calmpalette.core.setting.ColorKey;
import org.calmpalette.core.setting.ColorKind;
import org.calmpalette.core.setting.Effective;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.Themes;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Two colours that everybody is to tell apart, against the distance by hand and against random choices. */
class DistanceTest {
    private static Theme theme(String on, String off, String distance) {
        return Themes.of(
                "index.html",
                "<!doctype html><html lang=en><title>T</title><link rel=stylesheet href=a.css><p>x",
                "a.css",
                "p { border-color: var(--on) var(--off) }",
                "palette.json",
                "{\"name\": \"T\", \"places\": [{\"key\": \"all\", \"label\": \"All\"}], \"settings\": [" + on + ","
                        + off + "], \"promises\": [{\"between\": [\"on\", \"off\"], \"distance\": " + distance + "}]}");
    }

    private static Answer answer(Theme theme) {
        return Apart.of(theme, Promise.DISTINCT).get(0);
    }

    private static String color(String key, String made, String allowed) {
        return ReadableTest.color(key, made, allowed);
    }

    /** OKLab of CSS's named colours by CSS Color 4's sample code: black and white are 1 apart, to everybody. */
    @Test
    void greysAreSeenAlikeByAllAndRedAndGreenAreNot() {
        Color green = Color.parse("#008000").orElseThrow();
        Color brown = Color.parse("#804000").orElseThrow();
        for (ColorVision v : ColorVision.values()) {
            assertThat(v.distance(Color.BLACK, Color.WHITE)).isCloseTo(1, within(1e-6));
            assertThat(v.seen(Color.rgb(0.5, 0.5, 0.5)).to(ColorSpace.SRGB).c1())
                    .isCloseTo(0.5, within(1e-6));
        }
        assertThat(ColorVision.USUAL.distance(green, brown)).isCloseTo(green.distance(brown), within(1e-9));
        // What makes them different is what people without red or green cones do not see.
        assertThat(ColorVision.USUAL.distance(green, brown))
                .isGreaterThan(2 * ColorVision.DEUTERANOPIA.distance(green, brown));
        assertThat(Distance.worst(green, brown)).isIn(ColorVision.PROTANOPIA, ColorVision.DEUTERANOPIA);
        Color grey = Color.rgb(0.6, 0.6, 0.6);
        assertThat(Distance.worst(Color.BLACK, grey)).isEqualTo(ColorVision.USUAL);
        assertThat(Distance.between(green, brown))
                .isEqualTo(Distance.worst(green, brown).distance(green, brown));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                // Far apart with usual vision, near without green cones.
                "\"swatches\": [\"#008000\", \"#0000ff\"] | #008000 | \"swatches\": [\"#804000\"] | #804000 | 0.15 | BROKEN",
                "\"swatches\": [\"#0000ff\"] | #0000ff | \"swatches\": [\"#ffff00\", \"#ffffff\"] | #ffff00 | 0.15 | KEPT",
                // Dark against light, between bounds: lightness alone keeps them apart.
                "\"opaque\": true, \"bounds\": {\"lightness\": [0, 40], \"chroma\": [0, 0.1]} | #102030 | \"opaque\": true, \"bounds\": {\"lightness\": [80, 100], \"chroma\": [0, 0.1]} | #f0f0f0 | 0.2 | KEPT",
                "\"opaque\": true, \"bounds\": {\"lightness\": [0, 60], \"chroma\": [0, 0.1]} | #102030 | \"opaque\": true, \"bounds\": {\"lightness\": [50, 100], \"chroma\": [0, 0.1]} | #f0f0f0 | 0.1 | BROKEN",
                // Without bounds anything may be chosen, the same too.
                " | #102030 | \"swatches\": [\"#3366cc\"] | #3366cc | 0.02 | BROKEN",
                // As made, nobody has to choose anything.
                "\"swatches\": [\"#008000\"] | #008000 | \"swatches\": [\"#008100\"] | #008100 | 0.02 | BROKEN"
            })
    void isDecidedForEveryChoice(
            String onAllowed, String onMade, String offAllowed, String offMade, String distance, Answer.State state) {
        Theme theme = theme(
                color("on", onMade, onAllowed == null ? "" : onAllowed), color("off", offMade, offAllowed), distance);
        Answer a = answer(theme);
        assertThat(a.state()).as(a.inWords()).isEqualTo(state);
        double needed = Double.parseDouble(distance);
        if (state == Answer.State.KEPT) {
            assertThat(a.worst()).isGreaterThanOrEqualTo(needed);
            assertThat(a.inWords()).startsWith("never nearer than 0.");
            return;
        }
        assertThat(a.worst()).isLessThan(needed);
        assertThat(a.inWords()).startsWith("0.").contains(" apart with " + a.why());
        // The case is as it says, and each mend keeps it and leaves a choice.
        assertThat(distance(theme, a.values())).isCloseTo(a.worst(), within(1e-9));
        for (Mend m : Mends.of(theme, a)) {
            Theme mended = m.change().applied(theme);
            assertThat(answer(mended).state()).as(m.words()).isEqualTo(Answer.State.KEPT);
        }
        boolean asMade = a.values().isEmpty();
        assertThat(Mends.of(theme, a).isEmpty()).isEqualTo(asMade);
    }

    private static double distance(Theme theme, Map<String, Value> values) {
        Map<String, Chosen> chosen = new LinkedHashMap<>();
        values.forEach((key, v) -> chosen.put(key, Chosen.of(v)));
        Effective e = Effective.of(theme.palette(), chosen, theme.media());
        assertThat(e.leftOut()).isEmpty();
        return Distance.between(value(theme, e, "on"), value(theme, e, "off"));
    }

    private static Color value(Theme theme, Effective e, String key) {
        Setting s = theme.palette().known(key);
        return ColorKind.parse(((Value.Text) e.value(s, theme.palette().bands().widest())).text());
    }

    @Test
    void aContrastAndADistanceOfTheSameTwoStandBesideEachOther() {
        Theme theme = theme(color("on", "#000000", ""), color("off", "#ffffff", ""), "0.1");
        Theme both = Promises.between(theme, new Between("off", "on", new BigDecimal("3"), null))
                .applied(theme);
        assertThat(both.palette().between())
                .containsExactly(new Between("on", "off", new BigDecimal("3"), new BigDecimal("0.1")));
        assertThat(Themes.text(both.files(), "palette.json"))
                .contains("\"contrast\": 3")
                .contains("\"distance\": 0.1");
        assertThat(Promises.of(both)).extracting(Answer::promise).contains(Promise.APART, Promise.DISTINCT);
        Theme contrast =
                Promises.notBetween(both, "on", "off", Promise.DISTINCT).applied(both);
        assertThat(Themes.text(contrast.files(), "palette.json")).doesNotContain("distance");
        assertThat(Promises.notBetween(contrast, "on", "off", Promise.APART)
                        .applied(contrast)
                        .palette()
                        .between())
                .isEmpty();
        assertThatThrownBy(() -> new Between("on", "off", null, new BigDecimal("1.5")))
                .isInstanceOf(BadInputException.class)
                .hasMessageContaining("up to 1");
        assertThatThrownBy(() -> new Between("on", "off", null, null)).hasMessageContaining("Neither");
        Theme wrong = theme(color("on", "#000000", ""), color("off", "#ffffff", ""), "7");
        assertThat(wrong.palette().faults()).singleElement().satisfies(f -> assertThat(f.toString())
                .contains("promises[0].distance")
                .contains("up to 1"));
    }

    private static double[] around(Random random, double at, double most) {
        return new double[] {Math.max(0, at - most * random.nextDouble()), at + most * random.nextDouble()};
    }

    /** A box of colours contains what every vision makes of a colour in it. */
    @Tag("generated")
    @Test
    void rangesContainEveryColour() {
        Random random = Generated.random(83);
        for (int n = 0; n < Generated.times(20_000); n++) {
            Color color = Color.rgb(random.nextDouble(), random.nextDouble(), random.nextDouble());
            Color at = color.to(ColorSpace.OKLCH);
            OklchBox box = new OklchBox(
                    around(random, at.c0(), 0.3), around(random, at.c1(), 0.1), around(random, at.c2(), 90));
            assertThat(box.isOutside()).isFalse();
            for (ColorVision v : ColorVision.values()) {
                double[] is = v.oklab(color);
                double[][] seen = v.oklab(box.lms());
                for (int i = 0; i < 3; i++) {
                    assertThat(is[i]).isBetween(seen[i][0] - 1e-9, seen[i][1] + 1e-9);
                }
            }
        }
    }

    /** No random choice contradicts what is said to be kept, and kept is said of some. */
    @Tag("generated")
    @Test
    void noChoiceContradictsWhatIsKept() {
        Random random = Generated.random(84);
        int kept = 0;
        int broken = 0;
        for (int n = 0; n < Generated.times(24); n++) {
            Theme theme = theme(
                    color("on", "#101010", bounds(random, 0, 55)),
                    color(
                            "off",
                            "#f4f4f4",
                            random.nextInt(3) == 0
                                    ? "\"swatches\": [\"#f4f4f4\", \"#e0c040\"]"
                                    : bounds(random, 45, 100)),
                    String.format(Locale.ROOT, "%.2f", 0.02 + random.nextDouble() * 0.6));
            if (!theme.palette().faults().isEmpty()) {
                continue;
            }
            Answer a = answer(theme);
            kept += a.state() == Answer.State.KEPT ? 1 : 0;
            broken += a.state() == Answer.State.BROKEN ? 1 : 0;
            for (int i = 0; a.state() == Answer.State.KEPT && i < 300; i++) {
                Map<String, Chosen> chosen = new LinkedHashMap<>();
                for (String key : List.of("on", "off")) {
                    Color c = Color.rgb(random.nextDouble(), random.nextDouble(), random.nextDouble());
                    chosen.put(key, Chosen.of(Value.of(ColorKey.of(c))));
                }
                Effective e = Effective.of(theme.palette(), chosen, theme.media());
                // What is not allowed is left out, and is as made.
                assertThat(Distance.between(value(theme, e, "on"), value(theme, e, "off")))
                        .isGreaterThanOrEqualTo(a.needed());
            }
        }
        assertThat(kept).isGreaterThan(4);
        assertThat(broken).isGreaterThan(3);
    }

    private static String bounds(Random random, int from, int to) {
        int middle = from + (to - from) * (3 + random.nextInt(5)) / 10;
        return String.format(
                Locale.ROOT,
                "\"opaque\": true, \"bounds\": {\"lightness\": [%d, %d], \"chroma\": [0, %.2f]}",
                from == 0 ? 0 : middle,
                from == 0 ? middle : 100,
                0.05 + random.nextDouble() * 0.1);
    }
}

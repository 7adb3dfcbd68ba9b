package org.calmpalette.core.setting;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.math.BigDecimal;
import java.util.Map;
import java.util.Set;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.theme.Themes;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class EffectiveTest {
    private static final Palette PALETTE = Specimens.palette();
    private static final Bands BANDS = PALETTE.bands();

    private static String value(Map<String, Chosen> choices, String key, String band) {
        return Effective.of(PALETTE, choices, Media.NONE)
                .words(PALETTE.known(key), BANDS.band(band).orElseThrow());
    }

    /** What is judged beside a choice that is left out itself is judged again beside what is made. */
    @Test
    void aChoiceIsJudgedBesideWhatIsLeft() {
        Palette palette = Themes.of(
                        "palette.json",
                        """
                        {"name": "T", "places": [{"key": "all", "label": "All"}], "settings": [
                          {"key": "ink", "label": "Ink", "place": "all", "kind": "color", "default": "#000000",
                           "allowed": {"contrast": [{"with": "paper", "atLeast": 4.5}]}},
                          {"key": "paper", "label": "Paper", "place": "all", "kind": "color", "default": "#ffffff",
                           "allowed": {"swatches": ["#ffffff", "#f4f4f4"]}}]}
                        """)
                .palette();
        Effective both =
                Effective.of(palette, Map.of("ink", Chosen.of("#ffffff"), "paper", Chosen.of("#000000")), Media.NONE);
        assertThat(both.leftOut()).extracting(LeftOut::key).containsExactly("ink", "paper");
        assertThat(both.value(palette.known("ink"), palette.bands().widest())).isEqualTo(Value.of("#000000"));
    }

    /** Half way from blue to green in OKLab lies outside of sRGB, at color(srgb -0.317 0.666 0.748): it is brought in before it is written. */
    @Test
    void aComputedShadeIsOneThatEveryScreenShows() {
        Given.How half = new Given.Mixed("#00ff00", new BigDecimal(50));
        Color shade =
                Color.parse(((Value.Text) half.of(Value.of("#0000ff"))).text()).orElseThrow();
        assertThat(shade.isInGamut()).isTrue();
        assertThat(half.of(Value.of("#0000ff")).toString()).doesNotContain("color(");
        // Of a colour that only wide screens show, the shade may be one as well.
        assertThat(((Value.Text) new Given.Translucent(new BigDecimal(50)).of(Value.of("color(display-p3 0 1 0)")))
                        .text())
                .startsWith("color(");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                // Formulas of Sass's color module, reckoned by hand from its documentation.
                "#336699 | 80% white | #d6e0eb",
                "#336699 | 50% black | #1a334d",
                "#336699 | lightness +20 | #6699cc",
                "#336699 | lightness -20 | #1a334d",
                "#336699 | lightness 60% towards white | #a3c2e0",
                "#336699 | lightness 50% towards black | #1a334d",
                "#336699 | lightness 92% | #e0ebf5",
                "#336699 | 50% white, 50% black | #4d5966",
                "#336699 | 50% white, opacity 25% | #99b3cc40",
                "#33669980 | opacity 50% | #33669940"
            })
    void coloursAreComputedStepByStep(String from, String steps, String to) {
        Given.How how = new Given.Computed(ColorStep.read(steps));
        assertThat(org.calmpalette.core.color.Color.parse(((Value.Text) how.of(Value.of(from))).text())
                        .orElseThrow()
                        .hex())
                .isEqualTo(to);
        assertThat(((Given.Computed) how).text()).isEqualTo(steps);
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "",
                "white",
                "120% white",
                "80% red",
                "lightness",
                "80% white 5% black",
                "1% white, 1% white, 1% white, 1% white, 1% white"
            })
    void stepsThatCannotBeReadAreNamed(String steps) {
        assertThatThrownBy(() -> ColorStep.read(steps))
                .isInstanceOf(org.calmpalette.core.BadInputException.class)
                .hasMessageMatching("(?s).*(no step|more than 4).*");
    }

    @Test
    void aBandBeatsEverywhereAndTheOwnerBeatsTheMaker() {
        assertThat(value(Map.of(), "ink", "desktop")).isEqualTo("#202020");
        assertThat(value(Map.of(), "ink", "phone")).isEqualTo("#303030");
        Map<String, Chosen> everywhere = Map.of("ink", Chosen.of("#000080"));
        assertThat(value(everywhere, "ink", "tablet")).isEqualTo("#000080");
        assertThat(value(everywhere, "ink", "phone"))
                .as("the maker's band value stays")
                .isEqualTo("#303030");
        Map<String, Chosen> both = Map.of("ink", new Chosen(Value.of("#000080"), Map.of("phone", Value.of("#800000"))));
        assertThat(value(both, "ink", "phone")).isEqualTo("#800000");
    }

    @ParameterizedTest
    @CsvSource({"390,phone", "767,phone", "767.98,phone", "768,tablet", "1199.5,tablet", "1200,desktop", "4000,desktop"
    })
    void everyWidthBelongsToOneBand(double width, String band) {
        assertThat(BANDS.at(width).key()).isEqualTo(band);
    }

    @Test
    void queriesJoinNeighboursAndLeaveNoWidthOut() {
        assertThat(BANDS.media(Set.of("phone"))).isEqualTo("(width < 768px)");
        assertThat(BANDS.media(Set.of("phone", "tablet"))).isEqualTo("(width < 1200px)");
        assertThat(BANDS.media(Set.of("phone", "desktop"))).isEqualTo("(width < 768px), (width >= 1200px)");
        assertThat(BANDS.media(Set.of("tablet"))).isEqualTo("(768px <= width < 1200px)");
        assertThat(BANDS.media(Set.of("phone", "tablet", "desktop"))).isEmpty();
    }

    /** Mixtures and lighter colours: values of culori 4.0.2, as named at each. */
    @Test
    void whatFollowsGoesAlong() {
        Map<String, Chosen> choices = Map.of("ink", Chosen.of("#3366cc"));
        assertThat(value(choices, "ink-copy", "desktop")).isEqualTo("#3366cc");
        assertThat(value(choices, "ink-copy", "phone"))
                .as("in each band what the other has there")
                .isEqualTo("#303030");
        assertThat(value(choices, "ink-mixed", "desktop"))
                .as("interpolate(['#3366cc', '#ff0000'], 'oklab')(0.5)")
                .isEqualTo("#a76084");
        assertThat(value(choices, "ink-lighter", "desktop"))
                .as("oklch, l + 0.2, clipped")
                .isEqualTo("#6da5ff");
        assertThat(value(choices, "ink-glass", "desktop")).isEqualTo("#3366cc66");
        assertThat(value(choices, "ink-readable", "desktop")).isEqualTo("#ffffff");
        assertThat(value(Map.of("ink", Chosen.of("#ffcc00")), "ink-readable", "desktop"))
                .isEqualTo("#111111");
    }

    @Test
    void choicesThatAreNotAllowedAreLeftOutAndToldTheOthersHold() {
        Effective values = Effective.of(
                PALETTE,
                Map.of(
                        "height",
                        Chosen.of(Specimens.px(20)),
                        "weight",
                        Chosen.of(Value.of(450)),
                        "gone",
                        Chosen.of("x"),
                        "align",
                        new Chosen(null, Map.of("watch", Value.of("left"))),
                        "ink",
                        Chosen.of("#101010"),
                        "ground",
                        Chosen.of("#222222")),
                Media.NONE);
        assertThat(values.leftOut())
                .extracting(LeftOut::key)
                .containsExactly("align", "gone", "ground", "height", "weight");
        assertThat(values.leftOut())
                .extracting(l -> l.why().words())
                .anyMatch(w -> w.contains("no band “watch”"))
                .anyMatch(w -> w.contains("from 200 px"))
                .anyMatch(w -> w.contains("not on a step of 100"))
                .anyMatch(w -> w.contains("Beside “ink”, which is #303030"));
        assertThat(values.words(PALETTE.known("ground"), BANDS.widest())).isEqualTo("#ffffff");
        assertThat(values.words(PALETTE.known("ink"), BANDS.widest())).isEqualTo("#101010");
    }

    @Test
    void aQuestionIsAskedOnlyWhileTheOtherSettingSaysSo() {
        assertThat(Effective.of(PALETTE, Map.of(), Media.NONE).isAsked(PALETTE.known("intro")))
                .isTrue();
        assertThat(Effective.of(PALETTE, Map.of("banner", Chosen.of(Value.of(false))), Media.NONE)
                        .isAsked(PALETTE.known("intro")))
                .isFalse();
        assertThat(Effective.of(
                                PALETTE,
                                Map.of("banner", new Chosen(Value.of(false), Map.of("phone", Value.of(true)))),
                                Media.NONE)
                        .isAsked(PALETTE.known("intro")))
                .as("it shows on phones")
                .isTrue();
    }

    @Test
    void choicesAreKeptAsTheyWereMade() {
        Map<String, Chosen> choices = Map.of(
                "a", new Chosen(Value.of("x"), Map.of("phone", Specimens.px(3))), "b", Chosen.of(Value.of(true)));
        assertThat(Chosen.readAll(Chosen.writeAll(choices).getBytes(), "f")).isEqualTo(choices);
    }
}

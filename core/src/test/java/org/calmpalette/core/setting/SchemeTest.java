package org.calmpalette.core.setting;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;

/** A scheme is a whole. */
class SchemeTest {
    private static final Scheme DUSK = new Scheme(
            "dusk",
            "Dusk",
            Map.of("ink", Chosen.of("#eeeeee"), "ground", Chosen.of("#102030"), "edge", Chosen.of("#445566")));
    private static final Scheme DAWN =
            new Scheme("dawn", "Dawn", Map.of("ink", Chosen.of("#202020"), "ground", Chosen.of("#FFF8F0")));

    private static Palette palette() {
        List<Setting> all = List.of("ink", "ground", "edge", "link").stream()
                .map(k -> Setting.of(k, k, "", "p", Kinds.plain("color"), Value.of("#808080")))
                .toList();
        return new Palette("T", Bands.USUAL, List.of(new Place("p", "P")), all, List.of(DUSK, DAWN), List.of());
    }

    @Test
    void aSecondSchemeLeavesNothingOfTheFirst() {
        Map<String, Chosen> dusk = DUSK.over(palette(), Map.of());
        assertThat(Scheme.on(palette(), dusk)).contains(DUSK);
        Map<String, Chosen> dawn = DAWN.over(palette(), dusk);
        assertThat(dawn).containsOnlyKeys("ink", "ground");
        assertThat(Scheme.on(palette(), dawn)).contains(DAWN);
    }

    @Test
    void whatAnOwnerChoseStaysOnTop() {
        Map<String, Chosen> mixed = new java.util.TreeMap<>(DUSK.over(palette(), Map.of()));
        mixed.put("link", Chosen.of("#ff0000"));
        mixed.put("ink", Chosen.of("#fafafa"));
        assertThat(Scheme.on(palette(), mixed)).as("with changes on top").contains(DUSK);
        assertThat(Scheme.own(palette(), mixed)).containsOnlyKeys("ink", "link");
        assertThat(DAWN.over(palette(), mixed))
                .containsOnly(
                        Map.entry("ink", Chosen.of("#fafafa")),
                        Map.entry("link", Chosen.of("#ff0000")),
                        Map.entry("ground", Chosen.of("#FFF8F0")));
    }

    @Test
    void whatDiffersFromASchemeIsToldOnceAndNotWhatFollowsIt() {
        Given follows = new Given.Follows("link", new Given.Same());
        Setting near = new Setting(
                "near",
                "near",
                "",
                "p",
                Kinds.plain("color"),
                follows,
                Map.of(),
                false,
                null,
                false,
                List.of(),
                List.of());
        Palette palette = palette().with(near, new Place("p", "P"));
        Map<String, Chosen> chosen = new java.util.TreeMap<>(DUSK.over(palette, Map.of()));
        assertThat(differs(palette, chosen)).isEmpty();
        chosen.put("link", Chosen.of("#ff0000"));
        chosen.put("ink", Chosen.of("#fafafa"));
        assertThat(differs(palette, chosen)).containsExactly("ink", "link");
        // As made, chosen once more by hand, is no difference.
        chosen.put("link", Chosen.of("#808080"));
        assertThat(differs(palette, chosen)).containsExactly("ink");
    }

    private static List<String> differs(Palette palette, Map<String, Chosen> chosen) {
        return DUSK.departures(Effective.of(palette, chosen, Media.NONE)).stream()
                .map(Setting::key)
                .toList();
    }

    @Test
    void theSameColourInAnotherSpellingIsTheSame() {
        assertThat(Scheme.own(palette(), Map.of("ground", Chosen.of("#fff8f0"))))
                .isEmpty();
    }

    @Test
    void noneIsOnWherePartsOfTwoAre() {
        assertThat(Scheme.on(palette(), Map.of())).isEmpty();
        assertThat(Scheme.on(palette(), Map.of("link", Chosen.of("#ff0000")))).isEmpty();
        assertThat(Scheme.on(palette(), Map.of("ink", Chosen.of("#eeeeee"), "ground", Chosen.of("#fff8f0"))))
                .isEmpty();
    }
}

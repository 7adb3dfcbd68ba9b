package org.calmpalette.core.language;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.math.BigDecimal;
import java.util.Map;
import java.util.TreeMap;
import java.util.TreeSet;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.color.ColorName;
import org.calmpalette.core.setting.Kinds;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

class LanguageTest {
    private static final Language GERMAN = Language.of("de", Language.packed("de"));

    @Test
    void aLanguageThatShipsSaysAllThatEnglishSays() {
        assertThat(new TreeSet<>(GERMAN.keys()))
                .isEqualTo(new TreeSet<>(Language.english().keys()));
        assertThat(GERMAN.faults()).isEmpty();
    }

    /** The same cases hold the scripts, which have no ICU; see {@code say.test.js}. */
    @Test
    void patternsAreSaidAsTheCasesSay() throws Exception {
        JsonNode cases;
        try (var in = LanguageTest.class.getResourceAsStream("cases.json")) {
            cases = JsonMapper.shared().readTree(in);
        }
        assertThat(cases.size()).isGreaterThan(20);
        for (JsonNode c : cases) {
            Map<String, String> one = Map.of("none", c.path("pattern").asString());
            Object[] about = c.path("about")
                    .valueStream()
                    .map(n -> n.isNumber() ? (Object) n.decimalValue() : n.asString())
                    .toArray();
            String tag = c.path("tag").asString();
            assertThat(Language.of(tag, one, false).sentence("none", about))
                    .as("%s", c)
                    .isEqualTo(c.path("said").asString());
        }
    }

    /** Plural rules of CLDR for Polish: 1, 2 to 4 but not 12 to 14, and all others. */
    @Test
    void aThirdLanguageHasThePluralsThatItHas() {
        Language polish = Language.of(
                "pl",
                Map.of(
                        "items.count",
                        "{0, plural, one {# pozycja} few {# pozycje} many {# pozycji} other {# pozycji}}"));
        assertThat(polish.sentence("items.count", 1)).isEqualTo("1 pozycja");
        assertThat(polish.sentence("items.count", 22)).isEqualTo("22 pozycje");
        assertThat(polish.sentence("items.count", 12)).isEqualTo("12 pozycji");
        assertThat(polish.name()).isEqualTo("Polski");
    }

    @Test
    void whatALanguageLacksOrSpoilsIsSaidInEnglishAndTold() {
        Map<String, String> spoilt = new TreeMap<>();
        spoilt.put("yes", "oui");
        spoilt.put("level.one", "niveau {1}");
        spoilt.put("items.count", "{0, plural, one {#}");
        spoilt.put("nothing.of.ours", "rien");
        Language french = Language.of("fr", spoilt);
        assertThat(french.sentence("yes")).isEqualTo("oui");
        assertThat(french.sentence("no")).isEqualTo("no");
        assertThat(french.sentence("level.one", 2)).isEqualTo("level 2");
        assertThat(french.sentence("items.count", 2)).isEqualTo("2 items");
        assertThat(french.faults())
                .hasSize(3)
                .anySatisfy(f -> assertThat(f).startsWith("items.count: it cannot be read"))
                .anySatisfy(f -> assertThat(f).isEqualTo("level.one: it asks for [1], and what is given is [0]"))
                .anySatisfy(f -> assertThat(f).isEqualTo("nothing.of.ours: no sentence has this key"));
    }

    @Test
    void whatIsKeptIsToldInTheLanguageOfWhoReadsIt() {
        String kept = Language.in(GERMAN, () -> Language.kept("choice.options", 1200));
        assertThat(Language.told(kept)).isEqualTo("1,200 options");
        assertThat(Language.in(GERMAN, () -> Language.told(kept))).isEqualTo("1.200 Möglichkeiten");
        // Words stay what they are, and so does what was kept before sentences were.
        assertThat(Language.told(Language.kept("level.one", "#2=x"))).isEqualTo("level #2=x");
        assertThat(Language.told("Took over “Reed”")).isEqualTo("Took over “Reed”");
        assertThat(Language.told("")).isEmpty();
        assertThat(Language.told(Language.kept("gone.since", "Reed", 3))).isEqualTo("Reed, 3");
    }

    @Test
    void aThreadSpeaksALanguageForAsLongAsItsWorkTakes() {
        assertThat(Language.say("yes")).isEqualTo("yes");
        assertThat(Language.in(
                        GERMAN, () -> Language.say("yes") + Language.in(Language.english(), () -> Language.say("yes"))))
                .isEqualTo("jayes");
        assertThatThrownBy(() -> Language.in(GERMAN, () -> {
                    throw new IllegalStateException("in the middle");
                }))
                .isInstanceOf(IllegalStateException.class);
        assertThat(Language.say("yes")).isEqualTo("yes");
    }

    @Test
    void numbersAreWrittenAsTheLanguageWritesThem() {
        assertThat(GERMAN.sentence("size.mb", new BigDecimal("1.5"))).isEqualTo("1,5 MB");
        assertThat(GERMAN.sentence("widths.from", 1200)).isEqualTo("ab 1200 px");
        assertThat(GERMAN.sentence("choice.options", 1200)).isEqualTo("1.200 Möglichkeiten");
    }

    @Test
    void colorsAreCalledByTheirNames() {
        Map<String, String> german = Map.of(
                "#24463a", "dunkles Grün",
                "#ffffff", "Weiß",
                "#8b5a2b", "Braun",
                "#0000ff80", "Blau, durchscheinend",
                "#5a6570", "gräuliches Blau");
        german.forEach((css, name) -> assertThat(
                        Language.in(GERMAN, () -> ColorName.of(Color.parse(css).orElseThrow())))
                .as(css)
                .isEqualTo(name));
    }

    /** What may be chosen, said by every kind. */
    @Test
    void everyKindIsSaidInTheLanguage() {
        for (String name : Kinds.names()) {
            String english = Kinds.plain(name).inWords();
            String german = Language.in(GERMAN, () -> Kinds.plain(name).inWords());
            // Options are called as the maker calls them.
            assertThat(german.equals(english)).as(name + ": " + german).isEqualTo(name.equals("choice"));
        }
    }

    @Test
    void labelsThatComeFromUsAreKnown() {
        assertThat(GERMAN.label("Heading")).isEqualTo("Überschrift");
        assertThat(GERMAN.label("Visitors who ask their device for less movement see it at once."))
                .startsWith("Wer auf dem Gerät")
                .endsWith("sofort.");
        assertThat(GERMAN.label("heading")).isEqualTo("heading");
        assertThat(GERMAN.label("Of the maker")).isEqualTo("Of the maker");
    }
}

package org.calmpalette.core.setting;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.charset.StandardCharsets;
import java.util.Map;
import java.util.TreeMap;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.change.PaletteChange;
import org.calmpalette.core.language.Language;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.ThemeFiles;
import org.junit.jupiter.api.Test;

class TranslationsTest {
    private static final Language GERMAN = Language.of("de", Language.packed("de"));

    private static final String SETTINGS =
            """
            "name": "T",
             "places": [{"key": "head", "label": "Head"}],
             "schemes": [{"key": "reed", "label": "Reed", "values": {}}],
             "settings": [
               {"key": "ink", "label": "Ink", "help": "Of all words.", "kind": "color", "place": "head", "default": "#123456"},
               {"key": "side", "label": "Side", "kind": "choice", "place": "head", "default": "a",
                "allowed": {"options": [{"key": "a", "label": "at the left", "css": "left"}, {"key": "right"}]}},
               {"key": "room", "label": "Heading", "kind": "spacing", "place": "head",
                "default": {"top": {"value": 1, "unit": "px"}, "right": {"value": 1, "unit": "px"}, "bottom": {"value": 1, "unit": "px"}, "left": {"value": 1, "unit": "px"}},
                "allowed": {"steps": [{"label": "Tight", "value": 1, "unit": "px"}]}},
               {"key": "list", "label": "Cards of ours", "kind": "items", "place": "head", "default": [{"name": "x"}],
                "allowed": {"least": 1, "most": 3, "parts": [{"key": "name", "label": "Name", "kind": "line", "default": ""}]}}]""";

    private static Palette read(String more) {
        return PaletteJson.read(("{" + SETTINGS + more + "}").getBytes(StandardCharsets.UTF_8), "T");
    }

    private static Palette german(Palette palette) {
        return Language.in(GERMAN, palette::spoken);
    }

    @Test
    void everyTextThatOwnersReadIsTranslatedWhereverItStands() {
        Palette own = read(
                """
                , "translations": {"de": {"Head": "Kopf", "Reed": "Schilf", "Ink": "Tinte", "Of all words.": "Aller Worte.",
                  "at the left": "linksherum", "Tight": "Eng", "Name": "Nenner", "Cards of ours": "Unsere Karten"}}""");
        assertThat(own.faults()).isEmpty();
        assertThat(own.texts())
                .contains("Head", "Ink", "Of all words.", "at the left", "Tight", "Name", "Reed", "phone")
                .doesNotContain("right", "")
                .doesNotHaveDuplicates();
        Palette german = german(own);
        assertThat(german.placeLabel("head")).isEqualTo("Kopf");
        assertThat(german.schemes().get(0).label()).isEqualTo("Schilf");
        Setting ink = german.setting("ink").orElseThrow();
        assertThat(ink.label() + " " + ink.help()).isEqualTo("Tinte Aller Worte.");
        Setting side = german.setting("side").orElseThrow();
        assertThat(side.kind().words(Value.of("a"))).isEqualTo("linksherum");
        assertThat(side.kind().words(Value.of("right"))).isEqualTo("right");
        Setting room = german.setting("room").orElseThrow();
        // One of ours, and no word of the maker's for it.
        assertThat(room.label()).isEqualTo("Überschrift");
        assertThat(room.kind().words(room.given().value())).isEqualTo("Eng");
        assertThat(german.setting("list").orElseThrow().kind().allowed().json().toString())
                .contains("Nenner");
        assertThat(german.bands().list().get(0).label()).isEqualTo("Telefon");
        // Nothing but words is another one, and in English all is as it was written.
        assertThat(german.setting("ink").orElseThrow().given())
                .isEqualTo(own.setting("ink").orElseThrow().given());
        assertThat(own.spoken()).isSameAs(own);
    }

    @Test
    void aRegionHasItsLanguageBehindIt() {
        Palette own = read(
                ", \"translations\": {\"de\": {\"Ink\": \"Tinte\", \"Side\": \"Seite\"}, \"de-AT\": {\"Ink\": \"Tinten\"}}");
        Palette austrian = Language.in(Language.of("de-AT", Map.of()), own::spoken);
        assertThat(austrian.setting("ink").orElseThrow().label()).isEqualTo("Tinten");
        assertThat(austrian.setting("side").orElseThrow().label()).isEqualTo("Seite");
        // A theme whose own language is not English has an English one as well.
        assertThat(read(", \"translations\": {\"en\": {\"Ink\": \"Words\"}}")
                        .spoken()
                        .setting("ink")
                        .orElseThrow()
                        .label())
                .isEqualTo("Words");
    }

    @Test
    void whatCannotBeReadIsToldWithItsLineAndStaysInTheFile() {
        String file =
                """
                {"name": "T",
                 "translations": {
                   "de": {"Ink": "Tinte",
                     "Side": 4,
                     "Head": ""},
                   "no such": {"Ink": "x"},
                   "fr": []
                 }}""";
        Palette own = PaletteJson.read(file.getBytes(StandardCharsets.UTF_8), "T");
        assertThat(own.translations().texts()).isEqualTo(Map.of("de", Map.of("Ink", "Tinte")));
        assertThat(own.faults().stream().map(f -> f.line() + " " + f.at()))
                .containsExactlyInAnyOrder(
                        "4 translations.de.Side",
                        "5 translations.de.Head",
                        "6 translations.no such",
                        "7 translations.fr");
        String written = new String(
                PaletteJson.write(
                        own.withTranslations(own.translations().with("de", Map.of("Ink", "Farbe"))),
                        file.getBytes(StandardCharsets.UTF_8)),
                StandardCharsets.UTF_8);
        assertThat(written)
                .contains("\"Ink\": \"Farbe\"", "\"Side\": 4", "\"no such\"", "\"fr\": [")
                .doesNotContain("Tinte");
        assertThat(new String(
                        PaletteJson.write(
                                own.withTranslations(Translations.NONE), file.getBytes(StandardCharsets.UTF_8)),
                        StandardCharsets.UTF_8))
                .contains("\"Side\": 4")
                .doesNotContain("Tinte");
    }

    @Test
    void translationsAreWrittenAndTakenOutAgainAndNothingElse() {
        byte[] file = ("{" + SETTINGS + "}").getBytes(StandardCharsets.UTF_8);
        Theme theme = Theme.read(ThemeFiles.of(new TreeMap<>(Map.of("palette.json", file))), "T");
        Theme german = PaletteChange.translated(theme, "de", Map.of("Ink", " Tinte ", "Side", ""))
                .applied(theme);
        assertThat(german.palette().translations().texts()).isEqualTo(Map.of("de", Map.of("Ink", "Tinte")));
        Theme none = PaletteChange.translated(german, "de", Map.of("Ink", "")).applied(german);
        assertThat(none.files().read("palette.json")).isEqualTo(PaletteJson.write(theme.palette(), file));
        assertThatThrownBy(() -> PaletteChange.translated(german, "de", Map.of("Ink", "Tinte")))
                .isInstanceOf(BadInputException.class)
                .hasMessage("Nothing was changed.");
        assertThatThrownBy(() -> PaletteChange.translated(german, "x y", Map.of("Ink", "Tinte")))
                .hasMessageContaining("no tag of a language");
        assertThatThrownBy(() -> PaletteChange.translated(german, "de", Map.of("Ink", "x".repeat(81))))
                .hasMessageContaining("more than 80 characters");
        assertThat(PaletteChange.translated(german, "de", Map.of("Of all words.", "x".repeat(81)))
                        .note())
                .isEqualTo("Texts in German: 2");
    }

    /** Two people translate at once: text by text nothing is lost. */
    @Test
    void twoThatTranslateAtOnceAreBothKept() {
        byte[] base = bytes("{\"translations\": {\"de\": {\"Ink\": \"Tinte\"}}}");
        byte[] ours = bytes(
                "{\"translations\": {\"de\": {\"Ink\": \"Tinte\", \"Head\": \"Kopf\"}, \"fr\": {\"Ink\": \"Encre\"}}}");
        byte[] theirs = bytes("{\"translations\": {\"de\": {\"Ink\": \"Farbe\"}}}");
        PaletteMerge.Merged both = PaletteMerge.of(base, ours, theirs);
        assertThat(both.clashes()).isEmpty();
        assertThat(PaletteJson.read(both.bytes(), "T").translations().texts())
                .isEqualTo(Map.of("de", Map.of("Ink", "Farbe", "Head", "Kopf"), "fr", Map.of("Ink", "Encre")));
        PaletteMerge.Merged odd =
                PaletteMerge.of(base, bytes("{\"translations\": {\"de\": {\"Ink\": \"Wort\"}}}"), theirs);
        assertThat(odd.clashes()).singleElement().satisfies(c -> assertThat(c.at())
                .isEqualTo("translations, de, Ink"));
    }

    private static byte[] bytes(String text) {
        return text.getBytes(StandardCharsets.UTF_8);
    }
}

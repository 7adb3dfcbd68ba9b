package org.calmpalette.core.change;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.math.BigDecimal;
import java.util.List;
import java.util.Map;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.setting.BackgroundKind;
import org.calmpalette.core.setting.Band;
import org.calmpalette.core.setting.Bands;
import org.calmpalette.core.setting.Chosen;
import org.calmpalette.core.setting.Given;
import org.calmpalette.core.setting.GradientKind;
import org.calmpalette.core.setting.Kinds;
import org.calmpalette.core.setting.Place;
import org.calmpalette.core.setting.Scheme;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.Themes;
import org.junit.jupiter.api.Test;

/** Changes of the settings themselves: told in the note, checked as a whole, and nothing that reads them breaks. */
class PaletteChangeTest {
    private static final Place PAGE = new Place("page", "Page");
    private static final String CSS =
            """
      .a { color: var(--ink, #112233); background: var(--wash, #ddeeff) }
      .b { width: calc(var(--gap, 4px) * 2); --own: var(--ink, red) }
      """;

    private static Setting color(String key, String value) {
        return Setting.of(
                key,
                key.toUpperCase(java.util.Locale.ROOT),
                "",
                "page",
                Kinds.read("color", Value.parts()),
                Value.of(value));
    }

    private static Theme theme() {
        Theme theme = Themes.of(
                "a.css",
                CSS,
                "index.html",
                "<!doctype html><link rel=stylesheet href=a.css><p class=a style='border-color: var(--ink)'>x");
        theme = PaletteChange.create(theme, color("ink", "#112233"), PAGE).applied(theme);
        theme = PaletteChange.create(theme, color("wash", "#ddeeff"), PAGE).applied(theme);
        Setting gap = Setting.of(
                "gap", "Gap", "", "page", Kinds.read("length", Value.parts()), Value.parts("value", 4, "unit", "px"));
        return PaletteChange.create(theme, gap, PAGE).applied(theme);
    }

    private static Setting known(Theme theme, String key) {
        return theme.palette().known(key);
    }

    /** Of a value with parts those that changed are told, not the picture twice. */
    @Test
    void theNoteTellsWhichPartsChanged() {
        Setting back = Setting.of("back", "Back", "", "page", BackgroundKind.ANY, BackgroundKind.ANY.initial());
        Theme theme = PaletteChange.create(theme(), back, PAGE).applied(theme());
        Value.Parts now = (Value.Parts) back.given().value();
        Value.Parts other = now.with("position", Value.of("right top")).with("strength", Value.of(20));
        assertThat(PaletteChange.edit(theme, back.withGiven(new Given.Fixed(other)), PAGE)
                        .note())
                .isEqualTo("“Back”: default position center center to right top, strength 0 to 20");
        Setting sky = Setting.of("sky", "Sky", "", "page", GradientKind.ANY, GradientKind.ANY.initial());
        Theme more = PaletteChange.create(theme(), sky, PAGE).applied(theme());
        Value.Parts turned = ((Value.Parts) sky.given().value()).with("angle", Value.of(12));
        assertThat(PaletteChange.edit(
                                more,
                                sky.withGiven(new Given.Fixed(GradientKind.ANY.recolored(turned, c -> "#123456"))),
                                PAGE)
                        .note())
                .matches("“Sky”: default angle \\d+ to 12, stops");
    }

    @Test
    void theNoteTellsWhatChanged() {
        Theme theme = theme();
        Setting ink = known(theme, "ink");
        assertThat(PaletteChange.edit(theme, ink.withGiven(new Given.Fixed(Value.of("#445566"))), PAGE)
                        .note())
                .isEqualTo("“INK”: default #112233 to #445566");
        assertThat(PaletteChange.edit(
                                theme,
                                ink.withBands(Map.of("phone", new Given.Fixed(Value.of("#000000"))))
                                        .withPerBand(true),
                                PAGE)
                        .note())
                .contains("phone #112233 to #000000")
                .contains("may differ from band to band");
        assertThat(PaletteChange.edit(theme, ink.withGiven(new Given.Follows("wash", new Given.Same())), PAGE)
                        .note())
                .contains("#112233 to #ddeeff");
        assertThat(PaletteChange.edit(
                                theme,
                                new Setting(
                                        "ink",
                                        "Ink",
                                        "Dark.",
                                        "head",
                                        ink.kind(),
                                        ink.given(),
                                        Map.of(),
                                        false,
                                        null,
                                        false,
                                        List.of(),
                                        List.of()),
                                new Place("head", "Head"))
                        .note())
                .contains("label, was “INK”")
                .contains("help")
                .contains("place");
        assertThat(PaletteChange.edit(
                                theme,
                                ink.withShown(new Setting.Shown("gap", List.of(Value.parts("value", 4, "unit", "px")))),
                                PAGE)
                        .note())
                .contains("asked for depending on gap");
        assertThatThrownBy(() -> PaletteChange.edit(theme, ink, PAGE))
                .isInstanceOf(BadInputException.class)
                .hasMessageContaining("Nothing was changed");
    }

    @Test
    void aDefaultThatIsNotAllowedIsRefusedWhateverTheChange() {
        Theme theme = theme();
        Setting strict = known(theme, "ink")
                .withKind(Kinds.read(
                        "color",
                        Value.parts("contrast", new Value.Many(List.of(Value.parts("with", "wash", "atLeast", 7))))));
        Theme kept = PaletteChange.edit(theme, strict, PAGE).applied(theme);
        assertThatThrownBy(() -> PaletteChange.edit(
                        kept, known(kept, "ink").withGiven(new Given.Fixed(Value.of("#8899aa"))), PAGE))
                .hasMessageContaining("INK")
                .hasMessageContaining("not among what an owner may choose");
        assertThatThrownBy(() -> PaletteChange.edit(
                        kept, known(kept, "wash").withGiven(new Given.Fixed(Value.of("#223344"))), PAGE))
                .as("another setting's limits count too")
                .hasMessageContaining("INK");
        Theme schemed = PaletteChange.schemes(
                        kept,
                        List.of(new Scheme("dusk", "Dusk", Map.of("ink", Chosen.of("#000000")))),
                        "New scheme “Dusk”")
                .applied(kept);
        assertThat(schemed.palette().schemes()).hasSize(1);
        assertThatThrownBy(() -> PaletteChange.schemes(
                        kept, List.of(new Scheme("pale", "Pale", Map.of("ink", Chosen.of("#ccddee")))), "x"))
                .hasMessageContaining("The scheme “Pale” sets ink");
        // What was wrong before does not stand in the way of other changes.
        assertThat(PaletteChange.edit(
                                schemed,
                                known(schemed, "gap").withGiven(new Given.Fixed(Value.parts("value", 6, "unit", "px"))),
                                PAGE)
                        .note())
                .contains("4px to 6px");
    }

    @Test
    void aCopyStandsBesideItsOriginalUnderAFreeKey() {
        Theme theme = theme();
        Theme twice = PaletteChange.duplicate(theme, "ink").applied(theme);
        assertThat(twice.palette().settings()).extracting(Setting::key).containsExactly("ink", "ink-2", "wash", "gap");
        Theme thrice = PaletteChange.duplicate(twice, "ink").applied(twice);
        assertThat(thrice.palette().setting("ink-3")).isPresent();
    }

    @Test
    void removingWritesTheDefaultsIntoTheStylesheets() {
        Theme theme = theme();
        Theme red = PaletteChange.edit(theme, known(theme, "ink").withGiven(new Given.Fixed(Value.of("#ff0000"))), PAGE)
                .applied(theme);
        Theme without = PaletteChange.remove(red, List.of("ink", "gap")).applied(red);
        assertThat(Themes.text(without.files(), "a.css"))
                .isEqualTo(CSS.replace("var(--ink, #112233)", "#ff0000")
                        .replace("var(--gap, 4px)", "4px")
                        .replace("var(--ink, red)", "red"));
        Theme following = PaletteChange.edit(
                        theme,
                        known(theme, "wash").withGiven(new Given.Follows("ink", new Given.Lighter(BigDecimal.TEN))),
                        PAGE)
                .applied(theme);
        assertThat(PaletteChange.remove(following, List.of("ink", "wash"))
                        .applied(following)
                        .palette()
                        .settings())
                .extracting(Setting::key)
                .containsExactly("gap");
        assertThatThrownBy(() -> PaletteChange.remove(following, List.of("ink")))
                .isInstanceOf(BadInputException.class);
        Theme banded = PaletteChange.edit(
                        theme,
                        known(theme, "ink")
                                .withBands(Map.of("phone", new Given.Fixed(Value.of("#000000"))))
                                .withPerBand(true),
                        PAGE)
                .applied(theme);
        assertThatThrownBy(() -> PaletteChange.remove(banded, List.of("ink")))
                .hasMessageContaining("another default for phone");
    }

    @Test
    void aNewKeyReachesStylesheetsAndStyleAttributes() {
        Theme theme = theme();
        Theme renamed = PaletteChange.rename(theme, "ink", "text").applied(theme);
        assertThat(Themes.text(renamed.files(), "a.css")).isEqualTo(CSS.replace("--ink", "--text"));
        assertThat(Themes.text(renamed.files(), "index.html")).contains("border-color: var(--text)");
        assertThatThrownBy(() -> PaletteChange.rename(theme, "ink", "ink")).hasMessageContaining("the key it has");
        assertThatThrownBy(() -> PaletteChange.rename(theme, "ink", "wash")).isInstanceOf(BadInputException.class);
        assertThatThrownBy(() -> PaletteChange.rename(theme, "ink", "own")).hasMessageContaining("a.css, line 2");
    }

    @Test
    void orderBandsAndManyAtOnce() {
        Theme theme = theme();
        assertThat(PaletteChange.move(theme, "gap", "ink")
                        .applied(theme)
                        .palette()
                        .settings())
                .extracting(Setting::key)
                .containsExactly("gap", "ink", "wash");
        assertThat(PaletteChange.move(theme, "ink", "").note()).isEqualTo("Moved “INK” to the end");
        assertThatThrownBy(() -> PaletteChange.move(theme, "ink", "wash")).hasMessageContaining("stands there already");
        assertThat(PaletteChange.each(theme, List.of("ink", "wash"), s -> s.withPerBand(true), null, "Two")
                        .applied(theme)
                        .palette()
                        .settings())
                .extracting(Setting::perBand)
                .containsExactly(true, true, false);
        assertThatThrownBy(() -> PaletteChange.each(theme, List.of("ink"), s -> s, null, "None"))
                .hasMessageContaining("Nothing was changed");
        Theme banded = PaletteChange.edit(
                        theme,
                        known(theme, "ink")
                                .withBands(Map.of("phone", new Given.Fixed(Value.of("#000000"))))
                                .withPerBand(true),
                        PAGE)
                .applied(theme);
        Bands two = new Bands(List.of(
                new Band("small", "Small", 700),
                new Band("large", "Large", Bands.USUAL.widest().to())));
        assertThat(PaletteChange.bands(banded, two).note())
                .startsWith("Bands: Small")
                .endsWith("1 default of a band went with the bands");
        assertThatThrownBy(() -> PaletteChange.bands(theme, theme.palette().bands()))
                .hasMessageContaining("Nothing was changed");
    }

    @Test
    void aKeyThatTheStylesheetsUseIsNotTaken() {
        Theme theme = theme();
        assertThatThrownBy(() -> PaletteChange.create(theme, color("own", "#000000"), PAGE))
                .hasMessageContaining("--own for something of their own: a.css, line 2");
        assertThatThrownBy(() -> PaletteChange.create(theme, color("ink", "#000000"), PAGE))
                .isInstanceOf(BadInputException.class);
    }
}

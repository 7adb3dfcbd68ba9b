package org.calmpalette.core.setting;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.charset.StandardCharsets;
import org.calmpalette.core.BadInputException;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class PaletteJsonTest {
  private static final String SETTING = "\"key\":\"a\",\"label\":\"A\",\"kind\":\"color\",\"place\":\"p\",\"default\":\"red\"";

  private static Palette read(String json) {
    return PaletteJson.read(json.getBytes(StandardCharsets.UTF_8), "Name");
  }

  @ParameterizedTest
  @CsvSource(delimiter = '|', quoteCharacter = '`', value = {
      "[] | the file", "{\"settings\": {}} | settings:", "{\"settings\": [{\"label\": \"A\"}]} | settings[0].kind",
      "{\"bands\": [{\"key\": \"a\", \"label\": \"A\", \"to\": \"767\"}]} | bands[0].to", "{\"a\": 1, \"a\": 2} | line 1",
      "{\"places\": [{\"key\": 7}]} | places[0].key"})
  void whatCannotBeUnderstoodIsToldWithItsPlace(String json, String place) {
    assertThatThrownBy(() -> read(json)).isInstanceOf(BadInputException.class)
        .hasMessageStartingWith("palette.json").hasMessageContaining(place);
  }

  @Test
  void settingsThatContradictEachOtherAreRefused() {
    String places = "{\"places\":[{\"key\":\"p\",\"label\":\"P\"}],\"settings\":[";
    assertThatThrownBy(() -> read(places + "{" + SETTING + "},{" + SETTING + "}]}")).hasMessageContaining("settings[1].key").hasMessageContaining("twice");
    assertThatThrownBy(() -> read("{\"settings\":[{" + SETTING + "}]}")).hasMessageContaining("settings[0].place");
    assertThatThrownBy(() -> read(places + "{" + SETTING + ",\"allowed\":{\"swatches\":[\"blue\"]}}]}"))
        .hasMessageContaining("settings[0]").hasMessageContaining("not among what an owner may choose");
    assertThat(read(places + "{" + SETTING + ",\"allowed\":{\"swatches\":[\"#f00\",\"blue\"]}}]}").settings().get(0).refusal("rgb(255 0 0)")).isEmpty();
  }

  @Test
  void whatIsWrittenReadsBackTheSame() {
    Palette palette = new Palette("N", Band.USUAL, java.util.List.of(new Place("p", "P")), java.util.List.of(
        new Setting("a", "A", "help", "p", "#ff0000", new Allowed.Swatches(java.util.List.of("#ff0000", "#0000ff")), true)));
    byte[] once = PaletteJson.write(palette, null);
    assertThat(PaletteJson.read(once, "other")).isEqualTo(palette);
    assertThat(PaletteJson.write(palette, once)).isEqualTo(once);
  }
}

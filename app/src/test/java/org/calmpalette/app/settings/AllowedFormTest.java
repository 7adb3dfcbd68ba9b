package org.calmpalette.app.settings;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.math.BigDecimal;
import java.util.Map;
import org.calmpalette.core.setting.ColorKind;
import org.calmpalette.core.setting.Value;
import org.junit.jupiter.api.Test;

class AllowedFormTest {
    @Test
    void contrastsAreDemandedOverPaperOrOverAnyPicture() {
        Fields fields = new Fields(Map.of(
                "a.given", new String[] {"1"},
                "a.mode", new String[] {"any"},
                "a.contrast0.with", new String[] {"ink"},
                "a.contrast0.atLeast", new String[] {"7"},
                "a.contrast0.over", new String[] {"1"},
                "a.contrast1.with", new String[] {"white"}));
        ColorKind kind = (ColorKind) AllowedForm.read("color", fields, Value.parts(), Value.of("#123456"));
        assertThat(kind.contrasts())
                .containsExactly(
                        new ColorKind.Needed("ink", new BigDecimal("7"), true),
                        new ColorKind.Needed("#ffffff", new BigDecimal("4.5"), false));
        // What was kept is what the form shows again.
        assertThat(AllowedForm.read("color", new Fields(Map.of()), (Value.Parts) kind.allowed(), Value.of("#123456")))
                .isEqualTo(kind);
    }

    @Test
    void whatStandsAfterASwatchIsItsName() {
        Map<String, String[]> sent = Map.of(
                "a.given", new String[] {"1"},
                "a.mode", new String[] {"swatches"},
                "a.swatches", new String[] {"#24463A  Fir green\nrgb(10 20 30)Night\nred\n#fff"});
        ColorKind kind = (ColorKind) AllowedForm.read("color", new Fields(sent), Value.parts(), Value.of("#ffffff"));
        assertThat(kind.lines()).containsExactly("#24463a Fir green", "#0a141e Night", "#ff0000", "#ffffff");
        Map<String, String[]> wrong = new java.util.HashMap<>(sent);
        wrong.put("a.swatches", new String[] {"#24463a Fir\nFir #24463a"});
        assertThatThrownBy(() -> AllowedForm.read("color", new Fields(wrong), Value.parts(), Value.of("#ffffff")))
                .hasMessage("Swatches, line 2: “Fir #24463a” is not a colour.");
    }
}

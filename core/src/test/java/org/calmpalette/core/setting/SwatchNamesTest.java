package org.calmpalette.core.setting;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Map;
import org.calmpalette.core.BadInputException;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.json.JsonMapper;

/** What a maker calls the colours that may be chosen. */
class SwatchNamesTest {
    private static ColorKind kind(String allowed) {
        return (ColorKind)
                Kinds.read("color", (Value.Parts) Value.of(JsonMapper.shared().readTree(allowed)));
    }

    @Test
    void aNameIsKeptWithItsSwatchHoweverTheColorIsWritten() {
        ColorKind kind = kind(
                "{\"swatches\": [\"#24463A\", \"rgb(255 255 255)\"], \"names\": {\"#24463a\": \"Fir\", \"#fff\": \"Chalk\"}}");
        assertThat(kind.names()).isEqualTo(Map.of("#24463a", "Fir", "#ffffff", "Chalk"));
        assertThat(kind.lines()).containsExactly("#24463a Fir", "#ffffff Chalk");
        assertThat(Kinds.read("color", kind.allowed())).isEqualTo(kind);
        assertThat(kind.withSwatches(List.of("#ffffff", "#000000")).lines())
                .containsExactly("#ffffff Chalk", "#000000");
        assertThat(kind.recolored(c -> c.equals("#24463a") ? "#102030" : c).names())
                .isEqualTo(Map.of("#102030", "Fir", "#ffffff", "Chalk"));
        assertThat(kind.withOpaque(true).withContrasts(List.of()).names()).isEqualTo(kind.names());
        assertThat(kind.withTexts(String::toUpperCase).names()).isEqualTo(Map.of("#24463a", "FIR", "#ffffff", "CHALK"));
        // What is chosen and written stays a colour.
        assertThat(kind.words(Value.of("#24463a"))).isEqualTo("#24463a");
    }

    @Test
    void aNameOfNoSwatchAndOneThatIsNoneAreTold() {
        String swatches = "{\"swatches\": [\"#24463a\"], \"names\": ";
        for (String wrong : List.of(
                "{\"#000\": \"Ink\"}",
                "{\"mud\": \"Mud\"}",
                "{\"#24463a\": \" \"}",
                "{\"#24463a\": \"" + "x".repeat(41) + "\"}")) {
            assertThatThrownBy(() -> kind(swatches + wrong + "}"))
                    .as(wrong)
                    .isInstanceOf(BadInputException.class)
                    .hasMessageContaining("names.");
        }
        assertThat(kind("{\"swatches\": [\"#24463a\"]}").allowed().has("names")).isFalse();
    }
}

package org.calmpalette.core.color;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.calmpalette.core.SharedCases;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Contrast of a text over layers, as {@code paint.js} has to say it too. */
class LayersCasesTest {
    private static final int CASES = 300;

    /** @param text red, green, blue from 0 to 255 and alpha from 0 to 1 @param layers from the top down, the last one opaque */
    public record Case(List<Double> text, List<List<Double>> layers, double ratio) {}

    private static List<Double> any(Random random, boolean opaque) {
        double alpha = opaque || random.nextInt(3) == 0 ? 1 : random.nextInt(101) / 100.0;
        return List.of((double) random.nextInt(256), (double) random.nextInt(256), (double) random.nextInt(256), alpha);
    }

    private static Color color(List<Double> c) {
        return Color.rgb(c.get(0) / 255, c.get(1) / 255, c.get(2) / 255).withAlpha(c.get(3));
    }

    private static double ratio(List<Double> text, List<List<Double>> layers) {
        return Contrast.ratioOver(
                color(text), layers.stream().map(LayersCasesTest::color).toList());
    }

    private static List<Case> generated() {
        Random random = new Random(5);
        List<Case> all = new ArrayList<>();
        for (int i = 0; i < CASES; i++) {
            List<List<Double>> layers = new ArrayList<>();
            for (int n = random.nextInt(4); n > 0; n--) {
                layers.add(any(random, false));
            }
            layers.add(any(random, true));
            List<Double> text = any(random, false);
            all.add(new Case(text, layers, ratio(text, layers)));
        }
        return all;
    }

    @Test
    void contrastIsWhatTheSharedCasesSay() {
        if (SharedCases.recorded("layers", generated())) {
            return;
        }
        List<JsonNode> cases = SharedCases.read("layers");
        assertThat(cases).hasSize(CASES);
        for (JsonNode c : cases) {
            Case said = JsonMapper.shared().treeToValue(c, Case.class);
            assertThat(ratio(said.text(), said.layers())).as(c.toString()).isCloseTo(said.ratio(), within(1e-9));
        }
        // WCAG 2.2, contrast ratio: black on white.
        assertThat(ratio(List.of(0.0, 0.0, 0.0, 1.0), List.of(List.of(255.0, 255.0, 255.0, 1.0))))
                .isEqualTo(21);
    }
}

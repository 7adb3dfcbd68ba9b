package org.calmpalette.core.promise;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.calmpalette.core.render.TextsOn;
import org.calmpalette.core.setting.BackgroundKind;
import org.calmpalette.core.setting.Kinds;
import org.calmpalette.core.setting.Value;
import org.junit.jupiter.api.Test;

/** The weakest shade with which texts on a picture read well. */
class LeastShadeTest {
    private final List<Integer> looked = new ArrayList<>();

    private Optional<Value.Parts> least(Value.Parts allowed, int now, double enough) {
        BackgroundKind kind = (BackgroundKind) Kinds.read("background", allowed);
        Value.Parts value = (Value.Parts)
                Value.parts("color", "#ffffff", "picture", "a.jpg", "overlay", "#000000", "strength", now);
        return LeastShade.of(kind, value, v -> {
            int strength = v.number("strength").intValue();
            looked.add(strength);
            return Optional.of(
                    new TextsOn(1, 0, Optional.of(new TextsOn.Worst(strength >= enough ? 4.5 : 4.49, 4.5, "Words"))));
        });
    }

    @Test
    void isTheFirstThatIsEnoughAndWasLookedAt() {
        for (int enough = 1; enough <= 100; enough++) {
            looked.clear();
            assertThat(least(Value.parts(), 0, enough)
                            .orElseThrow()
                            .number("strength")
                            .intValue())
                    .isEqualTo(enough);
            assertThat(looked).contains(enough).hasSizeLessThan(10);
        }
    }

    @Test
    void staysWithinWhatIsAllowed() {
        Value.Parts fives = Value.parts("strength", Value.parts("least", 10, "most", 60, "step", 5));
        assertThat(least(fives, 10, 33).orElseThrow().number("strength").intValue())
                .isEqualTo(35);
        assertThat(least(fives, 10, 61)).isEmpty();
        assertThat(least(fives, 60, 61)).isEmpty();
        assertThat(least(Value.parts("fixed", Value.parts("strength", 20)), 20, 30))
                .isEmpty();
    }

    @Test
    void nothingIsOfferedWhereNothingIsNeeded() {
        assertThat(least(Value.parts(), 40, 40)).isEmpty();
    }
}

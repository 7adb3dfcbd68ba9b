package org.calmpalette.core.promise;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.IntPredicate;
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

    /** @return from and to in percent */
    private List<Integer> enough(Value.Parts allowed, IntPredicate reads) {
        BackgroundKind kind = (BackgroundKind) Kinds.read("background", allowed);
        Value.Parts value =
                (Value.Parts) Value.parts("color", "#ffffff", "picture", "a.jpg", "overlay", "#000000", "strength", 20);
        return LeastShade.enough(kind, value, v -> {
                    int strength = v.number("strength").intValue();
                    looked.add(strength);
                    double ratio = reads.test(strength) ? 4.5 : 4.49;
                    return Optional.of(new TextsOn(1, 0, Optional.of(new TextsOn.Worst(ratio, 4.5, "Words"))));
                })
                .map(s -> List.of(s.from().intValue(), s.to().intValue()))
                .orElse(List.of());
    }

    /** Light words need a dark shade, and dark words one that is not too strong. */
    @Test
    void thoseThatAreEnoughReachFromAnEndToTheLastThatWasLookedAt() {
        Value.Parts fives = Value.parts("strength", Value.parts("least", 10, "most", 60, "step", 5));
        for (int border = 1; border <= 100; border++) {
            int at = border;
            looked.clear();
            assertThat(enough(Value.parts(), s -> s >= at)).containsExactly(at, 100);
            assertThat(looked).contains(at, at - 1).hasSizeLessThan(12);
            assertThat(enough(Value.parts(), s -> s < at)).containsExactly(0, at - 1);
        }
        assertThat(enough(fives, s -> s >= 33)).containsExactly(35, 60);
        assertThat(enough(fives, s -> s <= 33)).containsExactly(10, 30);
    }

    @Test
    void whatMakesNoDifferenceIsNotTold() {
        assertThat(enough(Value.parts(), s -> true)).isEmpty();
        assertThat(enough(Value.parts(), s -> false)).isEmpty();
        assertThat(enough(Value.parts(), s -> s > 40 && s < 60)).isEmpty();
        assertThat(enough(Value.parts("fixed", Value.parts("strength", 20)), s -> s >= 50))
                .isEmpty();
    }
}

package org.calmpalette.core;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Duration;
import java.util.concurrent.CancellationException;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class BudgetTest {
    private static Object forEver() {
        while (true) {
            Budget.step();
        }
    }

    @ParameterizedTest
    @CsvSource({"1, 1 milliseconds", "40, 40 milliseconds", "1000, 1 second"})
    void workThatTakesLongerEndsAndSaysAfterHowMuch(long millis, String words) {
        assertThatThrownBy(() -> Budget.within(Duration.ofMillis(millis), BudgetTest::forEver))
                .isInstanceOfSatisfying(BeyondLimitException.class, e -> assertThat(e.why())
                        .isEqualTo("it takes longer than " + words));
    }

    /** A thousand of them, each as long as a whole request may be, would go on for an hour. */
    @Test
    void aLongStepIsLookedAtAtOnce() {
        AtomicInteger steps = new AtomicInteger();
        assertThatThrownBy(() -> Budget.within(Duration.ofHours(1), Long.MAX_VALUE, () -> steps.get() == 3, () -> {
                    while (true) {
                        steps.incrementAndGet();
                        Budget.longStep();
                    }
                }))
                .isInstanceOf(CancellationException.class);
        assertThat(steps).hasValue(3);
    }

    @Test
    void fractionsOfSecondsAreSeconds() {
        assertThatThrownBy(() -> Budget.within(Duration.ofMillis(1_050), BudgetTest::forEver))
                .hasMessageContaining("longer than 1.05 seconds");
    }

    @Test
    void asMuchTextAsIsAllowedAndNotOneCharacterMore() {
        assertThat(Budget.within(Duration.ofDays(1), 100, () -> false, () -> {
                    Budget.made(60);
                    Budget.made(40);
                    return "all";
                }))
                .isEqualTo("all");
        assertThatThrownBy(() -> Budget.within(Duration.ofDays(1), 100, () -> false, () -> {
                    Budget.made(100);
                    Budget.made(1);
                    return "";
                }))
                .isInstanceOf(BeyondLimitException.class)
                .hasMessageContaining("grow too long");
    }

    @Test
    void textMadeInsideCountsOutsideToo() {
        assertThatThrownBy(() -> Budget.within(Duration.ofDays(1), 100, () -> false, () -> {
                    for (int i = 0; i < 3; i++) {
                        Budget.within(Duration.ofDays(1), 60, () -> false, () -> {
                            Budget.made(40);
                            return "";
                        });
                    }
                    return "";
                }))
                .isInstanceOf(BeyondLimitException.class);
    }

    @Test
    void theOuterBudgetHoldsAgainAfterTheInnerOneAndNoneAfterAll() {
        assertThatThrownBy(() -> Budget.within(Duration.ofDays(1), 10, () -> false, () -> {
                    assertThatThrownBy(() -> Budget.within(Duration.ofDays(1), 5, () -> false, () -> {
                                Budget.made(6);
                                return "";
                            }))
                            .isInstanceOf(BeyondLimitException.class);
                    Budget.made(5);
                    return "";
                }))
                .isInstanceOf(BeyondLimitException.class);
        Budget.made(Integer.MAX_VALUE);
        Budget.step();
    }

    @Test
    void whatIsCancelledOutsideEndsInside() {
        assertThatThrownBy(() -> Budget.within(
                        Duration.ofDays(1),
                        Long.MAX_VALUE,
                        () -> true,
                        () -> Budget.within(Duration.ofDays(1), BudgetTest::forEver)))
                .isInstanceOf(CancellationException.class);
    }

    /** A machine that is three times as slow may take three times as long; what is no such number changes nothing. */
    @ParameterizedTest
    @CsvSource({"1, 1", "3, 3", "2.5, 2.5", "0.1, 1", "-3, 1", "1000, 1", "fast, 1", "NaN, 1"})
    void howMuchSlowerAMachineIsCanBeSaid(String said, double slower) {
        assertThat(Budget.slower(said)).isEqualTo(slower);
    }
}

package org.calmpalette.app.accounts;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.eq;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.Collections;
import java.util.List;
import org.junit.jupiter.api.Test;

class SignInTriesTest {
    private final SignInAttemptRepository attempts = mock(SignInAttemptRepository.class);
    private final SignInTries tries = new SignInTries(attempts);

    private static List<LocalDateTime> failures(int count) {
        return Collections.nCopies(count, LocalDateTime.now(ZoneOffset.UTC));
    }

    @Test
    void onlyTheAddressThatTriedHasToWaitLongerEachTime() {
        when(attempts.times(eq("mara"), eq("10.0.0.1"), any())).thenReturn(failures(SignInTries.FREE - 1));
        assertThat(tries.secondsToWait("Mara ", "10.0.0.1")).isZero();
        long before = 0;
        for (int more = 0; more < 12; more++) {
            when(attempts.times(eq("mara"), eq("10.0.0.1"), any())).thenReturn(failures(SignInTries.FREE + more));
            long wait = tries.secondsToWait("mara", "10.0.0.1");
            assertThat(wait).isBetween(Math.min(before + 1, 300), 301L);
            before = wait;
        }
        assertThat(tries.secondsToWait("mara", "10.0.0.2"))
                .as("the owner, elsewhere")
                .isZero();
        assertThat(tries.secondsToWait("jonas", "10.0.0.1")).isZero();
    }

    @Test
    void anAddressThatTriesManyNamesHasToWaitWithAllOfThem() {
        when(attempts.timesOf(eq("10.0.0.1"), any())).thenReturn(failures(SignInTries.FREE_OF_ADDRESS + 3));
        assertThat(tries.secondsToWait("anybody", "10.0.0.1")).isPositive();
        assertThat(tries.secondsToWait("anybody", "10.0.0.2")).isZero();
    }

    @Test
    void theOwnerIsToldOfTheTries() {
        when(attempts.timesOfName("mara")).thenReturn(List.of());
        assertThat(tries.succeeded("mara")).isEmpty();
        when(attempts.timesOfName("mara")).thenReturn(List.of(LocalDateTime.of(2026, 3, 4, 9, 5)));
        assertThat(tries.succeeded("mara"))
                .hasValue("One try to sign in with your name failed since you last did, the latest 4 Mar, 09:05 UTC");
        when(attempts.timesOfName("mara")).thenReturn(failures(40));
        assertThat(tries.succeeded("mara"))
                .hasValueSatisfying(s -> assertThat(s).startsWith("40 tries").contains("guessing"));
    }
}

package org.calmpalette.app.survey;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import java.time.Duration;
import java.util.concurrent.CountDownLatch;
import org.calmpalette.app.accounts.Role;
import org.calmpalette.app.accounts.SignedIn;
import org.calmpalette.app.themes.OpenTheme;
import org.calmpalette.app.themes.Snapshot;
import org.calmpalette.app.web.Courtesy;
import org.calmpalette.app.web.StaleException;
import org.calmpalette.app.work.Jobs;
import org.calmpalette.core.BadInputException;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;

class TakingsTest {
    private static final Duration LONG = Duration.ofMinutes(2);
    private static final SignedIn IDA = new SignedIn(1, "ida", "Ida", Role.MAKER, "");
    private static final SignedIn OTHER = new SignedIn(2, "olaf", "Olaf", Role.MAKER, "");

    private final Courtesy courtesy = new Courtesy();
    private final Jobs jobs = new Jobs(courtesy);
    private final Takings takings = new Takings(jobs, courtesy);
    private final Snapshot made = mock(Snapshot.class);

    @AfterEach
    void stop() {
        jobs.stop();
    }

    private static OpenTheme theme(long id) {
        OpenTheme open = mock(OpenTheme.class);
        when(open.id()).thenReturn(id);
        return open;
    }

    @Test
    void whatWasTakenIsFoundByWhoeverTookItAndByNobodyElse() {
        Taking taking = takings.start(theme(7), IDA, "index.html", job -> made);
        assertThat(taking.endsWithin(LONG)).isTrue();
        assertThat(taking.isDone()).isTrue();
        assertThat(taking.made()).isSameAs(made);
        assertThat(takings.of(7, IDA)).contains(taking);
        assertThat(takings.of(7, OTHER)).isEmpty();
        assertThat(takings.of(8, IDA)).isEmpty();
        takings.forget(taking, IDA);
        assertThat(takings.of(7, IDA)).isEmpty();
    }

    @Test
    void theReasonWhyNothingWasTakenIsTold() {
        Taking bad = takings.start(theme(7), IDA, "index.html", job -> {
            throw new BadInputException("That part is gone.", "Point at it again.");
        });
        assertThat(bad.endsWithin(LONG)).isTrue();
        assertThat(bad.failure()).isEqualTo("That part is gone. Point at it again.");
        assertThatThrownBy(bad::made).isInstanceOf(BadInputException.class).hasMessage("That part is gone.");
        Taking late = takings.start(theme(7), IDA, "index.html", job -> {
            throw new StaleException("Olaf was faster.", 9);
        });
        assertThat(late.endsWithin(LONG)).isTrue();
        assertThat(late.isDone()).isFalse();
        assertThat(late.isStopped()).as("nobody stopped it").isFalse();
        assertThat(late.failure()).startsWith("Olaf was faster.");
        assertThatThrownBy(late::made).isInstanceOfSatisfying(StaleException.class, e -> assertThat(e.head())
                .isEqualTo(9));
    }

    @Test
    void anotherOneInTheSameThemeStopsTheOneThatGoesOn() {
        CountDownLatch begun = new CountDownLatch(1);
        CountDownLatch on = new CountDownLatch(1);
        Taking first = takings.start(theme(7), IDA, "index.html", job -> {
            begun.countDown();
            try {
                on.await();
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
            }
            job.at(1, 2, "Colour");
            return made;
        });
        Taking elsewhere = takings.start(theme(8), IDA, "index.html", job -> made);
        Taking second = takings.start(theme(7), IDA, "index.html", job -> made);
        assertThat(second.endsWithin(Duration.ZERO)).isFalse();
        on.countDown();
        assertThat(first.endsWithin(LONG)).isTrue();
        assertThat(first.isStopped()).isTrue();
        assertThatThrownBy(first::made).hasMessage("It was stopped.");
        assertThat(second.endsWithin(LONG)).isTrue();
        assertThat(second.made()).isSameAs(made);
        assertThat(elsewhere.endsWithin(LONG)).isTrue();
        assertThat(elsewhere.isDone()).as("in another theme it goes on").isTrue();
    }
}

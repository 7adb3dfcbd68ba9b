package org.calmpalette.app.work;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.util.List;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.atomic.AtomicInteger;
import org.calmpalette.app.web.Courtesy;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.Budget;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;

class JobsTest {
    private static final Duration LONG = Duration.ofMinutes(2);
    private final Jobs jobs = new Jobs(new Courtesy());

    @AfterEach
    void stop() {
        jobs.stop();
    }

    private static void wait(CountDownLatch latch) {
        try {
            latch.await();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    @Test
    void aJobTellsHowFarItIsAndWhatCameOfIt() {
        CountDownLatch half = new CountDownLatch(1);
        CountDownLatch on = new CountDownLatch(1);
        Job<String> job = jobs.start(Jobs.Lane.IMPORTS, LONG, j -> {
            j.at(3, 6, "piers.css");
            half.countDown();
            wait(on);
            return "made";
        });
        wait(half);
        assertThat(job.state()).isEqualTo(Job.State.RUNNING);
        assertThat(job.progress()).isEqualTo(new Job.Progress(3, 6, "piers.css"));
        assertThat(job.result()).isEmpty();
        assertThat(job.await(Duration.ZERO)).isFalse();
        on.countDown();
        assertThat(job.await(LONG)).isTrue();
        assertThat(job.state()).isEqualTo(Job.State.DONE);
        assertThat(job.result()).contains("made");
    }

    @Test
    void aJobThatIsStoppedEndsBeforeItsNextStepAndOneThatWaitsNeverBegins() {
        CountDownLatch begun = new CountDownLatch(1);
        CountDownLatch on = new CountDownLatch(1);
        AtomicInteger steps = new AtomicInteger();
        Job<String> running = jobs.start(Jobs.Lane.PICTURES, LONG, j -> {
            steps.incrementAndGet();
            begun.countDown();
            wait(on);
            j.at(1, 2, "");
            steps.incrementAndGet();
            return "made";
        });
        Job<String> waiting = jobs.start(Jobs.Lane.PICTURES, LONG, j -> "made");
        wait(begun);
        assertThat(waiting.state()).as("one at a time").isEqualTo(Job.State.WAITING);
        running.stop();
        waiting.stop();
        on.countDown();
        assertThat(running.await(LONG) && waiting.await(LONG)).isTrue();
        assertThat(List.of(running.state(), waiting.state())).containsOnly(Job.State.STOPPED);
        assertThat(steps).as("nothing after the stop").hasValue(1);
        assertThat(running.result()).isEmpty();
    }

    @Test
    void whatCannotBeDoneSaysWhyAndAFaultOfOursIsNotTold() {
        Job<String> refused = jobs.start(Jobs.Lane.IMPORTS, LONG, j -> {
            throw new BadInputException("The file is empty.", "Choose another.");
        });
        Job<String> fault = jobs.start(Jobs.Lane.IMPORTS, LONG, j -> {
            throw new IllegalStateException("secret");
        });
        assertThat(refused.await(LONG) && fault.await(LONG)).isTrue();
        assertThat(refused.failure()).hasValueSatisfying(f -> assertThat(f.getMessage() + f.mend())
                .isEqualTo("The file is empty.Choose another."));
        assertThat(fault.failure()).hasValueSatisfying(f -> assertThat(f.getMessage() + f.mend())
                .contains("fault on our side")
                .doesNotContain("secret"));
        Job<String> next = jobs.start(Jobs.Lane.IMPORTS, LONG, j -> "made");
        assertThat(next.await(LONG)).as("a fault does not take the lane down").isTrue();
        assertThat(next.result()).contains("made");
    }

    @Test
    void whatNeverEndsIsEndedByItsBudget() {
        Job<String> endless = jobs.start(Jobs.Lane.SURVEYS, Duration.ofMillis(20), j -> {
            while (true) {
                Budget.step();
            }
        });
        assertThat(endless.await(LONG)).isTrue();
        assertThat(endless.state()).isEqualTo(Job.State.FAILED);
        assertThat(endless.failure())
                .hasValueSatisfying(f -> assertThat(f.getMessage()).contains("20 milliseconds"));
    }

    @Test
    void whatNeverEndsCanBeStoppedBetweenItsSteps() {
        CountDownLatch begun = new CountDownLatch(1);
        Job<String> endless = jobs.start(Jobs.Lane.SURVEYS, LONG, j -> {
            begun.countDown();
            while (true) {
                Budget.step();
            }
        });
        wait(begun);
        endless.stop();
        assertThat(endless.await(LONG)).isTrue();
        assertThat(endless.state()).isEqualTo(Job.State.STOPPED);
    }
}

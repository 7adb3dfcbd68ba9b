package org.calmpalette.app.web;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.atomic.AtomicLong;
import org.junit.jupiter.api.Test;

class CourtesyTest {
    private static final long MILLI = 1_000_000;
    private final AtomicLong clock = new AtomicLong();
    private final List<Long> rests = new ArrayList<>();
    private final Courtesy courtesy = new Courtesy(clock::get, rests::add);

    /** Three steps of 20 milliseconds. @return the rests between them, in milliseconds */
    private List<Long> rests(Courtesy.LongWork work) {
        rests.clear();
        for (int i = 0; i < 3; i++) {
            clock.addAndGet(20 * MILLI);
            work.giveWay();
        }
        return rests;
    }

    @Test
    void workInTheBackgroundRestsOnlyWhileSomebodyWaits() {
        Courtesy.LongWork work = courtesy.background();
        assertThat(rests(work)).isEmpty();
        courtesy.begins();
        assertThat(rests(work)).containsExactly(6L, 6L, 6L);
        courtesy.waiting(
                () -> assertThat(rests(work)).as("who waits for this very work").isEmpty());
        assertThat(rests(work)).hasSize(3);
        courtesy.ends();
        assertThat(rests(work)).isEmpty();
    }

    @Test
    void aLongRequestIsNotOneThatOthersGiveWayTo() {
        courtesy.begins();
        Courtesy.LongWork own = courtesy.request();
        assertThat(rests(own)).as("it does not wait for itself").isEmpty();
        courtesy.begins();
        assertThat(rests(own)).containsExactly(6L, 6L, 6L);
        courtesy.ends();
        own.close();
        courtesy.ends();
        assertThat(rests(courtesy.background())).as("the counts are as before").isEmpty();
    }

    @Test
    void longWorksTogetherTakeOneCore() {
        Courtesy.LongWork one = courtesy.background();
        Courtesy.LongWork two = courtesy.background();
        Courtesy.LongWork three = courtesy.background();
        assertThat(rests(one)).containsExactly(24L, 24L, 24L);
        two.close();
        assertThat(rests(one)).containsExactly(12L, 12L, 12L);
        courtesy.begins();
        assertThat(rests(three)).containsExactly(18L, 18L, 18L);
        three.close();
        courtesy.ends();
        assertThat(rests(one)).isEmpty();
    }

    @Test
    void shortStepsDoNotRestEachTime() {
        courtesy.begins();
        Courtesy.LongWork work = courtesy.background();
        for (int i = 0; i < 300; i++) {
            clock.addAndGet(MILLI / 10);
            work.giveWay();
        }
        assertThat(rests).as("thirty milliseconds of work").hasSize(2);
    }
}

package org.calmpalette.app.web;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.atomic.AtomicLong;
import org.junit.jupiter.api.Test;

class CourtesyTest {
  private final AtomicLong clock = new AtomicLong();
  private final AtomicInteger rests = new AtomicInteger();
  private final Courtesy courtesy = new Courtesy(clock::get, rests::incrementAndGet);

  /** Five long steps. @return after how many of them the work rested */
  private int rests(int own) {
    int before = rests.get();
    for (int i = 0; i < 5; i++) {
      clock.addAndGet(20_000_000);
      courtesy.giveWay(own);
    }
    return rests.get() - before;
  }

  @Test
  void workRestsOnlyWhileSomebodyElseWaits() {
    assertThat(rests(0)).isZero();
    courtesy.begins();
    assertThat(rests(1)).as("it is the one who asks itself").isZero();
    assertThat(rests(0)).as("the first step has only begun").isEqualTo(4);
    courtesy.waiting(() -> assertThat(rests(0)).as("who waits for this very work").isZero());
    assertThat(rests(0)).isEqualTo(5);
    courtesy.ends();
    assertThat(rests(0)).isZero();
  }

  @Test
  void shortStepsDoNotRestEachTime() {
    courtesy.begins();
    rests(0);
    int before = rests.get();
    for (int i = 0; i < 100; i++) {
      clock.addAndGet(100_000);
      courtesy.giveWay(0);
    }
    assertThat(rests.get() - before).isZero();
  }
}

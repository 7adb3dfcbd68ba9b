package org.calmpalette.app.web;

import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.LongSupplier;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.stereotype.Component;

/**
 * Lets long work give way: while others ask for pages, it rests between its steps, so that their pages come as fast as they
 * would without it.
 */
@Component
public class Courtesy {
  /** Work for so long, then rest for so long while others wait. */
  private static final long WORK_NANOS = 12_000_000;
  private static final long REST_MILLIS = 6;

  private final AtomicInteger asking = new AtomicInteger();
  private final LongSupplier clock;
  private final Runnable rest;
  private final ThreadLocal<long[]> rested;

  @Autowired
  Courtesy() {
    this(System::nanoTime, Courtesy::sleep);
  }

  /** @param clock in nanoseconds */
  Courtesy(LongSupplier clock, Runnable rest) {
    this.clock = clock;
    this.rest = rest;
    this.rested = ThreadLocal.withInitial(() -> new long[] {clock.getAsLong()});
  }

  private static void sleep() {
    try {
      Thread.sleep(REST_MILLIS);
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    }
  }

  void begins() {
    asking.incrementAndGet();
  }

  void ends() {
    asking.decrementAndGet();
  }

  /** Waits for work of another thread: who only waits keeps nothing from giving its whole time to that. */
  public void waiting(Runnable wait) {
    asking.decrementAndGet();
    try {
      wait.run();
    } finally {
      asking.incrementAndGet();
    }
  }

  /** Rests if somebody else waits. @param own how many of those who ask are the one that works */
  public void giveWay(int own) {
    if (asking.get() <= own) {
      return;
    }
    long[] last = rested.get();
    if (clock.getAsLong() - last[0] > WORK_NANOS) {
      rest.run();
      last[0] = clock.getAsLong();
    }
  }
}

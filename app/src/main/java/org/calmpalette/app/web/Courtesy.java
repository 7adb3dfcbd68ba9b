package org.calmpalette.app.web;

import java.util.concurrent.atomic.AtomicInteger;
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
  private final ThreadLocal<long[]> rested = ThreadLocal.withInitial(() -> new long[] {System.nanoTime()});

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
    if (System.nanoTime() - last[0] > WORK_NANOS) {
      try {
        Thread.sleep(REST_MILLIS);
      } catch (InterruptedException e) {
        Thread.currentThread().interrupt();
      }
      last[0] = System.nanoTime();
    }
  }
}

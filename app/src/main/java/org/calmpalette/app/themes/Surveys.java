package org.calmpalette.app.themes;

import jakarta.annotation.PreDestroy;
import java.util.Map;
import java.util.concurrent.CancellationException;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.Supplier;
import org.calmpalette.core.render.Measures;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;

/**
 * Makes surveys in the background: one at a time, since one uses both cores, and one for each theme. When a theme has moved
 * on, the survey of its earlier state is stopped: nobody will look at it. A survey that failed is not made again by itself.
 */
@Component
class Surveys {
  private static final Logger LOG = LoggerFactory.getLogger(Surveys.class);

  private final ExecutorService worker = Executors.newSingleThreadExecutor(r -> {
    Thread thread = new Thread(r, "survey");
    thread.setDaemon(true);
    return thread;
  });
  private final Map<Long, ThemeCache.Read> newest = new ConcurrentHashMap<>();
  private final AtomicInteger left = new AtomicInteger();

  @PreDestroy
  void stop() {
    newest.values().forEach(ThemeCache.Read::cancel);
    worker.shutdownNow();
  }

  /**
   * Has a theme's survey made, unless it is made, being made or has failed.
   *
   * @param measured asked when the survey is made: what was measured of the pages
   */
  void make(long themeId, ThemeCache.Read read, Supplier<Map<String, Measures>> measured) {
    if (!read.claim()) {
      return;
    }
    ThemeCache.Read before = newest.put(themeId, read);
    if (before != null && before != read) {
      before.cancel();
    }
    worker.submit(() -> {
      try {
        read.survey();
        read.lookBehind(measured.get());
      } catch (CancellationException e) {
        left.incrementAndGet();
        read.unclaim();
      } catch (RuntimeException | StackOverflowError e) {
        LOG.error("a survey failed", e);
        read.fail("The theme could not be surveyed because of a fault on our side. The reason stands in the log of the application.");
      } finally {
        newest.remove(themeId, read);
      }
    });
  }

  /** Looks behind the texts of pages that were measured since; waits for what is being made. */
  Future<?> lookBehind(ThemeCache.Read read, Supplier<Map<String, Measures>> measured) {
    return worker.submit(() -> {
      try {
        read.lookBehind(measured.get());
      } catch (RuntimeException | StackOverflowError e) {
        LOG.error("looking behind the texts failed", e);
      }
    });
  }

  /** How many were left because their theme had moved on. */
  int left() {
    return left.get();
  }
}

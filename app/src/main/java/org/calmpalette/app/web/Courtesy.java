package org.calmpalette.app.web;

import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.LongConsumer;
import java.util.function.LongSupplier;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.stereotype.Component;

/**
 * Lets long work give way: while others ask for pages it rests between its steps, and all long works together take one core
 * and leave the other, so that pages come nearly as fast as they would without them.
 *
 * <p>Nobody waits for anybody here: a work that holds a row or a connection only gets slower, and cannot be in another's way for
 * ever.
 */
@Component
public class Courtesy {
    /** Work for so long, then rest. */
    private static final long WORK_MILLIS = 12;
    /** Rest for so long while somebody waits for a page. */
    private static final long REST_MILLIS = 6;

    private final AtomicInteger asking = new AtomicInteger();
    private final AtomicInteger working = new AtomicInteger();
    private final LongSupplier clock;
    private final LongConsumer rest;

    @Autowired
    public Courtesy() {
        this(System::nanoTime, Courtesy::sleep);
    }

    /**
     * @param clock in nanoseconds
     * @param rest for so many milliseconds
     */
    Courtesy(LongSupplier clock, LongConsumer rest) {
        this.clock = clock;
        this.rest = rest;
    }

    private static void sleep(long millis) {
        try {
            Thread.sleep(millis);
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

    /** Work of one thread that goes on for long, from now until it is closed. */
    public final class LongWork implements AutoCloseable {
        private final boolean asked;
        private long rested = clock.getAsLong();

        private LongWork(boolean asked) {
            this.asked = asked;
            working.incrementAndGet();
            if (asked) {
                asking.decrementAndGet();
            }
        }

        /** Called between steps: rests if others want the processor too. */
        public void giveWay() {
            long others = working.get() - 1;
            boolean somebodyWaits = asking.get() > 0;
            if (others == 0 && !somebodyWaits || clock.getAsLong() - rested < WORK_MILLIS * 1_000_000) {
                return;
            }
            rest.accept(others * WORK_MILLIS + (somebodyWaits ? REST_MILLIS : 0));
            rested = clock.getAsLong();
        }

        @Override
        public void close() {
            working.decrementAndGet();
            if (asked) {
                asking.incrementAndGet();
            }
        }
    }

    /** Work in the background. */
    public LongWork background() {
        return new LongWork(false);
    }

    /** A request that has become long: it no longer counts as one that others give way to. */
    LongWork request() {
        return new LongWork(true);
    }
}

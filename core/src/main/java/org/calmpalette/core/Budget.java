package org.calmpalette.core;

import java.lang.management.ManagementFactory;
import java.lang.management.ThreadMXBean;
import java.math.BigDecimal;
import java.time.Duration;
import java.util.concurrent.CancellationException;
import java.util.function.BooleanSupplier;
import java.util.function.Supplier;

/**
 * How much a question about a theme may take. A theme may be slow to itself, never to others: whoever asks gives a budget,
 * the work says in its loops that it goes on, and ends with {@link BeyondLimitException} once it has had its share.
 *
 * <p>Time is the time of the processor on the thread, so that a busy machine makes an answer late, not different.
 */
public final class Budget {
    /**
     * How much slower this machine is than those for which the limits were chosen, from {@code -Dcalm.budget}: with 3 everything may take
     * three times as long. 1 unless somebody says otherwise.
     */
    private static final double SLOWER = slower(System.getProperty("calm.budget", "1"));

    private static final ThreadMXBean THREADS = ManagementFactory.getThreadMXBean();
    private static final ThreadLocal<Budget> CURRENT = new ThreadLocal<>();
    /** Asking for the time costs more than most steps. */
    private static final int STEPS_BETWEEN_LOOKS = 1024;
    /** Characters that a step may make before the time is looked at again. */
    private static final int CHARACTERS_A_STEP = 64;

    private final Budget around;
    private final long until;
    private final Duration limit;
    private final BooleanSupplier cancelled;
    private long characters;
    private int steps;

    private Budget(Budget around, Duration limit, long characters, BooleanSupplier cancelled) {
        this.around = around;
        this.limit = limit;
        this.until = time() + limit.toNanos();
        this.characters = characters;
        this.cancelled = cancelled;
    }

    static double slower(String said) {
        try {
            double n = Double.parseDouble(said);
            return n >= 1 && n <= 100 ? n : 1;
        } catch (NumberFormatException nonsense) {
            return 1;
        }
    }

    /**
     * Does some work within a budget; an outer budget of the same thread goes on to hold.
     *
     * @param time of the processor
     * @param characters how much text the work may make
     * @param cancelled asked now and then; true ends the work
     * @throws BeyondLimitException if it takes more
     * @throws CancellationException if it was cancelled
     */
    public static <T> T within(Duration time, long characters, BooleanSupplier cancelled, Supplier<T> work) {
        Budget before = CURRENT.get();
        CURRENT.set(new Budget(before, time, characters, cancelled));
        try {
            return work.get();
        } finally {
            if (before == null) {
                CURRENT.remove();
            } else {
                CURRENT.set(before);
            }
        }
    }

    /** Within an amount of time only. */
    public static <T> T within(Duration time, Supplier<T> work) {
        return within(time, Long.MAX_VALUE, () -> false, work);
    }

    /** Says that work goes on. Cheap; does nothing where there is no budget. */
    public static void step() {
        Budget now = CURRENT.get();
        if (now != null && ++now.steps >= STEPS_BETWEEN_LOOKS) {
            now.look();
        }
    }

    /** Says that a long step is over, such as all that is asked about one text: what it took is looked at then and there. */
    public static void longStep() {
        Budget now = CURRENT.get();
        if (now != null) {
            now.look();
        }
    }

    /** Says that text was read, which costs by its length. */
    public static void read(int characters) {
        Budget now = CURRENT.get();
        if (now != null) {
            now.steps += characters / CHARACTERS_A_STEP;
            step();
        }
    }

    /** Says that text was made. */
    public static void made(int characters) {
        Budget now = CURRENT.get();
        if (now == null) {
            return;
        }
        boolean beyond = false;
        for (Budget b = now; b != null; b = b.around) {
            b.characters -= characters;
            beyond |= b.characters < 0;
        }
        if (beyond) {
            throw new BeyondLimitException("its values grow too long when they are put together");
        }
        now.steps += characters / CHARACTERS_A_STEP;
        step();
    }

    /** Processor time of this thread, in nanoseconds of a machine for which the limits were chosen. */
    public static long time() {
        return (long) (THREADS.getCurrentThreadCpuTime() / SLOWER);
    }

    private void look() {
        steps = 0;
        long time = time();
        for (Budget b = this; b != null; b = b.around) {
            if (b.cancelled.getAsBoolean()) {
                throw new CancellationException();
            }
            if (time > b.until) {
                throw new BeyondLimitException("it takes longer than " + seconds(b.limit));
            }
        }
    }

    private static String seconds(Duration time) {
        long millis = Math.max(1, time.toMillis());
        return millis < 1000
                ? millis + " milliseconds"
                : millis == 1000
                        ? "1 second"
                        : BigDecimal.valueOf(millis, 3).stripTrailingZeros().toPlainString() + " seconds";
    }
}

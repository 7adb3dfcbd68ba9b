package org.calmpalette.core.survey;

import java.time.Duration;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicLong;
import java.util.function.BooleanSupplier;
import java.util.function.Supplier;
import org.calmpalette.core.BeyondLimitException;
import org.calmpalette.core.Budget;

/**
 * Gives each page and each question of a survey its share of time, so that one page that takes for ever leaves the rest as it
 * is; what was not looked at to the end is told.
 */
final class Share {
    /** Processor time for one page. Pages of 300 elements under a framework's sheet take a tenth of it. */
    static final Duration PAGE = Duration.ofMillis(800);
    /** For one question about all stylesheets. */
    static final Duration QUESTION = Duration.ofSeconds(1);
    /** For all questions together. */
    private static final long QUESTIONS = Duration.ofSeconds(2).toNanos();
    /** For all pages together, on each of two threads; those that come later are not looked at any more. */
    private static final long PAGES = Duration.ofSeconds(3).toNanos();
    /** Characters of values that may be put together for one page. */
    private static final long CHARACTERS = 30_000_000;

    private final Duration page;
    private final long pages;

    Share() {
        this(PAGE, PAGES);
    }

    /**
     * With other shares for pages.
     *
     * @param pages nanoseconds for all together
     */
    Share(Duration page, long pages) {
        this.page = page;
        this.pages = pages;
    }

    private final Map<String, AtomicLong> lefts = new ConcurrentHashMap<>();
    private final List<Finding> beyond = Collections.synchronizedList(new ArrayList<>());

    /** What was not looked at to the end. */
    List<Finding> beyond() {
        return List.copyOf(beyond);
    }

    boolean isWhole() {
        return beyond.isEmpty();
    }

    /** Looks at one page; what was found before its share was used up stays. */
    void page(String file, String what, Runnable look) {
        look(what, pages, page, CHARACTERS, look, why -> new Finding(
                        Finding.Kind.LIMIT,
                        file,
                        1,
                        0,
                        "Not looked at to its end, for " + what + ": " + why + ".",
                        "Everything else goes on working. A shorter page with one part of each kind can be looked at whole.")
                .about(what));
    }

    /** Asks one question about all stylesheets. */
    void question(String file, String what, Runnable look) {
        look("", QUESTIONS, QUESTION, Long.MAX_VALUE, look, why -> new Finding(
                        Finding.Kind.LIMIT,
                        file,
                        1,
                        0,
                        "Not all " + what + " were looked for: " + why + ".",
                        "Everything else goes on working. Fewer rules can be looked at whole.")
                .about(what));
    }

    /** Does work that may be stopped from elsewhere. */
    static <T> T cancellable(BooleanSupplier cancelled, Supplier<T> work) {
        return Budget.within(Duration.ofDays(1), Long.MAX_VALUE, cancelled, work);
    }

    private interface Telling {
        Finding of(String why);
    }

    /** @param of what shares one amount of time, such as all pages */
    private void look(String of, long most, Duration one, long characters, Runnable look, Telling telling) {
        long before = Budget.time();
        AtomicLong left = lefts.computeIfAbsent(of, w -> new AtomicLong(most));
        if (left.get() <= 0) {
            beyond.add(telling.of("what came before it took all the time there is"));
            return;
        }
        try {
            Budget.within(Duration.ofNanos(Math.min(one.toNanos(), left.get())), characters, () -> false, () -> {
                look.run();
                return null;
            });
        } catch (BeyondLimitException e) {
            beyond.add(telling.of(e.why()));
        } catch (StackOverflowError e) {
            beyond.add(telling.of("it is nested too deep"));
        } finally {
            left.addAndGet(before - Budget.time());
        }
    }
}

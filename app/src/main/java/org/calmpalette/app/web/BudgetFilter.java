package org.calmpalette.app.web;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.time.Duration;
import java.util.Set;
import java.util.concurrent.CancellationException;
import java.util.function.BooleanSupplier;
import org.calmpalette.core.Budget;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;

/**
 * Gives every request a budget of time and memory for what it asks about a theme; see {@link Budget}. A long question ends when nobody
 * waits for its answer any more.
 */
@Component
@Order(-300)
class BudgetFilter extends OncePerRequestFilter {
    /** Processor time of one request. Ordinary ones take a twentieth of a second. */
    private static final Duration TIME = Duration.ofMillis(2_500);

    private static final long CHARACTERS = 30_000_000;
    /** After so much of its own time a request gives way to others. */
    private static final long LONG_NANOS = 250_000_000;

    /** So long after a look at the connection the next one follows. */
    private static final long BETWEEN_LOOKS_NANOS = 100_000_000;

    private final Courtesy courtesy;

    private final Duration time;

    @Autowired
    BudgetFilter(Courtesy courtesy) {
        this(courtesy, TIME);
    }

    /** @param time of the processor, for one request */
    BudgetFilter(Courtesy courtesy, Duration time) {
        this.courtesy = courtesy;
        this.time = time;
    }

    /** A checked exception on its way through a budget. */
    private static final class Carried extends RuntimeException {
        Carried(ServletException cause) {
            super(null, cause, false, false);
        }
    }

    /** Whether who asked has gone. Work of a question ends then; what changes something is done whether anybody waits for it or not. */
    private static final class Gone {
        private final boolean question;
        private final BooleanSupplier gone;
        private long looked = System.nanoTime();
        private boolean known;

        Gone(HttpServletRequest request) {
            question = Set.of("GET", "HEAD").contains(request.getMethod());
            gone = ClientGone.of(request);
        }

        boolean isKnown() {
            if (question && !known && System.nanoTime() - looked > BETWEEN_LOOKS_NANOS) {
                known = gone.getAsBoolean();
                looked = System.nanoTime();
            }
            return known;
        }

        /** Whether it is what ended the work. */
        boolean isEnd(Throwable thrown) {
            for (Throwable t = thrown; known && t != null; t = t.getCause()) {
                if (t instanceof CancellationException) {
                    return true;
                }
            }
            return false;
        }
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        courtesy.begins();
        long began = Budget.time();
        Courtesy.LongWork[] work = new Courtesy.LongWork[1];
        Gone gone = new Gone(request);
        try {
            Budget.within(
                    time,
                    CHARACTERS,
                    () -> {
                        if (work[0] == null && Budget.time() - began > LONG_NANOS) {
                            work[0] = courtesy.request();
                        }
                        if (work[0] != null) {
                            work[0].giveWay();
                        }
                        return work[0] != null && gone.isKnown();
                    },
                    () -> {
                        try {
                            chain.doFilter(request, response);
                        } catch (IOException e) {
                            throw new UncheckedIOException(e);
                        } catch (ServletException e) {
                            throw new Carried(e);
                        }
                        return null;
                    });
        } catch (UncheckedIOException e) {
            throw e.getCause();
        } catch (Carried e) {
            if (!gone.isEnd(e)) {
                throw (ServletException) e.getCause();
            }
        } catch (CancellationException e) {
            if (!gone.isEnd(e)) {
                throw e;
            }
        } finally {
            if (work[0] != null) {
                work[0].close();
            }
            courtesy.ends();
        }
    }
}

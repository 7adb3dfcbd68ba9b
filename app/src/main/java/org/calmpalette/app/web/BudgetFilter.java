package org.calmpalette.app.web;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.time.Duration;
import org.calmpalette.core.Budget;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;

/** Gives every request a budget of time and memory for what it asks about a theme; see {@link Budget}. */
@Component
@Order(-300)
class BudgetFilter extends OncePerRequestFilter {
    /** Processor time of one request. Ordinary ones take a twentieth of a second. */
    private static final Duration TIME = Duration.ofMillis(2_500);

    private static final long CHARACTERS = 30_000_000;
    /** After so much of its own time a request gives way to others. */
    private static final long LONG_NANOS = 250_000_000;

    private final Courtesy courtesy;

    BudgetFilter(Courtesy courtesy) {
        this.courtesy = courtesy;
    }

    /** A checked exception on its way through a budget. */
    private static final class Carried extends RuntimeException {
        Carried(ServletException cause) {
            super(null, cause, false, false);
        }
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        courtesy.begins();
        long began = Budget.time();
        Courtesy.LongWork[] work = new Courtesy.LongWork[1];
        try {
            Budget.within(
                    TIME,
                    CHARACTERS,
                    () -> {
                        if (work[0] == null && Budget.time() - began > LONG_NANOS) {
                            work[0] = courtesy.request();
                        }
                        if (work[0] != null) {
                            work[0].giveWay();
                        }
                        return false;
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
            throw (ServletException) e.getCause();
        } finally {
            if (work[0] != null) {
                work[0].close();
            }
            courtesy.ends();
        }
    }
}

package org.calmpalette.app.web;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.sql.SQLException;
import java.sql.SQLNonTransientConnectionException;
import java.sql.SQLTransientConnectionException;
import org.calmpalette.core.language.Language;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;

/**
 * While the database is gone everything that needs it says so with 503 and when to ask again; sessions need it too, so
 * nothing of our own pages can be used to tell it. It ends by itself when the database is back.
 */
@Component
@Order(Ordered.HIGHEST_PRECEDENCE + 10)
class OutageFilter extends OncePerRequestFilter {
    private static final Logger LOG = LoggerFactory.getLogger(OutageFilter.class);
    private static final String SECONDS = "5";
    private static final long CLOSED_NANOS = 1_000_000_000;
    private volatile long closedUntil = System.nanoTime() - 1;
    private final Languages languages;

    OutageFilter(Languages languages) {
        this.languages = languages;
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        if (System.nanoTime() - closedUntil < 0 && needsDatabase(request.getRequestURI())) {
            // Asking again for each request would keep them all waiting, and with them who needs no database.
            tell(request, response);
            return;
        }
        try {
            chain.doFilter(request, response);
        } catch (ServletException | RuntimeException e) {
            if (!isOutage(e) || response.isCommitted()) {
                throw e;
            }
            long now = System.nanoTime();
            if (now - closedUntil > 10_000_000_000L) {
                LOG.warn("the database does not answer: {}", rootOf(e).getMessage());
            }
            closedUntil = now + CLOSED_NANOS;
            tell(request, response);
        }
    }

    private static boolean needsDatabase(String path) {
        return !path.startsWith("/at/")
                && !path.startsWith("/assets/")
                && !path.startsWith("/webjars/")
                && !path.startsWith("/actuator/");
    }

    private void tell(HttpServletRequest request, HttpServletResponse response) throws IOException {
        Language language = languages.of(request);
        response.reset();
        response.setStatus(503);
        response.setHeader("Retry-After", SECONDS);
        response.setHeader("Cache-Control", "no-store");
        response.setContentType("text/html;charset=utf-8");
        response.getOutputStream()
                .write(
                        """
                        <!doctype html><html lang="%s"><meta charset="utf-8"><title>%s</title>
                        <h1>%s</h1>
                        <p>%s</p>
                        """
                                .formatted(
                                        language.tag(),
                                        language.sentence("outage.title"),
                                        language.sentence("outage.what"),
                                        language.sentence("outage.mend"))
                                .getBytes(StandardCharsets.UTF_8));
    }

    private static Throwable rootOf(Throwable e) {
        Throwable root = e;
        while (root.getCause() != null && root.getCause() != root) {
            root = root.getCause();
        }
        return root;
    }

    /** Whether an error comes from a connection that cannot be had or was lost: SQLSTATE class 08. */
    static boolean isOutage(Throwable e) {
        for (Throwable t = e; t != null; t = t.getCause() == t ? null : t.getCause()) {
            if (t instanceof SQLTransientConnectionException
                    || t instanceof SQLNonTransientConnectionException
                    || t instanceof SQLException s
                            && s.getSQLState() != null
                            && s.getSQLState().startsWith("08")) {
                return true;
            }
        }
        return false;
    }
}

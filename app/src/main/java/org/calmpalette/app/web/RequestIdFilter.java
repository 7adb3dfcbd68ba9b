package org.calmpalette.app.web;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.HexFormat;
import java.util.concurrent.ThreadLocalRandom;
import org.slf4j.MDC;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;

/**
 * Gives each request a short name: eight hexadecimal digits, in each line of the log that is written for it, in the head of the answer
 * and on the page that tells of a trouble. So whoever says what was on the page finds what happened.
 */
@Component
@Order(Ordered.HIGHEST_PRECEDENCE)
class RequestIdFilter extends OncePerRequestFilter {
    static final String HEADER = "X-Request-Id";
    /** Of the request: the same in the page that tells of a trouble, which is made in a second dispatch. */
    static final String ATTRIBUTE = "requestId";
    /** In the pattern of the log. */
    private static final String IN_LOG = "request";

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        String id = request.getAttribute(ATTRIBUTE) instanceof String known
                ? known
                : HexFormat.of().toHexDigits(ThreadLocalRandom.current().nextInt());
        request.setAttribute(ATTRIBUTE, id);
        response.setHeader(HEADER, id);
        MDC.put(IN_LOG, id);
        try {
            chain.doFilter(request, response);
        } finally {
            MDC.remove(IN_LOG);
        }
    }

    /** What goes wrong is told in a dispatch of its own, whose lines belong to the same request. */
    @Override
    protected boolean shouldNotFilterErrorDispatch() {
        return false;
    }
}

package org.calmpalette.app.accounts;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import org.calmpalette.app.web.Notices;
import org.springframework.security.web.authentication.AuthenticationFailureHandler;
import org.springframework.security.web.authentication.AuthenticationSuccessHandler;
import org.springframework.security.web.authentication.SavedRequestAwareAuthenticationSuccessHandler;
import org.springframework.security.web.savedrequest.CookieRequestCache;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;

/** Slows down who tries passwords; see {@link SignInTries}. The true owner of a name is told, and never shut out. */
@Component
class SignInGate extends OncePerRequestFilter {
    private final SignInTries tries;
    private final Notices notices;

    SignInGate(SignInTries tries, Notices notices) {
        this.tries = tries;
        this.notices = notices;
    }

    @Override
    protected boolean shouldNotFilter(HttpServletRequest request) {
        return !request.getMethod().equals("POST") || !request.getRequestURI().equals("/sign-in");
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        long wait = tries.secondsToWait(name(request), request.getRemoteAddr());
        if (wait > 0) {
            response.sendRedirect("/sign-in?wait=" + wait);
            return;
        }
        chain.doFilter(request, response);
    }

    private static String name(HttpServletRequest request) {
        String name = request.getParameter("username");
        return name == null ? "" : name;
    }

    AuthenticationFailureHandler failed() {
        return (request, response, why) -> {
            tries.failed(name(request), request.getRemoteAddr());
            response.sendRedirect("/sign-in?failed");
        };
    }

    AuthenticationSuccessHandler succeeded() {
        SavedRequestAwareAuthenticationSuccessHandler on = new SavedRequestAwareAuthenticationSuccessHandler();
        on.setDefaultTargetUrl("/");
        on.setRequestCache(new CookieRequestCache());
        return (request, response, person) -> {
            tries.succeeded(name(request)).ifPresent(notices::done);
            on.onAuthenticationSuccess(request, response, person);
        };
    }
}

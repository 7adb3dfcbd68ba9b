package org.calmpalette.app.web;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import org.calmpalette.core.language.Language;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;

/** Each request is answered in one language. It comes after who is signed in is known, and also where a trouble is told. */
@Component
@Order(-50)
class LanguageFilter extends OncePerRequestFilter {
    private final Languages languages;

    LanguageFilter(Languages languages) {
        this.languages = languages;
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        try (Language.Turn turn = Language.speak(languages.of(request))) {
            chain.doFilter(request, response);
        }
    }

    @Override
    protected boolean shouldNotFilterErrorDispatch() {
        return false;
    }
}

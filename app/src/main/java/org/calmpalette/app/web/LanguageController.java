package org.calmpalette.app.web;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.time.Duration;
import org.calmpalette.core.language.Language;
import org.springframework.http.HttpHeaders;
import org.springframework.http.ResponseCookie;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** Chooses the language of the owner's side, for the browser in which it is chosen: whoever reads there need not be signed in. */
@Controller
class LanguageController {
    private static final Duration KEPT = Duration.ofDays(365);

    private final Languages languages;

    LanguageController(Languages languages) {
        this.languages = languages;
    }

    @PostMapping("/language")
    String choose(@RequestParam String tag, HttpServletRequest request, HttpServletResponse response) {
        Language language = languages.tagged(tag).orElseThrow(NotFoundException::new);
        response.addHeader(
                HttpHeaders.SET_COOKIE,
                ResponseCookie.from(Languages.COOKIE, language.tag())
                        .path("/")
                        .maxAge(KEPT)
                        .httpOnly(true)
                        .secure(request.isSecure())
                        .sameSite("Lax")
                        .build()
                        .toString());
        return "redirect:" + RequestPath.from(request);
    }
}

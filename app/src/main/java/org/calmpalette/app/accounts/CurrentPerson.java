package org.calmpalette.app.accounts;

import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.ControllerAdvice;
import org.springframework.web.bind.annotation.ModelAttribute;

/** Gives every page the person who is signed in, as {@code me}. */
@ControllerAdvice
class CurrentPerson {
    @ModelAttribute("me")
    SignedIn me(@AuthenticationPrincipal SignedIn me) {
        return me;
    }
}

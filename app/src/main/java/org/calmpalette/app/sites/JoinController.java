package org.calmpalette.app.sites;

import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import org.calmpalette.app.accounts.AccountService;
import org.calmpalette.app.accounts.SignedIn;
import org.calmpalette.core.BadInputException;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** Opens a maker's invitation to a site. */
@Controller
class JoinController {
    private final SiteOwners owners;

    JoinController(SiteOwners owners) {
        this.owners = owners;
    }

    @GetMapping("/join/{token}")
    String show(@PathVariable String token, Model model) {
        model.addAttribute("site", owners.invited(token));
        return "sites/join";
    }

    @PostMapping("/join/{token}")
    String join(
            @PathVariable String token,
            @RequestParam String signIn,
            @RequestParam String name,
            @RequestParam String password,
            Model model,
            HttpServletRequest request)
            throws ServletException {
        try {
            owners.join(token, signIn, name, password);
            return AccountService.signIn(request, signIn, password, "/sites");
        } catch (BadInputException e) {
            model.addAttribute("site", owners.stillInvited(token).orElseThrow(() -> e));
            model.addAttribute("problem", e.getMessage() + " " + e.mend());
            model.addAttribute("signIn", signIn);
            model.addAttribute("name", name);
            return "sites/join";
        }
    }

    /** Somebody who has an account already takes part with it. */
    @PostMapping("/join/{token}/as-me")
    String joinAsMe(@PathVariable String token, @AuthenticationPrincipal SignedIn me) {
        return "redirect:/sites/" + owners.join(token, me);
    }
}

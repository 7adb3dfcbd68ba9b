package org.calmpalette.app.people;

import jakarta.servlet.http.HttpServletResponse;
import org.calmpalette.app.accounts.AccountService;
import org.calmpalette.core.BadInputException;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** A new password in the place of a forgotten one, by a link. */
@Controller
@RequestMapping("/password/{token}")
class PasswordController {
    private final AccountService accounts;

    PasswordController(AccountService accounts) {
        this.accounts = accounts;
    }

    @GetMapping
    String show(@PathVariable String token, Model model) {
        model.addAttribute("account", accounts.renewing(token).orElseThrow(AccountService::overOrUsed));
        model.addAttribute("token", token);
        return "people/password";
    }

    @PostMapping
    String renew(@PathVariable String token, @RequestParam String next, Model model, HttpServletResponse response) {
        try {
            accounts.renew(token, next);
            return "redirect:/sign-in?renewed";
        } catch (BadInputException refused) {
            String again = show(token, model);
            response.setStatus(HttpStatus.UNPROCESSABLE_CONTENT.value());
            model.addAttribute("problem", refused.getMessage() + " " + refused.mend());
            return again;
        }
    }
}

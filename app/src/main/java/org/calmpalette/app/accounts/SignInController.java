package org.calmpalette.app.accounts;

import org.calmpalette.app.CalmProperties;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.language.Language;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** Signing in, and making the first maker's account. */
@Controller
class SignInController {
    private final AccountService accounts;
    private final CalmProperties calm;

    SignInController(AccountService accounts, CalmProperties calm) {
        this.accounts = accounts;
        this.calm = calm;
    }

    @GetMapping("/")
    String home(@AuthenticationPrincipal SignedIn me) {
        return me == null ? "redirect:/sign-in" : me.isMaker() ? "redirect:/themes" : "redirect:/sites";
    }

    @GetMapping("/sign-in")
    String signIn(
            @RequestParam(required = false) String failed, @RequestParam(required = false) Long wait, Model model) {
        if (accounts.isEmpty()) {
            return "redirect:/welcome";
        }
        if (wait != null) {
            model.addAttribute("problem", Language.say("sign-in.wait", Math.max(1, Math.min(600, wait))));
        } else if (failed != null) {
            model.addAttribute("problem", Language.say("sign-in.wrong"));
        }
        if (calm.demo()) {
            model.addAttribute("demoPassword", calm.demoPassword());
        }
        return "accounts/sign-in";
    }

    @GetMapping("/welcome")
    String welcome() {
        return accounts.isEmpty() ? "accounts/welcome" : "redirect:/sign-in";
    }

    @PostMapping("/welcome")
    String create(
            @RequestParam String code,
            @RequestParam String signIn,
            @RequestParam String name,
            @RequestParam String password,
            Model model) {
        if (!accounts.isEmpty()) {
            return "redirect:/sign-in";
        }
        try {
            if (calm.setupCode().isEmpty()
                    || !java.security.MessageDigest.isEqual(
                            code.strip().getBytes(java.nio.charset.StandardCharsets.UTF_8),
                            calm.setupCode().getBytes(java.nio.charset.StandardCharsets.UTF_8))) {
                throw new BadInputException(
                        "This is not the code that was printed at start.",
                        "Look where the application was started; the code stands under its address.");
            }
            accounts.create(signIn, name, password, Role.MAKER);
            return "redirect:/sign-in?made";
        } catch (BadInputException e) {
            model.addAttribute("problem", e.getMessage() + " " + e.mend());
            model.addAttribute("signIn", signIn);
            model.addAttribute("name", name);
            return "accounts/welcome";
        }
    }
}

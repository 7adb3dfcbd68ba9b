package org.calmpalette.app.people;

import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import jakarta.servlet.http.HttpSession;
import org.calmpalette.app.accounts.AccountService;
import org.calmpalette.app.accounts.SignedIn;
import org.calmpalette.app.web.Notices;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.language.Language;
import org.springframework.http.HttpStatus;
import org.springframework.security.authentication.UsernamePasswordAuthenticationToken;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.security.core.context.SecurityContext;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.security.web.context.HttpSessionSecurityContextRepository;
import org.springframework.security.web.context.SecurityContextRepository;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** A person's own account, and letting other makers in. */
@Controller
class PeopleController {
    private final PeopleService people;
    private final AccountService accounts;
    private final Notices notices;
    private final SecurityContextRepository contexts = new HttpSessionSecurityContextRepository();

    PeopleController(PeopleService people, AccountService accounts, Notices notices) {
        this.people = people;
        this.accounts = accounts;
        this.notices = notices;
    }

    @GetMapping("/account")
    String account(@AuthenticationPrincipal SignedIn me, Model model) {
        model.addAttribute("has", people.of(me));
        if (me.isMaker()) {
            model.addAttribute("makers", accounts.makers());
            model.addAttribute("invitations", accounts.invitations(me));
        }
        return "people/account";
    }

    @PostMapping("/account/password")
    String password(
            @RequestParam String now,
            @RequestParam String next,
            @AuthenticationPrincipal SignedIn me,
            Model model,
            HttpSession session,
            HttpServletResponse response) {
        try {
            accounts.changePassword(me, now, next, session.getId());
        } catch (BadInputException refused) {
            // It is told where it was written.
            response.setStatus(HttpStatus.UNPROCESSABLE_CONTENT.value());
            model.addAttribute("passwordProblem", refused.getMessage() + " " + refused.mend());
            return account(me, model);
        }
        notices.done(Language.say("account.password.done"));
        return "redirect:/account";
    }

    @PostMapping("/account/name")
    String name(
            @RequestParam String name,
            @AuthenticationPrincipal SignedIn me,
            HttpServletRequest request,
            HttpServletResponse response) {
        SignedIn renamed = accounts.rename(me, name);
        SecurityContext context = SecurityContextHolder.createEmptyContext();
        context.setAuthentication(
                UsernamePasswordAuthenticationToken.authenticated(renamed, null, renamed.getAuthorities()));
        SecurityContextHolder.setContext(context);
        contexts.saveContext(context, request, response);
        notices.done(Language.say("account.name.done", renamed.name()));
        return "redirect:/account";
    }

    @PostMapping("/account/remove")
    String remove(
            @RequestParam String password,
            @RequestParam(defaultValue = "") String handTo,
            @AuthenticationPrincipal SignedIn me,
            HttpServletRequest request) {
        people.remove(me, password, handTo);
        HttpSession session = request.getSession(false);
        if (session != null) {
            session.invalidate();
        }
        return "redirect:/sign-in?removed";
    }

    @PostMapping("/makers/invite")
    String invite(@AuthenticationPrincipal SignedIn me) {
        accounts.inviteMaker(me);
        notices.done("Made an invitation for another maker. It works once");
        return "redirect:/account";
    }

    @PostMapping("/makers/withdraw")
    String withdraw(@RequestParam String token, @AuthenticationPrincipal SignedIn me) {
        accounts.withdraw(token, me);
        notices.done("Withdrew the invitation");
        return "redirect:/account";
    }

    @GetMapping("/makers/join/{token}")
    String show(@PathVariable String token, Model model) {
        model.addAttribute("by", accounts.invitedBy(token).orElseThrow(AccountService::used));
        model.addAttribute("token", token);
        return "people/join-makers";
    }

    @PostMapping("/makers/join/{token}")
    String join(
            @PathVariable String token,
            @RequestParam String signIn,
            @RequestParam String name,
            @RequestParam String password,
            Model model,
            HttpServletRequest request)
            throws ServletException {
        try {
            accounts.joinAsMaker(token, signIn, name, password);
            return AccountService.signIn(request, signIn, password, "/themes");
        } catch (BadInputException e) {
            model.addAttribute("by", accounts.invitedBy(token).orElseThrow(() -> e));
            model.addAttribute("token", token);
            model.addAttribute("problem", e.getMessage() + " " + e.mend());
            model.addAttribute("signIn", signIn);
            model.addAttribute("name", name);
            return "people/join-makers";
        }
    }
}

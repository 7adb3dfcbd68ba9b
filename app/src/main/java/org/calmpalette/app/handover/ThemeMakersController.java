package org.calmpalette.app.handover;

import org.calmpalette.app.accounts.SignedIn;
import org.calmpalette.app.web.Notices;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;

/** Who works on a theme, and how others come to it. */
@Controller
class ThemeMakersController {
    private final ThemeMakers makers;
    private final Notices notices;

    ThemeMakersController(ThemeMakers makers, Notices notices) {
        this.makers = makers;
        this.notices = notices;
    }

    @PostMapping("/themes/{id}/makers/invite")
    String invite(@PathVariable long id, @AuthenticationPrincipal SignedIn me) {
        makers.invite(id, me);
        notices.done("Made an invitation to the theme. It works once");
        return back(id);
    }

    @PostMapping("/themes/{id}/makers/withdraw")
    String withdraw(@PathVariable long id, @AuthenticationPrincipal SignedIn me) {
        makers.withdraw(id, me);
        notices.done("Withdrew the invitation");
        return back(id);
    }

    @PostMapping("/themes/{id}/makers/leave")
    String leave(@PathVariable long id, @AuthenticationPrincipal SignedIn me) {
        notices.done("You have left " + makers.leave(id, me));
        return "redirect:/themes";
    }

    @PostMapping("/themes/{id}/makers/{maker}/take-off")
    String takeOff(@PathVariable long id, @PathVariable long maker, @AuthenticationPrincipal SignedIn me) {
        notices.done(makers.takeOff(id, maker, me) + " works on the theme no longer");
        return back(id);
    }

    private static String back(long id) {
        return "redirect:/themes/" + id + "/handover#makers-title";
    }

    /** Opened by a maker who is signed in: an account of their own is what they come with. */
    @GetMapping("/makers/theme/{token}")
    String show(@PathVariable String token, @AuthenticationPrincipal SignedIn me, Model model) {
        ThemeMakers.Invited to = makers.invited(token);
        model.addAttribute("to", to);
        model.addAttribute("token", token);
        model.addAttribute(
                "there", to.theme().makerId() == me.id() || to.theme().others().contains(me.id()));
        return "handover/join-theme";
    }

    @PostMapping("/makers/theme/{token}")
    String join(@PathVariable String token, @AuthenticationPrincipal SignedIn me) {
        return "redirect:/themes/" + makers.join(token, me) + "/survey";
    }
}

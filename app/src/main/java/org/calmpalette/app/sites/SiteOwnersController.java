package org.calmpalette.app.sites;

import org.calmpalette.app.accounts.SignedIn;
import org.calmpalette.app.web.Notices;
import org.calmpalette.core.language.Language;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;

/** Who has a site, seen by those who have it. */
@Controller
@RequestMapping("/sites/{slug}/people")
class SiteOwnersController {
    private final SiteOwners owners;
    private final Notices notices;

    SiteOwnersController(SiteOwners owners, Notices notices) {
        this.owners = owners;
        this.notices = notices;
    }

    @GetMapping
    String look(@PathVariable String slug, @AuthenticationPrincipal SignedIn me, Model model) {
        Site site = owners.mine(slug, me);
        model.addAttribute("site", site);
        model.addAttribute("owners", owners.of(site));
        model.addAttribute("most", SiteOwners.MOST);
        model.addAttribute("days", SiteOwners.DAYS);
        return "sites/people";
    }

    @PostMapping("/invite")
    String invite(@PathVariable String slug, @AuthenticationPrincipal SignedIn me) {
        owners.invite(slug, me);
        notices.done(Language.say("people.invited"));
        return "redirect:/sites/" + slug + "/people";
    }

    @PostMapping("/withdraw")
    String withdraw(@PathVariable String slug, @AuthenticationPrincipal SignedIn me) {
        owners.withdraw(slug, me);
        notices.done(Language.say("people.withdrawn"));
        return "redirect:/sites/" + slug + "/people";
    }

    @PostMapping("/leave")
    String leave(@PathVariable String slug, @AuthenticationPrincipal SignedIn me) {
        String name = owners.mine(slug, me).name();
        owners.leave(slug, me);
        notices.done(Language.say("people.left", name));
        return "redirect:/sites";
    }
}

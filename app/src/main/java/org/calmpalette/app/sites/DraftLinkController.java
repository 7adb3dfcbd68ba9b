package org.calmpalette.app.sites;

import jakarta.servlet.http.HttpServletRequest;
import org.calmpalette.app.accounts.SignedIn;
import org.calmpalette.app.web.RequestPath;
import org.calmpalette.app.web.Strip;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;

/** The draft in the hand: a link to it, drawn as a code that a phone's camera reads. */
@Controller
@RequestMapping("/sites/{slug}/hand")
class DraftLinkController {
    private final SiteService sites;
    private final DraftLinks links;

    DraftLinkController(SiteService sites, DraftLinks links) {
        this.sites = sites;
        this.links = links;
    }

    @GetMapping
    String look(
            @PathVariable String slug, @AuthenticationPrincipal SignedIn me, Model model, HttpServletRequest request) {
        SiteService.OpenSite open = sites.open(slug, me);
        model.addAttribute("open", open);
        model.addAttribute("days", DraftLinks.DAYS);
        DraftLinks.Link link = links.of(open.site().id()).orElse(null);
        model.addAttribute("link", link);
        if (link != null) {
            String address = RequestPath.origin(request)
                    + Strip.of(open.theme(), link.address(), "index.html", null).address();
            model.addAttribute("address", address);
            model.addAttribute("code", DraftLinks.Code.of(address));
        }
        return "sites/hand :: hand";
    }

    @PostMapping
    String make(
            @PathVariable String slug, @AuthenticationPrincipal SignedIn me, Model model, HttpServletRequest request) {
        links.make(sites.open(slug, me).site().id());
        return look(slug, me, model, request);
    }

    @PostMapping("/withdraw")
    String withdraw(
            @PathVariable String slug, @AuthenticationPrincipal SignedIn me, Model model, HttpServletRequest request) {
        links.withdraw(sites.open(slug, me).site().id());
        return look(slug, me, model, request);
    }
}

package org.calmpalette.app.handover;

import java.util.List;
import java.util.Map;
import org.calmpalette.app.accounts.Account;
import org.calmpalette.app.accounts.AccountService;
import org.calmpalette.app.accounts.SignedIn;
import org.calmpalette.app.sites.Site;
import org.calmpalette.app.sites.SiteOwners;
import org.calmpalette.app.sites.SiteService;
import org.calmpalette.app.sites.SiteUploads;
import org.calmpalette.app.themes.OpenTheme;
import org.calmpalette.app.themes.ThemeService;
import org.calmpalette.app.web.Notices;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.intake.ThemeZip;
import org.calmpalette.core.output.Handover;
import org.calmpalette.core.setting.Chosen;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.ThemeFiles;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.servlet.mvc.method.annotation.StreamingResponseBody;

/** The finished theme as a zip, and the sites that use it. */
@Controller
@RequestMapping("/themes/{id}")
class HandoverController {
    private final ThemeService themes;
    private final SiteService sites;
    private final SiteOwners owners;
    private final SiteUploads uploads;
    private final ThemeMakers makers;
    private final Notices notices;

    HandoverController(
            ThemeService themes,
            SiteService sites,
            SiteOwners owners,
            SiteUploads uploads,
            ThemeMakers makers,
            Notices notices) {
        this.makers = makers;
        this.owners = owners;
        this.uploads = uploads;
        this.themes = themes;
        this.sites = sites;
        this.notices = notices;
    }

    /** A site with those who have it; none while it is its maker's. */
    public record Listed(Site site, List<Account> owners) {}

    @GetMapping("/handover")
    String handover(@PathVariable long id, @AuthenticationPrincipal SignedIn me, Model model) {
        OpenTheme open = themes.open(id, me);
        List<Listed> listed = sites.ofTheme(id, me).stream()
                .map(s -> new Listed(s, owners.of(s)))
                .toList();
        model.addAttribute("open", open);
        model.addAttribute("sites", listed);
        model.addAttribute("broken", broken(open));
        model.addAttribute("wants", wantsAWord(open));
        model.addAttribute("makers", makers.of(open.stored()));
        model.addAttribute("invitation", makers.invitation(open.stored()).orElse(null));
        model.addAttribute("days", ThemeMakers.DAYS);
        model.addAttribute("full", open.stored().others().size() + 1 >= ThemeMakers.MOST);
        return "handover/handover";
    }

    private static int broken(OpenTheme open) {
        String count = open.brokenCount();
        return count.isEmpty() ? 0 : Integer.parseInt(count);
    }

    private static boolean wantsAWord(OpenTheme open) {
        return broken(open) > 0 && open.head().givenOut() == null;
    }

    /** What its maker knows to be broken does not go out without a word on why; it stands in the history. */
    @PostMapping("/handover/word")
    String word(
            @PathVariable long id,
            @RequestParam long base,
            @RequestParam(defaultValue = "") String why,
            @AuthenticationPrincipal SignedIn me) {
        themes.giveOut(id, base, why, me);
        notices.done("The theme goes out as it is: " + why.strip());
        return "redirect:/themes/" + id + "/handover";
    }

    /** @param seen how many broken promises the page told of on which it was pressed */
    private static void demandAWord(OpenTheme open, int seen) {
        if (seen > 0 && wantsAWord(open)) {
            throw new BadInputException(
                    seen == 1 ? "A promise is broken." : seen + " promises are broken.",
                    "Say first, on the page of the handover, why the theme goes out all the same.");
        }
    }

    @GetMapping("/handover.zip")
    ResponseEntity<StreamingResponseBody> zip(
            @PathVariable long id, @RequestParam(required = false) Long site, @AuthenticationPrincipal SignedIn me) {
        OpenTheme open = themes.open(id, me);
        Map<String, Chosen> values = site == null ? null : sites.liveChoices(site, me);
        // Pictures that the site's owner brought go with the choices that name them.
        Theme theme = site == null
                ? open.theme()
                : uploads.read(site, open.head().id(), values).theme();
        ThemeFiles files = Handover.files(theme, values);
        String name = open.stored().name().replaceAll("[^\\p{L}\\p{N}]+", "-") + ".zip";
        return ResponseEntity.ok()
                .header(HttpHeaders.CONTENT_TYPE, "application/zip")
                .header(
                        HttpHeaders.CONTENT_DISPOSITION,
                        ContentDisposition.attachment()
                                .filename(name, java.nio.charset.StandardCharsets.UTF_8)
                                .build()
                                .toString())
                .body(out -> ThemeZip.write(files, out));
    }

    @PostMapping("/sites")
    String create(
            @PathVariable long id,
            @RequestParam String name,
            @RequestParam(defaultValue = "") String owner,
            @RequestParam(defaultValue = "me") String whose,
            @RequestParam(defaultValue = "0") int broken,
            @AuthenticationPrincipal SignedIn me) {
        OpenTheme open = themes.open(id, me);
        demandAWord(open, broken);
        Site site = sites.create(open, name, whose, owner, me);
        notices.done("Made the site " + site.name());
        return "redirect:/themes/" + id + "/handover";
    }

    @PostMapping("/sites/{site}/give")
    String give(
            @PathVariable long id,
            @PathVariable long site,
            @RequestParam(defaultValue = "") String owner,
            @AuthenticationPrincipal SignedIn me) {
        owners.give(site, owner, me);
        notices.done(owner.isBlank() ? "Made an invitation. It works once" : "Gave the site to " + owner.strip());
        return "redirect:/themes/" + id + "/handover";
    }

    @PostMapping("/sites/{site}/withdraw")
    String withdraw(@PathVariable long id, @PathVariable long site, @AuthenticationPrincipal SignedIn me) {
        owners.withdraw(site, me);
        notices.done("Withdrew the invitation");
        return "redirect:/themes/" + id + "/handover";
    }

    @PostMapping("/sites/{site}/owners/{owner}/take-off")
    String takeOff(
            @PathVariable long id,
            @PathVariable long site,
            @PathVariable long owner,
            @AuthenticationPrincipal SignedIn me) {
        notices.done(owners.takeOff(site, owner, me) + " has the site no longer");
        return "redirect:/themes/" + id + "/handover";
    }

    /** The link is shown in this answer alone: only its hash is kept. */
    @PostMapping("/sites/{site}/owners/{owner}/password")
    String password(
            @PathVariable long id,
            @PathVariable long site,
            @PathVariable long owner,
            @AuthenticationPrincipal SignedIn me,
            Model model) {
        model.addAttribute("renewal", owners.renewal(site, owner, me));
        model.addAttribute("hours", AccountService.HOURS);
        return handover(id, me, model);
    }

    @PostMapping("/sites/{site}/remove")
    String remove(
            @PathVariable long id,
            @PathVariable long site,
            @RequestParam String confirmed,
            @AuthenticationPrincipal SignedIn me) {
        sites.remove(site, confirmed, me);
        notices.done("Removed the site " + confirmed.strip());
        return "redirect:/themes/" + id + "/handover";
    }

    /** The owner's side of the theme as it is now, for its maker. */
    @PostMapping("/try-out")
    String tryOut(@PathVariable long id, @AuthenticationPrincipal SignedIn me) {
        return "redirect:/sites/" + sites.tryOut(themes.open(id, me), me).slug();
    }

    @PostMapping("/sites/{site}/update")
    String update(
            @PathVariable long id,
            @PathVariable long site,
            @RequestParam(defaultValue = "0") int broken,
            @AuthenticationPrincipal SignedIn me) {
        OpenTheme open = themes.open(id, me);
        demandAWord(open, broken);
        sites.update(site, open, me);
        notices.done("The site's next edition will use the theme as it is now");
        return "redirect:/themes/" + id + "/handover";
    }
}

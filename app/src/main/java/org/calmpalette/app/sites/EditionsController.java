package org.calmpalette.app.sites;

import java.util.ArrayList;
import java.util.List;
import org.calmpalette.app.accounts.SignedIn;
import org.calmpalette.app.frames.FrameAddresses;
import org.calmpalette.app.web.Notices;
import org.calmpalette.app.web.Strip;
import org.calmpalette.core.intake.ThemeZip;
import org.calmpalette.core.language.Language;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.ThemeFiles;
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

/** Looking at what goes live first, letting it go live, and earlier editions. */
@Controller
@RequestMapping("/sites")
class EditionsController {
    private final SiteService sites;
    private final Editions editions;
    private final FrameAddresses addresses;
    private final Notices notices;

    EditionsController(SiteService sites, Editions editions, FrameAddresses addresses, Notices notices) {
        this.sites = sites;
        this.editions = editions;
        this.addresses = addresses;
        this.notices = notices;
    }

    /** What going live would change, to be looked at first. */
    @GetMapping("/{slug}/review")
    String review(
            @PathVariable String slug,
            @RequestParam(defaultValue = "") String page,
            @AuthenticationPrincipal SignedIn me,
            Model model) {
        SiteService.OpenSite open = sites.open(slug, me);
        model.addAttribute("edition", null);
        model.addAttribute("dropped", SiteController.dropped(open));
        review(
                open,
                open.live(),
                editions.review(
                        open,
                        open.live(),
                        open.draft().snapshotId(),
                        open.draft().choices()),
                Strip.of(open.theme(), addresses.ofDraft(open.draft().id()), page, null),
                model);
        return "sites/review";
    }

    /**
     * What taking an earlier edition back would change; or what is otherwise in it than in another one.
     *
     * @param beside number of the other edition; 0 for what is live
     */
    @GetMapping("/{slug}/editions/{number}")
    String edition(
            @PathVariable String slug,
            @PathVariable int number,
            @RequestParam(defaultValue = "") String page,
            @RequestParam(defaultValue = "0") int beside,
            @AuthenticationPrincipal SignedIn me,
            Model model) {
        SiteService.OpenSite open = sites.open(slug, me);
        Edition edition = editions.edition(slug, number, me);
        Edition other = beside == 0 || beside == number ? open.live() : editions.edition(slug, beside, me);
        model.addAttribute("edition", edition);
        model.addAttribute("dropped", List.of());
        model.addAttribute(
                "others",
                editions.all(slug, me).stream()
                        .filter(e -> e.number() != number)
                        .toList());
        review(
                open,
                other,
                editions.review(open, other, edition.snapshotId(), Choices.chosenIn(edition)),
                strip(edition, page),
                model);
        return "sites/review";
    }

    private Strip strip(Edition edition, String page) {
        Theme theme = sites.read(sites.edition(edition.id())).theme();
        return Strip.of(theme, addresses.ofEdition(edition.id()), page, null);
    }

    /** @param beside with which it is compared; null where nothing was live yet */
    private void review(SiteService.OpenSite open, Edition beside, Review review, Strip next, Model model) {
        model.addAttribute("open", open);
        model.addAttribute("review", review);
        model.addAttribute("next", next);
        model.addAttribute("now", beside == null ? null : strip(beside, next.page()));
        model.addAttribute("beside", beside);
        model.addAttribute(
                "besideLive",
                beside == null || open.live() != null && open.live().id() == beside.id());
    }

    /** @param base the draft that was looked at, and {@code snapshot} the theme's state; 0 for whatever there is */
    @PostMapping("/{slug}/go-live")
    String goLive(
            @PathVariable String slug,
            @RequestParam(defaultValue = "0") long base,
            @RequestParam(defaultValue = "0") long snapshot,
            @RequestParam(defaultValue = "") String word,
            @AuthenticationPrincipal SignedIn me) {
        if (base == 0) {
            editions.goLive(slug, me);
        } else if (!editions.goLive(slug, base, snapshot, word, me)) {
            notices.done(Language.say("done.live.changed"));
            return "redirect:/sites/" + slug + "/review";
        }
        List<String> dropped = SiteController.dropped(sites.open(slug, me));
        notices.done(
                dropped.isEmpty()
                        ? Language.say("done.live")
                        : Language.say("done.live.but", Language.say("done.live"), String.join(". ", dropped)));
        return "redirect:/sites/" + slug;
    }

    /** What is live, as files. */
    @GetMapping("/{slug}/live.zip")
    ResponseEntity<StreamingResponseBody> files(@PathVariable String slug, @AuthenticationPrincipal SignedIn me) {
        ThemeFiles files = editions.files(slug, me);
        return ResponseEntity.ok()
                .header("Content-Type", "application/zip")
                .header("Content-Disposition", "attachment; filename=\"" + slug + ".zip\"")
                .body(out -> ThemeZip.write(files, out));
    }

    /** Of so many of the newest a small picture is shown. */
    private static final int WITH_PICTURES = 12;

    /** @param picture address of its first page, or empty */
    public record Shown(EditionRepository.Line line, String picture) {}

    @GetMapping("/{slug}/editions")
    String editions(@PathVariable String slug, @AuthenticationPrincipal SignedIn me, Model model) {
        SiteService.OpenSite open = sites.open(slug, me);
        String first = Strip.of(open.theme(), "", "index.html", null).address();
        List<EditionRepository.Line> all = editions.all(slug, me);
        List<Shown> shown = new ArrayList<>();
        for (int i = 0; i < all.size(); i++) {
            shown.add(new Shown(
                    all.get(i),
                    i < WITH_PICTURES ? addresses.ofEdition(all.get(i).id()) + first : ""));
        }
        model.addAttribute("open", open);
        model.addAttribute("editions", shown);
        return "sites/editions";
    }

    @PostMapping("/{slug}/editions/{number}/take-back")
    String takeBack(@PathVariable String slug, @PathVariable int number, @AuthenticationPrincipal SignedIn me) {
        editions.takeBack(slug, number, me);
        notices.done(Language.say("done.again", number));
        return "redirect:/sites/" + slug + "/editions";
    }
}

package org.calmpalette.app.sites;

import java.util.ArrayList;
import java.util.List;
import org.calmpalette.app.accounts.SignedIn;
import org.calmpalette.app.frames.FrameAddresses;
import org.calmpalette.app.themes.ThemeService;
import org.calmpalette.app.web.Notices;
import org.calmpalette.app.web.Strip;
import org.calmpalette.core.setting.Allowed;
import org.calmpalette.core.setting.Place;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.survey.ColorSurvey;
import org.calmpalette.core.part.Painted;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** The owner's side: places, questions, going live, earlier editions. */
@Controller
@RequestMapping("/sites")
class SiteController {
  private final SiteService sites;
  private final ThemeService themes;
  private final FrameAddresses addresses;
  private final Notices notices;

  SiteController(SiteService sites, ThemeService themes, FrameAddresses addresses, Notices notices) {
    this.sites = sites;
    this.themes = themes;
    this.addresses = addresses;
    this.notices = notices;
  }

  /** One question of the slip: a setting with the value it has in the draft. */
  public record Question(Setting setting, String value, List<Painted> painted, List<String> swatches, String refusal) {
    public boolean isAny() {
      return setting.allowed() instanceof Allowed.AnyColor;
    }

    public boolean isChanged() {
      return !setting.isDefault(value);
    }
  }

  /** A place with its questions. */
  public record Asked(Place place, List<Question> questions) {}

  @GetMapping
  String list(@AuthenticationPrincipal SignedIn me, Model model) {
    List<Site> mine = sites.mine(me);
    if (mine.size() == 1 && !me.isMaker()) {
      return "redirect:/sites/" + mine.get(0).slug();
    }
    model.addAttribute("sites", mine);
    return "sites/sites";
  }

  @GetMapping("/{slug}")
  String site(@PathVariable String slug, @AuthenticationPrincipal SignedIn me, Model model) {
    fill(sites.open(slug, me), model);
    return "sites/site";
  }

  private void fill(SiteService.OpenSite open, Model model) {
    ColorSurvey.Result colors = themes.read(themes.snapshot(open.site().snapshotId())).colors();
    List<Asked> asked = new ArrayList<>();
    for (Place place : open.theme().palette().places()) {
      List<Question> questions = open.theme().palette().settingsIn(place).stream().map(s -> {
        String value = open.draft().choices().getOrDefault(s.key(), s.defaultValue());
        List<Painted> painted = colors.boundTo(s.key()).stream().flatMap(b -> b.paints().stream()).distinct().toList();
        List<String> swatches = s.allowed().choices();
        return new Question(s, value, painted, swatches, s.refusal(value).orElse(""));
      }).toList();
      if (!questions.isEmpty()) {
        asked.add(new Asked(place, questions));
      }
    }
    model.addAttribute("open", open);
    model.addAttribute("asked", asked);
    model.addAttribute("strip", Strip.of(open.theme(), addresses.ofDraft(open.draft().id()), "index.html"));
  }

  /** Answers with the state of the draft; the slip itself stays, so that focus and scrolling stay too. */
  @PostMapping("/{slug}/choose")
  String choose(@PathVariable String slug, @RequestParam String key, @RequestParam String value,
      @AuthenticationPrincipal SignedIn me, Model model) {
    sites.choose(slug, key, value, me);
    fill(sites.open(slug, me), model);
    return "sites/site :: state";
  }

  @PostMapping("/{slug}/undo")
  String undo(@PathVariable String slug, @AuthenticationPrincipal SignedIn me, Model model) {
    sites.undo(slug, me);
    return slip(slug, me, model);
  }

  @PostMapping("/{slug}/redo")
  String redo(@PathVariable String slug, @AuthenticationPrincipal SignedIn me, Model model) {
    sites.redo(slug, me);
    return slip(slug, me, model);
  }

  @PostMapping("/{slug}/put-back")
  String putBack(@PathVariable String slug, @AuthenticationPrincipal SignedIn me, Model model) {
    sites.putBack(slug, me);
    return slip(slug, me, model);
  }

  private String slip(String slug, SignedIn me, Model model) {
    fill(sites.open(slug, me), model);
    return "sites/site :: slip-and-state";
  }

  @PostMapping("/{slug}/go-live")
  String goLive(@PathVariable String slug, @AuthenticationPrincipal SignedIn me) {
    sites.goLive(slug, me);
    notices.done("Your site is live. Visitors see it at their next load");
    return "redirect:/sites/" + slug;
  }

  @GetMapping("/{slug}/editions")
  String editions(@PathVariable String slug, @AuthenticationPrincipal SignedIn me, Model model) {
    model.addAttribute("open", sites.open(slug, me));
    model.addAttribute("editions", sites.editions(slug, me));
    return "sites/editions";
  }

  @PostMapping("/{slug}/editions/{number}/take-back")
  String takeBack(@PathVariable String slug, @PathVariable int number, @AuthenticationPrincipal SignedIn me) {
    sites.takeBack(slug, number, me);
    notices.done("Edition " + number + " is live again. Your draft is as it was");
    return "redirect:/sites/" + slug + "/editions";
  }
}

package org.calmpalette.app.settings;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.calmpalette.app.accounts.SignedIn;
import org.calmpalette.app.frames.FrameAddresses;
import org.calmpalette.app.themes.OpenTheme;
import org.calmpalette.app.themes.Snapshot;
import org.calmpalette.app.themes.ThemeService;
import org.calmpalette.app.web.Go;
import org.calmpalette.app.web.Notices;
import org.calmpalette.app.web.Strip;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.survey.BoundUse;
import org.calmpalette.core.survey.ColorRow;
import org.calmpalette.core.part.Landmarks;
import org.calmpalette.core.survey.Lift;
import org.calmpalette.core.part.Painted;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** The maker's desk: a theme's settings with what each paints and what an owner may choose. */
@Controller
@RequestMapping("/themes/{id}/settings")
class SettingsController {
  private final ThemeService themes;
  private final FrameAddresses addresses;
  private final Notices notices;

  SettingsController(ThemeService themes, FrameAddresses addresses, Notices notices) {
    this.themes = themes;
    this.addresses = addresses;
    this.notices = notices;
  }

  @GetMapping
  String settings(@PathVariable long id, @RequestParam(defaultValue = "") String key,
      @RequestParam(defaultValue = "") String page, @AuthenticationPrincipal SignedIn me, Model model) {
    OpenTheme open = themes.open(id, me);
    model.addAttribute("open", open);
    model.addAttribute("strip", Strip.of(open.theme(), addresses.ofSnapshot(open.head().id()), page));
    model.addAttribute("counts", counts(open));
    List<Setting> settings = open.theme().palette().settings();
    Setting chosen = open.theme().palette().setting(key).orElse(settings.isEmpty() ? null : settings.get(0));
    if (chosen != null) {
      card(open, chosen, model);
    }
    return "settings/settings";
  }

  @GetMapping("/card")
  String card(@PathVariable long id, @RequestParam String key, @AuthenticationPrincipal SignedIn me, Model model) {
    OpenTheme open = themes.open(id, me);
    model.addAttribute("open", open);
    open.theme().palette().setting(key).ifPresent(s -> card(open, s, model));
    return "settings/settings :: card";
  }

  private static void card(OpenTheme open, Setting setting, Model model) {
    List<BoundUse> bound = open.colors().boundTo(setting.key());
    List<Painted> painted = painted(bound);
    int pages = 0;
    int parts = 0;
    for (Page page : open.theme().pages()) {
      int count = Landmarks.count(painted, page);
      parts += count;
      pages += count > 0 ? 1 : 0;
    }
    model.addAttribute("setting", setting);
    model.addAttribute("bound", bound);
    model.addAttribute("painted", painted);
    model.addAttribute("parts", parts);
    model.addAttribute("pagesPainted", pages);
    model.addAttribute("themeColors", open.colors().rows().stream().limit(14).map(ColorRow::value).toList());
  }

  private static List<Painted> painted(List<BoundUse> bound) {
    return bound.stream().flatMap(b -> b.paints().stream()).distinct().toList();
  }

  /** How many parts of all pages each setting may paint, by key. */
  private static Map<String, Integer> counts(OpenTheme open) {
    Map<String, List<Painted>> byKey = new HashMap<>();
    for (BoundUse b : open.colors().bound()) {
      byKey.computeIfAbsent(b.key(), k -> new ArrayList<>()).addAll(b.paints());
    }
    Map<String, Integer> counts = new HashMap<>();
    byKey.forEach((key, painted) -> counts.put(key,
        open.theme().pages().stream().mapToInt(p -> Landmarks.count(painted, p)).sum()));
    return counts;
  }

  @PostMapping
  String save(@PathVariable long id, @RequestParam long base, SettingForm form, @AuthenticationPrincipal SignedIn me) {
    Snapshot made = themes.change(id, base, me,
        theme -> Lift.edit(theme, form.setting(theme.palette()), form.place(theme.palette())));
    notices.done(made.note());
    return Go.to("/themes/" + id + "/settings?key=" + form.key());
  }

  @PostMapping("/remove")
  String remove(@PathVariable long id, @RequestParam long base, @RequestParam String key,
      @AuthenticationPrincipal SignedIn me) {
    Snapshot made = themes.change(id, base, me, theme -> Lift.remove(theme, key));
    notices.done(made.note());
    return Go.to("/themes/" + id + "/settings");
  }
}

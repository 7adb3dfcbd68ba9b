package org.calmpalette.app.demo;

import java.util.List;
import java.util.Set;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import org.calmpalette.app.CalmProperties;
import org.calmpalette.app.accounts.AccountService;
import org.calmpalette.app.accounts.Role;
import org.calmpalette.app.accounts.SignedIn;
import org.calmpalette.app.sites.Site;
import org.calmpalette.app.sites.SiteService;
import org.calmpalette.app.themes.OpenTheme;
import org.calmpalette.app.themes.StoredTheme;
import org.calmpalette.app.themes.ThemeService;
import org.calmpalette.core.setting.ColorKind;
import org.calmpalette.core.setting.Kind;
import org.calmpalette.core.setting.Place;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.survey.ColorUse;
import org.calmpalette.core.survey.Lift;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.ApplicationArguments;
import org.springframework.boot.ApplicationRunner;
import org.springframework.stereotype.Component;

/** Loads the demo into a database that has none: two people, two themes, one site. */
@Component
class DemoLoader implements ApplicationRunner {
  private static final Logger LOG = LoggerFactory.getLogger(DemoLoader.class);

  private final CalmProperties calm;
  private final AccountService accounts;
  private final ThemeService themes;
  private final SiteService sites;
  private final OwnThemes own;

  DemoLoader(CalmProperties calm, AccountService accounts, ThemeService themes, SiteService sites, OwnThemes own) {
    this.calm = calm;
    this.accounts = accounts;
    this.themes = themes;
    this.sites = sites;
    this.own = own;
  }

  @Override
  public void run(ApplicationArguments arguments) throws Exception {
    if (!calm.demo()) {
      return;
    }
    if (calm.demoPassword().length() < AccountService.SHORTEST_PASSWORD) {
      throw new IllegalStateException("The demo needs CALM_DEMO_PASSWORD with 10 characters or more.");
    }
    SignedIn ida = accounts.demo("ida", "Ida Marlow", Role.MAKER);
    SignedIn jonas = accounts.demo("jonas", "Jonas Pell", Role.OWNER);
    if (!themes.all(ida).isEmpty()) {
      return;
    }
    long started = System.nanoTime();
    StoredTheme towpath = own.bringIn(OwnThemes.TOWPATH, ida);
    own.bringIn(OwnThemes.STARTER, ida);
    lift(towpath.id(), ida, u -> u.selector().equals(":root") && u.property().equals("--amber"),
        setting("signal-fill", "Signal colour", "Badge and buttons share it.", "Everywhere", "#d8a13c",
            ColorKind.ANY), "Everywhere");
    lift(towpath.id(), ida, u -> u.selector().equals(":root") && u.property().equals("--night"),
        setting("header-fill", "Header fill", "Behind the name and the links at the top.", "Header", "#1f3347",
            swatches("#1f3347", "#24463a", "#4a2636")), "Header");
    lift(towpath.id(), ida, u -> u.selector().equals(".hero"),
        setting("hero-text", "Hero text", "", "Hero", "#ffffff",
            swatches("#ffffff", "#f7ecd2", "#1f3347")), "Hero");
    lift(towpath.id(), ida, u -> u.selector().equals(":root") && u.property().equals("--paper"),
        setting("column-fill", "Paper behind the text", "", "Column", "#f4efe6",
            swatches("#f4efe6", "#ffffff", "#e9eef0")), "Column");
    themes.namePoint(towpath.id(), themes.open(towpath.id(), ida).head().id(), "four settings", ida);
    OpenTheme open = themes.open(towpath.id(), ida);
    Site site = sites.create(open, "Sallowmere Ferries", "owner", "jonas", ida);
    sites.goLive(site.slug(), jonas);
    sites.choose(site.slug(), "header-fill", "", Value.of("#24463a"), jonas);
    LOG.info("demo loaded in {} ms", (System.nanoTime() - started) / 1_000_000);
  }

  private static Setting setting(String key, String label, String help, String place, String value, Kind kind) {
    return Setting.of(key, label, help, Place.keyOf(place), kind, Value.of(value));
  }

  private static Kind swatches(String... values) {
    return new ColorKind(List.of(values), null, List.of(), false);
  }

  private void lift(long theme, SignedIn me, Predicate<ColorUse> which, Setting setting, String place) {
    OpenTheme open = themes.open(theme, me);
    Set<String> uses = open.colors().rows().stream().flatMap(r -> r.uses().stream()).filter(which)
        .map(ColorUse::id).collect(Collectors.toSet());
    themes.change(theme, open.head().id(), me,
        t -> Lift.lift(t, uses, setting, new Place(Place.keyOf(place), place)));
  }
}

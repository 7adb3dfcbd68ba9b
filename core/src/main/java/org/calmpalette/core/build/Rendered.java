package org.calmpalette.core.build;

import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Optional;
import org.calmpalette.core.cascade.PageStyles;
import org.calmpalette.core.cascade.Window;
import org.calmpalette.core.css.selector.States;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.theme.Theme;

/** A theme as browsers show it: each page with its stylesheets and the settings' defaults before them. */
public final class Rendered {
  private final Theme theme;
  private final PageStyles.Library library;

  public Rendered(Theme theme) {
    this.theme = theme;
    boolean hasChoices = theme.files().has(Theme.PALETTE_CSS);
    library = new PageStyles.Library(this::sheet, List.of(Theme.SETTINGS_CSS),
        hasChoices ? List.of(Theme.PALETTE_CSS) : List.of());
  }

  private Optional<byte[]> sheet(String path) {
    if (path.equals(Theme.SETTINGS_CSS)) {
      return Optional.of(ThemeBuild.settingsCss(theme).getBytes(StandardCharsets.UTF_8));
    }
    return theme.files().has(path) ? Optional.of(theme.files().read(path)) : Optional.empty();
  }

  public Theme theme() {
    return theme;
  }

  public PageStyles.Library library() {
    return library;
  }

  public PageStyles styles(Page page, Window window, States states) {
    return library.of(page).in(window, states);
  }

  /** Paths of the theme's own stylesheets that a page loads, in order. */
  public List<String> loaded(Page page) {
    return library.loaded(page).stream().filter(p -> !Theme.isGenerated(p)).toList();
  }

  /** A page by its path; empty if there is none. */
  public Optional<Page> page(String path) {
    return theme.pages().stream().filter(p -> p.source().file().equals(path)).findFirst();
  }
}

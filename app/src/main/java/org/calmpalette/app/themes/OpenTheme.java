package org.calmpalette.app.themes;

import org.calmpalette.core.survey.Survey;
import org.calmpalette.core.theme.Theme;

/** A theme with its head snapshot, read. */
public record OpenTheme(StoredTheme stored, Snapshot head, ThemeCache.Read read, boolean canUndo, boolean canRedo) {
  public Theme theme() {
    return read.theme();
  }

  public Survey survey() {
    return read.survey();
  }

  public long id() {
    return stored.id();
  }
}

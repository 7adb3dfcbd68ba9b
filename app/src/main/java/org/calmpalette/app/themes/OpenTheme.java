package org.calmpalette.app.themes;

import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.calmpalette.core.mend.SheetRole;
import org.calmpalette.core.survey.ColorSurvey;
import org.calmpalette.core.survey.Finding;
import org.calmpalette.core.survey.Survey;
import org.calmpalette.core.theme.Theme;

/**
 * A theme with its head snapshot, read.
 *
 * @param dismissed findings that the maker does not want to see, by key, with the note
 */
public record OpenTheme(StoredTheme stored, Snapshot head, ThemeCache.Read read, boolean canUndo, boolean canRedo,
    Map<String, Dismissal> dismissed) {
  /** Pages other than the survey do not wait for it. */
  private static final Duration AT_ONCE = Duration.ZERO;

  public Theme theme() {
    return read.theme();
  }

  public ColorSurvey.Result colors() {
    return read.colors();
  }

  /** Whose each stylesheet is, by path. */
  public Map<String, SheetRole> roles() {
    return read.roles();
  }

  public Survey survey() {
    return read.survey();
  }

  /** Findings that stand: all but the dismissed ones. */
  public List<Finding> findings() {
    return survey().findings().stream().filter(f -> !dismissed.containsKey(f.key())).toList();
  }

  /** What the trail says beside the survey: colours and findings; empty while they are not known yet. */
  public String surveyCount() {
    Optional<Survey> ready = read.surveyWithin(AT_ONCE);
    return ready.map(s -> String.valueOf(colors().rows().size() + findings().size())).orElse("");
  }

  public long id() {
    return stored.id();
  }
}

package org.calmpalette.app.themes;

import java.lang.ref.SoftReference;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.Map;
import org.calmpalette.app.storage.ContentStore;
import org.calmpalette.core.survey.Survey;
import org.calmpalette.core.theme.Theme;
import org.springframework.stereotype.Component;

/**
 * Themes that were read lately, by the hash of their tree. A tree never changes, so nothing here can be out of date; it
 * spares reading the same stylesheets for every request, and the garbage collector may take it all.
 */
@Component
public class ThemeCache {
  private static final int MOST = 12;

  /** A theme with its survey, made when first asked for. */
  public static final class Read {
    private final Theme theme;
    private Survey survey;

    Read(Theme theme) {
      this.theme = theme;
    }

    public Theme theme() {
      return theme;
    }

    public synchronized Survey survey() {
      if (survey == null) {
        survey = Survey.of(theme);
      }
      return survey;
    }
  }

  private final ContentStore store;
  private final Map<String, SoftReference<Read>> read =
      Collections.synchronizedMap(new LinkedHashMap<>(16, 0.75f, true) {
        @Override
        protected boolean removeEldestEntry(Map.Entry<String, SoftReference<Read>> eldest) {
          return size() > MOST;
        }
      });

  ThemeCache(ContentStore store) {
    this.store = store;
  }

  /** @param name the theme's name where its palette.json gives none */
  public Read get(String treeHash, String name) {
    SoftReference<Read> reference = read.get(treeHash);
    Read found = reference == null ? null : reference.get();
    if (found == null) {
      found = new Read(Theme.read(store.tree(treeHash), name));
      read.put(treeHash, new SoftReference<>(found));
    }
    return found;
  }
}

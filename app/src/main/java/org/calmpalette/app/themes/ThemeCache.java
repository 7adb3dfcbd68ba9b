package org.calmpalette.app.themes;

import java.lang.ref.SoftReference;
import java.time.Duration;
import java.util.Collections;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import org.calmpalette.app.storage.ContentStore;
import org.calmpalette.core.build.Rendered;
import org.calmpalette.core.mend.SheetRole;
import org.calmpalette.core.part.Landmarks;
import org.calmpalette.core.part.Painted;
import org.calmpalette.core.part.PartIndex;
import org.calmpalette.core.part.Readers;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.survey.ColorSurvey;
import org.calmpalette.core.survey.Survey;
import org.calmpalette.core.theme.Theme;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;

/**
 * Themes that were read lately, by the hash of their tree. A tree never changes, so nothing here can be out of date; it
 * spares reading the same stylesheets for every request, and the garbage collector may take it all.
 */
@Component
public class ThemeCache {
  private static final int MOST = 12;

  /** A theme with what was found out about it, each when first asked for. */
  public static final class Read {
    private final Theme theme;
    private final Rendered rendered;
    private volatile String working = "";
    private volatile int done;
    private volatile int total = 1;
    private volatile Survey survey;
    private boolean started;
    private ColorSurvey.Result colors;
    private Map<String, SheetRole> roles;
    private Readers readers;
    private PartIndex parts;
    private Map<String, Integer> paints;

    Read(Theme theme) {
      this.theme = theme;
      this.rendered = new Rendered(theme);
    }

    public Theme theme() {
      return theme;
    }

    public Rendered rendered() {
      return rendered;
    }

    public synchronized ColorSurvey.Result colors() {
      if (colors == null) {
        colors = ColorSurvey.of(theme);
      }
      return colors;
    }

    public synchronized Map<String, SheetRole> roles() {
      if (roles == null) {
        roles = SheetRole.of(theme);
      }
      return roles;
    }

    public synchronized Readers readers() {
      if (readers == null) {
        readers = Readers.of(theme);
      }
      return readers;
    }

    public synchronized PartIndex parts() {
      if (parts == null) {
        parts = new PartIndex(theme.pages());
      }
      return parts;
    }

    /** How many parts of all pages each setting may paint, by key; counted when first asked for. */
    public synchronized Map<String, Integer> paints(Function<Setting, List<Painted>> painted) {
      if (paints == null) {
        Map<String, Integer> counts = new HashMap<>();
        for (Setting s : theme.palette().settings()) {
          List<Painted> parts = painted.apply(s);
          counts.put(s.key(), theme.pages().stream().mapToInt(p -> Landmarks.count(parts, p)).sum());
        }
        paints = counts;
      }
      return paints;
    }

    /** The survey, made now if it is not there yet: for what cannot go on without it. */
    public Survey survey() {
      Survey found = survey;
      if (found == null) {
        found = Survey.of(rendered, colors(), this::step);
        survey = found;
      }
      return found;
    }

    /** The survey if it is ready within a moment; else it goes on in the background. */
    public Optional<Survey> surveyWithin(Duration patience) {
      if (survey == null) {
        synchronized (this) {
          if (!started) {
            started = true;
            Thread worker = new Thread(this::survey, "survey");
            worker.setDaemon(true);
            // The next one who asks starts it anew if it fails.
            worker.setUncaughtExceptionHandler((t, e) -> {
              LOG.error("a survey failed", e);
              started = false;
            });
            worker.start();
          }
        }
        long until = System.nanoTime() + patience.toNanos();
        while (survey == null && started && System.nanoTime() < until) {
          try {
            Thread.sleep(5);
          } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            return Optional.empty();
          }
        }
      }
      return Optional.ofNullable(survey);
    }

    private void step(int nowDone, int nowTotal, String what) {
      done = nowDone;
      total = nowTotal;
      working = what;
    }

    /** How far a survey in the background is. */
    public Progress progress() {
      return new Progress(done, total, working);
    }
  }

  /** @param what is looked at now */
  public record Progress(int done, int total, String what) {}

  private static final Logger LOG = LoggerFactory.getLogger(ThemeCache.class);
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

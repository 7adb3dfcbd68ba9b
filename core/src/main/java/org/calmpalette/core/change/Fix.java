package org.calmpalette.core.change;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.SortedMap;
import java.util.TreeMap;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.css.Edit;
import org.calmpalette.core.css.SourceText;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.theme.Change;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.ThemeSheet;

/**
 * A change that has not been made yet: which characters of which files become what.
 *
 * @param title what it does, in words that fit a note
 * @param edits of stylesheets and pages, by path
 * @param files that are written whole: new ones, pictures, {@code palette.json}
 */
public record Fix(String title, SortedMap<String, List<Edit>> edits, SortedMap<String, byte[]> files) {

  public static Fix of(String title) {
    return new Fix(title, new TreeMap<>(), new TreeMap<>());
  }

  public static Fix edit(String title, String file, Edit... edits) {
    return of(title).with(file, edits);
  }

  /** With more edits of a file. */
  public Fix with(String file, Edit... more) {
    SortedMap<String, List<Edit>> all = new TreeMap<>(edits);
    List<Edit> list = new ArrayList<>(all.getOrDefault(file, List.of()));
    list.addAll(List.of(more));
    all.put(file, List.copyOf(list));
    return new Fix(title, all, files);
  }

  public Fix withFile(String path, byte[] bytes) {
    SortedMap<String, byte[]> all = new TreeMap<>(files);
    all.put(path, bytes);
    return new Fix(title, edits, all);
  }

  public boolean isEmpty() {
    return edits.isEmpty() && files.isEmpty();
  }

  /**
   * Several fixes as one. Where two would touch the same characters or write the same file, the first one is taken and
   * the other left for another time.
   */
  public static Fix all(String title, List<Fix> fixes) {
    SortedMap<String, List<Edit>> edits = new TreeMap<>();
    SortedMap<String, byte[]> files = new TreeMap<>();
    for (Fix fix : fixes) {
      boolean clash = fix.files().keySet().stream().anyMatch(f -> files.containsKey(f) || edits.containsKey(f))
          || fix.edits().keySet().stream().anyMatch(files::containsKey)
          || fix.edits().entrySet().stream().anyMatch(e -> e.getValue().stream()
              .anyMatch(a -> edits.getOrDefault(e.getKey(), List.of()).stream().anyMatch(b -> clash(a, b))));
      if (!clash) {
        fix.edits().forEach((file, list) -> {
          Set<Edit> merged = new LinkedHashSet<>(edits.getOrDefault(file, List.of()));
          merged.addAll(list);
          edits.put(file, List.copyOf(merged));
        });
        files.putAll(fix.files());
      }
    }
    return new Fix(title, edits, files);
  }

  private static boolean clash(Edit a, Edit b) {
    return !a.equals(b) && (a.start() < b.end() && b.start() < a.end() || a.start() == b.start());
  }

  /** The theme's files after the fix, with the title as the note. @throws BadInputException if it changes nothing */
  public Change on(Theme theme) {
    if (isEmpty()) {
      throw new BadInputException("This would change nothing.", "It may have been mended already; load the page again.");
    }
    SortedMap<String, byte[]> changed = new TreeMap<>(files);
    edits.forEach((file, list) -> changed.put(file, text(theme, file).withEdits(list)));
    return new Change(changed, title);
  }

  /** The theme as it would be. */
  public Theme applied(Theme theme) {
    return Theme.read(on(theme).on(theme.files()), theme.palette().name());
  }

  /** The text of a stylesheet, page or source of a build. @throws BadInputException if the file is not there any more */
  static SourceText text(Theme theme, String file) {
    for (Page page : theme.pages()) {
      if (page.source().file().equals(file)) {
        return page.source();
      }
    }
    for (ThemeSheet part : theme.sheets()) {
      if (part.path().equals(file)) {
        return part.file();
      }
    }
    if (theme.files().has(file)) {
      return SourceText.stylesheet(file, theme.files().read(file));
    }
    throw new BadInputException("There is no file " + file + " in the theme any more.", "Load the page again.");
  }

  /** The edits of a file in the order of its text. */
  static List<Edit> sorted(Map<String, List<Edit>> edits, String file) {
    return edits.get(file).stream().sorted(Comparator.comparingInt(Edit::start).thenComparingInt(Edit::end)).toList();
  }
}

package org.calmpalette.core.theme;

import java.util.Map;
import java.util.SortedMap;
import java.util.TreeMap;

/**
 * A change of a theme: the files that get other bytes, and the note that goes with it.
 *
 * @param files new contents by path
 */
public record Change(SortedMap<String, byte[]> files, String note) {
  public Change(Map<String, byte[]> files, String note) {
    this(new TreeMap<>(files), note);
  }

  /** The theme's files after the change. */
  public ThemeFiles on(ThemeFiles before) {
    return ThemeFiles.overlaid(before, files);
  }
}

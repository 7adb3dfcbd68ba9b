package org.calmpalette.core.survey;

import java.util.List;
import org.calmpalette.core.color.Color;

/**
 * One colour and all its uses, in whatever spelling.
 *
 * @param value see {@link org.calmpalette.core.setting.ColorKey}
 */
public record ColorRow(String value, Color color, List<ColorUse> uses) {
  /** The spellings, each once, in the order of the files. */
  public List<String> spellings() {
    return uses.stream().map(ColorUse::written).distinct().toList();
  }
}

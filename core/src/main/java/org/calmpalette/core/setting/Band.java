package org.calmpalette.core.setting;

import java.util.List;

/**
 * A named range of window widths.
 *
 * @param to the widest width in CSS px that belongs to it, or null for the widest band
 */
public record Band(String key, String label, Integer to) {
  /** Phones end at 767 px, tablets at 1199 px (common practice). */
  public static final List<Band> USUAL = List.of(
      new Band("phone", "phone", 767), new Band("tablet", "tablet", 1199), new Band("desktop", "desktop", null));
}

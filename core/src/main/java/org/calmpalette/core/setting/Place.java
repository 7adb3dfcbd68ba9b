package org.calmpalette.core.setting;

/** A named part of the page; settings are grouped by it. */
public record Place(String key, String label) {
  public static final Place EVERYWHERE = new Place("everywhere", "Everywhere");

  /** A key for a label that a person typed: lower case, hyphens for all that is not a letter or digit. */
  public static String keyOf(String label) {
    String key = label.toLowerCase(java.util.Locale.ROOT).replaceAll("[^\\p{L}\\p{N}]+", "-").replaceAll("^-|-$", "");
    return key.isEmpty() ? "place" : key;
  }
}

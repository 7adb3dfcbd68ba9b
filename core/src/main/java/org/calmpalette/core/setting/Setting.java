package org.calmpalette.core.setting;

import java.util.Optional;
import java.util.regex.Pattern;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.color.Color;

/**
 * A named value that an owner may change.
 *
 * @param key the custom property's name without the two dashes
 * @param label what the owner reads
 * @param help a sentence for the owner, may be empty
 * @param place key of the place the setting belongs to
 * @param defaultValue as CSS
 * @param triple whether stylesheets also read the colour as {@code red, green, blue} numbers, from {@code --key-rgb}
 */
public record Setting(
    String key, String label, String help, String place, String defaultValue, Allowed allowed, boolean triple) {
  public static final int LONGEST_KEY = 60;
  public static final int LONGEST_LABEL = 80;
  public static final int LONGEST_HELP = 400;
  private static final Pattern KEY = Pattern.compile("[a-z_][a-z0-9_-]*", Pattern.CASE_INSENSITIVE);

  /** @throws BadInputException if a part cannot be used; the message names the part */
  public Setting {
    checkKey(key);
    if (label.isBlank() || label.length() > LONGEST_LABEL) {
      throw new BadInputException("The label is " + (label.isBlank() ? "empty" : "too long") + ".",
          "Write what the owner should read, in at most " + LONGEST_LABEL + " characters.");
    }
    if (help.length() > LONGEST_HELP) {
      throw new BadInputException("The help is too long.", "Say it in at most " + LONGEST_HELP + " characters.");
    }
    Color color = Color.parse(defaultValue).orElseThrow(() -> noColor(defaultValue));
    allowed.refusal(color).ifPresent(why -> {
      throw new BadInputException("The default " + defaultValue + " is not among what an owner may choose. " + why,
          "Add the default to the swatches, or choose another default.");
    });
  }

  private static void checkKey(String key) {
    if (!KEY.matcher(key).matches() || key.length() > LONGEST_KEY) {
      throw new BadInputException("“" + key + "” cannot be the name of a custom property.",
          "Use letters, digits and hyphens, with a letter first, at most " + LONGEST_KEY
              + " characters: notice-badge-fill.");
    }
  }

  private static BadInputException noColor(String text) {
    return new BadInputException("“" + text + "” is not a colour.",
        "Write it as CSS does: #d8a13c, rgb(216 161 60) or oklch(75% 0.13 78).");
  }

  /** Reads a colour that a person typed. @throws BadInputException if it is none */
  public static Color color(String text) {
    return Color.parse(text.strip()).orElseThrow(() -> noColor(text.strip()));
  }

  /** The name of the custom property. */
  public String property() {
    return "--" + key;
  }

  /** The name of the custom property that holds the colour as numbers, if stylesheets read it. */
  public String tripleProperty() {
    return property() + "-rgb";
  }

  /** Why a value is refused, in plain words; empty if an owner may choose it. */
  public Optional<String> refusal(String value) {
    return Color.parse(value).map(allowed::refusal).orElseGet(() -> Optional.of(noColor(value).getMessage()));
  }

  /**
   * The value as it is kept and written into stylesheets: {@code #rrggbb} or {@code #rrggbbaa} where that says all, else
   * the computed value. Nothing of what was typed goes through but the colour.
   */
  public static String normal(String value) {
    return ColorKey.of(color(value));
  }

  /** A colour as {@code red, green, blue} from 0 to 255. */
  public static String triple(String color) {
    int[] b = color(color).bytes();
    return b[0] + ", " + b[1] + ", " + b[2];
  }

  public boolean isDefault(String value) {
    return Color.parse(value).filter(c -> Allowed.sameColor(c, color(defaultValue))).isPresent();
  }

  public Setting withDefault(String value) {
    return new Setting(key, label, help, place, value, allowed, triple);
  }

  public Setting withTriple() {
    return new Setting(key, label, help, place, defaultValue, allowed, true);
  }
}

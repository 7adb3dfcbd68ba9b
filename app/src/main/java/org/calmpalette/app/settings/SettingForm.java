package org.calmpalette.app.settings;

import java.util.ArrayList;
import java.util.List;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.setting.Allowed;
import org.calmpalette.core.setting.Palette;
import org.calmpalette.core.setting.Place;
import org.calmpalette.core.setting.Setting;

/** What a maker enters for a setting, as it comes from the form. */
public record SettingForm(String key, String label, String help, String place, String defaultValue, String allowed,
    String swatches) {

  /** @throws BadInputException if something cannot be used; the message names the part */
  public Setting setting(Palette palette) {
    String color = Setting.normal(text(defaultValue));
    return new Setting(text(key), text(label), text(help), place(palette).key(), color, allowed(color), false);
  }

  /** The place by its label: one that is there, or a new one. */
  public Place place(Palette palette) {
    String name = text(place);
    if (name.isEmpty()) {
      return Place.EVERYWHERE;
    }
    if (name.length() > Setting.LONGEST_LABEL) {
      throw new BadInputException("The name of the place is too long.", "Use at most " + Setting.LONGEST_LABEL + " characters.");
    }
    return palette.places().stream().filter(p -> p.label().equalsIgnoreCase(name)).findFirst()
        .orElseGet(() -> new Place(Place.keyOf(name), name));
  }

  private Allowed allowed(String color) {
    if (!"swatches".equals(allowed)) {
      return new Allowed.AnyColor();
    }
    List<String> values = new ArrayList<>();
    int line = 0;
    for (String written : text(swatches).split("\\R")) {
      line++;
      if (written.isBlank()) {
        continue;
      }
      if (Color.parse(written.strip()).isEmpty()) {
        throw new BadInputException("Swatches, line " + line + ": “" + written.strip() + "” is not a colour.",
            "Write one CSS colour a line, such as #24463a.");
      }
      String value = Setting.normal(written.strip());
      if (!values.contains(value)) {
        values.add(value);
      }
    }
    if (!values.contains(color)) {
      // The default is always one of the choices: else nobody could go back to it.
      values.add(0, color);
    }
    return new Allowed.Swatches(values);
  }

  private static String text(String value) {
    return value == null ? "" : value.strip();
  }
}

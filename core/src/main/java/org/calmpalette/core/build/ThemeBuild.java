package org.calmpalette.core.build;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.SortedMap;
import java.util.TreeMap;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.setting.Palette;
import org.calmpalette.core.setting.PaletteJson;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.theme.Theme;

/** Makes what goes out of the workshop: a theme with its defaults, and an owner's choices as one small stylesheet. */
public final class ThemeBuild {
  private static final String HEAD =
      "/* Made by Calm Palette from palette.json. It is made anew at every build: change palette.json instead. */\n";

  private ThemeBuild() {}

  /** A value that was not written, and why, in plain words. */
  public record LeftOut(String key, String value, String why) {}

  /**
   * The files that the build adds to the theme or writes in their stead.
   *
   * @param leftOut values that no setting takes; the build goes on without them
   */
  public record Result(SortedMap<String, byte[]> files, List<LeftOut> leftOut) {}

  /** The defaults of all settings, to be loaded before the theme's own stylesheets. */
  public static String settingsCss(Palette palette) {
    StringBuilder out = new StringBuilder(HEAD).append(":root {\n");
    palette.settings().forEach(s -> append(out, s, s.defaultValue()));
    return out.append("}\n").toString();
  }

  /** An owner's choices: only what differs from the defaults, in the order of the settings. */
  public static String paletteCss(Palette palette, Map<String, String> values) {
    StringBuilder out = new StringBuilder();
    for (Setting s : palette.settings()) {
      String value = values.get(s.key());
      if (value != null && s.refusal(value).isEmpty() && !s.isDefault(value)) {
        append(out, s, value);
      }
    }
    return out.isEmpty() ? "/* No choice differs from the defaults. */\n" : ":root {\n" + out + "}\n";
  }

  private static void append(StringBuilder out, Setting setting, String value) {
    out.append("  ").append(setting.property()).append(": ").append(Setting.normal(value)).append(";\n");
    if (setting.triple()) {
      out.append("  ").append(setting.tripleProperty()).append(": ").append(Setting.triple(value)).append(";\n");
    }
  }

  /**
   * Builds a theme.
   *
   * @param values an owner's choices by key, or null to leave {@code palette.css} as the theme has it
   */
  public static Result build(Theme theme, Map<String, String> values) {
    TreeMap<String, byte[]> files = new TreeMap<>();
    for (Page page : theme.pages()) {
      files.put(page.source().file(), linked(page));
    }
    Palette palette = theme.palette();
    files.put(Theme.SETTINGS_CSS, utf8(settingsCss(palette)));
    if (values != null || !theme.files().has(Theme.PALETTE_CSS)) {
      files.put(Theme.PALETTE_CSS, utf8(paletteCss(palette, values == null ? Map.of() : values)));
    }
    if (!theme.files().has(Palette.FILE)) {
      files.put(Palette.FILE, PaletteJson.write(palette, null));
    }
    return new Result(files, leftOut(palette, values == null ? Map.of() : values));
  }

  /** The page's bytes with links to {@code settings.css} and {@code palette.css}. */
  public static byte[] linked(Page page) {
    return page.source().withEdits(PageLinks.edits(page));
  }

  /** The values that a build would leave out. */
  public static List<LeftOut> leftOut(Palette palette, Map<String, String> values) {
    List<LeftOut> out = new ArrayList<>();
    new TreeMap<>(values).forEach((key, value) -> palette.setting(key).ifPresentOrElse(
        s -> s.refusal(value).ifPresent(why -> out.add(new LeftOut(key, value, why))),
        () -> out.add(new LeftOut(key, value, "The theme has no setting with this key."))));
    return out;
  }

  private static byte[] utf8(String text) {
    return text.getBytes(StandardCharsets.UTF_8);
  }
}

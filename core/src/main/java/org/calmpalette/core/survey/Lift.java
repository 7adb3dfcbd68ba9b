package org.calmpalette.core.survey;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.stream.Collectors;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.css.Edit;
import org.calmpalette.core.css.SourceText;
import org.calmpalette.core.setting.Palette;
import org.calmpalette.core.setting.PaletteJson;
import org.calmpalette.core.setting.Place;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.theme.Change;
import org.calmpalette.core.theme.SheetPart;
import org.calmpalette.core.theme.Theme;

/** Changes that tie stylesheets to settings. Only the characters of the values themselves change. */
public final class Lift {
  private Lift() {}

  /**
   * Turns uses of a colour into one setting.
   *
   * @param ids of the uses, see {@link ColorUse#id()}
   * @throws BadInputException if a use is not there, cannot be lifted, or the key is taken
   */
  public static Change lift(Theme theme, Set<String> ids, Setting wanted, Place place) {
    ColorSurvey.Result survey = ColorSurvey.of(theme);
    List<ColorUse> uses = survey.rows().stream().flatMap(r -> r.uses().stream())
        .filter(u -> ids.contains(u.id())).toList();
    if (uses.isEmpty() || uses.size() < ids.size()) {
      throw new BadInputException(ids.isEmpty() ? "No use of the colour is chosen."
          : "Some of the chosen uses are no longer where they were.",
          ids.isEmpty() ? "Tick the uses that should follow the setting." : "Open the survey again and choose anew.");
    }
    for (ColorUse use : uses) {
      if (!use.isLiftable()) {
        throw new BadInputException(use.file() + ", line " + use.line() + ": " + use.obstacle(), "Leave this use out.");
      }
    }
    boolean triple = uses.stream().anyMatch(ColorUse::triple);
    Setting setting = triple ? wanted.withTriple() : wanted;
    checkFree(setting, theme, survey);
    TreeMap<String, List<Edit>> edits = new TreeMap<>();
    for (ColorUse use : uses) {
      String property = use.triple() ? setting.tripleProperty() : setting.property();
      edits.computeIfAbsent(use.file(), f -> new ArrayList<>())
          .add(new Edit(use.start(), use.end(), "var(" + property + ", " + use.written() + ")"));
    }
    String where = uses.size() == 1
        ? uses.get(0).file() + ", line " + uses.get(0).line() : uses.size() + " uses of " + uses.get(0).written();
    return change(theme, edits, theme.palette().with(setting, place),
        "Lifted " + where + " into the setting “" + setting.label() + "”");
  }

  private static void checkFree(Setting setting, Theme theme, ColorSurvey.Result survey) {
    for (String property : setting.triple()
        ? List.of(setting.property(), setting.tripleProperty()) : List.of(setting.property())) {
      boolean ours = theme.palette().settings().stream()
          .anyMatch(s -> s.property().equals(property) || s.triple() && s.tripleProperty().equals(property));
      if (!ours && survey.customProperties().contains(property)) {
        throw new BadInputException("The stylesheets use " + property + " for something of their own"
            + declaredAt(theme, property) + ".", "Choose another key.");
      }
    }
  }

  private static String declaredAt(Theme theme, String property) {
    List<String> found = new ArrayList<>();
    for (SheetPart part : theme.sheets()) {
      part.sheet().eachDeclaration((d, around) -> {
        if (d.property().equals(property) && found.isEmpty()) {
          found.add(": " + part.path() + ", line " + part.line(part.sheet().tokens().start(d.first())));
        }
      });
    }
    return found.isEmpty() ? "" : found.get(0);
  }

  /** Changes a setting's words, place, default or allowed values; its key stays. */
  public static Change edit(Theme theme, Setting setting, Place place) {
    Setting before = known(theme, setting.key());
    Setting after = before.triple() ? setting.withTriple() : setting;
    List<String> what = new ArrayList<>();
    if (!before.defaultValue().equals(after.defaultValue())) {
      what.add("default " + before.defaultValue() + " to " + after.defaultValue());
    }
    if (!before.allowed().equals(after.allowed())) {
      what.add("allowed: " + after.allowed().inWords());
    }
    if (!before.label().equals(after.label())) {
      what.add("label, was “" + before.label() + "”");
    }
    if (!before.help().equals(after.help())) {
      what.add("help");
    }
    if (!before.place().equals(after.place())) {
      what.add("place");
    }
    if (what.isEmpty()) {
      throw new BadInputException("Nothing was changed.", "Change something before you save.");
    }
    return change(theme, Map.of(), theme.palette().replacing(after, place),
        "“" + after.label() + "”: " + String.join("; ", what));
  }

  /** Takes a setting away: the stylesheets get its default as a fixed value. */
  public static Change remove(Theme theme, String key) {
    Setting setting = known(theme, key);
    TreeMap<String, List<Edit>> edits = new TreeMap<>();
    for (BoundUse use : ColorSurvey.of(theme).boundTo(key)) {
      edits.computeIfAbsent(use.file(), f -> new ArrayList<>())
          .add(new Edit(use.start(), use.end(), fixed(use, setting)));
    }
    return change(theme, edits, theme.palette().without(key), "Removed the setting “" + setting.label() + "”");
  }

  private static String fixed(BoundUse use, Setting setting) {
    if (use.triple()) {
      boolean same = ColorSurvey.triple(use.fallback()).map(c -> setting.isDefault(c.hex())).orElse(false);
      return same ? use.fallback() : Setting.triple(setting.defaultValue());
    }
    return setting.isDefault(use.fallback()) ? use.fallback() : setting.defaultValue();
  }

  private static Setting known(Theme theme, String key) {
    return theme.palette().setting(key).orElseThrow(() -> new BadInputException(
        "There is no setting “" + key + "” any more.", "Open the settings again."));
  }

  private static Change change(Theme theme, Map<String, List<Edit>> edits, Palette palette, String note) {
    Map<String, SourceText> texts = theme.sheets().stream()
        .collect(Collectors.toMap(SheetPart::path, SheetPart::file, (a, b) -> a));
    SortedMap<String, byte[]> files = new TreeMap<>();
    edits.forEach((file, list) -> files.put(file, texts.get(file).withEdits(list)));
    byte[] before = theme.files().has(Palette.FILE) ? theme.files().read(Palette.FILE) : null;
    files.put(Palette.FILE, PaletteJson.write(palette, before));
    return new Change(files, note);
  }
}

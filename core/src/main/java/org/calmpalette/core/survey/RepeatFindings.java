package org.calmpalette.core.survey;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import org.calmpalette.core.Budget;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.color.ColorSpace;
import org.calmpalette.core.css.Edit;
import org.calmpalette.core.css.Node;
import org.calmpalette.core.css.TokenType;
import org.calmpalette.core.css.Tokens;
import org.calmpalette.core.mend.Fix;
import org.calmpalette.core.mend.Located;
import org.calmpalette.core.mend.SheetRole;
import org.calmpalette.core.theme.SheetPart;
import org.calmpalette.core.theme.Theme;

/** Values that are written again and again, and colours that differ too little to be meant. */
final class RepeatFindings {
  /** CSS Color 4, section 13.2: a difference of 0.02 in OKLab can just be noticed. */
  static final double JUST_NOTICEABLE = 0.02;
  /** Half of that: colours that nobody tells apart, even side by side. */
  static final double NEAR = JUST_NOTICEABLE / 2;
  private static final int LEAST_COLOR_USES = 3;
  private static final int LEAST_LENGTH_USES = 4;
  private static final double SHORTEST = 3;
  private static final int MOST = 40;

  private RepeatFindings() {}

  static List<Finding> of(Theme theme, ColorSurvey.Result colors, Map<String, SheetRole> roles) {
    List<Finding> findings = new ArrayList<>();
    near(colors, findings);
    repeated(colors, roles, findings);
    for (SheetPart part : theme.sheets()) {
      if (roles.get(part.path()).lasts()) {
        lengths(theme, part, findings);
      }
    }
    return findings;
  }

  /** Distance in OKLab: CSS Color 4, section 13.2. */
  static double distance(Color a, Color b) {
    Color x = a.space() == ColorSpace.OKLAB ? a : a.to(ColorSpace.OKLAB);
    Color y = b.space() == ColorSpace.OKLAB ? b : b.to(ColorSpace.OKLAB);
    return Math.sqrt(square(x.c0() - y.c0()) + square(x.c1() - y.c1()) + square(x.c2() - y.c2()));
  }

  private static double square(double v) {
    return v * v;
  }

  /** Each colour that can hardly be told from a more used one, tied to the nearest of those. */
  static Map<String, ColorRow> ties(List<ColorRow> rows) {
    // In cells as wide as the distance, so that each colour is held against its neighbours only.
    Map<Cell, List<Placed>> mains = new HashMap<>();
    Map<String, ColorRow> ties = new LinkedHashMap<>();
    for (ColorRow row : rows) {
      Color lab = row.color().to(ColorSpace.OKLAB);
      Cell cell = Cell.of(lab);
      ColorRow nearest = null;
      double least = NEAR;
      for (Placed main : cell.around().stream().flatMap(c -> mains.getOrDefault(c, List.of()).stream()).toList()) {
        double distance = distance(lab, main.lab());
        if (main.row().color().alpha() == row.color().alpha() && distance < least) {
          nearest = main.row();
          least = distance;
        }
      }
      if (nearest != null) {
        ties.put(row.value(), nearest);
      } else {
        mains.computeIfAbsent(cell, k -> new ArrayList<>()).add(new Placed(row, lab));
      }
      Budget.step();
    }
    return ties;
  }

  private record Placed(ColorRow row, Color lab) {}

  /** A cube of OKLab with sides of {@link #NEAR}. */
  private record Cell(int l, int a, int b) {
    static Cell of(Color lab) {
      return new Cell((int) Math.floor(lab.c0() / NEAR), (int) Math.floor(lab.c1() / NEAR), (int) Math.floor(lab.c2() / NEAR));
    }

    List<Cell> around() {
      List<Cell> all = new ArrayList<>(27);
      for (int i = 0; i < 27; i++) {
        all.add(new Cell(l + i % 3 - 1, a + i / 3 % 3 - 1, b + i / 9 - 1));
      }
      return all;
    }
  }

  private static void near(ColorSurvey.Result colors, List<Finding> findings) {
    Map<String, ColorRow> ties = ties(colors.rows());
    for (ColorRow row : colors.rows()) {
      ColorRow main = ties.get(row.value());
      if (main == null || findings.size() >= MOST) {
        continue;
      }
      ColorUse first = row.uses().get(0);
      String written = usual(main);
      findings.add(new Finding("near-colors", first.file(), first.line(), first.column(),
          String.format(Locale.ROOT, "%s is nearly %s: the distance is %.3f, and %.2f can just be seen. Used %s.", row.value(), main.value(),
              distance(row.color(), main.color()), JUST_NOTICEABLE, times(row.uses().size())), "Use " + main.value() + " there too.")
          .about(row.value() + " " + main.value()).painting(row.uses().stream().flatMap(u -> u.paints().stream()).toList())
          .fixedBy(() -> gather(row, written)));
    }
  }

  private static String times(int n) {
    return n == 1 ? "once" : n == 2 ? "twice" : n + " times";
  }

  /** The spelling that is used most, not as bare numbers. */
  private static String usual(ColorRow row) {
    Map<String, Integer> counts = new LinkedHashMap<>();
    row.uses().stream().filter(u -> !u.triple()).forEach(u -> counts.merge(u.written(), 1, Integer::sum));
    return counts.entrySet().stream().max(Map.Entry.comparingByValue()).map(Map.Entry::getKey).orElse(row.value());
  }

  private static Fix gather(ColorRow row, String written) {
    Fix fix = Fix.of("Made " + row.value() + " the same as " + written);
    for (ColorUse u : row.uses()) {
      if (!u.triple()) {
        fix = fix.with(u.file(), new Edit(u.start(), u.end(), written));
      }
    }
    return fix;
  }

  private static void repeated(ColorSurvey.Result colors, Map<String, SheetRole> roles, List<Finding> findings) {
    for (ColorRow row : colors.rows()) {
      List<ColorUse> written = row.uses().stream().filter(u -> u.isLiftable() && !u.fallback() && !u.property().startsWith("--")
          && roles.get(u.file()).lasts()).toList();
      if (written.size() >= LEAST_COLOR_USES && row.color().alpha() > 0) {
        ColorUse first = written.get(0);
        findings.add(new Finding("repeated-color", first.file(), first.line(), first.column(), row.value() + " is written " + written.size()
            + " times, as " + String.join(", ", new TreeSet<>(written.stream().map(ColorUse::written).toList()))
            + "; whoever changes it must find them all.", "Lift it into a setting, from the colours; or gather it into one custom property.")
            .about(row.value()).painting(written.stream().flatMap(u -> u.paints().stream()).toList())
            .fixedBy(() -> gathered(colors, row, written)));
      }
    }
  }

  private static Fix gathered(ColorSurvey.Result colors, ColorRow row, List<ColorUse> uses) {
    String name = free("--color-" + row.value().replaceAll("[^0-9a-z]", ""), colors.customProperties());
    String title = "Gathered " + row.value() + " into " + name;
    Fix fix = Fix.of(title);
    for (ColorUse u : uses) {
      if (!u.triple()) {
        fix = fix.with(u.file(), new Edit(u.start(), u.end(), "var(" + name + ", " + u.written() + ")"));
      }
    }
    return colors.declaring(uses.get(0).file(), name, usual(row), fix);
  }

  private static String free(String name, Set<String> taken) {
    String free = name;
    for (int i = 2; taken.contains(free); i++) {
      free = name + "-" + i;
    }
    return free;
  }

  /** @param family what the length is for */
  private record Length(String family, String text) {}

  private static void lengths(Theme theme, SheetPart part, List<Finding> findings) {
    Map<Length, List<Edit>> found = new LinkedHashMap<>();
    part.sheet().eachDeclaration((d, around) -> {
      String family = family(d.property());
      if (family == null || around.stream().anyMatch(r -> r instanceof Node.AtRule at && !at.name().equals("media"))) {
        return;
      }
      Tokens tokens = part.sheet().tokens();
      Located at = new Located(part, d, around);
      for (int i = d.valueFirst(); i < d.valueEnd(); ) {
        int next = tokens.opens(i) ? tokens.afterBlock(i, d.valueEnd()) : i + 1;
        if (tokens.is(i, TokenType.DIMENSION) && Math.abs(tokens.number(i)) >= (tokens.lower(i).equals("px") ? SHORTEST : 0.01)) {
          found.computeIfAbsent(new Length(family, tokens.raw(i).toLowerCase(Locale.ROOT)), k -> new ArrayList<>())
              .add(new Edit(at.start(i), at.end(i), tokens.raw(i)));
        }
        i = next;
      }
    });
    found.forEach((length, places) -> {
      if (places.size() >= LEAST_LENGTH_USES) {
        int offset = places.get(0).start();
        findings.add(new Finding("repeated-length", part.path(), part.file().line(offset), part.file().column(offset),
            length.text() + " is written " + places.size() + " times as a " + length.family() + ".", "Gather it into one custom property.")
            .about(length.family() + " " + length.text()).fixedBy(() -> {
              String name = free("--" + length.family() + "-" + length.text().replaceAll("[^0-9a-z]+", "-").replaceAll("^-|-$", ""),
                  ColorSurvey.of(theme).customProperties());
              Fix fix = Fix.of("Gathered the " + length.family() + " " + length.text() + " into " + name);
              for (Edit place : places) {
                fix = fix.with(part.path(), new Edit(place.start(), place.end(), "var(" + name + ", " + place.replacement() + ")"));
              }
              return declare(part, name, length.text(), fix);
            }));
      }
    });
  }

  private static String family(String property) {
    if (property.startsWith("border") && property.endsWith("radius")) {
      return "corner";
    }
    if (property.equals("font-size")) {
      return "text-size";
    }
    return property.startsWith("padding") || property.startsWith("margin") || property.endsWith("gap") ? "space" : null;
  }

  /** Declares a custom property in the sheet's {@code :root} rule, or in a new one before the first rule. */
  static Fix declare(SheetPart part, String name, String value, Fix fix) {
    String newline = part.file().newline();
    for (Node node : part.sheet().rules()) {
      if (node instanceof Node.StyleRule rule && part.sheet().prelude(rule).equals(":root")) {
        Optional<Node.Declaration> last = rule.children().stream().filter(Node.Declaration.class::isInstance)
            .map(Node.Declaration.class::cast).reduce((a, b) -> b);
        if (last.isPresent()) {
          Located at = new Located(part, last.get(), List.of(rule));
          int end = at.declarationEnd();
          return fix.with(part.path(), new Edit(end, end, ";" + (at.isOnOwnLine() ? newline + at.indent() : " ") + name + ": " + value));
        }
      }
    }
    int first = part.sheet().rules().stream().filter(n -> !(n instanceof Node.AtRule at && !at.hasBlock()))
        .mapToInt(n -> part.offset() + part.sheet().tokens().start(n.first())).findFirst().orElse(part.offset());
    return fix.with(part.path(), new Edit(first, first, ":root {" + newline + "  " + name + ": " + value + ";" + newline + "}" + newline + newline));
  }
}

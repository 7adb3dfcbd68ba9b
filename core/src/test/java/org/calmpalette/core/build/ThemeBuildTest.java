package org.calmpalette.core.build;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.Map;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.Themes;
import org.junit.jupiter.api.Test;

class ThemeBuildTest {
  private static final String PALETTE = """
      {"format":"calm-palette/1","later":{"kept":true},"places":[{"key":"p","label":"P"}],
       "settings":[{"key":"a","label":"A","kind":"color","place":"p","default":"#112233","tool":7},
        {"key":"b","label":"B","kind":"color","place":"p","default":"red","allowed":{"swatches":["red","blue"]}}]}""";

  private static String page(String html, String path) {
    Theme theme = Themes.of(path, html, "palette.json", PALETTE);
    return new String(ThemeBuild.build(theme, null).files().get(path), StandardCharsets.UTF_8);
  }

  @Test
  void settingsComeBeforeEveryStylesheetAndChoicesAfterAll() {
    assertThat(page("<!doctype html><html><head><title>x</title>\n<link rel=stylesheet href=a.css>\n<style>p{}</style></head><p>", "index.html"))
        .isEqualTo("<!doctype html><html><head><title>x</title>\n<link rel=\"stylesheet\" href=\"settings.css\">\n"
            + "<link rel=stylesheet href=a.css>\n<style>p{}</style>\n<link rel=\"stylesheet\" href=\"palette.css\"></head><p>");
    assertThat(page("<p>No head, no sheet", "deep/er/x.html"))
        .startsWith("<link rel=\"stylesheet\" href=\"../../settings.css\">").contains("../../palette.css").endsWith("<p>No head, no sheet");
    String twice = page(page("<head></head><p>", "index.html"), "index.html");
    assertThat(twice).isEqualTo(page("<head></head><p>", "index.html")).containsOnlyOnce("settings.css");
  }

  @Test
  void onlyWhatDiffersFromTheDefaultsAndIsAllowedIsWritten() {
    Theme theme = Themes.of("a.css", "", "palette.json", PALETTE);
    assertThat(ThemeBuild.paletteCss(theme.palette(), Map.of("a", "rgb(17, 34, 51)", "b", "#00f")))
        .isEqualTo(":root {\n  --b: #0000ff;\n}\n");
    assertThat(ThemeBuild.leftOut(theme.palette(), Map.of("a", "red;}body{x:y", "b", "green", "gone", "red")))
        .extracting(ThemeBuild.LeftOut::key).containsExactly("a", "b", "gone");
    assertThat(ThemeBuild.paletteCss(theme.palette(), Map.of("a", "red;}body{x:y", "b", "green")))
        .isEqualTo("/* No choice differs from the defaults. */\n");
  }

  @Test
  void whatPaletteJsonHoldsBesidesIsKept() {
    Theme theme = Themes.of("a.css", "", "palette.json", PALETTE);
    String written = new String(org.calmpalette.core.setting.PaletteJson.write(theme.palette().without("b"),
        theme.files().read("palette.json")), StandardCharsets.UTF_8);
    assertThat(written).contains("\"later\"").contains("\"kept\": true").contains("\"tool\": 7").doesNotContain("\"b\"");
  }
}

package org.calmpalette.app;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Page;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import org.calmpalette.app.demo.OwnThemesAccess;
import org.calmpalette.core.cascade.ElementStyle;
import org.calmpalette.core.cascade.PageStyles;
import org.calmpalette.core.css.Stylesheet;
import org.calmpalette.core.css.selector.States;
import org.calmpalette.core.intake.Specimen;
import org.calmpalette.core.value.Viewport;
import org.jsoup.nodes.Element;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Computed paint of every element against Chromium's computed style: the published sheets of four frameworks, our demo,
 * and a sheet that uses everything, at three window widths. */
class CascadeAgreementTest {
  @AfterEach
  void closeWindows() {
    Browsers.closeAll();
  }

  private static final int[] WIDTHS = {390, 820, 1440};
  private static final int HEIGHT = 800;
  private static final List<String> PROPERTIES = new ArrayList<>(List.of("color", "opacity", "fill", "stroke", "display",
      "visibility", "font-size", "font-weight", "position", "background-color", "background-image",
      "background-position-x", "background-position-y", "background-size", "background-repeat", "background-attachment",
      "background-origin", "background-clip"));

  static {
    for (String side : List.of("top", "right", "bottom", "left")) {
      PROPERTIES.addAll(List.of("border-" + side + "-color", "padding-" + side, "margin-" + side));
    }
  }

  @TempDir
  Path folder;
  private int compared;
  private int layout;
  private final Map<String, List<String>> different = new TreeMap<>();

  @Test
  void computedPaintIsChromiums() throws IOException {
    String jars = "/agreement/";
    Map<String, String> sheets = Map.of("bootstrap", "bootstrap 5.3.8", "bulma", "bulma 1.0.4", "foundation",
        "foundation-sites 6.9.0", "pure", "purecss 2.1.0");
    for (Map.Entry<String, String> e : sheets.entrySet()) {
      byte[] sheet = OutsideSheets.get(e.getValue());
      compare(e.getKey(), Map.of("index.html", OutsideSheets.resource(jars + e.getKey() + ".html"), "sheet.css", sheet));
      byte[] specimen = Specimen.page(Stylesheet.read("sheet.css", sheet));
      compare(e.getKey() + " specimen", Map.of("index.html", specimen, "sheet.css", sheet));
    }
    compare("everything", Map.of("index.html", OutsideSheets.resource(jars + "everything.html"), "everything.css",
        OutsideSheets.resource(jars + "everything.css"), "imported.css", OutsideSheets.resource(jars + "imported.css")));
    Map<String, byte[]> demo = OwnThemesAccess.files("Towpath");
    for (String page : List.of("index.html", "timetable.html", "piers.html", "notices.html")) {
      Map<String, byte[]> files = new LinkedHashMap<>(demo);
      files.put("index.html", demo.get(page));
      compare("demo " + page, files);
    }
    int count = different.values().stream().mapToInt(List::size).sum();
    StringBuilder report = new StringBuilder(compared + " values compared, " + count + " differ, " + layout + " need layout\n");
    different.forEach((p, list) -> {
      report.append(p).append(" ").append(list.size()).append("\n");
      list.stream().limit(30).forEach(l -> report.append("    ").append(l).append("\n"));
    });
    Files.writeString(Path.of("target/agreement.txt"), report);
    assertThat((compared - count) / (double) compared).as(report.substring(0, Math.min(6000, report.length()))).isGreaterThanOrEqualTo(0.999);
  }

  @SuppressWarnings("unchecked")
  private void compare(String name, Map<String, byte[]> files) throws IOException {
    Path own = folder.resolve(name.replace(' ', '-'));
    for (Map.Entry<String, byte[]> f : files.entrySet()) {
      Path file = own.resolve(f.getKey());
      Files.createDirectories(file.getParent());
      Files.write(file, f.getValue());
    }
    org.calmpalette.core.page.Page page = org.calmpalette.core.page.Page.read("index.html", files.get("index.html"));
    PageStyles.Sheets sheets = PageStyles.sheets(page, path -> Optional.ofNullable(files.get(path)));
    for (int width : WIDTHS) {
      Page browser = Browsers.page(width, HEIGHT);
      browser.navigate(own.resolve("index.html").toUri().toString());
      List<List<String>> theirs = (List<List<String>>) browser.evaluate("""
          names => [...document.querySelectorAll('*')].map(e => [e.localName, ...[null, '::before', '::after'].flatMap(p => {
            const s = getComputedStyle(e, p); return names.map(n => s.getPropertyValue(n)) })])""", PROPERTIES);
      Browsers.closeAll();
      PageStyles styles = sheets.in(Viewport.of(width, HEIGHT), States.NONE);
      List<Element> ours = page.document().getAllElements().stream().filter(e -> e != page.document()).toList();
      // Only elements that both have: what a template holds is no part of the page for querySelectorAll.
      List<Element> shown = ours.stream().filter(e -> e.parents().stream().noneMatch(p -> p.normalName().equals("template"))).toList();
      assertThat(shown.stream().map(Element::tagName).toList()).as(name).isEqualTo(theirs.stream().map(t -> t.get(0)).toList());
      String base = own.toUri().toString();
      for (int i = 0; i < shown.size(); i++) {
        Element element = shown.get(i);
        List<ElementStyle> own3 = List.of(styles.of(element), styles.of(element, "before"), styles.of(element, "after"));
        for (int p = 0; p < 3 * PROPERTIES.size(); p++) {
          String property = PROPERTIES.get(p % PROPERTIES.size());
          ElementStyle style = own3.get(p / PROPERTIES.size());
          String mine = style.computed(property);
          String other = theirs.get(i).get(p + 1).replace(base, "");
          compared++;
          if (needsLayout(property, mine) && other.matches("-?[\\d.]+px")) {
            layout++;
          } else if (!same(mine, other)) {
            different.computeIfAbsent(property, k -> new ArrayList<>()).add(name + " " + width + " "
                + element.cssSelector() + (style.pseudoElement() == null ? "" : "::" + style.pseudoElement()) + ": ours " + mine + " | Chromium " + other);
          }
        }
      }
    }
  }

  private static boolean needsLayout(String property, String value) {
    return (property.startsWith("margin-") || property.startsWith("padding-"))
        && (value.contains("%") || value.equals("auto") || value.contains("("));
  }

  /** Equal, with numbers to the precision in which browsers keep them. */
  private static boolean same(String a, String b) {
    if (a.equals(b)) {
      return true;
    }
    String[] as = a.split("(?<=[^\\d.-])(?=[-.\\d])|(?<=[.\\d])(?=[^\\d.])");
    String[] bs = b.split("(?<=[^\\d.-])(?=[-.\\d])|(?<=[.\\d])(?=[^\\d.])");
    if (as.length != bs.length) {
      return false;
    }
    for (int i = 0; i < as.length; i++) {
      boolean number = as[i].matches("-?\\d*\\.?\\d+") && bs[i].matches("-?\\d*\\.?\\d+");
      if (number ? Math.abs(Double.parseDouble(as[i]) - Double.parseDouble(bs[i])) > 2e-4 * Math.max(1, Math.abs(Double.parseDouble(bs[i])))
          : !as[i].equals(bs[i])) {
        return false;
      }
    }
    return true;
  }
}

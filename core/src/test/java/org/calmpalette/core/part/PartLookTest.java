package org.calmpalette.core.part;

import java.util.Set;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.Themes;
import org.calmpalette.core.usage.Readers;
import org.calmpalette.core.value.Viewport;
import org.junit.jupiter.api.Test;
import static org.assertj.core.api.Assertions.assertThat;


class PartLookTest {
  private static PartLook.Reach reach(String css, String html, String selector, String aspect, String label) {
    Theme theme = Themes.of("a.css", css, "index.html", "<link rel=stylesheet href=a.css>" + html, "two.html", "<link rel=stylesheet href=a.css><p>x");
    Page page = theme.pages().get(0);
    int index = page.elements().indexOf(page.document().selectFirst(selector));
    PartLook look = PartLook.of(new Rendered(theme), Readers.of(theme), new PartIndex(theme.pages()), page, index, Viewport.of(1440, 900), Set.of());
    return look.aspect(aspect).orElseThrow().reaches().stream().filter(r -> r.label().contains(label)).findFirst().orElseThrow();
  }

  @Test
  void whatInheritsAColourCounts() {
    String html = "<body><h1>a</h1><p>b <a>c <b>d</b></a> <i class=own>e</i></p></body>";
    String css = "body{color:#123}a{color:#f00}.own{color:inherit}";
    assertThat(reach(css, html, "h1", "text", "All that body").count().byPage()).as("body, h1, p and i; not a, nor b inside it")
        .containsExactly("index.html 4", "two.html 2");
    assertThat(reach(css, html, "a", "text", "All that a").count().byPage()).containsExactly("index.html 2");
  }

  @Test
  void whatInheritsFromACustomPropertyCountsToo() {
    String html = "<body><h1>a</h1><p>b</p><p class=bar>c</p></body>";
    String css = ":root{--ink:#123;--text:var(--ink);--ink-2:#222}body{color:var(--text)}.bar{background:var(--ink);color:var(--ink-2)}";
    assertThat(reach(css, html, "h1", "text", "All that --ink").count().byPage()).as("body, h1, p, and .bar by its ground")
        .containsExactly("index.html 4", "two.html 2");
    assertThat(reach(css, html, "h1", "text", "All that --text").count().byPage()).containsExactly("index.html 3", "two.html 2");
  }

  @Test
  void ofLongChainsTheFirstOnesAreNamed() {
    StringBuilder css = new StringBuilder(":root{--v0:red;");
    for (int i = 1; i <= 40; i++) {
      css.append("--v").append(i).append(":var(--v").append(i - 1).append(");");
    }
    Theme theme = Themes.of("a.css", css + "}p{color:var(--v40)}", "index.html", "<link rel=stylesheet href=a.css><p>x");
    Page page = theme.pages().get(0);
    PartLook look = PartLook.of(new Rendered(theme), Readers.of(theme), new PartIndex(theme.pages()), page,
        page.elements().indexOf(page.document().selectFirst("p")), Viewport.of(1440, 900), Set.of());
    assertThat(look.aspect("text").orElseThrow().sentence()).contains("through --v40 and --v39").contains("--v33 and 33 more").doesNotContain("--v32");
  }
}

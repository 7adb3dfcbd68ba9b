package org.calmpalette.core.cascade;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.calmpalette.core.css.selector.States;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.value.Viewport;
import org.junit.jupiter.api.Test;

class ExplanationTest {
    private static final String HTML =
            """
      <link rel=stylesheet href=a.css>
      <style>
        p { color: var(--ink, red) }
      </style>
      <div><p id=x class=c style="margin-left: 3px">t <b>u</b></p></div>
      """;
    private static final String CSS =
            """
      @layer low { p { color: green } .i { color: gold !important } }
      :root { --ink: var(--deep); --deep: rgb(1 2 3) }
      p { color: blue }
      #x { opacity: 2 banana; opacity: .5 }
      p, .c { opacity: .7; margin: 1px; margin-left: 9px !important }
      @media print { p { color: black } }
      @media (width > 5000px) { p { color: white } }
      p:hover { color: lime }
      b { background-color: var(--none) }
      """;

    private static Explanation explain(String selector, String property, States states) {
        Page page = Page.read("index.html", HTML.getBytes(StandardCharsets.UTF_8));
        PageStyles.Sheets sheets = PageStyles.sheets(
                page, path -> Optional.ofNullable(Map.of("a.css", CSS).get(path))
                        .map(s -> s.getBytes(StandardCharsets.UTF_8)));
        return Explanation.of(
                sheets.in(Viewport.of(800, 600), states).of(page.document().selectFirst(selector)), property);
    }

    private static List<String> beaten(Explanation e) {
        return e.beaten().stream()
                .map(c -> c.file() + ":" + c.line() + " " + c.because())
                .toList();
    }

    @Test
    void theWinnerIsNamedWithItsPlaceItsWayAndWhatItBeat() {
        Explanation e = explain("#x", "color", States.NONE);
        assertThat(e.value()).isEqualTo("rgb(1, 2, 3)");
        assertThat(e.winner())
                .extracting(
                        Explanation.Cause::file,
                        Explanation.Cause::line,
                        Explanation.Cause::column,
                        Explanation.Cause::selector)
                .containsExactly("index.html", 3, 7, "p");
        assertThat(e.through()).containsExactly("--ink", "--deep");
        assertThat(beaten(e))
                .containsExactly(
                        "a.css:3 order",
                        "a.css:1 layer",
                        "a.css:7 condition not met: @media (width > 5000px)",
                        "a.css:6 condition not met: @media print");
        assertThat(explain("#x", "color", (el, s) -> s.equals("hover")).winner().line())
                .isEqualTo(8);
    }

    @Test
    void importanceSpecificityAndInvalidValuesAreTold() {
        assertThat(beaten(explain("#x", "opacity", States.NONE)))
                .containsExactly("a.css:5 specificity", "a.css:4 invalid");
        Explanation margin = explain("#x", "margin-left", States.NONE);
        assertThat(margin.winner().important()).isTrue();
        assertThat(margin.value()).isEqualTo("9px");
        assertThat(beaten(margin)).containsExactly("index.html:5 importance", "a.css:5 importance");
    }

    @Test
    void inheritanceNamesTheAncestor() {
        Explanation e = explain("b", "color", States.NONE);
        assertThat(e.value()).isEqualTo("rgb(1, 2, 3)");
        assertThat(e.inheritedFrom().id()).isEqualTo("x");
        assertThat(e.winner().line()).isEqualTo(3);
        assertThat(explain("b", "--deep", States.NONE).inheritedFrom().normalName())
                .isEqualTo("html");
        assertThat(explain("b", "background-color", States.NONE)
                        .winner()
                        .because()
                        .toString())
                .isEqualTo("invalid at computed-value time");
        assertThat(explain("div", "opacity", States.NONE).winner()).isNull();
    }

    @Test
    void shorthandsAndUnknownPropertiesAreRefusedWithTheWayOn() {
        assertThatThrownBy(() -> explain("b", "margin", States.NONE)).hasMessageContaining("shorthand");
        assertThatThrownBy(() -> explain("b", "colour", States.NONE)).hasMessageContaining("no CSS property");
    }
}

package org.calmpalette.app;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Page;
import java.util.ArrayList;
import java.util.List;
import org.calmpalette.core.cascade.ValidityAccess;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;

/** Media queries, {@code @supports} and the validity of values against Chromium's matchMedia and CSS.supports. */
class ConditionAgreementTest {
  @AfterEach
  void closeWindows() {
    Browsers.closeAll();
  }

  private static final List<String> MEDIA = List.of(
      "all", "screen", "print", "not print", "only screen", "not screen", "tty", "screen and (min-width: 600px)",
      "(min-width: 37.5em)", "(max-width: 599.98px)", "(width >= 600px)", "(600px <= width)", "(400px < width <= 900px)",
      "(width: 820px)", "(width = 820px)", "(min-width: calc(10px * 60))", "not (min-width: 600px)",
      "not all and (min-width: 600px)", "(min-width: 600px) and (max-width: 900px)", "(min-width: 5000px), (max-width: 900px)",
      "(min-width: 5000px) or (max-width: 900px)", "(orientation: landscape)", "(orientation: portrait)", "(orientation)",
      "(min-aspect-ratio: 1/1)", "(aspect-ratio > 16/9)", "(min-resolution: 1dppx)", "(min-resolution: 96dpi)",
      "(min-resolution: 2x)", "(-webkit-min-device-pixel-ratio: 1.5)", "(hover)", "(hover: none)", "(pointer: fine)",
      "(any-pointer: coarse)", "(prefers-color-scheme: dark)", "(prefers-color-scheme: light)", "(prefers-reduced-motion)",
      "(prefers-reduced-motion: reduce)", "(prefers-contrast: more)", "(forced-colors: active)", "(color)", "(min-color: 8)",
      "(monochrome)", "(grid)", "(update: fast)", "(scripting: enabled)", "(display-mode: browser)", "(foo: bar)",
      "not (foo: bar)", "(foo: bar) or (color)", "(min-width: 100px) and (foo: bar)", "(width)", "(width: foo)",
      "((min-width: 600px) and (color)) or (monochrome)", "screen and (color), print", "and", "(min-width)",
      "(min-width: 600px) and (max-width: 900px) or (color)", "screen and not (monochrome)", "(height > 0)", "");
  private static final List<String> SUPPORTS = List.of(
      "(display: grid)", "(display: foo)", "not (display: foo)", "(display: grid) and (color: red)",
      "(display: foo) or (color: oklch(0.5 0.1 20))", "((display: grid) and (not (display: foo)))", "(--x: y)",
      "selector(:has(> a))", "selector(:foo)", "selector(a::before)", "font-tech(color-COLRv1)", "font-format(woff2)",
      "(color: red !important)", "(nonsense: 1)", "not ((color: red) and (color: blu))", "(background: red blue)");
  private static final List<String> VALUES = List.of(
      "color: red", "color: blu", "color: #12345", "color: rgb(1 2 3 / 5%)", "color: currentColor", "color: CanvasText",
      "color: light-dark(red, blue)", "color: inherit", "color: red blue", "opacity: 50%", "opacity: 1px", "opacity: -1",
      "display: flow-root", "display: inline flex", "display: flex inline", "display: list-item", "position: sticky",
      "position: center", "float: inline-start", "visibility: collapse", "font-weight: 1000", "font-weight: 1001",
      "font-weight: bolder", "font-size: -1px", "font-size: 0", "font-size: 12", "font-size: xxx-large", "font-size: calc(1em + 2px)",
      "padding: 1px 2px 3px 4px", "padding: 1px 2px 3px 4px 5px", "padding: -1px", "padding: auto", "padding: 1",
      "margin: auto", "margin: -1em 2%", "margin: 0 auto 1q", "margin-inline: 1px auto", "border: 1px solid red",
      "border: red 1px dashed", "border: 1px 2px solid", "border: thick double", "border: solid solid",
      "border-color: red blue", "border-top: inset #fff", "border-width: thin 2px", "border-width: 10%", "border-inline: 1px",
      "background: red", "background: url(a.png) red", "background: red url(a.png), blue", "background: url(a), blue",
      "background: left 10px top / cover no-repeat", "background: left / 10px 20px 30px", "background: center center center",
      "background: border-box padding-box", "background: border-box padding-box content-box", "background: none none",
      "background: linear-gradient(red, blue)", "background: linear-gradient(red)", "background: linear-gradient()",
      "background: linear-gradient(45deg, red 10%, 30%, blue)", "background: fixed local", "background-position: top left",
      "background-position: left left", "background-position: 10px left", "background-position: right 10px bottom 20%",
      "background-position: right 10px", "background-position: left 10px 20px", "background-position-x: right 5px",
      "background-position-y: left", "background-size: contain, 10px", "background-size: -1px", "background-size: 1px 2px 3px",
      "background-repeat: repeat-x repeat", "background-repeat: space round", "background-attachment: scroll, local",
      "background-clip: text", "background-origin: text", "fill: none", "fill: url(#a) red", "fill: url(#a) 1px",
      "stroke: context-fill", "stroke: 1px", "font: 12px serif", "font: bold italic 12px/1.5 'A B', serif", "font: 12px",
      "font: caption", "inset: 1px auto", "direction: rtl", "direction: up", "width: 1px", "foo: bar", "-moz-appearance: none");

  @Test
  void conditionsHoldWhereTheyHoldInChromium() {
    for (int[] size : new int[][] {{390, 844}, {820, 600}, {1440, 900}}) {
      Page page = Browsers.page(size[0], size[1]);
      List<String> wrong = new ArrayList<>();
      for (String query : MEDIA) {
        boolean theirs = (boolean) page.evaluate("q => matchMedia(q).matches", query);
        if (ValidityAccess.media(query, size[0], size[1]) != theirs) {
          wrong.add(query + " is " + theirs + " at " + size[0]);
        }
      }
      assertThat(wrong).isEmpty();
    }
    Page page = Browsers.page(800, 600);
    for (String condition : SUPPORTS) {
      assertThat(ValidityAccess.supports(condition)).as(condition).isEqualTo(page.evaluate("c => CSS.supports(c)", condition));
    }
  }

  @Test
  void valuesAreValidWhereTheyAreInChromium() {
    Page page = Browsers.page(800, 600);
    List<String> wrong = new ArrayList<>();
    for (String declaration : VALUES) {
      String[] pair = declaration.split(": ", 2);
      boolean theirs = (boolean) page.evaluate("([p, v]) => CSS.supports(p, v)", List.of(pair[0], pair[1]));
      if (ValidityAccess.valid(pair[0], pair[1]) != theirs) {
        wrong.add(declaration + " is " + (theirs ? "valid" : "not valid") + " in Chromium");
      }
    }
    assertThat(wrong).isEmpty();
  }
}

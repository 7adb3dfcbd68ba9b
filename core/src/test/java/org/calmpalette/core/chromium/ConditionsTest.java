package org.calmpalette.core.chromium;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.calmpalette.core.cascade.ValidityAccess;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Media queries, {@code @supports} and the validity of values as Chromium's matchMedia and CSS.supports have them. */
public class ConditionsTest {
  public static final List<String> MEDIA = List.of(
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
      "(min-width: 600px) and (max-width: 900px) or (color)", "screen and not (monochrome)", "(height > 0)", "",
      // Each feature with what compares, what is not a number, and both ends of ranges: Media Queries 4, sections 3 to 6.
      "(height: 800px)", "(min-height: 700px)", "(max-height: 700px)", "(700px < height < 900px)", "(900px > height > 700px)", "(900px >= height >= 600px)",
      "(400px < width > 500px)", "(width < 400px < 900px)", "(600px = width)", "(width > 600px) and (width < 1000px)", "(width > -1px)", "(width: 0)", "(min-width: -1px)",
      "(max-aspect-ratio: 1/1)", "(aspect-ratio: 820/600)", "(aspect-ratio: 0.5)", "(min-aspect-ratio: 0/1)", "(aspect-ratio < 2/1)", "(device-width: 1px)", "(min-device-width: 1px)",
      "(device-aspect-ratio > 0)", "(resolution: 1x)", "(resolution >= 1dppx)", "(max-resolution: 1dpcm)", "(resolution > 0)", "(-webkit-max-device-pixel-ratio: 1)", "(-webkit-device-pixel-ratio: 1)",
      "(-webkit-transform-3d)", "(hover: hover)", "(any-hover: hover)", "(any-hover)", "(pointer)", "(pointer: coarse)", "(pointer: none)", "(any-pointer: fine)", "(any-pointer: none)",
      "(prefers-color-scheme)", "(prefers-color-scheme: foo)", "(prefers-contrast)", "(prefers-contrast: no-preference)", "(prefers-contrast: less)", "(prefers-reduced-motion: no-preference)",
      "(prefers-reduced-transparency: reduce)", "(prefers-reduced-data: reduce)", "(forced-colors: none)", "(forced-colors)", "(inverted-colors: none)", "(inverted-colors: inverted)",
      "(color: 8)", "(color > 7)", "(max-color: 2)", "(color-index)", "(color-index: 0)", "(min-color-index: 1)", "(monochrome: 0)", "(min-monochrome: 1)", "(color-gamut: srgb)", "(color-gamut: p3)", "(color-gamut)",
      "(dynamic-range: standard)", "(dynamic-range: high)", "(video-dynamic-range: standard)", "(grid: 0)", "(grid: 1)", "(update: slow)", "(update)", "(overflow-block: scroll)", "(overflow-inline: scroll)",
      "(overflow-block: none)", "(scripting: none)", "(scripting)", "(scripting: initial-only)", "(display-mode: fullscreen)", "(scan: progressive)", "(scan: interlace)", "(orientation: foo)", "(hover: foo)",
      "(min-orientation: landscape)", "(min-hover: hover)", "(width: 10)", "(width: 10%)", "(color: red)", "(color: 1.5)", "(grid: 2)", "(aspect-ratio: 1)", "(aspect-ratio: 1 / 2 / 3)", "(resolution: 1)",
      "not screen and (color)", "not print and (color)", "only print", "only (color)", "screen and", "screen or (color)", "screen, tty", "(color) and not (monochrome)", "not (not (color))", "(not (color))",
      "((color))", "((color) and (hover))", "((color) or (hover)) and (width)", "(color)(hover)", "(color) and(hover)", "(color)and (hover)", "[color]", "{color}", "color", "(color", "screen and (color", "(foo", "foo(bar)", "not foo(bar)",
      "(width: calc(1px + 1%))", "(min-width: calc(1em * 30))", "(min-width: 30rem)", "(min-width: 10cm)", "(min-width: 50vw)", "(min-width: min(100px, 200px))", "layer", "not", "only", "or", "and (color)", "SCREEN", "(MIN-WIDTH: 1PX)",
      "  all  ", "all,", ",all", "all, , screen", "/* c */ screen", "screen /* c */ and /**/ (color)");
  public static final List<String> SUPPORTS = List.of(
      "(display: grid)", "(display: foo)", "not (display: foo)", "(display: grid) and (color: red)",
      "(display: foo) or (color: oklch(0.5 0.1 20))", "((display: grid) and (not (display: foo)))", "(--x: y)",
      "selector(:has(> a))", "selector(:foo)", "selector(a::before)", "font-tech(color-COLRv1)", "font-format(woff2)",
      "(color: red !important)", "(nonsense: 1)", "not ((color: red) and (color: blu))", "(background: red blue)",
      "not (foo: bar)", "(display: grid) or (foo: bar)", "(display: grid) and (foo: bar) or (color: red)", "(display:grid)", "( display : grid )", "((display: grid))",
      "not not (display: grid)", "(not (display: grid))", "selector(a > b)", "selector()", "selector(a, b)", "selector(::part(x))", "font-tech(variations)", "font-tech(foo)", "font-format(foo)", "foo(bar)", "not foo(bar)",
      "(--x:)", "(--x)", "(color: var(--y))", "(display)", "()", "", "(color: red) and", "and (color: red)", "(color: red)and (color: blue)", "(width: calc(1px + 2%))", "(margin: auto) and (padding: 0) and (color: red)");
  public static final List<String> VALUES = List.of(
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
      "font: caption", "inset: 1px auto", "direction: rtl", "direction: up", "width: 1px", "foo: bar", "-moz-appearance: none",
      "background: red, blue", "background: , red", "background: red,", "background: url(a) url(b)", "background: 1px", "background: 1px 2px 3px 4px", "background: center / contain", "background: / contain", "background: center /",
      "background: no-repeat repeat", "background: no-repeat repeat space", "background: text", "background: border-box text", "background: scroll scroll", "background: left 10px", "background: top left / 10px", "background: 0 0 / auto 50% red",
      "background: image-set('a.png' 1x)", "background: -webkit-linear-gradient(top, red, blue)", "background: radial-gradient(circle at 10% 20%, red, blue 50%)", "background: conic-gradient(from 45deg, red, blue)",
      "background: repeating-linear-gradient(45deg, red 0 10px, blue 10px 20px)", "background: linear-gradient(to top left in oklch longer hue, red, blue)", "background-image: linear-gradient(red 10% 20% 30%, blue)", "background-image: linear-gradient(10%, red, blue)",
      "background-image: linear-gradient(red, 50%)", "background-image: linear-gradient(red, 10%, 20%, blue)", "background-image: none, url(a)", "background-image: red", "background-image: cross-fade(url(a), url(b))",
      "background-position: center", "background-position: top", "background-position: top 10px", "background-position: 10px top", "background-position: bottom right", "background-position: 1px 2px 3px", "background-position: center 10px bottom", "background-position: center center center center",
      "background-position: top 1px bottom 2px", "background-position: left 1px top", "background-position: left 1px center", "background-position: left 1px right 2px", "background-position: calc(50% - 1px) 0", "background-position: 1deg",
      "background-position-x: left 5px, right", "background-position-x: top", "background-position-x: center 5px", "background-position-y: bottom 5%", "background-size: cover contain", "background-size: auto 10px", "background-size: 10px auto, cover", "background-size: 0",
      "background-repeat: repeat-x", "background-repeat: repeat-x repeat-y", "background-repeat: round space, repeat-y", "background-clip: border-box, padding-box", "background-clip: red", "background-attachment: local, fixed, scroll", "background-attachment: none", "background-origin: content-box",
      "background-color: transparent", "background-color: #12345678", "background-color: rgb(1,2)", "background-color: red, blue", "opacity: 1e3", "opacity: calc(50% + 10%)", "opacity: calc(1px)", "opacity: calc(infinity)", "opacity: ", "visibility: shown", "float: center", "float: both",
      "direction: ltr rtl", "position: -webkit-sticky", "position: static relative", "display: inline-block flow", "display: block flow-root", "display: run-in", "display: block inline", "display: table-cell", "display: list-item block", "display: inline list-item", "display: -webkit-box", "display: grid-lanes", "display: math", "display: ruby",
      "font-size: smaller", "font-size: 10%", "font-size: -5%", "font-size: calc(1px - 2px)", "font-size: clamp(1px, 2vw, 3em)", "font-size: medium large", "font-weight: 0", "font-weight: 1", "font-weight: 450.5", "font-weight: bold bold", "font-weight: calc(100 * 5)", "font-weight: heavy",
      "font: 12px/2 serif", "font: 12px / 2 serif", "font: 12px/ serif", "font: italic small-caps bold condensed 16px/1.2 serif", "font: menu", "font: bold", "font: bold 12px", "font: normal normal normal normal 12px serif", "font: normal normal normal normal normal 12px serif", "font: 12px 12px serif", "font: 12px serif serif2", "font: 12px 'a' b", "font: 12px a, 'b', c",
      "padding: calc(1px - 5px)", "padding: 1px auto", "padding: max(1px, 2%)", "padding-top: 1px 2px", "padding-inline: 1px 2px 3px", "padding-block-start: 1%", "padding: 1px, 2px", "padding: 1px/2px", "padding: red", "padding: 0px 0 0% 0", "margin: 1px auto 2px", "margin-top: auto auto", "margin: 1deg", "margin-block: auto", "margin: 5", "margin: -0", "margin: 1e3px", "margin: +5px", "margin: .5px", "margin: 5.px",
      "border: none", "border: 0", "border: medium", "border: red", "border: 1px solid red blue", "border: 1px solid 2px", "border: hidden currentcolor", "border: -1px solid", "border: calc(1px + 1px) solid", "border-width: 1px 2px 3px 4px", "border-width: -1px", "border-width: thick 2px thin", "border-style: solid dashed dotted double", "border-style: wavy", "border-color: red green blue black", "border-color: red green blue black white",
      "border-top-color: transparent", "border-left-width: 1%", "border-left-style: groove ridge", "border-block: 1px solid", "border-block-color: red blue", "border-inline-style: solid dashed", "border-inline-start: thin", "border-block-end-color: red blue", "border-block-width: 1px 2px 3px",
      "fill: red blue", "fill: url(#a)", "fill: url(#a) none", "fill: context-stroke", "fill: currentcolor", "stroke: none none", "stroke: url(#a) red blue", "color: none", "color: hsl(120deg 10% 20%)", "color: color-mix(in srgb, red, blue)", "color: rgb(from red r g b)", "color: -webkit-link", "color: AccentColor", "color: light-dark(red)", "color: color(srgb 1 0 0)", "color: device-cmyk(0 0 0 1)",
      "all: initial", "all: red", "all: revert-layer", "padding: inherit initial", "margin: unset", "inset: 1px 2px 3px 4px 5px", "gap: 1px 2px", "overflow: hidden visible", "--x: anything goes {}", "--x: a!b");
  /** Where ours is not Chromium's, with the reason. */
  private static final Map<String, String> NAMED = Map.of("background-image: cross-fade(url(a), url(b))", "Chromium takes it with its prefix only, others without");
  public static final List<String> WINDOWS = List.of("390x844", "820x600", "1440x900");

  public static String question(String what, List<String> asked) {
    return what + " " + Answers.hash(asked.toArray(String[]::new));
  }

  @ParameterizedTest
  @ValueSource(strings = {"390x844", "820x600", "1440x900"})
  void mediaQueriesHoldWhereTheyHoldInChromium(String window) {
    double width = Double.parseDouble(window.split("x")[0]);
    double height = Double.parseDouble(window.split("x")[1]);
    List<String> theirs = ANSWERS.to(question(window, MEDIA));
    List<String> wrong = new ArrayList<>();
    for (int i = 0; i < MEDIA.size(); i++) {
      if (ValidityAccess.media(MEDIA.get(i), width, height) != theirs.get(i).equals("true")) {
        wrong.add(MEDIA.get(i) + " is " + theirs.get(i) + " in Chromium");
      }
    }
    assertThat(wrong).isEmpty();
  }

  @Test
  void supportsHoldsWhereItHoldsInChromium() {
    List<String> theirs = ANSWERS.to(question("supports", SUPPORTS));
    List<String> wrong = new ArrayList<>();
    for (int i = 0; i < SUPPORTS.size(); i++) {
      if (ValidityAccess.supports(SUPPORTS.get(i)) != theirs.get(i).equals("true")) {
        wrong.add(SUPPORTS.get(i) + " is " + theirs.get(i) + " in Chromium");
      }
    }
    assertThat(wrong).isEmpty();
  }

  @Test
  void valuesAreValidWhereTheyAreInChromium() {
    List<String> theirs = ANSWERS.to(question("values", VALUES));
    List<String> wrong = new ArrayList<>();
    for (int i = 0; i < VALUES.size(); i++) {
      String[] pair = VALUES.get(i).split(": ", 2);
      if (!NAMED.containsKey(VALUES.get(i)) && ValidityAccess.valid(pair[0], pair[1]) != theirs.get(i).equals("true")) {
        wrong.add(VALUES.get(i) + " is " + (theirs.get(i).equals("true") ? "valid" : "not valid") + " in Chromium");
      }
    }
    assertThat(wrong).isEmpty();
  }

  private static final Answers ANSWERS = Answers.read("conditions");
}

package org.calmpalette.app;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Page;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.color.ColorSpace;
import org.calmpalette.core.color.Contrast;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;

/** Colours against outside judges: Chromium's computed style, and colorjs.io 0.7.1 (npm, MIT) in the test browser. */
class ColorAgreementTest {
  @AfterEach
  void closeWindows() {
    Browsers.closeAll();
  }

  private static List<String> notations() {
    Random random = new Random(7);
    List<String> all = new ArrayList<>(List.of("#fff", "#AbC8", "white", "RebeccaPurple", "transparent", "rgb(255,255,255)",
        "rgb(10% 20% 30%)", "rgb(300 -5 12.5)", "rgba(1,2,3,.5)", "rgb(1 2 3 / none)", "rgb(none 20 30)", "hsl(120deg 100% 25%)",
        "hsl(0.5turn 50 50)", "hsla(-30,50%,50%,50%)", "hwb(200 30% 90%)", "hwb(90deg 10% 20% / .3)", "lab(150 0 0)",
        "lab(50% 40 none)", "lch(52.2% 72.2 50)", "oklab(59% 0.1 0.1)", "oklch(0.7 0.4 -40)", "oklch(60% 120% 200)",
        "color(srgb 1 .5 0)", "color(display-p3 0 1 0 / 25%)", "color(xyz 0.3 0.3 0.3)", "color(rec2020 .42 .47 .13)",
        "color(a98-rgb .44 .5 .1)", "color(prophoto-rgb .36 .43 .15)", "color(xyz-d50 .2 .3 .1)", "color(srgb-linear .1 .2 .3)",
        "color-mix(in srgb, red, blue)", "color-mix(in oklch, red 30%, lime)", "color-mix(in hsl longer hue, red, lime)",
        "color-mix(in lab, white 20%, transparent)", "color-mix(in oklab, #123 40%, #fed 20%)", "rgb(from tomato r g b / 50%)",
        "oklch(from #d8a13c calc(l - 0.1) c h)", "hsl(from rebeccapurple calc(h + 180) s l)", "lab(from red l a b / alpha)",
        "color-mix(in hwb, teal, olive 25%)", "rgb(calc(10 * 5) 20 30)", "hsl(calc(360deg / 3) 50% 50%)"));
    for (int i = 0; i < 60; i++) {
      all.add(String.format(Locale.ROOT, "hsl(%.1f %.1f%% %.1f%%)", random.nextDouble() * 360, random.nextDouble() * 100, random.nextDouble() * 100));
      all.add(String.format(Locale.ROOT, "hwb(%.1f %.1f%% %.1f%% / %.2f)", random.nextDouble() * 360, random.nextDouble() * 60, random.nextDouble() * 60, random.nextDouble()));
      all.add(String.format(Locale.ROOT, "oklch(%.3f %.3f %.1f)", random.nextDouble(), random.nextDouble() * 0.3, random.nextDouble() * 360));
      all.add(String.format(Locale.ROOT, "color-mix(in oklch, hsl(%d 80%% 40%%) %d%%, lab(%d 20 -30))", random.nextInt(360), 1 + random.nextInt(98), random.nextInt(100)));
    }
    return all;
  }

  @Test
  @SuppressWarnings("unchecked")
  void everyNotationIsReadAsChromiumReadsIt() {
    Page page = Browsers.page(400, 300);
    List<String> notations = notations();
    List<String> chromium = (List<String>) page.evaluate("""
        list => list.map(c => { const e = document.createElement('p'); document.body.append(e); e.style.color = c;
          const s = e.style.color ? getComputedStyle(e).color : 'none'; e.remove(); return s })""", notations);
    List<String> wrong = new ArrayList<>();
    for (int i = 0; i < notations.size(); i++) {
      String ours = Color.parse(notations.get(i)).map(Color::css).orElse("none");
      if (!near(ours, chromium.get(i))) {
        wrong.add(notations.get(i) + ": " + ours + ", Chromium " + chromium.get(i));
      }
    }
    assertThat(wrong).isEmpty();
    for (String no : List.of("blu", "#12", "#12345", "rgb(1,2)", "rgb(1 2,3)", "hsl(10 20% 30% 40%)", "color(none 1 2 3)", "rgb(1 2 3", "red blue", "hsl(10, 20, 30)")) {
      assertThat(Color.parse(no)).as(no).isEmpty();
    }
  }

  /**
   * The same notation with numbers that differ by no more than Chromium's single precision makes them: it computes
   * lab(99.9988 0.0188 -0.0011) for white, where CSS Color 4's sample code gives lab(100 0 0).
   */
  private static boolean near(String a, String b) {
    String[] as = a.split("[ (),/]+");
    String[] bs = b.split("[ (),/]+");
    if (as.length != bs.length) {
      return false;
    }
    double within = as[0].endsWith("lab") && !as[0].startsWith("ok") || as[0].endsWith("lch") ? 0.02 : 2e-4;
    for (int i = 0; i < as.length; i++) {
      boolean number = as[i].matches("-?[\\d.]+") && bs[i].matches("-?[\\d.]+(e-\\d+)?");
      if (number ? Math.abs(Double.parseDouble(as[i]) - Double.parseDouble(bs[i])) > within * Math.max(1, as[0].equals("rgb") ? 1 : Math.abs(Double.parseDouble(bs[i])) / 100)
          : !as[i].equals(bs[i])) {
        return false;
      }
    }
    return true;
  }

  @Test
  void spacesAndContrastAgreeWithColorJs() throws IOException {
    Page page = Browsers.page(400, 300);
    try (InputStream in = getClass().getResourceAsStream("/outside/colorjs-0.7.1.global.min.js")) {
      page.addScriptTag(new Page.AddScriptTagOptions().setContent(new String(in.readAllBytes(), StandardCharsets.UTF_8)));
    }
    Random random = new Random(11);
    double worstSpace = 0;
    double worstContrast = 0;
    for (int i = 0; i < 300; i++) {
      Color a = Color.rgb(random.nextInt(256) / 255.0, random.nextInt(256) / 255.0, random.nextInt(256) / 255.0);
      Color b = Color.rgb(random.nextInt(256) / 255.0, random.nextInt(256) / 255.0, random.nextInt(256) / 255.0);
      Color oklab = a.to(ColorSpace.OKLAB);
      Color lab = a.to(ColorSpace.LAB);
      Color p3 = a.to(ColorSpace.DISPLAY_P3);
      @SuppressWarnings("unchecked")
      List<Number> theirs = (List<Number>) page.evaluate("""
          ([a, b]) => { const x = new Color(a); return [...x.to('oklab').coords, ...x.to('lab').coords, ...x.to('p3').coords, x.contrast(new Color(b), 'WCAG21')] }""",
          List.of(a.hex(), b.hex()));
      double[] ours = {oklab.c0(), oklab.c1(), oklab.c2(), lab.c0() / 100, lab.c1() / 100, lab.c2() / 100, p3.c0(), p3.c1(), p3.c2()};
      for (int k = 0; k < 9; k++) {
        double other = theirs.get(k).doubleValue() / (k >= 3 && k < 6 ? 100 : 1);
        worstSpace = Math.max(worstSpace, Math.abs(ours[k] - other));
      }
      worstContrast = Math.max(worstContrast, Math.abs(Contrast.ratio(a, b) - theirs.get(9).doubleValue()));
    }
    assertThat(worstSpace).isLessThan(1e-5);
    assertThat(worstContrast).isLessThan(0.01);
  }
}

package org.calmpalette.app;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Page;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.calmpalette.core.chromium.Answers;
import org.calmpalette.core.chromium.ColorsTest;
import org.calmpalette.core.chromium.ComputedStyleTest;
import org.calmpalette.core.chromium.ConditionsTest;
import org.calmpalette.core.chromium.OutsideSheets;
import org.calmpalette.core.chromium.SelectorsTest;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/**
 * Asks Chromium what core's tests compare themselves with, and confirms the recorded files; with {@code -Dcalm.record=true} it
 * writes them.
 */
class ChromiumAnswersTest {
  private static final boolean RECORD = Boolean.getBoolean("calm.record");
  @TempDir
  Path folder;

  @AfterEach
  void closeWindows() {
    Browsers.closeAll();
  }

  private static void settle(String name, Map<String, List<String>> answers) {
    if (RECORD) {
      Answers.write(name, answers);
      return;
    }
    Answers recorded = Answers.read(name);
    answers.forEach((question, now) -> {
      List<String> then = recorded.to(question);
      assertThat(now).as(question).hasSameSizeAs(then);
      List<String> differ = new ArrayList<>();
      for (int i = 0; i < now.size(); i++) {
        if (!Answers.same(now.get(i), then.get(i))) {
          differ.add("answer " + i + ": recorded " + then.get(i) + " | now " + now.get(i));
        }
      }
      assertThat(differ).as(question + " in " + Browsers.get().version()).isEmpty();
    });
  }

  @Test
  @SuppressWarnings("unchecked")
  void computedStyles() throws IOException {
    Map<String, List<String>> answers = new LinkedHashMap<>();
    for (ComputedStyleTest.Case c : (Iterable<ComputedStyleTest.Case>) ComputedStyleTest.cases()::iterator) {
      Path own = folder.resolve(c.name().replace(' ', '-'));
      for (Map.Entry<String, byte[]> f : c.files().entrySet()) {
        Path file = own.resolve(f.getKey());
        Files.createDirectories(file.getParent());
        Files.write(file, f.getValue());
      }
      Page browser = Browsers.page(c.width(), ComputedStyleTest.HEIGHT);
      browser.navigate(own.resolve("index.html").toUri().toString());
      answers.put(c.question(), (List<String>) browser.evaluate("""
          ([names, base]) => [...document.querySelectorAll('*')].map(e => [e.localName, ...[null, '::before', '::after'].flatMap(p => {
            const s = getComputedStyle(e, p); return names.map(n => s.getPropertyValue(n).replaceAll(base, '')) })].join('\\t'))""",
          List.of(ComputedStyleTest.PROPERTIES, own.toUri().toString())));
      Browsers.closeAll();
    }
    settle("computed-style", answers);
  }

  @Test
  @SuppressWarnings("unchecked")
  void selectors() {
    Map<String, List<String>> answers = new LinkedHashMap<>();
    Page browser = Browsers.page(800, 600);
    for (SelectorsTest.Case c : (Iterable<SelectorsTest.Case>) SelectorsTest.cases()::iterator) {
      browser.setContent(c.html());
      answers.put(c.question(), (List<String>) browser.evaluate("""
          list => { const all = [...document.querySelectorAll('*')]; const at = new Map(all.map((e, i) => [e, i]));
            return list.map(s => { try { return [...document.querySelectorAll(s)].map(e => at.get(e)).join(' ') } catch { return 'invalid' } }) }""",
          SelectorsTest.selectors()));
    }
    answers.put(SelectorsTest.doubtfulQuestion(), (List<String>) browser.evaluate(
        "list => list.map(s => { try { document.querySelector(s); return 'valid' } catch { return 'invalid' } })", SelectorsTest.doubtful()));
    settle("selectors", answers);
  }

  @Test
  @SuppressWarnings("unchecked")
  void conditions() {
    Map<String, List<String>> answers = new LinkedHashMap<>();
    for (String window : ConditionsTest.WINDOWS) {
      Page page = Browsers.page(Integer.parseInt(window.split("x")[0]), Integer.parseInt(window.split("x")[1]));
      answers.put(ConditionsTest.question(window, ConditionsTest.MEDIA),
          (List<String>) page.evaluate("list => list.map(q => String(matchMedia(q).matches))", ConditionsTest.MEDIA));
    }
    Page page = Browsers.page(800, 600);
    answers.put(ConditionsTest.question("supports", ConditionsTest.SUPPORTS),
        (List<String>) page.evaluate("list => list.map(c => String(CSS.supports(c)))", ConditionsTest.SUPPORTS));
    answers.put(ConditionsTest.question("values", ConditionsTest.VALUES), (List<String>) page.evaluate(
        "list => list.map(d => { const at = d.indexOf(': '); return String(CSS.supports(d.slice(0, at), d.slice(at + 2))) })", ConditionsTest.VALUES));
    settle("conditions", answers);
  }

  @Test
  @SuppressWarnings("unchecked")
  void colors() {
    Map<String, List<String>> answers = new LinkedHashMap<>();
    Page page = Browsers.page(400, 300);
    List<String> notations = ColorsTest.notations();
    answers.put(ColorsTest.question("notations", notations), (List<String>) page.evaluate("""
        list => list.map(c => { const e = document.createElement('p'); document.body.append(e); e.style.color = c;
          const s = e.style.color ? getComputedStyle(e).color : 'none'; e.remove(); return s })""", notations));
    page.addScriptTag(new Page.AddScriptTagOptions()
        .setContent(new String(OutsideSheets.resource("/outside/colorjs-0.7.1.global.min.js"), StandardCharsets.UTF_8)));
    List<String> pairs = ColorsTest.pairs();
    answers.put(ColorsTest.question("colorjs 0.7.1", pairs), (List<String>) page.evaluate("""
        list => list.map(pair => { const [a, b] = pair.split(' '); const x = new Color(a);
          return [...x.to('oklab').coords, ...x.to('lab').coords, ...x.to('p3').coords, x.contrast(new Color(b), 'WCAG21')].map(v => v.toFixed(7)).join(' ') })""",
        pairs));
    settle("colors", answers);
  }
}

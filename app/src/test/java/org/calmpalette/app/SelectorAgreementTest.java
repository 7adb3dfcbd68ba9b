package org.calmpalette.app;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Page;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.calmpalette.core.css.Node;
import org.calmpalette.core.css.Stylesheet;
import org.calmpalette.core.css.selector.ComplexSelector;
import org.calmpalette.core.css.selector.SelectorList;
import org.calmpalette.core.css.selector.SelectorMatcher;
import org.calmpalette.core.css.selector.States;
import org.calmpalette.core.intake.Specimen;
import org.jsoup.Jsoup;
import org.jsoup.nodes.Document;
import org.jsoup.nodes.Element;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;

/** Selectors against Chromium's querySelectorAll, over every selector of ten published sheets and some of ours. */
class SelectorAgreementTest {
  @AfterEach
  void closeWindows() {
    Browsers.closeAll();
  }

  private static final List<String> OURS = List.of("li:nth-child(2n+1 of .is-active)", ":has(> b + i)", "p:not(:has(*))",
      "a[href^='#' i]:not([target])", ":is(h1, h2, ::before, :foo)", ":where(.card, #none) > *", "[class~=btn]:nth-last-of-type(2)",
      "input:not([type]):read-write", ":root > body :first-child:last-child", "p:empty", ":only-of-type", "option:checked",
      ":disabled", ":enabled:optional", ":required", ":placeholder-shown", ":indeterminate", ":default", ":invalid", ":valid:in-range",
      "p:lang(en)", ":dir(ltr) > b", "svg *", "linearGradient", "lineargradient", "[viewBox]", "[viewbox]", "ol > li:nth-child(-n+1)", "*|p",
      "h2 ~ p", "h2 + p", ".\\31 23", ".esc\\:aped\\/x", "details[open] > :not(summary)", ":link", ":any-link:not(:visited)", ":defined", "fieldset:has(:disabled)",
      ":has(+ .late) ~ :is(p)", "tr:nth-child(even) > td:nth-child(odd)", "[data-x=\"A\" i]", "[lang|=en]", "[class*=' ']", ":scope > body", ":target", ":focus-within", ":host", "dialog:open", ":nth-child(+3n - 2)", ":nth-child( odd )", "a:nth-child(n)");
  private static final List<String> INVALID = List.of("p:", "..x", "#1a", "p::foo", ":nth-child(foo)", "[a=]", "a >", "> a", ":not()", ":not(:foo)", ":has(:foo)", "p:foo", "[a=b s]", "& :is(", "::before p", ":nth-of-type(1 of p)", "a,,b", "foo|p", "p:hover:", "@x", "p{", "[1a]", "a:not(::before)", ":is(a");

  @Test
  @SuppressWarnings("unchecked")
  void everySelectorFindsWhatChromiumFinds() {
    Set<String> selectors = new LinkedHashSet<>(OURS);
    List<String> pages = new ArrayList<>();
    for (Map.Entry<String, byte[]> e : OutsideSheets.all().entrySet()) {
      Stylesheet sheet = Stylesheet.read("s.css", e.getValue());
      collect(sheet, sheet.rules(), selectors);
      pages.add(new String(Specimen.page(sheet), StandardCharsets.UTF_8));
    }
    for (String name : List.of("bootstrap", "bulma", "foundation", "pure", "everything")) {
      pages.add(new String(OutsideSheets.resource("/agreement/" + name + ".html"), StandardCharsets.UTF_8));
    }
    List<String> asked = new ArrayList<>(selectors);
    List<String> wrong = new ArrayList<>();
    int compared = 0;
    Page browser = Browsers.page(800, 600);
    for (String html : pages) {
      String plain = html.replaceAll("(?s)<link[^>]*>", "").replaceAll("(?s)<template>.*?</template>", "");
      browser.setContent(plain);
      List<String> theirs = (List<String>) browser.evaluate("""
          list => { const all = [...document.querySelectorAll('*')]; const at = new Map(all.map((e, i) => [e, i]));
            return list.map(s => { try { return [...document.querySelectorAll(s)].map(e => at.get(e)).join(' ') } catch { return 'invalid' } }) }""", asked);
      Document document = Jsoup.parse(plain);
      List<Element> all = document.getAllElements().stream().filter(e -> e != document).toList();
      SelectorMatcher matcher = new SelectorMatcher(document, States.NONE);
      for (int i = 0; i < asked.size(); i++) {
        String ours = SelectorList.parse(asked.get(i)).map(list -> {
          StringBuilder found = new StringBuilder();
          for (int e = 0; e < all.size(); e++) {
            if (matcher.matches(list, all.get(e))) {
              found.append(found.isEmpty() ? "" : " ").append(e);
            }
          }
          return found.toString();
        }).orElse("invalid");
        compared++;
        if (!ours.equals(theirs.get(i))) {
          wrong.add(asked.get(i) + ": ours " + ours + " | Chromium " + theirs.get(i));
        }
      }
    }
    System.out.println(asked.size() + " selectors, " + compared + " answers compared, " + wrong.size() + " differ");
    assertThat(wrong).isEmpty();
    List<String> verdicts = (List<String>) browser.evaluate(
        "list => list.map(s => { try { document.querySelector(s); return 'valid' } catch { return 'invalid' } })", INVALID);
    for (int i = 0; i < INVALID.size(); i++) {
      assertThat(SelectorList.parse(INVALID.get(i)).isPresent() ? "valid" : "invalid").as(INVALID.get(i)).isEqualTo(verdicts.get(i));
    }
  }

  private static void collect(Stylesheet sheet, List<Node> nodes, Set<String> selectors) {
    for (Node node : nodes) {
      if (node instanceof Node.AtRule at && !at.name().endsWith("keyframes")) {
        collect(sheet, at.children(), selectors);
      } else if (node instanceof Node.StyleRule rule) {
        selectors.add(sheet.text(rule.preludeFirst(), rule.preludeEnd()));
        // Each by itself too: one that browsers refuse would hide the others of its list.
        SelectorList.parse(sheet.tokens(), rule.preludeFirst(), rule.preludeEnd(), null)
            .ifPresent(l -> l.selectors().stream().map(ComplexSelector::toString).forEach(selectors::add));
      }
    }
  }
}

package org.calmpalette.app.frames;

import java.util.List;
import java.util.Locale;
import java.util.Set;
import org.calmpalette.core.page.Page;
import org.jsoup.nodes.Attribute;
import org.jsoup.nodes.Document;
import org.jsoup.nodes.Element;

/**
 * A theme's page made fit for a preview: without anything that runs or leads away, with our own small script that
 * draws outlines and measures. The page's Content-Security-Policy says the same once more to the browser, and is what
 * holds if something is missed here.
 */
final class FramePage {
  private static final Set<String> GONE = Set.of("script", "iframe", "frame", "frameset", "object", "embed", "applet",
      "portal", "base");
  private static final Set<String> ADDRESSES = Set.of("href", "src", "action", "formaction", "xlink:href", "data",
      "poster", "from", "to", "values");

  private static final Set<String> LOADED = Set.of("src", "srcset", "poster");

  private FramePage() {}

  /** The attribute that carries an element's index in the maker's page, see {@link Page#elements()}. */
  static final String INDEX = "data-calm-at";

  /**
   * @param page with the links that the build puts in
   * @param original without them: its elements' indices are written into the page
   */
  static String of(Page page, Page original, String script, String nonce) {
    Document document = page.document().clone();
    number(document, original);
    for (Element e : List.copyOf(document.getAllElements())) {
      String name = e.normalName();
      if (GONE.contains(name) || name.equals("meta") && isInstruction(e) || name.equals("link") && !isHarmless(e)) {
        e.remove();
      } else {
        clean(e);
      }
    }
    if (script != null) {
      document.head().appendElement("script").attr("src", script).attr("nonce", nonce).attr("defer", true);
    }
    document.outputSettings().prettyPrint(false).charset(java.nio.charset.StandardCharsets.UTF_8);
    return document.outerHtml();
  }

  /** The build only ever adds links, so both pages are walked in step, and what is not in the original is passed over. */
  private static void number(Document document, Page original) {
    List<Element> before = original.elements();
    int at = 1;
    for (Element e : document.getAllElements()) {
      if (at < before.size() && e != document && isSame(e, before.get(at))) {
        e.attr(INDEX, String.valueOf(at++));
      }
    }
  }

  private static boolean isSame(Element shown, Element original) {
    return shown.normalName().equals(original.normalName())
        && (!shown.normalName().equals("link") || shown.attr("href").equals(original.attr("href")));
  }

  private static boolean isInstruction(Element meta) {
    return meta.hasAttr("http-equiv") || meta.hasAttr("charset");
  }

  private static boolean isHarmless(Element link) {
    String rel = link.attr("rel").toLowerCase(Locale.ROOT);
    return rel.contains("stylesheet") || rel.contains("icon");
  }

  private static void clean(Element e) {
    for (Attribute a : e.attributes().asList()) {
      String name = a.getKey().toLowerCase(Locale.ROOT);
      String value = a.getValue().replaceAll("[\\s\\p{Cntrl}]", "").toLowerCase(Locale.ROOT);
      boolean runs = name.startsWith("on") || name.equals("srcdoc") || name.equals("ping") || name.equals("nonce");
      boolean scriptAddress = ADDRESSES.contains(name)
          && (value.startsWith("javascript:") || value.startsWith("vbscript:") || value.startsWith("data:text"));
      // Another host is not asked for anything; the policy would stop it with an error for each.
      boolean elsewhere = LOADED.contains(name) && (value.startsWith("http:") || value.startsWith("https:") || value.startsWith("//"));
      if (runs || scriptAddress || elsewhere) {
        e.removeAttr(a.getKey());
      }
    }
  }
}

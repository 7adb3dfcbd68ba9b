package org.calmpalette.core.cascade;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.function.Function;
import org.calmpalette.core.css.Node;
import org.calmpalette.core.css.SourceText;
import org.calmpalette.core.css.Stylesheet;
import org.calmpalette.core.css.selector.SelectorMatcher;
import org.calmpalette.core.css.selector.Specificity;
import org.calmpalette.core.css.selector.States;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.page.Paths;
import org.jsoup.nodes.Element;

/**
 * What paints every element of a page in a window of one size, and why. Made for one page, window and set of states;
 * not safe for use by several threads at once.
 */
public final class PageStyles {
  private static final int NO_SCOPE = Integer.MAX_VALUE;
  private static final SheetReader BROWSER = browser();

  private final Page page;
  private final Window window;
  private final SelectorMatcher matcher;
  private final SheetReader sheets;
  private final RuleIndex index = new RuleIndex();
  private final RuleIndex unmet = new RuleIndex();
  private final Map<String, Integer> layers;
  private final Map<Element, ElementStyle> styles = new IdentityHashMap<>();
  private final Map<FlatRule, List<Condition>> failing = new IdentityHashMap<>();
  private final Map<String, Optional<Map<String, String>>> expansions = new HashMap<>();

  private PageStyles(Page page, SheetReader sheets, Window window, States states) {
    this.page = page;
    this.window = window;
    this.sheets = sheets;
    this.matcher = new SelectorMatcher(page.document(), states);
    this.layers = sheets.layerOrder();
    int order = 0;
    for (FlatRule rule : BROWSER.rules) {
      index.add(rule, order++);
    }
    Map<Condition, Boolean> asked = new HashMap<>();
    for (FlatRule rule : sheets.rules) {
      List<Condition> fail = rule.conditions().isEmpty() ? List.of() : rule.conditions().stream()
          .filter(c -> !asked.computeIfAbsent(c, k -> k.holds(window))).toList();
      if (fail.isEmpty()) {
        index.add(rule, order++);
      } else {
        failing.put(rule, fail);
        unmet.add(rule, order++);
      }
    }
  }

  private static SheetReader browser() {
    try (InputStream in = PageStyles.class.getResourceAsStream("browser.css")) {
      SourceText text = SourceText.stylesheet("the browser's own sheet", in.readAllBytes());
      SheetReader reader = new SheetReader(path -> Optional.empty());
      reader.read(new SheetSource(text, Stylesheet.read(text), 0, Origin.USER_AGENT), List.of());
      return reader;
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  /** The sheets of a page, read once; styles for several windows and states can be made from them. */
  public static final class Sheets {
    private final Page page;
    private final SheetReader reader;

    private Sheets(Page page, SheetReader reader) {
      this.page = page;
      this.reader = reader;
    }

    public PageStyles in(Window window, States states) {
      return new PageStyles(page, reader, window, states);
    }

    /** Paths of sheets that are named and not there. */
    public List<String> missing() {
      return reader.missing;
    }
  }

  /**
   * Reads the sheets of a page in document order: linked ones, embedded ones, and what they import.
   *
   * @param files gives the bytes of a stylesheet by its path; empty if it is not there
   */
  public static Sheets sheets(Page page, Function<String, Optional<byte[]>> files) {
    SheetReader reader = new SheetReader(path -> files.apply(path).map(b -> SourceText.stylesheet(path, b)));
    String own = page.source().file();
    for (Element e : page.document().select("link[rel][href], style")) {
      String media = e.attr("media");
      List<Condition> conditions = media.isBlank() ? List.of() : List.of(new Condition(Condition.Kind.MEDIA, media));
      if (e.normalName().equals("style")) {
        page.styleSpan(e).ifPresent(span -> {
          SourceText text = SourceText.of(own, page.source().text().substring(span.start(), span.end()));
          reader.read(new SheetSource(page.source(), Stylesheet.read(text), span.start(), Origin.AUTHOR), conditions);
        });
      } else if (isStylesheet(e)) {
        Optional<String> path = Paths.resolve(own, e.attr("href"));
        Optional<byte[]> bytes = path.flatMap(files);
        if (bytes.isPresent()) {
          SourceText text = SourceText.stylesheet(path.get(), bytes.get());
          reader.read(new SheetSource(text, Stylesheet.read(text), 0, Origin.AUTHOR), conditions);
        } else {
          path.ifPresent(reader.missing::add);
        }
      }
    }
    return new Sheets(page, reader);
  }

  private static boolean isStylesheet(Element link) {
    List<String> rel = List.of(link.attr("rel").toLowerCase(java.util.Locale.ROOT).split("\\s+"));
    return rel.contains("stylesheet") && !rel.contains("alternate") && !link.hasAttr("disabled");
  }

  public Page page() {
    return page;
  }

  Window window() {
    return window;
  }

  Map<String, SheetReader.Registered> registered() {
    return sheets.registered;
  }

  /** The style of an element of the page. */
  public ElementStyle of(Element element) {
    ElementStyle style = styles.get(element);
    if (style == null) {
      Element parent = SelectorMatcher.parent(element);
      style = new ElementStyle(this, element, parent == null ? null : of(parent), null);
      styles.put(element, style);
    }
    return style;
  }

  /**
   * The style of a pseudo-element.
   *
   * @param name without colons, such as {@code before}
   */
  public ElementStyle of(Element element, String name) {
    return new ElementStyle(this, element, of(element), name);
  }

  Optional<Map<String, String>> expand(String property, String value) {
    return expansions.computeIfAbsent(property + ":" + value, k -> Expansion.of(property, value));
  }

  /** All declarations that hold for an element, the weaker first. */
  List<Applied> matched(Element element, String pseudoElement) {
    List<Applied> found = collect(index, element, pseudoElement);
    if (pseudoElement == null) {
      attributes(element, found);
    }
    found.sort(Applied.STRENGTH);
    return found;
  }

  /** Declarations whose selector holds, but a condition around them does not; the stronger first. */
  List<Applied> withUnmetConditions(Element element, String pseudoElement) {
    List<Applied> found = collect(unmet, element, pseudoElement);
    found.sort(Applied.STRENGTH.reversed());
    return found;
  }

  List<Condition> unmetConditions(FlatRule rule) {
    return failing.getOrDefault(rule, List.of());
  }

  /** A selector that holds for an element, with its distance from the root of its scope. */
  private record Match(RuleIndex.Entry entry, int proximity) {}

  private List<Applied> collect(RuleIndex rules, Element element, String pseudoElement) {
    // Of several selectors of one rule the most specific one that holds counts.
    Map<FlatRule, Match> best = new IdentityHashMap<>();
    rules.candidates(element, entry -> {
      int proximity = !Objects.equals(entry.selector().pseudoElement(), pseudoElement) ? -1
          : entry.rule().scope() != null ? proximity(entry.rule().scope(), entry, element)
          : matcher.matches(entry.selector(), element) ? NO_SCOPE : -1;
      if (proximity >= 0) {
        best.merge(entry.rule(), new Match(entry, proximity), (a, b) ->
            b.entry().selector().specificity().compareTo(a.entry().selector().specificity()) > 0 ? b : a);
      }
    });
    List<Applied> found = new ArrayList<>();
    best.values().forEach(m -> apply(m, found));
    return found;
  }

  private void apply(Match match, List<Applied> found) {
    FlatRule rule = match.entry().rule();
    boolean browser = rule.source().origin() == Origin.USER_AGENT;
    int rank = browser ? 0 : layers.getOrDefault(rule.layer(), layers.size());
    // A rule has fewer declarations than this, and a page fewer rules than fit beside it into a long.
    long order = (long) match.entry().order() << 20;
    for (Node.Declaration d : rule.declarations()) {
      found.add(new Applied(rule, d, d.property(), rule.source().sheet().value(d), d.important(), rule.source().origin(),
          rank, match.proximity(), match.entry().selector().specificity(), order++));
    }
  }

  /** Steps from the element to the nearest scope root under which the selector matches; -1 if there is none. */
  private int proximity(Scope scope, RuleIndex.Entry entry, Element element) {
    int steps = 0;
    for (Element root = element; root != null; root = SelectorMatcher.parent(root), steps++) {
      if (matcher.matches(scope.roots(), root) && isInside(scope, root, element)
          && matcher.scopedTo(root).matches(entry.selector(), element)) {
        return steps;
      }
    }
    return -1;
  }

  private boolean isInside(Scope scope, Element root, Element element) {
    if (scope.limits() == null) {
      return true;
    }
    SelectorMatcher inside = matcher.scopedTo(root);
    for (Element e = element; e != null; e = SelectorMatcher.parent(e)) {
      if (inside.matches(scope.limits(), e)) {
        return false;
      }
      if (e == root) {
        return true;
      }
    }
    return true;
  }

  private void attributes(Element element, List<Applied> found) {
    for (Map.Entry<String, String> hint : Presentation.of(element).entrySet()) {
      found.add(new Applied(null, null, hint.getKey(), hint.getValue(), false, Origin.PRESENTATION, layers.size(), NO_SCOPE,
          Specificity.NONE, 0));
    }
    if (element.hasAttr("style")) {
      SourceText text = SourceText.of(page.source().file(), element.attr("style"));
      Stylesheet sheet = Stylesheet.readAttribute(text);
      SheetSource source = new SheetSource(page.source(), sheet, page.attributeOffset(element, "style"), Origin.STYLE_ATTRIBUTE);
      List<Node.Declaration> declarations = sheet.rules().stream()
          .filter(Node.Declaration.class::isInstance).map(Node.Declaration.class::cast).toList();
      FlatRule rule = new FlatRule(source, null, "style attribute", "", List.of(), null, declarations);
      int order = 0;
      for (Node.Declaration d : declarations) {
        found.add(new Applied(rule, d, d.property(), sheet.value(d), d.important(), Origin.STYLE_ATTRIBUTE,
            layers.size(), NO_SCOPE, Specificity.NONE, order++));
      }
    }
  }
}

package org.calmpalette.core.survey;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.calmpalette.core.css.Edit;
import org.calmpalette.core.css.Escapes;
import org.calmpalette.core.css.Node;
import org.calmpalette.core.css.TokenType;
import org.calmpalette.core.css.Tokens;
import org.calmpalette.core.mend.Fix;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.page.Paths;
import org.calmpalette.core.theme.SheetPart;
import org.calmpalette.core.theme.Theme;
import org.jsoup.nodes.Element;

/** The addresses that a theme's stylesheets and pages load things from. */
final class Addresses {
  private static final List<String[]> LOADING = List.of(new String[] {"img", "src"}, new String[] {"source", "src"},
      new String[] {"video", "src"}, new String[] {"video", "poster"}, new String[] {"audio", "src"}, new String[] {"script", "src"},
      new String[] {"iframe", "src"}, new String[] {"input[type=image]", "src"}, new String[] {"link[rel~=(?i)stylesheet|icon|preload]", "href"},
      new String[] {"image", "href"}, new String[] {"image", "xlink:href"});

  private final List<Address> all = new ArrayList<>();

  private Addresses() {}

  /**
   * An address where it is written.
   *
   * @param start offset of what is replaced when it is corrected: with its quotation marks in a stylesheet
   * @param quoted how a corrected one is written: {@code "}, {@code '}, or empty for none
   * @param what the words for what is loaded
   */
  record Address(String file, int line, int start, int end, String quoted, String url, String what) {}

  static List<Address> of(Theme theme) {
    Addresses found = new Addresses();
    theme.sheets().forEach(found::sheet);
    theme.pages().forEach(found::page);
    return found.all;
  }

  static boolean isOnAnotherHost(String url) {
    return url.strip().matches("(?i)(https?:)?//.*");
  }

  private void sheet(SheetPart part) {
    Tokens tokens = part.sheet().tokens();
    part.sheet().eachDeclaration((d, around) -> {
      boolean font = around.stream().anyMatch(r -> r instanceof Node.AtRule at && at.name().equals("font-face"));
      for (int i = d.valueFirst(); i < d.valueEnd(); i++) {
        address(part, tokens, i, d.valueEnd(), font ? "font" : "picture");
      }
    });
    for (Node node : part.sheet().rules()) {
      if (node instanceof Node.AtRule at && at.name().equals("import")) {
        int first = tokens.skipBlank(at.preludeFirst(), at.preludeEnd());
        if (first < at.preludeEnd() && tokens.is(first, TokenType.STRING)) {
          add(part, tokens, first, "stylesheet");
        } else if (first < at.preludeEnd()) {
          address(part, tokens, first, at.preludeEnd(), "stylesheet");
        }
      }
    }
  }

  private void address(SheetPart part, Tokens tokens, int i, int end, String what) {
    if (tokens.is(i, TokenType.URL)) {
      String raw = tokens.raw(i);
      int open = raw.indexOf('(') + 1;
      String inside = raw.substring(open, raw.endsWith(")") ? raw.length() - 1 : raw.length());
      int lead = inside.length() - inside.stripLeading().length();
      int start = part.offset() + tokens.start(i) + open + lead;
      all.add(new Address(part.path(), part.line(tokens.start(i)), start, start + inside.strip().length(), "", tokens.value(i), what));
    } else if (tokens.is(i, TokenType.FUNCTION) && tokens.lower(i).equals("url")) {
      int string = tokens.skipBlank(i + 1, end);
      if (tokens.is(string, TokenType.STRING)) {
        add(part, tokens, string, what);
      }
    }
  }

  private void add(SheetPart part, Tokens tokens, int string, String what) {
    all.add(new Address(part.path(), part.line(tokens.start(string)), part.offset() + tokens.start(string),
        part.offset() + tokens.end(string), tokens.raw(string).substring(0, 1), tokens.value(string), what));
  }

  private void page(Page page) {
    for (String[] loading : LOADING) {
      for (Element e : page.document().select(loading[0])) {
        if (e.hasAttr(loading[1])) {
          var range = e.attributes().sourceRange(loading[1]).valueRange();
          int start = range.startPos();
          all.add(new Address(page.source().file(), page.source().line(Math.max(0, Math.max(start, e.sourceRange().startPos()))),
              start, range.endPos(), "", e.attr(loading[1]),
              loading[0].startsWith("link") ? "stylesheet or icon" : loading[0].startsWith("img") || loading[0].startsWith("image") ? "picture" : loading[0].split("\\[")[0]));
        }
      }
    }
    for (Element e : page.document().select("[srcset]")) {
      var range = e.attributes().sourceRange("srcset").valueRange();
      if (range.startPos() >= 0) {
        int from = range.startPos();
        String text = page.source().text().substring(from, Math.max(from, range.endPos()));
        var m = java.util.regex.Pattern.compile("(?:^|,)\\s*([^\\s,]+)").matcher(text);
        while (m.find()) {
          all.add(new Address(page.source().file(), page.source().line(from), from + m.start(1), from + m.end(1), "", m.group(1), "picture"));
        }
      }
    }
  }

  /** Every place of a file where an address is written, corrected. */
  static Fix replace(String title, String file, String url, String right, List<Address> addresses) {
    Fix fix = Fix.of(title);
    for (Address a : addresses) {
      if (a.file().equals(file) && a.url().equals(url) && a.start() >= 0) {
        boolean page = Paths.isPage(file) && a.quoted().isEmpty();
        String bare = right.replace(" ", "%20");
        String text = page ? bare.replace("&", "&amp;") : a.quoted().isEmpty() ? bare.replaceAll("[()'\"\\\\]", "\\\\$0")
            : a.quoted().equals("\"") ? Escapes.string(right) : "'" + right.replace("\\", "\\\\").replace("'", "\\'") + "'";
        fix = fix.with(file, new Edit(a.start(), a.end(), text));
      }
    }
    return fix;
  }

  /** Things that visitors' browsers ask other hosts for. */
  static List<Finding> elsewhere(Theme theme, List<Address> addresses) {
    List<Finding> findings = new ArrayList<>();
    for (Address a : addresses) {
      if (!isOnAnotherHost(a.url())) {
        continue;
      }
      String rest = a.url().replaceFirst("^[^/]*//", "");
      String host = rest.replaceFirst("[/?#].*", "");
      String name = rest.replaceFirst("[?#].*", "").replaceFirst(".*/", "");
      Optional<String> here = name.isEmpty() ? Optional.empty()
          : theme.files().paths().stream().filter(f -> f.equals(name) || f.endsWith("/" + name)).findFirst();
      Finding finding = new Finding("other-host", a.file(), a.line(), 0, "Every visitor's browser asks " + host + " for a " + a.what()
          + ": it waits for that host, and the host learns who visits.",
          here.map(f -> "The theme has " + f + "; use that.").orElse("Put the file into the theme and name it from there."))
          .about(a.url() + "@" + a.what());
      findings.add(here.map(f -> finding.fixedBy(() -> replace("Took " + name + " from the theme instead of " + host, a.file(), a.url(),
          Paths.address(Paths.relative(a.file(), f)), addresses))).orElse(finding));
    }
    return findings;
  }
}

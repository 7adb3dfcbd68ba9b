package org.calmpalette.core.survey;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.calmpalette.core.css.Node;
import org.calmpalette.core.css.TokenType;
import org.calmpalette.core.css.Tokens;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.picture.PictureSize;
import org.calmpalette.core.page.Paths;
import org.calmpalette.core.theme.SheetPart;
import org.calmpalette.core.theme.Theme;
import org.jsoup.nodes.Element;

/** Finds the pictures that a theme names. */
final class Pictures {
  private final Theme theme;
  private final Map<List<String>, PictureUse> found = new LinkedHashMap<>();
  private final Map<String, PictureSize> sizes = new LinkedHashMap<>();

  private Pictures(Theme theme) {
    this.theme = theme;
  }

  static List<PictureUse> of(Theme theme) {
    Pictures pictures = new Pictures(theme);
    theme.sheets().forEach(pictures::inSheet);
    theme.pages().forEach(pictures::inPage);
    return List.copyOf(pictures.found.values());
  }

  private void inSheet(SheetPart part) {
    Tokens tokens = part.sheet().tokens();
    part.sheet().eachDeclaration((declaration, around) -> {
      if (around.stream().anyMatch(r -> r instanceof Node.AtRule at && at.name().equals("font-face"))) {
        return;
      }
      for (int i = declaration.valueFirst(); i < declaration.valueEnd(); i++) {
        if (tokens.is(i, TokenType.URL)) {
          add(tokens.value(i), part.path(), part.line(tokens.start(i)));
        } else if (tokens.is(i, TokenType.FUNCTION) && tokens.lower(i).equals("url")) {
          int string = tokens.skipBlank(i + 1, declaration.valueEnd());
          if (tokens.is(string, TokenType.STRING)) {
            add(tokens.value(string), part.path(), part.line(tokens.start(string)));
          }
        }
      }
    });
  }

  private void inPage(Page page) {
    for (Element e : page.document().select("img[src], source[srcset], img[srcset], video[poster], input[type=image][src]")) {
      int line = Math.max(1, page.source().line(Math.max(0, e.sourceRange().startPos())));
      for (String attribute : List.of("src", "poster")) {
        if (e.hasAttr(attribute)) {
          add(e.attr(attribute), page.source().file(), line);
        }
      }
      for (String candidate : candidates(e.attr("srcset"))) {
        add(candidate, page.source().file(), line);
      }
    }
  }

  private static List<String> candidates(String srcset) {
    List<String> urls = new ArrayList<>();
    if (!srcset.startsWith("data:")) {
      for (String candidate : srcset.split(",\\s+|,$")) {
        String url = candidate.strip().split("\\s+")[0];
        if (!url.isEmpty()) {
          urls.add(url);
        }
      }
    }
    return urls;
  }

  private void add(String url, String file, int line) {
    if (url.isBlank() || url.startsWith("#") || url.startsWith("data:")) {
      return;
    }
    PictureUse before = found.get(List.of(url, file));
    if (before != null) {
      found.put(List.of(url, file), new PictureUse(url, file, before.line(), before.path(), before.exists(),
          before.width(), before.height(), before.bytes(), before.uses() + 1));
      return;
    }
    Optional<String> path = Paths.resolve(file, url);
    boolean exists = path.filter(theme.files()::has).isPresent();
    PictureSize size = exists
        ? sizes.computeIfAbsent(path.get(), p -> PictureSize.read(theme.files().read(p)).orElse(new PictureSize(0, 0)))
        : new PictureSize(0, 0);
    found.put(List.of(url, file), new PictureUse(url, file, line, path.orElse(""), exists, size.width(),
        size.height(), exists ? theme.files().size(path.get()) : 0, 1));
  }
}

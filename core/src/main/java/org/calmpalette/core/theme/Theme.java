package org.calmpalette.core.theme;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import org.calmpalette.core.css.SourceText;
import org.calmpalette.core.css.Stylesheet;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.page.Paths;
import org.calmpalette.core.setting.Media;
import org.calmpalette.core.setting.Palette;
import org.calmpalette.core.setting.PaletteJson;

/**
 * A theme at one moment: its files, read.
 *
 * @param pages in order of path, {@code index.html} first
 * @param sheets those that are files, in order of path, then those inside pages
 * @param media what is known of the pictures and videos
 */
public record Theme(Files files, Palette palette, List<Page> pages, List<SheetPart> sheets, Media media) {
  public static final String SETTINGS_CSS = "settings.css";
  public static final String PALETTE_CSS = "palette.css";
  /** Made by us from palette.json, and made again at every build: not part of what a maker wrote. */
  private static final Set<String> GENERATED = Set.of(SETTINGS_CSS, PALETTE_CSS);

  /** Whether a file is made at every build. */
  public static boolean isGenerated(String path) {
    return GENERATED.contains(path);
  }

  /** @throws org.calmpalette.core.BadInputException if palette.json cannot be understood */
  public static Theme read(Files files, String name) {
    Palette palette = files.has(Palette.FILE)
        ? PaletteJson.read(files.read(Palette.FILE), name) : Palette.empty(name);
    List<Page> pages = new ArrayList<>();
    List<SheetPart> sheets = new ArrayList<>();
    List<SheetPart> embedded = new ArrayList<>();
    for (String path : files.paths()) {
      if (Paths.isPage(path)) {
        Page page = Page.read(path, files.read(path));
        pages.add(path.equals("index.html") ? 0 : pages.size(), page);
        for (Page.Span span : page.styles()) {
          SourceText text = SourceText.of(path, page.source().text().substring(span.start(), span.end()));
          embedded.add(new SheetPart(page.source(), Stylesheet.read(text), span.start()));
        }
      } else if (Paths.isStylesheet(path) && !GENERATED.contains(path)) {
        SourceText text = SourceText.stylesheet(path, files.read(path));
        sheets.add(new SheetPart(text, Stylesheet.read(text), 0));
      }
    }
    sheets.addAll(embedded);
    return new Theme(files, palette, List.copyOf(pages), List.copyOf(sheets), new ThemeMedia(files));
  }
}

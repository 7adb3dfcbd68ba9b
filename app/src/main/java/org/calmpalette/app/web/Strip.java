package org.calmpalette.app.web;

import java.util.List;
import org.calmpalette.core.setting.Band;
import org.calmpalette.core.theme.Theme;

/**
 * The page strip: the same page at several window widths.
 *
 * @param base address of the preview without the page
 * @param page path of the page that is shown
 * @param pages paths of all pages
 */
public record Strip(String base, String page, List<String> pages, List<Window> windows) {
  /** One frame: its width in CSS px and the band that it stands for. */
  public record Window(int width, String band) {}

  private static final int[] WIDTHS = {390, 820, 1440};

  public static Strip of(Theme theme, String base, String page) {
    List<String> pages = theme.pages().stream().map(p -> p.source().file()).toList();
    String shown = pages.contains(page) ? page : pages.isEmpty() ? "" : pages.get(0);
    return new Strip(base, shown, pages, java.util.Arrays.stream(WIDTHS)
        .mapToObj(w -> new Window(w, band(theme.palette().bands(), w))).toList());
  }

  private static String band(List<Band> bands, int width) {
    return bands.stream().filter(b -> b.to() == null || width <= b.to()).findFirst().map(Band::label).orElse("");
  }
}

package org.calmpalette.app.sites;

import jakarta.servlet.http.HttpServletRequest;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.calmpalette.app.storage.Hash;
import org.calmpalette.app.themes.Snapshot;
import org.calmpalette.app.themes.ThemeService;
import org.calmpalette.app.web.ContentTypes;
import org.calmpalette.core.build.ThemeBuild;
import org.calmpalette.core.css.Edit;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.page.Paths;
import org.calmpalette.core.setting.Effective;
import org.calmpalette.core.theme.Theme;
import org.jsoup.nodes.Element;
import org.springframework.http.HttpHeaders;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.util.UrlPathHelper;

/**
 * What visitors see. Stylesheets have addresses that carry a hash of their content and may be cached for ever; pages
 * are asked for anew each time, so that a new edition shows at the next load.
 */
@Controller
class LiveController {
  private static final String FOR_EVER = "public, max-age=31536000, immutable";
  private static final Pattern HREF = Pattern.compile("\\bhref\\s*=\\s*(\"[^\"]*\"|'[^']*'|[^\\s>\"']+)",
      Pattern.CASE_INSENSITIVE);

  private final SiteService sites;
  private final ThemeService themes;

  LiveController(SiteService sites, ThemeService themes) {
    this.sites = sites;
    this.themes = themes;
  }

  @GetMapping("/at/{slug}")
  String withoutSlash(@PathVariable String slug) {
    return "redirect:/at/" + slug + "/";
  }

  @GetMapping("/at/{slug}/palette.{hash}.css")
  ResponseEntity<byte[]> palette(@PathVariable String slug, @PathVariable String hash) {
    return sites.withPalette(slug, hash)
        .map(e -> file("palette.css", e.paletteCss().getBytes(StandardCharsets.UTF_8), FOR_EVER))
        .orElseGet(() -> plain(404, "There is no such stylesheet."));
  }

  @GetMapping("/at/{slug}/files/{hash}/**")
  ResponseEntity<byte[]> hashed(@PathVariable String slug, @PathVariable String hash, HttpServletRequest request) {
    String path = after(request, "/at/" + slug + "/files/" + hash + "/");
    for (Snapshot snapshot : sites.snapshotsOf(slug)) {
      Theme theme = themes.read(snapshot).theme();
      if (filesHash(snapshot, theme).equals(hash)) {
        return themeFile(theme, path, FOR_EVER);
      }
    }
    return plain(404, "There is no such file.");
  }

  @GetMapping("/at/{slug}/**")
  ResponseEntity<byte[]> page(@PathVariable String slug, HttpServletRequest request) {
    String path = after(request, "/at/" + slug + "/");
    Edition live = sites.live(slug).orElse(null);
    if (live == null) {
      return plain(404, "This site is not live yet.");
    }
    Snapshot snapshot = themes.snapshot(live.snapshotId());
    Theme theme = themes.read(snapshot).theme();
    String wanted = path.isEmpty() || path.endsWith("/") ? path + "index.html" : path;
    if (path.isEmpty() && !theme.files().has(wanted) && !theme.pages().isEmpty()) {
      return ResponseEntity.status(302).header(HttpHeaders.LOCATION, "/at/" + slug + "/" + encoded(theme.pages().get(0).source().file()))
          .header(HttpHeaders.CACHE_CONTROL, "no-store").build();
    }
    if (!Paths.isPage(wanted)) {
      return themeFile(theme, wanted, "no-cache");
    }
    return theme.pages().stream().filter(p -> p.source().file().equals(wanted)).findFirst()
        .map(p -> page(p, ThemeBuild.chosen(theme, SiteService.chosenIn(live)), slug, filesHash(snapshot, theme), live, request))
        .orElseGet(() -> plain(404, "There is no page " + wanted + " on this site."));
  }

  private static String after(HttpServletRequest request, String prefix) {
    return UrlPathHelper.defaultInstance.getPathWithinApplication(request).substring(prefix.length());
  }

  /** Stands for all files of a theme with its {@code settings.css}. */
  private static String filesHash(Snapshot snapshot, Theme theme) {
    String settings = ThemeBuild.settingsCss(theme);
    return Hash.of((snapshot.treeHash() + settings).getBytes(StandardCharsets.UTF_8)).substring(0, 24);
  }

  private static ResponseEntity<byte[]> page(Page page, Effective values, String slug, String filesHash, Edition live,
      HttpServletRequest request) {
    Page linked = Page.read(page.source().file(), ThemeBuild.finished(page, values));
    byte[] bytes = linked.source().withEdits(addresses(linked, "/at/" + slug, filesHash, live));
    String own = request.getRequestURL().toString();
    own = own.substring(0, own.indexOf('/', own.indexOf("//") + 2));
    String policy = ("sandbox allow-popups allow-popups-to-escape-sandbox; default-src 'none'; "
        + "style-src 'unsafe-inline' %1$s; img-src %1$s data:; font-src %1$s data:; media-src %1$s; base-uri 'none'; "
        + "form-action 'none'; frame-ancestors 'self'").formatted(own);
    boolean says = linked.source().text().substring(0, Math.min(1024, linked.source().text().length()))
        .toLowerCase(java.util.Locale.ROOT).contains("charset");
    return ResponseEntity.ok()
        .header(HttpHeaders.CONTENT_TYPE, says ? "text/html" : "text/html;charset=" + linked.source().charset())
        .header(HttpHeaders.CACHE_CONTROL, "no-cache")
        .header(HttpHeaders.ETAG, "\"" + Hash.of(bytes).substring(0, 32) + "\"")
        .header("Content-Security-Policy", policy)
        .body(bytes);
  }

  /** Points the page's stylesheet links at their hashed addresses. */
  private static List<Edit> addresses(Page page, String base, String filesHash, Edition live) {
    List<Edit> edits = new ArrayList<>();
    String text = page.source().text();
    for (Element link : page.document().select("link[rel~=(?i)\\bstylesheet\\b][href]")) {
      int start = link.sourceRange().startPos();
      Matcher href = HREF.matcher(text).region(Math.max(0, start), link.sourceRange().endPos());
      String target = Paths.resolve(page.source().file(), link.attr("href")).orElse("");
      if (start < 0 || target.isEmpty() || !href.find()) {
        continue;
      }
      String address = target.equals(Theme.PALETTE_CSS)
          ? base + "/palette." + live.paletteHash() + ".css"
          : base + "/files/" + filesHash + "/" + encoded(target);
      edits.add(new Edit(href.start(1), href.end(1), "\"" + address + "\""));
    }
    return edits;
  }

  private static String encoded(String path) {
    return org.springframework.web.util.UriUtils.encodePath(path, StandardCharsets.UTF_8).replace("\"", "%22");
  }

  private static ResponseEntity<byte[]> themeFile(Theme theme, String path, String caching) {
    if (path.equals(Theme.SETTINGS_CSS)) {
      return file(path, ThemeBuild.settingsCss(theme).getBytes(StandardCharsets.UTF_8), caching);
    }
    return theme.files().has(path) && !path.equals("palette.json")
        ? file(path, theme.files().read(path), caching) : plain(404, "There is no such file.");
  }

  private static ResponseEntity<byte[]> file(String path, byte[] bytes, String caching) {
    return ResponseEntity.ok()
        .header(HttpHeaders.CONTENT_TYPE, ContentTypes.of(path))
        .header(HttpHeaders.CACHE_CONTROL, caching)
        .header(HttpHeaders.ETAG, "\"" + Hash.of(bytes).substring(0, 32) + "\"")
        .header(HttpHeaders.ACCESS_CONTROL_ALLOW_ORIGIN, "*")
        .header("Cross-Origin-Resource-Policy", "cross-origin")
        .header("Content-Security-Policy", "sandbox; default-src 'none'; style-src 'unsafe-inline'")
        .body(bytes);
  }

  private static ResponseEntity<byte[]> plain(int status, String text) {
    return ResponseEntity.status(status)
        .header(HttpHeaders.CONTENT_TYPE, "text/plain;charset=utf-8")
        .header(HttpHeaders.CACHE_CONTROL, "no-store")
        .body(text.getBytes(StandardCharsets.UTF_8));
  }
}

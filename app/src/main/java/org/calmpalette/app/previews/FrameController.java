package org.calmpalette.app.previews;

import jakarta.servlet.http.HttpServletRequest;
import java.nio.charset.StandardCharsets;
import java.security.SecureRandom;
import java.util.Base64;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.calmpalette.app.frames.FrameAddresses;
import org.calmpalette.app.frames.FramePage;
import org.calmpalette.app.sites.SiteService;
import org.calmpalette.app.storage.Hash;
import org.calmpalette.app.themes.ThemeCache;
import org.calmpalette.app.themes.ThemeService;
import org.calmpalette.app.web.ContentTypes;
import org.calmpalette.app.web.Languages;
import org.calmpalette.app.web.RequestPath;
import org.calmpalette.core.output.ThemeBuild;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.page.Paths;
import org.calmpalette.core.setting.Chosen;
import org.calmpalette.core.setting.Effective;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.ThemeFiles;
import org.springframework.core.io.ByteArrayResource;
import org.springframework.http.HttpHeaders;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.servlet.resource.ResourceUrlProvider;

/** Shows a theme's files in previews: apart from our origin, without their scripts. */
@Controller
class FrameController {
    private static final String NOTHING_RUNS = "sandbox; default-src 'none'; style-src 'unsafe-inline' %1$s; "
            + "img-src %1$s data:; font-src %1$s data:; media-src %1$s; base-uri 'none'; form-action 'none'; "
            + "frame-ancestors 'self'";
    private static final SecureRandom RANDOM = new SecureRandom();

    private final FrameAddresses addresses;
    private final ThemeService themes;
    private final SiteService sites;
    private final ResourceUrlProvider assets;
    private final Languages languages;

    FrameController(
            FrameAddresses addresses,
            ThemeService themes,
            SiteService sites,
            ResourceUrlProvider assets,
            Languages languages) {
        this.languages = languages;
        this.addresses = addresses;
        this.themes = themes;
        this.sites = sites;
        this.assets = assets;
    }

    @GetMapping("/frame/{token}/**")
    ResponseEntity<?> file(@PathVariable String token, HttpServletRequest request) {
        List<String> segments = RequestPath.segments(request.getRequestURI()).orElse(List.of());
        if (segments.size() < 3) {
            return gone("There is no such file in this theme.");
        }
        String path = String.join("/", segments.subList(2, segments.size()));
        FrameAddresses.Shown shown = addresses.read(token).orElse(null);
        if (shown == null) {
            return gone("This preview is over. Load the page around it again.");
        }
        Map<String, Chosen> values = null;
        ThemeCache.Read read;
        if (shown.kind() == FrameAddresses.Shown.VARIATION) {
            read = themes.read(themes.snapshot(shown.id()));
            if (shown.variation() >= read.variations().size()) {
                // An earlier version of this program had other values in mind.
                return gone("This preview is over. Load the page around it again.");
            }
            values = read.variations().get(shown.variation()).chosen(read.theme());
        } else if (shown.kind() != FrameAddresses.Shown.SNAPSHOT) {
            Optional<SiteService.Draft> found =
                    switch (shown.kind()) {
                        case FrameAddresses.Shown.DRAFT -> Optional.of(sites.draft(shown.id()));
                        case FrameAddresses.Shown.HAND -> sites.inHand(shown.id());
                        default -> Optional.of(sites.edition(shown.id()));
                    };
            if (found.isEmpty()) {
                // Whoever has a link has no account that would say what they read.
                return gone(languages.wanted(request).sentence("hand.over"));
            }
            SiteService.Draft draft = found.get();
            values = draft.choices();
            read = sites.read(draft);
        } else {
            read = themes.read(themes.snapshot(shown.id()));
        }
        return answer(read.theme(), values, path, shown.kind() == FrameAddresses.Shown.HAND, request);
    }

    /** @param whole whether it is looked at by itself, with nothing of ours around it */
    private ResponseEntity<?> answer(
            Theme theme, Map<String, Chosen> values, String path, boolean whole, HttpServletRequest request) {
        ThemeFiles files = theme.files();
        String own = RequestPath.origin(request);
        if (Paths.isPage(path)) {
            Page page = theme.pages().stream()
                    .filter(p -> p.source().file().equals(path))
                    .findFirst()
                    .orElse(null);
            String aside = theme.aside(path)
                    .map(a -> "This page is not shown here. " + a.why())
                    .orElse("There is no page " + path + " in this theme.");
            return page == null
                    ? gone(aside)
                    : page(
                            page,
                            values == null ? ThemeBuild.defaults(theme) : ThemeBuild.chosen(theme, values),
                            own,
                            whole || "still".equals(request.getQueryString()));
        }
        byte[] bytes;
        if (path.equals(Theme.SETTINGS_CSS)) {
            bytes = ThemeBuild.settingsCss(theme).getBytes(StandardCharsets.UTF_8);
        } else if (path.equals(Theme.PALETTE_CSS) && (values != null || !files.has(path))) {
            bytes = ThemeBuild.paletteCss(theme, values == null ? Map.of() : values)
                    .getBytes(StandardCharsets.UTF_8);
        } else if (files.has(path)) {
            bytes = files.read(path);
        } else {
            return gone("There is no file " + path + " in this theme.");
        }
        String tag = "\"" + Hash.of(bytes).substring(0, 32) + "\"";
        String ifRange = request.getHeader(HttpHeaders.IF_RANGE);
        return ResponseEntity.ok()
                .header(HttpHeaders.CONTENT_TYPE, ContentTypes.servedOf(path) + charset(theme, path))
                .header(HttpHeaders.CACHE_CONTROL, "private, max-age=3600")
                .eTag(tag)
                // Fonts are asked for across origins, since a sandboxed page has an origin of its own.
                .header(HttpHeaders.ACCESS_CONTROL_ALLOW_ORIGIN, "*")
                .header("Cross-Origin-Resource-Policy", "cross-origin")
                .header("Content-Security-Policy", NOTHING_RUNS.formatted(own))
                // As a resource it is answered in ranges, which videos are asked for; not if another state's range is
                // wanted.
                .body(ifRange == null || ifRange.equals(tag) ? new ByteArrayResource(bytes) : bytes);
    }

    /** @param still whether it gets no script of ours: a small picture in a list needs no outlines */
    private ResponseEntity<byte[]> page(Page page, Effective values, String own, boolean still) {
        byte[] random = new byte[18];
        RANDOM.nextBytes(random);
        String nonce = Base64.getUrlEncoder().encodeToString(random);
        Page numbered = Page.read(page.source().file(), FramePage.numbered(page));
        Page shown = Page.read(page.source().file(), ThemeBuild.finished(numbered, values));
        String html = FramePage.of(shown, page, still ? null : assets.getForLookupPath("/assets/frame.js"), nonce);
        String policy = NOTHING_RUNS
                .formatted(own)
                .replaceFirst("sandbox;", "sandbox allow-scripts; script-src 'nonce-" + nonce + "';");
        return ResponseEntity.ok()
                .header(HttpHeaders.CONTENT_TYPE, "text/html;charset=utf-8")
                .header(HttpHeaders.CACHE_CONTROL, "no-store")
                .header("Content-Security-Policy", policy)
                .header("Referrer-Policy", "no-referrer")
                .header("X-Robots-Tag", "noindex, nofollow")
                .body(html.getBytes(StandardCharsets.UTF_8));
    }

    private static ResponseEntity<byte[]> gone(String why) {
        return ResponseEntity.status(404)
                .header(HttpHeaders.CONTENT_TYPE, "text/plain;charset=utf-8")
                .header(HttpHeaders.CACHE_CONTROL, "no-store")
                .header("Content-Security-Policy", "sandbox; default-src 'none'; frame-ancestors 'self'")
                .body(why.getBytes(StandardCharsets.UTF_8));
    }

    /** The page around is sent as UTF-8 here, whatever it is written in, so a sheet that is read as its page says in what it is written. */
    private static String charset(Theme theme, String path) {
        return theme.sheets().stream()
                .filter(s -> s.offset() == 0 && s.path().equals(path))
                .map(s -> s.file().charset())
                .filter(c -> !c.equals(StandardCharsets.UTF_8))
                .map(c -> ";charset=" + c.name())
                .findFirst()
                .orElse("");
    }
}

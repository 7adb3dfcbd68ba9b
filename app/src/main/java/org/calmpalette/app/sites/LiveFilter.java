package org.calmpalette.app.sites;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.ServletOutputStream;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.calmpalette.app.storage.TreeFiles;
import org.calmpalette.app.web.ContentTypes;
import org.calmpalette.app.web.Languages;
import org.calmpalette.app.web.RequestPath;
import org.calmpalette.core.language.Language;
import org.calmpalette.core.page.Paths;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.http.HttpRange;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;

/**
 * Answers visitors of live sites, before anything that only our own pages need. Stylesheets have addresses that carry a
 * hash of their content and may be cached for ever; pages are asked for anew each time, so that a new edition shows at
 * the next load. Nothing here needs to know who asks.
 */
@Component
@Order(Ordered.HIGHEST_PRECEDENCE + 20)
class LiveFilter extends OncePerRequestFilter {
    private static final String FOR_EVER = "public, max-age=31536000, immutable";
    private static final Pattern PALETTE = Pattern.compile("palette\\.([0-9a-f]{64})\\.css");
    private static final Pattern FILES = Pattern.compile("files/([0-9a-f]{24})/(.+)");
    private static final String NOTHING_RUNS = "sandbox; default-src 'none'; style-src 'unsafe-inline'";

    private final LiveSites sites;
    private final Languages languages;

    LiveFilter(LiveSites sites, Languages languages) {
        this.sites = sites;
        this.languages = languages;
    }

    @Override
    protected boolean shouldNotFilter(HttpServletRequest request) {
        String path = request.getRequestURI();
        return !path.startsWith("/at/") && !path.equals("/at");
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        response.setHeader("X-Content-Type-Options", "nosniff");
        if (!request.getMethod().equals("GET") && !request.getMethod().equals("HEAD")) {
            response.setHeader("Allow", "GET, HEAD");
            plain(request, response, 405, "live.looked-at");
            return;
        }
        List<String> parts = RequestPath.segments(request.getRequestURI()).orElse(List.of());
        if (parts.size() < 2 || !Site.isSlug(parts.get(1))) {
            plain(request, response, 404, "live.no-site");
            return;
        }
        String slug = parts.get(1);
        if (parts.size() == 2) {
            redirect(response, "/at/" + slug + "/");
            return;
        }
        String path = String.join("/", parts.subList(2, parts.size()));
        Matcher palette = PALETTE.matcher(path);
        Matcher files = FILES.matcher(path);
        if (palette.matches()) {
            Optional<TreeFiles.Entry> entry = sites.palette(slug, palette.group(1));
            send(request, response, "palette.css", entry, FOR_EVER, "live.no-stylesheet");
        } else if (files.matches()) {
            send(
                    request,
                    response,
                    files.group(2),
                    sites.file(slug, files.group(1), files.group(2)),
                    FOR_EVER,
                    "live.no-file");
        } else {
            live(request, response, slug, path);
        }
    }

    private void live(HttpServletRequest request, HttpServletResponse response, String slug, String path)
            throws IOException {
        LiveSites.Live live = sites.live(slug).orElse(null);
        if (live == null || !live.isLive()) {
            plain(request, response, 404, live == null ? "live.no-site" : "live.not-yet");
            return;
        }
        String wanted = path.isEmpty() || path.endsWith("/") ? path + "index.html" : path;
        if (path.isEmpty() && !live.files().containsKey(wanted) && live.first() != null) {
            redirect(response, "/at/" + slug + "/" + Paths.address(live.first()));
            return;
        }
        send(
                request,
                response,
                wanted,
                Optional.ofNullable(live.files().get(wanted)),
                "no-cache",
                Paths.isPage(wanted) ? "live.no-page" : "live.no-file");
    }

    private void send(
            HttpServletRequest request,
            HttpServletResponse response,
            String path,
            Optional<TreeFiles.Entry> found,
            String caching,
            String missing)
            throws IOException {
        if (found.isEmpty()) {
            plain(request, response, 404, missing, path);
            return;
        }
        TreeFiles.Entry entry = found.get();
        boolean large = entry.size() > LiveSites.LARGE;
        LiveSites.Bytes bytes = large ? null : sites.bytes(path, entry);
        boolean packed = !large && bytes.packed().length > 0 && accepts(request) && request.getHeader("Range") == null;
        String tag = "\"" + entry.hash().substring(0, 32) + (packed ? "-gz\"" : "\"");
        response.setHeader("ETag", tag);
        response.setHeader("Cache-Control", caching);
        if (!large && bytes.packed().length > 0) {
            response.setHeader("Vary", "Accept-Encoding");
        }
        if (matches(request.getHeader("If-None-Match"), tag)) {
            response.setStatus(304);
            return;
        }
        boolean page = Paths.isPage(path);
        response.setHeader(
                "Content-Type",
                !large
                        ? bytes.type()
                        : page ? ContentTypes.ofPage(sites.piece(entry, 0, 1024)) : ContentTypes.servedOf(path));
        response.setHeader("Content-Security-Policy", page ? policy(request, !large && bytes.film()) : NOTHING_RUNS);
        if (!page) {
            response.setHeader("Access-Control-Allow-Origin", "*");
            response.setHeader("Cross-Origin-Resource-Policy", "cross-origin");
        }
        boolean body = request.getMethod().equals("GET");
        if (packed) {
            response.setHeader("Content-Encoding", "gzip");
            response.setContentLength(bytes.packed().length);
            if (body) {
                response.getOutputStream().write(bytes.packed());
            }
            return;
        }
        response.setHeader("Accept-Ranges", "bytes");
        long from = 0;
        long end = entry.size();
        String range = request.getHeader("If-Range") == null
                        || request.getHeader("If-Range").equals(tag)
                ? request.getHeader("Range")
                : null;
        if (range != null) {
            try {
                List<HttpRange> ranges = HttpRange.parseRanges(range);
                // Of several ranges none is given: a server may answer with the whole (RFC 9110, section 14.2).
                if (ranges.size() == 1) {
                    from = ranges.get(0).getRangeStart(entry.size());
                    end = Math.min(entry.size(), ranges.get(0).getRangeEnd(entry.size()) + 1);
                    if (from >= end) {
                        throw new IllegalArgumentException("behind the end");
                    }
                    response.setStatus(206);
                    response.setHeader("Content-Range", "bytes " + from + "-" + (end - 1) + "/" + entry.size());
                }
            } catch (IllegalArgumentException notSatisfiable) {
                response.setHeader("Content-Range", "bytes */" + entry.size());
                plain(request, response, 416, "live.no-bytes");
                return;
            }
        }
        response.setContentLengthLong(end - from);
        if (body && large) {
            pieces(response.getOutputStream(), entry, from, end);
        } else if (body) {
            response.getOutputStream().write(bytes.plain(), (int) from, (int) (end - from));
        }
    }

    private void pieces(ServletOutputStream out, TreeFiles.Entry entry, long from, long end) throws IOException {
        for (long at = from; at < end; ) {
            byte[] piece = sites.piece(entry, at, (int) Math.min(LiveSites.LARGE, end - at));
            out.write(piece);
            at += piece.length;
        }
    }

    private static boolean accepts(HttpServletRequest request) {
        String accepted = request.getHeader("Accept-Encoding");
        return accepted != null && accepted.contains("gzip") && !accepted.contains("gzip;q=0");
    }

    private static boolean matches(String ifNoneMatch, String tag) {
        return ifNoneMatch != null
                && (ifNoneMatch.equals(tag) || ifNoneMatch.equals("W/" + tag) || ifNoneMatch.contains(tag));
    }

    /**
     * Nothing runs: no source of scripts is allowed, neither theirs nor in attributes. A sandbox without scripts would keep films from
     * starting as well (HTML, section 7.1.5, automatic features) and have the browser lay its controls over the words, so one with a film
     * that starts by itself goes without that second lock.
     */
    private static String policy(HttpServletRequest request, boolean film) {
        String own = RequestPath.origin(request);
        return "sandbox " + (film ? "allow-scripts " : "")
                + "allow-popups allow-popups-to-escape-sandbox; default-src 'none'; style-src 'unsafe-inline' "
                + own + "; img-src " + own + " data:; font-src " + own + " data:; media-src " + own
                + "; base-uri 'none'; form-action 'none'; frame-ancestors 'self'";
    }

    private static void redirect(HttpServletResponse response, String address) {
        response.setStatus(302);
        response.setHeader("Location", address);
        response.setHeader("Cache-Control", "no-store");
    }

    /** @param key of a sentence, said in the language of who looks */
    private void plain(
            HttpServletRequest request, HttpServletResponse response, int status, String key, Object... about)
            throws IOException {
        Language language = languages.wanted(request);
        byte[] bytes = language.sentence(key, about).getBytes(StandardCharsets.UTF_8);
        response.setStatus(status);
        response.setHeader("Content-Language", language.tag());
        response.setHeader("Content-Type", "text/plain;charset=utf-8");
        response.setHeader("Cache-Control", "no-store");
        response.setContentLength(bytes.length);
        response.getOutputStream().write(bytes);
    }
}

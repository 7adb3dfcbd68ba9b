package org.calmpalette.app.web;

import jakarta.servlet.http.HttpServletRequest;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** Reads the path of a request by itself, since files of a theme may have any name: {@code a;b.css}, {@code 100%.html}. */
public final class RequestPath {
    private RequestPath() {}

    /**
     * The segments of a path, decoded; a path that ends with a slash has an empty last one.
     *
     * @param uri as the browser sent it
     * @return empty if it is not valid UTF-8, climbs, or holds what no file's name may hold
     */
    public static Optional<List<String>> segments(String uri) {
        List<String> segments = new ArrayList<>();
        for (String raw : uri.substring(1).split("/", -1)) {
            String segment = decoded(raw);
            if (segment == null
                    || segment.equals("..")
                    || segment.equals(".")
                    || segment.indexOf('/') >= 0
                    || segment.indexOf('\\') >= 0
                    || segment.chars().anyMatch(c -> c < 0x20 || c == 0x7f)) {
                return Optional.empty();
            }
            segments.add(segment);
        }
        return Optional.of(segments);
    }

    private static String decoded(String raw) {
        byte[] out = new byte[raw.length() * 3];
        int n = 0;
        for (int i = 0; i < raw.length(); i++) {
            char c = raw.charAt(i);
            if (c == '%') {
                int high = i + 2 < raw.length() ? Character.digit(raw.charAt(i + 1), 16) : -1;
                int low = high < 0 ? -1 : Character.digit(raw.charAt(i + 2), 16);
                if (low < 0) {
                    return null;
                }
                out[n++] = (byte) (high * 16 + low);
                i += 2;
            } else if (c < 0x80) {
                out[n++] = (byte) c;
            } else {
                return null;
            }
        }
        try {
            return StandardCharsets.UTF_8
                    .newDecoder()
                    .decode(ByteBuffer.wrap(out, 0, n))
                    .toString();
        } catch (CharacterCodingException e) {
            return null;
        }
    }

    /** Our own origin as the browser sees it; {@code 'self'} would mean the opaque origin of a sandbox in some browsers. */
    public static String origin(HttpServletRequest request) {
        int port = request.getServerPort();
        String scheme = request.getScheme();
        boolean usual = port == (scheme.equals("https") ? 443 : 80) || port <= 0;
        return scheme + "://" + request.getServerName() + (usual ? "" : ":" + port);
    }

    /** The path as a log may have it: what stands in a link that opens something is left out. */
    static String told(HttpServletRequest request) {
        return told(request.getRequestURI());
    }

    static String told(String uri) {
        return uri.replaceAll("(?<=[/-])[A-Za-z0-9_-]{43}(?=/|$)", "…");
    }

    /** The page of ours from which a request came, without our address; {@code /} where none is told. */
    static String from(HttpServletRequest request) {
        String back = request.getHeader("Referer");
        String url = request.getRequestURL().toString();
        String origin = url.substring(0, url.length() - request.getRequestURI().length());
        return back != null && back.startsWith(origin + "/") ? back.substring(origin.length()) : "/";
    }
}

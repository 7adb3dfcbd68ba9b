package org.calmpalette.app.web;

import java.nio.charset.StandardCharsets;
import java.util.Locale;
import java.util.Map;
import org.calmpalette.core.css.SourceText;
import org.calmpalette.core.page.Paths;

/** Media types of a theme's files, by their endings; what is not listed is handed out as bytes without meaning. */
public final class ContentTypes {
    private static final Map<String, String> TYPES = Map.ofEntries(
            Map.entry("html", "text/html"),
            Map.entry("htm", "text/html"),
            Map.entry("xhtml", "application/xhtml+xml"),
            Map.entry("css", "text/css"),
            Map.entry("js", "text/javascript"),
            Map.entry("json", "application/json"),
            Map.entry("txt", "text/plain"),
            Map.entry("xml", "application/xml"),
            Map.entry("svg", "image/svg+xml"),
            Map.entry("png", "image/png"),
            Map.entry("jpg", "image/jpeg"),
            Map.entry("jpeg", "image/jpeg"),
            Map.entry("gif", "image/gif"),
            Map.entry("webp", "image/webp"),
            Map.entry("avif", "image/avif"),
            Map.entry("ico", "image/x-icon"),
            Map.entry("woff", "font/woff"),
            Map.entry("woff2", "font/woff2"),
            Map.entry("ttf", "font/ttf"),
            Map.entry("otf", "font/otf"),
            Map.entry("mp4", "video/mp4"),
            Map.entry("webm", "video/webm"),
            Map.entry("mp3", "audio/mpeg"),
            Map.entry("pdf", "application/pdf"));

    private ContentTypes() {}

    public static String of(String path) {
        return TYPES.getOrDefault(Paths.ending(path), "application/octet-stream");
    }

    /**
     * The type under which a stranger's file leaves this server. A script is text here: what may run in our own pages may not
     * come from a theme, and previews and live sites run none.
     */
    public static String servedOf(String path) {
        String type = of(path);
        return type.equals("text/javascript") ? "text/plain;charset=utf-8" : type;
    }

    /** Whether packing gains something. */
    public static boolean isText(String path) {
        String type = of(path);
        return type.startsWith("text/")
                || type.endsWith("json")
                || type.endsWith("xml")
                || type.equals("font/ttf")
                || type.equals("font/otf");
    }

    /** The type of a page: one that names no encoding itself gets the one that it is read in. */
    public static String ofPage(byte[] start) {
        byte[] first = java.util.Arrays.copyOf(start, Math.min(start.length, 1024));
        boolean says = new String(first, StandardCharsets.ISO_8859_1)
                .toLowerCase(Locale.ROOT)
                .contains("charset");
        return says
                ? "text/html"
                : "text/html;charset=" + SourceText.page("", start).charset();
    }
}

package org.calmpalette.app.web;

import jakarta.servlet.http.Cookie;
import jakarta.servlet.http.HttpServletRequest;
import java.util.Arrays;
import java.util.List;
import org.calmpalette.core.page.Paths;
import org.calmpalette.core.setting.Band;
import org.calmpalette.core.setting.Bands;
import org.calmpalette.core.theme.Theme;
import tools.jackson.databind.json.JsonMapper;

/**
 * The page strip: the same page at several window widths.
 *
 * @param base address of the preview without the page
 * @param page path of the page that is shown
 * @param pages paths of all pages
 * @param bands keys and ends of the bands as JSON, for scripts
 * @param together whether the frames scroll together
 */
public record Strip(
        String base, String page, List<String> pages, List<Window> windows, String bands, boolean together) {
    /** Address of the page that is shown. */
    public String address() {
        return page.isEmpty() ? "about:blank" : base + Paths.address(page);
    }

    /** One frame: its width in CSS px and the band that it stands for. */
    public record Window(int width, String band) {}

    /** A cookie, since how one likes to look concerns the browser one looks with: widths with hyphens, then {@code t} for together. */
    public static final String COOKIE = "calm-strip";

    public static final int MOST = 5;
    private static final int[] WIDTHS = {390, 820, 1440};

    public static Strip of(Theme theme, String base, String page, HttpServletRequest request) {
        List<String> pages = theme.pages().stream().map(p -> p.source().file()).toList();
        String shown = pages.contains(page) ? page : pages.isEmpty() ? "" : pages.get(0);
        Bands bands = theme.palette().bands();
        String liked = request == null || request.getCookies() == null
                ? ""
                : Arrays.stream(request.getCookies())
                        .filter(c -> c.getName().equals(COOKIE))
                        .map(Cookie::getValue)
                        .findFirst()
                        .orElse("");
        return new Strip(
                base,
                shown,
                pages,
                Arrays.stream(widths(liked))
                        .mapToObj(w -> new Window(w, bands.at(w).label()))
                        .toList(),
                bands(bands),
                liked.endsWith("t"));
    }

    private static int[] widths(String liked) {
        int[] read = Arrays.stream(liked.split("-"))
                .filter(w -> w.matches("\\d{3,4}"))
                .mapToInt(Integer::parseInt)
                .filter(w -> w >= Band.NARROWEST_EDGE && w <= Band.WIDEST_EDGE)
                .limit(MOST)
                .toArray();
        return read.length == 0 ? WIDTHS : read;
    }

    private static String bands(Bands bands) {
        return JsonMapper.shared()
                .writeValueAsString(bands.list().stream()
                        .map(b -> List.of(b.key(), b.to() == null ? 1_000_000 : b.to()))
                        .toList());
    }
}

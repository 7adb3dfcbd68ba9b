package org.calmpalette.core.output;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.calmpalette.core.css.Edit;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.page.Paths;
import org.calmpalette.core.theme.Theme;
import org.jsoup.nodes.Element;

/**
 * Puts the links to {@code settings.css} and {@code palette.css} into a page: the first before every stylesheet of the
 * page, since custom properties are declared before they are read; the second after all of them, so that it wins.
 */
final class PageLinks {
    private PageLinks() {}

    static List<Edit> edits(Page page) {
        List<Edit> edits = new ArrayList<>();
        List<Element> sheets = page.document().select("link[rel~=(?i)\\bstylesheet\\b][href], style").stream()
                .filter(e -> e.sourceRange().isTracked())
                .toList();
        String file = page.source().file();
        if (!linksTo(page, Theme.SETTINGS_CSS)) {
            int at = sheets.isEmpty()
                    ? headStart(page)
                    : sheets.get(0).sourceRange().startPos();
            edits.add(new Edit(at, at, link(Paths.toRoot(file, Theme.SETTINGS_CSS)) + newline(page)));
        }
        if (!linksTo(page, Theme.PALETTE_CSS)) {
            int at = sheets.isEmpty() ? headStart(page) : endOf(sheets.get(sheets.size() - 1));
            edits.add(new Edit(
                    at,
                    at,
                    (sheets.isEmpty() ? "" : newline(page))
                            + link(Paths.toRoot(file, Theme.PALETTE_CSS))
                            + (sheets.isEmpty() ? newline(page) : "")));
        }
        if (edits.size() == 2 && edits.get(0).start() == edits.get(1).start()) {
            Edit both = edits.get(0);
            return List.of(new Edit(
                    both.start(), both.end(), both.replacement() + edits.get(1).replacement()));
        }
        return edits;
    }

    private static boolean linksTo(Page page, String file) {
        return page.stylesheetLinks().stream()
                .map(href -> Paths.resolve(page.source().file(), href))
                .flatMap(Optional::stream)
                .anyMatch(file::equals);
    }

    private static int endOf(Element sheet) {
        return sheet.normalName().equals("style") && sheet.endSourceRange().isTracked()
                ? sheet.endSourceRange().endPos()
                : sheet.sourceRange().endPos();
    }

    /** After the head's start tag where one is written, else before the first element, else at the end. */
    private static int headStart(Page page) {
        Element head = page.document().head();
        if (isWritten(page, head, "<head")) {
            return head.sourceRange().endPos();
        }
        Element html = page.document().selectFirst("html");
        if (html != null && isWritten(page, html, "<html")) {
            return html.sourceRange().endPos();
        }
        return page.document().getAllElements().stream()
                .filter(e -> e.sourceRange().isTracked() && isWritten(page, e, "<" + e.normalName()))
                .mapToInt(e -> e.sourceRange().startPos())
                .min()
                .orElse(page.source().text().length());
    }

    private static boolean isWritten(Page page, Element e, String tag) {
        int start = e.sourceRange().startPos();
        return e.sourceRange().isTracked()
                && start >= 0
                && page.source().text().regionMatches(true, start, tag, 0, tag.length());
    }

    private static String newline(Page page) {
        return page.source().text().contains("\r\n") ? "\r\n" : "\n";
    }

    private static String link(String href) {
        return "<link rel=\"stylesheet\" href=\"" + href + "\">";
    }
}

package org.calmpalette.core.change;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.calmpalette.core.css.Edit;
import org.calmpalette.core.css.SourceText;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.page.Paths;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.ThemeSheet;
import org.jsoup.nodes.Element;

/**
 * The stylesheet that overrides go into: the maker's own one that most pages load, the last of them; a new one where
 * there is none.
 */
public final class OwnSheet {
    public static final String NEW = "own.css";

    private final Rendered rendered;
    private final Map<String, SheetRole> roles;
    private final String path;

    public OwnSheet(Rendered rendered, Map<String, SheetRole> roles) {
        this.rendered = rendered;
        this.roles = roles;
        Map<String, Integer> loads = new HashMap<>();
        String best = null;
        for (Page page : rendered.theme().pages()) {
            for (String sheet : rendered.loaded(page)) {
                if (roles.containsKey(sheet) && roles.get(sheet).lasts()) {
                    int count = loads.merge(sheet, 1, Integer::sum);
                    best = best == null || count >= loads.get(best) ? sheet : best;
                }
            }
        }
        path = best == null ? NEW : best;
    }

    public String path() {
        return path;
    }

    public boolean isNew() {
        return !rendered.theme().files().has(path);
    }

    /** Whether what stands in the own sheet comes after another file on a page, so that it wins at equal specificity. */
    public boolean comesAfter(String file, Page page) {
        List<String> loaded = rendered.loaded(page);
        if (file.equals(path)) {
            return true;
        }
        int own = loaded.indexOf(path);
        int other = loaded.indexOf(file);
        // A sheet that is not among the links is imported or stands inside the page; its order is not known here.
        return own < 0 ? other >= 0 : other >= 0 && other < own;
    }

    /**
     * Writes a rule at the end of the own sheet, and a link to it into pages that lack one.
     *
     * @param pages those that need the rule
     */
    public Change append(String title, String css, List<Page> pages) {
        Theme theme = rendered.theme();
        Change fix = Change.of(title);
        if (isNew()) {
            fix = fix.withFile(path, (css + "\n").getBytes(StandardCharsets.UTF_8));
        } else {
            SourceText text = theme.sheets().stream()
                    .filter(p -> p.path().equals(path))
                    .map(ThemeSheet::file)
                    .findFirst()
                    .orElseThrow();
            String newline = text.newline();
            String own = text.text();
            String before = own.isEmpty() ? "" : own.endsWith("\n") || own.endsWith("\r") ? newline : newline + newline;
            fix = fix.with(path, new Edit(own.length(), own.length(), before + css.replace("\n", newline) + newline));
        }
        for (Page page : isNew() ? theme.pages() : pages) {
            if (!rendered.loaded(page).contains(path)) {
                fix = fix.with(page.source().file(), link(page));
            }
        }
        return fix;
    }

    private Edit link(Page page) {
        return link(page, path);
    }

    /** A link to a stylesheet of the theme after the last one of a page. */
    public static Edit link(Page page, String path) {
        String file = page.source().file();
        List<Element> sheets = new ArrayList<>(page.document().select("link[rel~=(?i)\\bstylesheet\\b][href]"));
        sheets.removeIf(e -> !e.sourceRange().isTracked()
                || Paths.resolve(file, e.attr("href"))
                        .filter(Theme::isGenerated)
                        .isPresent());
        String tag = "<link rel=\"stylesheet\" href=\"" + Paths.toRoot(file, path) + "\">";
        if (sheets.isEmpty()) {
            Element head = page.document().head();
            int at = head.sourceRange().isTracked()
                            && head.sourceRange().endPos() > head.sourceRange().startPos()
                    ? head.sourceRange().endPos()
                    : 0;
            return new Edit(at, at, tag);
        }
        Element last = sheets.get(sheets.size() - 1);
        int line = page.source().line(last.sourceRange().startPos());
        String before = page.source()
                .text()
                .substring(page.source().lineStart(line), last.sourceRange().startPos());
        int at = last.sourceRange().endPos();
        return new Edit(at, at, page.source().newline() + (before.isBlank() ? before : "") + tag);
    }

    /**
     * Moves the maker's own sheets behind the frameworks' on all pages, so that they win where specificity is equal.
     *
     * @return empty fix if they come last already
     */
    public Change behindLibraries() {
        Change fix = Change.of("Loaded the theme's own stylesheet after the framework's");
        for (Page page : rendered.theme().pages()) {
            String file = page.source().file();
            List<Element> links = page.document().select("link[rel~=(?i)\\bstylesheet\\b][href]").stream()
                    .filter(e -> e.sourceRange().isTracked())
                    .toList();
            Element lastLibrary = null;
            for (Element e : links) {
                lastLibrary = isKind(file, e, false) ? e : lastLibrary;
            }
            if (lastLibrary == null) {
                continue;
            }
            StringBuilder moved = new StringBuilder();
            int end = lastLibrary.sourceRange().endPos();
            for (Element e : links) {
                int start = e.sourceRange().startPos();
                if (start < lastLibrary.sourceRange().startPos() && isKind(file, e, true)) {
                    int line = page.source().line(start);
                    String before = page.source().text().substring(page.source().lineStart(line), start);
                    String rest = page.source()
                            .text()
                            .substring(e.sourceRange().endPos(), page.source().lineEnd(line));
                    boolean alone = before.isBlank()
                            && rest.isBlank()
                            && line < page.source().line(page.source().text().length());
                    fix = fix.with(
                            file,
                            alone
                                    ? new Edit(
                                            page.source().lineStart(line),
                                            page.source().lineStart(line + 1),
                                            "")
                                    : new Edit(start, e.sourceRange().endPos(), ""));
                    moved.append(alone ? page.source().newline() + before : "")
                            .append(page.source().text(), start, e.sourceRange().endPos());
                }
            }
            if (!moved.isEmpty()) {
                fix = fix.with(file, new Edit(end, end, moved.toString()));
            }
        }
        return fix;
    }

    private boolean isKind(String file, Element link, boolean own) {
        return Paths.resolve(file, link.attr("href"))
                .map(roles::get)
                .filter(r -> r.lasts() == own)
                .isPresent();
    }
}

package org.calmpalette.core.survey;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.calmpalette.core.cascade.PageStyles;
import org.calmpalette.core.change.Change;
import org.calmpalette.core.css.Edit;
import org.calmpalette.core.page.ColorAttributes;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.page.StartTag;
import org.calmpalette.core.page.Tag;
import org.calmpalette.core.setting.Binding;
import org.calmpalette.core.usage.Painted;
import org.jsoup.nodes.Element;

/**
 * What the markup of a page keeps from those who have it read out: headings whose levels jump (WCAG 2.2, technique G141) and pictures
 * without words (success criterion 1.1.1).
 */
final class MarkupFindings {
    private MarkupFindings() {}

    static List<Finding> of(Page page, PageStyles styles) {
        List<Finding> found = new ArrayList<>();
        headings(page, styles, found);
        pictures(page, styles, found);
        colors(page).ifPresent(found::add);
        return found;
    }

    private static final int MOST_NAMED = 4;

    /** Colours that no list of colours has, since they stand in attributes of another age. */
    private static Optional<Finding> colors(Page page) {
        Map<Element, String> all = new LinkedHashMap<>();
        int count = 0;
        for (ColorAttributes.At at : ColorAttributes.of(page)) {
            if (at.legacy()) {
                count++;
                all.putIfAbsent(
                        at.element(),
                        at.attribute() + "=\""
                                + at.element().attr(at.attribute()).strip() + "\"");
            }
        }
        if (all.isEmpty()) {
            return Optional.empty();
        }
        String file = page.source().file();
        List<String> named = all.entrySet().stream()
                .limit(MOST_NAMED)
                .map(e -> brief(e.getValue()) + " of <" + e.getKey().normalName() + "> on line "
                        + page.source().line(e.getKey().sourceRange().startPos()))
                .toList();
        Element first = all.keySet().iterator().next();
        return Optional.of(new Finding(
                        Finding.Kind.MARKUP_COLOR,
                        file,
                        page.source().line(first.sourceRange().startPos()),
                        0,
                        (count == 1 ? "1 colour stands" : count + " colours stand") + " in attributes of " + file
                                + ", where none can become a setting: " + String.join(", ", named)
                                + (all.size() > MOST_NAMED ? " and more" : "") + ".",
                        "Write them into rules, or as style attributes: then they are among the colours and can be lifted.")
                .about("attributes"));
    }

    private static String brief(String text) {
        return text.length() > 40 ? text.substring(0, 40) + "…" : text;
    }

    private static boolean isShown(Page page, Element e, PageStyles styles) {
        for (Element x = e; x != null && x.parent() != null; x = x.parent()) {
            if (x.hasAttr("hidden")
                    || x.attr("aria-hidden").equals("true")
                    || styles.of(x).computed("display").equals("none")) {
                return false;
            }
        }
        return new Tag(page, e).isWritten();
    }

    private static int level(Element e) {
        return e.normalName().charAt(1) - '0';
    }

    private static void headings(Page page, PageStyles styles, List<Finding> found) {
        Element before = null;
        Element first = null;
        for (Element e : page.document().select("h1, h2, h3, h4, h5, h6")) {
            if (!isShown(page, e, styles)) {
                continue;
            }
            if (level(e) == 1 && first != null) {
                found.add(finding(
                        page,
                        e,
                        "“" + words(e) + "” is a second heading of level 1; the first is “" + words(first) + "”.",
                        "Keep level 1 for what the page is about, and give this one level 2.",
                        2));
            } else if (before != null && level(e) > level(before) + 1) {
                found.add(finding(
                        page,
                        e,
                        "“" + words(e) + "” has level " + level(e) + " under “" + words(before) + "” of level "
                                + level(before) + ": a level is left out.",
                        "Give it level " + (level(before) + 1) + ".",
                        level(before) + 1));
            }
            first = level(e) == 1 && first == null ? e : first;
            before = e;
        }
    }

    private static Finding finding(Page page, Element e, String message, String mend, int level) {
        String file = page.source().file();
        int start = e.sourceRange().startPos();
        Finding finding = new Finding(
                        Finding.Kind.HEADING_LEVEL, file, page.source().line(start), 0, message, mend)
                .about(e.normalName() + " " + words(e))
                .painting(
                        List.of(new Painted("[data-calm-at=\"" + page.elements().indexOf(e) + "\"]", "color", "")));
        boolean bound = e.hasAttr(Binding.LEVEL.attribute()) || e.hasAttr(Binding.LEVEL.itemAttribute());
        if (bound || page.inside(e).isEmpty()) {
            return finding;
        }
        return finding.fixedBy(() -> {
            int open = e.sourceRange().endPos();
            int close = page.inside(e).orElseThrow().end();
            StartTag tag = new StartTag(page.source().text().substring(start, open));
            return Change.edit(
                    "Gave “" + words(e) + "” in " + file + " level " + level,
                    file,
                    new Edit(start, open, tag.named("h" + level).text()),
                    new Edit(close + 2, close + 2 + e.tagName().length(), "h" + level));
        });
    }

    private static void pictures(Page page, PageStyles styles, List<Finding> found) {
        for (Element e : page.document().select("img, input[type=image], area[href]")) {
            if (!isShown(page, e, styles)
                    || List.of("presentation", "none").contains(e.attr("role"))
                    || e.hasAttr("aria-label")
                    || e.hasAttr("aria-labelledby")) {
                continue;
            }
            Element around = e.closest("a[href], button");
            boolean only = around != null
                    && around.text().isBlank()
                    && !around.hasAttr("aria-label")
                    && !around.hasAttr("title")
                    && around.select("img").size() == 1;
            if (!e.hasAttr("alt") || only && e.attr("alt").isBlank()) {
                String name = e.attr("src").isEmpty()
                        ? e.normalName()
                        : e.attr("src").replaceFirst("[?#].*", "").replaceFirst(".*/", "");
                found.add(new Finding(
                                Finding.Kind.NO_ALTERNATIVE,
                                page.source().file(),
                                page.source().line(e.sourceRange().startPos()),
                                0,
                                (name.length() > 60 ? name.substring(0, 60) + "…" : name)
                                        + (only
                                                ? " is all that a link or button holds, and says nothing to those who cannot see it."
                                                : " has no alternative text, so its address may be read out."),
                                only
                                        ? "Write where it leads: alt=\"To the timetable\"."
                                        : "Write what it shows, alt=\"Harrow Pier at dusk\", or alt=\"\" if it only decorates.")
                        .about(e.normalName() + " " + e.attr("src"))
                        .painting(List.of(
                                new Painted("[data-calm-at=\"" + page.elements().indexOf(e) + "\"]", "content", ""))));
            }
        }
    }

    private static String words(Element e) {
        String text = e.text();
        return text.length() > 40 ? text.substring(0, 40) + "…" : text;
    }
}

package org.calmpalette.core.survey;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Set;
import java.util.TreeMap;
import org.calmpalette.core.Budget;
import org.calmpalette.core.change.SheetRole;
import org.calmpalette.core.css.Node;
import org.calmpalette.core.css.selector.SelectorList;
import org.calmpalette.core.css.selector.SelectorMatcher;
import org.calmpalette.core.css.selector.States;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.section.SectionKit;
import org.calmpalette.core.section.Sections;
import org.calmpalette.core.setting.JsonLines;
import org.calmpalette.core.setting.PaletteJson;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.ThemeFiles;
import org.calmpalette.core.theme.ThemeSheet;
import org.calmpalette.core.usage.Readers;
import org.calmpalette.core.value.Viewport;
import org.jsoup.nodes.Element;

/**
 * What is wrong with a section although it can be used: all that the survey says of a stylesheet is said of the section's, at its line;
 * rules that can find nothing inside of it; and keys that mean nothing.
 */
public final class SectionFindings {
    /** Custom properties are the theme's as well, and which those are is not known here. */
    private static final Set<Finding.Kind> ELSEWHERE =
            Set.of(Finding.Kind.MISSING_STYLESHEET, Finding.Kind.CIRCULAR_VARIABLE);

    private static final String PAGE = "index.html";
    /** What a section calls {@code :scope}, on the page on which it is looked at. */
    private static final String ROOT = ":is(main > *)";

    private static final String STANDING = "[" + Sections.NAME + "=x]";

    private SectionFindings() {}

    /**
     * In order of the files' lines, those of the stylesheet first.
     *
     * @param json of the section, which was read without a fault
     */
    public static List<Finding> of(SectionKit kit, String json) {
        TreeMap<String, byte[]> files = new TreeMap<>();
        files.put(
                PAGE,
                ("<!doctype html><html><head><link rel=stylesheet href=" + SectionKit.CSS + "></head><body><main>"
                                + kit.html() + "</main></body></html>")
                        .getBytes(StandardCharsets.UTF_8));
        files.put(SectionKit.CSS, kit.css().replace(":scope", ROOT).getBytes(StandardCharsets.UTF_8));
        Theme theme = Theme.read(ThemeFiles.of(files), kit.label());
        List<Finding> all = new ArrayList<>();
        SheetFindings.of(theme).stream()
                .filter(f -> f.file().equals(SectionKit.CSS) && !ELSEWHERE.contains(f.kind()))
                .forEach(all::add);
        all.addAll(SpellingFindings.of(theme, SheetRole.of(theme)));
        Page page = theme.page(PAGE);
        CoverFindings.of(page, new Rendered(theme).styles(page, Viewport.of(1440, 900), States.NONE)).stream()
                .map(f -> f.file().equals(PAGE) ? f.in(SectionKit.HTML) : f)
                .forEach(all::add);
        theme.sheets().forEach(part -> idle(page, part, part.sheet().rules(), new ArrayList<>(), all));
        all.sort(Comparator.comparingInt(Finding::line));
        JsonLines lines = new JsonLines(json.getBytes(StandardCharsets.UTF_8));
        PaletteJson.unknownInSection(json)
                .forEach((at, mend) -> all.add(new Finding(
                        Finding.Kind.UNUSABLE_SETTING,
                        SectionKit.JSON,
                        lines.line(at),
                        0,
                        "“" + at.substring(at.lastIndexOf('.') + 1) + "” means nothing here.",
                        mend)));
        return all;
    }

    /** Rules whose selectors find nothing inside of the section, in whatever state: once it is put, they hold inside of it only. */
    private static void idle(Page page, ThemeSheet part, List<Node> nodes, List<Node.Rule> around, List<Finding> into) {
        for (Node node : nodes) {
            Budget.step();
            if (!(node instanceof Node.Rule held)) {
                continue;
            }
            around.add(held);
            if (held instanceof Node.StyleRule rule) {
                SelectorList selector = Readers.selector(part.sheet(), around).orElse(null);
                if (selector != null && !finds(page, selector) && !mayFind(page, selector.toString())) {
                    int offset = part.sheet().tokens().start(rule.first());
                    into.add(new Finding(
                            Finding.Kind.DEAD_RULE,
                            part.path(),
                            part.line(offset),
                            part.column(offset),
                            "“" + selector.toString().replace(ROOT, ":scope").replaceAll(":is\\(([^(),]+)\\)", "$1")
                                    + "” finds nothing in the section, and outside of it no rule of a section holds.",
                            "Name something that is in " + SectionKit.HTML + ", or take the rule out."));
                }
                idle(page, part, rule.children(), around, into);
            } else if (held instanceof Node.AtRule at && !at.name().endsWith("keyframes")) {
                idle(page, part, at.children(), around, into);
            }
            around.remove(around.size() - 1);
        }
    }

    /** Whether it would find something once an owner leaves a part empty, or fills it. */
    private static boolean mayFind(Page page, String selector) {
        return selector.contains(":has(")
                || selector.contains(":empty")
                        && SelectorList.parse(selector.replace(":empty", ""))
                                .filter(s -> finds(page, s))
                                .isPresent();
    }

    /** Whether one of the selectors finds an element, or an element whose pseudo-element it finds. */
    private static boolean finds(Page page, SelectorList selector) {
        Element main = page.document().selectFirst("main");
        SelectorMatcher matcher = new SelectorMatcher(page.document(), States.ANY);
        return selector.selectors().stream().anyMatch(s -> {
            String end = s.pseudoElement() == null ? "" : "::" + s.pseudoElement();
            String whole = s.toString().substring(0, s.toString().length() - end.length());
            // It may stand first, or after others.
            String bare = Sections.anywhere(whole.replace(ROOT, STANDING)).replace(STANDING, ROOT);
            SelectorList list = SelectorList.parse(bare.isBlank() || bare.endsWith(" ") ? bare + "*" : bare)
                    .orElse(null);
            return list == null || main.getAllElements().stream().anyMatch(e -> e != main && matcher.matches(list, e));
        });
    }
}

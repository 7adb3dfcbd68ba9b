package org.calmpalette.core.survey;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import org.calmpalette.core.Budget;
import org.calmpalette.core.background.BoxGeometry.Rectangle;
import org.calmpalette.core.cascade.ElementStyle;
import org.calmpalette.core.cascade.Explanation;
import org.calmpalette.core.cascade.PageStyles;
import org.calmpalette.core.cascade.Painting;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.part.PartSelector;
import org.calmpalette.core.render.Clip;
import org.calmpalette.core.render.Scenes;
import org.calmpalette.core.usage.Painted;
import org.jsoup.nodes.Element;

/**
 * What the boxes of a page tell by themselves, at phones, at 320 px (WCAG 2.2, 1.4.10, asks for no scrolling in two directions there), at
 * usual windows and at both ends of each stretch between two widths at which media queries turn: whether the page is wider than its window,
 * texts are cut off, or lie behind a header.
 */
final class BoxFindings {
    /** Windows of phones, the usual one first. */
    private static final List<Integer> PHONES = List.of(390, 360, 320);

    private static final List<Integer> USUAL = List.of(480, 600, 768, 900, 1024, 1200, 1366, 1440, 1600, 1920, 2560);
    /** What reaches so far beyond a window, in CSS px, is more than rounding. */
    private static final double BEYOND = 1.5;

    /** Texts of a page that are told of: what cuts off more does so in one way. */
    private static final int MOST_TEXTS = 6;
    /** What takes more of the first window than this is no header. */
    private static final double HIGHEST_HEADER = 0.5;

    private static final double HEADER_ACROSS = 0.8;

    private final Scenes scenes;
    private final Page page;
    private final List<Element> elements;
    private final List<Finding> findings = new ArrayList<>();
    private final Set<Integer> cut = new HashSet<>();

    private BoxFindings(Scenes scenes) {
        this.scenes = scenes;
        this.page = scenes.page();
        this.elements = page.elements();
    }

    static List<Finding> of(Scenes scenes) {
        BoxFindings found = new BoxFindings(scenes);
        boolean wide = false;
        boolean covered = false;
        for (int width : found.widths()) {
            // The styles of a stretch: what boxes are cut off by does not follow the window within one.
            PageStyles styles = scenes.styles(scenes.stretch(width));
            wide = wide || found.wider(width, styles);
            found.cut(width, styles);
            covered = covered || found.covered(width, styles);
        }
        return found.findings;
    }

    private Set<Integer> widths() {
        Set<Integer> all = new LinkedHashSet<>(PHONES);
        List<Integer> starts = scenes.stretches();
        for (int i = 0; i < starts.size(); i++) {
            all.add(starts.get(i));
            all.add(
                    i + 1 < starts.size()
                            ? starts.get(i + 1) - 1
                            : scenes.measures().to());
        }
        all.addAll(USUAL);
        all.removeIf(w -> !scenes.measures().isSureAt(w));
        return all;
    }

    private Rectangle box(int element, int width) {
        return scenes.measures().box(element, width).orElse(new Rectangle(0, 0, 0, 0));
    }

    private int line(Element e) {
        return page.source().line(Math.max(0, e.sourceRange().startPos()));
    }

    private Finding about(Finding.Kind kind, Element e, String subject, String message, String mend) {
        return new Finding(kind, page.source().file(), line(e), 0, message, mend)
                .about(subject)
                .painting(List.of(new Painted("[data-calm-at=\"" + scenes.index(e) + "\"]", "content", "")));
    }

    /** A page that reaches beyond its window, and what of it reaches farthest. */
    private boolean wider(int width, PageStyles styles) {
        Element farthest = null;
        double reach = width + BEYOND;
        for (int i = 1; i < elements.size(); i++) {
            Budget.step();
            Rectangle box = box(i, width);
            double right = Math.max(box.x() + box.width(), words(i, width, styles));
            if (box.width() > 0 && box.height() > 0 && right > reach && isInFlowOfPage(elements.get(i), styles)) {
                // Of what reaches as far the outermost is told: what is in it is wide with it.
                farthest = elements.get(i);
                reach = right;
            }
        }
        if (farthest == null || !farthest.sourceRange().isTracked()) {
            return false;
        }
        findings.add(about(
                Finding.Kind.WIDER_PAGE,
                farthest,
                "width",
                String.format(
                        Locale.ROOT,
                        "In a window of %d px the page is %.0f px wide and moves sideways: <%s> on line %d reaches that far.",
                        width,
                        Math.ceil(reach),
                        farthest.normalName(),
                        line(farthest)),
                "Give it max-width: 100%, let its words wrap, or put it into an element with overflow-x: auto."));
        return true;
    }

    /** How far the words of an element reach to the right, where it does not cut them off: one that is too long for its box leaves it. */
    private double words(int element, int width, PageStyles styles) {
        return Clip.overflow(styles.of(elements.get(element)), "x").equals("visible")
                ? scenes.measures().lines(element, width).stream()
                        .mapToDouble(l -> l.x() + l.width())
                        .max()
                        .orElse(0)
                : 0;
    }

    /** Whether what reaches beyond the window makes the page wider: nothing around it cuts it off, and it is not fixed to the window. */
    private static boolean isInFlowOfPage(Element e, PageStyles styles) {
        if (styles.of(e).is("position", "fixed")) {
            return false;
        }
        for (Element around = e.parent(); around != null && around.parent() != null; around = around.parent()) {
            if (!Clip.overflow(styles.of(around), "x").equals("visible")
                    || styles.of(around).is("position", "fixed")) {
                return false;
            }
        }
        return true;
    }

    /** Texts of which a part is seen and another is not. What is not seen at all may be meant so: it waits for its turn, or for readers of screens. */
    private void cut(int width, PageStyles styles) {
        for (int i : scenes.measures().lines().keySet().stream().sorted().toList()) {
            Budget.step();
            List<Rectangle> lines = scenes.measures().lines(i, width);
            if (cut.size() >= MOST_TEXTS || lines.isEmpty() || cut.contains(i) || isWithinAll(i, lines, width)) {
                continue;
            }
            Element e = elements.get(i);
            Clip clip = Clip.of(scenes, styles, i, width);
            double missing = lines.stream().mapToDouble(clip::missing).max().orElse(0);
            if (missing == 0 || lines.stream().noneMatch(clip::shows) || isUnseen(e, styles)) {
                continue;
            }
            cut.add(i);
            findings.add(
                    about(
                            Finding.Kind.CUT_TEXT,
                            e,
                            PartSelector.unique(page, e),
                            String.format(
                                    Locale.ROOT,
                                    "In a window of %d px, %.0f px of the words of <%s> on line %d are not seen: %s.",
                                    width,
                                    Math.ceil(missing),
                                    e.normalName(),
                                    line(e),
                                    clip.by() == null
                                            ? "they begin beyond the edge of the page"
                                            : "<" + clip.by().normalName() + "> on line " + line(clip.by())
                                                    + " cuts off what leaves its box"),
                            "Let the words wrap or break (overflow-wrap: anywhere), and let the box grow with them: min-height in the place of height."));
        }
    }

    /** Whether lines lie inside of all boxes around them and of the window: most do, and need no styles. */
    private boolean isWithinAll(int element, List<Rectangle> lines, int width) {
        for (Element a = elements.get(element); a != null && a.parent() != null; a = a.parent()) {
            Optional<Rectangle> known = scenes.measures().box(scenes.index(a), width);
            boolean root = a.normalName().equals("html") || a.normalName().equals("body");
            Rectangle box = root ? new Rectangle(0, 0, width, Double.POSITIVE_INFINITY) : known.orElse(null);
            if (box != null
                    && lines.stream()
                            .anyMatch(l -> l.x() < box.x()
                                    || l.y() < box.y()
                                    || l.x() + l.width() > box.x() + box.width()
                                    || l.y() + l.height() > box.y() + box.height())) {
                return false;
            }
        }
        return true;
    }

    private static boolean isUnseen(Element e, PageStyles styles) {
        if (styles.isHidden(e)) {
            return true;
        }
        for (Element a = e; a != null && a.parent() != null; a = a.parent()) {
            if (styles.of(a).opacity() == 0) {
                return true;
            }
        }
        return false;
    }

    /** Texts at the beginning of the page over which a header lies: nobody gets to see them. */
    private boolean covered(int width, PageStyles styles) {
        for (int i = 1; i < elements.size(); i++) {
            Budget.step();
            Rectangle header = box(i, width);
            boolean atTop = header.height() > 0
                    && header.y() <= BEYOND
                    && header.y() > -header.height()
                    && header.height() <= scenes.measures().windowHeight() * HIGHEST_HEADER
                    && header.width() >= width * HEADER_ACROSS;
            if (!atTop || !liesOver(elements.get(i), styles)) {
                continue;
            }
            for (int text : scenes.measures().lines().keySet().stream().sorted().toList()) {
                Element e = elements.get(text);
                double missing = scenes.measures().lines(text, width).stream()
                        .filter(l -> isBehind(l, header))
                        .mapToDouble(l -> header.y() + header.height() - l.y())
                        .max()
                        .orElse(0);
                if (missing > 0 && isPlain(e, styles) && !isUnseen(e, styles)) {
                    return behind(elements.get(i), e, header, width, missing, styles);
                }
            }
        }
        return false;
    }

    private boolean behind(Element header, Element e, Rectangle box, int width, double missing, PageStyles styles) {
        Explanation.Cause w = Explanation.of(styles.of(header), "position").winner();
        findings.add(about(
                Finding.Kind.COVERED_CONTENT,
                e,
                w == null ? PartSelector.name(header) : w.selector(),
                String.format(
                        Locale.ROOT,
                        "In a window of %d px, <%s> on line %d lies behind %s, which is %.0f px high there: %.0f px of room are missing.",
                        width,
                        e.normalName(),
                        line(e),
                        PartSelector.name(header),
                        box.height(),
                        Math.ceil(missing)),
                "Leave room at the top of the page, as high as the header."));
        return true;
    }

    private static boolean isBehind(Rectangle line, Rectangle header) {
        double middle = line.y() + line.height() / 2;
        return line.width() > 0
                && middle > header.y()
                && middle < header.y() + header.height()
                && line.x() < header.x() + header.width()
                && line.x() + line.width() > header.x();
    }

    /** Whether a box is painted over all that is in the flow of the page (CSS 2.2, appendix E), and lets nothing of it through. */
    private static boolean liesOver(Element e, PageStyles styles) {
        ElementStyle style = styles.of(e);
        boolean placed = style.is("position", "fixed") || style.is("position", "absolute");
        if (!placed
                || style.opacity() < 1
                || styles.isHidden(e)
                || Painting.declared(style, "z-index").orElse("auto").startsWith("-")
                || !style.colorOf("background-color").orElse(Color.TRANSPARENT).isOpaque()) {
            return false;
        }
        return isPlain(e.parent(), styles);
    }

    /** Whether nothing lifts it out of the flow of the page: neither itself nor what is around it. */
    private static boolean isPlain(Element e, PageStyles styles) {
        for (Element a = e; a != null && a.parent() != null; a = a.parent()) {
            ElementStyle style = styles.of(a);
            boolean lifted = !style.is("position", "static")
                    || style.opacity() < 1
                    || Painting.declared(style, "z-index").isPresent()
                    || Clip.mayHold(styles, a);
            if (lifted && !a.normalName().equals("html") && !a.normalName().equals("body")) {
                return false;
            }
        }
        return true;
    }
}

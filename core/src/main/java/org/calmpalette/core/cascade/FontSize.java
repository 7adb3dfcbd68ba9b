package org.calmpalette.core.cascade;

import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.calmpalette.core.value.ComponentValue;
import org.calmpalette.core.value.Lengths;

/**
 * Computed font size: CSS Fonts 4, section 2.5, with the smaller size that browsers give to the sole generic family
 * {@code monospace} as long as no absolute size was set (common practice).
 *
 * @param px in CSS px
 * @param keyword index of the size keyword that it goes back to, 0 to 7, or -1
 * @param absolute whether it goes back to an absolute length
 * @param monospace whether the family is {@code monospace} and nothing else
 */
record FontSize(double px, int keyword, boolean absolute, boolean monospace) {
    private static final List<String> KEYWORDS =
            List.of("xx-small", "x-small", "small", "medium", "large", "x-large", "xx-large", "xxx-large");
    private static final double[] SIZES = {9, 10, 13, 16, 18, 24, 32, 48};
    private static final double[] MONOSPACE_SIZES = {9, 9, 10, 13, 16, 18, 24, 32};
    private static final double RATIO = 13.0 / 16;
    private static final int MEDIUM = 3;
    private static final double LARGEST = 10_000;

    static FontSize of(ElementStyle style) {
        FontSize parent = style.parent() == null
                ? new FontSize(16, MEDIUM, false, false)
                : style.parent().fontSize();
        boolean monospace = style.computed("font-family").strip().equalsIgnoreCase("monospace");
        String value = style.specified("font-size");
        if (value.equals("inherit")) {
            return withFamily(parent, parent, monospace);
        }
        String word = value.equals("initial") ? "medium" : value.toLowerCase(java.util.Locale.ROOT);
        if (word.equals("-webkit-xxx-large")) {
            word = "xxx-large";
        }
        int keyword = KEYWORDS.indexOf(word);
        if (keyword >= 0) {
            return new FontSize((monospace ? MONOSPACE_SIZES : SIZES)[keyword], keyword, false, monospace);
        }
        if (word.equals("smaller") || word.equals("larger")) {
            double px = word.equals("smaller") ? parent.px() / 1.2 : parent.px() * 1.2;
            return withFamily(new FontSize(px, -1, parent.absolute(), parent.monospace()), parent, monospace);
        }
        ComponentValue part = ComponentValue.read(value).get(0);
        double rem =
                style.isRoot() ? 16 : style.page().of(root(style)).fontSize().px();
        Optional<Lengths.Sum> sum = Lengths.sum(
                part,
                new Lengths.Base(
                        parent.px(),
                        rem,
                        style.page().window(),
                        () -> lineHeight(style.parent()),
                        () -> style.isRoot()
                                ? Double.NaN
                                : lineHeight(style.page().of(root(style)))));
        // Chromium draws no larger text than this.
        double px = Math.min(
                LARGEST,
                Math.max(
                        0,
                        sum.map(s -> s.px() + s.percent() / 100 * parent.px()).orElse(parent.px())));
        boolean relative = part.kind() == ComponentValue.Kind.PERCENTAGE
                || part.kind() == ComponentValue.Kind.DIMENSION
                        && Set.of("em", "ex", "ch", "rem", "lh", "cap", "ic").contains(part.name());
        boolean absolute = parent.absolute() || !relative;
        return withFamily(new FontSize(px, -1, absolute, parent.monospace()), parent, monospace);
    }

    private static double lineHeight(ElementStyle style) {
        return style == null ? Double.NaN : style.lineHeight();
    }

    private static org.jsoup.nodes.Element root(ElementStyle style) {
        ElementStyle s = style;
        while (s.parent() != null) {
            s = s.parent();
        }
        return s.element();
    }

    private static FontSize withFamily(FontSize size, FontSize parent, boolean monospace) {
        double px = size.px();
        if (!size.absolute() && monospace != parent.monospace()) {
            px = size.keyword() >= 0
                    ? (monospace ? MONOSPACE_SIZES : SIZES)[size.keyword()]
                    : parent.monospace() ? px / RATIO : px * RATIO;
        }
        return new FontSize(px, size.keyword(), size.absolute(), monospace);
    }
}

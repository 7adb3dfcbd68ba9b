package org.calmpalette.app.survey;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.calmpalette.app.themes.OpenTheme;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.part.PartSelector;
import org.calmpalette.core.render.Measures;
import org.calmpalette.core.survey.PageParts;
import org.calmpalette.core.usage.Painted;

/** The parts of one page as the survey lists them. */
final class PageParting {
    private PageParting() {}

    /**
     * @param as header, hero or column
     * @param name as a person would point at it
     * @param sizes at three window widths
     */
    public record Found(String as, String label, int at, String name, String sizes, List<Painted> marks) {}

    static List<Found> of(OpenTheme open, Page page, Map<String, Measures> measures) {
        Measures own = measures.get(page.source().file());
        List<Found> all = new ArrayList<>();
        PageParts.of(open.read().rendered(), page, own)
                .forEach((kind, at) -> all.add(new Found(
                        kind.name().toLowerCase(java.util.Locale.ROOT),
                        kind.label(),
                        at,
                        PartSelector.name(page.elements().get(at)),
                        sizes(own, at),
                        marks(at))));
        return all;
    }

    static List<Painted> marks(int at) {
        return List.of(new Painted("[data-calm-at=\"" + at + "\"]", "background-color", ""));
    }

    private static String sizes(Measures own, int at) {
        List<String> all = new ArrayList<>();
        for (int width : List.of(390, 820, 1440)) {
            own.box(at, width).ifPresent(b -> all.add(Math.round(b.width()) + " by " + Math.round(b.height())));
        }
        return String.join(", ", all);
    }
}

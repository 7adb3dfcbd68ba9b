package org.calmpalette.core.survey;

import java.util.ArrayList;
import java.util.List;
import org.calmpalette.core.cascade.Explanation;
import org.calmpalette.core.cascade.PageStyles;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.part.PartSelector;
import org.calmpalette.core.render.FullWindow;
import org.calmpalette.core.usage.Painted;
import org.jsoup.nodes.Element;

/** Boxes that lie over the whole window and stay there: nobody gets at the page behind them. */
final class CoverFindings {
    private CoverFindings() {}

    static List<Finding> of(Page page, PageStyles styles) {
        List<Finding> all = new ArrayList<>();
        for (FullWindow.Over over : FullWindow.over(styles)) {
            Element e = over.element();
            String pseudo = over.pseudoElement();
            Explanation.Cause why = Explanation.of(pseudo == null ? styles.of(e) : styles.of(e, pseudo), "position")
                    .winner();
            String name = PartSelector.name(e) + (pseudo == null ? "" : "::" + pseudo);
            all.add(new Finding(
                            Finding.Kind.OVER_WINDOW,
                            why.file(),
                            why.line(),
                            why.column(),
                            name + " lies over the whole window and stays there: the page behind it cannot be "
                                    + (!over.catches() ? "seen." : over.hides() ? "seen or used." : "used."),
                            "Let it lie in the page (position: absolute), or show it only once somebody opens it.")
                    .about(name)
                    .painting(List.of(new Painted(
                            "[data-calm-at=\"" + page.elements().indexOf(e) + "\"]",
                            "background-color",
                            pseudo == null ? "" : "::" + pseudo))));
        }
        return all;
    }
}

package org.calmpalette.app.survey;

import java.util.function.Function;
import org.calmpalette.app.themes.OpenTheme;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.change.Change;
import org.calmpalette.core.change.Difference;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.render.Rendered;
import org.jsoup.nodes.Element;
import org.springframework.ui.Model;

/** What a change would be, to the character, before it is made. */
final class ExactChange {
    private ExactChange() {}

    /** The part that it concerns. @throws BadInputException if the page has changed since it was pointed at */
    static Element part(Page page, int at) {
        if (at < 1 || at >= page.elements().size()) {
            throw new BadInputException("That part is no longer on the page.", "Point at it again.");
        }
        return page.elements().get(at);
    }

    /** The view that shows it, or why it cannot be. */
    static String shown(OpenTheme open, Function<Rendered, Change> change, Model model) {
        try {
            model.addAttribute(
                    "differences",
                    Difference.of(open.theme(), change.apply(open.read().rendered())));
        } catch (BadInputException e) {
            model.addAttribute("message", e.getMessage());
            model.addAttribute("mend", e.mend());
        }
        return "survey/part :: difference";
    }
}

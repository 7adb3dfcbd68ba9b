package org.calmpalette.core.section;

import java.util.List;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.setting.YesNoKind;
import org.jsoup.nodes.Element;

/**
 * A section made of a part of a page: its {@linkplain SectionMarkup markup} with words, pictures, links and items as settings; every
 * {@linkplain ScopedRules rule} that finds something in it, on what it {@linkplain InheritedStyle inherits}; its
 * {@linkplain SectionColors colours}.
 */
public final class SectionFrom {
    private static final int MOST_ELEMENTS = 400;
    private static final String SHOWN = "shown";

    private SectionFrom() {}

    /**
     * @param at index of the part among the elements of the page
     * @param key name of the section's folder
     * @param label as people read it
     * @throws BadInputException if the part cannot be one, with file and line
     */
    public static SectionKit of(Rendered rendered, Page page, int at, String key, String label) {
        Element root = root(page, at);
        NewSettings settings = new NewSettings(key);
        settings.add(Setting.of(SHOWN, "Shown", "", key, YesNoKind.PLAIN, Value.of(true))
                .withPerBand(true));
        OwnPictures pictures = new OwnPictures(rendered.theme());
        SectionMarkup markup = new SectionMarkup(page, root, settings, pictures, SHOWN);
        ScopedRules rules = new ScopedRules(rendered, page, root, pictures);
        String css = rules.css();
        String html = markup.markup(rules.styled());
        String lifted = SectionColors.lifted(css, html, settings);
        SectionKit plain = new SectionKit(
                key, label, "", html, lifted, settings.all(), pictures.files(), SectionKit.remOf(rendered, page), true);
        // Read once more as any other: what could not be used is told now, with its line.
        return SectionKit.read(key, plain.json(label), html, lifted, pictures.files());
    }

    private static Element root(Page page, int at) {
        if (at < 1 || at >= page.elements().size()) {
            throw new BadInputException("That part is no longer on the page.", "Point at it again.");
        }
        Element root = page.elements().get(at);
        if (page.inside(root).isEmpty() || List.of("html", "head", "body").contains(root.normalName())) {
            throw new BadInputException(
                    page.source().file() + ", line "
                            + page.source().line(root.sourceRange().startPos()) + ": <" + root.normalName()
                            + "> is no part that a section can be made of.",
                    "Point at an element in the page that has an end tag.");
        }
        int elements = root.getAllElements().size();
        if (elements > MOST_ELEMENTS) {
            throw new BadInputException(
                    "The part holds " + elements + " elements; a section is made of up to " + MOST_ELEMENTS + ".",
                    "Point at a smaller part.");
        }
        return root;
    }
}

package org.calmpalette.core.promise;

import java.util.regex.Pattern;
import org.calmpalette.core.cascade.ColorExpression;
import org.calmpalette.core.cascade.PageStyles;
import org.calmpalette.core.theme.Theme;
import org.jsoup.nodes.Element;

/** What of a part, besides its colours, may become another by a choice: whether it is there, which rules hold for it, how it is laid. */
final class Following {
    /** What is bound to a choice so that it comes, goes, is repeated or becomes another element. */
    private static final String SHAPED =
            "[data-setting-show], [data-setting-items], [data-setting-level], [data-setting-in]";

    /** Selectors that look at what stands beside or inside of something; more rather than fewer. */
    private static final Pattern BY_PLACE = Pattern.compile(":(nth|first|last|only|empty|has)|[+~]\\s*[.#\\[\\w*:]");

    private final ColorExpression.Choices choices;
    private final boolean byPlace;

    Following(Theme theme, ColorExpression.Choices choices) {
        this.choices = choices;
        this.byPlace = theme.sheets().stream()
                .anyMatch(s -> BY_PLACE.matcher(s.file().text()).find());
    }

    /** Whether some stylesheet looks at what stands beside or inside of something. */
    boolean isByPlace() {
        return byPlace;
    }

    /** Whether a choice may change which rules hold for an element, since it or something beside or around it becomes another. */
    boolean mayMatchOtherwise(Element e) {
        for (Element a = e; a != null && a.parent() != null; a = a.parent()) {
            if (a.hasAttr("data-setting-level") || a.hasAttr("data-setting-in")) {
                return true;
            }
            if (byPlace && a.parent().children().stream().anyMatch(c -> c.is(SHAPED))) {
                return true;
            }
        }
        return false;
    }

    boolean mayBeShown(PageStyles styles, Element e) {
        for (Element a = e; a != null && a.parent() != null; a = a.parent()) {
            if (a.hasAttr("data-setting-show")) {
                return true;
            }
        }
        return around(styles, e, "display") || around(styles, e, "visibility");
    }

    /** Whether a longhand of a part or of what is around it follows a choice. */
    boolean around(PageStyles styles, Element e, String longhand) {
        for (Element a = e; a != null && a.parent() != null; a = a.parent()) {
            if (ColorExpression.follows(styles.of(a), longhand, choices)) {
                return true;
            }
        }
        return false;
    }
}

package org.calmpalette.app.survey;

import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.LinkedHashSet;
import java.util.Set;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.change.Change;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.part.PartChange;
import org.calmpalette.core.part.UtilityClass;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.setting.ColorKind;
import org.calmpalette.core.setting.Place;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.value.Viewport;

/**
 * What a maker asks for a part of a page.
 *
 * @param at index of the element on the page
 * @param pseudo {@code before}, {@code after}, or empty
 * @param width of the window in CSS px, in which the part was pointed at
 * @param reach how far the change goes
 * @param what setting, follow, value, nothing or class
 * @param comment whether a dated comment is written beside the rule
 */
public record PartForm(
        String page,
        Integer at,
        String pseudo,
        String property,
        Integer width,
        Set<String> state,
        String reach,
        String what,
        String label,
        String key,
        String place,
        String value,
        String follow,
        Set<String> side,
        String utility,
        Boolean everywhere,
        Boolean comment) {

    int index() {
        return at == null ? 0 : at;
    }

    Set<String> states() {
        return state == null ? Set.of() : new LinkedHashSet<>(state);
    }

    int windowWidth() {
        return width == null ? 1440 : Math.max(200, Math.min(4000, width));
    }

    Viewport window() {
        return Viewport.of(windowWidth(), 900);
    }

    Page page(Rendered rendered) {
        return rendered.page(page == null ? "" : page)
                .orElseThrow(() ->
                        new BadInputException("There is no page " + page + " in this theme.", "Load the page again."));
    }

    /** @param color the part's colour today, for the default of a new setting */
    Change fix(Rendered rendered, String color) {
        Page shown = page(rendered);
        if ("class".equals(what)) {
            if (index() < 1 || index() >= shown.elements().size()) {
                throw new BadInputException("That part is no longer on the page.", "Point at it again.");
            }
            return UtilityClass.put(
                    rendered, shown, shown.elements().get(index()), text(utility), Boolean.TRUE.equals(everywhere));
        }
        if (text(property).isEmpty()) {
            throw new BadInputException("Nothing says what of the part is to change.", "Point at the part again.");
        }
        PartChange change = new PartChange(
                rendered,
                shown,
                index(),
                text(pseudo).isEmpty() ? null : pseudo,
                property,
                window(),
                states(),
                Boolean.TRUE.equals(comment) ? LocalDate.now(ZoneOffset.UTC) : null);
        return change.fix(text(reach).isEmpty() ? "only" : reach, what(rendered.theme(), color));
    }

    private PartChange.What what(Theme theme, String color) {
        return switch (text(what)) {
            case "setting" -> {
                Place where = theme.palette().placeCalled(text(place));
                yield new PartChange.What.NewSetting(
                        Setting.of(text(key), text(label), "", where.key(), ColorKind.ANY, Value.of(color)), where);
            }
            case "follow" -> new PartChange.What.Follow(text(follow));
            case "nothing" -> new PartChange.What.Nothing(side == null ? Set.of() : side);
            default -> new PartChange.What.Value(text(value));
        };
    }

    private static String text(String value) {
        return value == null ? "" : value.strip();
    }
}

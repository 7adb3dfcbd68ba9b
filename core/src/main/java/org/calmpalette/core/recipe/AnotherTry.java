package org.calmpalette.core.recipe;

import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.calmpalette.core.cascade.PageStyles;
import org.calmpalette.core.change.Trial;
import org.calmpalette.core.css.selector.States;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.part.PartLook;
import org.calmpalette.core.part.PartSelector;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.setting.AnotherValue;
import org.calmpalette.core.setting.Chosen;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.survey.PageParts;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.value.Viewport;
import org.jsoup.nodes.Element;

/** Tries a setting with another value than today's: all that it names has to change, and nothing outside of the part may. */
final class AnotherTry {
    private static final List<Integer> WIDTHS = List.of(PartView.FROM, 390, PageParts.WIDTH);

    private final PartView view;
    private final Recipe recipe;

    AnotherTry(PartView view, Recipe recipe) {
        this.view = view;
        this.recipe = recipe;
    }

    /**
     * @param theme with the setting
     * @return what went wrong, or empty
     */
    Optional<String> fault(Theme theme, Offer o, Setting setting) {
        Value other = AnotherValue.of(setting.kind(), o.value()).orElse(null);
        if (other == null || o.way() != Offer.Way.READ) {
            return Optional.empty();
        }
        Chosen chosen = Chosen.of(other);
        for (Map.Entry<String, Value> band : o.bands().entrySet()) {
            chosen = chosen.with(
                    band.getKey(),
                    AnotherValue.of(setting.kind(), band.getValue()).orElse(other));
        }
        Rendered before = new Rendered(theme);
        Rendered after = new Rendered(theme, Map.of(setting.key(), chosen));
        Optional<String> stays = stays(before, after, o);
        return stays.isPresent() || recipe.movesOthers() ? stays : changesMore(before, after);
    }

    private Optional<String> stays(Rendered before, Rendered after, Offer o) {
        Page there = view.there(before);
        Page changed = view.there(after);
        List<Element> named = view.named(o.question()).stream()
                .map(i -> there.elements().get(view.now(before, i)))
                .toList();
        List<Integer> reached = view.widths(o.question());
        for (int width : o.turnsInside() ? List.of(PageParts.WIDTH) : WIDTHS) {
            // With a script's class the same rule decides from one turn to the next.
            int turn = view.widths().stream()
                    .filter(w -> w <= width)
                    .max(Comparator.naturalOrder())
                    .orElse(PartView.FROM);
            if (!reached.contains(turn)) {
                continue;
            }
            for (Element e : named) {
                States states = PartLook.states(o.question().states(), e);
                PageStyles was = before.styles(there, Viewport.of(width, PartView.HEIGHT), states);
                PageStyles is = after.styles(changed, Viewport.of(width, PartView.HEIGHT), states);
                Element same = changed.elements().get(there.elements().indexOf(e));
                if (was.of(e).computed(o.property()).equals(is.of(same).computed(o.property()))) {
                    return Optional.of(PartSelector.unique(there, e) + " stays at " + width + " px");
                }
            }
        }
        return Optional.empty();
    }

    private Optional<String> changesMore(Rendered before, Rendered after) {
        Page there = view.there(before);
        Set<Element> inside =
                new HashSet<>(there.elements().get(view.now(before, view.index)).getAllElements());
        return Trial.between(before, after)
                .changed()
                .getOrDefault(view.page.source().file(), List.of())
                .stream()
                .map(i -> there.elements().get(i))
                .filter(e -> !inside.contains(e))
                .findFirst()
                .map(e -> PartSelector.unique(there, e) + " changes as well");
    }
}

package org.calmpalette.core.recipe;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.change.Between;
import org.calmpalette.core.change.Change;
import org.calmpalette.core.change.OwnSheet;
import org.calmpalette.core.change.SheetRole;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.render.Measures;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.setting.Place;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.survey.PageParts;
import org.calmpalette.core.theme.Theme;
import org.jsoup.nodes.Element;

/**
 * A part of a page as a ready-made group of settings: what decides how it looks, at every band of window widths, and the change that
 * lets settings decide it. Nothing looks otherwise by it: each setting has today's value as its default.
 */
public final class PartGroup {
    private final PartView view;
    private final PageParts.Kind part;
    private final Recipe recipe;

    /**
     * @param measures of the page, or null; without them a header's room is not offered
     * @param index of the part among the elements of the page
     * @throws BadInputException if there is no such element
     */
    public PartGroup(Rendered rendered, Page page, Measures measures, PageParts.Kind part, int index) {
        this.view = new PartView(rendered, page, measures, index);
        this.part = part;
        this.recipe = Recipe.of(part);
    }

    public Element element() {
        return view.element();
    }

    /** What can be made of the part, in the order in which a person would ask. */
    public List<Offer> offers() {
        List<Offer> all = new ArrayList<>(recipe.whole(view));
        List<String> answered = new ArrayList<>();
        all.forEach(o -> answered.addAll(recipe.answeredBy(o)));
        Offering offering = new Offering(view, recipe);
        // One rule for two states is one setting.
        Set<String> ofStates = new HashSet<>();
        for (Question q : recipe.questions(view)) {
            if (!answered.contains(q.id())) {
                offering.of(q)
                        .filter(o -> !o.isOfState() || ofStates.add(view.decides(q)))
                        .ifPresent(all::add);
            }
        }
        all.addAll(recipe.more(view, List.copyOf(all)));
        return new Scripted(view, recipe).of(all);
    }

    private PartView of(Offer o) {
        return o.once().isEmpty()
                ? view
                : view.classes().stream()
                        .filter(s -> s.name().equals(o.once()))
                        .findFirst()
                        .map(view::once)
                        .orElseThrow();
    }

    /**
     * Lets settings decide what was chosen.
     *
     * @param ids of the offers
     * @param name what the part is called: the place of the settings
     * @throws BadInputException if nothing is chosen, a key is taken, or a rule cannot be bound
     */
    public Change take(Set<String> ids, String name) {
        return take(ids, name, (done, total, what) -> {});
    }

    /** Told which setting is made next. */
    @FunctionalInterface
    public interface Progress {
        /** @param what label of the setting */
        void at(int done, int total, String what);
    }

    /** As {@link #take(Set, String)}; on a sheet of thousands of rules each setting takes a tenth of a second and more. */
    public Change take(Set<String> ids, String name, Progress progress) {
        List<Offer> ticked = offers().stream().filter(o -> ids.contains(o.id())).toList();
        List<Offer> chosen = ticked.stream().filter(o -> !o.follows()).toList();
        Optional<Offer> following = ticked.stream().filter(Offer::follows).findFirst();
        if (following.isPresent() && chosen.stream().noneMatch(o -> leads(o, following.get()))) {
            throw new BadInputException(
                    "Rules of the same width follow the width of the column, which is not chosen.", "Tick it as well.");
        }
        if (chosen.isEmpty()) {
            throw new BadInputException("Nothing was chosen.", "Tick what the owner should be able to change.");
        }
        String label = name.isBlank() ? part.label() : name.strip();
        Theme before = view.rendered.theme();
        Place place = before.palette().places().stream()
                .filter(p -> p.label().equalsIgnoreCase(label))
                .findFirst()
                .orElseGet(() -> new Place(Place.keyOf(label), label));
        Theme now = before;
        List<String> left = new ArrayList<>();
        List<String> taken = new ArrayList<>();
        for (int i = 0; i < chosen.size(); i++) {
            Offer o = chosen.get(i);
            progress.at(i, chosen.size(), o.label());
            PartView of = of(o);
            Binding binding = new Binding(of, recipe);
            Theme next = binding.made(now, o, place, label);
            List<Setting> settings = next.palette().settings();
            Optional<String> fault = new AnotherTry(of, recipe).fault(next, o, settings.get(settings.size() - 1));
            if (fault.isPresent()) {
                left.add("“" + o.label() + "” (with another value " + fault.get() + ")");
                continue;
            }
            taken.add(o.id());
            now = following.filter(f -> leads(o, f)).isPresent() ? binding.together(next, o) : next;
        }
        if (taken.isEmpty()) {
            throw new BadInputException(
                    "No setting was made: tried with another value, " + left.get(0) + " does not reach what it names.",
                    "Point at the part in the survey, and give it a setting there.");
        }
        return Between.of(before, after(now, taken), note(taken.size(), label, left));
    }

    /** Whether it is what another one follows. */
    private static boolean leads(Offer o, Offer follower) {
        return o.once().isEmpty()
                && o.element() == follower.element()
                && o.property().equals(follower.property());
    }

    private String note(int made, String label, List<String> left) {
        return "Made " + made + (made == 1 ? " setting" : " settings") + " of the "
                + part.label().toLowerCase(Locale.ROOT) + ", “" + label + "”"
                + (left.isEmpty() ? "" : "; left out: " + String.join(", ", left));
    }

    private Theme after(Theme theme, List<String> taken) {
        return recipe.after(view, theme, taken)
                .map(a -> new OwnSheet(new Rendered(theme), SheetRole.of(theme))
                        .append(a.why(), a.css(), theme.pages())
                        .applied(theme))
                .orElse(theme);
    }
}

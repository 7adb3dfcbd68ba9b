package org.calmpalette.core.recipe;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.calmpalette.core.cascade.Explanation;
import org.calmpalette.core.css.selector.States;
import org.calmpalette.core.part.PartLook;
import org.calmpalette.core.part.ScriptClass;
import org.calmpalette.core.survey.PageParts;
import org.calmpalette.core.value.Viewport;
import org.jsoup.nodes.Element;

/** What a class that a script puts on takes out of an offer's reach, as in headers that change on scrolling, and what it adds. */
final class Scripted {
    private final PartView view;
    private final Recipe recipe;

    Scripted(PartView view, Recipe recipe) {
        this.view = view;
        this.recipe = recipe;
    }

    /** The offers with what each does not reach, and those of what rules of the class decide. */
    List<Offer> of(List<Offer> all) {
        List<ScriptClass> classes = view.classes();
        List<Offer> told = new ArrayList<>();
        List<Offer> more = new ArrayList<>();
        for (ScriptClass s : classes) {
            boolean concerns = s.reaches(view.index)
                    || s.changed().stream()
                            .anyMatch(i -> view.elements.get(i).parents().contains(view.element()));
            if (concerns) {
                more.addAll(ofTheClass(view.once(s)));
            }
        }
        for (Offer o : all) {
            String beyond = classes.stream()
                    .map(s -> beyond(o, s, more))
                    .filter(words -> !words.isEmpty())
                    .findFirst()
                    .orElse("");
            told.add(beyond.isEmpty() ? o : o.noted((o.note() + " " + beyond).strip()));
        }
        told.addAll(more);
        return List.copyOf(told);
    }

    private String beyond(Offer o, ScriptClass s, List<Offer> more) {
        int at = view.named(o.question()).get(0);
        if (!s.reaches(at)) {
            return "";
        }
        boolean own = more.stream()
                .anyMatch(m -> m.once().equals(s.name()) && m.question().id().equals(o.id()));
        return otherRule(o.question(), at, s)
                .map(w -> "Not once a script sets the class “" + s.name() + "”: then " + w.selector() + " in "
                        + w.file() + ", line " + w.line() + ", decides"
                        + (own ? "; it has a setting of its own below." : "."))
                .orElse("");
    }

    /** What rules of the class decide, each with a setting of its own: what shows then is seldom what shows before. */
    private List<Offer> ofTheClass(PartView with) {
        Offering offering = new Offering(with, recipe);
        Binding binding = new Binding(with, recipe);
        List<Offer> all = new ArrayList<>();
        Set<String> rules = new HashSet<>();
        for (Question q : recipe.questions(with)) {
            List<Integer> there = with.widths(q);
            boolean own = there.contains(PageParts.WIDTH)
                    && there.stream()
                            .allMatch(width -> binding.isOwn(
                                    with.rendered.theme(),
                                    with.page,
                                    with.element(),
                                    with.why(width, q),
                                    q.property()));
            if (own && rules.add(with.decides(q))) {
                offering.of(q).map(o -> o.once(with.script.name())).ifPresent(all::add);
            }
        }
        return all;
    }

    private Optional<Explanation.Cause> otherRule(Question q, int at, ScriptClass s) {
        Viewport wide = Viewport.of(PageParts.WIDTH, PartView.HEIGHT);
        Element before = view.elements.get(at);
        Element after = s.page().elements().get(at);
        States states = PartLook.states(q.states(), after);
        Explanation.Cause now = Explanation.of(
                        view.rendered
                                .styles(view.page, wide, PartLook.states(q.states(), before))
                                .of(before),
                        q.property())
                .winner();
        Explanation.Cause then = Explanation.of(
                        view.rendered.styles(s.page(), wide, states).of(after), q.property())
                .winner();
        return PartView.isSame(now, then) || then == null || !then.isInTheme() ? Optional.empty() : Optional.of(then);
    }
}

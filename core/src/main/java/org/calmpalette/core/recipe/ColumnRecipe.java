package org.calmpalette.core.recipe;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.calmpalette.core.cascade.Explanation;
import org.calmpalette.core.cascade.Painting;
import org.jsoup.nodes.Element;

/** The column that holds a page's content: its width and room, the size of its text. */
final class ColumnRecipe implements Recipe {
    private static final String WIDTH = "width";
    private static final String BETWEEN = "Room between its parts";

    @Override
    public List<Question> questions(PartView view) {
        int e = view.index;
        List<Question> all = new ArrayList<>(List.of(
                new Question(WIDTH, "Width", e, "max-width"),
                new Question("fixed-width", "Width", e, "width"),
                new Question("left", "Room at the left", e, "padding-left"),
                new Question("right", "Room at the right", e, "padding-right"),
                new Question("size", "Size of the text", e, "font-size")));
        between(view).ifPresent(all::add);
        return all;
    }

    /** The room between neighbours: the gap of a box that lays them out, or the margin that one rule gives most of them. */
    private static Optional<Question> between(PartView view) {
        Element column = view.element();
        if (Offering.laysOut(view, column)) {
            return Optional.of(new Question("between", BETWEEN, view.index, "row-gap"));
        }
        Map<String, List<Element>> alike = new LinkedHashMap<>();
        for (Element child : column.children()) {
            for (String property : List.of("margin-bottom", "margin-top")) {
                Explanation.Cause w = view.why(child, property).winner();
                boolean some = view.wide().of(child).px(property).orElse(0) > 0;
                if (some && w != null && w.isInTheme() && view.lasts(w.file())) {
                    alike.computeIfAbsent(property + " " + w.file() + w.start(), k -> new ArrayList<>())
                            .add(child);
                }
            }
        }
        return alike.entrySet().stream()
                .filter(a -> a.getValue().size() > 1 && a.getValue().size() * 2 >= column.childrenSize())
                .max(Comparator.comparingInt(a -> a.getValue().size()))
                .map(a -> new Question(
                        "between",
                        BETWEEN,
                        view.at(a.getValue().get(0)),
                        a.getKey().substring(0, a.getKey().indexOf(' ')),
                        Set.of(),
                        Question.Names.NEIGHBOURS));
    }

    /** Those of the part that have their room from the same declaration as one. */
    static List<Element> neighbours(PartView view, Question q) {
        Explanation.Cause rule = view.why(view.of(q), q.property()).winner();
        return view.element().children().stream()
                .filter(e -> PartView.isSame(view.why(e, q.property()).winner(), rule))
                .toList();
    }

    /** What is as wide as the column goes with it. */
    @Override
    public List<Offer> more(PartView view, List<Offer> made) {
        return made.stream().filter(o -> o.id().equals(WIDTH)).findFirst().flatMap(o -> hanging(view, o)).stream()
                .toList();
    }

    private static Optional<Offer> hanging(PartView view, Offer width) {
        Map<String, Element> others = asWide(view, width);
        return others.isEmpty()
                ? Optional.empty()
                : Optional.of(new Offer(
                        new Question(
                                "hangs",
                                others.size() == 1
                                        ? "One other rule of the same width"
                                        : others.size() + " other rules of the same width",
                                view.index,
                                "max-width"),
                        Offer.Way.FOLLOWS,
                        width.kind(),
                        width.value(),
                        width.now(),
                        List.copyOf(others.keySet()),
                        ""));
    }

    /** Elements that other rules make as wide as the column, one for each rule: rows of headers, columns of heroes and footers. */
    static Map<String, Element> asWide(PartView view, Offer width) {
        Map<String, Element> found = new LinkedHashMap<>();
        Explanation.Cause own = view.why(view.element(), "max-width").winner();
        for (Element e : view.elements.subList(2, view.elements.size())) {
            Explanation why = view.why(e, "max-width");
            Explanation.Cause w = why.winner();
            if (w != null
                    && w.isInTheme()
                    && why.inheritedFrom() == null
                    && why.through().isEmpty()
                    && view.lasts(w.file())
                    && !PartView.isSame(own, w)
                    && width.kind()
                            .readCss(Painting.declared(view.wide().of(e), "max-width")
                                    .orElse(""))
                            .filter(width.value()::equals)
                            .isPresent()) {
                found.putIfAbsent(w.selector() + " in " + w.file() + ", line " + w.line(), e);
            }
        }
        return found;
    }

    @Override
    public boolean hasWhatItInherits() {
        return false;
    }

    /** How wide the column is may be told to all that is as wide. */
    @Override
    public boolean mayReachMore(String property) {
        return property.equals("max-width");
    }

    @Override
    public boolean movesOthers() {
        return true;
    }
}

package org.calmpalette.core.recipe;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import org.calmpalette.core.cascade.Explanation;
import org.calmpalette.core.cascade.Origin;
import org.calmpalette.core.cascade.PageStyles;
import org.calmpalette.core.cascade.Painting;
import org.calmpalette.core.change.LiftedValue;
import org.calmpalette.core.css.selector.States;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.part.PartSelector;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.setting.BackgroundKind;
import org.calmpalette.core.setting.Band;
import org.calmpalette.core.setting.Bands;
import org.calmpalette.core.setting.GradientKind;
import org.calmpalette.core.setting.LengthKind;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.survey.PageParts;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.value.Viewport;
import org.jsoup.nodes.Element;

/** The header of a page: whether it stays, what it stands on, its room, its links in their states. */
final class HeaderRecipe implements Recipe {
    /** Widths at which the header is measured in each band. */
    private static final int STEPS = 12;

    @Override
    public List<Question> questions(PartView view) {
        int e = view.index;
        List<Question> all = new ArrayList<>(List.of(
                new Question("stays", "When the page scrolls", e, "position"),
                new Question("fill", "Colour", e, "background-color"),
                new Question("above", "Room above", e, "padding-top"),
                new Question("below", "Room below", e, "padding-bottom"),
                new Question("height", "Height", e, "height"),
                new Question("least-height", "Least height", e, "min-height")));
        List<Element> links = links(view);
        if (links.isEmpty()) {
            return all;
        }
        Element link = links.get(0);
        int at = view.at(link);
        all.add(ofLinks("link-color", "Colour of the links", at, "color"));
        all.add(ofLinks("pointed-color", "Colour of links that are pointed at", at, "color", "hover"));
        all.add(ofLinks("pointed-fill", "Ground of links that are pointed at", at, "background-color", "hover"));
        all.add(ofLinks("focused-color", "Colour of links that are reached by keyboard", at, "color", "focus"));
        all.add(ofLinks(
                "focused-outline", "Outline of links that are reached by keyboard", at, "outline-color", "focus"));
        all.add(ofLinks("pressed-color", "Colour of links that are pressed", at, "color", "active"));
        current(view, link).map(view::at).ifPresent(current -> {
            all.add(new Question("current-color", "Colour of the link to this page", current, "color"));
            all.add(new Question("current-fill", "Ground of the link to this page", current, "background-color"));
        });
        list(view, link)
                .map(view::at)
                .ifPresent(list -> all.add(new Question("link-gap", "Room between the links", list, "column-gap")));
        all.add(ofLinks("link-size", "Size of the links", at, "font-size"));
        all.add(ofLinks("link-weight", "Weight of the links", at, "font-weight"));
        all.add(ofLinks("link-spacing", "Letter spacing of the links", at, "letter-spacing"));
        return all;
    }

    private static Question ofLinks(String id, String label, int at, String property, String... states) {
        return new Question(id, label, at, property, Set.of(states), Question.Names.LINKS);
    }

    /** Of the links of a header those that look as most of them do. */
    static List<Element> links(PartView view) {
        Element header = view.element();
        List<Element> links = header.select("nav a[href], ul a[href]");
        Map<String, List<Element>> alike = new LinkedHashMap<>();
        for (Element a : links.isEmpty() ? header.select("a[href]") : links) {
            Explanation.Cause w = view.why(a, "color").winner();
            alike.computeIfAbsent(w == null ? "" : w.file() + w.start(), k -> new ArrayList<>())
                    .add(a);
        }
        return alike.values().stream().max(Comparator.comparingInt(List::size)).orElse(List.of());
    }

    /** The link to the page itself, where a rule gives it a look of its own. */
    private static Optional<Element> current(PartView view, Element link) {
        String named = "a[aria-current], [aria-current] > a, a.active, .active > a, a.current, .current > a";
        return view.element().select(named).stream()
                .filter(a -> a != link)
                .filter(a -> List.of("color", "background-color").stream().anyMatch(property -> {
                    Explanation.Cause own = view.why(a, property).winner();
                    return own != null
                            && !PartView.isSame(view.why(link, property).winner(), own);
                }))
                .findFirst();
    }

    /** What lays the links out in a row with gaps. */
    private static Optional<Element> list(PartView view, Element link) {
        Element end = view.element().parent();
        for (Element p = link.parent(); p != null && p != end; p = p.parent()) {
            if (Offering.laysOut(view, p)) {
                return Optional.of(p).filter(x -> x.select("a[href]").size() > 1);
            }
        }
        return Optional.empty();
    }

    @Override
    public List<Offer> whole(PartView view) {
        return ground(view).stream().toList();
    }

    @Override
    public List<String> answeredBy(Offer whole) {
        // The whole background is asked for, with its colour.
        return List.of("fill");
    }

    /** The strip or gradient of a header, where one declaration says all of its background at every width. */
    private static Optional<Offer> ground(PartView view) {
        Explanation.Cause one = null;
        for (int width : view.widths()) {
            Explanation why = Explanation.of(view.styles(width).of(view.element()), "background-image");
            Explanation.Cause w = why.winner();
            Explanation.Cause color = Explanation.of(view.styles(width).of(view.element()), "background-color")
                    .winner();
            boolean whole = w != null
                    && w.isInTheme()
                    && w.origin() == Origin.AUTHOR
                    && w.property().equals("background")
                    && view.lasts(w.file())
                    && why.through().isEmpty()
                    && PartView.isSame(color, w)
                    && (one == null || PartView.isSame(one, w));
            if (!whole) {
                return Optional.empty();
            }
            one = w;
        }
        Explanation.Cause w = Objects.requireNonNull(one);
        return LiftedValue.of("background", w.written(), w.file()).stream()
                .filter(l -> l.layer() == 0 && (l.kind() instanceof BackgroundKind || l.kind() instanceof GradientKind))
                .filter(l -> !(l.kind() instanceof BackgroundKind)
                        || !((Value.Parts) l.value()).text("picture").isEmpty())
                .findFirst()
                .map(l -> new Offer(
                        new Question(
                                "ground",
                                l.kind() instanceof GradientKind ? "Gradient" : "Picture and colour",
                                view.index,
                                "background"),
                        Offer.Way.GROUND,
                        l.kind(),
                        l.value(),
                        w.written(),
                        List.of(w.file() + ", line " + w.line()),
                        ""));
    }

    @Override
    public List<Offer> more(PartView view, List<Offer> made) {
        return room(view).stream().toList();
    }

    /** What a header that stays in view hides is given room: anchors stop below it. As high as it was measured in each band. */
    private static Optional<Offer> room(PartView view) {
        Element root = view.elements.get(1);
        if (view.measures == null
                || Painting.declared(view.wide().of(root), "scroll-padding-top").isPresent()) {
            return Optional.empty();
        }
        Bands all = view.rendered.theme().palette().bands();
        Map<String, Value> bands = new LinkedHashMap<>();
        Value widest = null;
        for (Band b : all.list()) {
            int from = Math.max(PartView.FROM, all.from(b));
            int to = b.to() == null ? PartView.TO : b.to();
            double most = 0;
            for (int w = from; w <= to; w += Math.max(1, (to - from) / STEPS)) {
                most = Math.max(
                        most,
                        view.measures.box(view.index, w).map(x -> x.height()).orElse(0.0));
            }
            Value v = Value.parts("value", (int) Math.ceil(most), "unit", "px");
            if (b == all.widest()) {
                widest = v;
            } else {
                bands.put(b.key(), v);
            }
        }
        Value wide = Objects.requireNonNull(widest);
        bands.values().removeIf(wide::equals);
        return Optional.of(new Offer(
                new Question("room", "Room for it above what one jumps to", 1, "scroll-padding-top"),
                Offer.Way.ADDED,
                LengthKind.ANY,
                wide,
                bands,
                "nothing",
                List.of(),
                "As high as it is now in each band. Owners are not asked.",
                false,
                ""));
    }

    @Override
    public String selector(PartView view, Page there, int whole, int element) {
        return "html";
    }

    /** What stays in view needs to be told where, and has to lie over what passes under it. */
    @Override
    public Optional<Added> after(PartView view, Theme theme, List<String> taken) {
        if (!taken.contains("stays")) {
            return Optional.empty();
        }
        Rendered then = new Rendered(theme);
        Page there = then.page(view.page.source().file()).orElseThrow();
        Element e = there.elements().get(view.now(then, view.index));
        PageStyles wide = then.styles(there, Viewport.of(PageParts.WIDTH, PartView.HEIGHT), States.NONE);
        StringBuilder lines = new StringBuilder();
        if (Painting.declared(wide.of(e), "top").isEmpty()) {
            lines.append("  top: 0;\n");
        }
        if (Painting.declared(wide.of(e), "z-index").isEmpty()) {
            lines.append("  z-index: 10;\n");
        }
        return lines.isEmpty()
                ? Optional.empty()
                : Optional.of(
                        new Added("The header may stay in view", PartSelector.unique(there, e) + " {\n" + lines + "}"));
    }
}

package org.calmpalette.core.recipe;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.calmpalette.core.cascade.Explanation;
import org.calmpalette.core.cascade.Origin;
import org.calmpalette.core.change.Change;
import org.calmpalette.core.change.Located;
import org.calmpalette.core.change.OwnSheet;
import org.calmpalette.core.change.SheetRole;
import org.calmpalette.core.css.Edit;
import org.calmpalette.core.css.selector.SelectorList;
import org.calmpalette.core.css.selector.SelectorMatcher;
import org.calmpalette.core.css.selector.States;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.part.PartChange;
import org.calmpalette.core.part.PartLook;
import org.calmpalette.core.part.PartSelector;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.setting.Given;
import org.calmpalette.core.setting.Palette;
import org.calmpalette.core.setting.Place;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.survey.PageParts;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.usage.ColorUsage;
import org.calmpalette.core.usage.Readers;
import org.calmpalette.core.value.Viewport;
import org.jsoup.nodes.Element;

/** Makes the setting of an offer and lets what decides it today read that. */
final class Binding {
    private final PartView view;
    private final Recipe recipe;

    Binding(PartView view, Recipe recipe) {
        this.view = view;
        this.recipe = recipe;
    }

    /** The theme with the setting, the last of its palette. */
    Theme made(Theme theme, Offer o, Place place, String label) {
        Setting setting = setting(theme, o, place);
        Theme now =
                switch (o.way()) {
                    case ADDED -> added(theme, o, setting);
                    case GROUND -> grounded(theme, setting);
                    case SHADE -> shaded(theme, setting);
                    case READ, FOLLOWS -> read(theme, o, setting, widths(o));
                };
        return Change.of(label)
                .withPalette(now, now.palette().with(setting, place))
                .applied(now);
    }

    private static Setting setting(Theme theme, Offer o, Place place) {
        Palette palette = theme.palette();
        String base = place.key() + "-" + o.id();
        String key = base;
        Set<String> taken = ColorUsage.of(theme).customProperties();
        for (int i = 2; palette.setting(key).isPresent() || taken.contains("--" + key); i++) {
            key = base + "-" + i;
        }
        Map<String, Given> bands = new LinkedHashMap<>();
        o.bands().forEach((b, v) -> bands.put(b, new Given.Fixed(v)));
        Setting setting = Setting.of(key, o.label(), "", place.key(), o.kind(), o.value())
                .withBands(bands)
                .withPerBand(!bands.isEmpty());
        return o.isSilent() ? setting.withShown(Setting.Shown.NEVER).withPerBand(false) : setting;
    }

    /** The widest first: what stands there is what all the others fall back on. */
    private List<Integer> widths(Offer o) {
        List<Integer> at = new ArrayList<>(o.turnsInside() ? List.of(PageParts.WIDTH) : view.widths(o.question()));
        at.sort(Comparator.comparingInt(w -> Math.abs(w - PageParts.WIDTH)));
        return at;
    }

    /** Lets what is as wide as the column follow its setting, the last of the palette. */
    Theme together(Theme theme, Offer width) {
        Setting setting =
                theme.palette().settings().get(theme.palette().settings().size() - 1);
        Theme now = theme;
        for (Element other : ColumnRecipe.asWide(view, width).values()) {
            Offer one = new Offer(
                    new Question("hangs", width.label(), view.at(other), "max-width"),
                    Offer.Way.FOLLOWS,
                    width.kind(),
                    width.value(),
                    width.now(),
                    List.of(),
                    "");
            now = read(now, one, setting, List.of(PageParts.WIDTH));
        }
        return now;
    }

    private Theme read(Theme theme, Offer o, Setting setting, List<Integer> at) {
        Rendered then = new Rendered(theme);
        for (int width : at) {
            for (int named : view.named(o.question())) {
                Theme next = read(then, o, setting, width, named);
                then = next == then.theme() ? then : new Rendered(next);
            }
        }
        return then.theme();
    }

    private Theme read(Rendered then, Offer o, Setting setting, int width, int named) {
        Theme theme = then.theme();
        Page there = view.there(then);
        int at = view.now(then, named);
        Element target = there.elements().get(at);
        Set<String> states = o.question().states();
        Viewport window = Viewport.of(width, PartView.HEIGHT);
        Explanation e = Explanation.of(
                then.styles(there, window, PartLook.states(states, target)).of(target), o.property());
        if (e.through().contains(setting.property())) {
            return theme;
        }
        Element whole = there.elements().get(view.now(then, view.index));
        Element holder = e.inheritedFrom();
        boolean inside = holder == null || holder == whole || holder.parents().contains(whole);
        boolean own = inside && isOwn(theme, there, whole, e, o.property());
        if (!inside && target != whole) {
            // What comes from outside is decided by no rule on the element, so that a plain one does for all that are
            // like it.
            String css = o.bands().isEmpty() ? o.now() : e.value();
            return written(then, o, Alike.to(there, whole, target), setting, css);
        }
        PartChange change = new PartChange(then, there, at, null, o.property(), window, states, null);
        PartChange.What reads = new PartChange.What.Reads(setting);
        List<Element> all = view.named(o.question()).stream()
                .map(i -> there.elements().get(view.now(then, i)))
                .toList();
        if (!own && (all.size() > 1 || !states.isEmpty())) {
            return change.all(Alike.of(there, whole, all, states), reads).applied(theme);
        }
        return change.fix(own ? "rule" : "only", reads).applied(theme);
    }

    private static Theme written(Rendered then, Offer o, String selector, Setting setting, String css) {
        return new OwnSheet(then, SheetRole.of(then.theme()))
                .append(
                        o.label(),
                        selector + " {\n  " + o.property() + ": var(" + setting.property() + ", " + css + ");\n}",
                        then.theme().pages())
                .applied(then.theme());
    }

    /** A rule for what no rule decided. */
    private Theme added(Theme theme, Offer o, Setting setting) {
        Rendered then = new Rendered(theme);
        Page there = then.page(view.page.source().file()).orElseThrow();
        String selector = recipe.selector(view, there, view.now(then, view.index), view.now(then, o.element()));
        return written(
                then, o, selector, setting, o.kind().css(o.value(), a -> a).get(""));
    }

    private Theme grounded(Theme theme, Setting setting) {
        Explanation.Cause w = view.why(view.element(), "background-image").winner();
        // It is offered first and so taken first: what was found stands where it was found.
        Located at = Located.find(theme, w.file(), w.start());
        return Change.of(setting.label())
                .with(
                        w.file(),
                        new Edit(at.valueStart(), at.valueEnd(), "var(" + setting.property() + ", " + at.value() + ")"))
                .applied(theme);
    }

    private Theme shaded(Theme theme, Setting setting) {
        String layer = "var(" + setting.property() + ", transparent)";
        Change change = Change.of(setting.label());
        for (Explanation.Cause w : HeroRecipe.pictures(view)) {
            // It is offered first and so taken first: what was found stands where it was found.
            int at = Located.find(theme, w.file(), w.start()).valueStart();
            change = change.with(w.file(), new Edit(at, at, "linear-gradient(" + layer + ", " + layer + "), "));
        }
        return change.applied(theme);
    }

    /** Whether what decides is a rule of the theme's own that finds the part and nothing else. */
    boolean isOwn(Theme theme, Page there, Element whole, Explanation e, String property) {
        Element holder = e.inheritedFrom();
        return e.winner() != null
                && e.winner().isInTheme()
                && e.winner().origin() == Origin.AUTHOR
                && (holder == null || holder == whole || holder.parents().contains(whole))
                && e.through().stream().allMatch(theme.palette().properties()::containsKey)
                && PartView.lasts(theme, e.winner().file())
                && (recipe.mayReachMore(property) || !findsMore(theme, there, whole, e.winner()));
    }

    /**
     * Whether a rule finds something beside the part, on this page or where the part is on others: what is named after the part must not
     * change that.
     */
    private static boolean findsMore(Theme theme, Page there, Element whole, Explanation.Cause rule) {
        Located at = Located.find(theme, rule.file(), rule.start());
        SelectorList list = at.around().isEmpty()
                ? null
                : Readers.selector(at.part().sheet(), at.around()).orElse(null);
        if (list == null) {
            return false;
        }
        String part = PartSelector.unique(there, whole);
        for (Page one : theme.pages()) {
            Page p = one.source().file().equals(there.source().file()) ? there : one;
            SelectorMatcher matcher = new SelectorMatcher(p.document(), States.ANY);
            List<Element> parts = p == there ? List.of(whole) : Alike.found(p, part);
            for (Element e : p.elements().subList(1, p.elements().size())) {
                if (matcher.matches(list, e)
                        && parts.stream().noneMatch(x -> x == e || e.parents().contains(x))) {
                    return true;
                }
            }
        }
        return false;
    }
}

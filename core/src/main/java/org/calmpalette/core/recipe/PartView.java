package org.calmpalette.core.recipe;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.cascade.Explanation;
import org.calmpalette.core.cascade.PageStyles;
import org.calmpalette.core.change.SheetRole;
import org.calmpalette.core.css.selector.States;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.part.PartLook;
import org.calmpalette.core.part.ScriptClass;
import org.calmpalette.core.render.Breakpoint;
import org.calmpalette.core.render.Measures;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.setting.Bands;
import org.calmpalette.core.survey.PageParts;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.value.Viewport;
import org.jsoup.nodes.Element;

/** A part of a page at every width at which something may turn, as it is loaded or with a class that a script puts on. */
final class PartView {
    static final int HEIGHT = 900;
    /** Widths of windows that are looked at, in CSS pixels. */
    static final int FROM = 320;

    static final int TO = 2560;
    private static final int MOST_WIDTHS = 60;

    final Rendered rendered;
    final Page page;
    /** Null where nobody measured the page. */
    final Measures measures;

    final int index;
    final List<Element> elements;
    private final List<Integer> widths = new ArrayList<>();
    private final Map<Integer, PageStyles> styles = new LinkedHashMap<>();
    /** With the part as it is without; both null for the page as it is loaded. */
    final ScriptClass script;

    private final PartView before;

    /** @throws BadInputException if there is no such element */
    PartView(Rendered rendered, Page page, Measures measures, int index) {
        this(rendered, page, measures, index, null, null);
    }

    private PartView(Rendered rendered, Page page, Measures measures, int index, ScriptClass script, PartView before) {
        this.script = script;
        this.before = before;
        this.rendered = rendered;
        this.page = page;
        this.measures = measures;
        this.index = index;
        this.elements = page.elements();
        if (index < 2 || index >= elements.size()) {
            throw new BadInputException("That part is no longer on the page.", "Point at it again.");
        }
        Set<Integer> turns = new TreeSet<>(List.of(FROM, PageParts.WIDTH));
        for (Breakpoint b : Breakpoint.of(rendered.theme())) {
            turns.add((int) (b.from() ? Math.ceil(b.width()) : Math.floor(b.width()) + 1));
        }
        Bands bands = rendered.theme().palette().bands();
        bands.list().forEach(b -> turns.add(Math.max(FROM, bands.from(b))));
        turns.stream().filter(w -> w >= FROM && w <= TO).limit(MOST_WIDTHS).forEach(widths::add);
    }

    /** As it is once a script has set a class. */
    PartView once(ScriptClass s) {
        return new PartView(rendered, s.page(), measures, index, s, this);
    }

    List<ScriptClass> classes() {
        return ScriptClass.of(rendered.theme(), page);
    }

    Element element() {
        return elements.get(index);
    }

    Element of(Question q) {
        return elements.get(q.element());
    }

    int at(Element e) {
        return elements.indexOf(e);
    }

    List<Integer> widths() {
        return widths;
    }

    /** Where the window's width turns something; with a class of a script only those at which another rule decides than without it. */
    List<Integer> widths(Question q) {
        if (script == null) {
            return widths;
        }
        return widths.stream()
                .filter(width -> {
                    Explanation.Cause then = why(width, q).winner();
                    return then != null && !isSame(before.why(width, q).winner(), then);
                })
                .toList();
    }

    /** Whether two are one declaration. */
    static boolean isSame(Explanation.Cause a, Explanation.Cause b) {
        return a == null
                ? b == null
                : b != null && a.start() == b.start() && a.file().equals(b.file());
    }

    PageStyles styles(int width) {
        return styles.computeIfAbsent(width, w -> rendered.styles(page, Viewport.of(w, HEIGHT), States.NONE));
    }

    /** At {@link PageParts#WIDTH}. */
    PageStyles wide() {
        return styles(PageParts.WIDTH);
    }

    PageStyles styles(int width, Question q) {
        return q.states().isEmpty()
                ? styles(width)
                : rendered.styles(page, Viewport.of(width, HEIGHT), PartLook.states(q.states(), of(q)));
    }

    Explanation why(int width, Question q) {
        return Explanation.of(styles(width, q).of(of(q)), q.property());
    }

    /** Why a property of an element is what it is, at {@link PageParts#WIDTH}. */
    Explanation why(Element e, String property) {
        return Explanation.of(wide().of(e), property);
    }

    /** Which declaration decides it in the widest band. */
    String decides(Question q) {
        Explanation.Cause winner = why(PageParts.WIDTH, q).winner();
        return winner == null ? q.id() : q.property() + " " + winner.file() + " " + winner.start();
    }

    /** Whether what is written into a stylesheet stays there, which it does not in a library's. */
    boolean lasts(String file) {
        return lasts(rendered.theme(), file);
    }

    static boolean lasts(Theme theme, String file) {
        SheetRole role = SheetRole.of(theme).get(file);
        return role == null || role.lasts();
    }

    /** The elements that a question names, as indices. */
    List<Integer> named(Question q) {
        return switch (q.names()) {
            case ONE -> List.of(q.element());
            case LINKS -> HeaderRecipe.links(this).stream().map(this::at).toList();
            case NEIGHBOURS ->
                ColumnRecipe.neighbours(this, q).stream().map(this::at).toList();
        };
    }

    /** The page as it is in a changed theme, with the class of the script. */
    Page there(Rendered then) {
        Page plain = then.page(page.source().file()).orElseThrow();
        return script == null
                ? plain
                : plain.withClass(
                        script.name(),
                        script.changed().stream().map(i -> now(then, i)).collect(Collectors.toSet()));
    }

    /** The element on the page as it is now: a link to a new stylesheet in its head moves all that follow. */
    int now(Rendered then, int element) {
        int more = then.page(page.source().file()).orElseThrow().elements().size() - elements.size();
        return element <= 1 ? element : element + more;
    }
}

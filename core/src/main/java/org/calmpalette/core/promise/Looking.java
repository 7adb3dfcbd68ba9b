package org.calmpalette.core.promise;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.calmpalette.core.cascade.PageStyles;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.color.Contrast;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.part.ScriptClass;
import org.calmpalette.core.render.Backdrop;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.setting.Chosen;
import org.calmpalette.core.theme.Theme;
import org.jsoup.nodes.Element;

/** Texts as the whole cascade has them with choices. */
final class Looking {
    private final Rendered with;

    Looking(Theme theme, Map<String, Chosen> chosen) {
        this.with = new Rendered(theme, chosen);
    }

    /** The contrast of a text in a window of a width in px; empty if it is not known there. */
    Optional<Double> ratio(Asked a, int width) {
        if (a.isShadowed()) {
            // The cascade knows of the letters and of the ground, not of what lies between.
            return Optional.empty();
        }
        return Looked.at(with, a.page(), a.element(), a.what(), width, a.pseudoClass(), a.dark())
                .ratio();
    }

    /** Whether it is seen there at all. */
    boolean isShown(Asked a, int width) {
        Element e = a.page().elements().get(a.element());
        Looked seen = Looked.at(with, a.page(), a.element(), a.what(), width, a.pseudoClass(), a.dark());
        return !seen.styles().isHidden(e);
    }

    /**
     * A text as the whole cascade has it with choices. What is wholly clear as it is made is looked at as it is once something shows it;
     * what choices alone make so is lost.
     */
    private record Looked(PageStyles styles, Inks inks, Backdrop backdrop) {
        /** @param page as it is asked about */
        static Looked at(
                Rendered with, Page page, int element, Perceivable what, int width, String state, boolean dark) {
            Element e = page.elements().get(element);
            boolean inPlace = state.isEmpty() || PartStates.isClass(state) || state.equals(FieldText.PLACEHOLDER);
            Element holder = inPlace ? null : PartStates.holder(e, state);
            PageStyles styles = with.styles(page, Asking.window(width, dark), PartStates.on(holder, state));
            Backdrop seen = behind(with, styles, e, what);
            Inks inks = state.equals(FieldText.PLACEHOLDER)
                    ? Inks.letters(styles.of(e, "placeholder"), null)
                    : Inks.of(styles, e, what);
            boolean laterShown = seen.isInvisible()
                    && behind(
                                    with,
                                    new Rendered(with.theme(), Map.of())
                                            .styles(page, Asking.window(width, dark), PartStates.on(holder, state)),
                                    e,
                                    what)
                            .isInvisible();
            return new Looked(styles, inks, laterShown ? seen.shown() : seen);
        }

        private static Backdrop behind(Rendered with, PageStyles styles, Element e, Perceivable what) {
            return Asking.behind(new Backdrop.Reader(styles, with.theme().files()::has), e, what);
        }

        /** Those of which one that is seen is enough. Empty too where the canvas is dark: the cascade takes a white one. */
        private List<Color> letters() {
            return Grounds.isDark(styles)
                    ? List.of()
                    : inks.any().stream().flatMap(i -> i.color().stream()).toList();
        }

        /** As they are seen, the colours that differ most; empty where that is not known. */
        Optional<Backdrop.Seen> seen() {
            return backdrop.unknown() != null
                    ? Optional.empty()
                    : letters().stream()
                            .map(this::seen)
                            .max(java.util.Comparator.comparingDouble(Backdrop.Seen::ratio));
        }

        private Backdrop.Seen seen(Color letters) {
            Color box = box();
            return box.alpha() == 0
                    ? backdrop.under(faded(letters))
                    : new Backdrop.Seen(
                            backdrop.under(faded(Contrast.over(letters, box))).text(),
                            backdrop.under(faded(box)).text());
        }

        /** As what holds it lets through; of an element its own opacity is in what is behind it. */
        private Color faded(Color c) {
            return inks.opacity() == 1 ? c : c.withAlpha(c.alpha() * inks.opacity());
        }

        /** The ground of a generated box of their own. */
        private Color box() {
            return inks.box() == null
                    ? Color.TRANSPARENT
                    : inks.box().colorOf("background-color").orElse(Color.TRANSPARENT);
        }

        /** The contrast; of a gradient the best place is told: where on it something stands, layout decides. */
        Optional<Double> ratio() {
            return backdrop.unknown() == null
                    ? seen().map(Backdrop.Seen::ratio)
                    : box().alpha() > 0
                            ? Optional.empty()
                            : letters().stream()
                                    .flatMap(c -> backdrop.range(faded(c)).stream())
                                    .map(Backdrop.Range::most)
                                    .max(Double::compare);
        }
    }

    static Optional<Promises.Colors> colors(Theme theme, Answer a, Map<String, Chosen> chosen) {
        Rendered with = new Rendered(theme, chosen);
        return with.page(a.page())
                .filter(p -> a.element() >= 0)
                .flatMap(p -> !PartStates.isClass(a.pseudoClass())
                        ? Optional.of(p)
                        : ScriptClass.of(theme, p).stream()
                                .filter(c -> a.pseudoClass().equals("." + c.name()))
                                .map(ScriptClass::page)
                                .findFirst())
                .map(p -> Looked.at(with, p, a.element(), a.what(), a.width(), a.pseudoClass(), a.dark()))
                .flatMap(Looked::seen)
                .map(s -> new Promises.Colors(s.text(), s.ground()));
    }
}

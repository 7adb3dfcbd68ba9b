package org.calmpalette.core.recipe;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Pattern;
import org.calmpalette.core.cascade.ElementStyle;
import org.calmpalette.core.cascade.Explanation;
import org.calmpalette.core.cascade.Origin;
import org.calmpalette.core.cascade.PageStyles;
import org.calmpalette.core.cascade.Painting;
import org.calmpalette.core.css.selector.SelectorList;
import org.calmpalette.core.css.selector.SelectorMatcher;
import org.calmpalette.core.css.selector.States;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.part.PartSelector;
import org.calmpalette.core.setting.ColorKind;
import org.calmpalette.core.setting.LengthKind;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.value.Viewport;
import org.jsoup.nodes.Element;

/** The hero of a page: its height, where its words are, what they stand on. */
final class HeroRecipe implements Recipe {
    private static final List<String> BOXED = List.of(
            "background-color", "background-image", "padding-top", "padding-right", "padding-bottom", "padding-left");
    private static final Pattern ONE_PICTURE = Pattern.compile("(?is)[^,()]*url\\([^()]*\\)[^,()]*");
    private static final Value CLEAR = Value.of("#00000000");

    /** A layer as large as its picture would leave the rest without shade; of a gradient all of these mean everywhere. */
    private static final Set<String> FILLING =
            Set.of("auto", "auto auto", "cover", "contain", "100% 100%", "100%", "100% auto");

    @Override
    public List<Question> questions(PartView view) {
        List<Question> all = new ArrayList<>(List.of(
                asked(view, "height", "Least height", "min-height"),
                asked(view, "fixed-height", "Height", "height"),
                new Question("fill", "Colour", view.index, "background-color"),
                asked(view, "place", "Where the content is", "align-items"),
                asked(view, "align", "Alignment of the text", "text-align"),
                asked(view, "above", "Room above", "padding-top"),
                asked(view, "below", "Room below", "padding-bottom")));
        Element heading = view.element().selectFirst("h1, h2");
        if (heading != null) {
            int at = view.at(heading);
            all.add(new Question("heading-color", "Colour of the heading", at, "color"));
            all.add(new Question("heading-size", "Size of the heading", at, "font-size"));
        }
        return all;
    }

    /**
     * What decides a property of the part: the part, or where no rule says so of it, a box in it that holds all its words. Heroes are
     * made as high as they are by the room or the height of such a box as often as by their own.
     */
    private static Question asked(PartView view, String id, String label, String property) {
        Element hero = view.element();
        List<Element> boxes = new ArrayList<>(List.of(hero));
        for (Element around = hero.selectFirst("h1, h2, p");
                around != null && around != hero;
                around = around.parent()) {
            if (around.children().size() > 0 && around.text().equals(hero.text())) {
                boxes.add(1, around);
            }
        }
        Element deciding = boxes.stream()
                .filter(b -> isDecided(view, b, property))
                .findFirst()
                .orElse(hero);
        return new Question(id, label, view.at(deciding), property);
    }

    private static boolean isDecided(PartView view, Element e, String property) {
        Explanation why = view.why(e, property);
        return why.winner() != null
                && why.winner().isInTheme()
                && why.inheritedFrom() == null
                && !Painting.declared(view.wide().of(e), property).orElse("0").matches("0(px)?|auto|none|normal");
    }

    @Override
    public List<Offer> whole(PartView view) {
        return shade(view).stream().toList();
    }

    /** A colour that lies over the picture of a hero and lets it through; nothing at first. */
    private static Optional<Offer> shade(PartView view) {
        List<Explanation.Cause> pictures = pictures(view);
        return pictures.isEmpty()
                ? Optional.empty()
                : Optional.of(new Offer(
                        new Question("shade", "Shade over the picture", view.index, "background-image"),
                        Offer.Way.SHADE,
                        ColorKind.ANY,
                        CLEAR,
                        "nothing",
                        pictures.stream()
                                .map(w -> w.file() + ", line " + w.line())
                                .toList(),
                        "Nothing at first. A colour that lets through makes words on the picture easier to read."));
    }

    /** Declarations that paint a picture of one layer behind a hero, one for each stretch of widths; empty if any is not that. */
    static List<Explanation.Cause> pictures(PartView view) {
        Map<String, Explanation.Cause> all = new LinkedHashMap<>();
        for (int width : view.widths()) {
            ElementStyle style = view.styles(width).of(view.element());
            Explanation why = Explanation.of(style, "background-image");
            Explanation.Cause w = why.winner();
            boolean one = w != null
                    && w.isInTheme()
                    && w.origin() == Origin.AUTHOR
                    && view.lasts(w.file())
                    && why.through().isEmpty()
                    && Set.of("background", "background-image").contains(w.property())
                    && ONE_PICTURE.matcher(w.written()).matches();
            if (!one || !FILLING.contains(style.computed("background-size"))) {
                return List.of();
            }
            all.putIfAbsent(w.file() + " " + w.start(), w);
        }
        return List.copyOf(all.values());
    }

    /** A ground for the words of a hero and the room around them, where no rule gives them one. Both are nothing at first. */
    @Override
    public List<Offer> more(PartView view, List<Offer> made) {
        Element words = words(view.element());
        if (words == null || words.childrenSize() == 0 || !isBare(view, words)) {
            return List.of();
        }
        int at = view.at(words);
        String note = "Nothing at first. It is a box for the words over a picture.";
        return List.of(
                new Offer(
                        new Question("box-fill", "Ground of the text", at, "background-color"),
                        Offer.Way.ADDED,
                        ColorKind.ANY,
                        CLEAR,
                        "nothing",
                        List.of(),
                        note),
                new Offer(
                        new Question("box-room", "Room around the text", at, "padding"),
                        Offer.Way.ADDED,
                        LengthKind.ANY,
                        Value.parts("value", 0, "unit", "px"),
                        "nothing",
                        List.of(),
                        note));
    }

    /** What holds the words of a hero: the outermost box around its heading inside of it. */
    private static Element words(Element hero) {
        Element heading = hero.selectFirst("h1, h2");
        Element e = heading == null || heading == hero ? null : heading.parent();
        while (e != null && e != hero && e.parent() != hero) {
            e = e.parent();
        }
        return e == hero ? null : e;
    }

    /** By the hero, so that it finds nothing beside its words. */
    private static String selector(Page page, Element hero, Element words) {
        return PartSelector.unique(page, hero) + " > " + PartSelector.name(words);
    }

    @Override
    public String selector(PartView view, Page there, int whole, int element) {
        return selector(there, there.elements().get(whole), there.elements().get(element));
    }

    /** Whether no rule gives any of what that selector finds a ground or room, on this page and all others, at any width. */
    private static boolean isBare(PartView view, Element words) {
        String selector = selector(view.page, view.element(), words);
        SelectorList list = SelectorList.parse(selector).orElse(null);
        boolean named = selector.matches(".*[.#].* > .*");
        if (list == null) {
            return false;
        }
        for (Page p : view.rendered.theme().pages()) {
            SelectorMatcher matcher = new SelectorMatcher(p.document(), States.ANY);
            List<Element> found = p.elements().stream()
                    .skip(1)
                    .filter(e -> matcher.matches(list, e))
                    .toList();
            if (p == view.page ? found.size() != 1 : !named && !found.isEmpty()) {
                return false;
            }
            for (int width : found.isEmpty() ? List.<Integer>of() : view.widths()) {
                PageStyles there = view.rendered.styles(p, Viewport.of(width, PartView.HEIGHT), States.NONE);
                if (found.stream()
                        .anyMatch(e -> BOXED.stream().anyMatch(property -> Painting.declared(there.of(e), property)
                                .isPresent()))) {
                    return false;
                }
            }
        }
        return true;
    }
}

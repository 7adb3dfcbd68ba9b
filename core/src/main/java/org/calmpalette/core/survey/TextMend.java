package org.calmpalette.core.survey;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Predicate;
import org.calmpalette.core.cascade.Explanation;
import org.calmpalette.core.cascade.Origin;
import org.calmpalette.core.change.Change;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.color.Contrast;
import org.calmpalette.core.css.selector.States;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.part.PartChange;
import org.calmpalette.core.part.PartSelector;
import org.calmpalette.core.render.Gallery;
import org.calmpalette.core.render.Ground;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.render.Scenes;
import org.calmpalette.core.setting.ColorKey;
import org.calmpalette.core.value.Viewport;
import org.jsoup.nodes.Element;

/**
 * The smallest thing that lets a text be read on a picture or gradient at every width: another colour of the text if one reads
 * everywhere, else the least shade behind it.
 *
 * @param element that changes
 * @param property {@code color} or {@code background-color}
 * @param value that it gets
 */
record TextMend(Page page, int element, String property, String value, String words) {
    private static final Viewport WIDE = Viewport.of(1440, 900);
    private static final int STEPS = 20;

    /** @param good what a reading has to be like at every one of the widths */
    static Optional<TextMend> least(
            Rendered rendered,
            Scenes scenes,
            Gallery gallery,
            int element,
            Predicate<Ground.Reading> good,
            Set<Integer> at) {
        List<Integer> widths = new ArrayList<>(at);
        Page page = scenes.page();
        List<Element> elements = page.elements();
        Ground ground = new Ground(scenes, gallery, true);
        // A colour that a setting gives is the owner's: it is not fixed by a mend.
        var settings = rendered.theme().palette().properties();
        boolean owners =
                Explanation.of(rendered.styles(page, WIDE, States.NONE).of(elements.get(element)), "color")
                        .through()
                        .stream()
                        .anyMatch(settings::containsKey);
        for (Color color : owners
                ? List.<Color>of()
                : List.of(Color.WHITE, Color.parse("#1c1e20").orElseThrow())) {
            if (reads(ground, element, color, good, widths)) {
                return Optional.of(new TextMend(
                        page,
                        element,
                        "color",
                        ColorKey.of(color),
                        "Write it in " + ColorKey.of(color) + ", which reads at all these widths."));
            }
        }
        // A shade goes behind the whole part, not behind one line of it: on the outermost element around the text that
        // has no paint of its own.
        int behind = behind(rendered, scenes, element);
        Color shade = isLight(rendered, scenes, element) ? Color.BLACK : Color.WHITE;
        for (int step = 1; step <= STEPS; step++) {
            double alpha = step / (double) STEPS;
            Ground shaded = new Ground(scenes, gallery, true, Map.of(behind, shade.withAlpha(alpha)));
            if (reads(shaded, element, null, good, widths)) {
                String value = String.format(
                        Locale.ROOT, "rgb(%s / %.0f%%)", shade == Color.BLACK ? "0 0 0" : "255 255 255", alpha * 100);
                return Optional.of(new TextMend(
                        page,
                        behind,
                        "background-color",
                        value,
                        String.format(
                                Locale.ROOT,
                                "Lay %s of %.0f%% behind %s, the least that does.",
                                shade == Color.BLACK ? "a dark shade" : "a light shade",
                                alpha * 100,
                                PartSelector.name(elements.get(behind)))));
            }
        }
        return Optional.empty();
    }

    /** @param widths in the order in which they are looked at; the one that does not read comes first the next time */
    private static boolean reads(
            Ground ground, int element, Color color, Predicate<Ground.Reading> good, List<Integer> widths) {
        for (int i = 0; i < widths.size(); i++) {
            Optional<Ground.Reading> there =
                    ground.under(element, widths.get(i), color).reading();
            if (there.isPresent() && !good.test(there.get())) {
                widths.add(0, widths.remove(i));
                return false;
            }
        }
        return true;
    }

    private static boolean isLight(Rendered rendered, Scenes scenes, int element) {
        Color text = rendered.styles(scenes.page(), WIDE, States.NONE)
                .of(scenes.page().elements().get(element))
                .colorOf("color")
                .orElse(Color.BLACK);
        return Contrast.relativeLuminance(text) > 0.18;
    }

    private static int behind(Rendered rendered, Scenes scenes, int element) {
        Page page = scenes.page();
        var styles = rendered.styles(page, WIDE, States.NONE);
        List<Element> elements = page.elements();
        int found = element;
        for (Element at = elements.get(element); at != null && at.parent() != null; at = at.parent()) {
            boolean paints = styles.of(at)
                                    .colorOf("background-color")
                                    .orElse(Color.TRANSPARENT)
                                    .alpha()
                            > 0
                    || !styles.of(at).computed("background-image").equals("none");
            if (paints
                    || at.normalName().equals("body")
                    || at.normalName().equals("html")
                    || at.normalName().equals("main")) {
                break;
            }
            found = elements.indexOf(at);
        }
        return found;
    }

    Change change(Rendered rendered) {
        PartChange change = new PartChange(rendered, page, element, null, property, WIDE, Set.of(), null);
        Explanation why = Explanation.of(
                rendered.styles(page, WIDE, States.NONE).of(page.elements().get(element)), property);
        Explanation.Cause w = why.winner();
        boolean own = property.equals("color")
                && w != null
                && w.isInTheme()
                && w.origin() == Origin.AUTHOR
                && why.inheritedFrom() == null
                && why.through().isEmpty();
        return change.fix(own ? "rule" : "only", new PartChange.What.Value(value));
    }
}

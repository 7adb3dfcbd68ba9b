package org.calmpalette.core.promise;

import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import org.calmpalette.core.Budget;
import org.calmpalette.core.cascade.PageStyles;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.css.selector.States;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.render.Behind;
import org.calmpalette.core.render.Gallery;
import org.calmpalette.core.render.Ground;
import org.calmpalette.core.render.Measures;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.render.Scenes;
import org.calmpalette.core.render.Track;
import org.calmpalette.core.value.BackgroundLayer;
import org.jsoup.nodes.Element;

/** A page whose boxes somebody measured: where its texts stand. */
final class Laid {
    private final Page page;
    private final Measures measures;
    private final Scenes scenes;
    private final Ground ground;
    private final Behind behind;

    private Laid(Rendered rendered, Gallery gallery, Page page, Measures measures, boolean dark) {
        this.page = page;
        this.measures = measures;
        this.scenes = new Scenes(rendered, page, measures, dark);
        this.ground = new Ground(scenes, gallery, true);
        this.behind = new Behind(scenes, gallery);
    }

    /** Empty where the page was not measured, or is laid otherwise for visitors who prefer a dark scheme. */
    static Optional<Laid> of(Rendered rendered, Gallery gallery, Page page, Map<String, Measures> all, boolean dark) {
        return Optional.ofNullable(all.get(page.source().file()))
                .filter(m -> !dark || isAlikeInTheDark(rendered, page))
                .map(m -> new Laid(rendered, gallery, page, m, dark));
    }

    /** Whether a dark scheme changes looks alone: pages are measured in a light one. */
    private static boolean isAlikeInTheDark(Rendered rendered, Page page) {
        for (int width : Readable.widths(rendered.theme())) {
            PageStyles light = rendered.styles(page, Asking.window(width, false), States.NONE);
            PageStyles dark = rendered.styles(page, Asking.window(width, true), States.NONE);
            for (Element e : page.elements()) {
                Budget.step();
                if (e != page.document() && !PartStates.isLooksAlone(e, dark, e, light)) {
                    return false;
                }
            }
        }
        return true;
    }

    /** Where a text stands at the widths of a stretch. */
    final class Place {
        private final int element;
        private final int from;
        private final int to;
        /** What is painted around it and what it leaves in part. */
        private final Set<Element> left;

        private Place(int element, int from, int to, Set<Element> left) {
            this.element = element;
            this.from = from;
            this.to = to;
            this.left = left;
        }

        /** @param around its index */
        boolean leaves(int around) {
            return left.contains(page.elements().get(around));
        }

        /**
         * What of a picture or gradient of an element around it lies behind it; empty where that is not known.
         *
         * @param drawn as it is in the state that is asked about; another one than at rest was not measured
         */
        Optional<Behind.Part> behind(int around, int layer, BackgroundLayer drawn) {
            return !scenes.layer(around, layer, from).filter(drawn::equals).isPresent()
                    ? Optional.empty()
                    : behind.of(element, around, layer, from, Math.min(to, measures.to()));
        }
    }

    /**
     * Where a text stands, if nothing lies behind it but what is around it, at every width of a stretch: boxes go in straight lines between
     * the widths at which they turn, so those, and the middle between two of them, are looked at. What stays in the window while the page
     * moves under it stands nowhere.
     */
    Optional<Place> place(int element, int from, int to) {
        Element text = page.elements().get(element);
        Set<Integer> turns = new TreeSet<>(List.of(from, to));
        turns.addAll(turns(measures.lines().get(element)));
        for (Element a = text; a != null && a.parent() != null; a = a.parent()) {
            String position = scenes.styles(from).of(a).computed("position");
            if (position.equals("fixed") || position.equals("sticky")) {
                return Optional.empty();
            }
            turns.addAll(turns(measures.boxes().get(page.elements().indexOf(a))));
        }
        Set<Integer> looked = new TreeSet<>();
        Integer before = null;
        for (int width : turns) {
            if (width >= from && width <= to) {
                if (before != null) {
                    looked.add((before + width) / 2);
                }
                looked.add(width);
                before = width;
            }
        }
        Set<Element> left = new HashSet<>();
        for (int width : looked) {
            Optional<Set<Element>> there = ground.leaves(element, width);
            if (there.isEmpty()) {
                return Optional.empty();
            }
            left.addAll(there.get());
        }
        return Optional.of(new Place(element, from, to, left));
    }

    private static Set<Integer> turns(Track track) {
        Set<Integer> all = new TreeSet<>();
        if (track != null) {
            track.points().forEach(p -> all.add(p.width()));
        }
        return all;
    }

    /** The contrast that 95 of 100 points under a text reach, as the page is made; empty where it is not shown or not known. */
    Optional<Double> contrast(int element, int width, Color letters) {
        return ground.under(element, width, letters).reading().map(Ground.Reading::low);
    }
}

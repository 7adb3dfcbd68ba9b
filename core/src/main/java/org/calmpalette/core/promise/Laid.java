package org.calmpalette.core.promise;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.render.Gallery;
import org.calmpalette.core.render.Ground;
import org.calmpalette.core.render.Measures;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.render.Scenes;
import org.calmpalette.core.render.Track;
import org.jsoup.nodes.Element;

/** A page whose boxes somebody measured: where its texts stand. */
final class Laid {
    private final Page page;
    private final Measures measures;
    private final Scenes scenes;
    private final Ground ground;

    private Laid(Rendered rendered, Gallery gallery, Page page, Measures measures) {
        this.page = page;
        this.measures = measures;
        this.scenes = new Scenes(rendered, page, measures);
        this.ground = new Ground(scenes, gallery, true);
    }

    /** Empty where the page was not measured. */
    static Optional<Laid> of(Rendered rendered, Gallery gallery, Page page, Map<String, Measures> all) {
        return Optional.ofNullable(all.get(page.source().file())).map(m -> new Laid(rendered, gallery, page, m));
    }

    /**
     * Whether a text lies inside of what is painted around it, and nothing else lies there, at every width of a stretch: boxes go in straight
     * lines between the widths at which they turn, so those, and the middle between two of them, are looked at. What stays in the window
     * while the page moves under it does not.
     */
    boolean isAmidItsBoxes(int element, int from, int to) {
        Element text = page.elements().get(element);
        Set<Integer> turns = new TreeSet<>(List.of(from, to));
        turns.addAll(turns(measures.lines().get(element)));
        for (Element a = text; a != null && a.parent() != null; a = a.parent()) {
            String position = scenes.styles(from).of(a).computed("position");
            if (position.equals("fixed") || position.equals("sticky")) {
                return false;
            }
            turns.addAll(turns(measures.boxes().get(page.elements().indexOf(a))));
        }
        Integer before = null;
        for (int width : turns) {
            if (width < from || width > to) {
                continue;
            }
            if (before != null && width - before > 1 && !ground.isAmidItsBoxes(element, (before + width) / 2)) {
                return false;
            }
            if (!ground.isAmidItsBoxes(element, width)) {
                return false;
            }
            before = width;
        }
        return true;
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

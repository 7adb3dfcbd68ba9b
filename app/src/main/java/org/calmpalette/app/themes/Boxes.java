package org.calmpalette.app.themes;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import org.calmpalette.core.promise.Variation;
import org.calmpalette.core.render.Measures;
import org.calmpalette.core.setting.BackgroundKind;
import org.calmpalette.core.setting.Kind;
import org.calmpalette.core.setting.PictureKind;

/** What browsers measured of the pages of one state of a theme: as they are made, and with other values of its settings. */
final class Boxes {
    private final MeasureStore store;
    private final long themeId;
    private final ThemeCache.Read read;

    Boxes(MeasureStore store, long themeId, ThemeCache.Read read) {
        this.store = store;
        this.themeId = themeId;
        this.read = read;
    }

    /**
     * The variations whose pages are measured: as many in order as have no more pages together than that. What was measured of a theme is
     * kept up to a number, and what is beyond it would be measured anew at every visit.
     */
    static Map<Variation, Map<String, String>> first(Map<Variation, Map<String, String>> varied, int most) {
        Map<Variation, Map<String, String>> all = new LinkedHashMap<>();
        int pages = 0;
        for (Map.Entry<Variation, Map<String, String>> e : varied.entrySet()) {
            if (pages + e.getValue().size() <= most) {
                pages += e.getValue().size();
                all.put(e.getKey(), e.getValue());
            }
        }
        return all;
    }

    /** By path of the page. */
    Map<String, Measures> asMade() {
        return store.of(themeId, read);
    }

    /** Names all that is known, so that one sees whether more has come. */
    Set<String> known() {
        Set<String> all = new TreeSet<>(asMade().keySet());
        all.addAll(knownOf(read.variedIfKnown()));
        return all;
    }

    /** The layouts that were measured. */
    Set<String> knownOf(Map<Variation, Map<String, String>> varied) {
        return store.known(
                themeId,
                varied.values().stream()
                        .flatMap(pages -> pages.values().stream())
                        .distinct()
                        .toList());
    }

    /**
     * The boxes with other values, read when they are asked for, of the pages that may be otherwise then: those that lie otherwise, or all
     * where a picture is another one, and none where nothing is moved. A variation is left out until all of its pages are known. Takes a
     * moment for each of them the first time.
     */
    Map<Variation, Supplier<Map<String, Measures>>> varied() {
        Map<Variation, Map<String, String>> layouts = read.varied();
        Set<String> known = knownOf(layouts);
        List<String> made =
                read.theme().pages().stream().map(p -> p.source().file()).collect(Collectors.toList());
        made.removeAll(asMade().keySet());
        Map<Variation, Supplier<Map<String, Measures>>> all = new LinkedHashMap<>();
        layouts.forEach((v, pages) -> {
            Kind kind = read.theme().palette().known(v.key()).kind();
            boolean picture = kind instanceof PictureKind || kind instanceof BackgroundKind;
            if (!made.isEmpty() || !known.containsAll(pages.values())) {
                return;
            }
            all.put(v, () -> {
                Map<String, Measures> boxes = new LinkedHashMap<>(picture ? asMade() : Map.of());
                boxes.putAll(store.read(themeId, pages));
                return boxes;
            });
        });
        return all;
    }
}

package org.calmpalette.core.promise;

import java.util.ArrayList;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.render.Measures;
import org.calmpalette.core.theme.Theme;

/** What is promised of each single text: answers tell of the first of those that ask alike. */
public final class EachText {
    /**
     * A text at rest, in the light.
     *
     * @param element its index in the page
     * @param from first of the widths at which the same rules hold, in px
     * @param to the last of them
     */
    public record Told(String page, int element, int from, int to, Answer answer) {
        public boolean isAt(String path, int width) {
            return page.equals(path) && from <= width && width <= to;
        }
    }

    private record Heard(Asked asked, Page page, int element, int width) {}

    private EachText() {}

    public static List<Told> of(Theme theme, Map<String, Measures> measures) {
        List<Heard> all = new ArrayList<>();
        Readable readable = new Readable(theme, measures);
        Asking asking = new Asking(theme, measures) {
            @Override
            Asked ask(Asked one) {
                Asked alike = super.ask(one);
                if (one.pseudoClass().isEmpty() && !one.dark() && one.what() == Perceivable.TEXT) {
                    all.add(new Heard(alike, one.page(), one.element(), one.width()));
                }
                return alike;
            }
        };
        asking.of(theme.pages());
        List<Integer> widths = Readable.widths(theme);
        Map<Asked, Answer> decided = new IdentityHashMap<>();
        List<Told> told = new ArrayList<>();
        for (Heard h : all) {
            int next = widths.indexOf(h.width()) + 1;
            told.add(new Told(
                    h.page().source().file(),
                    h.element(),
                    h.width(),
                    next < widths.size() ? widths.get(next) - 1 : Readable.TO,
                    decided.computeIfAbsent(h.asked(), a -> Readable.answer(a, readable.outcome(a)))));
        }
        return told;
    }
}

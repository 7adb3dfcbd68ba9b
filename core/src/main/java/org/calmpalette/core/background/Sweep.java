package org.calmpalette.core.background;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.function.IntFunction;
import org.calmpalette.core.background.Sight.State;

/**
 * What every window width shows of a picture. Windows have widths in whole pixels, and each of them is answered: nothing is
 * sampled.
 *
 * @param sights by window width; a width without one is not known
 */
public record Sweep(SortedMap<Integer, Sight> sights) {
    /** The widths that promises are made for, in CSS px. */
    public static final int FROM = 320;

    public static final int TO = 2560;

    /** @param sight at a window width; empty where it is not known */
    public static Sweep of(int from, int to, IntFunction<Optional<Sight>> sight) {
        SortedMap<Integer, Sight> all = new TreeMap<>();
        for (int width = from; width <= to; width++) {
            Optional<Sight> s = sight.apply(width);
            if (s.isPresent()) {
                all.put(width, s.get());
            }
        }
        return new Sweep(all);
    }

    /** Widths that lie together, from the first to the last of them, and what they have in common. */
    public record Run<T>(int from, int to, T what) {
        public int count() {
            return to - from + 1;
        }
    }

    /** Widths that show the subject in the same way, in order; empty if none is marked. */
    public List<Run<State>> subject() {
        return runs(s -> s.state().orElse(null));
    }

    /** Widths that have the same answer, in order. @param question whose answer may be null, for widths that do not count */
    public <T> List<Run<T>> runs(java.util.function.Function<Sight, T> question) {
        List<Run<T>> runs = new ArrayList<>();
        sights.forEach((width, sight) -> {
            T what = question.apply(sight);
            Run<T> last = runs.isEmpty() ? null : runs.get(runs.size() - 1);
            if (what == null) {
                return;
            }
            if (last != null && last.to() == width - 1 && last.what().equals(what)) {
                runs.set(runs.size() - 1, new Run<>(last.from(), width, what));
            } else {
                runs.add(new Run<>(width, width, what));
            }
        });
        return runs;
    }

    /** How many widths show the subject in one of these ways. */
    public long count(State... states) {
        return sights.values().stream()
                .filter(s -> s.state().filter(List.of(states)::contains).isPresent())
                .count();
    }

    /** The most that the picture is drawn larger than it is, over all widths; 0 if it is never drawn. */
    public double largestScale() {
        return sights.values().stream()
                .filter(s -> s.shown().width() > 0)
                .mapToDouble(s -> Math.max(s.placement().scaleX(), s.placement().scaleY()))
                .max()
                .orElse(0);
    }
}

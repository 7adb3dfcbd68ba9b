package org.calmpalette.core.promise;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Predicate;
import org.calmpalette.core.Budget;
import org.calmpalette.core.change.Change;
import org.calmpalette.core.setting.ColorKind;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.theme.Theme;

/**
 * For each setting with which a text can become hard to read, the widest limits that keep all texts: one setting after the other, each
 * tried on top of the ones before, so that a pair is limited once and not from both sides. A colour is limited whatever else is chosen,
 * other kinds as all else is made.
 */
public final class WidestLimits {
    /**
     * The limits of one setting.
     *
     * @param today what may be chosen now, in words
     */
    public record Limit(String key, String label, String today, Mend way) {}

    /**
     * @param left labels of settings that still can make a text hard to read: as made, or whatever they are
     * @param change all of the limits at once; null if there are none
     */
    public record Proposal(List<Limit> limits, List<String> left, Change change) {}

    private WidestLimits() {}

    /** Limits of one setting, the widest first; none where no limit of it alone keeps all, empty where it needs none. */
    private static Optional<List<Mend>> ways(SafeArea.Texts now, Setting s) {
        if (s.kind() instanceof ColorKind) {
            return Optional.of(now.around(s))
                    .filter(SafeArea::isBrokenBySomeChoice)
                    .map(SafeArea::limits);
        }
        return SafeValues.of(now, s, "", Map.of()).filter(SafeValues::matters).map(v -> v.limit().stream()
                .toList());
    }

    /**
     * @param texts of the theme
     * @param wanted of the keys of settings: whether that one is to be limited
     */
    public static Proposal of(Theme theme, SafeArea.Texts texts, Predicate<String> wanted) {
        List<Limit> limits = new ArrayList<>();
        List<String> left = new ArrayList<>();
        SafeArea.Texts now = texts;
        for (Setting s : theme.palette().settings()) {
            Budget.longStep();
            boolean may =
                    wanted.test(s.key()) && (s.shown() == null || !s.shown().isNever());
            Optional<List<Mend>> ways = may ? ways(now, now.theme().palette().known(s.key())) : Optional.empty();
            if (ways.filter(List::isEmpty).isPresent()) {
                left.add(s.label());
            } else if (ways.isPresent()) {
                Mend way = ways.get().get(0);
                limits.add(new Limit(s.key(), s.label(), s.kind().inWords(), way));
                now = now.on(way.change().applied(now.theme()));
            }
        }
        String words = "Limits that keep all texts: "
                + String.join(", ", limits.stream().map(Limit::label).toList());
        return new Proposal(
                List.copyOf(limits),
                List.copyOf(left),
                limits.isEmpty()
                        ? null
                        : Change.of(words).withPalette(theme, now.theme().palette()));
    }
}

package org.calmpalette.core.survey;

import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.UnaryOperator;
import org.calmpalette.core.background.Sight;
import org.calmpalette.core.background.Sweep;
import org.calmpalette.core.render.Backgrounds;
import org.calmpalette.core.render.PaintedPicture;
import org.calmpalette.core.setting.Band;
import org.calmpalette.core.setting.Bands;
import org.calmpalette.core.setting.Subject;

/**
 * Where a background loses what must stay in sight of its picture, as an owner is told it: by bands.
 *
 * @param bands those with a width at which it is covered or outside, from narrow to wide; true for one in which it is so at all widths
 * @param lost at how many whole window widths
 * @param better the anchor that loses it at the fewest widths; empty if none does better
 */
public record LostInBands(Map<Band, Boolean> bands, long lost, Optional<Anchor> better) {
    /**
     * Of several pictures the one that loses it at the most widths counts; empty if none does.
     *
     * @param pictures backgrounds that show the picture
     */
    public static Optional<LostInBands> of(
            Backgrounds backgrounds, List<PaintedPicture> pictures, Subject subject, Bands bands) {
        Optional<Sight.Part> part = Backgrounds.part(Optional.of(subject));
        return pictures.stream()
                .map(p -> {
                    Sweep sweep = backgrounds.sweep(p, part, UnaryOperator.identity());
                    long lost = sweep.count(Sight.State.UNDER, Sight.State.OFF);
                    return new LostInBands(
                            in(bands, sweep),
                            lost,
                            lost == 0
                                    ? Optional.empty()
                                    : Anchor.best(backgrounds, p, part).filter(a -> a.lost() < lost));
                })
                .filter(l -> l.lost() > 0)
                .max(Comparator.comparingLong(LostInBands::lost));
    }

    private static Map<Band, Boolean> in(Bands bands, Sweep sweep) {
        Map<Band, Boolean> all = new LinkedHashMap<>();
        for (Band band : bands.list()) {
            List<Sight> seen = sweep.sights().entrySet().stream()
                    .filter(e -> bands.at(e.getKey()).equals(band))
                    .map(Map.Entry::getValue)
                    .toList();
            long lost = seen.stream()
                    .filter(s -> s.state()
                            .filter(x -> x == Sight.State.UNDER || x == Sight.State.OFF)
                            .isPresent())
                    .count();
            if (lost > 0) {
                all.put(band, lost == seen.size());
            }
        }
        return all;
    }
}

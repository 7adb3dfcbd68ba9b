package org.calmpalette.core.survey;

import java.util.Locale;
import java.util.Optional;
import java.util.OptionalInt;
import org.calmpalette.core.background.Sight;
import org.calmpalette.core.background.Sight.State;
import org.calmpalette.core.background.Sweep;
import org.calmpalette.core.render.Backgrounds;
import org.calmpalette.core.render.PaintedPicture;
import org.calmpalette.core.setting.Subject;

/**
 * What must stay in sight of a picture, and does not at some window widths.
 *
 * @param from the narrowest width at which it is lost; of those from which it stays lost, if there are any
 * @param upwards whether it is lost at all widths from there on
 * @param how {@link State#UNDER} or {@link State#OFF}, at that width
 * @param lost at how many widths
 * @param better the anchor that loses it at the fewest widths; empty if none does better
 */
public record LostSubject(Subject subject, int from, boolean upwards, State how, long lost, Optional<Anchor> better) {
    /** Empty if it is not covered or outside at any width. */
    public static Optional<LostSubject> of(
            Backgrounds backgrounds, PaintedPicture picture, Subject subject, Sweep sweep) {
        long lost = sweep.count(State.UNDER, State.OFF);
        if (lost == 0) {
            return Optional.empty();
        }
        OptionalInt up = Backgrounds.upFrom(sweep, State.UNDER, State.OFF);
        int from = up.orElseGet(() -> sweep.subject().stream()
                .filter(r -> r.what() == State.UNDER || r.what() == State.OFF)
                .findFirst()
                .orElseThrow()
                .from());
        Sight there = sweep.sights().get(from);
        Optional<Sight.Part> part = Backgrounds.part(Optional.of(subject));
        return Optional.of(new LostSubject(
                subject,
                from,
                up.isPresent(),
                there.state().orElseThrow(),
                lost,
                Anchor.best(backgrounds, picture, part).filter(a -> a.lost() < lost)));
    }

    /** Where it is lost, as a sentence without its end. */
    public String words() {
        return String.format(
                Locale.ROOT,
                upwards ? "From %d px up %s %s" : "At %d px %s %s",
                from,
                subject.words(),
                how == State.UNDER ? "lies under what is over the picture" : "is out of sight");
    }
}

package org.calmpalette.core.survey;

import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import org.calmpalette.core.background.Sight;
import org.calmpalette.core.background.Sweep;
import org.calmpalette.core.render.Backgrounds;
import org.calmpalette.core.render.PaintedPicture;
import org.calmpalette.core.value.BackgroundLayer;
import org.calmpalette.core.value.ComponentValue;
import org.calmpalette.core.value.Position;

/**
 * An anchor for a picture, and how well it does.
 *
 * @param value of {@code background-position}
 * @param lost at how many window widths the subject is covered or outside
 * @param whole at how many all of it is seen
 */
public record Anchor(String value, long lost, long whole) {
    /** The nine that everybody knows, the middle first: of equals the first is taken. */
    public static final List<String> ALL = List.of(
            "center top",
            "center center",
            "center bottom",
            "left top",
            "left center",
            "left bottom",
            "right top",
            "right center",
            "right bottom");

    /** A layer with another position. */
    public static BackgroundLayer moved(BackgroundLayer layer, String value) {
        Position position = Position.read(ComponentValue.read(value)).orElse(layer.position());
        return new BackgroundLayer(
                layer.image(),
                position,
                layer.size(),
                layer.repeatX(),
                layer.repeatY(),
                layer.origin(),
                layer.clip(),
                layer.attachment());
    }

    /** The one that loses the subject at the fewest widths; of those the one that shows it whole at most, and of those the one in the middle. */
    public static Optional<Anchor> best(Backgrounds backgrounds, PaintedPicture picture, Optional<Sight.Part> subject) {
        return ALL.stream()
                .map(value -> {
                    Sweep sweep = backgrounds.sweep(picture, subject, l -> moved(l, value));
                    return new Anchor(
                            value, sweep.count(Sight.State.UNDER, Sight.State.OFF), sweep.count(Sight.State.WHOLE));
                })
                .min(Comparator.comparingLong(Anchor::lost)
                        .thenComparing(Comparator.comparingLong(Anchor::whole).reversed()));
    }
}

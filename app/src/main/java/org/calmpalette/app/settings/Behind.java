package org.calmpalette.app.settings;

import java.util.Optional;
import org.calmpalette.core.render.TextsOn;

/**
 * What is said beside a background that is tried: how well the texts on it read.
 *
 * @param known false if the page was not measured as it is laid out with that value
 * @param worst null if there is no text of which it is known
 */
public record Behind(boolean known, int texts, int unknown, TextsOn.Worst worst) {
    public static final Behind UNKNOWN = new Behind(false, 0, 0, null);

    public static Behind of(Optional<TextsOn> on) {
        return on.map(t -> new Behind(true, t.texts(), t.unknown(), t.worst().orElse(null)))
                .orElse(UNKNOWN);
    }
}

package org.calmpalette.app.settings;

import java.math.BigDecimal;
import java.util.Optional;
import java.util.function.Function;
import org.calmpalette.core.promise.LeastShade;
import org.calmpalette.core.render.TextsOn;
import org.calmpalette.core.setting.BackgroundKind;
import org.calmpalette.core.setting.Kind;
import org.calmpalette.core.setting.Value;

/**
 * What is said beside a background that is tried: how well the texts on it read.
 *
 * @param known false if the page was not measured as it is laid out with that value
 * @param worst null if there is no text of which it is known
 * @param shade the weakest shade in percent with which all that is known reads well; null where nobody asked, none is needed, or none is
 *     enough
 */
public record Behind(boolean known, int texts, int unknown, TextsOn.Worst worst, BigDecimal shade) {
    public static final Behind UNKNOWN = new Behind(false, 0, 0, null, null);

    /**
     * @param least whether the weakest shade that is enough is looked for, which takes a few times as long
     * @param seen how texts read with a value
     */
    public static Behind of(Kind kind, Value value, boolean least, Function<Value, Optional<TextsOn>> seen) {
        Optional<Value.Parts> shaded = least && kind instanceof BackgroundKind k && value instanceof Value.Parts parts
                ? LeastShade.of(k, parts, seen::apply)
                : Optional.empty();
        return seen.apply(value)
                .map(t -> new Behind(
                        true,
                        t.texts(),
                        t.unknown(),
                        t.worst().orElse(null),
                        shaded.map(p -> p.number("strength")).orElse(null)))
                .orElse(UNKNOWN);
    }
}

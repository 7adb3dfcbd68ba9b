package org.calmpalette.app.settings;

import java.math.BigDecimal;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.calmpalette.core.language.Language;
import org.calmpalette.core.promise.LeastShade;
import org.calmpalette.core.render.TextsOn;
import org.calmpalette.core.setting.BackgroundKind;
import org.calmpalette.core.setting.Kind;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.survey.Anchor;
import org.calmpalette.core.survey.LostInBands;

/**
 * What is said beside a background that is tried: how well the texts on it read.
 *
 * @param known false if the page was not measured as it is laid out with that value
 * @param worst null if there is no text of which it is known
 * @param shade the weakest shade in percent with which all that is known reads well; null where nobody asked, none is needed, or none is
 *     enough
 * @param enough of the strengths of its shade those with which all that is known reads well; null where nobody asked, or where it makes no
 *     difference that can be told
 * @param lost what was marked of its picture and is not seen; null if nothing is
 */
public record Behind(
        boolean known,
        int texts,
        int unknown,
        TextsOn.Worst worst,
        BigDecimal shade,
        LeastShade.Strengths enough,
        Lost lost) {
    public static final Behind UNKNOWN = new Behind(false, 0, 0, null, null, null, null);

    /**
     * What was marked of a picture, and is not seen.
     *
     * @param said where, as a sentence
     * @param position of the background that keeps it in sight, or at more widths than now; empty if there is none
     * @param how what that position does, for the button that takes it
     */
    public record Lost(String said, String position, String how) {
        /** In the words of owners. */
        public static Lost of(LostInBands lost) {
            return new Lost(
                    Language.say(
                            "sight.lost",
                            lost.bands().entrySet().stream()
                                    .map(e -> e.getValue()
                                            ? e.getKey().label()
                                            : Language.say(
                                                    "sight.in-part", e.getKey().label()))
                                    .collect(Collectors.joining(", "))),
                    lost.better().map(Anchor::value).orElse(""),
                    Language.say(lost.better().filter(a -> a.lost() == 0).isPresent() ? "sight.keep" : "sight.more"));
        }
    }

    public Behind with(Lost other) {
        return new Behind(known, texts, unknown, worst, shade, enough, other);
    }

    /**
     * @param least whether the shades that are enough are looked for, which takes a few times as long
     * @param seen how texts read with a value
     */
    public static Behind of(Kind kind, Value value, boolean least, Function<Value, Optional<TextsOn>> seen) {
        // The same value is looked at for each of them.
        Map<Value, Optional<TextsOn>> looked = new HashMap<>();
        Function<Value.Parts, Optional<TextsOn>> once = v -> looked.computeIfAbsent(v, seen);
        BackgroundKind shaded = least && kind instanceof BackgroundKind k ? k : null;
        Value.Parts now = shaded != null && value instanceof Value.Parts p ? p : null;
        BigDecimal shade = now == null
                ? null
                : LeastShade.of(shaded, now, once)
                        .map(p -> p.number("strength"))
                        .orElse(null);
        LeastShade.Strengths enough =
                now == null ? null : LeastShade.enough(shaded, now, once).orElse(null);
        return (now == null ? seen.apply(value) : once.apply(now))
                .map(t -> new Behind(true, t.texts(), t.unknown(), t.worst().orElse(null), shade, enough, null))
                .orElse(UNKNOWN);
    }
}

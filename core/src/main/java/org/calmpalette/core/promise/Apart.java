package org.calmpalette.core.promise;

import java.math.BigDecimal;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.calmpalette.core.cascade.ColorExpression;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.color.Contrast;
import org.calmpalette.core.setting.Band;
import org.calmpalette.core.setting.Between;
import org.calmpalette.core.setting.Chosen;
import org.calmpalette.core.setting.ColorKind;
import org.calmpalette.core.setting.Effective;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.theme.Theme;

/**
 * The promises of the maker about two colours: the contrast of the first as letters on the second, which lies on white where it lets
 * through, and their distance for every colour vision.
 */
final class Apart {
    private Apart() {}

    /** @param promise apart or distinct */
    static List<Answer> of(Theme theme, Promise promise) {
        return theme.palette().between().stream()
                .filter(b -> number(b, promise) != null)
                .map(b -> of(theme, b, promise))
                .toList();
    }

    private static BigDecimal number(Between b, Promise promise) {
        return promise == Promise.APART ? b.contrast() : b.distance();
    }

    /** Whether the distance is kept in a theme with other limits; what would break it is not looked for. */
    static boolean keepsDistance(Theme theme, Between b) {
        return asked(theme, b, Promise.DISTINCT).stream()
                .allMatch(a -> distance(theme, b, a, null).outcome().state() == Answer.State.KEPT);
    }

    private static Answer of(Theme theme, Between between, Promise promise) {
        return asked(theme, between, promise).stream()
                .map(a -> answer(theme, between, promise, a, decide(theme, between, promise, a)))
                .min(Comparator.comparing(Answer::state).thenComparingDouble(Answer::worst))
                .orElseThrow();
    }

    private static Proof.Outcome decide(Theme theme, Between b, Promise promise, Asked a) {
        if (promise == Promise.APART) {
            return new Proof(theme)
                    .decide(
                            a.letters(),
                            a.under(),
                            a.needed(),
                            a.band(),
                            chosen -> Optional.of(ratio(theme, b, chosen, a.band())));
        }
        return distance(
                        theme,
                        b,
                        a,
                        chosen -> Optional.of(pair(theme, b, chosen, a.band()).distance()))
                .outcome();
    }

    private static Distance distance(Theme theme, Between b, Asked a, Proof.Look look) {
        return new Distance(new Proof(theme), a.letters(), chosen(theme, b.other()), a.needed(), a.band(), look);
    }

    /** The question as a text would ask it: in each band, if something is made otherwise in one. */
    static List<Asked> asked(Theme theme, Between between, Promise promise) {
        List<Band> bands =
                theme.palette().settings().stream().allMatch(s -> s.bands().isEmpty())
                        ? List.of(theme.palette().bands().widest())
                        : theme.palette().bands().list();
        return bands.stream()
                .map(band -> {
                    Asked asked = new Asked(
                            null,
                            -1,
                            0,
                            band,
                            number(between, promise).doubleValue(),
                            chosen(theme, between.one()),
                            Ply.Group.of(List.of(new Ply.Letters(), new Ply.Plain(chosen(theme, between.other()))), 1),
                            "",
                            "",
                            false,
                            Perceivable.TEXT,
                            List.of());
                    asked.parts().incrementAndGet();
                    asked.bands().put(band, 0);
                    return asked;
                })
                .toList();
    }

    /** The promise that an answer answers; empty if it is not given any more. */
    static Optional<Between> find(Theme theme, Answer answer) {
        return theme.palette().between().stream()
                .filter(b -> selector(b).equals(answer.selector()))
                .findFirst();
    }

    private static String selector(Between b) {
        return b.one() + " " + b.other();
    }

    private static ColorExpression chosen(Theme theme, String key) {
        return new ColorExpression.Chosen(theme.palette().known(key).property());
    }

    static Optional<Promises.Colors> colors(Theme theme, Answer a, Map<String, Chosen> chosen) {
        return find(theme, a).map(b -> {
            Pair p = pair(theme, b, chosen, theme.palette().bands().at(Readable.TO));
            Color ground = Contrast.over(p.other, Color.WHITE);
            return new Promises.Colors(
                    Contrast.over(p.one, a.promise() == Promise.APART ? ground : Color.WHITE), ground);
        });
    }

    private static double ratio(Theme theme, Between b, Map<String, Chosen> chosen, Band band) {
        Pair p = pair(theme, b, chosen, band);
        return Contrast.ratioOver(p.one, List.of(p.other, Color.WHITE));
    }

    /** Two colours as they come out. */
    private record Pair(Color one, Color other) {
        double distance() {
            return Distance.between(one, other);
        }
    }

    private static Pair pair(Theme theme, Between b, Map<String, Chosen> chosen, Band band) {
        Effective values = Effective.of(theme.palette(), chosen, theme.media());
        return new Pair(color(theme, values, b.one(), band), color(theme, values, b.other(), band));
    }

    private static Color color(Theme theme, Effective values, String key, Band band) {
        Setting s = theme.palette().known(key);
        return ColorKind.parse(((Value.Text) values.value(s, band)).text());
    }

    private static Answer answer(Theme theme, Between b, Promise promise, Asked a, Proof.Outcome o) {
        String why = o.why();
        if (promise == Promise.DISTINCT && o.broken().isPresent()) {
            Map<String, Chosen> chosen = theme.palette().chosen(o.broken().get());
            Pair p = pair(theme, b, chosen, a.band());
            why = Distance.worst(p.one, p.other).label();
        }
        String words = theme.palette().known(b.one()).label() + " and "
                + theme.palette().known(b.other()).label();
        return new Answer(
                promise,
                "",
                -1,
                selector(b),
                words,
                0,
                "",
                false,
                Perceivable.TEXT,
                1,
                Set.of(),
                a.needed(),
                o.state(),
                o.worst(),
                o.broken(),
                why,
                null,
                null);
    }
}

package org.calmpalette.core.promise;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.concurrent.atomic.AtomicInteger;
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

/** The promises of the maker about two colours: the first as letters on the second, which lies on white where it lets through. */
final class Apart {
    private Apart() {}

    static List<Answer> of(Theme theme) {
        List<Answer> all = new ArrayList<>();
        theme.palette().between().forEach(b -> all.add(of(theme, b)));
        return all;
    }

    private static Answer of(Theme theme, Between between) {
        Answer worst = null;
        for (Readable.Asked a : asked(theme, between)) {
            Proof.Outcome o = new Proof(theme)
                    .decide(
                            a.letters(),
                            a.under(),
                            a.needed(),
                            a.band(),
                            chosen -> ratio(theme, between, chosen, a.band()));
            Answer answer = answer(theme, between, a, o);
            boolean worse = worst == null
                    || answer.state().compareTo(worst.state()) < 0
                    || answer.state() == worst.state() && answer.worst() < worst.worst();
            worst = worse ? answer : worst;
        }
        return worst;
    }

    /** The question in each band, as a text would ask it. */
    static List<Readable.Asked> asked(Theme theme, Between between) {
        return theme.palette().bands().list().stream()
                .map(band -> new Readable.Asked(
                        null,
                        -1,
                        0,
                        band,
                        between.contrast().doubleValue(),
                        chosen(theme, between.one()),
                        Ply.Group.of(List.of(new Ply.Letters(), new Ply.Plain(chosen(theme, between.other()))), 1),
                        "",
                        "",
                        false,
                        new AtomicInteger(1),
                        new TreeSet<>(),
                        List.of(),
                        Map.of(band, 0)))
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
        Band band = theme.palette().bands().at(Readable.TO);
        Effective values = Effective.of(theme.palette(), chosen, theme.media());
        return find(theme, a).map(b -> {
            Color ground = Contrast.over(color(theme, values, b.other(), band), Color.WHITE);
            return new Promises.Colors(Contrast.over(color(theme, values, b.one(), band), ground), ground);
        });
    }

    private static Optional<Double> ratio(Theme theme, Between b, Map<String, Chosen> chosen, Band band) {
        Effective values = Effective.of(theme.palette(), chosen, theme.media());
        Color ground = color(theme, values, b.other(), band);
        return Optional.of(Contrast.ratioOver(color(theme, values, b.one(), band), List.of(ground, Color.WHITE)));
    }

    private static Color color(Theme theme, Effective values, String key, Band band) {
        Setting s = theme.palette().known(key);
        return ColorKind.parse(((Value.Text) values.value(s, band)).text());
    }

    private static Answer answer(Theme theme, Between b, Readable.Asked a, Proof.Outcome o) {
        String words = theme.palette().known(b.one()).label() + " and "
                + theme.palette().known(b.other()).label();
        return new Answer(
                Promise.APART,
                "",
                -1,
                selector(b),
                words,
                0,
                "",
                false,
                1,
                Set.of(),
                a.needed(),
                o.state(),
                o.worst(),
                o.broken(),
                o.why(),
                null,
                null);
    }
}

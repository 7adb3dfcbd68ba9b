package org.calmpalette.core.promise;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.setting.ChoiceKind;
import org.calmpalette.core.setting.Chosen;
import org.calmpalette.core.setting.Effective;
import org.calmpalette.core.setting.Kind;
import org.calmpalette.core.setting.LengthKind;
import org.calmpalette.core.setting.LevelKind;
import org.calmpalette.core.setting.NumberKind;
import org.calmpalette.core.setting.PictureKind;
import org.calmpalette.core.setting.Range;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.TextKind;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.setting.YesNoKind;
import org.calmpalette.core.theme.Theme;

/**
 * One setting with another value than the one it is made with, at which the boxes of pages are worth measuring: both ends of numbers and
 * lengths that have ends, all of a short list, other pictures of the theme, as long a word and as many words as may be written.
 *
 * @param key of the setting
 */
public record Variation(String key, Value value) {
    /** Of a theme. */
    private static final int MOST = 60;
    /** Of one setting. */
    private static final int EACH = 6;

    private static final String WORD = "Frachtschifffahrtsverbindungen";
    private static final String WORDS = "All boats of the morning call at every pier on the way, ";

    /** In the order of the settings; each is allowed by itself, and none is what the setting is made with. */
    public static List<Variation> of(Theme theme) {
        Effective made = Effective.defaults(theme.palette(), theme.media());
        List<Variation> all = new ArrayList<>();
        for (Setting s : theme.palette().settings()) {
            if (s.shown() == null || !s.shown().isNever()) {
                Value now = made.value(s, theme.palette().bands().widest());
                values(theme, s.kind(), now)
                        .map(v -> normal(s.kind(), v))
                        .filter(v -> v != null && !v.equals(now))
                        .distinct()
                        .limit(EACH)
                        .map(v -> new Variation(s.key(), v))
                        .filter(v -> v.isAllowed(theme))
                        .forEach(all::add);
            }
        }
        return all.stream().limit(MOST).toList();
    }

    private static boolean hasEnds(Range r) {
        return r.lower() != null && r.upper() != null;
    }

    public Map<String, Chosen> chosen() {
        return Map.of(key, Chosen.of(value));
    }

    boolean isAllowed(Theme theme) {
        return Effective.of(theme.palette(), chosen(), theme.media()).leftOut().isEmpty();
    }

    static Value normal(Kind kind, Value v) {
        try {
            return kind.normal(v);
        } catch (BadInputException none) {
            return null;
        }
    }

    private static Stream<Value> values(Theme theme, Kind kind, Value now) {
        if (kind instanceof TextKind t) {
            String word = WORD.repeat(t.most() / WORD.length() + 1);
            String words = WORDS.repeat(t.most() / WORDS.length() + 1);
            // Nobody writes a word of ten thousand letters; a hundred do what more would do.
            return Stream.of(
                    Value.of(word.substring(0, Math.min(100, t.most()))),
                    Value.of(words.substring(0, t.most()).strip()));
        }
        if (kind instanceof ChoiceKind c) {
            return c.options().stream().map(o -> Value.of(o.key()));
        }
        if (kind instanceof YesNoKind) {
            return Stream.of(new Value.Flag(true), new Value.Flag(false));
        }
        if (kind instanceof LevelKind l) {
            return Stream.of(
                    new Value.Number(BigDecimal.valueOf(l.least())), new Value.Number(BigDecimal.valueOf(l.most())));
        }
        if (kind instanceof PictureKind) {
            return theme.pictures().stream().map(Value::of);
        }
        if (kind instanceof NumberKind n) {
            return ends(n.range()).map(Value.Number::new);
        }
        if (kind instanceof LengthKind l && !l.steps().isEmpty()) {
            return l.steps().stream().map(LengthKind.Step::length);
        }
        return kind instanceof LengthKind l
                ? l.units().entrySet().stream()
                        .flatMap(u -> ends(u.getValue()).map(n -> Value.parts("value", n, "unit", u.getKey())))
                : Stream.of();
    }

    private static Stream<BigDecimal> ends(Range r) {
        return hasEnds(r) ? Stream.of(r.upper(), r.lower()) : Stream.of();
    }
}

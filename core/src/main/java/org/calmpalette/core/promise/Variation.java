package org.calmpalette.core.promise;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.setting.BackgroundKind;
import org.calmpalette.core.setting.BorderKind;
import org.calmpalette.core.setting.ChoiceKind;
import org.calmpalette.core.setting.Chosen;
import org.calmpalette.core.setting.Effective;
import org.calmpalette.core.setting.ItemsKind;
import org.calmpalette.core.setting.Kind;
import org.calmpalette.core.setting.LengthKind;
import org.calmpalette.core.setting.LevelKind;
import org.calmpalette.core.setting.PictureKind;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.TextKind;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.setting.YesNoKind;
import org.calmpalette.core.theme.Theme;

/**
 * One setting with another value than the one it is made with, at which the boxes of pages are worth measuring: both ends of numbers,
 * lengths, spacings and widths of borders (where there is no upper one, a value that is far), all of a short list, other pictures of the
 * theme and other ways to lay one, as long a word and as many words as may be written, as many items as there may be.
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

    /** In the order of the settings; each is allowed by itself, and none is what the setting is made with in every window. */
    public static List<Variation> of(Theme theme) {
        Effective made = Effective.defaults(theme.palette(), theme.media());
        List<Variation> all = new ArrayList<>();
        for (Setting s : theme.palette().settings()) {
            if (s.shown() == null || !s.shown().isNever()) {
                Value now = made.value(s, theme.palette().bands().widest());
                boolean alike = s.bands().isEmpty();
                Stream.concat(values(theme, s.kind(), now), alike ? Stream.of() : Stream.of(now))
                        .map(v -> normal(s.kind(), v))
                        .filter(v -> v != null && !(alike && v.equals(now)))
                        .distinct()
                        .map(v -> new Variation(s.key(), v))
                        .filter(v -> v.isAllowed(theme))
                        .limit(s.kind() instanceof BackgroundKind ? EACH * 2 : EACH)
                        .forEach(all::add);
            }
        }
        return all.stream().limit(MOST).toList();
    }

    /** In every window. */
    public Map<String, Chosen> chosen(Theme theme) {
        return theme.palette().chosen(Map.of(key, value));
    }

    boolean isAllowed(Theme theme) {
        return Effective.of(theme.palette(), chosen(theme), theme.media())
                .leftOut()
                .isEmpty();
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
        if (kind instanceof LengthKind l && !l.steps().isEmpty()) {
            return l.steps().stream().map(LengthKind.Step::length);
        }
        if (kind instanceof BackgroundKind && now instanceof Value.Parts p) {
            return backgrounds(theme, p);
        }
        if (kind instanceof ItemsKind i && now instanceof Value.Many m) {
            return items(theme, i, m.items());
        }
        Scale scale = new Scale(kind, now);
        Stream<Value> ends = scale.units().entrySet().stream()
                .flatMap(u -> Stream.of(u.getValue().upper(), u.getValue().lower())
                        .map(n -> scale.with(new Scale.Point(n, u.getKey()))));
        return kind instanceof BorderKind b && b.none() ? Stream.concat(ends, Stream.of(Value.of("none"))) : ends;
    }

    /** A picture placed, sized and repeated in other ways, and other pictures; what is not the owner's to choose is refused later. */
    private static Stream<Value> backgrounds(Theme theme, Value.Parts now) {
        return Stream.of(
                        Stream.of("auto", "contain", "cover", "5%").map(v -> now.with("size", Value.of(v))),
                        Stream.of("repeat", "no-repeat").map(v -> now.with("repeat", Value.of(v))),
                        Stream.of("left top", "right bottom").map(v -> now.with("position", Value.of(v))),
                        theme.pictures().stream().map(v -> now.with("picture", Value.of(v))))
                .flatMap(v -> v);
    }

    /** As many and as few as there may be, and all of them with the longest words that their parts take. */
    private static Stream<Value> items(Theme theme, ItemsKind kind, List<Value> now) {
        List<Value> some = now.isEmpty() ? List.of(kind.item()) : now;
        List<Value> many = IntStream.range(0, kind.most())
                .mapToObj(n -> some.get(n % some.size()))
                .toList();
        List<Value> all = new ArrayList<>(List.of(new Value.Many(many)));
        // One long word first, then many: the order in which texts give them.
        for (int which = 0; which < 2; which++) {
            int nth = which;
            all.add(new Value.Many(many.stream()
                    .map(item -> longest(theme, kind, (Value.Parts) item, nth))
                    .toList()));
        }
        all.add(new Value.Many(many.subList(0, kind.least())));
        return all.stream();
    }

    private static Value longest(Theme theme, ItemsKind kind, Value.Parts item, int nth) {
        Value.Parts[] longest = {item};
        kind.parts().forEach((key, part) -> {
            if (part.kind() instanceof TextKind) {
                values(theme, part.kind(), part.initial())
                        .skip(nth)
                        .findFirst()
                        .ifPresent(v -> longest[0] = longest[0].with(key, v));
            }
        });
        return longest[0];
    }
}

package org.calmpalette.core.setting;

import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import org.calmpalette.core.BadInputException;

/**
 * The values that hold: for every setting and every band, once the defaults, an owner's choices and what follows what are
 * put together.
 *
 * <p>One rule says which of them holds: <em>a value for the band beats a value for everywhere, and of two that are alike
 * the owner's beats the maker's.</em> So it is, in this order: the owner's choice for the band, the maker's default for
 * the band, the owner's choice for everywhere, the maker's default. A default that follows another setting has, in each
 * band, what that setting has there.
 */
public final class Effective {
    /** Where a value comes from. */
    public enum Source {
        OWNER_BAND,
        MAKER_BAND,
        OWNER,
        MAKER
    }

    /** A value that is refused where it holds. */
    public record Problem(Setting setting, Band band, Value value, Source source, Refusal why) {}

    private final Palette palette;
    private final Map<String, Chosen> choices;
    private final Media media;
    private final List<LeftOut> leftOut;
    private final Map<String, Map<String, Value>> values = new HashMap<>();

    private Effective(Palette palette, Map<String, Chosen> choices, Media media, List<LeftOut> leftOut) {
        this.palette = palette;
        this.choices = choices;
        this.media = media;
        this.leftOut = leftOut;
    }

    public static Effective defaults(Palette palette, Media media) {
        return new Effective(palette, Map.of(), media, List.of());
    }

    /** With an owner's choices. What the settings do not take is left out, and listed in {@link #leftOut}. */
    public static Effective of(Palette palette, Map<String, Chosen> choices, Media media) {
        List<LeftOut> leftOut = new ArrayList<>();
        Map<String, Chosen> good = new TreeMap<>();
        palette.carried(choices).forEach((key, chosen) -> palette.setting(key)
                .ifPresentOrElse(
                        s -> {
                            Chosen kept = readable(palette, s, chosen, leftOut);
                            if (!kept.isEmpty()) {
                                good.put(s.key(), kept);
                            }
                        },
                        () -> leftOut.add(new LeftOut(key, words(chosen), new Refusal.NoSetting(key)))));
        // What one choice is judged beside may go itself, so it is judged again until nothing goes.
        boolean more = true;
        while (more) {
            more = false;
            for (Problem p : new Effective(palette, good, media, List.of()).problems()) {
                boolean owners = p.source() == Source.OWNER || p.source() == Source.OWNER_BAND;
                if (!owners || !good.containsKey(p.setting().key())) {
                    continue;
                }
                String band = p.source() == Source.OWNER_BAND ? p.band().key() : "";
                Chosen without = good.get(p.setting().key()).with(band, null);
                if (good.get(p.setting().key()).in(band) != null) {
                    leftOut.add(
                            new LeftOut(p.setting().key(), p.setting().kind().words(p.value()), p.why()));
                    more = true;
                }
                if (without.isEmpty()) {
                    good.remove(p.setting().key());
                } else {
                    good.put(p.setting().key(), without);
                }
            }
        }
        leftOut.sort(java.util.Comparator.comparing(LeftOut::key));
        return new Effective(palette, good, media, List.copyOf(leftOut));
    }

    private static String words(Chosen chosen) {
        return chosen.value() instanceof Value.Text t
                ? t.text()
                : chosen.value().json().toString();
    }

    /** The choices that are values of the setting's kind, in their one way of writing. */
    private static Chosen readable(Palette palette, Setting s, Chosen chosen, List<LeftOut> leftOut) {
        Chosen kept = new Chosen(null, Map.of());
        Map<String, Value> all = new LinkedHashMap<>(chosen.bands());
        if (chosen.everywhere() != null) {
            all.put("", chosen.everywhere());
        }
        for (Map.Entry<String, Value> e : all.entrySet()) {
            try {
                Value normal = s.kind().normal(e.getValue());
                if (!e.getKey().isEmpty()
                        && (!s.perBand() || palette.bands().band(e.getKey()).isEmpty())) {
                    leftOut.add(new LeftOut(
                            s.key(),
                            s.kind().words(normal),
                            palette.bands().band(e.getKey()).isEmpty()
                                    ? new Refusal.NoBand(e.getKey())
                                    : new Refusal.NotByBand()));
                } else {
                    kept = kept.with(e.getKey(), normal);
                }
            } catch (BadInputException wrong) {
                leftOut.add(new LeftOut(
                        s.key(), words(Chosen.of(e.getValue())), new Refusal.Unreadable(wrong.getMessage())));
            }
        }
        return kept;
    }

    public Palette palette() {
        return palette;
    }

    /** The theme's files that values may name. */
    public Media media() {
        return media;
    }

    /** What an owner chose, as far as it counts. */
    public Map<String, Chosen> choices() {
        return Collections.unmodifiableMap(choices);
    }

    /** Choices that do not count, in order of their keys. */
    public List<LeftOut> leftOut() {
        return leftOut;
    }

    public Source source(Setting s, Band band) {
        Chosen c = choices.get(s.key());
        if (c != null && c.bands().containsKey(band.key())) {
            return Source.OWNER_BAND;
        }
        if (s.bands().containsKey(band.key())) {
            return Source.MAKER_BAND;
        }
        return c != null && c.everywhere() != null ? Source.OWNER : Source.MAKER;
    }

    /** Whether a setting has in a band what another one gives it, nothing of its own being chosen. */
    public boolean follows(Setting s, Band band) {
        Source from = source(s, band);
        return (from == Source.MAKER || from == Source.MAKER_BAND) && s.givenIn(band) instanceof Given.Follows;
    }

    /** The value that a setting has in a band. */
    public Value value(Setting s, Band band) {
        Map<String, Value> inBand = values.computeIfAbsent(band.key(), k -> new HashMap<>());
        Value known = inBand.get(s.key());
        if (known == null) {
            known = find(s, band);
            inBand.put(s.key(), known);
        }
        return known;
    }

    private Value find(Setting s, Band band) {
        Source source = source(s, band);
        if (source == Source.OWNER_BAND) {
            return choices.get(s.key()).bands().get(band.key());
        }
        if (source == Source.OWNER) {
            return choices.get(s.key()).everywhere();
        }
        Given given = s.givenIn(band);
        if (given instanceof Given.Follows f) {
            Value other = value(palette.setting(f.key()).orElseThrow(), band);
            Optional<Value> second =
                    f.how().alsoReads().flatMap(palette::setting).map(o -> value(o, band));
            return f.how().of(other, second);
        }
        return given.value();
    }

    /** What a value in a band is judged against. */
    public Kind.Around around(Band band) {
        return new MediaOnly(media) {
            @Override
            public Optional<Value> value(String key) {
                return palette.setting(key).map(s -> Effective.this.value(s, band));
            }
        };
    }

    /** A theme's files without its settings. */
    public static class MediaOnly implements Kind.Around {
        private final Media media;

        public MediaOnly(Media media) {
            this.media = media;
        }

        @Override
        public Optional<Value> value(String key) {
            return Optional.empty();
        }

        @Override
        public Optional<MediaFacts> media(String path) {
            return media.facts(path);
        }

        @Override
        public List<String> files() {
            return media.paths();
        }

        @Override
        public boolean knowsFiles() {
            return media.knowsFiles();
        }

        @Override
        public boolean hasFile(String path) {
            return media.hasFile(path);
        }
    }

    /** Every value that is refused where it holds, in order of the settings and bands. */
    public List<Problem> problems() {
        List<Problem> all = new ArrayList<>();
        for (Setting s : palette.settings()) {
            for (Band band : palette.bands().list()) {
                Value v = value(s, band);
                s.kind()
                        .refusal(v, around(band))
                        .ifPresent(why -> all.add(new Problem(s, band, v, source(s, band), why)));
            }
        }
        return Collections.unmodifiableList(all);
    }

    /** Whether the owner is asked for a setting: what it depends on has one of the wanted values in any band. */
    public boolean isAsked(Setting s) {
        return s.shown() == null
                || !s.shown().isNever()
                        && palette.setting(s.shown().key())
                                .map(o -> palette.bands().list().stream()
                                        .anyMatch(b -> s.shown().is().contains(value(o, b))))
                                .orElse(true);
    }

    public String words(Setting s, Band band) {
        return s.kind().words(value(s, band));
    }
}

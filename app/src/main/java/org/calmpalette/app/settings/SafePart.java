package org.calmpalette.app.settings;

import java.math.BigDecimal;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.calmpalette.app.themes.ThemeCache;
import org.calmpalette.core.BeyondLimitException;
import org.calmpalette.core.Budget;
import org.calmpalette.core.language.Language;
import org.calmpalette.core.promise.SafeValues;
import org.calmpalette.core.setting.Band;
import org.calmpalette.core.setting.Chosen;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.Value;

/**
 * The safe part of a slider or a list as its control draws it; there for those alone that make some text hard to read.
 *
 * @param band in which it is chosen; empty for everywhere
 * @param safe of a slider, from and to, rising; empty for a list
 * @param hard what each value of a list does that is not safe, by what its field sends; empty for a slider
 * @param said about it all
 */
public record SafePart(String key, String band, List<BigDecimal[]> safe, Map<String, String> hard, String said) {
    private static final Duration TIME = Duration.ofMillis(1_500);
    private static final long CHARACTERS = 20_000_000;

    /**
     * @param now what is chosen
     * @return of the settings that matter; empty too where looking at them takes too long
     */
    public static List<SafePart> of(ThemeCache.Read read, Collection<Setting> settings, Map<String, Chosen> now) {
        List<Known> known;
        try {
            // Once for each state of a theme, within what a request may take.
            read.texts();
            known = read.derived(
                    List.of("safe", settings.stream().map(Setting::key).toList(), Map.copyOf(now)),
                    () -> Budget.within(TIME, CHARACTERS, () -> false, () -> known(read, settings, now)));
        } catch (BeyondLimitException tooLong) {
            return List.of();
        }
        // What is kept is kept for all; each reads it in words of their own.
        return known.stream()
                .map(k -> of(k, read.theme().palette().thresholds().kept()))
                .toList();
    }

    private record Known(Setting setting, String band, SafeValues values) {}

    private static List<Known> known(ThemeCache.Read read, Collection<Setting> settings, Map<String, Chosen> now) {
        List<Known> all = new ArrayList<>();
        for (Setting s : settings) {
            Stream<String> bands = s.perBand()
                    ? Stream.concat(
                            Stream.of(""),
                            read.theme().palette().bands().list().stream().map(Band::key))
                    : Stream.of("");
            bands.forEach(band -> SafeValues.of(read.texts(), s, band, now)
                    .filter(SafeValues::matters)
                    .ifPresent(v -> all.add(new Known(s, band, v))));
        }
        return all;
    }

    private static SafePart of(Known known, boolean kept) {
        Setting s = known.setting();
        Map<String, String> hard = new LinkedHashMap<>();
        if (!known.values().isRange()) {
            known.values().judged().stream()
                    .filter(j -> !j.isSafe())
                    .forEach(j -> hard.put(
                            sent(s, j.value()),
                            Language.say("area.hard", Area.named(j.hard().get(0)))));
        }
        List<SafeValues.Span> safe = known.values().safe();
        return new SafePart(
                s.key(),
                known.band(),
                safe.stream()
                        .map(p -> new BigDecimal[] {SafeValues.number(p.from()), SafeValues.number(p.to())})
                        .toList(),
                hard,
                said(known, safe, kept));
    }

    private static String said(Known known, List<SafeValues.Span> safe, boolean kept) {
        if (!known.values().isRange()) {
            return Language.say(kept ? "safe.list.kept" : "safe.list");
        }
        if (safe.isEmpty()) {
            return Language.say("safe.none");
        }
        String parts = safe.stream()
                .map(p -> p.from().equals(p.to())
                        ? known.setting().kind().words(p.from())
                        : Language.say(
                                "safe.span",
                                known.setting().kind().words(p.from()),
                                known.setting().kind().words(p.to())))
                .collect(Collectors.joining(", "));
        // What suffers most where it is not safe.
        Optional<String> first = known.values().judged().stream()
                .filter(j -> !j.isSafe())
                .findFirst()
                .map(j -> Area.named(j.hard().get(0)));
        return Language.say(kept ? "safe.range.kept" : "safe.range", parts, first.orElseThrow());
    }

    private static String sent(Setting s, Value value) {
        Map<String, String> fields = s.kind().fields(value);
        return fields.getOrDefault(".step", fields.get(""));
    }
}

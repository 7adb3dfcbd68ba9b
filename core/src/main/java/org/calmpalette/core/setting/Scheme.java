package org.calmpalette.core.setting;

import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import org.calmpalette.core.BadInputException;

/** A named set of values, ready-made for an owner. */
public record Scheme(String key, String label, Map<String, Chosen> values) {
    public Scheme {
        if (label.isBlank() || label.length() > Place.LONGEST || key.isEmpty() || key.length() > Place.LONGEST) {
            throw new BadInputException(
                    "The scheme “" + (label.length() > 40 ? label.substring(0, 40) + "…" : label)
                            + "” has a name that is " + (label.isBlank() || key.isEmpty() ? "empty." : "too long."),
                    "Use 1 to " + Place.LONGEST + " characters, such as Autumn.");
        }
        values = Collections.unmodifiableMap(new LinkedHashMap<>(values));
    }

    /**
     * Choices as they become when an owner takes this scheme. A scheme is a whole: what another one has set goes back to as made, and
     * what the owner chose on their own stays on top.
     *
     * @param choices under the keys that settings have today
     */
    public Map<String, Chosen> over(Palette palette, Map<String, Chosen> choices) {
        Map<String, Chosen> after = new TreeMap<>(own(palette, choices));
        values.forEach((key, chosen) -> {
            if (palette.setting(key).isPresent()) {
                after.putIfAbsent(key, chosen);
            }
        });
        return after;
    }

    /** What an owner chose that no scheme of the theme would set so. */
    public static Map<String, Chosen> own(Palette palette, Map<String, Chosen> choices) {
        Map<String, Chosen> own = new TreeMap<>(choices);
        own.entrySet()
                .removeIf(e -> palette.schemes().stream().anyMatch(s -> s.sets(palette, e.getKey(), e.getValue())));
        return own;
    }

    /** The scheme that is on: all that it sets holds, but for what the owner chose on their own, and no other scheme has set anything. */
    public static Optional<Scheme> on(Palette palette, Map<String, Chosen> choices) {
        Map<String, Chosen> own = own(palette, choices);
        return palette.schemes().stream()
                .filter(s -> choices.entrySet().stream()
                        .allMatch(e -> own.containsKey(e.getKey()) || s.sets(palette, e.getKey(), e.getValue())))
                .filter(s -> s.values().keySet().stream()
                        .filter(k -> palette.setting(k).isPresent())
                        .allMatch(choices::containsKey))
                .filter(s -> s.values().keySet().stream().anyMatch(k -> choices.containsKey(k) && !own.containsKey(k)))
                .max(java.util.Comparator.comparingInt(s -> s.values().size()));
    }

    /**
     * The settings that hold otherwise than with this scheme alone, in the theme's order. What follows another setting is not told
     * beside that one.
     */
    public List<Setting> departures(Effective now) {
        Effective alone = Effective.of(now.palette(), values, now.media());
        return now.palette().settings().stream()
                .filter(s -> now.palette().bands().list().stream()
                        .anyMatch(b -> !now.follows(s, b) && !alone.value(s, b).equals(now.value(s, b))))
                .toList();
    }

    private boolean sets(Palette palette, String key, Chosen chosen) {
        Chosen mine = values.get(key);
        return mine != null
                && palette.setting(key)
                        .map(s -> normal(s, mine).equals(normal(s, chosen)))
                        .orElse(false);
    }

    private static Chosen normal(Setting setting, Chosen chosen) {
        try {
            Map<String, Value> bands = new TreeMap<>();
            chosen.bands().forEach((band, v) -> bands.put(band, setting.kind().normal(v)));
            return new Chosen(
                    chosen.everywhere() == null ? null : setting.kind().normal(chosen.everywhere()), bands);
        } catch (BadInputException notOfTheKind) {
            return chosen;
        }
    }
}

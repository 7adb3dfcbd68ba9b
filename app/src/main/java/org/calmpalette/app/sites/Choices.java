package org.calmpalette.app.sites;

import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;
import org.calmpalette.app.settings.Area;
import org.calmpalette.app.themes.ThemeCache;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.BeyondLimitException;
import org.calmpalette.core.Budget;
import org.calmpalette.core.language.Language;
import org.calmpalette.core.output.ThemeBuild;
import org.calmpalette.core.promise.SafeArea;
import org.calmpalette.core.setting.Chosen;
import org.calmpalette.core.setting.Effective;
import org.calmpalette.core.setting.Given;
import org.calmpalette.core.setting.LeftOut;
import org.calmpalette.core.setting.OwnerWords;
import org.calmpalette.core.setting.Refusal;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.theme.Theme;

/** What owners choose, by key of the setting: reading it, adding to it, and why it may be refused. */
public final class Choices {
    private Choices() {}

    /** As they are written. */
    static TreeMap<String, Chosen> read(String text) {
        return new TreeMap<>(Chosen.readAll(text.getBytes(StandardCharsets.UTF_8), "choices"));
    }

    /** How many settings differ. */
    static int differences(Map<String, Chosen> a, Map<String, Chosen> b) {
        TreeMap<String, Chosen> all = new TreeMap<>(a);
        b.forEach(all::putIfAbsent);
        return (int) all.keySet().stream()
                .filter(k -> !Objects.equals(a.get(k), b.get(k)))
                .count();
    }

    /** What an edition's choices are, for the pages that they fill. */
    public static Map<String, Chosen> chosenIn(Edition edition) {
        return Chosen.readAll(edition.choices().getBytes(StandardCharsets.UTF_8), "choices");
    }

    static Value in(Map<String, Chosen> choices, String key, String band) {
        return choices.getOrDefault(key, new Chosen(null, Map.of())).in(band);
    }

    /** The choices with one more; what is as the maker made it is no choice. */
    static Map<String, Chosen> with(
            Theme theme, Map<String, Chosen> choices, Setting setting, String band, Value value) {
        if (!band.isEmpty()
                && (!setting.perBand() || theme.palette().bands().band(band).isEmpty())) {
            throw new BadInputException(
                    Language.say("draft.same-width", setting.label()), Language.say("draft.reload"));
        }
        Map<String, Chosen> after = new TreeMap<>(choices);
        Chosen now = choices.getOrDefault(setting.key(), new Chosen(null, Map.of()));
        Value normal = value == null ? null : setting.kind().normal(value);
        boolean asMade = band.isEmpty()
                && normal != null
                && setting.given() instanceof Given.Fixed f
                && f.value().equals(normal);
        Chosen next = now.with(band, asMade ? null : normal);
        if (next.isEmpty()) {
            after.remove(setting.key());
        } else {
            after.put(setting.key(), next);
        }
        return after;
    }

    /**
     * Why owners may not choose so: what {@link #refusal} tells, or a text that becomes hard to read where the maker keeps that from them.
     * The way back to what the maker made is always open, whatever it does to texts.
     *
     * @param theme in the words of the owner
     * @param read the same theme, as it was read
     */
    static Optional<String> refused(
            Theme theme, ThemeCache.Read read, Map<String, Chosen> before, Map<String, Chosen> after) {
        return refusal(theme, before, after)
                .or(() -> onlyTakenBack(before, after) ? Optional.empty() : unreadable(read, before, after));
    }

    private static boolean onlyTakenBack(Map<String, Chosen> before, Map<String, Chosen> after) {
        return after.entrySet().stream().allMatch(e -> {
            Chosen was = before.getOrDefault(e.getKey(), new Chosen(null, Map.of()));
            Chosen is = e.getValue();
            return (is.everywhere() == null || is.everywhere().equals(was.everywhere()))
                    && was.bands().entrySet().containsAll(is.bands().entrySet());
        });
    }

    /** Why choices are refused that were not refused before: a value that is not allowed, or one that breaks another. */
    static Optional<String> refusal(Theme theme, Map<String, Chosen> before, Map<String, Chosen> after) {
        List<LeftOut> known = ThemeBuild.chosen(theme, before).leftOut();
        Optional<String> left = ThemeBuild.chosen(theme, after).leftOut().stream()
                .filter(l -> !known.contains(l))
                .findFirst()
                .map(l -> said(theme, l.key(), l.value(), l.why()));
        if (left.isPresent()) {
            return left;
        }
        List<String> broken = ThemeBuild.chosen(theme, before).problems().stream()
                .map(p -> p.setting().key() + p.band().key())
                .toList();
        Effective was = ThemeBuild.chosen(theme, before);
        return ThemeBuild.chosen(theme, after).problems().stream()
                .filter(p -> !broken.contains(p.setting().key() + p.band().key()))
                .findFirst()
                .map(p -> was.value(p.setting(), p.band()).equals(p.value())
                        ? Language.say(
                                "draft.goes-not-with",
                                p.setting().label(),
                                p.setting().kind().words(p.value()),
                                p.why().said(new OwnerWords(theme.palette())))
                        : said(theme, p.setting().key(), p.setting().kind().words(p.value()), p.why()));
    }

    /**
     * Why choices are refused where the maker lets owners choose only what keeps texts readable: the first text that becomes hard to read
     * and is not so already. Empty where nothing speaks against them, or the theme is too large for it to be told.
     */
    private static Optional<String> unreadable(
            ThemeCache.Read read, Map<String, Chosen> before, Map<String, Chosen> after) {
        if (!read.theme().palette().thresholds().kept()) {
            return Optional.empty();
        }
        try {
            // Once for each state of a theme, within what a request may take: what is looked up then is quick from
            // there on.
            read.texts();
            return Budget.within(Review.TIME, Review.CHARACTERS, () -> false, () -> {
                Set<List<Object>> already = read.derived(
                        List.of("hard", Map.copyOf(before)),
                        () -> hard(read, before).stream().map(Choices::which).collect(Collectors.toSet()));
                return hard(read, after).stream()
                        .filter(m -> !already.contains(which(m)))
                        .findFirst()
                        .map(m -> Language.say("draft.unreadable", Area.named(m)));
            });
        } catch (BeyondLimitException large) {
            return Optional.empty();
        }
    }

    private static List<SafeArea.Met> hard(ThemeCache.Read read, Map<String, Chosen> choices) {
        return read.texts().hardToRead(ThemeBuild.chosen(read.theme(), choices));
    }

    private static List<Object> which(SafeArea.Met m) {
        return List.of(m.words(), m.page(), m.pseudoClass(), m.dark(), m.what(), m.width());
    }

    private static String said(Theme theme, String key, String value, Refusal why) {
        String words = why.said(new OwnerWords(theme.palette()));
        return theme.palette()
                .setting(key)
                .map(s -> Language.say("draft.would-be", s.label(), value, words))
                .orElse(words);
    }
}

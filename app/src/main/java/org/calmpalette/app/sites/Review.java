package org.calmpalette.app.sites;

import java.time.Duration;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.stream.Collectors;
import org.calmpalette.app.settings.Area;
import org.calmpalette.app.settings.Controls;
import org.calmpalette.app.themes.ThemeCache;
import org.calmpalette.core.BeyondLimitException;
import org.calmpalette.core.Budget;
import org.calmpalette.core.language.Language;
import org.calmpalette.core.output.ThemeBuild;
import org.calmpalette.core.promise.SafeArea;
import org.calmpalette.core.setting.Band;
import org.calmpalette.core.setting.Bands;
import org.calmpalette.core.setting.Chosen;
import org.calmpalette.core.setting.ColorKind;
import org.calmpalette.core.setting.Effective;
import org.calmpalette.core.setting.Given;
import org.calmpalette.core.setting.Palette;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.theme.Theme;

/**
 * What visitors would see otherwise than now: in the words of the settings, with whose change it is.
 *
 * @param yours what the owner chose
 * @param makers what the maker made otherwise since
 * @param newer whether the theme is another one than that of today
 * @param hard texts that would be hard to read, those that are not so today first
 * @param lookedAt whether that could be told: a theme may be too large for it, and goes live all the same
 */
public record Review(List<Line> yours, List<Line> makers, boolean newer, List<Hard> hard, boolean lookedAt) {
    /** Of what a request may take, so that the rest of it is left for the page. */
    static final Duration TIME = Duration.ofMillis(1_200);

    static final long CHARACTERS = 15_000_000;

    private static final int LONGEST = 80;

    /**
     * One setting.
     *
     * @param where words for the widths, such as “on phone”; empty for all
     * @param before empty where the setting is new
     * @param beforeColor for a dot, or empty
     */
    public record Line(
            String place,
            String label,
            String where,
            String before,
            String beforeColor,
            String after,
            String afterColor) {
        private Line everywhere() {
            return new Line(place, label, "", before, beforeColor, after, afterColor);
        }
    }

    /** @param words of the text, quoted, with its state; @param before whether it is so today already */
    public record Hard(String words, String page, boolean before) {}

    public boolean isEmpty() {
        return yours.isEmpty() && makers.isEmpty() && !newer;
    }

    /** What becomes otherwise, in words, setting by setting; empty where nothing a setting holds does. */
    static String changes(Theme now, Map<String, Chosen> chosenNow, Theme next, Map<String, Chosen> chosenNext) {
        Theme spoken = spoken(next);
        Effective before = ThemeBuild.chosen(spoken(now), chosenNow);
        Effective after = ThemeBuild.chosen(spoken, chosenNext);
        return spoken.palette().settings().stream()
                .flatMap(s -> lines(spoken.palette(), s, before, after).stream())
                .map(l -> Language.say("edition.changed", l.label(), l.where(), l.after()))
                .collect(Collectors.joining("; "));
    }

    /**
     * @param chosenNow what visitors see today; nothing of it chosen if nothing is live
     * @param newer whether the theme is another one than that of today
     */
    static Review of(
            ThemeCache.Read now,
            Map<String, Chosen> chosenNow,
            ThemeCache.Read next,
            Map<String, Chosen> chosenNext,
            boolean newer) {
        Palette palette = next.theme().palette().spoken();
        Effective before = ThemeBuild.chosen(spoken(now.theme()), chosenNow);
        Effective after = ThemeBuild.chosen(spoken(next.theme()), chosenNext);
        Map<String, Chosen> own = palette.carried(chosenNow);
        List<Line> yours = new ArrayList<>();
        List<Line> makers = new ArrayList<>();
        for (Setting s : palette.settings()) {
            boolean chosen = !Objects.equals(own.get(s.key()), chosenNext.get(s.key()));
            (chosen ? yours : makers).addAll(lines(palette, s, before, after));
        }
        List<Hard> hard = List.of();
        boolean lookedAt = true;
        try {
            hard = Budget.within(TIME, CHARACTERS, () -> false, () -> hard(now, before, next, after));
        } catch (BeyondLimitException large) {
            lookedAt = false;
        }
        return new Review(yours, makers, newer, hard, lookedAt);
    }

    private static Theme spoken(Theme theme) {
        return theme.with(theme.palette().spoken());
    }

    private static List<Line> lines(Palette palette, Setting s, Effective before, Effective after) {
        Setting was = before.palette().setting(s.key()).orElse(null);
        Bands bands = palette.bands();
        List<Line> all = new ArrayList<>();
        for (Band b : bands.list()) {
            boolean follows = after.source(s, b) == Effective.Source.MAKER && s.givenIn(b) instanceof Given.Follows;
            Band there = before.palette().bands().band(b.key()).orElse(b);
            boolean same = was != null && before.value(was, there).equals(after.value(s, b));
            // What follows another setting changes with it, and is told with it.
            if (!same && !follows) {
                String old = was == null ? "" : before.words(was, there);
                String words = after.words(s, b);
                boolean color = s.kind() instanceof ColorKind;
                all.add(new Line(
                        palette.placeLabel(s.place()),
                        s.label(),
                        Language.say("band.where", b.label()),
                        old.isEmpty() ? "" : cut(Controls.said(was, old)),
                        color && was != null && was.kind() instanceof ColorKind ? old : "",
                        cut(Controls.said(s, words)),
                        color ? words : ""));
            }
        }
        boolean everywhere = all.size() == bands.list().size()
                && all.stream()
                                .map(l -> List.of(l.before(), l.after()))
                                .distinct()
                                .count()
                        == 1;
        return everywhere ? List.of(all.get(0).everywhere()) : all;
    }

    private static String cut(String words) {
        return words.length() > LONGEST ? words.substring(0, LONGEST - 1) + "…" : words;
    }

    private static List<Hard> hard(ThemeCache.Read now, Effective before, ThemeCache.Read next, Effective after) {
        Set<List<String>> today = now.texts().hardToRead(before).stream()
                .map(m -> List.of(Area.named(m), m.page()))
                .collect(Collectors.toSet());
        Set<List<String>> told = new HashSet<>();
        List<Hard> all = new ArrayList<>();
        for (SafeArea.Met m : next.texts().hardToRead(after)) {
            List<String> what = List.of(Area.named(m), m.page());
            if (told.add(what)) {
                all.add(new Hard(Area.named(m), m.page(), today.contains(what)));
            }
        }
        all.sort(Comparator.comparing(Hard::before));
        return all;
    }
}

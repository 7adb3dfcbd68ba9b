package org.calmpalette.core.promise;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.Function;
import java.util.function.Supplier;
import org.calmpalette.core.Budget;
import org.calmpalette.core.Digest;
import org.calmpalette.core.output.ThemeBuild;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.page.Paths;
import org.calmpalette.core.render.Measures;
import org.calmpalette.core.setting.Band;
import org.calmpalette.core.setting.ColorKind;
import org.calmpalette.core.setting.Palette;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.ThemeSheet;

/**
 * What a state of a theme asked and how it was decided, for the next state: only what a change touches is proved again. A page asks again
 * when its markup, any stylesheet, a default, its boxes or any other file differs; a question is decided again when its page asks again or
 * when what a setting that it follows may be differs. Limits, words, waivers and most of what is promised therefore ask nothing again.
 * Answers are the same as those of a proof from the beginning.
 */
public final class Proved {
    public static final Proved NOTHING = new Proved();

    /** What a page was asked with. Compared often, and made anew each time. */
    private static final class Mark {
        private final List<Object> of;
        private final int hash;

        Mark(List<Object> of) {
            this.of = of;
            hash = of.hashCode();
        }

        @Override
        public boolean equals(Object o) {
            return this == o || o instanceof Mark m && hash == m.hash && of.equals(m.of);
        }

        @Override
        public int hashCode() {
            return hash;
        }
    }

    private final Map<Mark, Mark> marks = new HashMap<>();

    /** The mark that was there before, if it is the same: what is one need not be compared. */
    private Mark same(Mark mark) {
        return marks.getOrDefault(mark, mark);
    }

    private final Map<Object, Map<List<Object>, Asked>> asked = new HashMap<>();
    private final Map<Object, Proof.Outcome> decided = new HashMap<>();
    private final Map<Object, Answer> effective = new HashMap<>();
    private int pagesAsked;
    private int questionsDecided;

    Proved() {}

    /** How many pages this state had to look at for its texts: those that nothing was known of. */
    public int pagesAsked() {
        return pagesAsked;
    }

    /** How many questions this state had to decide. */
    public int questionsDecided() {
        return questionsDecided;
    }

    /** How a setting is known to be, or looked at now. @param before what was known @param mark of all that it depends on; null to look in any case */
    Answer effective(Proved before, Object mark, Supplier<Answer> look) {
        Answer known = before.effective.get(mark);
        Answer answer = known == null ? look.get() : known;
        if (mark != null) {
            effective.put(mark, answer);
        }
        return answer;
    }

    /** Goes on from what was known of another state of a theme, and takes up what is known of this one. */
    static final class Going {
        private final Theme theme;
        private final Proved before;
        private final Proved now;
        private final Function<Page, Map<List<Object>, Asked>> walk;
        private final Map<String, Mark> marks = new LinkedHashMap<>();
        private final Map<String, Map<List<Object>, Asked>> pages = new LinkedHashMap<>();
        private final Set<String> fresh = new TreeSet<>();
        private final Map<String, Setting> byProperty;
        private final Map<String, Set<String>> near;
        private Map<List<Object>, Asked> questions;

        /**
         * @param given all else that what a page asks depends on
         * @param walk what a page asks
         */
        Going(
                Theme theme,
                Map<String, Measures> measures,
                Proved before,
                Proved now,
                List<Object> given,
                Function<Page, Map<List<Object>, Asked>> walk) {
            this.theme = theme;
            this.before = before;
            this.now = now;
            this.walk = walk;
            byProperty = theme.palette().properties();
            near = near(theme.palette());
            Mark common = before.same(new Mark(common(theme, given)));
            now.marks.put(common, common);
            for (Page p : theme.pages()) {
                String path = p.source().file();
                Digest page = new Digest().text(path).text(p.source().text());
                if (measures.containsKey(path)) {
                    page.text(measures.get(path).mark());
                }
                marks.put(path, before.same(new Mark(List.of(common, page.end()))));
            }
        }

        /** All that its pages ask, the same of several of them once. */
        Map<List<Object>, Asked> all() {
            theme.pages().forEach(p -> {
                Map<List<Object>, Asked> known =
                        before.asked.get(marks.get(p.source().file()));
                if (known == null) {
                    ask(p);
                } else {
                    pages.put(p.source().file(), known);
                }
            });
            return merged();
        }

        private void ask(Page p) {
            now.pagesAsked++;
            fresh.add(p.source().file());
            pages.put(p.source().file(), walk.apply(p));
        }

        private Map<List<Object>, Asked> merged() {
            Map<List<Object>, Asked> all = new LinkedHashMap<>();
            theme.pages().forEach(p -> pages.get(p.source().file())
                    .forEach(
                            (key, a) -> all.computeIfAbsent(key, k -> a.alone()).add(a)));
            return all;
        }

        /** What was decided, or is now. @param decide as {@link Readable} does */
        Map<List<Object>, Proof.Outcome> decided(Function<Asked, Proof.Outcome> decide) {
            Map<List<Object>, Asked> all = all();
            // What is to be looked at where it stands has to be asked again: of what is known its place is not kept.
            Set<String> again = new LinkedHashSet<>();
            all.forEach((key, a) -> {
                if (a.isPlaced() && !before.decided.containsKey(mark(key, a))) {
                    a.pages().stream().filter(p -> !fresh.contains(p)).forEach(again::add);
                }
            });
            if (!again.isEmpty()) {
                theme.pages().stream()
                        .filter(p -> again.contains(p.source().file()))
                        .forEach(this::ask);
                all = merged();
            }
            questions = all;
            Map<List<Object>, Proof.Outcome> outcomes = new LinkedHashMap<>();
            all.forEach((key, a) -> {
                Budget.longStep();
                Object mark = mark(key, a);
                Proof.Outcome known = before.decided.get(mark);
                if (known == null) {
                    now.questionsDecided++;
                    known = decide.apply(a);
                }
                now.decided.put(mark, known);
                outcomes.put(key, known);
            });
            pages.forEach((path, found) -> {
                Map<List<Object>, Asked> kept = new LinkedHashMap<>();
                found.forEach((key, a) -> kept.put(key, a.withoutStands()));
                now.marks.put(marks.get(path), marks.get(path));
                now.asked.put(marks.get(path), kept);
            });
            return outcomes;
        }

        /** All that was asked, once it is decided. */
        Map<List<Object>, Asked> questions() {
            return questions;
        }

        /** What all pages were asked with. */
        Object marks() {
            return List.copyOf(marks.values());
        }

        /** What an outcome depends on: the question, the pages that ask it, and what all that it follows may be. */
        private Object mark(List<Object> key, Asked a) {
            List<Object> all = new ArrayList<>(key);
            a.pages().forEach(p -> all.add(marks.get(p)));
            all.add(a.element());
            all.add(a.width());
            all.add(a.band());
            around(a.properties()).forEach(s -> all.add(limits(s)));
            return all;
        }

        /** Settings that are read, those that these follow, and those that demand a contrast of one of them or of which they demand one. */
        private List<Setting> around(Set<String> properties) {
            Set<String> keys = new LinkedHashSet<>();
            List<String> open = new ArrayList<>();
            properties.forEach(p -> open.add(byProperty.get(p).key()));
            while (!open.isEmpty()) {
                String key = open.remove(open.size() - 1);
                if (keys.add(key)) {
                    open.addAll(near.getOrDefault(key, Set.of()));
                }
            }
            return theme.palette().settings().stream()
                    .filter(s -> keys.contains(s.key()))
                    .toList();
        }

        /** What each setting follows, and with which it has to keep a contrast, whichever of the two demands it. */
        private static Map<String, Set<String>> near(Palette palette) {
            Map<String, Set<String>> all = new HashMap<>();
            for (Setting s : palette.settings()) {
                Set<String> its = all.computeIfAbsent(s.key(), k -> new LinkedHashSet<>());
                s.following().forEach(f -> {
                    its.add(f.key());
                    f.how().alsoReads().ifPresent(its::add);
                });
                if (s.kind() instanceof ColorKind c) {
                    c.contrasts().stream()
                            .map(ColorKind.Needed::with)
                            .filter(k -> palette.setting(k).isPresent())
                            .forEach(k -> {
                                its.add(k);
                                all.computeIfAbsent(k, x -> new LinkedHashSet<>())
                                        .add(s.key());
                            });
                }
            }
            return all;
        }

        private static Object limits(Setting s) {
            return Arrays.asList(s.key(), s.kind(), s.given(), s.bands(), s.perBand(), s.shown());
        }

        /** All that is the same for every page. Of the limits of colours it counts only whether they hide what is behind them. */
        private static List<Object> common(Theme theme, List<Object> given) {
            List<Object> all = new ArrayList<>(given);
            Map<String, Object> others = new LinkedHashMap<>();
            for (String path : theme.files().paths()) {
                if (!path.equals(Palette.FILE) && !Paths.isPage(path) && !Theme.isGenerated(path)) {
                    others.put(path, theme.files().mark(path));
                }
            }
            all.add(others);
            // The same bytes are read otherwise where a page says that they are.
            Digest sheets = new Digest();
            theme.sheets().stream()
                    .filter(s -> !Paths.isPage(s.path()))
                    .map(ThemeSheet::file)
                    .forEach(f -> sheets.text(f.file()).text(f.text()));
            all.add(sheets.end());
            all.add(theme.aside());
            all.add(ThemeBuild.settingsCss(theme));
            all.add(ThemeBuild.paletteCss(theme, Map.of()));
            all.add(theme.palette().bands());
            all.add(theme.palette().thresholds().level());
            List<Band> bands = theme.palette().bands().list();
            for (Setting s : theme.palette().settings()) {
                Object kind = s.kind() instanceof ColorKind
                        ? bands.stream()
                                .map(b -> Domain.of(s, b).isOpaqueWhenChosen())
                                .toList()
                        : s.kind();
                all.add(Arrays.asList(
                        s.key(), kind, s.triple(), s.given(), s.bands(), s.perBand(), s.shown(), s.drawings()));
            }
            return all;
        }
    }
}

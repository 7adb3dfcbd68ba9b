package org.calmpalette.app.themes;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.lang.ref.SoftReference;
import java.time.Duration;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.SortedMap;
import java.util.TreeSet;
import java.util.concurrent.CancellationException;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.FutureTask;
import java.util.function.Function;
import java.util.function.Supplier;
import org.calmpalette.app.storage.ContentStore;
import org.calmpalette.app.storage.TreeFiles;
import org.calmpalette.app.web.Courtesy;
import org.calmpalette.app.work.Job;
import org.calmpalette.core.BeyondLimitException;
import org.calmpalette.core.Budget;
import org.calmpalette.core.background.Sweep;
import org.calmpalette.core.change.SheetRole;
import org.calmpalette.core.language.Language;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.part.Landmarks;
import org.calmpalette.core.part.PartIndex;
import org.calmpalette.core.promise.SafeArea;
import org.calmpalette.core.promise.Variation;
import org.calmpalette.core.render.Breakpoint;
import org.calmpalette.core.render.Gallery;
import org.calmpalette.core.render.LayoutKey;
import org.calmpalette.core.render.Measures;
import org.calmpalette.core.render.PaintedPicture;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.setting.Palette;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.survey.BackgroundFindings;
import org.calmpalette.core.survey.Finding;
import org.calmpalette.core.survey.Survey;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.ThemeSheet;
import org.calmpalette.core.usage.ColorUsage;
import org.calmpalette.core.usage.Painted;
import org.calmpalette.core.usage.Readers;
import org.springframework.stereotype.Component;

/**
 * Themes that were read lately, by the hash of their tree. A tree never changes, so nothing here can be out of date; it
 * spares reading the same stylesheets for every request. What is kept is bounded by its weight in memory, not by how many
 * there are, and the garbage collector may take it all.
 */
@Component
public class ThemeCache {
    /** Bytes of memory, as {@link #weight} estimates them. */
    private static final long MOST = 150_000_000;
    /** Processor time for reading a theme; what its limits let through takes a second. */
    private static final Duration READING = Duration.ofSeconds(10);

    /** Processor time for the backgrounds of one page. */
    private static final Duration PAINTED = Duration.ofMillis(250);

    /** A theme with what was found out about it, each when first asked for. */
    public static final class Read {
        private static final int MOST_DERIVED = 400;
        private static final int MOST_TURNS = 80;
        private static final int MOST_VARIATIONS = 120;

        private final Theme theme;
        private final Rendered rendered;
        private volatile Survey survey;
        private volatile Job<Survey> job;
        private ColorUsage.Result colors;
        private Map<String, SheetRole> roles;
        private Readers readers;
        private PartIndex parts;
        private Map<String, Integer> paints;
        private Gallery gallery;
        private LayoutKey.Keys layoutKeys;
        private volatile Map<Variation, Map<String, String>> varied;
        private final Promised.Check promises = new Promised.Check();
        private final Map<Object, SoftReference<Object>> derived = new LinkedHashMap<>(16, 0.75f, true) {
            @Override
            protected boolean removeEldestEntry(Map.Entry<Object, SoftReference<Object>> eldest) {
                return size() > MOST_DERIVED;
            }
        };
        private final Map<String, Measures> measures = new ConcurrentHashMap<>();
        private Job<?> looking;
        private volatile Set<String> lookedBehind = Set.of();
        private volatile List<Finding> behind = List.of();

        private final Courtesy courtesy;

        Read(Theme theme, Courtesy courtesy) {
            this.theme = theme;
            this.courtesy = courtesy;
            this.rendered = new Rendered(theme);
        }

        public Theme theme() {
            return theme;
        }

        public Rendered rendered() {
            return rendered;
        }

        public synchronized ColorUsage.Result colors() {
            if (colors == null) {
                colors = ColorUsage.of(theme);
            }
            return colors;
        }

        public synchronized Map<String, SheetRole> roles() {
            if (roles == null) {
                roles = SheetRole.of(theme);
            }
            return roles;
        }

        public synchronized Readers readers() {
            if (readers == null) {
                readers = Readers.of(theme);
            }
            return readers;
        }

        public synchronized PartIndex parts() {
            if (parts == null) {
                parts = new PartIndex(theme.pages());
            }
            return parts;
        }

        /** What is found with other values of settings, of those with which boxes were measured. */
        public Map<Variation, List<Finding>> foundVaried() {
            return promises.varied();
        }

        Promised.Check promises() {
            return promises;
        }

        /** What can be told of the colours of all texts, whatever is chosen. */
        public SafeArea.Texts texts() {
            return derived("texts", () -> SafeArea.Texts.of(theme));
        }

        public synchronized Gallery gallery() {
            if (gallery == null) {
                gallery = new Gallery(theme);
            }
            return gallery;
        }

        /** Pictures of the theme that a page shows as backgrounds; empty where looking for them takes too long. */
        public Optional<List<PaintedPicture>> painted(Page page) {
            return derived(List.of("painted", page.source().file()), () -> {
                try {
                    return Optional.of(Budget.within(PAINTED, () -> PaintedPicture.of(rendered, page)));
                } catch (BeyondLimitException tooLong) {
                    return Optional.empty();
                }
            });
        }

        /** Widths at which a browser that measures has to look, whatever it finds: where media queries turn. As JSON. */
        public String turns() {
            return derived("turns", () -> Breakpoint.of(theme).stream()
                    .map(b -> (int) (b.from() ? Math.ceil(b.width()) : Math.floor(b.width()) + 1))
                    .filter(w -> w > Sweep.FROM && w <= Sweep.TO)
                    .distinct()
                    .limit(MOST_TURNS)
                    .toList()
                    .toString());
        }

        /** Something worked out from this theme that takes long and never changes; the latest few are kept. */
        @SuppressWarnings("unchecked")
        public <T> T derived(Object key, Supplier<T> work) {
            SoftReference<Object> known;
            synchronized (derived) {
                known = derived.get(key);
            }
            Object value = known == null ? null : known.get();
            if (value == null) {
                // It is kept for all who read it, whatever they speak.
                value = Language.in(Language.english(), work);
                synchronized (derived) {
                    derived.put(key, new SoftReference<>(value));
                }
            }
            return (T) value;
        }

        private List<Variation> variations;

        /** The theme with other values, at which boxes are worth measuring; more may come, and none goes. */
        public synchronized List<Variation> variations() {
            if (variations == null) {
                variations = Variation.of(theme);
            }
            return variations;
        }

        /** Takes up further ones. */
        synchronized void vary(List<Variation> more) {
            List<Variation> all = new ArrayList<>(variations());
            more.stream()
                    .filter(v -> !all.contains(v))
                    .limit(Math.max(0, MOST_VARIATIONS - all.size()))
                    .forEach(all::add);
            variations = List.copyOf(all);
        }

        /**
         * What lays out pages with each variation, by path: those pages alone that lie otherwise than as they are made. Takes a moment for
         * each variation, since all stylesheets are read for it.
         */
        Map<Variation, Map<String, String>> varied() {
            List<Variation> wanted = variations();
            if (varied == null || varied.size() < wanted.size()) {
                Map<Variation, Map<String, String>> all = new LinkedHashMap<>(varied == null ? Map.of() : varied);
                for (Variation v : wanted) {
                    if (all.containsKey(v)) {
                        continue;
                    }
                    Budget.longStep();
                    LayoutKey.Keys keys = new LayoutKey.Keys(new Rendered(theme, v.chosen(theme)));
                    Map<String, String> moved = new LinkedHashMap<>();
                    for (Page page : theme.pages()) {
                        String key = keys.of(page);
                        if (!key.equals(layoutKeys().of(page))) {
                            moved.put(page.source().file(), key);
                        }
                    }
                    all.put(v, moved);
                }
                varied = all;
            }
            return varied;
        }

        /** The same as far as somebody has asked for it; empty before. */
        Map<Variation, Map<String, String>> variedIfKnown() {
            return varied == null ? Map.of() : varied;
        }

        synchronized LayoutKey.Keys layoutKeys() {
            if (layoutKeys == null) {
                layoutKeys = new LayoutKey.Keys(rendered);
            }
            return layoutKeys;
        }

        /** What is known here of measured pages, by path. */
        Map<String, Measures> measures() {
            return Map.copyOf(measures);
        }

        Measures keep(String page, Measures measured) {
            measures.put(page, measured);
            return measured;
        }

        /** Looks at what lies behind the texts of measured pages, unless these were looked at already. */
        void lookBehind(Map<String, Measures> measured) {
            if (!lookedBehind.equals(measured.keySet())) {
                behind = BackgroundFindings.of(rendered, gallery(), measured);
                lookedBehind = Set.copyOf(measured.keySet());
            }
        }

        /** What was found behind the pages that were looked at. */
        List<Finding> behind() {
            return behind;
        }

        /** How many parts of all pages each setting may paint, by key; counted when first asked for. */
        public synchronized Map<String, Integer> paints(Function<Setting, List<Painted>> painted) {
            if (paints == null) {
                Map<String, Integer> counts = new HashMap<>();
                for (Setting s : theme.palette().settings()) {
                    List<Painted> parts = painted.apply(s);
                    counts.put(
                            s.key(),
                            theme.pages().stream()
                                    .mapToInt(p -> Landmarks.count(parts, p))
                                    .sum());
                }
                paints = counts;
            }
            return paints;
        }

        /** Makes the survey, as the work of a job. */
        Survey survey(Job<Survey> making) {
            Survey found = Survey.of(rendered, colors(), making::at, () -> {
                making.goesOn();
                return false;
            });
            survey = found;
            return found;
        }

        /** The survey if it is there, or will be within a moment. */
        public Optional<Survey> surveyWithin(Duration patience) {
            Job<Survey> making = job;
            if (survey == null && making != null && !patience.isZero()) {
                courtesy.waiting(() -> making.await(patience));
            }
            return Optional.ofNullable(survey);
        }

        /** The job that makes the survey: what goes on or has ended, unless it was stopped; then another. */
        synchronized Optional<Job<Survey>> newJob(Supplier<Job<Survey>> start) {
            if (survey != null || job != null && !job.isStopping()) {
                return Optional.empty();
            }
            job = start.get();
            return Optional.of(job);
        }

        /**
         * The job that looks behind texts: another where the one before was stopped.
         *
         * @param again whether another is needed after one that has begun
         */
        synchronized Optional<Job<?>> newLook(boolean again, Supplier<Job<?>> start) {
            boolean enough =
                    looking != null && !looking.isStopping() && (!again || looking.state() == Job.State.WAITING);
            if (enough) {
                return Optional.empty();
            }
            looking = start.get();
            return Optional.of(looking);
        }

        /** Whether a survey is being made. */
        boolean isBeingSurveyed() {
            Job<Survey> making = job;
            return making != null && !making.hasEnded();
        }

        /** Why there will be no survey, or empty. */
        public String failure() {
            return job == null
                    ? ""
                    : job.failure()
                            .map(f -> "The theme could not be surveyed. " + f.getMessage() + " " + f.mend())
                            .orElse("");
        }

        /** How far a survey in the background is. */
        public Job.Progress progress() {
            return job == null ? new Job.Progress(0, 1, "") : job.progress();
        }
    }

    private final ContentStore store;
    private final Courtesy courtesy;
    private final Map<String, FutureTask<Read>> reading = new ConcurrentHashMap<>();
    private final Recent<Read> read = new Recent<>(MOST);
    /** What was read last of each name; it goes when nothing else holds it. */
    private final Cache<String, Read> latest =
            Caffeine.newBuilder().weakValues().maximumSize(200).build();

    ThemeCache(ContentStore store, Courtesy courtesy) {
        this.store = store;
        this.courtesy = courtesy;
    }

    /** Reads the theme anew when it is asked for next. */
    void forget(String treeHash, String name) {
        read.remove(key(store.tree(treeHash), name));
    }

    /** A theme that does not say its name has that of whoever brought it in, so it is not the same one for everybody. */
    private static String key(TreeFiles files, String name) {
        return files.has(Palette.FILE) ? files.treeHash() : files.treeHash() + "|" + name;
    }

    /** @param name the theme's name where its palette.json gives none */
    public Read get(String treeHash, String name) {
        return get(store.tree(treeHash), name);
    }

    /** A theme with files beside it that are not its own. */
    Read get(String treeHash, SortedMap<String, TreeFiles.Entry> more, String name) {
        return get(store.joined(store.tree(treeHash), more), name);
    }

    private Read get(TreeFiles files, String name) {
        String key = key(files, name);
        Read known = read.get(key);
        return known != null ? known : readNow(key, files, name);
    }

    /** Of several who ask for one theme at once one reads, the others wait for it; nobody waits for another theme. */
    private Read readNow(String key, TreeFiles files, String name) {
        FutureTask<Read> mine = new FutureTask<>(() -> {
            Read made = new Read(Budget.within(READING, () -> theme(files, name)), courtesy);
            latest.put(name, made);
            read.put(key, made, weight(made.theme()));
            return made;
        });
        FutureTask<Read> first = reading.putIfAbsent(key, mine);
        try {
            if (first == null) {
                mine.run();
                return mine.get();
            }
            return first.get();
        } catch (ExecutionException e) {
            if (first != null && e.getCause() instanceof CancellationException) {
                // Who read it for all has gone.
                return get(files, name);
            }
            throw e.getCause() instanceof RuntimeException r ? r : new IllegalStateException(e.getCause());
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IllegalStateException("stopped while a theme was read", e);
        } finally {
            reading.remove(key, mine);
        }
    }

    /** Of a theme that was read as it was before a change, only what differs is read. */
    private Theme theme(TreeFiles files, String name) {
        Read before = latest.getIfPresent(name);
        if (before == null
                || !(before.theme().files() instanceof TreeFiles then)
                || then.has(Palette.FILE) != files.has(Palette.FILE)) {
            return Theme.read(files, name);
        }
        Set<String> touched = new TreeSet<>(files.entries().keySet());
        touched.addAll(then.entries().keySet());
        touched.removeIf(
                path -> Objects.equals(files.entries().get(path), then.entries().get(path)));
        return before.theme().with(files, touched);
    }

    /** What a theme takes with all that is found out about it, roughly, as measured on frameworks and their specimen pages. */
    private static long weight(Theme theme) {
        long weight = 200_000;
        for (ThemeSheet part : theme.sheets()) {
            weight += 12L * part.sheet().source().size() + 2_000L * part.sheet().selectors();
        }
        for (var page : theme.pages()) {
            weight += 4L * page.source().size() + 600L * page.elements().size();
        }
        return weight;
    }
}

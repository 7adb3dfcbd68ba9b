package org.calmpalette.app.pictures;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.SortedMap;
import java.util.TreeMap;
import org.calmpalette.app.storage.ContentStore;
import org.calmpalette.app.themes.OpenTheme;
import org.calmpalette.app.work.Job;
import org.calmpalette.app.work.Jobs;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.color.Tint;
import org.calmpalette.core.picture.Lighter;
import org.calmpalette.core.picture.PictureEdit;
import org.springframework.stereotype.Component;

/**
 * Writes all pictures of a theme anew, in the background, lighter or in other colours, and tells what each would weigh. Nothing of the
 * theme changes until the maker keeps some of them. One such work of each sort for each theme; what came of it is forgotten after
 * half an hour.
 */
@Component
class AllPictures {
    /** Processor time. */
    private static final Duration LONGEST = Duration.ofMinutes(5);
    /** What saves less is not worth a change: a tenth, and a kilobyte. */
    private static final double LEAST_SHARE = 0.1;

    private static final long LEAST_BYTES = 1_000;

    private final Jobs jobs;
    private final ContentStore store;
    private final Cache<Key, Asked> asked = Caffeine.newBuilder()
            .maximumSize(500)
            .expireAfterAccess(Duration.ofMinutes(30))
            .build();

    AllPictures(Jobs jobs, ContentStore store) {
        this.jobs = jobs;
        this.store = store;
    }

    private record Key(long theme, Sort sort) {}

    /** What is done to them. */
    enum Sort {
        LIGHTER,
        RECOLORED
    }

    /** How each picture is written anew. */
    interface How {
        Sort sort();

        boolean takes(String path);

        /** @throws BadInputException if this one cannot be read */
        byte[] of(String path, byte[] before);

        /** Whether what came out is worth a change. */
        boolean counts(byte[] before, byte[] after);
    }

    /** Smaller and more compressed. */
    record Lightening(int width, int quality) implements How {
        Lightening {
            Lighter.check(width, quality);
        }

        @Override
        public Sort sort() {
            return Sort.LIGHTER;
        }

        @Override
        public boolean takes(String path) {
            return Lighter.writes(path);
        }

        @Override
        public byte[] of(String path, byte[] before) {
            return Lighter.of(path, before, width, quality);
        }

        @Override
        public boolean counts(byte[] before, byte[] after) {
            long saved = before.length - after.length;
            return saved >= LEAST_BYTES && saved >= before.length * LEAST_SHARE;
        }
    }

    /** In other colours. */
    record Recoloring(Tint tint) implements How {
        @Override
        public Sort sort() {
            return Sort.RECOLORED;
        }

        @Override
        public boolean takes(String path) {
            return Lighter.recolors(path);
        }

        @Override
        public byte[] of(String path, byte[] before) {
            return Lighter.edited(path, before, new PictureEdit.Recolored(tint));
        }

        @Override
        public boolean counts(byte[] before, byte[] after) {
            return !java.util.Arrays.equals(before, after);
        }
    }

    /**
     * One picture written anew.
     *
     * @param hash of the new content
     */
    record Light(String path, long before, long after, String hash) {
        public String now() {
            return PicturesController.weight(before);
        }

        public String then() {
            return PicturesController.weight(after);
        }

        public int saved() {
            return (int) Math.round(100.0 * (before - after) / before);
        }
    }

    /**
     * @param lighter those that change, by what they save, the most first
     * @param as how many stay as they are: as they should be already, or in a format that is not written here
     * @param unread paths that could not be read, with the reason
     */
    record Result(List<Light> lighter, int as, List<String> unread) {
        public String now() {
            return PicturesController.weight(
                    lighter.stream().mapToLong(Light::before).sum());
        }

        public String then() {
            return PicturesController.weight(
                    lighter.stream().mapToLong(Light::after).sum());
        }
    }

    /**
     * What somebody asked for.
     *
     * @param snapshot of which the pictures are
     * @param ended whether it had when somebody looked: what came of it is there then, whatever is asked of it first. A work that goes on
     *     may end while a page about it is put together
     */
    record Asked(long snapshot, How how, Job<Result> job, boolean ended) {}

    /** Starts anew; what was asked for before and goes on is stopped. */
    void start(OpenTheme open, How how) {
        stop(open.id(), how.sort());
        Job<Result> job = jobs.start(Jobs.Lane.PICTURES, LONGEST, j -> all(open, how, j));
        asked.put(new Key(open.id(), how.sort()), new Asked(open.head().id(), how, job, false));
    }

    void stop(long theme, Sort sort) {
        Optional.ofNullable(asked.getIfPresent(new Key(theme, sort)))
                .ifPresent(a -> a.job().stop());
    }

    void forget(long theme, Sort sort) {
        stop(theme, sort);
        asked.invalidate(new Key(theme, sort));
    }

    /** Empty if nobody asked, or the theme has moved on since. */
    Optional<Asked> asked(OpenTheme open, Sort sort) {
        return Optional.ofNullable(asked.getIfPresent(new Key(open.id(), sort)))
                .filter(a -> a.snapshot() == open.head().id())
                .map(a -> new Asked(a.snapshot(), a.how(), a.job(), a.job().hasEnded()));
    }

    private Result all(OpenTheme open, How how, Job<Result> job) {
        List<String> pictures = open.theme().pictures().stream().sorted().toList();
        List<Light> lighter = new ArrayList<>();
        List<String> unread = new ArrayList<>();
        int as = 0;
        for (int i = 0; i < pictures.size(); i++) {
            String path = pictures.get(i);
            job.at(i, pictures.size(), path);
            if (!how.takes(path)) {
                as++;
                continue;
            }
            byte[] before = open.theme().files().read(path);
            try {
                byte[] light = how.of(path, before);
                if (how.counts(before, light)) {
                    lighter.add(new Light(path, before.length, light.length, store.keep(light)));
                } else {
                    as++;
                }
            } catch (BadInputException e) {
                unread.add(path + ": " + e.getMessage());
            }
        }
        lighter.sort(java.util.Comparator.comparingLong((Light l) -> l.after() - l.before()));
        return new Result(lighter, as, unread);
    }

    /** The contents of those that were chosen. @throws BadInputException if they are not there any more */
    SortedMap<String, byte[]> chosen(OpenTheme open, Sort sort, List<String> paths) {
        Result result = asked(open, sort)
                .flatMap(a -> a.job().result())
                .orElseThrow(() -> new BadInputException(
                        "The theme has changed since, or it is too long ago.", "Have the pictures written anew."));
        SortedMap<String, byte[]> all = new TreeMap<>();
        result.lighter().stream()
                .filter(l -> paths.contains(l.path()))
                .forEach(l -> all.put(l.path(), store.read(l.hash())));
        return all;
    }
}

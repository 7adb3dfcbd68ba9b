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
import org.calmpalette.core.picture.Lighter;
import org.springframework.stereotype.Component;

/**
 * Writes all pictures of a theme anew, in the background, and tells what each would weigh. Nothing of the theme changes until the
 * maker keeps some of them. One such work for each theme; what came of it is forgotten after half an hour.
 */
@Component
class AllLighter {
    /** Processor time. */
    private static final Duration LONGEST = Duration.ofMinutes(5);
    /** What saves less is not worth a change: a tenth, and a kilobyte. */
    private static final double LEAST_SHARE = 0.1;

    private static final long LEAST_BYTES = 1_000;

    private final Jobs jobs;
    private final ContentStore store;
    private final Cache<Long, Asked> asked = Caffeine.newBuilder()
            .maximumSize(500)
            .expireAfterAccess(Duration.ofMinutes(30))
            .build();

    AllLighter(Jobs jobs, ContentStore store) {
        this.jobs = jobs;
        this.store = store;
    }

    /**
     * One picture written anew.
     *
     * @param hash of the lighter content
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
     * @param lighter those that get lighter by enough, the most first
     * @param as how many stay as they are: light enough already, or in a format that is not written here
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

    /** What somebody asked for. @param snapshot of which the pictures are */
    record Asked(long snapshot, int width, int quality, Job<Result> job) {}

    /** Starts anew; what was asked for before and goes on is stopped. */
    void start(OpenTheme open, int width, int quality) {
        Lighter.check(width, quality);
        stop(open.id());
        Job<Result> job = jobs.start(Jobs.Lane.PICTURES, LONGEST, j -> all(open, width, quality, j));
        asked.put(open.id(), new Asked(open.head().id(), width, quality, job));
    }

    void stop(long theme) {
        Optional.ofNullable(asked.getIfPresent(theme)).ifPresent(a -> a.job().stop());
    }

    void forget(long theme) {
        stop(theme);
        asked.invalidate(theme);
    }

    /** Empty if nobody asked, or the theme has moved on since. */
    Optional<Asked> asked(OpenTheme open) {
        return Optional.ofNullable(asked.getIfPresent(open.id()))
                .filter(a -> a.snapshot() == open.head().id());
    }

    private Result all(OpenTheme open, int width, int quality, Job<Result> job) {
        List<String> pictures = open.theme().pictures().stream().sorted().toList();
        List<Light> lighter = new ArrayList<>();
        List<String> unread = new ArrayList<>();
        int as = 0;
        for (int i = 0; i < pictures.size(); i++) {
            String path = pictures.get(i);
            job.at(i, pictures.size(), path);
            if (!Lighter.writes(path)) {
                as++;
                continue;
            }
            byte[] before = open.theme().files().read(path);
            try {
                byte[] light = Lighter.of(path, before, width, quality);
                long saved = before.length - light.length;
                if (saved >= LEAST_BYTES && saved >= before.length * LEAST_SHARE) {
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
    SortedMap<String, byte[]> chosen(OpenTheme open, List<String> paths) {
        Result result = asked(open)
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

package org.calmpalette.app.themes;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.time.Duration;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import org.calmpalette.app.work.Job;
import org.calmpalette.app.work.Jobs;
import org.calmpalette.core.promise.Answer;
import org.calmpalette.core.promise.Promises;
import org.calmpalette.core.promise.Proved;
import org.calmpalette.core.promise.Variation;
import org.calmpalette.core.survey.Finding;
import org.springframework.stereotype.Component;

/**
 * What themes promise, worked out in the background. A theme whose promises somebody has looked at is checked again by itself after each of
 * its changes; of the others nobody wants to know.
 */
@Component
class Promised {
    /** Processor time; a theme of 200 settings and 500 parts takes seconds. */
    private static final Duration LONGEST = Duration.ofMinutes(3);
    /** Themes of which it is known how each of their questions was decided. */
    private static final int MOST_PROVED = 20;
    /** Themes that are checked by themselves. */
    private static final int MOST = 200;

    private static final Duration MOMENT = Duration.ofMillis(200);

    private final Jobs jobs;
    private final Set<Long> watched = Collections.synchronizedSet(Collections.newSetFromMap(new LinkedHashMap<>() {
        @Override
        protected boolean removeEldestEntry(Map.Entry<Long, Boolean> eldest) {
            return size() > MOST;
        }
    }));

    private final Map<Long, Job<List<Answer>>> newest = new ConcurrentHashMap<>();
    /**
     * What was proved last of themes, so that of the next state only what a change touches is proved. It holds on to the pages that asked, and
     * is let go where the heap is short: then the next proof starts from the beginning.
     */
    private final Cache<Long, Proved> proved =
            Caffeine.newBuilder().softValues().maximumSize(MOST_PROVED).build();

    Promised(Jobs jobs) {
        this.jobs = jobs;
    }

    /** The promises of one state of a theme. */
    static final class Check {
        private volatile List<Answer> answers;
        private volatile Map<Variation, List<Finding>> varied = Map.of();
        private volatile Set<String> measured = Set.of();
        /** What was measured when the answers were found. */
        private volatile Set<String> told = Set.of();

        private volatile Job<List<Answer>> job;

        /** Names what was measured when the answers were found. */
        int told() {
            return told.hashCode();
        }

        /** What is known; empty while nothing is. */
        Optional<List<Answer>> answers() {
            return Optional.ofNullable(answers);
        }

        /** What was found with other values of settings. */
        Map<Variation, List<Finding>> varied() {
            return varied;
        }

        Optional<Job<List<Answer>>> job() {
            return Optional.ofNullable(job);
        }
    }

    void watch(long themeId) {
        watched.add(themeId);
    }

    /** Checks a theme that is watched, unless that has been done with what was measured of its pages. */
    void make(long themeId, ThemeCache.Read read, Boxes boxes) {
        if (!watched.contains(themeId)) {
            return;
        }
        Check check = read.promises();
        synchronized (check) {
            Set<String> pages = boxes.known();
            boolean asked = check.job != null && check.measured.equals(pages);
            boolean lost = asked && check.job.isStopping() && check.job.state() != Job.State.DONE;
            if (asked && !lost) {
                return;
            }
            if (check.job != null && !check.job.hasEnded()) {
                check.job.stop();
            }
            check.measured = Set.copyOf(pages);
            Job<List<Answer>> job = jobs.start(Jobs.Lane.PROMISES, LONGEST, doing -> {
                // What is known from here on is news.
                read.varied();
                Set<String> now = boxes.known();
                check.measured = now;
                Proved before = proved.getIfPresent(themeId);
                List<Finding> findings = findings(read, doing);
                Promises.Checked checked = Promises.of(
                        read.theme(),
                        before == null ? Proved.NOTHING : before,
                        boxes.asMade(),
                        boxes.varied(),
                        findings,
                        doing::at);
                read.vary(checked.closer(read.theme(), read.variations(), findings));
                if (watched.contains(themeId)) {
                    proved.put(themeId, checked.proved());
                }
                check.told = now;
                check.varied = checked.varied();
                check.answers = checked.answers();
                return checked.answers();
            });
            check.job = job;
            // Of a state that is no longer the theme's nobody wants to know.
            Job<List<Answer>> before = newest.put(themeId, job);
            if (before != null && !before.hasEnded()) {
                before.stop();
            }
        }
    }

    /** Those of the survey, which is made at the same time; none if there will be none. */
    private static List<Finding> findings(ThemeCache.Read read, Job<?> job) {
        while (read.surveyWithin(MOMENT).isEmpty() && read.isBeingSurveyed()) {
            job.goesOn();
        }
        return read.surveyWithin(Duration.ZERO)
                .map(s -> s.with(read.behind()).findings())
                .orElse(List.of());
    }

    /** Stops what is done for a theme that is no more. */
    void forget(long themeId) {
        watched.remove(themeId);
        proved.invalidate(themeId);
        Job<List<Answer>> last = newest.remove(themeId);
        if (last != null) {
            last.stop();
        }
    }

    /** Forgets a check that failed, so that it is made again. */
    void again(ThemeCache.Read read) {
        Check check = read.promises();
        synchronized (check) {
            check.job = null;
        }
    }
}

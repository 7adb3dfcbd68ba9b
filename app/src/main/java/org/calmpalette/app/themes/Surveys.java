package org.calmpalette.app.themes;

import java.time.Duration;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Supplier;
import org.calmpalette.app.work.Job;
import org.calmpalette.app.work.Jobs;
import org.calmpalette.core.render.Measures;
import org.springframework.stereotype.Component;

/**
 * Has surveys made in the background, one for each theme. When a theme has moved on, the survey of its earlier state is stopped:
 * nobody will look at it; so is looking behind its texts. A survey that failed is not made again by itself.
 */
@Component
class Surveys {
    /** Processor time; a survey shares its own out among pages and questions, and ends far below. */
    private static final Duration LONGEST = Duration.ofMinutes(10);
    /** Processor time for what lies behind the texts of all pages. */
    private static final Duration LOOKING_BEHIND = Duration.ofSeconds(60);

    private final Jobs jobs;
    /** What is done for the latest state of each theme. */
    private final Map<Long, List<Job<?>>> newest = new HashMap<>();

    Surveys(Jobs jobs) {
        this.jobs = jobs;
    }

    /**
     * Has a theme's survey made, unless it is made, being made or has failed, and then what lies behind its texts looked at. Nobody waits here
     * for another theme: a state that is being read keeps its own lock.
     *
     * @param measured asked when the survey is made: what was measured of the pages
     */
    void make(long themeId, ThemeCache.Read read, Supplier<Map<String, Measures>> measured) {
        List<Job<?>> mine = new ArrayList<>();
        read.newJob(() -> jobs.start(Jobs.Lane.SURVEYS, LONGEST, read::survey)).ifPresent(mine::add);
        read.newLook(false, () -> look(read, measured)).ifPresent(mine::add);
        if (!mine.isEmpty()) {
            stop(changed(themeId, mine));
        }
    }

    /** Looks behind the texts of pages that were measured since; once for all that are measured until it begins. */
    void lookBehind(long themeId, ThemeCache.Read read, Supplier<Map<String, Measures>> measured) {
        read.newLook(true, () -> look(read, measured)).ifPresent(look -> {
            synchronized (newest) {
                newest.computeIfAbsent(themeId, id -> new ArrayList<>()).add(look);
            }
        });
    }

    /** Stops what is done for a theme that is no more. */
    void forget(long themeId) {
        stop(changed(themeId, List.of()));
    }

    private Job<?> look(ThemeCache.Read read, Supplier<Map<String, Measures>> measured) {
        return jobs.<Void>start(Jobs.Lane.SURVEYS, LOOKING_BEHIND, job -> {
            // Of a survey that was stopped or failed nobody wants more.
            if (read.surveyWithin(Duration.ZERO).isPresent()) {
                read.lookBehind(measured.get());
            }
            return null;
        });
    }

    /** @return what was done for the theme before */
    private List<Job<?>> changed(long themeId, List<Job<?>> mine) {
        synchronized (newest) {
            // What has ended would keep states of themes in memory.
            newest.values().removeIf(all -> all.stream().allMatch(Job::hasEnded));
            List<Job<?>> before = newest.remove(themeId);
            if (!mine.isEmpty()) {
                newest.put(themeId, mine);
            }
            return before == null ? List.of() : before;
        }
    }

    private static void stop(List<Job<?>> jobs) {
        jobs.stream().filter(j -> !j.hasEnded()).forEach(Job::stop);
    }
}

package org.calmpalette.app.themes;

import java.time.Duration;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Supplier;
import org.calmpalette.app.work.Job;
import org.calmpalette.app.work.Jobs;
import org.calmpalette.core.render.Measures;
import org.calmpalette.core.survey.Survey;
import org.springframework.stereotype.Component;

/**
 * Has surveys made in the background, one for each theme. When a theme has moved on, the survey of its earlier state is stopped:
 * nobody will look at it. A survey that failed is not made again by itself.
 */
@Component
class Surveys {
    /** Processor time; a survey shares its own out among pages and questions, and ends far below. */
    private static final Duration LONGEST = Duration.ofMinutes(10);
    /** Processor time for what lies behind the texts of all pages. */
    private static final Duration LOOKING_BEHIND = Duration.ofSeconds(60);

    private final Jobs jobs;
    private final Map<Long, Job<Survey>> newest = new ConcurrentHashMap<>();

    Surveys(Jobs jobs) {
        this.jobs = jobs;
    }

    /**
     * Has a theme's survey made, unless it is made, being made or has failed.
     *
     * @param measured asked when the survey is made: what was measured of the pages
     */
    void make(long themeId, ThemeCache.Read read, Supplier<Map<String, Measures>> measured) {
        read.newJob(() -> jobs.start(Jobs.Lane.SURVEYS, LONGEST, read::survey)).ifPresent(job -> {
            Job<Survey> before = newest.put(themeId, job);
            if (before != null) {
                before.stop();
            }
            lookBehind(read, () -> {
                newest.remove(themeId, job);
                // Of a survey that was stopped or failed nobody wants more.
                return job.result().isPresent() ? measured.get() : Map.of();
            });
        });
    }

    /** Looks behind the texts of pages that were measured since. */
    Job<ThemeCache.Read> lookBehind(ThemeCache.Read read, Supplier<Map<String, Measures>> measured) {
        return jobs.start(Jobs.Lane.SURVEYS, LOOKING_BEHIND, job -> {
            read.lookBehind(measured.get());
            return read;
        });
    }
}

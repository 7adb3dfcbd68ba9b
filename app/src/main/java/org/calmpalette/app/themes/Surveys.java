package org.calmpalette.app.themes;

import java.time.Duration;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Supplier;
import java.util.stream.Stream;
import org.calmpalette.app.work.Job;
import org.calmpalette.app.work.Jobs;
import org.calmpalette.core.render.Measures;
import org.calmpalette.core.survey.Survey;
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
     * Has a theme's survey made, unless it is made, being made or has failed, and then what lies behind its texts looked at.
     *
     * @param measured asked when the survey is made: what was measured of the pages
     */
    synchronized void make(long themeId, ThemeCache.Read read, Supplier<Map<String, Measures>> measured) {
        Optional<Job<Survey>> survey = read.newJob(() -> jobs.start(Jobs.Lane.SURVEYS, LONGEST, read::survey));
        Optional<Job<?>> look = read.newLook(false, () -> look(themeId, read, measured));
        List<Job<?>> mine = new ArrayList<>();
        survey.ifPresent(mine::add);
        look.ifPresent(mine::add);
        if (!mine.isEmpty()) {
            stop(newest.put(themeId, mine));
        }
    }

    /** Looks behind the texts of pages that were measured since; once for all that are measured until it begins. */
    synchronized void lookBehind(long themeId, ThemeCache.Read read, Supplier<Map<String, Measures>> measured) {
        read.newLook(true, () -> look(themeId, read, measured))
                .ifPresent(look -> newest.merge(themeId, List.of(look), (a, b) -> Stream.concat(a.stream(), b.stream())
                        .toList()));
    }

    /** Stops what is done for a theme that is no more. */
    synchronized void forget(long themeId) {
        stop(newest.remove(themeId));
    }

    private Job<?> look(long themeId, ThemeCache.Read read, Supplier<Map<String, Measures>> measured) {
        return jobs.<Void>start(Jobs.Lane.SURVEYS, LOOKING_BEHIND, job -> {
            // Of a survey that was stopped or failed nobody wants more.
            if (read.surveyWithin(Duration.ZERO).isPresent()) {
                read.lookBehind(measured.get());
            }
            over(themeId, job);
            return null;
        });
    }

    /** What is done holds no state of a theme in memory. */
    private synchronized void over(long themeId, Job<?> look) {
        newest.computeIfPresent(themeId, (id, all) -> {
            List<Job<?>> left =
                    all.stream().filter(j -> j != look && !j.hasEnded()).toList();
            return left.isEmpty() ? null : left;
        });
    }

    private static void stop(List<Job<?>> jobs) {
        if (jobs != null) {
            jobs.stream().filter(j -> !j.hasEnded()).forEach(Job::stop);
        }
    }
}

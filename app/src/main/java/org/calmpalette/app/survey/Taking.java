package org.calmpalette.app.survey;

import java.time.Duration;
import java.util.concurrent.atomic.AtomicReference;
import org.calmpalette.app.themes.OpenTheme;
import org.calmpalette.app.themes.Snapshot;
import org.calmpalette.app.web.Courtesy;
import org.calmpalette.app.web.StaleException;
import org.calmpalette.app.work.Job;
import org.calmpalette.core.BadInputException;

/** A part that is being taken: many settings are made one after the other, and one snapshot comes of it, or none. */
final class Taking {
    private final OpenTheme before;
    private final String page;
    private final Job<Snapshot> job;
    private final AtomicReference<StaleException> stale;
    private final Courtesy courtesy;

    Taking(OpenTheme before, String page, Job<Snapshot> job, AtomicReference<StaleException> stale, Courtesy courtesy) {
        this.before = before;
        this.page = page;
        this.job = job;
        this.stale = stale;
        this.courtesy = courtesy;
    }

    OpenTheme before() {
        return before;
    }

    String page() {
        return page;
    }

    boolean endsWithin(Duration patience) {
        courtesy.waiting(() -> job.await(patience));
        return job.hasEnded();
    }

    boolean isDone() {
        return job.state() == Job.State.DONE;
    }

    boolean isStopped() {
        return job.state() == Job.State.STOPPED && stale.get() == null;
    }

    Job.Progress progress() {
        return job.progress();
    }

    /** Why nothing was taken; empty if that is not so. */
    String failure() {
        return stale.get() != null
                ? stale.get().getMessage() + " Nothing was taken; take the part once more."
                : job.failure().map(f -> f.getMessage() + " " + f.mend()).orElse("");
    }

    void stop() {
        job.stop();
    }

    /** What came of it. @throws RuntimeException the reason, if nothing did */
    Snapshot made() {
        if (stale.get() != null) {
            throw stale.get();
        }
        job.failure().ifPresent(f -> {
            throw f;
        });
        return job.result().orElseThrow(() -> new BadInputException("It was stopped.", "Nothing was changed."));
    }
}

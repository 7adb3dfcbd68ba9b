package org.calmpalette.app.survey;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.time.Duration;
import java.util.Optional;
import java.util.concurrent.CancellationException;
import java.util.concurrent.atomic.AtomicReference;
import org.calmpalette.app.accounts.SignedIn;
import org.calmpalette.app.themes.OpenTheme;
import org.calmpalette.app.themes.Snapshot;
import org.calmpalette.app.web.Courtesy;
import org.calmpalette.app.web.StaleException;
import org.calmpalette.app.work.Job;
import org.calmpalette.app.work.Jobs;
import org.springframework.stereotype.Component;

/** Parts that are being taken in the background, the latest of each person in each theme. */
@Component
class Takings {
    /** Processor time. */
    private static final Duration LONGEST = Duration.ofMinutes(2);

    private final Jobs jobs;
    private final Courtesy courtesy;
    private final Cache<Key, Taking> latest = Caffeine.newBuilder()
            .maximumSize(500)
            .expireAfterAccess(Duration.ofMinutes(30))
            .build();

    Takings(Jobs jobs, Courtesy courtesy) {
        this.jobs = jobs;
        this.courtesy = courtesy;
    }

    private record Key(long theme, long account) {}

    /** Starts one; what goes on already in that theme is stopped. */
    Taking start(OpenTheme before, SignedIn me, String page, Job.Work<Snapshot> work) {
        of(before.id(), me).ifPresent(Taking::stop);
        AtomicReference<StaleException> stale = new AtomicReference<>();
        Job<Snapshot> job = jobs.start(Jobs.Lane.CHANGES, LONGEST, j -> {
            try {
                return work.of(j);
            } catch (StaleException e) {
                // Somebody else was faster; that is told as everywhere else, and is no fault.
                stale.set(e);
                throw new CancellationException();
            }
        });
        Taking taking = new Taking(before, page, job, stale, courtesy);
        latest.put(new Key(before.id(), me.id()), taking);
        return taking;
    }

    Optional<Taking> of(long theme, SignedIn me) {
        return Optional.ofNullable(latest.getIfPresent(new Key(theme, me.id())));
    }

    void forget(Taking taking, SignedIn me) {
        latest.asMap().remove(new Key(taking.before().id(), me.id()), taking);
    }
}

package org.calmpalette.app.work;

import jakarta.annotation.PreDestroy;
import java.time.Duration;
import java.util.EnumMap;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import org.calmpalette.app.web.Courtesy;
import org.calmpalette.core.Budget;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.scheduling.concurrent.ThreadPoolTaskExecutor;
import org.springframework.stereotype.Component;

/** Long works in the background, in lanes that do not wait for each other. All of them give way to pages. */
@Component
public class Jobs {
    private static final Logger LOG = LoggerFactory.getLogger(Jobs.class);

    /** What is worked on side by side. */
    public enum Lane {
        /** One at a time: a survey uses both cores. */
        SURVEYS(1),
        /** Two: more would only make each other wait. */
        IMPORTS(2),
        /** One: a large picture takes much of the memory. */
        PICTURES(1),
        /** One: what is changed is worked out on both cores. */
        CHANGES(1),
        /** One: nobody waits for promises but the one who looks at them. */
        PROMISES(1);

        private final int atOnce;

        Lane(int atOnce) {
            this.atOnce = atOnce;
        }
    }

    private final Courtesy courtesy;
    private final Map<Lane, ThreadPoolTaskExecutor> lanes = new EnumMap<>(Lane.class);
    private final Set<Job<?>> open = ConcurrentHashMap.newKeySet();

    public Jobs(Courtesy courtesy) {
        this.courtesy = courtesy;
        for (Lane lane : Lane.values()) {
            ThreadPoolTaskExecutor executor = new ThreadPoolTaskExecutor();
            executor.setCorePoolSize(lane.atOnce);
            executor.setMaxPoolSize(lane.atOnce);
            executor.setThreadNamePrefix(lane.name().toLowerCase(java.util.Locale.ROOT) + "-");
            executor.setDaemon(true);
            executor.initialize();
            lanes.put(lane, executor);
        }
    }

    /** Stops everything; what is half-done changes nothing. */
    @PreDestroy
    public void stop() {
        open.forEach(Job::stop);
        lanes.values().forEach(ThreadPoolTaskExecutor::shutdown);
    }

    /**
     * Has something done as soon as its lane is free.
     *
     * @param longest processor time that it may take
     */
    public <T> Job<T> start(Lane lane, Duration longest, Job.Work<T> work) {
        Job<T> job = new Job<>();
        open.add(job);
        lanes.get(lane).execute(() -> {
            try (Courtesy.LongWork giving = courtesy.background()) {
                job.run(
                        j -> Budget.within(
                                longest,
                                Long.MAX_VALUE,
                                () -> {
                                    giving.giveWay();
                                    return j.isStopping();
                                },
                                () -> work.of(j)),
                        giving::giveWay);
            } catch (RuntimeException | LinkageError | StackOverflowError e) {
                LOG.error("a work in the background failed", e);
            } finally {
                open.remove(job);
            }
        });
        return job;
    }
}

package org.calmpalette.app.storage;

import java.util.concurrent.TimeUnit;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;

/** Clears away contents that nothing uses any more, now and then. */
@Component
class ContentSweep {
    private static final Logger LOG = LoggerFactory.getLogger(ContentSweep.class);
    /** No import and no change takes longer from the first content to the snapshot. */
    private static final int MINUTES = 120;

    private final ContentStore store;

    ContentSweep(ContentStore store) {
        this.store = store;
    }

    @Scheduled(initialDelay = 30, fixedDelay = 360, timeUnit = TimeUnit.MINUTES)
    void sweep() {
        int gone = store.sweep(MINUTES);
        if (gone > 0) {
            LOG.info("{} contents that nothing used are gone", gone);
        }
    }
}

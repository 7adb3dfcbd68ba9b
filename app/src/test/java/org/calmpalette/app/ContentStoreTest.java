package org.calmpalette.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import org.calmpalette.app.storage.ContentStore;
import org.junit.jupiter.api.Test;

class ContentStoreTest {
    private static final int AT_ONCE = 6;
    private static final int EACH = 80;

    private final ContentStore store = Running.get().bean(ContentStore.class);

    /** Themes that are brought in at the same time keep files that nobody had, side by side in the table, and some of them are the same. */
    @Test
    void manyKeepTheirContentsAtOnce() throws Exception {
        long unlike = System.nanoTime();
        List<Callable<Integer>> keepers = new ArrayList<>();
        for (int k = 0; k < AT_ONCE; k++) {
            int who = k;
            keepers.add(() -> {
                int kept = 0;
                for (int i = 0; i < EACH; i++) {
                    byte[] bytes =
                            ((i % 4 == 0 ? "all " : who + " ") + i + " " + unlike).getBytes(StandardCharsets.UTF_8);
                    kept += store.read(store.keep(bytes)).length == bytes.length ? 1 : 0;
                }
                return kept;
            });
        }
        ExecutorService all = Executors.newFixedThreadPool(AT_ONCE);
        try {
            for (Future<Integer> keeper : all.invokeAll(keepers)) {
                assertThat(keeper.get()).isEqualTo(EACH);
            }
        } finally {
            all.shutdown();
        }
    }
}

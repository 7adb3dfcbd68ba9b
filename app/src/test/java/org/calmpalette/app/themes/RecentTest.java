package org.calmpalette.app.themes;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;

class RecentTest {
    @Test
    void theOldestGoFirstAndTheNewestStaysWhateverItWeighs() {
        Recent<String> recent = new Recent<>(100);
        recent.put("a", "A", 40);
        recent.put("b", "B", 40);
        assertThat(recent.get("a")).as("now b is the oldest").isEqualTo("A");
        recent.put("c", "C", 40);
        assertThat(recent.get("b")).isNull();
        assertThat(recent.get("a")).isEqualTo("A");
        recent.put("huge", "H", 1_000);
        assertThat(recent.get("huge")).isEqualTo("H");
        assertThat(recent.get("a")).isNull();
        assertThat(recent.get("c")).isNull();
        recent.put("d", "D", 60);
        assertThat(recent.get("huge")).isNull();
        recent.put("d", "D2", 50);
        recent.put("e", "E", 50);
        assertThat(recent.get("d")).as("what is put again does not count twice").isEqualTo("D2");
        recent.remove("d");
        recent.put("f", "F", 50);
        assertThat(recent.get("e")).isEqualTo("E");
    }

    @Test
    void aNewcomerIsKeptHoweverOftenOthersWereAskedFor() {
        Recent<String> recent = new Recent<>(100);
        recent.put("often", "O", 60);
        for (int i = 0; i < 1_000; i++) {
            recent.get("often");
        }
        recent.put("new", "N", 60);
        assertThat(recent.get("new")).isEqualTo("N");
    }
}

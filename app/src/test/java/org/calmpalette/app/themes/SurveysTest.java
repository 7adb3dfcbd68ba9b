package org.calmpalette.app.themes;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.calmpalette.app.web.Courtesy;
import org.calmpalette.app.work.Jobs;
import org.calmpalette.core.theme.HostileThemes;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.ThemeFiles;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;

class SurveysTest {
    private static final Duration PATIENCE = Duration.ofMinutes(2);
    private final Courtesy courtesy = new Courtesy();
    private final Jobs jobs = new Jobs(courtesy);
    private final Surveys surveys = new Surveys(jobs);

    @AfterEach
    void stop() {
        jobs.stop();
    }

    /** A theme whose survey takes some seconds. */
    private ThemeCache.Read slow() {
        return new ThemeCache.Read(
                Theme.read(
                        ThemeFiles.of(new TreeMap<>(HostileThemes.all()
                                .get("3,000 classes, all used")
                                .get())),
                        "T"),
                courtesy);
    }

    private static boolean isMade(ThemeCache.Read read) {
        return read.surveyWithin(PATIENCE).isPresent();
    }

    @Test
    void ofManyQuickEditsOnlyTheLastIsSurveyed() {
        List<ThemeCache.Read> edits = new ArrayList<>();
        for (int i = 0; i < 6; i++) {
            edits.add(slow());
        }
        edits.forEach(e -> surveys.make(7, e, Map::of));
        assertThat(isMade(edits.get(5))).isTrue();
        assertThat(edits.subList(0, 5))
                .as("surveys of states that the theme had left")
                .allMatch(e -> e.surveyWithin(Duration.ZERO).isEmpty());
        assertThat(edits.get(0).failure())
                .as("it may be made again if somebody goes back to it")
                .isEmpty();
        surveys.make(7, edits.get(0), Map::of);
        assertThat(isMade(edits.get(0))).isTrue();
    }

    @Test
    void themesDoNotStopEachOther() {
        ThemeCache.Read one = slow();
        ThemeCache.Read other = slow();
        surveys.make(1, one, Map::of);
        surveys.make(2, other, Map::of);
        surveys.make(2, other, Map::of);
        assertThat(isMade(one)).isTrue();
        assertThat(isMade(other)).isTrue();
    }
}

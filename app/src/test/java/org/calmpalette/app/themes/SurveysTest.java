package org.calmpalette.app.themes;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.Supplier;
import org.calmpalette.app.web.Courtesy;
import org.calmpalette.app.work.Jobs;
import org.calmpalette.core.render.Measures;
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

    /** What lies behind texts is looked at after the survey, once for all pages that were measured until then; again for those of later. */
    @Test
    void whatLiesBehindIsLookedAtOnceForAllPagesMeasuredSoFar() {
        ThemeCache.Read read = slow();
        AtomicInteger looks = new AtomicInteger();
        Supplier<Map<String, Measures>> measured = () -> {
            looks.incrementAndGet();
            return Map.of();
        };
        surveys.make(3, read, measured);
        for (int page = 0; page < 5; page++) {
            surveys.lookBehind(3, read, measured);
        }
        assertThat(isMade(read)).isTrue();
        untilAllIsDone();
        assertThat(looks).hasValue(1);
        surveys.make(3, read, measured);
        untilAllIsDone();
        assertThat(looks).hasValue(1);
        surveys.lookBehind(3, read, measured);
        untilAllIsDone();
        assertThat(looks).hasValue(2);
    }

    @Test
    void nothingGoesOnForAThemeThatIsNoMore() {
        ThemeCache.Read gone = slow();
        AtomicInteger looks = new AtomicInteger();
        surveys.make(4, gone, () -> {
            looks.incrementAndGet();
            return Map.of();
        });
        surveys.forget(4);
        untilAllIsDone();
        assertThat(gone.surveyWithin(Duration.ZERO)).isEmpty();
        assertThat(looks).hasValue(0);
    }

    /** The lane has one place, so what is put in now begins when all before has ended. */
    private void untilAllIsDone() {
        assertThat(jobs.<Void>start(Jobs.Lane.SURVEYS, PATIENCE, job -> null).await(PATIENCE))
                .isTrue();
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

package org.calmpalette.core.chromium;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.calmpalette.core.promise.Answer;
import org.calmpalette.core.promise.Promise;
import org.calmpalette.core.promise.Promises;
import org.calmpalette.core.promise.Proved;
import org.calmpalette.core.render.Gallery;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.survey.BackgroundFindings;
import org.calmpalette.core.survey.Finding;
import org.calmpalette.core.theme.Theme;
import org.junit.jupiter.api.Test;

/** How much of the promise that texts can be read is decided on ten pages in the markup of published sheets, by the boxes Chromium gave. */
class DecidedTest {
    @Test
    void lessThanOneTextInTwentyIsLeftOpen() {
        int all = 0;
        int open = 0;
        List<String> words = new ArrayList<>();
        for (PagePartsTest.Site site : PagePartsTest.sites()) {
            Theme theme = PagePartsTest.theme(site);
            for (Answer a : Promises.of(
                            theme,
                            Proved.NOTHING,
                            Map.of("index.html", PagePartsTest.measures(site)),
                            Map.of(),
                            List.of(),
                            (done, total, what) -> {})
                    .answers()) {
                if (a.promise() == Promise.READABLE) {
                    all++;
                    if (a.state() == Answer.State.UNPROVEN) {
                        open++;
                        words.add(site.name() + " " + a.selector() + " " + a.pseudoClass() + " " + a.width() + ": "
                                + a.inWords());
                    }
                }
            }
        }
        assertThat(all).isGreaterThan(50);
        assertThat(open).as("%s", words).isLessThan(all / 20);
    }

    /** Nor does anything of them leave its box, go on behind a header or reach beyond the window: a person sees all of it. */
    @Test
    void nothingIsSaidToBeCutOffThatIsSeen() {
        assertThat(PagePartsTest.sites()).allSatisfy(site -> assertThat(BackgroundFindings.of(
                                new Rendered(PagePartsTest.theme(site)),
                                new Gallery(PagePartsTest.theme(site)),
                                Map.of("index.html", PagePartsTest.measures(site)))
                        .stream()
                        .filter(f -> BOXES.contains(f.kind()))
                        .map(f -> site.name() + ": " + f.message()))
                .isEmpty());
    }

    private static final Set<Finding.Kind> BOXES =
            Set.of(Finding.Kind.WIDER_PAGE, Finding.Kind.CUT_TEXT, Finding.Kind.COVERED_CONTENT);
}

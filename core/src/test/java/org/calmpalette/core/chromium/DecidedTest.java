package org.calmpalette.core.chromium;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.calmpalette.core.promise.Answer;
import org.calmpalette.core.promise.Promise;
import org.calmpalette.core.promise.Promises;
import org.calmpalette.core.promise.Proved;
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
}

package org.calmpalette.core.survey;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import org.calmpalette.core.Budget;
import org.junit.jupiter.api.Test;

class ShareTest {
    private final Share share = new Share();

    private static void forEver() {
        while (true) {
            Budget.step();
        }
    }

    @Test
    void onePageThatTakesForEverLeavesTheRest() {
        List<String> looked = new ArrayList<>();
        share.page("a.html", "widths", ShareTest::forEver);
        share.page("b.html", "widths", () -> looked.add("b.html"));
        assertThat(looked).containsExactly("b.html");
        assertThat(share.isWhole()).isFalse();
        assertThat(share.beyond()).singleElement().satisfies(f -> {
            assertThat(f.file()).isEqualTo("a.html");
            assertThat(f.message())
                    .contains("Not looked at to its end, for widths")
                    .contains("800 milliseconds");
        });
    }

    @Test
    void whatComesAfterAllTimeIsUsedIsTold() {
        for (int i = 0; i < 3; i++) {
            share.question("a.css", "colours " + i, ShareTest::forEver);
        }
        List<String> looked = new ArrayList<>();
        share.question("a.css", "the last", () -> looked.add("x"));
        assertThat(looked).isEmpty();
        assertThat(share.beyond()).last().satisfies(f -> assertThat(f.message())
                .contains("Not all the last")
                .contains("took all the time there is"));
        share.page("a.html", "widths", () -> looked.add("page"));
        assertThat(looked).as("pages have a share of their own").containsExactly("page");
    }

    @Test
    void whatIsNestedTooDeepIsToldToo() {
        share.page("deep.html", "widths", () -> deep(1));
        assertThat(share.beyond()).singleElement().satisfies(f -> assertThat(f.message())
                .contains("nested too deep"));
    }

    private static int deep(int n) {
        return deep(n + 1) + 1;
    }
}

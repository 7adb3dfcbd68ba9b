package org.calmpalette.core.part;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.List;
import org.calmpalette.core.chromium.OutsideSheets;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.Themes;
import org.calmpalette.core.usage.ColorRow;
import org.calmpalette.core.usage.ColorUsage;
import org.junit.jupiter.api.Test;

class ColorsInSightTest {
    private static ColorsInSight of(Theme theme) {
        return ColorsInSight.of(ColorUsage.of(theme).rows(), new PartIndex(theme.pages()));
    }

    @Test
    void aColourCountsIfARuleGivesItToAPartOfAPageInAnyStateAndThroughAnyProperty() {
        Theme theme = Themes.of(
                "index.html",
                "<link rel=stylesheet href=a.css><p class=a><a href=b>x</a>",
                "a.css",
                """
                :root { --ink: #010101; --other: #020202; --none: #030303 }
                .a { color: var(--ink); border: 1px solid #040404 } .a a:hover { background: #050505 }
                .b { color: var(--other); background: #060606 } p::before { box-shadow: 0 0 1px #070707 } .a svg { fill: #080808 }
                @media (min-width: 9000px) { p { color: #090909 } }""");
        ColorsInSight sight = of(theme);
        assertThat(sight.onPages()).containsExactlyInAnyOrder("#010101", "#040404", "#050505", "#070707", "#090909");
        assertThat(sight.byRole(ColorUsage.of(theme).rows()))
                .extractingByKey("shadow")
                .asList()
                .extracting(r -> ((ColorRow) r).value())
                .containsExactly("#070707");
        assertThat(sight.roles())
                .containsEntry("#050505", "fill")
                .containsEntry("#040404", "line")
                .containsEntry("#010101", "text")
                .containsEntry("#080808", "icon");
    }

    /** A published sheet and a page of ours: a few of its colours come first. */
    @Test
    void ofAFrameworksColoursThePageShowsAFew() {
        Theme theme = Themes.of(
                "index.html",
                "<link rel=stylesheet href=a.css><nav class=\"navbar bg-dark\"><a class=navbar-brand href=a>A</a></nav><main class=container><h1>B</h1><a class=\"btn btn-primary\" href=b>C</a></main>",
                "a.css",
                new String(OutsideSheets.get("bootstrap 5.3.8"), StandardCharsets.UTF_8));
        List<ColorRow> rows = ColorUsage.of(theme).rows();
        assertThat(of(theme).onPages().size()).isLessThan(rows.size() / 2).isGreaterThan(8);
        assertThat(of(theme).onPages()).contains("#0d6efd", "#212529").doesNotContain("#58151c");
    }
}

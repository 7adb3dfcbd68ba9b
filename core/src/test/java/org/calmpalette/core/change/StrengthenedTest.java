package org.calmpalette.core.change;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.calmpalette.core.cascade.Because;
import org.calmpalette.core.cascade.Explanation;
import org.calmpalette.core.css.selector.SelectorList;
import org.calmpalette.core.css.selector.Specificity;
import org.calmpalette.core.css.selector.States;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.Themes;
import org.calmpalette.core.value.Viewport;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class StrengthenedTest {
    private static Explanation explain(String own, String library) {
        Theme theme = Themes.of(
                "own.css",
                own,
                "grid.css",
                library,
                "index.html",
                "<!doctype html><link rel=stylesheet href=own.css><link rel=stylesheet href=grid.css><body><p id=x class='a b'>t");
        Page page = theme.pages().get(0);
        return Explanation.of(
                new Rendered(theme)
                        .styles(page, Viewport.of(1000, 800), States.NONE)
                        .of(page.document().selectFirst("p")),
                "color");
    }

    private static List<Page> pages() {
        return Themes.of("index.html", "<!doctype html><body class=page><p id=x class='a b'>t")
                .pages();
    }

    @Test
    void aClassOfTheBodyIsNotLookedForInsideIt() {
        Explanation.Cause winner = explain("", "p { color: red }").winner();
        Explanation.Cause page = new Explanation.Cause(
                "grid.css",
                1,
                1,
                ".page",
                new Specificity(0, 1, 0),
                false,
                "",
                "color",
                "red",
                Because.DECIDES,
                0,
                winner.origin(),
                List.of());
        assertThat(Strengthened.over(SelectorList.parse(".page").orElseThrow(), page, false, pages())
                        .orElseThrow()
                        .selector())
                .isEqualTo(".page.page");
    }

    /** The raised rule, written into a sheet that comes before the framework's, has to win in the cascade itself. */
    @ParameterizedTest
    @CsvSource({
        ".a, .a, body .a",
        ".a, p.a, html body .a",
        ".a, .a.b, body .a.a",
        ".a, body .a.b, html body .a.a",
        "p, #x, #x",
        ".a, #x.b, ",
        "p, p, body p",
        "'.a, p', .b, ",
        "body .a, .a.b, body .a.a",
        "p.a::before, p, "
    })
    void theLeastThatWinsIsFound(String own, String library, String expected) {
        String rule = library + " { color: red }";
        Explanation.Cause winner = explain("", rule).winner();
        Strengthened strong = Strengthened.over(SelectorList.parse(own).orElseThrow(), winner, false, pages())
                .orElseThrow();
        if (expected != null && !expected.startsWith("#")) {
            assertThat(strong.selector()).isEqualTo(expected);
        }
        if (!own.contains("::")) {
            assertThat(explain(
                                    strong.selector() + " { color: blue" + (strong.important() ? " !important" : "")
                                            + " }",
                                    rule)
                            .winner()
                            .written())
                    .as(strong.selector())
                    .isEqualTo("blue");
            assertThat(strong.important()).as("nothing normal needs !important").isFalse();
        }
    }

    @ParameterizedTest
    @CsvSource({"p { color: red !important }, true", "@layer l { p { color: red } }, false", ".a { color: red }, false"
    })
    void importanceIsUsedOnlyAgainstImportance(String rule, boolean important) {
        Strengthened strong = Strengthened.over(
                        SelectorList.parse(".a").orElseThrow(),
                        explain("", rule).winner(),
                        false,
                        pages())
                .orElseThrow();
        assertThat(strong.important()).isEqualTo(important);
        assertThat(Strengthened.over(
                        SelectorList.parse(".a").orElseThrow(),
                        explain("", "@layer l { p { color: red !important } }").winner(),
                        true,
                        pages()))
                .isEmpty();
    }
}

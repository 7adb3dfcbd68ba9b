package org.calmpalette.core.part;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import org.calmpalette.core.cascade.Because;
import org.calmpalette.core.cascade.Fates;
import org.calmpalette.core.change.SheetRole;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.survey.Survey;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.Themes;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

/** Why a declaration is without effect, and the ways to make it win: each way is made and found to win. */
class WhyNotTest {
    private static final String LIBRARY =
            "/*! Grid 2.1 | MIT */\n.row .cell { color: #445566 }\n.cell { margin: 3px }\n";

    private static Theme theme(String own, String... order) {
        StringBuilder html = new StringBuilder("<!doctype html><head>");
        for (String sheet : order) {
            html.append("<link rel=stylesheet href=").append(sheet).append('>');
        }
        return Themes.of(
                "own.css",
                own,
                "grid.css",
                LIBRARY,
                "index.html",
                html.append("</head><body><div class=row><p class=cell>x</p></div>")
                        .toString());
    }

    private static Fates.Fate fate(Theme theme, String declaration) {
        return Survey.of(theme)
                .fates()
                .get(new Fates.Key(
                        "own.css", Themes.text(theme.files(), "own.css").indexOf(declaration)));
    }

    private static List<WhyNot> ways(Theme theme, String declaration) {
        return WhyNot.ways(new Rendered(theme), SheetRole.of(theme), fate(theme, declaration));
    }

    @Test
    void eachWayMakesItWin() {
        Theme theme = theme(".cell { color: red; margin: 1px }", "own.css", "grid.css");
        assertThat(WhyNot.sentence(fate(theme, "color")))
                .startsWith(
                        "Wins nowhere: beaten on 1 part on 1 page by .row .cell { color: #445566 } in grid.css, line 2, whose selector is more specific");
        assertThat(WhyNot.sentence(fate(theme, "margin"))).contains("which comes later");
        assertThat(ways(theme, "color")).extracting(WhyNot::id).containsExactly("specificity", "important");
        assertThat(ways(theme, "margin")).extracting(WhyNot::id).contains("order", "important");
        for (String declaration : List.of("color", "margin")) {
            for (WhyNot way : ways(theme, declaration)) {
                Theme after = way.fix().applied(theme);
                assertThat(WhyNot.sentence(fate(after, declaration)))
                        .as(way.label())
                        .startsWith("Wins wherever it applies");
            }
        }
    }

    @Test
    void whatWinsOrIsNotUnderstoodHasNoWays() {
        Theme theme = theme("p.cell { opacity: .5; colour: red } .gone { color: red }", "grid.css", "own.css");
        assertThat(ways(theme, "opacity")).isEmpty();
        assertThat(WhyNot.sentence(fate(theme, "opacity"))).isEqualTo("Wins wherever it applies: 1 part on 1 page.");
        assertThat(WhyNot.sentence(fate(theme, "colour"))).isEqualTo("Browsers do not understand it and drop it.");
        assertThat(WhyNot.sentence(fate(theme, "color: red }"))).isEqualTo("Its selector finds nothing on any page.");
    }

    @Test
    void importanceInALayerCannotBeBeatenByImportance() {
        Theme theme = Themes.of(
                "own.css",
                "@layer a { .cell { color: blue !important } } .cell { color: red }",
                "index.html",
                "<!doctype html><link rel=stylesheet href=own.css><p class=cell>x");
        Fates.Fate fate = fate(theme, "color: red");
        assertThat(WhyNot.sentence(fate)).contains("which is !important");
        assertThat(WhyNot.ways(new Rendered(theme), SheetRole.of(theme), fate)).isEmpty();
    }

    @ParameterizedTest
    @EnumSource(Because.Step.class)
    void everyStepHasWordsForBothSides(Because.Step step) {
        Because because = new Because(step, "detail");
        assertThat(StepWords.ofTheWinner(because)).isNotNull();
        assertThat(StepWords.ofTheLoser(because)).isNotNull();
        boolean compared = !Map.of(
                        Because.Step.DECIDES,
                        1,
                        Because.Step.INHERITS,
                        1,
                        Because.Step.INVALID_COMPUTED,
                        1,
                        Because.Step.CONDITION,
                        1)
                .containsKey(step);
        assertThat(StepWords.ofTheLoser(because).contains("detail")).isNotEqualTo(compared);
    }
}

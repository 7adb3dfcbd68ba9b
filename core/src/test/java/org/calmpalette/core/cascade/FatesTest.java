package org.calmpalette.core.cascade;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Map;
import org.calmpalette.core.cascade.Fates.Fate;
import org.calmpalette.core.cascade.Fates.Kind;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.Themes;
import org.junit.jupiter.api.Test;

class FatesTest {
    /** Declarations are told apart by their values. */
    private static Map<String, Fate> fates(String css, String body) {
        Theme theme = Themes.of("a.css", css, "index.html", "<!doctype html><link rel=stylesheet href=a.css>" + body);
        return Fates.of(theme.pages(), new Rendered(theme).library(), Fates.EachPage.ALL).values().stream()
                .filter(f -> f.declaration().file().equals("a.css"))
                .collect(java.util.stream.Collectors.toMap(f -> f.declaration().written(), f -> f));
    }

    @Test
    void eachDeclarationHasOneOfFiveFates() {
        Map<String, Fate> fates = fates(
                """
        p { color: red; margin: 1px }
        .a { color: green }
        #none { color: blue }
        p { colour: navy; margin-left: 2px }
        """,
                "<p class=a>x<p>y");
        assertThat(fates.get("red").kind()).isEqualTo(Kind.SOMEWHERE);
        assertThat(fates.get("red").beatenParts()).isEqualTo(1);
        assertThat(fates.get("green").kind()).isEqualTo(Kind.EVERYWHERE);
        assertThat(fates.get("blue").kind()).isEqualTo(Kind.MATCHES_NOTHING);
        assertThat(fates.get("navy").kind()).isEqualTo(Kind.NOT_UNDERSTOOD);
        assertThat(fates.get("1px").kind())
                .as("one side of four is beaten, the others are not")
                .isEqualTo(Kind.EVERYWHERE);
    }

    @Test
    void whatBeatsAlwaysIsNamedWithItsReason() {
        Map<String, Fate> fates = fates(
                """
        @layer low { p { border-top-color: cyan } }
        p { color: red; background-color: gold; border-top-color: teal; opacity: .5 }
        p.a { color: green }
        p { background-color: pink; opacity: .6 !important }
        """,
                "<p class=a>x");
        assertThat(fates.get("red").beatenBy())
                .extracting(c -> c.because().toString())
                .containsExactly("specificity");
        assertThat(fates.get("gold").beatenBy())
                .extracting(c -> c.because().toString())
                .containsExactly("order");
        assertThat(fates.get("cyan").beatenBy())
                .extracting(c -> c.because().toString())
                .containsExactly("layer");
        assertThat(fates.get(".5").beatenBy())
                .extracting(c -> c.because().toString())
                .containsExactly("importance");
        assertThat(fates.get("red").kind()).isEqualTo(Kind.NOWHERE);
    }

    @Test
    void whatShowsInSomeStateOrWindowIsNeverCalledDead() {
        Map<String, Fate> fates = fates(
                """
        p { color: red }
        p:hover { color: green }
        p:not(:focus) { color: blue }
        @media (min-width: 9000px) { p { color: navy } }
        @media (min-width: 10px) { p { background-color: gold } }
        p:checked, .a { background-color: pink }
        p::before { color: cyan }
        input:disabled { color: teal }
        """,
                "<p class=a>x<p>y<input>");
        assertThat(fates.values()).extracting(Fate::kind).doesNotContain(Kind.NOWHERE, Kind.MATCHES_NOTHING);
        Map<String, Fate> same =
                fates("@media print { p { color: red } } @media print { p { color: blue } p { color: tan } }", "<p>x");
        assertThat(same.get("blue").kind())
                .as("the same condition holds for both")
                .isEqualTo(Kind.NOWHERE);
        assertThat(fates("@media print { p { color: red } } @media screen { p { color: blue } }", "<p>x")
                        .get("red")
                        .kind())
                .isEqualTo(Kind.EVERYWHERE);
    }

    @Test
    void importanceIsNeededOnlyWhereSomethingWouldWinWithoutIt() {
        assertThat(fates("p { color: red !important }", "<p>x").get("red").importantNeeded())
                .isFalse();
        assertThat(fates("p { color: red !important } p:hover { color: blue }", "<p>x")
                        .get("red")
                        .importantNeeded())
                .isTrue();
        assertThat(fates("p { color: red !important }", "<p style='color: blue'>x")
                        .get("red")
                        .importantNeeded())
                .isTrue();
        assertThat(fates("#x { color: red !important } p { color: blue }", "<p id=x>x")
                        .get("red")
                        .importantNeeded())
                .isFalse();
    }
}

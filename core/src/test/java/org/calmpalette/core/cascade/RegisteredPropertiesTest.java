package org.calmpalette.core.cascade;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.Optional;
import org.calmpalette.core.css.selector.States;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.value.Viewport;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** CSS Properties and Values 1: what fits the syntax is computed by it, what does not is the initial or inherited value. */
class RegisteredPropertiesTest {
    private static String computed(String syntax, String initial, String value) {
        String css = "@property --x { syntax: \"" + syntax + "\"; inherits: false; initial-value: " + initial
                + " } p { font-size: 20px; --x: " + value + " }";
        Page page = Page.read(
                "index.html",
                "<!doctype html><link rel=stylesheet href=css/a.css><p>x".getBytes(StandardCharsets.UTF_8));
        return PageStyles.sheets(page, f -> Optional.of(css.getBytes(StandardCharsets.UTF_8)))
                .in(Viewport.of(1000, 500), States.NONE)
                .of(page.document().selectFirst("p"))
                .variable("--x")
                .orElse("none");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            quoteCharacter = '`',
            value = {
                "<length> ; 0px ; 2em ; 40px",
                "<length> ; 0px ; calc(1em + 10vw) ; 120px",
                "<length> ; 0px ; 50% ; 0px",
                "<length> ; 0px ; red ; 0px",
                "<percentage> ; 0% ; 12.5% ; 12.5%",
                "<percentage> ; 0% ; 1px ; 0%",
                "<length-percentage> ; 0px ; calc(50% - 1em) ; calc(50% - 20px)",
                "<number> ; 0 ; calc(2 * 3) ; 6",
                "<number> ; 0 ; 1px ; 0",
                "<integer> ; 0 ; 7 ; 7",
                "<integer> ; 0 ; 1.5 ; 0",
                "<color> ; black ; rgb(1 2 3) ; rgb(1, 2, 3)",
                "<color> ; black ; 3px ; black",
                "<angle> ; 0deg ; 0.5turn ; 0.5turn",
                "<angle> ; 0deg ; 5px ; 0deg",
                "<time> ; 0s ; 300ms ; 300ms",
                "<time> ; 0s ; 3 ; 0s",
                "<image> ; url(a.png) ; linear-gradient(red, blue) ; linear-gradient(red, blue)",
                "<string> ; 'a' ; 'b' ; 'b'",
                "<string> ; 'a' ; b ; 'a'",
                "<custom-ident> ; a ; boat ; boat",
                "<custom-ident> ; a ; 3 ; a",
                "small | big ; big ; small ; small",
                "small | big ; big ; 1px small ; big",
                "<length> | <color> ; 0px ; red ; rgb(255, 0, 0)",
                "<length>+ ; 0px ; 1px 2px ; 1px 2px",
                "<length># ; 0px ; 1px, 2px ; 1px, 2px",
                "<length>+ ; 0px ; 1px red ; 0px",
                "* ; x ; any { thing } ; any { thing }"
            })
    void valuesAreComputedByTheirSyntax(String syntax, String initial, String value, String computed) {
        assertThat(computed(syntax, initial, value)).isEqualTo(computed);
    }
}

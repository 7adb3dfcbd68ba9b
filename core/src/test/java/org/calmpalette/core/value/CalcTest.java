package org.calmpalette.core.value;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Lengths and math functions: CSS Values and Units 4, sections 6 and 10, with its worked examples where it has them. */
class CalcTest {
    /** An element of 20 px with lines of 30 px in a page of 10 px text with lines of 15 px, in a window of 1000 by 500 px. */
    private static final Lengths.Base BASE = new Lengths.Base(20, 10, Viewport.of(1000, 500), () -> 30, () -> 15);

    private static Optional<String> length(String text) {
        return Lengths.sum(ComponentValue.read(text).get(0), BASE).map(Lengths::text);
    }

    private static Optional<String> any(String text) {
        return Lengths.math(ComponentValue.read(text).get(0), BASE).map(Lengths::text);
    }

    @ParameterizedTest
    @CsvSource({
        "1px,1px",
        "2em,40px",
        "2rem,20px",
        "10vw,100px",
        "10vh,50px",
        "10vmin,50px",
        "10vmax,100px",
        "10vi,100px",
        "10vb,50px",
        "10svw,100px",
        "10dvh,50px",
        "10cqw,100px",
        "10cqmin,50px",
        "1in,96px",
        "2.54cm,96px",
        "25.4mm,96px",
        "101.6q,96px",
        "72pt,96px",
        "6pc,96px",
        "2ex,20px",
        "2ch,20px",
        "2rex,10px",
        "1cap,20px",
        "1lh,30px",
        "1rlh,15px",
        "1ric,10px",
        "0,0px",
        "50%,50%",
        "-0px,0px",
        "1e3px,1000px"
    })
    void unitsComeToPixels(String written, String px) {
        assertThat(length(written)).hasValue(px);
    }

    @ParameterizedTest
    @ValueSource(
            strings = {"1", "auto", "1deg", "1s", "red", "'1px'", "1dppx", "url(a)", "#123", "1furlong", "calc(5)"})
    void whatIsNoLengthIsNone(String written) {
        assertThat(length(written)).isEmpty();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "calc(1px + 2px * 3) | 7px",
                "calc((1px + 2px) * 3) | 9px",
                "calc(10px / 4) | 2.5px",
                "calc(100% - 2em) | calc(100% - 40px)",
                "calc(50% + 0px) | 50%",
                "calc(-1 * 5px) | -5px",
                "calc(1px - -1px) | 2px",
                "calc(2 * (3 + 4)) | 14",
                "calc(10px / 5px) | 2",
                "calc(1em / 1px) | 20",
                "calc(calc(1px) + 1px) | 2px",
                "-webkit-calc(1px + 1px) | 2px",
                "min(1px, 2em, 3px) | 1px",
                "max(1px, 2em, 3px) | 40px",
                "max(10%, 20%) | 20%",
                "clamp(10px, 5px, 20px) | 10px",
                "clamp(10px, 50px, 20px) | 20px",
                "clamp(10px, 15px, 20px) | 15px",
                "clamp(none, 50px, 20px) | 20px",
                "clamp(10px, 5px, none) | 10px",
                "clamp(30px, 15px, 20px) | 30px",
                "abs(-5px) | 5px",
                "abs(5px) | 5px",
                "sign(-5px) | -1",
                "sign(0) | 0",
                "sign(3) | 1",
                // Section 10.3: round() with each strategy, and its default.
                "round(17px, 5px) | 15px",
                "round(18px, 5px) | 20px",
                "round(up, 11px, 5px) | 15px",
                "round(down, 14px, 5px) | 10px",
                "round(to-zero, -14px, 5px) | -10px",
                "round(nearest, 12.5px, 5px) | 15px",
                "round(-12.5px, 5px) | -10px",
                "round(2.5) | 3",
                "round(25%, 10%) | 30%",
                // "mod(18px, 5px) resolves to 3px … mod(-140deg, -90deg)"; "rem(-18px, 5px) resolves to -3px,
                // mod(-18px, 5px) to 2px".
                "mod(18px, 5px) | 3px",
                "rem(18px, 5px) | 3px",
                "rem(-18px, 5px) | -3px",
                "mod(-18px, 5px) | 2px",
                "mod(18px, -5px) | -2px",
                "hypot(3px, 4px) | 5px",
                "hypot(3, 4) | 5",
                "sqrt(16) | 4",
                "pow(2, 10) | 1024",
                "exp(0) | 1",
                "log(1) | 0",
                "log(8, 2) | 3",
                "sin(0) | 0",
                "cos(0) | 1",
                "tan(0) | 0",
                "calc(pi) | 3.14159",
                "calc(e) | 2.71828",
                "calc(1 / infinity) | 0",
                "calc(-infinity * 1px) | -3.35544e+07px",
                "calc(infinity * 1%) | 3.40282e+38%",
                "calc(0 / 0) | 0"
            })
    void mathFunctionsComeToOneValue(String written, String value) {
        assertThat(any(written)).hasValue(value);
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "calc()",
                "calc(1px +2px)",
                "calc(1px + )",
                "calc(1px + 2)",
                "calc(1px * 2px)",
                "calc(1px 2px)",
                "calc(1px, 2px)",
                "calc(1px / 1%)",
                "min(1px, 10%)",
                "max(1, 1px)",
                "clamp(1px, 2px)",
                "clamp(1px, none, 2px)",
                "round(1px, 2)",
                "mod(1px, 2)",
                "mod(1px)",
                "hypot(1px, 2)",
                "sqrt(4px)",
                "pow(2px, 2)",
                "calc(red)",
                "calc(1px + auto)",
                "calc([1px])",
                "calc(foo(1px))",
                "sin(1px)",
                "asin(1)",
                "calc(1deg)",
                "min(50%, calc(10% + 1px))"
            })
    void whatHasNoTypeOrNeedsLayoutIsNotDecided(String written) {
        assertThat(any(written)).isEmpty();
    }

    @Test
    void nestingHasAnEnd() {
        assertThat(any("calc(".repeat(12) + "1px" + ")".repeat(12))).hasValue("1px");
        assertThat(any("calc(".repeat(100) + "1px" + ")".repeat(100))).isEmpty();
    }

    /** CSSOM, section 6.7.2: six significant digits of single precision. */
    @ParameterizedTest
    @CsvSource({
        "0,0",
        "1,1",
        "-0.0,0",
        "0.1,0.1",
        "1234567.89,1.23457e+06",
        "0.000001234,0.000001234",
        "33.333333333,33.3333",
        "100000,100000",
        "-12.5,-12.5",
        "999999.5,1e+06"
    })
    void numbersAreWrittenAsBrowsersDo(double number, String text) {
        assertThat(Lengths.number(number)).isEqualTo(text);
    }
}

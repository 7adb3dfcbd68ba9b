package org.calmpalette.core.setting;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.TreeMap;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.Generated;
import org.calmpalette.core.cascade.ValidityAccess;
import org.calmpalette.core.value.ComponentValue;
import org.calmpalette.core.value.Position;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What stands in a stylesheet as a setting could hold it, and as it is written again. A dash where a setting cannot hold it. */
class WrittenCssTest {
    private static String again(String kind, String css) {
        Kind plain = Kinds.plain(kind);
        Optional<Value> read = plain.readCss(css);
        return read.map(v -> plain.css(plain.normal(v), a -> a).get("")).orElse("-");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "linear-gradient(red, blue) | linear-gradient(180deg, #ff0000 0%, #0000ff 100%)",
                "linear-gradient(to right, red 10%, blue 90%) | linear-gradient(90deg, #ff0000 10%, #0000ff 90%)",
                "linear-gradient(45deg, red, lime, blue) | linear-gradient(45deg, #ff0000 0%, #00ff00 50%, #0000ff 100%)",
                "linear-gradient(45.0deg, red, blue) | linear-gradient(45deg, #ff0000 0%, #0000ff 100%)",
                "radial-gradient(red, blue) | radial-gradient(#ff0000 0%, #0000ff 100%)",
                "linear-gradient(to top left, red, blue) | -",
                "linear-gradient(red) | -",
                "linear-gradient(red 10px, blue) | -",
                "linear-gradient(red 10%, lime, blue 90%) | -",
                "linear-gradient(red, 30%, blue) | -",
                "repeating-linear-gradient(red, blue) | -",
                "linear-gradient(red, blue), url(a.png) | -",
                "linear-gradient(400deg, red, blue) | -",
                "linear-gradient(1.5deg, red, blue) | -",
                "radial-gradient(circle, red, blue) | -",
                "linear-gradient(in oklch, red, blue) | -",
                "red | -",
                "linear-gradient(red, 120%, blue) | -",
                "linear-gradient(red -10%, blue) | -"
            })
    void gradients(String css, String written) {
        assertThat(again("gradient", css)).isEqualTo(written);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "0 2px 4px #123 | 0px 2px 4px 0px #112233",
                "inset 0 1px red | inset 0px 1px 0px 0px #ff0000",
                "red 1px 2px 3px 4px | 1px 2px 3px 4px #ff0000",
                "1px 2px rgb(0 0 0 / 50%) | 1px 2px 0px 0px #00000080",
                "none | none",
                "1px red | -",
                "1px 2px 3px 4px 5px red | -",
                "1px 2px | -",
                "1px 2px red blue | -",
                "1vw 2px red | -",
                "1px 2px red, 3px 4px blue | -",
                "1px 2px currentcolor | -",
                "var(--x) | -"
            })
    void shadows(String css, String written) {
        assertThat(again("shadow", css)).isEqualTo(written);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "1px solid red | 1px solid #ff0000",
                "red dashed 2px | 2px dashed #ff0000",
                "solid #123 | 3px solid #112233",
                "none | none",
                "hidden | none",
                "0 | none",
                "1px solid | -",
                "1px solid red blue extra | -",
                "thick double red | -",
                "1px 2px solid red | -"
            })
    void borders(String css, String written) {
        assertThat(again("border", css)).isEqualTo(written);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "16px | 16px",
                "1.5rem | 1.5rem",
                "-2em | -2em",
                "0 | 0px",
                "50% | 50%",
                "+3px | 3px",
                "1e2px | -",
                "12 | -",
                "auto | -",
                "calc(1px + 2px) | -",
                "3furlongs | -",
                "0.00001px | -",
                "99999999999999999999999px | -"
            })
    void lengths(String css, String written) {
        assertThat(again("length", css)).isEqualTo(written);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "1px | 1px 1px 1px 1px",
                "1px 2px | 1px 2px 1px 2px",
                "1px 2px 3px | 1px 2px 3px 2px",
                "1px 2px 3px 4px | 1px 2px 3px 4px",
                "0 auto | -",
                "1px 2px 3px 4px 5px | -",
                "'' | -"
            })
    void spacings(String css, String written) {
        assertThat(again("spacing", css)).isEqualTo(written);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "red url(a.png) no-repeat center / cover fixed | #ff0000 a.png no-repeat center center cover fixed",
                "url(a.png) | #00000000 a.png repeat 0% 0% auto scroll",
                "#123 | #112233  repeat 0% 0% auto scroll",
                "url('b.jpg') right 0 | #00000000 b.jpg repeat right 0px auto scroll",
                "url(a.png) 10px 20px / 50% auto | #00000000 a.png repeat 10px 20px 50% auto scroll",
                "url(a), url(b) | -",
                "linear-gradient(red, blue) | -",
                "url(a.png) border-box | -",
                "url(a.png) sideways | -",
                "'' | -",
                "url(a.png) 1px 2px 3px 4px 5px | -"
            })
    void backgrounds(String css, String parts) {
        String read = BackgroundKind.ANY
                .readCss(css)
                .map(v -> (Value.Parts) v)
                .map(p -> String.join(
                        " ",
                        p.text("color"),
                        p.text("picture"),
                        p.text("repeat"),
                        p.text("position"),
                        p.text("size"),
                        p.text("attachment")))
                .orElse("-");
        assertThat(read).isEqualTo(parts);
    }

    private static Optional<String> position(String text) {
        try {
            Value.Parts given = (Value.Parts) BackgroundKind.ANY.initial();
            Map<String, Value> parts = new TreeMap<>(given.parts());
            parts.put("position", Value.of(text));
            return Optional.of(((Value.Parts) BackgroundKind.ANY.normal(new Value.Parts(parts))).text("position"));
        } catch (BadInputException refused) {
            return Optional.empty();
        }
    }

    @ParameterizedTest
    @CsvSource({
        "bottom right, right bottom",
        "TOP, center top",
        "left, left center",
        "30%, 30% center",
        "center left, left center",
        "0 0, 0px 0px",
        "right 10px bottom 20%, right 10px bottom 20%",
        "bottom 20% right 10px, right 10px bottom 20%",
        "right top 10px, right 0px top 10px",
        "center top 10px, left 50% top 10px",
        "left left, -",
        "20px left, -",
        "bottom 20px, -",
        "center 10px top 5px, -",
        "top 1px bottom 2px, -",
        "middle, -"
    })
    void positions(String written, String plain) {
        assertThat(position(written).orElse("-")).isEqualTo(plain);
    }

    /** What is brought into a plain form lies where it lay before, as the reader of computed values has it. */
    @Test
    void aPositionStaysWhereItIs() {
        String[] words = {"left", "right", "top", "bottom", "center", "10px", "-4px", "20%", "100%"};
        Random random = Generated.random(61);
        int kept = 0;
        for (int i = 0; i < Generated.times(3_000); i++) {
            String text = IntStream.range(0, 1 + random.nextInt(4))
                    .mapToObj(k -> words[random.nextInt(words.length)])
                    .collect(Collectors.joining(" "));
            Optional<String> plain = position(text);
            if (plain.isPresent()) {
                kept++;
                assertThat(Position.read(ComponentValue.read(plain.get())))
                        .as(text + " as " + plain.get())
                        .isPresent()
                        .isEqualTo(Position.read(ComponentValue.read(text)));
            }
        }
        assertThat(kept).isGreaterThan(300);
    }

    /** What a kind writes is what browsers take for the property it is made for. */
    @Test
    void whatIsWrittenIsValid() {
        for (String[] pair : new String[][] {
            {"gradient", "background-image"},
            {"border", "border"},
            {"length", "padding-top"},
            {"spacing", "padding"},
            {"color", "color"}
        }) {
            Kind kind = Kinds.plain(pair[0]);
            String css = kind.css(kind.initial(), a -> a).get("");
            assertThat(ValidityAccess.valid(pair[1], css))
                    .as(pair[1] + ": " + css)
                    .isTrue();
        }
    }
}

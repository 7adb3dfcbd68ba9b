package org.calmpalette.core.setting;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.math.BigDecimal;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.calmpalette.core.BadInputException;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class PictureKindTest {
    private static final Map<String, MediaFacts> FILES = Map.of(
            "wide.jpg",
            new MediaFacts(2000, 500, 300_000, "jpg"),
            "small.png",
            new MediaFacts(300, 200, 9_000, "png"),
            "high.webp",
            new MediaFacts(500, 2000, 40_000, "webp"),
            "drawn.svg",
            new MediaFacts(300, 200, 900, "svg"),
            "open.svg",
            new MediaFacts(0, 0, 900, "svg"),
            "broken.jpg",
            new MediaFacts(0, 0, 10, "jpg"),
            "heavy.jpg",
            new MediaFacts(3000, 2000, 5_200_000, "jpg"));
    private static final Kind.Around THEME = new Kind.Around() {
        @Override
        public Optional<Value> value(String key) {
            return Optional.empty();
        }

        @Override
        public Optional<MediaFacts> media(String path) {
            return Optional.ofNullable(FILES.get(path));
        }

        @Override
        public List<String> files() {
            return List.copyOf(FILES.keySet());
        }
    };

    private static Kind limited() {
        return Kinds.read(
                "picture",
                Value.parts(
                        "leastWidth",
                        1000,
                        "shape",
                        Value.parts("from", new BigDecimal("1.2"), "to", 5),
                        "mostBytes",
                        1_000_000,
                        "formats",
                        Value.of(List.of("jpg", "png", "webp", "svg"))));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "wide.jpg | ok",
                "small.png | would blur. 1000 px of width are needed",
                "high.webp | would blur",
                "drawn.svg | ok",
                "open.svg | ok",
                "broken.jpg | cannot be read",
                "heavy.jpg | weighs 5.2 MB; at most 1 MB",
                "gone.jpg | no file gone.jpg",
                "wide.gif | is a .gif file; allowed are jpg, png, webp, svg",
                "'' | One has to be chosen"
            })
    void eachLimitIsToldInWords(String path, String told) {
        Optional<String> refusal = limited().refusal(Value.of(path), THEME).map(Refusal::words);
        if (told.equals("ok")) {
            assertThat(refusal).isEmpty();
        } else {
            assertThat(refusal).hasValueSatisfying(w -> assertThat(w).contains(told));
        }
    }

    @Test
    void shapesAreLimitedFromBothSides() {
        Kind wide = Kinds.read("picture", Value.parts("shape", Value.parts("from", 2)));
        Kind high = Kinds.read("picture", Value.parts("shape", Value.parts("to", 1), "leastHeight", 600));
        assertThat(wide.refusal(Value.of("high.webp"), THEME).map(Refusal::words))
                .hasValueSatisfying(w -> assertThat(w).contains("too high").contains("at least 2"));
        assertThat(high.refusal(Value.of("wide.jpg"), THEME).map(Refusal::words))
                .hasValueSatisfying(w -> assertThat(w).contains("would blur"));
        assertThat(high.refusal(Value.of("heavy.jpg"), THEME).map(Refusal::words))
                .hasValueSatisfying(w -> assertThat(w).contains("too wide").contains("at most 1"));
        assertThat(high.refusal(Value.of("high.webp"), THEME)).isEmpty();
        assertThat(wide.inWords()).isEqualTo("shape 2 or wider");
        assertThat(high.inWords()).isEqualTo("600 px or higher, shape up to 1");
        assertThat(limited().inWords()).isEqualTo("1000 px or wider, shape 1.2 to 5, up to 1 MB, jpg, png, webp, svg");
        assertThat(Kinds.read("picture", Value.parts("none", true)).inWords()).isEqualTo("any picture or none");
        assertThat(PictureKind.ANY.inWords()).isEqualTo("any picture");
    }

    @Test
    void theSchemaNamesTheFilesThatFit() {
        assertThat(limited().schema(THEME))
                .isEqualTo(Value.parts("enum", Value.of(List.of("drawn.svg", "open.svg", "wide.jpg"))));
        Kind nothing = Kinds.read("picture", Value.parts("leastWidth", 9000, "formats", Value.of(List.of("png"))));
        assertThat(nothing.schema(THEME)).isEqualTo(Value.parts("not", Value.parts()));
        assertThat(limited().schema(Kind.Around.NOTHING).text("pattern")).contains("jpe?g|png|webp|svg");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "url(a.png) | a.png",
                "url( 'b c.jpg' ) | b c.jpg",
                "URL(\"x.svg\") | x.svg",
                "none | ''",
                "url(a.png) no-repeat | -",
                "red | -",
                "url('a.png | a.png",
                "image-set('a.png' 1x) | -"
            })
    void addressesInStylesheets(String css, String path) {
        Optional<Value> read = PictureKind.ANY.readCss(css);
        if (path.equals("-")) {
            assertThat(read).isEmpty();
        } else {
            assertThat(read).hasValue(Value.of(path));
        }
    }

    @ParameterizedTest
    @ValueSource(strings = {"/a.png", "../a.png", "http://x/a.png", "//x/a.png", "a\u0000.png"})
    void whatLeadsOutOfTheThemeIsNoPath(String path) {
        assertThatThrownBy(() -> PictureKind.ANY.normal(Value.of(path))).isInstanceOf(BadInputException.class);
    }

    @Test
    void weightsInWords() {
        assertThat(PictureKind.size(900)).isEqualTo("1 kB");
        assertThat(PictureKind.size(250_001)).isEqualTo("251 kB");
        assertThat(PictureKind.size(1_250_000)).isEqualTo("1.3 MB");
    }
}

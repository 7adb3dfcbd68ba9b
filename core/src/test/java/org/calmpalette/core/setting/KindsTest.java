package org.calmpalette.core.setting;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import com.networknt.schema.InputFormat;
import com.networknt.schema.Schema;
import com.networknt.schema.SchemaRegistry;
import com.networknt.schema.SpecificationVersion;
import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.stream.Stream;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.Generated;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.color.Contrast;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;

class KindsTest {
    private static final SchemaRegistry SCHEMAS = SchemaRegistry.withDefaultDialect(SpecificationVersion.DRAFT_2020_12);
    private static final List<String> TEXTS = List.of(
            "",
            "none",
            "#fff",
            "#1F3347",
            "#1f3347",
            "#1f334780",
            "#00ff00",
            "#12345",
            "red;",
            "rgb(1 2 3)",
            "rgb(1 2)",
            "oklch(60% 0.1 200)",
            "oklch(60 0.1)",
            "color(display-p3 0 1 0)",
            "hsl(10 20% 30%)",
            "left",
            "middle",
            "right",
            "one line",
            "two\nlines",
            "bad\u0007bell",
            "ends\n",
            "a.png",
            "img/a.png",
            "img/b.png",
            "../a.png",
            "img/a.txt",
            "film/a.mp4",
            "index.html",
            "piers.html#x",
            "#top",
            "https://example.org/x",
            "javascript:alert(1)",
            "mailto:a@b",
            "tel:+12",
            "//host/x",
            "cover",
            "50% 20px",
            "center bottom",
            "Right",
            "bottom",
            " top  center",
            "center left",
            "10px left",
            "right 10px center",
            "left 0 right 0",
            "center top 5PX",
            "bottom 1% right 0",
            "320px auto",
            "solid",
            "x".repeat(70),
            "linear",
            "scroll",
            "fixed",
            "no-repeat",
            "px",
            "vh",
            "\ud83d\ude00".repeat(40));
    private static final Media MEDIA = new Media() {
        @Override
        public java.util.Optional<MediaFacts> facts(String path) {
            return paths().contains(path)
                    ? java.util.Optional.of(
                            new MediaFacts(path.contains("a.") ? 1600 : 300, 200, 9_000, MediaFacts.format(path)))
                    : java.util.Optional.empty();
        }

        @Override
        public List<String> paths() {
            return List.of("img/a.png", "img/b.png", "film/a.mp4");
        }
    };

    static Stream<Kind> kinds() {
        List<Kind> all =
                new ArrayList<>(Kinds.names().stream().map(Kinds::plain).toList());
        all.addAll(Specimens.palette().settings().stream()
                .map(Setting::kind)
                .filter(k -> !(k instanceof ColorKind))
                .toList());
        all.add(Kinds.read("color", Value.parts("swatches", Value.of(List.of("#ffffff", "#1f3347", "#1f334780")))));
        all.add(Kinds.read("number", Value.parts("least", 1, "most", 9, "step", 2)));
        all.add(Kinds.read("picture", Value.parts("leastWidth", 1200, "formats", Value.of(List.of("png")))));
        all.add(Kinds.read(
                "length",
                Value.parts(
                        "steps", new Value.Many(List.of(Value.parts("label", "wide", "value", 32, "unit", "px"))))));
        return all.stream().distinct();
    }

    /** What our rules accept and what the schema that we write accepts is the same, by com.networknt:json-schema-validator. */
    @Tag("generated")
    @ParameterizedTest
    @MethodSource("kinds")
    void aValueIsAcceptedByUsAsByTheSchemaThatWeWrite(Kind kind) {
        Kind.Around around = new Effective.MediaOnly(MEDIA);
        Schema schema = SCHEMAS.getSchema(kind.schema(around).json().toString(), InputFormat.JSON);
        Random random = Generated.random(7);
        int accepted = 0;
        for (int i = 0; i < Generated.times(500); i++) {
            Value base = i % 3 == 0 ? any(random, 0) : good(kind, around);
            Value value = i % 3 == 0 ? base : mutated(base, random);
            boolean ours = accepts(kind, value, around);
            assertThat(schema.validate(value.json().toString(), InputFormat.JSON)
                            .isEmpty())
                    .as("%s, allowed %s: %s", kind.name(), kind.allowed().json(), value.json())
                    .isEqualTo(ours);
            accepted += ours ? 1 : 0;
        }
        assertThat(accepted)
                .as("values of " + kind.name() + " that were accepted")
                .isPositive();
    }

    private static Value good(Kind kind, Kind.Around around) {
        return kind.refusal(kind.initial(), around).isEmpty()
                ? kind.initial()
                : Specimens.palette().settings().stream()
                        .filter(s -> s.kind().name().equals(kind.name()))
                        .map(s -> s.given().value())
                        .findFirst()
                        .orElseThrow();
    }

    private static boolean accepts(Kind kind, Value value, Kind.Around around) {
        try {
            return kind.refusal(kind.normal(value), around).isEmpty();
        } catch (BadInputException refused) {
            return false;
        }
    }

    private static Value any(Random random, int depth) {
        return switch (random.nextInt(depth > 1 ? 3 : 5)) {
            case 0 -> Value.of(TEXTS.get(random.nextInt(TEXTS.size())));
            case 1 -> Value.of(number(random));
            case 2 -> Value.of(random.nextBoolean());
            case 3 ->
                new Value.Many(Stream.generate(() -> any(random, depth + 1))
                        .limit(random.nextInt(4))
                        .toList());
            default -> Value.parts("value", any(random, depth + 1), "unit", any(random, depth + 1));
        };
    }

    private static BigDecimal number(Random random) {
        return switch (random.nextInt(6)) {
            case 0 -> BigDecimal.valueOf(random.nextInt(1200) - 100);
            case 1 -> BigDecimal.valueOf(random.nextInt(100_000), 3);
            case 2 -> new BigDecimal("0.00001");
            case 3 -> BigDecimal.valueOf(100_001);
            case 4 -> BigDecimal.valueOf((random.nextInt(10) + 1) * 100L);
            default -> BigDecimal.valueOf(random.nextInt(8));
        };
    }

    /** The value with one thing in it changed, or left as it is. */
    private static Value mutated(Value value, Random random) {
        if (value instanceof Value.Parts p && !p.parts().isEmpty() && random.nextInt(6) > 0) {
            Map<String, Value> parts = new LinkedHashMap<>(p.parts());
            String name = List.copyOf(parts.keySet()).get(random.nextInt(parts.size()));
            switch (random.nextInt(8)) {
                case 0 -> parts.remove(name);
                case 1 -> parts.put("extra", Value.of(1));
                default -> parts.put(name, mutated(parts.get(name), random));
            }
            return new Value.Parts(parts);
        }
        if (value instanceof Value.Many m && !m.items().isEmpty() && random.nextInt(4) > 0) {
            List<Value> items = new ArrayList<>(m.items());
            items.add(mutated(items.get(random.nextInt(items.size())), random));
            return new Value.Many(items);
        }
        return random.nextInt(4) == 0 ? value : any(random, 1);
    }

    @Test
    void aLengthWrittenAsInAStylesheetIsToldInTheShapeThatItNeeds() {
        assertThatThrownBy(() -> LengthKind.ANY.normal(Value.of("2rem")))
                .isInstanceOfSatisfying(
                        BadInputException.class, e -> assertThat(e.mend()).contains("{\"value\":2,\"unit\":\"rem\"}"));
        assertThatThrownBy(() -> LengthKind.ANY.normal(Value.of("wide")))
                .isInstanceOfSatisfying(
                        BadInputException.class, e -> assertThat(e.mend()).contains("{\"value\":72,\"unit\":\"vh\"}"));
    }

    /** HTML, section 4.10.5.3.8: steps are counted from the least. */
    @Test
    void stepsAreCountedFromTheLeast() {
        Kind odd = Kinds.read("number", Value.parts("least", 1, "most", 9, "step", 2));
        for (int n = 0; n <= 10; n++) {
            assertThat(accepts(odd, Value.of(n), Kind.Around.NOTHING))
                    .as("%d", n)
                    .isEqualTo(n % 2 == 1 && n < 10);
        }
        assertThat(odd.refusal(Value.of(4), Kind.Around.NOTHING).orElseThrow().said(new MakerWords()))
                .isEqualTo("4 is not on a step of 2 from 1.");
        assertThatThrownBy(() -> Kinds.read("number", Value.parts("least", 1, "most", 8, "step", 2)))
                .hasMessageContaining("The most, 8, does not lie on the steps of 2 from 1")
                .isInstanceOfSatisfying(
                        BadInputException.class, e -> assertThat(e.mend()).contains("Write 7 or 9"));
        assertThatThrownBy(() -> Kinds.read("number", Value.parts("least", 1, "step", 2)))
                .hasMessageContaining("need an end");
        assertThat(accepts(Kinds.read("number", Value.parts("most", 8, "step", 2)), Value.of(-4), Kind.Around.NOTHING))
                .isTrue();
    }

    @ParameterizedTest
    @MethodSource("kinds")
    void whatAFormShowsIsReadBackTheSame(Kind kind) {
        Map<String, String> fields = kind.fields(kind.initial());
        assertThat(kind.read(name -> fields.getOrDefault(name, ""))).isEqualTo(kind.initial());
        assertThat(Kinds.read(kind.name(), kind.allowed())).isEqualTo(kind);
        assertThat(kind.inWords()).isNotBlank();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '`',
            value = {
                "border | 1px solid red | 1px solid #ff0000",
                "border | none | none",
                "border | thin solid red | ",
                "border | 2px dashed | ",
                "shadow | 0 2px 4px #0003 | 0px 2px 4px 0px #00000033",
                "shadow | inset 1px 1px red | inset 1px 1px 0px 0px #ff0000",
                "shadow | 0 1px red, 0 2px blue | ",
                "spacing | 1px 2px 3px | 1px 2px 3px 2px",
                "spacing | 0 auto | ",
                "length | 1.50REM | 1.5rem",
                "length | 12 | ",
                "percentage | 40% | 40%",
                "gradient | linear-gradient(to right, red, blue 80%) | linear-gradient(90deg, #ff0000 0%, #0000ff 80%)",
                "gradient | linear-gradient(red, lime, blue) | linear-gradient(180deg, #ff0000 0%, #00ff00 50%, #0000ff 100%)",
                "gradient | conic-gradient(red, blue) | ",
                "background | #123 url(a.png) top / cover no-repeat | var(@-picture) center top / cover no-repeat scroll #112233",
                "background | url(a.png), red | ",
                "picture | url( 'a b.png' ) | url(\"a b.png\")",
                "picture | none | none"
            })
    void aKindReadsWhatStylesheetsSayAndWritesTheSame(String kind, String css, String written) {
        var value = Kinds.plain(kind).readCss(css);
        assertThat(value.map(v -> Kinds.plain(kind).css(v, a -> a).get("")))
                .isEqualTo(java.util.Optional.ofNullable(written));
    }

    /** A shade over pictures and films: what it promises holds over every picture, and one of them comes as near as is said. */
    @Test
    void aContrastOverAnythingIsTheLeastOverEveryPicture() {
        Random random = new Random(5);
        for (int n = 0; n < 400; n++) {
            Color shade = color(random, random.nextDouble());
            Color letters = color(random, random.nextInt(3) == 0 ? 0.5 + random.nextDouble() / 2 : 1);
            double least = ColorKind.leastOver(shade, letters);
            double found = 21;
            for (int i = 0; i < 300; i++) {
                int grey = i % 256;
                Color picture = i < 256
                        ? Color.parse("rgb(" + grey + " " + grey + " " + grey + ")")
                                .orElseThrow()
                        : color(random, 1);
                found = Math.min(found, Contrast.ratioOver(letters, List.of(shade, picture)));
            }
            assertThat(found).as("%s on %s", letters.css(), shade.css()).isGreaterThanOrEqualTo(least - 1e-9);
            if (letters.isOpaque()) {
                assertThat(found).isCloseTo(least, within(0.06));
            }
        }
        Kind kind = Kinds.read(
                "color",
                Value.parts("contrast", new Value.Many(List.of(Value.parts("with", "#ffffff", "over", "anything")))));
        assertThat(kind.refusal(Value.of("#10182099"), Kind.Around.NOTHING)).isEmpty();
        assertThat(kind.refusal(Value.of("#10182080"), Kind.Around.NOTHING)).isPresent();
        assertThat(kind.inWords()).contains("over any picture");
        assertThatThrownBy(() -> Kinds.read(
                        "color",
                        Value.parts("contrast", new Value.Many(List.of(Value.parts("with", "#fff", "over", "x"))))))
                .hasMessageContaining("“x” is unknown");
    }

    private static Color color(Random random, double alpha) {
        return Color.parse("rgb(" + random.nextInt(256) + " " + random.nextInt(256) + " " + random.nextInt(256) + " / "
                        + alpha + ")")
                .orElseThrow();
    }

    @Test
    void limitsOfColoursAreToldInWords() {
        Kind bounded = Kinds.read(
                "color",
                Value.parts(
                        "bounds",
                        Value.parts("lightness", pair(20, 60), "hue", pair(350, 20)),
                        "opaque",
                        true,
                        "contrast",
                        new Value.Many(List.of(Value.parts("with", "#ffffff", "atLeast", new BigDecimal("4.5"))))));
        assertThat(bounded.refusal(Value.of("#8b0000"), Kind.Around.NOTHING).map(Refusal::words))
                .contains("Its hue is 29°, allowed is 350 to 20°.");
        assertThat(bounded.refusal(Value.of("#ffc0cb"), Kind.Around.NOTHING)
                        .orElseThrow()
                        .words())
                .startsWith("Its lightness is 86.8%");
        assertThat(bounded.refusal(Value.of("#8a003080"), Kind.Around.NOTHING).map(Refusal::words))
                .contains("Only an opaque colour may be chosen here.");
        assertThat(bounded.refusal(Value.of("#8a0030"), Kind.Around.NOTHING)).isEmpty();
        // Black on white is 21 to 1 (WCAG 2.2); grey #777777 on white is 4.47 by its formula, which rounds to 4.5 and
        // is not enough.
        Kind text = Kinds.read("color", Value.parts("contrast", new Value.Many(List.of(Value.parts("with", "#fff")))));
        assertThat(text.refusal(Value.of("#777777"), Kind.Around.NOTHING).map(Refusal::words))
                .contains("Beside #fff its contrast is 4.47 to 1; 4.5 is needed.");
        assertThat(text.refusal(Value.of("#767676"), Kind.Around.NOTHING)).isEmpty();
    }

    private static Value pair(int from, int to) {
        return new Value.Many(List.of(Value.of(from), Value.of(to)));
    }
}

package org.calmpalette.core.setting;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.Generated;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

class PaletteJsonTest {
    private static Palette read(String json) {
        return PaletteJson.read(json.getBytes(StandardCharsets.UTF_8), "Name");
    }

    /** One setting a line, after a first line with the bands and places. */
    private static Palette settings(String... settings) {
        return read(
                "{\"places\":[{\"key\":\"p\",\"label\":\"P\"}],\"settings\":[\n" + String.join(",\n", settings) + "]}");
    }

    private static String setting(String key, String kind, String rest) {
        return "{\"key\":\"" + key + "\",\"label\":\"L\",\"place\":\"p\",\"kind\":\"" + kind + "\"," + rest + "}";
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '`',
            value = {"[] | the file", "{\"a\": 1, \"a\": 2} | line 1", "{| line 1"})
    void whatIsNoJsonObjectIsRefusedWithItsLine(String json, String place) {
        assertThatThrownBy(() -> read(json))
                .isInstanceOf(BadInputException.class)
                .hasMessageStartingWith("palette.json")
                .hasMessageContaining(place);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '`',
            value = {
                "color   | \"default\":7                                             | settings[1].default | not a colour",
                "colour  | \"default\":\"red\"                                       | settings[1].kind | no kind of setting",
                "color   | \"default\":\"red\",\"allowed\":{\"swatches\":[\"blue\"]} | settings[1].default | not among what an owner may choose",
                "length  | \"default\":{\"value\":20,\"unit\":\"px\"},\"allowed\":{\"units\":[{\"unit\":\"px\",\"least\":9,\"most\":3}]} | settings[1].allowed.units[0] | more than the most",
                "length  | \"default\":{\"value\":20,\"unit\":\"parsec\"}            | settings[1].default | not a length",
                "choice  | \"default\":\"a\",\"allowed\":{\"options\":[{\"key\":\"a\",\"css\":\"red;}\"}]} | settings[1].allowed.options[0].css | one value in a stylesheet",
                "link    | \"default\":\"javascript:alert(1)\"                       | settings[1].default | not among what may be linked",
                "picture | \"default\":\"../../etc/passwd\"                          | settings[1].default | not the path of a picture",
                "color   | \"default\":{\"follows\":\"nowhere\"}                     | settings[1].default | no such setting",
                "color   | \"default\":\"red\",\"bands\":{\"watch\":\"blue\"}        | settings[1].bands.watch | no band",
                "number  | \"default\":1e999999999                                   | settings[1].default | not a number"
            })
    void aSettingThatCannotBeUsedIsReportedWithItsPlaceAndTheOthersAreRead(
            String kind, String rest, String place, String why) {
        String good = setting("good", "color", "\"default\":\"#112233\"");
        Palette palette = settings(good, setting("bad", kind, rest));
        assertThat(palette.settings()).extracting(Setting::key).containsExactly("good");
        assertThat(palette.faults()).singleElement().satisfies(f -> {
            assertThat(f.at()).isEqualTo(place);
            assertThat(f.line()).isEqualTo(3);
            assertThat(f.what()).contains(why);
            assertThat(f.mend()).isNotBlank();
        });
    }

    @Test
    void circlesAreShownWithTheirChainTwinsAndUnknownKeysWithTheirPlace() {
        Palette palette = settings(
                setting("a", "color", "\"default\":{\"follows\":\"b\"}"),
                setting("b", "color", "\"default\":{\"follows\":\"c\",\"lighter\":9}"),
                setting("c", "color", "\"default\":\"red\",\"bands\":{\"phone\":{\"follows\":\"a\"}}"),
                setting("d", "color", "\"default\":\"red\",\"alowed\":{}"),
                setting("d", "color", "\"default\":\"blue\""));
        assertThat(palette.settings()).extracting(Setting::key).contains("d").doesNotContain("a");
        assertThat(palette.faults())
                .anySatisfy(f -> assertThat(f.what()).contains("a → b → c → a"))
                .anySatisfy(f -> assertThat(f.message())
                        .contains("line 6, settings[4].key")
                        .contains("twice"))
                .anySatisfy(f -> assertThat(f.message() + f.mend())
                        .contains("settings[3].alowed")
                        .contains("Did you mean “allowed”"));
        assertThatThrownBy(() -> Palette.empty("x").with(following("a", "a"), Place.EVERYWHERE))
                .hasMessageContaining("a → a");
    }

    private static Setting following(String key, String other) {
        return Setting.of(key, "L", "", "everywhere", ColorKind.ANY, Value.of("red"))
                .withGiven(new Given.Follows(other, new Given.Same()));
    }

    @ParameterizedTest
    @CsvSource({"767,700,overlaps", "767,767,overlaps", ",1199,no end", "100,1199,ends at 100"})
    void bandsWithAGapOrAnOverlapAreRefused(Integer first, Integer second, String why) {
        List<Band> bands = List.of(new Band("a", "A", first), new Band("b", "B", second), new Band("c", "C", null));
        assertThatThrownBy(() -> new Bands(bands)).hasMessageContaining(why);
        Palette read = read("{\"bands\":[{\"key\":\"a\",\"label\":\"A\",\"to\":" + first
                + "},{\"key\":\"b\",\"label\":\"B\",\"to\":" + second + "},{\"key\":\"c\",\"label\":\"C\"}]}");
        assertThat(read.bands()).isEqualTo(Bands.USUAL);
        assertThat(read.faults()).isNotEmpty();
    }

    @Test
    void whatCannotBeReadStaysInTheFileWhenItIsWritten() {
        String bad = setting("bad", "hologram", "\"default\":1");
        String json = "{\"later\":{\"kept\":true},\"places\":[{\"key\":\"p\",\"label\":\"P\"}],\"settings\":[" + bad
                + "," + setting("a", "color", "\"default\":\"red\",\"tool\":7") + "]}";
        byte[] before = json.getBytes(StandardCharsets.UTF_8);
        Palette palette = PaletteJson.read(before, "N");
        Palette more = palette.with(Setting.of("b", "B", "", "p", NumberKind.ANY, Value.of(2)), Place.EVERYWHERE);
        String written = new String(PaletteJson.write(more, before), StandardCharsets.UTF_8);
        assertThat(written)
                .contains("hologram")
                .contains("\"tool\": 7")
                .contains("\"kept\": true")
                .contains("\"b\"");
        assertThat(PaletteJson.read(written.getBytes(StandardCharsets.UTF_8), "N")
                        .settings())
                .extracting(Setting::key)
                .containsExactly("a", "b");
    }

    @Test
    void whatIsWrittenReadsBackTheSame() {
        Palette palette = Specimens.palette();
        byte[] once = PaletteJson.write(palette, null);
        assertThat(PaletteJson.read(once, "other")).isEqualTo(palette);
        assertThat(PaletteJson.write(palette, once)).isEqualTo(once);
        assertThat(palette.settings().stream().map(s -> s.kind().name()).distinct())
                .containsExactlyInAnyOrderElementsOf(Kinds.names());
    }

    @Test
    void aRenamedKeyIsRenamedWhereverThePaletteSpeaksOfItAndItsChoicesStillCount() {
        Palette palette = Specimens.palette().renamed("ink", "text-color");
        assertThat(PaletteJson.write(palette, null))
                .asString(StandardCharsets.UTF_8)
                .doesNotContain("\"follows\": \"ink\"")
                .contains("\"former\": [");
        Effective values = Effective.of(palette, Map.of("ink", Chosen.of("#0000ff")), Media.NONE);
        assertThat(values.words(palette.known("text-color"), palette.bands().widest()))
                .isEqualTo("#0000ff");
        assertThat(values.words(palette.known("ink-copy"), palette.bands().widest()))
                .isEqualTo("#0000ff");
    }

    /** Whatever is wrong in the file, what is right is read, nothing is thrown, and nothing is lost when it is written. */
    @Tag("generated")
    @Test
    void aFileWithAnythingWrongInItIsReadAndKept() {
        Random random = Generated.random(11);
        JsonNode specimen = JsonMapper.shared().readTree(PaletteJson.write(Specimens.palette(), null));
        for (int i = 0; i < Generated.times(150); i++) {
            ObjectNode root = (ObjectNode) specimen.deepCopy();
            for (int j = random.nextInt(3); j >= 0; j--) {
                spoil(root, random);
            }
            byte[] json = JsonMapper.shared().writeValueAsBytes(root);
            Palette palette = PaletteJson.read(json, "x");
            assertThat(palette.faults()).allSatisfy(f -> assertThat(f.line()).isPositive());
            Effective.defaults(palette, Media.NONE).problems();
            JsonNode written = JsonMapper.shared().readTree(PaletteJson.write(palette, json));
            if (root.path("settings").isArray()) {
                assertThat(written.path("settings").size())
                        .as(new String(json, StandardCharsets.UTF_8))
                        .isEqualTo(root.path("settings").size());
            }
            assertThat(PaletteJson.read(JsonMapper.shared().writeValueAsBytes(written), "x")
                            .settings())
                    .isEqualTo(palette.settings());
        }
    }

    private static void spoil(JsonNode node, Random random) {
        JsonNode at = node;
        while (true) {
            List<String> names = new ArrayList<>();
            at.properties().forEach(e -> names.add(e.getKey()));
            int size = at.isArray() ? at.size() : names.size();
            if (size == 0) {
                return;
            }
            int pick = random.nextInt(size);
            JsonNode next = at.isArray() ? at.get(pick) : at.get(names.get(pick));
            if (next.isContainer() && next.size() > 0 && random.nextInt(5) > 0) {
                at = next;
                continue;
            }
            JsonNode bad = List.<Value>of(
                            Value.of("ink"),
                            Value.of(-7),
                            Value.of(true),
                            Value.parts("follows", "ink"),
                            Value.parts("follows", "height", "darker", 5),
                            new Value.Many(List.of()),
                            Value.parts("value", 1, "unit", "em"),
                            Value.of("desktop"))
                    .get(random.nextInt(8))
                    .json();
            if (at instanceof ArrayNode array) {
                array.set(pick, bad);
            } else if (random.nextInt(4) == 0) {
                ((ObjectNode) at).remove(names.get(pick));
            } else {
                ((ObjectNode) at).set(names.get(pick), bad);
            }
            return;
        }
    }

    @Test
    void whatMustStayInSightOfAPictureIsKeptWithWhatElseTheEntryHolds() {
        byte[] before =
                """
        {"name": "T", "pictures": [{"path": "a.jpg", "credit": "drawn"}, {"path": "b.jpg", "subject": {"left": 90, "top": 0, "width": 20, "height": 5}},
         {"path": "c.jpg", "subject": {"name": "the boat", "left": 1.5, "top": 2, "width": 3, "height": 4}}]}"""
                        .getBytes(java.nio.charset.StandardCharsets.UTF_8);
        Palette read = PaletteJson.read(before, "T");
        assertThat(read.subjects()).extracting(Subject::path).containsExactly("c.jpg");
        assertThat(read.faults())
                .extracting(Palette.Fault::at)
                .containsExactlyInAnyOrder("pictures[1]", "pictures[0].credit");
        Palette then = read.withSubject(new Subject(
                        "a.jpg",
                        "",
                        java.math.BigDecimal.ONE,
                        java.math.BigDecimal.ONE,
                        java.math.BigDecimal.TEN,
                        java.math.BigDecimal.TEN))
                .withoutSubject("c.jpg");
        String written = new String(PaletteJson.write(then, before), java.nio.charset.StandardCharsets.UTF_8)
                .replaceAll("\\s+", "");
        assertThat(written)
                .contains(
                        "{\"path\":\"a.jpg\",\"credit\":\"drawn\",\"subject\":{\"left\":1,",
                        "\"path\":\"b.jpg\",\"subject\":{\"left\":90")
                .as("an entry of which nothing is left goes")
                .doesNotContain("c.jpg");
        assertThat(PaletteJson.read(PaletteJson.write(then, before), "T").subjects())
                .isEqualTo(then.subjects());
    }

    /** How much is promised: an entry stays with what else it holds, and one that says what is usual goes. */
    @Test
    void thresholdsAreReadAndWrittenInTheirEntries() {
        String file =
                """
                {"name": "T", "promises": [
                  {"promise": "readable x", "waived": "A logo"},
                  {"threshold": "light", "most": 800, "$why": "slow lines"}]}""";
        Palette palette = PaletteJson.read(file.getBytes(StandardCharsets.UTF_8), "T");
        assertThat(palette.faults()).isEmpty();
        assertThat(palette.thresholds()).isEqualTo(new Thresholds(Thresholds.Level.AA, 800));
        byte[] more = PaletteJson.write(
                palette.withThresholds(new Thresholds(Thresholds.Level.AAA, 700)),
                file.getBytes(StandardCharsets.UTF_8));
        String written = new String(more, StandardCharsets.UTF_8).replaceAll("\\s+", "");
        assertThat(written)
                .contains("{\"threshold\":\"light\",\"most\":700,\"$why\":\"slowlines\"}")
                .contains("{\"threshold\":\"readable\",\"level\":\"AAA\"}");
        assertThat(PaletteJson.read(more, "T").thresholds()).isEqualTo(new Thresholds(Thresholds.Level.AAA, 700));
        byte[] strict = PaletteJson.write(
                PaletteJson.read(more, "T")
                        .withThresholds(Thresholds.USUAL
                                .withTexts(Thresholds.Level.AA, true, true)
                                .withPictures(700)),
                more);
        assertThat(new String(strict, StandardCharsets.UTF_8).replaceAll("\\s+", ""))
                .contains("{\"threshold\":\"readable\",\"level\":\"AA\",\"owners\":\"keep\",\"area\":\"whatever\"}");
        assertThat(PaletteJson.read(strict, "T").thresholds())
                .isEqualTo(Thresholds.USUAL
                        .withTexts(Thresholds.Level.AA, true, true)
                        .withPictures(700));
        byte[] pictures = PaletteJson.write(
                PaletteJson.read(strict, "T")
                        .withThresholds(Thresholds.USUAL
                                .withSeam(new BigDecimal("3.50"))
                                .withLarger(new BigDecimal("0.5"))),
                strict);
        assertThat(new String(pictures, StandardCharsets.UTF_8).replaceAll("\\s+", ""))
                .contains("{\"threshold\":\"covered\",\"most\":3.5}", "{\"threshold\":\"sharp\",\"most\":0.5}")
                .doesNotContain("readable\",\"level", "light");
        assertThat(PaletteJson.read(pictures, "T").thresholds())
                .isEqualTo(Thresholds.USUAL.withSeam(new BigDecimal("3.5")).withLarger(new BigDecimal("0.5")));
        assertThat(new String(
                        PaletteJson.write(
                                PaletteJson.read(pictures, "T")
                                        .withThresholds(Thresholds.USUAL.withSeam(new BigDecimal("10.0"))),
                                pictures),
                        StandardCharsets.UTF_8))
                .containsPattern("\"most\"\\s*:\\s*10\\s");
        for (String wrong : List.of(
                "{\"threshold\": \"covered\", \"most\": 0}",
                "{\"threshold\": \"sharp\", \"most\": 9}",
                "{\"threshold\": \"sharp\"}",
                "{\"threshold\": \"light\", \"most\": 1.5}")) {
            Palette off = PaletteJson.read(("{\"promises\": [" + wrong + "]}").getBytes(StandardCharsets.UTF_8), "T");
            assertThat(off.faults()).as(wrong).singleElement().satisfies(f -> assertThat(f.at())
                    .isEqualTo("promises[0].most"));
            assertThat(off.thresholds()).isEqualTo(Thresholds.USUAL);
        }
        Palette odd = PaletteJson.read(
                "{\"promises\": [{\"threshold\": \"readable\", \"owners\": \"maybe\"}]}"
                        .getBytes(StandardCharsets.UTF_8),
                "T");
        assertThat(odd.faults()).singleElement().satisfies(f -> assertThat(f.at())
                .isEqualTo("promises[0].owners"));
        String usual = new String(
                PaletteJson.write(PaletteJson.read(strict, "T").withThresholds(Thresholds.USUAL), strict),
                StandardCharsets.UTF_8);
        assertThat(usual).contains("A logo").doesNotContain("threshold");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '`',
            value = {
                "{\"threshold\": \"readable\", \"level\": \"A\"} | “A” is no level of WCAG | Write AA or AAA.",
                "{\"threshold\": \"still\"} | “still” has no threshold | Write readable with a level, or light, covered or sharp with a most.",
                "{\"threshold\": \"sharp\"} | it says not how many times | Write \"most\": 1.25.",
                "{\"threshold\": \"light\", \"most\": 7} | cannot be promised to weigh at most 7 kB | Write a number from 50 to 20000.",
                "{\"threshold\": \"light\"} | it says no weight | Write \"most\": 800, in kB."
            })
    void aThresholdThatIsNoneIsTold(String entry, String what, String mend) {
        Palette palette =
                PaletteJson.read(("{\n\"promises\": [\n" + entry + "]}").getBytes(StandardCharsets.UTF_8), "T");
        assertThat(palette.thresholds()).isEqualTo(Thresholds.USUAL);
        assertThat(palette.faults()).hasSize(1);
        assertThat(palette.faults().get(0).message()).contains("line 3", what);
        assertThat(palette.faults().get(0).mend()).isEqualTo(mend);
    }
}

package org.calmpalette.core.formats;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.networknt.schema.InputFormat;
import com.networknt.schema.Schema;
import com.networknt.schema.SchemaLocation;
import com.networknt.schema.SchemaRegistry;
import com.networknt.schema.SpecificationVersion;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.calmpalette.core.setting.Bands;
import org.calmpalette.core.setting.Chosen;
import org.calmpalette.core.setting.Effective;
import org.calmpalette.core.setting.Given;
import org.calmpalette.core.setting.Media;
import org.calmpalette.core.setting.Palette;
import org.calmpalette.core.setting.PaletteJson;
import org.calmpalette.core.setting.Place;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.Specimens;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.Themes;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;
import org.junit.jupiter.params.provider.ValueSource;

class FormatsTest {
    private static final SchemaRegistry SCHEMAS = SchemaRegistry.withDefaultDialect(SpecificationVersion.DRAFT_2020_12);
    private static final Schema META =
            SCHEMAS.getSchema(SchemaLocation.of("https://json-schema.org/draft/2020-12/schema"));

    private static byte[] utf8(String text) {
        return text.getBytes(StandardCharsets.UTF_8);
    }

    private static String text(byte[] bytes) {
        return new String(bytes, StandardCharsets.UTF_8);
    }

    private static Map<String, Setting> byKey(List<Setting> all) {
        return all.stream().collect(Collectors.toMap(Setting::key, Function.identity()));
    }

    // Design tokens

    @Test
    void whatIsWrittenAsTokensReadsBackTheSame() {
        Palette palette = Specimens.palette();
        DesignTokens.Read read = DesignTokens.read(DesignTokens.write(palette), "tokens.json", palette.bands());
        assertThat(read.faults()).isEmpty();
        assertThat(byKey(read.settings())).isEqualTo(byKey(palette.settings()));
    }

    @Test
    void whatAnotherToolChangedOfAValueCounts() {
        Palette palette = Specimens.palette();
        String changed = text(DesignTokens.write(palette)).replaceFirst("\"\\$value\" : 400", "\"\\$value\" : 700");
        Setting weight = byKey(DesignTokens.read(utf8(changed), "t.json", palette.bands())
                        .settings())
                .get("weight");
        assertThat(weight.given().value()).isEqualTo(Value.of(700));
        assertThat(weight.kind()).isEqualTo(palette.known("weight").kind());
    }

    /** Examples of the Design Tokens Community Group's Format Module, by the types' own sections; from memory. */
    @Test
    void theCommunityGroupsExamplesAreRead() {
        DesignTokens.Read read = DesignTokens.read(
                utf8(
                        """
        {
          "Majestic magenta": {"$type": "color", "$value": {"colorSpace": "srgb", "components": [1, 0, 1], "alpha": 1, "hex": "#ff00ff"}},
          "Translucent shadow": {"$type": "color", "$value": {"colorSpace": "srgb", "components": [0, 0, 0], "alpha": 0.5, "hex": "#000000"}},
          "Hot pink": {"$type": "color", "$value": {"colorSpace": "hsl", "components": [330, 100, 66]}},
          "spacing-stack-0": {"$type": "dimension", "$value": {"value": 0, "unit": "px"}},
          "spacing-stack-1": {"$type": "dimension", "$value": {"value": 0.25, "unit": "rem"}},
          "font-weight-thick": {"$type": "fontWeight", "$value": "extra-bold"},
          "line-height-large": {"$type": "number", "$value": 2.3},
          "border": {"$type": "border",
            "heavy": {"$value": {"color": {"colorSpace": "srgb", "components": [0.218, 0.218, 0.218]}, "width": {"value": 3, "unit": "px"}, "style": "solid"}},
            "focusring": {"$value": {"color": "{Majestic magenta}", "width": {"value": 1, "unit": "px"},
              "style": {"dashArray": [{"value": 0.5, "unit": "rem"}], "lineCap": "round"}}}},
          "shadow-token": {"$type": "shadow", "$value": {"color": "{Translucent shadow}", "offsetX": {"value": 0.5, "unit": "rem"},
            "offsetY": {"value": 0.5, "unit": "rem"}, "blur": {"value": 1.5, "unit": "rem"}, "spread": {"value": 0, "unit": "rem"}}},
          "blue-to-red": {"$type": "gradient", "$value": [{"color": {"colorSpace": "srgb", "components": [0, 0, 1]}, "position": 0},
            {"color": {"colorSpace": "srgb", "components": [1, 0, 0]}, "position": 1}]},
          "Quick": {"$type": "duration", "$value": {"value": 100, "unit": "ms"}},
          "group name": {"token name": {"$value": 1234, "$type": "number"}},
          "alias name": {"$value": "{group name.token name}"},
          "by pointer": {"$ref": "#/group name/token name"},
          "no type": {"$value": "x"}
        }"""),
                "tokens.json",
                Bands.USUAL);
        Effective values = Effective.defaults(
                new Palette("T", Bands.USUAL, List.of(), read.settings(), List.of(), List.of()), Media.NONE);
        Map<String, String> words = read.settings().stream()
                .collect(Collectors.toMap(Setting::key, s -> values.words(s, Bands.USUAL.widest())));
        assertThat(words)
                .containsEntry("majestic-magenta", "#ff00ff")
                .containsEntry("translucent-shadow", "#00000080")
                .containsEntry("hot-pink", "#ff52a8")
                .containsEntry("spacing-stack-1", "0.25rem")
                .containsEntry("font-weight-thick", "800")
                .containsEntry("line-height-large", "2.3")
                .containsEntry("border-heavy", "3px solid #383838")
                .containsEntry("shadow-token", "0.5rem 0.5rem 1.5rem 0rem #00000080")
                .containsEntry("blue-to-red", "linear, #0000ff #ff0000")
                .containsEntry("alias-name", "1234")
                .containsEntry("by-pointer", "1234");
        assertThat(byKey(read.settings()).get("alias-name").given())
                .isEqualTo(new Given.Follows("group-name-token-name", new Given.Same()));
        assertThat(read.faults())
                .hasSize(3)
                .anyMatch(f -> f.startsWith("tokens.json, line 11, border.focusring"))
                .anyMatch(f -> f.contains("type duration"))
                .anyMatch(f -> f.contains("no type: It has no type"));
    }

    @Test
    void brokenAliasesAreReportedWithTheirLineAndTheRestIsRead() {
        DesignTokens.Read read = DesignTokens.read(
                utf8(
                        "{\n\"a\":{\"$type\":\"color\",\"$value\":\"{b}\"},\n\"b\":{\"$type\":\"color\",\"$value\":\"{a}\"},\n"
                                + "\"c\":{\"$type\":\"color\",\"$value\":\"{nowhere}\"},\n\"d\":{\"$type\":\"color\",\"$value\":\"#123456\"},\n\"e\":{\"$value\":\"{d}\"}}"),
                "t.json",
                Bands.USUAL);
        assertThat(read.settings()).extracting(Setting::key).containsExactly("d", "e");
        assertThat(read.faults())
                .anyMatch(f -> f.contains("line 2, a") && f.contains("a → b → a"))
                .anyMatch(f -> f.contains("line 4, c") && f.contains("{nowhere} names no token"));
        assertThatThrownBy(() -> DesignTokens.read(utf8("{\n\"a\": }"), "t.json", Bands.USUAL))
                .hasMessageContaining("t.json, line 2");
    }

    /** Tokens that cannot be read are told with their line; the rest is read. Types as the Format Module names them. */
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "{\"$type\":\"color\",\"$value\":{\"colorSpace\":\"nowhere\",\"components\":[1,0,1]}} | t",
                "{\"$type\":\"color\",\"$value\":{\"colorSpace\":\"srgb\",\"components\":[1,0]}} | t",
                "{\"$type\":\"color\",\"$value\":7} | t",
                "{\"$type\":\"color\",\"$value\":\"blu\"} | t",
                "{\"$type\":\"dimension\",\"$value\":{\"value\":\"wide\",\"unit\":\"px\"}} | t",
                "{\"$type\":\"dimension\",\"$value\":{\"value\":1,\"unit\":\"parsec\"}} | t",
                "{\"$type\":\"number\",\"$value\":\"two\"} | t",
                "{\"$type\":\"fontWeight\",\"$value\":\"fat\"} | t",
                "{\"$type\":\"gradient\",\"$value\":[{\"color\":\"#fff\",\"position\":2}]} | t",
                "{\"$type\":\"gradient\",\"$value\":7} | t",
                "{\"$type\":\"shadow\",\"$value\":{\"color\":\"#fff\"}} | t",
                "{\"$type\":\"border\",\"$value\":{\"width\":1}} | t",
                "{\"$type\":\"cubicBezier\",\"$value\":[0,0,1,1]} | t",
                "{\"$type\":\"nothing\",\"$value\":1} | t",
                "{\"$value\":{\"a\":1}} | t",
                "{\"$type\":\"color\",\"$value\":\"{t}\"} | t",
                "{\"$type\":\"shadow\",\"$value\":[]} | t",
                "{\"$type\":\"duration\",\"$value\":{\"value\":1,\"unit\":\"s\"}} | t",
                "{\"$type\":\"fontFamily\",\"$value\":[\"A\"]} | t",
                "7 | t",
                "{\"$extends\":\"{nowhere}\"} | t"
            })
    void tokensThatCannotBeReadAreTold(String token, String name) {
        DesignTokens.Read read = DesignTokens.read(
                utf8("{\n\"" + name + "\": " + token + ",\n\"good\":{\"$type\":\"color\",\"$value\":\"#123456\"}}"),
                "t.json",
                Bands.USUAL);
        assertThat(read.settings()).extracting(Setting::key).contains("good");
        assertThat(read.settings()).as(token).extracting(Setting::key).doesNotContain(name);
        assertThat(read.faults()).as(token).anyMatch(f -> f.startsWith("t.json, line 2, " + name));
    }

    @Test
    void settingsAreTakenFromWhateverFileHoldsThem() {
        Theme theme = Themes.of("index.html", "<p>");
        SettingSource.Read tokens = SettingSource.read(
                theme, "x.tokens", utf8("{\"brand\":{\"ink\":{\"$type\":\"color\",\"$value\":\"#123456\"}}}"));
        assertThat(tokens.settings()).hasSize(1);
        Setting ink = tokens.settings().get(0);
        assertThat(tokens.words(ink)).isEqualTo("#123456");
        assertThat(tokens.value(ink)).isEqualTo(Value.of("#123456"));
        assertThat(tokens.placeLabel(ink.place())).isNotEmpty();
        assertThat(tokens.placeLabel("elsewhere")).isEqualTo("elsewhere");
        assertThat(SettingSource.read(theme, "_v.less", utf8("@ink: #123456;")).settings())
                .hasSize(1);
        assertThat(SettingSource.isReadable("a/_v.scss")).isTrue();
        assertThat(SettingSource.isReadable("a/my.tokens.json")).isTrue();
        assertThat(SettingSource.isReadable("a/b.json")).isFalse();
        assertThatThrownBy(() -> SettingSource.read(theme, "a.css", utf8("")))
                .hasMessageContaining("neither a file of design tokens nor of variables");
        for (String name : java.util.List.of(
                "tokens.json", "settings.scss", "settings.less", "palette.schema.json", "values.schema.json")) {
            assertThat(SettingSource.written(theme, name)).as(name).isPresent();
        }
        assertThat(SettingSource.written(theme, "settings.sass")).isEmpty();
    }

    // Variables of stylesheet preprocessors

    private static String file(PreprocessorVariables.Language language) {
        return language == PreprocessorVariables.Language.SCSS ? "_s.scss" : "s.less";
    }

    /** With labels, places, bands, limits and what they follow; also those of which a preprocessor knows nothing. */
    @ParameterizedTest
    @EnumSource(PreprocessorVariables.Language.class)
    void whatIsWrittenAsVariablesIsReadBackWhole(PreprocessorVariables.Language language) {
        Palette palette = Specimens.palette();
        PreprocessorVariables.Read read = PreprocessorVariables.read(
                PreprocessorVariables.write(palette, language), file(language), "p", palette.bands());
        assertThat(read.faults()).isEmpty();
        assertThat(read.settings()).containsExactlyInAnyOrderElementsOf(palette.settings());
        assertThat(read.places())
                .containsAll(palette.places().stream()
                        .filter(x -> palette.settings().stream()
                                .anyMatch(s -> s.place().equals(x.key())))
                        .toList());
    }

    /** Without what stands beside them, as from another tool: their values. */
    @ParameterizedTest
    @EnumSource(PreprocessorVariables.Language.class)
    void plainVariablesReadBackTheSame(PreprocessorVariables.Language language) {
        Palette palette = Specimens.palette();
        String plain = text(PreprocessorVariables.write(palette, language)).replaceAll("(?m)^//= .*\\R", "");
        Map<String, Setting> read = byKey(
                PreprocessorVariables.read(utf8(plain), file(language), "p").settings());
        for (String key : List.of(
                "ink",
                "ink-copy",
                "ink-lighter",
                "sky",
                "height",
                "weight",
                "shade",
                "room",
                "edge",
                "lift",
                "banner")) {
            assertThat(read.get(key).given())
                    .as(key)
                    .isEqualTo(
                            palette.known(key).given() instanceof Given.Follows f && !(f.how() instanceof Given.Same)
                                    ? new Given.Fixed(Effective.defaults(palette, Media.NONE)
                                            .value(palette.known(key), Bands.USUAL.widest()))
                                    : palette.known(key).given());
        }
    }

    @Test
    void aValueThatSomebodyChangedInTheFileCountsWithTheLimitsThatItHad() {
        Palette palette = Specimens.palette();
        String written = text(PreprocessorVariables.write(palette, PreprocessorVariables.Language.SCSS));
        String changed = written.replaceFirst("(?m)^\\$ink: [^;]*;", "\\$ink: #0a0b0c;")
                .replaceFirst("(?m)^\\$height: [^;]*;", "\\$height: blue;")
                .replaceFirst("(?m)^\\$weight: .*\\R", "")
                .replaceFirst("(?m)^//= \\{\"key\":\"sky\".*$", "//= {nonsense");
        PreprocessorVariables.Read read = PreprocessorVariables.read(utf8(changed), "_s.scss", "p", palette.bands());
        Map<String, Setting> byKey = byKey(read.settings());
        assertThat(byKey.get("ink")).isEqualTo(palette.known("ink").withGiven(new Given.Fixed(Value.of("#0a0b0c"))));
        assertThat(byKey).doesNotContainKeys("height", "weight");
        assertThat(byKey.get("sky").place()).isEqualTo("p");
        assertThat(read.faults())
                .anyMatch(f -> f.matches("_s.scss, line \\d+, \\$height: “blue” is no length\\..*"))
                .anyMatch(f -> f.contains("is not JSON; it is left aside"))
                .hasSize(2);
    }

    @Test
    void expressionsAreReportedWithTheirLineAndValuesInsideOfBlocksAreNone() {
        PreprocessorVariables.Read read = PreprocessorVariables.read(
                utf8(
                        "// $no: red;\n$a: #123456 !default;\r\n$b: darken($a, 10%);\n/* $c: 1px;\n*/ $d: $a;\n$e: (x: 1, y: 2);\n.x { $f: 2px; }\n"
                                + "@mixin m { $g: 1 }\n$h: $gap * 2;\n$i: \"a;b // c\";\n$j: $nowhere;\n@media: x;\n$a: #fff;"),
                "_v.scss",
                "p");
        assertThat(read.settings()).extracting(Setting::key).containsExactly("d", "i", "a");
        assertThat(read.faults())
                .anyMatch(f -> f.startsWith("_v.scss, line 3, $b: ") && f.contains("computed by the build"))
                .anyMatch(f -> f.startsWith("_v.scss, line 6, $e: "))
                .anyMatch(f -> f.contains("line 9, $h"))
                .anyMatch(f -> f.contains("line 11, $j"))
                .anyMatch(f -> f.contains("line 13, $a: it is set twice"));
    }

    // Schemas

    @Test
    void theSchemaOfPaletteJsonIsASchemaAndTakesWhatWeWrite() {
        String schema = text(SettingSchemas.palette());
        assertThat(META.validate(schema, InputFormat.JSON)).isEmpty();
        String written = text(PaletteJson.write(Specimens.palette(), null));
        assertThat(SCHEMAS.getSchema(schema, InputFormat.JSON).validate(written, InputFormat.JSON))
                .isEmpty();
    }

    @Test
    void theExampleInTheDocumentsIsTheOneThatIsTested() throws java.io.IOException {
        assertThat(java.nio.file.Path.of("../docs/formats/example.palette.json"))
                .hasBinaryContent(PaletteJson.write(Specimens.palette(), null));
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "\"kind\": \"color\"|\"kind\": \"colour\"",
                "\"unit\": \"vh\"|\"unit\": \"parsec\"",
                "\"label\": \"Label of ink\"|\"label\": 7",
                "\"lighter\": 20|\"lighter\": 200",
                "\"places\": [|\"places\": [7,",
                "\"mostStops\": 4|\"mostStops\": 40",
                "\"opacity\": 40|\"brighter\": 40",
                "\"default\": \"#202020\"|\"default\": 7",
                "\"css\": \"center\"|\"css\": \"center;}\""
            })
    void theSchemaRefusesWhatTheReaderReports(String change) {
        String[] c = change.split("\\|");
        String written = text(PaletteJson.write(Specimens.palette(), null));
        String bad = written.replace(c[0], c[1]);
        assertThat(bad).isNotEqualTo(written);
        assertThat(SCHEMAS.getSchema(text(SettingSchemas.palette()), InputFormat.JSON)
                        .validate(bad, InputFormat.JSON))
                .isNotEmpty();
        assertThat(PaletteJson.read(utf8(bad), "x").faults()).isNotEmpty();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '`',
            value = {
                "{} | true",
                "{\"ink\":\"#000\"} | true",
                "{\"ink\":{\"everywhere\":\"#000\",\"bands\":{\"phone\":\"#fff\"}}} | true",
                "{\"ink\":{\"bands\":{\"watch\":\"#fff\"}}} | false",
                "{\"gone\":1} | false",
                "{\"height\":{\"value\":30,\"unit\":\"vh\"}} | false",
                "{\"logo\":\"img/b.png\"} | true",
                "{\"logo\":\"img/c.png\"} | false",
                "{\"ground\":{\"bands\":{\"phone\":\"#fff\"}}} | false"
            })
    void theSchemaOfAThemesValuesTakesWhatTheThemeTakes(String json, boolean good) {
        var theme = Themes.of(
                "palette.json",
                text(PaletteJson.write(Specimens.palette(), null)),
                "index.html",
                "",
                "img/a.png",
                "",
                "img/b.png",
                "",
                "film/a.mp4",
                "");
        String schema = text(SettingSchemas.values(theme));
        assertThat(META.validate(schema, InputFormat.JSON)).isEmpty();
        assertThat(SCHEMAS.getSchema(schema, InputFormat.JSON)
                        .validate(json, InputFormat.JSON)
                        .isEmpty())
                .isEqualTo(good);
        assertThat(Effective.of(theme.palette(), Chosen.readAll(utf8(json), "f"), theme.media())
                        .leftOut()
                        .isEmpty())
                .isEqualTo(good);
        assertThat(theme.palette().places()).contains(new Place("p", "P"));
    }
}

package org.calmpalette.cli;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import com.networknt.schema.InputFormat;
import com.networknt.schema.SchemaRegistry;
import com.networknt.schema.SpecificationVersion;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.calmpalette.core.promise.Promise;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

class CalmTest {
    @TempDir
    Path folder;

    private record Answer(int exit, String out) {
        JsonNode json() {
            return JsonMapper.shared().readTree(out);
        }
    }

    private static synchronized Answer calm(String... arguments) {
        PrintStream before = System.out;
        PrintStream errors = System.err;
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        System.setOut(new PrintStream(bytes, true, StandardCharsets.UTF_8));
        System.setErr(System.out);
        try {
            int exit = Calm.run(arguments);
            return new Answer(exit, bytes.toString(StandardCharsets.UTF_8));
        } finally {
            System.setOut(before);
            System.setErr(errors);
        }
    }

    private String file(String name, String text) throws IOException {
        Files.createDirectories(folder.resolve(name).getParent());
        return Files.writeString(folder.resolve(name), text).toString();
    }

    @Test
    void contrastAnswersOneQuestionOrManyInOrder() throws IOException {
        assertThat(calm("contrast", "black", "white").out()).isEqualTo("21.00 to 1\n");
        assertThat(calm("contrast", "--json", "black", "#fff")
                        .json()
                        .get("ratio")
                        .asDouble())
                .isEqualTo(21);
        Answer many = calm(
                "contrast",
                "--cases",
                file(
                        "cases",
                        """
        {"text": "#000", "layers": ["rgb(255 255 255 / 50%)", "#000"]}
        {"text": "#000", "layers": ["#fff8"]}
        {"text": "white", "layers": ["white"]}
        """));
        assertThat(many.exit()).isEqualTo(2);
        assertThat(many.out().lines()).hasSize(3);
        assertThat(many.out().lines().toList().get(1)).contains("error").contains("opaque");
        assertThat(many.out().lines().toList().get(2)).isEqualTo("{\"ratio\":1.0}");
        assertThat(calm("contrast", "blu", "white")).satisfies(a -> {
            assertThat(a.exit()).isEqualTo(2);
            assertThat(a.out()).contains("“blu” is not a colour");
        });
    }

    @Test
    void surveyTellsWhatStandsWhere() throws IOException {
        file("t/css/a.css", "a { color: #FFF; background: url(../gone.png) }\n\nb { color: white");
        file("t/index.html", "<link rel=stylesheet href=css/a.css>");
        JsonNode json = calm("survey", "--json", folder.resolve("t").toString()).json();
        assertThat(json.get("stylesheets").get(0).toString())
                .startsWith("{\"file\":\"css/a.css\",\"bytes\":65,\"rules\":2,\"declarations\":3,")
                .contains("\"role\":\"own\"", "\"matches-nothing\":3");
        JsonNode white = json.get("colors").get(0);
        assertThat(white.get("value").asString()).isEqualTo("#ffffff");
        assertThat(white.get("count").asInt()).isEqualTo(2);
        assertThat(white.get("uses").get(1).get("line").asInt()).isEqualTo(3);
        assertThat(json.get("pictures").get(0).get("exists").asBoolean()).isFalse();
        assertThat(json.get("findings").findValuesAsString("kind"))
                .containsExactlyInAnyOrder("syntax", "unasked-picture");
        assertThat(calm("survey", folder.resolve("nowhere").toString()).exit()).isEqualTo(2);
    }

    @Test
    void buildWritesAThemeThatCarriesItsValues() throws IOException {
        file("t/index.html", "<link rel=stylesheet href=a.css><p>x");
        file("t/a.css", "p{color:var(--ink, red)}");
        file(
                "t/palette.json",
                "{\"places\":[{\"key\":\"p\",\"label\":\"P\"}],\"settings\":[{\"key\":\"ink\",\"label\":\"Ink\","
                        + "\"kind\":\"color\",\"place\":\"p\",\"default\":\"red\"}]}");
        Path out = folder.resolve("out");
        Answer answer = calm(
                "build",
                folder.resolve("t").toString(),
                "--values",
                file("v.json", "{\"ink\": \"blue\", \"gone\": \"red\"}"),
                "--out",
                out.toString(),
                "--json");
        assertThat(answer.json().get("leftOut").get(0).get("key").asString()).isEqualTo("gone");
        assertThat(out.resolve("palette.css")).hasContent(":root {\n  --ink: #0000ff;\n}\n");
        assertThat(out.resolve("index.html")).content().startsWith("<link rel=\"stylesheet\" href=\"settings.css\">");
        assertThat(calm("build", folder.resolve("t").toString(), "--out", out.toString())
                        .out())
                .contains("not empty");
    }

    /** The example in docs/formats has every kind, band values, every way of following, a condition and a scheme. */
    @Test
    void everyKindIsBuiltTheSameEachTimeAndOnlyDifferencesAreWritten() throws IOException {
        String palette = Files.readString(Path.of("../docs/formats/example.palette.json"));
        for (String picture : new String[] {"img/a.png", "img/b.png", "film/a.mp4"}) {
            file("k/" + picture, "");
        }
        file(
                "k/index.html",
                "<link rel=stylesheet href=css/a.css><h1 data-setting-text=heading>x</h1><p data-setting-show=banner>y");
        file("k/css/a.css", "h1{color:var(--ink-readable,#fff);height:var(--height,72vh)}");
        file("k/palette.json", palette);
        String values = file(
                "kv.json",
                "{\"ink\": {\"everywhere\": \"#ffffff\", \"bands\": {\"tablet\": \"#000000\"}}, \"height\": {\"value\": 250, \"unit\": \"px\"},"
                        + " \"heading\": \"Cross the mere & back\", \"ground\": \"#000\"}");
        for (String out : new String[] {"o1", "o2"}) {
            assertThat(calm(
                                    "build",
                                    folder.resolve("k").toString(),
                                    "--values",
                                    values,
                                    "--out",
                                    folder.resolve(out).toString(),
                                    "--json")
                            .json()
                            .get("leftOut")
                            .toString())
                    .contains("ground")
                    .contains("Beside “ink”");
        }
        try (var all = Files.walk(folder.resolve("o1"))) {
            for (Path p : all.filter(Files::isRegularFile).toList()) {
                assertThat(folder.resolve("o2").resolve(folder.resolve("o1").relativize(p)))
                        .hasSameBinaryContentAs(p);
            }
        }
        assertThat(folder.resolve("o1/palette.css"))
                .content()
                .contains("@media (width >= 768px) {\n  :root {\n    --height: 250px;")
                .contains("--ink: #ffffff;\n    --ink-copy: #ffffff;")
                .contains("--ink-readable: #111111;")
                .doesNotContain("--weight")
                .doesNotContain("--ground");
        assertThat(folder.resolve("o1/index.html"))
                .content()
                .contains("data-setting-in=\"phone\">Cross &lt;it&gt;</h1>")
                .contains("data-setting-hidden=\"phone\"");
        assertThat(calm("export", folder.resolve("k").toString(), "--as", "settings.scss")
                        .out())
                .contains("$ink-copy: $ink; // Label of ink-copy");
        assertThat(calm("export", folder.resolve("k").toString(), "--as", "tokens")
                        .exit())
                .isEqualTo(2);
    }

    @Test
    void backgroundTellsWhereTheTilesLand() throws IOException {
        assertThat(calm(
                                "background",
                                "--box",
                                "400x300",
                                "--picture",
                                "200x100",
                                "--size",
                                "cover",
                                "--position",
                                "50% 50%")
                        .out())
                .isEqualTo(
                        "tile     600 by 300 at -100, 0\nstep     600, 300\npainted  100 %\nshown    133.333 by 100 of the picture, from 33.333, 0\nscale    3, 3\n");
        JsonNode json = calm(
                        "background",
                        "--json",
                        "--box",
                        "400x300",
                        "--picture",
                        "16:9",
                        "--size",
                        "auto 90px",
                        "--repeat",
                        "no-repeat")
                .json();
        assertThat(json.get("tile").get("width").asDouble()).isEqualTo(160);
        assertThat(json.get("painted").asDouble()).isEqualTo(160.0 * 90 / 400 / 300);
        Answer many = calm(
                "background",
                "--cases",
                file(
                        "boxes",
                        """
        {"box": {"width": 400, "height": 300}, "border": [1, 2], "padding": "5px", "origin": "content-box", "picture": [20, 10]}
        {"box": "400x300", "picture": "none", "size": "50%"}
        {"box": "400", "picture": "1x1"}
        {"box": "4x4", "picture": "1x1", "size": "3em"}
        {"box": "4x4", "picture": "1x1", "repeat": "sometimes"}
        {"box": "4x4", "picture": "1x1", "border": "1px -2px"}
        {"box": "0x0", "picture": "0x0", "size": "cover"}
        """));
        assertThat(many.exit()).isEqualTo(2);
        List<JsonNode> lines =
                many.out().lines().map(l -> JsonMapper.shared().readTree(l)).toList();
        assertThat(lines.get(0).get("tile").get("x").asDouble()).isEqualTo(5);
        assertThat(lines.get(1).get("tile").get("width").asDouble()).isEqualTo(200);
        assertThat(lines.get(2).get("error").asString()).contains("--box").contains("1440x600");
        assertThat(lines.get(3).get("error").asString()).contains("3em").contains("pixels or percentages");
        assertThat(lines.get(4).get("error").asString()).contains("sometimes");
        assertThat(lines.get(5).get("error").asString()).contains("--border");
        assertThat(lines.get(6).get("painted").asDouble()).isZero();
    }

    @Test
    void pictureTellsWhatAPictureIs() throws IOException {
        java.awt.image.BufferedImage image =
                new java.awt.image.BufferedImage(30, 20, java.awt.image.BufferedImage.TYPE_INT_RGB);
        Path file = folder.resolve("black.png");
        javax.imageio.ImageIO.write(image, "png", file.toFile());
        JsonNode told = calm("picture", file.toString(), "--json").json();
        assertThat(told.path("format").asString()).isEqualTo("png");
        assertThat(told.path("width").intValue()).isEqualTo(30);
        assertThat(told.path("orientation").intValue()).isEqualTo(1);
        assertThat(told.path("bytes").longValue()).isEqualTo(Files.size(file));
        assertThat(told.path("alpha").booleanValue()).isFalse();
        assertThat(told.path("colors").get(0).path("value").asString()).isEqualTo("#000000");
        assertThat(told.path("colors").get(0).path("share").doubleValue()).isEqualTo(1);
        assertThat(calm("picture", folder.resolve("none.png").toString()).exit())
                .isEqualTo(2);
    }

    @Test
    void familyTellsWhatWasComputedAndWhatItBecomes() throws IOException {
        Path sheet = folder.resolve("brand.css");
        Files.writeString(sheet, "a{background:#b03a2e;color:#fff}\na:hover{background:#8d2e25}\np{color:#808080}");
        JsonNode told = calm("family", sheet.toString(), "--color", "#b03a2e", "--to", "#2e7d32", "--json")
                .json()
                .path("relatives");
        assertThat(told.size()).isEqualTo(2);
        assertThat(told.get(0).path("derivation").asString()).isEqualTo("same");
        assertThat(told.get(0).path("to").asString()).isEqualTo("#2e7d32");
        assertThat(told.get(1).path("line").intValue()).isEqualTo(2);
        assertThat(told.get(1).path("property").asString()).isEqualTo("background");
        assertThat(told.get(1).path("written").asString()).isEqualTo("#8d2e25");
        assertThat(told.get(1).path("derivation").asString()).isEqualTo("20% black");
        assertThat(told.get(1).path("fit").doubleValue()).isLessThan(0.002);
        assertThat(told.get(1).path("to").asString()).isEqualTo("#256428");
        assertThat(calm("family", sheet.toString()).exit()).isEqualTo(2);
        assertThat(calm("family", sheet.toString(), "--color", "brandish").exit())
                .isEqualTo(2);
        Path cases = folder.resolve("cases.jsonl");
        Files.writeString(
                cases,
                "{\"path\": \"" + sheet + "\", \"color\": \"#b03a2e\"}\n{\"path\": \"nowhere\", \"color\": \"red\"}\n");
        Answer answers = calm("family", "--cases", cases.toString());
        assertThat(answers.exit()).isEqualTo(2);
        assertThat(JsonMapper.shared()
                        .readTree(answers.out().lines().toList().get(0))
                        .path("relatives")
                        .size())
                .isEqualTo(3);
        assertThat(JsonMapper.shared()
                        .readTree(answers.out().lines().toList().get(1))
                        .path("error")
                        .asString())
                .contains("nowhere");
    }

    @Test
    void checkTellsWhatIsKeptAndTheCaseThatBreaksIt() throws IOException {
        file(
                "t/index.html",
                "<!doctype html><html><head><link rel=stylesheet href=a.css></head><body><h1>One</h1><p>Two</p><q>Three</q></body></html>");
        file(
                "t/a.css",
                "body { background: #ffffff } h1 { color: #000000 } p { color: var(--ink) } q { filter: blur(1px) }");
        file(
                "t/palette.json",
                "{\"places\":[{\"key\":\"p\",\"label\":\"P\"}],\"settings\":[{\"key\":\"ink\",\"label\":\"Ink\",\"kind\":\"color\","
                        + "\"place\":\"p\",\"default\":\"#000000\",\"allowed\":{\"swatches\":[\"#000000\",\"#999999\"]}}]}");
        Answer answer = calm("check", folder.resolve("t").toString(), "--json");
        assertThat(answer.exit()).isEqualTo(1);
        JsonNode promises = answer.json().get("promises");
        assertThat(promises.findValuesAsString("state"))
                .startsWith("broken", "unproven")
                .endsWith("kept", "kept");
        assertThat(promises.valueStream()
                        .map(p -> p.get("promise").asString() + " "
                                + p.get("subject").asString() + " "
                                + p.get("state").asString()))
                .contains(
                        "readable p broken",
                        "readable q unproven",
                        "readable h1 kept",
                        "whole html kept",
                        "still html kept",
                        "sharp theme kept",
                        "fits theme unproven",
                        "effective ink kept",
                        "sound ink kept");
        assertThat(promises.get(0).get("case").get("settings").toString()).isEqualTo("{\"ink\":\"#999999\"}");
        // (1 + 0.05) / (0.3185 + 0.05) by WCAG 2.2, relative luminance of #999999.
        assertThat(promises.get(0).get("worst").doubleValue()).isCloseTo(2.849, within(0.001));
        assertThat(promises.valueStream()
                        .filter(p -> p.get("subject").asString().equals("h1"))
                        .map(p -> p.get("worst").doubleValue()))
                .containsExactly(21.0);
        assertThat(calm("check", folder.resolve("t").toString()).out())
                .contains("2.84 to 1 at 320 px, 4.5 is needed, with ink #999999", "1 kept, 1 broken, 1 not decided");
        Path junit = folder.resolve("j.xml");
        Path sarif = folder.resolve("s.sarif");
        assertThat(calm(
                                "check",
                                folder.resolve("t").toString(),
                                "--junit",
                                junit.toString(),
                                "--sarif",
                                sarif.toString())
                        .exit())
                .isEqualTo(1);
        assertThat(Files.readString(junit))
                .contains(
                        "<testsuite name=\"readable\" tests=\"3\" failures=\"1\" skipped=\"1\">",
                        "file=\"index.html\" line=\"1\"",
                        "<failure message=\"2.84 to 1 at 320 px");
        assertThat(SchemaRegistry.withDefaultDialect(SpecificationVersion.DRAFT_7)
                        .getSchema(CalmTest.class.getResourceAsStream("/schema/sarif-schema-2.1.0.json"))
                        .validate(Files.readString(sarif), InputFormat.JSON))
                .as("by the schema of SARIF 2.1.0 that OASIS published")
                .isEmpty();
        JsonNode run = JsonMapper.shared()
                .readTree(Files.readString(sarif))
                .get("runs")
                .get(0);
        assertThat(run.get("results").findValuesAsString("kind")).startsWith("fail", "open");
        assertThat(run.get("results").get(0).toString()).contains("\"uri\":\"index.html\"", "\"startLine\":1");
        assertThat(run.get("tool").get("driver").get("rules")).hasSize(Promise.values().length);
        assertThat(calm(
                                "check",
                                folder.resolve("t").toString(),
                                "--junit",
                                folder.resolve("none/j.xml").toString())
                        .exit())
                .isEqualTo(2);
        Files.writeString(folder.resolve("t/a.css"), "body { background: #ffffff }");
        Files.delete(folder.resolve("t/palette.json"));
        assertThat(calm("check", folder.resolve("t").toString()).exit()).isZero();
        Path sheet = Files.writeString(folder.resolve("alone.css"), "p { color: red }");
        assertThat(calm("check", sheet.toString()).exit())
                .as("a sheet has no text")
                .isEqualTo(2);
        assertThat(calm("check", folder.resolve("nowhere").toString()).exit()).isEqualTo(2);
    }

    @Test
    void surveyTakesMeasuresOfThePageAsItIs() throws IOException {
        Path theme = Files.createDirectory(folder.resolve("measured"));
        Files.writeString(
                theme.resolve("index.html"),
                "<!doctype html><html><head><link rel=stylesheet href=a.css></head><body><p>Words</p></body></html>");
        Files.writeString(theme.resolve("a.css"), "p { color: #777; background: linear-gradient(#777, #000) }");
        var read = org.calmpalette.core.intake.ThemeFolder.read(theme);
        String layout = new org.calmpalette.core.render.LayoutKey.Keys(new org.calmpalette.core.render.Rendered(read))
                .of(read.pages().get(0));
        String measures =
                "{\"format\":\"calm-measures/1\",\"page\":\"index.html\",\"layout\":\"%s\",\"windowHeight\":800,\"from\":320,\"to\":2560,\"unsure\":[],\"height\":[[320,400]],"
                        + "\"boxes\":{\"1\":[[320,0,0,320,400]],\"4\":[[320,0,0,320,400]],\"5\":[[320,0,0,320,30]]},\"lines\":{\"5\":[[320,0,5,60,20]]}}";
        Path file = Files.writeString(folder.resolve("m.json"), measures.formatted(layout));
        assertThat(calm("survey", theme.toString(), "--measures", file.toString())
                        .out())
                .contains("[text-on-picture] “Words” is hard to read on what is behind it");
        assertThat(calm("survey", theme.toString()).out()).doesNotContain("text-on-picture");
        Files.writeString(file, measures.formatted("another"));
        assertThat(calm("survey", theme.toString(), "--measures", file.toString())
                        .exit())
                .as("measured before the page was changed")
                .isEqualTo(2);
    }
}

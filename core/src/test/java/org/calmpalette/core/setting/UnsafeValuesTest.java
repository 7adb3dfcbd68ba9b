package org.calmpalette.core.setting;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.css.Stylesheet;
import org.calmpalette.core.output.ThemeBuild;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.ThemeFiles;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Values that would reach beyond themselves. */
class UnsafeValuesTest {
    @ParameterizedTest
    @ValueSource(
            strings = {
                "\"unfinished",
                "'unfinished",
                "url(unfinished",
                "url(\"x\"",
                "ends\\",
                "(]",
                "[)",
                "([)]",
                "a)",
                "(a",
                "/* open",
                "a;b",
                "{}",
                "a!important",
                "<!--",
                "\"line\nend\"",
                ""
            })
    void whatDoesNotEndWithItselfIsNoValue(String css) {
        assertThat(ChoiceKind.isSafe(css)).isFalse();
    }

    /** The same seen from outside: after each value that is taken, the next declaration of the sheet is still there. */
    @ParameterizedTest
    @ValueSource(
            strings = {
                "center",
                "calc(1px + (2px * [3]))",
                "\"a;b\"",
                "url(a.png)",
                "url(\"a b.png\")",
                "\\66 oo",
                "a, b",
                "[row] 1fr"
            })
    void whatIsTakenSwallowsNothing(String css) {
        assertThat(ChoiceKind.isSafe(css)).isTrue();
        Stylesheet sheet =
                Stylesheet.read("s.css", (":root { --a: " + css + "; --b: 1 }").getBytes(StandardCharsets.UTF_8));
        List<String> names = new java.util.ArrayList<>();
        sheet.eachDeclaration((d, around) -> names.add(d.property()));
        assertThat(names).containsExactly("--a", "--b");
    }

    @Test
    void yesOrNoIsOneOfTheTwo() {
        for (String junk : List.of("", "maybe", "TRUE", "1", "on")) {
            assertThatThrownBy(() -> YesNoKind.PLAIN.read(field -> junk))
                    .as(junk)
                    .isInstanceOf(BadInputException.class);
        }
        assertThat(YesNoKind.PLAIN.read(field -> "false")).isEqualTo(Value.of(false));
    }

    @Test
    void aLinkToAPageLeadsToAPageThatIsThere() {
        TreeMap<String, byte[]> files = new TreeMap<>();
        files.put("index.html", "<p>".getBytes(StandardCharsets.UTF_8));
        files.put("piers/index.html", "<p>".getBytes(StandardCharsets.UTF_8));
        files.put("fares.pdf", new byte[1]);
        Theme theme = Theme.read(ThemeFiles.of(files), "T");
        Kind pages = new LinkKind(List.of("page"));
        Kind.Around around = new Effective.MediaOnly(theme.media());
        for (String good : List.of(
                "index.html", "index.html#top", "index.html?a=1#b", "piers/", "piers/index.html", "fares.pdf")) {
            assertThat(pages.refusal(Value.of(good), around)).as(good).isEmpty();
        }
        for (String bad : List.of(
                "sub///host/x",
                "//host/x",
                "gone.html",
                "../index.html",
                "index.html\u0000",
                "\u202eindex.html",
                "index\u200b.html",
                "https://host.invalid/",
                "javascript:x",
                "#top",
                "in dex.html",
                "index.html#\u2066x")) {
            assertThat(pages.refusal(Value.of(bad), around)).as(bad).isPresent();
            if (!bad.equals("gone.html")) {
                assertThat(pages.refusal(Value.of(bad), Kind.Around.NOTHING))
                        .as(bad + ", wherever")
                        .isPresent();
            }
        }
    }

    @Test
    void namesHaveALimit() {
        String x = "x".repeat(81);
        assertThatThrownBy(() -> new Place("p", x))
                .isInstanceOf(BadInputException.class)
                .hasMessageContaining("too long");
        assertThatThrownBy(() -> new Place("p", " "))
                .isInstanceOf(BadInputException.class)
                .hasMessageContaining("empty");
        assertThatThrownBy(() -> new Scheme("s", x, Map.of())).isInstanceOf(BadInputException.class);
        String json = "{\"name\":\"" + "n".repeat(121) + "\",\"places\":[{\"key\":\"p\",\"label\":\"" + x
                + "\"}],\"schemes\":[{\"key\":\"s\",\"label\":\"" + x + "\",\"values\":{}}]}";
        Palette palette = PaletteJson.read(json.getBytes(StandardCharsets.UTF_8), "Mine");
        assertThat(palette.name()).isEqualTo("Mine");
        assertThat(palette.faults()).extracting(Palette.Fault::at).contains("name", "places[0]", "schemes[0]");
        StringBuilder many = new StringBuilder("{");
        for (int i = 0; i < 5_000; i++) {
            many.append("\"k").append(i).append("\":1,");
        }
        assertThat(PaletteJson.read((many + "\"settings\":[]}").getBytes(StandardCharsets.UTF_8), "T")
                        .faults())
                .hasSize(51)
                .last()
                .satisfies(f -> assertThat(f.what()).contains("4950 more"));
    }

    @Test
    void choicesForMoreSettingsThanAThemeHasAreNotRead() {
        StringBuilder many = new StringBuilder("{");
        for (int i = 0; i <= 2 * Palette.MOST_SETTINGS; i++) {
            many.append(i == 0 ? "" : ",").append("\"k").append(i).append("\":1");
        }
        assertThatThrownBy(() -> Chosen.readAll((many + "}").getBytes(StandardCharsets.UTF_8), "mine.json"))
                .isInstanceOf(BadInputException.class)
                .hasMessageContaining("mine.json")
                .hasMessageContaining("2401");
    }

    @Test
    void aThemeOfAnotherMakerWithTheSameFilesHasItsOwnName() {
        TreeMap<String, byte[]> files = new TreeMap<>(Map.of("index.html", "<p>".getBytes(StandardCharsets.UTF_8)));
        assertThat(new String(
                        ThemeBuild.build(Theme.read(ThemeFiles.of(files), "Harrow"), null)
                                .files()
                                .get("palette.json"),
                        StandardCharsets.UTF_8))
                .contains("Harrow");
    }
}

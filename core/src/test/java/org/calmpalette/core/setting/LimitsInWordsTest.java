package org.calmpalette.core.setting;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.calmpalette.core.BadInputException;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import tools.jackson.databind.json.JsonMapper;

/** Limits are refused where they contradict themselves, and told in words where they hold. */
class LimitsInWordsTest {
    /** A default of each kind that no limit here stands against. */
    private static final Map<String, String> PLAIN = Map.ofEntries(
            Map.entry("picture", "\"img/a.png\""),
            Map.entry("number", "3"),
            Map.entry("percentage", "7"),
            Map.entry("length", "{\"value\":3,\"unit\":\"px\"}"),
            Map.entry("color", "\"#000000\""),
            Map.entry("link", "\"index.html\""),
            Map.entry("line", "\"abc\""),
            Map.entry("text", "\"abc\""),
            Map.entry("level", "2"),
            Map.entry("choice", "\"a\""),
            Map.entry(
                    "gradient",
                    "{\"shape\":\"linear\",\"angle\":90,\"stops\":[{\"color\":\"#000\",\"at\":0},{\"color\":\"#fff\",\"at\":100}]}"),
            Map.entry("yes-no", "true"),
            Map.entry("video", "{\"src\":\"film/a.mp4\",\"poster\":\"img/a.png\"}"),
            Map.entry("border", "{\"width\":{\"value\":1,\"unit\":\"px\"},\"style\":\"solid\",\"color\":\"#000\"}"));

    @Test
    void withoutLimitsEachDefaultIsTaken() {
        PLAIN.keySet().stream()
                .filter(k -> !k.equals("choice"))
                .forEach(k -> assertThat(kind(k, "{}").name()).isEqualTo(k));
    }

    private static Kind kind(String name, String allowed) {
        String json =
                "{\"format\":\"calm-palette/1\",\"places\":[{\"key\":\"p\",\"label\":\"P\"}],\"settings\":[{\"key\":\"k\",\"label\":\"K\",\"kind\":\""
                        + name + "\",\"place\":\"p\",\"default\":" + PLAIN.get(name) + ",\"allowed\":" + allowed
                        + "}]}";
        assertThat(JsonMapper.shared().readTree(json)).isNotNull();
        Palette palette = PaletteJson.read(json.getBytes(java.nio.charset.StandardCharsets.UTF_8), "T");
        if (!palette.faults().isEmpty()) {
            throw new BadInputException(
                    palette.faults().get(0).message(), palette.faults().get(0).mend());
        }
        return palette.settings().get(0).kind();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "picture | {\"leastHeight\":-1}",
                "picture | {\"shape\":{\"from\":3,\"to\":2}}",
                "picture | {\"formats\":[\"bmp\"]}",
                "picture | {\"formats\":7}",
                "number | {\"least\":5,\"most\":1}",
                "number | {\"step\":0}",
                "number | {\"step\":-1}",
                "number | {\"least\":\"a\"}",
                "percentage | {\"least\":10,\"most\":5}",
                "length | {\"units\":[{\"unit\":\"parsec\"}]}",
                "color | {\"swatches\":[\"blu\"]}",
                "color | {\"swatches\":7}",
                "color | {\"contrast\":[{\"with\":\"#fff\",\"atLeast\":30}]}",
                "color | {\"contrast\":[{\"atLeast\":3}]}",
                "color | {\"alpha\":7}",
                "link | {\"targets\":[\"moon\"]}",
                "line | {\"least\":9,\"most\":2}",
                "line | {\"most\":-1}",
                "text | {\"rows\":99999}",
                "level | {\"least\":4,\"most\":2}",
                "level | {\"least\":0}",
                "level | {\"most\":9}",
                "choice | {}",
                "choice | {\"options\":[]}",
                "choice | {\"options\":[{\"css\":\"a\"},{\"css\":\"a\"}]}",
                "gradient | {\"mostStops\":1}",
                "yes-no | {\"on\":\"a;b\"}",
                "video | {\"none\":7}",
                "border | {\"styles\":[\"wavy\"]}"
            })
    void limitsThatCannotBeAreRefusedWithTheirPlace(String kind, String allowed) {
        assertThatThrownBy(() -> kind(kind, allowed))
                .as(kind + " " + allowed)
                .isInstanceOf(BadInputException.class)
                .hasMessageContaining("settings[0]");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "'' | a page, an anchor, a web, mail or phone address",
                "page web | page, web address",
                "mail | mail address"
            })
    void linksInWords(String targets, String words) {
        assertThat(Kinds.read(
                                "link",
                                Value.parts(
                                        "targets",
                                        Value.of(targets.isEmpty() ? List.of() : List.of(targets.split(" ")))))
                        .inWords())
                .isEqualTo(words);
    }

    @ParameterizedTest
    @CsvSource({
        "page,index.html",
        "anchor,#",
        "web,https://example.org/",
        "mail,mailto:name@example.org",
        "phone,tel:+100"
    })
    void anEmptyLinkSettingBeginsWithWhatItTakes(String target, String initial) {
        Kind kind = Kinds.read("link", Value.parts("targets", Value.of(List.of(target))));
        assertThat(kind.initial()).isEqualTo(Value.of(initial));
        assertThat(kind.refusal(kind.initial(), Kind.Around.NOTHING)).isEmpty();
        for (String other : List.of("index.html", "#x", "https://example.org/", "mailto:a@b.c", "tel:+123")) {
            boolean same = initial.replaceAll("[:#].*", "").equals(other.replaceAll("[:#].*", ""));
            assertThat(kind.refusal(Value.of(other), Kind.Around.NOTHING).isEmpty())
                    .as(target + " " + other)
                    .isEqualTo(same);
        }
    }

    @Test
    void linksToPagesLeadToThoseThatAreThere() {
        Kind kind = kind("link", "{\"targets\":[\"page\"]}");
        Kind.Around theme = new Kind.Around() {
            @Override
            public Optional<Value> value(String key) {
                return Optional.empty();
            }

            @Override
            public Optional<MediaFacts> media(String path) {
                return Optional.empty();
            }

            @Override
            public boolean knowsFiles() {
                return true;
            }

            @Override
            public boolean hasFile(String path) {
                return Set.of("piers.html", "deep/index.html").contains(path);
            }
        };
        assertThat(kind.refusal(Value.of("piers.html?a#b"), theme)).isEmpty();
        assertThat(kind.refusal(Value.of("deep/"), theme)).isEmpty();
        assertThat(kind.refusal(Value.of("deep"), theme)).isEmpty();
        assertThat(kind.refusal(Value.of("gone.html"), theme).map(Refusal::words))
                .hasValue("The theme has no page “gone.html”.");
        assertThat(kind.refusal(Value.of("x".repeat(2_500) + ".html"), theme).map(Refusal::words))
                .hasValueSatisfying(w -> assertThat(w).contains("…").contains("page"));
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "sub///host/x",
                "//host/x",
                "javascript:alert(1)",
                "a\u202eb.html",
                "a\u0000b",
                "data:text/html,x",
                "../../x",
                " x"
            })
    void linksThatLeadAwayUnseenAreNone(String link) {
        assertThat(kind("link", "{}").refusal(Value.of(link), Kind.Around.NOTHING))
                .as(link)
                .isPresent();
    }

    /** Names of places and schemes are limited where they are made, whoever makes them. */
    @Test
    void namesHaveALength() {
        String most = "x".repeat(Place.LONGEST);
        assertThat(new Scheme("k", most, Map.of()).label()).isEqualTo(most);
        assertThat(new Place(most, "Header").key()).isEqualTo(most);
        for (String[] bad :
                new String[][] {{"k", ""}, {"k", "  "}, {"", "Autumn"}, {"k", most + "x"}, {most + "x", "Autumn"}}) {
            String told = bad[1].isBlank() || bad[0].isEmpty() ? "is empty" : "is too long";
            assertThatThrownBy(() -> new Scheme(bad[0], bad[1], Map.of())).hasMessageContaining(told);
            assertThatThrownBy(() -> new Place(bad[0], bad[1])).hasMessageContaining(told);
        }
        assertThatThrownBy(() -> new Place("k", "y".repeat(500)))
                .hasMessageContaining("y".repeat(40) + "…”")
                .satisfies(e -> assertThat(e.getMessage().length()).isLessThan(200));
        assertThat(Place.keyOf("Boats & piers!")).isEqualTo("boats-piers");
        assertThat(Place.keyOf("!!")).isEqualTo("place");
    }

    @Test
    void twoValuesOfAYesNo() {
        Kind kind = Kinds.read("yes-no", Value.parts("yes", "block", "no", "none"));
        assertThat(kind.css(Value.of(true), a -> a)).containsValue("block");
        assertThat(kind.readCss(" none ")).hasValue(Value.of(false));
        assertThat(kind.readCss("block")).hasValue(Value.of(true));
        assertThat(kind.readCss("grid")).isEmpty();
        assertThat(kind.words(Value.of(true)) + kind.words(Value.of(false))).isEqualTo("yesno");
    }
}

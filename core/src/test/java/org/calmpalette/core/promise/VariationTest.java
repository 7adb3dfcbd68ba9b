package org.calmpalette.core.promise;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Supplier;
import org.calmpalette.core.render.Measures;
import org.calmpalette.core.setting.Effective;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.Themes;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** With which other values boxes are worth measuring, and what promises say of what was measured then. */
class VariationTest {
    private static Theme theme(String... settings) {
        return Themes.of(
                "index.html",
                "<!doctype html><html lang=en><head><title>T</title><link rel=stylesheet href=a.css></head><body><h1 data-setting-text=title>One</h1><p>Two</p></body></html>",
                "a.css",
                "p { width: var(--wide) }",
                "palette.json",
                "{\"name\": \"T\", \"places\": [{\"key\": \"all\", \"label\": \"All\"}], \"settings\": ["
                        + String.join(",", settings) + "]}");
    }

    private static String setting(String key, String kind, String made, String allowed) {
        return String.format(
                "{\"key\": \"%s\", \"label\": \"%s\", \"place\": \"all\", \"kind\": \"%s\", \"default\": %s, \"allowed\": {%s}}",
                key, key, kind, made, allowed);
    }

    private static final String TITLE = setting("title", "line", "\"One\"", "\"least\": 1, \"most\": 40");
    private static final String WIDE = setting(
            "wide",
            "length",
            "{\"value\": 300, \"unit\": \"px\"}",
            "\"units\": [{\"unit\": \"px\", \"least\": 100, \"most\": 900}]");

    @Test
    void endsOfRangesAllOfListsAndLongWordsAreWorthMeasuring() {
        Theme theme = theme(
                TITLE,
                WIDE,
                setting("free", "length", "{\"value\": 1, \"unit\": \"px\"}", ""),
                setting("share", "percentage", "50", "\"least\": 50, \"most\": 80"),
                setting("aside", "yes-no", "true", ""),
                setting(
                        "side",
                        "choice",
                        "\"left\"",
                        "\"options\": [{\"key\": \"left\"}, {\"key\": \"right\"}, {\"key\": \"center\"}]"),
                setting("ink", "color", "\"#123456\"", ""));
        List<Variation> all = Variation.of(theme);
        assertThat(all)
                .extracting(v ->
                        v.key() + " " + theme.palette().known(v.key()).kind().words(v.value()))
                .containsExactly(
                        "title “FrachtschifffahrtsverbindungenFrachtschi”",
                        "title “All boats of the morning call at every p”",
                        "wide 900px",
                        "wide 100px",
                        "share 80%",
                        "aside no",
                        "side right",
                        "side center");
        // Each is allowed by itself, and none is as made.
        assertThat(all).allSatisfy(v -> assertThat(
                        Effective.of(theme.palette(), v.chosen(), theme.media()).leftOut())
                .isEmpty());
    }

    /** Boxes of the page, by the width of the paragraph and that of the words of the heading. */
    private static Map<String, Measures> boxes(int paragraph, int words) {
        int h1 = 6;
        int p = 7;
        String json = String.format(
                "{\"format\": \"calm-measures/1\", \"page\": \"index.html\", \"layout\": \"\", \"windowHeight\": 800, \"from\": 320, \"to\": 2560, \"unsure\": [], \"height\": [[320, 800], [2560, 800]],"
                        + "\"boxes\": {\"%1$d\": [[320, 0, 0, 320, 40], [2560, 0, 0, 2560, 40]], \"%2$d\": [[320, 0, 40, %3$d, 20], [2560, 0, 40, %3$d, 20]]},"
                        + "\"lines\": {\"%1$d\": [[320, 0, 0, %4$d, 40], [2560, 0, 0, %4$d, 40]]}}",
                h1, p, paragraph, words);
        return Map.of("index.html", Measures.read("boxes", json.getBytes(StandardCharsets.UTF_8)));
    }

    private static List<Answer> fits(Theme theme, Map<Variation, Supplier<Map<String, Measures>>> varied) {
        return Promises.of(theme, Proved.NOTHING, boxes(300, 60), varied, List.of(), (done, total, what) -> {})
                .answers()
                .stream()
                .filter(a -> a.promise() == Promise.FITS)
                .toList();
    }

    /** With 38 px around it the paragraph fits the narrower of two phones, 360 px wide, up to 323 px: what reaches 1.5 px farther is told. Each round is measured, and asks for what is worth measuring after it. */
    @Test
    void whereABoxLeavesTheWindowIsFoundAndLimited() {
        Theme theme = theme(TITLE, WIDE);
        Map<Variation, Supplier<Map<String, Measures>>> varied = new LinkedHashMap<>();
        List<Variation> next =
                Variation.of(theme).stream().filter(v -> v.key().equals("wide")).toList();
        List<List<String>> rounds = new ArrayList<>();
        Promises.Checked checked = null;
        while (!next.isEmpty()) {
            rounds.add(next.stream()
                    .map(v -> ((Value.Parts) v.value()).number("value").toPlainString())
                    .toList());
            next.forEach(v -> {
                int wide = ((Value.Parts) v.value()).number("value").intValue();
                varied.put(v, () -> boxes(wide + 38, 60));
            });
            checked = Promises.of(theme, Proved.NOTHING, boxes(300, 60), varied, List.of(), (done, total, what) -> {});
            // Of what is not whole yet nothing more is asked.
            List<Variation> wanted = new ArrayList<>(varied.keySet());
            wanted.add(new Variation("wide", Value.parts("value", new BigDecimal(333), "unit", "px")));
            assertThat(checked.closer(theme, wanted, List.of())).isEmpty();
            next = checked.closer(theme, List.copyOf(varied.keySet()), List.of());
        }
        assertThat(rounds)
                .containsExactly(
                        List.of("900", "100"),
                        List.of("420", "540", "660", "780"),
                        List.of("320", "350", "370", "400"),
                        List.of("330", "340"));
        Answer broken = checked.answers().stream()
                .filter(a -> a.promise() == Promise.FITS)
                .findFirst()
                .orElseThrow();
        Mend mend = Mends.of(theme, broken, checked.varied()).get(0);
        assertThat(mend.words()).isEqualTo("Let “wide” be 100 to 320 px");
        assertThat(mend.takes()).contains("it holds as it is made and with 2 other values");
        Theme after = mend.change().applied(theme);
        assertThat(after.palette().faults()).isEmpty();
        // What is worth measuring of it was measured, and holds.
        varied.keySet().retainAll(Variation.of(after));
        assertThat(varied).hasSize(2);
        assertThat(Promises.of(after, Proved.NOTHING, boxes(300, 60), varied, List.of(), (done, total, what) -> {})
                        .answers())
                .filteredOn(a -> a.promise() == Promise.FITS)
                .noneMatch(Answer::isBroken);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '`',
            value = {
                // What is chosen of a list goes, unless it is what the theme is made with.
                "choice | \"left\" | \"options\": [{\"key\": \"left\"}, {\"key\": \"right\"}, {\"key\": \"far\"}] | far | Let “x” be left, right",
                "choice | \"left\" | \"options\": [{\"key\": \"left\"}, {\"key\": \"right\"}] | left |",
                // From what it is made with as far as what was measured holds.
                "number | 4 | \"least\": 1, \"most\": 6, \"step\": 1 | 6 | Let “x” be 1 to 4 in steps of 1",
                "number | 4 | \"least\": 1, \"most\": 6, \"step\": 1 | 1 | Let “x” be 4 to 6 in steps of 1",
                "number | 4 | \"least\": 1, \"most\": 6, \"step\": 1 | 1 6 |",
                // A unit of which nothing is known to hold goes.
                "length | {\"value\": 2, \"unit\": \"px\"} | \"units\": [{\"unit\": \"px\", \"least\": 1, \"most\": 9}, {\"unit\": \"rem\", \"least\": 2, \"most\": 3}] | 2rem 3rem | Let “x” be 1 to 9 px",
                "yes-no | true | | no |",
            })
    void limitsLeaveOutWhatDoesNotHold(String kind, String made, String allowed, String wrong, String words) {
        Theme theme = theme(setting("x", kind, made, allowed == null ? "" : allowed));
        Setting x = theme.palette().known("x");
        Map<Variation, Boolean> breaks = new LinkedHashMap<>();
        Variation.of(theme)
                .forEach(v -> breaks.put(
                        v, List.of(wrong.split(" ")).contains(x.kind().words(v.value()))));
        Variation broken = breaks.entrySet().stream()
                .filter(Map.Entry::getValue)
                .map(Map.Entry::getKey)
                .findFirst()
                .orElse(new Variation("x", Value.of("left")));
        assertThat(Narrowing.of(theme, broken, breaks).map(Mend::words)).isEqualTo(Optional.ofNullable(words));
    }

    @Test
    void whatLeavesTheWindowWithAnotherValueIsBrokenWithItsCase() {
        Theme theme = theme(TITLE, WIDE);
        assertThat(theme.pages().get(0).elements().get(6).normalName()).isEqualTo("h1");
        Variation word = Variation.of(theme).get(0);
        Variation words = Variation.of(theme).get(1);
        Variation wide = Variation.of(theme).get(2);
        Map<Variation, Supplier<Map<String, Measures>>> varied = new LinkedHashMap<>();
        assertThat(fits(theme, varied)).singleElement().satisfies(a -> {
            assertThat(a.state()).isEqualTo(Answer.State.UNPROVEN);
            assertThat(a.why()).endsWith("what “title” and “wide” may do is not measured");
        });
        varied.put(words, () -> boxes(300, 320));
        assertThat(fits(theme, varied)).singleElement().satisfies(a -> {
            assertThat(a.state()).isEqualTo(Answer.State.UNPROVEN);
            assertThat(a.why())
                    .contains("nothing with one other value of one setting, one at a time", "nor what “wide” may do");
        });
        varied.put(word, () -> boxes(300, 700));
        assertThat(fits(theme, varied)).singleElement().satisfies(a -> {
            assertThat(a.isBroken()).isTrue();
            assertThat(a.values()).isEqualTo(Map.of("title", word.value()));
            assertThat(a.why()).contains("In a window of 390 px the page is 700 px wide", "<h1>");
        });
        varied.remove(word);
        varied.put(wide, () -> boxes(900, 60));
        assertThat(fits(theme, varied)).singleElement().satisfies(a -> {
            assertThat(a.values()).isEqualTo(Map.of("wide", Value.parts("value", new BigDecimal("900"), "unit", "px")));
            assertThat(a.why()).contains("900 px wide", "<p>");
            assertThat(a.inWords()).contains("So it is with wide");
            assertThat(Promises.where(theme, a).file()).isEqualTo("index.html");
        });
    }
}

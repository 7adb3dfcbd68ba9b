package org.calmpalette.core.promise;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Supplier;
import org.calmpalette.core.render.Measures;
import org.calmpalette.core.setting.Effective;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.Themes;
import org.junit.jupiter.api.Test;

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
            assertThat(a.values())
                    .isEqualTo(Map.of("wide", Value.parts("value", new java.math.BigDecimal("900"), "unit", "px")));
            assertThat(a.why()).contains("900 px wide", "<p>");
            assertThat(a.inWords()).contains("So it is with wide");
            assertThat(Promises.where(theme, a).file()).isEqualTo("index.html");
        });
    }
}

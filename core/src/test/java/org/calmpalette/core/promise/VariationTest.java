package org.calmpalette.core.promise;

import static org.assertj.core.api.Assertions.assertThat;

import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.function.Supplier;
import javax.imageio.ImageIO;
import org.calmpalette.core.render.Measures;
import org.calmpalette.core.setting.Effective;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.ThemeFiles;
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
                        // Nothing ends it, so a value that is far; nor begins it, so zero.
                        "free 1000px",
                        "free 0px",
                        "share 80%",
                        "aside no",
                        "side right",
                        "side center");
        // Each is allowed by itself, and none is as made.
        assertThat(all).allSatisfy(v -> assertThat(Effective.of(theme.palette(), v.chosen(theme), theme.media())
                        .leftOut())
                .isEmpty());
    }

    /** What is put together of parts: each way in which it may move boxes, or lay a picture. */
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '`',
            value = {
                "spacing | {\"top\": {\"value\": 4, \"unit\": \"px\"}, \"right\": {\"value\": 8, \"unit\": \"px\"}, \"bottom\": {\"value\": 4, \"unit\": \"px\"}, \"left\": {\"value\": 8, \"unit\": \"px\"}} | \"units\": [{\"unit\": \"px\", \"least\": 2, \"most\": 64}] | 64px; 2px",
                "spacing | {\"top\": {\"value\": 4, \"unit\": \"px\"}, \"right\": {\"value\": 0, \"unit\": \"px\"}, \"bottom\": {\"value\": 4, \"unit\": \"px\"}, \"left\": {\"value\": 0, \"unit\": \"px\"}} | \"units\": [{\"unit\": \"px\", \"least\": 0, \"most\": 64}], \"fixed\": {\"right\": {\"value\": 0, \"unit\": \"px\"}, \"left\": {\"value\": 0, \"unit\": \"px\"}} | 64px 0px; 0px",
                "border | {\"width\": {\"value\": 1, \"unit\": \"px\"}, \"style\": \"solid\", \"color\": \"#123456\"} | \"none\": true, \"width\": {\"units\": [{\"unit\": \"px\", \"least\": 1, \"most\": 8}]} | 8px solid #123456; none",
                "number | 3 | | 100; 0",
                "length | {\"value\": -3, \"unit\": \"px\"} | |",
            })
    void whatIsPutTogetherIsVariedToo(String kind, String made, String allowed, String words) {
        Theme theme = theme(setting("x", kind, made, allowed == null ? "" : allowed));
        assertThat(Variation.of(theme))
                .extracting(v -> theme.palette().known("x").kind().words(v.value()))
                .isEqualTo(words == null ? List.of() : List.of(words.split("; ")));
    }

    @Test
    void asManyItemsAndAsLongWordsInThemAsThereMayBe() {
        Theme theme = theme(
                setting(
                        "rows",
                        "items",
                        "[{\"name\": \"A\"}, {\"name\": \"B\"}]",
                        "\"least\": 1, \"most\": 5, \"parts\": [{\"key\": \"name\", \"kind\": \"line\", \"allowed\": {\"most\": 12}}]"));
        assertThat(Variation.of(theme))
                .extracting(v -> ((Value.Many) v.value())
                        .items().stream()
                                .map(i -> ((Value.Parts) i).text("name"))
                                .toList())
                .containsExactly(
                        List.of("A", "B", "A", "B", "A"),
                        Collections.nCopies(5, "Frachtschiff"),
                        Collections.nCopies(5, "All boats of"),
                        List.of("A"));
    }

    /** What is made otherwise for phones, and may be chosen there, is chosen there too; what it is made with for the widest is tried there. */
    @Test
    void anotherValueHoldsInEveryWindow() {
        String height = setting(
                        "high",
                        "length",
                        "{\"value\": 72, \"unit\": \"vh\"}",
                        "\"units\": [{\"unit\": \"vh\", \"least\": 40, \"most\": 90}]")
                .replaceFirst("}$", ", \"bands\": {\"phone\": {\"value\": 60, \"unit\": \"vh\"}}%s}");
        Theme both = theme(String.format(height, ", \"perBand\": true"));
        assertThat(Variation.of(both))
                .extracting(v -> both.palette().known("high").kind().words(v.value()))
                .containsExactly("90vh", "40vh", "72vh");
        Variation tall = Variation.of(both).get(0);
        Effective then = Effective.of(both.palette(), tall.chosen(both), both.media());
        both.palette().bands().list().forEach(b -> assertThat(
                        then.value(both.palette().known("high"), b))
                .as(b.key())
                .isEqualTo(tall.value()));
        Theme wide = theme(String.format(height, ""));
        assertThat(Variation.of(wide).get(0).chosen(wide).get("high").bands()).isEmpty();
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

    /** With 8 px around it the paragraph fits the narrowest window, 320 px wide, up to 313 px: what reaches 1.5 px farther is told. Each round is measured, and asks for what is worth measuring after it. */
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
                varied.put(v, () -> boxes(wide + 8, 60));
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
                        List.of("310"));
        Answer broken = checked.answers().stream()
                .filter(a -> a.promise() == Promise.FITS)
                .findFirst()
                .orElseThrow();
        Mend mend = Mends.of(theme, broken, checked.varied()).get(0);
        assertThat(mend.words()).isEqualTo("Let “wide” be 100 to 310 px");
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
                "number | 4 | \"least\": 1, \"most\": 6, \"step\": 1 | 1; 6 |",
                // A unit of which nothing is known to hold goes.
                "length | {\"value\": 2, \"unit\": \"px\"} | \"units\": [{\"unit\": \"px\", \"least\": 1, \"most\": 9}, {\"unit\": \"rem\", \"least\": 2, \"most\": 3}] | 2rem; 3rem | Let “x” be 1 to 9 px",
                "yes-no | true | | no |",
                "spacing | {\"top\": {\"value\": 4, \"unit\": \"px\"}, \"right\": {\"value\": 4, \"unit\": \"px\"}, \"bottom\": {\"value\": 4, \"unit\": \"px\"}, \"left\": {\"value\": 4, \"unit\": \"px\"}} | \"units\": [{\"unit\": \"px\", \"least\": 2, \"most\": 64}] | 64px | Let “x” be each side: 2 to 4 px",
                "border | {\"width\": {\"value\": 1, \"unit\": \"px\"}, \"style\": \"solid\", \"color\": \"#123456\"} | \"width\": {\"units\": [{\"unit\": \"px\", \"least\": 0, \"most\": 8}]} | 8px solid #123456 | Let the width of “x” be 0 to 1 px",
            })
    void limitsLeaveOutWhatDoesNotHold(String kind, String made, String allowed, String wrong, String words) {
        Theme theme = theme(setting("x", kind, made, allowed == null ? "" : allowed));
        Setting x = theme.palette().known("x");
        Map<Variation, Boolean> breaks = new LinkedHashMap<>();
        Variation.of(theme)
                .forEach(v -> breaks.put(
                        v, List.of(wrong.split("; ")).contains(x.kind().words(v.value()))));
        Variation broken = breaks.entrySet().stream()
                .filter(Map.Entry::getValue)
                .map(Map.Entry::getKey)
                .findFirst()
                .orElse(new Variation("x", Value.of("left")));
        assertThat(Narrowing.of(theme, broken, breaks).map(Mend::words)).isEqualTo(Optional.ofNullable(words));
    }

    /** Pictures of 400 and 1600 px: limits leave out what is too small, and leave as made what lays one badly. */
    @Test
    void ofABackgroundLimitsLeaveOutWhatIsWrongWithIt() throws IOException {
        String palette = "{\"name\": \"T\", \"places\": [{\"key\": \"all\", \"label\": \"All\"}], \"settings\": ["
                + setting(
                        "x",
                        "background",
                        "{\"color\": \"#ffffff\", \"picture\": \"wide.png\", \"repeat\": \"no-repeat\", \"position\": \"left top\", \"size\": \"cover\", \"attachment\": \"scroll\", \"overlay\": \"#000000\", \"strength\": 0}",
                        "")
                + "]}";
        TreeMap<String, byte[]> files = new TreeMap<>(Map.of(
                "index.html", "<!doctype html><title>T</title>".getBytes(StandardCharsets.UTF_8),
                "palette.json", palette.getBytes(StandardCharsets.UTF_8),
                "wide.png", png(1600),
                "small.png", png(400)));
        Theme theme = Theme.read(ThemeFiles.of(files), "T");
        List<Variation> all = Variation.of(theme);
        assertThat(all)
                .extracting(v -> ((Value.Parts) v.value())
                        .parts().entrySet().stream()
                                .filter(e -> !e.getValue()
                                        .equals(((Value.Parts) theme.palette()
                                                        .known("x")
                                                        .given()
                                                        .value())
                                                .part(e.getKey())
                                                .orElseThrow()))
                                .map(e -> ((Value.Text) e.getValue()).text())
                                .findFirst()
                                .orElseThrow())
                .containsExactly("auto", "contain", "5%", "repeat", "right bottom", "small.png");
        assertThat(limits(theme, all, 2)).contains("Leave size of “x” as made");
        assertThat(limits(theme, all, 2, 3)).contains("Leave repeat and size of “x” as made");
        assertThat(limits(theme, all, 5)).contains("Let the picture of “x” be 1600 px or wider, or none");
    }

    private static Optional<String> limits(Theme theme, List<Variation> all, Integer... wrong) {
        Map<Variation, Boolean> breaks = new LinkedHashMap<>();
        all.forEach(v -> breaks.put(v, List.of(wrong).contains(all.indexOf(v))));
        return Narrowing.of(theme, all.get(wrong[0]), breaks).map(m -> {
            Theme after = m.change().applied(theme);
            assertThat(new Variation("x", all.get(wrong[0]).value()).isAllowed(after))
                    .isFalse();
            return m.words();
        });
    }

    private static byte[] png(int width) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        ImageIO.write(new BufferedImage(width, 200, BufferedImage.TYPE_INT_RGB), "png", out);
        return out.toByteArray();
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

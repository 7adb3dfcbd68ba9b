package org.calmpalette.core.promise;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import org.calmpalette.core.Generated;
import org.calmpalette.core.change.Change;
import org.calmpalette.core.setting.ColorKind;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.Themes;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What is offered is applied here as a maker would, and the whole proof asked again. */
class MendsTest {
    private static Theme theme(String css, String body, String... settings) {
        return Themes.of(
                "index.html",
                "<!doctype html><html><head><title>T</title><link rel=stylesheet href=a.css></head><body>" + body
                        + "</body></html>",
                "a.css",
                css,
                "palette.json",
                "{\"name\": \"T\", \"places\": [{\"key\": \"p\", \"label\": \"P\"}], \"settings\": ["
                        + String.join(",", settings) + "]}");
    }

    private static String setting(String key, String kind, String made, String allowed) {
        return String.format(
                "{\"key\": \"%s\", \"label\": \"%s\", \"place\": \"p\", \"kind\": \"%s\", \"default\": %s, \"allowed\": {%s}}",
                key, key, kind, made, allowed);
    }

    private static Answer broken(Theme theme, Promise promise) {
        return Promises.of(theme).stream()
                .filter(a -> a.isBroken() && a.promise() == promise)
                .findFirst()
                .orElseThrow();
    }

    private static List<Answer> like(Theme theme, Answer a) {
        return Promises.of(theme).stream().filter(b -> b.id().equals(a.id())).toList();
    }

    private static void assertMends(Theme theme, Answer broken, Mend mend) {
        Theme after = mend.change().applied(theme);
        assertThat(after.palette().faults()).as(mend.words()).isEmpty();
        assertThat(like(after, broken)).as("%s: %s", mend.words(), broken).noneMatch(Answer::isBroken);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '`',
            value = {
                "p { color: var(--ink) } | color | \"#000000\" | \"opaque\": true | Ask of “ink” a contrast of 4.5 with #ffffff; Let “ink” have a lightness of 0 to 44%",
                "p { background: var(--ink); color: #000 } | color | \"#ffffff\" | \"opaque\": true | Ask of “ink” a contrast of 4.5 with #000000; Let “ink” have a lightness of 74 to 100%",
                "p { color: var(--ink) } | color | \"#000000\" | \"swatches\": [\"#000000\", \"#999999\", \"#333333\", \"#aaaaaa\"] | Ask of “ink” a contrast of 4.5 with #ffffff; Take #aaaaaa, #999999 out of the swatches of “ink”",
                // Large text needs three to one.
                "p { color: var(--ink); font-size: 24px } | color | \"#000000\" | \"swatches\": [\"#000000\", \"#aaaaaa\"] | Ask of “ink” a contrast of 3 with #ffffff; Take #aaaaaa out of the swatches of “ink”",
                // As made: the nearest that can be read.
                "p { color: var(--ink) } | color | \"#999999\" | | Make #757575 the default of “ink”",
                "p { color: var(--ink) } | color | \"#999999\" | \"swatches\": [\"#999999\", \"#222222\", \"#666666\"] | Make #666666 the default of “ink”"
            })
    void aTextThatAChoiceHidesIsMended(String css, String kind, String made, String allowed, String words) {
        Theme theme = theme(css, "<p>One", setting("ink", kind, made, allowed == null ? "" : allowed));
        Answer broken = broken(theme, Promise.READABLE);
        List<Mend> mends = Mends.of(theme, broken);
        assertThat(mends.stream().map(Mend::words)).as(broken.toString()).isEqualTo(List.of(words.split("; ")));
        if (!broken.values().isEmpty()) {
            mends.forEach(m -> assertMends(theme, broken, m));
        }
    }

    /** What the stylesheet writes is changed where it stands; in a state, by the rule of that state. */
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "p { color: #999 } | p { color: #757575 } | Write it in #757575, where its colour is written",
                "a { color: #000 } a:hover { color: #999 } | a { color: #000 } a:hover { color: #757575 } | Write it in #757575, where its colour is written",
                "body { color: #999 } | body { color: #757575 } | Write it in #757575, where its colour is written",
                // What a stylesheet writes, and an outline.
                "p::before { content: 'New'; color: #999 } | p::before { content: 'New'; color: #757575 } | Write it in #757575, where its colour is written",
                "a:focus { outline: 2px solid #aaa } | a:focus { outline: 2px solid #949494 } | Draw it in #949494, where its colour is written",
                // The border of a field, all its sides where they are written as one; a drawing.
                "input { border: 1px solid #ccc } | input { border: 1px solid #949494 } | Draw it in #949494, where its colour is written",
                "svg { fill: #ccc } | svg { fill: #949494 } | Draw it in #949494, where its colour is written"
            })
    void whatIsWrittenIsWrittenOtherwise(String css, String then, String words) {
        Theme theme = theme(
                css,
                switch (css.charAt(0)) {
                    case 'a' -> "<a href=index.html>One</a>";
                    case 'i' -> "<label>Name <input></label>";
                    case 's' -> "<a href=index.html aria-label=Home><svg><path d='M0 0h9v9z'/></svg></a>";
                    default -> "<p>One";
                });
        Answer broken = broken(theme, Promise.READABLE);
        List<Mend> mends = Mends.of(theme, broken);
        assertThat(mends).as(broken.toString()).hasSize(1);
        assertMends(theme, broken, mends.get(0));
        Theme after = mends.get(0).change().applied(theme);
        if (!css.startsWith("body")) {
            assertThat(Themes.text(after.files(), "a.css")).isEqualTo(then);
            assertThat(mends.get(0).words()).isEqualTo(words);
        }
    }

    /** A colour that other texts share is not changed if they were hard to read then. */
    @Test
    void whatWouldHideAnotherTextIsNotOffered() {
        Theme theme = theme("p, b { color: #999 } b { background: #222 }", "<p>One</p><div><b>Two</b></div>");
        Answer broken = broken(theme, Promise.READABLE);
        assertThat(broken.words()).isEqualTo("One");
        List<Mend> mends = Mends.of(theme, broken);
        assertThat(mends).extracting(Mend::words).containsExactly("Write it in #757575, by a rule of its own");
        Theme after = mends.get(0).change().applied(theme);
        assertThat(Promises.of(after)).noneMatch(a -> a.isBroken() && a.promise() == Promise.READABLE);
    }

    /** Whatever picture an owner brings: the least shade with which it reads, and one step less does not. */
    @Test
    void aShadeOverAnyPictureIsDecided() {
        String made =
                "{\"color\": \"#000000\", \"picture\": \"\", \"repeat\": \"no-repeat\", \"position\": \"center center\", "
                        + "\"size\": \"cover\", \"attachment\": \"scroll\", \"overlay\": \"#000000\", \"strength\": 20}";
        Theme theme =
                theme("p { background: var(--back); color: #fff }", "<p>One", setting("back", "background", made, ""));
        Answer open = Promises.of(theme).stream()
                .filter(a -> a.promise() == Promise.READABLE)
                .findFirst()
                .orElseThrow();
        assertThat(open.state()).isEqualTo(Answer.State.UNPROVEN);
        Mend mend = Mends.of(theme, open).get(0);
        // White on black at 54 of 100 over white: 0.46 of each channel is 0.1785 in luminance, 1.05 / 0.2285 is 4.6.
        assertThat(mend.words()).isEqualTo("Let the shade of “back” be at least 54%, in #000000 over #000000");
        assertThat(mend.takes()).contains("20% becomes 54%");
        assertThat(like(mend.change().applied(theme), open)).allMatch(a -> a.state() == Answer.State.KEPT);
    }

    /** One step less of what is offered does not do. */
    @Test
    void whatIsOfferedIsTheLeast() {
        Theme theme =
                theme("p { color: var(--ink) }", "<p>One", setting("ink", "color", "\"#000000\"", "\"opaque\": true"));
        Answer broken = broken(theme, Promise.READABLE);
        Theme after = Mends.of(theme, broken).get(1).change().applied(theme);
        Setting ink = after.palette().known("ink");
        ColorKind kind = (ColorKind) ink.kind();
        ColorKind.Span span = kind.bounds().lightness();
        ColorKind.Span wider = new ColorKind.Span(span.from(), span.to().add(new BigDecimal("1.5")));
        Setting less = ink.withKind(new ColorKind(
                List.of(), new ColorKind.Bounds(wider, kind.bounds().chroma(), null), List.of(), true));
        Theme other = Change.of("Wider")
                .withPalette(
                        after,
                        after.palette()
                                .replacing(less, after.palette().place("p").orElseThrow()))
                .applied(after);
        assertThat(like(after, broken)).allMatch(a -> a.state() == Answer.State.KEPT);
        assertThat(like(other, broken)).noneMatch(a -> a.state() == Answer.State.KEPT);
    }

    @Test
    void whatLetsThroughIsNotAllowedWhereNothingElseHelps() {
        Theme theme = theme(
                "p { color: var(--ink); background: var(--paper) }",
                "<p>One",
                setting("ink", "color", "\"#000000\"", ""),
                setting("paper", "color", "\"#ffffff\"", "\"swatches\": [\"#ffffff\", \"#f0e0c0\"]"));
        Answer broken = broken(theme, Promise.READABLE);
        List<Mend> mends = Mends.of(theme, broken);
        assertThat(mends.get(0).words())
                .isEqualTo("Ask of “ink” a contrast of 4.5 with “paper”, and no colours that let through");
        assertMends(theme, broken, mends.get(0));
    }

    /** What two settings demand is asked of both where one alone leaves a way. */
    @Test
    void twoSettingsAskOfEachOther() {
        Theme theme = theme(
                "p { color: var(--ink); background: var(--paper) }",
                "<p>One",
                setting("ink", "color", "\"#000000\"", "\"opaque\": true"),
                setting("paper", "color", "\"#ffffff\"", "\"opaque\": true"));
        Answer broken = broken(theme, Promise.READABLE);
        List<Mend> mends = Mends.of(theme, broken);
        assertThat(mends.get(0).words()).isEqualTo("Ask of “ink” and “paper” a contrast of 4.5 with each other");
        assertMends(theme, broken, mends.get(0));
        assertThat(mends.get(0).change().note()).isEqualTo(mends.get(0).words());
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '`',
            value = {
                "<a href=a.css data-setting-text=k>More</a> | line | \"More\" | | Let “k” be 1 to 200 characters",
                "<h1>One</h1><h2 data-setting-level=k>Two</h2> | level | 2 | | Let “k” be level 2 to 6",
                "<a href=index.html data-setting-href=k>More</a> | link | \"index.html\" | | Let “k” be page, web address, mail address, phone address",
                "<ul data-setting-items=k><li><a href=index.html data-item-text=t>x</a></li></ul> | items | [{\"t\": \"x\"}] | \"parts\": [{\"key\": \"t\", \"kind\": \"line\", \"default\": \"x\"}] | ",
            })
    void whatIsLeftEmptyGetsALimit(String body, String kind, String made, String allowed, String words) {
        Theme theme = theme("", body, setting("k", kind, made, allowed == null ? "" : allowed));
        Answer broken = broken(theme, Promise.WHOLE);
        List<Mend> mends = Mends.of(theme, broken);
        assertThat(mends).hasSize(1);
        assertThat(mends.get(0).words()).startsWith(words == null ? "Let “k” be " : words);
        assertMends(theme, broken, mends.get(0));
    }

    @Test
    void movementStopsAndIdleSettingsGo() {
        Theme theme = theme(
                "p { animation: turn 2s infinite } html { scroll-behavior: smooth }",
                "<p>One",
                setting("k", "color", "\"#111111\"", ""));
        Answer moving = broken(theme, Promise.STILL);
        Mend still = Mends.of(theme, moving).get(0);
        Theme after = still.change().applied(theme);
        assertThat(Promises.of(after)).noneMatch(a -> a.promise() == Promise.STILL && a.isBroken());
        assertThat(Themes.text(after.files(), "a.css"))
                .startsWith("p { animation: turn 2s infinite }")
                .contains("prefers-reduced-motion");
        Answer idle = broken(theme, Promise.EFFECTIVE);
        assertMends(theme, idle, Mends.of(theme, idle).get(0));
        assertThat(Mends.of(theme, idle)
                        .get(0)
                        .change()
                        .applied(theme)
                        .palette()
                        .settings())
                .isEmpty();
    }

    @Tag("generated")
    @Test
    void everyMendMends() {
        Random random = Generated.random(91);
        int mended = 0;
        int asked = 0;
        for (int n = 0; n < Generated.times(10); n++) {
            List<String> limits = new ArrayList<>();
            for (int i = 0; i < 2; i++) {
                limits.add(
                        switch (random.nextInt(3)) {
                            case 0 -> "\"swatches\": [\"#1d2b3a\", \"#ffffff\", \"#8a5a2b\", \"#c9b26b\"]";
                            case 1 ->
                                String.format(
                                        Locale.ROOT,
                                        "\"opaque\": true, \"bounds\": {\"lightness\": [0, 100], \"chroma\": [0, %.2f]}",
                                        0.1 + random.nextDouble() * 0.2);
                            default -> "\"opaque\": true";
                        });
            }
            String css = random.nextBoolean()
                    ? "p { color: var(--ink); background: var(--paper) }"
                    : random.nextBoolean()
                            ? "p { color: var(--ink) }"
                            : "p { background: var(--paper); color: #1d2b3a }";
            Theme theme = theme(
                    css,
                    "<p>One",
                    setting("ink", "color", "\"#1d2b3a\"", limits.get(0)),
                    setting("paper", "color", "\"#ffffff\"", limits.get(1)));
            for (Answer a : Readable.of(theme)) {
                if (a.isBroken()) {
                    asked++;
                    List<Mend> mends = Mends.of(theme, a);
                    mended += mends.isEmpty() ? 0 : 1;
                    mends.forEach(m -> assertMends(theme, a, m));
                }
            }
        }
        assertThat(asked).isGreaterThanOrEqualTo(Generated.times(10) - 2);
        assertThat(mended).as("of %s", asked).isEqualTo(asked);
    }
}

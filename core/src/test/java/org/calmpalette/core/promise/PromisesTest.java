package org.calmpalette.core.promise;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.calmpalette.core.change.PaletteChange;
import org.calmpalette.core.setting.Between;
import org.calmpalette.core.setting.Chosen;
import org.calmpalette.core.setting.Effective;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.Themes;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** The promises that ask of pages and settings, not of colours. */
class PromisesTest {
    private static Theme theme(String body, String css, String... settings) {
        return Themes.of(
                "index.html",
                "<!doctype html><html lang=en><head><title>T</title><link rel=stylesheet href=a.css></head><body>"
                        + body + "</body></html>",
                "about.html",
                "<!doctype html><title>About</title><p id=there>x",
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

    private static List<Answer> of(Theme theme, Promise promise) {
        List<Answer> all = new ArrayList<>(Promises.of(theme));
        all.removeIf(a -> a.promise() != promise);
        return all;
    }

    private static Answer first(Theme theme, Promise promise) {
        return of(theme, promise).get(0);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '`',
            value = {
                "<a href=about.html data-setting-text=k>More</a> | line | \"More\" | | {k=} | left without words",
                "<a href=about.html data-setting-text=k>More</a> | line | \"More\" | \"least\": 1 | |",
                "<a href=about.html aria-label=More data-setting-text=k>More</a> | line | \"More\" | | |",
                "<p data-setting-text=k>More</p> | line | \"More\" | | |",
                "<h2><span data-setting-text=k>More</span></h2> | line | \"More\" | | {k=} | The heading is left",
                "<h2>No. <span data-setting-text=k>More</span></h2> | line | \"More\" | | |",
                "<a href=about.html><img src=a.png alt=Boat data-setting-alt=k></a> | line | \"Boat\" | | {k=} | a picture alone",
                "<img src=a.png alt=Boat data-setting-alt=k> | line | \"Boat\" | | |",
                "<a href=about.html data-setting-href=k>More</a> | link | \"about.html\" | | {k=no-such-page.html} | a page that is not there",
                "<a href=about.html data-setting-href=k>More</a> | link | \"about.html\" | \"targets\": [\"page\", \"web\"] | |",
                "<a href=about.html data-setting-href=k>More</a> | link | \"about.html\" | \"targets\": [\"anchor\", \"page\"] | {k=#no-such-anchor} | an anchor that is not there",
                "<h1>One</h1><h2 data-setting-level=k>Two</h2> | level | 2 | | {k=1} | first-level heading already",
                "<h1>One</h1><h2 data-setting-level=k>Two</h2> | level | 2 | \"least\": 2 | |",
                "<a href=#far>To it</a><p id=far data-setting-show=k>Two</p> | yes-no | true | | {k=false} | Links to #far",
                "<p id=far data-setting-show=k>Two</p> | yes-no | true | | |",
                "<ul data-setting-items=k><li><a href=about.html data-item-text=t>x</a></li></ul> | items | [{\"t\": \"x\"}] | \"parts\": [{\"key\": \"t\", \"kind\": \"line\"}] | {k=[{\"t\":\"\"}]} | left without words"
            })
    void whatIsLeftEmptyIsFoundWithTheChoiceThatDoesIt(
            String body, String kind, String made, String allowed, String choices, String why) {
        Theme theme = theme(body, "", setting("k", kind, made, allowed == null ? "" : allowed));
        assertThat(theme.palette().faults()).isEmpty();
        Answer a = first(theme, Promise.WHOLE);
        if (choices == null) {
            assertThat(a.state()).as(a.toString()).isEqualTo(Answer.State.KEPT);
            return;
        }
        assertThat(a.state()).as(a.toString()).isEqualTo(Answer.State.BROKEN);
        assertThat(a.why()).contains(why);
        Map<String, Object> plain = new HashMap<>();
        a.values().forEach((key, v) -> plain.put(key, v.json().toString().replaceAll("^\"|\"$", "")));
        assertThat(plain).hasToString(choices);
        Map<String, Chosen> chosen = new HashMap<>();
        a.values().forEach((key, v) -> chosen.put(key, Chosen.of(v)));
        assertThat(Effective.of(theme.palette(), chosen, theme.media()).leftOut())
                .as("the case is allowed")
                .isEmpty();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "<a href=gone.html>More</a> | leads to gone.html",
                "<a href=about.html#gone>More</a> | leads to #gone",
                "<a href=about.html><img src=a.png alt=''></a> | The link has no words",
                "<button></button> | The button has no words",
                "<h1>One</h1><h1>Two</h1> | 2 first-level headings",
                "<a href='about.html#there'>x</a><a href=#top>x</a><a href='tel:+1'>x</a><a href=#>x</a><button aria-label=x></button> | "
            })
    void aPageAsItIsMadeIsAskedToo(String body, String why) {
        Answer a = first(theme(body, ""), Promise.WHOLE);
        assertThat(a.isBroken()).as(a.toString()).isEqualTo(why != null);
        if (why != null) {
            assertThat(a.why()).contains(why);
            assertThat(a.values()).isEmpty();
        }
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "p { animation: turn 2s infinite } | BROKEN | The animation turn goes on",
                "p::before { content: ''; animation: turn 2s } | BROKEN | The animation turn",
                "p { animation: turn 2s infinite } @media (prefers-reduced-motion) { p { animation: none } } | KEPT |",
                "p { animation: turn 2s infinite } @media (prefers-reduced-motion: reduce) { * { animation-duration: 10ms !important } } | KEPT |",
                "@media (prefers-reduced-motion: no-preference) { p { animation: turn 2s infinite } } | KEPT |",
                "@media (width > 700px) { p { animation: turn 2s } } | BROKEN | The animation turn",
                "html { scroll-behavior: smooth } | BROKEN | scrolls smoothly",
                "p { animation-name: var(--k) } | UNPROVEN | animation-name follows a choice",
                "p { animation: turn 0s } | KEPT |"
            })
    void whatMovesHasToStopForWhoAsks(String css, Answer.State state, String why) {
        Answer a = first(
                theme(
                        "<p>x",
                        css,
                        setting("k", "choice", "\"none\"", "\"options\": [{\"key\": \"none\"}, {\"key\": \"turn\"}]")),
                Promise.STILL);
        assertThat(a.state()).as(a.toString()).isEqualTo(state);
        assertThat(a.why()).contains(why == null ? "" : why);
    }

    @Test
    void aVideoHasAPoster() {
        assertThat(first(theme("<video src=a.mp4></video>", ""), Promise.STILL).why())
                .isEqualTo("The video has no poster.");
        assertThat(first(theme("<video src=a.mp4 poster=a.png></video>", ""), Promise.STILL)
                        .state())
                .isEqualTo(Answer.State.KEPT);
    }

    @Test
    void aSettingThatNothingReadsDoesNothing() {
        String color = setting("k", "color", "\"#111111\"", "");
        assertThat(first(theme("<p>x", "p { color: var(--k) }", color), Promise.EFFECTIVE)
                        .state())
                .isEqualTo(Answer.State.KEPT);
        assertThat(first(theme("<p>x", "p { color: var(--kk) }", color), Promise.EFFECTIVE)
                        .isBroken())
                .isTrue();
        String alone = setting("k", "color", "\"#111111\"", "\"swatches\": [\"#111111\"]");
        assertThat(first(theme("<p>x", "p { color: var(--k) }", alone), Promise.EFFECTIVE)
                        .state())
                .as("one colour alone is allowed")
                .isEqualTo(Answer.State.KEPT);
        // It is read, and wins nowhere.
        Answer beaten = first(theme("<p>x", "p { color: var(--k) } p { color: red }", color), Promise.EFFECTIVE);
        assertThat(beaten.state()).isEqualTo(Answer.State.UNPROVEN);
        assertThat(beaten.why()).contains("no part looks different");
        assertThat(first(theme("<p data-setting-text=k>x", "", setting("k", "line", "\"x\"", "")), Promise.EFFECTIVE)
                        .state())
                .isEqualTo(Answer.State.KEPT);
    }

    @Test
    void whatCannotBeUsedIsNotSound() {
        Theme theme = theme(
                "<p data-setting-text=gone>x",
                "",
                setting("k", "color", "\"#111111\"", "\"swatches\": [\"#222222\"]"),
                setting("fine", "color", "\"#222222\"", "\"swatches\": [\"#222222\"]"),
                setting("odd", "colour", "\"#222222\"", ""));
        List<Answer> all = of(theme, Promise.SOUND);
        assertThat(all)
                .extracting(Answer::selector)
                .containsExactly("settings[0].default", "settings[2].kind", "p", "fine");
        assertThat(all).extracting(Answer::isBroken).containsExactly(true, true, true, false);
        assertThat(all.get(0).why()).contains("#111111");
        assertThat(Promises.where(theme, all.get(3))).isEqualTo(new Promises.Where("palette.json", 1));
    }

    @Test
    void aSchemeThatIsNotAllowedIsTold() {
        Theme theme = Themes.of(
                "index.html",
                "<p>x",
                "palette.json",
                "{\"places\": [{\"key\": \"p\", \"label\": \"P\"}], \"settings\": ["
                        + setting("k", "color", "\"#222222\"", "\"swatches\": [\"#222222\"]")
                        + "], \"schemes\": [{\"key\": \"a\", \"label\": \"A\", \"values\": {\"k\": \"#333333\"}},"
                        + "{\"key\": \"b\", \"label\": \"B\", \"values\": {\"k\": \"#222222\"}}]}");
        List<Answer> all = of(theme, Promise.SOUND);
        assertThat(all).extracting(Answer::words).containsExactly("Scheme A", "k", "Scheme B");
        assertThat(all.get(0).isBroken()).isTrue();
        assertThat(all.get(0).values()).containsKey("k");
    }

    /** It goes with the theme, is told at the end, and is taken back; what is kept cannot be let be. */
    @Test
    void whatTheMakerDoesNotPromiseIsToldApart() {
        Theme theme = theme("<a href=gone.html>More</a><h1>Two</h1>", "h1 { color: #999 }");
        Answer a = first(theme, Promise.WHOLE);
        Theme then = Promises.waive(theme, a, " Not yet there ").applied(theme);
        assertThat(Themes.text(then.files(), "palette.json"))
                .contains("\"promise\": \"whole index.html a\"", "\"waived\": \"Not yet there\"");
        List<Answer> all = Promises.of(then);
        Answer last = all.get(all.size() - 1);
        assertThat(last.id()).isEqualTo(a.id());
        assertThat(last.isWaived()).isTrue();
        assertThat(last.isBroken()).isFalse();
        assertThat(last.waiver()).isEqualTo("Not yet there");
        assertThat(all).filteredOn(Answer::isBroken).extracting(Answer::promise).containsExactly(Promise.READABLE);
        Theme again = Promises.waive(then, last, null).applied(then);
        assertThat(Themes.text(again.files(), "palette.json")).doesNotContain("promises");
        assertThat(first(again, Promise.WHOLE).isBroken()).isTrue();
        Theme kept = Promises.waive(theme, of(theme, Promise.STILL).get(0), "").applied(theme);
        assertThat(of(kept, Promise.STILL)).noneMatch(Answer::isWaived);
    }

    /** The broken come first, each has a name of its own, and a sentence. */
    @Test
    void answersAreInOrderAndNamed() {
        Theme theme = theme("<a href=gone.html>More</a><p>x", "p { color: #999 } a:hover { color: #eee }");
        List<Answer> all = Promises.of(theme);
        assertThat(all).extracting(Answer::state).isSorted();
        assertThat(all).extracting(Answer::id).doesNotHaveDuplicates();
        assertThat(all.get(0).inWords()).contains(" to 1 at 320 px", "4.5 is needed, as made");
        assertThat(all)
                .filteredOn(a -> a.pseudoClass().equals("hover"))
                .singleElement()
                .satisfies(a -> assertThat(a.inWords()).contains("under the pointer"));
        assertThat(Promises.where(theme, all.get(0)).file()).isEqualTo("index.html");
    }

    private static Theme twoColors(String ink, String more) {
        return Themes.of(
                "index.html",
                "<!doctype html><html lang=en><title>T</title><link rel=stylesheet href=a.css><p>x",
                "a.css",
                "p { color: var(--ink); background: #fff }",
                "palette.json",
                "{\"name\": \"T\", \"places\": [{\"key\": \"all\", \"label\": \"All\"}], \"settings\": ["
                        + ReadableTest.color("ink", "#000000", ink)
                        + "," + ReadableTest.color("paper", "#ffffff", "\"swatches\": [\"#ffffff\"]") + "]" + more
                        + "}");
    }

    /** Two colours that no page shows together, by hand: #767676 on white has 4.54 to 1, #777777 has 4.47. */
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "\"swatches\": [\"#000000\", \"#767676\"] | 4.5 | KEPT | 4.54",
                "\"swatches\": [\"#000000\", \"#777777\"] | 4.5 | BROKEN | 4.47",
                "\"swatches\": [\"#000000\", \"#777777\"] | 3 | KEPT | 4.47",
                "\"opaque\": true, \"contrast\": [{\"with\": \"paper\", \"atLeast\": 4.5}] | 4.5 | KEPT | 4.5"
            })
    void twoColorsKeepWhatTheMakerPromises(String ink, double contrast, Answer.State state, double worst) {
        Theme theme = twoColors(ink, "");
        Theme promised = Promises.between(
                        theme, new Between("ink", "paper", java.math.BigDecimal.valueOf(contrast), null))
                .applied(theme);
        assertThat(Themes.text(promised.files(), "palette.json")).contains("\"between\"", "\"ink\"", "\"paper\"");
        Answer a = first(promised, Promise.APART);
        assertThat(a.state()).isEqualTo(state);
        assertThat(a.worst()).isBetween(worst - 0.011, worst + 0.011);
        assertThat(a.words()).isEqualTo("ink and paper");
        assertThat(Promises.where(promised, a).file()).isEqualTo("palette.json");
        if (state == Answer.State.BROKEN) {
            assertThat(a.inWords()).isEqualTo("4.47 to 1, 4.5 is needed, with ink #777777");
            Mend mend = Mends.of(promised, a).get(0);
            assertThat(first(mend.change().applied(promised), Promise.APART).state())
                    .isEqualTo(Answer.State.KEPT);
        }
        // It goes along with a new key, and goes with its setting.
        Theme renamed = PaletteChange.rename(promised, "ink", "letters").applied(promised);
        assertThat(renamed.palette().between()).singleElement().satisfies(b -> assertThat(b.one())
                .isEqualTo("letters"));
        assertThat(PaletteChange.remove(renamed, List.of("letters"))
                        .applied(renamed)
                        .palette()
                        .between())
                .isEmpty();
        assertThat(Promises.notBetween(promised, "paper", "ink", Promise.APART)
                        .applied(promised)
                        .palette()
                        .between())
                .isEmpty();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "{\"between\": [\"ink\"]} | promises[0].between | about two settings",
                "{\"between\": [\"ink\", \"inky\"]} | promises[0].between | no colour setting is called “inky”",
                "{\"between\": [\"ink\", \"ink\"]} | promises[0].contrast | no contrast with itself",
                "{\"between\": [\"ink\", \"paper\"], \"contrast\": 30} | promises[0].contrast | between 1 and 21"
            })
    void aPromiseOfTwoColorsThatCannotBeReadIsToldAndStays(String entry, String at, String what) {
        Theme theme = twoColors("", ", \"promises\": [" + entry + "]");
        assertThat(theme.palette().faults()).singleElement().satisfies(f -> {
            assertThat(f.at()).isEqualTo(at);
            assertThat(f.what()).contains(what);
        });
    }
}

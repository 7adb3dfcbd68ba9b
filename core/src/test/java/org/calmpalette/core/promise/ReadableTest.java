package org.calmpalette.core.promise;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Random;
import org.calmpalette.core.Generated;
import org.calmpalette.core.cascade.PageStyles;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.color.Contrast;
import org.calmpalette.core.css.selector.States;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.render.Backdrop;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.setting.Chosen;
import org.calmpalette.core.setting.ColorKey;
import org.calmpalette.core.setting.ColorKind;
import org.calmpalette.core.setting.Effective;
import org.calmpalette.core.setting.Thresholds;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.Themes;
import org.calmpalette.core.value.Viewport;
import org.jsoup.nodes.Element;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What is promised of texts, against every choice that is tried: by the cascade, which knows nothing of proofs. */
class ReadableTest {
    private static final String PAGE =
            "<!doctype html><html><head><title>T</title><link rel=stylesheet href=a.css></head><body><main><h1>One</h1><p>Two <a href=#>three</a></p></main><footer>Four</footer></body></html>";

    private static Theme theme(String css, String settings) {
        return Themes.of(
                "index.html",
                PAGE,
                "a.css",
                css,
                "palette.json",
                "{\"name\": \"T\", \"places\": [{\"key\": \"all\", \"label\": \"All\"}], \"settings\": [" + settings
                        + "]}");
    }

    static String color(String key, String made, String allowed) {
        return String.format(
                "{\"key\": \"%s\", \"label\": \"%s\", \"place\": \"all\", \"kind\": \"color\", \"default\": \"%s\", \"allowed\": {%s}}",
                key, key, made, allowed);
    }

    private static Answer first(Theme theme, String selector) {
        Page page = theme.pages().get(0);
        int at = page.elements().indexOf(page.document().selectFirst(selector));
        return Readable.of(theme).stream()
                .filter(a -> a.element() == at)
                .findFirst()
                .orElseThrow();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '`',
            value = {
                // Swatches: the worst of all pairs. Black and #333 on white and #eee: #333 on #eee is the least, 10.9
                // to 1.
                "\"swatches\": [\"#000000\", \"#333333\"] | \"swatches\": [\"#ffffff\", \"#eeeeee\"] | KEPT | 10.87 |",
                "\"swatches\": [\"#000000\", \"#999999\"] | \"swatches\": [\"#ffffff\", \"#eeeeee\"] | BROKEN | 2.45 | {ink=#999999, paper=#eeeeee}",
                // Any colour may be that of the ground.
                "\"opaque\": true | \"swatches\": [\"#ffffff\"] | BROKEN | 1 |",
                // A contrast that is demanded is enforced; of what is made it is not, and black on white is 21.
                "\"opaque\": true, \"contrast\": [{\"with\": \"paper\", \"atLeast\": 4.5}] | \"swatches\": [\"#ffffff\"] | KEPT | 4.5 |",
                "\"opaque\": true, \"contrast\": [{\"with\": \"#ffffff\", \"atLeast\": 7}] | \"swatches\": [\"#ffffff\"] | KEPT | 6.99 |",
                // A hair less than is needed is demanded, and the greys just inside of it are tried.
                "\"opaque\": true, \"contrast\": [{\"with\": \"#ffffff\", \"atLeast\": 4.4}] | \"swatches\": [\"#ffffff\"] | BROKEN | 4.48 |",
                // Demanded of one side only: the other may leave what is made behind.
                "\"opaque\": true, \"contrast\": [{\"with\": \"paper\", \"atLeast\": 4.5}] | \"opaque\": true | BROKEN | 1 |",
                "\"opaque\": true, \"contrast\": [{\"with\": \"paper\", \"atLeast\": 4.5}] | \"opaque\": true, \"contrast\": [{\"with\": \"ink\", \"atLeast\": 4.5}] | KEPT | 4.5 |",
                // Dark and calm enough for white, by bounds in OKLCH; a chroma without end can be as light as it likes.
                "\"opaque\": true, \"bounds\": {\"lightness\": [0, 45], \"chroma\": [0, 0.1]} | \"swatches\": [\"#ffffff\"] | KEPT | 5 |",
                "\"opaque\": true, \"bounds\": {\"lightness\": [0, 70], \"chroma\": [0, 0.1]} | \"swatches\": [\"#ffffff\"] | BROKEN | 3 |",
                // What lets through may let all through.
                "\"opaque\": false, \"contrast\": [] | \"swatches\": [\"#ffffff\"] | BROKEN | 1 |"
            })
    void whatIsAllowedDecides(String ink, String paper, Answer.State state, double worst, String broken) {
        Theme theme = theme(
                "main { background: var(--paper); color: var(--ink) }",
                color("ink", "#000000", ink) + "," + color("paper", "#ffffff", paper));
        Answer a = first(theme, "main p");
        assertThat(a.state()).as(a.toString()).isEqualTo(state);
        assertThat(a.worst()).isBetween(worst - 1.5, worst + (state == Answer.State.KEPT ? 3.5 : 0.02));
        if (broken != null) {
            assertThat(a.broken().orElseThrow()).hasToString(broken.replaceAll("=(#\\w+)", "=Text[text=$1]"));
        }
        if (state == Answer.State.BROKEN) {
            assertThat(a.worst()).isLessThan(4.5);
        }
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "main { background: url(data:image/gif;base64,R0lGODlhAQABAAAAACw=); color: var(--ink) } | the picture data:image/gif;base64,R0lGODlhAQABAAAAACw= lies behind it: it may be as light or as dark as the text",
                "main { background: linear-gradient(red, blue) } | a gradient lies behind it: it may be as light or as dark as the text",
                "main { background: #fff } body { filter: blur(1px) } | a filter changes it",
                "main { background: linear-gradient(in oklch, #fff, #eee) } | a gradient lies behind it: it may be as light or as dark as the text",
                "main { background: linear-gradient(#fff, #777) } | a gradient lies behind it: 2.82 to 1 where that is worst, and layout tells whether the text stands there",
                "main { background: linear-gradient(#fff, #fff) 0 0 / 9px no-repeat, #111 } | something that may not fill its box lies behind it: 1.11 to 1 where that is worst, and layout tells whether the text stands there",
                "main { background: linear-gradient(#fff, #fff) 50px 0 no-repeat, #111 } | something that may not fill its box lies behind it: 1.11 to 1 where that is worst, and layout tells whether the text stands there",
                "main { background: linear-gradient(#fff, #fff) 0 0 / cover no-repeat, #111; background-position: 0 -9px } | something that may not fill its box lies behind it: 1.11 to 1 where that is worst, and layout tells whether the text stands there",
                "p { position: absolute } | what it was moved over lies behind it: it may be as light or as dark as the text",
                "main { background: #fff } p { float: left } | what it may float over lies behind it: it may be as light or as dark as the text",
                "@property --x { syntax: '<color>'; inherits: true; initial-value: red } :root { --x: var(--ink) } main p { color: var(--x) } | a colour follows a choice: var(--x)",
                "p { text-shadow: 0 0 1px } | a shadow or a fill of the letters takes part",
                "main { -webkit-text-fill-color: red } | a shadow or a fill of the letters takes part",
                "main { text-shadow: 0 0 1px #555 } | a shadow of the letters lies behind it: 2.81 to 1 where that is worst, and layout tells whether the text stands there",
                "main { background: #444; text-shadow: 0 0 2px #fff } | a shadow of the letters lies behind it: 2.15 to 1 where that is worst, and layout tells whether the text stands there",
                "main { background: #fff; background-clip: text } | what is around it paints nothing there",
                "p::before { content: ''; position: absolute; background: red } | a generated box lies over it",
                "@container (width > 3px) { p { color: red } } | rules hold by the size of a box"
            })
    void whatIsNotKnownIsNotPromised(String css, String why) {
        String ink = css.contains("#777") ? "#000; }" : "";
        Answer a = first(
                theme(css + (ink.isEmpty() ? "" : " p { color: #333"), color("ink", "#000000", "\"opaque\": true")),
                "p");
        assertThat(a.state()).as(a.toString()).isEqualTo(Answer.State.UNPROVEN);
        assertThat(a.why()).isEqualTo(why);
    }

    /** What covers, fades or hides does not have to be known to the last, where the answer is the same whatever it is. */
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                // Under the pointer, or by a script, it comes to be seen, and then it is what it says.
                "p { opacity: 0; color: #333; background: #fff } | KEPT",
                "p { opacity: 0; color: #bbb; background: #fff } main:hover p { opacity: 1 } | BROKEN",
                // Nine tenths of black hide enough of anything; white on a middle grey fails over anything.
                "p { position: absolute; background: rgb(0 0 0 / 90%); color: #fff } | KEPT",
                "p { position: absolute; background: rgb(190 190 190 / 90%); color: #fff } | BROKEN",
                "p { position: absolute; background: rgb(0 0 0 / 40%); color: #fff } | UNPROVEN",
                "main { background: #fff } p { float: left; background: rgb(0 0 0 / 90%); color: #fff } | KEPT"
            })
    void theSameWhateverLiesThere(String css, Answer.State state) {
        Answer a = first(theme(css, color("ink", "#000000", "")), "p");
        assertThat(a.state()).isEqualTo(state);
        // A bound is told as one.
        assertThat(a.inWords().startsWith("at most ")).isEqualTo(css.contains("190"));
    }

    /** What one sees in the case of an answer, opaque: reckoned by hand. */
    @Test
    void theColorsOfACaseAreThoseThatAreSeen() {
        Theme theme = theme(
                "main { background: #000 } main p { color: var(--ink); background: rgb(255 255 255 / 50%); opacity: 0.5 }",
                color("ink", "#ffffff", ""));
        Answer a = first(theme, "main p");
        assertThat(a.isBroken()).isTrue();
        Promises.Colors seen = Promises.colors(theme, a).orElseThrow();
        // White letters over black, faded by half; half of a white veil over black, faded by half once more.
        assertThat(seen.text().hex()).isEqualTo("#808080");
        assertThat(seen.ground().hex()).isEqualTo("#404040");
    }

    /** A header that a script changes on scrolling is asked about as it is then, too. */
    @Test
    void whatAScriptMakesOfAPartIsLookedAt() {
        Theme theme = Themes.of(
                "index.html",
                "<!doctype html><html><head><link rel=stylesheet href=a.css></head><body><header><a href=#>Boats</a></header><p>Words</p>"
                        + "<script>addEventListener('scroll', () => document.querySelector('header').classList.toggle('small', scrollY > 0))</script></body></html>",
                "a.css",
                "header { background: #fff } header a { color: #333 } header.small { background: #222 } header.small a:hover { color: #fff }");
        List<Answer> all = Readable.of(theme);
        assertThat(all)
                .filteredOn(a -> a.words().equals("Words"))
                .extracting(Answer::pseudoClass)
                .containsExactly("");
        Answer small = all.stream()
                .filter(a -> a.pseudoClass().equals(".small"))
                .findFirst()
                .orElseThrow();
        assertThat(small.state()).isEqualTo(Answer.State.BROKEN);
        assertThat(small.inWords())
                .contains("1.25 to 1 at 320 px, with the class small that a script sets, 4.5 is needed");
        assertThat(small.id()).isEqualTo("readable index.html a .small at 320");
        assertThat(Promises.colors(theme, small).orElseThrow().ground().hex()).isEqualTo("#222222");
        assertThat(Mends.of(theme, small)).isEmpty();
    }

    /** Who prefers a dark scheme sees other colours, and a dark canvas where the page allows it. */
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                ":root { color-scheme: dark } p { color: #333 } | BROKEN | ",
                "@media (prefers-color-scheme: dark) { p { color: #eee } } | KEPT | BROKEN",
                ":root { color-scheme: light dark } @media (prefers-color-scheme: dark) { p { color: #eee } } | KEPT | KEPT",
                ":root { color-scheme: light dark } | KEPT | KEPT",
                ":root { color-scheme: light dark } p { color: light-dark(#333, #444) } | KEPT | BROKEN",
                ":root { color-scheme: light dark } p { color: light-dark(#333, #444); background: #fff } | KEPT | KEPT",
                "@media (prefers-color-scheme: light) { p { color: #eee } } | BROKEN | KEPT",
            })
    void theDarkSchemeIsLookedAtToo(String css, Answer.State light, Answer.State dark) {
        List<Answer> all = Readable.of(theme(css, color("ink", "#000000", ""))).stream()
                .filter(a -> a.words().equals("Two"))
                .toList();
        assertThat(all).filteredOn(a -> !a.dark()).extracting(Answer::state).containsExactly(light);
        assertThat(all)
                .filteredOn(Answer::dark)
                .extracting(Answer::state)
                .isEqualTo(dark == null ? List.of() : List.of(dark));
    }

    /** A heading whose level is chosen is another element then; and what comes and goes beside a text changes which one is the first. */
    @Test
    void whatAChoiceMakesOfThePageIsNotPassedOver() {
        String html = "<!doctype html><html><head><title>T</title><link rel=stylesheet href=a.css></head><body><main>"
                + "<h2 data-setting-level=\"rank\">One</h2></main><footer><p>Two</p><b data-setting-show=\"there\">Three</b></footer></body></html>";
        String palette = "{\"name\": \"T\", \"places\": [{\"key\": \"all\", \"label\": \"All\"}], \"settings\": ["
                + "{\"key\": \"rank\", \"label\": \"Rank\", \"place\": \"all\", \"kind\": \"level\", \"default\": 2},"
                + "{\"key\": \"there\", \"label\": \"There\", \"place\": \"all\", \"kind\": \"yes-no\", \"default\": true}]}";
        for (String css : List.of("h4 { color: #eeeeee }", "p:last-child { color: #eeeeee }")) {
            Theme theme = Themes.of("index.html", html, "a.css", css, "palette.json", palette);
            assertThat(first(theme, "h2").state()).isEqualTo(Answer.State.UNPROVEN);
            assertThat(first(theme, "footer p").state())
                    .isEqualTo(css.startsWith("p") ? Answer.State.UNPROVEN : Answer.State.KEPT);
        }
    }

    /** Opacities, gradients, generated boxes, states and what follows a choice: each with its number, reckoned by hand. */
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                // Black at nine tenths on white is #1a1a1a: 17.4 to 1.
                "main { opacity: .9 } | p | KEPT | 17.49",
                // The group lets the black behind it through: half grey on half grey.
                "body { background: #000 } main { background: #fff; opacity: .5 } | p | KEPT | 5.28",
                "main { background: linear-gradient(#fff, #ccc) } | p | KEPT | 13.07",
                // All of it is too dark, wherever the text stands.
                "main { background: linear-gradient(#222, #333) } | p | BROKEN | 1.66",
                // A shade that is chosen over a picture that nobody knows: the darkest it lets through is 60 of 100
                // white.
                "main { background: linear-gradient(var(--veil), var(--veil)), url(a.jpg); color: #fff } | p | KEPT | 5.74",
                // The box fills the one around it, and lies below the text of what is positioned.
                "main { position: relative; background: #fff } main::before { content: ''; position: absolute; inset: 0; background: #222 } h1 { position: relative } | h1 | BROKEN | 1.32",
                "main { position: relative; background: #fff } main::before { content: ''; position: absolute; inset: 0; background: #ddd } h1 { position: relative } | h1 | KEPT | 15.46",
                "a { color: #000 } a:hover { color: #999 } | a | BROKEN | 2.84",
                "a { color: #000 } main a:focus { background: #222 } | a | BROKEN | 1.31",
                // Words turn dark or light: on the grey between they keep the least, and that is 4.58.
                "main { background: var(--ground); color: var(--turned) } | p | KEPT | 4.58",
                // What is the same as another one is all that that may be.
                "main { background: #fff; color: var(--copy) } | p | BROKEN | 1",
                // Lighter than the swatches by 20 points of lightness; on the lighter one of the two.
                "main { background: linear-gradient(color-mix(in srgb, var(--base) 90%, #fff), color-mix(in srgb, var(--base) 90%, #fff)); color: #fff } | p | BROKEN | 3.80",
                "main { color: var(--base); background: linear-gradient(currentcolor, currentcolor) } main p { color: #ccc } | p | BROKEN | 2.87",
                "main { background: var(--pale); color: #000 } | p | KEPT | 6.49",
                // A shadow lies between letters and ground as far as it is dense: grey at most, or not at all.
                "main { text-shadow: 0 1px #ccc; color: #000 } | p | KEPT | 13.07",
                "body { text-shadow: 0 1px 2px #fff8 } main { color: #eee } | p | BROKEN | 1.16",
                // A gradient of what is mixed with a choice, and of the colour of its words, is not that of today.
                "main { background: linear-gradient(var(--mixed), var(--mixed)); color: #000; --mixed: color-mix(in srgb, var(--deep), #fff) } | p | UNPROVEN | 0",
                "main { color: var(--base); background: linear-gradient(currentcolor, currentcolor) } | p | BROKEN | 1",
                // Halves of #555555 and #667788: the lighter is #333c44, rounded up.
                "main { background: #fff; color: color-mix(in srgb, var(--base), #000) } | p | KEPT | 11.29",
                "main { background: color-mix(in srgb, currentcolor 10%, #000); color: var(--base) } | p | BROKEN | 2.68",
                // White on half of #555555 over white, which is #aaaaaa.
                "main { background: rgba(var(--base-rgb), .5); color: #fff } | p | BROKEN | 2.32",
                "main { background: color-mix(in oklch, var(--some) 20%, #fff); color: #000 } | p | UNPROVEN | 0"
            })
    void whatIsComposedIsDecided(String css, String part, Answer.State state, double worst) {
        String settings = String.join(
                ",",
                color("veil", "#000000cc", "\"swatches\": [\"#00000099\", \"#000000cc\"]"),
                color("ground", "#ffffff", "\"opaque\": true"),
                follows("turned", "ground", "\"readable\": {\"dark\": \"#000000\", \"light\": \"#ffffff\"}"),
                color("deep", "#000000", "\"opaque\": true"),
                follows("copy", "deep", "\"lighter\": 1").replace(", \"lighter\": 1", ""),
                color("base", "#555555", "\"swatches\": [\"#555555\", \"#667788\"]")
                        .replace("\"kind\"", "\"triple\": true, \"kind\""),
                color("some", "#336699", "\"opaque\": true, \"bounds\": {\"chroma\": [0, 0.2]}"),
                follows("pale", "base", "\"lighter\": 20"));
        Theme theme = theme(css, settings);
        Page page = theme.pages().get(0);
        int at = page.elements().indexOf(page.document().selectFirst(part));
        List<Answer> all =
                Readable.of(theme).stream().filter(a -> a.element() == at).toList();
        Answer worstOfAll = all.get(0);
        assertThat(worstOfAll.state()).as(all.toString()).isEqualTo(state);
        if (css.contains("hover")) {
            assertThat(worstOfAll.pseudoClass()).isEqualTo("hover");
            assertThat(worstOfAll.id()).contains(":hover at 320");
        }
        assertThat(worstOfAll.worst()).isBetween(worst - 0.011, worst + 0.011);
    }

    /** By level AAA of WCAG 2.2 (1.4.6) 7 to 1 is needed, of a large text 4.5: #767676 on white has 4.54, the well-known grey of AA. */
    @ParameterizedTest
    @CsvSource({"AA, KEPT, KEPT", "AAA, BROKEN, KEPT"})
    void aMakerMayPromiseMore(String level, Answer.State usual, Answer.State large) {
        Theme theme = theme("p, h1 { color: #767676 } h1 { font-size: 32px }", "");
        Theme asked = theme.with(theme.palette()
                .withThresholds(new Thresholds(Thresholds.Level.valueOf(level), Thresholds.USUAL.pictures())));
        assertThat(first(asked, "p").state()).isEqualTo(usual);
        assertThat(first(asked, "p").needed()).isEqualTo(level.equals("AA") ? 4.5 : 7);
        assertThat(first(asked, "h1").state()).isEqualTo(large);
    }

    /** What is written in a field is a text too: in its own colours, or as the browser draws it; not what nobody can use. */
    @Test
    void fieldsAreAskedAbout() {
        Theme theme = Themes.of(
                "index.html",
                "<!doctype html><html lang=en><head><title>T</title><link rel=stylesheet href=a.css></head><body>"
                        + "<input id=a value=Pier><input id=b type=submit class=own value=Send><textarea id=c class=own></textarea>"
                        + "<select id=d class=own><option>One</select><input id=e type=checkbox class=own><input id=f disabled class=own value=x></body></html>",
                "a.css",
                ".own { color: #999; background: #fff }");
        Map<String, Answer.State> all = new LinkedHashMap<>();
        Page page = theme.pages().get(0);
        Readable.of(theme).stream()
                .filter(a -> a.what() == Perceivable.TEXT)
                .forEach(a -> all.put(page.elements().get(a.element()).id() + " " + a.words(), a.state()));
        assertThat(all)
                .containsOnlyKeys("a Pier", "b Send")
                .containsEntry("a Pier", Answer.State.KEPT)
                .containsEntry("b Send", Answer.State.BROKEN);
        Answer own =
                Readable.of(theme).stream().filter(Answer::isBroken).findFirst().orElseThrow();
        assertThat(own.parts()).as("three alike in three bands").isEqualTo(9);
        assertThat(own.worst()).isBetween(2.84, 2.86);
    }

    private static Theme fields(String css, String... settings) {
        return Themes.of(
                "index.html",
                "<!doctype html><html lang=en><head><title>T</title><link rel=stylesheet href=a.css></head><body>"
                        + "<input id=a placeholder=Pier><textarea id=b placeholder=Words></textarea>"
                        + "<input id=c type=range placeholder=no><input id=d placeholder=no disabled></body></html>",
                "a.css",
                css,
                "palette.json",
                "{\"name\": \"T\", \"places\": [{\"key\": \"all\", \"label\": \"All\"}], \"settings\": ["
                        + String.join(",", settings) + "]}");
    }

    private static Map<String, Answer> placeholders(Theme theme) {
        Page page = theme.pages().get(0);
        Map<String, Answer> all = new LinkedHashMap<>();
        Readable.of(theme).stream()
                .filter(a -> a.pseudoClass().equals("placeholder-shown"))
                .forEach(a -> all.put(page.elements().get(a.element()).id() + " " + a.words(), a));
        return all;
    }

    /**
     * What stands in a field before anything is written (WCAG 2.2, Understanding 1.4.3, counts it as text): in the browser's grey of #757575,
     * as Chromium computes it, 4.61 to 1 on white and 4.05 on #f0f0f0; or in what rules say.
     */
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "input, textarea { background: #fff } | KEPT | 4.60",
                "input, textarea { background: #f0f0f0 } | BROKEN | 4.04",
                "input, textarea { background: #fff } ::placeholder { color: #999 } | BROKEN | 2.84",
                "input, textarea { background: #fff } ::placeholder { color: #000; opacity: .5 } | BROKEN | 3.9",
                "input, textarea { background: #fff } ::placeholder { color: #999; background: #000 } | UNPROVEN | 0",
                "input, textarea { background: #fff } ::-webkit-input-placeholder { color: #eee } | UNPROVEN | 0"
            })
    void whatStandsInAFieldBeforeAnythingIsWrittenIsAText(String css, Answer.State state, double worst) {
        Map<String, Answer> all = placeholders(fields(css));
        assertThat(all.keySet())
                .as("none of what takes none")
                .contains("a Pier")
                .doesNotContain("c no", "d no");
        Answer a = all.get("a Pier");
        assertThat(a.state()).as(a.why()).isEqualTo(state);
        if (worst > 0) {
            assertThat(a.worst()).isBetween(worst, worst + 0.1);
        }
    }

    @Test
    void aPlaceholderFollowsChoicesAndItsCaseIsWhatTheCascadeSays() {
        Theme theme = fields(
                "input, textarea { background: var(--ground) } ::placeholder { color: var(--faint) }",
                color("ground", "#ffffff", "\"swatches\": [\"#ffffff\", \"#dddddd\"]"),
                color("faint", "#666666", "\"swatches\": [\"#666666\", \"#777777\"]"));
        Answer a = placeholders(theme).get("a Pier");
        assertThat(a.state()).isEqualTo(Answer.State.BROKEN);
        assertThat(a.values()).containsEntry("ground", Value.of("#dddddd"));
        assertThat(a.inWords()).contains("before anything is written");
        assertThat(Looking.colors(theme, a, Map.of()).orElseThrow().text().hex())
                .isEqualTo("#666666");
        // In the colour of what is written it asks nothing of its own.
        assertThat(placeholders(
                        fields("input, textarea { background: #000; color: #fff } ::placeholder { color: inherit }")))
                .isEmpty();
        // How see-through it is may be chosen: then it is not told.
        Theme open = fields(
                "input { background: #fff } ::placeholder { color: #000; opacity: var(--n) }",
                "{\"key\": \"n\", \"label\": \"n\", \"place\": \"all\", \"kind\": \"number\", \"default\": 1}");
        assertThat(placeholders(open).get("a Pier").state()).isEqualTo(Answer.State.UNPROVEN);
    }

    /** Between bounds: black on what a fifth of any grey makes of white. In OKLab that has a lightness of 0.8, in sRGB 0.8 of each channel. */
    @ParameterizedTest
    @CsvSource({"oklab, 11.24", "srgb, 13.08"})
    void whatIsMixedFromBoundsIsEnclosed(String space, double worst) {
        Theme theme = theme(
                "main { background: color-mix(in " + space + ", var(--some) 20%, #fff); color: #000 }",
                color("some", "#777777", "\"opaque\": true, \"bounds\": {\"chroma\": [0, 0]}"));
        Answer a = first(theme, "p");
        assertThat(a.state()).isEqualTo(Answer.State.KEPT);
        assertThat(a.worst()).as("a little less, for what rounding makes").isBetween(worst - 0.2, worst);
    }

    static String follows(String key, String other, String how) {
        return String.format(
                "{\"key\": \"%s\", \"label\": \"%s\", \"place\": \"all\", \"kind\": \"color\", \"default\": {\"follows\": \"%s\", %s}, \"asked\": false}",
                key, key, other, how);
    }

    /** A background that an owner fills with any picture: its least shade decides. */
    @ParameterizedTest
    @CsvSource({"60, KEPT, 5.7", "40, UNPROVEN, 0"})
    void theLeastStrengthOfAShadeDecides(int strength, Answer.State state, double worst) {
        String setting = "{\"key\": \"back\", \"label\": \"Back\", \"place\": \"all\", \"kind\": \"background\", "
                + "\"default\": {\"color\": \"#000000\", \"picture\": \"\", \"repeat\": \"no-repeat\", \"position\": \"center center\", \"size\": \"cover\", \"attachment\": \"scroll\", \"overlay\": \"#000000\", \"strength\": 80}, \"allowed\": {"
                + "\"color\": {\"swatches\": [\"#000000\", \"#222222\"]}, \"overlay\": {\"swatches\": [\"#000000\"]}, "
                + "\"strength\": {\"least\": " + strength + ", \"most\": 90}}}";
        Theme theme = theme("main { background: var(--back); color: #fff }", setting);
        Answer a = first(theme, "p");
        assertThat(a.state()).as(a.toString()).isEqualTo(state);
        assertThat(a.worst()).isBetween(worst - 0.1, worst + 0.1);
        if (state == Answer.State.UNPROVEN) {
            assertThat(a.why()).startsWith("a picture that is chosen lies behind it: 2.8");
        }
    }

    /** What is broken as made has no choices in its case. */
    @Test
    void whatIsBrokenAsMadeIsToldSo() {
        Answer a = first(theme("p { color: #999999 }", ""), "p");
        assertThat(a.state()).isEqualTo(Answer.State.BROKEN);
        assertThat(a.broken()).contains(Map.of());
        assertThat(a.worst()).isEqualTo(Contrast.ratio(Color.parse("#999999").orElseThrow(), Color.WHITE));
        assertThat(a.needed()).isEqualTo(4.5);
    }

    /** In a long run 21,000 choices on 150 themes. */
    private static final int CHOICES = Generated.LONG ? 140 : 40;

    @Tag("generated")
    @Test
    void noAllowedChoiceContradictsWhatIsKept() {
        Random random = Generated.random(71);
        int kept = 0;
        int broken = 0;
        int tried = 0;
        int untold = 0;
        for (int n = 0; n < Generated.times(15); n++) {
            Theme theme = MadeThemes.theme(random);
            String css = Themes.text(theme.files(), "a.css");
            String settings = Themes.text(theme.files(), "palette.json");
            List<Answer> answers = Readable.of(theme);
            for (Answer a : answers) {
                kept += a.state() == Answer.State.KEPT ? 1 : 0;
                if (a.state() == Answer.State.BROKEN) {
                    broken++;
                    Map<String, Chosen> chosen = new LinkedHashMap<>();
                    a.broken().orElseThrow().forEach((k, v) -> chosen.put(k, Chosen.of(v)));
                    assertThat(Effective.of(theme.palette(), chosen, theme.media())
                                    .leftOut())
                            .isEmpty();
                    double ratio = new Shown(theme, chosen).ratio(a);
                    if (Double.isNaN(ratio)) {
                        untold++;
                        continue;
                    }
                    assertThat(ratio).as("%s %s %s", css, settings, a).isLessThan(a.needed());
                }
            }
            for (int i = 0; i < CHOICES; i++) {
                Map<String, Chosen> chosen = MadeThemes.choices(random, theme);
                // What is not allowed is left out by whoever builds the page.
                Shown shown = new Shown(theme, chosen);
                tried++;
                for (Answer a : answers) {
                    if (a.state() == Answer.State.KEPT) {
                        double ratio = shown.ratio(a);
                        if (Double.isNaN(ratio)) {
                            untold++;
                            continue;
                        }
                        assertThat(ratio)
                                .as("%s %s %s %s", css, settings, chosen, a)
                                .isGreaterThanOrEqualTo(a.worst() - 1e-9)
                                .isGreaterThanOrEqualTo(a.needed());
                    }
                }
            }
        }
        assertThat(tried).isEqualTo(CHOICES * Generated.times(15));
        assertThat(untold).as("that the cascade alone cannot tell").isLessThan(tried / 20);
        assertThat(kept).as("texts that are kept").isGreaterThan(Generated.times(15) / 2);
        assertThat(broken).as("texts that are broken").isGreaterThan(Generated.times(15));
    }

    /** A theme as the cascade has it with choices, each window read once. */
    private static final class Shown {
        private final Rendered rendered;
        private final Map<Integer, PageStyles> styles = new HashMap<>();

        Shown(Theme theme, Map<String, Chosen> chosen) {
            rendered = new Rendered(theme, chosen);
        }

        /** At the worst place of a gradient for what is kept, at its best for what is broken; no number where layout alone could tell. */
        double ratio(Answer a) {
            Page page = rendered.page(a.page()).orElseThrow();
            Element e = page.elements().get(a.element());
            States states = (x, pseudoClass) -> pseudoClass.equals(a.pseudoClass())
                    && (x == e || e.parents().contains(x));
            PageStyles here = a.pseudoClass().isEmpty()
                    ? styles.computeIfAbsent(a.width(), w -> rendered.styles(page, Viewport.of(w, 900), States.NONE))
                    : rendered.styles(page, Viewport.of(a.width(), 900), states);
            Backdrop backdrop = new Backdrop.Reader(here, p -> true).of(e);
            Color letters = here.of(e).colorOf("color").orElseThrow();
            return backdrop.unknown() == null
                    ? backdrop.under(letters).ratio()
                    : backdrop.range(letters)
                            .map(r -> a.isBroken() ? r.most() : r.least())
                            .orElse(Double.NaN);
        }
    }

    /** Every colour that bounds let pass has a luminance within what is said of them, and some come near both ends. */
    @Tag("generated")
    @Test
    void boundsOfLuminanceHoldAllColors() {
        Random random = Generated.random(72);
        for (int n = 0; n < Generated.times(12); n++) {
            double from = random.nextDouble() * 60;
            double least = 0.02 * random.nextInt(3);
            ColorKind.Bounds bounds = new ColorKind.Bounds(
                    span(from, from + random.nextDouble() * 40),
                    span(least, least + 0.02 + random.nextDouble() * 0.3),
                    random.nextBoolean() ? null : span(random.nextInt(360), random.nextInt(360)));
            ColorKind kind = new ColorKind(List.of(), bounds, List.of(), true);
            double[] range = OklchBox.luminances(kind.bounds()).intervals().get(0);
            double low = 1;
            double high = 0;
            double[] l = ends(kind.bounds().lightness());
            double[] c = ends(kind.bounds().chroma());
            for (int i = 0; i < 1_500; i++) {
                Color color = Color.parse(String.format(
                                Locale.ROOT,
                                "oklch(%.6f %.6f %.4f)",
                                (l[0] + edged(random) * (l[1] - l[0])) / 100,
                                c[0] + edged(random) * (c[1] - c[0]),
                                random.nextDouble() * 360))
                        .orElseThrow();
                if (kind.refusal(Value.of(ColorKey.of(color)), org.calmpalette.core.setting.Kind.Around.NOTHING)
                        .isEmpty()) {
                    double y = Contrast.relativeLuminance(ColorKind.parse(ColorKey.of(color)));
                    assertThat(y).as("%s of %s", color.css(), bounds).isBetween(range[0], range[1]);
                    low = Math.min(low, y);
                    high = Math.max(high, y);
                }
            }
            if (high > low) {
                assertThat(range[0]).as("%s", bounds).isGreaterThan(low - 0.08);
                assertThat(range[1]).as("%s", bounds).isLessThan(high + 0.12);
            }
        }
    }

    private static ColorKind.Span span(double from, double to) {
        return new ColorKind.Span(BigDecimal.valueOf(from), BigDecimal.valueOf(to));
    }

    private static double edged(Random random) {
        return Math.max(0, Math.min(1, random.nextDouble() * 1.4 - 0.2));
    }

    private static double[] ends(ColorKind.Span span) {
        return new double[] {span.from().doubleValue(), span.to().doubleValue()};
    }
}

package org.calmpalette.core.promise;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.calmpalette.core.Generated;
import org.calmpalette.core.cascade.PageStyles;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.color.Contrast;
import org.calmpalette.core.css.selector.States;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.promise.SafeArea.Texts;
import org.calmpalette.core.render.Backdrop;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.setting.Chosen;
import org.calmpalette.core.setting.ColorKey;
import org.calmpalette.core.setting.Effective;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.Themes;
import org.calmpalette.core.value.Viewport;
import org.jsoup.nodes.Element;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** The safe area of a colour, against the formula of WCAG for two colours and against the cascade for all else. */
class SafeAreaTest {
    static Theme theme(String css, String... settings) {
        return Themes.of(
                "index.html",
                "<!doctype html><html><head><title>T</title><link rel=stylesheet href=a.css></head><body><main>One <p>Two</p></main></body></html>",
                "a.css",
                css,
                "palette.json",
                "{\"name\": \"T\", \"places\": [{\"key\": \"all\", \"label\": \"All\"}], \"settings\": ["
                        + String.join(",", settings) + "]}");
    }

    private static SafeArea area(Theme theme, String key) {
        return Texts.of(theme).around(theme.palette().known(key));
    }

    /** What a half-clear ground comes to on white, by source-over (Compositing 1, section 5). */
    private static boolean isReadable(String css, Color c) {
        Color ground = css.contains("opacity") ? Contrast.over(c.withAlpha(0.5), Color.WHITE) : c;
        Color letters = css.contains("opacity") ? Contrast.over(Color.BLACK.withAlpha(0.5), Color.WHITE) : Color.WHITE;
        return Contrast.ratio(letters, ground) >= 4.5;
    }

    @ParameterizedTest
    @CsvSource({
        "'main { background: var(--ground); color: #fff }', 100, true",
        "'main { background: var(--ground); color: #fff }', 0, true",
        "'main { background: #fff; color: var(--ground) }', 60, true",
        "'main { opacity: .5; background: var(--ground); color: #000 }', 80, false"
    })
    void justInsideOfTheBorderKeepsAndJustOutsideBreaks(String css, int saturation, boolean someColumnsSafe) {
        SafeArea area = area(
                theme(css, ReadableTest.color("ground", css.contains("opacity") ? "#ffffff" : "#000000", "")),
                "ground");
        SafeArea.Field field = area.field(saturation, 200);
        int borders = 0;
        for (int i = 0; i < field.columns().size(); i++) {
            double hue = 360.0 * i / 199;
            for (double[] span : field.columns().get(i)) {
                for (int end = 0; end < 2; end++) {
                    double sign = end == 0 ? 1 : -1;
                    if (span[end] > 0 && span[end] < 100) {
                        borders++;
                        // A step of eight bits is 0.4 of a percent.
                        assertThat(isReadable(css, SafeArea.at(hue, saturation, span[end] + sign * 0.01)))
                                .as("inside of %s at %s", span[end], hue)
                                .isTrue();
                        assertThat(isReadable(css, SafeArea.at(hue, saturation, span[end] - sign * 0.5)))
                                .as("outside of %s at %s", span[end], hue)
                                .isFalse();
                    }
                }
            }
        }
        assertThat(borders).isEqualTo(someColumnsSafe ? 200 : 0);
        assertThat(area.regardless()).hasSize(someColumnsSafe ? 0 : 2);
    }

    /** White on a ground: WCAG's formula puts the border at a relative luminance of 1.05 / 4.5 - 0.05 = 0.1833, which is #767676 in greys. */
    @Test
    void theBestKnownBorderOfAllIsWhereItShouldBe() {
        SafeArea area = area(
                theme("main { background: var(--ground); color: #fff }", ReadableTest.color("ground", "#000000", "")),
                "ground");
        assertThat(area.keeps(Color.parse("#767676").orElseThrow())).isTrue();
        assertThat(area.keeps(Color.parse("#777777").orElseThrow())).isFalse();
        SafeArea.Met met = area.worst(Color.parse("#777777").orElseThrow()).orElseThrow();
        assertThat(met.words()).isEqualTo("One");
        assertThat(met.ratio()).isBetween(4.47, 4.49);
        assertThat(met.needed()).isEqualTo(4.5);
    }

    /** Letters that turn dark or light on a ground are read on any: so is none of it unsafe. */
    @Test
    void whatTurnsIsSafeEverywhere() {
        Theme theme = theme(
                "main { background: var(--ground); color: var(--turned) }",
                ReadableTest.color("ground", "#ffffff", ""),
                ReadableTest.follows(
                        "turned", "ground", "\"readable\": {\"dark\": \"#000000\", \"light\": \"#ffffff\"}"));
        assertThat(area(theme, "ground").field(100, 13).columns())
                .allSatisfy(c -> assertThat(c).singleElement().isEqualTo(new double[] {0, 100}));
    }

    /** Limits for one setting, with all of its texts: the header's words and the note's, of which one alone would not do. */
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "\"opaque\": true | Ask of “ground” a contrast of 4.5 with #ffffff, and 4.5 with #eeeeee; Let “ground” have a lightness of 0 to 41%",
                "\"swatches\": [\"#000000\", \"#767676\", \"#999999\", \"#333333\"] | Ask of “ground” a contrast of 4.5 with #ffffff, and 4.5 with #eeeeee; Take #767676, #999999 out of the swatches of “ground”",
                "\"swatches\": [\"#000000\", \"#333333\"] | "
            })
    void limitsKeepAllTextsOfASetting(String allowed, String words) {
        Theme theme = theme(
                "main { background: var(--ground); color: #fff } p { color: #eee }",
                ReadableTest.color("ground", "#000000", allowed));
        List<Mend> ways = area(theme, "ground").limits();
        assertThat(String.join("; ", ways.stream().map(Mend::words).toList())).isEqualTo(words == null ? "" : words);
        for (Mend way : ways) {
            assertThat(Readable.of(way.change().applied(theme))).allMatch(a -> a.state() == Answer.State.KEPT);
        }
    }

    /** A pair is limited once: what the first is asked for keeps the second as well, where both sides are asked. */
    @Test
    void allSettingsAreLimitedTogether() {
        Theme theme = theme(
                "main { background: var(--ground); color: var(--ink) } p { background: var(--band); color: #fff }",
                ReadableTest.color("ink", "#ffffff", "\"opaque\": true"),
                ReadableTest.color("ground", "#000000", "\"opaque\": true"),
                ReadableTest.color("band", "#123456", ""),
                ReadableTest.color("other", "#123456", ""));
        WidestLimits.Proposal all = WidestLimits.of(theme, Texts.of(theme), key -> true);
        assertThat(all.limits())
                .extracting(l -> l.label() + ": " + l.way().words())
                .containsExactly(
                        "ink: Ask of “ink” and “ground” a contrast of 4.5 with each other",
                        "band: Ask of “band” a contrast of 4.5 with #ffffff, and no colours that let through");
        assertThat(all.left()).isEmpty();
        Theme limited = all.change().applied(theme);
        assertThat(Readable.of(limited)).allMatch(a -> a.state() == Answer.State.KEPT);
        // Some alone; and nothing where nothing is left to limit.
        assertThat(WidestLimits.of(theme, Texts.of(theme), "band"::equals).limits())
                .extracting(WidestLimits.Limit::key)
                .containsExactly("band");
        assertThat(WidestLimits.of(limited, Texts.of(limited), key -> true).change())
                .isNull();
        // As made it is hard to read: no limit helps.
        Theme bad =
                theme("main { background: var(--ground); color: #fff }", ReadableTest.color("ground", "#ffffff", ""));
        assertThat(WidestLimits.of(bad, Texts.of(bad), key -> true).left()).containsExactly("ground");
    }

    @Tag("generated")
    @Test
    void noChoiceContradictsTheArea() {
        Random random = Generated.random(81);
        int kept = 0;
        int broken = 0;
        for (int n = 0; n < Generated.times(12); n++) {
            Theme theme = MadeThemes.theme(random);
            Texts texts = Texts.of(theme);
            for (String key : List.of("ink", "paper")) {
                if (theme.palette().setting(key).isEmpty()) {
                    // Its own limits refuse its default.
                    continue;
                }
                Setting s = theme.palette().known(key);
                Effective made = Effective.of(theme.palette(), Map.of(), theme.media());
                SafeArea whatever = texts.around(s);
                SafeArea asNow = texts.around(s, made);
                for (int i = 0; i < 8; i++) {
                    Map<String, Chosen> chosen = new LinkedHashMap<>(MadeThemes.choices(random, theme));
                    Value own = Value.of(
                            ColorKey.of(SafeArea.at(random.nextInt(360), random.nextInt(101), random.nextInt(101))));
                    Color color = Color.parse(((Value.Text) own).text()).orElseThrow();
                    chosen.put(key, Chosen.of(own));
                    boolean allowed = Effective.of(theme.palette(), chosen, theme.media())
                            .leftOut()
                            .isEmpty();
                    if (allowed && whatever.keeps(color)) {
                        kept++;
                        assertThat(failing(theme, chosen, whatever))
                                .as("%s %s", Themes.text(theme.files(), "a.css"), chosen)
                                .isEmpty();
                    }
                    Map<String, Chosen> alone = Map.of(key, Chosen.of(own));
                    if (Effective.of(theme.palette(), alone, theme.media())
                            .leftOut()
                            .isEmpty()) {
                        boolean keeps = asNow.keeps(color);
                        broken += keeps ? 0 : 1;
                        // Between fixed colours nothing is left open: but for gradients, safe is what can be read.
                        boolean exact = !Themes.text(theme.files(), "a.css").contains("gradient");
                        if (keeps || exact) {
                            assertThat(failing(theme, alone, asNow).isEmpty())
                                    .as("%s %s %s", Themes.text(theme.files(), "a.css"), alone, asNow.worst(color))
                                    .isEqualTo(keeps);
                        }
                    }
                }
            }
        }
        assertThat(kept).as("colours that are safe").isGreaterThan(10);
        assertThat(broken).as("colours that are not").isGreaterThan(20);
    }

    /** A band with a value of its own does not speak for the others, though all are made alike. */
    @Test
    void eachBandIsAskedAsItIsChosen() {
        Theme theme = theme(
                "main { background: var(--ground); color: #000 }",
                "{\"key\": \"ground\", \"label\": \"G\", \"place\": \"all\", \"kind\": \"color\", \"default\": \"#ffffff\", \"perBand\": true}");
        Chosen phone = Chosen.of("#111111").with("phone", Value.of("#eeeeee"));
        List<SafeArea.Met> hard = hard(theme, Map.of("ground", phone));
        assertThat(hard).extracting(SafeArea.Met::words).contains("One", "Two");
        assertThat(hard).extracting(SafeArea.Met::width).as("none on a phone").allMatch(w -> w >= 768);
        assertThat(hard(theme, Map.of("ground", Chosen.of("#eeeeee").with("phone", Value.of("#111111")))))
                .extracting(SafeArea.Met::width)
                .isNotEmpty()
                .allMatch(w -> w < 768);
        Setting ground = theme.palette().known("ground");
        Effective now = Effective.of(theme.palette(), Map.of("ground", phone), theme.media());
        // What a phone has of its own, readable or not, is no matter of this colour.
        Effective dark = Effective.of(
                theme.palette(),
                Map.of("ground", Chosen.of("#ffffff").with("phone", Value.of("#111111"))),
                theme.media());
        assertThat(Texts.of(theme)
                        .around(ground, dark)
                        .keeps(Color.parse("#222222").orElseThrow()))
                .isFalse();
        assertThat(Texts.of(theme)
                        .around(ground, dark)
                        .keeps(Color.parse("#eeeeee").orElseThrow()))
                .isTrue();
        SafeArea area = Texts.of(theme).around(ground, now);
        assertThat(area.keeps(Color.parse("#eeeeee").orElseThrow())).isTrue();
        assertThat(area.keeps(Color.parse("#222222").orElseThrow()))
                .as("where it counts, beside the phone's own")
                .isFalse();
    }

    /** What is chosen of other kinds counts: the ratios are those of the colours that it comes to. */
    @Test
    void aShareAndAColourThatIsOneOfSeveralWordsAreLookedAt() {
        Theme theme = theme(
                "main { opacity: var(--fade); color: #000 } p { background: var(--mood) }",
                "{\"key\": \"fade\", \"label\": \"F\", \"place\": \"all\", \"kind\": \"number\", \"default\": 1, \"allowed\": {\"least\": 0, \"most\": 1}}",
                "{\"key\": \"mood\", \"label\": \"M\", \"place\": \"all\", \"kind\": \"choice\", \"default\": \"day\", \"allowed\": {\"options\": [{\"key\": \"day\", \"label\": \"D\", \"css\": \"#fff\"}, {\"key\": \"night\", \"label\": \"N\", \"css\": \"#222\"}]}}");
        assertThat(hard(theme, Map.of())).isEmpty();
        // Black at half its strength on white has a luminance of ((0.5 + 0.055) / 1.055) ^ 2.4 = 0.2140: 1.05 / 0.2640
        // (WCAG 2.2).
        assertThat(hard(theme, Map.of("fade", Chosen.of(new Value.Number(new java.math.BigDecimal("0.5"))))))
                .extracting(SafeArea.Met::ratio)
                .isNotEmpty()
                .allMatch(r -> Math.abs(r - 3.977) < 0.001);
        assertThat(hard(theme, Map.of("fade", Chosen.of(new Value.Number(new java.math.BigDecimal("0.6"))))))
                .isEmpty();
        assertThat(hard(theme, Map.of("mood", Chosen.of("night"))))
                .extracting(SafeArea.Met::words)
                .isNotEmpty()
                .containsOnly("Two");
    }

    private static List<SafeArea.Met> hard(Theme theme, Map<String, Chosen> chosen) {
        return Texts.of(theme).hardToRead(Effective.of(theme.palette(), chosen, theme.media()));
    }

    /** Texts that cannot be read as the cascade has it, but for those that no colour mends. */
    private static List<String> failing(Theme theme, Map<String, Chosen> chosen, SafeArea area) {
        Rendered rendered = new Rendered(theme, chosen);
        Page page = rendered.page("index.html").orElseThrow();
        List<String> all = new java.util.ArrayList<>();
        for (SafeArea.Met m : area.all()) {
            Element e =
                    page.document().select(":containsOwn(" + m.words() + ")").last();
            States states = (x, pseudoClass) -> pseudoClass.equals(m.pseudoClass())
                    && (x == e || e.parents().contains(x));
            PageStyles here = rendered.styles(page, Viewport.of(m.width(), 900), states);
            Backdrop backdrop = new Backdrop.Reader(here, p -> true).of(e);
            Color letters = here.of(e).colorOf("color").orElseThrow();
            // Where two gradients lie over each other the cascade has no answer, and so cannot contradict.
            double ratio = backdrop.unknown() == null
                    ? backdrop.under(letters).ratio()
                    : backdrop.range(letters).map(Backdrop.Range::least).orElse(21.0);
            if (ratio < m.needed()) {
                all.add(m + " " + ratio);
            }
        }
        return all;
    }
}

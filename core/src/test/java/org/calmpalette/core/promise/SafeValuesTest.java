package org.calmpalette.core.promise;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.calmpalette.core.promise.SafeArea.Texts;
import org.calmpalette.core.setting.Chosen;
import org.calmpalette.core.setting.Effective;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.theme.Theme;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Which values of sliders and lists are safe, against WCAG's formula by hand and against what the cascade makes of each value. */
class SafeValuesTest {
    private static final String FADE =
            "{\"key\": \"fade\", \"label\": \"Fade\", \"place\": \"all\", \"kind\": \"number\", \"default\": 1, \"allowed\": {\"least\": 0, \"most\": 1%s}}";

    private static SafeValues of(Theme theme, String key, Map<String, Chosen> now) {
        return SafeValues.of(Texts.of(theme), theme.palette().known(key), "", now)
                .orElseThrow();
    }

    /**
     * Black with an opacity on white: WCAG 2.2 asks 4.5, which is a luminance of 0.1833 at most, and so an sRGB channel of 0.4653
     * (1.055 · 0.1833^(1/2.4) − 0.055): an opacity of 0.5347 at least.
     */
    @Test
    void ofASliderTheSafePartEndsWhereTheFormulaSays() {
        Theme theme = SafeAreaTest.theme("main { opacity: var(--fade); color: #000 }", FADE.formatted(""));
        SafeValues safe = of(theme, "fade", Map.of());
        assertThat(safe.matters()).isTrue();
        assertThat(safe.safe()).singleElement().satisfies(s -> {
            assertThat(number(s.from())).isBetween(0.5347, 0.5347 + 0.0051);
            assertThat(number(s.to())).isEqualTo(1);
        });
        // Every value that was looked at is as it is said to be, and no step beside the border is left out.
        List<SafeValues.Judged> judged = safe.judged();
        assertThat(judged).hasSizeGreaterThan(24).allSatisfy(j -> assertThat(j.isSafe())
                .isEqualTo(number(j.value()) > 0.5347));
        assertThat(judged.get(0).hard()).extracting(SafeArea.Met::words).contains("One");
        // In steps of its own it ends on one.
        assertThat(of(
                                SafeAreaTest.theme(
                                        "main { opacity: var(--fade); color: #000 }",
                                        FADE.formatted(", \"step\": 0.1")),
                                "fade",
                                Map.of())
                        .safe())
                .extracting(s -> number(s.from()))
                .containsExactly(0.6);
    }

    private static double number(Value v) {
        return ((Value.Number) v).number().doubleValue();
    }

    @Test
    void whatElseIsChosenCounts() {
        Theme theme = SafeAreaTest.theme(
                "main { opacity: var(--fade); color: var(--ink) }",
                FADE.formatted(""),
                ReadableTest.color("ink", "#000000", ""));
        assertThat(of(theme, "fade", Map.of("ink", Chosen.of("#595959"))).safe())
                .singleElement()
                .satisfies(s -> {
                    // 7 to 1 as it is; the most that may be seen through is where it has come down to 4.5.
                    assertThat(number(s.from())).isBetween(0.8, 0.9);
                });
        // Hard to read whatever the slider says: it is no matter of the slider.
        SafeValues none = of(theme, "fade", Map.of("ink", Chosen.of("#cccccc")));
        assertThat(none.matters()).isFalse();
    }

    @Test
    void ofAListEachIsLookedAt() {
        Theme theme = SafeAreaTest.theme(
                "p { background: var(--mood); color: #000 }",
                "{\"key\": \"mood\", \"label\": \"M\", \"place\": \"all\", \"kind\": \"choice\", \"default\": \"day\", \"allowed\": {\"options\": [{\"key\": \"day\", \"label\": \"D\", \"css\": \"#fff\"}, {\"key\": \"dusk\", \"label\": \"U\", \"css\": \"#888\"}, {\"key\": \"night\", \"label\": \"N\", \"css\": \"#222\"}]}}",
                "{\"key\": \"bold\", \"label\": \"B\", \"place\": \"all\", \"kind\": \"yes-no\", \"default\": true}");
        SafeValues safe = of(theme, "mood", Map.of());
        assertThat(safe.judged())
                .extracting(j -> ((Value.Text) j.value()).text()
                        + j.hard().stream().map(SafeArea.Met::words).distinct().toList())
                .containsExactly("day[]", "dusk[]", "night[Two]");
        assertThat(safe.safe()).isEmpty();
        assertThat(of(theme, "bold", Map.of()).matters()).isFalse();
    }

    /** What is proposed was tried, keeps what is made, and one step more would not do. */
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "number | 1 | \"least\": 0, \"most\": 1, \"step\": 0.05 | Let “fade” be 0.55 to 1",
                "percentage | 80 | \"least\": 0, \"most\": 100 | Let “fade” be 53.5% to 100%",
                "choice | full | \"options\": [{\"key\": \"full\", \"label\": \"Full\", \"css\": \"1\"}, {\"key\": \"half\", \"label\": \"Half\", \"css\": \"0.5\"}, {\"key\": \"most\", \"label\": \"Most\", \"css\": \"0.8\"}] | Let “fade” be Full, Most",
                // As made it is hard to read already: no limit helps.
                "number | 0.1 | \"least\": 0, \"most\": 1 | "
            })
    void limitsKeepAllTexts(String kind, String made, String allowed, String words) {
        String given = kind.equals("choice") ? "\"" + made + "\"" : made;
        Theme theme = SafeAreaTest.theme(
                "main { opacity: var(--fade); color: #000 }",
                "{\"key\": \"fade\", \"label\": \"fade\", \"place\": \"all\", \"kind\": \"" + kind + "\", \"default\": "
                        + given + ", \"allowed\": {" + allowed + "}}");
        Optional<Mend> limit = of(theme, "fade", Map.of()).limit();
        assertThat(limit.map(Mend::words).orElse(null)).isEqualTo(words);
        WidestLimits.Proposal all = WidestLimits.of(theme, Texts.of(theme), key -> true);
        assertThat(all.limits()).hasSize(words == null ? 0 : 1);
        assertThat(all.left()).hasSize(words == null ? 1 : 0);
        if (words != null) {
            assertThat(of(all.change().applied(theme), "fade", Map.of()).matters())
                    .isFalse();
        }
    }

    /** In one band alone: what is hard there is told, and what other bands have is not touched. */
    @Test
    void aBandHasItsOwn() {
        Theme theme = SafeAreaTest.theme(
                "main { opacity: var(--fade); color: #000 }",
                FADE.formatted("").replace("\"default\"", "\"perBand\": true, \"default\""));
        assertThat(theme.palette().bands().list()).extracting(b -> b.key()).contains("phone");
        SafeValues phone = SafeValues.of(Texts.of(theme), theme.palette().known("fade"), "phone", Map.of())
                .orElseThrow();
        assertThat(phone.judged().get(0).hard()).isNotEmpty().allMatch(m -> m.width() < 768);
    }

    /** A large text is asked for less: the size is judged by what it does to what is needed. */
    @Test
    void theSizeOfATextDecidesWhatItNeeds() {
        Theme theme = SafeAreaTest.theme(
                "p { font-size: var(--size); color: #767676; background: #eee }",
                "{\"key\": \"size\", \"label\": \"S\", \"place\": \"all\", \"kind\": \"length\", \"default\": {\"value\": 30, \"unit\": \"px\"}, \"allowed\": {\"units\": [{\"unit\": \"px\", \"least\": 10, \"most\": 60}]}}");
        // As it is asked with a size that may be chosen, a text needs what small ones need: no size mends it.
        assertThat(of(theme, "size", Map.of()).matters()).isFalse();
        assertThat(Texts.of(theme).hardToRead(Effective.of(theme.palette(), Map.of(), theme.media())))
                .extracting(SafeArea.Met::words)
                .containsOnly("Two");
    }

    @Test
    void whatIsEndlessIsNotJudged() {
        Theme theme = SafeAreaTest.theme(
                "main { color: var(--ink) }",
                ReadableTest.color("ink", "#000000", ""),
                "{\"key\": \"n\", \"label\": \"N\", \"place\": \"all\", \"kind\": \"number\", \"default\": 1}");
        Texts texts = Texts.of(theme);
        for (String key : List.of("ink", "n")) {
            assertThat(SafeValues.of(texts, theme.palette().known(key), "", Map.of()))
                    .isEmpty();
        }
    }
}

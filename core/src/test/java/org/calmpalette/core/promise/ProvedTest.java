package org.calmpalette.core.promise;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.TreeMap;
import org.calmpalette.core.Generated;
import org.calmpalette.core.render.Measures;
import org.calmpalette.core.setting.ColorKind;
import org.calmpalette.core.setting.Given;
import org.calmpalette.core.setting.Palette;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.Thresholds;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.Themes;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/** Of the next state of a theme only what a change touches is proved again, and the answers are those of a proof from the beginning. */
class ProvedTest {
    private static final String HEAD =
            "<!doctype html><html lang=en><head><title>T</title><link rel=stylesheet href=a.css></head><body>";
    private static final String CSS = "body { color: var(--ink); background: var(--paper) } p { color: var(--note) }";

    private static Theme theme(String first, String second, String css, String... settings) {
        return Themes.of(
                "index.html",
                HEAD + first + "</body></html>",
                "other.html",
                HEAD + second + "</body></html>",
                "a.css",
                css,
                "palette.json",
                "{\"name\": \"T\", \"places\": [{\"key\": \"all\", \"label\": \"All\"}], \"settings\": ["
                        + String.join(",", settings) + "]}");
    }

    private static Theme theme() {
        return theme(
                "<h1>One</h1><p>Two</p>",
                "<h1>Three</h1>",
                CSS,
                ReadableTest.color("ink", "#1d2b3a", "\"swatches\": [\"#1d2b3a\", \"#334455\"]"),
                ReadableTest.color("paper", "#ffffff", "\"swatches\": [\"#ffffff\", \"#f3efe6\"]"),
                ReadableTest.color("note", "#333333", "\"swatches\": [\"#333333\", \"#555555\"]"),
                ReadableTest.color("spare", "#333333", "\"opaque\": true"));
    }

    private static Promises.Checked checked(Theme theme, Proved before, Map<String, Measures> measures) {
        return Promises.of(theme, before, measures, Map.of(), List.of(), (done, total, what) -> {});
    }

    private static Promises.Checked checked(Theme theme, Proved before) {
        return checked(theme, before, Map.of());
    }

    private static Theme with(Theme theme, Setting s) {
        return theme.with(
                theme.palette().replacing(s, theme.palette().place(s.place()).orElseThrow()));
    }

    private static Theme limited(Theme theme, String key, String... swatches) {
        return with(
                theme, theme.palette().known(key).withKind(new ColorKind(List.of(swatches), null, List.of(), true)));
    }

    /** What has to be looked at: pages, and questions of all texts. */
    private static void asks(Theme next, Proved before, int pages, int questions) {
        Promises.Checked after = checked(next, before);
        assertThat(after.proved().pagesAsked()).as("pages that were asked").isEqualTo(pages);
        assertThat(after.proved().questionsDecided())
                .as("questions that were decided")
                .isEqualTo(questions);
        assertThat(after.answers()).isEqualTo(checked(next, Proved.NOTHING).answers());
    }

    @Test
    void onlyWhatAChangeTouchesIsProvedAgain() {
        Theme theme = theme();
        Promises.Checked first = checked(theme, Proved.NOTHING);
        assertThat(first.proved().pagesAsked()).isEqualTo(2);
        // A heading and a paragraph, each on the paper; the second page's heading asks the same as the first one's.
        assertThat(first.proved().questionsDecided()).isEqualTo(2);
        assertThat(first.answers())
                .filteredOn(a -> a.promise() == Promise.READABLE)
                .allMatch(a -> a.state() == Answer.State.KEPT)
                .hasSize(2);

        asks(theme, first.proved(), 0, 0);
        asks(
                theme.with(theme.palette().withThresholds(new Thresholds(Thresholds.Level.AA, 300))),
                first.proved(),
                0,
                0);
        // It is told by its name, and nothing is looked at for that.
        Setting spare = theme.palette().known("spare");
        Theme renamed = with(
                theme,
                new Setting(
                        spare.key(),
                        "Not used",
                        spare.help(),
                        spare.place(),
                        spare.kind(),
                        spare.given(),
                        spare.bands(),
                        spare.perBand(),
                        spare.shown(),
                        spare.triple(),
                        spare.drawings(),
                        spare.former()));
        asks(renamed, first.proved(), 0, 0);
        asks(limited(theme, "spare", "#000000", "#333333"), first.proved(), 0, 0);
        asks(limited(theme, "note", "#333333", "#bbbbbb"), first.proved(), 0, 1);
        asks(limited(theme, "paper", "#ffffff", "#888888"), first.proved(), 0, 2);
        // More contrast is asked of each text.
        asks(
                theme.with(theme.palette().withThresholds(new Thresholds(Thresholds.Level.AAA, 300))),
                first.proved(),
                2,
                2);
        // What is made otherwise may change which rules hold and what is seen.
        Setting ink = theme.palette().known("ink");
        asks(with(theme, ink.withGiven(new Given.Fixed(Value.of("#334455")))), first.proved(), 2, 2);
        TreeMap<String, byte[]> files = new TreeMap<>();
        theme.files().paths().forEach(p -> files.put(p, theme.files().read(p)));
        files.put("other.html", (HEAD + "<h1>Three</h1><p style='color: #777777'>New</p>").getBytes());
        asks(
                Theme.read(org.calmpalette.core.theme.ThemeFiles.of(files), "T"),
                first.proved(),
                1,
                // The headings' question is asked by this page too, which differs.
                2);
    }

    /** A setting that another one demands a contrast with is part of what may be chosen of that one. */
    @Test
    void whatIsDemandedOfAnotherIsDecidedAgain() {
        String demands = "\"opaque\": true, \"contrast\": [{\"with\": \"paper\", \"atLeast\": 4.5}]";
        Theme theme = theme(
                "<h1>One</h1>",
                "",
                "h1 { color: var(--ink); background: var(--paper) }",
                ReadableTest.color("ink", "#1d2b3a", demands),
                ReadableTest.color("paper", "#ffffff", "\"opaque\": true"));
        Promises.Checked first = checked(theme, Proved.NOTHING);
        Setting ink = theme.palette().known("ink");
        ColorKind kind = (ColorKind) ink.kind();
        Theme free = with(theme, ink.withKind(new ColorKind(kind.swatches(), kind.bounds(), List.of(), kind.opaque())));
        asks(free, first.proved(), 0, 1);
    }

    @Tag("generated")
    @Test
    void whateverChangesTheAnswersAreThoseOfAProofFromTheBeginning() {
        Random random = Generated.random(83);
        int known = 0;
        int steps = 0;
        int decided = 0;
        for (int n = 0; n < Generated.times(4); n++) {
            Theme theme = sound(random);
            Proved before = checked(theme, Proved.NOTHING).proved();
            for (int i = 0; i < 10; i++) {
                theme = changed(random, theme);
                Promises.Checked next = checked(theme, before);
                Promises.Checked anew = checked(theme, Proved.NOTHING);
                assertThat(next.answers())
                        .as("%s %s", Themes.text(theme.files(), "a.css"), theme.palette())
                        .isEqualTo(anew.answers());
                steps++;
                known += next.proved().pagesAsked() == 0 ? 1 : 0;
                decided += anew.proved().questionsDecided() - next.proved().questionsDecided();
                before = next.proved();
            }
        }
        assertThat(known).as("steps of %d in which no page was asked", steps).isGreaterThan(steps / 4);
        assertThat(decided).as("questions that were known").isGreaterThan(steps);
    }

    /** Of some what they demand of each other cannot be. */
    private static Theme sound(Random random) {
        Theme theme = MadeThemes.theme(random);
        while (theme.palette().settings().size() < 4) {
            theme = MadeThemes.theme(random);
        }
        return theme;
    }

    /** One setting's limits or default, the sheet, or the page, as another theme has it. */
    private static Theme changed(Random random, Theme theme) {
        Theme other = sound(random);
        Palette palette = theme.palette();
        Setting one = palette.settings().get(random.nextInt(palette.settings().size()));
        Setting its = other.palette().known(one.key());
        return switch (random.nextInt(5)) {
            case 0 -> with(theme, one.withGiven(its.given()));
            case 1 -> Theme.read(other.files(), "T").with(palette);
            case 2 -> {
                TreeMap<String, byte[]> files = new TreeMap<>();
                theme.files().paths().forEach(p -> files.put(p, theme.files().read(p)));
                files.put(
                        "index.html",
                        MadeThemes.PAGE
                                .replace("Two ", "Two " + random.nextInt(9))
                                .getBytes());
                yield Theme.read(org.calmpalette.core.theme.ThemeFiles.of(files), "T")
                        .with(palette);
            }
            default -> with(theme, one.withKind(its.kind()));
        };
    }

    /** Where boxes come to be known, a text is looked at where it stands; and it is not forgotten what was found there. */
    @Test
    void boxesThatBecomeKnownAreLookedAt() {
        PictureUnder made = new PictureUnder();
        Promises.Checked blind = checked(made.theme, Proved.NOTHING);
        Promises.Checked seen = checked(made.theme, blind.proved(), made.measures);
        assertThat(seen.proved().pagesAsked()).isEqualTo(1);
        assertThat(seen.answers())
                .isEqualTo(checked(made.theme, Proved.NOTHING, made.measures).answers());
        assertThat(readable(blind)).isEqualTo(Answer.State.UNPROVEN);
        assertThat(readable(seen)).isEqualTo(Answer.State.KEPT);
        Promises.Checked again = checked(made.theme, seen.proved(), made.measures);
        assertThat(again.proved().pagesAsked() + again.proved().questionsDecided())
                .isZero();
        assertThat(again.answers()).isEqualTo(seen.answers());
        // Its place is asked for again once it has to be decided again.
        Theme other = limited(made.theme, "ink", "#ffffff", "#eeeeee");
        Promises.Checked then = checked(other, again.proved(), made.measures);
        assertThat(then.proved().questionsDecided()).isPositive();
        assertThat(then.answers())
                .isEqualTo(checked(other, Proved.NOTHING, made.measures).answers());
    }

    private static Answer.State readable(Promises.Checked checked) {
        return checked.answers().stream()
                .filter(a -> a.promise() == Promise.READABLE)
                .map(Answer::state)
                .findFirst()
                .orElseThrow();
    }

    /** Letters on the dark end of a gradient that is light at its other one. */
    private static final class PictureUnder {
        private final Theme theme = Themes.of(
                "index.html",
                "<!doctype html><html lang=en><head><title>T</title><link rel=stylesheet href=a.css></head><body><main><p>One</p></main></body></html>",
                "a.css",
                "body { margin: 0 } main { background: linear-gradient(#000000, #ffffff); height: 400px } p { color: var(--ink); margin: 0; height: 20px }",
                "palette.json",
                "{\"name\": \"T\", \"places\": [{\"key\": \"all\", \"label\": \"All\"}], \"settings\": ["
                        + ReadableTest.color("ink", "#ffffff", "\"swatches\": [\"#ffffff\", \"#dddddd\"]") + "]}");
        private final Map<String, Measures> measures;

        PictureUnder() {
            String whole = "\"%d\": [[320, 0, 0, 320, 400], [2560, 0, 0, 2560, 400]],";
            measures = Map.of(
                    "index.html",
                    Measures.read(
                            "boxes",
                            ("{\"format\": \"calm-measures/1\", \"page\": \"index.html\", \"layout\": \"\", \"windowHeight\": 800, \"from\": 320, \"to\": 2560, \"unsure\": [], \"height\": [[320, 800], [2560, 800]],"
                                            + "\"boxes\": {" + whole.formatted(index("html"))
                                            + whole.formatted(index("body")) + whole.formatted(index("main"))
                                            + "\"%1$d\": [[320, 0, 0, 320, 20], [2560, 0, 0, 2560, 20]]},"
                                                    .formatted(index("p"))
                                            + "\"lines\": {\"%1$d\": [[320, 0, 0, 40, 20], [2560, 0, 0, 40, 20]]}}"
                                                    .formatted(index("p")))
                                    .getBytes()));
        }

        private int index(String tag) {
            var elements = theme.pages().get(0).elements();
            return elements.indexOf(elements.stream()
                    .filter(e -> e.normalName().equals(tag))
                    .findFirst()
                    .orElseThrow());
        }
    }
}

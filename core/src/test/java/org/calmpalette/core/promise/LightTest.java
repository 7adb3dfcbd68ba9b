package org.calmpalette.core.promise;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.List;
import java.util.SortedMap;
import java.util.TreeMap;
import org.calmpalette.core.setting.Thresholds;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.ThemeFiles;
import org.junit.jupiter.api.Test;

/** The weight of a page's pictures, over all that may be chosen. */
class LightTest {
    private static final int KB = 1000;

    /** Files a.jpg, b.jpg, c.jpg … of these sizes in kB. */
    private static Theme theme(String css, String body, String settings, int... sizes) {
        SortedMap<String, byte[]> files = new TreeMap<>();
        files.put(
                "index.html",
                ("<!doctype html><html><head><title>T</title><link rel=stylesheet href=a.css></head><body>" + body
                                + "</body></html>")
                        .getBytes(StandardCharsets.UTF_8));
        files.put("a.css", css.getBytes(StandardCharsets.UTF_8));
        files.put(
                "palette.json",
                ("{\"name\": \"T\", \"places\": [{\"key\": \"p\", \"label\": \"P\"}], \"settings\": [" + settings
                                + "]}")
                        .getBytes(StandardCharsets.UTF_8));
        for (int i = 0; i < sizes.length; i++) {
            byte[] bytes = new byte[sizes[i] * KB];
            Arrays.fill(bytes, (byte) (i + 1));
            files.put((char) ('a' + i) + ".jpg", bytes);
        }
        return Theme.read(ThemeFiles.of(files), "T");
    }

    private static String picture(String key, String made, String allowed) {
        return String.format(
                "{\"key\": \"%s\", \"label\": \"%s\", \"place\": \"p\", \"kind\": \"picture\", \"default\": \"%s\", \"allowed\": {%s}}",
                key, key, made, allowed);
    }

    private static Answer of(Theme theme) {
        List<Answer> all = Light.of(theme);
        assertThat(all).hasSize(1);
        return all.get(0);
    }

    @Test
    void whatCannotBeTooMuchIsKept() {
        assertThat(of(theme("body { background: url(a.jpg) }", "", "", 900, 600))
                        .state())
                .isEqualTo(Answer.State.KEPT);
    }

    /** As much as the maker says, and told so. */
    @Test
    void aMakerMayPromiseLess() {
        Theme theme = theme("body { background: url(a.jpg) }", "", "", 900);
        assertThat(of(theme).state()).isEqualTo(Answer.State.KEPT);
        Theme strict = theme.with(theme.palette().withThresholds(new Thresholds(Thresholds.Level.AA, 800)));
        assertThat(of(strict).state()).isEqualTo(Answer.State.BROKEN);
        assertThat(of(strict).inWords()).contains("900 kB together", "800 kB are the most that is promised");
        assertThat(Promise.LIGHT.holds(strict.palette().thresholds())).contains("at most 800 kB");
    }

    @Test
    void whatAPageAsksForIsCounted() {
        Answer both = of(theme("body { background: url(a.jpg) }", "<img src=b.jpg>", "", 900, 601));
        assertThat(both.state()).isEqualTo(Answer.State.BROKEN);
        assertThat(both.why()).contains("1,501 kB together at 320 px");
        // Once each, of candidates the heaviest; what is not shown paints nothing, but a picture of the page is fetched
        // all the same.
        assertThat(of(theme("p { background: url(a.jpg) }", "<p>x<p>y<img src=b.jpg>", "", 900, 590, 900))
                        .state())
                .isEqualTo(Answer.State.KEPT);
        assertThat(of(theme("img { display: none }", "<img src=a.jpg srcset='b.jpg 2x, c.jpg 3x'>", "", 10, 1200, 1600))
                        .state())
                .isEqualTo(Answer.State.BROKEN);
        assertThat(of(theme(
                                "p::before { content: ''; background: url(a.jpg) }",
                                "<p>x</p><video poster=b.jpg></video>",
                                "",
                                900,
                                700))
                        .state())
                .isEqualTo(Answer.State.BROKEN);
    }

    @Test
    void widthsDiffer() {
        Answer wide = of(
                theme("@media (min-width: 900px) { body { background: url(a.jpg), url(b.jpg) } }", "", "", 900, 700));
        assertThat(wide.state()).isEqualTo(Answer.State.BROKEN);
        assertThat(wide.width()).isEqualTo(900);
    }

    /** What a choice may bring back, or choose among words, is not promised unseen. */
    @Test
    void whatAChoiceMayShowIsNotPassedOver() {
        String there =
                "{\"key\": \"there\", \"label\": \"There\", \"place\": \"p\", \"kind\": \"yes-no\", \"default\": false}";
        assertThat(of(theme(
                                "p { background: url(b.jpg) }",
                                "<img src=a.jpg><p data-setting-show=there>x</p>",
                                there,
                                900,
                                700))
                        .state())
                .isEqualTo(Answer.State.UNPROVEN);
        assertThat(of(theme("", "<img src=a.jpg><p data-setting-show=there><img src=b.jpg></p>", there, 900, 700))
                        .state())
                .as("fetched all the same")
                .isEqualTo(Answer.State.BROKEN);
        assertThat(of(theme("p { background: url(b.jpg); display: none }", "<img src=a.jpg><p>x</p>", "", 900, 700))
                        .state())
                .as("no choice shows it")
                .isEqualTo(Answer.State.KEPT);
        String which =
                "{\"key\": \"which\", \"label\": \"Which\", \"place\": \"p\", \"kind\": \"choice\", \"default\": \"none\", \"allowed\": {\"options\": [{\"key\": \"none\"}, {\"key\": \"boat\", \"css\": \"url(b.jpg)\"}]}}";
        assertThat(of(theme("body { background: var(--which) }", "<img src=a.jpg>", which, 900, 700))
                        .state())
                .isEqualTo(Answer.State.UNPROVEN);
    }

    @Test
    void theHeaviestOfWhatIsAllowedCounts() {
        String page = "<img data-setting-src=one src=a.jpg><img data-setting-src=two src=a.jpg>";
        Answer broken =
                of(theme("", page, picture("one", "a.jpg", "") + "," + picture("two", "a.jpg", ""), 10, 800, 750));
        assertThat(broken.state()).isEqualTo(Answer.State.BROKEN);
        assertThat(broken.values()).hasToString("{one=Text[text=b.jpg], two=Text[text=c.jpg]}");
        assertThat(broken.why()).contains("1,550 kB");
        String most = "\"mostBytes\": 720000";
        assertThat(of(theme(
                                "",
                                page,
                                picture("one", "a.jpg", most) + "," + picture("two", "a.jpg", most),
                                10,
                                800,
                                750))
                        .state())
                .as("neither of the two may be chosen")
                .isEqualTo(Answer.State.KEPT);
    }
}

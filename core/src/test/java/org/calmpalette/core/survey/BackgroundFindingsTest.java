package org.calmpalette.core.survey;

import static org.assertj.core.api.Assertions.assertThat;

import java.awt.Color;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import javax.imageio.ImageIO;
import org.calmpalette.core.render.Gallery;
import org.calmpalette.core.render.Measures;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.theme.HalfLight;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.ThemeFiles;
import org.calmpalette.core.theme.Themes;
import org.junit.jupiter.api.Test;

/** A page whose picture, 400 by 300 px, is dark at the left and light at the right, under a text of 200 px. */
class BackgroundFindingsTest {
    private static Theme theme(String css, String palette) throws IOException {
        TreeMap<String, byte[]> files = new TreeMap<>();
        files.put("index.html", HalfLight.PAGE.getBytes(StandardCharsets.UTF_8));
        files.put("a.css", css.getBytes(StandardCharsets.UTF_8));
        files.put("p.png", HalfLight.picture());
        if (!palette.isEmpty()) {
            files.put("palette.json", palette.getBytes(StandardCharsets.UTF_8));
        }
        return Theme.read(ThemeFiles.of(files), "T");
    }

    private static List<Finding> found(Theme theme) {
        return BackgroundFindings.of(
                new Rendered(theme),
                new Gallery(theme),
                Map.of("index.html", Measures.read("m", HalfLight.MEASURES.getBytes(StandardCharsets.UTF_8))));
    }

    private static List<Finding> found(String css) throws IOException {
        return found(theme(css, ""));
    }

    private static Finding only(List<Finding> all, Finding.Kind kind) {
        List<Finding> some = all.stream().filter(f -> f.kind() == kind).toList();
        assertThat(some).as(kind + " of " + all).hasSize(1);
        return some.get(0);
    }

    /** What is measured at 390 px, by the right edge of the table and of what is in it; the paragraph fits. */
    private static List<Finding> wide(String css, int right) {
        Theme theme = Themes.of(
                "index.html",
                "<!doctype html><html><head><link rel=stylesheet href=a.css></head><body><div id=a><table id=t><tr><td id=d>x</table></div><p>y",
                "a.css",
                css);
        org.calmpalette.core.page.Page page = theme.pages().get(0);
        StringBuilder boxes = new StringBuilder();
        // As wide as the window, or always as wide.
        Map.of("#a", 0, "#t", right, "#d", right, "p", 0)
                .forEach((selector, to) -> boxes.append(String.format(
                        "%s\"%d\":[[320,0,0,%d,50],[2560,0,0,%d,50]]",
                        boxes.isEmpty() ? "" : ",",
                        page.elements().indexOf(page.document().selectFirst(selector)),
                        to == 0 ? 320 : to,
                        to == 0 ? 2560 : to)));
        return BackgroundFindings.of(
                new Rendered(theme),
                new Gallery(theme),
                Map.of(
                        "index.html",
                        Measures.read(
                                "m",
                                ("{\"format\":\"calm-measures/1\",\"page\":\"index.html\",\"windowHeight\":800,\"from\":320,\"to\":2560,\"unsure\":[],\"height\":[[320,900]],\"boxes\":{"
                                                + boxes + "},\"lines\":{}}")
                                        .getBytes(StandardCharsets.UTF_8))));
    }

    @Test
    void aPageThatIsWiderThanAPhoneIsToldWithWhatReachesFarthest() {
        assertThat(only(wide("p{margin:0}", 613), Finding.Kind.WIDER_PAGE).message())
                .isEqualTo(
                        "In a window of 390 px the page is 613 px wide and moves sideways: <table> on line 1 reaches that far.");
        assertThat(only(wide("p{margin:0}", 391), Finding.Kind.WIDER_PAGE).message())
                .as("only in the narrower one")
                .startsWith("In a window of 360 px the page is 391 px wide");
        for (String cut :
                List.of("#a{overflow-x:auto}", "#a{overflow:hidden}", "html{overflow-x:clip}", "#t{position:fixed}")) {
            assertThat(wide(cut, 613).stream().filter(f -> f.kind() == Finding.Kind.WIDER_PAGE))
                    .as(cut)
                    .isEmpty();
        }
        assertThat(only(wide("p{margin:0}", 330), Finding.Kind.WIDER_PAGE).message())
                .startsWith("In a window of 320 px the page is 330 px wide");
        assertThat(wide("p{margin:0}", 320).stream().filter(f -> f.kind() == Finding.Kind.WIDER_PAGE))
                .isEmpty();
    }

    @Test
    void aTextOnALightPartOfAPictureIsFoundWithTheLeastShade() throws IOException {
        Theme theme = theme(".hero{color:#fff;background:#202020 url(p.png) right top no-repeat}", "");
        List<Finding> all = found(theme);
        // At 320 px the picture starts at -80: its light half lies from 120 on, under the second half of the text.
        Finding text = only(all, Finding.Kind.TEXT_ON_PICTURE);
        assertThat(text.message())
                .contains("“Cross by dusk”", "less than 1.13 to 1", "#ffffff on #f0f0f0", "4.5 is needed");
        assertThat(text.mend()).startsWith("Lay a dark shade of ").endsWith("behind p, the least that does.");
        Theme mended = text.fix().get().applied(theme);
        assertThat(found(mended)).extracting(Finding::kind).doesNotContain(Finding.Kind.TEXT_ON_PICTURE);
    }

    @Test
    void aTextOnItsDarkPartIsNot() throws IOException {
        assertThat(found(".hero{color:#fff;background:#202020 url(p.png) left -100px top no-repeat} p{color:#fff}"))
                .extracting(Finding::kind)
                .as("light from 100 px on")
                .contains(Finding.Kind.TEXT_ON_PICTURE);
        assertThat(found(".hero{color:#fff;background:#202020 url(p.png) left 40px top no-repeat}"))
                .extracting(Finding::kind)
                .doesNotContain(Finding.Kind.TEXT_ON_PICTURE);
    }

    @Test
    void asLongAsThePictureHasNotComeTheColourBehindItCounts() throws IOException {
        Theme theme = theme(".hero{color:#fff;background:#ddd url(p.png) left top/800px auto no-repeat}", "");
        Finding bare = only(found(theme), Finding.Kind.TEXT_WITHOUT_PICTURE);
        assertThat(bare.message()).contains("stands on #dddddd: 1.35 to 1");
        Theme mended = bare.fix().get().applied(theme);
        assertThat(found(mended)).extracting(Finding::kind).doesNotContain(Finding.Kind.TEXT_WITHOUT_PICTURE);
    }

    @Test
    void gradientsAreTold() throws IOException {
        Finding text = only(
                found(".hero{color:#777;background:linear-gradient(90deg,#777 60%,#000)}"),
                Finding.Kind.TEXT_ON_PICTURE);
        assertThat(text.message()).contains("less than 1.00 to 1", "all widths that were looked at");
        assertThat(found(".hero{color:#000;background:linear-gradient(#fff,#eee)}"))
                .isEmpty();
        String nowhere = ".hero{color:#777;background:linear-gradient(#777,#777)}";
        assertThat(found(nowhere))
                .as("what reads nowhere on its gradient is told once, by the survey itself")
                .isEmpty();
        assertThat(Survey.of(theme(nowhere, "")).findings())
                .extracting(Finding::kind)
                .contains(Finding.Kind.UNREADABLE_TEXT);
    }

    @Test
    void seamsSoftnessAndStretching() throws IOException {
        List<Finding> all =
                found(".hero{background:#00f url(p.png) left top/1200px 300px no-repeat} p{background:#fff}");
        assertThat(only(all, Finding.Kind.SEAM).message()).contains("right edge", "#0000ff goes on there");
        assertThat(only(all, Finding.Kind.BLURRED_PICTURE).message()).contains("3.00 times");
        assertThat(only(all, Finding.Kind.BLURRED_PICTURE).mend()).contains("1200 px wide");
        assertThat(only(all, Finding.Kind.STRETCHED_PICTURE).message()).contains("200% wider");
        assertThat(found(".hero{background:#f0f0f0 url(p.png) left top no-repeat} p{background:#fff}"))
                .as("the colour of its right edge")
                .isEmpty();
    }

    /** What a maker promises of pictures decides what is told: more, or less, than usual. */
    @Test
    void thresholdsOfTheMakerCount() throws IOException {
        String css = ".hero{background:#dddddd url(p.png) left top/500px 375px no-repeat} p{background:#fff}";
        String palette = "{\"format\":\"calm-palette/1\",\"name\":\"T\",\"promises\":[%s]}";
        assertThat(found(theme(css, String.format(palette, ""))))
                .as("1.25 times as large, 5.7 away from #f0f0f0")
                .extracting(Finding::kind)
                .containsExactly(Finding.Kind.SEAM);
        assertThat(found(theme(css, String.format(palette, "{\"threshold\":\"covered\",\"most\":6}"))))
                .isEmpty();
        Finding soft = only(
                found(theme(
                        css,
                        String.format(
                                palette,
                                "{\"threshold\":\"covered\",\"most\":6},{\"threshold\":\"sharp\",\"most\":0.5}"))),
                Finding.Kind.BLURRED_PICTURE);
        assertThat(soft.message()).contains("1.25 times").endsWith("looks soft.");
        assertThat(soft.mend()).as("half as large as it will be").contains("1000 px wide");
        assertThat(found(theme(css, String.format(palette, "{\"threshold\":\"covered\",\"most\":4}"))))
                .extracting(Finding::kind)
                .containsExactly(Finding.Kind.SEAM);
    }

    /** The picture ends in the colour of its edge today; whatever else an owner chooses, it does not. */
    @Test
    void aPictureThatEndsWellInTodaysColourAlone() throws IOException {
        String palette =
                "{\"format\":\"calm-palette/1\",\"name\":\"T\",\"places\":[{\"key\":\"top\",\"label\":\"Top\"}],\"settings\":[{\"key\":\"fill\",\"label\":\"Fill\",\"place\":\"top\",\"kind\":\"color\",\"default\":\"#f0f0f0\"%s}]}";
        String css = ".hero{background:var(--fill, #f0f0f0) url(p.png) left top no-repeat} p{background:#fff}";
        Finding seam = only(found(theme(css, String.format(palette, ""))), Finding.Kind.SEAM);
        assertThat(seam.message()).contains("right edge", "for the setting “Fill” a seam shows");
        assertThat(found(theme(css, String.format(palette, ",\"allowed\":{\"swatches\":[\"#f0f0f0\",\"#efefef\"]}"))))
                .as("what is allowed blends")
                .isEmpty();
    }

    @Test
    void aSubjectThatIsLostIsAnchoredOtherwise() throws IOException {
        String palette =
                "{\"format\":\"calm-palette/1\",\"name\":\"T\",\"pictures\":[{\"path\":\"p.png\",\"subject\":{\"name\":\"the boat\",\"left\":90,\"top\":50,\"width\":10,\"height\":20}}]}";
        Theme theme = theme(".hero{background:#f0f0f0 url(p.png) left top no-repeat} p{background:#fff}", palette);
        Finding lost = only(found(theme), Finding.Kind.LOST_SUBJECT);
        // The boat lies from 360 to 400 px: outside up to 360, cut up to 399.
        assertThat(lost.message())
                .startsWith("At 320 px the boat is out of sight")
                .contains("41 of 2,241");
        assertThat(lost.mend()).isEqualTo("Anchor it to right top: then it is not seen well at 0.");
        assertThat(found(lost.fix().get().applied(theme)))
                .extracting(Finding::kind)
                .doesNotContain(Finding.Kind.LOST_SUBJECT);
    }

    @Test
    void whatIsBlendedFilteredOrLiesUnderSomethingElseIsNotJudged() throws IOException {
        String hero = ".hero{color:#777;background:linear-gradient(90deg,#777 60%,#000)}";
        assertThat(found(hero)).isNotEmpty();
        // Layers that are mixed with each other are seen as they are mixed: with nothing below, and with white.
        assertThat(found(hero + ".hero{background-blend-mode:multiply}")).isNotEmpty();
        assertThat(found(hero + ".hero{color:#757575}")).isNotEmpty();
        assertThat(found(hero + ".hero{color:#757575;background-color:#fff;background-blend-mode:lighten}"))
                .isEmpty();
        assertThat(found(hero + ".hero{mix-blend-mode:screen}")).isEmpty();
        assertThat(found(hero + ".hero{filter:invert(1)}")).isEmpty();
        assertThat(found(hero + "p{backdrop-filter:blur(3px)}")).isEmpty();
        // Taken out of the flow it is still judged, as long as nothing else lies where its lines are.
        assertThat(found(hero + "p{position:absolute}")).isNotEmpty();
    }

    @Test
    void theColourOfASettingIsNotFixedByAMend() throws IOException {
        String css = ".hero{color:%s;background:#202020 url(p.png) left 0 top no-repeat}p{color:inherit}";
        String palette =
                """
        {"name":"T","places":[{"key":"p","label":"P"}],"settings":[{"key":"ink","label":"Ink","kind":"color","place":"p","default":"#222222"}]}""";
        // #222 is lost on the dark half; white would do on neither half, but on the dark one alone it does.
        String dark = css.replace("left 0", "left 300px");
        assertThat(only(found(theme(dark.formatted("#222222"), "")), Finding.Kind.TEXT_ON_PICTURE)
                        .mend())
                .startsWith("Write it in #ffffff");
        Finding bound =
                only(found(theme(dark.formatted("var(--ink, #222222)"), palette)), Finding.Kind.TEXT_ON_PICTURE);
        assertThat(bound.mend()).doesNotContain("Write it in");
    }

    @Test
    void ofTextsOfOneColourTheHarderOneIsTold() throws IOException {
        String two = HalfLight.PAGE.replace("</p>", "</p><p>Second words</p>");
        TreeMap<String, byte[]> files = new TreeMap<>();
        files.put("index.html", two.getBytes(StandardCharsets.UTF_8));
        files.put(
                "a.css",
                "p{color:#fff}p:first-child{background:rgb(0 0 0 / 30%)}.hero{background:#202020 url(p.png) left top no-repeat}"
                        .getBytes(StandardCharsets.UTF_8));
        files.put("p.png", HalfLight.picture());
        Theme theme = Theme.read(ThemeFiles.of(files), "T");
        // Both stand on the light half, the first with a shade of its own.
        String measures = HalfLight.MEASURES.replace(
                "\"6\":[[320,20,40,200,20]]}", "\"6\":[[320,210,40,10,20]],\"7\":[[320,210,80,60,20]]}");
        assertThat(measures).isNotEqualTo(HalfLight.MEASURES);
        List<Finding> found = BackgroundFindings.of(
                new Rendered(theme),
                new Gallery(theme),
                Map.of("index.html", Measures.read("m", measures.getBytes(StandardCharsets.UTF_8))));
        assertThat(only(found, Finding.Kind.TEXT_ON_PICTURE).message()).contains("“Second words”");
    }

    @Test
    void whatWasNotMeasuredIsNotJudged() throws IOException {
        Theme theme = theme(".hero{color:#777;background:linear-gradient(90deg,#777 60%,#000)}", "");
        String without = HalfLight.MEASURES.replace("\"5\":[[320,0,0,320,300],[2560,0,0,2560,300]],", "");
        assertThat(without).as("the hero's box is gone").doesNotContain("\"5\"");
        assertThat(BackgroundFindings.of(
                        new Rendered(theme),
                        new Gallery(theme),
                        Map.of("index.html", Measures.read("m", without.getBytes(StandardCharsets.UTF_8)))))
                .isEmpty();
        // A line of which no pixel's middle lies in the window: what lies behind it is not judged, that it leaves the
        // window is.
        String edge = HalfLight.MEASURES.replace(
                "\"6\":[[320,20,40,200,20]]}}", "\"6\":[[320,319.6,40,200,20],[2560,2559.6,40,200,20]]}}");
        assertThat(edge).isNotEqualTo(HalfLight.MEASURES);
        assertThat(BackgroundFindings.of(
                        new Rendered(theme),
                        new Gallery(theme),
                        Map.of("index.html", Measures.read("m", edge.getBytes(StandardCharsets.UTF_8)))))
                .extracting(Finding::kind)
                .containsExactly(Finding.Kind.WIDER_PAGE);
    }

    @Test
    void aPictureThatIsMissingShowsNothing() throws IOException {
        assertThat(found(".hero{color:#fff;background:url(none.png), linear-gradient(90deg,#fff 60%,#000)}"))
                .extracting(Finding::kind)
                .contains(Finding.Kind.TEXT_ON_PICTURE);
    }

    @Test
    void aGroundThatVariesFromLetterToLetterIsFoundAlthoughTheTextReadsOnAllOfIt() throws IOException {
        // Stripes of 4 px: black reads on the darker ones at 5.9 to 1.
        String stripes = ".hero{color:#000;background:#fff repeating-linear-gradient(90deg,#fff 0 4px,#888 4px 8px)}";
        Theme theme = theme(stripes, "");
        Finding busy = only(found(theme), Finding.Kind.BUSY_GROUND);
        assertThat(busy.message()).contains("“Cross by dusk” varies, from letter to letter, by 22%", "At 5.92 to 1");
        assertThat(busy.mend()).contains("light shade").contains("the least that does");
        Theme mended = busy.fix().get().applied(theme);
        assertThat(found(mended)).extracting(Finding::kind).doesNotContain(Finding.Kind.BUSY_GROUND);
        // As much from one end of the text to the other is no pattern.
        assertThat(found(".hero{color:#000;background:#fff linear-gradient(90deg,#fff,#888 260px,#fff)}"))
                .extracting(Finding::kind)
                .doesNotContain(Finding.Kind.BUSY_GROUND);
        assertThat(found(".hero{color:#000;background:#fff repeating-linear-gradient(90deg,#fff 0 4px,#eee 4px 8px)}"))
                .extracting(Finding::kind)
                .doesNotContain(Finding.Kind.BUSY_GROUND);
    }

    @Test
    void tilesWhoseEdgesDoNotMeetAreFoundOnlyWhereTheyMeet() throws IOException {
        // Dark at the left and light at the right: within it jumps once, in its middle, and just as much at its edges.
        assertThat(found(".hero{background:url(p.png)}"))
                .extracting(Finding::kind)
                .doesNotContain(Finding.Kind.TILE_SEAM);
        Theme theme = theme(".hero{background:url(q.png)}", "");
        TreeMap<String, byte[]> files = new TreeMap<>();
        theme.files().paths().forEach(p -> files.put(p, theme.files().read(p)));
        BufferedImage ramp = new BufferedImage(400, 300, BufferedImage.TYPE_INT_RGB);
        for (int x = 0; x < 400; x++) {
            for (int y = 0; y < 300; y++) {
                ramp.setRGB(x, y, new Color(60 + x / 4, 60 + x / 4, 90).getRGB());
            }
        }
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        ImageIO.write(ramp, "png", out);
        files.put("q.png", out.toByteArray());
        Finding seam = only(found(Theme.read(ThemeFiles.of(files), "T")), Finding.Kind.TILE_SEAM);
        assertThat(seam.message())
                .startsWith("The right edge of q.png does not go on at its left one: 3")
                .endsWith("A line shows every 400 px in a window of 2560 px.");
        for (String without : new String[] {"no-repeat", "repeat-y", "repeat-x space", "0 0/2600px 300px"}) {
            files.put("a.css", (".hero{background:url(q.png) " + without + "}").getBytes(StandardCharsets.UTF_8));
            assertThat(found(Theme.read(ThemeFiles.of(files), "T")))
                    .as(without)
                    .extracting(Finding::kind)
                    .doesNotContain(Finding.Kind.TILE_SEAM);
        }
    }
}

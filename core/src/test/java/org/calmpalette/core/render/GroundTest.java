package org.calmpalette.core.render;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Map;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.color.Contrast;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What a text stands on, reckoned by hand on plain colours and gradients of one colour: Compositing and Blending 1, section 5.1. */
class GroundTest {
    private static Boxes page(String css, String inside, String... more) {
        return new Boxes(css, inside, more)
                .box(5, "[320,0,0,320,200]")
                .box(6, "[320,10,10,100,20]")
                .line(6, "[320,10,10,100,20]");
    }

    private static Ground.Answer under(String css) {
        Boxes boxes = page(css, "<section><p>Words</p></section>");
        return new Ground(boxes.scenes(), boxes.gallery(), true).under(6, 400);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "section{background:#204060} p{color:#fff} | #ffffff | #204060",
                "section{background:linear-gradient(#204060,#204060),#fff} p{color:#fff} | #ffffff | #204060",
                "section{background:linear-gradient(rgb(0 0 0/50%),rgb(0 0 0/50%)),#ffffff} p{color:#fff} | #ffffff | #808080",
                "section{background:#000} p{background:rgb(255 255 255/50%);color:#ff0000} | #ff0000 | #808080",
                "section{background:#000;opacity:.5} p{color:#fff} | #ffffff | #808080",
                "section{background:#000} p{color:#fff;opacity:.5} | #808080 | #000000",
                "section{background:#000} p{color:rgb(255 255 255/50%)} | #808080 | #000000",
                "body{background:#123456} p{color:#fff} | #ffffff | #123456",
                "html{background:#000000} body{background:rgb(255 255 255/50%)} p{color:#fff} | #ffffff | #808080",
                "p{color:#000} | #000000 | #ffffff"
            })
    void layersAreLaidOverEachOther(String css, String text, String ground) {
        Ground.Reading r = under(css).reading().orElseThrow();
        assertThat(r.text().hex()).isEqualTo(text);
        assertThat(r.ground().hex()).isEqualTo(ground);
        assertThat(r.worst())
                .isCloseTo(
                        Contrast.ratio(
                                Color.parse(text).orElseThrow(),
                                Color.parse(ground).orElseThrow()),
                        within(0.03));
        assertThat(r.low()).isEqualTo(r.worst());
        assertThat(r.dark()).isEqualTo(r.light());
    }

    /** What is painted where: CSS 2.2, appendix E, by hand. */
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "section::before{content:'';position:absolute;inset:0;background:rgb(0 0 0/50%)} section{position:relative;background:#fff} p{position:relative} | #808080",
                "section::before{content:'';position:absolute;z-index:-1;inset:0;background:rgb(0 0 0/50%)} section{position:relative;isolation:isolate;background:#fff} | #808080",
                "section::before{content:'';position:absolute;z-index:-1;inset:0;background:#000} section{position:relative;background:#fff} | #ffffff",
                "section::after{content:'';position:absolute;inset:0;background:rgb(0 0 0/50%)} section{position:relative;background:#fff} p{position:relative;z-index:1} | #808080",
                "section::before{content:'';position:absolute;inset:0;background:#000;opacity:.5} section{position:relative;background:#fff} p{position:relative} | #808080",
                "section::before{content:'';position:absolute;top:0;left:0;width:100%;height:100%;background:linear-gradient(#000,#000)} section{position:relative;background:#fff} p{position:relative} | #000000",
                "section::before{content:'';position:absolute;top:0;left:0;width:100%;height:8px;background:#000} section{position:relative;background:#fff} | #ffffff",
                "section::before{content:'';position:absolute;bottom:0;left:0;right:0;height:40%;background:#000} section{position:relative;background:#fff} p{position:relative} | #ffffff",
                "section::after{content:'';position:absolute;right:0;bottom:0;width:50px;height:50px;background:#000} section{position:relative;background:#fff} | #ffffff",
                "section::before{content:none;position:absolute;inset:0;background:#000} section{position:relative;background:#fff} p{position:relative} | #ffffff",
                "section::before{content:'';inset:0;background:#000} section{background:#fff} p{position:relative} | #ffffff",
                "body{position:relative} section::before{content:'';position:absolute;inset:0;background:rgb(0 0 0/50%)} section{background:#fff} p{position:relative} | #808080",
            })
    void generatedBoxesAreLaidWhereTheyAre(String css, String ground) {
        assertThat(under("p{color:red}" + css).reading().orElseThrow().ground().hex())
                .isEqualTo(ground);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                // Over the letters, or nobody knows where.
                "section::before{content:'';position:absolute;inset:0;background:rgb(0 0 0/50%)} section{position:relative;background:#fff}",
                "section::after{content:'';position:absolute;inset:0;background:rgb(0 0 0/50%)} section{position:relative;background:#fff} p{position:relative}",
                "section::before{content:'';position:absolute;inset:0;transform:skewY(2deg);background:#000} section{position:relative;background:#fff} p{position:relative}",
                "section::before{content:'';position:absolute;top:0;background:#000} section{position:relative;background:#fff} p{position:relative}",
            })
    void aGeneratedBoxThatMayCoverTheLettersIsToldOf(String css) {
        assertThat(under(css).missing()).contains(Ground.Missing.OVERLAP);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "section{background:linear-gradient(red,blue);filter:blur(2px)} | FILTER",
                "section{background:linear-gradient(red,blue)} p{mix-blend-mode:multiply} | BLEND_MODE",
                "section{background:linear-gradient(red,blue);background-clip:text} | UNREAD_BACKGROUND",
                "section{background:image-set(url(a.png) 1x)} | UNREAD_BACKGROUND"
            })
    void whatCannotBeToldSaysWhy(String css, Ground.Missing why) {
        assertThat(under(css).missing()).contains(why);
        assertThat(under(css).reading()).isEmpty();
    }

    @Test
    void whatCoversAllHidesWhatIsChangedBehindIt() {
        assertThat(under("section{background:linear-gradient(red,blue)} p{background:#fff;color:#000}")
                        .reading()
                        .orElseThrow()
                        .worst())
                .isCloseTo(21, within(0.01));
        // A filter of what is around changes the colour of the part too.
        assertThat(under("section{filter:invert(1)} p{background:#fff;color:#000}")
                        .missing())
                .contains(Ground.Missing.FILTER);
    }

    /** An SVG is drawn in its own shape; in a box of another shape nobody here knows what lies at its sides. */
    @Test
    void onAnSvgOfShapesATextIsJudgedWhereTheShapesAgree() {
        String svg =
                "<svg xmlns='http://www.w3.org/2000/svg' viewBox='0 0 160 100'><rect width='160' height='100' fill='#204060'/></svg>";
        Boxes cover = page(
                "section{background:url(a.svg) 0 0/cover} p{color:#fff}",
                "<section><p>Words</p></section>",
                "a.svg",
                svg);
        Ground.Reading r = new Ground(cover.scenes(), cover.gallery(), true)
                .under(6, 400)
                .reading()
                .orElseThrow();
        assertThat(r.ground().hex()).isEqualTo("#204060");
        Boxes stretched = page(
                "section{background:url(a.svg) 0 0/320px 50px} p{color:#fff}",
                "<section><p>Words</p></section>",
                "a.svg",
                svg);
        assertThat(new Ground(stretched.scenes(), stretched.gallery(), true)
                        .under(6, 400)
                        .missing())
                .contains(Ground.Missing.PICTURE_NOT_READ);
    }

    @Test
    void theWorstPlaceIsWhereItIs() {
        Ground.Reading r = under("section{background:linear-gradient(90deg,#000 100px,#fff 100px)} p{color:#fff}")
                .reading()
                .orElseThrow();
        assertThat(r.worst()).isCloseTo(1, within(0.001));
        assertThat(r.x()).as("white from 100 px on, and the text goes to 110").isBetween(100.0, 110.0);
        assertThat(r.low()).as("a tenth of it is white").isCloseTo(1, within(0.001));
        assertThat(r.dark()).isZero();
        assertThat(r.light()).isEqualTo(1);
        Ground.Reading little = under("section{background:linear-gradient(90deg,#000 107px,#fff 107px)} p{color:#fff}")
                .reading()
                .orElseThrow();
        assertThat(little.worst()).isCloseTo(1, within(0.001));
        assertThat(little.low()).as("less than a twentieth of it").isCloseTo(21, within(0.01));
    }

    @Test
    void aShadeThatWouldBeThereCounts() {
        Boxes boxes =
                page("section{background:linear-gradient(#fff,#fff)} p{color:#fff}", "<section><p>Words</p></section>");
        Ground shaded = new Ground(boxes.scenes(), boxes.gallery(), true, Map.of(6, Color.BLACK.withAlpha(0.5)));
        assertThat(shaded.under(6, 400).reading().orElseThrow().ground().hex()).isEqualTo("#808080");
        Ground plain = new Ground(boxes.scenes(), boxes.gallery(), true);
        assertThat(plain.under(6, 400, Color.BLACK).reading().orElseThrow().worst())
                .as("in another colour")
                .isCloseTo(21, within(0.01));
    }

    @Test
    void onlyWhatLiesUnderTheLineCounts() {
        Boxes boxes = new Boxes("section{background:#000} p{color:#fff}", "<section><p>Words</p></section>")
                .box(5, "[320,0,0,320,20]")
                .box(6, "[320,10,30,100,20]")
                .line(6, "[320,10,30,100,20]");
        assertThat(new Ground(boxes.scenes(), boxes.gallery(), true)
                        .under(6, 400)
                        .reading()
                        .orElseThrow()
                        .ground()
                        .hex())
                .as("the text hangs out of its part")
                .isEqualTo("#ffffff");
    }

    @Test
    void whatIsTakenOutOfTheFlowIsToldUnlessSomethingElseLiesThere() {
        String css = "section{position:absolute;color:#fff} div{background:#123456}";
        Boxes free = page(css, "<section><p>Words</p></section><div></div>").box(7, "[320,0,500,320,20]");
        assertThat(new Ground(free.scenes(), free.gallery(), true).under(6, 400).reading())
                .isPresent();
        Boxes under = page(css, "<section><p>Words</p></section><div></div>").box(7, "[320,0,0,320,20]");
        assertThat(new Ground(under.scenes(), under.gallery(), true)
                        .under(6, 400)
                        .missing())
                .contains(Ground.Missing.OVERLAP);
        Boxes covered = page(css + " p{background:#000}", "<section><p>Words</p></section><div></div>")
                .box(7, "[320,0,0,320,20]");
        assertThat(new Ground(covered.scenes(), covered.gallery(), true)
                        .under(6, 400)
                        .reading()
                        .orElseThrow()
                        .ground()
                        .hex())
                .isEqualTo("#000000");
    }

    @Test
    void whatIsNotShownOrNotKnownSaysSo() {
        Boxes boxes = page("p{color:#000}", "<section><p>Words</p></section>");
        Ground ground = new Ground(boxes.scenes(), boxes.gallery(), true);
        assertThat(ground.under(5, 400).missing()).as("has no text of its own").contains(Ground.Missing.NOT_SHOWN);
        assertThat(ground.under(6, 3000).missing()).contains(Ground.Missing.NOT_MEASURED);
    }
}

package org.calmpalette.core.render;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import org.calmpalette.core.color.Color;
import org.calmpalette.core.css.selector.States;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.Themes;
import org.calmpalette.core.value.Viewport;
import org.junit.jupiter.api.Test;

/** What lies behind a text: CSS Compositing 1, section 3 and 5.1. Expected colours are worked out by hand from its formula. */
class BackdropTest {
    private static Backdrop behind(String css, String body) {
        Theme theme = Themes.of(
                "a.css",
                css,
                "there.png",
                "x",
                "index.html",
                "<!doctype html><link rel=stylesheet href=a.css><body>" + body);
        Page page = theme.pages().get(0);
        return new Backdrop.Reader(
                        new Rendered(theme).styles(page, Viewport.of(1000, 800), States.NONE), theme.files()::has)
                .of(page.document().selectFirst("b"));
    }

    private static String seen(String css, String body) {
        Backdrop.Seen seen = behind(css, body).under(Color.BLACK);
        return seen.text().hex() + " on " + seen.ground().hex();
    }

    @Test
    void colorsLieOverEachOtherDownToTheCanvas() {
        assertThat(seen("", "<p><b>x</b>")).isEqualTo("#000000 on #ffffff");
        assertThat(seen("p{background:#ff0000}", "<p><b>x</b>")).isEqualTo("#000000 on #ff0000");
        assertThat(seen("p{background:rgb(255 0 0 / 50%)}", "<p><b>x</b>")).isEqualTo("#000000 on #ff8080");
        assertThat(seen("body{background:#0000ff} p{background:rgb(255 0 0 / 50%)}", "<p><b>x</b>"))
                .isEqualTo("#000000 on #800080");
        assertThat(seen("body{background:#0000ff} p{background:#fff}", "<p><b>x</b>"))
                .isEqualTo("#000000 on #ffffff");
    }

    @Test
    void anOpacityFadesTheWholeGroup() {
        // Black text on white at 50 % over red: half of each over red.
        assertThat(seen("body{background:#ff0000} p{background:#fff;opacity:.5}", "<p><b>x</b>"))
                .isEqualTo("#800000 on #ff8080");
        assertThat(seen("b{opacity:.5}", "<p><b>x</b>")).isEqualTo("#808080 on #ffffff");
        assertThat(seen("p{opacity:.5} b{opacity:.5}", "<p><b>x</b>"))
                .as("a quarter of black over white")
                .isEqualTo("#bfbfbf on #ffffff");
        assertThat(behind("p{opacity:0}", "<p><b>x</b>").isInvisible()).isTrue();
        assertThat(behind("p{opacity:.01}", "<p><b>x</b>").isInvisible()).isFalse();
        assertThat(behind("b{opacity:.5} p{background:#000}", "<p><b>x</b>")
                        .under(Color.WHITE)
                        .ratio())
                .isBetween(5.2, 5.4);
    }

    @Test
    void picturesAreNotGuessedUnlessTheyAreNotThere() {
        assertThat(behind("p{background:url(there.png)}", "<p><b>x</b>").unknown())
                .isEqualTo(Backdrop.Unknown.PICTURE);
        assertThat(behind("p{background:linear-gradient(red,blue) no-repeat 0 0 / 1px 50%}", "<p><b>x</b>")
                        .unknown())
                .as("it may lie beside the text")
                .isEqualTo(Backdrop.Unknown.PICTURE);
        assertThat(behind("p{background:url(data:,)}", "<p><b>x</b>").unknown()).isEqualTo(Backdrop.Unknown.PICTURE);
        assertThat(seen("p{background:#00ff00 url(gone.png)}", "<p><b>x</b>")).isEqualTo("#000000 on #00ff00");
        assertThat(behind("p{background:url(there.png)} b{background:#fff}", "<p><b>x</b>")
                        .unknown())
                .as("covered")
                .isNull();
        assertThat(behind("p{background:url(there.png)} b{background:rgb(255 255 255 / 90%)}", "<p><b>x</b>")
                        .unknown())
                .isEqualTo(Backdrop.Unknown.PICTURE);
    }

    @Test
    void whatIsMovedMayLieOverAnything() {
        for (String css : new String[] {
            "position:absolute",
            "position:fixed",
            "position:sticky",
            "margin-top:-1px",
            "margin-left:-2%",
            "transform:rotate(3deg)"
        }) {
            assertThat(behind("p{" + css + "}", "<p><b>x</b>").unknown())
                    .as(css)
                    .isEqualTo(Backdrop.Unknown.MOVED);
            assertThat(behind("p{background:#fff;" + css + "}", "<p><b>x</b>").unknown())
                    .as(css + " but covering")
                    .isNull();
        }
        assertThat(behind("p{margin-top:-0px;position:relative;transform:none}", "<p><b>x</b>")
                        .unknown())
                .isNull();
        assertThat(behind("div{opacity:.5} p{background:#fff;position:fixed}", "<div><p><b>x</b></div>")
                        .unknown())
                .as("the opacity around lets through what is covered")
                .isNull();
        assertThat(behind(
                                "section{position:absolute} div{opacity:.5} p{background:#fff}",
                                "<section><div><p><b>x</b></div></section>")
                        .unknown())
                .isEqualTo(Backdrop.Unknown.MOVED);
    }

    @Test
    void blendingAndFiltersAreNotGuessed() {
        assertThat(behind("p{mix-blend-mode:multiply}", "<p><b>x</b>").unknown())
                .isEqualTo(Backdrop.Unknown.BLEND_MODE);
        assertThat(behind("p{filter:blur(2px)}", "<p><b>x</b>").unknown()).isEqualTo(Backdrop.Unknown.FILTER);
        assertThat(behind("p{mix-blend-mode:normal;filter:none}", "<p><b>x</b>").unknown())
                .isNull();
        assertThat(behind("div{filter:invert(1)} p{background:#fff}", "<div><p><b>x</b></div>")
                        .unknown())
                .as("a filter around changes what is covered too")
                .isEqualTo(Backdrop.Unknown.FILTER);
        assertThatThrownBy(() -> behind("p{filter:blur(2px)}", "<p><b>x</b>").under(Color.BLACK))
                .isInstanceOf(IllegalStateException.class);
    }

    @Test
    void theUppermostPaintHasAHolder() {
        assertThat(behind("p{background:rgb(0 0 0 / 10%)}", "<div><p><b>x</b></div>")
                        .holder()
                        .normalName())
                .isEqualTo("p");
        assertThat(behind("", "<div><p><b>x</b></div>").holder().normalName()).isEqualTo("html");
    }

    @Test
    void onAGradientTheContrastLiesBetweenItsColours() {
        Backdrop grey = behind("p{background:linear-gradient(#000,#fff)}", "<p><b>x</b>");
        assertThat(grey.unknown()).isEqualTo(Backdrop.Unknown.GRADIENT);
        assertThat(grey.range(Color.BLACK)).hasValueSatisfying(r -> {
            assertThat(r.least()).isEqualTo(1);
            assertThat(r.most()).isEqualTo(21);
            assertThat(r.worst().hex()).isEqualTo("#000000");
        });
        assertThat(behind("p{background:linear-gradient(#777,#999)}", "<p><b>x</b>")
                        .range(Color.WHITE))
                .hasValueSatisfying(
                        r -> assertThat(r.most()).as("#777 on white").isBetween(4.4, 4.5));
        assertThat(behind(
                                "body{background:#000} p{background:linear-gradient(rgb(255 255 255 / 0%), rgb(255 255 255 / 50%))}",
                                "<p><b>x</b>")
                        .range(Color.WHITE))
                .hasValueSatisfying(r -> assertThat(r.worst().hex()).isEqualTo("#808080"));
        // Between two colours it may be worse than on either.
        assertThat(behind("p{background:linear-gradient(#f00,#00f)}", "<p><b>x</b>")
                        .range(Color.parse("#800080").orElseThrow()))
                .hasValueSatisfying(r -> assertThat(r.least()).isLessThan(1.05));
        assertThat(behind(
                                "body{background:linear-gradient(red,blue)} p{background:linear-gradient(rgb(0 0 0 / 10%),#fff)}",
                                "<p><b>x</b>")
                        .range(Color.WHITE))
                .as("two are not told")
                .isEmpty();
        assertThat(behind(
                                "body{background:url(there.png)} p{background:linear-gradient(rgb(0 0 0 / 10%),#fff)}",
                                "<p><b>x</b>")
                        .range(Color.WHITE))
                .isEmpty();
        assertThat(behind("p{background:#fff}", "<p><b>x</b>").range(Color.WHITE))
                .as("no gradient")
                .isEmpty();
    }

    private static final String COMES =
            "::before{content:'';position:fixed;inset:0;z-index:-1;opacity:0;animation:comes linear both;background:";

    @Test
    void whatFillsTheWindowBelowThePageIsStoodOnByAllThatHasNoGround() {
        String two = "<i></i><p><b>x</b>";
        assertThat(seen("i::before{content:'';position:fixed;inset:0;z-index:-1;background:#00f}", two))
                .isEqualTo("#000000 on #0000ff");
        assertThat(seen("i{position:fixed;top:0;left:0;width:100%;height:100vh;z-index:-2;background:#00f}", two))
                .as("an element, too")
                .isEqualTo("#000000 on #0000ff");
        assertThat(seen(
                        "i::before{content:'';position:fixed;inset:0;z-index:-1;background:#00f;opacity:.5} body{background:red}",
                        two))
                .as("half of it, over the canvas")
                .isEqualTo("#000000 on #800080");
        assertThat(seen(
                        "i::before{content:'';position:fixed;inset:0;z-index:-1;background:#00f} p{background:#fff}",
                        two))
                .isEqualTo("#000000 on #ffffff");
        assertThat(seen(
                        "html{background:#fff} body{background:#0f0} i::before{content:'';position:fixed;inset:0;z-index:-1;background:#00f}",
                        two))
                .as("a body that is not the canvas lies above it")
                .isEqualTo("#000000 on #00ff00");
        assertThat(seen(
                        "i{isolation:isolate} i::before{content:'';position:fixed;inset:0;z-index:-1;background:#00f}",
                        two))
                .as("it is the lowest part of something beside the text")
                .isEqualTo("#000000 on #ffffff");
        assertThat(seen("i::before{content:'';position:fixed;inset:0 50% 0 0;z-index:-1;background:#00f}", two))
                .as("half of the window only: beside the text, for all that is known")
                .isEqualTo("#000000 on #ffffff");
        assertThat(behind("i::before{content:'';position:fixed;inset:0;z-index:-1;background:url(there.png)}", two)
                        .unknown())
                .isEqualTo(Backdrop.Unknown.PICTURE);
    }

    @Test
    void aPageThatChangesIsReadAtItsWorst() {
        String body = "<i></i><u></u><p><b>x</b>";
        Backdrop one = behind("i" + COMES + "#222}", body);
        assertThat(one.unknown()).isEqualTo(Backdrop.Unknown.CHANGES);
        assertThat(one.range(Color.BLACK).orElseThrow().least()).isBetween(1.3, 1.4);
        assertThat(one.range(Color.BLACK).orElseThrow().most()).isEqualTo(21);
        assertThat(one.range(Color.BLACK).orElseThrow().worst().hex()).isEqualTo("#222222");
        assertThat(one.hardest(Color.BLACK).orElseThrow().element().normalName())
                .isEqualTo("i");
        // Grey letters read on white and on black at 3.9 and 5.3 to 1, and on the way between the two there is their
        // own grey.
        assertThat(behind("i" + COMES + "#000}", body)
                        .range(Color.rgb(0.5, 0.5, 0.5))
                        .orElseThrow()
                        .least())
                .isLessThan(1.3);
        // Red and blue are both lighter than what lies between them: #800080.
        Backdrop two = behind("i" + COMES + "#f00} u" + COMES + "#00f} body{background:#f00}", body);
        assertThat(two.range(Color.BLACK).orElseThrow().least())
                .as("blue is the darkest end, what lies halfway is darker still than red")
                .isLessThanOrEqualTo(2.45);
        assertThat(two.range(Color.WHITE).orElseThrow().worst().hex()).isEqualTo("#ff0000");
        assertThat(behind("i" + COMES + "#222} p{background:linear-gradient(#fff,#ddd)}", body)
                        .range(Color.BLACK)
                        .orElseThrow()
                        .least())
                .as("an opaque gradient covers what changes")
                .isGreaterThan(15);
        assertThat(behind("i" + COMES + "#222} p{background:linear-gradient(#fff8,#ddd8)}", body)
                        .range(Color.BLACK))
                .as("and one that is seen through does not")
                .isEmpty();
        assertThat(behind("i" + COMES + "#222} p{background:#fff}", body).unknown())
                .as("covered")
                .isNull();
        assertThat(behind("i" + COMES + "transparent}", body).unknown())
                .as("of no colour")
                .isNull();
        assertThat(behind("i{display:none} i" + COMES + "#222}", body).unknown())
                .isNull();
        assertThat(behind("i" + COMES + "#222} p{background:rgb(255 255 255/50%)}", body)
                        .range(Color.BLACK)
                        .orElseThrow()
                        .worst()
                        .hex())
                .as("through what is half see-through")
                .isEqualTo("#919191");
    }
}

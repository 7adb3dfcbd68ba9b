package org.calmpalette.core.cascade;

import static org.assertj.core.api.Assertions.assertThat;

import org.calmpalette.core.css.selector.States;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.Themes;
import org.calmpalette.core.value.Viewport;
import org.junit.jupiter.api.Test;

/** CSS Values 4, section 4.5.1: an address is read from the stylesheet in which the declaration stands that gives it. */
class PictureAddressesTest {
    private static ElementStyle paragraph() {
        Theme theme = Themes.of(
                "index.html",
                "<link rel=stylesheet href=css/a.css><style>p { fill: url(d.svg#b) }</style><p>x",
                "css/a.css",
                "p { background-image: url(p.png), linear-gradient(red, #00f), url(../q.png) }");
        return new Rendered(theme)
                .styles(theme.pages().get(0), Viewport.of(800, 600), States.NONE)
                .of(theme.pages().get(0).document().selectFirst("p"));
    }

    @Test
    void picturesFromTheirSheet() {
        assertThat(paragraph().computed("background-image"))
                .isEqualTo("url(\"css/p.png\"), linear-gradient(rgb(255, 0, 0), rgb(0, 0, 255)), url(\"q.png\")");
    }

    @Test
    void paintFromThePageThatSetsItThoughPicturesComeFromASheet() {
        assertThat(paragraph().computed("fill")).startsWith("url(\"d.svg");
    }
}

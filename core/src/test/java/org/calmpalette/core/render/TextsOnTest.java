package org.calmpalette.core.render;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.jsoup.nodes.Element;
import org.junit.jupiter.api.Test;

/** Which texts stand on the paint of an element, and how well the worst of them reads; ratios worked out by WCAG's formula. */
class TextsOnTest {
    // html 1, head 2, link 3, body 4, section 5, h1 6, p 7, div 8, b 9, p 10
    private static TextsOn on(String css, Integer... painting) {
        Boxes boxes = new Boxes(
                        css,
                        "<section><h1>Large words</h1><p>Small words</p><div><b>On a card</b></div></section><p>Elsewhere</p>")
                .box(5, "[320,0,0,320,200]")
                .box(6, "[320,10,10,100,30]")
                .box(7, "[320,10,50,100,20]")
                .box(8, "[320,0,90,320,40]")
                .box(9, "[320,10,100,100,20]")
                .box(10, "[320,10,300,100,20]")
                .line(6, "[320,10,10,100,30]")
                .line(7, "[320,10,50,100,20]")
                .line(9, "[320,10,100,100,20]")
                .line(10, "[320,10,300,100,20]");
        Scenes scenes = boxes.scenes();
        Set<Element> elements = new HashSet<>();
        List.of(painting).forEach(i -> elements.add(scenes.page().elements().get(i)));
        return TextsOn.of(scenes, boxes.gallery(), elements, 400);
    }

    @Test
    void theTextThatIsFurthestBelowWhatItNeedsStandsForAll() {
        // #767676 on white is 4.54 to 1: enough for the small text, and #949494 is 3.03: enough for the large one only.
        TextsOn texts = on(
                "section{background:#fff} h1{font-size:32px;color:#949494} p{color:#767676} div{background:#fff;color:#000}",
                5);
        assertThat(texts.texts())
                .as("not what has a ground of its own, nor what is elsewhere")
                .isEqualTo(2);
        assertThat(texts.unknown()).isZero();
        TextsOn.Worst worst = texts.worst().orElseThrow();
        assertThat(worst.words()).isEqualTo("Small words");
        assertThat(worst.ratio()).isCloseTo(4.54, within(0.01));
        assertThat(worst.needed()).isEqualTo(4.5);
        TextsOn small = on(
                "section{background:#fff} h1{font-size:32px;color:#949494} p{color:#949494} div{background:#fff}", 5);
        assertThat(small.worst().orElseThrow().words())
                .as("the same ratio, but more is needed")
                .isEqualTo("Small words");
        TextsOn large =
                on("section{background:#fff} h1{font-size:32px;color:#aaa} p{color:#767676} div{background:#fff}", 5);
        assertThat(large.worst().orElseThrow().words()).isEqualTo("Large words");
        assertThat(large.worst().orElseThrow().needed()).isEqualTo(3);
    }

    @Test
    void whatShowsThroughCountsAndWhatCannotBeToldIsCounted() {
        TextsOn through = on("section{background:#fff} h1,p{color:#000} div{background:rgb(0 0 0/50%);color:#000}", 5);
        assertThat(through.texts()).isEqualTo(3);
        assertThat(through.worst().orElseThrow().words()).isEqualTo("On a card");
        TextsOn shadowed =
                on("section{background:#fff;color:#000} h1{text-shadow:0 0 2px #fff} div{background:#fff}", 5);
        assertThat(shadowed.texts()).isEqualTo(2);
        assertThat(shadowed.unknown()).isEqualTo(1);
        assertThat(on("section{background:#fff;filter:blur(1px)}", 5).worst()).isEmpty();
        assertThat(on("section{background:#fff}", 8).texts())
                .as("a box that paints nothing hides nothing either")
                .isEqualTo(1);
        assertThat(on("section{background:#fff}").texts()).isZero();
    }
}

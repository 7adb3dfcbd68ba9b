package org.calmpalette.core.render;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import org.calmpalette.core.background.BoxGeometry.Rectangle;
import org.calmpalette.core.background.Scene;
import org.calmpalette.core.value.BackgroundLayer;
import org.calmpalette.core.value.BackgroundLayer.Box;
import org.calmpalette.core.value.Image;
import org.junit.jupiter.api.Test;

/** Backgrounds over all widths: what the cascade says between measured boxes. */
class ScenesTest {
    private static Boxes hero(String css) {
        return new Boxes(css, "<section class=hero><p>Words</p></section>")
                .box(5, "[320,0,100,320,300],[2560,0,100,2560,300]")
                .box(6, "[320,20,120,200,20]")
                .line(6, "[320,20,120,200,20]");
    }

    @Test
    void mediaQueriesTurnAtTheirFirstWidth() {
        Scenes scenes =
                hero(".hero{background:linear-gradient(red,blue) 0 0}@media (min-width:768px){.hero{background-position:10px 0}}@media (max-width:599px){.hero{background-position:5px 0}}")
                        .scenes();
        assertThat(scenes.stretches()).containsExactly(320, 600, 768);
        assertThat(scenes.layer(5, 0, 599).orElseThrow().position().x().px()).isEqualTo(5);
        assertThat(scenes.layer(5, 0, 600).orElseThrow().position().x().px()).isZero();
        assertThat(scenes.layer(5, 0, 767).orElseThrow().position().x().px()).isZero();
        assertThat(scenes.layer(5, 0, 768).orElseThrow().position().x().px()).isEqualTo(10);
        assertThat(scenes.layer(5, 1, 800)).as("there is no second layer").isEmpty();
    }

    @Test
    void lengthsThatFollowTheWindowAreExactInBetween() {
        Scenes scenes = hero(".hero{background:linear-gradient(red,blue) 10vw 0/clamp(200px, 50vw, 900px) auto}")
                .scenes();
        for (int width : new int[] {320, 333, 399, 401, 777, 1234, 1799, 1801, 2559, 2560}) {
            BackgroundLayer layer = scenes.layer(5, 0, width).orElseThrow();
            assertThat(layer.position().x().px()).as("%d", width).isCloseTo(width / 10.0, within(0.02));
            double wide = ((BackgroundLayer.Size.Given) layer.size())
                    .width()
                    .orElseThrow()
                    .px();
            assertThat(wide).as("%d", width).isCloseTo(Math.max(200, Math.min(900, width / 2.0)), within(0.02));
        }
    }

    @Test
    void theBackgroundOfBodyIsThatOfTheCanvasUnlessTheRootHasOne() {
        Scenes body =
                hero("body{background:linear-gradient(red,blue);margin:8px}").scenes();
        assertThat(body.isCanvas(4, 800)).isTrue();
        assertThat(body.isCanvas(5, 800)).isFalse();
        BackgroundLayer layer = body.layer(4, 0, 800).orElseThrow();
        Scene scene = body.scene(4, body.painted(4, layer, 800), 800).orElseThrow();
        Rectangle painted = scene.boxes().of(Box.BORDER_BOX);
        assertThat(painted.x() + scene.x()).isCloseTo(0, within(1e-9));
        assertThat(painted.width()).isEqualTo(800);
        assertThat(painted.height()).as("to the end of the page").isEqualTo(1000);
        Scenes root = hero("html{background:#fff}body{background:linear-gradient(red,blue)}")
                .scenes();
        assertThat(root.isCanvas(4, 800)).isFalse();
        assertThat(root.isCanvas(1, 800)).isTrue();
    }

    @Test
    void whatIsFixedIsPlacedInTheWindow() {
        Scenes scenes =
                hero(".hero{background:linear-gradient(red,blue) fixed}").scenes();
        BackgroundLayer layer = scenes.painted(5, scenes.layer(5, 0, 900).orElseThrow(), 900);
        Scene scene = scenes.scene(5, layer, 900).orElseThrow();
        assertThat(scene.boxes().width()).isEqualTo(900);
        assertThat(scene.boxes().height())
                .as("of the window, not of the page or the part")
                .isEqualTo(800);
        assertThat(scene.y()).isZero();
    }

    @Test
    void whatCoversAndWhatDoesNot() {
        Boxes boxes = new Boxes(
                ".a{background:#fff}.b{background:rgb(255 255 255/50%)}.c{background:#fff;opacity:.9}section{background:linear-gradient(red,blue)}",
                "<section><div class=a></div><div class=b></div><div class=c></div><img><p>Words</p></section><div class=a></div>");
        boxes.box(5, "[320,0,0,320,300]")
                .box(6, "[320,1,1,10,10]")
                .box(7, "[320,2,2,10,10]")
                .box(8, "[320,3,3,10,10]")
                .box(9, "[320,4,4,10,10]")
                .box(10, "[320,5,5,10,10]")
                .box(11, "[320,6,6,10,10]")
                .line(10, "[320,5,5,8,8]");
        Scenes scenes = boxes.scenes();
        Scene scene =
                scenes.scene(5, scenes.layer(5, 0, 400).orElseThrow(), 400).orElseThrow();
        assertThat(scene.covers())
                .as("opaque boxes, pictures and lines of texts inside of it")
                .containsExactlyInAnyOrder(
                        new Rectangle(1, 1, 10, 10), new Rectangle(4, 4, 10, 10), new Rectangle(5, 5, 8, 8));
    }

    @Test
    void unreadImagesAreNotNone() {
        Scenes scenes = hero(".hero{background:image-set(url(a.png) 1x)}").scenes();
        assertThat(scenes.layer(5, 0, 400).map(BackgroundLayer::image).orElseThrow())
                .isNotInstanceOf(Image.None.class);
    }

    @Test
    void whereNobodyMeasuredThereIsNoScene() {
        Scenes scenes = new Boxes("section{background:linear-gradient(red,blue)}", "<section></section>").scenes();
        assertThat(scenes.scene(5, scenes.layer(5, 0, 400).orElseThrow(), 400)).isEmpty();
        assertThat(scenes.scene(4, scenes.layer(5, 0, 400).orElseThrow(), 3000))
                .as("wider than measured")
                .isEmpty();
    }
}

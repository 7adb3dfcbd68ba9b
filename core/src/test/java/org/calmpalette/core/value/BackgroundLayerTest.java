package org.calmpalette.core.value;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Optional;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.color.ColorSpace;
import org.calmpalette.core.color.HueArc;
import org.calmpalette.core.value.BackgroundLayer.Attachment;
import org.calmpalette.core.value.BackgroundLayer.Box;
import org.calmpalette.core.value.BackgroundLayer.Repeat;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class BackgroundLayerTest {
    private static Optional<List<BackgroundLayer>> read(
            String image,
            String x,
            String y,
            String size,
            String repeat,
            String origin,
            String clip,
            String attachment) {
        return BackgroundLayer.read(new BackgroundLayer.Longhands(image, x, y, size, repeat, origin, clip, attachment));
    }

    private static Image image(String text) {
        return Image.read(ComponentValue.read(text).get(0));
    }

    private static Image.Gradient gradient(String text) {
        assertThat(image(text)).as(text).isInstanceOf(Image.Gradient.class);
        return (Image.Gradient) image(text);
    }

    private static String at(Lengths.Sum sum) {
        return Lengths.text(sum);
    }

    @Test
    void listsRepeatToFillTheLayersOfThePictures() {
        List<BackgroundLayer> layers = read(
                        "url(\"a.png\"), none, linear-gradient(rgb(255, 0, 0), rgb(0, 0, 255))",
                        "0%, 10px",
                        "50%",
                        "cover, auto 20px",
                        "no-repeat, repeat-y",
                        "padding-box",
                        "border-box, text",
                        "scroll, fixed, local")
                .orElseThrow();
        assertThat(layers).hasSize(3);
        assertThat(layers.get(0).image()).isEqualTo(new Image.Url("a.png"));
        assertThat(layers.get(0).size()).isInstanceOf(BackgroundLayer.Size.Cover.class);
        assertThat(layers.get(1).image()).isInstanceOf(Image.None.class);
        assertThat(layers.get(1).size())
                .isEqualTo(
                        new BackgroundLayer.Size.Given(Optional.empty(), Optional.of(new Lengths.Sum(20, 0, false))));
        assertThat(at(layers.get(1).position().x())).isEqualTo("10px");
        assertThat(at(layers.get(2).position().x()))
                .as("the list of two begins again")
                .isEqualTo("0%");
        assertThat(layers.get(1))
                .extracting(
                        BackgroundLayer::repeatX,
                        BackgroundLayer::repeatY,
                        BackgroundLayer::clip,
                        BackgroundLayer::attachment)
                .containsExactly(Repeat.NO_REPEAT, Repeat.REPEAT, Box.TEXT, Attachment.FIXED);
        assertThat(layers.get(2))
                .extracting(
                        BackgroundLayer::repeatX,
                        BackgroundLayer::clip,
                        BackgroundLayer::origin,
                        BackgroundLayer::attachment)
                .containsExactly(Repeat.NO_REPEAT, Box.BORDER_BOX, Box.PADDING_BOX, Attachment.LOCAL);
    }

    @Test
    void sizesAndRepeatsInTheirForms() {
        assertThat(read("none", "0%", "0%", "contain", "round space", "content-box", "padding-box", "scroll")
                        .orElseThrow()
                        .get(0))
                .satisfies(l -> {
                    assertThat(l.size()).isInstanceOf(BackgroundLayer.Size.Contain.class);
                    assertThat(l.repeatX()).isEqualTo(Repeat.ROUND);
                    assertThat(l.repeatY()).isEqualTo(Repeat.SPACE);
                });
        assertThat(read("none", "0%", "0%", "50% auto", "repeat-x", "content-box", "padding-box", "scroll")
                        .orElseThrow()
                        .get(0)
                        .repeatY())
                .isEqualTo(Repeat.NO_REPEAT);
        assertThat(((BackgroundLayer.Size.Given) read(
                                        "none",
                                        "0%",
                                        "0%",
                                        "calc(50% - 4px)",
                                        "repeat",
                                        "content-box",
                                        "padding-box",
                                        "scroll")
                                .orElseThrow()
                                .get(0)
                                .size())
                        .width()
                        .map(Lengths::text))
                .hasValue("calc(50% - 4px)");
    }

    @Test
    void whatCannotBeReadIsAnAnswerOfItsOwn() {
        assertThat(read("none", "sideways", "0%", "auto", "repeat", "padding-box", "border-box", "scroll"))
                .isEmpty();
        assertThat(read("none", "0%", "0%", "huge", "repeat", "padding-box", "border-box", "scroll"))
                .isEmpty();
        assertThat(read("none", "0%", "0%", "1px 2px 3px", "repeat", "padding-box", "border-box", "scroll"))
                .isEmpty();
        assertThat(read("none", "0%", "0%", "auto", "sometimes", "padding-box", "border-box", "scroll"))
                .isEmpty();
        assertThat(read("none", "0%", "0%", "auto", "repeat", "margin-box", "border-box", "scroll"))
                .isEmpty();
        assertThat(read("none", "0%", "0%", "auto", "repeat", "padding-box", "border-area", "scroll"))
                .isEmpty();
        assertThat(read("none", "0%", "0%", "auto", "repeat", "padding-box", "border-box", "glued"))
                .isEmpty();
        assertThat(read("none,,none", "0%", "0%", "auto", "repeat", "padding-box", "border-box", "scroll"))
                .isEmpty();
        assertThat(image("image-set(\"a.png\" 1x)")).isEqualTo(new Image.Unread("image-set(\"a.png\" 1x)"));
        assertThat(image("-webkit-linear-gradient(red, blue)")).isInstanceOf(Image.Unread.class);
    }

    /** CSS Values 4, section 9, and CSS Backgrounds 3, section 3.6: one to four values. */
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "left | 0px 50%",
                "top | 50% 0px",
                "center | 50% 50%",
                "10px | 10px 50%",
                "right bottom | 100% 100%",
                "bottom right | 100% 100%",
                "20% top | 20% 0px",
                "center bottom | 50% 100%",
                "bottom center | 50% 100%",
                "1px 2px | 1px 2px",
                "right 10px bottom 20% | calc(100% - 10px) 80%",
                "bottom 20% right 10px | calc(100% - 10px) 80%",
                "left 10px center | 10px 50%",
                "center top 5px | 50% 5px",
                "left 1px top 2px | 1px 2px",
                "right 25% center | 75% 50%",
                "left right | none",
                "top bottom | none",
                "sideways | none",
                "1px 2px 3px | none",
                "left 1px top 2px 3px | none"
            })
    void positions(String written, String expected) {
        Optional<Position> read = Position.read(ComponentValue.read(written));
        String text = read.map(p -> at(p.x()) + " " + at(p.y())).orElse("none");
        assertThat(text).as(written).isEqualTo(expected);
    }

    @Test
    void linearGradients() {
        Image.Gradient plain = gradient("linear-gradient(rgb(255, 0, 0), 30%, rgb(0, 0, 255) 80%)");
        assertThat(plain.line()).isEqualTo(new Image.Line.Angle(180));
        assertThat(plain.repeating()).isFalse();
        assertThat(plain.space())
                .as("legacy colours: CSS Color 4, section 12.1")
                .isEqualTo(ColorSpace.SRGB);
        assertThat(plain.stops()).hasSize(3);
        assertThat(plain.stops().get(0))
                .isEqualTo(new Image.Stop(Color.parse("red").orElseThrow(), null));
        assertThat(plain.stops().get(1).color()).as("a hint").isNull();
        assertThat(at(plain.stops().get(2).at())).isEqualTo("80%");
        assertThat(gradient("linear-gradient(45deg, oklch(0.5 0.1 20), red)").space())
                .isEqualTo(ColorSpace.OKLAB);
        assertThat(gradient("linear-gradient(to right in oklch longer hue, red, blue)"))
                .satisfies(g -> {
                    assertThat(g.line()).isEqualTo(new Image.Line.Angle(90));
                    assertThat(g.space()).isEqualTo(ColorSpace.OKLCH);
                    assertThat(g.arc()).isEqualTo(HueArc.LONGER);
                });
        assertThat(gradient("linear-gradient(in srgb-linear, red, blue)").space())
                .isEqualTo(ColorSpace.SRGB_LINEAR);
        assertThat(gradient("linear-gradient(to top, red, blue)").line()).isEqualTo(new Image.Line.Angle(0));
        assertThat(gradient("linear-gradient(to left, red, blue)").line()).isEqualTo(new Image.Line.Angle(270));
        assertThat(gradient("linear-gradient(to bottom left, red, blue)").line())
                .isEqualTo(new Image.Line.Corner(-1, 1));
        assertThat(gradient("linear-gradient(100grad, red, blue)").line()).isEqualTo(new Image.Line.Angle(90));
        assertThat(gradient("linear-gradient(0.25turn, red, blue)").line()).isEqualTo(new Image.Line.Angle(90));
        assertThat(gradient("repeating-linear-gradient(red 0px 10px, blue 10px 20px)"))
                .satisfies(g -> {
                    assertThat(g.repeating()).isTrue();
                    assertThat(g.stops().stream().map(s -> at(s.at())).toList())
                            .containsExactly("0px", "10px", "10px", "20px");
                });
    }

    @Test
    void radialAndConicGradients() {
        assertThat(gradient("radial-gradient(red, blue)").line()).isInstanceOfSatisfying(Image.Line.Radial.class, l -> {
            assertThat(l.circle()).isFalse();
            assertThat(l.extent()).isEqualTo(Image.Extent.FARTHEST_CORNER);
            assertThat(at(l.x()) + " " + at(l.y())).isEqualTo("50% 50%");
        });
        assertThat(gradient("radial-gradient(circle closest-side at 10px 20%, red, blue)")
                        .line())
                .isInstanceOfSatisfying(Image.Line.Radial.class, l -> {
                    assertThat(l.circle()).isTrue();
                    assertThat(l.extent()).isEqualTo(Image.Extent.CLOSEST_SIDE);
                    assertThat(at(l.x()) + " " + at(l.y())).isEqualTo("10px 20%");
                });
        assertThat(gradient("radial-gradient(30px, red, blue)").line())
                .isInstanceOfSatisfying(Image.Line.Radial.class, l -> {
                    assertThat(l.circle()).as("one radius makes a circle").isTrue();
                    assertThat(l.extent()).isNull();
                });
        assertThat(gradient("radial-gradient(ellipse 30px 40% at right bottom, red, blue)")
                        .line())
                .isInstanceOfSatisfying(Image.Line.Radial.class, l -> assertThat(
                                l.radii().stream().map(BackgroundLayerTest::at).toList())
                        .containsExactly("30px", "40%"));
        assertThat(gradient("conic-gradient(from 90deg at left, red, 25%, blue 180deg)"))
                .satisfies(g -> {
                    assertThat(g.line()).isInstanceOfSatisfying(Image.Line.Conic.class, l -> assertThat(l.from())
                            .isEqualTo(90));
                    assertThat(g.stops().get(2).at().px()).as("degrees").isEqualTo(180);
                });
        assertThat(gradient("repeating-conic-gradient(red, blue 25%)").repeating())
                .isTrue();
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "linear-gradient(sideways, red, blue)",
                "linear-gradient(to nowhere, red, blue)",
                "linear-gradient(red, 10%, 20%)",
                "linear-gradient(red 1px 2px 3px, blue)",
                "linear-gradient(10%, 20%)",
                "radial-gradient(big, red, blue)",
                "radial-gradient(circle at sideways, red, blue)",
                "conic-gradient(from red, blue)",
                "conic-gradient(90deg, red, blue)",
                "linear-gradient(in nowhere, red, blue)",
                "linear-gradient(in, red, blue)",
                "linear-gradient(red blue, green)"
            })
    void gradientsThatAreNoneAreNotRead(String written) {
        assertThat(image(written)).isEqualTo(new Image.Unread(written));
    }
}

package org.calmpalette.core.color;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Mixing of colours: CSS Color 4, section 12, with the examples of 12.2 (carried components) and 12.4 (hues). */
class InterpolationTest {
    private static double hue(double from, double to, HueArc arc) {
        return Interpolation.mix(
                        new Color(ColorSpace.OKLCH, 0.5, 0.1, from, 1),
                        new Color(ColorSpace.OKLCH, 0.5, 0.1, to, 1),
                        0.5,
                        ColorSpace.OKLCH,
                        arc)
                .c2();
    }

    @ParameterizedTest
    @CsvSource({
        "0,180,SHORTER,90",
        "180,0,SHORTER,90",
        "0,180,LONGER,90",
        "180,0,LONGER,90",
        "0,0,INCREASING,0",
        "0,0,DECREASING,0",
        "40,60,SHORTER,50",
        "40,60,LONGER,230",
        "40,60,INCREASING,50",
        "40,60,DECREASING,230",
        "60,40,SHORTER,50",
        "60,40,LONGER,230",
        "60,40,INCREASING,230",
        "60,40,DECREASING,50",
        "350,10,SHORTER,0",
        "350,10,LONGER,180",
        "350,10,INCREASING,0",
        "350,10,DECREASING,180",
        "10,350,SHORTER,0",
        "10,350,LONGER,180",
        "10,350,INCREASING,180",
        "10,350,DECREASING,0",
        "0,0,SHORTER,0",
        "0,0,LONGER,180",
        "-30,390,SHORTER,0",
        "0,200,SHORTER,280",
        "200,0,LONGER,100"
    })
    void huesGoRoundByTheArc(double from, double to, HueArc arc, double middle) {
        assertThat(hue(from, to, arc)).isCloseTo(middle, within(1e-9));
    }

    @Test
    void alphaIsPremultiplied() {
        Color half = Interpolation.mix(
                Color.parse("rgb(255 0 0 / 40%)").orElseThrow(),
                Color.parse("rgb(0 0 255 / 80%)").orElseThrow(),
                0.5,
                ColorSpace.SRGB,
                HueArc.SHORTER);
        assertThat(half.alpha()).isCloseTo(0.6, within(1e-9));
        assertThat(half.c0()).isCloseTo(0.2 / 0.6, within(1e-9));
        assertThat(half.c2()).isCloseTo(0.4 / 0.6, within(1e-9));
        Color nothing = Interpolation.mix(
                Color.TRANSPARENT, new Color(ColorSpace.SRGB, 1, 1, 1, 0), 0.5, ColorSpace.SRGB, HueArc.SHORTER);
        assertThat(nothing.alpha()).isZero();
        assertThat(nothing.c0())
                .as("without any alpha the components themselves are mixed")
                .isEqualTo(0.5);
    }

    @Test
    void whatIsMissingIsTakenFromTheOther() {
        Color mixed = Interpolation.mix(
                new Color(ColorSpace.OKLCH, 0.4, 0.2, Double.NaN, 1),
                new Color(ColorSpace.OKLCH, 0.8, 0.1, 120, 1),
                0.5,
                ColorSpace.OKLCH,
                HueArc.SHORTER);
        assertThat(mixed.c2()).isEqualTo(120);
        assertThat(mixed.c0()).isCloseTo(0.6, within(1e-9));
        Color both = Interpolation.mix(
                new Color(ColorSpace.OKLCH, 0.4, 0.2, Double.NaN, 1),
                new Color(ColorSpace.OKLCH, 0.8, 0.1, Double.NaN, 1),
                0.5,
                ColorSpace.OKLCH,
                HueArc.SHORTER);
        assertThat(both.c2()).isNaN();
        Color alpha = Interpolation.mix(
                new Color(ColorSpace.SRGB, 1, 0, 0, Double.NaN),
                new Color(ColorSpace.SRGB, 0, 0, 1, 0.5),
                0.5,
                ColorSpace.SRGB,
                HueArc.SHORTER);
        assertThat(alpha.alpha()).isEqualTo(0.5);
        assertThat(Interpolation.mix(
                                new Color(ColorSpace.SRGB, 1, 0, 0, 0.5),
                                new Color(ColorSpace.SRGB, 0, 0, 1, Double.NaN),
                                0.5,
                                ColorSpace.SRGB,
                                HueArc.SHORTER)
                        .alpha())
                .isEqualTo(0.5);
        // A missing hue stays missing on its way to another space that has one: section 12.2.
        Color carried = Interpolation.mix(
                new Color(ColorSpace.LCH, 50, 10, Double.NaN, 1),
                new Color(ColorSpace.OKLCH, 0.8, 0.1, 200, 1),
                0.5,
                ColorSpace.OKLCH,
                HueArc.SHORTER);
        assertThat(carried.c2()).isCloseTo(200, within(1e-9));
        Color lightness = Interpolation.mix(
                new Color(ColorSpace.HSL, 120, 50, Double.NaN, 1),
                new Color(ColorSpace.OKLAB, 0.8, 0, 0, 1),
                0.5,
                ColorSpace.OKLAB,
                HueArc.SHORTER);
        assertThat(lightness.c0()).isCloseTo(0.8, within(1e-9));
        Color red = Interpolation.mix(
                new Color(ColorSpace.DISPLAY_P3, Double.NaN, 0.5, 0.5, 1),
                new Color(ColorSpace.SRGB, 0.25, 0.5, 0.5, 1),
                0.5,
                ColorSpace.SRGB,
                HueArc.SHORTER);
        assertThat(red.c0()).isCloseTo(0.25, within(1e-9));
        Color white = Interpolation.mix(
                new Color(ColorSpace.HWB, Double.NaN, 30, 30, 1),
                new Color(ColorSpace.HSL, 40, 50, 50, 1),
                0.5,
                ColorSpace.HSL,
                HueArc.SHORTER);
        assertThat(white.c0()).isCloseTo(40, within(1e-9));
    }
}

package org.calmpalette.core.chromium;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import org.calmpalette.core.Generated;
import org.calmpalette.core.cascade.ValidityAccess;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.color.ColorSpace;
import org.calmpalette.core.color.Contrast;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/** Colours against outside judges: Chromium's computed style, and colorjs.io 0.7.1 (npm, MIT). */
public class ColorsTest {
    /** System colours of CSS Color 4, sections 6.2 and its appendix A of deprecated ones, and words that were never any. */
    public static final List<String> SYSTEM = List.of(
            "AccentColor",
            "AccentColorText",
            "ActiveText",
            "ButtonBorder",
            "ButtonFace",
            "ButtonText",
            "Canvas",
            "CanvasText",
            "Field",
            "FieldText",
            "GrayText",
            "Highlight",
            "HighlightText",
            "LinkText",
            "Mark",
            "MarkText",
            "SelectedItem",
            "SelectedItemText",
            "VisitedText",
            "ActiveBorder",
            "ActiveCaption",
            "AppWorkspace",
            "Background",
            "ButtonHighlight",
            "ButtonShadow",
            "CaptionText",
            "InactiveBorder",
            "InactiveCaption",
            "InactiveCaptionText",
            "InfoBackground",
            "InfoText",
            "Menu",
            "MenuText",
            "Scrollbar",
            "ThreeDDarkShadow",
            "ThreeDFace",
            "ThreeDHighlight",
            "ThreeDLightShadow",
            "ThreeDShadow",
            "Window",
            "WindowFrame",
            "WindowText",
            "text",
            "ButtonColor",
            "-webkit-text");

    @Test
    void wordsOfTheSystemAreTheColoursThatChromiumHas() {
        List<String> light = ANSWERS.to(question("system, light", SYSTEM));
        List<String> dark = ANSWERS.to(question("system, dark", SYSTEM));
        List<String> wrong = new ArrayList<>();
        for (int i = 0; i < SYSTEM.size(); i++) {
            String ours =
                    ValidityAccess.system(SYSTEM.get(i), false) + " " + ValidityAccess.system(SYSTEM.get(i), true);
            String theirs = light.get(i) + " " + dark.get(i);
            if (!ours.equals(theirs)) {
                wrong.add(SYSTEM.get(i) + ": " + ours + ", Chromium " + theirs);
            }
        }
        assertThat(wrong).isEmpty();
    }

    public static List<String> notations() {
        Random random = Generated.random(7);
        List<String> all = new ArrayList<>(List.of(
                "#fff",
                "#AbC8",
                "white",
                "RebeccaPurple",
                "transparent",
                "rgb(255,255,255)",
                "rgb(10% 20% 30%)",
                "rgb(300 -5 12.5)",
                "rgba(1,2,3,.5)",
                "rgb(1 2 3 / none)",
                "rgb(none 20 30)",
                "hsl(120deg 100% 25%)",
                "hsl(0.5turn 50 50)",
                "hsla(-30,50%,50%,50%)",
                "hwb(200 30% 90%)",
                "hwb(90deg 10% 20% / .3)",
                "lab(150 0 0)",
                "lab(50% 40 none)",
                "lch(52.2% 72.2 50)",
                "oklab(59% 0.1 0.1)",
                "oklch(0.7 0.4 -40)",
                "oklch(60% 120% 200)",
                "color(srgb 1 .5 0)",
                "color(display-p3 0 1 0 / 25%)",
                "color(xyz 0.3 0.3 0.3)",
                "color(rec2020 .42 .47 .13)",
                "color(a98-rgb .44 .5 .1)",
                "color(prophoto-rgb .36 .43 .15)",
                "color(xyz-d50 .2 .3 .1)",
                "color(srgb-linear .1 .2 .3)",
                "color-mix(in srgb, red, blue)",
                "color-mix(in oklch, red 30%, lime)",
                "color-mix(in hsl longer hue, red, lime)",
                "color-mix(in lab, white 20%, transparent)",
                "color-mix(in oklab, #123 40%, #fed 20%)",
                "rgb(from tomato r g b / 50%)",
                "oklch(from #d8a13c calc(l - 0.1) c h)",
                "hsl(from rebeccapurple calc(h + 180) s l)",
                "lab(from red l a b / alpha)",
                "color-mix(in hwb, teal, olive 25%)",
                "rgb(calc(10 * 5) 20 30)",
                "hsl(calc(360deg / 3) 50% 50%)",
                // What browsers refuse, and the corners of each notation: CSS Color 4 and 5.
                "blu",
                "#12",
                "#12345",
                "#1234567",
                "#gggggg",
                "rgb(1,2)",
                "rgb(1 2,3)",
                "rgb(1, 2 3)",
                "rgb(1 2 3 4)",
                "rgb(1 2 3 / )",
                "rgb(1,2,3,4,5)",
                "rgb()",
                "rgb(1 2 3%)",
                "rgb(1, 2, 3%)",
                "rgb(10%, 20%, 30%)",
                "rgb(none, 1, 2)",
                "rgb(1e2 -1e1 0)",
                "rgb(1 2 3 / 200%)",
                "rgba(1 2 3 / -1)",
                "hsl(10 20% 30% 40%)",
                "hsl(10, 20, 30)",
                "hsl(10, 20%, 30%)",
                "hsl(10 20 30)",
                "hsl(none 20% 30%)",
                "hsl(400 120% 50%)",
                "hsl(-400deg 50% 50%)",
                "hsl(1rad 50% 50%)",
                "hsl(100grad 50% 50%)",
                "hsl(60 none none)",
                "hsl(0 0% 100%)",
                "hsl(10px 20% 30%)",
                "hwb(0 60% 60%)",
                "hwb(none 10% 20%)",
                "hwb(10, 20%, 30%)",
                "lab(50 20 30 / 0.5)",
                "lab(-10 20 30)",
                "lab(50% 100% -100%)",
                "lab(none none none)",
                "lch(50 -10 20)",
                "lch(50% 100% 0.5turn)",
                "lch(50, 10, 20)",
                "oklab(2 0 0)",
                "oklab(50% 100% -100%)",
                "oklab(0.5 none 0.1)",
                "oklch(0.5 none none)",
                "oklch(50% 0.1 none / none)",
                "oklch(0.5 0.1 20deg / 10%)",
                "color(none 1 2 3)",
                "color(srgb 1 2)",
                "color(srgb 1 2 3 4)",
                "color(srgb 100% none 0)",
                "color(srgb 1, 2, 3)",
                "color(foo 1 2 3)",
                "color(srgb)",
                "color()",
                "color(xyz-d65 1 1 1 / 0.1)",
                "color(display-p3 1.2 -0.1 0)",
                "color-mix(in srgb, red)",
                "color-mix(red, blue)",
                "color-mix(in foo, red, blue)",
                "color-mix(in srgb, red 0%, blue 0%)",
                "color-mix(in srgb, red 20%, blue 30%)",
                "color-mix(in srgb, red 120%, blue)",
                "color-mix(in srgb, red -1%, blue)",
                "color-mix(in lch shorter hue, red, blue)",
                "color-mix(in lch longer hue, red, blue)",
                "color-mix(in lch increasing hue, red, blue)",
                "color-mix(in lch decreasing hue, red, blue)",
                "color-mix(in hsl increasing hue, blue, red)",
                "color-mix(in hsl decreasing hue, red, blue)",
                "color-mix(in srgb longer hue, red, blue)",
                "color-mix(in oklch, none, red)",
                "color-mix(in oklch, oklch(none 0.1 20), red)",
                "color-mix(in xyz, red, blue 10%)",
                "color-mix(in srgb-linear, red, rgb(0 0 255 / 0.2))",
                "color-mix(in display-p3, lime, white)",
                "color-mix(in hsl, white, red)",
                "color-mix(in oklch longer hue, red, red)",
                "rgb(from red g b r)",
                "rgb(from red calc(r * 0.5) g b / calc(alpha - 0.5))",
                "rgb(from rgb(none 1 2) r g b)",
                "hsl(from red h s l)",
                "hwb(from teal h w b)",
                "lch(from teal l c calc(h + 90))",
                "oklab(from teal l a b)",
                "color(from red srgb r g b)",
                "color(from red display-p3 r g b)",
                "color(from red xyz x y z)",
                "rgb(from blu r g b)",
                "rgb(from red x y z)",
                "rgb(from red r g)",
                "rgb(from red 50% 10 none)",
                "rgb(1 2 3",
                "red blue",
                "rgb(calc(1px) 2 3)",
                "rgb(calc(50%) 20% 30%)",
                "hsl(calc(0.25turn) 50% 50%)",
                "rgb(min(1, 2) max(3, 4) clamp(1, 5, 3))",
                "RED",
                "rgb( 1 2 3 )",
                "rgb(1/**/2/**/3)",
                "Red",
                "currentcolor",
                "canvas"));
        for (int i = 0; i < 60; i++) {
            all.add(String.format(
                    Locale.ROOT,
                    "hsl(%.1f %.1f%% %.1f%%)",
                    random.nextDouble() * 360,
                    random.nextDouble() * 100,
                    random.nextDouble() * 100));
            all.add(String.format(
                    Locale.ROOT,
                    "hwb(%.1f %.1f%% %.1f%% / %.2f)",
                    random.nextDouble() * 360,
                    random.nextDouble() * 60,
                    random.nextDouble() * 60,
                    random.nextDouble()));
            all.add(String.format(
                    Locale.ROOT,
                    "oklch(%.3f %.3f %.1f)",
                    random.nextDouble(),
                    random.nextDouble() * 0.3,
                    random.nextDouble() * 360));
            all.add(String.format(
                    Locale.ROOT,
                    "color-mix(in oklch, hsl(%d 80%% 40%%) %d%%, lab(%d 20 -30))",
                    random.nextInt(360),
                    1 + random.nextInt(98),
                    random.nextInt(100)));
        }
        return all;
    }

    public static String question(String what, List<String> asked) {
        return what + " " + Answers.hash(asked.toArray(String[]::new));
    }

    @Tag("generated")
    @Test
    void everyNotationIsReadAsChromiumReadsIt() {
        List<String> notations = notations();
        List<String> chromium = ANSWERS.to(question("notations", notations));
        List<String> wrong = new ArrayList<>();
        for (int i = 0; i < notations.size(); i++) {
            // Those that depend on where they stand are read by the cascade.
            // One that is not closed is closed by the end of the file, but a value by itself has no such end.
            boolean relative = List.of("currentcolor", "canvas", "rgb(1 2 3").contains(notations.get(i));
            String ours = Color.parse(notations.get(i)).map(Color::css).orElse("none");
            if (!near(ours, relative ? "none" : chromium.get(i))) {
                wrong.add(notations.get(i) + ": " + ours + ", Chromium " + chromium.get(i));
            }
        }
        assertThat(wrong).isEmpty();
    }

    /**
     * The same notation with numbers that differ by no more than Chromium's single precision makes them: it computes
     * lab(99.9988 0.0188 -0.0011) for white, where CSS Color 4's sample code gives lab(100 0 0).
     */
    private static boolean near(String a, String b) {
        String[] as = a.split("[ (),/]+");
        String[] bs = b.split("[ (),/]+");
        if (as.length != bs.length) {
            return false;
        }
        double within = as[0].endsWith("lab") && !as[0].startsWith("ok") || as[0].endsWith("lch") ? 0.02 : 2e-4;
        for (int i = 0; i < as.length; i++) {
            boolean number = as[i].matches("-?[\\d.]+") && bs[i].matches("-?[\\d.]+(e-\\d+)?");
            if (number
                    ? Math.abs(Double.parseDouble(as[i]) - Double.parseDouble(bs[i]))
                            > within * Math.max(1, as[0].equals("rgb") ? 1 : Math.abs(Double.parseDouble(bs[i])) / 100)
                    : !as[i].equals(bs[i])) {
                return false;
            }
        }
        return true;
    }

    /** Pairs of colours, the same ones each time. */
    public static List<String> pairs() {
        Random random = Generated.random(11);
        List<String> all = new ArrayList<>();
        for (int i = 0; i < 300; i++) {
            all.add(String.format(Locale.ROOT, "#%06x #%06x", random.nextInt(1 << 24), random.nextInt(1 << 24)));
        }
        return all;
    }

    @Tag("generated")
    @Test
    void spacesAndContrastAgreeWithColorJs() {
        List<String> pairs = pairs();
        List<String> theirs = ANSWERS.to(question("colorjs 0.7.1", pairs));
        for (int i = 0; i < pairs.size(); i++) {
            Color a = Color.parse(pairs.get(i).split(" ")[0]).orElseThrow();
            Color b = Color.parse(pairs.get(i).split(" ")[1]).orElseThrow();
            String[] other = theirs.get(i).split(" ");
            int k = 0;
            for (ColorSpace space : List.of(ColorSpace.OKLAB, ColorSpace.LAB, ColorSpace.DISPLAY_P3)) {
                Color c = a.to(space);
                for (double v : new double[] {c.c0(), c.c1(), c.c2()}) {
                    assertThat(v)
                            .as(a.hex() + " in " + space)
                            .isCloseTo(
                                    Double.parseDouble(other[k++]),
                                    org.assertj.core.data.Offset.offset(space == ColorSpace.LAB ? 1e-3 : 1e-5));
                }
            }
            // colorjs.io computes its luminance with more digits than WCAG gives; the ratio differs in the third
            // decimal.
            assertThat(Contrast.ratio(a, b))
                    .as(pairs.get(i))
                    .isCloseTo(Double.parseDouble(other[k]), org.assertj.core.data.Offset.offset(0.01));
        }
    }

    private static final Answers ANSWERS = Answers.read("colors");
}

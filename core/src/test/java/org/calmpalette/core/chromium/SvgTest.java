package org.calmpalette.core.chromium;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.List;
import org.calmpalette.core.picture.Pixels;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** SVG pictures of shapes against the pixels that Chromium shows, over white, and those that are not drawn here. */
public class SvgTest {
    public static final int WIDTH = 120;
    public static final int HEIGHT = 80;

    public static final List<String> PICTURES = List.of(
            svg(
                    "<rect width='120' height='80' fill='#203a57'/><path d='M0 60 C30 40 60 80 120 50 V80 H0Z' fill='#d8a13c'/>"),
            svg(
                    "<defs><linearGradient id='a' x1='0' y1='0' x2='1' y2='1'><stop stop-color='#123' offset='.1'/><stop offset='1'"
                            + " stop-color='#f6e9d2' stop-opacity='.5'/></linearGradient></defs><rect width='120' height='80' fill='url(#a)'/>"),
            svg("<defs><radialGradient id='a' cx='.3' cy='.4' r='.6'><stop stop-color='gold'/><stop offset='1'"
                    + " stop-color='navy'/></radialGradient></defs><circle cx='60' cy='40' r='38' fill='url(#a)'/>"),
            svg(
                    "<g transform='rotate(20 60 40)'><rect x='20' y='20' width='60' height='30' rx='8' fill='teal' opacity='.5'/>"
                            + "<rect x='50' y='30' width='60' height='30' fill='#822' stroke='#fff' stroke-width='4'/></g>"),
            svg(
                    "<polyline points='5,70 40,10 75,60 115,15' fill='none' stroke='#345' stroke-width='6' stroke-linejoin='round'/>"
                            + "<ellipse cx='90' cy='55' rx='20' ry='12' fill-opacity='.4'/>"),
            svg(
                    "<clipPath id='c'><circle cx='50' cy='40' r='30'/></clipPath><g clip-path='url(#c)'><rect width='60' height='80'"
                            + " fill='#a33'/><rect x='60' width='60' height='80' fill='#3a3'/></g>"),
            "<svg xmlns='http://www.w3.org/2000/svg' viewBox='-10 -10 60 40'><path fill-rule='evenodd'"
                    + " d='M0 0h40v20h-40zM10 5h20v10h-20z' fill='currentColor'/></svg>");

    private static String svg(String shapes) {
        return "<svg xmlns='http://www.w3.org/2000/svg' width='120' height='80'>" + shapes + "</svg>";
    }

    /** Radial gradients differ by a little more than all else. */
    @Test
    void pixelsAreThoseThatChromiumShows() {
        List<String> answers = Answers.read("svg").to("pixels");
        double[] p = new double[4];
        for (int k = 0; k < PICTURES.size(); k++) {
            Pixels ours = Pixels.read(PICTURES.get(k).getBytes(StandardCharsets.UTF_8))
                    .orElseThrow();
            double scale = (double) WIDTH / ours.width();
            double sum = 0;
            for (int i = 0; i < WIDTH * HEIGHT; i++) {
                ours.at((i % WIDTH + 0.5) / scale, (i / WIDTH + 0.5) / scale, scale, p);
                int theirs = Integer.parseInt(answers.get(k).substring(i * 6, i * 6 + 6), 16);
                for (int c = 0; c < 3; c++) {
                    sum += Math.abs((p[c] + 1 - p[3]) * 255 - (theirs >> (16 - 8 * c) & 255));
                }
            }
            assertThat(sum / (WIDTH * HEIGHT * 3))
                    .as("levels of 255, mean: %s", PICTURES.get(k))
                    .isLessThan(PICTURES.get(k).contains("radial") ? 1.3 : 0.7);
        }
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "<script>while(true);</script>",
                "<foreignObject><p>x</p></foreignObject>",
                "<image href='http://elsewhere.invalid/a.png' width='9' height='9'/>",
                "<filter id='f'><feTurbulence baseFrequency='9' numOctaves='99999'/></filter><rect filter='url(#f)' width='120' height='80'/>",
                "<pattern id='p' width='99999' height='99999'><rect/></pattern><rect fill='url(#p)' width='120' height='80'/>",
                "<g id='a'><rect/></g><g id='b'><use href='#a'/><use href='#a'/></g><use href='#b'/>",
                "<text x='5' y='20'>words in some font</text>",
                "<style>rect{fill:red}</style><rect width='9' height='9'/>",
                "<rect width='9' height='9' style='mix-blend-mode:multiply'/>",
                "<path d='M0 0H99999' stroke='red' stroke-dasharray='.0001'/>",
                "<linearGradient id='g' href='other.svg#g'/><rect fill='url(#g)' width='9' height='9'/>",
                "<svg width='9'><rect/></svg>",
                "<g opacity='.5'><rect width='60' height='80'/><rect width='9' height='9' fill='red'/></g>",
                "<rect width='60' height='30' fill='red' stroke='blue' opacity='.5'/>",
            })
    void whatCouldFetchRunMultiplyOrNeedsABrowserIsNotDrawn(String shapes) {
        assertThat(Pixels.read(svg(shapes).getBytes(StandardCharsets.UTF_8))).isEmpty();
    }

    @Test
    void noSizeNoEndAndNoXmlAreNoPictureAndNeverAnythingElse() {
        String deep = "<g opacity='.9'>".repeat(300) + "<rect width='9' height='9'/>" + "</g>".repeat(300);
        String many = "<rect width='120' height='80'/>".repeat(5_000);
        for (String bad : List.of(
                "<svg xmlns='http://www.w3.org/2000/svg'><rect width='9' height='9'/></svg>",
                svg(deep),
                svg(many),
                "<!DOCTYPE svg [<!ENTITY a 'aaaa'>]>" + svg("<desc>&a;</desc>"),
                svg("<rect").substring(0, 70),
                "<svg",
                "<?xml version='1.0'?>")) {
            assertThat(Pixels.read(bad.getBytes(StandardCharsets.UTF_8)))
                    .as(bad.substring(0, Math.min(80, bad.length())))
                    .isEmpty();
        }
    }

    /** SVG 2, section 8.6: a picture of another shape than its box leaves room at its sides, unless it says that it does not. */
    @Test
    void onlyWhatFollowsAnyShapeFillsAnyBox() {
        String stretched = PICTURES.get(0).replace("<svg ", "<svg preserveAspectRatio='none' ");
        Pixels kept =
                Pixels.read(PICTURES.get(0).getBytes(StandardCharsets.UTF_8)).orElseThrow();
        assertThat(kept.fills(240, 160)).isTrue();
        assertThat(kept.fills(240, 80)).isFalse();
        assertThat(Pixels.read(stretched.getBytes(StandardCharsets.UTF_8))
                        .orElseThrow()
                        .fills(240, 80))
                .isTrue();
    }
}

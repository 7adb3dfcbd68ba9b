package org.calmpalette.core.part;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.render.Gallery;
import org.calmpalette.core.render.Measures;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.theme.HalfLight;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.ThemeFiles;
import org.junit.jupiter.api.Test;

class PartContrastTest {
    private static PartContrast of(String css, int part, boolean measured, String... states) throws IOException {
        return of(css, part, measured ? Optional.of(HalfLight.MEASURES) : Optional.empty(), states);
    }

    private static PartContrast of(String css, int part, Optional<String> measures, String... states)
            throws IOException {
        TreeMap<String, byte[]> files = new TreeMap<>();
        files.put("index.html", HalfLight.PAGE.getBytes(StandardCharsets.UTF_8));
        files.put("a.css", css.getBytes(StandardCharsets.UTF_8));
        files.put("p.png", HalfLight.picture());
        Theme theme = Theme.read(ThemeFiles.of(files), "T");
        Page page = theme.pages().get(0);
        return PartContrast.of(
                new Rendered(theme),
                new Gallery(theme),
                page,
                part,
                measures.map(m -> Measures.read("m", m.getBytes(StandardCharsets.UTF_8))),
                Set.of(states));
    }

    /** #777 on white is 4.48 to 1: the known pair that just fails (common practice; by the formula of WCAG 2.2). */
    @Test
    void onAPlainColourTheWorstWindowIsTold() throws IOException {
        String css =
                "p{color:#000}@media (max-width:500px){p{color:#777;font-size:30px}}@media (min-width:900px){p{color:#777}}";
        PartContrast c = of(css, 6, false);
        PartContrast.Worst w = c.worst().orElseThrow();
        assertThat(w.ratio()).isCloseTo(4.48, within(0.005));
        assertThat(w.width()).as("below 500 the letters are large").isEqualTo(900);
        assertThat(w.needed()).isEqualTo(4.5);
        assertThat(w.reads()).isFalse();
        assertThat(c.failing()).containsExactly(900, 1440);
        assertThat(c.untold()).isEmpty();
    }

    @Test
    void aPartAnswersForTheWordsInIt() throws IOException {
        PartContrast.Worst w =
                of("section{background:#000}p{color:#888}", 5, false).worst().orElseThrow();
        assertThat(w.at()).isEqualTo(6);
        assertThat(w.words()).isEqualTo("Cross by dusk");
        assertThat(w.ground()).isEqualTo("#000000");
        assertThat(w.holder()).isEqualTo("section.hero");
    }

    @Test
    void statesCountAsTheyAreSwitchedOn() throws IOException {
        String css = "p{color:#000}p:hover{color:#fff}";
        assertThat(of(css, 6, false).worst().orElseThrow().ratio()).isCloseTo(21, within(0.01));
        assertThat(of(css, 6, false, "hover").worst().orElseThrow().ratio()).isCloseTo(1, within(0.01));
    }

    @Test
    void onAPictureItIsToldInPixelsOnceBoxesAreMeasured() throws IOException {
        String css = "section{color:#fff;background:#202020 url(p.png) right top no-repeat}";
        PartContrast without = of(css, 6, false);
        assertThat(without.worst()).isEmpty();
        assertThat(without.untold()).contains(PartContrast.Why.NOT_MEASURED);
        PartContrast c = of(css, 6, true);
        PartContrast.Worst w = c.worst().orElseThrow();
        // At 320 px the picture begins at -80, and its light half at 120: half of the line.
        assertThat(w.width()).isEqualTo(320);
        assertThat(w.pictures()).containsExactly("p.png");
        assertThat(w.ground()).isEqualTo("#f0f0f0");
        assertThat(w.ratio()).isCloseTo(1.14, within(0.01));
        assertThat(c.failing())
                .as("from 420 on the light half begins right of the line")
                .containsExactly(320, 390);
        assertThat(c.untold()).isEmpty();
    }

    @Test
    void whatCannotBeToldIsSaidWithItsReason() throws IOException {
        assertThat(of("section{background:url(p.png)}p{filter:blur(1px)}", 6, true)
                        .untold())
                .contains(PartContrast.Why.FILTER);
        assertThat(of("p{mix-blend-mode:multiply}", 6, false).untold()).contains(PartContrast.Why.BLEND_MODE);
        assertThat(of("section{background:url(gone.png)}", 6, false).untold())
                .as("a picture that is not there shows nothing")
                .isEmpty();
        assertThat(of("p{display:none}", 6, false).isEmpty()).isTrue();
        assertThat(of("p{text-shadow:0 0 4px #000}", 6, false)
                        .worst()
                        .orElseThrow()
                        .shadowed())
                .isTrue();
    }

    /** A page that was measured as far as it goes: asking for it once more would tell nothing new. */
    @Test
    void whatLiesBeyondTheMeasuresIsNotAskedToBeMeasured() throws IOException {
        String css = "section{color:#fff;background:#202020 url(p.png) right top no-repeat}";
        String unsure = HalfLight.MEASURES.replace("\"unsure\":[]", "\"unsure\":[[380,600]]");
        PartContrast gap = of(css, 6, Optional.of(unsure));
        assertThat(gap.untold()).contains(PartContrast.Why.BEYOND_MEASURES);
        assertThat(gap.untoldAt()).containsExactly(390, 480);
        assertThat(gap.worst()).isPresent();
        PartContrast late = of(css, 6, Optional.of(HalfLight.MEASURES.replace("\"6\":", "\"7\":")));
        assertThat(late.untold()).contains(PartContrast.Why.BEYOND_MEASURES);
        assertThat(late.isEmpty()).as("its words show all the same").isFalse();
    }

    /** A header without paint that lies over a hero: the page's own colour is not what one sees behind its links. */
    @Test
    void whatWasMovedOverSomethingElseStandsOnThatAndNotOnThePage() throws IOException {
        TreeMap<String, byte[]> files = new TreeMap<>();
        files.put(
                "index.html",
                "<!doctype html><html><head><link rel=stylesheet href=a.css></head><body><nav>About</nav><section></section></body></html>"
                        .getBytes(StandardCharsets.UTF_8));
        files.put(
                "a.css",
                "body{background:#fff}nav{position:absolute;color:#fff}section{background:url(p.png)}"
                        .getBytes(StandardCharsets.UTF_8));
        files.put("p.png", HalfLight.picture());
        Theme theme = Theme.read(ThemeFiles.of(files), "T");
        // html 1, head 2, link 3, body 4, nav 5, section 6
        String over =
                """
            {"format":"calm-measures/1","page":"index.html","windowHeight":800,"from":320,"to":2560,"unsure":[],"height":[[320,400]],
             "boxes":{"1":[[320,0,0,320,400],[2560,0,0,2560,400]],"4":[[320,0,0,320,400],[2560,0,0,2560,400]],
                      "5":[[320,20,40,200,20]],"6":[[320,0,SECTION,320,300],[2560,0,SECTION,2560,300]]},
             "lines":{"5":[[320,20,40,200,20]]}}""";
        for (int top : new int[] {0, 90}) {
            PartContrast c = PartContrast.of(
                    new Rendered(theme),
                    new Gallery(theme),
                    theme.pages().get(0),
                    5,
                    Optional.of(
                            Measures.read("m", over.replace("SECTION", "" + top).getBytes(StandardCharsets.UTF_8))),
                    Set.of());
            if (top == 0) {
                assertThat(c.worst()).isEmpty();
                assertThat(c.untold()).contains(PartContrast.Why.OVERLAP);
            } else {
                assertThat(c.worst().orElseThrow().ratio())
                        .as("nothing lies between")
                        .isCloseTo(1, within(0.01));
            }
        }
    }
}

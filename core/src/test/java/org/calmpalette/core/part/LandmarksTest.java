package org.calmpalette.core.part;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.List;
import org.calmpalette.core.css.selector.SelectorList;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.usage.PageSelector;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class LandmarksTest {
    private static final Page PAGE = Page.read(
            "index.html",
            """
      <!doctype html><body><p class=loose>x</p><header><b class=a>x</b><nav><b class=b>x</b></nav></header><main id=boat-list><b class=c>x</b><section class="pier card"><header><b class=d>x</b></header></section><section><b class=e>x</b></section>
      <aside class=-><b class=g>x</b></aside></main><footer><b class=f>x</b><b class=twice>x</b></footer><div class=twice>x</div></body>
      """
                    .getBytes(StandardCharsets.UTF_8));

    @ParameterizedTest
    @CsvSource({
        ".a,Header",
        ".b,Navigation",
        ".c,Boat list",
        ".d,Pier card",
        ".e,Boat list",
        ".f,Footer",
        ".loose,''",
        ".twice,''",
        ".gone,''",
        "..bad,''",
        ".g,''"
    })
    void thePlaceAroundByItsOwnName(String selector, String place) {
        String found = Landmarks.around(selector, List.of(PAGE));
        // Of several classes the first names the section.
        assertThat(found).isEqualTo(place.equals("Pier card") ? "Pier" : place);
    }

    @Test
    void partsAreCountedOnceWhateverFindsThem() {
        var painted = new java.util.ArrayList<>(
                PageSelector.of(SelectorList.parse("b, .a:hover").orElseThrow(), "color"));
        painted.addAll(PageSelector.of(SelectorList.parse(".f").orElseThrow(), "color"));
        assertThat(Landmarks.count(painted, PAGE)).isEqualTo(8);
        assertThat(Landmarks.count(List.of(), PAGE)).isZero();
    }
}

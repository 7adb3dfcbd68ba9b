package org.calmpalette.core.survey;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.Themes;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class MarkupFindingsTest {
    private static Theme theme(String body) {
        return Themes.of(
                "index.html",
                "<!doctype html><html lang=en><head><title>T</title><link rel=stylesheet href=a.css></head><body>\n"
                        + body + "\n</body></html>",
                "a.css",
                ".off{display:none}");
    }

    private static List<Finding> found(Theme theme) {
        return Survey.of(theme).findings().stream()
                .filter(f -> f.kind() == Finding.Kind.HEADING_LEVEL || f.kind() == Finding.Kind.NO_ALTERNATIVE)
                .toList();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "<h1>A</h1><h2>B</h2><h3>C</h3><h2>D</h2> | 0",
                "<h2>A</h2><h1>B</h1><h2>C</h2> | 0",
                "<h1>A</h1><h3>B</h3> | 1",
                "<h1>A</h1><h2>B</h2><h1>C</h1> | 1",
                "<h1>A</h1><h1 class=off>B</h1><h1 hidden>C</h1> | 0",
                "<h1>A</h1><div class=off><h4>B</h4></div><h2>C</h2> | 0",
                "<img src=a.png alt='A pier'><img src=b.png alt=''> | 0",
                "<img src=a.png> | 1",
                "<img src=a.png role=presentation><img src=b.png aria-label=x> | 0",
                "<a href=x><img src=a.png alt=''></a> | 1",
                "<a href=x><img src=a.png alt=''> Times</a><a href=x><img src=a.png alt=Times></a> | 0"
            })
    void levelsThatJumpAndPicturesWithoutWordsAreFound(String body, int count) {
        assertThat(found(theme(body))).hasSize(count);
    }

    @Test
    void theLevelIsMendedWhereItIsWrittenAndLeftToASettingThatDecidesIt() {
        Theme theme = theme("<h1>A</h1>\n<H4 class='x' id=y>B <i>c</i></H4 >");
        Finding jump = found(theme).get(0);
        assertThat(jump.line()).isEqualTo(3);
        assertThat(jump.message()).isEqualTo("“B c” has level 4 under “A” of level 1: a level is left out.");
        assertThat(Themes.text(jump.fix().get().applied(theme).files(), "index.html"))
                .contains("<h2 class='x' id=y>B <i>c</i></h2 >");
        assertThat(found(theme("<h1>A</h1><h4 data-item-level=l>B</h4>")).get(0).canBeMended())
                .isFalse();
    }
}

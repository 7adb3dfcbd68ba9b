package org.calmpalette.core.survey;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.stream.Collectors;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.render.Gallery;
import org.calmpalette.core.render.Measures;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.Themes;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What boxes tell of words that are cut off, and of a header over what it should stand above. */
class BoxFindingsTest {
    private static final String MARKUP =
            "<div id=h>Name</div>\n<main id=m><div id=c>\n<h1 id=t>Words</h1></div></main><i id=o>Next</i>";

    /** @param boxes {@code "id x y width height"}, of boxes that are the same in all windows, and of lines with a + before the id */
    private static List<Finding> found(String css, String boxes) {
        Theme theme = Themes.of(
                "index.html",
                "<!doctype html><html><head><link rel=stylesheet href=a.css></head><body>" + MARKUP + "</body></html>",
                "a.css",
                css);
        Page page = theme.pages().get(0);
        String json =
                "{\"format\":\"calm-measures/1\",\"page\":\"index.html\",\"windowHeight\":800,\"from\":320,\"to\":2560,\"unsure\":[],"
                        + "\"height\":[[320,900]],\"boxes\":{" + tracks(page, boxes, false) + "},\"lines\":{"
                        + tracks(page, boxes, true) + "}}";
        return BackgroundFindings.of(
                        new Rendered(theme),
                        new Gallery(theme),
                        Map.of("index.html", Measures.read("m", json.getBytes(StandardCharsets.UTF_8))))
                .stream()
                .filter(f -> f.kind() != Finding.Kind.UNREADABLE_TEXT)
                .toList();
    }

    private static String tracks(Page page, String boxes, boolean lines) {
        return List.of(boxes.split(", ")).stream()
                .filter(b -> b.startsWith("+") == lines)
                .map(b -> b.replace("+", "").split(" "))
                .collect(Collectors.groupingBy(b -> b[0], java.util.TreeMap::new, Collectors.toList()))
                .entrySet()
                .stream()
                .map(e -> {
                    String numbers = e.getValue().stream()
                            .map(b -> String.join(",", List.of(b).subList(1, 5)))
                            .collect(Collectors.joining(","));
                    return String.format(
                            Locale.ROOT,
                            "\"%d\":[[320,%2$s],[2560,%2$s]]",
                            page.elements().indexOf(page.document().selectFirst("#" + e.getKey())),
                            numbers);
                })
                .collect(Collectors.joining(","));
    }

    private static final String AROUND = "m 0 0 320 200, c 20 20 200 60, t 20 20 200 60, ";

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                // Inside; beyond its box, which shows it; beyond a box that cuts off, and how far.
                "#c{overflow:hidden} | +t 20 20 200 24 | ",
                "#c{color:red} | +t 20 20 260 24 | ",
                "#c{overflow:hidden} | +t 20 20 260 24 | 60 px; <div> on line 2 cuts off",
                "#c{overflow:clip} | +t -20 20 280 24 | 40 px; <div> on line 2 cuts off",
                "#c{overflow-x:hidden;overflow-y:visible} | +t 20 20 260 24 | 60 px; <div> on line 2 cuts off",
                "#t{overflow:hidden} | +t 20 20 260 24 | 60 px; <h1> on line 3 cuts off",
                "main{overflow:hidden} | +t 20 20 310 24 | 10 px; <main> on line 2 cuts off",
                // Two lines of which the lower one is hidden, or most of it; and no more than what letters leave free.
                "#c{overflow:hidden} | +t 20 20 200 24, +t 20 90 200 24 | 24 px; <div>",
                "#c{overflow:hidden} | +t 20 20 200 24, +t 20 70 200 24 | 14 px; <div>",
                "#c{overflow:hidden} | +t 20 20 200 24, +t 20 62 200 24 | ",
                // What can be scrolled to, is shortened with a sign, moves, is not seen at all or lies outside.
                "#c{overflow:auto} | +t 20 20 260 24 | ",
                "#c{overflow-x:auto;overflow-y:hidden} | +t 20 20 260 24 | ",
                "#c{overflow:hidden} #t{overflow:auto} | +t 20 20 260 24 | ",
                "#c{overflow:hidden;text-overflow:ellipsis} | +t 20 20 260 24 | ",
                "#c{overflow:hidden;-webkit-line-clamp:2} | +t 20 20 200 24, +t 20 90 200 24 | ",
                "#c{overflow:hidden} #t{animation:go 9s} @keyframes go{to{left:0}} | +t 20 20 260 24 | ",
                "#c{overflow:hidden} | +t 320 20 200 24 | ",
                "#c{overflow:hidden} #t{visibility:hidden} | +t 20 20 260 24 | ",
                "#c{overflow:hidden;opacity:0} | +t 20 20 260 24 | ",
                "#c{overflow:hidden} #t{position:absolute} | +t 20 20 260 24 | ",
                "#c{overflow:hidden;position:relative} #t{position:absolute} | +t 20 20 260 24 | 60 px",
                "#c{overflow:hidden;transform:none} #t{position:fixed} | +t 20 20 260 24 | ",
                "#c{overflow:hidden;transform:scale(1)} #t{position:fixed} | +t 20 20 260 24 | 60 px",
                "#c{overflow:hidden;display:inline} | +t 20 20 260 24 | ",
                // Nobody gets to what lies left of the page, or right of it where that begins on the right.
                "#t{margin:0} | +t -40 20 120 24 | 40 px; they begin beyond the edge of the page",
                "#t{margin:0} | +t -400 20 120 24 | ",
                "html{direction:rtl} | +t 250 20 120 24 | 10 px; they begin beyond the edge of the page",
                "body{overflow-x:hidden} | +t 20 20 390 24 | 20 px; <body> on line 1 cuts off",
            })
    void wordsThatAreSeenInPartAreCutOff(String css, String lines, String told) {
        List<String> cut = found(css, AROUND + lines).stream()
                .filter(f -> f.kind() == Finding.Kind.CUT_TEXT)
                .map(Finding::message)
                .toList();
        if (told == null) {
            assertThat(cut).isEmpty();
        } else {
            assertThat(cut).singleElement().satisfies(m -> assertThat(m)
                    .contains("of the words of <h1> on line 3 are not seen")
                    .contains(told.split("; ")));
        }
    }

    private static final String HEADER = "#h{position:fixed;background:#123} ";
    private static final String BELOW = "h 0 0 2560 64, +h 10 10 60 24, m 0 0 320 300, ";

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "margin:0 | t 20 40 200 40, +t 20 40 200 24 | 24 px of room",
                "margin:0 | t 20 64 200 40, +t 20 64 200 24 | ",
                // Less than half of a line may lie behind it.
                "margin:0 | t 20 54 200 40, +t 20 54 200 24 | ",
                "position:relative | t 20 40 200 40, +t 20 40 200 24 | ",
                "opacity:.9 | t 20 40 200 40, +t 20 40 200 24 | ",
                "visibility:hidden | t 20 40 200 40, +t 20 40 200 24 | ",
            })
    void whatBeginsBehindAHeaderIsTold(String css, String boxes, String told) {
        List<Finding> all = found(HEADER + "#t{" + css + "}", BELOW + boxes).stream()
                .filter(f -> f.kind() == Finding.Kind.COVERED_CONTENT)
                .toList();
        if (told == null) {
            assertThat(all).isEmpty();
        } else {
            assertThat(all).singleElement().satisfies(f -> {
                assertThat(f.message()).contains("<h1> on line 3 lies behind div#h, which is 64 px high there", told);
                assertThat(f.subject()).isEqualTo("#h");
            });
        }
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "position:absolute;background:#123 | 0 0 2560 64 | yes",
                "position:static;background:#123 | 0 0 2560 64 | no",
                "position:fixed;background:#1238 | 0 0 2560 64 | no",
                "position:fixed;background:#123;opacity:.9 | 0 0 2560 64 | no",
                "position:fixed;background:#123;z-index:-1 | 0 0 2560 64 | no",
                "position:fixed;background:#123;display:none | 0 0 2560 64 | no",
                // At the foot, beside the page, or over the whole window.
                "position:fixed;background:#123 | 0 30 2560 64 | no",
                "position:fixed;background:#123 | 0 0 200 64 | no",
                "position:fixed;background:#123 | 0 0 2560 700 | no",
            })
    void onlyWhatLiesOverTheBeginningCoversIt(String css, String box, String covers) {
        assertThat(found("#h{" + css + "}", "h " + box + ", t 20 40 200 40, +t 20 40 200 24"))
                .extracting(Finding::kind)
                .satisfies(k ->
                        assertThat(k.contains(Finding.Kind.COVERED_CONTENT)).isEqualTo(covers.equals("yes")));
    }
}

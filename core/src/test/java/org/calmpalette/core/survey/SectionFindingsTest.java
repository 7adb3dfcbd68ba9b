package org.calmpalette.core.survey;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.TreeMap;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.section.SectionKit;
import org.calmpalette.core.section.Shelf;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What is told of a section as it is typed. */
class SectionFindingsTest {
    private static final String HTML = "<section class=a><h2 class=b>x</h2><p>y</p></section>";

    private static List<String> told(String json, String css) {
        SectionKit kit = SectionKit.read("x", json, HTML, css, new TreeMap<>());
        return SectionFindings.of(kit, json).stream()
                .map(f -> f.file() + " " + f.line() + " " + f.message() + " " + f.mend())
                .toList();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "body { margin: 0 } | section.css 2 “body” finds nothing in the section",
                ".c .b { color: red } | section.css 2 “.c .b” finds nothing in the section",
                "@media (min-width: 1px) { main > .a, .d { color: red } } | ",
                ".b:hover, .b::before, .a:focus-within { color: red } | ",
                ".b { colour: red } | section.css 2 colour",
                ".b { color: #12 } | section.css 2 #12",
                ".b { & .z { color: red } } | section.css 2 “.b .z” finds nothing",
                "@keyframes k { to { opacity: 0 } } .a { animation: k 1s } | ",
                ".b { color: var(--of-the-theme) } | ",
                ":scope { color: red } :scope > .b::after { content: '' } | ",
                ":scope { position: fixed; inset: 0; z-index: 9; background: red } | section.css 2 section.a lies over the whole window and stays there: the page behind it cannot be seen or used.",
                ".a { position: fixed; top: 0; left: 0; width: 100vw; height: 120vh; opacity: 0 } | section.css 2 cannot be used.",
                ".b::after { content: ''; position: fixed; inset: 0; background: red; pointer-events: none } | section.css 2 h2.b::after lies over the whole window and stays there: the page behind it cannot be seen. ",
                ".a { position: fixed; inset: 0; display: none } | ",
                ".a { contain: layout } .b { position: fixed; inset: 0 } | ",
                ".a { will-change: opacity, transform } .b { position: fixed; inset: 0 } | ",
                ".a { will-change: opacity } .b { position: fixed; inset: 0 } | section.css 2 h2.b lies over the whole window",
                ".a { position: fixed; inset: 0; z-index: -1; background: red } | ",
                ".a { position: fixed; inset: 0 0 auto; height: 60px; background: red } | ",
                ".b::after { content: ''; position: fixed; inset: 0; background: #f002; pointer-events: none } | "
            })
    void whatTheSurveyWouldSayIsSaidAtItsLine(String css, String words) {
        List<String> told = told("{\"settings\": []}", ".a { margin: 0 }\n" + css);
        if (words == null) {
            assertThat(told).isEmpty();
        } else {
            String[] parts = words.split("(?<=css 2) ?", 2);
            assertThat(told).hasSize(1);
            assertThat(told.get(0)).startsWith(parts[0]).contains(parts[1]);
        }
    }

    @Test
    void keysThatMeanNothingAreNamedWithTheirLineAndTheKnownOnes() {
        String json =
                """
                {"label": "X", "abuot": "y",
                 "settings": [
                  {"key": "ink", "label": "Ink", "kind": "color", "default": "#112233",
                   "alowed": {"swatches": ["#112233"]}},
                  {"key": "n", "label": "N", "kind": "number", "default": 1,
                   "allowed": {"least": 0, "highest": 3}, "colour": 1, "$own": 2}]}
                """;
        assertThat(told(json, ""))
                .containsExactly(
                        "section.json 1 “abuot” means nothing here. Did you mean “about”?",
                        "section.json 4 “alowed” means nothing here. Did you mean “allowed”?",
                        "section.json 6 “colour” means nothing here. Known are allowed, asked, bands, default, drawings, former, help, key, kind, label, perBand, place, shownWhen, triple.",
                        "section.json 6 “highest” means nothing here. Take it out, or look up what this kind of setting takes.");
        assertThatThrownBy(() -> told("{\n\"settings\": [\n{\"key\": \"a\"}]}", ""))
                .isInstanceOf(BadInputException.class)
                .hasMessageStartingWith("section.json, line 3, settings[0]: ");
    }

    /** What is on the shelf is without a fault. */
    @Test
    void sectionsOfTheShelfAreWithoutFindings() {
        for (SectionKit kit : Shelf.kits()) {
            assertThat(SectionFindings.of(kit, "{\"settings\": []}"))
                    .as(kit.key())
                    .isEmpty();
        }
        assertThat(Shelf.kits()).hasSizeGreaterThan(8);
    }
}

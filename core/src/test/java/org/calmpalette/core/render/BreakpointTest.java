package org.calmpalette.core.render;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import org.calmpalette.core.css.selector.States;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.setting.Chosen;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.Themes;
import org.calmpalette.core.value.Viewport;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Widths at which a theme turns, and a theme with values other than its defaults. */
class BreakpointTest {
    private static List<String> of(String css) {
        return Breakpoint.of(Themes.of("a.css", css)).stream()
                .map(b -> b.width() + (b.from() ? " from" : " to"))
                .toList();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "(min-width: 600px) | 600.0 from",
                "(max-width: 600px) | 600.0 to",
                "(min-width: 37.5em) | 600.0 from",
                "(width >= 600px) | 600.0 from",
                "(width > 600px) | 600.0 to",
                "(600px <= width < 900px) | 600.0 from;900.0 from",
                "(min-width: 600px) and (max-width: 899.98px) | 600.0 from;899.98 to",
                "not all and (min-width: 600px) | 600.0 from",
                "(width: 600px) | 600.0 from;600.0 to",
                "print and (min-width: 600px) | ''",
                "(min-height: 600px) | ''",
                "(min-width: 600px) and (max-width: 500px) | ''",
                "(min-width: calc(500px + 100px)) | 600.0 from",
                "(orientation: landscape) | 800.0 to",
                "(min-aspect-ratio: 2/1) | 1600.0 from",
                "(min-width: 600px), (min-width: 400px) | 400.0 from",
                "(foo: 600px) | ''",
                "screen | ''",
                "((min-width: 5in) or (print)) | 480.0 from"
            })
    void queriesTurnWhereTheyReallyDo(String query, String expected) {
        assertThat(String.join(";", of("@media " + query + " { p { color: red } }")))
                .isEqualTo(expected);
    }

    @Test
    void theyAreFoundWhereverTheyStand() {
        Theme theme = Themes.of(
                "a.css",
                "@import 'b.css' layer(x) (min-width: 300px);\n@layer y { @media (min-width: 400px) { p { color: red } } }\n.card { @media (max-width: 500px) { color: red } }\n@media (min-width: 400px) { b { color: red } }",
                "b.css",
                "p{}",
                "index.html",
                "<!doctype html><link rel=stylesheet href=a.css><link rel=stylesheet href=b.css media='(min-width: 700px)'><style>@media (min-width: 800px) { p { color: red } }</style>");
        assertThat(Breakpoint.of(theme))
                .extracting(Breakpoint::width)
                .containsExactly(300.0, 400.0, 500.0, 700.0, 800.0);
        assertThat(Breakpoint.of(theme))
                .extracting(Breakpoint::file)
                .containsExactly("a.css", "a.css", "a.css", "index.html", "index.html");
        assertThat(Breakpoint.of(theme)).extracting(Breakpoint::line).startsWith(1, 2, 3);
    }

    @Test
    void aThemeIsShownWithAnyValues() {
        Theme theme = Themes.of(
                "a.css",
                "p{color:var(--ink, red)}",
                "index.html",
                "<!doctype html><link rel=stylesheet href=a.css><p>x",
                "palette.json",
                "{\"format\":\"calm-palette/1\",\"places\":[{\"key\":\"p\",\"label\":\"P\"}],\"settings\":[{\"key\":\"ink\",\"label\":\"Ink\",\"kind\":\"color\",\"place\":\"p\",\"default\":\"#112233\"}]}");
        assertThat(color(new Rendered(theme))).isEqualTo("rgb(17, 34, 51)");
        assertThat(color(new Rendered(theme, Map.of("ink", Chosen.of("#00ff00")))))
                .isEqualTo("rgb(0, 255, 0)");
        assertThat(color(new Rendered(theme, Map.of()))).isEqualTo("rgb(17, 34, 51)");
    }

    private static String color(Rendered rendered) {
        Page page = rendered.theme().pages().get(0);
        return rendered.styles(page, Viewport.of(900, 700), States.NONE)
                .of(page.document().selectFirst("p"))
                .computed("color");
    }
}

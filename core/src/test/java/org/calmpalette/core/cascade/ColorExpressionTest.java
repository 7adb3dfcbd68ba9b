package org.calmpalette.core.cascade;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Map;
import java.util.Set;
import org.calmpalette.core.css.selector.States;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.Themes;
import org.calmpalette.core.value.Viewport;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class ColorExpressionTest {
    private static final String PALETTE =
            """
            {"name": "T", "places": [{"key": "all", "label": "All"}], "settings": [
              {"key": "ink", "label": "Ink", "place": "all", "kind": "color", "default": "#102030", "triple": true},
              {"key": "paper", "label": "Paper", "place": "all", "kind": "color", "default": "#fafafa"},
              {"key": "way", "label": "Way", "place": "all", "kind": "choice", "default": "a",
               "allowed": {"options": [{"key": "a", "label": "A", "css": "red"}, {"key": "b", "label": "B", "css": "inherit"}]}}]}
            """;
    private static final String PAGE =
            "<!doctype html><html><head><title>T</title><link rel=stylesheet href=a.css></head><body><main><h1>One <a href=#>two</a></h1></main></body></html>";

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '`',
            value = {
                "h1 { color: var(--ink) } | color | --ink",
                "h1 { color: #123 } | color | rgb(17, 34, 51)",
                "body { color: var(--ink, red) } | color | --ink",
                "body { color: var(--ink) } h1 { color: inherit } | color | --ink",
                "body { color: var(--ink) } h1 { color: initial } | color | rgb(0, 0, 0)",
                "body { color: var(--ink) } h1 { color: CanvasText } | color | rgb(0, 0, 0)",
                ":root { --x: var(--ink) } h1 { color: var(--x) } | color | --ink",
                "main { --x: var(--y, var(--ink)) } h1 { color: var( --x , blue) } | color | --ink",
                "h1 { --ink: red; color: var(--ink) } | color | rgb(255, 0, 0)",
                "main { --ink: var(--paper) } h1 { color: var(--ink) } | color | --paper",
                "main { --ink: red } h1 { --ink: inherit; color: var(--ink) } | color | rgb(255, 0, 0)",
                "h1 { --x: inherit; color: var(--x) } :root { --x: var(--ink) } | color | --ink",
                "h1 { --x: revert; color: var(--x) } :root { --x: var(--ink) } | color | unread",
                "h1 { color: var(--none, var(--ink)) } | color | --ink",
                "h1 { color: color-mix(in srgb, var(--ink), black) } | color | color-mix(in srgb, <--ink>, black)",
                "h1 { color: var(--x) } :root { --x: color-mix(in oklab, var(--y) 20%, rgb(from var(--paper) r g b)); --y: var(--ink) } | color | color-mix(in oklab, <--ink> 20%, <rgb(from <--paper> r g b)>)",
                "h1 { background: url(a.png) rgba(var(--ink-rgb), .5) } | background-color | rgba(<#--ink-rgb>, .5)",
                "h1 { background: rgba(var(--ink-rgb), var(--way)) } | background-color | unread",
                "h1 { color: color-mix(in srgb, var(--ink) var(--half), black); --half: 50% } | color | color-mix(in srgb, <--ink> 50%/**/, black)",
                "h1 { color: color-mix(in srgb, var(--ink), var(--way)) } | color | unread",
                "h1 { color: color-mix(in srgb, var(--ink)) } | color | unread",
                "body { color: var(--ink) } h1 { color: color-mix(in srgb, currentcolor, red) } | color | color-mix(in srgb, <--ink>, red)",
                "h1 { color: light-dark(var(--ink), var(--paper)) } | color | light-dark(<--ink>, <--paper>)",
                "h1 { --x: color-mix(in srgb, currentcolor, red); background-color: var(--x); color: var(--ink) } | background-color | unread",
                "h1 { color: var(--way) } | color | unread",
                "h1 { color: red } h1 { color: var(--none) } | color | rgb(0, 0, 0)",
                "h1 { color: red; color: var(--way) } | color | unread",
                "h1 { background: var(--ink) } | background-color | --ink",
                "h1 { background: no-repeat url(a.png) var(--ink) } | background-color | --ink",
                "h1 { background: var(--way), var(--ink) } | background-color | unread",
                "h1 { background: linear-gradient(var(--paper), red) #123 } | background-color | rgb(17, 34, 51)",
                "h1 { background: url(a.png), var(--x) } :root { --x: var(--paper) } | background-color | --paper",
                "h1 { background-color: currentcolor; color: var(--ink) } | background-color | --ink",
                "h1 { background-color: color-mix(in srgb, currentcolor, red); color: var(--ink) } | background-color | color-mix(in srgb, <--ink>, red)",
                "h1 { border: 1px solid var(--ink) } | border-top-color | --ink",
                "h1 { border: 1px solid; color: var(--ink) } | border-top-color | --ink",
                "h1 { border-color: red var(--ink) } | border-left-color | --ink",
                "h1 { border-color: red var(--ink) } | border-top-color | rgb(255, 0, 0)",
                "p { color: var(--ink) } | color | rgb(0, 0, 0)",
                "h1 { color: var(--ink) !important } h1 { color: red } | color | --ink",
                "@property --x { syntax: '<color>'; inherits: false; initial-value: red } :root { --x: var(--ink) } h1 { color: var(--x) } | color | unread"
            })
    void aColorStillHoldsWhatItFollows(String css, String longhand, String wanted) {
        Theme theme = Themes.of("index.html", PAGE, "a.css", css, "palette.json", PALETTE);
        Page page = theme.pages().get(0);
        ElementStyle style = new Rendered(theme, Map.of())
                .styles(page, Viewport.of(1000, 800), States.NONE)
                .of(page.document().selectFirst("h1"));
        ColorExpression.Choices choices = new ColorExpression.Choices(
                Set.of("--ink", "--paper"),
                Set.of("--ink-rgb"),
                Set.of("--way"),
                Set.of(Theme.SETTINGS_CSS, Theme.PALETTE_CSS));
        ColorExpression e = ColorExpression.of(style, longhand, choices);
        assertThat(told(e)).as(css).isEqualTo(wanted);
    }

    private static String told(ColorExpression e) {
        if (e instanceof ColorExpression.Mixed m) {
            StringBuilder all = new StringBuilder(m.pieces().get(0));
            for (int i = 0; i < m.parts().size(); i++) {
                ColorExpression.Part p = m.parts().get(i);
                all.append('<')
                        .append(p.numbers() ? "#" : "")
                        .append(told(p.color()))
                        .append('>')
                        .append(m.pieces().get(i + 1));
            }
            return all.toString();
        }
        return e instanceof ColorExpression.Chosen c
                ? c.property()
                : e instanceof ColorExpression.Fixed f ? f.color().css() : "unread";
    }
}

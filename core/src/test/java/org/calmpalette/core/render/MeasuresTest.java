package org.calmpalette.core.render;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.background.BoxGeometry.Rectangle;
import org.calmpalette.core.setting.Bands;
import org.calmpalette.core.setting.Chosen;
import org.calmpalette.core.setting.ColorKind;
import org.calmpalette.core.setting.LengthKind;
import org.calmpalette.core.setting.Palette;
import org.calmpalette.core.setting.PaletteJson;
import org.calmpalette.core.setting.Place;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.Themes;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class MeasuresTest {
    private static final String FILE =
            """
      {"format":"calm-measures/1","page":"index.html","windowHeight":800,"from":320,"to":1000,"unsure":[[500,520]],
       "height":[[320,1500],[1000,900]],
       "boxes":{"2":[[320,0,0,300,50],[420,0,0,400,60],[421,10,0,380,60],[1000,10,0,959,60]],
                "3":[[320,5,5,100,80,1,2,3,4,10,20,30,40]], "4":[[320,0,0,10,10],[600],[700,0,0,20,20]]},
       "lines":{"3":[[320,5,5,90,20,5,25,40,20],[640,5,5,130,20]]}}""";

    private static Measures read(String text) {
        return Measures.read("m.json", text.getBytes(StandardCharsets.UTF_8));
    }

    @Test
    void betweenTwoWidthsBoxesLieInAStraightLine() {
        Measures m = read(FILE);
        assertThat(m.box(2, 370)).contains(new Rectangle(0, 0, 350, 55));
        assertThat(m.box(2, 421)).as("after a jump").contains(new Rectangle(10, 0, 380, 60));
        assertThat(m.box(2, 1500)).as("wider than measured").contains(new Rectangle(10, 0, 959, 60));
        assertThat(m.box(2, 319)).as("narrower").isEmpty();
        assertThat(m.box(4, 650)).as("not shown between 600 and 699").isEmpty();
        assertThat(m.box(4, 700)).contains(new Rectangle(0, 0, 20, 20));
        assertThat(m.box(77, 500)).isEmpty();
        assertThat(m.lines(3, 500)).as("two lines until there is one").hasSize(2);
        assertThat(m.lines(3, 640)).containsExactly(new Rectangle(5, 5, 130, 20));
        assertThat(m.pageHeight(660)).isEqualTo(1200);
        assertThat(m.pageHeight(5000)).isEqualTo(900);
        assertThat(m.geometry(3, 400).orElseThrow().width())
                .as("without the borders")
                .isEqualTo(94);
        assertThat(m.isSureAt(500)).isTrue();
        assertThat(m.isSureAt(510)).isFalse();
        assertThat(m.isSureAt(1001)).isFalse();
    }

    @Test
    void whatIsWrittenReadsTheSame() {
        Measures m = read(FILE).of("abc");
        Measures again = Measures.read("m.json", m.write());
        assertThat(new String(again.write(), StandardCharsets.UTF_8))
                .isEqualTo(new String(m.write(), StandardCharsets.UTF_8));
        assertThat(again.layout()).isEqualTo("abc");
        assertThat(again.box(2, 444)).isEqualTo(m.box(2, 444));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "calm-measures/1 | calm-measures/9 | m.json, format: this is not “calm-measures/1”.",
                "\"from\":320 | \"from\":-1 | m.json, from: a whole number from 100 to 10000 belongs here.",
                "[[500,520]] | [[520,500]] | m.json, unsure[0]: two widths belong here, the narrower one first.",
                "[320,0,0,300,50] | [320,0,0,300] | m.json, boxes.2 at 320: it does not hold the numbers of a box.",
                "[320,0,0,300,50] | [320,0,0,300,1e99] | m.json, boxes.2 at 320: it does not hold the numbers of a box.",
                "[320,0,0,300,50] | [\"x\"] | m.json, boxes.2: each entry starts with a width in whole pixels.",
                "\"2\": | \"two\": | m.json, boxes.two: the number of an element belongs here.",
                "{\"format | {{\"format | m.json, line 1: this is not JSON."
            })
    void whatIsNoneIsRefusedWithItsPlace(String from, String to, String message) {
        assertThatThrownBy(() -> read(FILE.replace(from, to)))
                .isInstanceOf(BadInputException.class)
                .hasMessage(message);
    }

    @Test
    void theNameOfALayoutChangesWithWhatMovesBoxesOnly() {
        String page = "<link rel=stylesheet href=a.css><p class=x>Words</p>";
        Map<String, Boolean> moves = Map.of(
                "a.css|.x{color:red;background:url(b.png) 0 0 #fff;border-color:red;--c:#123;padding:2px}",
                false,
                "a.css|.x{color:blue;background:none;border-color:blue;--c:#456;padding:2px}",
                false,
                "a.css|.x{color:red;padding:3px}",
                true,
                "a.css|.x{color:red;padding:2px}@media(min-width:9px){.x{margin:0}}",
                true,
                "a.css|.y{padding:2px}",
                true,
                "index.html|" + page + "<p>More</p>",
                true);
        String before = key(page, ".x{color:red;padding:2px}");
        moves.forEach((change, moved) -> {
            String[] c = change.split("\\|", 2);
            String then = c[0].equals("a.css") ? key(page, c[1]) : key(c[1], ".x{color:red;padding:2px}");
            assertThat(!then.equals(before)).as(change).isEqualTo(moved);
        });
    }

    @Test
    void whatIsNestedWithoutEndHasALayoutAndTurnsToo() {
        for (String name :
                java.util.List.of("brackets 100,000 deep", "rules nested 5,000 deep", "5,000 media queries")) {
            Theme theme = Theme.read(
                    org.calmpalette.core.theme.ThemeFiles.of(org.calmpalette.core.theme.HostileThemes.all()
                            .get(name)
                            .get()),
                    "T");
            assertThat(new LayoutKey.Keys(new Rendered(theme)).of(theme.pages().get(0)))
                    .as(name)
                    .hasSize(64);
            assertThat(Breakpoint.of(theme)).as(name).isNotNull();
        }
    }

    /** What an owner chooses moves boxes or does not: a colour keeps what was measured, a length does not. */
    @Test
    void aChoiceOfAColourKeepsTheNameOfALayout() {
        Palette palette = new Palette(
                "T",
                Bands.USUAL,
                List.of(new Place("p", "P")),
                List.of(
                        Setting.of("ink", "Ink", "", "p", ColorKind.ANY, Value.of("#202020")),
                        Setting.of("room", "Room", "", "p", LengthKind.ANY, Value.parts("value", 8, "unit", "px"))),
                List.of(),
                List.of());
        Theme theme = Theme.read(
                Themes.files(
                        "index.html",
                        "<link rel=stylesheet href=a.css><p>x",
                        "a.css",
                        "p{color:var(--ink,#202020);padding:var(--room,8px)}",
                        "palette.json",
                        new String(PaletteJson.write(palette, null), StandardCharsets.UTF_8)),
                "T");
        String made = chosen(theme, null);
        assertThat(chosen(theme, Map.of())).isEqualTo(made);
        assertThat(chosen(theme, Map.of("ink", Chosen.of("#ff0000")))).isEqualTo(made);
        assertThat(chosen(theme, Map.of("room", Chosen.of(Value.parts("value", 9, "unit", "px")))))
                .isNotEqualTo(made);
    }

    /** What only paint reads moves nothing, whatever it holds; what anything else reads, by whatever way, may. */
    @Test
    void aCustomPropertyMovesBoxesOnlyIfSomethingElseThanPaintReadsIt() {
        String page = "<link rel=stylesheet href=a.css><p class=x>Words</p>";
        Map<String, Boolean> moves = Map.of(
                ".x{background:var(--a)}",
                false,
                ".x{background:var(--b)} .x{--b:linear-gradient(red,var(--a))}",
                false,
                ".x{background:var(--a);border:var(--a)}",
                true,
                ".x{border:var(--b)} .y{--b:1px solid var(--a)}",
                true,
                ".x{background:var(--c, var(--a));margin:var(--c)}",
                false,
                ".x{margin:var(--c, var(--a))}",
                true,
                ".x{background:var(--a)} @container style(--a: 3px) {.x{margin:0}}",
                true,
                ".x{background:var(--a)} @import 'gone.css';",
                false);
        moves.forEach((css, moved) -> assertThat(
                        !key(page, css + ".x{--a:3px dotted red}").equals(key(page, css + ".x{--a:4px dotted blue}")))
                .as(css)
                .isEqualTo(moved));
        for (String[] values : new String[][] {{"none", "block"}, {"url(a.png)", "url(b.png)"}}) {
            for (String property : new String[] {"display", "content", "background-image"}) {
                String css = ".x{" + property + ":var(--a)}.x{--a:";
                assertThat(key(page, css + values[0] + "}").equals(key(page, css + values[1] + "}")))
                        .as(property + ": " + values[1])
                        .isEqualTo(property.startsWith("background"));
            }
        }
        String inAttribute = page.replace("class=x", "class=x style=margin:var(--a)");
        assertThat(key(inAttribute, ".x{--a:3px dotted red}")).isNotEqualTo(key(inAttribute, ".x{--a:4px dotted red}"));
        String quoted = page.replace("class=x", "class=x style='background:var(--a)'");
        assertThat(key(quoted, ".x{--a:3px dotted red}")).isEqualTo(key(quoted, ".x{--a:4px dotted red}"));
    }

    /** Only pictures that make boxes are of any account: an owner's own behind a text leaves what was measured good. */
    @Test
    void aPictureMovesBoxesOnlyWhereItMayMakeOne() {
        String small = "<svg xmlns='http://www.w3.org/2000/svg' width='4' height='3'/>";
        String large = small.replace("4", "400");
        Map<String, Boolean> moves = Map.of(
                "<img src=x.svg>|",
                true,
                "<img src='a/../%78.svg'>|",
                true,
                "<p>|.x{list-style:url(x.svg)}",
                true,
                "<p>|.x::before{content:url('x.svg')}",
                true,
                "<p>|.x::before{content:url('\\78.svg')}",
                true,
                "<p style='list-style-image: url(x.svg)'>|",
                true,
                "<p>|.x{background:url(x.svg)}",
                false,
                "<img src=y.svg>|.x{background:url(x.svg)}",
                false,
                "<img src=ax.svg>|",
                false);
        moves.forEach((made, moved) -> {
            String page = "<link rel=stylesheet href=a.css>" + made.split("\\|", -1)[0];
            String css = made.split("\\|", -1)[1];
            assertThat(!with(page, css, small).equals(with(page, css, large)))
                    .as(made)
                    .isEqualTo(moved);
        });
    }

    private static String with(String page, String css, String x) {
        Theme theme = Theme.read(Themes.files("index.html", page, "a.css", css, "x.svg", x), "T");
        return new LayoutKey.Keys(new Rendered(theme)).of(theme.pages().get(0));
    }

    /** What a setting fills a page with moves boxes as what is written there does; where a link leads moves none. */
    @Test
    void whatOwnersSayMovesBoxes() {
        Theme theme = Theme.read(
                Themes.files(
                        "index.html",
                        "<p data-setting-text=words>Boats</p><a href=b.html data-setting-href=to>x</a><img data-setting-src=photo data-setting-alt=says src=x.png alt=Pier>",
                        "x.png",
                        "",
                        "y.png",
                        "",
                        "palette.json",
                        """
                        {"name": "T", "places": [{"key": "p", "label": "P"}], "settings": [
                          {"key": "words", "label": "W", "place": "p", "kind": "line", "default": "Boats"},
                          {"key": "to", "label": "T", "place": "p", "kind": "link", "default": "b.html"},
                          {"key": "photo", "label": "P", "place": "p", "kind": "picture", "default": "x.png"},
                          {"key": "says", "label": "S", "place": "p", "kind": "line", "default": "Pier"}]}"""),
                "T");
        String made = chosen(theme, null);
        assertThat(chosen(theme, Map.of())).isEqualTo(made);
        assertThat(chosen(theme, Map.of("to", Chosen.of("c.html"), "says", Chosen.of("A pier"))))
                .isEqualTo(made);
        assertThat(chosen(theme, Map.of("words", Chosen.of("Ferries and boats"))))
                .isNotEqualTo(made);
        assertThat(chosen(theme, Map.of("photo", Chosen.of("y.png")))).isNotEqualTo(made);
    }

    private static String chosen(Theme theme, Map<String, Chosen> choices) {
        Rendered rendered = choices == null ? new Rendered(theme) : new Rendered(theme, choices);
        return new LayoutKey.Keys(rendered).of(rendered.page("index.html").orElseThrow());
    }

    private static String key(String page, String css) {
        Theme theme = Theme.read(Themes.files("index.html", page, "a.css", css), "T");
        return new LayoutKey.Keys(new Rendered(theme)).of(theme.pages().get(0));
    }
}

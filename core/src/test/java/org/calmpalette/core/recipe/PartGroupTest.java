package org.calmpalette.core.recipe;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.calmpalette.core.change.Change;
import org.calmpalette.core.change.Trial;
import org.calmpalette.core.css.selector.States;
import org.calmpalette.core.output.ThemeBuild;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.part.PartLook;
import org.calmpalette.core.render.Measures;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.setting.AnotherValue;
import org.calmpalette.core.setting.Chosen;
import org.calmpalette.core.setting.Given;
import org.calmpalette.core.setting.LengthKind;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.survey.PageParts;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.Themes;
import org.calmpalette.core.value.Viewport;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Parts as groups of settings, on a page of a few lines. Elements: html 1, head 2, title 3, link 4, body 5, header 6, a 7, section 8. */
class PartGroupTest {
    private static final String CSS =
            """
            /* Ferry */
            header { padding: 10px 20px; background: #123456 }
            header a { color: #ffffff; letter-spacing: .05em }
            section { min-height: 60vh; padding: 40px; align-items: center; display: grid } /* the lake */
            @media (max-width: 767px) { section { min-height: 300px } }
            @media (max-width: 500px) { header a { color: #eeeeee } }
            """;
    private static final String HTML =
            "<!doctype html><html><head><title>F</title><link rel=stylesheet href=a.css></head><body><header><a href=/>Ferries</a></header><section><h1>Cross</h1></section></body></html>";

    private static final Theme THEME = Themes.of("index.html", HTML, "a.css", CSS);

    private static PartGroup group(Theme theme, PageParts.Kind kind, int at) {
        Rendered rendered = new Rendered(theme);
        Page page = theme.pages().get(0);
        return new PartGroup(rendered, page, measures(), kind, at);
    }

    private static Measures measures() {
        return Measures.read(
                "m",
                """
                {"format":"calm-measures/1","page":"index.html","windowHeight":800,"from":320,"to":2560,"unsure":[],"height":[[320,900]],
                 "boxes":{"6":[[320,0,0,320,72],[767,0,0,767,72],[768,0,0,768,40],[2560,0,0,2560,40]],"8":[[320,0,72,320,300],[2560,0,40,2560,480]]},"lines":{}}"""
                        .getBytes(StandardCharsets.UTF_8));
    }

    @Test
    void whatIsOfferedIsWhatTheCascadeSaysInEachBand() {
        List<Offer> hero = group(THEME, PageParts.Kind.HERO, 8).offers();
        assertThat(hero).extracting(Offer::id).contains("height", "place", "above", "below");
        Offer height = hero.get(0);
        assertThat(height.now()).isEqualTo("phone 300px, tablet 60vh, desktop 60vh");
        assertThat(height.where()).containsExactlyInAnyOrder("a.css, line 4", "a.css, line 5");
        assertThat(height.bands()).containsOnlyKeys("phone");
        List<Offer> header = group(THEME, PageParts.Kind.HEADER, 6).offers();
        Offer link = header.stream()
                .filter(o -> o.id().equals("link-color"))
                .findFirst()
                .orElseThrow();
        assertThat(link.note()).contains("It turns at 501 px");
        Offer room = header.get(header.size() - 1);
        assertThat(room.id()).isEqualTo("room");
        assertThat(((Value.Parts) room.value()).number("value").intValue()).isEqualTo(40);
        assertThat(((Value.Parts) room.bands().get("phone")).number("value").intValue())
                .isEqualTo(72);
    }

    @Test
    void takingChangesOnlyTheCharactersOfTheValues() {
        Change change = group(THEME, PageParts.Kind.HERO, 8).take(Set.of("height", "place"), "Lake");
        Theme after = change.applied(THEME);
        assertThat(Themes.text(after.files(), "a.css"))
                .isEqualTo(CSS.replace("min-height: 60vh", "min-height: var(--lake-height, 60vh)")
                        .replace("min-height: 300px", "min-height: var(--lake-height, 300px)")
                        .replace("align-items: center", "align-items: var(--lake-place, center)"));
        assertThat(ThemeBuild.settingsCss(after))
                .contains("--lake-height: 60vh;", "--lake-height: 300px;", "--lake-place: center;");
        assertThat(ThemeBuild.paletteCss(after, Map.of("lake-place", Chosen.of("end"))))
                .contains("--lake-place: end;");
        assertThat(change.note()).isEqualTo("Made 2 settings of the hero, “Lake”");
    }

    @Test
    void linksThatArePointedAtAreASettingOfTheirOwnWhereARuleDecidesThem() {
        assertThat(group(THEME, PageParts.Kind.HEADER, 6).offers())
                .extracting(Offer::id)
                .doesNotContain("pointed-color", "pointed-fill");
        String css = CSS + "header a:hover { color: #ffcc00; background: #123456 }\na:focus { color: #ff0000 }\n";
        Theme theme = Themes.of("index.html", HTML, "a.css", css);
        Theme after = group(theme, PageParts.Kind.HEADER, 6)
                .take(Set.of("pointed-color", "link-color"), "")
                .applied(theme);
        assertThat(Themes.text(after.files(), "a.css"))
                .contains("header a:hover { color: var(--header-pointed-color, #ffcc00); background: #123456 }")
                .contains("header a { color: var(--header-link-color, #ffffff);")
                .contains("a:focus { color: #ff0000 }");
        assertThat(after.palette().known("header-pointed-color").given().value())
                .isEqualTo(Value.of("#ffcc00"));
    }

    /** Heroes are high by a box in them as often as by their own height, and columns wide in px. */
    @Test
    void whatABoxInsideDecidesIsOfferedAndAWidthInPixelsToo() {
        String html =
                "<!doctype html><html><head><title>F</title><link rel=stylesheet href=a.css></head><body><header><a href=/>F</a></header>"
                        + "<section><div class=in><div class=box><h1>Cross</h1><p>x</p></div></div></section><main><p>1</p></main></body></html>";
        String css =
                "section { padding: 0 } .in { min-height: 70vh; display: grid } .box { padding: 6rem 2rem 4rem } main { width: 960px; margin: 0 auto }\n"
                        + "@media (max-width: 767px) { .in { min-height: 50vh } .box { padding-top: 3rem } }\n";
        Theme theme = Themes.of("index.html", html, "a.css", css);
        List<Offer> hero =
                group(theme, PageParts.Kind.HERO, at(theme, "section")).offers();
        assertThat(hero)
                .filteredOn(o -> Set.of("height", "above", "below").contains(o.id()))
                .extracting(o -> o.id() + " " + o.element() + " " + o.now())
                .containsExactly(
                        "height " + at(theme, ".in") + " phone 50vh, tablet 70vh, desktop 70vh",
                        "above " + at(theme, ".box") + " phone 3rem, tablet 6rem, desktop 6rem",
                        "below " + at(theme, ".box") + " 4rem");
        Theme after = group(theme, PageParts.Kind.HERO, at(theme, "section"))
                .take(Set.of("height", "above"), "Lake")
                .applied(theme);
        assertThat(Themes.text(after.files(), "a.css"))
                .contains(".in { min-height: var(--lake-height, 70vh); display: grid }")
                .contains(".box { padding: var(--lake-above, 6rem) 2rem 4rem }")
                .contains(".in { min-height: var(--lake-height, 50vh) } .box { padding-top: var(--lake-above, 3rem) }");
        assertThat(ThemeBuild.settingsCss(after)).contains("--lake-height: 50vh;", "--lake-above: 3rem;");
        Theme wide = group(theme, PageParts.Kind.COLUMN, at(theme, "main"))
                .take(Set.of("fixed-width"), "Column")
                .applied(theme);
        assertThat(Themes.text(wide.files(), "a.css")).contains("main { width: var(--column-fixed-width, 960px);");
    }

    private static final String LINKED =
            "<!doctype html><html><head><title>F</title><link rel=stylesheet href=a.css></head><body><header><ul><li><a href=/>A</a></li><li><a href=/b aria-current=page>B</a></li><li><a href=/c>C</a></li></ul></header><section><div><h1>Cross</h1><p>x</p></div></section><main><p>1</p><p>2</p><h2>3</h2></main></body></html>";

    private static int at(Theme theme, String selector) {
        Page page = theme.pages().get(0);
        return page.elements().indexOf(page.document().selectFirst(selector));
    }

    @Test
    void linksInEachOfTheirStatesAreSettingsOnceForEachRule() {
        Theme theme = Themes.of(
                "index.html",
                LINKED,
                "a.css",
                "ul { display: flex; gap: 24px } a { color: #111111; outline-color: #222222 } a:hover, a:focus-visible { color: #333333 } a:active { color: #444444 }\n"
                        + "a:focus-visible { outline-color: #555555 } [aria-current] { color: #666666 }\n");
        PartGroup group = group(theme, PageParts.Kind.HEADER, at(theme, "header"));
        List<String> ids = group.offers().stream().map(Offer::id).toList();
        assertThat(ids)
                .contains(
                        "link-color", "pointed-color", "focused-outline", "pressed-color", "current-color", "link-gap")
                .doesNotContain("focused-color", "current-fill");
        Theme after = group.take(Set.copyOf(ids), "").applied(theme);
        assertThat(Themes.text(after.files(), "a.css"))
                .startsWith(
                        "ul { display: flex; gap: var(--header-link-gap, 24px) } a { color: var(--header-link-color, #111111); outline-color: #222222 }"
                                + " a:hover, a:focus-visible { color: var(--header-pointed-color, #333333) } a:active { color: var(--header-pressed-color, #444444) }\n"
                                + "a:focus-visible { outline-color: var(--header-focused-outline, #555555) } [aria-current] { color: var(--header-current-color, #666666) }\n");
    }

    @Test
    void aShadeAndABoxForTheWordsOfAHeroAreNothingAtFirst() {
        String css = "section { background: #123 url(a.svg) center/cover; color: #fff; min-height: 300px }\n"
                + "@media (max-width: 767px) { section { background-image: url('b.svg') } }\n";
        Theme theme = Themes.of("index.html", LINKED, "a.css", css);
        PartGroup group = group(theme, PageParts.Kind.HERO, at(theme, "section"));
        List<Offer> offers = group.offers();
        assertThat(offers).extracting(Offer::id).startsWith("shade").endsWith("box-fill", "box-room");
        assertThat(offers.get(0).where()).containsExactlyInAnyOrder("a.css, line 1", "a.css, line 2");
        Change change = group.take(Set.of("shade", "fill", "box-fill", "box-room"), "");
        Theme after = change.applied(theme);
        assertThat(Trial.of(new Rendered(theme), change).properties())
                .as("one layer more, which paints nothing")
                .allMatch(p -> p.startsWith("background-"))
                .doesNotContain("background-color");
        String shade = "linear-gradient(var(--hero-shade, transparent), var(--hero-shade, transparent)), ";
        assertThat(Themes.text(after.files(), "a.css"))
                .startsWith(css.replace("background: #123 url", "background: " + shade + "var(--hero-fill, #123) url")
                        .replace("background-image: url", "background-image: " + shade + "url"))
                .contains("section > div {\n  background-color: var(--hero-box-fill, #00000000);\n}")
                .contains("section > div {\n  padding: var(--hero-box-room, 0px);\n}");
        assertThat(ThemeBuild.paletteCss(after, Map.of("hero-shade", Chosen.of("#00000080"))))
                .contains("--hero-shade: #00000080;");
        // Two layers are somebody's own composition, and a tile of 40 px would be shaded alone.
        for (String other : List.of(
                "section { background: url(a.svg), url(b.svg) }",
                "section { background: url(a.svg) 0 0/40px no-repeat }",
                "section { background: linear-gradient(red, blue) }",
                "section div { padding: 1px }")) {
            Theme no = Themes.of("index.html", LINKED, "a.css", other);
            assertThat(group(no, PageParts.Kind.HERO, at(no, "section")).offers())
                    .as(other)
                    .extracting(Offer::id)
                    .doesNotContain("shade")
                    .matches(ids -> other.contains("div") != ids.contains("box-fill"));
        }
    }

    /** A rule for the words of one hero would otherwise dress the boxes of other pages. */
    @Test
    void aBoxForTheWordsFindsNothingOnOtherPages() {
        String other = LINKED.replace("<div>", "<div class=card>");
        Theme theme = Themes.of("index.html", LINKED, "other.html", other, "a.css", "section { color: #111 }");
        assertThat(group(theme, PageParts.Kind.HERO, at(theme, "section")).offers())
                .extracting(Offer::id)
                .doesNotContain("box-fill");
        Theme named = Themes.of(
                "index.html",
                LINKED.replace("<section>", "<section class=lake>"),
                "other.html",
                other,
                "a.css",
                ".lake { color: #111 } .card { padding: 4px }");
        assertThat(group(named, PageParts.Kind.HERO, at(named, "section")).offers())
                .extracting(Offer::id)
                .contains("box-fill");
    }

    @Test
    void theStripOfAHeaderIsOneSettingWithItsColour() {
        for (String[] each : new String[][] {
            {"header { background: #123456 url(a.svg) repeat-x; color: #fff }", "Picture and colour"},
            {"header { background: linear-gradient(#123456, #456789); color: #fff }", "Gradient"},
            {"header { background: #123456 url(a.svg) } @media (max-width: 700px) { header { background: red } }", ""},
            {"header { background: #123456; color: #fff }", ""}
        }) {
            Theme theme = Themes.of("index.html", LINKED, "a.css", each[0], "a.svg", "<svg/>");
            PartGroup group = group(theme, PageParts.Kind.HEADER, at(theme, "header"));
            List<Offer> offers = group.offers();
            assertThat(offers.stream()
                            .filter(o -> o.id().equals("ground"))
                            .map(Offer::label)
                            .toList())
                    .as(each[0])
                    .isEqualTo(each[1].isEmpty() ? List.of() : List.of(each[1]));
            if (!each[1].isEmpty()) {
                assertThat(offers).extracting(Offer::id).doesNotContain("fill");
                Change change = group.take(Set.of("ground", "stays"), "");
                String written = each[0].replaceAll(".*background: ([^;]*);.*", "$1");
                assertThat(Themes.text(change.applied(theme).files(), "a.css"))
                        .startsWith(each[0].replace(written, "var(--header-ground, " + written + ")"));
                // The address of the picture goes through a custom property; the Chromium tests of parts see the same
                // paint.
                assertThat(Trial.of(new Rendered(theme), change).properties())
                        .isSubsetOf("background-image", "top", "z-index");
            }
        }
    }

    @Test
    void roomAboveIsNotRoomAtTheSides() {
        Theme theme = Themes.of("index.html", LINKED, "a.css", "section { padding: 40px } main { padding: 1px 2px }");
        Theme after = group(theme, PageParts.Kind.HERO, at(theme, "section"))
                .take(Set.of("above", "below"), "")
                .applied(theme);
        assertThat(Themes.text(after.files(), "a.css"))
                .isEqualTo(
                        "section { padding: 40px; padding-bottom: var(--hero-below, 40px); padding-top: var(--hero-above, 40px) } main { padding: 1px 2px }");
    }

    @Test
    void roomBetweenNeighboursIsOneSetting() {
        for (String[] each : new String[][] {
            {"main { display: grid; gap: 16px }", "main { display: grid; gap: var(--content-column-between, 16px) }"},
            {
                "main p { margin: 8px 0 24px } h2 { margin: 0 }",
                "main p { margin: 8px 0 var(--content-column-between, 24px) } h2 { margin: 0 }"
            },
            // The hero has one as well, which keeps its room.
            {
                "p { margin: 8px 0 24px } h2 { margin: 0 }\n",
                "p { margin: 8px 0 24px } h2 { margin: 0 }\n\nmain > p {\n  margin-bottom: var(--content-column-between, 24px);\n}\n"
            },
            {"h2 { margin-top: 24px } p { margin: 0 }", null}
        }) {
            Theme theme = Themes.of("index.html", LINKED, "a.css", each[0]);
            PartGroup group = group(theme, PageParts.Kind.COLUMN, at(theme, "main"));
            if (each[1] == null) {
                assertThat(group.offers()).extracting(Offer::id).doesNotContain("between");
            } else {
                Change change = group.take(Set.of("between"), "");
                assertThat(Themes.text(change.applied(theme).files(), "a.css")).isEqualTo(each[1]);
                assertThat(Trial.of(new Rendered(theme), change).properties()).isEmpty();
            }
        }
    }

    @Test
    void aHeaderThatMayStayGivesRoomToWhatOneJumpsTo() {
        Theme after = group(THEME, PageParts.Kind.HEADER, 6)
                .take(Set.of("stays", "room"), "")
                .applied(THEME);
        assertThat(Themes.text(after.files(), "a.css"))
                .startsWith(CSS)
                .contains("position: var(--header-stays, static);")
                .contains("scroll-padding-top: var(--header-room, 40px);")
                .contains("top: 0;", "z-index: 10;");
        assertThat(after.palette().known("header-room").shown().isNever()).isTrue();
        assertThat(ThemeBuild.settingsCss(after)).contains("--header-room: 72px;");
        assertThat(ThemeBuild.paletteCss(after, Map.of("header-stays", Chosen.of("sticky"))))
                .contains("--header-stays: sticky;");
    }

    @Test
    void whatTurnsInsideOfABandIsBoundWhereItIsSaid() {
        Theme after = group(THEME, PageParts.Kind.HEADER, 6)
                .take(Set.of("link-color"), "")
                .applied(THEME);
        assertThat(Themes.text(after.files(), "a.css"))
                .isEqualTo(CSS.replace("color: #ffffff", "color: var(--header-link-color, #ffffff)"));
    }

    @Test
    void whatIsAsWideAsTheColumnGoesWithIt() {
        Theme theme = Themes.of(
                "index.html",
                "<!doctype html><html><head><title>F</title><link rel=stylesheet href=a.css></head><body><header><div class=row>x</div></header><main><p>y</p></main><footer>z</footer></body></html>",
                "a.css",
                ".row { max-width: 60rem; margin: auto }\nmain { max-width: 60rem } p { max-width: 30em }\nfooter { max-width: 60.0rem }\n");
        PartGroup column = group(theme, PageParts.Kind.COLUMN, 8);
        assertThat(column.offers())
                .extracting(o -> o.id() + " " + o.where())
                .contains("hangs [.row in a.css, line 1, footer in a.css, line 3]");
        assertThatThrownBy(() -> column.take(Set.of("hangs"), "")).hasMessageContaining("not chosen");
        Theme after = column.take(Set.of("width", "hangs"), "Text").applied(theme);
        assertThat(Themes.text(after.files(), "a.css"))
                .isEqualTo(
                        ".row { max-width: var(--text-width, 60rem); margin: auto }\nmain { max-width: var(--text-width, 60rem) } p { max-width: 30em }\nfooter { max-width: var(--text-width, 60.0rem) }\n");
        assertThat(after.palette().settings()).hasSize(1);
        Theme alone = column.take(Set.of("width"), "Text").applied(theme);
        assertThat(Themes.text(alone.files(), "a.css")).startsWith(".row { max-width: 60rem;");
    }

    @Test
    void roomIsAskedForInTheStepsOfTheTheme() {
        Theme theme = Themes.of(
                "index.html",
                HTML,
                "a.css",
                "section { padding: 24px 8px } p { margin: 8px 0; padding: 8px 16px } h1 { margin-bottom: 24px } ul { gap: 16px 48px } a { padding: 1em -4px auto }");
        Offer above = group(theme, PageParts.Kind.HERO, 8).offers().stream()
                .filter(o -> o.id().equals("above"))
                .findFirst()
                .orElseThrow();
        assertThat(above.kind().inWords()).isEqualTo("small, medium, large, very large");
        assertThat(((LengthKind) above.kind()).steps())
                .extracting(
                        s -> s.length().number("value").intValue() + s.length().text("unit"))
                .containsExactly("8px", "16px", "24px", "48px");
        Theme none = Themes.of("index.html", HTML, "a.css", "section { padding: 0 8px } p { margin: 1rem 2rem 3rem }");
        assertThat(group(none, PageParts.Kind.HERO, 8).offers().get(0).kind().inWords())
                .isEqualTo("none, small, medium, large");
        // Two lengths are no scale: bounds are proposed then.
        Theme two = Themes.of("index.html", HTML, "a.css", "section { padding: 24px 8px }");
        assertThat(group(two, PageParts.Kind.HERO, 8).offers().stream()
                        .filter(o -> o.id().equals("above"))
                        .findFirst()
                        .orElseThrow()
                        .kind())
                .isInstanceOfSatisfying(
                        LengthKind.class, k -> assertThat(k.units()).isNotEmpty());
        Theme after =
                group(theme, PageParts.Kind.HERO, 8).take(Set.of("above"), "").applied(theme);
        assertThat(after.palette().faults()).isEmpty();
        assertThat(ThemeBuild.paletteCss(
                        after, Map.of("hero-above", Chosen.of(Value.parts("value", 48, "unit", "px")))))
                .contains("--hero-above: 48px;");
    }

    @Test
    void whatIsTakenIsNotOfferedAgainAndNothingIsRefused() {
        Theme after =
                group(THEME, PageParts.Kind.HERO, 8).take(Set.of("height"), "").applied(THEME);
        assertThat(group(after, PageParts.Kind.HERO, 8).offers())
                .extracting(Offer::id)
                .doesNotContain("height")
                .contains("place");
        assertThatThrownBy(() -> group(THEME, PageParts.Kind.HERO, 8).take(Set.of("nonsense"), ""))
                .hasMessageContaining("Nothing was chosen");
        assertThatThrownBy(() -> group(THEME, PageParts.Kind.HERO, 99)).hasMessageContaining("no longer on the page");
        assertThat(PageParts.of(new Rendered(THEME), THEME.pages().get(0), null))
                .isEmpty();
        assertThat(PageParts.of(new Rendered(THEME), THEME.pages().get(0), measures()))
                .containsEntry(PageParts.Kind.HERO, 8);
    }

    private static final String MENU =
            "<!doctype html><html><head><title>F</title><link rel=stylesheet href=a.css></head><body><header class=top><a class=brand href=/>F</a><nav><ul><li><a href=/a>A</a></li><li class=on><a href=/b class=current>B</a></li><li><a href=/c>C</a></li><li><a class=book href=/d>D</a></li></ul></nav></header><main><h1>x</h1><p><a href=/e>E</a></p></main></body></html>";

    /** Which links change with another value of a setting, in a state or none, at a width. */
    private static List<String> reached(Theme theme, String key, int width, String... states) {
        Setting setting = theme.palette().known(key);
        Value other = AnotherValue.of(setting.kind(), ((Given.Fixed) setting.given()).value())
                .orElseThrow();
        Chosen chosen = Chosen.of(other);
        for (Map.Entry<String, Given> band : setting.bands().entrySet()) {
            Value is = ((Given.Fixed) band.getValue()).value();
            chosen = chosen.with(
                    band.getKey(), AnotherValue.of(setting.kind(), is).orElseThrow());
        }
        Rendered before = new Rendered(theme);
        Rendered after = new Rendered(theme, Map.of(key, chosen));
        Page page = theme.pages().get(0);
        return page.document().select("a").stream()
                .filter(a -> {
                    States on = PartLook.states(Set.of(states), a);
                    Viewport window = Viewport.of(width, 900);
                    return !before.styles(page, window, on)
                            .of(a)
                            .computed("color")
                            .equals(after.styles(after.theme().pages().get(0), window, on)
                                    .of(a)
                                    .computed("color"));
                })
                .map(a -> a.text())
                .toList();
    }

    /** Links that a rule for the whole page paints, that a library paints, and that are painted one by one: all of them, and no other. */
    @ParameterizedTest
    @ValueSource(
            strings = {
                ".top nav a { color: #eeeeee }",
                "a { color: #eeeeee }",
                "a { color: #eeeeee } @media (min-width: 768px) { a { color: #dddddd } }",
                "nav li:nth-of-type(1) > a, li:nth-of-type(3) a { color: #eeeeee } a { color: #eeeeee }",
                ".top a { color: #eeeeee }"
            })
    void aSettingOfTheLinksPaintsAllOfThemAndNothingElse(String css) {
        Theme theme = Themes.of(
                "index.html",
                MENU,
                "a.css",
                ".top { padding: 8px; background: #123456 } " + css
                        + " .top .brand { color: #ffffff } .top .book { color: #ffaa00 } .top .on .current { color: #00ffff } main a { color: #102030 }");
        Theme after = group(theme, PageParts.Kind.HEADER, at(theme, "header"))
                .take(Set.of("link-color"), "")
                .applied(theme);
        for (int width : new int[] {390, 1280}) {
            assertThat(reached(after, "header-link-color", width))
                    .as(css + " at " + width + "\n" + Themes.text(after.files(), "a.css"))
                    .containsExactly("A", "C");
        }
        assertThat(Trial.of(
                                new Rendered(theme),
                                group(theme, PageParts.Kind.HEADER, at(theme, "header"))
                                        .take(Set.of("link-color"), ""))
                        .changed())
                .isEmpty();
    }

    /** A rule for all links of the page that are pointed at is none of the header's: its setting has a rule of its own. */
    @Test
    void aStateOfTheLinksOfAHeaderStaysInTheHeader() {
        Theme theme = Themes.of(
                "index.html",
                MENU,
                "a.css",
                ".top { padding: 8px } .top nav a { color: #eeeeee } a:hover { color: #ff0000 !important }");
        Theme after = group(theme, PageParts.Kind.HEADER, at(theme, "header"))
                .take(Set.of("pointed-color"), "")
                .applied(theme);
        assertThat(reached(after, "header-pointed-color", 1280, "hover"))
                .contains("A", "C")
                .doesNotContain("E");
        assertThat(reached(after, "header-pointed-color", 1280)).isEmpty();
        assertThat(Themes.text(after.files(), "a.css")).contains("a:hover { color: #ff0000 !important }");
    }

    /** A heading that a rule for all headings sizes: the setting of the hero leaves the others as they are. */
    @Test
    void whatIsNamedAfterAPartLeavesTheRestOfThePageAlone() {
        Theme theme = Themes.of(
                "index.html",
                "<!doctype html><html><head><title>F</title><link rel=stylesheet href=a.css></head><body><section class=hero><h2>One</h2></section><section class=more><h2>Two</h2></section></body></html>",
                "a.css",
                "section { padding: 40px } h2 { font-size: 32px; color: #123456 }");
        Theme after = group(theme, PageParts.Kind.HERO, at(theme, ".hero"))
                .take(Set.of("heading-size", "above"), "")
                .applied(theme);
        Rendered other = new Rendered(
                after,
                Map.of(
                        "hero-heading-size",
                        Chosen.of(Value.parts("value", 50, "unit", "px")),
                        "hero-above",
                        Chosen.of(Value.parts("value", 60, "unit", "px"))));
        Page page = after.pages().get(0);
        var styles = other.styles(page, Viewport.of(1280, 900), States.NONE);
        assertThat(page.document().select("h2").stream()
                        .map(h -> styles.of(h).computed("font-size"))
                        .toList())
                .containsExactly("50px", "32px");
        assertThat(page.document().select("section").stream()
                        .map(h -> styles.of(h).computed("padding-top"))
                        .toList())
                .containsExactly("60px", "40px");
    }

    /** A header that a script changes on scrolling: what the setting does not reach then is said, and has one of its own. */
    @Test
    void whatAScriptTakesOutOfReachHasASettingOfItsOwn() {
        Theme theme = Themes.of(
                "index.html",
                HTML.replace(
                        "</body>",
                        "<script>onscroll = () => document.querySelector('header').classList.toggle('low', scrollY > 0)</script></body>"),
                "a.css",
                CSS
                        + "header.low a { color: #123456 } header.low { background-color: #ffeedd } .low { padding-top: 3px }");
        List<Offer> offers = group(theme, PageParts.Kind.HEADER, 6).offers();
        assertThat(offers)
                .filteredOn(o -> o.note().contains("class “low”"))
                .extracting(Offer::property)
                .containsExactly("background-color", "padding-top", "color");
        assertThat(offers)
                .filteredOn(o -> o.property().equals("color"))
                .first()
                .extracting(Offer::note)
                .asString()
                .contains(
                        "Not once a script sets the class “low”: then header.low a in a.css, line 7, decides; it has a setting of its own below.");
        assertThat(offers)
                .filteredOn(o -> !o.once().isEmpty())
                .extracting(o -> o.id() + " · " + o.label() + " · " + o.where())
                .containsExactly(
                        "once-low-fill · Colour, once a script sets “low” · [a.css, line 7]",
                        "once-low-above · Room above, once a script sets “low” · [a.css, line 7]",
                        "once-low-link-color · Colour of the links, once a script sets “low” · [a.css, line 7]");
        Change change =
                group(theme, PageParts.Kind.HEADER, 6).take(Set.of("fill", "once-low-fill", "once-low-link-color"), "");
        assertThat(Trial.of(new Rendered(theme), change).properties()).isEmpty();
        Theme after = change.applied(theme);
        assertThat(Themes.text(after.files(), "a.css"))
                .contains(
                        "header.low a { color: var(--header-once-low-link-color, #123456) } header.low { background-color: var(--header-once-low-fill, #ffeedd) }");
        assertThat(ThemeBuild.settingsCss(after)).contains("--header-once-low-fill: #ffeedd;");
        assertThat(group(THEME, PageParts.Kind.HEADER, 6).offers())
                .noneMatch(o -> o.note().contains("script"));
    }
}

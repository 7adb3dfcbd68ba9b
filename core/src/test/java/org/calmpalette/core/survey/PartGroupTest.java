package org.calmpalette.core.survey;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.calmpalette.core.change.Change;
import org.calmpalette.core.output.ThemeBuild;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.render.Measures;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.setting.Chosen;
import org.calmpalette.core.setting.LengthKind;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.Themes;
import org.junit.jupiter.api.Test;

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
        List<PartGroup.Offer> hero = group(THEME, PageParts.Kind.HERO, 8).offers();
        assertThat(hero).extracting(PartGroup.Offer::id).contains("height", "place", "above", "below");
        PartGroup.Offer height = hero.get(0);
        assertThat(height.now()).isEqualTo("phone 300px, tablet 60vh, desktop 60vh");
        assertThat(height.where()).containsExactlyInAnyOrder("a.css, line 4", "a.css, line 5");
        assertThat(height.bands()).containsOnlyKeys("phone");
        List<PartGroup.Offer> header = group(THEME, PageParts.Kind.HEADER, 6).offers();
        PartGroup.Offer link = header.stream()
                .filter(o -> o.id().equals("link-color"))
                .findFirst()
                .orElseThrow();
        assertThat(link.note()).contains("It turns at 501 px");
        PartGroup.Offer room = header.get(header.size() - 1);
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
                .extracting(PartGroup.Offer::id)
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
        PartGroup.Offer above = group(theme, PageParts.Kind.HERO, 8).offers().stream()
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
                .extracting(PartGroup.Offer::id)
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
}

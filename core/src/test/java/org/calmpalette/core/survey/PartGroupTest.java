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

package org.calmpalette.core.part;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.change.Change;
import org.calmpalette.core.change.SheetRole;
import org.calmpalette.core.output.ThemeBuild;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.part.SidePictures.Linked;
import org.calmpalette.core.part.SidePictures.Side;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.setting.Chosen;
import org.calmpalette.core.setting.Place;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.ThemeFiles;
import org.calmpalette.core.theme.Themes;
import org.junit.jupiter.api.Test;

/** Linked pictures at the side of a header: room is made for them, and all they say is the owner's. */
class SidePicturesTest {
    private static final String SVG = "<svg xmlns='http://www.w3.org/2000/svg' width='40' height='20'/>";
    private static final String PAGE =
            "<!doctype html><link rel=stylesheet href=%1$sa.css><body><header class='bar' id=top><p>Ferries</p></header>\n<p>%2$s</p>";

    private static Theme theme(String css) {
        TreeMap<String, byte[]> files = new TreeMap<>();
        files.put("index.html", PAGE.formatted("", "One").getBytes(StandardCharsets.UTF_8));
        files.put("in/two.html", PAGE.formatted("../", "Two").getBytes(StandardCharsets.UTF_8));
        files.put("three.html", "<link rel=stylesheet href=a.css><p>Three</p>".getBytes(StandardCharsets.UTF_8));
        files.put("a.css", css.getBytes(StandardCharsets.UTF_8));
        files.put("img/north.svg", SVG.getBytes(StandardCharsets.UTF_8));
        files.put("img/south.svg", SVG.getBytes(StandardCharsets.UTF_8));
        return Theme.read(ThemeFiles.of(files), "T");
    }

    private static Change change(Theme theme, String selector, Side side, int width, Linked... pictures) {
        Page page = theme.page("index.html");
        return new SidePictures(new Rendered(theme), SheetRole.of(theme))
                .of(
                        page,
                        page.document().selectFirst(selector),
                        side,
                        width,
                        List.of(pictures),
                        "Pier",
                        "pier",
                        new Place("head", "Head"));
    }

    private static final Linked NORTH = new Linked("img/north.svg", "in/two.html", "To “Two” & back");
    private static final Linked SOUTH = new Linked("img/south.svg", "https://example.org/?a=1&b=2", "South");

    @Test
    void theyStandOnEveryPageThatHasThePartAndAreTheOwners() {
        Theme theme = theme(".bar{padding:4px 12px}\n");
        Change change = change(theme, "header", Side.RIGHT, 90, NORTH, SOUTH);
        assertThat(change.note()).isEqualTo("Put two linked pictures at the right of header#top on 2 pages");
        Theme after = change.applied(theme);
        assertThat(Themes.text(after.files(), "index.html"))
                .isEqualTo(
                        PAGE.formatted("", "One")
                                .replace("class='bar'", "class='bar has-side-pictures'")
                                .replace(
                                        "</header>",
                                        "<div class=\"side-pictures\"><a href=\"in/two.html\" data-setting-href=\"pier-1-link\">"
                                                + "<img src=\"img/north.svg\" alt=\"To “Two” &amp; back\" data-setting-src=\"pier-1\" data-setting-alt=\"pier-1-words\"></a>"
                                                + "<a href=\"https://example.org/?a=1&amp;b=2\" data-setting-href=\"pier-2-link\">"
                                                + "<img src=\"img/south.svg\" alt=\"South\" data-setting-src=\"pier-2\" data-setting-alt=\"pier-2-words\"></a></div></header>"));
        assertThat(Themes.text(after.files(), "in/two.html"))
                .contains("<a href=\"two.html\"", "<img src=\"../img/north.svg\"");
        assertThat(Themes.text(after.files(), "three.html")).isEqualTo(Themes.text(theme.files(), "three.html"));
        assertThat(after.palette().settings())
                .extracting(Setting::label)
                .containsExactly("Pier 1", "Pier 1: link", "Pier 1: words", "Pier 2", "Pier 2: link", "Pier 2: words");
        String built = new String(
                ThemeBuild.build(after, Map.of("pier-1", Chosen.of("img/south.svg"), "pier-1-words", Chosen.of("Pier")))
                        .files()
                        .get("in/two.html"),
                StandardCharsets.UTF_8);
        assertThat(built).contains("<img src=\"../img/south.svg\" alt=\"Pier\"");
    }

    @Test
    void roomIsMadeOnTopOfThePaddingOfEachBand() {
        Theme theme = theme(".bar{padding:4px 12px}@media (min-width:1000px){.bar{padding-left:40px}}\n");
        String css = Themes.text(
                change(theme, "header", Side.LEFT, 90, NORTH).applied(theme).files(), "a.css");
        assertThat(css)
                .startsWith(".bar{padding:4px 12px}@media (min-width:1000px){.bar{padding-left:40px}}\n")
                .contains("#top.has-side-pictures {\n  position: relative;\n}")
                .contains("left: 0;")
                .contains("@media (width < 768px) {\n  #top.has-side-pictures > .side-pictures {\n    display: none;")
                .contains(
                        "@media (width >= 768px) {\n  #top.has-side-pictures {\n    box-sizing: border-box;\n    padding-left: calc(12px + 90px);")
                .contains(
                        "@media (width >= 1000px) {\n  #top.has-side-pictures {\n    box-sizing: border-box;\n    padding-left: calc(40px + 90px);");
        String placed = Themes.text(
                change(theme(".bar{position:sticky;top:0}\n"), "header", Side.LEFT, 90, NORTH)
                        .applied(theme(".bar{position:sticky;top:0}\n"))
                        .files(),
                "a.css");
        assertThat(placed).as("what is placed already stays so").doesNotContain("position: relative");
        assertThat(placed).contains("calc(0px + 90px)");
    }

    @Test
    void aSettingThatDecidesTheRoomGoesOnDecidingIt() {
        String palette =
                """
                {"name":"T","places":[{"key":"p","label":"P"}],"settings":[{"key":"room","label":"Room","kind":"length","place":"p","default":{"value":12,"unit":"px"}}]}""";
        Theme theme = Change.of("settings")
                .withFile("palette.json", palette.getBytes(StandardCharsets.UTF_8))
                .applied(theme(".bar{padding-left:var(--room, 12px)}\n"));
        assertThat(Themes.text(
                        change(theme, "header", Side.LEFT, 90, NORTH)
                                .applied(theme)
                                .files(),
                        "a.css"))
                .contains("padding-left: calc(var(--room, 12px) + 90px);");
        for (String padding : List.of("4px var(--room, 12px)", "var(--room, 12px)")) {
            Theme both = Change.of("settings")
                    .withFile("palette.json", palette.getBytes(StandardCharsets.UTF_8))
                    .applied(theme(".bar{padding:" + padding + "}\n"));
            assertThatThrownBy(() -> change(both, "header", Side.LEFT, 90, NORTH))
                    .hasMessage("a.css, line 1: a setting decides the padding together with something else.");
        }
    }

    @Test
    void whatCannotBeIsRefusedInWords() {
        Theme theme = theme(".bar{color:red}\n");
        for (Object[] bad : new Object[][] {
            {"p", 90, NORTH, "index.html, line 1: this part is no box that holds others."},
            {"header", 5, NORTH, "A width of 5 px is out of bounds."},
            {"header", 90, new Linked("img/none.svg", "#a", "A"), "“img/none.svg” is no picture of the theme."},
            {"header", 90, new Linked("img/north.svg", "#a", " "), "The words of img/north.svg are missing"},
            {"header", 90, new Linked("img/north.svg", "javascript:alert(1)", "A"), ""}
        }) {
            assertThatThrownBy(() -> change(theme, (String) bad[0], Side.LEFT, (int) bad[1], (Linked) bad[2]))
                    .isInstanceOf(BadInputException.class)
                    .hasMessageStartingWith((String) bad[3]);
        }
        assertThatThrownBy(() -> change(theme(".bar{padding:1px!important}\n"), "header", Side.LEFT, 90, NORTH))
                .hasMessageStartingWith("a.css, line 1 decides the padding of #top with more weight");
        Theme once = change(theme, "header", Side.LEFT, 90, NORTH).applied(theme);
        assertThatThrownBy(() -> change(once, "header", Side.LEFT, 90, NORTH))
                .hasMessageEndingWith("this part has pictures at its side already.");
        assertThatThrownBy(() -> change(theme, "header", Side.LEFT, 90, NORTH, NORTH, NORTH))
                .isInstanceOf(BadInputException.class);
    }
}

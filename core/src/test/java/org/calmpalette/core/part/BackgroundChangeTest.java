package org.calmpalette.core.part;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.LinkedHashMap;
import java.util.Map;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.background.StripGradient;
import org.calmpalette.core.change.Change;
import org.calmpalette.core.render.PaintedPicture;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.Themes;
import org.junit.jupiter.api.Test;

/** How a picture of a background is laid otherwise: the smallest edit, and none that another rule beats. */
class BackgroundChangeTest {
    private static final String PAGE =
            "<!doctype html><link rel=stylesheet href=a.css><body><section class=hero><p>Words</p></section>";

    private static Change change(String css, Map<String, String> values, String... more) {
        return change(Theme.read(Themes.files(files(css, more)), "T"), values);
    }

    private static String[] files(String css, String... more) {
        String[] all = new String[6 + more.length];
        System.arraycopy(new String[] {"index.html", PAGE, "a.css", css, "p.png", "not decoded here"}, 0, all, 0, 6);
        System.arraycopy(more, 0, all, 6, more.length);
        return all;
    }

    private static Change change(Theme theme, Map<String, String> values) {
        Rendered rendered = new Rendered(theme);
        PaintedPicture picture = PaintedPicture.of(rendered, theme.pages().get(0)).stream()
                .filter(p -> p.path().equals("p.png"))
                .findFirst()
                .orElseThrow();
        return BackgroundChange.of(rendered, picture, values, "laid it so");
    }

    private static String after(String css, Map<String, String> values, String... more) {
        Theme theme = Theme.read(Themes.files(files(css, more)), "T");
        return new String(change(theme, values).files(theme).get("a.css"), java.nio.charset.StandardCharsets.UTF_8);
    }

    @Test
    void theShorthandStaysAndTheLonghandComesAfterIt() {
        assertThat(after(
                        ".hero {\n  background: #abc url(p.png) left top no-repeat; /* dusk */\n}\n",
                        Map.of("background-position", "center top")))
                .isEqualTo(
                        ".hero {\n  background: #abc url(p.png) left top no-repeat;\n  background-position: center top; /* dusk */\n}\n");
        assertThat(after(".hero{background:url(p.png)!important}", Map.of("background-size", "cover")))
                .isEqualTo(".hero{background:url(p.png)!important; background-size: cover !important}");
    }

    @Test
    void aLonghandThatIsThereGetsTheValue() {
        assertThat(after(
                        ".hero { background: url(p.png); background-position: 0 0 }",
                        Map.of("background-position", "right top")))
                .isEqualTo(".hero { background: url(p.png); background-position: right top }");
        assertThat(after(
                        ".hero { background-position: 0 0; background: url(p.png) }",
                        Map.of("background-position", "right top")))
                .as("one before the shorthand is beaten by it")
                .isEqualTo(
                        ".hero { background-position: 0 0; background: url(p.png); background-position: right top }");
    }

    @Test
    void ofSeveralLayersOnlyTheOneThatIsMeantChanges() {
        assertThat(after(
                        ".hero{background:linear-gradient(red,blue) 10px 0,url(p.png) 0 0 no-repeat}",
                        Map.of("background-position", "center top")))
                .endsWith("background-position: 10px 0px, center top}");
    }

    @Test
    void severalValuesAreOneChange() {
        Map<String, String> values = new LinkedHashMap<>();
        values.put("background-position", "center top");
        values.put("background-color", "#394451");
        assertThat(after(".hero{background:url(p.png)}", values))
                .isEqualTo(".hero{background:url(p.png); background-position: center top; background-color: #394451}");
    }

    @Test
    void whatASettingMakesChangesItsDefault() {
        String palette =
                """
        {"format":"calm-palette/1","name":"T","places":[{"key":"p","label":"P"}],"settings":[{"key":"dusk","label":"Dusk","kind":"background","place":"p",
         "default":{"color":"#abcdef","picture":"p.png","repeat":"no-repeat","position":"left top","size":"auto","attachment":"scroll","overlay":"#000000","strength":0},
         "allowed":{"fixed":{"size":"auto"}}}]}""";
        Theme theme = Theme.read(
                Themes.files(files(".hero{background:var(--dusk, url(p.png) left top)}", "palette.json", palette)),
                "T");
        Change made = change(theme, Map.of("background-position", "right top", "background-size", "cover"));
        assertThat(made.edits()).as("the stylesheet stays").isEmpty();
        String written = new String(made.files(theme).get("palette.json"), java.nio.charset.StandardCharsets.UTF_8);
        assertThat(written.replaceAll("\\s+", ""))
                .contains("\"position\":\"righttop\"", "\"fixed\":{\"size\":\"cover\"}");
    }

    @Test
    void whatAnotherRuleBeatsIsRefused() {
        assertThatThrownBy(() -> change(
                        ".hero{background:url(p.png)} body .hero{background-position:1px 2px}",
                        Map.of("background-position", "center top")))
                .isInstanceOf(BadInputException.class)
                .hasMessageContaining("Another rule sets background-position too and wins");
        assertThatThrownBy(() ->
                        change(".hero{background:url(p.png) right top}", Map.of("background-position", "right top")))
                .isInstanceOf(BadInputException.class)
                .hasMessageContaining("or it is so already");
    }

    @Test
    void whatABuildMakesAnewIsNotEdited() {
        assertThatThrownBy(() -> change(
                        ".hero{background:url(p.png)}\n/*# sourceMappingURL=a.css.map */",
                        Map.of("background-position", "center top"),
                        "a.css.map",
                        "{}"))
                .isInstanceOf(BadInputException.class)
                .hasMessageStartingWith("a.css, line 1: an edit here does not last.");
    }

    private static Theme inAttribute(String attribute) {
        return Theme.read(
                Themes.files("index.html", "<!doctype html><body>\n<div " + attribute + ">x</div>", "p.png", "-"), "T");
    }

    @Test
    void aStyleAttributeIsEditedInItsPlace() {
        Theme theme = inAttribute("style='background: url(\"p.png\"); background-size: auto; color: red'");
        Map<String, String> values = new LinkedHashMap<>();
        values.put("background-position", "center top");
        values.put("background-size", "cover");
        assertThat(Themes.text(change(theme, values).applied(theme).files(), "index.html"))
                .isEqualTo(
                        "<!doctype html><body>\n<div style='background: url(\"p.png\"); background-position: center top;"
                                + " background-size: cover; color: red'>x</div>");
        assertThatThrownBy(() ->
                        change(inAttribute("style=background:url(p.png)"), Map.of("background-position", "center top")))
                .hasMessageStartingWith("index.html, line 2: a style attribute without quotes");
    }

    @Test
    void eachOfSeveralValuesHasToShow() {
        Map<String, String> values = new LinkedHashMap<>();
        values.put("background-color", "#394451");
        values.put("background-position", "center top");
        assertThatThrownBy(() -> change(".hero{background:url(p.png)} body .hero{background-position:1px 2px}", values))
                .hasMessageContaining("Another rule sets background-position too and wins");
    }

    private static String asGradient(String css) {
        Theme theme = Theme.read(Themes.files(files(css)), "T");
        Rendered rendered = new Rendered(theme);
        PaintedPicture picture =
                PaintedPicture.of(rendered, theme.pages().get(0)).get(0);
        StripGradient strip = new StripGradient("linear-gradient(#284050, #1f3347)", "100% 40px", 1);
        return new String(
                BackgroundChange.asGradient(rendered, picture, strip)
                        .files(theme)
                        .get("a.css"),
                java.nio.charset.StandardCharsets.UTF_8);
    }

    @Test
    void aStripIsWrittenAsAGradientInItsPlaceWithTheSizeThatItHad() {
        assertThat(asGradient(".hero {\n  background: #123 url( 'p.png' ) repeat-x; /* strip */\n}"))
                .isEqualTo(
                        ".hero {\n  background: #123 linear-gradient(#284050, #1f3347) repeat-x;\n  background-size: 100% 40px; /* strip */\n}");
        assertThat(asGradient(".hero{background:linear-gradient(red,blue) no-repeat,url(p.png) repeat-x}"))
                .isEqualTo(
                        ".hero{background:linear-gradient(red,blue) no-repeat,linear-gradient(#284050, #1f3347) repeat-x; background-size: auto, 100% 40px}");
        assertThatThrownBy(() -> asGradient(":root{--strip:url(p.png)} .hero{background:var(--strip) repeat-x}"))
                .isInstanceOf(BadInputException.class)
                .hasMessageContaining("the address is not written in the declaration itself");
    }
}

package org.calmpalette.core.change;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import org.calmpalette.core.css.Edit;
import org.calmpalette.core.render.Rendered;
import org.calmpalette.core.setting.ColorKind;
import org.calmpalette.core.setting.Place;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.survey.Suggestion;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.Themes;
import org.calmpalette.core.usage.Address;
import org.calmpalette.core.usage.Addresses;
import org.calmpalette.core.usage.ColorRow;
import org.calmpalette.core.usage.ColorUsage;
import org.calmpalette.core.usage.ColorUse;
import org.calmpalette.core.usage.Readers;
import org.junit.jupiter.api.Test;

/** Declarations in style attributes are lifted, named, released and edited like those of stylesheets, to the byte. */
class StyleAttributesTest {
    private static final Place PAGE = new Place("page", "Page");
    private static final String HERO =
            "<div class=\"hero tall\" style=\"background: #123456 url('img/a.png') center/cover no-repeat; color:red\">Hi</div>";
    private static final String HTML = "<!doctype html>\r\n<title>T</title>\r\n" + HERO
            + "\r\n<p style='color: RED'>a</p><p style=color:red>b</p><p style=\"font-family: &quot;A&quot;; color: red\">c</p>\r\n";

    private static Theme theme() {
        return Themes.of("index.html", HTML, "img/a.png", "");
    }

    private static int start(String declaration) {
        return HTML.indexOf(declaration);
    }

    private static Setting setting(LiftedValue lifted) {
        return Setting.of("hero-picture", "Hero picture", "", "page", lifted.kind(), lifted.value());
    }

    @Test
    void aBackgroundInAStyleAttributeBecomesASettingAndGoesBackToTheSameBytes() {
        Theme theme = theme();
        Located at = Located.find(theme, "index.html", start("background"));
        LiftedValue lifted =
                LiftedValue.of("background", at.value(), "index.html").get(0);
        assertThat(lifted.kind().name()).isEqualTo("background");
        Theme made = LiftedValue.lift(theme, "index.html", start("background"), setting(lifted), PAGE)
                .applied(theme);
        String bound = HTML.replace(
                "#123456 url('img/a.png') center/cover no-repeat",
                "var(--hero-picture, #123456 url('img/a.png') center/cover no-repeat)");
        assertThat(Themes.text(made.files(), "index.html")).isEqualTo(bound);
        assertThat(Readers.of(made).paintedBy("--hero-picture")).singleElement().satisfies(p -> assertThat(
                        made.pages().get(0).document().select(p.selector()))
                .singleElement()
                .satisfies(e -> assertThat(e.classNames()).contains("hero")));
        Theme renamed = PaletteChange.rename(made, "hero-picture", "sky").applied(made);
        assertThat(Themes.text(renamed.files(), "index.html")).isEqualTo(bound.replace("--hero-picture", "--sky"));
        assertThat(Themes.text(
                        PaletteChange.remove(renamed, List.of("sky"))
                                .applied(renamed)
                                .files(),
                        "index.html"))
                .isEqualTo(HTML);
    }

    @Test
    void itsColoursAndPicturesAreFoundAndLiftedTogetherWithOthers() {
        Theme theme = theme();
        ColorUsage.Result colors = ColorUsage.of(theme);
        ColorRow red = colors.rows().stream()
                .filter(r -> r.value().equals("#ff0000"))
                .findFirst()
                .orElseThrow();
        assertThat(red.uses())
                .extracting(ColorUse::line)
                .as("not those that cannot be edited")
                .containsExactly(3, 4);
        assertThat(red.uses()).extracting(ColorUse::selector).containsOnly("style attribute");
        Suggestion named = Suggestion.of(red.uses(), new Rendered(theme), Set.of());
        assertThat(named.key()).isEqualTo("hero-text");
        Setting ink = Setting.of("ink", "Ink", "", "page", ColorKind.ANY, Value.of("#ff0000"));
        Theme made = Lift.lift(theme, red.uses().stream().map(ColorUse::id).collect(Collectors.toSet()), ink, PAGE)
                .applied(theme);
        assertThat(Themes.text(made.files(), "index.html"))
                .isEqualTo(HTML.replace("; color:red\"", "; color:var(--ink, red)\"")
                        .replace("'color: RED'", "'color: var(--ink, RED)'"));
        assertThat(Addresses.of(theme)).extracting(Address::url).contains("img/a.png");
    }

    @Test
    void whatIsWrittenIntoOneDoesNotEndIt() {
        Theme theme = theme();
        int color = start("red\"");
        int second = start("RED");
        Change change = Change.edit(
                "Quotes",
                "index.html",
                new Edit(color, color + 3, "var(--a, \"x\" & \"y\")"),
                new Edit(second, second + 3, "\"x\" 'y' &lt"));
        Theme made = change.applied(theme);
        assertThat(Themes.text(made.files(), "index.html"))
                .contains("color:var(--a, 'x' & 'y')\"")
                .contains("<p style='color: \"x\" &#39;y&#39; &amp;lt'>");
        assertThat(made.pages().get(0).document().select("p").first().attr("style"))
                .isEqualTo("color: \"x\" 'y' &lt");
        assertThat(Difference.of(theme, change).get(0).hunks().get(0).after().toString())
                .as("the lines that are shown are those that are written")
                .contains("color:var(--a, 'x' & 'y')");
    }
}

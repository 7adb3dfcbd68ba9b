package org.calmpalette.core.change;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.List;
import org.calmpalette.core.change.SheetRole.Kind;
import org.calmpalette.core.css.Stylesheet;
import org.calmpalette.core.intake.Specimen;
import org.calmpalette.core.setting.SheetOwner;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.Themes;
import org.junit.jupiter.api.Test;

class SheetRoleTest {
    /** Of a sheet beside one that is the maker's without doubt. */
    private static SheetRole role(String path, String css, String... more) {
        String[] files = new String[4 + more.length];
        files[0] = path;
        files[1] = css;
        files[2] = "own.css";
        files[3] = "p { margin: 0 }";
        System.arraycopy(more, 0, files, 4, more.length);
        return SheetRole.of(Themes.of(files)).get(path);
    }

    @Test
    void aSheetIsTheMakersOwnUnlessASignSaysOtherwise() {
        assertThat(role("css/site.css", "/* Towpath, version 1.4 */ a { color: red }")
                        .kind())
                .isEqualTo(Kind.OWN);
        assertThat(role("css/grid.css", "/*! Grid v5.1.2 */ a { color: red }").kind())
                .isEqualTo(Kind.LIBRARY);
        assertThat(role("css/grid.css", "@charset \"UTF-8\";\n/* Grid 5.1, MIT License */ a { color: red }")
                        .kind())
                .isEqualTo(Kind.LIBRARY);
        assertThat(role("css/grid.min.css", "a{color:red}").kind()).isEqualTo(Kind.LIBRARY);
        assertThat(role("vendor/grid.css", "a { color: red }").kind()).isEqualTo(Kind.LIBRARY);
        assertThat(role("css/all.css", "a{color:red}".repeat(200)).because()).contains("without line breaks");
        assertThat(role("css/site.css", "a { color: red }\n/*# sourceMappingURL=site.css.map */")
                        .kind())
                .isEqualTo(Kind.BUILT);
        SheetRole built = role("css/site.css", "a { color: red }", "src/less/site.less", "@a: red;");
        assertThat(built.kind()).isEqualTo(Kind.BUILT);
        assertThat(built.source()).isEqualTo("src/less/site.less");
        assertThat(built.lasts()).isFalse();
    }

    private static final String LICENSED = "/*! Lantern v2.1 | MIT License */ ";

    @Test
    void theOnlySheetIsTheMakersWhateverItsFirstCommentSays() {
        Theme theme =
                Themes.of("index.html", "<link rel=stylesheet href=a.css>", "a.css", LICENSED + "p { color: red }");
        assertThat(SheetRole.of(theme).get("a.css"))
                .isEqualTo(new SheetRole(Kind.OWN, "it is the only stylesheet", ""));
        String page = "<link rel=stylesheet href=a.css><p style='color: red'>x";
        Theme written = Themes.of("index.html", page, "a.css", LICENSED + "p { color: red }");
        assertThat(SheetRole.of(written).get("a.css"))
                .as("a style attribute says nothing of it")
                .isEqualTo(new SheetRole(Kind.OWN, "it is the only stylesheet", ""));
        assertThat(SheetRole.of(written).get("index.html").lasts()).isTrue();
    }

    @Test
    void aPageThatWasMadeFromASheetIsNoWitnessOfWhoseItIs() {
        for (String rules : List.of(".alert { color: red }", "p { margin: 0 }")) {
            byte[] page = Specimen.page(Stylesheet.read("a.css", (LICENSED + rules).getBytes(StandardCharsets.UTF_8)));
            Theme theme = Themes.of("index.html", new String(page, StandardCharsets.UTF_8), "a.css", LICENSED + rules);
            assertThat(SheetRole.of(theme).get("a.css").kind()).as(rules).isEqualTo(Kind.LIBRARY);
        }
    }

    @Test
    void whereSignsSpeakAgainstAllTheOneThatTheMarkupNeedsMostIsTheMakers() {
        String page =
                "<link rel=stylesheet href=grid.css><link rel=stylesheet href=theme.css><link rel=stylesheet href=icons.css>"
                        + "<div class='row hero'><p class=tagline id=top>x</p><i class=icon></i></div>";
        Theme theme = Themes.of(
                "index.html",
                page,
                "grid.css",
                LICENSED + ".row{} .col{} .hero{}",
                "theme.css",
                LICENSED + ".hero{} .tagline{} #top{}",
                "icons.css",
                LICENSED + ".icon{} .other{}");
        assertThat(SheetRole.of(theme))
                .extractingFromEntries(e -> e.getKey() + " " + e.getValue().kind())
                .contains("grid.css LIBRARY", "theme.css OWN", "icons.css LIBRARY");
        assertThat(SheetRole.of(theme).get("theme.css").because()).contains("markup needs it most");
    }

    @Test
    void whatTheMakerSaysCountsAndIsKeptInThePalette() {
        Theme theme =
                Themes.of("index.html", "<p>x", "a.css", LICENSED + "p { color: red }", "b.css", "p { color: blue }");
        assertThat(SheetRole.of(theme).get("a.css").kind()).isEqualTo(Kind.LIBRARY);
        Theme said = Change.of("Said whose the sheets are")
                .withPalette(
                        theme,
                        theme.palette().withSheet("a.css", SheetOwner.MAKER).withSheet("b.css", SheetOwner.LIBRARY))
                .applied(theme);
        assertThat(SheetRole.of(said).get("a.css")).isEqualTo(new SheetRole(Kind.OWN, "you said so", ""));
        assertThat(SheetRole.of(said).get("b.css").kind()).isEqualTo(Kind.LIBRARY);
        assertThat(Themes.text(said.files(), "palette.json"))
                .contains("\"stylesheets\"", "\"whose\": \"maker\"", "\"whose\": \"library\"");
        Theme again = Change.of("Took it back")
                .withPalette(said, said.palette().withSheet("a.css", null).withSheet("b.css", null))
                .applied(said);
        assertThat(SheetRole.of(again)).isEqualTo(SheetRole.of(theme));
        assertThat(Themes.text(again.files(), "palette.json")).doesNotContain("stylesheets");
    }

    @Test
    void variablesOfASourceAreReadWithTheirPlaces() {
        assertThat(SourceVariable.of(
                        Themes.of("a.less", "// head\n@ink: #A00;\n@calc: darken(@ink, 5%);\n.x { @in: red; }\n"),
                        "a.less"))
                .extracting(SourceVariable::name, SourceVariable::line, SourceVariable::value)
                .contains(
                        org.assertj.core.groups.Tuple.tuple("@ink", 2, "#A00"),
                        org.assertj.core.groups.Tuple.tuple("@calc", 3, "darken(@ink, 5%)"));
        assertThat(SourceVariable.of(Themes.of("a.less", "@ink: #A00;"), "a.less")
                        .get(0)
                        .holds("#aa0000"))
                .isTrue();
        assertThat(SourceVariable.of(Themes.of("a.less", "@ink: lighten(red, 1%);"), "a.less")
                        .get(0)
                        .holds("#ff0000"))
                .isFalse();
        assertThat(SourceVariable.of(Themes.of("a.less", ""), "b.less")).isEmpty();
    }
}

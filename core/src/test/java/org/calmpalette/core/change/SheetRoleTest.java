package org.calmpalette.core.change;

import static org.assertj.core.api.Assertions.assertThat;

import org.calmpalette.core.change.SheetRole.Kind;
import org.calmpalette.core.theme.Themes;
import org.junit.jupiter.api.Test;

class SheetRoleTest {
    private static SheetRole role(String path, String css, String... more) {
        String[] files = new String[2 + more.length];
        files[0] = path;
        files[1] = css;
        System.arraycopy(more, 0, files, 2, more.length);
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

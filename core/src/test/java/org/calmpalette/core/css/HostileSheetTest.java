package org.calmpalette.core.css;

import static org.assertj.core.api.Assertions.assertThat;
import static org.junit.jupiter.api.Assertions.assertTimeoutPreemptively;

import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import org.calmpalette.core.Generated;
import org.calmpalette.core.cascade.PageStyles;
import org.calmpalette.core.css.selector.States;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.survey.Survey;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.Themes;
import org.calmpalette.core.value.Viewport;
import org.jsoup.nodes.Element;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/** Sheets that browsers survive: nothing hangs, nothing overflows, each trouble is a fault with its place. */
class HostileSheetTest {
    private static List<String> faults(String css) {
        Stylesheet sheet = Stylesheet.read("s.css", css.getBytes(StandardCharsets.UTF_8));
        return sheet.faults().stream()
                .map(f -> f.kind() + " " + sheet.source().line(f.offset()) + ":"
                        + sheet.source().column(f.offset()))
                .toList();
    }

    private static int declarations(String css) {
        List<Node.Declaration> all = new ArrayList<>();
        Stylesheet.read("s.css", css.getBytes(StandardCharsets.UTF_8)).eachDeclaration((d, a) -> all.add(d));
        return all.size();
    }

    @Test
    void eachRecoveryIsTold() {
        assertThat(faults("a { color: red")).containsExactly("UNCLOSED_BLOCK 1:3");
        assertThat(faults("a {}\n/* b {}")).containsExactly("UNCLOSED_COMMENT 2:1");
        assertThat(faults("a { content: \"x\n; color: red }")).containsExactly("UNCLOSED_STRING 1:14");
        assertThat(faults("a { b: url(a b) }")).containsExactly("BAD_URL 1:8");
        assertThat(faults("a {} } b { c: d }")).containsExactly("STRAY_CLOSE 1:6");
        assertThat(faults("a { color red; b: c }")).containsExactly("BAD_DECLARATION 1:5");
        assertThat(faults("a { b: c } d, e")).containsExactly("NO_BLOCK 1:12");
        assertThat(faults("a { b: (c; d: e }")).contains("UNCLOSED_BRACKET 1:8");
        assertThat(faults("a{b:c\\\n}")).containsExactly("STRAY_BACKSLASH 1:6");
        assertThat(faults("@media x { a { b: c } } a { b: c } <!-- --> a:hover{b:c}"))
                .isEmpty();
        assertThat(declarations(
                        "a { : x; color: red; &:hover { b: c } --x: { y: z }; d:hover { e: f } g: h !important }"))
                .isEqualTo(5);
    }

    @Test
    void depthAndLengthDoNotHurt() {
        assertTimeoutPreemptively(Duration.ofSeconds(20), () -> {
            assertThat(faults("a{b:" + "(".repeat(10_000)))
                    .containsExactly("UNCLOSED_BLOCK 1:2", "VALUE_TOO_DEEP 1:3", "UNCLOSED_BRACKET 1:5");
            assertThat(faults("a{b:" + "(".repeat(200) + ")".repeat(200) + "}"))
                    .as("as deep as is read")
                    .isEmpty();
            assertThat(faults("a{".repeat(10_000))).anyMatch(f -> f.startsWith("TOO_DEEP"));
            assertThat(faults(":is(".repeat(10_000) + "a" + ")".repeat(10_000) + "{}"))
                    .isEmpty();
            assertThat(declarations("a{b:c}".repeat(170_000))).isEqualTo(170_000);
            assertThat(faults("}".repeat(10_000))).isNotEmpty();
            assertThat(declarations("a{b:\0;\0:c}")).isEqualTo(2);
            assertThat(faults("a{" + "a:{".repeat(3_000))).isNotEmpty();
        });
    }

    @Tag("generated")
    @Test
    void anyTextGivesTokensThatCoverItAndATree() {
        Random random = Generated.random(5);
        String alphabet = "ab-_#.:;{}()[]\"'/*\\@!,>+~&%0123456789 \n\r\f\t\0\ud83d\ude80\u00e9<=|urlvar";
        for (int i = 0; i < Generated.times(1_000); i++) {
            StringBuilder css = new StringBuilder();
            for (int n = random.nextInt(60); n > 0; n--) {
                css.append(alphabet.charAt(random.nextInt(alphabet.length())));
            }
            Tokens tokens = Tokenizer.tokenize(css.toString());
            StringBuilder back = new StringBuilder();
            for (int t = 0; t < tokens.size(); t++) {
                assertThat(tokens.end(t)).isGreaterThan(tokens.start(t));
                back.append(tokens.raw(t));
                tokens.value(t);
            }
            assertThat(back.toString()).isEqualTo(css.toString());
            Stylesheet.read(SourceText.of("s.css", css.toString()));
        }
    }

    @Test
    void circlesOfImportsAndVariablesEnd() {
        Map<String, String> files = Map.of(
                "a.css",
                "@import 'b.css'; @import 'gone.css'; p { color: red }",
                "b.css",
                "@import 'a.css'; p { margin: 1px }");
        StringBuilder doubling = new StringBuilder(":root{--v0: xxxxxxxxxx;");
        for (int i = 1; i < 60; i++) {
            doubling.append("--v")
                    .append(i)
                    .append(": var(--v")
                    .append(i - 1)
                    .append(")var(--v")
                    .append(i - 1)
                    .append(");");
        }
        Page page = Page.read(
                "index.html",
                ("<link rel=stylesheet href=a.css><style>" + doubling
                                + "} p { --a: var(--b); --b: var(--a); --c: var(--a, blue); opacity: var(--v59); background-color: var(--c) }</style><p>")
                        .getBytes(StandardCharsets.UTF_8));
        assertTimeoutPreemptively(Duration.ofSeconds(20), () -> {
            PageStyles.Sheets sheets = PageStyles.sheets(
                    page, path -> Optional.ofNullable(files.get(path)).map(s -> s.getBytes(StandardCharsets.UTF_8)));
            assertThat(sheets.missing()).containsExactly("gone.css");
            Theme theme = Themes.of(
                    "index.html",
                    "<link rel=stylesheet href=lost.css>",
                    "a.css",
                    files.get("a.css"),
                    "b.css",
                    files.get("b.css"),
                    "c.css",
                    "p {\n --a: var(--b);\n --b: var(--a) } q:nobody { c: d }");
            assertThat(Survey.of(theme).findings())
                    .extracting(f -> f.kind().key() + " " + f.file() + ":" + f.line() + ":" + f.column())
                    .containsExactly(
                            "missing-stylesheet index.html:1:1",
                            "missing-stylesheet a.css:1:18",
                            "circular-import b.css:1:1",
                            "circular-variable c.css:2:2",
                            "unknown-selector c.css:3:18");
            Element p = page.document().selectFirst("p");
            var style = sheets.in(Viewport.of(800, 600), States.NONE).of(p);
            assertThat(style.computed("color")).isEqualTo("rgb(255, 0, 0)");
            assertThat(style.computed("margin-top")).isEqualTo("1px");
            assertThat(style.variable("--a")).isEmpty();
            assertThat(style.computed("background-color")).isEqualTo("rgb(0, 0, 255)");
            assertThat(style.computed("opacity")).isEqualTo("1");
        });
    }
}

package org.calmpalette.core.css;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayOutputStream;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class SourceTextTest {
    private static final String SHEET =
            "/* \u00dcber, na\u00efve \u2013 \ud83d\ude80 */\r\na { color: red }\r\n\r\n\tb{color:red}";

    /** Edits the value of every declaration and compares all bytes outside the edits. */
    private static byte[] edited(byte[] bytes) {
        Stylesheet sheet = Stylesheet.read("a.css", bytes);
        List<Edit> edits = new java.util.ArrayList<>();
        sheet.eachDeclaration((d, around) -> edits.add(
                new Edit(sheet.tokens().start(d.valueFirst()), sheet.tokens().end(d.valueEnd() - 1), "var(--x, red)")));
        assertThat(edits).hasSize(2);
        return sheet.source().withEdits(edits);
    }

    private static byte[] bytes(String text, Charset charset, int... bom) {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        for (int b : bom) {
            out.write(b);
        }
        out.writeBytes(text.getBytes(charset));
        return out.toByteArray();
    }

    @Test
    void editsLandInTheBytesOfEveryEncodingAndNothingElseChanges() {
        String wanted = SHEET.replace("red", "var(--x, red)");
        assertThat(edited(bytes(SHEET, StandardCharsets.UTF_8))).isEqualTo(bytes(wanted, StandardCharsets.UTF_8));
        assertThat(edited(bytes(SHEET, StandardCharsets.UTF_8, 0xEF, 0xBB, 0xBF)))
                .isEqualTo(bytes(wanted, StandardCharsets.UTF_8, 0xEF, 0xBB, 0xBF));
        assertThat(edited(bytes(SHEET, StandardCharsets.UTF_16LE, 0xFF, 0xFE)))
                .isEqualTo(bytes(wanted, StandardCharsets.UTF_16LE, 0xFF, 0xFE));
        assertThat(edited(bytes(SHEET, StandardCharsets.UTF_16BE, 0xFE, 0xFF)))
                .isEqualTo(bytes(wanted, StandardCharsets.UTF_16BE, 0xFE, 0xFF));
        String latin = "@charset \"iso-8859-1\";/* \u00fcber */a{color:red}b{color:red}";
        assertThat(edited(bytes(latin, StandardCharsets.ISO_8859_1)))
                .isEqualTo(bytes(latin.replace(":red", ":var(--x, red)"), StandardCharsets.ISO_8859_1));
    }

    @Test
    void bytesThatAreNotValidStayAsTheyAre() {
        byte[] broken =
                bytes("/* caf\u00e9 \u00e4 */a{color:red}/*\u00ff\u00fe*/b{color:red}", StandardCharsets.ISO_8859_1);
        byte[] wanted = bytes(
                "/* caf\u00e9 \u00e4 */a{color:var(--x, red)}/*\u00ff\u00fe*/b{color:var(--x, red)}",
                StandardCharsets.ISO_8859_1);
        assertThat(Stylesheet.read("a.css", broken).source().isMalformed()).isTrue();
        assertThat(edited(broken)).isEqualTo(wanted);
    }

    @Test
    void overlappingEditsAreRefusedWithTheirLine() {
        SourceText text = SourceText.of("a.css", "a{\ncolor:red}");
        assertThatThrownBy(() -> text.withEdits(List.of(new Edit(3, 8, "x"), new Edit(5, 9, "y"))))
                .hasMessageContaining("a.css, line 2");
    }

    @Test
    void whatBrowsersReadAsRubbishIsNotRead() {
        for (String charset : List.of("UTF-16LE", "UTF-16BE", "UTF-32LE")) {
            byte[] bytes = SHEET.getBytes(Charset.forName(charset));
            assertThatThrownBy(() -> SourceText.stylesheet("a.css", bytes))
                    .isInstanceOf(SourceText.UnreadableException.class)
                    .hasMessageContaining("a.css, line 1: ")
                    .hasMessageContaining("byte order mark");
            assertThatThrownBy(() -> SourceText.page("a.html", bytes))
                    .isInstanceOf(SourceText.UnreadableException.class);
        }
    }

    /** Encoding Standard, section 4.2: labels and what they mean; from memory. */
    @ParameterizedTest
    @CsvSource({
        "latin1,windows-1252",
        "ISO-8859-1,windows-1252",
        "utf-16,UTF-8",
        "gb2312,GB18030",
        "shift_jis,windows-31j",
        "iso-8859-9,windows-1254",
        "macintosh,x-MacRoman",
        "utf-32,UTF-8",
        "ibm037,UTF-8",
        "utf-7,UTF-8"
    })
    void labelsMeanWhatBrowsersTakeThemFor(String label, String charset) {
        byte[] page = ("<meta charset=" + label + ">x").getBytes(StandardCharsets.US_ASCII);
        assertThat(SourceText.page("a.html", page).charset()).isEqualTo(Charset.forName(charset));
    }

    @ParameterizedTest
    @ValueSource(strings = {"iso-2022-jp", "iso-2022-kr", "hz-gb-2312", "replacement"})
    void encodingsThatBrowsersRefuseOrThatHaveStatesAreNamed(String label) {
        byte[] page = ("<meta charset=" + label + ">x").getBytes(StandardCharsets.US_ASCII);
        assertThatThrownBy(() -> SourceText.page("old/a.html", page))
                .hasMessageContaining("old/a.html")
                .hasMessageContainingAll(label.contains("jp") ? "ISO-2022-JP" : label);
    }
}

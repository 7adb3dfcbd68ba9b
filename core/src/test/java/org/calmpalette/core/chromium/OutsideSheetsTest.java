package org.calmpalette.core.chromium;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.calmpalette.core.Generated;
import org.calmpalette.core.cascade.Shorthands;
import org.calmpalette.core.css.Edit;
import org.calmpalette.core.css.Node;
import org.calmpalette.core.css.Stylesheet;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/** Published stylesheets survive reading and editing byte for byte. */
class OutsideSheetsTest {
    @Tag("generated")
    @Test
    void sheetsComeBackAsTheyWereAndEditsTouchNothingElse() {
        Random random = Generated.random(3);
        assertThat(OutsideSheets.all()).hasSizeGreaterThanOrEqualTo(8);
        for (Map.Entry<String, byte[]> e : OutsideSheets.all().entrySet()) {
            byte[] bytes = e.getValue();
            Stylesheet sheet = Stylesheet.read("s.css", bytes);
            assertThat(sheet.source().withEdits(List.of())).as(e.getKey()).isEqualTo(bytes);
            StringBuilder tokens = new StringBuilder();
            for (int i = 0; i < sheet.tokens().size(); i++) {
                tokens.append(sheet.tokens().raw(i));
            }
            assertThat(tokens.toString()).isEqualTo(sheet.source().text());
            List<Node.Declaration> declarations = new ArrayList<>();
            sheet.eachDeclaration((d, around) -> declarations.add(d));
            for (int round = 0; round < 20; round++) {
                edit(sheet, declarations, random);
            }
        }
    }

    /** What is taken apart and put together again means the same: every shorthand that the published sheets write. */
    @Test
    void shorthandsComeTogetherAgain() {
        int seen = 0;
        for (byte[] bytes : OutsideSheets.all().values()) {
            Stylesheet sheet = Stylesheet.read("s.css", bytes);
            List<String[]> pairs = new ArrayList<>();
            sheet.eachDeclaration((d, around) -> pairs.add(new String[] {d.property(), sheet.value(d)}));
            for (String[] pair : pairs) {
                Map<String, String> apart = pair[1].contains("var(")
                        ? Map.of()
                        : Shorthands.apart(pair[0], pair[1]).orElse(Map.of());
                if (apart.size() > 1) {
                    seen++;
                    String together = Shorthands.together(pair[0], apart).orElseThrow();
                    assertThat(Shorthands.apart(pair[0], together))
                            .as(pair[0] + ": " + pair[1] + " as " + together)
                            .hasValue(apart);
                }
            }
        }
        assertThat(seen).isGreaterThan(1_000);
    }

    /** Random values become random texts; putting the old ones back in the edited text has to give the old text. */
    private static void edit(Stylesheet sheet, List<Node.Declaration> declarations, Random random) {
        List<Edit> edits = new ArrayList<>();
        List<String> olds = new ArrayList<>();
        for (Node.Declaration d : declarations) {
            if (d.valueEnd() > d.valueFirst() && random.nextInt(declarations.size()) < 12) {
                int start = sheet.tokens().start(d.valueFirst());
                int end = sheet.tokens().end(d.valueEnd() - 1);
                edits.add(new Edit(start, end, "\u2063" + "x".repeat(random.nextInt(9)) + "\u2063"));
                olds.add(sheet.source().text().substring(start, end));
            }
        }
        String edited = new String(sheet.source().withEdits(edits), StandardCharsets.UTF_8);
        for (String old : olds) {
            edited = edited.replaceFirst("\u2063x*\u2063", java.util.regex.Matcher.quoteReplacement(old));
        }
        assertThat(edited.replace("\uFEFF", "")).isEqualTo(sheet.source().text());
        assertThat(olds).hasSize(edits.size());
    }
}

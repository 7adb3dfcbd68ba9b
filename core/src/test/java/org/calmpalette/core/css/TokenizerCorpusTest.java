package org.calmpalette.core.css;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.InputStream;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** The outside corpus @rmenke/css-tokenizer-tests 1.4.0 (npm, MIT), every case; it follows CSS Syntax Level 3. */
class TokenizerCorpusTest {
    @Test
    void everyCaseOfTheCorpusGivesTheSameTokens() throws IOException {
        JsonNode cases;
        try (InputStream in = getClass().getResourceAsStream("/outside/css-tokenizer-tests.json")) {
            cases = JsonMapper.shared().readTree(in).get("cases");
        }
        List<String> wrong = new ArrayList<>();
        cases.properties().forEach(entry -> {
            String css = entry.getValue().get("css").asString();
            Tokens tokens = Tokenizer.tokenize(css);
            List<String> expected = new ArrayList<>();
            entry.getValue().get("tokens").forEach(t -> expected.add(expected(t)));
            List<String> found = new ArrayList<>();
            for (int i = 0; i < tokens.size(); i++) {
                found.add(found(tokens, i));
            }
            if (!found.equals(expected)) {
                wrong.add(entry.getKey() + "\n  expected " + expected + "\n  found    " + found);
            }
        });
        assertThat(cases.size()).isEqualTo(287);
        assertThat(wrong).isEmpty();
    }

    private static String expected(JsonNode t) {
        JsonNode s = t.get("structured");
        String detail = "";
        if (s != null && !s.isNull() && !t.get("type").asString().equals("delim-token")) {
            detail = (s.get("value").isNumber()
                            ? String.valueOf(s.get("value").asDouble())
                            : s.get("value").asString())
                    + (s.has("unit") ? " " + s.get("unit").asString() : "");
        }
        return t.get("type").asString() + "[" + t.get("startIndex").asInt() + ","
                + t.get("endIndex").asInt() + ") " + detail;
    }

    private static String found(Tokens tokens, int i) {
        TokenType type = tokens.type(i);
        String name =
                switch (type) {
                    case COMMENT -> "comment";
                    case CDO, CDC -> type.name() + "-token";
                    case LEFT_BRACKET, RIGHT_BRACKET, LEFT_PAREN, RIGHT_PAREN, LEFT_BRACE, RIGHT_BRACE ->
                        tokens.raw(i) + "-token";
                    default -> type.name().toLowerCase(Locale.ROOT).replace('_', '-') + "-token";
                };
        String detail =
                switch (type) {
                    case NUMBER, PERCENTAGE -> String.valueOf(tokens.number(i) + 0.0);
                    case DIMENSION -> (tokens.number(i) + 0.0) + " " + tokens.value(i);
                    case IDENT, FUNCTION, AT_KEYWORD, HASH, STRING, URL -> tokens.value(i);
                    default -> "";
                };
        return name + "[" + tokens.start(i) + "," + tokens.end(i) + ") " + detail;
    }
}

package org.calmpalette.cli;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import org.calmpalette.core.BadInputException;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Answers as JSON, one by one or a line for each line of a cases file. */
final class Answers {
    private static final JsonMapper JSON = JsonMapper.builder().build();

    private Answers() {}

    /** Answers one question. */
    interface Question {
        Object answer(JsonNode given) throws IOException;
    }

    static void print(PrintWriter out, Object answer) {
        out.println(JSON.writeValueAsString(answer));
        out.flush();
    }

    /**
     * Answers each line of a JSON Lines file, in its order. A line that cannot be answered gets {@code {"error": …}} and
     * the others are still answered.
     *
     * @return 0, or 2 if a line could not be answered
     */
    static int each(Path cases, PrintWriter out, Question question) throws IOException {
        int exit = 0;
        try (BufferedReader lines = Files.newBufferedReader(cases)) {
            int number = 0;
            for (String line = lines.readLine(); line != null; line = lines.readLine()) {
                number++;
                if (line.isBlank()) {
                    continue;
                }
                try {
                    print(out, question.answer(JSON.readTree(line)));
                } catch (BadInputException e) {
                    print(out, Map.of("error", e.getMessage() + " " + e.mend(), "line", number));
                    exit = 2;
                } catch (IllegalArgumentException e) {
                    print(out, Map.of("error", e.getMessage(), "line", number));
                    exit = 2;
                } catch (JacksonException e) {
                    print(out, Map.of("error", "This line is not JSON: " + e.getOriginalMessage(), "line", number));
                    exit = 2;
                }
            }
        }
        return exit;
    }
}

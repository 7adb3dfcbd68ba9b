package org.calmpalette.core.cascade;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;

/**
 * Which values are valid, against the syntaxes of {@code mdn-data} as {@code css-tree} matches them. A difference has a named
 * cause, or the test fails; what Chromium says of values is tested beside it and goes first where the two differ.
 */
class SyntaxesTest {
    /** Every difference has one of these causes: what is valid, and why. */
    private enum Cause {
        /** Prose of the specifications says that lengths may not be negative here; the syntaxes of mdn-data have no ranges there. */
        NEGATIVE,
        /** CSS Backgrounds 4 has text as a box of backgrounds, and browsers have it; the syntaxes do not yet. */
        TEXT_AS_BOX,
        /** Basic User Interface 4 lets the colour of an outline be auto; Chromium knows that of its style alone. */
        AUTO_AS_COLOR,
        /** css-tree takes any math function for a number; by Values and Units 4, section 10.9, its type has to be right. */
        TYPE_OF_MATH;

        static Optional<Cause> of(String property, String value, boolean ours) {
            if (!ours && value.startsWith("-")) {
                return Optional.of(NEGATIVE);
            }
            if (ours && property.equals("background") && value.equals("text")) {
                return Optional.of(TEXT_AS_BOX);
            }
            if (!ours && property.matches("outline(-color)?") && value.matches("auto|auto auto|solid auto")) {
                return Optional.of(AUTO_AS_COLOR);
            }
            boolean noPercentage = property.matches("(border(-\\w+)?|outline)(-width)?") && value.contains("%");
            return !ours
                            && value.contains("(")
                            && (noPercentage || Set.of("opacity", "font-weight").contains(property))
                    ? Optional.of(TYPE_OF_MATH)
                    : Optional.empty();
        }
    }

    @Test
    void valuesAreValidWhereTheSyntaxesOfTheSpecificationsMatch() throws IOException {
        List<String> values = new ArrayList<>();
        List<String> wrong = new ArrayList<>();
        int looked = 0;
        int differ = 0;
        for (String line : lines()) {
            if (line.startsWith("= ")) {
                values.add(line.split(" ", 3)[2]);
                continue;
            }
            String[] parts = line.split(" ");
            Set<Integer> valid =
                    Arrays.stream(parts).skip(1).map(Integer::valueOf).collect(Collectors.toSet());
            for (int i = 0; i < values.size(); i++) {
                boolean ours = ValidityAccess.valid(parts[0], values.get(i));
                looked++;
                if (ours != valid.contains(i)) {
                    differ++;
                    if (Cause.of(parts[0], values.get(i), ours).isPresent()) {
                        continue;
                    }
                    wrong.add(
                            parts[0] + ": " + values.get(i) + (ours ? " is valid here only" : " is valid there only"));
                }
            }
        }
        assertThat(wrong).isEmpty();
        assertThat(looked).isGreaterThan(10_000);
        assertThat(differ).as("values that differ, all with a cause").isEqualTo(53);
    }

    private static List<String> lines() throws IOException {
        try (InputStream in = SyntaxesTest.class.getResourceAsStream("/outside/syntaxes.txt")) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8)
                    .lines()
                    .filter(l -> !l.startsWith("#"))
                    .toList();
        }
    }
}

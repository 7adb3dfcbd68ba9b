package org.calmpalette.core.cascade;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.Test;

/**
 * Inheritance and initial values of all properties against the property definitions of the specifications, as
 * {@code @webref/css} reads them out. Every difference has a reason here.
 */
class SpecifiedPropertiesTest {
    /** What the specifications leave to browsers, or write in another way that means the same. */
    private static final Map<String, String> INITIAL = Map.of(
            "font-family", "serif", // depends on user agent; Chromium's is Times New Roman, a serif
            "font-weight", "400"); // normal, of which the computed value is 400

    /** Shorthands of which no longhand stands alone, and fill-break, which nobody has yet. */
    private static final Set<String> NOT_YES_OR_NO =
            Set.of("page", "text-decoration-line", "fill-break", "stroke-break");

    private record Specified(String name, String inherited, String initial) {}

    private static List<Specified> all() throws IOException {
        try (InputStream in = SpecifiedPropertiesTest.class.getResourceAsStream("/outside/properties.txt")) {
            List<Specified> all = new ArrayList<>();
            for (String line : new String(in.readAllBytes(), StandardCharsets.UTF_8)
                    .lines()
                    .filter(l -> !l.startsWith("#"))
                    .toList()) {
                String[] parts = line.split("\t", -1);
                all.add(new Specified(parts[0], parts[1], parts[2]));
            }
            return all;
        }
    }

    @Test
    void allInheritedPropertiesOfTheSpecificationsAreInheritedHereAndNoOthers() throws IOException {
        List<String> wrong = new ArrayList<>();
        int looked = 0;
        for (Specified p : all()) {
            if (Properties.isKnown(p.name())
                    && Set.of("yes", "no").contains(p.inherited())
                    && !NOT_YES_OR_NO.contains(p.name())) {
                looked++;
                if (Properties.isInherited(p.name()) != p.inherited().equals("yes")) {
                    wrong.add(p.name());
                }
            }
        }
        assertThat(wrong).isEmpty();
        assertThat(looked).as("properties looked at").isGreaterThan(350);
    }

    @Test
    void initialValuesAreThoseOfTheSpecifications() throws IOException {
        List<String> wrong = new ArrayList<>();
        int looked = 0;
        for (Specified p : all()) {
            if (Properties.isComputed(p.name())) {
                looked++;
                String wanted = INITIAL.getOrDefault(p.name(), p.initial().equals("0") ? "0px" : p.initial());
                if (!Properties.initial(p.name()).equalsIgnoreCase(wanted)) {
                    wrong.add(p.name() + ": " + Properties.initial(p.name()) + ", not " + wanted);
                }
            }
        }
        assertThat(wrong).isEmpty();
        assertThat(looked).isEqualTo(Properties.computed().size());
    }
}

package org.calmpalette.core.color;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.TreeSet;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class ColorNameTest {
    @ParameterizedTest
    @CsvSource({
        "#24463a, dark green",
        "#f4f1ea, off-white",
        "#d8a13c, dark yellow",
        "#1c1e20, near black",
        "#fff, white",
        "#000, black",
        "#777, grey",
        "#4a2636, dark purplish red",
        "#7a4a1e, brown",
        "#0000, clear",
        "rgb(255 0 0 / .5), 'red, see-through'",
        "oklch(.7 .4 143), green",
    })
    void isWhatPeopleCallIt(String css, String name) {
        assertThat(ColorName.of(Color.parse(css).orElseThrow())).isEqualTo(name);
    }

    /** The named colours of CSS (CSS Color 4, section 6.1) that say their family are called by it; those known to lie elsewhere are named. */
    @Test
    void colorsThatCssNamesByTheirFamilyAreOfIt() {
        Map<String, Set<String>> families = Map.of(
                "red", Set.of("red", "pink", "brown"),
                "green", Set.of("green", "olive"),
                "blue", Set.of("blue", "bluish green", "violet"),
                "yellow", Set.of("yellow"),
                "orange", Set.of("orange", "red"),
                "pink", Set.of("pink"),
                "violet", Set.of("violet", "purple", "pink"),
                "purple", Set.of("violet", "purple"),
                "brown", Set.of("brown", "red"),
                "grey", Set.of("grey", "near black"));
        // Between two families, or so light that no family is seen.
        Set<String> elsewhere = Set.of(
                "greenyellow",
                "yellowgreen",
                "aliceblue",
                "orangered",
                "blueviolet",
                "palevioletred",
                "lightyellow",
                "sandybrown",
                "mediumvioletred");
        Set<String> wrong = new TreeSet<>();
        int asked = 0;
        for (String css : NamedColors.names()) {
            for (Map.Entry<String, Set<String>> family : families.entrySet()) {
                if (css.endsWith(family.getKey()) && !elsewhere.contains(css)) {
                    asked++;
                    String name = ColorName.of(NamedColors.get(css).orElseThrow());
                    if (family.getValue().stream().noneMatch(name::contains)) {
                        wrong.add(css + ": " + name);
                    }
                }
            }
        }
        assertThat(asked).isGreaterThan(45);
        assertThat(wrong).isEmpty();
    }

    @Test
    void everyColorHasAName() {
        Random random = new Random(5);
        for (int n = 0; n < 20_000; n++) {
            Color one = Color.rgb(random.nextDouble(), random.nextDouble(), random.nextDouble());
            assertThat(ColorName.of(one)).matches("[a-z]+([ -][a-z]+){0,3}");
        }
    }
}

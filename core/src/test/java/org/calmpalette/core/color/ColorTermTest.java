package org.calmpalette.core.color;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Against the named colours of CSS Color 4, section 6.1, whose names have a basic colour term in them. */
class ColorTermTest {
    private static final List<String> NAMED = List.of(
            "white",
            "black",
            "gray",
            "darkgray",
            "dimgray",
            "lightgray",
            "silver:gray",
            "gainsboro:gray",
            "red",
            "darkred",
            "maroon:red",
            "crimson:red",
            "firebrick:red",
            "pink",
            "hotpink",
            "deeppink",
            "lightpink",
            "orange",
            "darkorange",
            "brown",
            "saddlebrown",
            "rosybrown",
            "sandybrown:orange",
            "yellow",
            "lightyellow",
            "gold:yellow",
            "khaki:yellow",
            "green",
            "darkgreen",
            "lightgreen",
            "palegreen",
            "seagreen",
            "springgreen",
            "forestgreen",
            "lawngreen",
            "darkolivegreen",
            "limegreen",
            "mediumseagreen",
            "blue",
            "darkblue",
            "lightblue",
            "navy",
            "skyblue",
            "steelblue",
            "royalblue",
            "slateblue",
            "powderblue",
            "cadetblue",
            "dodgerblue",
            "midnightblue",
            "aliceblue:blue",
            "cornflowerblue",
            "purple",
            "violet",
            "darkviolet:violet",
            "mediumpurple",
            "rebeccapurple",
            "indigo:purple",
            "snow:white",
            "ghostwhite",
            "whitesmoke");

    @Test
    void everyNamedColourMayBeCalledByTheTermInItsName() {
        for (String entry : NAMED) {
            String name = entry.replaceAll(":.*", "");
            String term = entry.contains(":") ? entry.replaceAll(".*:", "") : split(name);
            ColorTerm wanted = ColorTerm.in(term).get(0);
            assertThat(wanted.holds(Color.parse(name).orElseThrow()))
                    .as("%s is %s", name, wanted)
                    .isTrue();
        }
    }

    /** The term at the end of a name, or at its beginning. */
    private static String split(String name) {
        for (ColorTerm t : ColorTerm.values()) {
            if (name.endsWith(t.word()) || name.startsWith(t.word())) {
                return t.word();
            }
        }
        return name;
    }

    @ParameterizedTest
    @CsvSource({
        "blue,#b5462f",
        "red,#2f46b5",
        "green,#b52f9c",
        "white,#222222",
        "black,#eeeeee",
        "yellow,#3344cc",
        "grey,#ff0000",
        "pink,#118811",
        "orange,#0044ff",
        "purple,#ffcc00",
        "brown,#00aaff",
        "blue,#777777"
    })
    void whatIsFarAwayMayNot(String term, String color) {
        assertThat(ColorTerm.in("Sea " + term).get(0).holds(Color.parse(color).orElseThrow()))
                .isFalse();
    }

    @Test
    void onlyWholeWordsAreTerms() {
        assertThat(ColorTerm.in("Red of the greenhouse, grey-blue"))
                .containsExactly(ColorTerm.RED, ColorTerm.GRAY, ColorTerm.BLUE);
        assertThat(ColorTerm.in("Blackboard, credit, Evergreen")).isEmpty();
    }
}

package org.calmpalette.core.color;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.junit.jupiter.api.Test;

/** Colours in all spaces, gamut and distance as colorjs.io 0.7.1 has them, and there and back again. */
class SpacesTest {
    private static List<String[]> rows() throws IOException {
        try (InputStream in = SpacesTest.class.getResourceAsStream("/outside/spaces.txt")) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8)
                    .lines()
                    .filter(l -> !l.startsWith("# "))
                    .map(l -> l.split("\t"))
                    .toList();
        }
    }

    private static ColorSpace space(String name) {
        return Arrays.stream(ColorSpace.values())
                .filter(s -> s.cssName().equals(name) && s != ColorSpace.RGB)
                .findFirst()
                .orElseThrow();
    }

    private static Color color(String text) {
        return Color.parse(text).orElseThrow();
    }

    @Test
    void componentsAreThoseOfTheReferenceInEverySpace() throws IOException {
        List<String> wrong = new ArrayList<>();
        int looked = 0;
        for (String[] row : rows()) {
            if (row.length < 5) {
                continue;
            }
            Color c = color(row[0]).to(space(row[1]));
            double[] ours = {c.c0(), c.c1(), c.c2()};
            for (int i = 0; i < 3; i++) {
                // A hue of what is nearly gray says nothing: it is noise there, and missing here or there.
                boolean hue = c.space().isPolar() && i == c.space().hueIndex();
                if (row[2 + i].equals("none") || Double.isNaN(ours[i]) || hue && isGray(color(row[0]))) {
                    continue;
                }
                looked++;
                double theirs = Double.parseDouble(row[2 + i]);
                double apart = Math.abs(ours[i] - theirs);
                // 0 and 360 degrees are one hue.
                if (Math.min(apart, hue ? 360 - apart : apart) > 0.00002 * Math.max(1, Math.abs(theirs))) {
                    wrong.add(row[0] + " in " + row[1] + ": " + ours[i] + ", not " + theirs);
                }
            }
        }
        assertThat(wrong).isEmpty();
        assertThat(looked).isGreaterThan(750);
    }

    private static boolean isGray(Color color) {
        Color lab = color.to(ColorSpace.OKLAB);
        return Math.hypot(lab.c1(), lab.c2()) < 0.0001;
    }

    @Test
    void whatIsInTheGamutOfSrgbIsSo() throws IOException {
        for (String[] row : rows()) {
            if (row[1].equals("gamut")) {
                assertThat(color(row[0]).isInGamut()).as(row[0]).isEqualTo(Boolean.parseBoolean(row[2]));
            }
        }
    }

    @Test
    void distancesAreThoseOfTheReference() throws IOException {
        for (String[] row : rows()) {
            if (row[1].equals("distance")) {
                assertThat(color("#345678").distance(color(row[0])))
                        .as(row[0])
                        .isCloseTo(Double.parseDouble(row[2]), within(1e-6));
            }
        }
    }

    @Test
    void everySpaceLeadsBackToTheColourItCameFrom() throws IOException {
        for (String[] row : rows()) {
            if (row.length >= 5) {
                Color there = color(row[0]).to(space(row[1]));
                assertThat(there.distance(color(row[0])))
                        .as(row[0] + " over " + row[1])
                        .isLessThan(0.000001);
                Color back = there.to(ColorSpace.XYZ_D65);
                Color straight = color(row[0]).to(ColorSpace.XYZ_D65);
                assertThat(back.c1()).as(row[0] + " over " + row[1]).isCloseTo(straight.c1(), within(0.000001));
            }
        }
    }
}

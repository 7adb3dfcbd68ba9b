package org.calmpalette.core.usage;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.calmpalette.core.Budget;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.color.ColorSpace;

/** Colours that differ too little to be meant. */
public final class NearColors {
    /** CSS Color 4, section 13.2: a difference of 0.02 in OKLab can just be noticed. */
    public static final double JUST_NOTICEABLE = 0.02;
    /** Half of that: colours that nobody tells apart, even side by side. */
    public static final double NEAR = JUST_NOTICEABLE / 2;

    private NearColors() {}

    /** Each colour that can hardly be told from a more used one, tied to the nearest of those. */
    public static Map<String, ColorRow> ties(List<ColorRow> rows) {
        // In cells as wide as the distance, so that each colour is held against its neighbours only.
        Map<Cell, List<Placed>> mains = new HashMap<>();
        Map<String, ColorRow> ties = new LinkedHashMap<>();
        for (ColorRow row : rows) {
            Color lab = row.color().to(ColorSpace.OKLAB);
            Cell cell = Cell.of(lab);
            ColorRow nearest = null;
            double least = NEAR;
            for (Placed main : cell.around().stream()
                    .flatMap(c -> mains.getOrDefault(c, List.of()).stream())
                    .toList()) {
                double distance = lab.distance(main.lab());
                if (main.row().color().alpha() == row.color().alpha() && distance < least) {
                    nearest = main.row();
                    least = distance;
                }
            }
            if (nearest != null) {
                ties.put(row.value(), nearest);
            } else {
                mains.computeIfAbsent(cell, k -> new ArrayList<>()).add(new Placed(row, lab));
            }
            Budget.step();
        }
        return ties;
    }

    private record Placed(ColorRow row, Color lab) {}

    /** A cube of OKLab with sides of {@link #NEAR}. */
    private record Cell(int l, int a, int b) {
        static Cell of(Color lab) {
            return new Cell((int) Math.floor(lab.c0() / NEAR), (int) Math.floor(lab.c1() / NEAR), (int)
                    Math.floor(lab.c2() / NEAR));
        }

        List<Cell> around() {
            List<Cell> all = new ArrayList<>(27);
            for (int i = 0; i < 27; i++) {
                all.add(new Cell(l + i % 3 - 1, a + i / 3 % 3 - 1, b + i / 9 - 1));
            }
            return all;
        }
    }
}

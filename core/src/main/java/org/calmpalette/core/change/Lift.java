package org.calmpalette.core.change;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.TreeMap;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.css.Edit;
import org.calmpalette.core.setting.Place;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.usage.ColorUsage;
import org.calmpalette.core.usage.ColorUse;

/** Changes that tie stylesheets to settings. Only the characters of the values themselves change. */
public final class Lift {
    private Lift() {}

    /**
     * Turns uses of a colour into one setting.
     *
     * @param ids of the uses, see {@link ColorUse#id()}
     * @throws BadInputException if a use is not there, cannot be lifted, or the key is taken
     */
    public static Change lift(Theme theme, Set<String> ids, Setting wanted, Place place) {
        ColorUsage.Result survey = ColorUsage.of(theme);
        List<ColorUse> uses = survey.rows().stream()
                .flatMap(r -> r.uses().stream())
                .filter(u -> ids.contains(u.id()))
                .toList();
        if (uses.isEmpty() || uses.size() < ids.size()) {
            throw new BadInputException(
                    ids.isEmpty()
                            ? "No use of the colour is chosen."
                            : "Some of the chosen uses are no longer where they were.",
                    ids.isEmpty()
                            ? "Tick the uses that should follow the setting."
                            : "Open the survey again and choose anew.");
        }
        for (ColorUse use : uses) {
            if (!use.isLiftable()) {
                throw new BadInputException(
                        use.file() + ", line " + use.line() + ": " + use.obstacle(), "Leave this use out.");
            }
        }
        boolean triple = uses.stream().anyMatch(ColorUse::triple);
        Setting setting = wanted.withTriple(triple);
        PaletteChange.checkFree(theme, setting);
        TreeMap<String, List<Edit>> edits = new TreeMap<>();
        for (ColorUse use : uses) {
            String property = use.triple() ? setting.tripleProperty() : setting.property();
            edits.computeIfAbsent(use.file(), f -> new ArrayList<>())
                    .add(new Edit(use.start(), use.end(), "var(" + property + ", " + use.written() + ")"));
        }
        String where = uses.size() == 1
                ? uses.get(0).file() + ", line " + uses.get(0).line()
                : uses.size() + " uses of " + uses.get(0).written();
        return Change.of("Lifted " + where + " into the setting “" + setting.label() + "”")
                .with(edits)
                .withPalette(theme, theme.palette().with(setting, place));
    }
}

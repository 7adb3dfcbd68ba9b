package org.calmpalette.core.change;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.css.Edit;
import org.calmpalette.core.setting.ColorKey;
import org.calmpalette.core.setting.ColorKind;
import org.calmpalette.core.setting.Drawing;
import org.calmpalette.core.setting.Given;
import org.calmpalette.core.setting.Palette;
import org.calmpalette.core.setting.Place;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.usage.ColorFamily;
import org.calmpalette.core.usage.ColorUsage;
import org.calmpalette.core.usage.ColorUse;
import org.calmpalette.core.usage.DrawingColors;

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
        return lift(theme, ids, wanted, place, Set.of());
    }

    /**
     * The same, and what was computed from the colour follows it; of drawings inside of addresses also those in the colour itself.
     *
     * @param derivations of the relatives that follow, as {@link ColorFamily.Relative#words} has them; each becomes a setting of its
     *     own that the owner is not asked for
     */
    public static Change lift(Theme theme, Set<String> ids, Setting wanted, Place place, Set<String> derivations) {
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
        Palette palette = theme.palette().with(setting, place);
        if (!derivations.isEmpty()) {
            palette = followers(theme, survey, setting, place, derivations, palette, edits);
        }
        String where = uses.size() == 1
                ? uses.get(0).file() + ", line " + uses.get(0).line()
                : uses.size() + " uses of " + uses.get(0).written();
        return Change.of("Lifted " + where + " into the setting “" + setting.label() + "”"
                        + (derivations.isEmpty()
                                ? ""
                                : ", and " + derivations.size() + " computed from it "
                                        + (derivations.size() == 1 ? "follows" : "follow")))
                .with(edits)
                .withPalette(theme, palette);
    }

    private static Palette followers(
            Theme theme,
            ColorUsage.Result survey,
            Setting brand,
            Place place,
            Set<String> derivations,
            Palette palette,
            Map<String, List<Edit>> edits) {
        Color color = Color.parse(((Value.Text) ((Given.Fixed) brand.given()).value()).text())
                .orElseThrow();
        Map<String, List<ColorFamily.Relative>> groups = new LinkedHashMap<>();
        for (ColorFamily.Relative r : ColorFamily.of(survey, color)) {
            if (r.use().isLiftable() && derivations.contains(r.words())) {
                groups.computeIfAbsent(r.words(), k -> new ArrayList<>()).add(r);
            }
        }
        if (groups.size() < derivations.size()) {
            throw new BadInputException(
                    "Some of the chosen relatives are no longer there.", "Open the survey again and choose anew.");
        }
        Map<String, String> keys = new HashMap<>(Map.of("same", brand.key()));
        Map<DrawingColors.At, String> taken = new HashMap<>();
        List<ColorFamily.Relative> own = groups.getOrDefault("same", List.of()).stream()
                .filter(ColorFamily.Relative::drawn)
                .toList();
        palette = palette.replacing(bound(theme, brand, own, taken, edits), place);
        groups.remove("same");
        // What others stand on comes before them.
        List<List<ColorFamily.Relative>> order = new ArrayList<>(groups.values());
        order.sort(Comparator.comparing(g -> g.get(0).ground() != null));
        for (List<ColorFamily.Relative> group : order) {
            ColorFamily.Relative first = group.get(0);
            String ground = first.ground() == null ? "same" : first.words().substring(ColorFamily.READABLE.length());
            if (!keys.containsKey(ground)) {
                throw new BadInputException(
                        "The text that is " + first.words() + " follows a relative that is not chosen.",
                        "Tick “" + ground + "” as well, or leave the text out.");
            }
            String end = first.words().replaceAll("[^A-Za-z0-9]+", "-").replaceAll("^-|-$", "");
            String key = brand.key().substring(0, Math.min(brand.key().length(), Setting.LONGEST_KEY - 36)) + "-"
                    + end.substring(0, Math.min(end.length(), 34)).replace("readable-on-same", "text");
            String label = brand.label() + ", " + first.words().replace("readable on same", "text on it");
            Setting follower = Setting.of(
                            free(palette, survey, key),
                            label.substring(0, Math.min(label.length(), Setting.LONGEST_LABEL)),
                            "",
                            brand.place(),
                            ColorKind.ANY,
                            Value.of(ColorKey.of(first.use().color())))
                    .withGiven(new Given.Follows(keys.get(ground), first.how()))
                    .withShown(Setting.Shown.NEVER)
                    .withTriple(group.stream().anyMatch(r -> r.use().triple()));
            keys.put(first.words(), follower.key());
            Setting bound = bound(theme, follower, group, taken, edits);
            PaletteChange.checkFree(theme, bound);
            palette = palette.with(bound, place);
        }
        return palette;
    }

    /** Lets uses read a setting. Of a drawing in an address the whole address does. */
    private static Setting bound(
            Theme theme,
            Setting setting,
            List<ColorFamily.Relative> uses,
            Map<DrawingColors.At, String> taken,
            Map<String, List<Edit>> edits) {
        List<Drawing> drawings = new ArrayList<>(setting.drawings());
        List<DrawingColors.At> all = DrawingColors.of(theme);
        for (ColorFamily.Relative r : uses) {
            ColorUse use = r.use();
            DrawingColors.At at =
                    all.stream().filter(d -> d.uses().contains(use)).findFirst().orElse(null);
            if (at == null) {
                String property = use.triple() ? setting.tripleProperty() : setting.property();
                edits.computeIfAbsent(use.file(), f -> new ArrayList<>())
                        .add(new Edit(use.start(), use.end(), "var(" + property + ", " + use.written() + ")"));
                continue;
            }
            String other = taken.putIfAbsent(at, r.words());
            if (other != null && !other.equals(r.words())) {
                throw new BadInputException(
                        at.file() + ", line " + at.line() + ": the drawing has two colours that follow differently, “"
                                + other + "” and “" + r.words() + "”.",
                        "Leave one of the two out.");
            }
            if (other == null) {
                Drawing drawing = at.around(use.color());
                if (!drawings.contains(drawing)) {
                    drawings.add(drawing);
                }
                String property = setting.drawingProperty(drawings.indexOf(drawing));
                edits.computeIfAbsent(at.file(), f -> new ArrayList<>())
                        .add(new Edit(at.start(), at.start(), "var(" + property + ", "));
                edits.get(at.file()).add(new Edit(at.end(), at.end(), ")"));
            }
        }
        return setting.withDrawings(drawings);
    }

    private static String free(Palette palette, ColorUsage.Result survey, String wanted) {
        String key = wanted;
        for (int i = 2;
                palette.setting(key).isPresent()
                        || survey.customProperties().contains("--" + key)
                        || survey.customProperties().contains("--" + key + "-rgb");
                i++) {
            key = wanted + "-" + i;
        }
        return key;
    }
}

package org.calmpalette.core.change;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Stream;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.color.ColorSpace;
import org.calmpalette.core.color.Tint;
import org.calmpalette.core.css.Edit;
import org.calmpalette.core.setting.BackgroundKind;
import org.calmpalette.core.setting.Chosen;
import org.calmpalette.core.setting.ColorKey;
import org.calmpalette.core.setting.ColorKind;
import org.calmpalette.core.setting.Drawing;
import org.calmpalette.core.setting.Given;
import org.calmpalette.core.setting.Palette;
import org.calmpalette.core.setting.PictureKind;
import org.calmpalette.core.setting.Place;
import org.calmpalette.core.setting.Scheme;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.usage.ColorUsage;
import org.calmpalette.core.usage.ColorUse;
import org.calmpalette.core.usage.DrawingColors;

/** A theme in other colours: pictures, defaults of colour settings and colours of its stylesheets, all changed in one way. */
public final class Recolored {
    /** OKLCH chroma under which a colour of a stylesheet stays: greys carry texts, not the colour of a theme. */
    private static final double GREY = 0.03;

    private Recolored() {}

    /** Whether a setting's default is a colour of its own that can be changed. */
    public static boolean takes(Setting s) {
        return s.kind() instanceof ColorKind && s.given() instanceof Given.Fixed;
    }

    /** How many colours that stylesheets write, outside of settings, would change. */
    public static int written(Theme theme) {
        return uses(theme).size() + drawn(theme).size();
    }

    private static List<ColorUse> uses(Theme theme) {
        return lasting(theme, ColorUsage.of(theme).rows().stream().flatMap(r -> r.uses().stream()));
    }

    /** Those inside of drawings in addresses. */
    private static List<ColorUse> drawn(Theme theme) {
        return lasting(theme, DrawingColors.of(theme).stream().flatMap(d -> d.uses().stream()));
    }

    private static List<ColorUse> lasting(Theme theme, Stream<ColorUse> all) {
        Map<String, SheetRole> roles = SheetRole.of(theme);
        return all.filter(u -> u.color().to(ColorSpace.OKLCH).c1() >= GREY)
                .filter(ColorUse::isLiftable)
                .filter(u -> !roles.containsKey(u.file()) || roles.get(u.file()).lasts())
                .toList();
    }

    /**
     * @param pictures what they become, by path
     * @param settings keys of those whose default changes
     * @param written whether the colours that the theme's own stylesheets write change as well
     * @throws BadInputException if nothing is chosen, or a setting does not allow what its default would become
     */
    public static Change of(
            Theme theme, Tint tint, Map<String, byte[]> pictures, Set<String> settings, boolean written) {
        Map<String, List<Edit>> edits = new TreeMap<>();
        Map<String, String> names = new LinkedHashMap<>();
        int colors = 0;
        if (written) {
            for (ColorUse use : uses(theme)) {
                Color to = tint.of(use.color());
                String text = use.triple() ? Setting.triple(to.hex()) : ColorKey.of(to);
                edits.computeIfAbsent(use.file(), f -> new ArrayList<>()).add(new Edit(use.start(), use.end(), text));
                colors++;
            }
            for (ColorUse use : drawn(theme)) {
                edits.computeIfAbsent(use.file(), f -> new ArrayList<>())
                        .add(new Edit(use.start(), use.end(), Drawing.written(tint.of(use.color()))));
                colors++;
            }
        }
        Palette palette = theme.palette();
        for (String key : settings) {
            Setting s = palette.known(key);
            if (!takes(s)) {
                throw new BadInputException(
                        "“" + s.label() + "” has no colour of its own as its default.", "Leave it out.");
            }
            Color now = color(s);
            ColorKind kind = (ColorKind) s.kind();
            String to = ColorKey.of(tint.of(now));
            // What an owner may pick from a list moves with it.
            ColorKind moved = kind.swatches().isEmpty()
                    ? kind
                    : new ColorKind(
                            kind.swatches().stream()
                                    .map(c -> Color.parse(c).orElseThrow())
                                    .map(c -> c.to(ColorSpace.OKLCH).c1() < GREY
                                            ? ColorKey.of(c)
                                            : ColorKey.of(tint.of(c)))
                                    .distinct()
                                    .toList(),
                            kind.bounds(),
                            kind.contrasts(),
                            kind.opaque());
            palette = palette.replacing(
                    s.withKind(moved).withGiven(new Given.Fixed(Value.of(to))),
                    palette.places().stream()
                            .filter(p -> p.key().equals(s.place()))
                            .findFirst()
                            .orElseThrow());
            names.put(key, s.label());
        }
        if (pictures.isEmpty() && names.isEmpty() && colors == 0) {
            throw new BadInputException("Nothing was chosen.", "Tick the pictures and colours that are to change.");
        }
        List<String> what = new ArrayList<>();
        count(what, pictures.size(), "picture");
        count(what, names.size(), "setting");
        count(what, colors, "written colour");
        Change change = Change.of("Recoloured " + String.join(", ", what) + ": " + tint.inWords())
                .with(edits);
        for (Map.Entry<String, byte[]> p : pictures.entrySet()) {
            change = PictureChange.withoutCopies(theme, p.getKey(), change.withFile(p.getKey(), p.getValue()));
        }
        return names.isEmpty() ? change : change.withPalette(theme, palette);
    }

    /**
     * The same as a scheme that owners may take: the theme stays as it is. A picture can be in it if a setting names it; it is added
     * beside the one that is there.
     *
     * @param label of the scheme
     * @throws BadInputException if nothing of what is chosen is a setting's, or a setting does not allow what it would have
     */
    public static Change scheme(
            Theme theme, Tint tint, Map<String, byte[]> pictures, Set<String> settings, String label) {
        String key = Place.keyOf(label);
        Palette palette = theme.palette();
        if (palette.schemes().stream()
                .anyMatch(s -> s.key().equals(key) || s.label().equalsIgnoreCase(label.strip()))) {
            throw new BadInputException("There is a scheme “" + label.strip() + "” already.", "Choose another name.");
        }
        Map<String, Chosen> values = new LinkedHashMap<>();
        List<Setting> all = new ArrayList<>();
        Map<String, String> added = new TreeMap<>();
        Change change = Change.of("");
        for (Setting s : palette.settings()) {
            Setting after = s;
            if (settings.contains(s.key()) && takes(s)) {
                Value to = Value.of(ColorKey.of(tint.of(color(s))));
                values.put(s.key(), new Chosen(to, Map.of()));
                after = s.withKind(allowing((ColorKind) s.kind(), to));
            } else if (s.given() instanceof Given.Fixed f
                    && (s.kind() instanceof PictureKind || s.kind() instanceof BackgroundKind)) {
                Map<String, String> names = new TreeMap<>();
                for (Map.Entry<String, byte[]> p : pictures.entrySet()) {
                    if (!f.value().equals(f.value().withTexts(Map.of(p.getKey(), "")))) {
                        String path = added.computeIfAbsent(p.getKey(), from -> beside(theme, from, key));
                        names.put(p.getKey(), path);
                        change = change.withFile(path, p.getValue());
                    }
                }
                if (!names.isEmpty()) {
                    values.put(s.key(), new Chosen(f.value().withTexts(names), Map.of()));
                }
            }
            all.add(after);
        }
        if (values.isEmpty()) {
            throw new BadInputException(
                    "A scheme holds values of settings, and nothing that was chosen is a setting's.",
                    "Lift the colours and pictures into settings first, or keep the colours in the theme.");
        }
        int left = pictures.size() - added.size();
        List<Scheme> schemes = new ArrayList<>(palette.schemes());
        schemes.add(new Scheme(key, label.strip(), values));
        Change named = Change.of("New scheme “" + label.strip() + "” of " + values.size()
                + (values.size() == 1 ? " setting: " : " settings: ") + tint.inWords()
                + (left == 0
                        ? ""
                        : "; " + left + (left == 1 ? " picture" : " pictures") + " that no setting names not in it"));
        for (Map.Entry<String, byte[]> p : change.written().entrySet()) {
            named = named.withFile(p.getKey(), p.getValue());
        }
        Theme there = added.isEmpty() ? theme : named.applied(theme);
        return named.withPalette(there, palette.withSettings(all).withSchemes(schemes));
    }

    private static Color color(Setting s) {
        return Color.parse(((Value.Text) ((Given.Fixed) s.given()).value()).text())
                .orElseThrow();
    }

    /** A list of colours to pick from has the new one as well. */
    private static ColorKind allowing(ColorKind kind, Value color) {
        String wanted = ((Value.Text) color).text();
        if (kind.swatches().isEmpty() || kind.swatches().contains(wanted)) {
            return kind;
        }
        List<String> more = new ArrayList<>(kind.swatches());
        more.add(wanted);
        return new ColorKind(more, kind.bounds(), kind.contrasts(), kind.opaque());
    }

    private static String beside(Theme theme, String path, String key) {
        int dot = path.lastIndexOf('.');
        for (int i = 1; ; i++) {
            String free = path.substring(0, dot) + "-" + key + (i == 1 ? "" : "-" + i) + path.substring(dot);
            if (theme.files().paths().stream().noneMatch(free::equalsIgnoreCase)
                    && !theme.palette().moved().containsKey(free)) {
                return free;
            }
        }
    }

    private static void count(List<String> what, int n, String one) {
        if (n > 0) {
            what.add(n + " " + one + (n == 1 ? "" : "s"));
        }
    }
}

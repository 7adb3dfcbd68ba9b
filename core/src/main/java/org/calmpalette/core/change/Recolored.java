package org.calmpalette.core.change;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.color.Color;
import org.calmpalette.core.color.ColorSpace;
import org.calmpalette.core.color.Tint;
import org.calmpalette.core.css.Edit;
import org.calmpalette.core.page.ColorAttributes;
import org.calmpalette.core.page.Tag;
import org.calmpalette.core.setting.BackgroundKind;
import org.calmpalette.core.setting.Chosen;
import org.calmpalette.core.setting.ColorKey;
import org.calmpalette.core.setting.ColorKind;
import org.calmpalette.core.setting.Drawing;
import org.calmpalette.core.setting.Given;
import org.calmpalette.core.setting.Kind;
import org.calmpalette.core.setting.Palette;
import org.calmpalette.core.setting.PictureKind;
import org.calmpalette.core.setting.Place;
import org.calmpalette.core.setting.Refusal;
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

    /** Whether defaults of a setting hold colours of their own. */
    public static boolean takes(Setting s) {
        return !colors(s).isEmpty();
    }

    /** The colours that the defaults of a setting hold, in all bands, each once. */
    public static Set<String> colors(Setting s) {
        Set<String> all = new LinkedHashSet<>();
        Stream.concat(Stream.of(s.given()), s.bands().values().stream())
                .forEach(g -> recolored(s.kind(), g, c -> {
                    all.add(c);
                    return c;
                }));
        return all;
    }

    private static Given recolored(Kind kind, Given given, UnaryOperator<String> to) {
        return given instanceof Given.Fixed f ? new Given.Fixed(kind.recolored(f.value(), to)) : given;
    }

    /**
     * What becomes of the colours of one setting: of its defaults, and of all that may be chosen or that schemes choose for it. A grey
     * among those stays a grey, unless it is a default.
     */
    private static UnaryOperator<String> way(Setting s, Tint tint) {
        Set<String> own = colors(s);
        return text -> {
            Color c = Color.parse(text).orElseThrow();
            return !own.contains(text) && c.to(ColorSpace.OKLCH).c1() < GREY ? text : ColorKey.of(tint.of(c));
        };
    }

    /** With all its colours changed: defaults in all bands, what may be chosen, what its parts may have. */
    private static Setting recolored(Setting s, Tint tint) {
        UnaryOperator<String> to = way(s, tint);
        Map<String, Given> bands = new LinkedHashMap<>();
        s.bands().forEach((band, g) -> bands.put(band, recolored(s.kind(), g, to)));
        return s.withKind(s.kind().recolored(to))
                .withGiven(recolored(s.kind(), s.given(), to))
                .withBands(bands);
    }

    private static Scheme recolored(Scheme scheme, Palette palette, Set<String> going, Tint tint) {
        Map<String, Chosen> values = new LinkedHashMap<>(scheme.values());
        values.replaceAll((key, chosen) -> palette.setting(key)
                .filter(s -> going.contains(s.key()))
                .map(s -> recolored(s, chosen, way(s, tint)))
                .orElse(chosen));
        return new Scheme(scheme.key(), scheme.label(), values);
    }

    private static Chosen recolored(Setting s, Chosen chosen, UnaryOperator<String> to) {
        try {
            Map<String, Value> bands = new LinkedHashMap<>();
            chosen.bands()
                    .forEach((band, v) ->
                            bands.put(band, s.kind().recolored(s.kind().normal(v), to)));
            return new Chosen(
                    chosen.everywhere() == null
                            ? null
                            : s.kind().recolored(s.kind().normal(chosen.everywhere()), to),
                    bands);
        } catch (BadInputException notOfTheKind) {
            return chosen;
        }
    }

    /**
     * Settings in other colours.
     *
     * @param palette with all of them changed that can be
     * @param keys of those that change
     * @param stays why others stay as they are, in plain words, by key
     */
    public record Turned(Palette palette, Set<String> keys, Map<String, String> stays) {}

    /**
     * Changes settings, as many of them as keep the limits that a maker has set. Where a limit is broken, the setting that breaks it
     * stays as it is; of two that have to keep a contrast, both do.
     *
     * @param keys of settings that {@linkplain #takes hold colours}
     */
    public static Turned turned(Theme theme, Tint tint, Set<String> keys) {
        Palette palette = theme.palette();
        Set<String> going = new LinkedHashSet<>(keys);
        Map<String, String> stays = new LinkedHashMap<>();
        while (true) {
            Palette after = palette.withSettings(palette.settings().stream()
                            .map(s -> going.contains(s.key()) ? recolored(s, tint) : s)
                            .toList())
                    .withSchemes(palette.schemes().stream()
                            .map(s -> recolored(s, palette, going, tint))
                            .toList());
            int before = going.size();
            for (PaletteChange.Trouble t : PaletteChange.troubles(theme, after)) {
                Set<String> of = new LinkedHashSet<>();
                decides(palette, t.key(), of);
                other(t.why()).ifPresent(key -> decides(palette, key, of));
                of.stream()
                        .filter(going::remove)
                        .forEach(key -> stays.put(key, t.said().getMessage()));
            }
            if (going.size() == before) {
                return new Turned(after, Set.copyOf(going), stays);
            }
        }
    }

    /** A setting with all that it follows. */
    private static void decides(Palette palette, String key, Set<String> into) {
        if (into.add(key)) {
            palette.setting(key).stream().flatMap(s -> s.following().stream()).forEach(f -> {
                decides(palette, f.key(), into);
                f.how().alsoReads().ifPresent(k -> decides(palette, k, into));
            });
        }
    }

    /** The setting that a contrast has to be kept with. */
    private static Optional<String> other(Refusal why) {
        return why instanceof Refusal.InPart p
                ? other(p.why())
                : why instanceof Refusal.LowContrast c && c.isSetting() ? Optional.of(c.with()) : Optional.empty();
    }

    /** Colours that stay when all else changes, with the reason; each a sentence. */
    public static List<String> staying(Theme theme) {
        Map<String, SheetRole> roles = SheetRole.of(theme);
        Map<String, Integer> others = new TreeMap<>();
        int[] greys = {
            (int) theme.pages().stream()
                    .flatMap(page -> ColorAttributes.of(page).stream())
                    .filter(at -> at.color().to(ColorSpace.OKLCH).c1() < GREY)
                    .count()
        };
        Stream.concat(
                        ColorUsage.of(theme).rows().stream().flatMap(r -> r.uses().stream()),
                        DrawingColors.of(theme).stream().flatMap(d -> d.uses().stream()))
                .forEach(u -> {
                    SheetRole role = roles.get(u.file());
                    if (u.color().to(ColorSpace.OKLCH).c1() < GREY) {
                        greys[0]++;
                    } else if (role != null && !role.lasts()) {
                        others.merge(u.file() + ", since " + role.because(), 1, Integer::sum);
                    }
                });
        List<String> all = new ArrayList<>();
        if (greys[0] > 0) {
            all.add((greys[0] == 1 ? "1 grey" : greys[0] + " greys") + " of the theme's files: greys carry texts.");
        }
        others.forEach((where, n) ->
                all.add((n == 1 ? "1 colour" : n + " colours") + " in " + where + ": an edit there would not last."));
        return all;
    }

    /** How many colours that stylesheets and the attributes of pages write, outside of settings, would change. */
    public static int written(Theme theme) {
        return uses(theme).size() + drawn(theme).size() + inMarkup(theme).size();
    }

    /** The edit of a colour in an attribute of a page, and the colour that stands there. */
    private record InMarkup(Tag tag, ColorAttributes.At at) {
        Edit to(Color color) {
            // In attributes without quotes nothing may have a blank, so it is written in digits.
            return tag.replaced(at.attribute(), at.legacy() ? color.withAlpha(1).hex() : color.hex());
        }
    }

    private static List<InMarkup> inMarkup(Theme theme) {
        return theme.pages().stream()
                .flatMap(page -> ColorAttributes.of(page).stream()
                        .filter(at -> at.color().to(ColorSpace.OKLCH).c1() >= GREY)
                        .map(at -> new InMarkup(new Tag(page, at.element()), at)))
                .filter(m -> m.tag().isWritten())
                .toList();
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
        // Also what cannot become a setting: one colour takes another's place.
        return all.filter(u -> u.color().to(ColorSpace.OKLCH).c1() >= GREY)
                .filter(u -> !roles.containsKey(u.file()) || roles.get(u.file()).lasts())
                .toList();
    }

    /**
     * @param pictures what they become, by path
     * @param settings keys of those whose default changes
     * @param written whether the colours that the theme's own stylesheets and the attributes of its pages write change as well
     * @throws BadInputException if nothing is chosen, or no setting that is chosen allows what its default would become
     */
    public static Change of(
            Theme theme, Tint tint, Map<String, byte[]> pictures, Set<String> settings, boolean written) {
        Map<String, List<Edit>> edits = new TreeMap<>();
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
            for (InMarkup m : inMarkup(theme)) {
                edits.computeIfAbsent(m.tag().page().source().file(), f -> new ArrayList<>())
                        .add(m.to(tint.of(m.at().color())));
                colors++;
            }
        }
        for (String key : settings) {
            Setting s = theme.palette().known(key);
            if (!takes(s)) {
                throw new BadInputException(
                        "“" + s.label() + "” has no colour of its own as its default.", "Leave it out.");
            }
        }
        Turned turned = turned(theme, tint, settings);
        Set<String> names = turned.keys();
        if (pictures.isEmpty()
                && names.isEmpty()
                && colors == 0
                && !turned.stays().isEmpty()) {
            throw new BadInputException(
                    turned.stays().values().iterator().next(), "Allow it under Settings, or tick something else.");
        }
        if (pictures.isEmpty() && names.isEmpty() && colors == 0) {
            throw new BadInputException("Nothing was chosen.", "Tick the pictures and colours that are to change.");
        }
        List<String> what = new ArrayList<>();
        count(what, pictures.size(), "picture");
        count(what, names.size(), "setting");
        count(what, colors, "written colour");
        String stay = turned.stays().isEmpty()
                ? ""
                : "; as before: "
                        + turned.stays().keySet().stream()
                                .map(k -> theme.palette().known(k).label())
                                .collect(Collectors.joining(", "));
        Change change = Change.of("Recoloured " + String.join(", ", what) + ": " + tint.inWords() + stay)
                .with(edits);
        for (Map.Entry<String, byte[]> p : pictures.entrySet()) {
            change = PictureChange.withoutCopies(theme, p.getKey(), change.withFile(p.getKey(), p.getValue()));
        }
        return names.isEmpty() ? change : change.withPalette(theme, turned.palette());
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
            Value value = null;
            if (settings.contains(s.key()) && takes(s) && s.given() instanceof Given.Fixed f) {
                value = s.kind().recolored(f.value(), way(s, tint));
            }
            if (s.given() instanceof Given.Fixed f
                    && (s.kind() instanceof PictureKind || s.kind() instanceof BackgroundKind)) {
                Value now = value == null ? f.value() : value;
                Map<String, String> names = new TreeMap<>();
                for (Map.Entry<String, byte[]> p : pictures.entrySet()) {
                    if (!now.equals(now.withTexts(Map.of(p.getKey(), "")))) {
                        String path = added.computeIfAbsent(p.getKey(), from -> beside(theme, from, key));
                        names.put(p.getKey(), path);
                        change = change.withFile(path, p.getValue());
                    }
                }
                value = names.isEmpty() ? value : now.withTexts(names);
            }
            if (value != null) {
                Map<String, Value> bands = new LinkedHashMap<>();
                if (s.perBand() && settings.contains(s.key())) {
                    s.bands().forEach((band, g) -> {
                        if (g instanceof Given.Fixed f) {
                            bands.put(band, s.kind().recolored(f.value(), way(s, tint)));
                        }
                    });
                }
                values.put(s.key(), new Chosen(value, bands));
                after = s.withKind(allowing(s.kind(), value));
            }
            all.add(after);
        }
        if (values.isEmpty()) {
            throw new BadInputException(
                    "A scheme holds values of settings, and nothing that was chosen is a setting's.",
                    "Lift the colours and pictures into settings first, or keep the colours in the theme.");
        }
        int left = pictures.size() - added.size();
        // What a setting does not allow is not in it.
        Theme with = added.isEmpty() ? theme : change.applied(theme);
        Set<String> stay = new TreeSet<>();
        List<Scheme> schemes = withScheme(palette, key, label, values);
        for (boolean changed = true; changed; ) {
            changed = false;
            for (PaletteChange.Trouble t :
                    PaletteChange.troubles(with, palette.withSettings(all).withSchemes(schemes))) {
                if (values.remove(t.key()) != null) {
                    stay.add(palette.known(t.key()).label());
                    changed = true;
                    if (values.isEmpty()) {
                        throw t.said();
                    }
                }
            }
            schemes = withScheme(palette, key, label, values);
        }
        Change named = Change.of("New scheme “" + label.strip() + "” of " + values.size()
                + (values.size() == 1 ? " setting: " : " settings: ") + tint.inWords()
                + (left == 0
                        ? ""
                        : "; " + left + (left == 1 ? " picture" : " pictures") + " that no setting names not in it")
                + (stay.isEmpty() ? "" : "; not in it, since it is not allowed there: " + String.join(", ", stay)));
        for (Map.Entry<String, byte[]> p : change.written().entrySet()) {
            named = named.withFile(p.getKey(), p.getValue());
        }
        Theme there = added.isEmpty() ? theme : named.applied(theme);
        return named.withPalette(there, palette.withSettings(all).withSchemes(schemes));
    }

    private static List<Scheme> withScheme(Palette palette, String key, String label, Map<String, Chosen> values) {
        List<Scheme> schemes = new ArrayList<>(palette.schemes());
        schemes.add(new Scheme(key, label.strip(), values));
        return schemes;
    }

    /** Where there is a list of colours to pick from, it has the new ones as well. */
    private static Kind allowing(Kind kind, Value value) {
        List<String> wanted = new ArrayList<>();
        kind.recolored(value, c -> {
            wanted.add(c);
            return c;
        });
        return kind instanceof ColorKind c
                        && !c.swatches().isEmpty()
                        && !c.swatches().containsAll(wanted)
                ? c.withSwatches(Stream.concat(c.swatches().stream(), wanted.stream())
                        .distinct()
                        .toList())
                : kind;
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

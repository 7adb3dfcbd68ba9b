package org.calmpalette.core.change;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.UnaryOperator;
import org.calmpalette.core.BadInputException;
import org.calmpalette.core.css.Edit;
import org.calmpalette.core.css.TokenType;
import org.calmpalette.core.css.Tokens;
import org.calmpalette.core.output.SettingSheets;
import org.calmpalette.core.output.ThemeBuild;
import org.calmpalette.core.page.Paths;
import org.calmpalette.core.setting.Band;
import org.calmpalette.core.setting.Bands;
import org.calmpalette.core.setting.CompositeKind;
import org.calmpalette.core.setting.Effective;
import org.calmpalette.core.setting.Kind;
import org.calmpalette.core.setting.LeftOut;
import org.calmpalette.core.setting.Palette;
import org.calmpalette.core.setting.Place;
import org.calmpalette.core.setting.Refusal;
import org.calmpalette.core.setting.Scheme;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.Translations;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.ThemeSheet;
import org.calmpalette.core.usage.BoundUse;
import org.calmpalette.core.usage.ColorUsage;
import org.calmpalette.core.usage.DrawingColors;

/**
 * Changes of the settings themselves. Every one is checked as a whole before it is made: a default or a value of a scheme
 * that is not allowed is refused with the reason.
 */
public final class PaletteChange {
    private PaletteChange() {}

    /** A new setting that nothing reads yet. */
    public static Change create(Theme theme, Setting setting, Place place) {
        checkFree(theme, setting);
        return change(theme, Map.of(), theme.palette().with(setting, place), "New setting “" + setting.label() + "”");
    }

    /** Changes a setting; its key stays. */
    public static Change edit(Theme theme, Setting wanted, Place place) {
        Setting before = theme.palette().known(wanted.key());
        Setting after = wanted.readAs(before);
        Effective was = ThemeBuild.defaults(theme);
        Palette palette = theme.palette().replacing(after, place);
        Effective is = Effective.defaults(palette, theme.media());
        List<String> what = new ArrayList<>();
        palette.bands().list().forEach(b -> {
            boolean widest = b == palette.bands().widest();
            if (!was.value(before, b).equals(is.value(after, b))
                    && (widest
                            || after.bands().containsKey(b.key())
                            || before.bands().containsKey(b.key()))) {
                what.add((widest ? "default " : b.label() + " ") + changed(before.kind(), was, is, before, after, b));
            }
        });
        if (what.isEmpty() && !before.given().equals(after.given())) {
            what.add("default");
        }
        if (what.isEmpty() && !before.bands().equals(after.bands())) {
            what.add("bands");
        }
        if (!before.kind().equals(after.kind())) {
            what.add("allowed: " + after.kind().inWords());
        }
        if (before.perBand() != after.perBand()) {
            what.add(after.perBand() ? "may differ from band to band" : "the same in all bands for the owner");
        }
        if (!java.util.Objects.equals(before.shown(), after.shown())) {
            what.add(
                    after.shown() == null
                            ? "always asked for"
                            : after.shown().isNever()
                                    ? "never asked for"
                                    : "asked for depending on " + after.shown().key());
        }
        if (!before.label().equals(after.label())) {
            what.add("label, was “" + before.label() + "”");
        }
        if (!before.help().equals(after.help())) {
            what.add("help");
        }
        if (!before.place().equals(after.place())) {
            what.add("place");
        }
        if (what.isEmpty()) {
            throw new BadInputException("Nothing was changed.", "Change something before you save.");
        }
        return change(theme, Map.of(), palette, "“" + after.label() + "”: " + String.join("; ", what));
    }

    /** A second setting like one that is there, right after it; nothing reads it yet. */
    public static Change duplicate(Theme theme, String key) {
        Setting s = theme.palette().known(key);
        Set<String> taken = ColorUsage.of(theme).customProperties();
        int n = 2;
        while (theme.palette().setting(key + "-" + n).isPresent() || taken.contains("--" + key + "-" + n)) {
            n++;
        }
        Setting copy = new Setting(
                key + "-" + n,
                shortened(s.label()) + " " + n,
                s.help(),
                s.place(),
                s.kind(),
                s.given(),
                s.bands(),
                s.perBand(),
                s.shown(),
                false,
                List.of(),
                List.of());
        List<Setting> all = new ArrayList<>(theme.palette().settings());
        all.add(all.indexOf(s) + 1, copy);
        return change(
                theme,
                Map.of(),
                theme.palette().withSettings(all),
                "Duplicated “" + s.label() + "” as “" + copy.label() + "”");
    }

    private static String shortened(String label) {
        return label.substring(0, Math.min(label.length(), Setting.LONGEST_LABEL - 4))
                .strip();
    }

    /** Takes settings away: stylesheets and pages get their defaults as fixed values. */
    public static Change remove(Theme theme, List<String> keys) {
        Effective defaults = ThemeBuild.defaults(theme);
        ColorUsage.Result survey = ColorUsage.of(theme);
        TreeMap<String, List<Edit>> edits = new TreeMap<>();
        Palette palette = theme.palette();
        List<String> labels = new ArrayList<>();
        for (String key : inOrderOfDependence(theme.palette(), keys)) {
            Setting s = palette.known(key);
            labels.add("“" + s.label() + "”");
            List<BoundUse> uses = survey.boundTo(key);
            for (var band : palette.bands().list()) {
                if (!uses.isEmpty()
                        && !defaults.value(s, band)
                                .equals(defaults.value(s, palette.bands().widest()))) {
                    throw new BadInputException(
                            "“" + s.label() + "” has another default for " + band.label()
                                    + ", which a fixed value cannot have.",
                            "Make it the same in all bands first.");
                }
            }
            for (BoundUse use : uses) {
                edits.computeIfAbsent(use.file(), f -> new ArrayList<>())
                        .add(new Edit(use.start(), use.end(), fixed(use, s, defaults)));
            }
            PageBinding.released(theme, key, defaults)
                    .forEach((file, list) ->
                            edits.computeIfAbsent(file, f -> new ArrayList<>()).addAll(list));
            palette = palette.without(key);
        }
        return change(
                theme,
                edits,
                palette,
                "Removed the " + (keys.size() == 1 ? "setting " : "settings ") + String.join(", ", labels));
    }

    /** Those that follow others first, so that each may go when its turn comes. */
    private static List<String> inOrderOfDependence(Palette palette, List<String> keys) {
        List<String> left = new ArrayList<>(new LinkedHashSet<>(keys));
        List<String> order = new ArrayList<>();
        while (!left.isEmpty()) {
            String next = left.stream()
                    .filter(k ->
                            palette.dependents(k).stream().map(Setting::key).allMatch(d -> order.contains(d)))
                    .findFirst()
                    .orElse(left.get(0));
            left.remove(next);
            order.add(next);
        }
        return order;
    }

    private static String fixed(BoundUse use, Setting s, Effective defaults) {
        var band = defaults.palette().bands().widest();
        // Addresses are written as the stylesheet that holds them names them.
        UnaryOperator<String> address = path -> Paths.address(Paths.relative(use.file(), path));
        String now =
                SettingSheets.properties(s, defaults.value(s, band), address).getOrDefault(use.name(), use.fallback());
        boolean same = use.name().equals(s.property())
                ? s.kind()
                        .readCss(use.fallback())
                        .filter(v -> means(v, use, s).equals(defaults.value(s, band)))
                        .isPresent()
                : ColorUsage.triple(use.fallback())
                        .map(c -> Setting.triple(c.hex()).equals(now))
                        .orElse(DrawingColors.plain(now).equals(DrawingColors.plain(use.fallback())));
        return same ? use.fallback() : now.replace("var(" + s.property() + "-picture)", address(s, defaults, address));
    }

    private static String address(Setting s, Effective defaults, UnaryOperator<String> address) {
        return SettingSheets.properties(
                        s, defaults.value(s, defaults.palette().bands().widest()), address)
                .getOrDefault(s.property() + "-picture", "none");
    }

    private static org.calmpalette.core.setting.Value means(
            org.calmpalette.core.setting.Value v, BoundUse use, Setting s) {
        return LiftedValue.resolved(v, s.kind(), use.file());
    }

    /** Gives a setting another key, in the palette and in every stylesheet and page that reads it. */
    public static Change rename(Theme theme, String key, String to) {
        Setting s = theme.palette().known(key);
        if (key.equals(to)) {
            throw new BadInputException("That is the key it has.", "Write another one.");
        }
        Palette palette = theme.palette().renamed(key, to);
        checkFree(theme, palette.known(to));
        Map<String, String> names = new TreeMap<>();
        theme.palette().properties().forEach((name, owner) -> {
            if (owner.key().equals(key)) {
                names.put(name, "--" + to + name.substring(2 + key.length()));
            }
        });
        TreeMap<String, List<Edit>> edits = new TreeMap<>();
        for (ThemeSheet part : theme.sheets()) {
            Tokens tokens = part.sheet().tokens();
            for (int i = 0; i < tokens.size(); i++) {
                if (tokens.is(i, TokenType.IDENT) && names.containsKey(tokens.value(i))) {
                    int start = part.offset() + tokens.start(i);
                    edits.computeIfAbsent(part.path(), f -> new ArrayList<>())
                            .add(new Edit(start, part.offset() + tokens.end(i), names.get(tokens.value(i))));
                }
            }
        }
        PageBinding.renamed(theme, key, to, names)
                .forEach((file, list) ->
                        edits.computeIfAbsent(file, f -> new ArrayList<>()).addAll(list));
        return change(theme, edits, palette, "“" + s.label() + "” has the key " + to + " now, it was " + key);
    }

    /** Moves a setting to stand before another one; to the end of its place if the other is empty. */
    public static Change move(Theme theme, String key, String before) {
        Palette palette = theme.palette().moved(key, before);
        if (palette.equals(theme.palette())) {
            throw new BadInputException("It stands there already.", "Move it somewhere else.");
        }
        String where = before.isEmpty()
                ? "to the end"
                : "before “" + palette.known(before).label() + "”";
        return change(theme, Map.of(), palette, "Moved “" + palette.known(key).label() + "” " + where);
    }

    /** The same change for several settings at once. */
    public static Change each(Theme theme, List<String> keys, UnaryOperator<Setting> change, Place place, String note) {
        List<Setting> all = theme.palette().settings().stream()
                .map(s -> keys.contains(s.key()) ? change.apply(s) : s)
                .toList();
        Palette palette = (place == null ? theme.palette() : theme.palette().withPlace(place)).withSettings(all);
        if (palette.equals(theme.palette())) {
            throw new BadInputException("Nothing was changed.", "Tick settings that do not have it yet.");
        }
        return change(theme, Map.of(), palette, note);
    }

    public static Change bands(Theme theme, Bands bands) {
        if (bands.equals(theme.palette().bands())) {
            throw new BadInputException("Nothing was changed.", "Change a band before you save.");
        }
        Palette palette = theme.palette().withBands(bands);
        long lost = theme.palette().settings().stream()
                        .mapToLong(s -> s.bands().size())
                        .sum()
                - palette.settings().stream().mapToLong(s -> s.bands().size()).sum();
        String note = "Bands: "
                + String.join(
                        ", ",
                        bands.list().stream()
                                .map(b -> b.label() + " " + bands.inWords(b))
                                .toList());
        return change(
                theme,
                Map.of(),
                palette,
                lost == 0
                        ? note
                        : note + "; " + lost + (lost == 1 ? " default of a band" : " defaults of bands")
                                + " went with the bands");
    }

    public static Change schemes(Theme theme, List<Scheme> schemes, String note) {
        return change(theme, Map.of(), theme.palette().withSchemes(schemes), note);
    }

    /**
     * Says what owners read of a theme in another language.
     *
     * @param tag of BCP 47
     * @param words by the text as the theme has it; those of other texts stay as they are, blank ones are taken out
     * @throws BadInputException if that is no language, a translation is too long, or nothing differs
     */
    public static Change translated(Theme theme, String tag, Map<String, String> words) {
        Translations before = theme.palette().translations();
        Map<String, String> all = new LinkedHashMap<>(before.texts().getOrDefault(tag, Map.of()));
        words.forEach((text, word) -> {
            int longest = theme.palette().longest(text);
            if (word.strip().length() > longest) {
                throw new BadInputException(
                        "“" + word.strip().substring(0, 40) + "…” has more than " + longest + " characters.",
                        "Say it in fewer words.");
            }
            if (word.isBlank()) {
                all.remove(text);
            } else {
                all.put(text, word.strip());
            }
        });
        Translations after = before.with(tag, all);
        if (after.equals(before)) {
            throw new BadInputException("Nothing was changed.", "Write what a text is called in that language.");
        }
        return change(
                theme,
                Map.of(),
                theme.palette().withTranslations(after),
                "Texts in " + Locale.forLanguageTag(tag).getDisplayName(Locale.ENGLISH) + ": " + all.size());
    }

    /** What changed of a value: of one that has parts, those that did. */
    private static String changed(Kind kind, Effective was, Effective is, Setting before, Setting after, Band band) {
        if (kind.equals(after.kind())
                && was.value(before, band) instanceof Value.Parts from
                && is.value(after, band) instanceof Value.Parts to
                && from.parts().keySet().equals(to.parts().keySet())
                && !from.has("unit")) {
            List<String> parts = new ArrayList<>();
            from.parts().forEach((name, v) -> {
                Value now = to.part(name).orElseThrow();
                if (!v.equals(now) && parts.size() < MOST_PARTS) {
                    boolean nested = v instanceof Value.Many || v instanceof Value.Parts n && !n.has("unit");
                    parts.add(CompositeKind.said(name) + (nested ? "" : " " + plain(v) + " to " + plain(now)));
                }
            });
            return String.join(", ", parts);
        }
        return was.words(before, band) + " to " + is.words(after, band);
    }

    private static final int MOST_PARTS = 4;

    private static String plain(Value v) {
        if (v instanceof Value.Text t) {
            return t.text().isEmpty() ? "none" : t.text();
        }
        if (v instanceof Value.Number n) {
            return n.number().toPlainString();
        }
        if (v instanceof Value.Flag f) {
            return f.on() ? "yes" : "no";
        }
        Value.Parts length = (Value.Parts) v;
        return length.number("value").toPlainString() + length.text("unit");
    }

    /** @throws BadInputException if stylesheets declare one of the setting's custom properties themselves */
    public static void checkFree(Theme theme, Setting setting) {
        Palette alone = new Palette(
                "",
                theme.palette().bands(),
                List.of(),
                List.of(setting.withGiven(new org.calmpalette.core.setting.Given.Fixed(
                                setting.kind().initial()))
                        .withBands(Map.of())
                        .withShown(null)),
                List.of(),
                List.of());
        for (String property : alone.properties().keySet()) {
            Setting owner = theme.palette().properties().get(property);
            if (owner != null
                    && !owner.key().equals(setting.key())
                    && !setting.former().contains(owner.key())) {
                throw new BadInputException(
                        "The setting “" + owner.label() + "” uses " + property + " already.", "Choose another key.");
            }
            String declared = owner == null ? declaredAt(theme, property) : "";
            if (!declared.isEmpty()) {
                throw new BadInputException(
                        "The stylesheets use " + property + " for something of their own" + declared + ".",
                        "Choose another key.");
            }
        }
    }

    private static String declaredAt(Theme theme, String property) {
        List<String> found = new ArrayList<>();
        for (ThemeSheet part : theme.declaring()) {
            part.sheet().eachDeclaration((d, around) -> {
                if (d.property().equals(property) && found.isEmpty()) {
                    found.add(": " + part.path() + ", line "
                            + part.line(part.sheet().tokens().start(d.first())));
                }
            });
        }
        return found.isEmpty() ? "" : found.get(0);
    }

    private static Change change(Theme theme, Map<String, List<Edit>> edits, Palette palette, String note) {
        return Change.of(note).with(edits).withPalette(theme, palette);
    }

    /** @throws BadInputException if a default or a scheme holds what is not allowed, and did not hold it before */
    public static void check(Theme theme, Palette palette) {
        List<Trouble> troubles = troubles(theme, palette);
        if (!troubles.isEmpty()) {
            throw troubles.get(0).said();
        }
    }

    /**
     * What a palette would hold though it is not allowed.
     *
     * @param key of the setting
     * @param why it is not allowed
     * @param said the same in words, with what mends it
     */
    record Trouble(String key, Refusal why, BadInputException said) {}

    /** Defaults and values of schemes that are not allowed and were not there before. */
    static List<Trouble> troubles(Theme theme, Palette palette) {
        List<Trouble> all = new ArrayList<>();
        Set<String> before = new LinkedHashSet<>();
        ThemeBuild.defaults(theme)
                .problems()
                .forEach(p -> before.add(p.setting().key() + " " + p.band().key()));
        for (Effective.Problem p : Effective.defaults(palette, theme.media()).problems()) {
            if (!before.contains(p.setting().key() + " " + p.band().key())) {
                boolean everywhere = p.source() == Effective.Source.MAKER;
                all.add(new Trouble(
                        p.setting().key(),
                        p.why(),
                        new BadInputException(
                                "“" + p.setting().label() + "”: the default "
                                        + (everywhere ? "" : "for " + p.band().label() + " ")
                                        + p.setting().kind().words(p.value())
                                        + " is not among what an owner may choose. "
                                        + p.why().words(),
                                "Allow it, or take another default.")));
            }
        }
        for (Scheme scheme : palette.schemes()) {
            List<LeftOut> good = theme.palette().schemes().contains(scheme)
                    ? Effective.of(theme.palette(), scheme.values(), theme.media())
                            .leftOut()
                    : List.of();
            for (LeftOut left :
                    Effective.of(palette, scheme.values(), theme.media()).leftOut()) {
                if (!good.contains(left)) {
                    all.add(new Trouble(
                            left.key(),
                            left.why(),
                            new BadInputException(
                                    "The scheme “" + scheme.label() + "” sets " + left.key() + " to " + left.value()
                                            + ", which would not be allowed. "
                                            + left.why().words(),
                                    "Change the scheme, or allow the value.")));
                }
            }
        }
        return all;
    }
}

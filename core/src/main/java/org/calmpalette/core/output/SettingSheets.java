package org.calmpalette.core.output;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.UnaryOperator;
import org.calmpalette.core.page.Paths;
import org.calmpalette.core.setting.Band;
import org.calmpalette.core.setting.Bands;
import org.calmpalette.core.setting.ColorKind;
import org.calmpalette.core.setting.Effective;
import org.calmpalette.core.setting.Palette;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.setting.Value;

/**
 * The two stylesheets that carry settings. A custom property stands in {@code :root}; where bands differ, it stands once
 * more in a media query for exactly those window widths. Addresses of pictures go through registered custom properties
 * (CSS Properties and Values API Level 1, syntax {@code <url>}): only those mean the same file in whichever stylesheet they
 * are read.
 */
public final class SettingSheets {
    static final String HEAD =
            "/* Made by Calm Palette from palette.json. It is made anew at every build: change palette.json instead. */\n";
    static final String NONE = "/* No choice differs from the defaults. */\n";

    private SettingSheets() {}

    /** The defaults of all settings, to be loaded before the theme's own stylesheets. */
    static String settings(Effective defaults, boolean pagesAreBound) {
        Palette palette = defaults.palette();
        StringBuilder out = new StringBuilder(HEAD).append(registered(palette));
        Band widest = palette.bands().widest();
        Map<String, String> base = properties(defaults, widest, Paths::address);
        out.append(":root {\n");
        base.forEach((name, value) -> declare(out, "  ", name, value));
        out.append("}\n");
        for (Band band : palette.bands().list()) {
            Map<String, String> here = properties(defaults, band, Paths::address);
            here.entrySet().removeIf(e -> e.getValue().equals(base.get(e.getKey())));
            block(out, palette.bands().media(Set.of(band.key())), here);
        }
        if (pagesAreBound) {
            out.append(pageRules(palette.bands()));
        }
        return named(out.toString());
    }

    /** Names the encoding where it matters: without it a sheet is read in the encoding of the page that links it. */
    private static String named(String css) {
        return css.chars().allMatch(c -> c < 0x80) ? css : "@charset \"utf-8\";\n" + css;
    }

    private static String registered(Palette palette) {
        StringBuilder out = new StringBuilder();
        for (Setting s : palette.settings()) {
            for (String suffix : s.kind().addresses()) {
                out.append("@property ")
                        .append(s.property())
                        .append(suffix)
                        .append(" {\n  syntax: \"<url> | none\";\n  inherits: true;\n  initial-value: none;\n}\n");
            }
        }
        return out.toString();
    }

    /** Only what differs from the defaults, for the window widths at which it does. */
    static String choices(Effective defaults, Effective chosen) {
        String css = differences(defaults, chosen, Paths::address);
        return css.isEmpty() ? NONE : named(css);
    }

    private static String differences(Effective defaults, Effective chosen, UnaryOperator<String> address) {
        Bands bands = chosen.palette().bands();
        Map<String, Map<String, Set<String>>> differing = new LinkedHashMap<>();
        for (Band band : bands.list()) {
            Map<String, String> before = properties(defaults, band, address);
            properties(chosen, band, address).forEach((name, value) -> {
                if (!value.equals(before.get(name))) {
                    differing
                            .computeIfAbsent(name, n -> new LinkedHashMap<>())
                            .computeIfAbsent(value, v -> new LinkedHashSet<>())
                            .add(band.key());
                }
            });
        }
        // In the order of the settings, whichever band comes first.
        Map<Set<String>, Map<String, String>> blocks = new LinkedHashMap<>();
        for (String name : properties(chosen, bands.widest(), address).keySet()) {
            differing.getOrDefault(name, Map.of()).forEach((value, keys) -> blocks.computeIfAbsent(
                            keys, k -> new LinkedHashMap<>())
                    .put(name, value));
        }
        List<Set<String>> order = new ArrayList<>(blocks.keySet());
        order.sort(Comparator.<Set<String>>comparingInt(k -> -k.size()).thenComparing(k -> bands.media(k)));
        StringBuilder out = new StringBuilder();
        order.forEach(keys -> block(out, bands.media(keys), blocks.get(keys)));
        return out.toString();
    }

    private static void block(StringBuilder out, String media, Map<String, String> declarations) {
        if (declarations.isEmpty()) {
            return;
        }
        String indent = media.isEmpty() ? "" : "  ";
        if (!media.isEmpty()) {
            out.append("@media ").append(media).append(" {\n");
        }
        out.append(indent).append(":root {\n");
        declarations.forEach((name, value) -> declare(out, indent + "  ", name, value));
        out.append(indent).append("}\n").append(media.isEmpty() ? "" : "}\n");
    }

    private static void declare(StringBuilder out, String indent, String name, String value) {
        out.append(indent).append(name).append(": ").append(value).append(";\n");
    }

    /** All custom properties in a band, in the order of the settings. */
    private static Map<String, String> properties(Effective values, Band band, UnaryOperator<String> address) {
        Map<String, String> all = new LinkedHashMap<>();
        values.palette().settings().forEach(s -> all.putAll(properties(s, values.value(s, band), address)));
        return all;
    }

    /**
     * The custom properties of one setting.
     *
     * @param address makes the address to write from a path in the theme
     */
    public static Map<String, String> properties(Setting s, Value value, UnaryOperator<String> address) {
        Map<String, String> all = new LinkedHashMap<>();
        Map<String, String> css = s.kind().css(value, address);
        // The whole value comes first: it is what a reader of the file looks for.
        if (css.containsKey("")) {
            all.put(s.property(), css.get("").replace("var(@", "var(" + s.property()));
        }
        new TreeMap<>(css).forEach((suffix, text) -> all.putIfAbsent(s.property() + suffix, text));
        if (s.triple() && s.kind() instanceof ColorKind) {
            all.put(s.tripleProperty(), Setting.triple(s.kind().words(value)));
        }
        for (int i = 0; i < s.drawings().size(); i++) {
            all.put(s.drawingProperty(i), s.drawings().get(i).css(s.kind().words(value)));
        }
        return all;
    }

    /**
     * What a page that is open gets while values are tried: everything at one window width, in one rule.
     *
     * @param address makes the address to write from a path in the theme
     */
    public static String trial(Effective values, Band band, UnaryOperator<String> address) {
        StringBuilder out = new StringBuilder(registered(values.palette()));
        block(out, "", properties(values, band, address));
        return out.toString();
    }

    /** Of that, only what differs from other values. */
    public static String trial(Effective from, Effective values, Band band, UnaryOperator<String> address) {
        Map<String, String> before = properties(from, band, address);
        Map<String, String> here = properties(values, band, address);
        here.entrySet().removeIf(e -> e.getValue().equals(before.get(e.getKey())));
        StringBuilder out = new StringBuilder();
        block(out, "", here);
        return out.toString();
    }

    /** Parts of pages that are shown in some bands only; see {@link BoundPage}. */
    private static String pageRules(Bands bands) {
        StringBuilder out = new StringBuilder();
        for (Band band : bands.list()) {
            String media = bands.media(Set.of(band.key()));
            String rule = "[" + BoundPage.IN + "]:not([" + BoundPage.IN + "~=\"" + band.key() + "\"]), ["
                    + BoundPage.HIDDEN + "~=\"" + band.key() + "\"] {\n%1$s  display: none !important;\n%1$s}\n";
            out.append(
                    media.isEmpty() ? rule.formatted("") : "@media " + media + " {\n  " + rule.formatted("  ") + "}\n");
        }
        return out.toString();
    }
}

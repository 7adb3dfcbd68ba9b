package org.calmpalette.core.output;

import java.nio.charset.StandardCharsets;
import java.util.Map;
import java.util.Set;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.stream.Collectors;
import org.calmpalette.core.page.Paths;
import org.calmpalette.core.setting.Chosen;
import org.calmpalette.core.setting.Effective;
import org.calmpalette.core.setting.Setting;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.ThemeFiles;

/** The package that a maker gives away: a theme that needs nothing of Calm Palette to run. */
public final class Handover {
    private Handover() {}

    /**
     * All files of the handover.
     *
     * @param values an owner's choices, or null for the theme with its defaults
     */
    public static ThemeFiles files(Theme theme, Map<String, Chosen> values) {
        SortedMap<String, byte[]> made =
                new TreeMap<>(ThemeBuild.build(theme, values).files());
        String readme = theme.files().has("README.txt") ? "README-settings.txt" : "README.txt";
        made.put(readme, readme(theme).getBytes(StandardCharsets.UTF_8));
        // What sections were made from is of no use to a site; the theme keeps it, and it goes to other themes as a
        // zip.
        Set<String> sources = theme.files().paths().stream()
                .filter(p -> Theme.isOfSection(theme.files(), p))
                .collect(Collectors.toSet());
        return ThemeFiles.overlaid(theme.files(), made, sources);
    }

    private static String readme(Theme theme) {
        Effective defaults = ThemeBuild.defaults(theme);
        StringBuilder out = new StringBuilder();
        out.append(theme.palette().name())
                .append("\n")
                .append("=".repeat(theme.palette().name().length()))
                .append(
                        """


        Put it on a web server
        ----------------------
        Copy all files into the folder that your web server shows, keeping the folders as they are. Nothing has to be
        installed and nothing runs on the server. To look at it first, open index.html in a browser.

        What is what
        ------------
        settings.css   the defaults of the settings below; loaded before the theme's own stylesheets
        palette.css    what differs from the defaults on this site; loaded last, so it wins
        palette.json   the settings with their labels and what may be chosen

        Every page links settings.css before its first stylesheet and palette.css after its last. A page that you add
        needs the same two links.

        Change a setting
        ----------------
        Write it into palette.css, for example:

        """);
        String example = theme.palette().settings().stream()
                .filter(s -> !s.kind()
                        .css(defaults.value(s, theme.palette().bands().widest()), a -> a)
                        .isEmpty())
                .findFirst()
                .map(s -> ":root {\n" + example(s, defaults) + "}\n")
                .orElse(":root {\n}\n(This theme has no settings yet.)\n");
        out.append(example).append("\nThe settings\n------------\n");
        for (Setting s : theme.palette().settings()) {
            out.append(s.property())
                    .append("\n  ")
                    .append(s.label())
                    .append(" (")
                    .append(theme.palette().placeLabel(s.place()))
                    .append("), default ")
                    .append(inBands(s, defaults))
                    .append(", allowed: ")
                    .append(s.kind().inWords())
                    .append("\n");
            if (!s.help().isEmpty()) {
                out.append("  ").append(s.help()).append("\n");
            }
        }
        return out.toString();
    }

    private static String example(Setting s, Effective defaults) {
        StringBuilder out = new StringBuilder();
        SettingSheets.properties(s, defaults.value(s, defaults.palette().bands().widest()), Paths::address)
                .forEach((name, value) ->
                        out.append("  ").append(name).append(": ").append(value).append(";\n"));
        return out.toString();
    }

    private static String inBands(Setting s, Effective defaults) {
        StringBuilder out =
                new StringBuilder(defaults.words(s, defaults.palette().bands().widest()));
        s.bands().keySet().forEach(k -> defaults.palette()
                .bands()
                .band(k)
                .ifPresent(b -> out.append("; ").append(b.label()).append(' ').append(defaults.words(s, b))));
        return out.toString();
    }
}

package org.calmpalette.core.section;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.TreeMap;
import org.calmpalette.core.css.Edit;
import org.calmpalette.core.setting.ColorKey;
import org.calmpalette.core.setting.ColorKind;
import org.calmpalette.core.setting.Value;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.ThemeFiles;
import org.calmpalette.core.usage.ColorProperties;
import org.calmpalette.core.usage.ColorRow;
import org.calmpalette.core.usage.ColorUsage;
import org.calmpalette.core.usage.ColorUse;

/** The colours of a section that is made of a part of a page, each a setting. */
final class SectionColors {
    private static final String CSS = "s.css";

    private SectionColors() {}

    /** What a colour is called by what it paints. @param key of its setting */
    private record Named(String key, String label) {
        static Named of(String role) {
            return switch (role) {
                case "text" -> new Named("ink", "Colour of words");
                case "fill" -> new Named("ground", "Ground");
                case "icon" -> new Named("icon", "Colour of icons");
                case "shadow" -> new Named("shadow", "Shadow");
                default -> new Named("line", "Lines");
            };
        }
    }

    /** The rules with their colours read from settings. @param settings to which those are added */
    static String lifted(String css, String html, NewSettings settings) {
        TreeMap<String, byte[]> files = new TreeMap<>();
        files.put(
                "index.html",
                ("<!doctype html><link rel=stylesheet href=" + CSS + ">" + html).getBytes(StandardCharsets.UTF_8));
        files.put(CSS, css.getBytes(StandardCharsets.UTF_8));
        Theme alone = Theme.read(ThemeFiles.of(files), "section");
        List<Edit> edits = new ArrayList<>();
        for (ColorRow row : ColorUsage.of(alone).rows()) {
            List<ColorUse> uses = row.uses().stream()
                    .filter(u -> u.isLiftable()
                            && !u.triple()
                            && !u.fallback()
                            && u.file().equals(CSS))
                    .toList();
            if (uses.isEmpty() || row.color().alpha() == 0) {
                continue;
            }
            Named named = Named.of(ColorProperties.role(uses.get(0).property()));
            String number = settings.free(named.key()).replaceFirst("^[a-z]+-?", "");
            String key = settings.add(
                    named.key(),
                    named.label() + (number.isEmpty() ? "" : " " + number),
                    ColorKind.ANY,
                    Value.of(ColorKey.of(row.color())));
            uses.forEach(u -> edits.add(new Edit(u.start(), u.end(), "var(--" + key + ", " + u.written() + ")")));
        }
        edits.sort(Comparator.comparingInt(Edit::start));
        return new String(alone.sheets().get(0).file().withEdits(edits), StandardCharsets.UTF_8);
    }
}

package org.calmpalette.core.output;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.stream.Collectors;
import org.calmpalette.core.css.Edit;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.page.StartTag;
import org.calmpalette.core.setting.Band;
import org.calmpalette.core.setting.Bands;
import org.calmpalette.core.setting.Chosen;
import org.calmpalette.core.setting.Effective;
import org.calmpalette.core.setting.LeftOut;
import org.calmpalette.core.setting.Palette;
import org.calmpalette.core.setting.PaletteJson;
import org.calmpalette.core.theme.Theme;
import org.jsoup.nodes.Element;

/** Makes what goes out of the workshop: a theme with its defaults, and an owner's choices as one small stylesheet. */
public final class ThemeBuild {
    private ThemeBuild() {}

    /**
     * The files that the build adds to the theme or writes in their stead.
     *
     * @param leftOut values that no setting takes; the build goes on without them
     */
    public record Result(SortedMap<String, byte[]> files, List<LeftOut> leftOut) {}

    /** The values that hold while nobody has chosen anything. */
    public static Effective defaults(Theme theme) {
        return Effective.defaults(theme.palette(), theme.media());
    }

    /** The values that hold with an owner's choices. */
    public static Effective chosen(Theme theme, Map<String, Chosen> choices) {
        return Effective.of(theme.palette(), choices, theme.media());
    }

    /** The defaults of all settings, to be loaded before the theme's own stylesheets. */
    public static String settingsCss(Theme theme) {
        return SettingSheets.settings(defaults(theme), theme.pages().stream().anyMatch(BoundPage::isBound));
    }

    /** An owner's choices: only what differs from the defaults, in the order of the settings. */
    public static String paletteCss(Theme theme, Map<String, Chosen> choices) {
        return SettingSheets.choices(defaults(theme), chosen(theme, choices));
    }

    /**
     * Builds a theme.
     *
     * @param choices an owner's choices by key, or null to leave {@code palette.css} as the theme has it
     */
    public static Result build(Theme theme, Map<String, Chosen> choices) {
        TreeMap<String, byte[]> files = new TreeMap<>();
        Effective values = choices == null ? defaults(theme) : chosen(theme, choices);
        for (Page page : theme.pages()) {
            files.put(page.source().file(), finished(page, values));
        }
        files.put(Theme.SETTINGS_CSS, utf8(settingsCss(theme)));
        if (choices != null || !theme.files().has(Theme.PALETTE_CSS)) {
            files.put(Theme.PALETTE_CSS, utf8(SettingSheets.choices(defaults(theme), values)));
        }
        if (!theme.files().has(Palette.FILE)) {
            files.put(Palette.FILE, PaletteJson.write(theme.palette(), null));
        }
        return new Result(files, values.leftOut());
    }

    /** The page's bytes with its bound parts filled, and with links to {@code settings.css} and {@code palette.css}. */
    public static byte[] finished(Page page, Effective values) {
        Page filled = BoundPage.edits(page, values).isEmpty()
                ? page
                : Page.read(page.source().file(), filled(page, values));
        List<Edit> edits = new ArrayList<>(PageLinks.edits(filled));
        edits.addAll(Candidates.edits(filled, values.media()));
        edits.sort(java.util.Comparator.comparingInt(Edit::start));
        return filled.source().withEdits(edits);
    }

    /**
     * A page for visitors: what is switched off at every width stays as an empty part that nobody sees, so that nothing around it
     * changes, and has nothing in it that a browser would load. Only for what is made anew from the theme each time.
     *
     * @param finished as {@link #finished} made it
     */
    public static Page lean(Page finished, Bands bands) {
        Set<String> all = bands.list().stream().map(Band::key).collect(Collectors.toSet());
        List<Edit> edits = new ArrayList<>();
        int end = 0;
        for (Element e : finished.document().select("[" + BoundPage.HIDDEN + "]")) {
            boolean off = Set.of(e.attr(BoundPage.HIDDEN).split(" ")).containsAll(all);
            if (!off || !e.sourceRange().isTracked() || e.sourceRange().startPos() < end) {
                continue;
            }
            int from = e.sourceRange().startPos();
            int inner = e.sourceRange().endPos();
            String tag = finished.source().text().substring(from, inner);
            String empty = new StartTag(tag)
                    .without("src")
                    .without("srcset")
                    .without("poster")
                    .text();
            if (!empty.equals(tag)) {
                edits.add(new Edit(from, inner, empty));
            }
            end = finished.inside(e).map(Page.Span::end).orElse(inner);
            if (end > inner) {
                edits.add(new Edit(inner, end, ""));
            }
        }
        return edits.isEmpty()
                ? finished
                : Page.read(finished.source().file(), finished.source().withEdits(edits));
    }

    /** The page's bytes with its bound parts filled, and nothing else. */
    public static byte[] filled(Page page, Effective values) {
        List<Edit> edits = BoundPage.edits(page, values);
        return edits.isEmpty() ? page.source().bytes() : page.source().withEdits(edits);
    }

    private static byte[] utf8(String text) {
        return text.getBytes(StandardCharsets.UTF_8);
    }
}

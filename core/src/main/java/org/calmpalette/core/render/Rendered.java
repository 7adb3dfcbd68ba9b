package org.calmpalette.core.render;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.calmpalette.core.cascade.PageStyles;
import org.calmpalette.core.css.SourceText;
import org.calmpalette.core.css.Stylesheet;
import org.calmpalette.core.css.selector.States;
import org.calmpalette.core.output.ThemeBuild;
import org.calmpalette.core.page.Page;
import org.calmpalette.core.setting.Chosen;
import org.calmpalette.core.setting.Effective;
import org.calmpalette.core.theme.Theme;
import org.calmpalette.core.theme.ThemeSheet;
import org.calmpalette.core.value.Viewport;

/** A theme as browsers show it, for any values of its settings: each page with its stylesheets, the defaults before and the choices after them. */
public final class Rendered {
    private final Theme theme;
    private final Map<String, Chosen> choices;
    /** Bytes of a linked file that is no stylesheet by its name. */
    private static final long LARGEST_OTHER = 500_000;

    private final PageStyles.Library library;
    private final Map<String, ThemeSheet> sheets = new HashMap<>();

    /** With the defaults of its settings, and the choices that the theme itself carries. */
    public Rendered(Theme theme) {
        this(theme, null);
    }

    /**
     * With an owner's choices.
     *
     * @param choices by key; null for those that the theme carries in {@code palette.css}
     */
    public Rendered(Theme theme, Map<String, Chosen> choices) {
        this.theme = theme;
        this.choices = choices == null ? null : Map.copyOf(choices);
        theme.sheets().stream().filter(p -> p.offset() == 0).forEach(p -> sheets.put(p.path(), p));
        boolean hasChoices = choices != null || theme.files().has(Theme.PALETTE_CSS);
        library = new PageStyles.Library(
                this::sheet, List.of(Theme.SETTINGS_CSS), hasChoices ? List.of(Theme.PALETTE_CSS) : List.of());
    }

    private Optional<Stylesheet> sheet(String path) {
        if (path.equals(Theme.SETTINGS_CSS)) {
            return Optional.of(Stylesheet.read(SourceText.of(path, ThemeBuild.settingsCss(theme))));
        }
        if (path.equals(Theme.PALETTE_CSS) && choices != null) {
            return Optional.of(Stylesheet.read(SourceText.of(path, ThemeBuild.paletteCss(theme, choices))));
        }
        ThemeSheet own = sheets.get(path);
        if (own != null) {
            return Optional.of(own.sheet());
        }
        if (!theme.files().has(path)) {
            return Optional.empty();
        }
        // What is not looked at counts as empty, and so does a large file that is linked under another name.
        boolean read = theme.aside(path).isEmpty() && theme.files().size(path) <= LARGEST_OTHER;
        return Optional.of(
                read ? Stylesheet.read(path, theme.files().read(path)) : Stylesheet.read(SourceText.of(path, "")));
    }

    /** The stylesheet of the choices, the owner's or those that the theme carries; empty if there are none. */
    Optional<Stylesheet> chosen() {
        return choices != null || theme.files().has(Theme.PALETTE_CSS) ? sheet(Theme.PALETTE_CSS) : Optional.empty();
    }

    /** What settings hold: the choices, or else the defaults. */
    Effective values() {
        return choices == null ? ThemeBuild.defaults(theme) : ThemeBuild.chosen(theme, choices);
    }

    public Theme theme() {
        return theme;
    }

    public PageStyles.Library library() {
        return library;
    }

    public PageStyles styles(Page page, Viewport window, States states) {
        return library.of(page).in(window, states);
    }

    /** Paths of the theme's own stylesheets that a page loads, in order. */
    public List<String> loaded(Page page) {
        return library.loaded(page).stream().filter(p -> !Theme.isGenerated(p)).toList();
    }

    /** A page by its path; empty if there is none. */
    public Optional<Page> page(String path) {
        return theme.pages().stream()
                .filter(p -> p.source().file().equals(path))
                .findFirst();
    }
}

package org.calmpalette.app.survey;

import org.calmpalette.app.accounts.SignedIn;
import org.calmpalette.app.themes.Snapshot;
import org.calmpalette.app.themes.ThemeService;
import org.calmpalette.app.web.Go;
import org.calmpalette.app.web.Notices;
import org.calmpalette.core.change.SheetRole;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** Whose a stylesheet is, said by its maker where its signs tell it wrongly. */
@Controller
@RequestMapping("/themes/{id}/sheets")
class SheetController {
    private final ThemeService themes;
    private final Notices notices;

    SheetController(ThemeService themes, Notices notices) {
        this.themes = themes;
        this.notices = notices;
    }

    /** @param whose {@code maker}, {@code library}, or nothing for what the signs tell */
    @PostMapping
    String say(
            @PathVariable long id,
            @RequestParam long base,
            @RequestParam(defaultValue = "") String path,
            @RequestParam(defaultValue = "") String whose,
            @AuthenticationPrincipal SignedIn me) {
        Snapshot made = themes.change(id, base, me, theme -> SheetRole.said(theme, path, whose));
        notices.done(made.note());
        return Go.to("/themes/" + id + "/survey?view=search");
    }
}
